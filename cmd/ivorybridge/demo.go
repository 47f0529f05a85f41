package main

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/demo"
	"ivorybridge/store"
)

func demoCommand() *cobra.Command {
	var o settings
	var fresh, fillOnly bool
	cmd := &cobra.Command{
		Use: "demo", Short: "Serve an invented practice from a database of its own", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if err := prepareDemo(cmd.Context(), o.database, fresh, time.Now()); err != nil {
				return err
			}
			if fillOnly {
				return nil
			}
			o.demoUser = demo.User
			return o.serve(cmd.Context(), cmd.OutOrStdout())
		},
	}
	o.flags(cmd, filepath.Join("demo-data", "demo.db"))
	cmd.Flags().BoolVar(&fresh, "fresh", false, "make the demo database anew, as of today")
	cmd.Flags().BoolVar(&fillOnly, "fill-only", false, "make the database and stop")
	return cmd
}

// prepareDemo fills the demo database if it is not there, or afresh. Only a
// database that the demo made is ever replaced.
func prepareDemo(ctx context.Context, path string, fresh bool, now time.Time) error {
	if fresh {
		if err := clearDemo(ctx, path, now); err != nil {
			return err
		}
	}
	db, err := store.Open(ctx, path, now)
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	if empty, err := db.Empty(ctx); err != nil || !empty {
		return err
	}
	catalog, err := yaml.Shipped()
	if err != nil {
		return err
	}
	if err := demo.Fill(ctx, db, catalog, now); err != nil {
		return fmt.Errorf("filling the demo: %w", err)
	}
	return nil
}

func clearDemo(ctx context.Context, path string, now time.Time) error {
	if _, err := os.Stat(path); errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	db, err := store.Open(ctx, path, now)
	if err != nil {
		return err
	}
	p, err := db.FirstPractice(ctx)
	if closeErr := db.Close(); closeErr != nil {
		return closeErr
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	if err == nil && p.Name != demo.Practice {
		return fmt.Errorf("%s holds another practice than the demo's: name another file with --database", path)
	}
	for _, side := range []string{"", "-wal", "-shm"} {
		if err := os.Remove(path + side); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return fmt.Errorf("clearing the old demo: %w", err)
		}
	}
	return nil
}

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
	o := settings{command: "demo"}
	var fresh, fillOnly bool
	var size demo.Size
	cmd := &cobra.Command{
		Use: "demo", Short: "Serve an invented practice from a database of its own", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if err := prepareDemo(cmd.Context(), o.database, fresh, size, time.Now()); err != nil {
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
	cmd.Flags().IntVar(&size.Horses, "horses", 0, "invent a practice with so many horses in place of the told one")
	cmd.Flags().IntVar(&size.Sessions, "sessions", 12, "sessions of each invented horse")
	cmd.Flags().IntVar(&size.Entries, "entries", 40, "entries of each invented session, about")
	cmd.Flags().Uint64Var(&size.Seed, "seed", 1, "the same seed and day make the same practice")
	return cmd
}

// prepareDemo fills the demo database if it is not there, or afresh. Only a
// database that the demo made is ever replaced.
func prepareDemo(ctx context.Context, path string, fresh bool, size demo.Size, now time.Time) error {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return fmt.Errorf("making the folder of the demo: %w", err)
	}
	serving, err := store.Serve(path, "ivorybridge demo, which fills it", now)
	if err != nil {
		return err
	}
	defer func() { _ = serving.End() }()
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
	if size.Horses > 0 {
		err = demo.Invent(ctx, db, catalog, now, size)
	} else {
		err = demo.Fill(ctx, db, catalog, now)
	}
	if err != nil {
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

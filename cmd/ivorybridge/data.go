package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"os"
	"time"

	"github.com/spf13/cobra"

	"ivorybridge/cmd/ivorybridge/describe"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/server"
	"ivorybridge/store"
	"ivorybridge/web"
)

func backupCommand() *cobra.Command {
	var database string
	cmd := &cobra.Command{
		Use: "backup FILE", Short: "Copy the database to a new file, also while it is in use", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			pictures, err := store.Backup(cmd.Context(), database, args[0])
			if err != nil {
				return err
			}
			if err := say(cmd.OutOrStdout(), "The copy is at %s, %s.\n", args[0], told(pictures)); err != nil || pictures.Missing == 0 {
				return err
			}
			return errors.New("photographs are missing, or are not what was kept: look for them in an older copy; all else is in this one")
		},
	}
	databaseFlag(cmd, &database)
	return cmd
}

func restoreCommand() *cobra.Command {
	var database string
	cmd := &cobra.Command{
		Use: "restore FILE", Short: "Put a copy in the place of the database; stop the server first", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			put, err := store.Restore(cmd.Context(), args[0], database, time.Now())
			if err != nil {
				return err
			}
			if put.Kept != "" {
				if err := say(cmd.OutOrStdout(), "What was there is kept at %s.\n", put.Kept); err != nil {
					return err
				}
			}
			return say(cmd.OutOrStdout(), "The copy is in place at %s, %s.\n", database, told(put.Pictures))
		},
	}
	databaseFlag(cmd, &database)
	return cmd
}

// told is what there is of the photographs, in words.
func told(p store.Pictures) string {
	switch {
	case p.All == 0:
		return "without photographs: there are none"
	case p.Missing > 0:
		return fmt.Sprintf("with %d of %d photographs: %d are missing", p.All-p.Missing, p.All, p.Missing)
	}
	return fmt.Sprintf("with all of its photographs: %d", p.All)
}

func refoldCommand() *cobra.Command {
	var database string
	cmd := &cobra.Command{
		Use: "refold", Short: "Throw away what is kept of past sessions for speed, and make it again from their tracks", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return refold(cmd.Context(), database, cmd.OutOrStdout())
		},
	}
	databaseFlag(cmd, &database)
	return cmd
}

func refold(ctx context.Context, database string, out io.Writer) error {
	catalog, err := yaml.Shipped()
	if err != nil {
		return err
	}
	db, err := store.Open(ctx, database, time.Now())
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	log := slog.New(slog.NewTextHandler(os.Stderr, nil))
	s, err := server.New(server.Config{Store: db, Catalog: catalog, Web: os.DirFS("."), Now: time.Now, Log: log, Version: build()})
	if err != nil {
		return err
	}
	if err := db.DropFolds(ctx); err != nil {
		return err
	}
	horses := 0
	if err := s.Fold(ctx, func(done, _ int) { horses = done }); err != nil {
		return err
	}
	return say(out, "The past sessions of %d horses are folded anew.\n", horses)
}

func openAPICommand() *cobra.Command {
	return &cobra.Command{
		Use: "openapi", Short: "Print the description of the API", Args: cobra.NoArgs, Hidden: true,
		RunE: func(cmd *cobra.Command, _ []string) error {
			catalog, err := yaml.Shipped()
			if err != nil {
				return err
			}
			files, err := web.Files()
			if err != nil {
				return err
			}
			s, err := server.New(server.Config{Catalog: catalog, Web: files, Now: time.Now, Version: "1"})
			if err != nil {
				return err
			}
			text, err := s.OpenAPI()
			if err != nil {
				return fmt.Errorf("describing the API: %w", err)
			}
			return say(cmd.OutOrStdout(), "%s\n", text)
		},
	}
}

func ladderSchemaCommand() *cobra.Command {
	return &cobra.Command{
		Use: "ladder-schema", Short: "Print the JSON Schema of a ladder's file", Args: cobra.NoArgs, Hidden: true,
		RunE: func(cmd *cobra.Command, _ []string) error { return describe.LadderSchema(cmd.OutOrStdout()) },
	}
}

func databaseFlag(cmd *cobra.Command, into *string) {
	cmd.Flags().StringVar(into, "database", env("IVORYBRIDGE_DATABASE", "ivorybridge.db"), "path of the database file")
}

func say(out io.Writer, format string, args ...any) error {
	_, err := fmt.Fprintf(out, format, args...)
	return err
}

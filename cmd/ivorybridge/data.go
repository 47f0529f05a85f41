package main

import (
	"fmt"
	"io"
	"time"

	"github.com/spf13/cobra"

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
			if err := store.Backup(cmd.Context(), database, args[0]); err != nil {
				return err
			}
			return say(cmd.OutOrStdout(), "The copy is at %s.\n", args[0])
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
			kept, err := store.Restore(cmd.Context(), args[0], database, time.Now())
			if err != nil {
				return err
			}
			if kept != "" {
				if err := say(cmd.OutOrStdout(), "What was there is kept at %s.\n", kept); err != nil {
					return err
				}
			}
			return say(cmd.OutOrStdout(), "The copy is in place at %s.\n", database)
		},
	}
	databaseFlag(cmd, &database)
	return cmd
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

func databaseFlag(cmd *cobra.Command, into *string) {
	cmd.Flags().StringVar(into, "database", env("IVORYBRIDGE_DATABASE", "ivorybridge.db"), "path of the database file")
}

func say(out io.Writer, format string, args ...any) error {
	_, err := fmt.Fprintf(out, format, args...)
	return err
}

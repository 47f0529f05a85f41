package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"ivorybridge/server/house"
	"ivorybridge/store"
	"ivorybridge/store/archive"
)

func exportCommand() *cobra.Command {
	var database, practice, horse string
	cmd := &cobra.Command{
		Use: "export FILE", Short: "Take a practice out as one file of open forms, also while it is in use", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			return export(cmd.Context(), cmd.OutOrStdout(), database, practice, horse, args[0])
		},
	}
	databaseFlag(cmd, &database)
	cmd.Flags().StringVar(&practice, "practice", "", "name of the practice, where there is more than one")
	cmd.Flags().StringVar(&horse, "horse", "", "name of the one horse that is taken out; empty: all of it")
	return cmd
}

func export(ctx context.Context, out io.Writer, database, practice, horse, to string) (err error) {
	db, err := store.Open(ctx, database, time.Now())
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	p, err := practiceCalled(ctx, db, practice)
	if err != nil {
		return err
	}
	var scope archive.Scope
	if horse != "" {
		if scope.Horses, err = horsesCalled(ctx, db, p.ID, horse); err != nil {
			return err
		}
	}
	f, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return fmt.Errorf("making the archive: %w", err)
	}
	done, err := archive.Write(ctx, db.Path(), p.ID, scope, time.Now(), f)
	if err := errors.Join(err, f.Close()); err != nil {
		return errors.Join(err, os.Remove(to))
	}
	say := fmt.Sprintf("%s is at %s. Rows: %d; pictures and films: %d.\n", p.Name, to, done.Rows, done.Files)
	if done.Missing > 0 {
		say += fmt.Sprintf("Not where they were: %d. Look for them in an older copy.\n", done.Missing)
	}
	_, err = io.WriteString(out, say)
	return err
}

func practiceCalled(ctx context.Context, db *store.Store, name string) (store.Practice, error) {
	all, err := db.Practices(ctx)
	if err != nil {
		return store.Practice{}, err
	}
	var names []string
	for _, p := range all {
		if p.Name == name || name == "" && len(all) == 1 {
			return p, nil
		}
		names = append(names, p.Name)
	}
	return store.Practice{}, fmt.Errorf("name the practice with --practice: there are %s", strings.Join(names, ", "))
}

func horsesCalled(ctx context.Context, db *store.Store, practice, name string) (ids []string, err error) {
	everyone, err := db.Everyone(ctx)
	if err != nil {
		return nil, err
	}
	for _, h := range everyone {
		if h.Practice != practice {
			continue
		}
		one, err := db.HorseAsKept(ctx, practice, h.Horse)
		if err != nil {
			return nil, err
		}
		if one.Name == name && !slices.Contains(ids, h.Horse) {
			ids = append(ids, h.Horse)
		}
	}
	if len(ids) == 0 {
		return nil, fmt.Errorf("there is no horse called %q", name)
	}
	return ids, nil
}

func importCommand() *cobra.Command {
	var database, practice string
	cmd := &cobra.Command{
		Use: "import FILE", Short: "Take in a practice or a horse that was taken out", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			return bringIn(cmd.Context(), cmd.OutOrStdout(), database, practice, args[0])
		},
	}
	databaseFlag(cmd, &database)
	cmd.Flags().StringVar(&practice, "practice", "", "name of the practice it comes into; empty: its own, which is made")
	return cmd
}

func bringIn(ctx context.Context, out io.Writer, database, practice, from string) error {
	f, err := os.Open(from)
	if err != nil {
		return fmt.Errorf("opening the archive: %w", err)
	}
	defer func() { _ = f.Close() }() // only read from
	info, err := f.Stat()
	if err != nil {
		return fmt.Errorf("opening the archive: %w", err)
	}
	db, err := store.Open(ctx, database, time.Now())
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	into := archive.Into{Store: db, Look: house.LookAt}
	if practice != "" {
		p, err := practiceCalled(ctx, db, practice)
		if err != nil {
			return err
		}
		into.Practice = p.ID
	}
	taken, err := archive.Read(ctx, f, info.Size(), into)
	if errors.Is(err, store.ErrNotEmpty) {
		return errors.New("there is something in that practice already: a whole practice comes into an empty one; nothing was changed")
	}
	if err != nil {
		return err
	}
	say := fmt.Sprintf("Taken in. Rows that were not there yet: %d; pictures and films: %d.\n", taken.Rows, taken.Files)
	if taken.Whole && practice == "" {
		say += "Nobody signs in with an old password: give a new one with 'ivorybridge user reset'.\n"
	}
	_, err = io.WriteString(out, say)
	return err
}

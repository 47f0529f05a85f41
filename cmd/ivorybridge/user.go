package main

import (
	"bufio"
	"cmp"
	"context"
	"errors"
	"fmt"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/spf13/cobra"

	"ivorybridge/core/phrase"
	"ivorybridge/server/accounts"
	"ivorybridge/store"
)

func userCommand() *cobra.Command {
	cmd := &cobra.Command{Use: "user", Short: "Add a sign-in, or reset its password"}
	cmd.AddCommand(userAddCommand(), userResetCommand())
	return cmd
}

// newUser is what user add is told.
type newUser struct {
	database, email, name, role, practice, zone, vehicle, sides, units string
	passwordIn                                                         bool
}

func userAddCommand() *cobra.Command {
	var n newUser
	cmd := &cobra.Command{
		Use: "add EMAIL", Short: "Add a sign-in; a practice that is named and not there yet is made", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			n.email = args[0]
			return n.add(cmd)
		},
	}
	databaseFlag(cmd, &n.database)
	f := cmd.Flags()
	f.StringVar(&n.name, "name", "", "the person's name")
	f.StringVar(&n.role, "role", string(store.Lead), "lead trainer, assistant or owner")
	f.StringVar(&n.practice, "practice", "", "name of the practice; one that is not there yet is made")
	f.StringVar(&n.zone, "zone", "Europe/London", "the practice's time zone, for a new practice")
	f.StringVar(&n.vehicle, "vehicle", "trailer", "trailer, float or box, for a new practice")
	f.StringVar(&n.sides, "sides", "near and off", "\"near and off\" or \"left and right\", for a new practice")
	f.StringVar(&n.units, "units", "metres", "metres or feet, for a new practice")
	f.BoolVar(&n.passwordIn, "password-stdin", false, "read the password from standard input instead of making a one-time one")
	return cmd
}

func (n newUser) add(cmd *cobra.Command) error {
	ctx := cmd.Context()
	n.name, n.email = strings.TrimSpace(n.name), strings.TrimSpace(n.email)
	switch {
	case n.name == "":
		return errors.New("give the person's name with --name")
	case !strings.Contains(n.email, "@"):
		return fmt.Errorf("%q is not an email address", n.email)
	case !slices.Contains([]store.Role{store.Lead, store.Assistant, store.Owner}, store.Role(n.role)):
		return fmt.Errorf("%q is no role: say lead trainer, assistant or owner with --role", n.role)
	}
	password, must, err := n.password()
	if err != nil {
		return err
	}
	db, err := store.Open(ctx, n.database, time.Now())
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	taken := fmt.Errorf("%s has a sign-in already: run 'ivorybridge user reset %s'", n.email, n.email)
	if _, err := db.UserByEmail(ctx, n.email); !errors.Is(err, store.ErrNotFound) {
		return cmp.Or(err, taken)
	}
	p, err := n.practiceOf(ctx, db)
	if err != nil {
		return err
	}
	err = db.AddUser(ctx, store.Actor{Practice: p.ID, At: time.Now().UnixMilli()}, store.User{
		ID: uuid.NewString(), Name: n.name, Email: n.email, Role: store.Role(n.role), Hash: accounts.Hash(password), MustChange: must,
	})
	if errors.Is(err, store.ErrTaken) {
		return taken
	}
	if err != nil {
		return err
	}
	return tellPassword(cmd, n.email, password, must)
}

// password is the one read from standard input, or a one-time one.
func (n newUser) password() (password string, must bool, err error) {
	if !n.passwordIn {
		return accounts.OneTimePassword(), true, nil
	}
	line, err := bufio.NewReader(os.Stdin).ReadString('\n')
	password = strings.TrimRight(line, "\r\n")
	if password == "" {
		return "", false, fmt.Errorf("reading the password: %w", err)
	}
	if say := accounts.WeakPassword(password, n.name, n.email, n.practice); say != "" {
		return "", false, errors.New(say)
	}
	return password, false, nil
}

// practiceOf is the practice of that name, which is made if there is none; with no
// name given, the only one.
func (n newUser) practiceOf(ctx context.Context, db *store.Store) (store.Practice, error) {
	all, err := db.Practices(ctx)
	if err != nil {
		return store.Practice{}, err
	}
	n.practice = strings.TrimSpace(n.practice)
	switch {
	case n.practice == "" && len(all) == 1:
		return all[0], nil
	case n.practice == "" && len(all) == 0:
		return store.Practice{}, errors.New("the database is empty: name the practice with --practice")
	case n.practice == "":
		return store.Practice{}, fmt.Errorf("this database holds %d practices: say which with --practice", len(all))
	}
	p, err := db.PracticeNamed(ctx, n.practice)
	if !errors.Is(err, store.ErrNotFound) {
		return p, err
	}
	if len(all) > 0 && store.Role(n.role) != store.Lead {
		return p, fmt.Errorf("there is no practice named %q yet: the first to be added to a new one is its lead trainer", n.practice)
	}
	if _, err := time.LoadLocation(n.zone); err != nil {
		return p, fmt.Errorf("reading the time zone: %w", err)
	}
	p = store.Practice{ID: uuid.NewString(), Name: n.practice, Zone: n.zone, Words: phrase.Words{Vehicle: n.vehicle, Sides: n.sides, Units: n.units}}
	return p, db.AddPractice(ctx, p, time.Now().UnixMilli())
}

func userResetCommand() *cobra.Command {
	var database string
	cmd := &cobra.Command{
		Use: "reset EMAIL", Short: "Set a one-time password and sign the user out everywhere", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			db, err := store.Open(cmd.Context(), database, time.Now())
			if err != nil {
				return err
			}
			defer func() { _ = db.Close() }()
			u, err := db.UserByEmail(cmd.Context(), args[0])
			if errors.Is(err, store.ErrNotFound) {
				return fmt.Errorf("%s has no sign-in: run 'ivorybridge user add %s'", args[0], args[0])
			}
			if err != nil {
				return err
			}
			password := accounts.OneTimePassword()
			actor := store.Actor{Practice: u.Practice, At: time.Now().UnixMilli()}
			if err := db.SetPassword(cmd.Context(), actor, u.ID, accounts.Hash(password), true); err != nil {
				return err
			}
			return tellPassword(cmd, u.Email, password, true)
		},
	}
	databaseFlag(cmd, &database)
	return cmd
}

func tellPassword(cmd *cobra.Command, email, password string, oneTime bool) error {
	if !oneTime {
		return say(cmd.OutOrStdout(), "%s can sign in.\n", email)
	}
	return say(cmd.OutOrStdout(), "%s can sign in once with this password within a week, and then chooses another: %s\n", email, password)
}

package main

import (
	"cmp"
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"os"
	"strings"
	"sync"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/server"
	"ivorybridge/server/clips"
	"ivorybridge/server/house"
	"ivorybridge/server/letters"
	"ivorybridge/store"
	"ivorybridge/store/copies"
	"ivorybridge/web"
)

// settings are those of serve and demo, from flags or the environment.
type settings struct {
	address  string
	database string
	public   string
	level    string
	cert     string
	key      string
	proxies  []string
	header   string
	room     int64 // MB
	clips    int64 // MB
	demoUser string
	command  string // serve or demo
	mail     letters.SMTP
	hour     int // from which the letters are written
	copies   string
	copyHour int
	kept     copies.Kept
}

func (o *settings) flags(cmd *cobra.Command, database string) {
	f := cmd.Flags()
	f.StringVar(&o.address, "address", env("IVORYBRIDGE_ADDRESS", "127.0.0.1:8080"), "address to listen on")
	f.StringVar(&o.database, "database", env("IVORYBRIDGE_DATABASE", database), "path of the database file")
	f.StringVar(&o.public, "public-address", env("IVORYBRIDGE_PUBLIC_ADDRESS", ""), "address that browsers use, as https://yard.example")
	f.StringVar(&o.level, "log-level", env("IVORYBRIDGE_LOG_LEVEL", "info"), "debug, info, warn or error")
	f.StringVar(&o.cert, "tls-certificate", env("IVORYBRIDGE_TLS_CERTIFICATE", ""), "certificate file (PEM); with it the connection is secure")
	f.StringVar(&o.key, "tls-key", env("IVORYBRIDGE_TLS_KEY", ""), "key file of the certificate (PEM)")
	f.StringSliceVar(&o.proxies, "trusted-proxies", list(env("IVORYBRIDGE_TRUSTED_PROXIES", "")), "addresses of proxies that are believed who asks")
	f.StringVar(&o.header, "proxy-header", env("IVORYBRIDGE_PROXY_HEADER", "X-Forwarded-For"), "the header in which they tell it; X-Real-IP where they are set to send that")
	f.IntVar(&o.hour, "letters-hour", 18, "hour of the practice's day from which the letters of the evening are written")
	f.StringVar(&o.copies, "copies", env("IVORYBRIDGE_COPIES", ""), "folder for the copy of each night, best on another disk; empty: beside the database; none: no copies")
	f.IntVar(&o.copyHour, "copies-hour", 3, "hour of the day from which the copy is made")
	f.IntVar(&o.kept.Days, "copies-days", copies.Shipped.Days, "of how many days a copy is kept")
	f.IntVar(&o.kept.Weeks, "copies-weeks", copies.Shipped.Weeks, "of how many weeks")
	f.IntVar(&o.kept.Months, "copies-months", copies.Shipped.Months, "of how many months")
	f.Int64Var(&o.room, "photograph-room", server.RoomForPhotographs>>20, "room for the photographs of a practice, in MB")
	f.Int64Var(&o.clips, "clip-room", clips.RoomForClips>>20, "room for the clips of a practice, in MB")
}

// mailFlags are those of letters that really go: the demo keeps its own.
func (o *settings) mailFlags(cmd *cobra.Command) {
	f := cmd.Flags()
	f.StringVar(&o.mail.Server, "mail-server", env("IVORYBRIDGE_MAIL_SERVER", ""), "mail server for the letters of an evening, as mail.example:587; empty: none are sent")
	f.StringVar(&o.mail.From, "mail-from", env("IVORYBRIDGE_MAIL_FROM", ""), "address that letters come from")
	f.StringVar(&o.mail.User, "mail-user", env("IVORYBRIDGE_MAIL_USER", ""), "user at the mail server; the password is read from IVORYBRIDGE_MAIL_PASSWORD")
	f.StringVar(&o.mail.Security, "mail-security", env("IVORYBRIDGE_MAIL_SECURITY", "starttls"), "starttls, tls or none")
}

// letters are the settings of the letters of an evening.
func (o *settings) letters() (letters.Config, error) {
	c := letters.Config{Hour: o.hour, Public: strings.TrimSuffix(o.public, "/"), Tray: o.command == "demo"}
	if o.hour < 0 || o.hour > 23 {
		return c, fmt.Errorf("--letters-hour is %d: name an hour from 0 to 23", o.hour)
	}
	if o.mail.Server == "" {
		return c, nil
	}
	o.mail.Password = env("IVORYBRIDGE_MAIL_PASSWORD", "")
	if err := o.mail.Check(); err != nil {
		return c, err
	}
	c.Post = o.mail
	return c, nil
}

// house are the settings of the copies.
func (o *settings) house() (house.Config, error) {
	c := house.Config{Hour: o.copyHour, Zone: time.Local, Copies: copies.Folder{Database: o.database, Dir: cmp.Or(o.copies, o.database+".copies"), Kept: o.kept}}
	if o.copies == "none" {
		c.Copies.Dir = ""
	}
	if o.copyHour < 0 || o.copyHour > 23 {
		return c, fmt.Errorf("--copies-hour is %d: name an hour from 0 to 23", o.copyHour)
	}
	if min(o.kept.Days, o.kept.Weeks, o.kept.Months) < 0 {
		return c, errors.New("--copies-days, --copies-weeks and --copies-months are 0 or more")
	}
	return c, nil
}

func list(text string) []string {
	return strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ' ' })
}

func serveCommand() *cobra.Command {
	o := settings{command: "serve"}
	cmd := &cobra.Command{
		Use: "serve", Short: "Serve the product", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return o.serve(cmd.Context(), cmd.OutOrStdout()) },
	}
	o.flags(cmd, "ivorybridge.db")
	o.mailFlags(cmd)
	return cmd
}

// serve opens the database and answers until the context ends.
func (o *settings) serve(ctx context.Context, out io.Writer) error {
	if (o.cert == "") != (o.key == "") {
		return errors.New("a TLS certificate needs its key, and a key its certificate: give both --tls-certificate and --tls-key")
	}
	var level slog.Level
	if err := level.UnmarshalText([]byte(o.level)); err != nil {
		return fmt.Errorf("reading the log level: %w", err)
	}
	log := slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	catalog, err := yaml.Shipped()
	if err != nil {
		return err
	}
	files, err := web.Files()
	if err != nil {
		return fmt.Errorf("reading the front end: %w", err)
	}
	evening, err := o.letters()
	if err != nil {
		return err
	}
	keeping, err := o.house()
	if err != nil {
		return err
	}
	if _, err := os.Stat(o.database); errors.Is(err, fs.ErrNotExist) {
		return fmt.Errorf("there is no database at %s: name the right one with --database, put its folder back, or make one with 'ivorybridge user add'", o.database)
	}
	serving, err := store.Serve(o.database, "ivorybridge "+o.command, time.Now())
	if err != nil {
		return err
	}
	defer func() { _ = serving.End() }()
	db, err := store.Open(ctx, o.database, time.Now())
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	s, err := server.New(server.Config{
		Store: db, Catalog: catalog, Web: files, Now: time.Now, Log: log, Version: build(),
		Secure: o.cert != "" || strings.HasPrefix(o.public, "https://"), TrustedProxies: o.proxies, ProxyHeader: o.header,
		PublicAddress: o.public, DemoUser: o.demoUser, PhotographRoom: o.room << 20, ClipRoom: o.clips << 20, Letters: evening, House: keeping,
	})
	if err != nil {
		return fmt.Errorf("setting up the server: %w", err)
	}
	if empty, err := db.Empty(ctx); err == nil && empty {
		log.Warn("nobody can sign in yet: run 'ivorybridge user add' first", "database", o.database)
	}
	ctx, stop := context.WithCancel(ctx)
	var upkeep sync.WaitGroup
	upkeep.Go(func() { s.LookAfter(ctx) })
	err = o.run(ctx, s, out)
	stop()
	upkeep.Wait() // before the database is closed
	return err
}

func (o *settings) run(ctx context.Context, s *server.Server, out io.Writer) error {
	web := s.HTTP(o.address)
	web.TLSConfig = &tls.Config{MinVersion: tls.VersionTLS12}
	listener, err := (&net.ListenConfig{}).Listen(ctx, "tcp", o.address)
	if err != nil {
		if errors.Is(err, syscall.EADDRINUSE) {
			return fmt.Errorf("something else listens on %s already, perhaps another Ivory Bridge: stop it, or name another address with --address", o.address)
		}
		return fmt.Errorf("listening: %w", err)
	}
	listener = server.WithHeaders(listener)
	failed := make(chan error, 1)
	go func() {
		if o.cert != "" {
			failed <- web.ServeTLS(listener, o.cert, o.key)
			return
		}
		failed <- web.Serve(listener)
	}()
	_, _ = fmt.Fprintf(out, "Ivory Bridge is ready at %s\n", o.shown(listener.Addr().String()))
	select {
	case err := <-failed:
		return fmt.Errorf("serving: %w", err)
	case <-ctx.Done():
	}
	rest, cancel := context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
	defer cancel()
	if err := web.Shutdown(rest); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return fmt.Errorf("stopping: %w", err)
	}
	return nil
}

func (o *settings) shown(address string) string {
	switch {
	case o.public != "":
		return o.public
	case o.cert != "":
		return "https://" + address
	}
	return "http://" + address
}

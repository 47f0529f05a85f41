package e2e

import (
	"context"
	"io"
	"log/slog"
	"os"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/demo"
	"ivorybridge/server"
	"ivorybridge/store"
	"ivorybridge/web"
)

// clockEnv names the file of the yard's clock; where it is set, this test
// program is the server by that clock.
const clockEnv = "E2E_CLOCK"

// serveByTheYardsClock is the product's server with a clock that tests set, in
// a process that can be killed. args: address, database.
func serveByTheYardsClock(args []string) error {
	clock := yardClock{os.Getenv(clockEnv)}
	c, err := yaml.Shipped()
	if err != nil {
		return err
	}
	db, err := store.Open(context.Background(), args[1], clock.now())
	if err != nil {
		return err
	}
	files, err := web.Files()
	if err != nil {
		return err
	}
	s, err := server.New(server.Config{
		Store: db, Catalog: c, Web: files, Now: clock.now, Log: slog.New(slog.NewTextHandler(io.Discard, nil)), Version: "test", DemoUser: demo.User,
	})
	if err != nil {
		return err
	}
	return s.HTTP(args[0]).ListenAndServe()
}

// Command ivorybridge serves the product, keeps its data safe, and lets the
// rules be asked from the command line.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"runtime/debug"
	"syscall"

	"github.com/spf13/cobra"

	"ivorybridge/server/api"
)

// version is set when a release is built.
var version string

// build names what was built: the release, or the commit and whether anything was
// changed since.
func build() string {
	info, ok := debug.ReadBuildInfo()
	switch {
	case version != "":
		return version
	case ok && info.Main.Version != "":
		return info.Main.Version
	}
	return "unnamed"
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := root().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "ivorybridge:", err)
		if advice := api.Advice(err); advice != "" {
			fmt.Fprintln(os.Stderr, "ivorybridge:", advice)
		}
		os.Exit(1)
	}
}

func root() *cobra.Command {
	cmd := &cobra.Command{
		Use:           "ivorybridge",
		Short:         "Assess, plan, train and report: a workbook for remedial horse trainers",
		Version:       build(),
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	cmd.AddCommand(serveCommand(), demoCommand(), rulesCommand(), userCommand(), backupCommand(), restoreCommand(), exportCommand(), importCommand(), refoldCommand(), openAPICommand(), ladderSchemaCommand())
	return cmd
}

// env is the value of an environment variable, or what is usual.
func env(name, usual string) string {
	if v, ok := os.LookupEnv(name); ok {
		return v
	}
	return usual
}

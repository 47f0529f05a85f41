// Command ivorybridge serves the product, keeps its data safe, and lets the
// rules be asked from the command line.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

// version is set when a release is built.
var version = "dev"

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := root().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "ivorybridge:", err)
		os.Exit(1)
	}
}

func root() *cobra.Command {
	cmd := &cobra.Command{
		Use:           "ivorybridge",
		Short:         "Assess, plan, train and report: a workbook for remedial horse trainers",
		Version:       version,
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	cmd.AddCommand(serveCommand(), demoCommand(), rulesCommand(), userCommand(), backupCommand(), restoreCommand(), refoldCommand(), openAPICommand())
	return cmd
}

// env is the value of an environment variable, or what is usual.
func env(name, usual string) string {
	if v, ok := os.LookupEnv(name); ok {
		return v
	}
	return usual
}

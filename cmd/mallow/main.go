// Command mallow plans fences: it serves the application, and plans job
// documents from the command line.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

// version is set at build time.
var version = "development"

// usageError is bad input: exit code 2 and one line.
type usageError struct{ error }

func main() { os.Exit(run()) }

func run() int {
	signal.Ignore(syscall.SIGPIPE) // a log that nobody reads any more is no reason to end
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	context.AfterFunc(ctx, stop) // a second signal ends at once
	err := root().ExecuteContext(ctx)
	if err == nil || ctx.Err() != nil && errors.Is(err, context.Canceled) {
		return 0
	}
	fmt.Fprintf(os.Stderr, "mallow: %v\n", err)
	var usage usageError
	if errors.As(err, &usage) {
		return 2
	}
	return 1
}

func root() *cobra.Command {
	c := &cobra.Command{
		Use:           "mallow",
		Short:         "Lay out fences: posts, slopes, holes and concrete, from the tape to the load",
		SilenceErrors: true,
		SilenceUsage:  true,
		Args: func(_ *cobra.Command, args []string) error {
			if len(args) > 0 {
				return usageError{fmt.Errorf("there is no command %q; see mallow --help", args[0])}
			}
			return nil
		},
		RunE: func(c *cobra.Command, _ []string) error { return c.Help() },
	}
	c.SetFlagErrorFunc(func(_ *cobra.Command, err error) error { return usageError{err} })
	c.AddCommand(serveCommand(), demoCommand(), planCommand(), loadCommand(), cutCommand(), pourCommand(), daysCommand(), boardCommand(), logCommand(), exportCommand(), importCommand(),
		backupCommand(), restoreCommand(), doctorCommand(), versionCommand())
	c.AddCommand(topics()...)
	return c
}

// args turns a wrong number of arguments into a usage error.
func args(check cobra.PositionalArgs) cobra.PositionalArgs {
	return func(c *cobra.Command, given []string) error {
		if err := check(c, given); err != nil {
			return usageError{fmt.Errorf("%w; see %s --help", err, c.CommandPath())}
		}
		return nil
	}
}

func versionCommand() *cobra.Command {
	return &cobra.Command{
		Use: "version", Short: "Print the version", Args: args(cobra.NoArgs),
		RunE: func(c *cobra.Command, _ []string) error {
			_, err := fmt.Fprintln(c.OutOrStdout(), "mallow", version)
			return err
		},
	}
}

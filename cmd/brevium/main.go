// Command brevium designs card boxes around what goes in them: as pages in a
// browser (serve, demo) or as a plan on standard output (plan).
package main

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"strings"
	"syscall"

	"github.com/spf13/cobra"

	"brevium/desktop"
)

// Exit codes.
const (
	exitOK       = 0
	exitNoHold   = 1 // the proof does not hold, or the brief is impossible
	exitUnusable = 2 // the input or the command can't be used at all
	exitStopped  = 130
)

// code is an error that only carries an exit code.
type code int

func (c code) Error() string { return fmt.Sprintf("exit %d", int(c)) }

func main() { os.Exit(run(os.Args[1:])) }

func run(args []string) int {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	var database string
	var quietly bool
	root := &cobra.Command{
		Use: "brevium", Short: "Design card boxes around what goes in them", Args: cobra.NoArgs,
		Long: "Design card boxes around what goes in them.\n\nWithout a command, Brevium serves your own boxes and opens them " +
			"in your browser.",
		SilenceUsage: true, SilenceErrors: true, Version: cmp.Or(desktop.Version, "(not a release)"),
		RunE: func(c *cobra.Command, _ []string) error {
			database, err := orOwn(database)
			if err != nil {
				return err
			}
			return openOwn(c.Context(), database, quietly)
		},
	}
	databaseFlag(root, &database)
	root.Flags().BoolVar(&quietly, strings.TrimPrefix(desktop.QuietArg, "--"), false, "don't open the browser")
	cobra.MousetrapHelpText = "" // on Windows she opens it, and is told nothing of terminals
	root.SetArgs(args)
	root.AddCommand(serveCommand(), demoCommand(), planCommand(), mostCommand(), sheetsCommand(), exportCommand(),
		machineCommand(), batchCommand(),
		backupCommand(), restoreCommand(), passphraseCommand())
	return exitOf(root.ExecuteContext(ctx), os.Stderr)
}

// exitOf says what went wrong, and is the exit code for it.
func exitOf(err error, stderr io.Writer) int {
	var c code
	switch {
	case err == nil:
		return exitOK
	case errors.As(err, &c):
		return int(c)
	case errors.Is(err, context.Canceled):
		return exitStopped
	}
	fmt.Fprintln(stderr, "brevium:", err)
	return exitUnusable
}

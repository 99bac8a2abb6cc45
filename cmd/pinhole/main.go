// Pinhole plans glass, shutter and ISO for cameras with one aperture.
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

// Exit codes beside 0: a fault of the program or its surroundings, and bad use: input that
// cannot be answered, or a command that is none.
const (
	exitFault = 1
	exitInput = 2
)

// errReported says that bad input was reported already.
var errReported = errors.New("reported")

// badUse is an error in how the program was called.
type badUse struct{ error }

func (b badUse) Unwrap() error { return b.error }

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	err := rootCommand().ExecuteContext(ctx)
	stop()
	if err != nil && !errors.Is(err, errReported) {
		fmt.Fprintln(os.Stderr, "pinhole:", err)
	}
	if code := exitCode(err); code != 0 {
		os.Exit(code)
	}
}

func exitCode(err error) int {
	var use badUse
	switch {
	case err == nil:
		return 0
	case errors.Is(err, errReported), errors.As(err, &use):
		return exitInput
	}
	return exitFault
}

func rootCommand() *cobra.Command {
	var isVersion bool
	root := &cobra.Command{
		Use:           "pinhole",
		Short:         "Match ND, shutter and light for cameras with one aperture",
		SilenceUsage:  true,
		SilenceErrors: true,
		Args:          cobra.ArbitraryArgs,
		RunE: func(cmd *cobra.Command, args []string) error {
			if len(args) > 0 {
				return badUse{fmt.Errorf("%q is no command: pinhole --help lists them", args[0])}
			}
			if isVersion {
				_, err := fmt.Fprint(cmd.OutOrStdout(), versionText())
				return err
			}
			return cmd.Help()
		},
	}
	// Not cobra's own: a template keeps the linker from leaving out what is not used, 8 MB of it.
	root.Flags().BoolVar(&isVersion, "version", false, "print the versions of the application and of its rules")
	root.SetFlagErrorFunc(func(_ *cobra.Command, err error) error { return badUse{err} })
	root.AddCommand(serveCommand(), askCommand(), calcCommand(), measureCommand(), openAPICommand(), versionCommand(), manCommand(), backupCommand(), restoreCommand(), exportCommand(), importCommand())
	for _, cmd := range root.Commands() {
		takes := cmd.Args
		cmd.Args = func(cmd *cobra.Command, args []string) error {
			if err := takes(cmd, args); err != nil {
				return badUse{fmt.Errorf("%w: pinhole %s --help", err, cmd.Name())}
			}
			return nil
		}
	}
	return root
}

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

// Exit codes beside 0: a fault of the program or its surroundings, and input
// that cannot be answered.
const (
	exitFault = 1
	exitInput = 2
)

// errReported says that the error was printed already.
var errReported = errors.New("reported")

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	err := rootCommand().ExecuteContext(ctx)
	stop()
	switch {
	case errors.Is(err, errReported):
		os.Exit(exitInput)
	case err != nil:
		fmt.Fprintln(os.Stderr, "pinhole:", err)
		os.Exit(exitFault)
	}
}

func rootCommand() *cobra.Command {
	root := &cobra.Command{
		Use:           "pinhole",
		Short:         "Match glass, shutter and light for cameras with one aperture",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(serveCommand(), calcCommand(), openAPICommand(), versionCommand())
	return root
}

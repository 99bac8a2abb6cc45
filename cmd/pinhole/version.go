package main

import (
	"fmt"
	"runtime"

	"github.com/spf13/cobra"

	"pinhole/core/calc"
)

// version is the application's; the model's stands beside it because stored
// answers follow the model.
const version = "0.1.0"

func versionCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "version",
		Short: "Print the versions of the application and of its model",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			_, err := fmt.Fprintf(cmd.OutOrStdout(), "pinhole %s, model %s, %s\n", version, calc.ModelVersion, runtime.Version())
			return err
		},
	}
}

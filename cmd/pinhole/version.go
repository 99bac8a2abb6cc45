package main

import (
	"fmt"
	"runtime"

	"github.com/spf13/cobra"

	"pinhole/core/calc"
)

// version is the application's; the model's stands beside it because stored
// answers follow the model.
const version = "0.2.0"

// build is what the binary was made of, stamped by the linker.
var build = "unstamped"

// versionText is what --version prints.
func versionText() string {
	return fmt.Sprintf("pinhole %s (%s), model %s, %s\n", version, build, calc.ModelVersion, runtime.Version())
}

func versionCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "version",
		Short: "Print the versions of the application and of its model",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			_, err := fmt.Fprint(cmd.OutOrStdout(), versionText())
			return err
		},
	}
}

package main

import (
	"fmt"
	"os"

	"github.com/spf13/cobra"
	"github.com/spf13/cobra/doc"
)

// manCommand writes the manual from the commands themselves.
func manCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "man FOLDER",
		Short: "Write a manual page of each command into a folder",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if err := os.MkdirAll(args[0], 0o755); err != nil {
				return fmt.Errorf("write the manual: %w", err)
			}
			root := cmd.Root()
			root.DisableAutoGenTag = true // a page is the same whenever it is made
			header := &doc.GenManHeader{Title: "PINHOLE", Section: "1", Source: "Pinhole " + version, Manual: "Pinhole"}
			if err := doc.GenManTree(root, header, args[0]); err != nil {
				return fmt.Errorf("write the manual: %w", err)
			}
			return nil
		},
	}
}

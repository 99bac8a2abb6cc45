package main

import (
	"errors"
	"fmt"
	"io/fs"
	"time"

	"github.com/spf13/cobra"

	"pinhole/internal/store"
)

// dataFlags name the data file that a command works on, as serve does.
func dataFlags(cmd *cobra.Command, o *serveOptions) {
	cmd.Flags().StringVar(&o.data, "data", "", "data file (default: in the platform's folder for application data)")
	cmd.Flags().BoolVar(&o.demo, "demo", false, "the data file of the demo")
	cmd.MarkFlagsMutuallyExclusive("data", "demo")
}

func backupCommand() *cobra.Command {
	var o serveOptions
	cmd := &cobra.Command{
		Use:   "backup FILE",
		Short: "Write a copy of the data file, whether or not a server has it open",
		Long:  "Writes a copy of the data file as it is at one instant, and proves it. The data file may be in use. A file that is there is not overwritten.",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			path, err := o.dataFile()
			if err != nil {
				return err
			}
			s, err := store.Beside(cmd.Context(), path, time.Now)
			if errors.Is(err, fs.ErrNotExist) {
				return badUse{fmt.Errorf("there is no data file %s: --data names another", path)}
			}
			if err != nil {
				return err
			}
			if err := errors.Join(s.Backup(cmd.Context(), args[0]), s.Close()); err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s is backed up to %s\n", path, args[0])
			return err
		},
	}
	dataFlags(cmd, &o)
	return cmd
}

func restoreCommand() *cobra.Command {
	var o serveOptions
	cmd := &cobra.Command{
		Use:   "restore FILE",
		Short: "Put a backup in place of the data file; what was there is kept beside it",
		Long:  "Puts the state of a backup in place of that of the data file, in one step, whether or not a server has it open. What was there is set aside first, beside the data file.",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			path, err := o.dataFile()
			if err != nil {
				return err
			}
			aside, err := store.RestoreFile(cmd.Context(), path, args[0], time.Now)
			if aside != "" {
				fmt.Fprintf(cmd.OutOrStdout(), "what was there is kept in %s\n", aside)
			}
			if errors.Is(err, fs.ErrNotExist) {
				return badUse{err}
			}
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s is restored from %s\n", path, args[0])
			return err
		},
	}
	dataFlags(cmd, &o)
	return cmd
}

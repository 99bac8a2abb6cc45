package main

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"slices"
	"time"

	"github.com/spf13/cobra"

	"pinhole/internal/archive"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// dataFlags name the data file that a command works on, as serve does.
func dataFlags(cmd *cobra.Command, o *serveOptions) {
	cmd.Flags().StringVar(&o.data, "data", "", "data file (default: in the platform's folder for application data)")
	cmd.Flags().BoolVar(&o.demo, "demo", false, "the data file of the demo")
	cmd.MarkFlagsMutuallyExclusive("data", "demo")
}

// onData is a command that is given one file and works on a data file.
func onData(name, short, long string, run func(cmd *cobra.Command, o *serveOptions, file string) error) *cobra.Command {
	var o serveOptions
	cmd := &cobra.Command{
		Use: name + " FILE", Short: short, Long: long, Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if err := configured(cmd); err != nil {
				return err
			}
			return run(cmd, &o, args[0])
		},
	}
	dataFlags(cmd, &o)
	return cmd
}

func backupCommand() *cobra.Command {
	return onData("backup", "Write a copy of the data file, whether or not a server has it open",
		"Writes a copy of the data file as it is at one instant, and proves it. The data file may be in use. A file that is there is not overwritten.",
		func(cmd *cobra.Command, o *serveOptions, file string) error {
			svc, close, err := o.beside(cmd, store.AsItIs)
			if err != nil {
				return err
			}
			if err := errors.Join(svc.Store.Backup(cmd.Context(), file), close()); err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s is backed up to %s\n", svc.Store.Path(), file)
			return err
		})
}

func restoreCommand() *cobra.Command {
	return onData("restore", "Put a backup in place of the data file; what was there is kept beside it",
		"Puts the state of a backup in place of that of the data file, in one step, whether or not a server has it open. What was there is set aside first, beside the data file.",
		func(cmd *cobra.Command, o *serveOptions, file string) error {
			path, err := o.dataFile()
			if err != nil {
				return err
			}
			aside, err := store.RestoreFile(cmd.Context(), path, file, time.Now)
			if aside != "" {
				fmt.Fprintf(cmd.OutOrStdout(), "what was there is kept in %s\n", aside)
			}
			if errors.Is(err, fs.ErrNotExist) {
				return badUse{err}
			}
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s is restored from %s\n", path, file)
			return err
		})
}

func exportCommand() *cobra.Command {
	return onData("export", "Write everything as one open archive: JSON documents and tables in a zip file",
		"Writes everything that is kept as one archive, whether or not a server has the data file open; docs/archive.md describes it. A file that is there is not overwritten.",
		func(cmd *cobra.Command, o *serveOptions, file string) (err error) {
			svc, close, err := o.beside(cmd, store.Beside)
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, close()) }()
			f, err := os.OpenFile(file, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
			if err != nil {
				return fmt.Errorf("write the archive: %w", err)
			}
			if err := errors.Join(svc.Export(cmd.Context(), f), f.Sync(), f.Close()); err != nil {
				return errors.Join(err, os.Remove(file))
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s is exported to %s\n", svc.Store.Path(), file)
			return err
		})
}

func importCommand() *cobra.Command {
	var take string
	var isLook bool
	cmd := onData("import", "Bring an archive in, by the ids and versions of its things: all of it or nothing",
		"Brings an archive into the data file, whether or not a server has it open; the data file may be new. Of a thing that is here and there, the later change counts. What was changed both here and there is listed, and nothing is stored until --take says which.",
		func(cmd *cobra.Command, o *serveOptions, file string) (err error) {
			if take != "" && !slices.Contains(store.TakeNone.Values(), store.Take(take)) {
				return badUse{fmt.Errorf("--take %s: ours or theirs", take)}
			}
			f, err := os.Open(file)
			if err != nil {
				return badUse{err}
			}
			defer func() { err = errors.Join(err, f.Close()) }()
			info, err := f.Stat()
			if err != nil {
				return err
			}
			come, err := archive.Read(f, info.Size())
			if err != nil {
				return err
			}
			svc, close, err := o.besideOrNew(cmd)
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, close()) }()
			merged, err := svc.Store.Merge(cmd.Context(), come, store.Take(take), isLook)
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%d new, %d later there, %d later here, %d the same, %d changed in both\n", merged.New, merged.Changed, merged.Kept, merged.Same, len(merged.Clashes))
			for _, c := range merged.Clashes {
				fmt.Fprintf(cmd.OutOrStdout(), "  %s %s %q: here %s, there %s\n", c.Kind, c.ID, c.Name, c.Ours.Format(time.RFC3339), c.Theirs.Format(time.RFC3339))
			}
			if !merged.IsStored && !isLook {
				return errors.New("nothing was stored: --take ours or --take theirs says what becomes of what was changed in both")
			}
			return nil
		})
	cmd.Flags().StringVar(&take, "take", "", "ours or theirs: what becomes of what was changed both here and there")
	cmd.Flags().BoolVar(&isLook, "look", false, "say what it would bring, and store nothing")
	return cmd
}

// opening opens a data file that is there.
type opening func(context.Context, string, func() time.Time) (*store.Store, error)

// beside opens the data file that is there, and returns what closes it.
func (o *serveOptions) beside(cmd *cobra.Command, open opening) (*service.Service, func() error, error) {
	path, err := o.dataFile()
	if err != nil {
		return nil, nil, err
	}
	s, err := open(cmd.Context(), path, time.Now)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil, badUse{fmt.Errorf("there is no data file %s: --data names another", path)}
	}
	if err != nil {
		return nil, nil, err
	}
	return &service.Service{Store: s, Now: time.Now}, s.Close, nil
}

// besideOrNew is beside, and makes a data file where there is none.
func (o *serveOptions) besideOrNew(cmd *cobra.Command) (*service.Service, func() error, error) {
	path, err := o.dataFile()
	if err != nil {
		return nil, nil, err
	}
	if _, err := os.Stat(path); !errors.Is(err, fs.ErrNotExist) {
		return o.beside(cmd, store.Beside)
	}
	s, err := store.Open(cmd.Context(), path, time.Now)
	if err != nil {
		return nil, nil, err
	}
	return &service.Service{Store: s, Now: time.Now}, s.Close, nil
}

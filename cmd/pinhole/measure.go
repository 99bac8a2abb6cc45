package main

import (
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"pinhole/core/measure"
	"pinhole/core/problem"
)

func measureCommand() *cobra.Command {
	all := &cobra.Command{
		Use:   "measure NAME",
		Short: "Measure files: frames, pairs with and without a filter, telemetry, gyro logs",
		Long: "Reads files and writes what they say as JSON on standard output.\n" +
			"A file that cannot be read is answered with a problem document on standard error and exit status 2. One that\n" +
			"can be read and does not allow the measurement is an answer, which says in \"refused\" why.",
		Args: cobra.ArbitraryArgs,
		RunE: func(cmd *cobra.Command, args []string) error {
			if len(args) == 0 {
				return cmd.Help()
			}
			return report(cmd.ErrOrStderr(), problem.Invalid(problem.Fault{Field: "NAME", Value: args[0], Allowed: "a name that pinhole measure --help lists"}))
		},
	}
	for _, o := range measure.Operations() {
		all.AddCommand(measureOne(o))
	}
	return all
}

// barePath is the option that stands without its name.
const barePath = "file"

func measureOne(o measure.Operation) *cobra.Command {
	given := map[string]*[]string{}
	takesPath := false
	cmd := &cobra.Command{Use: o.Name, Short: o.Summary, Args: cobra.ArbitraryArgs}
	for _, p := range o.Options {
		if p.Name == barePath {
			takesPath = true
			cmd.Use += " FILE"
			continue
		}
		given[p.Name] = cmd.Flags().StringArray(p.Name, nil, p.Doc)
	}
	cmd.RunE = func(cmd *cobra.Command, args []string) error {
		if len(args) > 0 && !takesPath {
			return report(cmd.ErrOrStderr(), problem.Invalid(problem.Fault{Field: barePath, Value: args[0], Allowed: "nothing: this measurement takes its files by options"}))
		}
		in := measure.Input{Files: map[string][]measure.File{}, Texts: map[string][]string{}}
		for _, p := range o.Options {
			values := args
			if p.Name != barePath {
				values = *given[p.Name]
			}
			for _, value := range values {
				if !p.IsFile {
					in.Texts[p.Name] = append(in.Texts[p.Name], value)
					continue
				}
				file, err := readFile(cmd.InOrStdin(), p, value)
				var fault *problem.Fault
				if errors.As(err, &fault) {
					return report(cmd.ErrOrStderr(), problem.Invalid(*fault))
				}
				in.Files[p.Name] = append(in.Files[p.Name], file)
			}
		}
		answer, err := o.Run(in)
		var doc *problem.Document
		if errors.As(err, &doc) {
			return report(cmd.ErrOrStderr(), doc)
		}
		if err != nil {
			return fmt.Errorf("measure %s: %w", o.Name, err)
		}
		return writeJSON(cmd.OutOrStdout(), answer)
	}
	return cmd
}

// standardInput is the path that is read from there.
const standardInput = "-"

// readFile reads a file as far as it may be long, and a byte more so that the excess is seen.
func readFile(in io.Reader, option measure.Option, path string) (measure.File, error) {
	fault := func(err error) error {
		return &problem.Fault{Field: option.Name, Value: path, Allowed: fmt.Sprintf("a file that can be read: %v", err)}
	}
	if path != standardInput {
		opened, err := os.Open(path)
		if err != nil {
			return measure.File{}, fault(err)
		}
		defer opened.Close()
		in = opened
	}
	body, err := io.ReadAll(io.LimitReader(in, int64(option.MostBytes())+1))
	if err != nil {
		return measure.File{}, fault(err)
	}
	return measure.File{Name: path, Bytes: body}, nil
}

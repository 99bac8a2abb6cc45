package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"pinhole/core/calc"
	"pinhole/core/problem"
	"pinhole/core/request"
)

func calcCommand() *cobra.Command {
	var names []string
	var list strings.Builder
	for _, o := range calc.Operations() {
		names = append(names, o.Name)
		fmt.Fprintf(&list, "\n%s: %s\n%s\n", o.Name, o.Summary, indent(o.Shape()))
	}
	var isExample bool
	command := &cobra.Command{
		Use:   "calc NAME",
		Short: "Compute: a JSON request on standard input, its answer on standard output",
		Long: "Reads a JSON request on standard input and writes the answer on standard output.\n" +
			"Bad input is answered with a problem document on standard error and exit status 2.\n\n" +
			"SI units; a unit that is not the obvious one is in the field's name. A question mark follows what may be\n" +
			"left out; --example writes a request to begin with; pinhole openapi prints every field with its range.\n" + list.String(),
		Args:      cobra.ExactArgs(1),
		ValidArgs: names,
		RunE: func(cmd *cobra.Command, args []string) error {
			op, known := calc.Named(args[0])
			if !known {
				return report(cmd.ErrOrStderr(), problem.Invalid(problem.Fault{Field: "NAME", Value: args[0], Allowed: "a name that pinhole calc --help lists"}))
			}
			if isExample {
				return writeJSON(cmd.OutOrStdout(), op.Example())
			}
			return runCalc(op, cmd.InOrStdin(), cmd.OutOrStdout(), cmd.ErrOrStderr())
		},
	}
	command.Flags().BoolVar(&isExample, "example", false, "write a request that it answers, and do not compute")
	return command
}

// indent moves every line of text to the right.
func indent(text string) string { return "  " + strings.ReplaceAll(text, "\n", "\n  ") }

// runCalc answers one request. Input that cannot be answered is reported as a
// problem document on errOut, and errReported returned.
func runCalc(op calc.Operation, in io.Reader, out, errOut io.Writer) error {
	// One byte more than allowed, so that Decode sees and names the excess.
	body, err := io.ReadAll(io.LimitReader(in, request.MaxBytes+1))
	if err != nil {
		return fmt.Errorf("read the request: %w", err)
	}
	answer, err := op.Run(body)
	var doc *problem.Document
	if errors.As(err, &doc) {
		return report(errOut, doc)
	}
	if err != nil {
		return fmt.Errorf("calc %s: %w", op.Name, err)
	}
	return writeJSON(out, answer)
}

func report(errOut io.Writer, doc *problem.Document) error {
	if err := writeJSON(errOut, doc); err != nil {
		return err
	}
	return errReported
}

// writeJSON writes v as one line of JSON.
func writeJSON(w io.Writer, v any) error {
	enc := json.NewEncoder(w)
	enc.SetEscapeHTML(false)
	if err := enc.Encode(v); err != nil {
		return fmt.Errorf("write the answer: %w", err)
	}
	return nil
}

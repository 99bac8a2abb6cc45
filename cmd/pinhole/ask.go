package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"pinhole/core/calc"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// askOptions are how a line is asked and its answer written.
type askOptions struct {
	data              string
	isJSON, isExplain bool
}

func askCommand() *cobra.Command {
	var o askOptions
	cmd := &cobra.Command{
		Use:   "ask LINE",
		Short: "Answer a shot said in one line",
		Long: "Answers a shot said in one line, in any order, its parts set apart by · or > (the look follows):\n\n" +
			"  pinhole ask 'f2.8 1/1600 iso100 > 30 fps · 4 8 16 32'\n" +
			"  pinhole ask 'drone · sunny, sun behind me > 25 fps 180°'\n\n" +
			"What is not said comes from the data file, where one is named, or from what is usual; what could not be\n" +
			"read is said, and the rest is answered all the same.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			return runAsk(cmd.Context(), args[0], o, cmd.OutOrStdout())
		},
	}
	cmd.Flags().StringVar(&o.data, "data", "", "a data file, whose cameras, filters and last shots the line may use")
	cmd.Flags().BoolVar(&o.isJSON, "json", false, "write the answer as JSON")
	cmd.Flags().BoolVar(&o.isExplain, "explain", false, "write each figure and how it came about, too")
	return cmd
}

func runAsk(ctx context.Context, line string, o askOptions, out io.Writer) error {
	request := calc.AskRequest{Line: line, Whole: o.isExplain}
	if o.data != "" {
		s, err := store.AsItIs(ctx, o.data, time.Now)
		if err != nil {
			return err
		}
		request.Cameras, err = (&service.Service{Store: s, Now: time.Now}).Askable(ctx)
		if err := errors.Join(err, s.Close()); err != nil {
			return err
		}
	}
	answer, err := calc.Ask(request)
	if err != nil {
		return fmt.Errorf("ask: %w", err)
	}
	if o.isJSON {
		answer.Request, answer.Shot = nil, nil
		text := json.NewEncoder(out)
		text.SetEscapeHTML(false)
		text.SetIndent("", "  ")
		return text.Encode(answer)
	}
	return writeAsked(out, answer)
}

// writeAsked writes an answer as a person reads it.
func writeAsked(out io.Writer, a *calc.AskAnswer) error {
	var text strings.Builder
	fmt.Fprintln(&text, a.Words)
	if a.NeedStops != nil {
		fmt.Fprintf(&text, "needs %s stops · %s\n", *a.NeedStops, a.State)
	}
	for _, g := range a.Alternatives {
		fmt.Fprintf(&text, "or %s: %s stops, %s left\n", labels(g.Filters), g.ErrorStops.Signed(), g.LeftStops.Signed())
	}
	if a.IfBrighter != nil {
		fmt.Fprintf(&text, "spare, if brighter: %s\n", labels(a.IfBrighter.Filters))
	}
	if a.IfDarker != nil {
		fmt.Fprintf(&text, "spare, if darker: %s\n", labels(a.IfDarker.Filters))
	}
	fmt.Fprintf(&text, "read as: %s\n", a.Line)
	var assumed []string
	for _, p := range a.Parts {
		if p.Assumed {
			assumed = append(assumed, p.Text)
		}
	}
	if len(assumed) > 0 {
		fmt.Fprintf(&text, "assumed: %s\n", strings.Join(assumed, " · "))
	}
	for _, u := range a.Unread {
		fmt.Fprintf(&text, "not read: %q", u.Text)
		if len(u.CouldBe) > 0 {
			fmt.Fprintf(&text, ", perhaps %s", strings.Join(u.CouldBe, " or "))
		}
		fmt.Fprintln(&text)
	}
	for _, e := range a.Explain {
		fmt.Fprintf(&text, "\n%s = %s\n  = %s\n  = %s\n", e.Name, e.Formula, e.Numbers, e.Result)
	}
	_, err := io.WriteString(out, text.String())
	return err
}

func labels(filters []string) string {
	if len(filters) == 0 {
		return "no filter"
	}
	return strings.Join(filters, " + ")
}

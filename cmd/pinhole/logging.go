package main

import (
	"fmt"
	"io"
	"log/slog"

	"github.com/spf13/cobra"
)

// logging is how much is logged, and how it is written.
type logging struct{ level, format string }

func (l *logging) flags(cmd *cobra.Command) {
	cmd.Flags().StringVar(&l.level, "log-level", "info", "what is logged at the least: debug, info, warn or error")
	cmd.Flags().StringVar(&l.format, "log-format", "json", "how it is written: json or text")
}

// logger returns a log to w.
func (l *logging) logger(w io.Writer) (*slog.Logger, error) {
	var options slog.HandlerOptions
	var level slog.Level
	if err := level.UnmarshalText([]byte(l.level)); err != nil {
		return nil, badUse{fmt.Errorf("--log-level is %q: debug, info, warn or error", l.level)}
	}
	options.Level = level
	switch l.format {
	case "json":
		return slog.New(slog.NewJSONHandler(w, &options)), nil
	case "text":
		return slog.New(slog.NewTextHandler(w, &options)), nil
	}
	return nil, badUse{fmt.Errorf("--log-format is %q: json or text", l.format)}
}

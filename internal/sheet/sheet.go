// Package sheet writes tables that spreadsheets open (RFC 4180) and run nothing of.
package sheet

import (
	"bufio"
	"io"
	"strings"
	"unicode"
	"unicode/utf8"
)

// formulaStarts are what makes a spreadsheet run a cell, the full-width forms of East Asian
// keyboards included.
const formulaStarts = "=+-@\t\r＝＋－＠"

// Guarded returns a text as a cell that no spreadsheet runs: where it would, whatever white
// space stands before, an apostrophe goes first.
func Guarded(text string) string {
	if isRun(text) || strings.HasPrefix(text, "'") {
		return "'" + text
	}
	return text
}

// Unguarded is the text of a guarded cell.
func Unguarded(cell string) string {
	if rest, isGuarded := strings.CutPrefix(cell, "'"); isGuarded && (isRun(rest) || strings.HasPrefix(rest, "'")) {
		return rest
	}
	return cell
}

func isRun(text string) bool {
	if strings.HasPrefix(text, "\t") || strings.HasPrefix(text, "\r") {
		return true
	}
	first, _ := utf8.DecodeRuneInString(strings.TrimLeftFunc(text, func(r rune) bool { return unicode.IsSpace(r) || !unicode.IsPrint(r) }))
	return strings.ContainsRune(formulaStarts, first)
}

// Write writes rows. Every cell that has anything in it is quoted, so that none falls apart
// where a spreadsheet parts cells at semicolons or tabs.
func Write(w io.Writer, rows [][]string) error {
	out := bufio.NewWriter(w) // keeps the first error for Flush
	for _, row := range rows {
		for i, cell := range row {
			if i > 0 {
				_ = out.WriteByte(',')
			}
			if cell != "" {
				_, _ = out.WriteString(`"` + strings.ReplaceAll(cell, `"`, `""`) + `"`)
			}
		}
		_, _ = out.WriteString("\r\n")
	}
	return out.Flush()
}

// Package table reads tables as spreadsheets and loggers write them: with commas, semicolons or
// tabs between the cells, with or without a byte order mark.
package table

import (
	"bufio"
	"bytes"
	"encoding/csv"
	"io"
)

// byteOrderMark is what some programs put before text in UTF-8.
var byteOrderMark = []byte("\uFEFF")

// headBytes is how far the first line is looked for to tell its separator.
const headBytes = 64 << 10

// NewReader returns a reader of the rows of a table, which may differ in length. The separator
// is told from the first line that has anything in it: see Separator.
func NewReader(in io.Reader) *csv.Reader {
	text := bufio.NewReaderSize(in, headBytes)
	head, _ := text.Peek(headBytes) // what cannot be read is told by the first row
	if bytes.HasPrefix(head, byteOrderMark) {
		_, _ = text.Discard(len(byteOrderMark))
		head = head[len(byteOrderMark):]
	}
	rows := csv.NewReader(text)
	rows.Comma, rows.FieldsPerRecord = Separator(head), -1
	// A tab is white space, and an empty first cell is a cell.
	rows.TrimLeadingSpace = rows.Comma != '\t'
	return rows
}

// Separator tells what stands between the cells of a table that begins with head: a tab where
// its first line that is not blank has one outside of quotes, else a semicolon where it has as
// many of them as commas (which are decimal marks then), else a comma.
func Separator(head []byte) rune {
	line, _, _ := bytes.Cut(bytes.TrimLeft(head, "\r\n"), []byte("\n"))
	var tabs, semicolons, commas int
	isQuoted := false
	for _, b := range line {
		switch {
		case b == '"':
			isQuoted = !isQuoted
		case isQuoted:
		case b == '\t':
			tabs++
		case b == ';':
			semicolons++
		case b == ',':
			commas++
		}
	}
	switch {
	case tabs > 0:
		return '\t'
	case semicolons > 0 && semicolons >= commas:
		return ';'
	}
	return ','
}

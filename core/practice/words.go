package practice

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// sentence makes a sentence of a clause.
func sentence(text string) string { return strings.TrimSuffix(begun(text), ".") + "." }

// begun begins a text with a capital.
func begun(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	return string(unicode.ToUpper(first)) + text[size:]
}

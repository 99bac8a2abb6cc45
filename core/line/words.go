package line

import (
	"regexp"
	"strings"
	"unicode"
)

// word is one word of a line, as it is compared: lower case, points for decimal commas. It
// stands from the start-th character to before the end-th.
type word struct {
	text       string
	start, end int
}

// stretch is the words between two marks of the line.
type stretch struct {
	words []word
	// isLook: it stands after a >, where the look is said.
	isLook bool
}

// apart are the marks that set parts of a line apart, beside >.
const apart = "·•;|\n\r"

var (
	decimalComma = regexp.MustCompile(`^([^,]*[0-9]),([0-9][^,]*)$`)
	plainForms   = strings.NewReplacer("−", "-", "–", "-", "×", "x", "½", "1/2", "''", `"`, "″", `"`, "”", `"`, "f/", "f", "ƒ/", "f", "ƒ", "f")
)

// stretches cuts a line into its words.
func stretches(text string) []stretch {
	all := []stretch{{}}
	var held []rune
	begun, at := 0, 0
	add := func() {
		if len(held) == 0 {
			return
		}
		last := &all[len(all)-1]
		for _, w := range atCommas(string(held), begun) {
			if w.text = plainForms.Replace(strings.ToLower(w.text)); w.text != "" {
				last.words = append(last.words, w)
			}
		}
		held = held[:0]
	}
	for _, r := range text {
		switch {
		case r == '>' || r == '→':
			add()
			all = append(all, stretch{isLook: true})
		case strings.ContainsRune(apart, r):
			add()
			all = append(all, stretch{})
		case unicode.IsSpace(r):
			add()
		default:
			if len(held) == 0 {
				begun = at
			}
			held = append(held, r)
		}
		at++
	}
	add()
	return all
}

// atCommas parts a word at its commas, but for one that is a decimal mark.
func atCommas(text string, start int) (parts []word) {
	if m := decimalComma.FindStringSubmatch(text); m != nil {
		return []word{{m[1] + "." + m[2], start, start + len([]rune(text))}}
	}
	for _, part := range strings.Split(text, ",") {
		n := len([]rune(part))
		if n > 0 {
			parts = append(parts, word{part, start, start + n})
		}
		start += n + 1
	}
	return parts
}

// joined is the text of some words, a space between them.
func joined(words []word) string {
	texts := make([]string, len(words))
	for i, w := range words {
		texts[i] = w.text
	}
	return strings.Join(texts, " ")
}

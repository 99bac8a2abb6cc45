package line

import (
	"regexp"
	"strings"
	"unicode"

	"pinhole/core/light"
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
	plainForms   = strings.NewReplacer("−", "-", "–", "-", "…", "-", "..", "-", "×", "x", "½", "1/2", "''", `"`, "″", `"`, "”", `"`, "f/", "f", "ƒ/", "f", "ƒ", "f")
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
			if w.text = strings.TrimRight(plainForms.Replace(strings.ToLower(w.text)), ":?!"); w.text != "" {
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
		case unicode.IsSpace(r), r == '=':
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
	for i := range all {
		all[i].words = marked(all[i].words)
	}
	return all
}

// thousands are digits in groups of three, as 12,800 behind ISO, which has no decimals.
var thousands = regexp.MustCompile(`^[1-9][0-9]{0,2}\.[0-9]{3}$`)

// unitOfTime are the ways to write seconds that may stand apart from their number.
var unitOfTime = map[string]bool{"s": true, "sec": true, "secs": true, "second": true, "seconds": true}

// marked makes one word of an f and of seconds that stand apart from their number, and gives a
// setting that is written as meters show it, 2.8 1/1600 100, its marks.
func marked(words []word) []word {
	var out []word
	for _, w := range words {
		last := len(out) - 1
		switch {
		case last >= 0 && out[last].text == "f" && number.MatchString(w.text):
			out[last] = word{"f" + w.text, out[last].start, w.end}
		case last >= 0 && out[last].text == "iso" && thousands.MatchString(w.text):
			out = append(out, word{strings.ReplaceAll(w.text, ".", ""), w.start, w.end})
		case last >= 0 && unitOfTime[w.text] && (number.MatchString(out[last].text) || fraction.MatchString(out[last].text)):
			out[last].text, out[last].end = strings.TrimSuffix(out[last].text, "s")+"s", w.end
		default:
			out = append(out, w)
		}
	}
	for i := range out {
		if i+2 < len(out) && light.IsBareSetting(out[i].text, out[i+1].text, out[i+2].text) && isBare(out, i+2) {
			out[i].text, out[i+2].text = "f"+out[i].text, "iso"+out[i+2].text
		}
	}
	return out
}

// isBare reports whether the i-th of some words is a number without a unit.
func isBare(words []word, i int) bool {
	if i >= len(words) || !number.MatchString(words[i].text) {
		return false
	}
	if i+1 == len(words) {
		return true
	}
	next := words[i+1].text
	_, isSpeed := speeds[next]
	_, isLength := lengths[next]
	return !isSpeed && !isLength && !unitsApart[next]
}

// unitsApart are units, beside those of speed and length, that may stand apart from their number.
var unitsApart = map[string]bool{"fps": true, "px": true, "hz": true, "%": true}

// factorsInRow are several factors behind one ND, or three and more without it: ND8/16, 4/8/16. A
// density has less than four before its comma.
var factorsInRow = regexp.MustCompile(`^(?i:nd[0-9]+(/[0-9]+)+|[0-9]+(/[0-9]+){2,}|nd(?:[4-9]|[0-9]{2,}),[0-9]+)$`)

// atCommas parts a word at its commas, but for one that is a decimal mark, and several factors.
func atCommas(text string, start int) (parts []word) {
	text = strings.TrimRight(text, ",")
	if factorsInRow.MatchString(text) {
		text = strings.ReplaceAll(text, "/", ",")
	} else if m := decimalComma.FindStringSubmatch(text); m != nil {
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

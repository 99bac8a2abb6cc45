package line

import (
	"regexp"
	"slices"
	"strings"

	"pinhole/core/glass"
)

// effect reads glass that is asked for.
func (r *reader) effect() int {
	if r.peek(0) != "with" {
		return 0
	}
	label, n := r.label(1, false)
	if n == 0 || len(r.Required) == mostRequired {
		return 0
	}
	r.Required = append(r.Required, label)
	return r.say(Effect, "with "+label, 1+n)
}

// What a shot takes of glass.
const (
	mostRequired = 4
	mostKit      = 40
)

// ring reads the label of a filter at hand.
func (r *reader) ring() int { return r.takeRing(false) }

// bareRing reads one that is a bare number: outside a look, or in a row beside a rate that has
// its unit.
func (r *reader) bareRing() int { return r.takeRing(true) }

func (r *reader) takeRing(isBare bool) int {
	if isBare && (!r.isBare(0) || r.now.isLook && !(r.saysRate && r.isInRow())) {
		return 0
	}
	label, n := r.label(0, isBare)
	if n == 0 || len(r.Kit) == mostKit || r.HasNoFilter {
		return 0
	}
	r.Kit = append(r.Kit, label)
	return r.say(Kit, label, n)
}

// noFilter says that there is none at hand, and saysNoFilter is how people write that.
const noFilter = "no filter"

var saysNoFilter = map[string]bool{noFilter: true, "no filters": true, "no nd": true, "no glass": true,
	"without filter": true, "without filters": true, "without a filter": true, "without nd": true, "without glass": true,
	"no nd filter": true, "no nd filters": true, "without nd filter": true, "nothing on": true, "bare lens": true}

// noGlass reads that no filter is at hand. Right behind what a camera read that would tell how it
// was taken: it stays unread there, since a reading is bare where it says nothing else.
func (r *reader) noGlass() int {
	if len(r.Kit) > 0 || r.HasNoFilter || r.at > 0 && r.isCameras() && r.Parts[len(r.Parts)-1].End == r.now.words[r.at-1].end {
		return 0
	}
	for n := min(labelWords, len(r.rest())); n > 0; n-- {
		if saysNoFilter[joined(r.rest()[:n])] {
			r.HasNoFilter = true
			return r.say(Kit, noFilter, n)
		}
	}
	return 0
}

// isCameras reports whether what was said last is a reading that a camera may have taken: by its
// shutter, or by its bias.
func (r *reader) isCameras() bool {
	return len(r.Parts) > 0 && r.Parts[len(r.Parts)-1].Kind == Light && r.Light != nil && (r.ReadAt.Shutter > 0 || r.Light.Kind == "bias")
}

// labelWords are the most words of a label.
const labelWords = 4

// label reads a label from the i-th word on, the longest first, in its canonical form.
func (r *reader) label(i int, isBare bool) (text string, words int) {
	rest := r.rest()[min(i, len(r.rest())):]
	for n := min(labelWords, len(rest)); n > 0; n-- {
		if n > 1 && !belong(rest[:n]) || n == 1 && isBare != number.MatchString(rest[0].text) {
			continue
		}
		l, err := glass.ParseLabel(joined(rest[:n]))
		switch {
		case err != nil, l.Kind == glass.ND && l.Stops == 0: // a factor of 1 is no filter
		case isStops(rest[n-1]) && l.Ambiguous(): // an ND with stops after it that are not its own are two filters
		case rest[n-1].text == "nd" && n < len(rest) && number.MatchString(rest[n].text): // it begins the next
		case l.Kind == glass.Night && strings.HasPrefix(rest[0].text, "night") && rest[n-1].text != "filter": // when it is filmed
		default:
			return written(l, joined(rest[:n])), n
		}
	}
	return "", 0
}

// neat is a canonical label as a ring has it, in words that a line reads as one.
var neat = regexp.MustCompile(`^([A-Z]+[0-9]*(/PL)?|((VND|GND) )?[0-9]+(\.[0-9]{1,2})?(-[0-9]+(\.[0-9]{1,2})?)? stop)$`)

// anyMist is a mist filter of which no strength is said.
const anyMist = "mist filter"

// written is a label in the form that reads back the same: the canonical one, or what was
// typed where that says its strength in another language.
func written(l glass.Label, typed string) string {
	switch text := l.String(); {
	case l.Kind == glass.Night:
		return "night filter"
	case l.Kind == glass.Mist && strings.ContainsAny(typed, "0123456789"):
		return typed
	case l.Kind == glass.Mist:
		return anyMist // a number after it would be its strength
	case neat.MatchString(text):
		return text
	case slices.Contains(usual.Starts.Rates, typed):
		return "ND" + typed // else it may be a frame rate
	}
	return strings.NewReplacer("STOPS", "stops", "STOP", "stop").Replace(strings.ToUpper(typed))
}

// ringText is what a filter is called as a line writes it, "" where a line cannot read that.
func ringText(called string) string {
	l, err := glass.ParseLabel(called)
	if err != nil {
		return ""
	}
	text := written(l, called)
	s := Read(text)
	if len(s.Kit) != 1 || len(s.Parts) != 1 || len(s.Unread) > 0 {
		return ""
	}
	return s.Kit[0]
}

// heads begin a label of several words.
var heads = map[string]bool{"nd": true, "od": true, "gnd": true, "vnd": true, "variable": true, "graduated": true, "mist": true, "black": true, "white": true,
	"circular": true, "night": true, "clear": true, "light": true, "grad": true, "soft": true, "hard": true, "medium": true, "reverse": true}

// belong reports whether words can be one label: a head with what follows it, or an amount
// with its unit.
func belong(words []word) bool {
	last := words[len(words)-1]
	switch {
	case heads[words[0].text]:
		return len(words) < 3 || isStops(last) || last.text == "filter" || heads[words[1].text] || isVariable(last)
	case len(words) == 2:
		return isStops(last) || last.text == "mist" || last.text == "filter" || last.text == "nd" || isVariable(last)
	}
	return len(words) == 3 && (isStops(last) && strings.HasPrefix(words[0].text, "nd") || isStops(words[1]) && last.text == "nd")
}

// isVariable reports whether a word says that the filter is a variable one.
func isVariable(w word) bool { return w.text == "vnd" || w.text == "variable" }

// isStops reports whether a word is the unit of an amount of stops.
func isStops(w word) bool { return w.text == "stop" || w.text == "stops" }

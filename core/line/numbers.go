package line

import (
	"iter"
	"math"
	"regexp"
	"strconv"
	"strings"

	"pinhole/core/stop"
	"pinhole/core/unit"
)

var (
	number    = regexp.MustCompile(`^[0-9]+(\.[0-9]+)?$`)
	signed    = regexp.MustCompile(`^[-+]?[0-9]+(\.[0-9]+)?(/[1-9])?$`)
	fraction  = regexp.MustCompile(`^[0-9]+(\.[0-9]+)?/[0-9]+(\.[0-9]+)?s?$`)
	seconds   = regexp.MustCompile(`^([0-9]+(?:\.[0-9]+)?)(?:s|sec|seconds|")$`)
	fNumber   = regexp.MustCompile(`^[ft]([0-9]+(?:\.[0-9]+)?)$`)
	isoWord   = regexp.MustCompile(`^iso([0-9]+)(?:-([0-9]+))?$`)
	isoSpan   = regexp.MustCompile(`^([0-9]+)(?:-([0-9]+))?$`)
	rateWord  = regexp.MustCompile(`^([0-9]+(?:\.[0-9]+)?)(?:fps|p)$`)
	angleWord = regexp.MustCompile(`^([0-9]+(?:\.[0-9]+)?)(?:°|deg|degrees?)$`)

	// The size of a picture, which says nothing of its light, and the rate that often stands behind it.
	pictureSize = regexp.MustCompile(`^([0-9](\.[0-9])?k|(720|1080|1440|2160)p|uhd)$`)
	sizedRate   = regexp.MustCompile(`^(?:[0-9](?:\.[0-9])?k|(?:720|1080|1440|2160)(?:p|[/@]))[/@]?p?([0-9]+(?:\.[0-9]+)?)(?:p|fps)?$`)
	spanWord    = regexp.MustCompile(`^([0-9]+(?:\.[0-9]+)?)-([0-9]+(?:\.[0-9]+)?)$`)
	measure     = regexp.MustCompile(`^([0-9]+(?:\.[0-9]+)?)([a-z/°]+)$`)
)

// plain writes a number with no more digits than it takes.
func plain(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// tidy writes the digits of a number that matched without idle zeros.
func tidy(text string) string {
	if strings.Contains(text, ".") {
		text = strings.TrimRight(strings.TrimRight(text, "0"), ".")
	}
	if trimmed := strings.TrimLeft(text, "0"); trimmed != "" && trimmed[0] != '.' {
		return trimmed
	}
	return "0" + strings.TrimLeft(text, "0")
}

// amount reads a number that matched; it is finite, as no line is long enough for another.
func amount(text string) float64 {
	v, err := strconv.ParseFloat(text, 64)
	if err != nil {
		return math.NaN() // no pattern above lets this pass
	}
	return v
}

// shutterText writes a shutter time as cameras do: 1/60, 0.5s. A bare number is the time's
// inverse, as it stands in menus.
func shutterText(word string) (text string, t stop.Shutter, ok bool) {
	text = strings.TrimSuffix(word, "s")
	switch m := seconds.FindStringSubmatch(word); {
	case m != nil:
		text = tidy(m[1]) + "s"
	case fraction.MatchString(word):
	case number.MatchString(word) && amount(word) >= 1:
		text = "1/" + tidy(word)
	default:
		return "", 0, false
	}
	t, err := stop.ParseShutter(text, 0)
	return text, t, err == nil
}

var speeds = map[string]unit.Unit{
	"m/s": unit.MetresPerSecond, "mps": unit.MetresPerSecond, "ms": unit.MetresPerSecond,
	"km/h": unit.KilometresPerHour, "kmh": unit.KilometresPerHour, "kph": unit.KilometresPerHour,
	"mph": unit.MilesPerHour, "ft/s": unit.FeetPerSecond,
}

var lengths = map[string]unit.Unit{
	"m": unit.Metres, "metres": unit.Metres, "meters": unit.Metres, "cm": unit.Centimetres, "km": unit.Kilometres,
	"ft": unit.Feet, "feet": unit.Feet, "yd": unit.Yards,
}

// measured reads an amount with its unit, in one word or two, from the i-th word on.
func (r *reader) measured(i int, units map[string]unit.Unit) (text string, v float64, words int) {
	digits, name, words := r.peek(i), r.peek(i+1), 2
	if m := measure.FindStringSubmatch(digits); m != nil {
		digits, name, words = m[1], m[2], 1
	}
	u, isUnit := units[name]
	if !number.MatchString(digits) || !isUnit || u.Of == 0 {
		return "", 0, 0
	}
	return tidy(digits) + " " + u.Name, amount(digits) * u.Of, words
}

func keys(m map[string]string) iter.Seq[string] {
	return func(yield func(string) bool) {
		for k := range m {
			if !yield(k) {
				return
			}
		}
	}
}

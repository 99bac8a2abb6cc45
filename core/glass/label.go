package glass

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"pinhole/core/stop"
)

// Reading is one way to understand a label.
type Reading struct {
	Kind Kind
	// Stops is what the label promises: the grey part alone of a hybrid, the
	// least of a variable, the dark half of a graduated filter.
	Stops stop.Stops
	// PolariserStops is what the polariser of a hybrid adds, else 0.
	PolariserStops stop.Stops
	// Most is the darkest setting of a variable filter, else 0.
	Most stop.Stops
	// As says in words how the text was read: "factor 16", "density 2.0".
	As string
}

// Label is what a filter's ring says.
type Label struct {
	Reading
	// Others are further readings that make sense. A label that has any is
	// ambiguous, and only its owner can say which is right.
	Others []Reading
}

// Ambiguous reports whether the text can be read in more than one way.
func (l Label) Ambiguous() bool { return len(l.Others) > 0 }

// Total returns the stops the reading takes from the picture's middle, as a kit
// counts them: a hybrid with its polariser, a variable at its least, a
// graduated filter nothing.
func (r Reading) Total() stop.Stops {
	switch r.Kind {
	case NDPolariser:
		return r.Stops + r.PolariserStops
	case Graduated:
		return 0
	}
	return r.Stops
}

// String returns the label in the written form that reads back the same and has
// one reading only: "ND16", "4.9 stop", "ND8/PL", "VND 1-6 stop", "GND8".
func (r Reading) String() string {
	switch r.Kind {
	case ND:
		return grey("ND", r.Stops)
	case NDPolariser:
		return grey("ND", r.Stops) + "/PL"
	case Graduated:
		return grey("GND", r.Stops)
	case Variable:
		return "VND " + plain(float64(r.Stops)) + "-" + plain(float64(r.Most)) + " stop"
	case Polariser:
		return "CPL"
	case Clear:
		return "UV"
	default:
		return string(r.Kind)
	}
}

// grey writes stops as the factor on a ring where that is a whole power of two
// and cannot be mistaken, else in stops.
func grey(prefix string, s stop.Stops) string {
	whole := math.Round(float64(s))
	if math.Abs(float64(s)-whole) <= stop.Tolerance && whole >= 1 && whole <= 9 {
		return prefix + strconv.FormatFloat(math.Exp2(whole), 'f', -1, 64)
	}
	text := plain(float64(s)) + " stop"
	if prefix == "GND" {
		return "GND " + text
	}
	return text
}

func plain(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// Causes of a label that cannot be read.
var (
	// ErrLabel: the text has none of the known forms.
	ErrLabel = errors.New("write it as on the ring: ND16, 4 stop, 0.9, ND8/PL, VND 1-6, CPL, UV, mist 1/4, night or GND8")
	// ErrStrength: the form is known and the number is not a filter's.
	ErrStrength = errors.New("a filter takes between 0 and 20 stops, and a range runs from lighter to darker")
)

// darkest is the most stops a label may claim; darker glass is for welding.
const darkest = stop.Stops(20)

// Longest label that is read, in bytes.
const maxLabel = 60

var (
	polariserWord = regexp.MustCompile(`^(c-?pl|pl|cir-?pl|polari[sz]er|polari[sz]ing|circular polari[sz]er)$`)
	clearWord     = regexp.MustCompile(`^(uv|clear|protector|protection|skylight|mcuv)$`)
	nightWord     = regexp.MustCompile(`^(night|clear night|night sky|(?:anti[ -])?light[ -]pollution)$`)
	mistWord      = regexp.MustCompile(`^(?:[0-9]+/[0-9]+ )?(?:black |white )?mist(?: (?:[0-9]+/[0-9]+|[0-9.]+))?$`)
	polariserND   = regexp.MustCompile(`^(?:c-?pl|pl|polari[sz]er)[ /+-]+((?:nd)?.+)$`)
	hybridLabel   = regexp.MustCompile(`^(.+?)[ /+-]*(?:c-?pl|pl|polari[sz]er)$`)
	variableLabel = regexp.MustCompile(`^(?:(vnd|variable nd|variable) *|((?:(?:vnd|variable) +)?nd) *)([0-9.]+) *(?:-|–|to) *(?:nd *)?([0-9.]+) *(stops?|ev)?(?: *(vnd|variable))?$`)
	spanLabel     = regexp.MustCompile(`^([0-9.]+) *(?:-|–|to) *([0-9.]+) *(?:stops?|ev)$`)
	graduateLabel = regexp.MustCompile(`^(?:(?:soft|medium|hard|reverse) )?(?:gnd|graduated(?: nd)?|gradient(?: nd)?|grad(?: nd)?|g-nd) *(.*?)(?: (?:soft|medium|hard|reverse))?$`)
	stopsLabel    = regexp.MustCompile(`^(?:nd *)?[-–]?([0-9.]+)[ -]*(?:stops?|ev)$`)
	timesLabel    = regexp.MustCompile(`^(?:nd *)?([0-9]+) *[x×]$`)
	opticalLabel  = regexp.MustCompile(`^od *([0-9.]+)$`)
	ndLabel       = regexp.MustCompile(`^nd( *-)? *([0-9]+(?:\.[0-9]+)?)$`)
	bareLabel     = regexp.MustCompile(`^([0-9]+(?:\.[0-9]+)?)$`)
	doubleLabel   = regexp.MustCompile(`^([^(]+)\(([^()]+)\)$`)
	besideLabel   = regexp.MustCompile(`^(nd *[0-9.]+) *[ /|] *([0-9.]+[ -]*(?:stops?|ev))$`)
	blanks        = regexp.MustCompile(`\s+`)
)

// ParseLabel reads the text on a filter's ring: a factor (ND16, 16x), stops
// (4 stop, -4EV), a density (ND0.9, OD 1.8), a hybrid (ND8/PL), a variable
// filter (VND 1-6 in stops, ND2-64 VND in factors), or effect glass by its name.
// Two languages on one ring, as in "ND16 (1.2)" or "ND64 6 stop", must agree or are ambiguous.
//
// A whole-number density (ND 2.0) is read as density, a bare whole number (8)
// as a factor; both are ambiguous. The error wraps ErrLabel or ErrStrength in a
// *stop.ParseError.
func ParseLabel(text string) (Label, error) {
	plain := strings.ReplaceAll(strings.ToLower(strings.TrimSpace(text)), ",", ".") // ND0,9
	l, err := parseLabel(blanks.ReplaceAllString(plain, " "))
	if err != nil {
		if len(text) > maxLabel {
			text = text[:maxLabel] + "…"
		}
		return Label{}, &stop.ParseError{What: "a filter label", Input: text, Err: err}
	}
	return l, nil
}

func parseLabel(s string) (Label, error) {
	if len(s) > maxLabel {
		return Label{}, ErrLabel
	}
	s = strings.TrimSuffix(s, " filter")
	for _, twice := range []*regexp.Regexp{doubleLabel, besideLabel} {
		if m := twice.FindStringSubmatch(s); m != nil {
			return bothOf(strings.TrimSpace(m[1]), strings.TrimSpace(m[2]))
		}
	}
	switch {
	case polariserWord.MatchString(s):
		return only(Reading{Kind: Polariser, Stops: polariserStops, As: "a polariser, about 1.5 stops as it is turned"})
	case clearWord.MatchString(s):
		return only(Reading{Kind: Clear, As: "clear filter"})
	case nightWord.MatchString(s):
		return only(Reading{Kind: Night, Stops: nightStops, As: "filter against the glow of lights"})
	case mistWord.MatchString(s):
		return only(Reading{Kind: Mist, Stops: mistStops, As: "mist filter"})
	}
	if m := variableLabel.FindStringSubmatch(s); m != nil {
		return variable(m)
	}
	if m := spanLabel.FindStringSubmatch(s); m != nil {
		return variable([]string{s, "variable", "", m[1], m[2], "stops", ""})
	}
	if m := graduateLabel.FindStringSubmatch(s); m != nil {
		l, err := greyPart(strings.TrimSpace(m[1]))
		return l.as(func(r Reading) Reading { r.Kind = Graduated; r.As += " over one half"; return r }), err
	}
	m := hybridLabel.FindStringSubmatch(s)
	if m == nil {
		m = polariserND.FindStringSubmatch(s)
	}
	if m != nil {
		l, err := greyPart(m[1])
		return l.as(func(r Reading) Reading {
			r.Kind, r.PolariserStops = NDPolariser, polariserStops
			r.As += " with a polariser"
			return r
		}), err
	}
	return greyLabel(s)
}

// greyLabel reads the strength of a plain grey filter.
func greyLabel(s string) (Label, error) {
	if strength, isLast := strings.CutSuffix(s, " nd"); isLast { // a 10 stop ND
		s = "nd " + strength
	}
	if m := stopsLabel.FindStringSubmatch(s); m != nil {
		return of(inStops, m[1])
	}
	if m := timesLabel.FindStringSubmatch(s); m != nil {
		return of(inFactors, m[1])
	}
	if m := opticalLabel.FindStringSubmatch(s); m != nil {
		return of(inDensity, m[1])
	}
	if m := ndLabel.FindStringSubmatch(s); m != nil {
		// The dash of ND-4 may be a minus: four stops off.
		return printed(m[2], m[1] == "" && !oddFactor(m[2]))
	}
	if m := bareLabel.FindStringSubmatch(s); m != nil {
		return printed(m[1], false)
	}
	return Label{}, ErrLabel
}

// greyPart reads the strength inside a longer label, where the rest has said
// that this is ND: the 8 of GND8 and 8PL.
func greyPart(s string) (Label, error) {
	if bareLabel.MatchString(s) {
		s = "nd" + s
	}
	return greyLabel(s)
}

// oddFactor reports whether a whole number after ND is a factor that nobody
// makes (3, 5, 6, 7 ...), so that stops may have been meant.
func oddFactor(text string) bool {
	n, err := strconv.Atoi(text)
	return err == nil && n <= 12 && n&(n-1) != 0
}

// printed reads a number that names no unit: a decimal point means density, a
// whole number a factor. A whole density and an unsure factor offer another reading.
func printed(number string, sure bool) (Label, error) {
	whole, fraction, isDecimal := strings.Cut(number, ".")
	switch {
	case isDecimal && strings.Trim(fraction, "0") == "":
		return of(inDensity, number, option{inFactors, whole})
	case isDecimal:
		return of(inDensity, number)
	case sure:
		return of(inFactors, number)
	}
	return of(inFactors, number, option{inStops, number})
}

// A language is one of the three in which rings state their strength.
type language func(v float64) Reading

func inStops(v float64) Reading {
	as := plain(v) + " stops"
	if v == 1 {
		as = "1 stop"
	}
	return Reading{Kind: ND, Stops: stop.Stops(v), As: as}
}
func inFactors(v float64) Reading {
	return Reading{Kind: ND, Stops: stop.FromFactor(v), As: "factor " + plain(v)}
}
func inDensity(v float64) Reading {
	return Reading{Kind: ND, Stops: stop.FromDensity(v), As: fmt.Sprintf("density %.1f", v)}
}

type option struct {
	in     language
	number string
}

// of reads a number in one language, and in others where they too make a filter.
func of(in language, number string, others ...option) (Label, error) {
	r, err := strength(in, number)
	if err != nil {
		return Label{}, err
	}
	l := Label{Reading: r}
	for _, o := range others {
		if r, err := strength(o.in, o.number); err == nil && r.Stops > 0 {
			l.Others = append(l.Others, r)
		}
	}
	return l, nil
}

func strength(in language, number string) (Reading, error) {
	v, err := strconv.ParseFloat(number, 64)
	if err != nil {
		return Reading{}, ErrLabel
	}
	r := in(v)
	if !(r.Stops >= 0 && r.Stops <= darkest) {
		return Reading{}, ErrStrength
	}
	return r, nil
}

func only(r Reading) (Label, error) { return Label{Reading: r}, nil }

// as returns the label with every reading changed by f.
func (l Label) as(f func(Reading) Reading) Label {
	l.Reading = f(l.Reading)
	for i := range l.Others {
		l.Others[i] = f(l.Others[i])
	}
	return l
}

// mostInStops is the darkest end that a range after VND may have to be stops;
// a greater number must be a factor.
const mostInStops = 12

// variable reads the parts of variableLabel. Numbers after VND are stops unless
// too large for them, those after ND are factors.
func variable(m []string) (Label, error) {
	from, err1 := strconv.ParseFloat(m[3], 64)
	to, err2 := strconv.ParseFloat(m[4], 64)
	if err1 != nil || err2 != nil {
		return Label{}, ErrLabel
	}
	span := func(in language, unit string) (Reading, error) {
		lo, hi := in(from), in(to)
		if !(lo.Stops >= 0 && lo.Stops < hi.Stops && hi.Stops <= darkest) {
			return Reading{}, ErrStrength
		}
		return Reading{Kind: Variable, Stops: lo.Stops, Most: hi.Stops,
			As: fmt.Sprintf("variable, %s %s to %s", unit, plain(from), plain(to))}, nil
	}
	if m[5] == "" && to > mostInStops {
		r, err := span(inFactors, "factor")
		return Label{Reading: r}, err
	}
	// 2-8 is as good a range of factors as of stops; VND 1-6 is not, and ND2-5 could be
	// either, though nobody makes a factor of five.
	areFactors := isPowerOfTwo(from) && isPowerOfTwo(to) && from >= 2
	readings := []Reading{}
	take := func(in language, unit string) error {
		r, err := span(in, unit)
		if err == nil {
			readings = append(readings, r)
		}
		return err
	}
	isND := m[2] != ""
	if m[5] == "" && isND && areFactors {
		if err := take(inFactors, "factor"); err != nil {
			return Label{}, err
		}
	}
	if err := take(inStops, "stops"); err != nil && len(readings) == 0 {
		return Label{}, err
	}
	if m[5] == "" && (isND != areFactors) {
		_ = take(inFactors, "factor") // one that makes no filter is no reading
	}
	return Label{Reading: readings[0], Others: readings[1:]}, nil
}

func isPowerOfTwo(v float64) bool {
	_, e := math.Frexp(v)
	return v >= 1 && v == math.Ldexp(0.5, e)
}

// sameStrength is how near two languages on one ring must come to agree, in
// stops: rings round (ND64 is printed 1.8, 5.98 stops).
const sameStrength = stop.Stops(0.1)

// bothOf reads a ring that states its strength twice.
func bothOf(first, second string) (Label, error) {
	l, err := parseLabel(first)
	if err != nil {
		return Label{}, err
	}
	other, err := parseLabel(second)
	if err != nil {
		return Label{}, err
	}
	candidates := append([]Reading{l.Reading}, l.Others...)
	for _, r := range append([]Reading{other.Reading}, other.Others...) {
		for _, c := range candidates {
			if (c.Stops - r.Stops).Abs() <= sameStrength {
				return Label{Reading: c}, nil
			}
		}
	}
	l.Others = append(candidates[1:], other.as(func(r Reading) Reading { r.Kind = l.Kind; return r }).Reading)
	return l, nil
}

// LabelOf returns the label that a grey filter of so many stops carries, as a factor.
func LabelOf(s stop.Stops) string { return fmt.Sprintf("ND%.0f", math.Round(s.Factor())) }

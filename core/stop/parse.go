package stop

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// ParseError says which text could not be read as what, and why.
type ParseError struct {
	What  string // what was expected: "a shutter time"
	Input string
	Err   error
}

// Error returns the fault in one sentence, naming the text and what is allowed.
func (e *ParseError) Error() string { return fmt.Sprintf("%q is not %s: %v", e.Input, e.What, e.Err) }

// Unwrap returns the cause.
func (e *ParseError) Unwrap() error { return e.Err }

// Causes of a ParseError.
var (
	// ErrSyntax: the text has none of the written forms.
	ErrSyntax = errors.New(`write 1/60, 60, 0.5s, 2" or 180°`)
	// ErrRange: the form is right and the number is not usable.
	ErrRange = errors.New("it must be a number above zero and within reach of a camera")
	// ErrNeedsRate: an angle says nothing without frames per second.
	ErrNeedsRate = errors.New("an angle needs a frame rate")
)

// Shutter times that a text may mean, in seconds.
const (
	shortest = Shutter(1e-6)
	longest  = Shutter(24 * 3600)
)

// plainForms are other ways to write a fraction and seconds.
var plainForms = strings.NewReplacer("⁄", "/", "''", `"`)

// ParseShutter reads a written shutter time: "1/60"; "60", which means 1/60;
// "1/59.94"; "0.5s"; `2"`; "180°" or "180deg", which needs fps. A bare number
// under 1 is seconds; "20 ms" is thousandths. A trailing s, sec, " or th after any time is allowed.
//
// The result lies in [1 µs, 24 h]. Errors are *ParseError with cause ErrSyntax,
// ErrRange or ErrNeedsRate.
func ParseShutter(text string, fps FrameRate) (Shutter, error) {
	fail := func(err error) (Shutter, error) {
		return 0, &ParseError{What: "a shutter time", Input: text, Err: err}
	}
	bare := strings.ToLower(strings.TrimSpace(text))
	if angle, ok := cutAnySuffix(bare, "°", "deg", "degrees"); ok {
		deg, err := number(angle)
		switch {
		case err != nil:
			return fail(ErrSyntax)
		case fps <= 0:
			return fail(ErrNeedsRate)
		case deg <= 0:
			return fail(ErrRange)
		}
		return inReach(Angle(deg).At(fps), fail)
	}
	if thousandths, ok := cutAnySuffix(bare, "ms"); ok {
		v, err := number(thousandths)
		if err != nil {
			return fail(ErrSyntax)
		}
		return inReach(Shutter(v/1000), fail)
	}
	bare = plainForms.Replace(strings.TrimSuffix(bare, "th")) // 1/60th
	amount, isSeconds := cutAnySuffix(bare, "seconds", "second", "sec.", "sec", "s", `"`, "″", "”")
	if numerator, denominator, isFraction := strings.Cut(amount, "/"); isFraction {
		n, err1 := number(numerator)
		d, err2 := number(denominator)
		if err1 != nil || err2 != nil {
			return fail(ErrSyntax)
		}
		return inReach(Shutter(n/d), fail)
	}
	v, err := number(amount)
	switch {
	case err != nil:
		return fail(ErrSyntax)
	case isSeconds || v < 1:
		return inReach(Shutter(v), fail)
	}
	return inReach(Shutter(1/v), fail)
}

// ParseAngle reads a written shutter angle: "180°", "172.8deg"; ok is false for a
// text that is not one.
func ParseAngle(text string) (a Angle, ok bool) {
	bare, isAngle := cutAnySuffix(strings.ToLower(strings.TrimSpace(text)), "°", "deg", "degrees")
	deg, err := number(bare)
	return Angle(deg), isAngle && err == nil && deg > 0
}

func inReach(t Shutter, fail func(error) (Shutter, error)) (Shutter, error) {
	if !(t >= shortest && t <= longest) { // also refuses NaN
		return fail(ErrRange)
	}
	return t, nil
}

// number reads a plain decimal number; a decimal comma is allowed, signs,
// exponents and the names of special values are not.
func number(text string) (float64, error) {
	text = strings.Replace(strings.TrimSpace(text), ",", ".", 1)
	if text == "" || strings.Trim(text, "0123456789.") != "" || len(text) > 20 {
		return 0, ErrSyntax
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil || math.IsInf(v, 0) {
		return 0, ErrSyntax
	}
	return v, nil
}

// cutAnySuffix returns text without the first of the suffixes it ends in, and
// whether it ended in one.
func cutAnySuffix(text string, suffixes ...string) (string, bool) {
	for _, s := range suffixes {
		if before, ok := strings.CutSuffix(text, s); ok {
			return strings.TrimSpace(before), true
		}
	}
	return text, false
}

// Causes of a ParseError for the quantities beside shutter times.
var (
	// ErrFNumber, ErrISO and ErrRate: the text is no number, or one that no
	// camera has.
	ErrFNumber = errors.New("write an f-number from 0.5 to 64, as in f2.8")
	ErrISO     = errors.New("write an ISO from 1 to 10000000, as in ISO 100")
	ErrRate    = errors.New("write frames per second above 0 and up to 10000, as in 25, 29.97 or 50fps, or still")
	ErrNumber  = errors.New("write a plain number")
)

// beforeAperture is what may stand before the number of an aperture, as on lenses.
var beforeAperture = regexp.MustCompile(`^(?:[fƒt] ?/?|1:) ?`)

// ParseFNumber reads an aperture: "f2.8", "f/2.8", "T2.8", "1:2.8", "2.8", within [0.5, 64].
func ParseFNumber(text string) (FNumber, error) {
	bare := strings.ToLower(strings.TrimSpace(text))
	v, err := number(bare[len(beforeAperture.FindString(bare)):])
	if err != nil || v < 0.5 || v > 64 {
		return 0, &ParseError{What: "an aperture", Input: text, Err: ErrFNumber}
	}
	return FNumber(v), nil
}

// thousands are digits in groups of three: 12,800. No sensitivity has three decimals.
var thousands = regexp.MustCompile(`^[1-9][0-9]{0,2}(?:[., '’][0-9]{3})+$`)

// ParseISO reads a sensitivity: "100", "iso100", "ISO 100", "12,800", within [1, 10⁷].
func ParseISO(text string) (ISO, error) {
	bare := strings.TrimSpace(strings.TrimPrefix(strings.ToLower(strings.TrimSpace(text)), "iso"))
	if thousands.MatchString(bare) {
		bare = strings.NewReplacer(".", "", ",", "", " ", "", "'", "", "’", "").Replace(bare)
	}
	v, err := number(bare)
	if err != nil || v < 1 || v > 1e7 {
		return 0, &ParseError{What: "a sensitivity", Input: text, Err: ErrISO}
	}
	return ISO(v), nil
}

// ParseRate reads a frame rate: "25", "29.97", "50fps", "50p", within
// (0, 10000], film rates made exact, or as files write those, "30000/1001"; "still" is the zero rate.
func ParseRate(text string) (FrameRate, error) {
	bare, _ := cutAnySuffix(strings.ToLower(strings.TrimSpace(text)), "fps", "p")
	if bare == "still" {
		return 0, nil
	}
	ofFilm, isFilms := strings.CutSuffix(bare, "/1001")
	v, err := number(ofFilm)
	if isFilms {
		v /= 1001
	}
	if err != nil || v <= 0 || v > 10000 {
		return 0, &ParseError{What: "a frame rate", Input: text, Err: ErrRate}
	}
	return ExactRate(v), nil
}

// ParseSigned reads a decimal number that may have a sign.
func ParseSigned(text string) (float64, error) {
	bare := strings.TrimSpace(strings.ReplaceAll(text, "−", "-"))
	unsigned := strings.TrimLeft(bare, "+-")
	if len(bare)-len(unsigned) > 1 {
		return 0, &ParseError{What: "a number", Input: text, Err: ErrNumber}
	}
	v, err := number(unsigned)
	if err != nil {
		return 0, &ParseError{What: "a number", Input: text, Err: ErrNumber}
	}
	if strings.HasPrefix(bare, "-") {
		v = -v
	}
	return v, nil
}

// written are thirds and halves in figures: 1 1/3, 2/3.
var written = regexp.MustCompile(`^([-+]?)(?:([0-9]) )?([12])/([23])$`)

// ParseBias reads an exposure bias as cameras show it: "+0.7", "-1 1/3", "2/3 EV". Their scales
// run in thirds and print one decimal, so that 0.3 and 0.7, and likewise 1.3 or 2.7, mean thirds;
// any other number is what it says.
func ParseBias(text string) (Stops, error) {
	bare, _ := cutAnySuffix(strings.ToLower(strings.TrimSpace(strings.ReplaceAll(text, "−", "-"))), "ev")
	if m := written.FindStringSubmatch(bare); m != nil {
		digit := func(s string) Stops { return Stops(s[0] - '0') }
		v := digit(m[3]) / digit(m[4])
		if m[2] != "" {
			v += digit(m[2])
		}
		if m[1] == "-" {
			v = -v
		}
		return v, nil
	}
	v, err := ParseSigned(bare)
	if err != nil {
		return 0, &ParseError{What: "a number", Input: text, Err: ErrNumber}
	}
	whole := math.Trunc(v)
	for _, third := range []float64{1, 2} {
		if printed := math.Round(10*third/3) / 10; math.Abs(math.Abs(v-whole)-printed) < Tolerance {
			return Stops(whole + math.Copysign(third/3, v)), nil
		}
	}
	return Stops(v), nil
}

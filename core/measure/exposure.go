package measure

import (
	"fmt"
	"math"
	"strings"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// span is a reading of a camera: one setting, or the range between which it went to and fro.
type span struct {
	low, high Exposure // by the shutter
}

func (s span) isRange() bool { return s.low != s.high }

const exposureAllowed = "an exposure such as f2.8 1/500 iso100, the aperture may be left out; a range as 1/50..1/40"

// parseExposure reads "f2.8 1/500 iso100"; a reading may have a range of shutters or of ISO
// between two dots.
func parseExposure(option, text string, mayRange bool) (span, error) {
	fault := func() error { return &problem.Fault{Field: option, Value: text, Allowed: exposureAllowed} }
	var s span
	for _, word := range strings.Fields(strings.ToLower(text)) {
		from, to, isRange := strings.Cut(word, "..")
		if !isRange {
			to = from
		} else if !mayRange {
			return span{}, fault()
		}
		if strings.HasPrefix(from, "iso") && !strings.HasPrefix(to, "iso") {
			to = "iso" + to
		}
		if s.low.take(from) != nil || s.high.take(to) != nil {
			return span{}, fault()
		}
	}
	if s.low.ShutterS == 0 || s.low.ISO == 0 || s.low.Aperture != s.high.Aperture {
		return span{}, fault()
	}
	return s, nil
}

// take reads one word of an exposure.
func (e *Exposure) take(word string) error {
	var err error
	switch {
	case strings.HasPrefix(word, "iso"):
		e.ISO, err = stop.ParseISO(strings.TrimPrefix(word, "iso"))
	case strings.HasPrefix(word, "f"):
		e.Aperture, err = stop.ParseFNumber(word)
	default:
		e.ShutterS, err = stop.ParseShutter(word, 0)
	}
	if err == nil && (e.ISO < 0 || e.ShutterS < 0) {
		err = fmt.Errorf("%s", word)
	}
	return err
}

// factor returns how much light an exposure takes: t·ISO/N², N² left out unless it counts.
func (e Exposure) factor(withAperture bool) float64 {
	x := float64(e.ShutterS) * float64(e.ISO)
	if withAperture {
		x /= float64(e.Aperture) * float64(e.Aperture)
	}
	return x
}

// middle returns the middle of a reading and the half of its width, in stops.
func (s span) middle(withAperture bool) (factor float64, half stop.Stops) {
	low, high := s.low.factor(withAperture), s.high.factor(withAperture)
	return math.Sqrt(low * high), stop.FromFactor(high/low).Abs() / 2
}

package line

import (
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// saysLook reports whether a word can stand in a look alone.
func saysLook(w word) bool {
	return rateWord.MatchString(w.text) || angleWord.MatchString(w.text) || w.text == "fps" || w.text == "still" || strings.HasPrefix(w.text, "time-lapse") || w.text == "timelapse"
}

// rate reads a frame rate with its unit, and how the frames are shown.
func (r *reader) rate() int {
	m, n := rateWord.FindStringSubmatch(r.peek(0)), 1
	if m == nil && number.MatchString(r.peek(0)) && r.peek(1) == "fps" {
		m, n = []string{"", r.peek(0)}, 2
	}
	if m == nil {
		return 0
	}
	return r.takeRate(m[1], n)
}

// bareRate reads a frame rate without its unit, which stands in a look alone.
func (r *reader) bareRate() int {
	if !r.now.isLook || !number.MatchString(r.peek(0)) {
		return 0
	}
	return r.takeRate(r.peek(0), 1)
}

func (r *reader) takeRate(digits string, n int) int {
	rate, err := stop.ParseRate(digits)
	if err != nil || r.FPS != "" {
		return 0
	}
	text, delivery, more := rate.String()+" fps", (*assemble.Delivery)(nil), 0
	shown := func(i int) (float64, int) { // a rate at which it is shown
		m, words := rateWord.FindStringSubmatch(r.peek(i)), 1
		if m == nil && number.MatchString(r.peek(i)) {
			m = []string{"", r.peek(i)}
			if r.peek(i+1) == "fps" {
				words = 2
			}
		}
		if m == nil {
			return 0, 0
		}
		at, err := stop.ParseRate(m[1])
		if err != nil || at == 0 {
			return 0, 0
		}
		return float64(at), words
	}
	switch {
	case r.peek(n) == "on":
		if at, words := shown(n + 1); words > 0 {
			delivery, more = &assemble.Delivery{Mode: motion.RealTime, FPS: at}, 1+words
			text += " on " + stop.FrameRate(at).String()
		}
	case r.peek(n) == "slowed" && r.peek(n+1) == "to", r.peek(n) == "slow" && r.peek(n+1) == "on":
		if at, words := shown(n + 2); words > 0 {
			delivery, more = &assemble.Delivery{Mode: motion.EveryFrame, FPS: at}, 2+words
			text += " slowed to " + stop.FrameRate(at).String()
		}
	case r.peek(n) == "sped" && r.peek(n+1) == "up":
		if factor, isTimes := strings.CutSuffix(r.peek(n+2), "x"); isTimes && number.MatchString(factor) && amount(factor) > 0 && amount(factor) <= 10000 {
			delivery, more = &assemble.Delivery{Mode: motion.SpeedUp, FPS: float64(rate), Factor: amount(factor)}, 3
			text += " sped up " + tidy(factor) + "x"
		}
	}
	r.FPS, r.Delivery = rate.String(), delivery
	return r.say(Look, text, n+more)
}

// angle reads a shutter angle; one by the second is a turn.
func (r *reader) angle() int {
	m, n := angleWord.FindStringSubmatch(r.peek(0)), 1
	if m == nil && number.MatchString(r.peek(0)) && (r.peek(1) == "degrees" || r.peek(1) == "deg" || r.peek(1) == "°") {
		m, n = []string{"", r.peek(0)}, 2
	}
	if m == nil {
		return 0
	}
	if r.Target != "" || amount(m[1]) <= 0 || amount(m[1]) > 360 {
		return r.spoil(n) // its number is no frame rate either
	}
	r.Target = tidy(m[1]) + "°"
	return r.say(Look, r.Target, n)
}

// still reads a picture that stands by itself.
func (r *reader) still() int {
	if r.peek(0) != "still" && r.peek(0) != "stills" || r.FPS != "" {
		return 0
	}
	r.FPS = "still"
	return r.say(Look, "still", 1)
}

// timeLapse reads a row of stills and the time between them.
func (r *reader) timeLapse() int {
	n := 0
	switch {
	case strings.HasPrefix(r.peek(0), "time-lapse") || r.peek(0) == "timelapse":
		n = 1
	case r.peek(0) == "time" && r.peek(1) == "lapse":
		n = 2
	case r.peek(0) == "every":
	default:
		return 0
	}
	if r.peek(n) == "every" {
		n++
	}
	m, words := seconds.FindStringSubmatch(r.peek(n)), 1
	if m == nil && number.MatchString(r.peek(n)) && (r.peek(n+1) == "s" || r.peek(n+1) == "sec" || r.peek(n+1) == "seconds") {
		m, words = []string{"", r.peek(n)}, 2
	}
	if m == nil || r.IntervalS != 0 || amount(m[1]) < 0.001 || amount(m[1]) > 86400 {
		return 0
	}
	r.IntervalS = amount(m[1])
	return r.say(Look, "time-lapse every "+tidy(m[1])+" s", n+words)
}

// target reads the shutter time that is wanted; it stands in a look alone.
func (r *reader) target() int {
	if !r.now.isLook || r.Target != "" || number.MatchString(r.peek(0)) {
		return 0
	}
	text, _, ok := shutterText(r.peek(0))
	if !ok {
		return 0
	}
	r.Target = text
	return r.say(Look, text, 1)
}

package line

import (
	"slices"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// saysLook reports whether a word can stand in a look alone.
func saysLook(w word) bool {
	_, n := rateAt([]word{w}, 0)
	return n > 0 || angleWord.MatchString(w.text) || w.text == "fps" || w.text == "still" || strings.HasPrefix(w.text, "time-lapse") || w.text == "timelapse"
}

// rateAt finds a frame rate with its unit at the i-th of some words: 25 fps, 25p, or behind the
// size of a picture, 4k60.
func rateAt(words []word, i int) (digits string, n int) {
	text, next := words[i].text, ""
	if i+1 < len(words) {
		next = words[i+1].text
	}
	if text == "fps" && number.MatchString(next) { // fps: 30
		return next, 2
	}
	if text[0] < '0' || text[0] > '9' {
		return "", 0
	}
	if m := sizedRate.FindStringSubmatch(text); m != nil {
		return m[1], 1
	}
	if m := rateWord.FindStringSubmatch(text); m != nil && !pictureSize.MatchString(text) {
		return m[1], 1
	}
	if next == "fps" && number.MatchString(text) {
		return text, 2
	}
	return "", 0
}

// saysRate reports whether a stretch says the rate that is shot, with its unit; that which is
// shown stands behind on or to.
func (s stretch) saysRate() bool {
	for i := range s.words {
		if _, n := rateAt(s.words, i); n > 0 && (i == 0 || s.words[i-1].text != "on" && s.words[i-1].text != "to") {
			return true
		}
	}
	return false
}

// rate reads a frame rate with its unit, and how the frames are shown.
func (r *reader) rate() int {
	digits, n := rateAt(r.rest(), 0)
	if n == 0 {
		return 0
	}
	return r.takeRate(digits, n)
}

// bareRate reads a frame rate without its unit, where no other has one: in a look, and one that
// cameras have where it stands by itself beside something else.
func (r *reader) bareRate() int {
	if r.saysRate || !r.isBare(0) {
		return 0
	}
	isUsual := len(r.now.words) > 1 && !r.isInRow() && slices.Contains(usual.Starts.Rates, r.peek(0))
	if !r.now.isLook && !isUsual {
		return 0
	}
	return r.takeRate(r.peek(0), 1)
}

// isBare reports whether the i-th word is a number without a unit.
func (r *reader) isBare(i int) bool { return isBare(r.rest(), i) }

// isInRow reports whether the next word is one of several bare numbers, or follows a filter.
func (r *reader) isInRow() bool {
	if r.isBare(1) {
		return true
	}
	if r.at == 0 {
		return false
	}
	before := r.now.words[r.at-1]
	isFilter := len(r.Parts) > 0 && r.Parts[len(r.Parts)-1].Kind == Kit && r.Parts[len(r.Parts)-1].End == before.end
	return isFilter || number.MatchString(before.text)
}

// saysView are words that say that an angle is a field of view.
var saysView = map[string]bool{"fov": true, "hfov": true, "view": true, "fisheye": true}

// view knows a field of view, which is the camera's own, so that its number is nothing else.
func (r *reader) view() int {
	isView := func(i int) bool { return saysView[r.peek(i)] }
	isDegrees := func(i int) bool { return number.MatchString(r.peek(i)) || angleWord.MatchString(r.peek(i)) }
	if isView(0) && isDegrees(1) || isView(1) && isDegrees(0) {
		return r.spoil(2)
	}
	return 0
}

// wanted reads a shutter time that is said to be wanted: shutter 1/50, want 1/50.
func (r *reader) wanted() int {
	n := 0
	for r.peek(n) == "want" || r.peek(n) == "shutter" && r.prefers != settingAsLight || n > 0 && r.peek(n) == "speed" {
		n++
	}
	text, _, isTime := shutterText(r.peek(n))
	if n == 0 || !isTime || r.Target != "" || number.MatchString(r.peek(n)) && !r.isBare(n) {
		return 0
	}
	r.Target = text
	return r.say(Look, text, n+1)
}

func (r *reader) takeRate(digits string, n int) int {
	rate, err := stop.ParseRate(digits)
	if err != nil || r.FPS != "" {
		return 0
	}
	text, delivery, more := rate.String()+" fps", (*assemble.Delivery)(nil), 0
	shown := func(i int) (float64, int) { // a rate at which it is shown
		if i >= len(r.rest()) {
			return 0, 0
		}
		digits, words := rateAt(r.rest(), i)
		if words == 0 && number.MatchString(r.peek(i)) {
			digits, words = r.peek(i), 1
		}
		at, err := stop.ParseRate(digits)
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

// usualAngles are the numbers that before shutter are angles, as in 180 shutter.
var usualAngles = map[string]bool{"90": true, "172.8": true, "180": true, "270": true, "360": true}

// angle reads a shutter angle; one by the second is a turn.
func (r *reader) angle() int {
	m, n := angleWord.FindStringSubmatch(r.peek(0)), 1
	if m == nil && number.MatchString(r.peek(0)) && (r.peek(1) == "degrees" || r.peek(1) == "degree" || r.peek(1) == "deg" || r.peek(1) == "°") {
		m, n = []string{"", r.peek(0)}, 2
	}
	if m == nil && usualAngles[r.peek(0)] && r.peek(1) == "shutter" {
		m = []string{"", r.peek(0)}
	}
	if m == nil {
		return 0
	}
	if r.peek(n) == "shutter" {
		n++
	}
	if r.Target != "" || amount(m[1]) <= 0 || amount(m[1]) > 360 {
		return r.spoil(n) // its number is no frame rate either
	}
	r.Target = tidy(m[1]) + "°"
	return r.say(Look, r.Target, n)
}

// still reads a picture that stands by itself.
func (r *reader) still() int {
	n := 1
	if r.peek(0) == "long" && r.peek(1) == "exposure" {
		n = 2
	} else if r.peek(0) != "still" && r.peek(0) != "stills" {
		return 0
	}
	if r.FPS != "" {
		return 0
	}
	r.FPS = "still"
	return r.say(Look, "still", n)
}

// timeLapse reads a row of stills and the time between them.
func (r *reader) timeLapse() int {
	n := 0
	switch {
	case strings.HasPrefix(r.peek(0), "time-lapse") || r.peek(0) == "timelapse":
		n = 1
	case r.peek(0) == "time" && r.peek(1) == "lapse":
		n = 2
	case r.peek(0) == "1" && r.peek(1) == "frame" && r.peek(2) == "every":
		n = 2
	case r.peek(0) == "every":
	default:
		return 0
	}
	switch {
	case r.peek(n) == "every":
		n++
	case r.saysEvery():
		return n // and that, when its turn comes
	}
	m := seconds.FindStringSubmatch(r.peek(n))
	if m == nil || r.IntervalS != 0 || amount(m[1]) < 0.001 || amount(m[1]) > 86400 {
		return 0
	}
	r.IntervalS = amount(m[1])
	return r.say(Look, "time-lapse every "+tidy(m[1])+" s", n+1)
}

// saysEvery reports whether the time between stills is still to be read.
func (r *reader) saysEvery() bool {
	rest := r.rest()
	return slices.ContainsFunc(rest[:max(len(rest)-1, 0)], func(w word) bool { return w.text == "every" }) && r.IntervalS == 0
}

// target reads the shutter time that is wanted; it stands in a look alone.
func (r *reader) target() int {
	if !r.now.isLook && r.prefers != timeAsWish || r.Target != "" || number.MatchString(r.peek(0)) {
		return 0
	}
	text, _, ok := shutterText(r.peek(0))
	if !ok {
		return 0
	}
	r.Target = text
	return r.say(Look, text, 1)
}

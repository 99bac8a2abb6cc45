package line

import (
	"regexp"
	"strings"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// cameraName reads the name of a camera that is known, the longest first.
func (r *reader) cameraName() int {
	for n := len(r.rest()); n > 0; n-- {
		if name, isKnown := r.cameras[joined(r.rest()[:n])]; isKnown && !r.taken["camera"] {
			r.Camera, r.taken["camera"] = name, true
			return r.say(Camera, name, n)
		}
	}
	return 0
}

// phrase reads words that stand for themselves, the longest phrase first. Light by eye is
// said in several; of each other kind the first counts.
func (r *reader) phrase() int {
	for n := min(mostWords, len(r.rest())); n > 0; n-- {
		p, isOne := phrases[joined(r.rest()[:n])]
		if !isOne || r.taken[p.slot] {
			continue
		}
		r.taken[p.slot] = true
		p.set(r)
		return r.say(p.kind, p.text, n)
	}
	return 0
}

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
	if m == nil || r.Target != "" || amount(m[1]) <= 0 || amount(m[1]) > 360 {
		return 0
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

// cameraSettings reads what a camera has for good, outside a reading: its aperture, and its
// base ISO, or that and the highest that still looks good.
func (r *reader) cameraSettings() int {
	if m := fNumber.FindStringSubmatch(r.peek(0)); m != nil && r.Aperture == 0 {
		n, err := stop.ParseFNumber(m[1])
		if err != nil {
			return 0
		}
		r.Aperture = n
		return r.say(Camera, "f"+tidy(m[1]), 1)
	}
	m, words := isoWord.FindStringSubmatch(r.peek(0)), 1
	if m == nil && r.peek(0) == "iso" {
		m, words = isoSpan.FindStringSubmatch(r.peek(1)), 2
	}
	if m == nil || r.ISOBase != 0 {
		return 0
	}
	base, err := stop.ParseISO(m[1])
	if err != nil {
		return 0
	}
	text, ceiling := "iso"+tidy(m[1]), stop.ISO(0)
	if m[2] != "" {
		if ceiling, err = stop.ParseISO(m[2]); err != nil || ceiling < base {
			return 0
		}
		text += "-" + tidy(m[2])
	}
	r.ISOBase, r.ISOCeiling = base, ceiling
	return r.say(Camera, text, words)
}

// layers reads how many filters may go over each other.
func (r *reader) layers() int {
	n := r.peek(0)
	if r.peek(1) != "layers" && r.peek(1) != "layer" || len(n) != 1 || n[0] < '1' || n[0] > '4' || r.Choices.MaxLayers != 0 {
		return 0
	}
	r.Choices.MaxLayers = int(n[0] - '0')
	text := n + " layers"
	if n == "1" {
		text = "1 layer"
	}
	return r.say(Layers, text, 2)
}

// aim reads the exposure that is wanted against the meter.
func (r *reader) aim() int {
	if r.peek(0) != "aim" || !signed.MatchString(r.peek(1)) || strings.Contains(r.peek(1), "/") || r.Choices.OffsetStops != 0 {
		return 0
	}
	v, err := stop.ParseBias(r.peek(1))
	if err != nil || v.Abs() > 5 || v == 0 {
		return 0
	}
	r.Choices.OffsetStops = v
	return r.say(Taste, "aim "+withSign(r.peek(1)), 2)
}

// withSign writes a signed number without idle zeros.
func withSign(text string) string {
	if rest, isMinus := strings.CutPrefix(text, "-"); isMinus {
		return "-" + tidy(rest)
	}
	return "+" + tidy(strings.TrimPrefix(text, "+"))
}

// lamps reads the mains that lights pulse with.
func (r *reader) lamps() int {
	before := 0
	for _, word := range []string{"indoors", "lamps", "lights", "mains"} {
		if r.peek(before) == word {
			before++
		}
	}
	digits, n := strings.TrimSuffix(r.peek(before), "hz"), 1
	if digits == r.peek(before) {
		if r.peek(before+1) != "hz" {
			return 0
		}
		n = 2
	}
	if !number.MatchString(digits) || r.Lamps != nil || amount(digits) < 1 || amount(digits) > 1000 {
		return 0
	}
	n += before
	for r.peek(n) == "lamps" || r.peek(n) == "lights" || r.peek(n) == "mains" {
		n++
	}
	hz := amount(digits)
	r.Lamps = &assemble.LampFields{MainsHz: &hz}
	return r.say(Lamps, tidy(digits)+" Hz lamps", n)
}

// turning reads how fast the camera turns.
func (r *reader) turning() int {
	n := 0
	if r.peek(0) == "turning" || r.peek(0) == "pan" || r.peek(0) == "panning" {
		n = 1
	}
	text, v, words := r.measured(n, map[string]unit{"°/s": {"°/s", 1}, "deg/s": {"°/s", 1}})
	if words == 0 || r.Movement != nil && r.Movement.TurnDegS != nil || v > 100_000 {
		return 0
	}
	turn := angle.DegPerS(v)
	r.moving().TurnDegS = &turn
	return r.say(Motion, "turning "+strings.ReplaceAll(text, " ", ""), n+words)
}

// passing reads how fast the subject passes, and how far away.
func (r *reader) passing() int {
	n := 0
	for r.peek(n) == "subject" || r.peek(n) == "passing" || r.peek(n) == "moving" {
		n++
	}
	speed, mps, words := r.measured(n, speeds)
	if words == 0 || mps > 1000 {
		return 0
	}
	n += words
	if r.peek(n) == "at" {
		n++
	}
	away, metres, words := r.measured(n, lengths)
	if words == 0 || metres < 0.001 || metres > 1_000_000 || r.Movement != nil && r.Movement.SpeedMps != nil {
		return 0
	}
	m := r.moving()
	m.SpeedMps, m.DistanceM = &mps, &metres
	return r.say(Motion, "subject "+speed+" at "+away, n+words)
}

func (r *reader) moving() *assemble.MovementFields {
	if r.Movement == nil {
		r.Movement = &assemble.MovementFields{}
	}
	return r.Movement
}

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

// bareRing reads one that is a bare number, which stands outside a look alone.
func (r *reader) bareRing() int { return r.takeRing(true) }

func (r *reader) takeRing(isBare bool) int {
	if isBare && r.now.isLook {
		return 0
	}
	label, n := r.label(0, isBare)
	if n == 0 || len(r.Kit) == mostKit {
		return 0
	}
	r.Kit = append(r.Kit, label)
	return r.say(Kit, label, n)
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
		if l, err := parseLabel(joined(rest[:n])); err == nil {
			return written(l, joined(rest[:n])), n
		}
	}
	return "", 0
}

// neat is a canonical label as a ring has it, in words that a line reads as one.
var neat = regexp.MustCompile(`^([A-Z]+[0-9]*(/PL)?|((VND|GND) )?[0-9]+(\.[0-9]{1,2})?(-[0-9]+(\.[0-9]{1,2})?)? stop)$`)

// written is a label in the form that reads back the same: the canonical one, or what was
// typed where that says its strength in another language.
func written(l glass.Label, typed string) string {
	switch text := l.String(); {
	case l.Kind == glass.Night:
		return "night filter"
	case l.Kind == glass.Mist && strings.ContainsAny(typed, "0123456789"):
		return typed
	case l.Kind == glass.Mist:
		return "mist filter" // a number after mist would be its strength
	case neat.MatchString(text):
		return text
	}
	return strings.NewReplacer("STOPS", "stops", "STOP", "stop").Replace(strings.ToUpper(typed))
}

// parseLabel reads a label, whether or not it says that it is a filter's.
func parseLabel(text string) (glass.Label, error) {
	return glass.ParseLabel(strings.TrimSuffix(text, " filter"))
}

// heads begin a label of several words.
var heads = map[string]bool{"nd": true, "od": true, "gnd": true, "vnd": true, "variable": true, "graduated": true, "mist": true, "black": true, "white": true,
	"circular": true, "night": true, "clear": true, "light": true, "grad": true}

// belong reports whether words can be one label: a head with what follows it, or an amount
// with its unit.
func belong(words []word) bool {
	last := words[len(words)-1].text
	if heads[words[0].text] {
		return len(words) < 3 || last == "stop" || last == "stops" || last == "filter" || heads[words[1].text]
	}
	return len(words) == 2 && (last == "stop" || last == "stops" || last == "mist" || last == "filter")
}

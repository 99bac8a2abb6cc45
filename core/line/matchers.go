package line

import (
	"slices"
	"strings"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/stop"
	"pinhole/core/unit"
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
		if isOne && slices.ContainsFunc(r.Parts, func(q Part) bool { return q.Kind == p.kind && q.Text == p.text }) {
			return n // it was said
		}
		if !isOne || r.taken[p.slot] {
			continue
		}
		r.taken[p.slot] = true
		p.set(r)
		return r.say(p.kind, p.text, n)
	}
	return 0
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
	text, highest := "iso"+tidy(m[1]), m[2]
	if highest == "" && r.peek(words) == "to" && number.MatchString(r.peek(words+1)) {
		highest, words = r.peek(words+1), words+2
	}
	if highest != "" {
		ceiling, err := stop.ParseISO(highest)
		if err != nil || ceiling < base || r.ISOCeiling != 0 {
			return 0
		}
		text += "-" + tidy(highest)
		r.ISOCeiling = ceiling
	}
	r.ISOBase = base
	return r.say(Camera, text, words)
}

// upTo are the words around ISO that say that a number is the highest.
var upTo = []string{"iso up to", "up to iso", "iso max", "max iso", "iso cap", "iso limit"}

// isoCeiling reads the highest sensitivity that still looks good, where that alone is said.
func (r *reader) isoCeiling() int {
	if first := r.peek(0); first != "iso" && first != "up" && first != "max" {
		return 0
	}
	for _, words := range upTo {
		n := strings.Count(words, " ") + 1
		if len(r.rest()) <= n || joined(r.rest()[:n]) != words || !number.MatchString(r.peek(n)) {
			continue
		}
		ceiling, err := stop.ParseISO(r.peek(n))
		if err != nil || r.ISOCeiling != 0 {
			return r.spoil(n + 1)
		}
		r.ISOCeiling = ceiling
		return r.say(Camera, "iso up to "+tidy(r.peek(n)), n+1)
	}
	return 0
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
	if r.peek(0) != "aim" && r.peek(0) != "expose" || !signed.MatchString(r.peek(1)) || strings.Contains(r.peek(1), "/") || r.Choices.OffsetStops != 0 {
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
	return r.say(Lamps, tidy(digits)+" Hz lights", n)
}

// shaking reads a shake that was measured.
func (r *reader) shaking() int {
	if r.peek(0) != "shake" {
		return 0
	}
	text, v, words := r.measured(1, turns)
	if words == 0 || r.Shake != nil || v > 100_000 {
		return 0
	}
	shake := angle.DegPerS(v)
	r.Shake = &shake
	return r.say(Motion, "shake "+strings.ReplaceAll(text, " ", ""), 1+words)
}

// turns are the units of what turns.
var turns = map[string]unit.Unit{"°/s": unit.DegreesPerSecond, "deg/s": unit.DegreesPerSecond}

// turning reads how fast the camera turns.
func (r *reader) turning() int {
	n := 0
	if r.peek(0) == "turning" || r.peek(0) == "pan" || r.peek(0) == "panning" {
		n = 1
	}
	text, v, words := r.measured(n, turns)
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

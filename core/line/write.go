package line

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Say writes a shot on a camera of that name as parts, in the canonical forms that Read reads.
// What a line has no words for, such as light that is looked for or the parts of a frame, is
// left out.
func Say(camera string, asked assemble.Asked, light assemble.ShotLight, labelOf func(id string) string) *Sentence {
	s := &Sentence{Parts: []Part{}, Unread: []Unread{}}
	say := func(kind Kind, texts ...string) {
		for _, text := range texts {
			if text != "" {
				s.Parts = append(s.Parts, Part{Kind: kind, Text: text})
			}
		}
	}
	say(Camera, camera)
	say(Light, lightTexts(light, labelOf)...)
	say(Look, lookTexts(asked.Look, asked.Scene)...)
	say(Motion, motionTexts(asked.Scene)...)
	say(Lamps, lampsText(asked.Scene.Lamps))
	say(Kit, kitTexts(asked.Choices.AtHand, labelOf)...)
	for _, id := range asked.Choices.Required {
		say(Effect, effectText(labelOf(id)))
	}
	say(Layers, layersText(asked.Choices.MaxLayers))
	say(Taste, tasteTexts(asked)...)
	return s
}

// Unsaid is what a shot asks for that a line has no words for: what is left of it when its
// line is written anew.
func Unsaid(asked assemble.Asked, labelOf func(id string) string) assemble.Asked {
	out := assemble.Asked{Scene: asked.Scene, Choices: asked.Choices}
	scene, choices := &out.Scene, &out.Choices
	if motionTexts(asked.Scene) != nil {
		scene.Activity, scene.Shake, scene.Movement = "", nil, offAxis(asked.Scene.Movement)
	}
	if lampsText(asked.Scene.Lamps) != "" {
		scene.Lamps = nil
	}
	scene.School, scene.Delivery, scene.Interval = "", nil, 0
	if kitTexts(choices.AtHand, labelOf) != nil {
		choices.AtHand = nil
	}
	choices.Required = slices.DeleteFunc(slices.Clone(choices.Required), func(id string) bool { return effectText(labelOf(id)) != "" })
	choices.MaxLayers, choices.OffsetStops, choices.Tolerance, choices.Priority = 0, 0, nil, ""
	return out
}

// Sayable is the rest: what a shot asks for that a line has words for, and what its owner
// prefers. A line that leaves something out takes it from there, but for the glass that was at
// hand: another day it is another.
func Sayable(asked assemble.Asked) assemble.Asked {
	out := assemble.Asked{Look: asked.Look, Choices: asked.Choices}
	out.Choices.AtHand = nil
	out.Scene.School, out.Scene.Activity, out.Scene.Shake = asked.Scene.School, asked.Scene.Activity, asked.Scene.Shake
	if offAxis(asked.Scene.Movement) == nil {
		out.Scene.Movement = asked.Scene.Movement
	}
	if lampsText(asked.Scene.Lamps) != "" {
		out.Scene.Lamps = asked.Scene.Lamps
	}
	return out
}

// offAxis is a movement that a line cannot say, kept whole; nil where it can.
func offAxis(m *assemble.MovementFields) *assemble.MovementFields {
	if m == nil || m.OffAxisDeg == nil {
		return nil
	}
	return m
}

// textOf finds how a phrase of a slot is written by what it sets.
func textOf(slot string, sets func(*reader) bool) string {
	for _, as := range vocabulary {
		p := phrases[as]
		r := &reader{Sentence: &Sentence{}}
		if p.slot == slot && as == strings.ToLower(p.text) {
			if p.set(r); sets(r) {
				return p.text
			}
		}
	}
	return ""
}

// canonical is a reading as a line writes it, "" where a line cannot say it.
func canonical(text string) string {
	s := Read(text)
	if len(s.Unread) > 0 || len(s.Parts) != 1 || s.Parts[0].Kind != Light {
		return ""
	}
	return s.Parts[0].Text
}

func lightTexts(l assemble.ShotLight, labelOf func(string) string) []string {
	switch {
	case l.Kind == "sky" && l.Sky != nil:
		return []string{
			textOf("sky", func(r *reader) bool { return r.sight.Sky == l.Sky.Sky }), textOf("facing", func(r *reader) bool { return r.sight.Facing == l.Sky.Facing }),
			textOf("ground", func(r *reader) bool { return r.sight.Ground == l.Sky.Ground }), textOf("height", func(r *reader) bool { return r.sight.Height == l.Sky.Height }),
		}
	case l.At == nil:
		return nil
	}
	text := entryText(l.Kind, l.At, labelOf)
	if l.Low != nil {
		text += " to " + strings.TrimPrefix(entryText(l.Kind, l.Low, labelOf), "auto ") // it is said once
	}
	return []string{canonical(text)}
}

// meterText is what a meter says as a line reads it: as it was typed, else written out.
func meterText(text string) string {
	w, err := light.ParseWritten(text)
	if err != nil || canonical(text) != "" {
		return text
	}
	switch w.Form {
	case light.AsEV:
		return "EV " + plain(float64(w.EV))
	case light.AsLux:
		return plain(w.Lux) + " lux"
	}
	var words []string
	if w.Setting.Aperture != 0 {
		words = append(words, "f"+plain(float64(w.Setting.Aperture)))
	}
	if w.Setting.Shutter != 0 {
		words = append(words, w.Setting.Shutter.String())
	}
	if w.Setting.ISO != 0 {
		words = append(words, "iso"+plain(float64(w.Setting.ISO)))
	}
	return strings.Join(words, " ")
}

// entryText writes one reading, near to the canonical form.
func entryText(kind string, e *assemble.Entry, labelOf func(string) string) string {
	switch kind {
	case "meter":
		return meterText(e.Text)
	case "lux":
		if _, err := stop.ParseSigned(e.Text); err == nil {
			return e.Text + " lux"
		}
		return e.Text
	}
	words := []string{kind}
	if kind == "bias" {
		words = append(words, e.Bias)
	}
	if t, _, ok := shutterText(e.Shutter); ok {
		words = append(words, t)
	}
	if e.ISO != "" {
		words = append(words, "iso"+strings.TrimSpace(strings.TrimPrefix(strings.ToLower(e.ISO), "iso")))
	}
	if e.Stops != nil {
		words = append(words, "behind", plain(float64(*e.Stops))+" stop")
	} else {
		for _, id := range e.Glass {
			words = append(words, "behind", labelOf(id))
		}
	}
	return strings.Join(words, " ")
}

func lookTexts(look assemble.ShotLook, scene assemble.ShotScene) []string {
	var texts []string
	switch rate := rateText(look.FPS); {
	case scene.Interval > 0:
		texts = append(texts, "time-lapse every "+plain(scene.Interval)+" s")
	case rate == "still":
		texts = append(texts, rate)
	case rate != "":
		texts = append(texts, rate+deliveryText(scene.Delivery))
	}
	target := look.Target
	if text, _, ok := shutterText(strings.ToLower(target)); ok {
		target = text
	} else if deg, isAngle := stop.ParseAngle(target); isAngle {
		target = plain(float64(deg)) + "°"
	}
	return append(texts, target)
}

// rateText writes a frame rate, or that it is a still; "" where it is none.
func rateText(fps string) string {
	rate, err := stop.ParseRate(fps)
	switch {
	case err != nil:
		return ""
	case rate == 0:
		return "still"
	}
	return rate.String() + " fps"
}

func deliveryText(d *assemble.Delivery) string {
	switch {
	case d == nil:
		return ""
	case d.Mode == motion.RealTime:
		return " on " + stop.ExactRate(d.FPS).String()
	case d.Mode == motion.SpeedUp:
		return " sped up " + plain(d.Factor) + "x"
	case d.FPS > 0:
		return " slowed to " + stop.ExactRate(d.FPS).String()
	}
	return ""
}

func motionTexts(scene assemble.ShotScene) []string {
	texts := []string{activityText(scene.Activity)}
	if scene.Shake != nil {
		texts = append(texts, "shake "+rounded(float64(*scene.Shake))+"°/s")
	}
	if m := scene.Movement; m != nil && m.OffAxisDeg == nil {
		if m.SpeedMps != nil && m.DistanceM != nil {
			texts = append(texts, "subject "+rounded(*m.SpeedMps)+" m/s at "+rounded(*m.DistanceM)+" m")
		}
		if m.TurnDegS != nil && *m.TurnDegS >= 0 {
			texts = append(texts, "turning "+plain(float64(*m.TurnDegS))+"°/s")
		}
	}
	return slices.DeleteFunc(texts, func(t string) bool { return t == "" })
}

// rounded writes a measured amount to four figures: what was said in other units has no end.
func rounded(v float64) string {
	if v <= 0 {
		return "0"
	}
	step := math.Pow(10, math.Floor(math.Log10(v))-3)
	text := strconv.FormatFloat(math.Round(v/step)*step, 'f', max(0, 3-int(math.Floor(math.Log10(v)))), 64)
	return tidy(text)
}

func activityText(name motion.ActivityName) string {
	if name == "" {
		return ""
	}
	return textOf("activity", func(r *reader) bool { return r.Activity == name })
}

func lampsText(l *assemble.LampFields) string {
	if l == nil || l.MainsHz == nil || l.Depth != nil {
		return ""
	}
	return plain(*l.MainsHz) + " Hz lights"
}

// kitTexts names the glass to choose from, nil where that is all of the kit, or one that a line
// has no word for.
func kitTexts(atHand *[]string, labelOf func(id string) string) []string {
	if atHand == nil || len(*atHand) > mostKit {
		return nil
	}
	if len(*atHand) == 0 {
		return []string{noFilter}
	}
	texts := make([]string, len(*atHand))
	for i, id := range *atHand {
		if texts[i] = ringText(labelOf(id)); texts[i] == "" {
			return nil
		}
	}
	return texts
}

// effectText asks for glass by its label, where that can be read.
func effectText(label string) string {
	if text := ringText(label); text != "" {
		return "with " + text
	}
	return ""
}

func layersText(n int) string {
	switch n {
	case 0:
		return ""
	case 1:
		return "1 layer"
	}
	return plain(float64(n)) + " layers"
}

func tasteTexts(asked assemble.Asked) []string {
	c := asked.Choices
	var texts []string
	if c.Tolerance != nil {
		texts = append(texts, textOf("tolerance", func(r *reader) bool {
			return r.Choices.Tolerance != nil && (r.Choices.Tolerance.Dark-c.Tolerance.Dark).Abs() < stop.Tolerance && (r.Choices.Tolerance.Bright-c.Tolerance.Bright).Abs() < stop.Tolerance
		}))
	}
	if c.Priority != "" {
		texts = append(texts, textOf("priority", func(r *reader) bool { return r.Choices.Priority == c.Priority }))
	}
	if asked.Scene.School != "" {
		texts = append(texts, textOf("school", func(r *reader) bool { return r.School == asked.Scene.School }))
	}
	if c.OffsetStops != 0 {
		texts = append(texts, "aim "+aimText(c.OffsetStops))
	}
	return slices.DeleteFunc(texts, func(t string) bool { return t == "" })
}

// aimText writes an offset so that it reads back: in thirds as cameras print them.
func aimText(v stop.Stops) string {
	if text := v.Signed(); reads(text, v) {
		return text
	}
	return withSign(plain(float64(v)))
}

func reads(text string, v stop.Stops) bool {
	back, err := stop.ParseBias(text)
	return err == nil && (back-v).Abs() < stop.Tolerance
}

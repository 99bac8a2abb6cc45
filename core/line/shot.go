package line

import (
	"cmp"
	"slices"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/stop"
)

// usualAperture is that of a camera of which nothing is known.
const usualAperture = stop.FNumber(2.8)

// stillTarget is the shutter of a still that names none.
const stillTarget = "1/60"

// Known is what is known where a sentence is read as a shot.
type Known struct {
	// Held is the camera that is meant, nil for one of which nothing is known.
	Held *assemble.Held
	// LabelOf says what its filters are called.
	LabelOf func(id string) string
	// Before is what was asked of it before, and Settled what new shots have by default.
	Before  assemble.Asked
	Settled *assemble.Preferences
	// IsAnew says that the shot of Before is written anew.
	IsAnew bool
}

// Shot returns the shot that the sentence tells of. What is not said comes from the camera, from
// what was asked before of it, then from what is usual, and is added to the parts as assumed. Of a
// shot that is written anew only that which a line cannot say comes from before; of another nothing
// that a part could not show.
//
// A known camera's glass is all of its own, with that which the sentence names to choose from; what
// it names that the camera does not have is added with its label as id. Without a known camera the
// glass is what is named.
//
// The light may be missing: then the shot has a light of no kind.
func (s *Sentence) Shot(known Known) *assemble.ShotRequest {
	last := Sayable(known.Before)
	if known.IsAnew {
		last = Unsaid(known.Before, known.LabelOf)
	}
	held := s.held(known.Held)
	choices := s.choices(last.Choices)
	own := ownGlass{held: held, labelOf: known.LabelOf, isKnown: known.Held != nil, choices: known.Before.Choices}
	var light assemble.ShotLight
	if s.Light != nil {
		light = *s.Light
	}
	if own.isKnown { // before what is named joins its glass: that is not there, and measures nothing
		own.read(&light)
	}
	s.chooseFrom(&own, &choices)
	asked := assemble.Asked{Look: s.look(held, last.Look), Scene: s.scene(last.Scene), Choices: choices}
	if !known.IsAnew {
		asked = known.Settled.For(asked)
	}
	r := held.Shot(asked)
	s.assumeRest(assemble.Asked{Scene: moved(r), Choices: r.Choices}, known.LabelOf)
	if !own.isKnown {
		own.read(&light)
	}
	r.Light = light
	return r
}

// chooseFrom lets the choices name the glass that the sentence names.
func (s *Sentence) chooseFrom(own *ownGlass, choices *assemble.Choices) {
	switch {
	case s.HasNoFilter:
		choices.Required, choices.AtHand = nil, &[]string{}
	case len(s.Kit) > 0:
		choices.Required, choices.AtHand = nil, nil
		if ids := own.named(s.Kit); own.isKnown {
			choices.AtHand = &ids
		}
	default:
		for _, k := range own.held.Kit {
			if choices.IsAtHand(k.ID) {
				s.assume(Kit, own.labelOf(k.ID))
			}
		}
	}
	if len(s.Required) > 0 {
		choices.Required = own.named(s.Required)
	}
}

// assume adds a part that was not said.
func (s *Sentence) assume(kind Kind, text string) {
	s.Parts = append(s.Parts, Part{Kind: kind, Text: text, Assumed: true})
}

// moved is the scene with the movement that is usual with the craft, where it says none.
func moved(r *assemble.ShotRequest) assemble.ShotScene {
	scene := r.Scene
	if r.Craft != nil && scene.Activity == "" && scene.Shake == nil {
		scene.Activity, scene.Shake = r.Craft.Activity, r.Craft.Shake
	}
	return scene
}

// assumeRest adds what the shot asks for beside camera and look, where it was not said.
func (s *Sentence) assumeRest(asked assemble.Asked, labelOf func(id string) string) {
	isSaid := func(p Part) bool {
		return slices.ContainsFunc(s.Parts, func(q Part) bool { return !q.Assumed && q.Kind == p.Kind && q.Text == p.Text })
	}
	for _, p := range Say("", asked, assemble.ShotLight{}, labelOf).Parts {
		// A movement is said in the units it was said in.
		isMoved := strings.HasPrefix(p.Text, "subject ") || strings.HasPrefix(p.Text, "turning ")
		if p.Kind != Look && p.Kind != Kit && !isSaid(p) && !(isMoved && s.Movement != nil) {
			s.assume(p.Kind, p.Text)
		}
	}
}

// held is the camera that was named, or is known, or whose kind was said; of none, what the
// reading and the usual tell.
func (s *Sentence) held(known *assemble.Held) *assemble.Held {
	starts := usual.Starts
	held := &assemble.Held{}
	kind := slices.IndexFunc(assemble.Archetypes(), func(a assemble.Archetype) bool { return a.Key == s.Archetype })
	switch {
	case kind >= 0:
		a := assemble.Archetypes()[kind]
		held.Optics = assemble.Camera{Aperture: a.Aperture, ISOBase: a.ISOBase, ISOCeiling: a.ISOCeiling}
		for _, text := range a.Steps {
			if t, err := stop.ParseShutter(text, 0); err == nil {
				held.Optics.Steps = append(held.Optics.Steps, t)
			}
		}
		held.Profile, held.Rates = &a.Profile, a.Rates
	case known != nil:
		*held = *known
	default:
		held.Optics = assemble.Camera{Aperture: cmp.Or(s.ReadAt.Aperture, usualAperture), ISOBase: cmp.Or(s.ReadAt.ISO, starts.ISOBase)}
		held.Optics.ISOCeiling = max(starts.ISOCeiling, held.Optics.ISOBase)
	}
	o := &held.Optics
	isAssumed := s.Aperture == 0 || s.ISOBase == 0
	o.Aperture, o.ISOBase, o.ISOCeiling = cmp.Or(s.Aperture, o.Aperture), cmp.Or(s.ISOBase, o.ISOBase), cmp.Or(s.ISOCeiling, o.ISOCeiling)
	o.ISOCeiling = max(o.ISOCeiling, o.ISOBase)
	if isAssumed {
		s.assume(Camera, "f"+plain(float64(o.Aperture))+" iso"+plain(float64(o.ISOBase))+"-"+plain(float64(o.ISOCeiling)))
	}
	return held
}

// look is what was said of the look, over what is usual with the camera.
func (s *Sentence) look(held *assemble.Held, last assemble.ShotLook) assemble.ShotLook {
	look := assemble.ShotLook{FPS: s.FPS, Target: s.Target}
	if look.FPS == "" {
		look.FPS = cmp.Or(last.FPS, usual.Rate)
		if last.FPS == "" && len(held.Rates) > 0 && !slices.Contains(held.Rates, usual.Rate) {
			look.FPS = held.Rates[0]
		}
		if s.IntervalS == 0 && outlasts(s.Target, look.FPS) {
			look.FPS = "still"
		}
		if s.IntervalS == 0 {
			s.assume(Look, rateText(look.FPS))
		}
	}
	if look.Target == "" {
		look.Target = cmp.Or(last.Target, usual.Target)
		if s.IntervalS == 0 && outlasts(look.Target, look.FPS) { // the last was a still
			look.Target = usual.Target
		}
		if look.FPS == "still" && s.IntervalS == 0 {
			if _, isAngle := stop.ParseAngle(look.Target); isAngle {
				look.Target = stillTarget
			}
		}
		s.assume(Look, look.Target)
	}
	return look
}

// outlasts reports whether a time is longer than a frame at a rate.
func outlasts(target, fps string) bool {
	rate, err1 := stop.ParseRate(fps)
	t, err2 := stop.ParseShutter(target, 0)
	return err1 == nil && err2 == nil && rate > 0 && !t.Possible(rate)
}

// scene is what was said of motion and lamps, over what was last asked.
func (s *Sentence) scene(last assemble.ShotScene) assemble.ShotScene {
	scene := last
	scene.Delivery, scene.Interval = s.Delivery, s.IntervalS
	if s.Activity != "" {
		scene.Activity, scene.Shake = s.Activity, nil
	}
	if s.Shake != nil {
		scene.Shake = s.Shake
	}
	if s.Movement != nil {
		scene.Movement = s.Movement
	}
	if s.Lamps != nil {
		scene.Lamps = s.Lamps
	}
	if s.School != "" {
		scene.School = s.School
	}
	return scene
}

// choices is what was said of taste, over what was last asked.
func (s *Sentence) choices(last assemble.Choices) assemble.Choices {
	c := last
	c.MaxLayers, c.OffsetStops = cmp.Or(s.Choices.MaxLayers, c.MaxLayers), cmp.Or(s.Choices.OffsetStops, c.OffsetStops)
	c.Priority = cmp.Or(s.Choices.Priority, c.Priority)
	if s.Choices.Tolerance != nil {
		c.Tolerance = s.Choices.Tolerance
	}
	return c
}

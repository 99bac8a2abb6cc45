package calc

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/shot"

	"pinhole/core/glass"
)

// EffectLine is glass for its effect, in this shot.
type EffectLine struct {
	ID    string     `json:"id"`
	Kind  glass.Kind `json:"kind" enum:"nd-polariser,polariser,variable,graduated,clear,mist,night"`
	Role  string     `json:"role" enum:"lives,asked,case" doc:"lives on the lens, asked for, or in the case"`
	Place string     `json:"place" doc:"where it goes in a stack"`
	Pays  string     `json:"pays" doc:"when it pays"`
	Hurts string     `json:"hurts" doc:"when it hurts"`
	Words []string   `json:"words" doc:"what it means for this shot"`
}

// effectWords says of each kind of effect glass where it goes, when it pays and
// when it hurts.
var effectWords = map[glass.Kind]EffectLine{
	glass.Polariser: {
		Place: "next to the lens, so that it can be turned and nothing else polarises", Pays: "a reflection on water, leaf or window, or a sky across the sun",
		Hurts: "a wide view, whose sky goes blotchy; a drone, which turns it as it rolls and pans",
	},
	glass.NDPolariser: {
		Place: "alone, or under one more grey filter", Pays: "as a polariser, with the darkness built in", Hurts: "as a polariser does, and it cannot come off alone",
	},
	glass.Variable: {
		Place: "alone: it is two polarisers already", Pays: "light that moves while nobody can swap", Hurts: "a cross in the corners near its dark end; a ring that turns by itself in the wind",
	},
	glass.Mist: {
		Place: "outermost, away from the lens", Pays: "hard highlights, lights in the picture, skin", Hurts: "haze, sun in the frame, anything that is to be sharpened or keyed later",
	},
	glass.Night: {
		Place: "next to the lens", Pays: "the yellow glow of street lights over a night scene", Hurts: "daylight and skin: it casts a colour of its own",
	},
	glass.Graduated: {
		Place: "outermost, dark half over the bright part", Pays: "a bright sky over a level horizon, on a camera that holds still",
		Hurts: "a camera that tilts or rolls; anything that stands up into the dark half",
	},
	glass.Clear: {Place: "next to the lens", Pays: "sand, salt and spray", Hurts: "lights and sun in the frame: two more faces to ghost"},
}

// effects returns a line for every piece of effect glass in the kit.
func effectsOf(r *assemble.ShotRequest, s *shot.Scene) []EffectLine {
	var lines []EffectLine
	for i := range r.Kit {
		k := &r.Kit[i]
		line, isEffect := effectWords[k.Kind]
		if !isEffect || assemble.IsFalse(k.Fits) || !r.IsAtHand(k.ID) {
			continue
		}
		line.ID, line.Kind, line.Role = k.ID, k.Kind, roleOf(r, k.ID)
		line.Words = effectHereOf(r, k, s)
		lines = append(lines, line)
	}
	return lines
}

func roleOf(r *assemble.ShotRequest, id string) string {
	for _, m := range r.Mounted {
		if m == id {
			return "lives"
		}
	}
	for _, q := range r.Required {
		if q == id {
			return "asked"
		}
	}
	return "case"
}

// wideView is the field of view in degrees from which a polarised sky goes uneven
// (two directions 60° apart can differ by more than 0.25, model section 10).
const wideView = 60

// effectHere says what the glass means for this shot.
func effectHereOf(r *assemble.ShotRequest, k *assemble.KitFilter, s *shot.Scene) []string {
	words := []string{}
	stops := k.Stops
	if k.MeasuredStops != nil {
		stops = *k.MeasuredStops
	}
	if k.Kind != glass.Variable && k.Kind != glass.Graduated && stops >= 0.05 {
		words = append(words, fmt.Sprintf("takes %v stops, counted in when it is on", stops))
	}
	isPolarising := k.Kind.Polarises()
	if p := r.Profile; p != nil {
		if isPolarising && p.Flies {
			words = append(words, "this camera flies: its effect comes and goes as the drone turns")
		}
		if isPolarising && p.Lens != nil && p.Lens.HFOVDeg > wideView {
			words = append(words, fmt.Sprintf("a view of %.0f° is wide: a blue sky comes out uneven", float64(p.Lens.HFOVDeg)))
		}
		if k.Kind == glass.Graduated && p.Flies {
			words = append(words, "this camera tilts and rolls: the dark half would cut across the picture")
		}
	}
	if k.Kind == glass.Night && s.Lamp == nil {
		words = append(words, "no lights are named in this shot")
	}
	return words
}

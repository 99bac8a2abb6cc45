package line

import (
	"strings"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/motion"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// Kind says what a part of a line tells of.
type Kind string

// The kinds, in the order in which they are written.
const (
	Camera Kind = "camera"
	Light  Kind = "light"
	Look   Kind = "look"
	Motion Kind = "motion"
	Lamps  Kind = "lamps"
	Kit    Kind = "kit"
	Effect Kind = "effect" // glass asked for
	Layers Kind = "layers"
	Taste  Kind = "taste"
)

// Values returns every Kind there is, in that order.
func (Kind) Values() []Kind {
	return []Kind{Camera, Light, Look, Motion, Lamps, Kit, Effect, Layers, Taste}
}

// Part is one thing that a line says.
type Part struct {
	Kind Kind   `json:"kind"`
	Text string `json:"text" doc:"as it is written in the canonical line"`
	// Start and End are where it stands in the line as it was typed.
	Start   int  `json:"start" doc:"its first character, from 0"`
	End     int  `json:"end" doc:"the character after its last"`
	Assumed bool `json:"assumed" doc:"it was not said: it stands at the end of the line"`
}

// Unread is a stretch that could not be read.
type Unread struct {
	Text    string   `json:"text"`
	Start   int      `json:"start"`
	End     int      `json:"end"`
	CouldBe []string `json:"couldBe" doc:"what it might be, the nearest first"`
}

// Sentence is a line as it was read: what it says of a shot. What it does not say is zero.
type Sentence struct {
	Parts  []Part
	Unread []Unread

	// Camera is the name of a known camera, else Archetype the key of a kind of camera.
	Camera, Archetype   string
	Aperture            stop.FNumber
	ISOBase, ISOCeiling stop.ISO

	// Light has the stops of the glass that it was read through, and its labels for ids.
	Light *assemble.ShotLight
	// ReadAt is the setting of a reading that wrote one out.
	ReadAt stop.Setting

	FPS, Target string
	Delivery    *assemble.Delivery
	IntervalS   float64

	Activity motion.ActivityName
	Shake    *angle.DegPerS // as it was measured
	Movement *assemble.MovementFields
	Lamps    *assemble.LampFields
	School   shot.School

	// Kit and Required are labels as they stand on rings; HasNoFilter says that no filter is at hand.
	Kit, Required []string
	HasNoFilter   bool
	Choices       assemble.Choices
}

// between is what stands between parts of a kind.
var between = map[Kind]string{Camera: " ", Light: ", ", Look: " ", Motion: ", ", Kit: " ", Taste: ", "}

// String writes the line in the canonical way: what was said, in the order of the kinds.
// Read of it gives the same sentence, but for where its parts stand.
func (s *Sentence) String() string {
	var line strings.Builder
	for _, k := range Kind("").Values() {
		var texts []string
		for _, p := range s.Parts {
			if p.Kind == k && !p.Assumed {
				texts = append(texts, p.Text)
			}
		}
		if len(texts) > 0 {
			mark, isSet := between[k]
			if !isSet {
				mark = " · "
			}
			before := " · "
			if k == Look {
				before = " > " // a time alone would be a reading elsewhere
			}
			line.WriteString(before + strings.Join(texts, mark))
		}
	}
	return strings.TrimPrefix(strings.TrimPrefix(line.String(), " · "), " ")
}

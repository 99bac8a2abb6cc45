package glass

import (
	"fmt"

	"pinhole/core/stop"
)

// Priority says what gives way first when light and setting do not meet.
type Priority string

// The priorities.
const (
	// BlurFirst keeps the shutter and lets ISO rise a little.
	BlurFirst Priority = "blur"
	// ImageFirst keeps ISO and lets the shutter go faster.
	ImageFirst Priority = "image"
)

// Values returns every Priority there is.
func (Priority) Values() []Priority {
	return []Priority{BlurFirst, ImageFirst}
}

// The two weights of an error: one that ISO can make good and one that a faster
// shutter must. The school the user belongs to makes the other one cheaper.
const (
	weightKept   = 1.0
	weightGiving = 0.6
)

// weights returns the cost of a stop made good by ISO and of one made good by
// the shutter.
func (p Priority) weights() (iso, shutter float64) {
	if p == ImageFirst {
		return weightKept, weightGiving
	}
	return weightGiving, weightKept
}

// Band is the exposure error a user accepts around the wanted offset, in stops,
// both sides positive. Its ends count.
type Band struct{ Dark, Bright stop.Stops }

// DefaultBand errs to the dark side: two third-stop clicks down, one up.
var DefaultBand = Band{Dark: 2.0 / 3, Bright: 1.0 / 3}

// Light is what the scene gives, at one moment (Low equals High) or over one shot.
type Light struct {
	Low, High stop.EV
	// Spread is how far either reading may be off.
	Spread stop.Stops
}

// IsRange reports whether the shot sees more than one light. A range of no width is the
// single light, to the last digit.
func (l Light) IsRange() bool { return l.High > l.Low }

// Question is one shot's wish and the light it meets.
type Question struct {
	// Setting is what the camera should be at: the shutter offered, base ISO.
	Setting stop.Setting
	// Wished is the shutter that was wanted, from which what a shutter gives is counted;
	// 0 is that of Setting.
	Wished stop.Shutter
	// Rate is the frame rate, 0 for a still.
	Rate stop.FrameRate
	// Steps are the times of the camera's menu, by which others are named; none for any.
	Steps []stop.Shutter
	// Ceiling is the highest usable ISO, at least Setting.ISO.
	Ceiling stop.ISO
	// Fastest is the camera's shortest shutter time, 0 where that is unknown.
	Fastest stop.Shutter
	Light   Light
	// Offset is the error wanted: 0 as metered, positive brighter.
	Offset   stop.Stops
	Band     Band
	Priority Priority
	// FreeLift is how much ISO may rise and the exposure still holds; nil for
	// DefaultFreeLift.
	FreeLift *stop.Stops
}

// DefaultFreeLift is how much ISO may rise before it counts as giving way: one stop of
// noise is not seen.
const DefaultFreeLift = stop.Stops(1)

func (q *Question) freeLift() stop.Stops {
	if q.FreeLift != nil {
		return *q.FreeLift
	}
	return DefaultFreeLift
}

// wished returns the shutter from which what the camera gives is counted.
func (q *Question) wished() stop.Shutter {
	if q.Wished > 0 {
		return q.Wished
	}
	return q.Setting.Shutter
}

// Headroom returns H, the stops that ISO can lift.
func (q *Question) Headroom() stop.Stops { return q.Ceiling.Over(q.Setting.ISO) }

// Need returns S*, the glass that would leave exactly the wanted offset at the
// highest light: EVscene − EVset − b. It is negative where light is missing.
func (q *Question) Need() stop.Stops { return q.Light.High.Above(q.Setting.EV()) - q.Offset }

// lowestNeed returns the glass that would leave the wanted offset at the lowest light.
func (q *Question) lowestNeed() stop.Stops { return q.Light.Low.Above(q.Setting.EV()) - q.Offset }

// Count is one step of the ladder that people count aloud.
type Count struct {
	Shutter stop.Shutter
	EV      stop.EV
}

// Ladder counts from the shutter the bare camera needs at base ISO in the
// highest light to the wanted one, in whole stops, both ends included where the
// wanted one lies on a whole stop: 1/1250, 1/640, 1/320 ...
func (q *Question) Ladder() []Count {
	light := q.Light.High
	bare := stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, light)
	gap := light.Above(q.Setting.EV())
	direction := stop.Stops(1)
	if gap < 0 {
		direction = -1
	}
	var rungs []Count
	for k := stop.Stops(0); stop.AtMost(k, gap.Abs()); k++ {
		rungs = append(rungs, Count{Shutter: bare.Times(k * direction), EV: light.Plus(-k * direction)})
	}
	return rungs
}

// Offered returns the shutter of the camera's menu nearest to t, and by how many stops it
// lets in more light; t itself where the camera takes any time.
func (q *Question) Offered(t stop.Shutter) (stop.Shutter, stop.Stops) {
	snapped, ok := stop.Snap(t, q.Steps, q.Rate)
	if !ok {
		return t, 0
	}
	return snapped.Offered, snapped.Off
}

// Spoken returns a shutter time as it is set: by the name of the nearest step in the
// camera's menu. Where the camera takes any time, the setting's own is named as it is, and
// others by the nearest marked number.
func (q *Question) Spoken(t stop.Shutter) string {
	if len(q.Steps) > 0 {
		offered, _ := q.Offered(t)
		return offered.String()
	}
	if t == q.Setting.Shutter {
		return t.String()
	}
	return t.Spoken()
}

// OfferedISO returns a sensitivity as it is set: the camera's base or its ceiling, and
// between them the nearest in third stops.
func (q *Question) OfferedISO(i stop.ISO) stop.ISO {
	if i == q.Setting.ISO || i == q.Ceiling {
		return i
	}
	return min(max(i.Third(), q.Setting.ISO), q.Ceiling)
}

// SpokenISO returns what ISO is set to as it is said: "ISO 160", "ISO 200 to 250" where it
// floats, "ISO up to 640" where it rides with the shutter.
func (o *Option) SpokenISO(q *Question) string {
	if o.Mode == nil || o.Mode.Kind == Lock {
		return q.OfferedISO(o.ISO).String()
	}
	low, high := q.OfferedISO(o.Mode.ISOLow), q.OfferedISO(o.Mode.ISOHigh)
	switch {
	case low == high:
		return low.String()
	case o.Mode.Kind == FloatShutter:
		return fmt.Sprintf("ISO up to %.0f", float64(high))
	}
	return fmt.Sprintf("%v to %.0f", low, float64(high))
}

// Dark returns how dark a picture may be against the wanted offset: free with no more
// ISO than the free lift, most with ISO at its ceiling.
func (q *Question) Dark() (free, most stop.Stops) {
	headroom := q.Headroom()
	most = headroom + q.Band.Dark
	if headroom <= q.freeLift() {
		return most, most
	}
	return max(q.Band.Dark, q.freeLift()), most
}

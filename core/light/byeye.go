package light

import (
	"math"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Seen is a sky as an eye tells it apart.
type Seen string

// The skies an eye tells apart.
const (
	SeenClear    Seen = "clear"
	SeenHazy     Seen = "hazy" // sun through thin cloud, soft shadows
	SeenGaps     Seen = "gaps" // clouds with gaps between them
	SeenOvercast Seen = "overcast"
	SeenHeavy    Seen = "heavy" // dark cloud
)

// Values returns every Seen there is.
func (Seen) Values() []Seen {
	return []Seen{SeenClear, SeenHazy, SeenGaps, SeenOvercast, SeenHeavy}
}

// Facing is how the sun stands to the subject.
type Facing string

// How the sun stands to a subject.
const (
	FromFront  Facing = "front"  // in its face, behind the camera
	FromSide   Facing = "side"   // half of it lit
	FromBehind Facing = "behind" // against the light
	InShade    Facing = "shade"  // in open shade
	FromAbove  Facing = "above"  // level ground seen from above
)

// Values returns every Facing there is.
func (Facing) Values() []Facing {
	return []Facing{FromFront, FromSide, FromBehind, InShade, FromAbove}
}

// Ground is what the scene stands on or is made of.
type Ground string

// What scenes are made of; each is a Surface.
const (
	OrdinaryGround Ground = "ordinary"
	PaleGround     Ground = "pale"  // pale stone, sand, concrete
	SnowGround     Ground = "snow"  // snow, salt, white sand
	WaterGround    Ground = "water" // water toward the sun
	DarkGround     Ground = "dark"  // dark wood, leaf, wet tar
)

// Values returns every Ground there is.
func (Ground) Values() []Ground {
	return []Ground{OrdinaryGround, PaleGround, SnowGround, WaterGround, DarkGround}
}

// Height is how high the sun stands, by the eye.
type Height string

// How high the sun stands.
const (
	HighSun   Height = "high"
	MiddleSun Height = "middle"
	LowSun    Height = "low"
)

// Values returns every Height there is.
func (Height) Values() []Height {
	return []Height{HighSun, MiddleSun, LowSun}
}

// altitudeOf is the sun at a height an eye would call so, and what such words leave open.
var altitudeOf = map[Height]struct {
	altitude angle.Deg
	spread   stop.Stops
}{HighSun: {60, 0.1}, MiddleSun: {35, 0.2}, LowSun: {12, 0.5}}

// Spreads of what is not said: the sun's height by day, and which way the subject faces.
const (
	heightUnsaid = stop.Stops(0.5)
	facingUnsaid = stop.Stops(0.5)
)

// heavyStops is how much darker heavy cloud is than the overcast of the model, which is an
// average.
const heavyStops = stop.Stops(1)

// sideDeg is how far the subject faces away from a sun at its side, so that half of it is lit.
const sideDeg = angle.Deg(60)

// dayOfEye is a day of the year on which the sun is as far away as on average.
const dayOfEye = 93

// Sight is light judged by eye. What is not said stands for what is usual and widens the
// spread.
type Sight struct {
	Sky    Seen
	Facing Facing
	Ground Ground
	Height Height
}

// Scene returns the light of a scene judged by eye: the daylight model at the sun's height,
// hazy sun midway in stops between its clear and its partly cloudy sky, heavy cloud a stop
// below its overcast one; the spreads of sky, height and facing add as errors that do not
// know of each other.
func (s Sight) Scene() Scene {
	height, spread := altitudeOf[MiddleSun], heightUnsaid
	if s.Height != "" {
		height = altitudeOf[s.Height]
		spread = height.spread
	}
	errors := []stop.Stops{spread}
	if s.Facing == "" && (s.Sky == SeenClear || s.Sky == SeenHazy || s.Sky == SeenGaps) {
		errors = append(errors, facingUnsaid)
	}
	under := func(sky Sky) stop.EV {
		plane, beta := Vertical, angle.Deg(0)
		switch s.Facing {
		case FromSide:
			beta = sideDeg
		case FromBehind:
			beta = 180
		case InShade:
			plane = Shade
		case FromAbove:
			plane = Top
		}
		return FromSky(sky, height.altitude, dayOfEye, plane, beta, DefaultAlbedo, surfaceOf[s.Ground]).EV
	}
	var ev stop.EV
	switch s.Sky {
	case SeenClear:
		ev, errors = under(ClearSky), append(errors, ClearSky.Spread())
	case SeenHazy:
		ev, errors = (under(ClearSky)+under(PartlyCloudy))/2, append(errors, (ClearSky.Spread()+PartlyCloudy.Spread())/2)
	case SeenGaps:
		ev, errors = under(PartlyCloudy), append(errors, PartlyCloudy.Spread())
	case SeenHeavy:
		ev, errors = under(Overcast).Plus(-heavyStops), append(errors, Overcast.Spread())
	default:
		ev, errors = under(Overcast), append(errors, Overcast.Spread())
	}
	sum := 0.0
	for _, e := range errors {
		sum += float64(e) * float64(e)
	}
	return Scene{EV: ev, Spread: stop.Stops(math.Sqrt(sum))}
}

// surfaceOf is how much brighter than mid-grey what a scene is made of is, in stops: the
// surfaces' own, and water that throws the sun at the camera.
var surfaceOf = map[Ground]stop.Stops{PaleGround: pale, SnowGround: bright, WaterGround: bright, DarkGround: dark}

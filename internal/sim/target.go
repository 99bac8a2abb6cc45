package sim

import (
	"bytes"
	"fmt"
	"hash/fnv"
	"image"
	"image/color"
	"image/png"
	"math"
	"math/rand/v2"

	"pinhole/core/exif"
	"pinhole/core/stop"
)

// Target is what the simulated camera is pointed at, to compare filters.
type Target string

// The targets.
const (
	Wall Target = "wall" // evenly lit: strength, cast and corners
	Edge Target = "edge" // slanted: sharpness
	Lamp Target = "lamp" // beside something black: veil
)

// Values returns every Target there is.
func (Target) Values() []Target { return []Target{Wall, Edge, Lamp} }

// Truth is what a filter really does.
type Truth struct {
	Stops         stop.Stops
	CastStops     stop.Stops // blue − red: positive towards red
	CornerStops   stop.Stops
	SharpnessLost float64 // per cent
	VeilShare     float64 // of the brightest part
}

// Known is what a kit says of a filter; nil is not known.
type Known struct {
	Printed                       stop.Stops
	Stops, CastStops, CornerStops *stop.Stops
	SharpnessLost, Flare          *float64
}

// veils are the shares that the grades of flare stand for.
var veils = [...]float64{0.002, 0.01, 0.03, 0.09}

// TruthOf returns what a simulated filter really does: what is known of it, and for the rest
// what filters of its kind come to, the same for each by its name.
func TruthOf(name string, k Known) Truth {
	hash := fnv.New64a()
	_, _ = hash.Write([]byte(name)) // a hash takes all
	random := rand.New(rand.NewPCG(hash.Sum64(), 0x7a11))
	t := Truth{
		Stops: max(0, k.Printed+stop.Stops(0.15*random.NormFloat64())), CastStops: stop.Stops(0.1 * random.NormFloat64()),
		CornerStops: stop.Stops(0.4 * random.Float64()), SharpnessLost: 12 * random.Float64(), VeilShare: 0.02 * random.Float64(),
	}
	if k.Stops != nil {
		t.Stops = *k.Stops
	}
	if k.CastStops != nil {
		t.CastStops = *k.CastStops
	}
	if k.CornerStops != nil {
		t.CornerStops = *k.CornerStops
	}
	if k.SharpnessLost != nil {
		t.SharpnessLost = *k.SharpnessLost
	}
	if k.Flare != nil {
		t.VeilShare = veils[min(max(int(math.Round(*k.Flare)), 0), len(veils)-1)]
	}
	return t
}

// TargetRequest is one frame of a target.
type TargetRequest struct {
	Target   Target
	Aperture stop.FNumber
	ISO      stop.ISO
	// Filter is what is on the lens, the zero value nothing.
	Filter Truth
	// Frame counts the frames of a session: the light falls a little from each to the next.
	Frame int
	Seed  uint64
}

// How the simulated target is lit and seen.
const (
	targetWidth, targetHeight = 480, 320
	targetEV                  = stop.EV(13)
	fallPerFrame              = stop.Stops(0.012)
	wallLevel                 = 0.4 // of the wall's middle, linear
	lensCorners               = stop.Stops(0.3)
	grain                     = 0.01 // deviation of a pixel, as a share
	lensBlurPx                = 0.6
	edgeDeg                   = 5.0
)

// TargetFrame returns what a camera records of a target, as PNG with its exposure. It exposes
// on automatic by the shutter, so that the middle comes out alike with each filter; what its
// figures come to is the truth of the filter, within what noise and steps of its picture leave.
func TargetFrame(r TargetRequest) ([]byte, error) {
	light := targetEV - stop.EV(fallPerFrame)*stop.EV(r.Frame)
	shutter := stop.Shutter(float64(r.Aperture*r.Aperture) / (float64(r.ISO) / 100) / math.Exp2(float64(light)-float64(r.Filter.Stops)))
	set := stop.Setting{Aperture: r.Aperture, Shutter: shutter, ISO: r.ISO}
	random := rand.New(rand.NewPCG(r.Seed, uint64(r.Frame)<<8|uint64(len(r.Target))))
	m := image.NewNRGBA(image.Rect(0, 0, targetWidth, targetHeight))
	for y := range targetHeight {
		for x := range targetWidth {
			v := r.seen(float64(x)+0.5, float64(y)+0.5)
			noise := 1 + grain*random.NormFloat64()
			m.SetNRGBA(x, y, color.NRGBA{
				code(v*noise*(r.Filter.CastStops/2).Factor(), random), code(v*noise, random), code(v*noise*(-r.Filter.CastStops/2).Factor(), random), math.MaxUint8,
			})
		}
	}
	var out bytes.Buffer
	if err := png.Encode(&out, m); err != nil {
		return nil, fmt.Errorf("frame of the target: %w", err)
	}
	return exif.IntoPNG(out.Bytes(), set), nil
}

// code returns a channel as sRGB writes it, dithered so that steps average out.
func code(light float64, random *rand.Rand) uint8 {
	v := 12.92 * light
	if light > 0.0031308 {
		v = 1.055*math.Pow(light, 1/2.4) - 0.055
	}
	return uint8(min(max(255*v+random.Float64(), 0), math.MaxUint8))
}

// seen returns the light at a place of the frame.
func (r *TargetRequest) seen(x, y float64) float64 {
	cx, cy := x-targetWidth/2, y-targetHeight/2
	radius := math.Hypot(cx, cy) / (math.Hypot(targetWidth, targetHeight) / 2)
	switch r.Target {
	case Edge:
		sharp := lensBlurPx / max(0.05, 1-r.Filter.SharpnessLost/100)
		across := cx*math.Cos(edgeDeg*math.Pi/180) + cy*math.Sin(edgeDeg*math.Pi/180)
		return 0.05 + (wallLevel+0.1)*0.5*math.Erfc(across/(sharp*math.Sqrt2))
	case Lamp:
		return r.lamp(x/targetWidth, y/targetHeight)
	}
	// A lens loses with the square of the radius; a ring cuts in from two thirds of the way out.
	ring := max(0, (radius-0.65)/0.35)
	return wallLevel * (-lensCorners*stop.Stops(radius*radius) - r.Filter.CornerStops*stop.Stops(ring*ring)).Factor()
}

// lamp returns the light of a room with a lamp on the left and a black cloth on the right.
func (r *TargetRequest) lamp(x, y float64) float64 {
	const bright = 0.55
	veil := bright * r.Filter.VeilShare
	switch {
	case math.Hypot((x-0.2)*targetWidth, (y-0.3)*targetHeight) < 22:
		return 4 // beyond what the frame holds
	case x > 0.72:
		return 0.012 + veil
	}
	return bright*(1-0.75*x/0.72) + veil
}

package stop

import (
	"math"
	"strconv"
)

// EV is an exposure value at ISO 100, in stops. Bright sun is about 15, a lit
// room about 6. For a camera it is the light its setting needs; for a scene,
// the light there is.
type EV float64

// incidentConstant is C = 250 lx·s·ISO/(f-number²) divided by ISO 100: the
// illuminance in lux that makes EV 0 (ISO 2720, incident-light constant for a
// flat receptor).
const incidentConstant = 2.5

// FromLux returns the exposure value of a middle-grey scene lit by lux:
// log2(E/2.5). lux is in (0, ∞).
func FromLux(lux float64) EV { return EV(math.Log2(lux / incidentConstant)) }

// Lux returns the incident light that makes ev, 2.5·2^ev.
func (ev EV) Lux() float64 { return incidentConstant * math.Exp2(float64(ev)) }

// Above returns how many stops brighter ev is than other.
func (ev EV) Above(other EV) Stops { return Stops(ev - other) }

// Plus returns ev made brighter by s.
func (ev EV) Plus(s Stops) EV { return ev + EV(s) }

// String returns ev to a tenth: "EV 14.6".
func (ev EV) String() string { return "EV " + strconv.FormatFloat(float64(ev), 'f', 1, 64) }

// FNumber is a lens's f-number N, or better its T-number where that is known.
type FNumber float64

// ISO is a sensitivity in ISO arithmetic units.
type ISO float64

// Over returns how many stops more sensitive i is than base.
func (i ISO) Over(base ISO) Stops { return FromFactor(float64(i / base)) }

// Raised returns i made more sensitive by s.
func (i ISO) Raised(s Stops) ISO { return ISO(float64(i) * s.Factor()) }

// String returns the sensitivity to the whole number: "ISO 100".
func (i ISO) String() string { return "ISO " + strconv.FormatFloat(float64(i), 'f', 0, 64) }

// thirds are the sensitivities in third stops as cameras name them (ISO 12232); below and
// above them cameras halve and double.
var thirds = []ISO{50, 64, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000, 5000, 6400, 8000, 10000, 12800}

// Third returns the sensitivity in the third-stop scale of cameras nearest to i: 160 for
// 171. i is above 0.
func (i ISO) Third() ISO {
	scale := ISO(1)
	for i/scale > thirds[len(thirds)-1]*1.1 {
		scale *= 2
	}
	for i/scale < thirds[0]*0.9 {
		scale /= 2
	}
	apart := func(t ISO) ISO { return max(i/scale/t, t/(i/scale)) }
	best := thirds[0]
	for _, t := range thirds {
		if apart(t) < apart(best) {
			best = t
		}
	}
	return best * scale
}

// Setting is one exposure setting of a camera.
type Setting struct {
	Aperture FNumber
	Shutter  Shutter
	ISO      ISO
}

// EV returns the light the setting needs, at ISO 100:
// log2(N²/t) − log2(ISO/100) (APEX; ISO 2720).
func (s Setting) EV() EV {
	n, t := float64(s.Aperture), s.Shutter.Seconds()
	return EV(math.Log2(n*n/t) - math.Log2(float64(s.ISO)/100))
}

// ShutterFor returns the shutter time at which a lens of aperture n at
// sensitivity i meets the light ev without glass: N²/(2^EV·ISO/100).
func ShutterFor(n FNumber, i ISO, ev EV) Shutter {
	return Shutter(float64(n*n) / (math.Exp2(float64(ev)) * float64(i) / 100))
}

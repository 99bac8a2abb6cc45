package sim

import (
	"bytes"
	"fmt"
	"math"
	"math/cmplx"
	"math/rand/v2"

	"gonum.org/v1/gonum/mat"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/take"
)

// Size and length of a simulated clip, and what it shows.
const (
	clipWidth, clipHeight = 320, 180
	clipFrames            = 36
	clipWaves             = 220 // of a hedge: a scene is a sum of waves, so that blur is exact
	clipLight             = 0.2
	clipSteps             = 16 // while the shutter is open
	clipPanDegS           = 14
	clipNoise             = 0.002
	clipView              = angle.Deg(70) // where the camera's is not known
	clipLampDepth         = 0.15
)

// ripple is one wave of a scene.
type ripple struct {
	fx, fy float64
	size   complex128
}

// hedge returns the waves of a scene, and the cosine and the sine of each along a row.
func hedge(random *rand.Rand) (all []ripple, along *mat.Dense) {
	const coarsest, finest = 0.012, 0.45 // cycles a pixel
	all = make([]ripple, clipWaves)
	along = mat.NewDense(2*clipWaves, clipWidth, nil)
	for k := range all {
		f, direction := coarsest*math.Exp(random.Float64()*math.Log(finest/coarsest)), math.Pi*random.Float64()
		r := ripple{fx: f * math.Cos(direction), fy: f * math.Sin(direction)}
		r.size = cmplx.Rect(0.45/math.Sqrt(clipWaves)*math.Pow(f/0.05, -0.35), 2*math.Pi*random.Float64())
		for x := range clipWidth {
			s, c := math.Sincos(2 * math.Pi * r.fx * float64(x))
			along.Set(2*k, x, c)
			along.Set(2*k+1, x, s)
		}
		all[k] = r
	}
	return all, along
}

// Clip returns a clip that a simulated camera records of a hedge as a shot meant it, as YUV4MPEG2:
// it pans by hand, shakes, and its lamps pulse, where the shot says so.
func Clip(known take.Request, fps float64, shake angle.DegPerS, seed uint64) []byte {
	random := rand.New(rand.NewPCG(seed, 0xc11b))
	waves, along := hedge(random)
	path := carried(known, fps, shake, random)
	share := float64(known.ShutterS) * fps
	var out bytes.Buffer
	fmt.Fprintf(&out, "YUV4MPEG2 W%d H%d F%d:1000 Ip A1:1 Cmono XCOLORRANGE=FULL\n", clipWidth, clipHeight, int(math.Round(1000*fps)))
	down, picture := mat.NewDense(clipHeight, 2*clipWaves, nil), &mat.Dense{}
	for i := range clipFrames {
		out.WriteString("FRAME\n")
		seen := make([]complex128, len(waves))
		for step := range clipSteps {
			x, y := path((float64(i) + share*((float64(step)+0.5)/clipSteps-0.5)) / fps)
			for k, w := range waves {
				seen[k] += w.size / clipSteps * cmplx.Rect(1, -2*math.Pi*(w.fx*x+w.fy*y))
			}
		}
		for y := range clipHeight {
			for k := range seen {
				at := seen[k] * cmplx.Rect(1, 2*math.Pi*waves[k].fy*float64(y))
				down.Set(y, 2*k, real(at))
				down.Set(y, 2*k+1, -imag(at))
			}
		}
		picture.Mul(down, along) // every row is a sum of the waves
		for y := range clipHeight {
			lit := clipLight * lampLight(known, (float64(i)+float64(y)/clipHeight*known.ReadoutS*fps)/fps)
			for _, v := range picture.RawRowView(y) {
				out.WriteByte(code(max(1+v, 0)*lit+clipNoise*random.NormFloat64(), random))
			}
		}
	}
	return out.Bytes()
}

// carried returns where the content stands at a time in seconds, px: a pan that starts and stops,
// and a walker's steps, which shake so that nine tenths of the time it is as much as was asked.
func carried(known take.Request, fps float64, shake angle.DegPerS, random *rand.Rand) func(t float64) (x, y float64) {
	lens := motion.Lens{WidthPx: clipWidth, HFOV: known.HFOVDeg, Projection: known.Projection}
	if lens.HFOV == 0 {
		lens.HFOV = clipView
	}
	if lens.Projection == "" {
		lens.Projection = motion.Rectilinear
	}
	perDeg := lens.Px(1)
	phase := 2 * math.Pi * random.Float64()
	length := clipFrames / fps
	// Two swings at right angles, out of phase: their speed together hardly changes.
	const stepHz, bobHz = 3.7, 5.3
	swing := float64(shake) * perDeg / (2 * math.Pi) / 1.15
	return func(t float64) (x, y float64) {
		pan := clipPanDegS * perDeg * (t - length/(2*math.Pi)*math.Sin(2*math.Pi*t/length))
		return pan + swing/stepHz*math.Sin(2*math.Pi*stepHz*t+phase), swing / bobHz * math.Cos(2*math.Pi*bobHz*t+phase)
	}
}

// lampLight returns the light of the lamps at a time, about 1; 1 where none pulse.
func lampLight(known take.Request, t float64) float64 {
	if known.MainsHz == 0 {
		return 1
	}
	return 1 + clipLampDepth*math.Cos(2*math.Pi*2*known.MainsHz*t)
}

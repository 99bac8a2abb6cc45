package take

import (
	"cmp"
	"math"
	"math/cmplx"
	"math/rand/v2"

	"gonum.org/v1/gonum/mat"
)

// made is a clip by a second way: a scene of waves, each of which a movement while the shutter is
// open weakens by what its phase comes to on average. Nothing is sampled between pixels.
type made struct {
	frames int
	share  float64
	fps    float64
	path   func(t float64) (x, y float64)       // of the content, px; t in frames
	back   func(frame int) (x, y float64)       // by which a stabiliser moves the frame back
	gain   func(frame int, row float64) float64 // of the light
	bend   func(frame int, row float64) float64 // px, sideways
	flat   bool                                 // no texture
	waves  int                                  // of the scene, over a hundred by default
	seed   uint64
}

const (
	madeWidth, madeHeight = 320, 180
	madeWaves             = 130 // by default
	madeLight             = 0.2
	madeSteps             = 24 // while the shutter is open
)

// ripple is one wave of a scene.
type ripple struct {
	fx, fy float64
	ofY    []complex128
	size   complex128
}

// scene returns the waves of a scene, and the cosine and the sine of each along a row.
func scene(seed uint64, waves int) (all []ripple, along *mat.Dense) {
	random := rand.New(rand.NewPCG(seed, 7))
	all = make([]ripple, waves)
	along = mat.NewDense(2*waves, madeWidth, nil)
	for k := range all {
		f, direction := 0.012*math.Exp(random.Float64()*math.Log(0.45/0.012)), math.Pi*random.Float64()
		r := ripple{fx: f * math.Cos(direction), fy: f * math.Sin(direction)}
		r.size = cmplx.Rect(0.45/math.Sqrt(float64(waves))*math.Pow(f/0.05, -0.35), 2*math.Pi*random.Float64())
		for x := range madeWidth {
			s, c := math.Sincos(2 * math.Pi * r.fx * float64(x))
			along.Set(2*k, x, c)
			along.Set(2*k+1, x, s)
		}
		for y := range madeHeight {
			r.ofY = append(r.ofY, cmplx.Rect(1, 2*math.Pi*r.fy*float64(y)))
		}
		all[k] = r
	}
	return all, along
}

func (m made) clip() *Clip {
	waves, along := scene(m.seed, cmp.Or(m.waves, madeWaves))
	random := rand.New(rand.NewPCG(m.seed, 9))
	c := &Clip{Width: madeWidth, Height: madeHeight, FPS: m.fps}
	down, picture := mat.NewDense(madeHeight, 2*len(waves), nil), &mat.Dense{}
	for i := range m.frames {
		seen := m.exposed(waves, i)
		for y := range madeHeight {
			bend := 0.0
			if m.bend != nil {
				bend = m.bend(i, float64(y)/madeHeight)
			}
			for k := range seen {
				at := seen[k] * waves[k].ofY[y]
				if bend != 0 {
					at *= cmplx.Rect(1, -2*math.Pi*waves[k].fx*bend)
				}
				down.Set(y, 2*k, real(at))
				down.Set(y, 2*k+1, -imag(at))
			}
		}
		picture.Mul(down, along) // every row is a sum of the waves
		frame := make([]byte, 0, madeWidth*madeHeight)
		for y := range madeHeight {
			gain := 1.0
			if m.gain != nil {
				gain = m.gain(i, float64(y)/madeHeight)
			}
			for _, v := range picture.RawRowView(y) {
				frame = append(frame, codeOf(madeLight*max(1+v, 0)*gain, random))
			}
		}
		c.Frames = append(c.Frames, frame)
	}
	return c
}

// exposed returns each wave as a frame has it; none of a flat wall.
func (m made) exposed(waves []ripple, i int) []complex128 {
	if m.flat {
		return nil
	}
	var bx, by float64
	if m.back != nil {
		bx, by = m.back(i)
	}
	seen := make([]complex128, len(waves))
	for step := range madeSteps {
		x, y := m.path(float64(i) + m.share*((float64(step)+0.5)/madeSteps-0.5))
		for k, w := range waves {
			seen[k] += w.size / madeSteps * cmplx.Rect(1, -2*math.Pi*(w.fx*(x-bx)+w.fy*(y-by)))
		}
	}
	return seen
}

// codeOf encodes light as sRGB, with the noise of a sensor.
func codeOf(light float64, random *rand.Rand) byte {
	light += 0.002 * random.NormFloat64()
	v := 12.92 * light
	if light > 0.0031308 {
		v = 1.055*math.Pow(light, 1/2.4) - 0.055
	}
	return byte(min(max(math.Round(255*v), 0), 255))
}

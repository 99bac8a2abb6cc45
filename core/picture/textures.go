package picture

import (
	"math"
	"math/rand/v2"
	"sync"
)

// textures are the strips that a scene is drawn from, each one period long. They are not
// changed once they are made.
type textures struct {
	sky, ground []strip
	hills       strip
	posts       strip     // coverage by the vines' stems
	canopy      []foliage // of the vines, from the bottom up
	grain       []float32
}

// Sizes of the textures.
const (
	samples    = 1024 // of one period of a strip
	groundRows = 32   // different textures of the ground
	canopyRows = 72   // different heights of a vine's leaves
)

// made holds the textures of the last seed. Making them takes as long as two frames, and
// nearly all that is drawn is of one seed.
var made struct {
	sync.Mutex
	seed uint64
	*textures
}

// texturesOf returns the textures of a seed, the same for the same.
func texturesOf(seed uint64) *textures {
	made.Lock()
	defer made.Unlock()
	if made.textures == nil || made.seed != seed {
		made.seed, made.textures = seed, newTextures(seed)
	}
	return made.textures
}

func newTextures(seed uint64) *textures {
	random := rand.New(rand.NewPCG(seed, 0x9e3779b97f4a7c15))
	t := &textures{grain: make([]float32, 1<<14)}
	for range 4 {
		t.sky = append(t.sky, newStrip(noise(random, 5, 0.55)))
	}
	t.hills = newStrip(noise(random, 4, 0.5))
	for range groundRows {
		t.ground = append(t.ground, newStrip(noise(random, 220, 0.45)))
	}
	t.posts = newStrip(stems())
	t.canopy = crown(random)
	for i := range t.grain {
		t.grain[i] = float32(random.NormFloat64())
	}
	return t
}

// noise returns a period of smooth noise around 1: waves of up to most cycles,
// with a share of the whole as their swing.
func noise(random *rand.Rand, most int, swing float64) []float64 {
	values := make([]float64, samples)
	total := 0.0
	for cycles := 1; cycles <= most; cycles += 1 + most/12 {
		weight := 1 / math.Sqrt(float64(cycles))
		phase := 2 * math.Pi * random.Float64()
		total += weight
		for i := range values {
			values[i] += weight * math.Sin(2*math.Pi*float64(cycles*i)/samples+phase)
		}
	}
	for i := range values {
		values[i] = max(0.05, 1+2*swing*values[i]/total)
	}
	return values
}

// stems returns the stem of a vine in the middle of its period.
func stems() []float64 {
	row := make([]float64, samples)
	for i := range row {
		if math.Abs(float64(i)/samples-0.5) < 0.035 {
			row[i] = 1
		}
	}
	return row
}

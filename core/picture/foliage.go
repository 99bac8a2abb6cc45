package picture

import (
	"math"
	"math/rand/v2"
)

// foliage is one height of a vine's leaves: how much they cover, and that times
// their brightness.
type foliage struct{ cover, bright strip }

// leaves are how many make one crown, laid on each other from the back to the front.
const leaves = 1400

// crown draws one vine's crown, a period wide, leaf by leaf: its heights from the bottom up.
// Each leaf is a soft-edged ellipse, brighter towards the light above and towards the front,
// so that neither rows nor cells of a grid are seen.
func crown(random *rand.Rand) []foliage {
	cover, bright := make([][]float64, canopyRows), make([][]float64, canopyRows)
	for row := range cover {
		cover[row], bright[row] = make([]float64, samples), make([]float64, samples)
	}
	for n := range leaves {
		depth := float64(n) / leaves // 0 at the back, 1 at the front
		// Somewhere in the crown, which bulges in the middle of its height.
		up := random.Float64()
		reach := 0.33 * math.Pow(math.Sin(math.Pi*(0.1+0.82*up)), 0.6)
		side := reach * (2*random.Float64() - 1) * (1 - 0.12*random.Float64())
		turn := math.Pi * random.Float64()
		long := 0.035 + 0.03*random.Float64()
		tone := (0.5 + 0.45*up + 0.35*depth) * (0.75 + 0.5*random.Float64()) * (1 - 0.25*math.Abs(side)/0.36)
		lay(cover, bright, leaf{up: up, side: side, long: long, wide: 0.45 * long, turn: turn, tone: tone})
	}
	heights := make([]foliage, canopyRows)
	for row := range heights {
		heights[row] = foliage{newStrip(cover[row]), newStrip(bright[row])}
	}
	return heights
}

// leaf is an ellipse in a crown: its middle in shares of the crown's height and of a period, its
// half axes in shares of a period, and its brightness.
type leaf struct{ up, side, long, wide, turn, tone float64 }

// crownTall is how many periods the crown is high.
const crownTall = (vineHeight - stemHeight) / vineSpacing

// lay puts a leaf on what is there.
func lay(cover, bright [][]float64, l leaf) {
	sin, cos := math.Sincos(l.turn)
	rows := l.long / crownTall * canopyRows
	middle := l.up * canopyRows
	for row := max(0, int(middle-rows)); row <= min(canopyRows-1, int(middle+rows)+1); row++ {
		dy := (float64(row) + 0.5 - middle) / canopyRows * crownTall
		first := int((0.5 + l.side - l.long) * samples)
		for i := first; i <= first+int(2*l.long*samples)+1; i++ {
			dx := (float64(i)+0.5)/samples - 0.5 - l.side
			u, v := (dx*cos+dy*sin)/l.long, (dy*cos-dx*sin)/l.wide
			share := min(1, max(0, 3*(1-math.Hypot(u, v)))) // a third of it fades
			if share == 0 {
				continue
			}
			at := ((i % samples) + samples) % samples
			// The middle rib catches the light.
			tone := l.tone * (1 - 0.2*math.Abs(v))
			cover[row][at] += share * (1 - cover[row][at])
			bright[row][at] = bright[row][at]*(1-share) + tone*share
		}
	}
}

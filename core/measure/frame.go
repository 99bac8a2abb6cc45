package measure

import (
	"math"
	"sort"

	"pinhole/core/stop"
)

// middleGrey is the light that a metered subject comes out at.
const middleGrey = 0.18

// Shares at which a frame says less than it seems to.
const (
	clippedPercentile = 0.99 // of p99: advice is a lower bound
	highlightsMost    = 0.95 // of p99, to which a frame may be brightened
	roughShare        = 0.5  // of crushed pixels: advice is rough
	nothingShare      = 0.98 // of crushed pixels: there is nothing to read
)

// Sizes of what is drawn over a frame.
const zebraColumns, mostZebraRows = 16, 64

// FrameAnswer is what one frame says of its exposure.
type FrameAnswer struct {
	Findings
	File         FileAnswer  `json:"file"`
	Histogram    Histogram   `json:"histogram"`
	BlownShare   float64     `json:"blownShare" doc:"of the pixels: any channel at 252 or more"`
	Blown        Channels    `json:"blown" doc:"by channel"`
	CrushedShare float64     `json:"crushedShare" doc:"of the pixels: every channel at 3 or less"`
	MeanStops    *stop.Stops `json:"meanStops" doc:"the mean light over middle grey"`
	P1           float64     `json:"p1" doc:"percentiles of the light, 0 to 1"`
	P50          float64     `json:"p50"`
	P99          float64     `json:"p99"`
	Zebra        Zebra       `json:"zebra"`
	Uneven       *Uneven     `json:"uneven"`
	Bars         *Bars       `json:"bars,omitempty" doc:"black bars of a letterbox"`
	AdviceStops  *stop.Stops `json:"adviceStops" doc:"what brings the mean to middle grey and keeps the highlights inside; positive: brighter"`
	AtLeast      bool        `json:"adviceAtLeast" doc:"highlights are clipped: it takes this much or more"`
	Rough        bool        `json:"adviceRough" doc:"more than half is crushed"`
	Glass        *FrameGlass `json:"glass,omitempty"`
}

// FileAnswer is what the file itself says.
type FileAnswer struct {
	Format      string    `json:"format"`
	Bits        int       `json:"bits"`
	WidthPx     int       `json:"widthPx"`
	HeightPx    int       `json:"heightPx"`
	Orientation int       `json:"orientation" doc:"as EXIF counts, 1 where it says nothing"`
	Exposure    *Exposure `json:"exposure,omitempty"`
}

// Histogram counts pixels by code.
type Histogram struct {
	Luma  []int `json:"luma"`
	Red   []int `json:"red"`
	Green []int `json:"green"`
	Blue  []int `json:"blue"`
	// GreyCode is where middle grey stands.
	GreyCode int `json:"greyCode" doc:"the code of middle grey in sRGB"`
}

// Channels are shares by channel.
type Channels struct {
	Red   float64 `json:"red"`
	Green float64 `json:"green"`
	Blue  float64 `json:"blue"`
}

// Zebra is what of each block is clipped, row by row.
type Zebra struct {
	Columns int         `json:"columns"`
	Rows    int         `json:"rows"`
	Blown   [][]float64 `json:"blown"`
	Crushed [][]float64 `json:"crushed"`
}

// Uneven is how the light is spread over a frame.
type Uneven struct {
	CV             float64    `json:"cv" doc:"deviation over mean of the blocks"`
	LeftRightStops stop.Stops `json:"leftRightStops" doc:"positive where the left is brighter"`
	TopBottomStops stop.Stops `json:"topBottomStops" doc:"positive where the top is brighter"`
}

// Bars are how many rows and columns of a letterbox are black.
type Bars struct {
	TopPx    int `json:"topPx,omitempty"`
	BottomPx int `json:"bottomPx,omitempty"`
	LeftPx   int `json:"leftPx,omitempty"`
	RightPx  int `json:"rightPx,omitempty"`
}

// measureFrame answers frame.
func measureFrame(in Input) (*FrameAnswer, error) {
	file := in.file("file")
	p, err := readPicture("file", file)
	if err != nil {
		return nil, err
	}
	kit, err := readFrameKit(in)
	if err != nil {
		return nil, err
	}
	a := frameOf(p)
	if a.AdviceStops != nil && kit != nil {
		if a.Glass, err = kit.glass(*a.AdviceStops); err != nil {
			return nil, err
		}
	}
	return a, nil
}

// frameOf returns what a frame says.
func frameOf(p *picture) *FrameAnswer {
	a := &FrameAnswer{
		Findings: newFindings(),
		File:     FileAnswer{p.format, p.bits, p.width, p.height, p.orientation, p.exposure},
		Bars:     p.bars(),
	}
	light := p.count(a)
	a.P1, a.P50, a.P99 = light.percentile(0.01), light.percentile(0.5), light.percentile(0.99)
	if a.Bars != nil {
		a.warn("bars", "Black bars are counted as darkness: crop them off, and the advice rises.")
	}
	if a.CrushedShare > nothingShare {
		a.refuse("crushed", "file", "Nearly all of it is black: open up by two stops or more and shoot again.")
		return a
	}
	mean := light.sum / float64(p.whole().pixels())
	over := stop.FromFactor(mean / middleGrey)
	// Brighter only as far as the highlights stay inside.
	advice := min(-over, stop.FromFactor(highlightsMost/max(a.P99, least)))
	a.MeanStops, a.AdviceStops = &over, &advice
	a.AtLeast, a.Rough = a.P99 >= clippedPercentile, a.CrushedShare > roughShare
	a.Uneven = light.uneven(p)
	return a
}

// count fills the histogram, the shares and the zebra in one pass, and returns the light of
// every pixel.
func (p *picture) count(a *FrameAnswer) *lights {
	h := &a.Histogram
	h.GreyCode = sort.Search(255, func(code int) bool { return decoded(float64(code)/255) >= middleGrey })
	h.Luma, h.Red, h.Green, h.Blue = make([]int, 256), make([]int, 256), make([]int, 256), make([]int, 256)
	zebra := newZebra(p)
	light := newLights(p.width * p.height)
	linear := p.light.linear
	var blown, crushed int
	var channels [3]int
	for y := range p.height {
		row := p.rgb[3*y*p.width : 3*(y+1)*p.width]
		for x := range p.width {
			r, g, b := row[3*x], row[3*x+1], row[3*x+2]
			h.Luma[lumaCode(r, g, b)]++
			h.Red[codeOf(r)]++
			h.Green[codeOf(g)]++
			h.Blue[codeOf(b)]++
			light.add(lumaRed*float64(linear[r]) + lumaGreen*float64(linear[g]) + lumaBlue*float64(linear[b]))
			if max(r, g, b) >= blownFrom {
				blown++
				zebra.blown(x, y)
				for k, v := range [3]uint16{r, g, b} {
					if v >= blownFrom {
						channels[k]++
					}
				}
			} else if max(r, g, b) <= crushedTo {
				crushed++
				zebra.crushed(x, y)
			}
		}
	}
	all := float64(p.width * p.height)
	a.BlownShare, a.CrushedShare = float64(blown)/all, float64(crushed)/all
	a.Blown = Channels{float64(channels[0]) / all, float64(channels[1]) / all, float64(channels[2]) / all}
	a.Zebra = zebra.shares()
	return light
}

// lumaCode returns ⌊0.2126 R + 0.7152 G + 0.0722 B + ½⌋ of codes, in whole numbers: codes of 8
// bits do lie half-way, where fractions of two would fall on either side.
func lumaCode(r, g, b uint16) int {
	const parts = 10000
	const red, green, blue = parts * lumaRed, parts * lumaGreen, parts * lumaBlue
	return (red*int(r) + green*int(g) + blue*int(b) + parts*perCode/2) / (parts * perCode)
}

// codeOf returns the code of 8 bits that is nearest to a value.
func codeOf(v uint16) int { return (int(v) + perCode/2) / perCode }

// zebraCounts counts what is clipped by block. Blocks are as square as whole rows allow.
type zebraCounts struct {
	rows          int
	column, row   []int // of which block each is
	pixels        []int
	blownN, darkN []int
}

func newZebra(p *picture) *zebraCounts {
	z := &zebraCounts{rows: min(max(int(math.Round(float64(zebraColumns*p.height)/float64(p.width))), 1), mostZebraRows)}
	n := zebraColumns * z.rows
	z.column, z.row = make([]int, p.width), make([]int, p.height)
	z.pixels, z.blownN, z.darkN = make([]int, n), make([]int, n), make([]int, n)
	p.whole().blocks(zebraColumns, z.rows, func(i, j int, block area) {
		z.pixels[j*zebraColumns+i] = block.pixels()
		for x := block.x0; x < block.x1; x++ {
			z.column[x] = i
		}
		for y := block.y0; y < block.y1; y++ {
			z.row[y] = j
		}
	})
	return z
}

func (z *zebraCounts) blown(x, y int)   { z.blownN[z.row[y]*zebraColumns+z.column[x]]++ }
func (z *zebraCounts) crushed(x, y int) { z.darkN[z.row[y]*zebraColumns+z.column[x]]++ }

// shares returns the counts as shares, row by row.
func (z *zebraCounts) shares() Zebra {
	out := Zebra{Columns: zebraColumns, Rows: z.rows}
	for j := range z.rows {
		var blown, dark []float64
		for i := range zebraColumns {
			k := j*zebraColumns + i
			all := float64(max(1, z.pixels[k]))
			blown, dark = append(blown, float64(z.blownN[k])/all), append(dark, float64(z.darkN[k])/all)
		}
		out.Blown, out.Crushed = append(out.Blown, blown), append(out.Crushed, dark)
	}
	return out
}

// uneven returns how the light is spread over the frame.
func (l *lights) uneven(p *picture) *Uneven {
	mean := func(a area) float64 {
		sum := 0.0
		for y := a.y0; y < a.y1; y++ {
			for _, v := range l.all[y*p.width+a.x0 : y*p.width+a.x1] {
				sum += float64(v)
			}
		}
		return sum / float64(max(1, a.pixels()))
	}
	halves := func(a, b area) stop.Stops { return stop.FromFactor(max(mean(a), least) / max(mean(b), least)) }
	return &Uneven{
		CV:             cvOf(p.whole(), mean),
		LeftRightStops: halves(area{0, 0, p.width / 2, p.height}, area{p.width / 2, 0, p.width, p.height}),
		TopBottomStops: halves(area{0, 0, p.width, p.height / 2}, area{0, p.height / 2, p.width, p.height}),
	}
}

// What is a bar: nearly all of a row or column is black, on opposite sides, and each is wide
// enough to be meant.
const (
	barCode      = 16 * perCode
	barShare     = 0.97
	barLeastPart = 0.02
)

// bars returns the black bars of a letterbox, nil where there are none.
func (p *picture) bars() *Bars {
	black := func(v []uint16) bool { return v[0] <= barCode && v[1] <= barCode && v[2] <= barCode }
	isBar := func(n int, at func(i int) []uint16) bool {
		dark := 0
		for i := range n {
			if black(at(i)) {
				dark++
			}
		}
		return float64(dark) >= barShare*float64(n)
	}
	row := func(y int) bool { return isBar(p.width, func(x int) []uint16 { return p.at(x, y) }) }
	column := func(x int) bool { return isBar(p.height, func(y int) []uint16 { return p.at(x, y) }) }
	run := func(n int, is func(i int) bool) int {
		for i := range n {
			if !is(i) {
				return i
			}
		}
		return n
	}
	pair := func(n int, is func(i int) bool) (from, to int) {
		from, to = run(n, is), run(n, func(i int) bool { return is(n - 1 - i) })
		wide := barLeastPart * float64(n)
		if from == n || float64(from) <= wide || float64(to) <= wide {
			return 0, 0 // all black is no letterbox
		}
		return from, to
	}
	var b Bars
	b.TopPx, b.BottomPx = pair(p.height, row)
	b.LeftPx, b.RightPx = pair(p.width, column)
	if b == (Bars{}) {
		return nil
	}
	return &b
}

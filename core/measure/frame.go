package measure

import (
	"math"

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
func measureFrame(in Input) (any, error) {
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
	a.Zebra = p.zebra()
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
	a.Uneven = p.uneven()
	return a
}

// count fills the histogram and the shares, and returns the light of every pixel.
func (p *picture) count(a *FrameAnswer) *lights {
	h := &a.Histogram
	h.Luma, h.Red, h.Green, h.Blue = make([]int, 256), make([]int, 256), make([]int, 256), make([]int, 256)
	light := newLights(p.width * p.height)
	var blown, crushed int
	for i := 0; i < len(p.rgb); i += 3 {
		v := p.rgb[i : i+3 : i+3]
		luma := (lumaRed*float64(v[0]) + lumaGreen*float64(v[1]) + lumaBlue*float64(v[2])) / perCode
		h.Luma[int(luma+0.5)]++
		h.Red[codeOf(v[0])]++
		h.Green[codeOf(v[1])]++
		h.Blue[codeOf(v[2])]++
		if isBlown(v) {
			blown++
		}
		if isCrushed(v) {
			crushed++
		}
		light.add(p.luminance(v))
	}
	all := float64(len(p.rgb) / 3)
	a.BlownShare, a.CrushedShare = float64(blown)/all, float64(crushed)/all
	a.Blown = Channels{p.blownOf(0) / all, p.blownOf(1) / all, p.blownOf(2) / all}
	return light
}

// codeOf returns the code of 8 bits that is nearest to a value.
func codeOf(v uint16) int { return (int(v) + perCode/2) / perCode }

// blownOf returns how many pixels a channel is blown in.
func (p *picture) blownOf(channel int) (n float64) {
	for i := channel; i < len(p.rgb); i += 3 {
		if p.rgb[i] >= blownFrom {
			n++
		}
	}
	return n
}

// zebra returns what of each block is clipped. Blocks are as square as whole rows allow.
func (p *picture) zebra() Zebra {
	rows := min(max(int(math.Round(float64(zebraColumns*p.height)/float64(p.width))), 1), mostZebraRows)
	z := Zebra{Columns: zebraColumns, Rows: rows, Blown: make([][]float64, rows), Crushed: make([][]float64, rows)}
	p.whole().blocks(zebraColumns, rows, func(_, j int, block area) {
		var blown, crushed float64
		for y := block.y0; y < block.y1; y++ {
			for x := block.x0; x < block.x1; x++ {
				v := p.at(x, y)
				if isBlown(v) {
					blown++
				}
				if isCrushed(v) {
					crushed++
				}
			}
		}
		all := float64(max(1, block.pixels()))
		z.Blown[j], z.Crushed[j] = append(z.Blown[j], blown/all), append(z.Crushed[j], crushed/all)
	})
	return z
}

// uneven returns how the light is spread over the frame.
func (p *picture) uneven() *Uneven {
	halves := func(a, b area) stop.Stops {
		return stop.FromFactor(max(p.meanLuminance(a), least) / max(p.meanLuminance(b), least))
	}
	return &Uneven{
		CV:             p.cv(p.whole()),
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

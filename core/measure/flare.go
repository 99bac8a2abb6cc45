package measure

import (
	"math"
	"slices"

	"pinhole/core/stop"
)

// How veil is read: by blocks, of which the brightest and the darkest are compared.
const (
	flareColumns  = 32
	flareRows     = 18
	brightestPart = 0.1
	darkestPart   = 0.05
	farFrom       = 0.4 // diagonals from the source
	farLeast      = 40  // blocks
	farContrast   = 0.35
	nearTo        = 0.25
	leastContrast = 2.0 // stops
	darkCrushed   = 0.1
	sameScene     = 0.8 // correlation of the logarithms
	halfBlown     = 0.5
	haloTimes     = 2
	veilFrom      = 0.005
)

// Spread of a filter's veil.
type Spread string

// The spreads.
const (
	Halo   Spread = "halo" // about the source, as mist makes it
	Veil   Spread = "veil" // all over, as grease or a stick-on makes it
	NoVeil Spread = "none"
)

// Values returns every Spread there is.
func (Spread) Values() []Spread { return []Spread{Halo, Veil, NoVeil} }

// FlareAnswer is the veil that a filter lays over the dark parts.
type FlareAnswer struct {
	Findings
	VeilShare     *float64    `json:"veilShare" doc:"of the brightest part, added to the dark"`
	LiftStops     *stop.Stops `json:"liftStops" doc:"by which the dark parts come up"`
	ContrastStops *BothStops  `json:"contrastStops"`
	Source        *FramePoint `json:"source,omitempty" doc:"of the light, in shares of the frame"`
	NearVeilShare *float64    `json:"nearVeilShare,omitempty"`
	FarVeilShare  *float64    `json:"farVeilShare,omitempty"`
	Spread        Spread      `json:"spread,omitempty"`
	Grade         *float64    `json:"grade" doc:"as it is kept with a filter: 0 none, 1 slight, 2 plain, 3 heavy"`
}

// gradeDark is how dark a dark part is that veil is graded by: four stops under the light,
// about a shaded face beside a lit window.
const gradeDark = 1.0 / 16

// grade says how much a veil is seen: none below a tenth of a stop of lift in such a dark part,
// slight below a third of a stop, plain below one. A rule of ours: the steps of one who looks.
func grade(veilShare float64) float64 {
	lift := math.Log2(1 + max(veilShare, 0)/gradeDark)
	for i, most := range []float64{0.1, 1.0 / 3, 1} {
		if lift < most {
			return float64(i)
		}
	}
	return 3
}

// BothStops is a figure without and with the filter.
type BothStops struct {
	Without stop.Stops `json:"without"`
	With    stop.Stops `json:"with"`
}

// FramePoint is a place in the frame, from its upper left corner.
type FramePoint struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// flareBlock is one block of both frames.
type flareBlock struct {
	x, y          float64 // of its middle, in pixels
	without, with float64
	crushed       float64
	fromSource    float64 // in diagonals
}

// measureFlare answers flare.
func measureFlare(in Input) (*FlareAnswer, error) {
	without, with, err := readPair(in)
	if err != nil {
		return nil, err
	}
	a := &FlareAnswer{Findings: newFindings()}
	all, source := flareBlocks(without, with)
	for i, p := range []*picture{without, with} {
		if blown, _ := p.clipped(p.whole(), nil); blown > halfBlown {
			a.refuse("blown", []string{"without", "with"}[i], "More than half is clipped: shoot it again two stops darker.")
		}
	}
	if a.isRefused() {
		return a, nil
	}
	if len(all) < flareColumns*flareRows/10 {
		a.refuse("blown", "without", "Hardly a part of it is not clipped: shoot it again darker.")
		return a, nil
	}
	bright, dark := extremes(all)
	a.judge(all, bright, dark)
	if a.isRefused() {
		return a, nil
	}
	a.say(all, bright, dark, source, without)
	return a, nil
}

// flareBlocks returns the blocks that no frame clips, and the middle of those that the frame
// without clips.
func flareBlocks(without, with *picture) (all []flareBlock, source *FramePoint) {
	var sx, sy, blown float64
	without.whole().blocks(flareColumns, flareRows, func(_, _ int, block area) {
		if block.pixels() == 0 {
			return
		}
		b := flareBlock{x: float64(block.x0+block.x1) / 2, y: float64(block.y0+block.y1) / 2}
		clipped, crushed := without.clipped(block, nil)
		if clipped > 0 {
			sx, sy, blown = sx+b.x, sy+b.y, blown+1
			return
		}
		if also, _ := with.clipped(block, nil); also > 0 {
			return
		}
		b.without, b.with, b.crushed = without.meanLuminance(block), with.meanLuminance(block), crushed
		all = append(all, b)
	})
	if blown == 0 {
		return all, nil
	}
	sx, sy = sx/blown, sy/blown
	diagonal := math.Hypot(float64(without.width), float64(without.height))
	for i := range all {
		all[i].fromSource = math.Hypot(all[i].x-sx, all[i].y-sy) / diagonal
	}
	return all, &FramePoint{sx / float64(without.width), sy / float64(without.height)}
}

// extremes returns the brightest tenth and the darkest twentieth of blocks, as seen without.
func extremes(all []flareBlock) (bright, dark []flareBlock) {
	sorted := slices.Clone(all)
	slices.SortStableFunc(sorted, func(a, b flareBlock) int {
		switch {
		case a.without < b.without:
			return -1
		case a.without > b.without:
			return 1
		}
		return 0
	})
	n := len(sorted)
	return sorted[n-max(1, int(brightestPart*float64(n))):], sorted[:max(1, int(darkestPart*float64(n)))]
}

// judge refuses what cannot be told from.
func (a *FlareAnswer) judge(all, bright, dark []flareBlock) {
	crushed := 0.0
	for _, b := range dark {
		crushed += b.crushed / float64(len(dark))
	}
	b0, _ := lightOf(bright)
	d0, _ := lightOf(dark)
	switch {
	case crushed > darkCrushed:
		a.refuse("crushed", "without", "The dark parts are black: expose longer until they show, the light itself may clip.")
	case math.Log2(max(b0, least)/max(d0, least)) < leastContrast:
		a.refuse("no-dark", "without", "Nothing dark is in the picture: take in a deep shadow or a black cloth.")
	case correlation(all) < sameScene:
		a.refuse("moved", "with", "The frames do not show the same: fix the camera and shoot both again.")
	}
}

// lightOf returns the mean light of blocks without and with the filter.
func lightOf(blocks []flareBlock) (without, with float64) {
	for _, b := range blocks {
		without, with = without+b.without, with+b.with
	}
	n := float64(max(1, len(blocks)))
	return without / n, with / n
}

// correlation returns how alike the blocks of the two frames are, by their logarithms.
func correlation(all []flareBlock) float64 {
	var xs, ys []float64
	for _, b := range all {
		xs, ys = append(xs, math.Log2(max(b.without, least))), append(ys, math.Log2(max(b.with, least)))
	}
	mx, dx := spread(xs)
	my, dy := spread(ys)
	sum := 0.0
	for i := range xs {
		sum += (xs[i] - mx) * (ys[i] - my)
	}
	if dx == 0 || dy == 0 {
		return 0
	}
	return sum / float64(len(xs)) / (dx * dy)
}

// veilOf returns the veil that brings the contrast of some blocks from without to with, and
// the scale between the frames.
func veilOf(bright, dark []flareBlock) (veil, scale, r0, r1 float64) {
	b0, b1 := lightOf(bright)
	d0, d1 := lightOf(dark)
	r0, r1 = d0/max(b0, least), d1/max(b1, least)
	veil = (r1 - r0) / max(1-r1, least)
	return veil, b1 / max(b0, least) / (1 + veil), r0, r1
}

// say fills in what was measured.
func (a *FlareAnswer) say(all, bright, dark []flareBlock, source *FramePoint, p *picture) {
	_, scale, r0, r1 := veilOf(bright, dark)
	b0, _ := lightOf(bright)
	far := math.NaN()
	if source != nil {
		var away []flareBlock
		for _, b := range all {
			if b.fromSource >= farFrom {
				away = append(away, b)
			}
		}
		if len(away) >= farLeast {
			farBright, farDark := extremes(away)
			if v, k, contrast, _ := veilOf(farBright, farDark); contrast < farContrast {
				// Far from the source there is the least halo: the scale is told there.
				scale = k
				fb, _ := lightOf(farBright)
				far = v * fb / max(b0, least)
			}
		}
	}
	veil := func(blocks []flareBlock) float64 {
		without, with := lightOf(blocks)
		return (with/scale - without) / max(b0, least)
	}
	share := veil(dark)
	lift := stop.FromFactor(max(1+share/max(r0, least), least))
	graded := grade(share)
	a.VeilShare, a.LiftStops, a.Grade = &share, &lift, &graded
	a.ContrastStops = &BothStops{stop.FromFactor(1 / max(r0, least)), stop.FromFactor(1 / max(r1, least))}
	if source == nil {
		a.warn("no-source", "No light is in the picture: halos are not told from veil.")
		return
	}
	a.Source = source
	if math.IsNaN(far) {
		far = share
	}
	middle := make([]float64, len(all))
	for i, b := range all {
		middle[i] = b.without
	}
	slices.Sort(middle)
	var near []flareBlock
	for _, b := range all {
		if b.fromSource <= nearTo && b.without <= middle[len(middle)/2] {
			near = append(near, b)
		}
	}
	close := share
	if len(near) > 0 {
		close = veil(near)
	}
	a.FarVeilShare, a.NearVeilShare = &far, &close
	switch {
	case close > haloTimes*far+veilFrom:
		a.Spread = Halo
	case far >= veilFrom:
		a.Spread = Veil
	default:
		a.Spread = NoVeil
	}
}

package take

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/dsp/fourier"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// When something cannot be told.
const (
	gapTimes     = 1.5
	nearFault    = 2 // frames around a repeat or a drop that say nothing of the shutter
	slowestPx    = 1.0
	offMost      = 0.3 // px, the median of the blocks
	clippedMost  = 0.3 // of the pixels
	texturePart  = 4   // cells a block at least, of the pairs
	ghostTexture = 18  // cells a comparison of blocks at least: below, noise is taken for blur
	starvedBits  = 2.0 // a pixel
	coarseMore   = 0.01
	agreeErrors  = 3.0
	strobeSecond = 2
	shakeGroups  = 8
)

// Measure returns what a clip says. Its fault names fps or times.
func Measure(c *Clip, r Request) (*Answer, error) {
	fps, gaps, err := clock(c, r)
	if err != nil {
		return nil, err
	}
	w := reduced(c)
	width := float64(c.Width)
	if r.WidthPx > 0 {
		w.scale *= r.WidthPx / width
		width = r.WidthPx
	}
	a := &Answer{Frames: len(c.Frames), WidthPx: width, WorkPx: w.w, FPS: fps, Gaps: gaps, Duplicates: w.repeats()}
	t := newTracker(w)
	pairs := t.track(set(a.Duplicates))
	if len(pairs) < 2 {
		return nil, &problem.Fault{Field: "file", Value: fmt.Sprintf("%d frames, all but %d repeated", a.Frames, len(pairs)+1), Allowed: "frames that differ"}
	}
	for i := range pairs {
		if slices.Contains(gaps, pairs[i].to) && len(r.Times) > 0 {
			pairs[i].steps = max(1, math.Round((r.Times[pairs[i].to]-r.Times[pairs[i].from])*fps))
		}
	}
	a.Drops, a.Cuts = markDrops(pairs), markCuts(pairs)
	a.Exposure = t.exposure(pairs)
	p := pathOf(pairs)
	speeds := make([]float64, len(p.velocity))
	for i, v := range p.velocity {
		speeds[i] = math.Hypot(v.dx, v.dy)
	}
	perDeg := 0.0
	if r.HFOVDeg > 0 {
		lens := motion.Lens{WidthPx: float64(w.w), HFOV: r.HFOVDeg, Projection: r.Projection}
		if lens.Projection == "" {
			lens.Projection = motion.Rectilinear
		}
		perDeg = lens.Px(1)
	}
	a.motion(pairs, speeds, w.scale, perDeg)
	a.shake(&p, perDeg)
	a.flicker(t.flickerSheet(pairs), r)
	a.wobble(t.wobbleSheet(pairs), r, w.scale)
	a.blur(t, &p, pairs, speeds, r)
	a.strobe(pairs, w)
	return a, nil
}

func set(all []int) map[int]bool {
	in := map[int]bool{}
	for _, i := range all {
		in[i] = true
	}
	return in
}

// clock returns the frame rate and the frames before which the clock jumps.
func clock(c *Clip, r Request) (fps float64, gaps []int, err error) {
	gaps = []int{}
	if len(r.Times) == 0 {
		switch {
		case r.FPS > 0:
			return r.FPS, gaps, nil
		case c.FPS > 0:
			return c.FPS, gaps, nil
		}
		return 0, nil, &problem.Fault{Field: "request.fps", Allowed: "frames a second: the file does not say"}
	}
	if len(r.Times) != len(c.Frames) {
		return 0, nil, &problem.Fault{Field: "request.times", Value: len(r.Times), Allowed: fmt.Sprintf("one for each of %d frames", len(c.Frames))}
	}
	var steps []float64
	for i := 1; i < len(r.Times); i++ {
		step := r.Times[i] - r.Times[i-1]
		if !(step > 0) {
			return 0, nil, &problem.Fault{Field: fmt.Sprintf("request.times[%d]", i), Value: r.Times[i], Allowed: "later than the frame before"}
		}
		steps = append(steps, step)
	}
	usual := median(steps)
	for i, step := range steps {
		if step > gapTimes*usual {
			gaps = append(gaps, i+1)
		}
	}
	if fps = r.FPS; fps == 0 {
		fps = 1 / usual
	}
	return fps, gaps, nil
}

// motion fills in how the content moved.
func (a *Answer) motion(pairs []pair, speeds []float64, scale, perDeg float64) {
	a.Motion.Pairs = []Move{}
	for i := range pairs {
		m := pairs[i].model
		a.Motion.Pairs = append(a.Motion.Pairs, Move{m.dx * scale, m.dy * scale, m.roll * 180 / math.Pi, m.zoom})
		if pairs[i].isTracked() {
			a.Motion.TrackedShare += 1 / float64(len(pairs))
		}
	}
	a.Motion.SpeedPx = median(speeds) * scale
	if perDeg > 0 {
		turn := angle.DegPerS(median(speeds) / perDeg * a.FPS)
		a.Motion.TurnDegS = &turn
	}
}

// shake fills in the movement that was not meant.
func (a *Answer) shake(p *path, perDeg float64) {
	switch {
	case perDeg == 0:
		a.Shake.Why = WhyView
	case p.at[len(p.at)-1]/a.FPS < shortestS:
		a.Shake.Why = WhyShort
	case a.Motion.TrackedShare < trackedLeast:
		a.Shake.Why = WhyTracking
	}
	if a.Shake.Why != "" {
		return
	}
	speeds, rates := p.shakeOf(a.FPS, perDeg)
	shake := angle.DegPerS(quantile(speeds, shakePart))
	a.Shake.DegS = &shake
	var left []float64
	for g := range shakeGroups {
		var rest []float64
		for i, v := range speeds {
			if i*shakeGroups/len(speeds) != g {
				rest = append(rest, v)
			}
		}
		left = append(left, quantile(rest, shakePart))
	}
	_, deviation := meanAndSpread(left)
	a.Shake.SE = deviation * math.Sqrt(shakeGroups-1)
	if hz, ok := strongest(rates, a.FPS); ok {
		a.Shake.PeakHz = &hz
	}
}

// strongest returns the frequency above 1 Hz at which the axes together turn most.
func strongest(rates [3][]float64, fps float64) (hz float64, ok bool) {
	n := len(rates[0])
	fft := fourier.NewFFT(n)
	window := hann(n)
	power := make([]float64, n/2+1)
	for _, axis := range rates {
		windowed := make([]float64, n)
		for i, v := range axis {
			windowed[i] = v * window[i]
		}
		for i, c := range fft.Coefficients(nil, windowed) {
			power[i] += real(c)*real(c) + imag(c)*imag(c)
		}
	}
	best := 0.0
	for i, v := range power {
		if at := float64(i) * fps / float64(n); at >= intendedHz && v > best {
			best, hz, ok = v, at, true
		}
	}
	return hz, ok
}

// flicker fills in light that beats.
func (a *Answer) flicker(s *sheet, r Request) {
	f := &a.Flicker
	if r.MainsHz > 0 {
		beat := math.Abs(math.Remainder(2*r.MainsHz, a.FPS))
		f.Expected = &beat
	}
	w := s.strongest(0)
	if w == nil {
		f.Why = WhyShort
		return
	}
	depth := w.swing(w.amplitude)
	beat := math.Abs(w.turn) * a.FPS / (2 * math.Pi)
	f.Floor = max(depthLeast, w.floor/2)
	none := 0.0
	switch {
	case !w.isFound() || w.bands < bandsFew && beat < beatLeastHz:
		f.Depth = &none
	case math.Abs(w.turn) < waveStands:
		f.Why = WhyStanding
	case depth < depthLeast:
		f.Depth = &none
	default:
		f.Depth, f.BeatHz, f.Bands = &depth, &beat, &w.bands
		f.PulseHz = a.folded(w, r.ReadoutS)
	}
}

// folded returns the frequency that makes so many bands while a frame is read, and that the frame
// rate folds to the turn of the wave; nil where the readout is not known.
func (a *Answer) folded(w *wave, readoutS float64) *float64 {
	if readoutS <= 0 {
		return nil
	}
	part := w.turn / (2 * math.Pi)
	hz := (math.Round(w.bands/readoutS/a.FPS-part) + part) * a.FPS
	return &hz
}

// wobble fills in a picture that bends.
func (a *Answer) wobble(s *sheet, r Request, scale float64) {
	o := &a.Wobble
	if a.Motion.TrackedShare < trackedLeast {
		o.Why = WhyTracking
		return
	}
	w := s.strongest(bandsOfWobble)
	if w == nil {
		o.Why = WhyShort
		return
	}
	o.Floor = w.floor * scale
	none := 0.0
	switch {
	case !w.isFound():
		o.Px = &none
	case math.Abs(w.turn) < waveStands:
		o.Why = WhyStanding
	default:
		px := 2 * w.swing(w.amplitude) * scale
		o.Px, o.Bands = &px, &w.bands
		o.Hz = a.folded(w, r.ReadoutS)
	}
}

// blur fills in the share of the shutter and what a stabiliser left.
func (a *Answer) blur(t *tracker, p *path, pairs []pair, speeds []float64, r Request) {
	faults := slices.Concat(a.Duplicates, a.Drops, a.Cuts)
	isNear := func(place int) bool {
		return slices.ContainsFunc(faults, func(f int) bool { return f-nearFault <= p.frames[place] && p.frames[place] <= f+nearFault })
	}
	seen := t.compared(p, a.Exposure.GainStops, isNear)
	if seen.cells() < ghostTexture*seen.blocks() {
		a.Ghost.Why = WhyTexture
	} else {
		a.ghost(seen.links(), len(p.places), speeds, t.scale)
	}
	s := &a.Shutter
	if r.ShutterS > 0 {
		expected := float64(r.ShutterS) * a.FPS
		s.Expected = &expected
	}
	if s.Why = a.noShare(t, pairs, speeds, seen.cells()); s.Why != "" {
		return
	}
	byPairs, coarse := pairsShare(seen, speeds)
	byNulls, _ := t.nullsShare(p, isNear)
	found := byPairs
	switch {
	case byPairs.ok && byNulls.ok && math.Abs(byPairs.share-byNulls.share) <= agreeErrors*math.Hypot(byPairs.se, byNulls.se):
		wp, wn := 1/(byPairs.se*byPairs.se), 1/(byNulls.se*byNulls.se)
		found = estimate{(wp*byPairs.share + wn*byNulls.share) / (wp + wn), 1 / math.Sqrt(wp+wn), true}
		s.By = ByBoth
	case byNulls.ok:
		found, s.By = byNulls, ByNulls
	case byPairs.ok:
		s.By = ByPairs
	default:
		s.Why = WhyMotion
		return
	}
	if found.se > max(uncertainLeast, uncertainShare*found.share) {
		s.By, s.Why = "", WhyMotion
		return
	}
	share, shutter := max(found.share, 0), stop.Shutter(max(found.share, 0)/a.FPS)
	turned := angle.Deg(360 * share)
	s.Share, s.SE, s.ShutterS, s.AngleDeg = &share, found.se, &shutter, &turned
	if s.By == ByPairs {
		isStarved := r.BitsPerFrame > 0 && r.BitsPerFrame < starvedBits*float64(t.w*t.h)
		s.AtLeast = isStarved || coarse > share+coarseMore
	}
}

// noShare says why the share of the shutter cannot be told, "" where it may be.
func (a *Answer) noShare(t *tracker, pairs []pair, speeds []float64, cells int) Why {
	var offs []float64
	for i := range pairs {
		for _, b := range pairs[i].blocks {
			if b.peak >= peakLeast {
				offs = append(offs, b.off)
			}
		}
	}
	switch {
	case a.Exposure.BlownShare > clippedMost || a.Exposure.CrushedShare > clippedMost:
		return WhyClipped
	case a.shakesRows(t.scale):
		return WhyVibration
	case a.Ghost.Stabilised:
		return WhyStabilised
	case a.Flicker.Depth != nil && *a.Flicker.Depth > 0:
		return WhyFlicker
	case median(speeds) < slowestPx:
		return WhyMotion
	case a.Motion.TrackedShare < trackedLeast || median(offs) > offMost:
		return WhyTracking
	case cells < texturePart*len(t.places)*len(pairs):
		return WhyTexture
	}
	return ""
}

// shakesRows reports whether the picture bends so much that its blur says nothing.
func (a *Answer) shakesRows(scale float64) bool {
	return a.Wobble.Px != nil && *a.Wobble.Px > wobbleShakes*scale
}

// ghost fills in blur that no movement explains.
func (a *Answer) ghost(links []link, places int, speeds []float64, scale float64) {
	g := &a.Ghost
	if a.Flicker.Depth != nil && *a.Flicker.Depth > 0 {
		g.Why = WhyFlicker
		return
	}
	if a.shakesRows(scale) {
		g.Why = WhyVibration
		return
	}
	if a.Motion.TrackedShare < trackedLeast {
		g.Why = WhyTracking
		return
	}
	blurs := ghostOf(links, places, 0, 1)
	if blurs == nil {
		g.Why = WhyTexture
		return
	}
	size := sizeOf(blurs)
	px := size * scale
	g.BlurPx = &px
	if size <= stabilisedPx || size <= stabilisedTimes*quantile(speeds, 0.9)+stabilisedPlus {
		return
	}
	even := ghostOf(links, places, 0)
	odd := ghostOf(links, places, 1)
	g.Stabilised = alike(even, odd) > stabilisedAlike
}

// strobe fills in how far things jump from frame to frame.
func (a *Answer) strobe(pairs []pair, w *work) {
	s := &a.Strobe
	if a.Motion.TrackedShare < trackedLeast {
		s.Why = WhyTracking
		return
	}
	var steps []float64
	for i := range pairs {
		var speeds []float64
		for _, b := range pairs[i].blocks {
			if b.isAgreed {
				speeds = append(speeds, math.Hypot(b.dx, b.dy)/pairs[i].steps)
			}
		}
		if len(speeds) >= strobeSecond {
			slices.Sort(speeds)
			steps = append(steps, speeds[len(speeds)-strobeSecond])
		}
	}
	a.Strobe = strobeOf(median(steps)*w.scale, a.WidthPx, a.Shutter.Share)
}

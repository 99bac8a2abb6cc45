package take

import "math"

// How two takes are laid over each other.
const (
	alignShare    = 0.3  // of the shorter one that has to overlap
	alignLeast    = 0.5  // correlation
	alignAhead    = 0.08 // over the next best that is not beside it
	alignBesideS  = 0.15 // seconds
	alignLongest  = 2400 // frames
	darkerLeast   = 0.05 // stops
	sdOfMedian    = 1.4826
	alikeFrames   = 25.0 // that err alike
	exposureWorth = 0.5  // of the exposure's correlation beside that of the movement
)

// Trace is what a take shows over time.
type Trace struct {
	FPS       float64   `json:"fps" minimum:"1" maximum:"1000"`
	Pairs     []Move    `json:"pairs" minItems:"1" maxItems:"2400" doc:"as take answers them"`
	MeanStops []float64 `json:"meanStops" minItems:"1" maxItems:"2401"`
}

// AlignRequest asks how two takes of one path lie over each other.
type AlignRequest struct {
	First  Trace `json:"first"`
	Second Trace `json:"second"`
}

// Alignment is how far the second take is behind.
type Alignment struct {
	OffsetS     *float64 `json:"offsetS" doc:"what happens in the first happens so many seconds later in the second; null where it cannot be told"`
	Correlation float64  `json:"correlation"`
	// DarkerStops is nil where they are not aligned.
	DarkerStops *float64 `json:"darkerStops" doc:"how much darker the second is where they lie over each other: what a filter took, where both were set alike"`
	SE          float64  `json:"se" doc:"of darkerStops"`
	Why         string   `json:"why,omitempty" enum:"short,alike,apart" doc:"too short; alike at several places; nothing in common"`
}

// Align finds the offset at which two takes move, and grow lighter, most alike. The second is
// brought to the frame rate of the first. What stands in neither is no reason against it: the
// movement is weighed by how much there is.
func Align(r AlignRequest) (*Alignment, error) {
	a, b := r.First.signals(r.First.FPS), r.Second.signals(r.First.FPS)
	shorter := min(len(a[0]), len(b[0]))
	least := max(FewestFrames, int(alignShare*float64(shorter)))
	if shorter < FewestFrames {
		return &Alignment{Why: "short"}, nil
	}
	from, to := least-len(a[0]), len(b[0])-least
	scores := make([]float64, to-from+1)
	best := 0
	for lag := from; lag <= to; lag++ {
		i := lag - from
		scores[i] = (alikeAt(a[0], b[0], lag) + alikeAt(a[1], b[1], lag) + exposureWorth*alikeAt(a[2], b[2], lag)) / (2 + exposureWorth)
		if scores[i] > scores[best] {
			best = i
		}
	}
	found := &Alignment{Correlation: scores[best]}
	next, beside := math.Inf(-1), int(alignBesideS*r.First.FPS)
	for i, s := range scores {
		if i < best-beside || i > best+beside {
			next = max(next, s)
		}
	}
	switch {
	case scores[best] < alignLeast:
		found.Why = "apart"
	case scores[best]-next < alignAhead:
		found.Why = "alike"
	default:
		at := float64(best + from)
		if best > 0 && best+1 < len(scores) {
			at += top(scores[best-1], scores[best], scores[best+1])
		}
		offset := at / r.First.FPS
		found.OffsetS = &offset
		darker, se := darkerBy(a[3], b[3], best+from)
		found.DarkerStops, found.SE = &darker, se
	}
	return found, nil
}

// darkerBy returns how much darker b is where it lies over a, and its error: the light of two
// takes is never quite the same.
func darkerBy(a, b []float64, lag int) (stops, se float64) {
	var offs, away []float64
	for i := max(0, -lag); i < min(len(a), len(b)-lag); i++ {
		offs = append(offs, a[i]-b[i+lag])
	}
	stops = median(offs)
	for _, v := range offs {
		away = append(away, math.Abs(v-stops))
	}
	return stops, math.Hypot(darkerLeast, sdOfMedian*median(away)/math.Sqrt(max(1, float64(len(offs))/alikeFrames)))
}

// signals returns movement across and down, the change of the light, and the light, at a frame
// rate.
func (t *Trace) signals(fps float64) [4][]float64 {
	n := min(len(t.Pairs), alignLongest)
	var all [4][]float64
	for i := range n {
		all[0] = append(all[0], t.Pairs[i].DxPx*t.FPS)
		all[1] = append(all[1], t.Pairs[i].DyPx*t.FPS)
		change := 0.0
		if i+1 < len(t.MeanStops) {
			change = t.MeanStops[i+1] - t.MeanStops[i]
		}
		all[2] = append(all[2], change)
		all[3] = append(all[3], t.MeanStops[min(i, len(t.MeanStops)-1)])
	}
	if t.FPS == fps {
		return all
	}
	for k, values := range all {
		resampled := make([]float64, int(float64(n-1)*fps/t.FPS)+1)
		for i := range resampled {
			at := float64(i) * t.FPS / fps
			j := min(int(at), n-1)
			part := at - float64(j)
			resampled[i] = values[j]*(1-part) + values[min(j+1, n-1)]*part
		}
		all[k] = resampled
	}
	return all
}

// alikeAt returns the correlation of a[i] with b[i + lag] where both are.
func alikeAt(a, b []float64, lag int) float64 {
	from, to := max(0, -lag), min(len(a), len(b)-lag)
	n := float64(to - from)
	var sa, sb, saa, sbb, sab float64
	for i := from; i < to; i++ {
		x, y := a[i], b[i+lag]
		sa, sb, saa, sbb, sab = sa+x, sb+y, saa+x*x, sbb+y*y, sab+x*y
	}
	va, vb := saa-sa*sa/n, sbb-sb*sb/n
	if va <= 1e-9 || vb <= 1e-9 {
		return 0
	}
	return (sab - sa*sb/n) / math.Sqrt(va*vb)
}

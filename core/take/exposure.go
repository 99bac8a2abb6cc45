package take

import "math"

// How exposure is read.
const (
	middleGrey      = 0.18
	gainLow         = 0.004 // places darker or brighter than these tell nothing of the exposure
	gainHigh        = 0.93
	gainStep        = 4 // px between places
	stepStops       = 0.1
	blownCode       = 252.0 / 255
	crushedCode     = 3.0 / 255
	leastGainPlaces = 40
)

// Exposure is how bright the frames came out, and what the camera changed by itself.
type Exposure struct {
	MeanStops    []float64 `json:"meanStops" doc:"of each frame, over middle grey"`
	BlownShare   float64   `json:"blownShare"`
	CrushedShare float64   `json:"crushedShare"`
	GainStops    []float64 `json:"gainStops" doc:"the camera's own changes since the first frame, the content left aside"`
	DriftStops   float64   `json:"driftStops" doc:"of these, from the lowest to the highest"`
	Steps        []Step    `json:"steps" doc:"changes of 0.1 stop or more from one frame to the next"`
}

// Step is a sudden change of the exposure.
type Step struct {
	Frame int     `json:"frame"`
	Stops float64 `json:"stops"`
}

// exposure reads how bright the frames are; what a repeat shows is what its frame showed.
func (t *tracker) exposure(pairs []pair) Exposure {
	e := Exposure{Steps: []Step{}, GainStops: make([]float64, len(t.frames))}
	pixels := float64(t.w * t.h)
	for i := range t.frames {
		sum := 0.0
		for k, v := range t.frames[i].encoded {
			sum += float64(t.frames[i].linear[k])
			if v >= blownCode {
				e.BlownShare++
			} else if v <= crushedCode {
				e.CrushedShare++
			}
		}
		e.MeanStops = append(e.MeanStops, math.Log2(max(sum/pixels, 1e-6)/middleGrey))
	}
	e.BlownShare /= pixels * float64(len(t.frames))
	e.CrushedShare /= pixels * float64(len(t.frames))
	gains := make([]float64, len(pairs))
	t.spread(len(pairs), func(t *tracker, i int) {
		if !pairs[i].isCut {
			gains[i] = gainOf(t.work, pairs[i])
		}
	})
	at, low, high := 0.0, 0.0, 0.0
	for k, p := range pairs {
		gain := gains[k]
		if math.Abs(gain) >= stepStops {
			e.Steps = append(e.Steps, Step{p.to, gain})
		}
		for i := p.from + 1; i < p.to; i++ {
			e.GainStops[i] = at
		}
		at += gain
		e.GainStops[p.to] = at
		low, high = min(low, at), max(high, at)
	}
	e.DriftStops = high - low
	return e
}

// gainOf returns how much brighter matched places became, in stops: the median.
func gainOf(w *work, p pair) float64 {
	var all []float64
	for y := 0; y < w.h; y += gainStep {
		for x := 0; x < w.w; x += gainStep {
			if before, after, ok := w.matchedLight(p, x, y); ok {
				all = append(all, math.Log2(after/before))
			}
		}
	}
	if len(all) < leastGainPlaces {
		return 0
	}
	return median(all)
}

// sample returns a picture between its pixels; ok is false outside.
func (w *work) sample(picture []float32, x, y float64) (v float64, ok bool) {
	x0, y0 := int(math.Floor(x)), int(math.Floor(y))
	if x0 < 0 || y0 < 0 || x0+1 >= w.w || y0+1 >= w.h {
		return 0, false
	}
	px, py := x-float64(x0), y-float64(y0)
	k := y0*w.w + x0
	up := float64(picture[k])*(1-px) + float64(picture[k+1])*px
	down := float64(picture[k+w.w])*(1-px) + float64(picture[k+w.w+1])*px
	return up*(1-py) + down*py, true
}

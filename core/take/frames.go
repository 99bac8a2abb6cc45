package take

import (
	"math"
	"slices"
)

// How frames are brought to the size that is worked on.
const (
	workWidth      = 320 // what is narrower is worked on as it is
	repeatOfMedian = 0.2
	repeatMost     = 0.6 / 255
)

// frame is one frame at the size that is worked on.
type frame struct {
	encoded []float32 // luma as it is encoded, 0 to 1
	linear  []float32 // light, 0 to 1
}

// work is a take at the size that is worked on.
type work struct {
	w, h   int
	scale  float64 // pixels of the original in one
	frames []frame
}

// decodeTable returns luma and linear light of each code (IEC 61966-2-1).
func decodeTable(isLimited bool) (encoded, linear [256]float64) {
	for code := range encoded {
		v := float64(code) / 255
		if isLimited {
			v = min(max((float64(code)-16)/219, 0), 1)
		}
		encoded[code] = v
		if v <= 0.04045 {
			linear[code] = v / 12.92
		} else {
			linear[code] = math.Pow((v+0.055)/1.055, 2.4)
		}
	}
	return encoded, linear
}

// reduced brings a clip to the size that is worked on, by the mean of what each pixel covers.
func reduced(c *Clip) *work {
	w := &work{w: min(c.Width, workWidth)}
	w.scale = float64(c.Width) / float64(w.w)
	w.h = int(math.Round(float64(c.Height) / w.scale))
	encoded, linear := decodeTable(c.IsLimited)
	columns, rows := shares(c.Width, w.w), shares(c.Height, w.h)
	w.frames = make([]frame, len(c.Frames))
	for i, luma := range c.Frames {
		f := frame{make([]float32, w.w*w.h), make([]float32, w.w*w.h)}
		if w.scale == 1 && w.h == c.Height {
			for k, code := range luma {
				f.encoded[k], f.linear[k] = float32(encoded[code]), float32(linear[code])
			}
		} else {
			for y := range w.h {
				for x := range w.w {
					var e, l float64
					for _, r := range rows[y] {
						for _, col := range columns[x] {
							share := r.share * col.share
							code := luma[r.at*c.Width+col.at]
							e, l = e+share*encoded[code], l+share*linear[code]
						}
					}
					f.encoded[y*w.w+x], f.linear[y*w.w+x] = float32(e), float32(l)
				}
			}
		}
		w.frames[i] = f
	}
	return w
}

// part is a pixel of the original with the share that it has in one that is worked on.
type part struct {
	at    int
	share float64
}

// shares returns what each of to pixels covers of from.
func shares(from, to int) [][]part {
	all := make([][]part, to)
	step := float64(from) / float64(to)
	for i := range all {
		low, high := float64(i)*step, float64(i+1)*step
		for at := int(low); at < from && float64(at) < high; at++ {
			covered := min(high, float64(at+1)) - max(low, float64(at))
			all[i] = append(all[i], part{at, covered / step})
		}
	}
	return all
}

// repeats returns the frames that show the one before once more.
func (w *work) repeats() []int {
	found := []int{}
	differs := make([]float64, len(w.frames))
	for i := 1; i < len(w.frames); i++ {
		for k, v := range w.frames[i].encoded {
			differs[i] += math.Abs(float64(v - w.frames[i-1].encoded[k]))
		}
		differs[i] /= float64(w.w * w.h)
	}
	usual := median(differs[1:])
	for i := 1; i < len(differs); i++ {
		if differs[i] < repeatOfMedian*usual && differs[i] < repeatMost {
			found = append(found, i)
		}
	}
	return found
}

// median returns the middle of some numbers, 0 of none.
func median(all []float64) float64 { return quantile(all, 0.5) }

// quantile returns the ⌈q·n⌉-th smallest, 0 of none.
func quantile(all []float64, q float64) float64 {
	if len(all) == 0 {
		return 0
	}
	sorted := slices.Sorted(slices.Values(all))
	return sorted[min(max(int(math.Ceil(q*float64(len(sorted))))-1, 0), len(sorted)-1)]
}

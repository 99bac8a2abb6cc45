package motion

import "math"

// sinc returns sin(πx)/(πx), 1 at 0. Exposure averages what swings f times a
// second by |sinc(f·t)|: the transform of a window of length t.
func sinc(x float64) float64 {
	if x == 0 {
		return 1
	}
	return math.Sin(math.Pi*x) / (math.Pi * x)
}

// Interval is a closed range of numbers.
type Interval struct{ From, To float64 }

// maxRanges is how many separate ranges sincWithin tells apart.
const maxRanges = 64

// sincWithin returns where |sinc(x)| ≤ most in [0, upTo], in order and apart.
//
// Around each whole k lies such a range; from 1/(π·most) on the envelope 1/(πx)
// stays below and all of the rest belongs to it. most is above 0. To bound the
// work, the ever narrower ranges after the first maxRanges are left out up to there.
func sincWithin(most, upTo float64) []Interval {
	if most >= 1 {
		return []Interval{{0, upTo}}
	}
	always := 1 / (math.Pi * most)
	var found []Interval
	for k := 1.0; k-1 < min(upTo, always) && k <= maxRanges; k++ {
		// On either side of the zero at k, |sinc| rises to the next peak.
		from, to := crossing(most, k, peak(k-1)), crossing(most, k, peak(k))
		switch n := len(found); {
		case from > upTo:
		case n > 0 && from <= found[n-1].To:
			found[n-1].To = to
		default:
			found = append(found, Interval{from, to})
		}
	}
	switch n := len(found); {
	case always > maxRanges && always < upTo:
		found = append(found, Interval{always, upTo})
	case n > 0 && (always < upTo || found[n-1].To > upTo):
		found[n-1].To = upTo
	}
	return found
}

// peaks are the places where |sinc| peaks between the zeros at k and k+1, where
// tan(πx) = πx; for k = 0 that is the top at 0.
var peaks = func() (at [maxRanges + 1]float64) {
	for k := 1; k < len(at); k++ {
		at[k] = findPeak(float64(k))
	}
	return at
}()

func peak(k float64) float64 {
	if k < float64(len(peaks)) {
		return peaks[int(k)]
	}
	return findPeak(k)
}

func findPeak(k float64) float64 {
	y := (k + 0.5) * math.Pi
	for range 8 { // contracts by more than 1/y² a round
		y = k*math.Pi + math.Atan(y)
	}
	return y / math.Pi
}

// crossing returns where |sinc| equals most between the zero at k and the peak
// beside it, or the peak itself where it stays below: the root of
// |sin πx| − most·πx by Newton's method, kept between the two by halving.
func crossing(most, zero, peak float64) float64 {
	if math.Abs(sinc(peak)) <= most {
		return peak
	}
	in, out := zero, peak
	// Near its zero at k the sine is π·|x − k|, which meets most·πx here.
	x := zero / (1 + math.Copysign(most, zero-peak))
	if (x-in)*(x-out) >= 0 {
		x = (in + out) / 2
	}
	for range 40 {
		sin, cos := math.Sincos(math.Pi * x)
		above := math.Abs(sin) - most*math.Pi*x
		if above <= 0 {
			in = x
		} else {
			out = x
		}
		next := x - above/(math.Pi*(math.Copysign(cos, sin*cos)-most))
		if (next-in)*(next-out) >= 0 {
			next = (in + out) / 2
		}
		if math.Abs(next-x) <= 1e-13*x {
			return next
		}
		x = next
	}
	return in
}

// largestSinc returns the largest |sinc| in [from, to], 0 ≤ from ≤ to: at either
// end, or at the first peak between them, because the peaks fall.
func largestSinc(from, to float64) float64 {
	largest := max(math.Abs(sinc(from)), math.Abs(sinc(to)))
	if p := peak(math.Floor(from)); p >= from && p <= to {
		largest = max(largest, math.Abs(sinc(p)))
	} else if p = peak(math.Floor(from) + 1); p <= to {
		largest = max(largest, math.Abs(sinc(p)))
	}
	return largest
}

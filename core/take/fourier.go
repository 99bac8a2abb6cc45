package take

import (
	"math"
	"math/cmplx"

	"gonum.org/v1/gonum/dsp/fourier"
)

// transform is the 2-D Fourier transform of real pictures of one size. Of a spectrum the half
// with positive frequencies across is held: column after column, each from top to bottom.
type transform struct {
	w, h    int
	rows    *fourier.FFT
	columns *fourier.CmplxFFT
	half    []complex128 // one row
	column  []complex128
	line    []float64
	surface []float64
	weight  []float64 // of phase correlation
	product []complex128
}

// correlationHz is how fine what is that phase correlation goes by, in cycles a pixel.
const correlationHz = 0.22

func newTransform(w, h int) *transform {
	t := &transform{
		w: w, h: h, rows: fourier.NewFFT(w), columns: fourier.NewCmplxFFT(h),
		half: make([]complex128, w/2+1), column: make([]complex128, h), line: make([]float64, w), surface: make([]float64, w*h),
		weight: make([]float64, (w/2+1)*h), product: make([]complex128, (w/2+1)*h),
	}
	for i := range t.weight {
		fx, fy := t.frequency(i)
		t.weight[i] = math.Exp(-(fx*fx + fy*fy) / (correlationHz * correlationHz))
	}
	return t
}

// frequency returns the frequency of a value of a spectrum, in cycles a pixel.
func (t *transform) frequency(i int) (fx, fy float64) {
	x, y := i/t.h, i%t.h
	if 2*y > t.h {
		y -= t.h
	}
	return float64(x) / float64(t.w), float64(y) / float64(t.h)
}

// forward returns the spectrum of a picture in dst.
func (t *transform) forward(dst []complex128, picture []float64) []complex128 {
	for y := range t.h {
		t.rows.Coefficients(t.half, picture[y*t.w:(y+1)*t.w])
		for x, c := range t.half {
			dst[x*t.h+y] = c
		}
	}
	for x := range len(t.half) {
		copy(t.column, dst[x*t.h:(x+1)*t.h])
		t.columns.Coefficients(dst[x*t.h:(x+1)*t.h], t.column)
	}
	return dst
}

// inverse leaves the picture of a spectrum in surface; the spectrum is lost.
func (t *transform) inverse(spectrum []complex128) {
	for x := range len(t.half) {
		copy(t.column, spectrum[x*t.h:(x+1)*t.h])
		t.columns.Sequence(spectrum[x*t.h:(x+1)*t.h], t.column)
	}
	for y := range t.h {
		for x := range t.half {
			t.half[x] = spectrum[x*t.h+y]
		}
		t.rows.Sequence(t.surface[y*t.w:(y+1)*t.w], t.half)
	}
}

// shift returns how far the content of a has moved in b, to the right and down, by phase
// correlation, and the height of its peak over what two equal pictures would have.
func (t *transform) shift(a, b []complex128) (dx, dy, peak float64) {
	full := 0.0
	for i, w := range t.weight {
		c := b[i] * cmplx.Conj(a[i])
		size := cmplx.Abs(c)
		if size == 0 {
			t.product[i] = 0
			continue
		}
		t.product[i] = c * complex(w/size, 0)
		if i < t.h {
			full += w
		} else {
			full += 2 * w
		}
	}
	if full == 0 {
		return 0, 0, 0
	}
	t.inverse(t.product)
	best := 0
	for i, v := range t.surface {
		if v > t.surface[best] {
			best = i
		}
	}
	x, y := best%t.w, best/t.w
	at := func(x, y int) float64 { return t.surface[(y+t.h)%t.h*t.w+(x+t.w)%t.w] }
	dx = wrapped(float64(x)+top(at(x-1, y), at(x, y), at(x+1, y)), t.w)
	dy = wrapped(float64(y)+top(at(x, y-1), at(x, y), at(x, y+1)), t.h)
	return dx, dy, t.surface[best] / full
}

// wrapped brings a shift to the nearer way around.
func wrapped(v float64, n int) float64 {
	if v > float64(n)/2 {
		return v - float64(n)
	}
	return v
}

// top returns where the top of a peak lies beside its middle value: that of the parabola through
// the logarithms, since a weighted correlation has the shape of a bell.
func top(l, m, r float64) float64 {
	if l > 0 && m > 0 && r > 0 {
		l, m, r = math.Log(l), math.Log(m), math.Log(r)
	}
	if d := l - 2*m + r; d < 0 {
		return min(max((l-r)/(2*d), -0.5), 0.5)
	}
	return 0
}

// hann returns the window of n samples that is zero beyond its ends.
func hann(n int) []float64 {
	w := make([]float64, n)
	for i := range w {
		s := math.Sin(math.Pi * (float64(i) + 0.5) / float64(n))
		w[i] = s * s
	}
	return w
}

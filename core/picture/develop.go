package picture

import (
	"image"
	"math"

	"pinhole/core/stop"
)

// shake blurs the film by what the camera shook while the shutter was open, in a
// direction of its own for every frame, and moves it where nothing shifts frames
// back.
func (l *Loop) shake(f *film, frame int, t stop.Shutter) {
	length := l.view.shakeBlurPx(t)
	if length < 0.25 {
		return
	}
	towards := 2.4 * float64(frame) // the golden angle, so that no two in a row agree
	f.smoothRows(newBox(length * math.Abs(math.Cos(towards))))
	out := l.film()
	f.smoothColumns(newBox(length*math.Abs(math.Sin(towards))), out)
	f.light, out.light = out.light, f.light
	l.films.Put(out)
}

// box is the mean over a stretch around the middle of a pixel: whole pixels to
// either side, of which the outermost count in part.
type box struct {
	whole        int
	less, weight float32
}

func newBox(length float64) box {
	half := (1 + length) / 2 // a pixel itself is one wide
	full := int(half - 0.5)  // pixels to either side that lie all within
	part := half - 0.5 - float64(full)
	return box{whole: full + 1, less: float32(1 - part), weight: float32(1 / (2 * half))}
}

// smoothRows replaces every pixel by the mean of a box along its row.
func (f *film) smoothRows(b box) {
	padded := make([]float32, 3*(f.width+2*b.whole+1))
	for y := range f.height {
		row := f.row(y)
		for x := range f.width + 2*b.whole + 1 {
			copy(padded[3*x:3*x+3], row[3*min(max(x-b.whole, 0), f.width-1):])
		}
		for k := range 3 {
			var sum float32
			for x := range 2*b.whole + 1 {
				sum += padded[3*x+k]
			}
			for x := range f.width {
				first, last := padded[3*x+k], padded[3*(x+2*b.whole)+k]
				row[3*x+k] = (sum - b.less*(first+last)) * b.weight
				sum += padded[3*(x+2*b.whole+1)+k] - first
			}
		}
	}
}

// smoothColumns writes to out the mean of a box along the column of every pixel, a row
// at a time.
func (f *film) smoothColumns(b box, out *film) {
	at := func(y int) []float32 { return f.row(min(max(y, 0), f.height-1)) }
	sum := make([]float32, 3*f.width)
	for y := -b.whole; y <= b.whole; y++ {
		for i, v := range at(y) {
			sum[i] += v
		}
	}
	for y := range f.height {
		first, last, next, into := at(y-b.whole), at(y+b.whole), at(y+b.whole+1), out.row(y)
		for i := range sum {
			into[i] = (sum[i] - b.less*(first[i]+last[i])) * b.weight
			sum[i] += next[i] - first[i]
		}
	}
}

// shotNoise is the noise of mid-grey at base ISO, as a share of it. It grows with
// the root of the light gathered: a stop of ISO is half the light.
const shotNoise = 0.012

// develop turns light into a picture: exposure, noise, clipping, encoding.
func (l *Loop) develop(f *film, frame int, e Exposure, dst *image.RGBA) {
	gain := float32(e.Error.Factor())
	noise := float32(shotNoise * math.Sqrt(e.Gain.Factor()*0.18))
	half := uint32(len(l.grain) / 2)
	for y := range f.height {
		out := dst.Pix[y*dst.Stride : y*dst.Stride+4*f.width]
		// A scrambled start for every row, so that no pattern shows (Knuth, TAOCP 6.4).
		grain := l.grain[(uint32(frame*f.height+y)*2654435761>>8)%half:]
		light := f.row(y)
		for x := range f.width {
			pixel, of := out[4*x:4*x+4:4*x+4], light[3*x:3*x+3:3*x+3]
			for k := range 3 {
				v := of[k] * gain
				pixel[k] = encoded(v + noise*root(v)*grain[(3*x+k)&(len(l.grain)/2-1)])
			}
			pixel[3] = 0xff
		}
	}
}

// root returns the square root of light, held above what the darkest noise needs.
func root(v float32) float32 { return float32(math.Sqrt(float64(max(v, 0.004)))) }

// screen holds the sRGB encoding of light from 0 to 1 in steps of 1/len.
var screen = func() (table [4096]uint8) {
	for i := range table {
		table[i] = uint8(math.Round(255 * encode((float64(i)+0.5)/float64(len(table)))))
	}
	return table
}()

// encode returns the sRGB code, 0 to 1, of linear light (IEC 61966-2-1).
func encode(v float64) float64 {
	if v <= 0.0031308 {
		return 12.92 * v
	}
	return 1.055*math.Pow(v, 1/2.4) - 0.055
}

func encoded(v float32) uint8 {
	i := int(v * float32(len(screen)))
	switch {
	case i <= 0:
		return screen[0]
	case i >= len(screen):
		return 0xff
	}
	return screen[i]
}

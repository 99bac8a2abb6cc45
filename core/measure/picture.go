package measure

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	_ "image/jpeg" // read by image.Decode
	_ "image/png"  // read by image.Decode
	"math"
	"strings"

	"pinhole/core/exif"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Limits of what is read.
const (
	MaxFileBytes = 64 << 20
	maxPixels    = 64_000_000
)

// File is a file as it came in.
type File struct {
	Name  string
	Bytes []byte
	// Pixels is what stands in it where somebody else has decoded it, for formats that are not
	// read here; its EXIF still comes from the bytes.
	Pixels *Pixels
}

// Pixels is a decoded picture, the way up it is shown.
type Pixels struct {
	Width, Height int
	RGBA          []byte // four bytes a pixel, row by row
}

// picture is a frame: its channels as they stand in the file, the way up it is shown.
type picture struct {
	format        string
	bits          int
	orientation   int
	width, height int
	rgb           []uint16 // three a pixel, row by row, from 0 to 65535
	exposure      *Exposure
	light         transfer
}

// Luminance of the primaries of sRGB (IEC 61966-2-1).
const lumaRed, lumaGreen, lumaBlue = 0.2126, 0.7152, 0.0722

// at returns the three values of a pixel.
func (p *picture) at(x, y int) []uint16 {
	i := 3 * (y*p.width + x)
	return p.rgb[i : i+3 : i+3]
}

// linear returns the light of a pixel's channels.
func (p *picture) linear(v []uint16) (r, g, b float64) {
	return float64(p.light.linear[v[0]]), float64(p.light.linear[v[1]]), float64(p.light.linear[v[2]])
}

// luminance returns the light of a pixel.
func (p *picture) luminance(v []uint16) float64 {
	r, g, b := p.linear(v)
	return lumaRed*r + lumaGreen*g + lumaBlue*b
}

// What counts as clipped at either end, in values of a channel.
const blownFrom, crushedTo = 252 * perCode, 3 * perCode

func isBlown(v []uint16) bool {
	return v[0] >= blownFrom || v[1] >= blownFrom || v[2] >= blownFrom
}

func isCrushed(v []uint16) bool {
	return v[0] <= crushedTo && v[1] <= crushedTo && v[2] <= crushedTo
}

// readPicture reads a PNG or JPEG; part is the option that it was given as.
func readPicture(part string, file File) (p *picture, err error) {
	fault := func(value, allowed string) error {
		return &problem.Fault{Field: part, Value: value, Allowed: allowed}
	}
	const allowed = "a PNG of 8 or 16 bits or a JPEG, whole"
	if d := file.Pixels; d != nil {
		if d.Width < 1 || d.Height < 1 || d.Width > maxPixels/d.Height || len(d.RGBA) != 4*d.Width*d.Height {
			return nil, fault(fmt.Sprintf("%s, %d × %d pixels", file.Name, d.Width, d.Height), "1 to 64 megapixels, four bytes each")
		}
		p = &picture{format: formatName(file.Bytes), bits: 8, orientation: 1, light: srgb, width: d.Width, height: d.Height}
		p.take(&image.NRGBA{Pix: d.RGBA, Stride: 4 * d.Width, Rect: image.Rect(0, 0, d.Width, d.Height)})
		p.exposure = exposureOf(exif.Read(file.Bytes))
		return p, nil
	}
	if len(file.Bytes) > MaxFileBytes {
		return nil, fault(fmt.Sprintf("%s, %d bytes", file.Name, len(file.Bytes)), fmt.Sprintf("at most %d bytes", MaxFileBytes))
	}
	head, format, err := image.DecodeConfig(bytes.NewReader(file.Bytes))
	if err != nil {
		return nil, fault(fmt.Sprintf("%s: %.120s", file.Name, err), allowed)
	}
	if head.Width < 1 || head.Height < 1 || head.Width > maxPixels/head.Height {
		return nil, fault(fmt.Sprintf("%s, %d × %d pixels", file.Name, head.Width, head.Height), "1 to 64 megapixels")
	}
	shown, _, err := image.Decode(bytes.NewReader(file.Bytes))
	if err != nil {
		return nil, fault(fmt.Sprintf("%s: %.120s", file.Name, err), allowed)
	}
	p = &picture{format: format, bits: 8, orientation: 1, light: srgb, width: head.Width, height: head.Height}
	if !p.take(shown) {
		return nil, fault(fmt.Sprintf("%s, colours of %T", file.Name, shown), allowed+", grey or in colour")
	}
	said := exif.Read(file.Bytes)
	p.turn(said.Orientation)
	p.exposure = exposureOf(said)
	return p, nil
}

// formatName names the format of a file that was decoded elsewhere.
func formatName(file []byte) string {
	if f, ok := exif.FormatOf(file); ok {
		return strings.ToLower(f.String())
	}
	return "pixels"
}

// take takes the channels of a decoded picture, without its alpha; not of inks.
func (p *picture) take(shown image.Image) bool {
	p.rgb = make([]uint16, 3*p.width*p.height)
	least := shown.Bounds().Min
	grey := func(i int, v uint16) { p.rgb[i], p.rgb[i+1], p.rgb[i+2] = v, v, v }
	each := func(set func(i, x, y int)) {
		for y := range p.height {
			for x := range p.width {
				set(3*(y*p.width+x), least.X+x, least.Y+y)
			}
		}
	}
	switch m := shown.(type) {
	case *image.YCbCr:
		columns := make([]int, p.width) // where the chroma of each stands in its row
		for x := range columns {
			columns[x] = m.COffset(least.X+x, least.Y) - m.COffset(least.X, least.Y)
		}
		for y := range p.height { // of every camera: without a call for each pixel
			out := p.rgb[3*y*p.width : 3*(y+1)*p.width]
			luma := m.Y[m.YOffset(least.X, least.Y+y):]
			chroma := m.COffset(least.X, least.Y+y)
			cb, cr := m.Cb[chroma:], m.Cr[chroma:]
			for x, column := range columns {
				out[3*x], out[3*x+1], out[3*x+2] = channels(luma[x], cb[column], cr[column])
			}
		}
	case *image.Gray:
		each(func(i, x, y int) { grey(i, uint16(m.GrayAt(x, y).Y)*perCode) })
	case *image.Gray16:
		p.bits = 16
		each(func(i, x, y int) { grey(i, m.Gray16At(x, y).Y) })
	case *image.RGBA: // of PNG without alpha
		each(func(i, x, y int) {
			c := m.RGBAAt(x, y)
			p.rgb[i], p.rgb[i+1], p.rgb[i+2] = uint16(c.R)*perCode, uint16(c.G)*perCode, uint16(c.B)*perCode
		})
	case *image.NRGBA:
		each(func(i, x, y int) {
			c := m.Pix[m.PixOffset(x, y):]
			p.rgb[i], p.rgb[i+1], p.rgb[i+2] = uint16(c[0])*perCode, uint16(c[1])*perCode, uint16(c[2])*perCode
		})
	case *image.RGBA64:
		p.bits = 16
		each(func(i, x, y int) {
			c := m.RGBA64At(x, y)
			p.rgb[i], p.rgb[i+1], p.rgb[i+2] = c.R, c.G, c.B
		})
	case *image.NRGBA64:
		p.bits = 16
		each(func(i, x, y int) {
			c := m.NRGBA64At(x, y)
			p.rgb[i], p.rgb[i+1], p.rgb[i+2] = c.R, c.G, c.B
		})
	case *image.Paletted:
		each(func(i, x, y int) {
			c := color.NRGBAModel.Convert(m.At(x, y)).(color.NRGBA)
			p.rgb[i], p.rgb[i+1], p.rgb[i+2] = uint16(c.R)*perCode, uint16(c.G)*perCode, uint16(c.B)*perCode
		})
	default:
		return false
	}
	return true
}

// channels returns red, green and blue of a pixel of a JPEG (JFIF 1.02, after ITU-R BT.601).
// They are not rounded to whole codes: on an even surface that moves a channel's mean by up to
// half a code, which a cast of a hundredth of a stop is less than.
func channels(y, cb, cr uint8) (r, g, b uint16) {
	luma, blue, red := perCode*float64(y), perCode*(float64(cb)-128), perCode*(float64(cr)-128)
	value := func(v float64) uint16 { return uint16(min(max(v+0.5, 0), math.MaxUint16)) }
	return value(luma + 1.402*red), value(luma - 0.344136*blue - 0.714136*red), value(luma + 1.772*blue)
}

// turn brings the picture the way up that its EXIF says (Exif 2.32, tag 0x0112).
func (p *picture) turn(orientation int) {
	if orientation < 2 || orientation > 8 {
		return
	}
	p.orientation = orientation
	w, h := p.width, p.height
	if orientation >= 5 {
		p.width, p.height = h, w
	}
	// from returns where the pixel that is shown at x, y lies in the file.
	from := func(x, y int) (int, int) {
		switch orientation {
		case 2:
			return w - 1 - x, y
		case 3:
			return w - 1 - x, h - 1 - y
		case 4:
			return x, h - 1 - y
		case 5:
			return y, x
		case 6:
			return y, h - 1 - x
		case 7:
			return w - 1 - y, h - 1 - x
		}
		return w - 1 - y, x
	}
	turned := make([]uint16, len(p.rgb))
	for y := range p.height {
		for x := range p.width {
			fx, fy := from(x, y)
			copy(turned[3*(y*p.width+x):], p.rgb[3*(fy*w+fx):3*(fy*w+fx)+3])
		}
	}
	p.rgb = turned
}

// area is a part of a picture, its upper ends not in it.
type area struct{ x0, y0, x1, y1 int }

func (a area) pixels() int { return (a.x1 - a.x0) * (a.y1 - a.y0) }

func (p *picture) whole() area { return area{0, 0, p.width, p.height} }

// middle returns the middle half both ways.
func (p *picture) middle() area {
	return area{p.width / 4, p.height / 4, 3 * p.width / 4, 3 * p.height / 4}
}

// blocks parts an area into n by m; each takes one of them.
func (a area) blocks(n, m int, each func(i, j int, block area)) {
	cut := func(i, n, from, to int) int { return from + i*(to-from)/n }
	for j := range m {
		for i := range n {
			each(i, j, area{cut(i, n, a.x0, a.x1), cut(j, m, a.y0, a.y1), cut(i+1, n, a.x0, a.x1), cut(j+1, m, a.y0, a.y1)})
		}
	}
}

// means are what the pixels of an area come to.
type means struct {
	red, green, blue, luminance float64
	blown, crushed, unknown     float64 // shares of the pixels
}

// mean returns the means over an area that is not empty; what a curve does not know is left
// out of them.
func (p *picture) mean(a area) means {
	var m means
	known := 0.0
	for y := a.y0; y < a.y1; y++ {
		for x := a.x0; x < a.x1; x++ {
			v := p.at(x, y)
			if isBlown(v) {
				m.blown++
			}
			if isCrushed(v) {
				m.crushed++
			}
			r, g, b := p.linear(v)
			if math.IsNaN(r + g + b) {
				m.unknown++
				continue
			}
			known++
			m.red, m.green, m.blue = m.red+r, m.green+g, m.blue+b
		}
	}
	all := float64(max(1, a.pixels()))
	m.blown, m.crushed, m.unknown = m.blown/all, m.crushed/all, m.unknown/all
	known = max(known, 1)
	m.red, m.green, m.blue = m.red/known, m.green/known, m.blue/known
	m.luminance = lumaRed*m.red + lumaGreen*m.green + lumaBlue*m.blue
	return m
}

// meanLuminance returns the mean of the light over an area, of the pixels that a curve knows.
func (p *picture) meanLuminance(a area) float64 {
	sum, known := 0.0, 0
	for y := a.y0; y < a.y1; y++ {
		for x := a.x0; x < a.x1; x++ {
			if l := p.luminance(p.at(x, y)); !math.IsNaN(l) {
				sum += l
				known++
			}
		}
	}
	return sum / float64(max(known, 1))
}

// Exposure is how a frame was exposed.
type Exposure struct {
	ShutterS stop.Shutter `json:"shutterS"`
	ISO      stop.ISO     `json:"iso"`
	Aperture stop.FNumber `json:"aperture,omitempty"`
}

// exposureOf returns what EXIF says of the exposure, nil where it says too little.
func exposureOf(said exif.Tags) *Exposure {
	if said.ShutterS == 0 && said.ISO == 0 && said.Aperture == 0 {
		return nil
	}
	return &Exposure{said.ShutterS, said.ISO, said.Aperture}
}

package fit

import (
	"cmp"
	"fmt"
	"slices"

	"pinhole/core/stop"
)

// Mount says how a filter is held.
type Mount string

// The mounts.
const (
	PushOn   Mount = "push-on"
	Snap     Mount = "snap"
	Twist    Mount = "twist"
	Magnet   Mount = "magnet"
	Adhesive Mount = "adhesive"
	Clip     Mount = "clip"
	Thread   Mount = "thread"
)

// Values returns every Mount there is.
func (Mount) Values() []Mount {
	return []Mount{PushOn, Snap, Twist, Magnet, Adhesive, Clip, Thread}
}

// SeatsByClearance reports whether tenths of a millimetre decide if the filter
// seats. Other mounts are judged by their pull-off alone.
func (m Mount) SeatsByClearance() bool { return m == PushOn || m == Snap }

// Layers returns how many loose layers a mount takes unless its owner says otherwise:
// two where a layer pulls, screws or clips itself on the one below, one where it has
// only the barrel to sit on. A mount that is not known takes two.
func (m Mount) Layers() int {
	switch m {
	case PushOn, Snap, Twist, Adhesive:
		return 1
	}
	return 2
}

// Range is a closed range of millimetres, Min ≤ Max.
type Range struct{ Min, Max float64 }

// Width returns Max − Min.
func (r Range) Width() float64 { return r.Max - r.Min }

// Middle returns the value halfway.
func (r Range) Middle() float64 { return (r.Min + r.Max) / 2 }

// Class says how a ring sits on a barrel.
type Class string

// The classes, from the tightest.
const (
	TooTight Class = "too tight"
	Tight    Class = "tight"
	Snug     Class = "snug"
	Loose    Class = "loose"
	FallsOff Class = "falls off"
)

// Values returns every Class there is.
func (Class) Values() []Class {
	return []Class{TooTight, Tight, Snug, Loose, FallsOff}
}

// classes lists the classes from the tightest, with the clearance in millimetres
// at which each ends, and how bad it is: 0 is what is wanted.
var classes = []struct {
	class   Class
	ends    float64
	endsIn  bool // the end belongs to the class
	badness int
}{
	{TooTight, -0.15, false, 3},
	{Tight, -0.05, false, 1},
	{Snug, 0.08, true, 0},
	{Loose, 0.20, true, 2},
	{FallsOff, 0, false, 4}, // no end
}

// ClassOf returns the class of a clearance in millimetres.
func ClassOf(clearanceMm float64) Class { return classes[classIndex(clearanceMm)].class }

func classIndex(c float64) int {
	last := len(classes) - 1
	for i, k := range classes[:last] {
		if c < k.ends-stop.Tolerance || k.endsIn && stop.AtMost(c, k.ends) {
			return i
		}
	}
	return last
}

// Band is a class and the clearance at which it ends, nil where it has no end.
type Band struct {
	Class  Class
	EndsMm *float64
}

// Bands returns the classes from the tightest, counted from a reference clearance.
func Bands(referenceMm float64) []Band {
	bands := make([]Band, len(classes))
	for i, k := range classes {
		bands[i].Class = k.class
		if i < len(classes)-1 {
			ends := k.ends + referenceMm
			bands[i].EndsMm = &ends
		}
	}
	return bands
}

// DefaultGaugeMm is how far a caliper may be off, either way.
const DefaultGaugeMm = 0.02

// Rings are the measured diameters of a barrel and of the filter that is to go
// on it.
type Rings struct {
	Barrel, Filter Range
	// GaugeMm is how far each measurement may be off, either way, at least 0.
	GaugeMm float64
	// ReferenceMm is the clearance, measured likewise, of a filter known to hold
	// well: the classes are counted from there.
	ReferenceMm float64
}

// Clearance returns the range in which filter diameter − barrel diameter lies, the
// worst case both ways.
func (r Rings) Clearance() Range {
	off := 2 * r.GaugeMm
	return Range{Min: r.Filter.Min - r.Barrel.Max - off, Max: r.Filter.Max - r.Barrel.Min + off}
}

// counted returns the clearance as the classes count it, from the reference.
func (r Rings) counted() Range {
	c := r.Clearance()
	return Range{Min: c.Min - r.ReferenceMm, Max: c.Max - r.ReferenceMm}
}

// Likely returns the class of the middle of the clearance.
func (r Rings) Likely() Class { return ClassOf(r.counted().Middle()) }

// Worst returns the worst class in the range of the clearance: from snug by way
// of tight, loose and too tight to falls off.
func (r Rings) Worst() Class {
	c := r.counted()
	worst := classes[classIndex(c.Min)]
	for _, k := range classes[classIndex(c.Min) : classIndex(c.Max)+1] {
		if k.badness > worst.badness {
			worst = k
		}
	}
	return worst.class
}

// Settle returns which measurement would narrow the clearance most, in a
// sentence, and "" where the classes in the range agree.
func (r Rings) Settle() string {
	c := r.counted()
	if ClassOf(c.Min) == ClassOf(c.Max) {
		return ""
	}
	most := slices.MaxFunc([]doubt{
		{r.Barrel.Width(), "measure the barrel again where it is widest and narrowest"},
		{r.Filter.Width(), "measure the filter's ring again where it is widest and narrowest"},
		{4 * r.GaugeMm, "measure both with a finer gauge"}, // both may be off, both ways
	}, func(a, b doubt) int { return cmp.Compare(a.widthMm, b.widthMm) })
	return fmt.Sprintf("%s: most of the doubt, %.2f mm, is there; or try it on by hand", most.measure, most.widthMm)
}

// doubt is how much of a clearance's range one measurement could take away.
type doubt struct {
	widthMm float64
	measure string
}

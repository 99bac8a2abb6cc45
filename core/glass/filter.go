package glass

import (
	"pinhole/core/stop"
	"slices"
)

// Filter is one piece of glass as choosing sees it. The zero value of every
// field but ID, Kind and Stops is the ordinary case.
type Filter struct {
	ID   string
	Kind Kind
	// Stops is what the filter takes away: measured where Measured is set, else
	// as printed. It is the total of a hybrid, the least of a variable filter and
	// nothing for a graduated one, which leaves half the picture alone.
	Stops stop.Stops
	// Most is the darkest setting of a variable filter, at least Stops.
	Most stop.Stops
	// Ring is what was measured at the marks of a variable filter, if anything was.
	Ring     Ring
	Measured bool
	// Learned says that the measured value is what a log teaches.
	Learned bool
	// StdErr is the standard error of a measured value; 0 is unknown.
	StdErr stop.Stops
	// Corner is how much darker the corners come out, at least 0.
	Corner stop.Stops
	// Cast is the colour cast, red against blue, with its direction.
	Cast    stop.Stops
	WeightG float64
	// Unfit glass does not go on this camera and is never offered.
	Unfit bool
	// NeedsBase glass cannot sit on the camera itself, only on other glass.
	NeedsBase bool
	// Closed glass has no thread or rim for another layer on top.
	Closed bool
}

// spread returns how far the filter's stops may stray from the number given.
func (f *Filter) spread() stop.Stops {
	if f.Measured {
		return f.StdErr
	}
	return f.Kind.Spread()
}

// IDs returns the ids of filters, in their order.
func IDs(filters []*Filter) []string {
	out := make([]string, len(filters))
	for i, f := range filters {
		out[i] = f.ID
	}
	return out
}

// SameIDs reports whether two lists name the same filters, in any order.
func SameIDs(a, b []string) bool {
	return len(a) == len(b) && !slices.ContainsFunc(a, func(id string) bool { return !slices.Contains(b, id) })
}

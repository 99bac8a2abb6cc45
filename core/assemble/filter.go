package assemble

import (
	"cmp"
	"fmt"

	"pinhole/core/angle"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// KitFilter is a filter as a request states it.
type KitFilter struct {
	ID             string       `json:"id" minLength:"1" maxLength:"100"`
	Stops          stop.Stops   `json:"stops" minimum:"0" maximum:"40" doc:"as printed: the total of a hybrid, the least of a variable, 0 for a graduated filter"`
	Kind           glass.Kind   `json:"kind"`
	MinStops       *stop.Stops  `json:"minStops,omitempty" minimum:"0" maximum:"40" doc:"variable: the lightest setting"`
	MaxStops       *stop.Stops  `json:"maxStops,omitempty" minimum:"0" maximum:"40" doc:"variable: the darkest setting"`
	MeasuredStops  *stop.Stops  `json:"measuredStops,omitempty" minimum:"-1" maximum:"40" doc:"replaces stops"`
	StdErrStops    stop.Stops   `json:"stdErrStops,omitempty" minimum:"0" maximum:"10" doc:"standard error of measuredStops"`
	Learned        bool         `json:"learned,omitempty" doc:"measuredStops is what a log teaches"`
	GraduatedStops stop.Stops   `json:"graduatedStops,omitempty" minimum:"0" maximum:"40" doc:"graduated: of its dark half"`
	CornerStops    stop.Stops   `json:"cornerStops,omitempty" minimum:"0" maximum:"20" doc:"how much darker the corners come out"`
	CastStops      stop.Stops   `json:"castStops,omitempty" minimum:"-5" maximum:"5" doc:"colour cast, positive towards red"`
	WeightG        float64      `json:"weightG,omitempty" minimum:"0" maximum:"10000" doc:"grams"`
	Ring           []RingMark   `json:"ring,omitempty" maxItems:"30" doc:"variable: marks on its ring and what was measured there; replaces minStops and maxStops"`
	TiltUpDeg      *angle.Deg   `json:"tiltUpDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far the camera still tilts up with it on, degrees"`
	Standing       fit.Standing `json:"standing,omitempty" doc:"how it stands on the rig in use; left out, that is not judged"`
	Fits           *bool        `json:"fits,omitempty" doc:"false removes the filter; true by default"`
	Base           *bool        `json:"base,omitempty" doc:"false: cannot sit on the camera itself; true by default"`
	TakesLayer     *bool        `json:"takesLayer,omitempty" doc:"false: nothing goes on it; true by default"`
}

// sameStrength is how near two printed strengths are that are one.
const sameStrength = stop.Stops(0.05)

// IsLike reports whether two filters are of a kind and printed with one strength.
func (k *KitFilter) IsLike(other *KitFilter) bool {
	isSame := func(a, b stop.Stops) bool { return (a - b).Abs() < sameStrength }
	most := func(k *KitFilter) stop.Stops {
		if k.MaxStops == nil {
			return k.Stops
		}
		return *k.MaxStops
	}
	return k.Kind == other.Kind && isSame(k.Stops, other.Stops) && isSame(most(k), most(other)) && isSame(k.GraduatedStops, other.GraduatedStops)
}

// RingMark is a position on the ring of a variable filter.
type RingMark struct {
	Mark  string     `json:"mark" minLength:"1" maxLength:"20" doc:"as it stands on the ring"`
	Stops stop.Stops `json:"stops" minimum:"0" maximum:"40" doc:"measured there"`
}

// CheckRing returns the fault of marks that make no ring; path is where they stand.
func CheckRing(path string, marks []RingMark) (glass.Ring, error) {
	all := make([]glass.RingMark, len(marks))
	for i, m := range marks {
		all[i] = glass.RingMark(m)
	}
	ring, ok := glass.NewRing(all)
	if !ok {
		return nil, &problem.Fault{Field: path, Value: marks, Allowed: "two marks at least, each with other stops"}
	}
	return ring, nil
}

// HalfStops returns the stops of a graduated filter's dark half: as printed.
func (k *KitFilter) HalfStops() stop.Stops {
	if k.MeasuredStops != nil {
		return *k.MeasuredStops
	}
	return cmp.Or(k.GraduatedStops, k.Stops)
}

// Takes returns what the filter takes as it is counted: measured before printed, nothing
// of a graduated one, a variable one at its lightest.
func (k *KitFilter) Takes() (stop.Stops, error) {
	f, err := k.filter("")
	return f.Stops, err
}

// IsFalse reports whether b is there and false.
func IsFalse(b *bool) bool { return b != nil && !*b }

func (k *KitFilter) filter(path string) (glass.Filter, error) {
	f := glass.Filter{
		ID: k.ID, Kind: k.Kind, Stops: k.Stops, Corner: k.CornerStops, Cast: k.CastStops, WeightG: k.WeightG,
		Unfit: IsFalse(k.Fits), NeedsBase: IsFalse(k.Base), Closed: IsFalse(k.TakesLayer),
	}
	if k.Kind != glass.Variable {
		if k.MeasuredStops != nil {
			f.Stops, f.Measured, f.StdErr, f.Learned = *k.MeasuredStops, true, k.StdErrStops, k.Learned
		}
		if k.Kind == glass.Graduated {
			f.Stops = 0
		}
		return f, nil
	}
	ring, err := CheckRing(path+".ring", k.Ring)
	if err != nil {
		return f, err
	}
	if f.Ring = ring; len(ring) > 0 {
		f.Stops, f.Most = ring[0].Stops, ring[len(ring)-1].Stops
		return f, nil
	}
	switch {
	case k.MeasuredStops != nil:
		return f, &problem.Fault{Field: path + ".measuredStops", Value: *k.MeasuredStops, Allowed: "nothing for a variable filter, which is described by minStops and maxStops"}
	case k.MinStops == nil || k.MaxStops == nil:
		return f, &problem.Fault{Field: path + ".maxStops", Allowed: "a variable filter needs minStops and maxStops"}
	case *k.MinStops > *k.MaxStops:
		return f, &problem.Fault{Field: path + ".maxStops", Value: *k.MaxStops, Allowed: fmt.Sprintf("at least minStops, %v", float64(*k.MinStops))}
	}
	f.Stops, f.Most = *k.MinStops, *k.MaxStops
	return f, nil
}

func Filters(kit []KitFilter) ([]glass.Filter, error) {
	all := make([]glass.Filter, len(kit))
	seen := make(map[string]bool, len(kit))
	for i := range kit {
		path := fmt.Sprintf("kit[%d]", i)
		f, err := kit[i].filter(path)
		if err != nil {
			return nil, err
		}
		if seen[f.ID] {
			return nil, &problem.Fault{Field: path + ".id", Value: f.ID, Allowed: "an id that no other filter has"}
		}
		seen[f.ID], all[i] = true, f
	}
	return all, nil
}

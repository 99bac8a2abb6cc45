package fit

import "time"

// TriedRing is a trial of a filter on a rig, as far as it can say what clearance holds well.
type TriedRing struct {
	RigID, FilterID string
	At              time.Time
	Seated          bool
	Wobbles         *bool // nil was not looked at
	Stale           bool  // something happened to the filter since
	// Barrel is that of the rig it was tried on, Seat the filter's; nil for not measured.
	Barrel, Seat *Range
}

// Reference is a clearance that is known to hold well, by a filter that does.
type Reference struct {
	FilterID, RigID string
	ClearanceMm     float64
}

// ReferenceFor returns the clearance of the filter that was last tried, seated and without a
// wobble, on a rig or else on another rig of the same camera and mount: what holds well on
// one barrel of a camera holds well on its other, by its own measures. The filter that is
// judged says nothing of itself. trials are the newest first, of those rigs alone; nil where
// none tells.
func ReferenceFor(rigID, except string, trials []TriedRing) *Reference {
	newest := map[[2]string]bool{}
	var elsewhere *Reference
	for _, t := range trials {
		pair := [2]string{t.RigID, t.FilterID}
		if newest[pair] { // tried again since
			continue
		}
		newest[pair] = true
		if t.FilterID == except || !t.Seated || t.Wobbles == nil || *t.Wobbles || t.Stale || t.Barrel == nil || t.Seat == nil {
			continue
		}
		found := &Reference{t.FilterID, t.RigID, t.Seat.Middle() - t.Barrel.Middle()}
		if t.RigID == rigID {
			return found
		}
		if elsewhere == nil {
			elsewhere = found
		}
	}
	return elsewhere
}

package desk

import (
	"context"
	"slices"

	"pinhole/internal/store"
)

// FitState is what is known of a filter on a camera. What is unknown is no good
// news.
type FitState string

// The states of fit.
const (
	FitHolds   FitState = "holds"   // tried, and nothing against it
	FitTight   FitState = "tight"   // goes on, with something against it
	FitBreaks  FitState = "breaks"  // tried, and does not go
	FitUnknown FitState = "unknown" // its owner says it goes on, and it was never tried
	FitNone    FitState = "none"    // nobody says it goes on
)

// FitCell is one filter on one camera.
type FitCell struct {
	CameraID string   `json:"cameraId"`
	FilterID string   `json:"filterId"`
	State    FitState `json:"state" enum:"holds,tight,breaks,unknown,none"`
	Because  string   `json:"because"`
	// Trials are the evidence, the newest first.
	Trials []store.Trial `json:"trials"`
}

// Fits returns what is known of every filter on every camera.
func (d *Desk) Fits(ctx context.Context) ([]FitCell, error) {
	cameras, filters, err := d.gear(ctx)
	if err != nil {
		return nil, err
	}
	trials, err := d.Store.Trials().List(ctx)
	if err != nil {
		return nil, err
	}
	cells := []FitCell{}
	for _, f := range filters {
		for _, c := range cameras {
			cells = append(cells, fitOf(f, c.ID, trials))
		}
	}
	return cells, nil
}

// fitOf judges a filter on a camera by the newest trial there is.
func fitOf(f store.Filter, cameraID string, trials []store.Trial) FitCell {
	cell := FitCell{CameraID: cameraID, FilterID: f.ID, Trials: []store.Trial{}}
	for _, t := range trials {
		if t.CameraID == cameraID && t.FilterID == f.ID {
			cell.Trials = append(cell.Trials, t)
		}
	}
	slices.SortStableFunc(cell.Trials, func(a, b store.Trial) int { return b.TriedAt.Compare(a.TriedAt) })
	switch {
	case len(cell.Trials) > 0:
		cell.State, cell.Because = judged(cell.Trials[0].Found)
	case slices.Contains(f.Cameras, cameraID):
		cell.State, cell.Because = FitUnknown, "said to go on, and never tried"
	default:
		cell.State, cell.Because = FitNone, "nobody says it goes on"
	}
	return cell
}

// judged says what a trial comes to, and why.
func judged(f store.Found) (FitState, string) {
	is := func(b *bool, want bool) bool { return b != nil && *b == want }
	switch {
	case !f.Seated:
		return FitBreaks, "tried, and it does not seat"
	case is(f.SelfTest, false):
		return FitBreaks, "the gimbal fails its self-test with it on"
	case is(f.Wobbles, true):
		return FitTight, "it wobbles: tether it, or leave it off in flight"
	case is(f.DarkCorners, true):
		return FitTight, "it darkens the corners at the widest"
	case is(f.MarksLeft, true):
		return FitTight, "it leaves marks"
	case is(f.Folds, false):
		return FitTight, "the camera does not fold with it on"
	}
	return FitHolds, "tried, and nothing against it"
}

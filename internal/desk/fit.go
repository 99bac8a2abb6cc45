package desk

import (
	"context"
	"fmt"
	"slices"
	"time"

	"pinhole/core/fit"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/internal/store"
)

// FitCell is one filter on one rig.
type FitCell struct {
	RigID    string       `json:"rigId"`
	FilterID string       `json:"filterId"`
	Standing fit.Standing `json:"standing" enum:"tried,computed,tight,loose,does not go,unknown"`
	Because  []string     `json:"because" doc:"what decides first"`
	// Offered is whether a shot may use it: not what does not go, nor what nobody
	// says goes on and no measure speaks for.
	Offered bool `json:"offered"`
	Claimed bool `json:"claimed" doc:"its owner says it goes on this camera"`
}

// Seat is everything known of a filter, or a stack, on a rig.
type Seat struct {
	FitCell
	Answer    fit.SeatAnswer  `json:"answer"`
	Asked     fit.SeatRequest `json:"asked" doc:"what the answer was computed from"`
	Reference string          `json:"reference,omitempty" doc:"the filter whose clearance is known to hold well"`
	Trials    []store.Trial   `json:"trials" doc:"of the first filter on this rig, the newest first"`
}

// shelf is the kit as it is read for judging fit.
type shelf struct {
	cameras map[string]store.Camera
	rigs    []store.Rig
	filters []store.Filter
	trials  []store.Trial
}

func (d *Desk) shelf(ctx context.Context) (*shelf, error) {
	cameras, filters, err := d.gear(ctx)
	if err != nil {
		return nil, err
	}
	s := &shelf{cameras: map[string]store.Camera{}, filters: filters}
	for _, c := range cameras {
		s.cameras[c.ID] = c
	}
	all, err := d.Store.Rigs().List(ctx)
	if err != nil {
		return nil, err
	}
	for _, r := range all {
		if _, isThere := s.cameras[r.CameraID]; isThere {
			s.rigs = append(s.rigs, r)
		}
	}
	s.trials, err = d.Store.Trials().List(ctx)
	slices.SortStableFunc(s.trials, func(a, b store.Trial) int { return b.TriedAt.Compare(a.TriedAt) })
	return s, err
}

// Rigs returns the ways in which the cameras that are there are held.
func (d *Desk) Rigs(ctx context.Context) ([]store.Rig, error) {
	s, err := d.shelf(ctx)
	if err != nil {
		return nil, err
	}
	return s.rigs, nil
}

// Fits returns what is known of every filter on every rig.
func (d *Desk) Fits(ctx context.Context) ([]FitCell, error) {
	s, err := d.shelf(ctx)
	if err != nil {
		return nil, err
	}
	cells := []FitCell{}
	for _, f := range s.filters {
		for _, r := range s.rigs {
			seat, err := s.seat(r, []store.Filter{f})
			if err != nil {
				return nil, err
			}
			cells = append(cells, seat.FitCell)
		}
	}
	return cells, nil
}

// SeatOn returns everything known of a filter on a rig, with what is stacked on it:
// the filters' ids, the one on the rig first.
func (d *Desk) SeatOn(ctx context.Context, rigID string, filterIDs []string) (*Seat, error) {
	s, err := d.shelf(ctx)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(s.rigs, func(r store.Rig) bool { return r.ID == rigID })
	if i < 0 {
		return nil, fmt.Errorf("rig %s: %w", rigID, store.ErrNotFound)
	}
	var stack []store.Filter
	for j, id := range filterIDs {
		k := slices.IndexFunc(s.filters, func(f store.Filter) bool { return f.ID == id })
		if k < 0 {
			return nil, &problem.Fault{Field: fmt.Sprintf("filters[%d]", j), Value: id, Allowed: "the id of a filter in the kit"}
		}
		stack = append(stack, s.filters[k])
	}
	return s.seat(s.rigs[i], stack)
}

// seat judges a stack, of one filter at least, on a rig.
func (s *shelf) seat(r store.Rig, stack []store.Filter) (*Seat, error) {
	f, camera := stack[0], s.cameras[r.CameraID]
	out := &Seat{FitCell: FitCell{RigID: r.ID, FilterID: f.ID, Claimed: slices.Contains(f.Cameras, r.CameraID)}, Trials: s.trialsOf(r.ID, f.ID)}
	out.Asked = fit.SeatRequest{Rig: r.Measures, InFlight: camera.Profile != nil && camera.Profile.Flies, View: viewOf(camera), Claimed: out.Claimed}
	for _, g := range stack {
		out.Asked.Glass = append(out.Asked.Glass, fit.SeatedGlass{Body: g.Body, WeightG: known(g.WeightG)})
	}
	if newest := newestOf(out.Trials); newest != nil {
		if out.Asked.Stale = since(newest.TriedAt, f.History); out.Asked.Stale == "" {
			out.Asked.Trial = &newest.Found.TrialFields
		}
	}
	if reference := s.reference(r, f.ID); reference != nil {
		out.Reference, out.Asked.ReferenceMm = reference.title, &reference.clearanceMm
	}
	answer, err := fit.Seat(out.Asked)
	if err != nil {
		return nil, fmt.Errorf("filter %s on rig %s: %w", f.ID, r.ID, err)
	}
	out.Answer, out.Standing, out.Because = *answer, answer.Standing, answer.Because
	if why := gone(f); why != "" {
		out.Standing, out.Because = fit.DoesNotGo, append([]string{why}, out.Because...)
	}
	out.Offered = out.Standing != fit.DoesNotGo && (out.Claimed || out.Standing != fit.NotKnown)
	return out, nil
}

func newestOf(trials []store.Trial) *store.Trial {
	if len(trials) == 0 {
		return nil
	}
	return &trials[0]
}

func (s *shelf) trialsOf(rigID, filterID string) []store.Trial {
	of := []store.Trial{}
	for _, t := range s.trials {
		if t.RigID == rigID && t.FilterID == filterID {
			of = append(of, t)
		}
	}
	return of
}

// since says what happened to a filter after it was tried that makes the trial
// worthless, "" for nothing.
func since(tried time.Time, history []store.Happening) string {
	for _, h := range slices.Backward(history) {
		if (h.What == "dropped" || h.What == "replaced") && h.At.After(tried) {
			return fmt.Sprintf("%s on %s, after it was tried", h.What, h.At.Format(time.DateOnly))
		}
	}
	return ""
}

// gone says why a filter cannot be put on anything, "" where it can.
func gone(f store.Filter) string {
	if f.Condition == "broken" {
		return "it is broken"
	}
	for _, h := range slices.Backward(f.History) {
		switch h.What {
		case "lost":
			return "lost on " + h.At.Format(time.DateOnly)
		case "found", "replaced":
			return ""
		}
	}
	return ""
}

// reference is a filter known to hold well on a rig.
type reference struct {
	title       string
	clearanceMm float64
}

// reference finds the filter that was last tried on the rig, seated and without a
// wobble, and whose ring is measured: what it has of clearance holds well there.
func (s *shelf) reference(r store.Rig, except string) *reference {
	barrel := r.Measures.BarrelMm
	if barrel == nil || !r.Measures.Mount.SeatsByClearance() {
		return nil
	}
	for _, t := range s.trials {
		if t.RigID != r.ID || t.FilterID == except || !t.Found.Seated || t.Found.Wobbles == nil || *t.Found.Wobbles {
			continue
		}
		i := slices.IndexFunc(s.filters, func(f store.Filter) bool { return f.ID == t.FilterID })
		if i < 0 || s.filters[i].Body.SeatMm == nil || since(t.TriedAt, s.filters[i].History) != "" {
			continue
		}
		if newest := s.trialsOf(r.ID, t.FilterID); newest[0].ID != t.ID { // tried again since, with another outcome
			continue
		}
		seat := s.filters[i].Body.SeatMm
		title := s.filters[i].Name
		if title == "" {
			title = s.filters[i].Label
		}
		return &reference{title, (seat[0]+seat[1])/2 - (barrel[0]+barrel[1])/2}
	}
	return nil
}

// viewOf returns what a camera's lens sees at its usual frame size.
func viewOf(c store.Camera) *fit.View {
	if len(c.FrameSizes) == 0 {
		return nil
	}
	frame, err := motion.ParseFrameSize(c.FrameSizes[0])
	if err != nil {
		return nil
	}
	return c.Profile.ViewOf(c.Aperture, &frame)
}

// known returns a number of which 0 says that it is not known.
func known(v float64) *float64 {
	if v == 0 {
		return nil
	}
	return &v
}

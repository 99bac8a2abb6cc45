package service

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"pinhole/core/fit"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/internal/store"
)

// FitCell is one filter on one rig.
type FitCell struct {
	RigID    string       `json:"rigId"`
	FilterID string       `json:"filterId"`
	Standing fit.Standing `json:"standing"`
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
	// taught is what the log teaches, nil where it is left aside.
	taught *Learned
}

func (svc *Service) shelf(ctx context.Context) (*shelf, error) {
	cameras, filters, err := svc.gear(ctx)
	if err != nil {
		return nil, err
	}
	s := &shelf{cameras: map[string]store.Camera{}, filters: filters}
	for _, c := range cameras {
		s.cameras[c.ID] = c
	}
	all, err := svc.Store.Rigs().List(ctx)
	if err != nil {
		return nil, err
	}
	for _, r := range all {
		if _, isThere := s.cameras[r.CameraID]; isThere {
			s.rigs = append(s.rigs, r)
		}
	}
	if s.taught, err = svc.inUse(ctx); err != nil {
		return nil, err
	}
	s.trials, err = svc.Store.Trials().List(ctx)
	slices.SortStableFunc(s.trials, func(a, b store.Trial) int { return b.TriedAt.Compare(a.TriedAt) })
	return s, err
}

// Rigs returns a part of the ways in which the cameras that are there are held.
func (svc *Service) Rigs(ctx context.Context, p store.Page) (part []store.Rig, next string, err error) {
	s, err := svc.shelf(ctx)
	if err != nil {
		return nil, "", err
	}
	return store.PageOf(p, s.rigs, func(r *store.Rig) string { return r.ID })
}

// Fits returns what is known of every filter on every rig.
func (svc *Service) Fits(ctx context.Context) ([]FitCell, error) {
	s, err := svc.shelf(ctx)
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
func (svc *Service) SeatOn(ctx context.Context, rigID string, filterIDs []string) (*Seat, error) {
	s, err := svc.shelf(ctx)
	if err != nil {
		return nil, err
	}
	rig := s.rig(rigID)
	if rig == nil {
		return nil, fmt.Errorf("rig %s: %w", rigID, store.ErrNotFound)
	}
	var stack []store.Filter
	for j, id := range filterIDs {
		f := s.filter(id)
		if f == nil {
			return nil, &problem.Fault{Field: fmt.Sprintf("filters[%d]", j), Value: id, Allowed: "the id of a filter in the kit"}
		}
		stack = append(stack, *f)
	}
	return s.seat(*rig, stack)
}

// seat judges a stack, of one filter at least, on a rig.
func (s *shelf) seat(r store.Rig, stack []store.Filter) (*Seat, error) {
	f, camera := stack[0], s.cameras[r.CameraID]
	out := &Seat{FitCell: FitCell{RigID: r.ID, FilterID: f.ID, Claimed: slices.Contains(f.Cameras, r.CameraID)}, Trials: s.trialsOf(r.ID, f.ID)}
	out.Asked = fit.SeatRequest{Rig: r.Measures, InFlight: camera.Profile != nil && camera.Profile.Flies, View: viewOf(camera), Claimed: out.Claimed}
	for _, g := range stack {
		out.Asked.Glass = append(out.Asked.Glass, fit.SeatedGlass{Body: g.Body, WeightG: known(g.WeightG)})
	}
	past := make([]fit.PastTrial, len(out.Trials))
	for i, t := range out.Trials {
		past[i] = fit.PastTrial{At: t.TriedAt, TrialFields: t.Found.TrialFields}
	}
	out.Asked.Trial, out.Asked.Stale = fit.Join(past, f.Happenings())
	if reference := s.reference(r, f.ID); reference != nil {
		out.Reference, out.Asked.ReferenceMm = s.referenceWords(r, reference), &reference.ClearanceMm
	}
	for _, id := range camera.Mounted { // all glass on one craft weighs together
		if g := s.filter(id); g != nil && !slices.ContainsFunc(stack, func(x store.Filter) bool { return x.ID == id }) {
			out.Asked.AlsoG = append(out.Asked.AlsoG, g.WeightG)
		}
	}
	answer, err := fit.Seat(out.Asked)
	if err != nil {
		return nil, fmt.Errorf("filter %s on rig %s: %w", f.ID, r.ID, err)
	}
	out.Answer, out.Standing, out.Because = *answer, answer.Standing, answer.Because
	if why := fit.Gone(f.Condition == "broken", f.Happenings()); why != "" {
		out.Standing, out.Because = fit.DoesNotGo, append([]string{why}, out.Because...)
	}
	out.Offered = out.Standing != fit.DoesNotGo && (out.Claimed || out.Standing != fit.NotKnown)
	return out, nil
}

// measured is what is known of a filter's image on this rig, each figure from frames taken
// with both, else what is known of the filter on whatever it was measured.
func (s *Seat) measured(f store.Filter) (m fit.TrialFields) {
	if s.Asked.Trial != nil {
		m = *s.Asked.Trial
	}
	m.CornerStops, m.SharpnessLost, m.Flare = either(m.CornerStops, f.CornerStops), either(m.SharpnessLost, f.SharpnessLost), either(m.Flare, f.Flare)
	return m
}

func either[T any](first, second *T) *T {
	if first != nil {
		return first
	}
	return second
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

func (s *shelf) filter(id string) *store.Filter {
	i := slices.IndexFunc(s.filters, func(f store.Filter) bool { return f.ID == id })
	if i < 0 {
		return nil
	}
	return &s.filters[i]
}

func (s *shelf) rig(id string) *store.Rig {
	i := slices.IndexFunc(s.rigs, func(r store.Rig) bool { return r.ID == id })
	if i < 0 {
		return nil
	}
	return &s.rigs[i]
}

// reference finds the clearance that is known to hold well on a rig, by the trials on it
// and on the other rigs of its camera and mount; nil where none tells.
func (s *shelf) reference(r store.Rig, except string) *fit.Reference {
	if !r.Measures.Mount.SeatsByClearance() {
		return nil
	}
	var tried []fit.TriedRing
	for _, t := range s.trials {
		on, f := s.rig(t.RigID), s.filter(t.FilterID)
		if on == nil || f == nil || on.CameraID != r.CameraID || on.Measures.Mount != r.Measures.Mount {
			continue
		}
		tried = append(tried, fit.TriedRing{
			RigID: t.RigID, FilterID: t.FilterID, At: t.TriedAt, Seated: t.Found.Seated, Wobbles: t.Found.Wobbles, Stale: fit.SinceTried(t.TriedAt, f.Happenings()) != "",
			Barrel: rangeOf(on.Measures.BarrelMm), Seat: rangeOf(f.Body.SeatMm),
		})
	}
	return fit.ReferenceFor(r.ID, except, tried)
}

func rangeOf(mm []float64) *fit.Range {
	if len(mm) != 2 {
		return nil
	}
	return &fit.Range{Min: mm[0], Max: mm[1]}
}

// referenceWords names the filter whose clearance holds well, and the rig where that is
// another one.
func (s *shelf) referenceWords(r store.Rig, of *fit.Reference) string {
	f := s.filter(of.FilterID)
	title := cmp.Or(f.Name, f.Label)
	if of.RigID != r.ID {
		title += " on " + s.rig(of.RigID).Name + ", the same camera and mount"
	}
	return title
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

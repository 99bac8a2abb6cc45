package service

import (
	"context"
	"slices"

	"pinhole/core/learn"
	"pinhole/core/practice"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// Practice is what of the log concerns practice.
type Practice struct {
	Mistakes []practice.Mistake `json:"mistakes" doc:"that a kind of question trains, the latest last"`
	Guesses  []practice.Guessed `json:"guesses" doc:"light that was guessed before it was read"`
}

// Practice returns the mistakes of the log, and the guesses.
func (svc *Service) Practice(ctx context.Context) (*Practice, error) {
	records, err := svc.Store.Teaching(ctx)
	if err != nil {
		return nil, err
	}
	l, err := svc.Learned(ctx)
	if err != nil {
		return nil, err
	}
	filters, err := svc.Store.Filters().List(ctx)
	if err != nil {
		return nil, err
	}
	knownOf := map[string]learn.LearnedGlass{}
	for _, g := range l.Filters {
		knownOf[g.ID] = g
	}
	out := &Practice{Guesses: []practice.Guessed{}}
	var takes []practice.Tried
	lastThrough := map[string]*store.Record{}
	for i := range records {
		r := &records[i]
		if r.Struck != nil {
			continue
		}
		if r.Seen != nil && r.Seen.GuessOff != nil {
			out.Guesses = append(out.Guesses, practice.Guessed{At: r.At, Off: *r.Seen.GuessOff})
		}
		for _, id := range r.Glass {
			if last := lastThrough[id]; last == nil || r.At.After(last.At) {
				lastThrough[id] = r
			}
		}
		if r.Took == nil {
			continue
		}
		sum := stop.Stops(0)
		for _, id := range r.Glass {
			sum += knownOf[id].Stops
		}
		takes = append(takes, practice.Tried{Shot: r.ShotID, At: r.At, IsKept: r.Took.Kept, Why: r.Took.Why, Stops: sum, FirstRight: r.Took.FirstRight})
	}
	var worn []practice.Worn
	for _, f := range filters {
		last := lastThrough[f.ID]
		if known, has := knownOf[f.ID]; has && last != nil && known.Records > 0 {
			worn = append(worn, practice.Worn{Label: f.Label, Counted: l.Printed[f.ID], Known: known.Stops, At: last.At})
		}
	}
	out.Mistakes = practice.Mistakes(slices.DeleteFunc(takes, func(t practice.Tried) bool { return t.Shot == "" && t.FirstRight == nil }), worn)
	return out, nil
}

package service

import (
	"context"
	"reflect"
	"slices"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/learn"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/internal/store"
)

// What the log suggests is named by these; a school by what begins its name, and its activity.
const (
	suggestDark   = "dark"
	suggestBright = "bright"
	suggestSchool = "school "
)

// Settlement takes a suggestion of the log, or declines it for good.
type Settlement struct {
	What  string `json:"what" minLength:"1" maxLength:"80" doc:"dark, bright, or school and an activity"`
	Taken bool   `json:"taken"`
}

// Settled is how many shots a suggestion has changed, and what the log teaches then.
type Settled struct {
	Shots   int     `json:"shots"`
	Learned Learned `json:"learned"`
}

// quiet takes away the suggestions that were settled.
func quiet(t *learn.Taste, settled *store.Taste) {
	isDeclined := func(what string) bool { return slices.Contains(settled.Declined, what) }
	t.Dark.IsSuggest = t.Dark.IsSuggest && !isDeclined(suggestDark)
	t.Bright.IsSuggest = t.Bright.IsSuggest && !isDeclined(suggestBright)
	for i := range t.Schools {
		s := &t.Schools[i]
		usual := settled.Schools[motion.ActivityName(s.Activity)]
		if usual == "" {
			usual = shot.ByAngle // what rules where nothing is said
		}
		s.IsSuggest = s.IsSuggest && s.School != string(usual) && !isDeclined(suggestSchool+s.Activity)
	}
}

// Settle takes a suggestion or declines it. What is taken counts for new shots, and for those that
// say nothing else; a shot that cannot be answered so stays as it is.
func (svc *Service) Settle(ctx context.Context, s Settlement) (*Settled, error) {
	l, err := svc.Learned(ctx)
	if err != nil {
		return nil, err
	}
	settled, err := svc.Store.Taste(ctx)
	if err != nil {
		return nil, err
	}
	before := settled
	if err := agree(&settled, &l.Taste, s); err != nil {
		return nil, err
	}
	var changed []store.Shot
	if s.Taken {
		if changed, err = svc.changedBy(ctx, &before, &settled); err != nil {
			return nil, err
		}
	}
	if err := svc.Store.SettleTaste(ctx, settled, changed); err != nil {
		return nil, err
	}
	if l, err = svc.Learned(ctx); err != nil {
		return nil, err
	}
	return &Settled{len(changed), *l}, nil
}

// agree writes a settlement into what is settled.
func agree(t *store.Taste, of *learn.Taste, s Settlement) error {
	unknown := &problem.Fault{Field: "what", Value: s.What, Allowed: "a suggestion that the log makes"}
	band := assemble.Tolerance(glass.DefaultBand)
	if t.Tolerance != nil {
		band = *t.Tolerance
	}
	switch activity, isSchool := strings.CutPrefix(s.What, suggestSchool); {
	case isSchool:
		i := slices.IndexFunc(of.Schools, func(o learn.School) bool { return o.Activity == activity && o.IsSuggest })
		if i < 0 {
			return unknown
		}
		if s.Taken {
			schools := map[motion.ActivityName]shot.School{motion.ActivityName(activity): shot.School(of.Schools[i].School)}
			for a, school := range t.Schools {
				if _, isNew := schools[a]; !isNew {
					schools[a] = school
				}
			}
			t.Schools = schools
		}
	case s.What == suggestDark && of.Dark.IsSuggest:
		band.Dark = *of.Dark.Offer
	case s.What == suggestBright && of.Bright.IsSuggest:
		band.Bright = *of.Bright.Offer
	default:
		return unknown
	}
	if !s.Taken {
		t.Declined = append(slices.Clone(t.Declined), s.What)
	} else if s.What == suggestDark || s.What == suggestBright {
		t.Tolerance = &band
	}
	return nil
}

// changedBy returns the shots that what is settled changes, answered anew.
func (svc *Service) changedBy(ctx context.Context, before, settled *store.Taste) ([]store.Shot, error) {
	all, err := svc.Store.Shots().List(ctx)
	if err != nil {
		return nil, err
	}
	var changed []store.Shot
	for _, s := range all {
		if !settle(&s, before, settled) {
			continue
		}
		answer, err := svc.answer(ctx, s.ShotFields)
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if err != nil {
			continue
		}
		s.Answer = answer
		changed = append(changed, s)
	}
	return changed, nil
}

// asSettled lets a new shot have what was settled, where it says nothing else.
func (svc *Service) asSettled(ctx context.Context, s *store.Shot) error {
	settled, err := svc.Store.Taste(ctx)
	s.Asked = settled.For(s.Asked)
	return err
}

// settle lets a shot have what is settled, where it says nothing else than was settled before, and
// reports whether it is another one for it.
func settle(s *store.Shot, before, settled *store.Taste) (isChanged bool) {
	was := s.Asked
	if is := was.Choices.Tolerance; is != nil && settled.Tolerance != nil && before.Tolerance != nil && *is == *before.Tolerance {
		s.Choices.Tolerance = nil
	}
	s.Asked = settled.For(s.Asked)
	return !reflect.DeepEqual(was, s.Asked)
}

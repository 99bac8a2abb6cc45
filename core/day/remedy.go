package day

import (
	"fmt"
	"slices"
	"time"

	"pinhole/core/glass"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// How far a shot is moved in search of light that serves it, and in what steps.
const (
	farthestShift = 6 * time.Hour
	shiftStep     = 5 * time.Minute
)

// remedies says what would serve a shot that breaks: small changes, each made and judged
// again for all its batteries. Where none serves, the nearest says what it leaves.
func (o *Prepared) remedies(s *OutingShot) []string {
	batteries := o.batteries[s.ID]
	if unmet := batteries[0].unmet; unmet != "" {
		return []string{unmet}
	}
	words := []string{}
	var nearest *attempt
	served := map[shot.TradeKind]bool{}
	for _, way := range batteries[0].scene.Remedies() {
		if served[way.Kind] {
			continue
		}
		switch a := attemptOn(batteries, way); {
		case a == nil:
		case a.state != glass.Breaks:
			served[way.Kind] = true
			words = append(words, fmt.Sprintf("%s would serve it", way.Does))
		case nearest == nil || a.misses < nearest.misses:
			nearest = a
		}
	}
	if at, by := o.otherHour(s); by != "" {
		words = append(words, fmt.Sprintf("begun at %s, %s would serve it", at.Format("15:04"), by))
	}
	if len(words) > 0 {
		return words
	}
	words = append(words, "no filter, shutter, frame rate or hour nearby serves it: bring light, or make it two shots")
	if nearest != nil {
		words = append(words, fmt.Sprintf("%s comes nearest, and leaves this: %s", nearest.does, nearest.leaves))
	}
	return words
}

// attempt is a change and what it makes of all batteries of a shot.
type attempt struct {
	does, leaves string
	state        glass.State
	misses       stop.Stops
}

// attemptOn makes a change to every battery and judges it again; nil where it cannot be
// made, or helps none of them.
func attemptOn(batteries []*Battery, way shot.Remedy) *attempt {
	a := &attempt{does: way.Does, state: glass.Holds}
	helps := false
	for _, b := range batteries {
		before := b.now()
		changed, err := before.scene.With(way.Change)
		if err != nil {
			return nil // the kit has no room for it
		}
		v, err := changed.Verdict()
		if err != nil {
			return nil // the camera has no shutter for it
		}
		if a.state = glass.Worse(a.state, v.State); v.State == glass.Breaks {
			if by := v.Misses(glass.Breaks); a.leaves == "" || by > a.misses {
				a.misses, a.leaves = by, v.Gives()
			}
		}
		helps = helps || v.Misses(glass.Breaks) < before.verdict.Misses(glass.Breaks)
	}
	if !helps {
		return nil
	}
	return a
}

// otherHour returns the nearest other start at which the shot is served by glass that is
// there, while its camera is free, and that glass; by is "" where there is none.
func (o *Prepared) otherHour(s *OutingShot) (start time.Time, by string) {
	if !o.isDaylit(s) {
		return start, ""
	}
	there := *s
	there.Readings = nil // they say nothing of another hour
	for shift := shiftStep; shift <= farthestShift; shift += shiftStep {
		for _, start := range []time.Time{s.From.Add(shift), s.From.Add(-shift)} {
			if !o.isFree(s, start) {
				continue
			}
			if by := o.servedFrom(&there, start); by != "" {
				return start, by
			}
		}
	}
	return start, ""
}

// servedFrom returns the glass of the first battery of a shot that is served throughout if
// it begins at an instant, "" where one of them breaks.
func (o *Prepared) servedFrom(s *OutingShot, start time.Time) string {
	first := ""
	for i, b := range o.batteries[s.ID] {
		pack := &o.Day.Shots[slices.IndexFunc(o.Day.Shots, func(x Shot) bool { return x.Judge == b })]
		from := int(pack.From.Sub(s.From) / time.Minute)
		moved := o.lightOf(s, start, from, from+int(pack.To.Sub(pack.From)/time.Minute))
		there := *b.scene
		there.Question.Light = moved.light()
		// Choosing alone is quick, and most hours fail by their light.
		if best := glass.Best(&there.Question, there.Stacks); best.State(&there.Question) == glass.Breaks && there.School != shot.Free {
			return ""
		}
		v := sure(there.Verdict())
		if v.State == glass.Breaks {
			return ""
		}
		if i == 0 {
			first = o.Names[b.id(v.Option.Filters)]
		}
	}
	return first
}

// isFree reports whether the camera of a shot shoots nothing else if it began at an
// instant.
func (o *Prepared) isFree(s *OutingShot, start time.Time) bool {
	end := start.Add(s.until().Sub(s.From))
	return !slices.ContainsFunc(o.Shots, func(other OutingShot) bool {
		return other.ID != s.ID && other.CameraID == s.CameraID && other.From.Before(end) && start.Before(other.until())
	})
}

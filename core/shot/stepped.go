package shot

import (
	"slices"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// SteppedTrial is a plan to find by trial at which shutters a stabiliser works: the same path at
// each, from the fastest to the slowest, all through one stack, ISO making up for the shutter.
type SteppedTrial struct {
	// Computed is the limit at the default tolerance, around which the steps lie.
	Computed stop.Shutter
	Stack    *glass.Stack
	Steps    []TrialStep
}

// TrialStep is one shutter of a stepped trial.
type TrialStep struct {
	Shutter stop.Shutter
	ISO     stop.ISO
	// Off is how much too bright it is at the lowest ISO, or too dark (negative) at the highest;
	// 0 where ISO makes up for it.
	Off stop.Stops
	// IsFar says that it is so far off that the take can hardly be judged.
	IsFar bool
}

// Steps of a trial lie half a stop apart, from two faster than the computed limit by so much to so
// much slower: who shakes twice as much, or half, is within.
const (
	trialStops = 1.5
	trialStep  = 0.5
	trialOff   = stop.Stops(1.0 / 3) // so far off a take can still be judged
)

// SteppedTrial plans a trial in the scene's light; ok is false where there is no stabiliser limit
// to find, or no stack serves half of the steps.
func (s *Scene) SteppedTrial() (t SteppedTrial, ok bool) {
	if s.Shaking == nil || stop.AtMost(float64(s.Shaking.Rate), float64(motion.StandShake)) {
		return t, false
	}
	if t.Computed, ok = s.Shaking.Floor(s.Shaking.Lens); !ok {
		return t, false
	}
	var shutters []stop.Shutter
	for off := -trialStops; off <= trialStops; off += trialStep {
		at, _ := s.Question.Offered(t.Computed.Times(stop.Stops(off)))
		if s.offers(at) && !slices.Contains(shutters, at) {
			shutters = append(shutters, at)
		}
	}
	if len(shutters) == 0 {
		return t, false
	}
	served := -1
	for i := range s.Stacks {
		steps := s.stepsThrough(&s.Stacks[i], shutters)
		n := 0
		for _, step := range steps {
			if !step.IsFar {
				n++
			}
		}
		if n > served || n == served && len(s.Stacks[i].Filters) < len(t.Stack.Filters) {
			served, t.Stack, t.Steps = n, &s.Stacks[i], steps
		}
	}
	return t, 2*served >= len(shutters)
}

// stepsThrough returns what ISO each shutter needs behind a stack.
func (s *Scene) stepsThrough(stack *glass.Stack, shutters []stop.Shutter) []TrialStep {
	q := &s.Question
	middle := (q.Light.High + q.Light.Low) / 2
	steps := make([]TrialStep, len(shutters))
	for i, shutter := range shutters {
		setting := q.Setting
		setting.Shutter = shutter
		need := middle.Above(setting.EV()) - q.Offset
		left := need - stack.At(need)
		steps[i] = TrialStep{Shutter: shutter, ISO: q.Setting.ISO, Off: max(left, 0)}
		if left < 0 {
			lift := min(-left, q.Headroom())
			steps[i].ISO, steps[i].Off = q.OfferedISO(q.Setting.ISO.Raised(lift)), left+lift
		}
		steps[i].IsFar = steps[i].Off.Abs() > trialOff
	}
	return steps
}

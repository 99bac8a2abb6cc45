package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/problem"
	"pinhole/core/shot"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// ShotAnswer is everything the Shot screen shows.
type ShotAnswer struct {
	Model   string             `json:"model" doc:"version of the rules this answer follows"`
	Reading *ReadingAnswer     `json:"reading" doc:"the light; in a range the highest"`
	Low     *ReadingAnswer     `json:"low,omitempty" doc:"in a range the lowest light"`
	Shutter *ShutterAnswer     `json:"shutter"`
	Offset  stop.Stops         `json:"offsetStops"`
	Band    assemble.Tolerance `json:"tolerance"`
	Solve   *SolveAnswer       `json:"solve"`
	Step    *StepAnswer        `json:"step,omitempty" doc:"without a meter: what to put on next"`
	Chosen  Option             `json:"chosen" doc:"the glass placed, the glass to look through, or the best option"`
	Placed  bool               `json:"placed" doc:"true when chosen was placed by hand"`
	Settled bool               `json:"settled" doc:"false while the light is still being found by looking"`
	State   glass.State        `json:"state,omitempty" doc:"of the shot as a whole: the worst of all demands at the shutter and glass taken"`
	Gives   *string            `json:"gives,omitempty" doc:"what gives way and by how much; left out where nothing does"`
	Window  *WindowAnswer      `json:"window,omitempty" doc:"every demand on the shutter; a trade's change is a merge patch for the fields of a shot"`
	// The light may be off by its spread: what to have along then.
	IfBrighter *ShotSpare `json:"ifBrighter,omitempty" doc:"other filters for light brighter by its spread, where that is wide"`
	IfDarker   *ShotSpare `json:"ifDarker,omitempty" doc:"other filters for light darker by it"`
	ShotSides
}

// ShotSpare is what to put on instead, in another light.
type ShotSpare struct {
	Filters    []string   `json:"filters" doc:"ids"`
	ErrorStops stop.Stops `json:"errorStops" doc:"in that light, with ISO at base"`
	LeftStops  stop.Stops `json:"leftStops" doc:"in that light, after ISO or shutter has done what it can"`
}

// AnswerShot answers shot.
func AnswerShot(r assemble.ShotRequest) (*ShotAnswer, error) {
	a, _, _, err := answerShot(r)
	return a, err
}

// answerShot answers a shot and returns with it what the answer was found on.
func answerShot(r assemble.ShotRequest) (*ShotAnswer, *shot.Scene, *assemble.Setup, error) {
	ready, err := r.Assemble()
	if err != nil {
		return nil, nil, nil, err
	}
	b := ready.Setup
	shutter, err := Shutter(ShutterRequest{ShutterS: number(b.Snapped.Ideal.Seconds()), FPS: float64(b.Question.Rate), Steps: r.Camera.Steps, Delivery: r.Scene.Delivery})
	if err != nil {
		return nil, nil, nil, problem.At("scene", err)
	}
	a := &ShotAnswer{Model: ModelVersion, Shutter: shutter, Offset: b.Question.Offset, Settled: ready.Settled(), Reading: readingAnswer(ready.High),
		Band: assemble.Tolerance{Dark: b.Question.Band.Dark, Bright: b.Question.Band.Bright}}
	if ready.Low != nil {
		a.Low = readingAnswer(*ready.Low)
	}
	if ready.Step != nil {
		a.Step = stepOf(b, ready.Step)
	}
	return a, ready.Scene, b, a.judge(&r, ready)
}

// judge finds the shutter that the school takes, chooses the glass for it, and says what
// every demand makes of the two.
func (a *ShotAnswer) judge(r *assemble.ShotRequest, ready *assemble.Assembled) error {
	b, scene := ready.Setup, ready.Scene
	w, err := scene.Window()
	if err != nil {
		return assemble.NoPossibleStep("camera.steps", r.Camera.Steps, b.Question.Rate)
	}
	stack, taken := w.Verdict.Option.Stack, &w.Verdict
	switch {
	case r.Placed != nil:
		a.Placed = true
		if stack, err = b.Stack(*r.Placed, "placed"); err != nil {
			return err
		}
		if taken, err = scene.PutOn(stack).Best(); err != nil {
			return err
		}
	case a.Step != nil:
		if stack, err = b.Stack(a.Step.Next.Filters, "light.looks"); err != nil {
			return err
		}
	}
	if a.Settled { // while the light is looked for, the camera stays locked at the target
		b.Question.Setting.Shutter = taken.Question.Setting.Shutter
	}
	a.Solve = solved(b, r.Most, optionOf)
	weighed := glass.Weigh(&b.Question, stack)
	a.Chosen = toldOption(b, &weighed)
	scene.JudgeAt(w, b.Question, weighed)
	a.State = w.Verdict.State
	if gives := w.Verdict.Gives(); gives != "" {
		a.Gives = &gives
	}
	a.Window = windowOf(b, scene, w, func(c shot.Change) map[string]any { return shotChange(c, &r.Choices) })
	if a.Settled {
		brighter, darker := b.Question.Spares(b.Stacks, weighed.Filters, b.Question.Light.Spread)
		a.IfBrighter, a.IfDarker = spareOf(brighter), spareOf(darker)
	}
	tried := r.Tried()
	if err := a.sides(&tried, scene, b, &weighed, scene.Wish); err != nil {
		return err
	}
	a.Explain = a.explain(scene, b, weighed.Shutters())
	return nil
}

// spareOf returns the filters of a spare; nil where there is none.
func spareOf(s *glass.Spare) *ShotSpare {
	if s == nil {
		return nil
	}
	return &ShotSpare{Filters: glass.IDs(s.Option.Filters), ErrorStops: s.Option.Error, LeftStops: s.Option.Left}
}

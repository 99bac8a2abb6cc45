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
	State   glass.State        `json:"state,omitempty" enum:"holds,tight,breaks" doc:"of the shot as a whole: the worst of all demands at the shutter and glass taken"`
	Gives   *string            `json:"gives,omitempty" doc:"what gives way and by how much; left out where nothing does"`
	Window  *WindowAnswer      `json:"window,omitempty" doc:"every demand on the shutter; a trade's change is a merge patch for the fields of a shot"`
	ShotSides
}

// AnswerShot answers shot.
func AnswerShot(r assemble.ShotRequest) (*ShotAnswer, error) {
	a, _, _, err := answerShot(r)
	return a, err
}

// answerShot answers a shot and returns with it the scene and the bench that the
// answer was found on.
func answerShot(asked assemble.ShotRequest) (*ShotAnswer, *shot.Scene, *assemble.Setup, error) {
	r := asked.Tried()
	b, err := r.Setup()
	if err != nil {
		return nil, nil, nil, err
	}
	shutter, err := Shutter(ShutterRequest{ShutterS: number(b.Snapped.Ideal.Seconds()), FPS: float64(b.Question.Rate), Steps: r.Camera.Steps, Delivery: r.Scene.Delivery})
	if err != nil {
		return nil, nil, nil, problem.At("scene", err)
	}
	lit, err := r.Lit(b)
	if err != nil {
		return nil, nil, nil, err
	}
	a := &ShotAnswer{Model: ModelVersion, Shutter: shutter, Offset: b.Question.Offset, Settled: lit.Settled(), Reading: readingAnswer(lit.High),
		Band: assemble.Tolerance{Dark: b.Question.Band.Dark, Bright: b.Question.Band.Bright}}
	if lit.Low != nil {
		a.Low = readingAnswer(*lit.Low)
	}
	if lit.Step != nil {
		a.Step = stepOf(b, lit.Step)
	}
	scene, err := a.weigh(&r, b, r.PlanWish(b.Snapped.Ideal))
	if err != nil {
		return nil, nil, nil, err
	}
	return a, scene, b, nil
}

// weigh finds the shutter that the school takes, chooses the glass for it, and
// says what every demand makes of the two.
func (a *ShotAnswer) weigh(r *assemble.ShotRequest, b *assemble.Setup, wish shot.Wish) (*shot.Scene, error) {
	scene, err := r.Planned(b, wish)
	if err != nil {
		return nil, err
	}
	w, err := scene.Window()
	if err != nil {
		return nil, assemble.NoPossibleStep("camera.steps", r.Camera.Steps, b.Question.Rate)
	}
	if a.Settled { // while the light is looked for, the camera stays locked at the target
		b.Question.Setting.Shutter = w.Verdict.Question.Setting.Shutter
	}
	a.Solve = solved(b)
	a.Chosen = a.Solve.Options[0]
	var weighed glass.Option
	switch {
	case r.Placed != nil:
		a.Placed = true
		weighed, err = a.choose(b, *r.Placed, "placed")
	case a.Step != nil:
		weighed, err = a.choose(b, a.Step.Next.Filters, "light.looks")
	default:
		weighed, err = a.choose(b, glass.IDs(w.Verdict.Option.Filters), "kit")
	}
	if err != nil {
		return nil, err
	}
	w.Verdict.Question, w.Verdict.Option = b.Question, weighed
	scene.Judge(w, &w.Verdict)
	a.State = w.Verdict.State
	if gives := w.Verdict.Gives(); gives != "" {
		a.Gives = &gives
	}
	a.Window = windowOf(b, scene, w, shotChange)
	if err := a.sides(r, scene, b, &weighed, wish); err != nil {
		return nil, err
	}
	a.Explain = a.explain(scene, b, weighed.Shutters())
	return scene, nil
}

// choose makes the option of exactly these filters the chosen one. Glass placed
// by hand may be of kinds that are not offered unasked, so it is weighed afresh; a
// set that is offered goes on in the order in which it is.
func (a *ShotAnswer) choose(b *assemble.Setup, ids []string, field string) (glass.Option, error) {
	for _, o := range a.Solve.Options {
		if glass.SameIDs(o.Filters, ids) {
			ids = o.Filters
			break
		}
	}
	weighed, err := b.Weigh(ids, field)
	if err != nil {
		return weighed, err
	}
	a.Chosen = optionOf(b, &weighed)
	return weighed, nil
}

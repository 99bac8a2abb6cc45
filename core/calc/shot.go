package calc

import (
	"fmt"
	"pinhole/core/shot"
	"strings"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// ShotRequest is a shot as it is typed: what people write, in the forms they
// write it, beside the camera and its kit.
type ShotRequest struct {
	Camera Camera      `json:"camera"`
	Kit    []KitFilter `json:"kit" maxItems:"200"`
	Look   ShotLook    `json:"look"`
	Light  ShotLight   `json:"light"`
	Choices
	Profile *CameraProfile `json:"profile,omitempty" doc:"what the camera is like beyond its exposure"`
	Rates   []string       `json:"rates,omitempty" maxItems:"40" maxLength:"12" doc:"frame rates the camera offers, as written"`
	Scene   ShotScene      `json:"scene,omitzero"`
	Placed  *[]string      `json:"placed,omitempty" maxItems:"4" doc:"ids of the glass put on by hand; left out, the best option is taken"`
}

// ShotLook is the frame rate and the shutter wanted.
type ShotLook struct {
	FPS    string `json:"fps" maxLength:"12" doc:"25, 29.97, 50fps; still"`
	Target string `json:"target" maxLength:"20" doc:"180°, or a time such as 1/100"`
}

// ShotLight is what was read, in one of the forms people use.
type ShotLight struct {
	Kind   string `json:"kind" enum:"meter,auto,bias,lux,looks" doc:"a hand meter, the camera's automatic, the bias of the locked camera, lux, or no meter at all"`
	At     *Entry `json:"at,omitempty" doc:"the reading; in a range the highest light"`
	Low    *Entry `json:"low,omitempty" doc:"the lowest light, where the shot sees a range"`
	Looks  []Look `json:"looks,omitempty" maxItems:"50"`
	Source string `json:"source,omitempty" enum:"real,simulated" doc:"where the reading came from; real by default"`
}

// Entry is one reading as typed. Which fields count depends on the kind.
type Entry struct {
	Text    string   `json:"text,omitempty" maxLength:"100" doc:"meter: f2 1/1250 iso50 or EV 14.3; lux: 6400"`
	Shutter string   `json:"shutter,omitempty" maxLength:"20" doc:"auto: what the automatic chose; bias: the locked shutter, the target by default"`
	ISO     string   `json:"iso,omitempty" maxLength:"12" doc:"auto and bias; base ISO by default"`
	Bias    string   `json:"bias,omitempty" maxLength:"8" doc:"bias: as shown, as in +0.7"`
	Glass   []string `json:"glass,omitempty" maxItems:"4" doc:"auto and bias: ids of the loose glass that was on"`
}

// ShotAnswer is everything the Shot screen shows.
type ShotAnswer struct {
	Model   string         `json:"model" doc:"version of the rules this answer follows"`
	Reading *ReadingAnswer `json:"reading" doc:"the light; in a range the highest"`
	Low     *ReadingAnswer `json:"low,omitempty" doc:"in a range the lowest light"`
	Shutter *ShutterAnswer `json:"shutter"`
	Offset  stop.Stops     `json:"offsetStops"`
	Band    Tolerance      `json:"tolerance"`
	Solve   *SolveAnswer   `json:"solve"`
	Step    *StepAnswer    `json:"step,omitempty" doc:"without a meter: what to put on next"`
	Chosen  Option         `json:"chosen" doc:"the glass placed, the glass to look through, or the best option"`
	Placed  bool           `json:"placed" doc:"true when chosen was placed by hand"`
	Settled bool           `json:"settled" doc:"false while the light is still being found by looking"`
	State   glass.State    `json:"state,omitempty" enum:"holds,tight,breaks" doc:"of the shot as a whole: the worst of all demands at the shutter and glass taken"`
	Gives   *string        `json:"gives,omitempty" doc:"what gives way and by how much; left out where nothing does"`
	Window  *WindowAnswer  `json:"window,omitempty" doc:"every demand on the shutter; a trade's change is a merge patch for the fields of a shot"`
	ShotSides
}

// AnswerShot answers shot.
func AnswerShot(r ShotRequest) (*ShotAnswer, error) {
	a, _, _, err := answerShot(r)
	return a, err
}

// answerShot answers a shot and returns with it the scene and the bench that the
// answer was found on.
func answerShot(asked ShotRequest) (*ShotAnswer, *shot.Scene, *bench, error) {
	r := asked.tried()
	wish, shutter, err := r.wish()
	if err != nil {
		return nil, nil, nil, err
	}
	b, err := wish.bench()
	if err != nil {
		return nil, nil, nil, inShot(err)
	}
	a := &ShotAnswer{Model: ModelVersion, Shutter: shutter, Offset: b.question.Offset, Settled: true,
		Band: Tolerance{Dark: b.question.Band.Dark, Bright: b.question.Band.Bright}}
	if r.Light.Kind == "looks" {
		err = a.look(&r, b)
	} else {
		err = a.read(&r, b)
	}
	if err != nil {
		return nil, nil, nil, err
	}
	scene, err := a.weigh(&r, b, r.planWish(*wish.ShutterS))
	if err != nil {
		return nil, nil, nil, err
	}
	return a, scene, b, nil
}

// planWish returns the wish as plan takes it: an angle stays one when the frame
// rate changes.
func (r *ShotRequest) planWish(t stop.Shutter) shot.Wish {
	fps, _ := stop.ParseRate(r.Look.FPS) // wish has read both
	if deg, isAngle := stop.ParseAngle(r.Look.Target); isAngle && fps > 0 && r.Scene.Interval == 0 {
		return shot.Wish{Angle: deg}
	}
	return shot.Wish{Time: t}
}

// weigh finds the shutter that the school takes, chooses the glass for it, and
// says what every demand makes of the two.
func (a *ShotAnswer) weigh(r *ShotRequest, b *bench, wish shot.Wish) (*shot.Scene, error) {
	scene, err := r.planned(b, wish)
	if err != nil {
		return nil, err
	}
	w, err := scene.Window()
	if err != nil {
		return nil, noPossibleStep("camera.steps", r.Camera.Steps, b.question.Rate)
	}
	if a.Settled { // while the light is looked for, the camera stays locked at the target
		b.question.Setting.Shutter = w.Verdict.Question.Setting.Shutter
	}
	a.Solve = b.solve()
	a.Chosen = a.Solve.Options[0]
	var weighed glass.Option
	switch {
	case r.Placed != nil:
		a.Placed = true
		weighed, err = a.choose(b, *r.Placed, "placed")
	case a.Step != nil:
		weighed, err = a.choose(b, a.Step.Next.Filters, "light.looks")
	default:
		weighed, err = a.choose(b, ids(w.Verdict.Option.Filters), "kit")
	}
	if err != nil {
		return nil, err
	}
	w.Verdict.Question, w.Verdict.Option = b.question, weighed
	scene.Judge(w, &w.Verdict)
	a.State = w.Verdict.State
	if gives := w.Verdict.Gives(); gives != "" {
		a.Gives = &gives
	}
	a.Window = b.window(scene, w, shotChange)
	if err := a.sides(r, scene, b, &weighed, wish); err != nil {
		return nil, err
	}
	a.Explain = a.explain(scene, b, weighed.Shutters())
	return scene, nil
}

// wish turns the written look into the fields that solve takes.
func (r *ShotRequest) wish() (*Wish, *ShutterAnswer, error) {
	fps, err := stop.ParseRate(r.Look.FPS)
	if err != nil {
		return nil, nil, unreadable("look.fps", err)
	}
	rate := fps
	if r.Scene.Interval > 0 { // a time-lapse is a row of stills: its angle is of the interval
		fps, rate = 0, stop.FrameRate(1/r.Scene.Interval)
	}
	t, err := stop.ParseShutter(r.Look.Target, rate)
	if err != nil {
		return nil, nil, unreadable("look.target", err)
	}
	if !t.Possible(fps) {
		return nil, nil, &problem.Fault{Field: "look.target", Value: r.Look.Target, Allowed: fmt.Sprintf("at most 360°, which is %v at %v fps", fps.Frame(), fps)}
	}
	shutter, err := Shutter(ShutterRequest{ShutterS: number(t.Seconds()), FPS: float64(fps), Steps: r.Camera.Steps, Delivery: r.Scene.Delivery})
	if err != nil {
		return nil, nil, inShot(err)
	}
	return &Wish{Camera: r.Camera, FPS: float64(fps), ShutterS: &t, Kit: r.Kit, Choices: r.Choices}, shutter, nil
}

// inShot renames the fields of a fault to those a shot has.
func inShot(err error) error {
	if fault, ok := err.(*problem.Fault); ok {
		switch fault.Field {
		case "steps":
			fault.Field = "camera.steps"
		case "shutterS", "angleDeg", "text":
			fault.Field = "look.target"
		case "delivery.fps", "delivery.factor":
			fault.Field = "scene." + fault.Field
		}
	}
	return err
}

// read takes the light from one reading or two.
func (a *ShotAnswer) read(r *ShotRequest, b *bench) error {
	if r.Light.At == nil {
		return &problem.Fault{Field: "light.at", Allowed: "a reading"}
	}
	high, err := r.read(r.Light.At, "light.at", b)
	if err != nil {
		return err
	}
	b.question.Light = glass.Light{Low: high.EV, High: high.EV, Spread: high.Spread}
	if r.Light.Low != nil {
		low, err := r.read(r.Light.Low, "light.low", b)
		if err != nil {
			return err
		}
		if low.EV > high.EV {
			return &problem.Fault{Field: "light.low", Value: low.EV.String(), Allowed: "no more light than the highest reading, " + high.EV.String()}
		}
		b.question.Light.Low, b.question.Light.Ranged = low.EV, true
		a.Low = readingAnswer(low)
	}
	a.Reading = readingAnswer(high)
	return nil
}

// look takes the light from looks at the picture.
func (a *ShotAnswer) look(r *ShotRequest, b *bench) error {
	step, err := b.step(r.Light.Looks)
	if err != nil {
		return inLooks(err)
	}
	found := glass.Interval{Low: step.LowEV100, High: step.HighEV100}
	scene := light.Scene{EV: found.Middle(), Spread: found.Width() / 2}
	b.question.Light = glass.Light{Low: scene.EV, High: scene.EV, Spread: scene.Spread}
	a.Step, a.Settled, a.Reading = step, step.Settled, readingAnswer(scene)
	return nil
}

func inLooks(err error) error {
	if fault, ok := err.(*problem.Fault); ok && strings.HasPrefix(fault.Field, "looks") {
		fault.Field = "light." + fault.Field
	}
	return err
}

// choose makes the option of exactly these filters the chosen one. Glass placed
// by hand may be of kinds that are not offered unasked, so it is weighed afresh; a
// set that is offered goes on in the order in which it is.
func (a *ShotAnswer) choose(b *bench, ids []string, field string) (glass.Option, error) {
	for _, o := range a.Solve.Options {
		if sameFilters(o.Filters, ids) {
			ids = o.Filters
			break
		}
	}
	weighed, err := b.weigh(ids, field)
	if err != nil {
		return weighed, err
	}
	a.Chosen = b.option(&weighed)
	return weighed, nil
}

package calc

import (
	"fmt"
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
	Placed *[]string `json:"placed,omitempty" maxItems:"4" doc:"ids of the glass put on by hand; left out, the best option is taken"`
}

// ShotLook is the frame rate and the shutter wanted.
type ShotLook struct {
	FPS    string `json:"fps" maxLength:"12" doc:"25, 29.97, 50fps; still"`
	Target string `json:"target" maxLength:"20" doc:"180°, or a time such as 1/100"`
}

// ShotLight is what was read, in one of the forms people use.
type ShotLight struct {
	Kind  string `json:"kind" enum:"meter,auto,bias,lux,looks" doc:"a hand meter, the camera's automatic, the bias of the locked camera, lux, or no meter at all"`
	At    *Entry `json:"at,omitempty" doc:"the reading; in a range the highest light"`
	Low   *Entry `json:"low,omitempty" doc:"the lowest light, where the shot sees a range"`
	Looks []Look `json:"looks,omitempty" maxItems:"50"`
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
}

// AnswerShot answers shot.
func AnswerShot(r ShotRequest) (*ShotAnswer, error) {
	wish, shutter, err := r.wish()
	if err != nil {
		return nil, err
	}
	b, err := wish.bench()
	if err != nil {
		return nil, inShot(err)
	}
	a := &ShotAnswer{Model: ModelVersion, Shutter: shutter, Offset: b.question.Offset, Settled: true,
		Band: Tolerance{Dark: b.question.Band.Dark, Bright: b.question.Band.Bright}}
	if r.Light.Kind == "looks" {
		err = a.byLooking(&r, b)
	} else {
		err = a.byReading(&r, b)
	}
	if err != nil {
		return nil, err
	}
	if r.Placed != nil {
		return a, a.place(&r, b)
	}
	return a, nil
}

// wish turns the written look into the fields that solve takes.
func (r *ShotRequest) wish() (*Wish, *ShutterAnswer, error) {
	fps, err := stop.ParseRate(r.Look.FPS)
	if err != nil {
		return nil, nil, unreadable("look.fps", err)
	}
	t, err := stop.ParseShutter(r.Look.Target, fps)
	if err != nil {
		return nil, nil, unreadable("look.target", err)
	}
	if !t.Possible(fps) {
		return nil, nil, &problem.Fault{Field: "look.target", Value: r.Look.Target, Allowed: fmt.Sprintf("at most 360°, which is %v at %v fps", fps.Frame(), fps)}
	}
	shutter, err := Shutter(ShutterRequest{Text: r.Look.Target, FPS: float64(fps), Steps: r.Camera.Steps})
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
		}
	}
	return err
}

// byReading answers from one reading or two.
func (a *ShotAnswer) byReading(r *ShotRequest, b *bench) error {
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
	a.Solve = b.solve()
	a.Chosen = a.Solve.Options[0]
	return nil
}

// byLooking answers from looks at the picture.
func (a *ShotAnswer) byLooking(r *ShotRequest, b *bench) error {
	step, err := b.step(r.Light.Looks)
	if err != nil {
		return inLooks(err)
	}
	found := glass.Interval{Low: step.LowEV100, High: step.HighEV100}
	scene := light.Scene{EV: found.Middle(), Spread: found.Width() / 2}
	b.question.Light = glass.Light{Low: scene.EV, High: scene.EV, Spread: scene.Spread}
	a.Step, a.Settled, a.Reading = step, step.Settled, readingAnswer(scene)
	a.Solve = b.solve()
	return a.choose(b, step.Next.Filters, "light.looks")
}

func inLooks(err error) error {
	if fault, ok := err.(*problem.Fault); ok && strings.HasPrefix(fault.Field, "looks") {
		fault.Field = "light." + fault.Field
	}
	return err
}

// read reduces one typed reading to the light of the scene.
func (r *ShotRequest) read(e *Entry, path string, b *bench) (light.Scene, error) {
	switch r.Light.Kind {
	case "meter", "lux":
		return r.readText(e, path, b)
	case "bias":
		bias, err := stop.ParseSigned(e.Bias)
		if err == nil && (bias < -10 || bias > 10) {
			err = &stop.ParseError{What: "a bias", Input: e.Bias, Err: light.ErrReach}
		}
		if err != nil {
			return light.Scene{}, unreadable(path+".bias", err)
		}
		locked, on, err := r.cameraSetting(e, path, b, true)
		return light.FromBias(locked, on, stop.Stops(bias)), err
	}
	chosen, on, err := r.cameraSetting(e, path, b, false)
	return light.FromSetting(chosen, on), err
}

// readText reads what stands in a single field: a meter's setting, an exposure
// value or lux.
func (r *ShotRequest) readText(e *Entry, path string, b *bench) (light.Scene, error) {
	text := e.Text
	if _, err := stop.ParseSigned(text); err == nil && r.Light.Kind == "lux" {
		text += " lux"
	}
	w, err := light.ParseWritten(text)
	if err != nil {
		return light.Scene{}, unreadable(path+".text", err)
	}
	incomplete := func(allowed string) (light.Scene, error) {
		return light.Scene{}, &problem.Fault{Field: path + ".text", Value: e.Text, Allowed: allowed}
	}
	switch w.Form {
	case light.AsEV:
		return light.Scene{EV: w.EV, Spread: light.OnTheSpot}, nil
	case light.AsLux:
		return light.FromLux(w.Lux), nil
	case light.AsBias:
		return incomplete("a meter's reading; a bias has its own entry")
	}
	if r.Light.Kind == "lux" {
		return incomplete("incident light in lux, as in 6400")
	}
	if w.Setting.Shutter == 0 {
		return incomplete("a shutter time too, as in f2 1/1250 iso50")
	}
	// A meter is set to the camera's own aperture and base ISO unless it says otherwise.
	if w.Setting.Aperture == 0 {
		w.Setting.Aperture = b.question.Setting.Aperture
	}
	if w.Setting.ISO == 0 {
		w.Setting.ISO = b.question.Setting.ISO
	}
	return light.FromSetting(w.Setting, 0), nil
}

// cameraSetting returns the setting the camera was at when it was read and the
// stops of all glass before it, what lives on the lens included. A locked camera
// stands at the target unless its shutter was written.
func (r *ShotRequest) cameraSetting(e *Entry, path string, b *bench, isLocked bool) (stop.Setting, stop.Stops, error) {
	s := b.question.Setting
	if !isLocked || e.Shutter != "" {
		t, err := stop.ParseShutter(e.Shutter, b.question.Rate)
		if err != nil {
			return s, 0, unreadable(path+".shutter", err)
		}
		s.Shutter = t
	}
	if e.ISO != "" {
		iso, err := stop.ParseISO(e.ISO)
		if err != nil {
			return s, 0, unreadable(path+".iso", err)
		}
		s.ISO = iso
	}
	on, err := r.glassOn(e.Glass, path+".glass")
	return s, on, err
}

// glassOn sums the stops of the named loose filters and of what lives on the lens.
func (r *ShotRequest) glassOn(loose []string, path string) (stop.Stops, error) {
	kit, err := filters(r.Kit)
	if err != nil {
		return 0, err
	}
	byID := map[string]*glass.Filter{}
	for i := range kit {
		byID[kit[i].ID] = &kit[i]
	}
	var sum stop.Stops
	counted := map[string]bool{}
	for i, id := range append(append([]string{}, r.Mounted...), loose...) {
		f, known := byID[id]
		at := fmt.Sprintf("%s[%d]", path, i-len(r.Mounted))
		switch {
		case !known:
			return 0, &problem.Fault{Field: at, Value: id, Allowed: "the id of a filter in the kit"}
		case f.Kind == glass.Variable:
			return 0, &problem.Fault{Field: at, Value: id, Allowed: "glass of fixed strength: where a variable filter's ring stood is not known, so read without it"}
		case !counted[id]:
			counted[id] = true
			sum += f.Stops
		}
	}
	return sum, nil
}

// place makes the glass that was put on by hand the chosen option.
func (a *ShotAnswer) place(r *ShotRequest, b *bench) error {
	a.Placed = true
	return a.choose(b, *r.Placed, "placed")
}

// choose makes the option of exactly these filters the chosen one. Glass placed
// by hand may be of kinds that are not offered unasked, so it is weighed afresh.
func (a *ShotAnswer) choose(b *bench, ids []string, field string) error {
	for _, o := range a.Solve.Options {
		if sameSet(o.Filters, ids) {
			a.Chosen = o
			return nil
		}
	}
	o, err := b.weigh(ids, field)
	if err != nil {
		return err
	}
	a.Chosen = *o
	return nil
}

func sameSet(a, b []string) bool {
	if len(a) != len(b) {
		return false
	}
	in := map[string]bool{}
	for _, id := range a {
		in[id] = true
	}
	for _, id := range b {
		if !in[id] {
			return false
		}
	}
	return true
}

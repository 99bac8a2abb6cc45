package calc

import (
	"fmt"
	"pinhole/core/assemble"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// ShutterRequest asks for the camera's shutter nearest to a wish: exactly one of
// text, shutterS and angleDeg.
type ShutterRequest struct {
	Text      string             `json:"text,omitempty" maxLength:"20" doc:"1/60, 60, 0.5s, 2\" or 180°"`
	ShutterS  *float64           `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
	AngleDeg  *float64           `json:"angleDeg,omitempty" minimum:"0.001" maximum:"360" doc:"degrees"`
	FPS       float64            `json:"fps,omitempty" minimum:"0.00001" maximum:"10000" doc:"frames per second; left out for a still"`
	Steps     []stop.Shutter     `json:"steps,omitempty" maxItems:"200" minimum:"0.0000001" maximum:"86400" doc:"the shutter times the camera offers, in seconds; none means any"`
	Delivery  *assemble.Delivery `json:"delivery,omitempty"`
	IntervalS float64            `json:"intervalS,omitempty" minimum:"0.001" maximum:"86400" doc:"time-lapse: seconds from frame to frame"`
	WriteS    *float64           `json:"writeS,omitempty" minimum:"0" maximum:"60" doc:"time-lapse: seconds the camera needs to write a frame; 0.5 by default"`
}

// ShutterAnswer is the wish beside what the camera offers.
type ShutterAnswer struct {
	IdealS            float64  `json:"idealS"`
	ShutterS          float64  `json:"shutterS"`
	SnapStops         float64  `json:"snapStops" doc:"positive lets in more light than wished"`
	AngleDeg          *float64 `json:"angleDeg" doc:"null for a still"`
	DeliveredAngleDeg *float64 `json:"deliveredAngleDeg" doc:"what viewers see; where no delivery is given every frame is shown; null for a still"`
	Text              string   `json:"text"`
	Possible          bool     `json:"possible"`
	Why               string   `json:"why,omitempty"`
}

// defaultWriteS is the time a camera needs to store a frame before the next.
const defaultWriteS = 0.5

// Shutter answers shutter.
func Shutter(r ShutterRequest) (*ShutterAnswer, error) {
	fps := stop.ExactRate(r.FPS)
	ideal, err := r.ideal(fps)
	if err != nil {
		return nil, err
	}
	rate := fps
	if r.IntervalS > 0 { // the frames of a time-lapse are as far apart as its interval
		rate = stop.FrameRate(1 / r.IntervalS)
	}
	snapped, ok := stop.Snap(ideal, r.Steps, rate)
	if !ok {
		return nil, assemble.NoPossibleStep("steps", r.Steps, rate)
	}
	a := &ShutterAnswer{
		IdealS: ideal.Seconds(), ShutterS: snapped.Offered.Seconds(), SnapStops: float64(snapped.Off),
		Text: snapped.Offered.String(), Possible: true,
	}
	if rate > 0 {
		a.AngleDeg = number(float64(snapped.Offered.Angle(rate)))
	}
	if err := a.deliver(r, snapped.Offered, rate); err != nil {
		return nil, err
	}
	a.judge(r, ideal, fps)
	return a, nil
}

func number(v float64) *float64 { return &v }

func (r *ShutterRequest) ideal(fps stop.FrameRate) (stop.Shutter, error) {
	given := 0
	for _, is := range []bool{r.Text != "", r.ShutterS != nil, r.AngleDeg != nil} {
		if is {
			given++
		}
	}
	if given != 1 {
		return 0, &problem.Fault{Field: "text", Value: given, Allowed: "exactly one of text, shutterS and angleDeg"}
	}
	rate := fps
	if r.IntervalS > 0 {
		rate = stop.FrameRate(1 / r.IntervalS)
	}
	switch {
	case r.ShutterS != nil:
		return stop.Shutter(*r.ShutterS), nil
	case r.Text != "":
		t, err := stop.ParseShutter(r.Text, rate)
		if err != nil {
			return 0, assemble.Unreadable("text", err)
		}
		return t, nil
	case rate == 0:
		return 0, &problem.Fault{Field: "fps", Allowed: "a frame rate or an interval: an angle says nothing without one"}
	}
	return stop.Angle(*r.AngleDeg).At(rate), nil
}

// deliver fills in the angle that viewers see.
func (a *ShutterAnswer) deliver(r ShutterRequest, t stop.Shutter, capture stop.FrameRate) error {
	if r.Delivery == nil {
		a.DeliveredAngleDeg = a.AngleDeg
		return nil
	}
	d, err := r.Delivery.Delivery()
	if err != nil {
		return problem.At("delivery", err)
	}
	shown := d.Shown(capture)
	if shown == 0 {
		return &problem.Fault{Field: "fps", Allowed: "the frame rate at which every frame is shot"}
	}
	a.DeliveredAngleDeg = number(float64(t.Angle(shown)))
	return nil
}

// judge says whether the wish can be shot as it stands.
func (a *ShutterAnswer) judge(r ShutterRequest, ideal stop.Shutter, fps stop.FrameRate) {
	if r.IntervalS > 0 {
		write := defaultWriteS
		if r.WriteS != nil {
			write = *r.WriteS
		}
		if !stop.AtMost(a.ShutterS+write, r.IntervalS) {
			a.Possible = false
			a.Why = fmt.Sprintf("%s and %.1f s to write the frame do not fit into an interval of %.1f s", a.Text, write, r.IntervalS)
		}
		return
	}
	if !ideal.Possible(fps) {
		a.Possible = false
		a.Why = fmt.Sprintf("%v is longer than a frame at %v fps; the longest is %v", ideal, fps, fps.Frame())
	}
}

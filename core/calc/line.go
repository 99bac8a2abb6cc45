package calc

import (
	"errors"
	"pinhole/core/assemble"
	"strings"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// LineRequest is a quick line and, where there is one, the bench it is asked on.
type LineRequest struct {
	Line   string               `json:"line" minLength:"1" maxLength:"100" doc:"a reading > a look, as in f2 1/1250 iso50 > 50fps 180°"`
	Camera *assemble.Camera     `json:"camera,omitempty" doc:"with a camera the line is answered, else only read"`
	Kit    []assemble.KitFilter `json:"kit,omitempty" maxItems:"200"`
	Look   *assemble.ShotLook   `json:"look,omitempty" doc:"used where the line names no look"`
	assemble.Choices
}

// LineAnswer is the line as the fields of a shot, and that shot's answer.
type LineAnswer struct {
	Light assemble.ShotLight `json:"light"`
	Look  assemble.ShotLook  `json:"look"`
	Shot  *ShotAnswer        `json:"shot,omitempty"`
}

// defaultTarget is the look of a line that names none.
const defaultTarget = "180°"

// ReadLine answers line.
func ReadLine(r LineRequest) (*LineAnswer, error) {
	a, err := r.read()
	if err != nil {
		return nil, &problem.Fault{Field: "line", Value: r.Line, Allowed: lineCause(err).Error()}
	}
	if r.Camera == nil {
		return a, nil
	}
	a.Shot, err = AnswerShot(assemble.ShotRequest{Camera: *r.Camera, Kit: r.Kit, Look: a.Look, Light: a.Light, Choices: r.Choices})
	if err != nil {
		return nil, err
	}
	return a, nil
}

func lineCause(err error) error {
	var parse *stop.ParseError
	if errors.As(err, &parse) {
		return parse.Err
	}
	return err
}

func (r *LineRequest) read() (*LineAnswer, error) {
	reading, look, hasLook := strings.Cut(r.Line, ">")
	if strings.Contains(look, ">") {
		return nil, assemble.ErrLineParts
	}
	a := &LineAnswer{}
	if r.Look != nil {
		a.Look = *r.Look
	}
	if hasLook {
		if err := a.Look.Read(look); err != nil {
			return nil, err
		}
	}
	if a.Look.Target == "" {
		a.Look.Target = defaultTarget
	}
	if a.Look.FPS == "" {
		return nil, assemble.ErrLineFPS
	}
	return a, a.Light.Read(reading)
}

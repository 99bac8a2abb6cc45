package calc

import (
	"errors"
	"regexp"
	"strings"

	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// LineRequest is a quick line and, where there is one, the bench it is asked on.
type LineRequest struct {
	Line   string      `json:"line" minLength:"1" maxLength:"100" doc:"a reading > a look, as in f2 1/1250 iso50 > 50fps 180°"`
	Camera *Camera     `json:"camera,omitempty" doc:"with a camera the line is answered, else only read"`
	Kit    []KitFilter `json:"kit,omitempty" maxItems:"200"`
	Look   *ShotLook   `json:"look,omitempty" doc:"used where the line names no look"`
	Choices
}

// LineAnswer is the line as the fields of a shot, and that shot's answer.
type LineAnswer struct {
	Light ShotLight   `json:"light"`
	Look  ShotLook    `json:"look"`
	Shot  *ShotAnswer `json:"shot,omitempty"`
}

// Causes of a quick line that cannot be read.
var (
	errLineLook  = errors.New("after > write the look, as in 50fps 180° or 25fps 1/100")
	errLineFPS   = errors.New("write the frame rate after >, as in > 50fps")
	errLineParts = errors.New("write one reading and one look with a single > between them")
)

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
	a.Shot, err = AnswerShot(ShotRequest{Camera: *r.Camera, Kit: r.Kit, Look: a.Look, Light: a.Light, Choices: r.Choices})
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
		return nil, errLineParts
	}
	a := &LineAnswer{}
	if r.Look != nil {
		a.Look = *r.Look
	}
	if hasLook {
		if err := a.Look.read(look); err != nil {
			return nil, err
		}
	}
	if a.Look.Target == "" {
		a.Look.Target = defaultTarget
	}
	if a.Look.FPS == "" {
		return nil, errLineFPS
	}
	return a, a.Light.read(reading)
}

var lineRate = regexp.MustCompile(`^[0-9.]+(fps|p)$`)

// read takes the words of the look over those that stand already. A frame rate
// alone leaves the target angle; it follows the frame rate.
func (l *ShotLook) read(text string) error {
	for _, word := range strings.Fields(strings.ReplaceAll(strings.ToLower(text), " fps", "fps")) {
		if lineRate.MatchString(word) {
			rate, err := stop.ParseRate(word)
			if err != nil {
				return err
			}
			l.FPS = rate.String()
			continue
		}
		const anyRate = 1 // an angle is read against the frame rate later
		if _, err := stop.ParseShutter(word, anyRate); err != nil {
			return errLineLook
		}
		l.Target = word
	}
	return nil
}

// read sorts the reading by its form. A setting without an aperture is the
// camera's own automatic.
func (l *ShotLight) read(text string) error {
	text = strings.TrimSpace(text)
	w, err := light.ParseWritten(text)
	if err != nil {
		return err
	}
	switch {
	case w.Form == light.AsLux:
		*l = ShotLight{Kind: "lux", At: &Entry{Text: text}}
	case w.Form == light.AsBias:
		*l = ShotLight{Kind: "bias", At: &Entry{Bias: w.Bias.Signed()}}
	case w.Form == light.AsSetting && w.Setting.Shutter == 0:
		return light.ErrReading
	case w.Form == light.AsSetting && w.Setting.Aperture == 0:
		e := &Entry{Shutter: w.Setting.Shutter.String()}
		if w.Setting.ISO > 0 {
			e.ISO = plainISO(w.Setting.ISO)
		}
		*l = ShotLight{Kind: "auto", At: e}
	default:
		*l = ShotLight{Kind: "meter", At: &Entry{Text: text}}
	}
	return nil
}

func plainISO(i stop.ISO) string { return strings.TrimPrefix(i.String(), "ISO ") }

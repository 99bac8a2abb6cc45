package assemble

import (
	"errors"
	"regexp"
	"strings"

	"pinhole/core/light"
	"pinhole/core/stop"
)

// Causes of a quick line that cannot be read.
var (
	errLineLook  = errors.New("after > write the look, as in 50fps 180° or 25fps 1/100")
	ErrLineFPS   = errors.New("write the frame rate after >, as in > 50fps")
	ErrLineParts = errors.New("write one reading and one look with a single > between them")
)

var lineRate = regexp.MustCompile(`^[0-9.]+(fps|p)$`)

// Read takes the words of the look over those that stand already. A frame rate
// alone leaves the target angle; it follows the frame rate.
func (l *ShotLook) Read(text string) error {
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

// Read sorts the reading by its form. A setting without an aperture is the
// camera's own automatic.
func (l *ShotLight) Read(text string) error {
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

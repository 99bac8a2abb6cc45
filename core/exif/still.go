package exif

import (
	"errors"
	"fmt"
	"time"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Still is how a picture was exposed, as its EXIF says.
type Still struct {
	Aperture stop.FNumber `json:"aperture"`
	ShutterS stop.Shutter `json:"shutterS"`
	ISO      stop.ISO     `json:"iso"`
	Text     string       `json:"text" doc:"as a reading is typed: f2 1/1250 iso50"`
	EV100    stop.EV      `json:"ev100" doc:"of the scene, where no filter was on"`
	TakenAt  *time.Time   `json:"takenAt,omitempty" doc:"with the zone it states; left out where it states no time or no zone"`
	Clock    string       `json:"clock,omitempty" doc:"the time on its clock, where its zone is not known"`
	Where    *Spot        `json:"where,omitempty"`
}

// ReadStill reads the exposure of a picture: a JPEG, PNG, HEIC, AVIF or raw file. Faults name
// "file".
func ReadStill(picture []byte) (*Still, error) {
	const allowed = "a photo whose EXIF states aperture, shutter and ISO"
	tags, err := TryRead(picture)
	if err != nil {
		value := fmt.Sprintf("%.120s", err)
		if errors.Is(err, ErrFormat) {
			value = "no picture that is known"
		}
		return nil, &problem.Fault{Field: "file", Value: value, Allowed: "a JPEG, PNG, HEIC, AVIF or raw file with EXIF"}
	}
	for _, f := range []struct {
		said float64
		name string
	}{{float64(tags.Aperture), "aperture"}, {float64(tags.ShutterS), "shutter"}, {float64(tags.ISO), "ISO"}} {
		if f.said == 0 {
			return nil, &problem.Fault{Field: "file", Value: "no " + f.name, Allowed: allowed}
		}
	}
	set := stop.Setting{Aperture: tags.Aperture, Shutter: tags.ShutterS, ISO: tags.ISO}
	return &Still{
		Aperture: tags.Aperture, ShutterS: tags.ShutterS, ISO: tags.ISO, EV100: set.EV(),
		Text:    fmt.Sprintf("f%.3g %v iso%.0f", float64(tags.Aperture), tags.ShutterS, float64(tags.ISO)),
		TakenAt: tags.TakenAt, Clock: tags.Clock, Where: tags.Where,
	}, nil
}

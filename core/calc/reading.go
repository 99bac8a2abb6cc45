package calc

import (
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// ReadingRequest is what was read, and off what.
type ReadingRequest struct {
	Kind       string        `json:"kind" enum:"meter,auto,bias,lux" doc:"meter: a hand meter; auto: what the camera's automatic chose; bias: what a locked camera shows; lux: incident light"`
	Aperture   *stop.FNumber `json:"aperture,omitempty" minimum:"0.5" maximum:"64" doc:"f-number"`
	ShutterS   *stop.Shutter `json:"shutterS,omitempty" exclusiveMinimum:"0" maximum:"86400" doc:"seconds"`
	ISO        *stop.ISO     `json:"iso,omitempty" minimum:"1" maximum:"10000000"`
	GlassStops stop.Stops    `json:"glassStops,omitempty" minimum:"0" maximum:"40" doc:"stops of glass that were on when it was read"`
	BiasStops  *stop.Stops   `json:"biasStops,omitempty" minimum:"-10" maximum:"10" doc:"the bias shown, positive brighter than the camera wants"`
	Lux        *float64      `json:"lux,omitempty" exclusiveMinimum:"0" maximum:"1000000" doc:"lux"`
}

// ReadingAnswer is the light of the scene.
type ReadingAnswer struct {
	EV100       stop.EV    `json:"ev100" doc:"exposure value at ISO 100"`
	Lux         float64    `json:"lux" doc:"incident light that would make it"`
	SpreadStops stop.Stops `json:"spreadStops" doc:"how far it may be off, either way"`
	Text        string     `json:"text"`
}

// TakeReading answers reading.
func TakeReading(r ReadingRequest) (*ReadingAnswer, error) {
	scene, err := r.scene()
	if err != nil {
		return nil, err
	}
	return readingAnswer(scene), nil
}

func readingAnswer(s light.Scene) *ReadingAnswer {
	return &ReadingAnswer{EV100: s.EV, Lux: s.EV.Lux(), SpreadStops: s.Spread, Text: s.EV.String()}
}

func (r *ReadingRequest) scene() (light.Scene, error) {
	if r.Kind == "lux" {
		if r.Lux == nil {
			return light.Scene{}, &problem.Fault{Field: "lux", Allowed: "incident light in lux, above 0"}
		}
		return light.FromLux(*r.Lux), nil
	}
	switch {
	case r.Aperture == nil:
		return light.Scene{}, &problem.Fault{Field: "aperture", Allowed: "the f-number that was read, from 0.5 to 64"}
	case r.ShutterS == nil:
		return light.Scene{}, &problem.Fault{Field: "shutterS", Allowed: "the shutter time that was read, in seconds"}
	case r.ISO == nil:
		return light.Scene{}, &problem.Fault{Field: "iso", Allowed: "the ISO that was read"}
	}
	setting := stop.Setting{Aperture: *r.Aperture, Shutter: *r.ShutterS, ISO: *r.ISO}
	if r.Kind == "bias" {
		if r.BiasStops == nil {
			return light.Scene{}, &problem.Fault{Field: "biasStops", Allowed: "the bias the camera shows, from -10 to 10 stops"}
		}
		return light.FromBias(setting, r.GlassStops, *r.BiasStops), nil
	}
	return light.FromSetting(setting, r.GlassStops), nil
}

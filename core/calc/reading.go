package calc

import (
	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// ReadingRequest is what was read, and off what.
type ReadingRequest struct {
	Text       string        `json:"text,omitempty" maxLength:"100" doc:"meter: as it is written, in place of the numbers: f2 1/1250 iso50, EV 14.3, 6400 lux"`
	Kind       string        `json:"kind" enum:"meter,auto,bias,lux,sky" doc:"meter: a hand meter; auto: what the camera's automatic chose; bias: what a locked camera shows; lux: incident light; sky: by sun and cloud alone"`
	Aperture   *stop.FNumber `json:"aperture,omitempty" minimum:"0.5" maximum:"64" doc:"f-number"`
	ShutterS   *stop.Shutter `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
	ISO        *stop.ISO     `json:"iso,omitempty" minimum:"1" maximum:"10000000"`
	GlassStops stop.Stops    `json:"glassStops,omitempty" minimum:"0" maximum:"40" doc:"stops of glass that were on when it was read"`
	BiasStops  *stop.Stops   `json:"biasStops,omitempty" minimum:"-10" maximum:"10" doc:"the bias shown, positive brighter than the camera wants"`
	Lux        *float64      `json:"lux,omitempty" minimum:"0.000001" maximum:"1000000" doc:"lux"`
	SkyFields
}

// SkyFields describe daylight by eye.
type SkyFields struct {
	Sky            light.Sky   `json:"sky,omitempty"`
	SunAltitudeDeg *angle.Deg  `json:"sunAltitudeDeg,omitempty" minimum:"-90" maximum:"90" doc:"geometric, degrees"`
	BetaDeg        angle.Deg   `json:"betaDeg,omitempty" minimum:"-360" maximum:"360" doc:"how far an upright subject faces away from the sun's azimuth"`
	Plane          light.Plane `json:"plane,omitempty" doc:"which way the subject faces; vertical by default"`
	GroundAlbedo   *float64    `json:"groundAlbedo,omitempty" minimum:"0" maximum:"1" doc:"0.2 by default"`
	SurfaceStops   stop.Stops  `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5" doc:"how much brighter than mid-grey the scene's surfaces are"`
	DayOfYear      int         `json:"dayOfYear,omitempty" minimum:"1" maximum:"366" doc:"172, midsummer in the north, by default"`
}

// defaultDay is the day of the year that a sky without a date has.
const defaultDay = 172

func (f *SkyFields) scene() (light.Scene, error) {
	switch {
	case f.Sky == "":
		return light.Scene{}, &problem.Fault{Field: "sky", Allowed: "one of clear, partly, overcast"}
	case f.SunAltitudeDeg == nil:
		return light.Scene{}, &problem.Fault{Field: "sunAltitudeDeg", Allowed: "the sun's geometric altitude, from -90 to 90 degrees"}
	}
	plane, albedo, day := f.Plane, light.DefaultAlbedo, f.DayOfYear
	if plane == "" {
		plane = light.Vertical
	}
	if f.GroundAlbedo != nil {
		albedo = *f.GroundAlbedo
	}
	if day == 0 {
		day = defaultDay
	}
	return light.FromSky(f.Sky, *f.SunAltitudeDeg, day, plane, f.BetaDeg, albedo, f.SurfaceStops), nil
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

// written reads the text.
func (r *ReadingRequest) written() (light.Scene, error) {
	w, err := light.ParseWritten(r.Text)
	if err != nil {
		return light.Scene{}, assemble.Unreadable("text", err)
	}
	s := w.Setting
	switch {
	case w.Form == light.AsEV:
		return light.Scene{EV: w.EV.Plus(r.GlassStops), Spread: light.OnTheSpot}, nil
	case w.Form == light.AsLux:
		return light.FromLux(w.Lux), nil
	case w.Form == light.AsBias || s.Aperture == 0 || s.Shutter == 0 || s.ISO == 0:
		return light.Scene{}, &problem.Fault{Field: "text", Value: r.Text, Allowed: "aperture, shutter and ISO, as in f2 1/1250 iso50, or EV 14.3, or 6400 lux"}
	}
	return light.FromSetting(s, r.GlassStops), nil
}

func readingAnswer(s light.Scene) *ReadingAnswer {
	return &ReadingAnswer{EV100: s.EV, Lux: s.EV.Lux(), SpreadStops: s.Spread, Text: s.EV.String()}
}

func (r *ReadingRequest) scene() (light.Scene, error) {
	if r.Text != "" {
		return r.written()
	}
	switch r.Kind {
	case "sky":
		return r.SkyFields.scene()
	case "lux":
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

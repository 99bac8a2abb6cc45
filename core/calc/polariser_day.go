package calc

import (
	"pinhole/core/assemble"
	"time"

	"pinhole/core/angle"
	"pinhole/core/light"
)

// PolariserDayRequest asks when in a day a polariser does most for one view.
type PolariserDayRequest struct {
	At time.Time `json:"at" doc:"an instant of the shot, in the zone of the place"`
	assemble.PlaceFields
	CameraAltitudeDeg angle.Deg `json:"cameraAltitudeDeg" minimum:"-90" maximum:"90"`
	CameraAzimuthDeg  angle.Deg `json:"cameraAzimuthDeg" minimum:"-360" maximum:"360"`
	HFOVDeg           angle.Deg `json:"hfovDeg" minimum:"0.01" maximum:"360"`
	Water             bool      `json:"water,omitempty" doc:"there is water in the picture"`
}

// PolariserDayAnswer is the effect then, and the best of the day.
type PolariserDayAnswer struct {
	Now             PolariserAnswer `json:"now"`
	SunAzimuthDeg   angle.Deg       `json:"sunAzimuthDeg"`
	BestHeadingsDeg []angle.Deg     `json:"bestHeadingsDeg" doc:"where the sky darkens most now, for a camera of this tilt; none where no heading is better"`
	BestAt          *time.Time      `json:"bestAt" doc:"when it does most for this view; null where the sun stays down"`
	BestCentre      float64         `json:"bestCentre"`
}

// polariserEvery is how densely the day is looked at.
const polariserEvery = 10 * time.Minute

// PolariserDay answers polariser-day.
func PolariserDay(r PolariserDayRequest) (*PolariserDayAnswer, error) {
	if err := assemble.CheckYear("at", r.At); err != nil {
		return nil, err
	}
	sun := light.Sun(r.At, r.Place())
	ask := PolariserRequest{SunAltitudeDeg: sun.Apparent(), SunAzimuthDeg: sun.Azimuth, CameraAltitudeDeg: r.CameraAltitudeDeg, CameraAzimuthDeg: r.CameraAzimuthDeg, HFOVDeg: r.HFOVDeg}
	if r.Water {
		ask.Water = &Water{DepressionDeg: max(0, -r.CameraAltitudeDeg)}
	}
	now, err := ThroughPolariser(ask)
	if err != nil {
		return nil, err
	}
	a := &PolariserDayAnswer{Now: *now, SunAzimuthDeg: sun.Azimuth, BestHeadingsDeg: append([]angle.Deg{}, light.BestHeadings(r.CameraAltitudeDeg, light.Direction{Altitude: sun.Apparent(), Azimuth: sun.Azimuth})...)}
	camera := light.Direction{Altitude: r.CameraAltitudeDeg, Azimuth: r.CameraAzimuthDeg}
	day := light.DayOf(r.At, r.Place())
	for t := day.Start; t.Before(day.End); t = t.Add(polariserEvery) {
		there := light.Sun(t, r.Place())
		if there.Geometric < light.Horizon {
			continue
		}
		e := light.AcrossFrame(camera, light.Direction{Altitude: there.Apparent(), Azimuth: there.Azimuth}, r.HFOVDeg)
		if e.Centre > a.BestCentre {
			at := t
			a.BestAt, a.BestCentre = &at, e.Centre
		}
	}
	return a, nil
}

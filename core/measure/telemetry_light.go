package measure

import (
	"math"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// light fills in the light of the scene and the samples to draw.
func (a *TelemetryAnswer) light(all []sample, o telemetryOptions) {
	aperture := func(s sample) float64 {
		if o.aperture > 0 {
			return o.aperture
		}
		return s.row.aperture
	}
	// Light as far as it is known: without an aperture, against an aperture of 1.
	ev := func(s sample) (scene stop.EV, isWhole bool) {
		set := stop.Setting{Aperture: 1, Shutter: stop.Shutter(s.shutter), ISO: 100}
		if isWhole = !math.IsNaN(aperture(s)) && !math.IsNaN(s.row.iso); !math.IsNaN(aperture(s)) {
			set.Aperture = stop.FNumber(aperture(s))
		}
		if !math.IsNaN(s.row.iso) {
			set.ISO = stop.ISO(s.row.iso)
		}
		scene = set.EV().Plus(stop.Stops(o.on))
		if !math.IsNaN(s.bias) {
			scene = scene.Plus(stop.Stops(s.bias))
		}
		return scene, isWhole
	}
	var lights []float64
	isWhole := true
	for _, s := range all {
		v, whole := ev(s)
		isWhole = isWhole && whole
		lights = append(lights, float64(v))
	}
	for i := 0; i < len(all); i += (len(all) + mostSamples - 1) / mostSamples {
		s := LogSample{T: all[i].t, ShutterS: stop.Shutter(all[i].shutter)}
		if !math.IsNaN(all[i].row.iso) {
			iso := stop.ISO(all[i].row.iso)
			s.ISO = &iso
		}
		if scene, whole := ev(all[i]); whole {
			s.EV = &scene
		}
		a.Samples = append(a.Samples, s)
	}
	slices.Sort(lights)
	p := Percentiles{stop.EV(quantile(lights, 0.05)), stop.EV(quantile(lights, 0.5)), stop.EV(quantile(lights, 0.95))}
	span := p.P95.Above(p.P5)
	a.SpanStops = &span
	if isWhole {
		a.EV100 = &p
		a.Reading = &LogReading{p.P50, max(light.OnTheSpot, p.P95.Above(p.P5)/2)}
	}
}

// quantile returns the ⌈q·n⌉-th smallest of sorted numbers.
func quantile(sorted []float64, q float64) float64 {
	return sorted[max(0, int(math.Ceil(q*float64(len(sorted))))-1)]
}

// place fills in where it was.
func (a *TelemetryAnswer) place(all []sample) {
	var lats, lons []float64
	for _, s := range all {
		if math.Abs(s.latDeg) <= 90 && math.Abs(s.lonDeg) <= 180 && (s.latDeg != 0 || s.lonDeg != 0) {
			lats, lons = append(lats, s.latDeg), append(lons, s.lonDeg)
		}
	}
	if len(lats) > 0 {
		a.Bounds = &LogBounds{angle.Deg(slices.Min(lats)), angle.Deg(slices.Max(lats)), angle.Deg(slices.Min(lons)), angle.Deg(slices.Max(lons))}
	}
	if heights := kept(all, func(s sample) float64 { return s.row.altitudeM }); len(heights) > 0 {
		a.AltitudeM = &AltitudeRange{slices.Min(heights), slices.Max(heights)}
	}
}

package light

import (
	"math"
	"testing"
	"time"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// The bright-sun rule of thumb: in full sun, f/16 at 1/ISO.
func TestBrightSunRule(t *testing.T) {
	rule := stop.Setting{Aperture: 16, Shutter: 1. / 100, ISO: 100}.EV()
	for _, altitude := range []angle.Deg{30, 45, 60} {
		for _, day := range []int{1, 172} {
			scene := FromSky(ClearSky, altitude, day, Vertical, 0, DefaultAlbedo, 0)
			if off := scene.EV.Above(rule); off.Abs() > 0.5 {
				t.Errorf("sun at %v on day %d: %v, %v stops from the rule's %v", altitude, day, scene.EV, off, rule)
			}
		}
	}
}

// Light has no steps on its way through the horizon, in any sky, on any plane.
// The published curve itself has joints of up to 0.005 in its logarithm, and an
// upright subject that faces the sun loses the last of the direct beam at once.
func TestLightIsContinuousThroughTheHorizon(t *testing.T) {
	const step = 0.001
	const joint, lastBeam = 0.02, 0.12 // stops in a thousandth of a degree
	for sky := range skies {
		for _, plane := range []Plane{Vertical, Top, Shade} {
			last := stop.EV(math.NaN())
			for i := -20000; i < 10000; i++ {
				altitude := angle.Deg(i) * step
				ev := FromSky(sky, altitude, 100, plane, 30, DefaultAlbedo, 0).EV
				most := stop.Stops(joint)
				if i == 0 && plane == Vertical {
					most = lastBeam
				}
				if d := ev.Above(last).Abs(); d > most {
					t.Fatalf("%s sky, %s: a step of %v stops at %v", sky, plane, float64(d), altitude)
				}
				last = ev
			}
		}
	}
}

func TestLightFallsWithTheSun(t *testing.T) {
	for sky := range skies {
		brighter := math.Inf(1)
		for altitude := angle.Deg(90); altitude > -18; altitude -= 0.5 {
			total := sky.Under(altitude, 172).Total
			if total >= brighter {
				t.Errorf("%s sky gives %v lx at %v, no less than above", sky, total, altitude)
			}
			brighter = total
		}
		if a, b := sky.Under(-18, 172).Total, sky.Under(-60, 172).Total; a != b {
			t.Errorf("%s sky goes on darkening after the end of twilight: %v, %v", sky, a, b)
		}
	}
}

// Checked by hand: at 90° the air mass is 1/(1 + 0.50572·96.07995^−1.6364) =
// 0.99971, and on day 2 the sun gives 127.5·1.034 = 131.835 klx.
func TestZenithSunByHand(t *testing.T) {
	d := ClearSky.Under(90, 2)
	const relative = 1e-4
	for name, pair := range map[string][2]float64{
		"direct":  {d.DirectNormal, 131835 * math.Exp(-0.21*0.99971)},
		"diffuse": {d.Diffuse, 16300},
		"on top":  {d.On(Top, 0, 0), d.DirectNormal + 16300},
		"shade":   {d.On(Shade, 0, 0), 8150},
		"upright": {d.On(Vertical, 0, 0.5), 8150 + 0.25*d.Total},
	} {
		if math.Abs(pair[0]/pair[1]-1) > relative {
			t.Errorf("%s: %v lx, want %v", name, pair[0], pair[1])
		}
	}
	if o := Overcast.Under(90, 2); o.DirectNormal != 0 || math.Abs(o.Diffuse-21300) > 1 {
		t.Errorf("overcast: %+v", o)
	}
}

func TestAnchorPullsTheCurve(t *testing.T) {
	o := Outdoors{Place: Place{38.4, -20.5}, Sky: PartlyCloudy, Plane: Vertical, Albedo: DefaultAlbedo}
	from, to := instant(t, "2031-09-20T06:00:00-01:00"), instant(t, "2031-09-20T18:00:00-01:00")
	noon := instant(t, "2031-09-20T12:00:00-01:00")
	free := o.Curve(from, to, time.Minute, nil)
	if len(free) != 721 || !free[0].At.Equal(from) || !free[720].At.Equal(to) {
		t.Fatalf("%d points from %v to %v", len(free), free[0].At, free[len(free)-1].At)
	}
	pulled := o.Curve(from, to, time.Minute, &Anchor{At: noon, EV: free[360].EV.Plus(-1)})
	// By hand: at noon all of it, six hours away exp(−1) of it.
	for i, want := range map[int]float64{360: -1, 420: -math.Exp(-1.0 / 6), 0: -math.Exp(-1), 720: -math.Exp(-1)} {
		if d := pulled[i].EV.Above(free[i].EV); math.Abs(float64(d)-want) > 1e-9 {
			t.Errorf("at %v the anchor moves the light by %v, want %v", free[i].At, float64(d), want)
		}
	}
	for i, want := range map[int]float64{360: 0.2, 0: math.Sqrt(0.04*math.Exp(-2) + 1 - math.Exp(-2))} {
		if got := float64(pulled[i].Spread); math.Abs(got-want) > 1e-9 {
			t.Errorf("spread %v at %v, want %v", got, pulled[i].At, want)
		}
	}
	if free[360].Spread != 1 {
		t.Errorf("without an anchor the spread is %v", free[360].Spread)
	}
}

// Clocks that change within the span neither double nor drop an hour.
func TestCurveOverAClockChange(t *testing.T) {
	o := Outdoors{Place: Place{45, 0}, Sky: ClearSky, Plane: Top}
	points := o.Curve(instant(t, "2031-10-26T00:00:00+02:00"), instant(t, "2031-10-27T00:00:00+01:00"), time.Hour, nil)
	if len(points) != 26 {
		t.Errorf("a day of 25 hours has %d hourly points, ends included", len(points))
	}
}

func TestSubjectFacesTheCamera(t *testing.T) {
	noon := instant(t, "2031-09-20T12:00:00-01:00") // sun in the south
	ev := func(camera angle.Deg) stop.EV {
		o := Outdoors{Place: Place{38.4, -20.5}, Sky: ClearSky, Plane: Vertical, Albedo: DefaultAlbedo, Faces: FacingCamera(camera), HasHeading: true}
		scene, _ := o.At(noon)
		return scene.EV
	}
	if front, back := ev(0), ev(180); front.Above(back) < 1.5 {
		t.Errorf("sun behind the camera gives %v, before it %v", front, back)
	}
}

func BenchmarkLightCurve24h(b *testing.B) {
	o := Outdoors{Place: Place{38.4, -20.5}, Sky: ClearSky, Plane: Vertical, Albedo: DefaultAlbedo}
	from := instant(b, "2031-09-20T00:00:00-01:00")
	to := from.Add(24 * time.Hour)
	b.Run("curve", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			o.Curve(from, to, time.Minute, &Anchor{At: from.Add(12 * time.Hour), EV: 14})
		}
	})
	b.Run("baseline-sun-alone", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			for t := from; !t.After(to); t = t.Add(time.Minute) {
				Sun(t, o.Place)
			}
		}
	})
}

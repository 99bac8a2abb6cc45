package calc

import (
	"math"
	"math/rand/v2"
	"testing"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// skyOfEye is how an eye names the skies of the model.
var skyOfEye = map[light.Sky]light.Seen{light.ClearSky: light.SeenClear, light.PartlyCloudy: light.SeenGaps, light.Overcast: light.SeenOvercast}

// heightOfEye is how an eye names the sun's height.
func heightOfEye(altitude angle.Deg) light.Height {
	switch {
	case altitude < 20:
		return light.LowSun
	case altitude < 48:
		return light.MiddleSun
	}
	return light.HighSun
}

// lookedDay is a simulated day on which the light is found by looking: how often the glass is
// changed until it is right, from a sky that is said or from none.
func lookedDay(t *testing.T, r *rand.Rand, saysSky bool) (changes int) {
	t.Helper()
	skies := light.Sky("").Values()
	sky, altitude := skies[r.IntN(len(skies))], angle.Deg(5+60*r.Float64())
	facings := []light.Facing{light.FromFront, light.FromSide, light.InShade}
	facing := facings[r.IntN(len(facings))]
	plane, beta := light.Vertical, angle.Deg(30*r.Float64())
	switch facing {
	case light.FromSide:
		beta = angle.Deg(45 + 30*r.Float64())
	case light.InShade:
		plane = light.Shade
	}
	model := light.FromSky(sky, altitude, 1+r.IntN(365), plane, beta, light.DefaultAlbedo, stop.Stops(r.NormFloat64()*0.3))
	ev := model.EV.Plus(stop.Stops(r.NormFloat64()) * model.Spread) // no sky is the model's
	request := assemble.ShotRequest{Camera: assemble.Camera{Aperture: 2.8, ISOBase: 100, ISOCeiling: 800}, Look: assemble.ShotLook{FPS: "25", Target: "180°"}, Light: assemble.ShotLight{Kind: "looks"}}
	for _, s := range []stop.Stops{2, 3, 4, 5, 6, 7} {
		request.Kit = append(request.Kit, assemble.KitFilter{ID: glass.Reading{Kind: glass.ND, Stops: s}.String(), Kind: glass.ND, Stops: s})
	}
	if saysSky {
		request.Light.Sky = &assemble.Sight{Sky: skyOfEye[sky], Facing: facing, Height: heightOfEye(altitude)}
	}
	on := ""
	for {
		a, err := AnswerShot(request)
		if err != nil {
			t.Fatalf("EV %.2f under %s: %v", float64(ev), sky, err)
		}
		if now := asJSON(t, a.Chosen.Filters); on != now {
			if on != "" {
				changes++
			}
			on = now
		}
		if a.Settled || changes > 9 {
			return changes
		}
		saw := glass.JustRight
		switch e := ev.Above(a.Solve.EVSet) - a.Chosen.Stops; {
		case e > a.Band.Bright:
			saw = glass.TooBright
		case e < -a.Band.Dark:
			saw = glass.TooDark
		}
		request.Light.Looks = append(request.Light.Looks, assemble.Look{Stops: a.Chosen.Stops, Saw: saw})
	}
}

// Looking that starts from the sky takes at most two changes of glass on nine days of ten, and
// a fifth fewer on average than looking that starts from nothing.
func TestLookingStartsFromTheSky(t *testing.T) {
	const days = 1000
	within := func(saysSky bool) (two int, mean float64) {
		r := rand.New(rand.NewPCG(9, 20))
		for range days {
			n := lookedDay(t, r, saysSky)
			if n <= 2 {
				two++
			}
			mean += float64(n) / days
		}
		return two, mean
	}
	two, mean := within(true)
	blindTwo, blindMean := within(false)
	t.Logf("at most two changes on %d of %d days (%.2f on average); from nothing on %d (%.2f)", two, days, mean, blindTwo, blindMean)
	if two < days*9/10 || mean > 0.8*blindMean || math.IsNaN(mean) {
		t.Errorf("at most two changes on %d of %d days, %.2f on average; from nothing %.2f", two, days, mean, blindMean)
	}
}

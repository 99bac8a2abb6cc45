package practice

import (
	"fmt"

	"pinhole/core/angle"
	"pinhole/core/light"
)

// What a polariser does to a sky, and to water.
const (
	skyStrong  = "Darkens it strongly and evenly"
	skyUneven  = "Darkens one part of it more: blotched"
	skyLittle  = "Hardly changes it"
	waterTakes = "Takes most of the glare away"
	waterSome  = "Takes part of the glare away"
	waterNone  = "Takes next to none of the glare away"
)

// From so much polarisation on a sky is darkened strongly, below so much hardly.
const strongSky, littleSky = 0.6, 0.15

// polariser asks what a polariser does to a sky, or to water.
func polariser(d *draw) (*made, bool) {
	if d.aim/3%2 == 0 {
		return glare(d)
	}
	wide := oneOf(d, graded(d, []int{30, 40}, []int{40, 60, 80}, []int{60, 80, 100})...)
	high := d.between(5, 50)
	away := 15 * d.between(0, 12) // of the sun
	sun := light.Direction{Altitude: angle.Deg(high)}
	camera := light.Direction{Altitude: 10, Azimuth: angle.Deg(away)}
	e := light.AcrossFrame(camera, sun, angle.Deg(wide))
	most, least := max(e.Left, e.Centre, e.Right), min(e.Left, e.Centre, e.Right)
	right := ""
	switch {
	case e.Uneven() && most-least > 0.32:
		right = skyUneven
	case e.Uneven() || most-least > 0.2:
		return nil, false // too near to call
	case least > strongSky+0.03:
		right = skyStrong
	case most < littleSky:
		right = skyLittle
	default:
		return nil, false
	}
	if right != aimed(d, skyStrong, skyUneven, skyLittle) {
		return nil, false
	}
	m := &made{}
	m.Asks = "What does a polariser do to this clear sky?"
	m.Question.Given = []string{fmt.Sprintf("Sun %d° high, the camera turned %d° away from it", high, away), fmt.Sprintf("%d° across the frame", wide)}
	m.ofSet(right, skyStrong, skyUneven, skyLittle)
	m.working = []string{
		fmt.Sprintf("Middle of the frame: %.0f° from the sun, %.0f %% polarised. Most is at 90°, none towards the sun or away from it.", float64(camera.From(sun)), 100*e.Centre),
		fmt.Sprintf("Left edge %.0f %%, right edge %.0f %%.", 100*e.Left, 100*e.Right),
	}
	return m, true
}

func glare(d *draw) (*made, bool) {
	down := d.between(5, 85)
	left := light.GlareLeft(angle.Deg(down))
	right := ""
	switch {
	case left < light.LittleGlare-0.05:
		right = waterTakes
	case left > light.MostGlare+0.02:
		right = waterNone
	case left > light.LittleGlare+0.1 && left < light.MostGlare-0.1:
		right = waterSome
	default:
		return nil, false
	}
	if right != aimed(d, waterTakes, waterSome, waterNone) {
		return nil, false
	}
	m := &made{}
	m.Asks = "What does a polariser do to this water?"
	m.Question.Given = []string{fmt.Sprintf("Flat water, seen %d° below the horizon", down)}
	m.ofSet(right, waterTakes, waterSome, waterNone)
	m.working = []string{fmt.Sprintf("At %d° it leaves %.0f %% of the glare. Least is left near 37°; straight down and along the water nothing is gained.", down, 100*left)}
	return m, true
}

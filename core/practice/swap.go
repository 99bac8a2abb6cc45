package practice

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/day"
	"pinhole/core/light"
)

// clockStep is how far times that are offered are apart: what every other is wrong by.
const clockStep = 30 * time.Minute

// swap asks for the latest minute of a change of filters on a made-up day, whose curve is drawn.
func swap(d *draw) (*made, bool) {
	zone := time.FixedZone("", -3600)
	date := time.Date(2031, time.Month(d.between(3, 9)), d.between(1, 28), 0, 0, 0, 0, zone)
	evening := date.Add(16*time.Hour + time.Duration(d.between(0, 5))*15*time.Minute)
	r := cameraOf(named("pocket-gimbal"), usualKit(1, 3, 5, 7))
	held := assemble.Held{CameraID: "c", Optics: r.Camera, Profile: r.Profile, Kit: r.Kit}
	look := assemble.ShotLook{FPS: "25", Target: "180°"}
	one := func(id, name string, from time.Time, minutes int) day.OutingShot {
		return day.OutingShot{ID: id, Name: name, CameraID: "c", From: from, Minutes: minutes, Plane: light.Vertical, Look: &look, Choices: &assemble.Choices{MaxLayers: 1}}
	}
	gap := d.between(60, 180)
	request := day.OutingRequest{
		Place: &assemble.PlaceFields{LatDeg: 38.4, LonDeg: -20.5}, Sky: oneOf(d, light.ClearSky, light.PartlyCloudy), From: date.Add(12 * time.Hour), To: date.Add(22 * time.Hour), StepS: 600,
		Shots: []day.OutingShot{one("first", "First take", evening, 20), one("second", "Second take", evening.Add(time.Duration(gap)*time.Minute), 15)},
		Held:  []assemble.Held{held}, Stacks: []day.OutingStack{},
	}
	a, err := day.Outing(context.Background(), request)
	if err != nil || len(a.Swaps) == 0 {
		return nil, false
	}
	change := a.Swaps[len(a.Swaps)-1]
	first := request.Shots[0]
	if change.Latest == nil || change.Shot != "second" || change.Latest.Sub(first.From) < time.Duration(first.Minutes+10)*time.Minute {
		return nil, false // it is the end of the take, not the light, that says so
	}
	latest := change.Latest.In(zone)
	clock := func(k int) string { return latest.Add(time.Duration(k) * clockStep).Format("15:04") }
	from, to := stackWords(change.From), stackWords(change.To)
	m := &made{unit: "minutes", margin: clockStep.Minutes()}
	switch {
	case to == bare:
		m.Asks = fmt.Sprintf("By when must %s come off?", from)
	case from == bare:
		m.Asks = fmt.Sprintf("By when must %s go on?", to)
	default:
		m.Asks = fmt.Sprintf("By when must %s make way for %s?", from, to)
	}
	m.Question.Given = []string{fmt.Sprintf("The curve is the light of the place; pocket gimbal camera, f/%v, ISO %.0f, 180° at 25 fps", r.Camera.Aperture, float64(r.Camera.ISOBase))}
	m.Day = &request
	m.onScale(d, clock, func(k int) float64 { return math.Round(float64(k) * clockStep.Minutes()) })
	m.working = []string{fmt.Sprintf("%s covers the light until %s.", begun(from), latest.Format("15:04")), fmt.Sprintf("The second take begins %s.", request.Shots[1].From.Format("15:04"))}
	return m, true
}

const bare = "no filter"

// stackWords are the filters of a stack.
func stackWords(id string) string {
	return cmp.Or(strings.Join(day.FiltersOf(id), " + "), bare)
}

package sim

import (
	"fmt"
	"math/rand/v2"
	"pinhole/core/assemble"
	"time"

	"pinhole/core/light"
	"pinhole/core/stop"
)

// MeterRequest holds the simulated light meter into a day.
type MeterRequest struct {
	At    time.Time            `json:"at"`
	Place assemble.PlaceFields `json:"place"`
	Sky   light.Sky            `json:"sky"`
}

// MeterAnswer is what it shows.
type MeterAnswer struct {
	EV100       stop.EV    `json:"ev100"`
	SpreadStops stop.Stops `json:"spreadStops"`
	Words       string     `json:"words"`
	Simulated   bool       `json:"simulated" doc:"always true"`
}

// meterNoise is how much two readings of one light differ.
const meterNoise = stop.Stops(0.1)

// Meter returns what a hand meter would show there and then: the light of the model,
// off by as much as its sky may be, the same at the same minute, and by the meter's
// own noise.
func Meter(r MeterRequest) *MeterAnswer {
	o := &light.Outdoors{Place: light.Place{Lat: r.Place.LatDeg, Lon: r.Place.LonDeg}, Sky: r.Sky, Plane: light.Vertical, Albedo: light.DefaultAlbedo}
	model, _ := o.At(r.At)
	off := cloud(r.At, r.Place)*model.Spread + stop.Stops(random(r.At.Unix(), r.Place).NormFloat64())*meterNoise
	ev := model.EV.Plus(off)
	return &MeterAnswer{EV100: ev, SpreadStops: light.OnTheSpot, Words: fmt.Sprintf("simulated meter: %v", ev), Simulated: true}
}

// cloud is how far the sky strays from its kind, from −1 to 1: anew each quarter of an
// hour, and between them in proportion.
func cloud(t time.Time, at assemble.PlaceFields) stop.Stops {
	const quarter = 15 * 60
	k, part := t.Unix()/quarter, float64(t.Unix()%quarter)/quarter
	a, b := random(k, at).Float64(), random(k+1, at).Float64()
	return stop.Stops(2*(a+(b-a)*part) - 1)
}

func random(seed int64, at assemble.PlaceFields) *rand.Rand {
	return rand.New(rand.NewPCG(uint64(seed), uint64(int64(float64(at.LatDeg)*1000)*1_000_003+int64(float64(at.LonDeg)*1000))))
}

// SkyRequest asks the simulated sky service about days.
type SkyRequest struct {
	From  time.Time            `json:"from"`
	To    time.Time            `json:"to"`
	Place assemble.PlaceFields `json:"place"`
}

// SkyAnswer is its forecast.
type SkyAnswer struct {
	Sky       light.Sky          `json:"sky" doc:"at first"`
	Turns     []assemble.SkyTurn `json:"turns"`
	Simulated bool               `json:"simulated" doc:"always true"`
}

// skyEvery is how often the service says a sky, and mostTurns how often at most.
const (
	skyEvery  = 3 * time.Hour
	mostTurns = 56 // a week
)

// Sky returns a made-up forecast, the same for the same place and days.
func Sky(r SkyRequest) *SkyAnswer {
	kinds := []light.Sky{light.ClearSky, light.ClearSky, light.PartlyCloudy, light.PartlyCloudy, light.Overcast}
	a := &SkyAnswer{Turns: []assemble.SkyTurn{}, Simulated: true}
	for i, t := 0, r.From; t.Before(r.To) && i < mostTurns; i, t = i+1, t.Add(skyEvery) {
		sky := kinds[random(t.Unix()/int64(skyEvery/time.Second), r.Place).IntN(len(kinds))]
		last := a.Sky
		if n := len(a.Turns); n > 0 {
			last = a.Turns[n-1].Sky
		}
		switch {
		case i == 0:
			a.Sky = sky
		case sky != last:
			a.Turns = append(a.Turns, assemble.SkyTurn{From: t, Sky: sky})
		}
	}
	return a
}

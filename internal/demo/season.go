package demo

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"strconv"
	"time"

	"pinhole/core/learn"
	"pinhole/core/light"
	"pinhole/core/stop"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// The season before the harvest: forty made-up shoots by the simulated devices, whose truth is
// hidden from the log, so that what the log teaches can be held against it.
const (
	seasonShoots = 40
	seasonGapDay = 4
	seasonSeed   = 20310920
	meterHigh    = 1.0 / 3 // the hand meter reads so much too high
	mistyped     = 4.0     // one record is off by so much
	fellBy       = -0.4    // the crate's ND64 after its fall
	fellAfter    = 24      // shoots
	mistypedIn   = 13
	eyeDark      = -0.4 // the eye judges light so much too dark
	eyeNoise     = 0.5
)

// hidden is what is true of filters, stops over what is printed, by label and camera.
var hidden = map[string]stop.Stops{
	"ND8 (0.9) on " + phone: 0.35, "ND64 on " + crate: 0.25,
}

// offsets are how much too bright each camera's automatic sees.
var offsets = map[string]float64{pocket: -0.15, phone: 0.2, crate: 0.1}

// haunt is a place of the season.
type haunt struct {
	name  string
	place light.Place
	off   map[light.Sky]float64 // over the forecast
}

var haunts = []haunt{
	{"South wall", light.Place{Lat: 38.4, Lon: -20.5}, map[light.Sky]float64{light.ClearSky: 0.15, light.PartlyCloudy: 0.05, light.Overcast: -0.1}},
	{"Quay of Sandholm", light.Place{Lat: 38.5, Lon: -20.4}, map[light.Sky]float64{light.ClearSky: 0.3, light.PartlyCloudy: 0.1, light.Overcast: 0}},
	{"Cellar lane", light.Place{Lat: 38.4, Lon: -20.5}, map[light.Sky]float64{light.ClearSky: -0.25, light.PartlyCloudy: -0.1, light.Overcast: -0.1}},
}

// season is what draws the season.
type season struct {
	*rand.Rand
	looks   *rand.Rand // what the eye makes of it
	ids     map[string]string
	service *service.Service
	all     []store.Record
}

// seedSeason adds the records of the season, the last of them some days before now.
func seedSeason(ctx context.Context, svc *service.Service, ids map[string]string) error {
	s := &season{Rand: rand.New(rand.NewPCG(seasonSeed, 1)), looks: rand.New(rand.NewPCG(seasonSeed, 2)), ids: ids, service: svc}
	begins := svc.Now().In(islandTime).AddDate(0, 0, -seasonShoots*seasonGapDay-3)
	for i := range seasonShoots {
		y, m, day := begins.AddDate(0, 0, i*seasonGapDay).Date()
		morning := time.Date(y, m, day, 9, 30, 0, 0, islandTime)
		if err := s.shoot(ctx, i, morning); err != nil {
			return fmt.Errorf("shoot %d of the season: %w", i+1, err)
		}
		if i == fellAfter {
			if err := s.fall(ctx, morning.Add(10*time.Hour)); err != nil {
				return err
			}
		}
	}
	if err := svc.Store.AddRecords(ctx, s.all); err != nil {
		return err
	}
	return seedPractice(ctx, svc)
}

// fall drops a filter.
func (s *season) fall(ctx context.Context, at time.Time) error {
	f, err := s.service.Store.Filters().Get(ctx, s.ids["ND64 on "+crate])
	if err != nil {
		return err
	}
	f.History = append(f.History, store.Happening{At: at, What: "dropped", Note: "on the cellar steps"})
	_, err = s.service.Store.Filters().Save(ctx, f)
	return err
}

// shoot adds what was read and shot on one day: a meter and a camera without glass, then with it,
// then a take.
func (s *season) shoot(ctx context.Context, n int, morning time.Time) error {
	at := haunts[s.IntN(len(haunts))]
	sky := light.Sky("").Values()[s.IntN(3)]
	sigma := math.Sqrt(square(float64(sky.Spread())) - square(0.2))
	day := s.NormFloat64() * sigma * 0.8
	camera := []string{pocket, phone, crate}[n%3]
	label := map[string]string{phone: "ND8 (0.9) on " + phone, crate: "ND64 on " + crate}[camera] // the pocket gimbal is shot without
	printed := map[string]stop.Stops{phone: 3, crate: 6}[camera]
	truth := float64(printed + hidden[label])
	if camera == crate && n > fellAfter {
		truth += fellBy
	}
	rigs, err := s.service.Store.RigsOf(ctx, s.ids[camera])
	if err != nil {
		return err
	}
	o := &light.Outdoors{Place: at.place, Sky: sky, Plane: light.Vertical, Albedo: light.DefaultAlbedo}
	guess := stop.Stops((1.6 - 0.9*float64(n)/seasonShoots) * s.looks.NormFloat64()) // the eye grows better
	for i, step := range []struct {
		kind    learn.Kind
		isGlass bool
	}{{learn.ByMeter, false}, {learn.ByAuto, false}, {learn.ByAuto, true}, {learn.ByBias, true}} {
		when := morning.Add(time.Duration(i*35+s.IntN(20)) * time.Minute)
		forecast, _ := o.At(when)
		seen := float64(forecast.EV) + at.off[sky] + day
		noise := map[learn.Kind]float64{learn.ByMeter: 0.15, learn.ByAuto: 0.2, learn.ByBias: 0.2}[step.kind]
		rec := store.RecordFields{
			Kind: "seen", At: when, From: "card", Source: "simulated", Name: at.name, Words: "the simulated " + map[bool]string{true: "meter", false: "camera"}[step.kind == learn.ByMeter],
			There: &store.RecordPlace{Name: at.name, Sky: sky, EV100: forecast.EV}, Seen: &store.RecordSeen{Kind: string(step.kind)},
		}
		if step.kind == learn.ByMeter {
			seen += meterHigh
			rec.Seen.GuessOff = &guess
		} else {
			seen += offsets[camera]
			rec.RigID = rigs[0].ID
		}
		if step.isGlass && label != "" {
			seen -= truth
			rec.Glass = []string{s.ids[label]}
		}
		seen += noise * s.NormFloat64()
		if n == mistypedIn && i == 3 {
			seen += mistyped
			rec.Words += ", mistyped"
		}
		rec.Seen.EV100 = stop.EV(math.Round(10*seen) / 10)
		s.add(fmt.Sprintf("season-%02d-%d", n, i), rec)
	}
	if label != "" {
		s.add(fmt.Sprintf("season-%02d-swap", n), store.RecordFields{
			Kind: "done", At: morning.Add(68 * time.Minute), From: "card", Source: "simulated", Name: at.name, RigID: rigs[0].ID,
			Glass: []string{s.ids[label]}, Done: &store.RecordDone{What: "swap", Step: "seated"},
		})
	}
	first, _ := o.At(morning)
	s.add(fmt.Sprintf("season-%02d-eye", n), store.RecordFields{
		Kind: "seen", At: morning, From: "card", Source: "simulated", Name: at.name, Words: "the sky, by eye",
		There: &store.RecordPlace{Name: at.name, Sky: sky, EV100: first.EV},
		Seen:  &store.RecordSeen{Kind: string(learn.ByEye), EV100: stop.EV(math.Round(10*(float64(first.EV)+at.off[sky]+day+eyeDark+eyeNoise*s.looks.NormFloat64())) / 10)},
	})
	s.take(n, camera, label, at, sky, morning.Add(4*time.Hour), rigs[0].ID)
	return nil
}

// take adds what became of the day's take: the first filter is right more often as the season goes.
func (s *season) take(n int, camera, label string, at haunt, sky light.Sky, when time.Time, rigID string) {
	isRight := s.Float64() < 0.35+0.6*float64(n)/seasonShoots
	off := stop.Stops(0.5 * s.NormFloat64())
	lost := math.Max(0, math.Round(8-6*float64(n)/seasonShoots+2*s.NormFloat64()))
	swaps := 0.0
	if !isRight {
		swaps = float64(1 + s.IntN(2))
	}
	took := &store.RecordTake{
		Kept: off > -0.7 && off < 0.65, Grade: "good", Activity: map[string]string{pocket: "walk", phone: "held", crate: "helmet"}[camera],
		School: "angle", Look: "180° at 25", ShutterS: 0.02, ErrorStops: &off, FirstRight: &isRight, Swaps: &swaps, MinutesLost: &lost,
	}
	if !took.Kept {
		took.Grade = "bad"
		if took.Why = "bright"; off < 0 {
			took.Why = "dark"
		}
	}
	var glass []string
	if label != "" {
		glass = []string{s.ids[label]}
	}
	s.add("season-take-"+strconv.Itoa(n), store.RecordFields{
		Kind: "take", At: when, From: "card", Source: "simulated", Name: at.name, RigID: rigID, Glass: glass, Took: took,
		There: &store.RecordPlace{Name: at.name, Sky: sky, EV100: 12},
	})
}

func (s *season) add(id string, r store.RecordFields) {
	s.all = append(s.all, store.Record{Meta: store.Meta{ID: id}, RecordFields: r})
}

func square(v float64) float64 { return v * v }

package service

import (
	"context"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"slices"
	"strings"
	"time"
	_ "time/tzdata" // zones are known without the machine's help

	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/core/stop"
	"pinhole/internal/store"
	"pinhole/internal/zone"
)

// Day is a shoot made ready for planning: what the outing computation takes, built
// from what is stored.
type Day struct {
	Shoot    store.Shoot          `json:"shoot"`
	Zone     string               `json:"zone" doc:"the time zone that everything is in"`
	Request  day.OutingRequest    `json:"request"`
	Unplaced []store.Shot         `json:"unplaced" doc:"shots without a time"`
	Readings []store.LightReading `json:"readings" doc:"light that was read on this shoot, the newest first"`
	Cameras  map[string]string    `json:"cameras" doc:"names by id"`
}

// Limits and defaults of a planned day.
const (
	mostDays       = 7
	defaultMinutes = 20
	curveStepS     = 300
)

// Day returns a shoot ready for planning.
func (svc *Service) Day(ctx context.Context, shootID string) (*Day, error) {
	shoot, err := svc.Store.Shoots().Get(ctx, shootID)
	if err != nil {
		return nil, err
	}
	shots, err := svc.Store.ShotsOf(ctx, shootID)
	if err != nil {
		return nil, err
	}
	return svc.dayOf(ctx, shoot, shots)
}

// dayOf returns a shoot with some shots ready for planning.
func (svc *Service) dayOf(ctx context.Context, shoot store.Shoot, shots []store.Shot) (*Day, error) {
	zone, err := zoneOf(&shoot.Day)
	if err != nil {
		return nil, err
	}
	out := &Day{Shoot: shoot, Zone: zone.String(), Unplaced: []store.Shot{}, Cameras: map[string]string{}}
	out.Request = day.OutingRequest{Place: shoot.Day.Where, Sky: shoot.Day.Sky, Turns: shoot.Day.Turns, Surface: shoot.Day.SurfaceStops, StepS: curveStepS,
		Shots: []day.OutingShot{}, Stacks: []day.OutingStack{}}
	if out.Request.Sky == "" {
		out.Request.Sky = light.ClearSky
	}
	if a := shoot.Day.Anchor; a != nil {
		out.Request.Anchor = &assemble.LightReading{Time: a.At, EV100: a.EV100}
	}
	if shoot.Kept != nil {
		out.Request.Before = shoot.Kept.Glass
	}
	if err := svc.addShots(ctx, out, shots, zone); err != nil {
		return nil, err
	}
	if out.Request.From, out.Request.To, err = spanOf(&shoot.Day, out.Request.Shots, zone, svc.Now()); err != nil {
		return nil, err
	}
	if err := svc.addLearned(ctx, out); err != nil {
		return nil, err
	}
	out.Readings, err = svc.Store.LightReadingsOf(ctx, shoot.ID)
	slices.Reverse(out.Readings)
	return out, err
}

// addShots adds the shots that have a time, each camera as it is held, and the glass there
// is for them, by name.
func (svc *Service) addShots(ctx context.Context, out *Day, shots []store.Shot, zone *time.Location) error {
	log, err := svc.Store.FieldLogOf(ctx, out.Shoot.ID)
	if err != nil {
		return err
	}
	shelf, err := svc.shelf(ctx)
	if err != nil {
		return err
	}
	benches := map[string]*toldBench{}
	known := map[string]bool{}
	for _, s := range shots {
		if s.StartsAt == nil {
			out.Unplaced = append(out.Unplaced, s)
			continue
		}
		b := benches[s.CameraID+"/"+s.RigID]
		if b == nil {
			there, err := svc.benchFrom(ctx, shelf, s.CameraID, s.RigID)
			if err != nil {
				return err
			}
			b = &toldBench{Bench: there}
			benches[s.CameraID+"/"+s.RigID], out.Cameras[s.CameraID] = b, b.Camera.Name
			out.Request.Held = append(out.Request.Held, *b.held())
		}
		svc.tellOn(b, &s)
		shot, err := svc.dayShot(ctx, b.Bench, s, log, zone)
		if err != nil {
			return err
		}
		out.Request.Shots = append(out.Request.Shots, *shot)
		stacks, err := day.OutingStacks(b.held(), *shot.Choices, shot.Placed, b.titleOf)
		if err != nil {
			continue // what it asks for is not there: the plan says so of the shot
		}
		for _, stack := range stacks {
			if !known[stack.ID] {
				known[stack.ID] = true
				out.Request.Stacks = append(out.Request.Stacks, stack)
			}
		}
	}
	return nil
}

// dayShot returns a stored shot as a day takes it: the whole of it, the light that was
// typed, and what was read of it.
func (svc *Service) dayShot(ctx context.Context, b *Bench, s store.Shot, log []store.FieldEntry, zone *time.Location) (*day.OutingShot, error) {
	given := s.Answer.Given
	choices := s.Choices
	choices.Mounted = b.inKit(choices.Mounted)
	choices.AtHand = b.stillAtHand(choices.AtHand)
	shot := &day.OutingShot{
		ID: s.ID, Name: s.Name, CameraID: s.CameraID, RigID: b.Rig.ID, From: s.StartsAt.In(zone).Truncate(time.Minute), Minutes: s.Day.Minutes, PackMin: b.Camera.PackMin,
		Plane: s.Day.Plane, Heading: s.Day.HeadingDeg, Surface: s.Day.SurfaceStops, Look: &s.Look, Scene: s.Scene, Choices: &choices, Placed: b.stillPlaced(&s),
	}
	if shot.Minutes == 0 {
		shot.Minutes = defaultMinutes
	}
	if given.Solve != nil { // for files and for a page that draws; the plan asks the whole shot
		shot.EVSet, shot.ShutterS = given.Solve.EVSet, given.Solve.ShutterS
		shot.Offset, shot.Headroom = given.Offset, b.Optics.ISOCeiling.Over(b.Optics.ISOBase)
	}
	if fps, err := stop.ParseRate(s.Look.FPS); err == nil {
		shot.FPS = float64(fps)
	}
	if r := given.Reading; r != nil && given.Settled {
		shot.Read = &assemble.SceneLight{EV100: &r.EV100, SpreadStops: r.SpreadStops}
		if low := given.Low; low != nil {
			shot.Read = &assemble.SceneLight{LowEV100: &low.EV100, HighEV100: &r.EV100, SpreadStops: r.SpreadStops}
		}
	}
	readings, err := svc.Store.ReadingsOf(ctx, s.ID)
	if err != nil {
		return nil, err
	}
	for _, r := range readings {
		if r.Role == "at" {
			shot.Readings = append(shot.Readings, day.TakenReading{At: r.TakenAt, EV100: r.EV100})
		}
	}
	for _, e := range log {
		if e.Reading != nil && strings.HasPrefix(e.Turn, s.ID+"/") {
			shot.Readings = append(shot.Readings, day.TakenReading{At: e.At, EV100: e.Reading.EV100})
		}
	}
	until := shot.From.Add(time.Duration(shot.Minutes) * time.Minute)
	shot.Readings = slices.DeleteFunc(shot.Readings, func(r day.TakenReading) bool { return r.At.Before(shot.From) || r.At.After(until) })
	return shot, nil
}

// stillPlaced returns what was put on by hand, nil for nothing, and where some of it is gone.
func (b *Bench) stillPlaced(s *store.Shot) *[]string {
	if s.Placed == nil {
		return nil
	}
	tried := s.Scene.WhatIf != nil && s.Scene.WhatIf.GlassStops != nil
	for _, id := range *s.Placed {
		if !(tried && id == shot.NewGlass) && len(b.inKit([]string{id})) == 0 {
			return nil
		}
	}
	return s.Placed
}

func (b *Bench) titleOf(id string) string {
	for _, f := range b.Filters {
		if f.ID == id {
			return f.Title
		}
	}
	return "a filter that is gone"
}

// zoneOf returns the zone of a shoot: the one it names, that of its place, or this
// machine's.
func zoneOf(day *store.ShootDay) (*time.Location, error) {
	name := day.Zone
	if name == "" && day.Where != nil {
		var err error
		if name, err = zone.At(*day.Where); err != nil {
			return nil, err
		}
	}
	if name == "" {
		return time.Local, nil
	}
	location, err := time.LoadLocation(name)
	if err != nil {
		return nil, &problem.Fault{Field: "day.zone", Value: name, Allowed: "the IANA name of a time zone, as in Etc/GMT+1"}
	}
	return location, nil
}

// spanOf returns the local days of a shoot: those it names, those of its shots, or
// today.
func spanOf(day *store.ShootDay, shots []day.OutingShot, zone *time.Location, now time.Time) (from, to time.Time, err error) {
	first, last := now.In(zone), now.In(zone)
	for i, s := range shots {
		end := s.From.Add(time.Duration(s.Minutes) * time.Minute)
		if i == 0 || s.From.Before(first) {
			first = s.From
		}
		if i == 0 || end.After(last) {
			last = end
		}
	}
	for _, d := range []struct {
		field, text string
		into        *time.Time
	}{{"day.firstDay", day.FirstDay, &first}, {"day.lastDay", day.LastDay, &last}} {
		if d.text == "" {
			continue
		}
		t, err := time.ParseInLocation(time.DateOnly, d.text, zone)
		if err != nil {
			return from, to, &problem.Fault{Field: d.field, Value: d.text, Allowed: "a date, as in 2031-09-20"}
		}
		if d.field == "day.firstDay" && t.Before(first) || d.field == "day.lastDay" && t.After(last) || len(shots) == 0 {
			*d.into = t
		}
	}
	if last.Before(first) {
		last = first
	}
	midnight := func(t time.Time, days int) time.Time {
		return time.Date(t.Year(), t.Month(), t.Day()+days, 0, 0, 0, 0, zone)
	}
	from, to = midnight(first, 0), midnight(last, 1)
	if most := midnight(first, mostDays); to.After(most) {
		to = most
	}
	return from, to, nil
}

// CheckShoot returns the fault of a shoot whose days could not be.
func (svc *Service) CheckShoot(s store.Shoot) error {
	zone, err := zoneOf(&s.Day)
	if err != nil {
		return err
	}
	if _, _, err := spanOf(&s.Day, nil, zone, svc.Now()); err != nil {
		return err
	}
	if s.Day.FirstDay != "" && s.Day.LastDay != "" && s.Day.LastDay < s.Day.FirstDay {
		return &problem.Fault{Field: "day.lastDay", Value: s.Day.LastDay, Allowed: "no day before the first, " + s.Day.FirstDay}
	}
	return nil
}

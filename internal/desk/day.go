package desk

import (
	"context"
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"slices"
	"strings"
	"time"
	_ "time/tzdata" // zones are known without the machine's help

	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
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
func (d *Desk) Day(ctx context.Context, shootID string) (*Day, error) {
	shoot, err := d.Store.Shoots().Get(ctx, shootID)
	if err != nil {
		return nil, err
	}
	shots, err := d.Store.ShotsOf(ctx, shootID)
	if err != nil {
		return nil, err
	}
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
	kits := map[string]*dayKit{}
	for _, s := range shots {
		if s.StartsAt == nil {
			out.Unplaced = append(out.Unplaced, s)
			continue
		}
		if err := d.addShot(ctx, out, kits, s, zone); err != nil {
			return nil, err
		}
	}
	if out.Request.From, out.Request.To, err = spanOf(&shoot.Day, out.Request.Shots, zone, d.Now()); err != nil {
		return nil, err
	}
	out.Readings, err = d.Store.LightReadingsOf(ctx, shootID)
	slices.Reverse(out.Readings)
	return out, err
}

// dayKit is a camera's bench, and the stacks of it that are in the request already, by
// what they were asked for.
type dayKit struct {
	*Bench
	asked map[string]bool
}

func (d *Desk) addShot(ctx context.Context, out *Day, kits map[string]*dayKit, s store.Shot, zone *time.Location) error {
	kit := kits[s.CameraID+"/"+s.RigID]
	if kit == nil {
		b, err := d.Bench(ctx, s.CameraID, s.RigID)
		if err != nil {
			return err
		}
		kit = &dayKit{b, map[string]bool{}}
		kits[s.CameraID+"/"+s.RigID], out.Cameras[s.CameraID] = kit, b.Camera.Name
	}
	required := kit.stillThere(s.Choices.Required)
	if key := strings.Join(required, "+"); !kit.asked[key] {
		kit.asked[key] = true
		stacks, err := day.OutingStacks(s.CameraID, kit.Rig.ID, kit.Kit, assemble.Choices{Mounted: kit.mounted(), Required: required}, kit.titleOf)
		if err != nil {
			return fmt.Errorf("the glass of camera %s: %w", s.CameraID, err)
		}
		for _, stack := range stacks {
			if !slices.ContainsFunc(out.Request.Stacks, func(there day.OutingStack) bool { return there.ID == stack.ID }) {
				out.Request.Stacks = append(out.Request.Stacks, stack)
			}
		}
	}
	given := s.Answer.Given
	shot := day.OutingShot{
		ID: s.ID, Name: s.Name, CameraID: s.CameraID, RigID: kit.Rig.ID, From: s.StartsAt.In(zone).Truncate(time.Minute), Minutes: s.Day.Minutes, PackMin: kit.Camera.PackMin,
		Offset: given.Offset, Headroom: stop.FromFactor(float64(kit.Optics.ISOCeiling / kit.Optics.ISOBase)),
		Plane: s.Day.Plane, Heading: s.Day.HeadingDeg, Surface: s.Day.SurfaceStops, Required: required, Band: s.Choices.Tolerance, Layers: s.Choices.MaxLayers,
	}
	if shot.Minutes == 0 {
		shot.Minutes = defaultMinutes
	}
	if given.Solve != nil {
		shot.EVSet, shot.ShutterS = given.Solve.EVSet, given.Solve.ShutterS
	}
	if fps, err := stop.ParseRate(s.Look.FPS); err == nil {
		shot.FPS = float64(fps)
	}
	if r := given.Reading; r != nil && shot.Plane == "" {
		shot.Read = &assemble.SceneLight{EV100: &r.EV100, SpreadStops: r.SpreadStops}
		if low := given.Low; low != nil {
			shot.Read = &assemble.SceneLight{LowEV100: &low.EV100, HighEV100: &r.EV100, SpreadStops: r.SpreadStops}
		}
	}
	out.Request.Shots = append(out.Request.Shots, shot)
	return nil
}

// stillThere returns those of the ids that the kit holds.
func (b *Bench) stillThere(ids []string) []string {
	return slices.DeleteFunc(slices.Clone(ids), func(id string) bool {
		return !slices.ContainsFunc(b.Kit, func(k assemble.KitFilter) bool { return k.ID == id })
	})
}

func (b *Bench) titleOf(id string) string {
	for _, f := range b.Filters {
		if f.ID == id {
			return f.Title
		}
	}
	return "unknown glass"
}

// zoneOf returns the zone of a shoot: the one it names, that of its place, or this
// machine's.
func zoneOf(day *store.ShootDay) (*time.Location, error) {
	name := day.Zone
	if name == "" && day.Where != nil {
		var err error
		if name, err = ZoneAt(*day.Where); err != nil {
			return nil, err
		}
	}
	if name == "" {
		return time.Local, nil
	}
	zone, err := time.LoadLocation(name)
	if err != nil {
		return nil, &problem.Fault{Field: "day.zone", Value: name, Allowed: "the IANA name of a time zone, as in Etc/GMT+1"}
	}
	return zone, nil
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
func (d *Desk) CheckShoot(s store.Shoot) error {
	zone, err := zoneOf(&s.Day)
	if err != nil {
		return err
	}
	if _, _, err := spanOf(&s.Day, nil, zone, d.Now()); err != nil {
		return err
	}
	if s.Day.FirstDay != "" && s.Day.LastDay != "" && s.Day.LastDay < s.Day.FirstDay {
		return &problem.Fault{Field: "day.lastDay", Value: s.Day.LastDay, Allowed: "no day before the first, " + s.Day.FirstDay}
	}
	return nil
}

package demo

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"pinhole/core/assemble"
	"time"

	"pinhole/core/angle"
	"pinhole/core/light"
	"pinhole/core/stop"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// Seed fills the data file with the demo, unless it holds cameras already. All of it or
// nothing is there: it is made in a file of its own and taken over in one step.
func Seed(ctx context.Context, svc *service.Service) (err error) {
	there, err := svc.Store.Cameras().List(ctx)
	if err != nil || len(there) > 0 {
		return err
	}
	folder, err := os.MkdirTemp("", "pinhole-demo-")
	if err != nil {
		return fmt.Errorf("make room for the demo: %w", err)
	}
	defer func() { err = errors.Join(err, os.RemoveAll(folder)) }()
	made, err := store.Open(ctx, filepath.Join(folder, "made.db"), svc.Now)
	if err != nil {
		return err
	}
	filled := filepath.Join(folder, "filled.db")
	err = seed(ctx, &service.Service{Store: made, Now: svc.Now})
	if err == nil {
		err = made.Backup(ctx, filled)
	}
	if err = errors.Join(err, made.Close()); err != nil {
		return err
	}
	return svc.Store.Fill(ctx, filled)
}

func seed(ctx context.Context, svc *service.Service) error {
	ids, err := seedGear(ctx, svc)
	if err != nil {
		return err
	}
	if err := seedSeason(ctx, svc, ids); err != nil {
		return fmt.Errorf("add the season: %w", err)
	}
	shoot, err := svc.Store.Shoots().Save(ctx, store.Shoot{ShootFields: store.ShootFields{
		Day: store.ShootDay{
			Where: &assemble.PlaceFields{LatDeg: 38.4, LonDeg: -20.5}, Zone: "Etc/GMT+1", FirstDay: "2031-09-20", LastDay: "2031-09-21", Sky: light.ClearSky,
			Turns: []assemble.SkyTurn{{From: *at(20, 15, 0), Sky: light.PartlyCloudy}, {From: *at(21, 5, 0), Sky: light.ClearSky}},
		},
		Name: "Marl Terrace harvest", Place: "Marl Terrace, 38.4 N 20.5 W", Notes: "Saturday 20 and Sunday 21 September 2031. All data is made up.",
	}})
	if err != nil {
		return fmt.Errorf("add the shoot: %w", err)
	}
	for _, fields := range shots(ids) {
		fields.ShootID = shoot.ID
		if _, err := svc.SaveShot(ctx, store.Shot{ShotFields: fields}); err != nil {
			return fmt.Errorf("add the shot %q: %w", fields.Name, err)
		}
	}
	return nil
}

// seedGear adds cameras and filters and returns their ids: a camera's by its
// name, a filter's by its label and the camera it goes on.
func seedGear(ctx context.Context, svc *service.Service) (map[string]string, error) {
	ids := map[string]string{}
	byName := map[string]store.Camera{}
	rigIDs := map[string]string{}
	for _, k := range cameras() {
		c, err := svc.Store.AddCamera(ctx, store.Camera{CameraFields: k.CameraFields}, k.rigs[0])
		if err != nil {
			return nil, fmt.Errorf("add the camera %q: %w", k.Name, err)
		}
		for _, sheet := range k.rigs[1:] {
			if _, err := svc.Store.Rigs().Save(ctx, store.Rig{RigFields: store.RigFields{CameraID: c.ID, RigSheet: sheet}}); err != nil {
				return nil, fmt.Errorf("add the rig %q: %w", sheet.Name, err)
			}
		}
		held, err := svc.Store.RigsOf(ctx, c.ID)
		if err != nil {
			return nil, err
		}
		ids[c.Name], byName[c.Name], rigIDs[c.Name] = c.ID, c, held[0].ID
	}
	for _, g := range filters() {
		for _, name := range g.on {
			g.Cameras = append(g.Cameras, ids[name])
		}
		f, err := svc.Store.Filters().Save(ctx, store.Filter{FilterFields: g.FilterFields})
		if err != nil {
			return nil, fmt.Errorf("add the filter %q: %w", g.Label, err)
		}
		ids[g.Label+" on "+g.on[0]] = f.ID
		if !g.untried {
			trial := store.TrialFields{RigID: rigIDs[g.on[0]], FilterID: f.ID, TriedAt: bought, Found: g.found}
			if _, err := svc.Store.Trials().Save(ctx, store.Trial{TrialFields: trial}); err != nil {
				return nil, fmt.Errorf("try %q on %q: %w", g.Label, g.on[0], err)
			}
		}
		if g.mounted {
			c := byName[g.on[0]]
			c.Mounted = append(c.Mounted, f.ID)
			if _, err := svc.Store.Cameras().Save(ctx, c); err != nil {
				return nil, fmt.Errorf("mount %q on %q: %w", g.Label, c.Name, err)
			}
		}
	}
	for _, p := range packs() {
		for i, name := range p.Cameras {
			p.Cameras[i] = ids[name]
		}
		if _, err := svc.Store.Packs().Save(ctx, store.Pack{PackFields: p}); err != nil {
			return nil, fmt.Errorf("add the pack %q: %w", p.Name, err)
		}
	}
	return ids, nil
}

// bought is when the glass came and was tried: long before, so that a trial made in
// the demo today is the newest.
var bought = time.Date(2024, time.May, 4, 17, 0, 0, 0, islandTime)

// islandTime is the zone of the made-up island.
var islandTime = time.FixedZone("", -3600)

func at(day, hour, minute int) *time.Time {
	t := time.Date(2031, time.September, day, hour, minute, 0, 0, islandTime)
	return &t
}

// shots are seven of the weekend, each with a question of its own.
func shots(ids map[string]string) []store.ShotFields {
	return []store.ShotFields{
		{
			Name: "Dawn walk between the rows", CameraID: ids[pocket], StartsAt: at(20, 7, 20), Day: daylight(25, light.Vertical, 100),
			Asked: assemble.Asked{
				Look:    assemble.ShotLook{FPS: "25", Target: "180°"},
				Choices: assemble.Choices{Mounted: []string{ids["UV on "+pocket]}},
				Scene: assemble.ShotScene{
					Activity: "walk", Movement: passing(1.4, 1.5),
					Parts: &assemble.PartsFields{SubjectEV100: 10.6, BrightEV100: 14.2, DarkEV100: 7.4, ExposeFor: light.Between},
				},
			},
			Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "f2 1/400 iso100"}},
		},
		{
			Name: "Crates down the lane", CameraID: ids[crate], StartsAt: at(20, 10, 40), Day: daylight(35, light.Vertical, 200),
			Asked: assemble.Asked{
				Look:  assemble.ShotLook{FPS: "50", Target: "180°"},
				Scene: assemble.ShotScene{Shake: rate(55), Movement: passing(4, 2)},
			},
			Light: assemble.ShotLight{Kind: "auto", At: &assemble.Entry{Shutter: "1/2000", ISO: "100"}},
		},
		{
			Name: "Dive down the terraces", CameraID: ids[quad], StartsAt: at(20, 12, 15), Day: store.ShotDay{Minutes: 18, Plane: light.Vertical, SurfaceStops: value(stop.Stops(0.5))},
			Asked: assemble.Asked{
				Look:    assemble.ShotLook{FPS: "60", Target: "180°"},
				Choices: assemble.Choices{MaxLayers: 1},
				Scene: assemble.ShotScene{
					Movement: passing(14, 4),
					Motor:    &assemble.MotorSwing{RPM: value(18000.0), Blades: value(3), AmplitudeDeg: 0.03},
					Tilt:     &assemble.UptiltRequest{TiltDeg: 25, AtMps: 14, SpeedMps: 20},
				},
			},
			Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 14.9"}, Low: &assemble.Entry{Text: "EV 13.2"}},
		},
		{
			Name: "Noon walk on the terrace", CameraID: ids[pocket], StartsAt: at(20, 12, 50), Day: daylight(20, light.Vertical, 0),
			Asked: assemble.Asked{
				Look:    assemble.ShotLook{FPS: "25", Target: "180°"},
				Choices: assemble.Choices{Mounted: []string{ids["UV on "+pocket]}},
				Scene:   assemble.ShotScene{Activity: "walk", Movement: passing(1.4, 3)},
			},
			Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 14.8"}},
		},
		{
			Name: "Lantern supper", CameraID: ids[pocket], StartsAt: at(20, 19, 40), Day: store.ShotDay{Minutes: 60},
			Asked: assemble.Asked{
				Look:    assemble.ShotLook{FPS: "25", Target: "180°"},
				Choices: assemble.Choices{Mounted: []string{ids["UV on "+pocket]}},
				Scene:   assemble.ShotScene{Activity: "held", Movement: passing(0.6, 2)},
			},
			Light: assemble.ShotLight{Kind: "lux", At: &assemble.Entry{Text: "40"}},
		},
		{
			Name: "Pond from above", CameraID: ids[drone], StartsAt: at(21, 11, 5), Day: store.ShotDay{Minutes: 40, Plane: light.Top, HeadingDeg: value(angle.Deg(150)), TiltDeg: -40, Water: true},
			Asked: assemble.Asked{
				Look:    assemble.ShotLook{FPS: "25", Target: "180°"},
				Choices: assemble.Choices{Required: []string{ids["ND32/PL on "+drone]}},
				Scene:   assemble.ShotScene{Activity: "cruise", Movement: passing(5, 60)},
			},
			Light: assemble.ShotLight{Kind: "lux", At: &assemble.Entry{Text: "92000"}},
		},
		{
			Name: "Press cellar, an hour in a minute", CameraID: ids[phone], StartsAt: at(21, 14, 30), Day: store.ShotDay{Minutes: 60},
			Asked: assemble.Asked{
				Look:  assemble.ShotLook{FPS: "still", Target: "180°"},
				Scene: assemble.ShotScene{Activity: "stand", Interval: 2, Lamps: &assemble.LampFields{MainsHz: value(50.0)}, Movement: passing(0.8, 3)},
			},
			Light: assemble.ShotLight{Kind: "lux", At: &assemble.Entry{Text: "350"}},
		},
	}
}

// daylight is a shot of an upright subject, the camera looking one way.
func daylight(minutes int, plane light.Plane, heading angle.Deg) store.ShotDay {
	return store.ShotDay{Minutes: minutes, Plane: plane, HeadingDeg: &heading}
}

func passing(speedMps, distanceM float64) *assemble.MovementFields {
	return &assemble.MovementFields{SpeedMps: &speedMps, DistanceM: &distanceM}
}

func rate(r angle.DegPerS) *angle.DegPerS { return &r }

func value[T any](v T) *T { return &v }

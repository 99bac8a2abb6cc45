package service

import (
	"pinhole/core/assemble"
	"pinhole/core/fit"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/light"
	"pinhole/internal/files"
	"pinhole/internal/store"
)

func TestADayIsMadeReady(t *testing.T) {
	h := hold(t, "ND8", "ND32")
	shot := gearShot(t, h)
	start := time.Date(2031, 9, 20, 13, 0, 0, 0, time.UTC)
	shot.StartsAt, shot.Day = &start, store.ShotDay{Plane: light.Vertical}
	planned := keep[store.Shot](t)(h.SaveShot(t.Context(), shot))
	loose := gearShot(t, h)
	loose.ShootID = planned.ShootID
	keep[store.Shot](t)(h.SaveShot(t.Context(), loose))
	shoot := keep[store.Shoot](t)(h.Store.Shoots().Get(t.Context(), planned.ShootID))
	shoot.Day = store.ShootDay{Where: &assemble.PlaceFields{LatDeg: 38.4, LonDeg: -20.5}, LastDay: "2031-09-21"}
	keep[store.Shoot](t)(h.Store.Shoots().Save(t.Context(), shoot))

	day := keep[*Day](t)(h.Day(t.Context(), shoot.ID))
	r := day.Request
	if day.Zone != "Etc/GMT+1" || r.From.Format(time.RFC3339) != "2031-09-20T00:00:00-01:00" || r.To.Format(time.RFC3339) != "2031-09-22T00:00:00-01:00" {
		t.Errorf("in %s from %v to %v", day.Zone, r.From, r.To)
	}
	if len(r.Shots) != 1 || len(day.Unplaced) != 1 || r.Shots[0].Minutes != defaultMinutes || r.Shots[0].From.Format("15:04") != "12:00" || r.Shots[0].EVSet == 0 || r.Shots[0].Headroom != 4 {
		t.Errorf("shots %+v", r.Shots)
	}
	var names []string
	for _, s := range r.Stacks {
		names = append(names, s.Name)
	}
	if slices.Sort(names); !slices.Equal(names, []string{"ND32", "ND8", "ND8 + ND32", "No filter"}) {
		t.Errorf("stacks %q", names)
	}
	// Held otherwise, the camera takes what goes on that rig: of another mount, nothing.
	rig := store.Rig{RigFields: store.RigFields{CameraID: h.cameraID, RigSheet: store.RigSheet{Name: "cage", Housing: "cage", Way: "upright", Measures: fit.RigFields{Mount: "thread"}}}}
	rig = keep[store.Rig](t)(h.Store.Rigs().Save(t.Context(), rig))
	for i := range h.filters {
		h.change(i, func(f *store.Filter) { f.Body.Mount = "magnet" })
	}
	caged := gearShot(t, h)
	later := start.Add(2 * time.Hour)
	caged.ShootID, caged.RigID, caged.StartsAt, caged.Day = planned.ShootID, rig.ID, &later, store.ShotDay{Plane: light.Vertical}
	keep[store.Shot](t)(h.SaveShot(t.Context(), caged))
	both := keep[*files.Plan](t)(h.PlanFile(t.Context(), shoot.ID))
	if len(both.Shots) != 2 || both.Shots[1].Glass != "No filter" || both.Shots[0].Glass == "No filter" {
		t.Errorf("on two rigs: %+v", both.Shots)
	}
	p, err := h.PlanFile(t.Context(), shoot.ID)
	if err != nil || len(p.Shots) != 2 || !strings.Contains(p.Shots[0].Glass, "ND32") || p.Shots[0].Setting != "1/50" {
		t.Errorf("%+v, %v", p, err)
	}
}

func gearShot(t *testing.T, h *held) store.Shot {
	t.Helper()
	shoots := keep[[]store.Shoot](t)(h.Store.Shoots().List(t.Context()))
	return store.Shot{ShotFields: store.ShotFields{
		ShootID: shoots[0].ID, CameraID: h.cameraID, Name: "shot", Asked: assemble.Asked{Look: assemble.ShotLook{FPS: "25", Target: "180°"}},
		Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "f2 1/400 iso100"}},
	}}
}

func TestDaysThatCannotBe(t *testing.T) {
	h := hold(t)
	for field, day := range map[string]store.ShootDay{
		"day.zone": {Zone: "Nowhere/Town"}, "day.firstDay": {FirstDay: "tomorrow"}, "day.lastDay": {FirstDay: "2031-09-21", LastDay: "2031-09-20"},
	} {
		if err := h.CheckShoot(store.Shoot{ShootFields: store.ShootFields{Day: day}}); err == nil || !strings.Contains(err.Error(), field) {
			t.Errorf("%+v gives %v", day, err)
		}
	}
}

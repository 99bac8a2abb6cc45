package desk

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"pinhole/core/day"
	"pinhole/core/learn"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// instrument names what reads light: a camera as it is held, by its way of metering, or the hand
// meter. An eye is none.
func instrument(rigID string, kind learn.Kind) string {
	switch {
	case kind == learn.ByMeter:
		return "meter"
	case kind == learn.ByEye || rigID == "":
		return ""
	}
	return rigID + " " + string(kind)
}

// readingKinds are the ways of reading light as they teach; what is looked for filter by filter
// teaches nothing.
var readingKinds = map[string]learn.Kind{
	"meter": learn.ByMeter, "lux": learn.ByMeter, "auto": learn.ByAuto, "bias": learn.ByBias, "still": learn.ByFrame, "sky": learn.ByEye,
}

// forecastAt returns where a shoot is, and the light that the model alone foretells there; nil
// where the shoot has no place, or is not on that day.
func forecastAt(shoot *store.Shoot, shot *store.Shot, at time.Time) *store.RecordPlace {
	where := shoot.Day.Where
	if where == nil || shoot.Day.FirstDay == "" {
		return nil
	}
	zone, err := zoneOf(&shoot.Day)
	if err != nil {
		return nil
	}
	date := at.In(zone).Format(time.DateOnly)
	if date < shoot.Day.FirstDay || date > cmp.Or(shoot.Day.LastDay, shoot.Day.FirstDay) {
		return nil // typed at home, of a light that was seen at another time
	}
	o := &light.Outdoors{
		Place: where.Place(), Sky: cmp.Or(shoot.Day.Sky, light.ClearSky), Plane: light.Vertical, Albedo: light.DefaultAlbedo, Surface: shoot.Day.SurfaceStops,
	}
	for _, turn := range shoot.Day.Turns {
		o.Turns = append(o.Turns, light.SkyTurn(turn))
	}
	if shot != nil {
		if shot.Day.Plane != "" {
			o.Plane = shot.Day.Plane
		}
		if shot.Day.SurfaceStops != nil {
			o.Surface = *shot.Day.SurfaceStops
		}
		if shot.Day.HeadingDeg != nil {
			o.HasHeading, o.Faces = true, light.FacingCamera(*shot.Day.HeadingDeg)
		}
	}
	scene, _ := o.At(at)
	return &store.RecordPlace{Name: cmp.Or(shoot.Place, shoot.Name), Sky: o.SkyAt(at), EV100: scene.EV}
}

// recordSeen keeps a light that was seen, with what the log foretold of it.
func (d *Desk) recordSeen(ctx context.Context, r store.Record) error {
	if r.There == nil { // one level of which nothing is foretold: it can tell two filters apart
		r.Seen.Foretold = nil
	} else if told, scale, err := d.foretell(ctx, &r); err == nil && told.Seen != nil && *told.SeenSpread > 0 {
		// A log of which nothing can be made keeps no reading from being stored.
		r.Seen.Foretold = &store.Foretold{EV100: *told.Seen, SpreadStops: *told.SeenSpread / stop.Stops(scale), Scale: scale}
	}
	_, err := d.Store.Records().Save(ctx, r)
	return err
}

// recordReadings keeps the readings of a shot as records.
func (d *Desk) recordReadings(ctx context.Context, s *store.Shot, taken []store.Reading) error {
	rigID, err := d.rigOf(ctx, s)
	if err != nil {
		return err
	}
	for _, reading := range taken {
		kind, teaches := readingKinds[reading.Light.Kind]
		entry := reading.Light.At
		isOther := reading.Role == "low" // of a range: that is another light, at another place or time
		if !teaches || isOther || kind != learn.ByEye && entry == nil {
			continue
		}
		r := store.Record{RecordFields: store.RecordFields{
			Kind: "seen", At: reading.TakenAt, From: "shot", Source: reading.Source, ShootID: s.ShootID, ShotID: s.ID, RigID: rigID, Name: s.Name,
			Seen: &store.RecordSeen{Kind: string(kind), EV100: reading.EV100},
		}}
		if entry != nil {
			r.Words = entry.Text
			if entry.Stops != nil {
				continue // through filters that are not named
			}
			r.Glass = entry.Glass
			for _, f := range s.Answer.Request.Kit {
				if !slices.Contains(entry.Glass, f.ID) {
					continue
				}
				if f.MaxStops != nil || len(f.Ring) > 0 { // where it stood is not said
					teaches = false
				}
				takes, err := f.Takes()
				if err != nil {
					return err
				}
				r.Seen.EV100 = r.Seen.EV100.Plus(-takes)
			}
		}
		if !teaches {
			continue
		}
		if s.ShootID != "" {
			shoot, err := d.Store.Shoots().Get(ctx, s.ShootID)
			if err != nil {
				return err
			}
			r.There = forecastAt(&shoot, s, r.At)
		}
		if r.Meta, err = d.typedOver(ctx, &r); err != nil {
			return err
		}
		if err := d.recordSeen(ctx, r); err != nil {
			return err
		}
	}
	return nil
}

// typingTime is how long after a reading another of the same shot is taken for its correction: what
// is typed is stored in every pause.
const typingTime = 2 * time.Minute

// typedOver returns which record of a shot a new one takes the place of; a new one where none.
func (d *Desk) typedOver(ctx context.Context, r *store.Record) (store.Meta, error) {
	all, err := d.Store.Records().List(ctx)
	if err != nil {
		return store.Meta{}, err
	}
	for i := len(all) - 1; i >= 0; i-- {
		if o := &all[i]; o.ShotID == r.ShotID && o.From == r.From && o.Struck == nil && r.At.Sub(o.At).Abs() < typingTime {
			return o.Meta, nil
		}
	}
	return store.Meta{}, nil
}

// SaveLightReading stores a reading of a shoot, and records it.
func (d *Desk) SaveLightReading(ctx context.Context, l store.LightReading) (store.LightReading, error) {
	isNew := l.IsNew()
	saved, err := d.Store.LightReadings().Save(ctx, l)
	if err != nil || !isNew {
		return saved, err
	}
	return saved, d.recordLight(ctx, saved.ShootID, saved.ID, "reading", saved.LightReadingFields)
}

// recordLight keeps light that was read on a shoot as a record, under the id of what it came from.
func (d *Desk) recordLight(ctx context.Context, shootID, id, from string, l store.LightReadingFields) error {
	kind, teaches := readingKinds[l.Kind]
	if !teaches {
		return nil
	}
	shoot, err := d.Store.Shoots().Get(ctx, shootID)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	spread := max(l.SpreadStops, 0.01)
	r := store.Record{Meta: store.Meta{ID: id}, RecordFields: store.RecordFields{
		Kind: "seen", At: l.TakenAt, From: from, Source: l.Source, ShootID: shootID, Name: shoot.Name, Words: l.Words,
		There: forecastAt(&shoot, nil, l.TakenAt), Seen: &store.RecordSeen{Kind: string(kind), EV100: l.EV100, SpreadStops: &spread},
	}}
	return d.recordSeen(ctx, r)
}

// recordField keeps what was logged in the field as a record, where it teaches: a reading, and
// what became of a take.
func (d *Desk) recordField(ctx context.Context, shootID string, e *store.FieldEntry) error {
	switch {
	case e.Kind == "reading" && e.Reading != nil:
		return d.recordLight(ctx, shootID, e.ID, "card", store.LightReadingFields{
			Kind: e.Reading.Kind, Source: e.Reading.Source, TakenAt: e.At, Words: e.Words, EV100: e.Reading.EV100, SpreadStops: e.Reading.SpreadStops,
		})
	case e.Kind == "outcome" && e.Outcome != nil && e.Outcome.Grade != "":
		return d.recordTake(ctx, shootID, e)
	case e.Kind == "step" && e.Tried != nil:
		return d.recordStep(ctx, shootID, e)
	}
	return nil
}

// recordStep keeps a step of a stepped trial.
func (d *Desk) recordStep(ctx context.Context, shootID string, e *store.FieldEntry) error {
	shot, err := d.Store.Shots().Get(ctx, e.ShotID)
	if err != nil {
		return err
	}
	rigID, err := d.rigOf(ctx, &shot)
	if err != nil {
		return err
	}
	_, err = d.Store.Records().Save(ctx, store.Record{Meta: store.Meta{ID: e.ID}, RecordFields: store.RecordFields{
		Kind: "step", At: e.At, From: "trial", Source: cmp.Or(shot.Light.Source, "real"), ShootID: shootID, ShotID: shot.ID, RigID: rigID, Name: shot.Name,
		Words: e.Words, Step: e.Tried,
	}})
	return err
}

// rigOf returns the rig that a shot is on: the one it names, or its camera's first.
func (d *Desk) rigOf(ctx context.Context, s *store.Shot) (string, error) {
	if s.RigID != "" {
		return s.RigID, nil
	}
	rigs, err := d.Store.RigsOf(ctx, s.CameraID)
	if err != nil || len(rigs) == 0 {
		return s.CameraID, err
	}
	return rigs[0].ID, nil
}

// recordTake keeps what became of a take, with how its shot was set.
func (d *Desk) recordTake(ctx context.Context, shootID string, e *store.FieldEntry) error {
	shot, err := d.Store.Shots().Get(ctx, e.ShotID)
	if err != nil {
		return err
	}
	shoot, err := d.Store.Shoots().Get(ctx, shootID)
	if err != nil {
		return err
	}
	rigID, err := d.rigOf(ctx, &shot)
	if err != nil {
		return err
	}
	chosen := shot.Answer.Given.Chosen
	took := &store.RecordTake{
		Kept: e.Outcome.Grade != "bad", Grade: e.Outcome.Grade, Why: e.Outcome.Why, Activity: string(shot.Scene.Activity), School: string(shot.Scene.School),
		Look: shot.Look.Target + " at " + shot.Look.FPS, ShutterS: chosen.ShutterS, ISO: float64(chosen.ISO), Outcome: e.Outcome, Clip: e.Outcome.Clip,
	}
	if shot.Answer.Given.Settled {
		took.ErrorStops = &chosen.LeftStops
	}
	from := "card"
	if took.Clip != nil {
		from = "clip"
	}
	r := store.Record{Meta: store.Meta{ID: e.ID}, RecordFields: store.RecordFields{
		Kind: "take", At: e.At, From: from, Source: cmp.Or(shot.Light.Source, "real"), ShootID: shootID, ShotID: shot.ID, RigID: rigID,
		Name: shot.Name, Words: e.Words, Glass: chosen.Filters, Took: took, There: forecastAt(&shoot, &shot, e.At),
	}}
	if shoot.Kept != nil {
		if planned, ok := shoot.Kept.Glass[shot.ID]; ok {
			is := planned == day.StackID(shot.CameraID, shot.RigID, chosen.Filters)
			took.FirstRight = &is
		}
	}
	_, err = d.Store.Records().Save(ctx, r)
	return err
}

// CheckRecord returns the fault of a record that lacks what its kind needs.
func (d *Desk) CheckRecord(_ context.Context, r store.Record) error {
	lacks := map[string]bool{"seen": r.Seen == nil, "take": r.Took == nil, "step": r.Step == nil, "reset": r.Reset == nil || r.RigID == ""}
	if lacks[r.Kind] {
		return &problem.Fault{Field: map[string]string{"seen": "seen", "take": "took", "step": "step", "reset": "reset"}[r.Kind], Allowed: "what the kind " + r.Kind + " says"}
	}
	if r.Seen != nil {
		for id := range r.Seen.Settings {
			if !slices.Contains(r.Glass, id) {
				return &problem.Fault{Field: "seen.settings", Value: id, Allowed: "of filters that were on"}
			}
		}
	}
	if r.At.After(d.Now().Add(24 * time.Hour)) {
		return &problem.Fault{Field: "at", Value: r.At.Format(time.RFC3339), Allowed: "what has happened"}
	}
	return nil
}

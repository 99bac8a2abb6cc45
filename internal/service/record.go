package service

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"pinhole/core/learn"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// What reads light and is no camera.
const (
	meter = "meter"
	eye   = "eye"
)

// instrument names what reads light: a camera as it is held, by its way of metering, the hand
// meter, or the eye, whose bias is learned like theirs.
func instrument(rigID string, kind learn.Kind) string {
	switch {
	case kind == learn.ByMeter:
		return meter
	case kind == learn.ByEye:
		return eye
	case rigID == "":
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
func (svc *Service) recordSeen(ctx context.Context, r store.Record) error {
	if r.There == nil { // one level of which nothing is foretold: it can tell two filters apart
		r.Seen.Foretold = nil
	} else if told, scale, err := svc.foretell(ctx, &r); err == nil && told.Seen != nil && *told.SeenSpread > 0 {
		// A log of which nothing can be made keeps no reading from being stored.
		r.Seen.Foretold = &store.Foretold{EV100: *told.Seen, SpreadStops: *told.SeenSpread / stop.Stops(scale), Scale: scale}
	}
	_, err := svc.Store.Records().Save(ctx, r)
	return err
}

// recordReadings keeps the readings of a shot as records.
func (svc *Service) recordReadings(ctx context.Context, s *store.Shot, taken []store.Reading) error {
	for i := range taken {
		r, err := svc.seenOfShot(ctx, s, &taken[i])
		if err != nil {
			return err
		}
		if r == nil {
			continue
		}
		if r.Meta, err = svc.typedOver(ctx, r); err != nil {
			return err
		}
		if err := svc.recordSeen(ctx, *r); err != nil {
			return err
		}
	}
	return nil
}

// seenOfShot returns a reading of a shot as a record; nil where it teaches nothing.
func (svc *Service) seenOfShot(ctx context.Context, s *store.Shot, reading *store.Reading) (*store.Record, error) {
	kind, teaches := readingKinds[reading.Light.Kind]
	entry := reading.Light.At
	isOther := reading.Role == "low" // of a range: that is another light, at another place or time
	if !teaches || isOther || kind != learn.ByEye && entry == nil {
		return nil, nil
	}
	rigID, err := svc.rigOf(ctx, s)
	if err != nil {
		return nil, err
	}
	r := &store.Record{RecordFields: store.RecordFields{
		Kind: "seen", At: reading.TakenAt, From: "shot", Source: reading.Source, ShootID: s.ShootID, ShotID: s.ID, RigID: rigID, Name: s.Name,
		Seen: &store.RecordSeen{Kind: string(kind), EV100: reading.EV100},
	}}
	if entry != nil {
		if entry.Stops != nil {
			return nil, nil // through filters that are not named
		}
		r.Words, r.Glass = entry.Text, entry.Glass
		for _, f := range s.Answer.Request.Kit {
			if !slices.Contains(entry.Glass, f.ID) {
				continue
			}
			if f.MaxStops != nil || len(f.Ring) > 0 { // where it stood is not said
				return nil, nil
			}
			takes, err := f.Takes()
			if err != nil {
				return nil, err
			}
			r.Seen.EV100 = r.Seen.EV100.Plus(-takes)
		}
	}
	if s.ShootID != "" {
		shoot, err := svc.Store.Shoots().Get(ctx, s.ShootID)
		if err != nil {
			return nil, err
		}
		r.There = forecastAt(&shoot, s, r.At)
	}
	return r, nil
}

// typingTime is how long after a reading another of the same shot is taken for its correction: what
// is typed is stored in every pause.
const typingTime = 2 * time.Minute

// typedOver returns which record of a shot a new one takes the place of; a new one where none.
func (svc *Service) typedOver(ctx context.Context, r *store.Record) (store.Meta, error) {
	all, err := svc.Store.Teaching(ctx)
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
func (svc *Service) SaveLightReading(ctx context.Context, l store.LightReading) (store.LightReading, error) {
	isNew := l.IsNew()
	saved, err := svc.Store.LightReadings().Save(ctx, l)
	if err != nil || !isNew {
		return saved, err
	}
	r, err := svc.seenOfShoot(ctx, saved.ShootID, saved.ID, "reading", saved.LightReadingFields)
	if r == nil || err != nil {
		return saved, err
	}
	return saved, svc.recordSeen(ctx, *r)
}

// seenOfShoot returns light that was read on a shoot as a record, under the id of what it came
// from; nil where it teaches nothing.
func (svc *Service) seenOfShoot(ctx context.Context, shootID, id, from string, l store.LightReadingFields) (*store.Record, error) {
	kind, teaches := readingKinds[l.Kind]
	if !teaches {
		return nil, nil
	}
	shoot, err := svc.Store.Shoots().Get(ctx, shootID)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	spread := max(l.SpreadStops, 0.01)
	return &store.Record{Meta: store.Meta{ID: id}, RecordFields: store.RecordFields{
		Kind: "seen", At: l.TakenAt, From: from, Source: l.Source, ShootID: shootID, Name: shoot.Name, Words: l.Words,
		There: forecastAt(&shoot, nil, l.TakenAt), Seen: &store.RecordSeen{Kind: string(kind), EV100: l.EV100, SpreadStops: &spread},
	}}, nil
}

// CheckRecord returns the fault of a record that lacks what its kind needs.
func (svc *Service) CheckRecord(_ context.Context, r store.Record) error {
	lacks := map[string]bool{"seen": r.Seen == nil, "take": r.Took == nil, "step": r.Step == nil, "reset": r.Reset == nil || r.RigID == "", "done": r.Done == nil}
	if lacks[r.Kind] {
		return &problem.Fault{Field: map[string]string{"seen": "seen", "take": "took", "step": "step", "reset": "reset", "done": "done"}[r.Kind], Allowed: "what the kind " + r.Kind + " says"}
	}
	if r.Seen != nil {
		for id := range r.Seen.Settings {
			if !slices.Contains(r.Glass, id) {
				return &problem.Fault{Field: "seen.settings", Value: id, Allowed: "of filters that were on"}
			}
		}
	}
	if r.At.After(svc.Now().Add(24 * time.Hour)) {
		return &problem.Fault{Field: "at", Value: r.At.Format(time.RFC3339), Allowed: "what has happened"}
	}
	return nil
}

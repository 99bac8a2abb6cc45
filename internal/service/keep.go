package service

import (
	"cmp"
	"context"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"github.com/google/uuid"

	"pinhole/core/assemble"
	"pinhole/core/calc"
	"pinhole/core/glass"
	"pinhole/core/line"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// KeepRequest is a line whose shot is to be kept.
type KeepRequest struct {
	Line     string `json:"line" minLength:"1" maxLength:"500"`
	CameraID string `json:"cameraId,omitempty" maxLength:"60" doc:"the camera that is meant where the line names none; the one that was worked on last by default"`
	ShootID  string `json:"shootId,omitempty" maxLength:"60" doc:"the shoot it goes to; the latest by default, or a new one"`
	Name     string `json:"name,omitempty" maxLength:"76" doc:"what the shot is called, Quick shot by default, with a number behind it where another of its shoot is called so"`
}

// What is kept of a line is called so until its owner names it.
const (
	newShot   = "Quick shot"
	newShoot  = "My shoot"
	newCamera = "My camera"
)

// Keep makes camera, glass and shot of a line: the camera where it names none that is known,
// the filters that the camera does not have, and the shot, all or none. Values that nobody
// said are stored as assumed. The key is the shot's id: sent twice, it is kept once.
func (svc *Service) Keep(ctx context.Context, key string, r KeepRequest) (store.Shot, error) {
	cameras, err := svc.Askable(ctx)
	if err != nil {
		return store.Shot{}, err
	}
	if i := slices.IndexFunc(cameras, func(c calc.AskCamera) bool { return c.Held.CameraID == r.CameraID }); i > 0 {
		cameras[0], cameras[i] = cameras[i], cameras[0]
	}
	asked, err := calc.Ask(calc.AskRequest{Line: r.Line, Cameras: cameras, Whole: true})
	if err != nil {
		return store.Shot{}, err
	}
	if asked.Shot == nil {
		return store.Shot{}, &problem.Fault{Field: "line", Value: r.Line, Allowed: "a shot that can be answered. " + asked.Words}
	}
	request := asked.Request
	k := store.Keeping{Shot: store.Shot{Meta: store.Meta{ID: cmp.Or(key, newID())}}}
	var has []assemble.KitFilter
	if i := slices.IndexFunc(cameras, func(c calc.AskCamera) bool { return c.Name == asked.Camera }); i >= 0 {
		k.Shot.CameraID, k.Shot.RigID, has = cameras[i].Held.CameraID, cameras[i].Held.RigID, cameras[i].Held.Kit
	} else {
		c, rig := cameraOf(line.Read(r.Line), request, cameras)
		if err := svc.CheckCamera(c); err != nil {
			return store.Shot{}, err
		}
		k.Camera, k.Rig, k.Shot.CameraID = &c, rig, c.ID
	}
	if request.Placed = nil; !asked.IsAtHand {
		request.Kit = nil
	}
	k.Filters = nameGlass(request, has, k.Shot.CameraID)
	given, err := calc.AnswerShot(*request)
	if err != nil {
		return store.Shot{}, err
	}
	k.Shot.ShotFields = store.ShotFields{CameraID: k.Shot.CameraID, RigID: k.Shot.RigID, Light: request.Light,
		Asked: assemble.Asked{Look: request.Look, Scene: request.Scene, Choices: request.Choices}}
	k.Shot.Answer = store.Answer{Model: calc.ModelVersion, At: svc.Now(), Request: *request, Given: *given, Camera: asked.Camera, Glass: map[string]string{}}
	if k.Shoot, k.Shot.ShootID, err = svc.shootFor(ctx, r.ShootID); err != nil {
		return store.Shot{}, err
	}
	others, err := svc.Store.ShotNames(ctx, k.Shot.ShootID)
	if err != nil {
		return store.Shot{}, err
	}
	k.Shot.Name = unlike(cmp.Or(r.Name, newShot), others)
	if err := svc.asSettled(ctx, &k.Shot); err != nil {
		return store.Shot{}, err
	}
	kept, err := svc.Store.Keep(ctx, k)
	if err != nil || kept.Version > 1 {
		return kept, err // or it was kept before, and changed since
	}
	// Its own bench answers it from now on: fit, and what else is known of the glass, count there.
	if again, err := svc.SaveShot(ctx, kept); err == nil {
		return again, nil
	}
	return kept, nil // it is kept, and says what is wrong when it is opened
}

// cameraOf is the camera that a line tells of, under a name that no other has.
func cameraOf(s *line.Sentence, r *assemble.ShotRequest, others []calc.AskCamera) (store.Camera, store.RigSheet) {
	c, rig := store.CameraFields{Name: newCamera, Steps: []string{}, Rates: assemble.UsualPresets().Starts.Rates, FrameSizes: []string{}, Mounted: []string{}, Sources: assumed("steps", "rates")}, store.BareRig()
	if i := slices.IndexFunc(Archetypes(), func(a Archetype) bool { return a.Key == s.Archetype }); i >= 0 {
		a := Archetypes()[i]
		c, rig = a.Camera, a.Rig
	}
	c.Aperture, c.ISOBase, c.ISOCeiling = r.Camera.Aperture, r.Camera.ISOBase, r.Camera.ISOCeiling
	for field, isSaid := range map[string]bool{"aperture": s.Aperture != 0, "isoBase": s.ISOBase != 0, "isoCeiling": s.ISOCeiling != 0} {
		if c.Sources[field] = store.Assumed; isSaid {
			c.Sources[field] = store.Printed
		}
	}
	if rate, err := stop.ParseRate(r.Look.FPS); err == nil && !slices.Contains(c.Rates, rate.String()) && rate > 0 {
		c.Rates = append(slices.Clone(c.Rates), rate.String())
	}
	names := make([]string, len(others))
	for i := range others {
		names[i] = others[i].Name
	}
	c.Name = unlike(c.Name, names)
	return store.Camera{Meta: store.Meta{ID: newID()}, CameraFields: c}, rig
}

// unlike returns a name that none of the others is, with a number behind it where one is.
func unlike(name string, others []string) string {
	free := name
	for n := 2; slices.Contains(others, free); n++ {
		free = fmt.Sprintf("%s %d", name, n)
	}
	return free
}

// nameGlass gives the glass of a request that its camera does not have, which has labels for
// ids, ids of its own, and returns it as filters.
func nameGlass(r *assemble.ShotRequest, has []assemble.KitFilter, cameraID string) (fresh []store.Filter) {
	ids := map[string]string{}
	r.Kit = slices.Clone(r.Kit)
	for i := range r.Kit {
		k := &r.Kit[i]
		if slices.ContainsFunc(has, func(h assemble.KitFilter) bool { return h.ID == k.ID }) {
			continue
		}
		label := k.ID
		k.ID = newID()
		ids[label] = k.ID
		f := store.Filter{Meta: store.Meta{ID: k.ID}, FilterFields: store.FilterFields{Label: printedOn(label), Cameras: []string{cameraID}}}
		if l, err := glass.ParseLabel(f.Label); err == nil && l.Ambiguous() {
			f.Means = l.Reading.String()
		}
		fresh = append(fresh, f)
	}
	renamed := func(named []string) []string {
		named = slices.Clone(named)
		for i, id := range named {
			named[i] = cmp.Or(ids[id], id)
		}
		return named
	}
	for _, e := range []**assemble.Entry{&r.Light.At, &r.Light.Low} {
		if *e != nil {
			read := **e
			read.Glass = renamed(read.Glass)
			*e = &read
		}
	}
	if r.Required = renamed(r.Required); r.AtHand != nil {
		all := renamed(*r.AtHand)
		r.AtHand = &all
	}
	return fresh
}

// twin is the number behind the second filter of one label.
var twin = regexp.MustCompile(` \([0-9]+\)$`)

// printedOn is the label that an id of a line's glass stands for.
func printedOn(id string) string {
	return strings.TrimSuffix(twin.ReplaceAllString(id, ""), " filter")
}

// shootFor is the shoot of that id, the latest where none is named, or a new one.
func (svc *Service) shootFor(ctx context.Context, id string) (fresh *store.Shoot, of string, err error) {
	if id != "" {
		s, err := svc.Store.Shoots().Get(ctx, id)
		return nil, s.ID, err
	}
	all, err := svc.Store.Shoots().List(ctx)
	if err != nil {
		return nil, "", err
	}
	if n := len(all); n > 0 {
		return nil, all[n-1].ID, nil
	}
	s := &store.Shoot{Meta: store.Meta{ID: newID()}, ShootFields: store.ShootFields{Name: newShoot}}
	return s, s.ID, nil
}

// newID makes an id as the store does, for what is named before it is stored.
func newID() string { return uuid.Must(uuid.NewV7()).String() }

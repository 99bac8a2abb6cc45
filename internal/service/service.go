package service

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"pinhole/core/assemble"
	"reflect"
	"slices"
	"time"

	"pinhole/core/calc"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/internal/store"
)

// Service answers shots from what is stored.
type Service struct {
	Store *store.Store
	Now   func() time.Time

	taught taught
}

// Bench is a camera with the glass that goes on it, as the computation takes it.
type Bench struct {
	Camera  store.Camera         `json:"camera"`
	Rig     store.Rig            `json:"rig" doc:"how the camera is held"`
	Rigs    []store.Rig          `json:"rigs" doc:"every way in which it is"`
	Layers  int                  `json:"layers" doc:"how many loose layers are offered where a shot does not say"`
	Recipe  []string             `json:"recipe" doc:"what to set beside shutter and ISO as it is held, a line each; white balance first, with the filter on"`
	Optics  assemble.Camera      `json:"optics" doc:"the camera as a shot request takes it"`
	Kit     []assemble.KitFilter `json:"kit" doc:"the glass as a shot request takes it"`
	Filters []ShownFilter        `json:"filters" doc:"what is in the kit, in the same order"`
	LeftOut []ShownFilter        `json:"leftOut" doc:"glass that goes on but whose strength is not settled"`
	Fits    []FitCell            `json:"fits" doc:"how each filter in the kit fits, in the same order"`
	Refused []FitCell            `json:"refused" doc:"glass its owner says goes on, and that does not"`
}

// Bench returns the bench of a camera held as a rig of that id, or as its first.
func (svc *Service) Bench(ctx context.Context, cameraID, rigID string) (*Bench, error) {
	shelf, err := svc.shelf(ctx)
	if err != nil {
		return nil, err
	}
	return svc.benchFrom(ctx, shelf, cameraID, rigID)
}

// benchFrom is Bench of a kit that is read already.
func (svc *Service) benchFrom(ctx context.Context, shelf *shelf, cameraID, rigID string) (*Bench, error) {
	camera, isThere := shelf.cameras[cameraID]
	if !isThere { // a shot of a deleted camera can still be read
		var err error
		if camera, err = svc.Store.Cameras().Get(ctx, cameraID); err != nil {
			return nil, err
		}
		shelf.cameras[cameraID] = camera
	}
	b := &Bench{Camera: camera, Kit: []assemble.KitFilter{}, Filters: []ShownFilter{}, LeftOut: []ShownFilter{}, Fits: []FitCell{}, Refused: []FitCell{}}
	var err error
	if b.Optics, err = optics(camera.CameraFields); err != nil {
		return nil, fmt.Errorf("camera %s as stored: %w", cameraID, err)
	}
	if err := b.hold(ctx, svc.Store, rigID); err != nil {
		return nil, err
	}
	recipe := b.recipe()
	b.Recipe = recipe.Lines()
	b.Optics.Mount = b.Rig.Measures.Mount
	b.Layers = b.Optics.Mount.Layers()
	shelf.taught.teachCamera(b)
	for _, f := range shelf.filters {
		if err := b.offer(f, shelf); err != nil {
			return nil, err
		}
	}
	return b, nil
}

// recipe returns what is set on the camera as it is held.
func (b *Bench) recipe() store.Recipe { return b.Rig.Recipe.Over(&b.Camera.Recipe) }

// held returns the camera as questions are assembled of it.
func (b *Bench) held() *assemble.Held {
	return &assemble.Held{CameraID: b.Camera.ID, RigID: b.Rig.ID, Optics: b.Optics, Profile: b.Camera.Profile, Rates: b.Camera.Rates, Craft: b.Rig.Craft, Kit: b.Kit}
}

// hold picks the rig: the one of that id, or where it is gone the camera's first.
func (b *Bench) hold(ctx context.Context, s *store.Store, rigID string) (err error) {
	if b.Rigs, err = s.RigsOf(ctx, b.Camera.ID); err != nil {
		return err
	}
	if len(b.Rigs) == 0 {
		b.Rig = store.Rig{RigFields: store.RigFields{CameraID: b.Camera.ID, RigSheet: store.BareRig()}}
		return nil
	}
	b.Rig = b.Rigs[0]
	if i := slices.IndexFunc(b.Rigs, func(r store.Rig) bool { return r.ID == rigID }); i >= 0 {
		b.Rig = b.Rigs[i]
	}
	return nil
}

// offer puts a filter where it belongs: into the kit, with what is refused, with
// what is not settled, or nowhere.
func (b *Bench) offer(f store.Filter, s *shelf) error {
	seat, err := s.seat(b.Rig, []store.Filter{f})
	if err != nil {
		return err
	}
	if !seat.Offered {
		if seat.Claimed { // never offered, whatever is printed on its box
			b.Refused = append(b.Refused, seat.FitCell)
		}
		return nil
	}
	shown, err := Show(f)
	switch {
	case err != nil:
		return fmt.Errorf("filter %s as stored: %w", f.ID, err)
	case shown.Counts == nil:
		b.LeftOut = append(b.LeftOut, shown)
	default:
		s.taught.teach(&shown)
		on := seat.measured(f)
		shown.Counts.TiltUpDeg, shown.Counts.CornerStops = on.TiltUpDeg, orZero(on.CornerStops)
		shown.Counts.Standing = seat.Standing
		b.Filters = append(b.Filters, shown)
		b.Fits = append(b.Fits, seat.FitCell)
		b.Kit = append(b.Kit, *shown.Counts)
	}
	return nil
}

// answer computes what a shot is told on its camera's bench.
func (svc *Service) answer(ctx context.Context, f store.ShotFields) (store.Answer, error) {
	b, err := svc.Bench(ctx, f.CameraID, f.RigID)
	if err != nil {
		return store.Answer{}, err
	}
	return svc.answerOn(b, f)
}

// answerOn computes what a shot is told on a bench.
func (svc *Service) answerOn(b *Bench, f store.ShotFields) (store.Answer, error) {
	request := *b.held().Shot(f.Asked)
	request.Light, request.Placed = f.Light, f.Placed
	answer := store.Answer{Model: calc.ModelVersion, At: svc.Now(), Camera: b.Camera.Name, Glass: map[string]string{}}
	given, err := calc.AnswerShot(request)
	var fault *problem.Fault
	if errors.As(err, &fault) && fault.Field == "kit" {
		// What is wrong is the gear, not what was typed: that is kept all the same, with what
		// can be told of the shot by the glass that it names.
		answer.Unanswered = fault.Error()
		named := namedBy(f)
		request.Kit = slices.DeleteFunc(slices.Clone(request.Kit), func(k assemble.KitFilter) bool { return !slices.Contains(named, k.ID) })
		given, err = calc.AnswerShot(request)
	}
	if err != nil {
		return answer, err
	}
	for _, f := range b.Filters {
		answer.Glass[f.ID] = f.Title
	}
	if tried := f.Scene.TriedGlass(); tried != "" {
		answer.Glass[shot.NewGlass] = tried
	}
	answer.Request, answer.Given = request, *given
	return answer, nil
}

// namedBy returns the ids of the glass that a shot names: put on, asked for, on the lens, at
// hand, or on while the light was read.
func namedBy(f store.ShotFields) []string {
	ids := slices.Concat(f.Choices.Required, f.Choices.Mounted)
	for _, more := range []*[]string{f.Placed, f.Choices.AtHand} {
		if more != nil {
			ids = append(ids, *more...)
		}
	}
	for _, e := range []*assemble.Entry{f.Light.At, f.Light.Low} {
		if e != nil {
			ids = append(ids, e.Glass...)
		}
	}
	return ids
}

// SaveShot answers the shot and stores it with its answer: a new one where it has
// no id, else over the version it names. A light that was not read before for
// this shot is kept as a reading.
func (svc *Service) SaveShot(ctx context.Context, s store.Shot) (store.Shot, error) {
	if s.IsNew() {
		if err := svc.asSettled(ctx, &s); err != nil {
			return store.Shot{}, err
		}
	}
	answer, err := svc.answer(ctx, s.ShotFields)
	if err != nil {
		return store.Shot{}, err
	}
	s.Answer = answer
	taken, err := svc.newReadings(ctx, s)
	if err != nil {
		return store.Shot{}, err
	}
	saved, err := svc.Store.SaveShot(ctx, s, taken)
	if err != nil {
		return saved, err
	}
	return saved, svc.recordReadings(ctx, &saved, taken)
}

// newReadings returns the readings of a shot's answer that are not kept yet.
// Light found by looking is kept once it is settled.
func (svc *Service) newReadings(ctx context.Context, s store.Shot) ([]store.Reading, error) {
	if !s.Answer.Given.Settled {
		return nil, nil
	}
	var kept []store.Reading
	if s.ID != "" {
		var err error
		if kept, err = svc.Store.ReadingsOf(ctx, s.ID); err != nil {
			return nil, err
		}
	}
	var taken []store.Reading
	note := func(role string, r *calc.ReadingAnswer) {
		if r == nil {
			return
		}
		isKept := slices.ContainsFunc(kept, func(k store.Reading) bool {
			return k.Role == role && k.EV100 == r.EV100 && reflect.DeepEqual(k.Light, s.Light)
		})
		if !isKept {
			taken = append(taken, store.Reading{ReadingFields: store.ReadingFields{
				Role: role, Source: cmp.Or(s.Light.Source, "real"), TakenAt: svc.Now(), Light: s.Light, EV100: r.EV100, SpreadStops: r.SpreadStops,
			}})
		}
	}
	note("at", s.Answer.Given.Reading)
	note("low", s.Answer.Given.Low)
	return taken, nil
}

// CheckMounted returns the fault of a camera that names glass which is not there.
func (svc *Service) CheckMounted(ctx context.Context, c store.Camera) error {
	for i, id := range c.Mounted {
		if _, err := svc.Store.Filters().Get(ctx, id); err != nil {
			return &problem.Fault{Field: fmt.Sprintf("mounted[%d]", i), Value: id, Allowed: "the id of a filter"}
		}
	}
	return nil
}

package store

import (
	"errors"
	"testing"
	"time"

	"pinhole/core/assemble"
)

// What was deleted is listed, and gone for good when the bin is emptied; what lives keeps
// all that it tells of.
func TestTheBinIsSeenAndEmptied(t *testing.T) {
	s, ctx := open(t, newPath(t)), t.Context()
	kept, gone := saved(t, s, "kept"), saved(t, s, "gone")
	old := must[Camera](t)(s.AddCamera(ctx, aCamera, BareRig()))
	unused := must[Camera](t)(s.AddCamera(ctx, aCamera, BareRig()))
	shot := func(shoot Shoot, name string) Shot {
		t.Helper()
		return must[Shot](t)(s.SaveShot(ctx, Shot{ShotFields: ShotFields{ShootID: shoot.ID, CameraID: old.ID, Name: name, Light: assemble.ShotLight{Kind: "meter"}}},
			[]Reading{{ReadingFields: ReadingFields{Role: "at", Source: "real", TakenAt: time.Now(), EV100: 12}}}))
	}
	lives, dies := shot(kept, "lives"), shot(kept, "dies")
	shot(gone, "goes along")
	filter := must[Filter](t)(s.Filters().Save(ctx, Filter{FilterFields: FilterFields{Label: "ND8"}}))
	rig := must[[]Rig](t)(s.RigsOf(ctx, old.ID))[0]
	must[Trial](t)(s.Trials().Save(ctx, Trial{TrialFields: TrialFields{RigID: rig.ID, FilterID: filter.ID, TriedAt: time.Now()}}))
	must[Shot](t)(s.Shots().Delete(ctx, dies.ID, dies.Version))
	must[Shoot](t)(s.Shoots().Delete(ctx, gone.ID, gone.Version))
	must[Filter](t)(s.Filters().Delete(ctx, filter.ID, filter.Version))
	must[Camera](t)(s.Cameras().Delete(ctx, old.ID, old.Version))
	must[Camera](t)(s.Cameras().Delete(ctx, unused.ID, unused.Version))
	bin := must[[]Binned](t)(s.Bin(ctx))
	if len(bin) != 5 || bin[0].ID != unused.ID || bin[4].Name != "dies" || bin[2].Name != "ND8" {
		t.Fatalf("the bin holds %+v", bin)
	}
	if err := s.EmptyBin(ctx); err != nil {
		t.Fatal(err)
	}
	// The camera of the shot that lives is still told of.
	if bin = must[[]Binned](t)(s.Bin(ctx)); len(bin) != 1 || bin[0].ID != old.ID {
		t.Errorf("emptied, it holds %+v", bin)
	}
	if got := must[Shot](t)(s.Shots().Get(ctx, lives.ID)); got.Name != "lives" || len(must[[]Reading](t)(s.ReadingsOf(ctx, lives.ID))) != 1 {
		t.Errorf("what lives is %+v", got)
	}
	for _, id := range []string{dies.ID} {
		if _, err := s.Shots().Get(ctx, id); !errors.Is(err, ErrNotFound) {
			t.Errorf("what was thrown away is there: %v", err)
		}
	}
}

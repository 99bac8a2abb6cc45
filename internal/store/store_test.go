package store

import (
	"context"
	"database/sql"
	"errors"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"pinhole/core/assemble"
	"pinhole/core/fit"
	"reflect"
	"testing"
	"time"

	"github.com/pressly/goose/v3"

	"pinhole/core/calc"
	"pinhole/core/stop"
)

// clock ticks a second at each reading.
func clock() func() time.Time {
	now := time.Date(2031, 9, 20, 8, 0, 0, 123456789, time.UTC)
	return func() time.Time {
		now = now.Add(time.Second)
		return now
	}
}

// open opens a data file in a folder with a space in its name.
func open(t *testing.T, path string) *Store {
	t.Helper()
	s, err := Open(t.Context(), path, clock())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return s
}

func newPath(t *testing.T) string { return filepath.Join(t.TempDir(), "a folder?#%", "pin hole.db") }

func must[T any](t *testing.T) func(v T, err error) T {
	t.Helper()
	return func(v T, err error) T {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
}

var aCamera = Camera{CameraFields: CameraFields{
	Name: "Row walker", Aperture: 2, ISOBase: 100, ISOCeiling: 1600, Steps: []string{"1/50"}, Rates: []string{"25"}, Mounted: []string{},
	Profile: &assemble.CameraProfile{Lens: &assemble.LensFields{WidthPx: 3840, HFOVDeg: 72, Projection: "rectilinear"}, Stabiliser: "gimbal", Flies: true},
}}

func TestConnectionSettings(t *testing.T) {
	path := newPath(t)
	s := open(t, path)
	for _, db := range []*sql.DB{s.writer, s.reader} {
		for pragma, want := range map[string]string{"journal_mode": "wal", "foreign_keys": "1", "busy_timeout": "5000", "synchronous": "2"} {
			var got string
			if err := db.QueryRowContext(t.Context(), "PRAGMA "+pragma).Scan(&got); err != nil || got != want {
				t.Errorf("%s is %q, %v, want %q", pragma, got, err, want)
			}
		}
	}
	if _, err := os.Stat(path); err != nil {
		t.Errorf("the data file is not where it was asked for: %v", err)
	}
}

func TestMigrationsRunFromEmptyAndOnce(t *testing.T) {
	path := newPath(t)
	first := must[*Store](t)(Open(t.Context(), path, clock()))
	must[Camera](t)(first.Cameras().Save(t.Context(), aCamera))
	if err := first.Close(); err != nil {
		t.Fatal(err)
	}
	again := open(t, path)
	if all := must[[]Camera](t)(again.Cameras().List(t.Context())); len(all) != 1 {
		t.Errorf("after reopening there are %d cameras", len(all))
	}
}

// A data file of the first version is brought up to date with what it holds.
func TestAnOlderFileIsBroughtUpToDate(t *testing.T) {
	path, ctx := newPath(t), t.Context()
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		t.Fatal(err)
	}
	db := must[*sql.DB](t)(sql.Open("sqlite", dsn(path)))
	files := must[fs.FS](t)(fs.Sub(migrations, "migrations"))
	provider := must[*goose.Provider](t)(goose.NewProvider(goose.DialectSQLite3, db, files))
	if _, err := provider.UpTo(ctx, 1); err != nil {
		t.Fatal(err)
	}
	at := "2031-09-20T08:00:00.000000000Z"
	if _, err := db.ExecContext(ctx, `INSERT INTO cameras VALUES ('c', 1, ?, ?, NULL, 'old', 2, 100, 800, '[]', '[]', '[]', '')`, at, at); err != nil {
		t.Fatal(err)
	}
	if _, err := provider.UpTo(ctx, 3); err != nil {
		t.Fatal(err)
	}
	for _, row := range []string{
		`INSERT INTO filters VALUES ('f', 1, ?, ?, NULL, 'ND8', '', '', NULL, 0, 0, 0.2, 1.4, 0, 0, '["c"]', 'A1')`,
		`INSERT INTO trials VALUES ('t', 1, ?, ?, NULL, 'c', 'f', '2031-09-19T08:00:00Z', '{"seated":true,"pullOffG":90,"note":"firm"}')`,
	} {
		if _, err := db.ExecContext(ctx, row, at, at); err != nil {
			t.Fatal(err)
		}
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	s := open(t, path)
	if c := must[Camera](t)(s.Cameras().Get(ctx, "c")); c.Name != "old" || c.Profile != nil || c.TNumber != nil {
		t.Errorf("the old camera is %+v", c)
	}
	rigs := must[[]Rig](t)(s.RigsOf(ctx, "c"))
	if len(rigs) != 1 || !reflect.DeepEqual(rigs[0].RigSheet, RigSheet{Name: "bare", Housing: "bare", Way: "upright", Sources: map[string]Source{}}) {
		t.Fatalf("the old camera is held as %+v", rigs)
	}
	if trials := must[[]Trial](t)(s.Trials().List(ctx)); len(trials) != 1 || trials[0].RigID != rigs[0].ID || *trials[0].Found.PullOffG != 90 || trials[0].Found.Note != "firm" {
		t.Errorf("the old trial is %+v", trials)
	}
	// What was 0 was not measured; what was not still is.
	if f := must[Filter](t)(s.Filters().Get(ctx, "f")); f.CornerStops != nil || f.CastStops == nil || *f.CastStops != 0.2 || f.Slot != "A1" {
		t.Errorf("the old filter is %+v", f)
	}
}

func TestEverythingRoundTripsThroughReopening(t *testing.T) {
	path, ctx := newPath(t), t.Context()
	s := must[*Store](t)(Open(ctx, path, clock()))
	measured, corner, cast, flare := stop.Stops(4.87), stop.Stops(0.1), stop.Stops(0), 1.5
	camera := must[Camera](t)(s.Cameras().Save(ctx, aCamera))
	filter := must[Filter](t)(s.Filters().Save(ctx, Filter{FilterFields: FilterFields{
		Label: "ND32", Means: "ND32", Name: "the dark one", MeasuredStops: &measured, StdErrStops: 0.05, CornerStops: &corner, CastStops: &cast, Flare: &flare,
		Body: fit.Body{SeatMm: []float64{20, 20.1}}, Set: "thin", History: []Happening{{At: time.Date(2031, 9, 1, 0, 0, 0, 0, time.UTC), What: "cleaned"}}, Condition: "good", WeightG: 1.4, NeedsBase: true, Closed: true, Cameras: []string{camera.ID}, Slot: "A3",
	}}))
	shoot := must[Shoot](t)(s.Shoots().Save(ctx, Shoot{ShootFields: ShootFields{Name: "Harvest", Place: "Terrace", Notes: "two days"}}))
	island := time.FixedZone("", -3600)
	start := time.Date(2031, 9, 20, 7, 20, 0, 0, island)
	placed := []string{filter.ID}
	mains := 50.0
	light := assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "f2 1/400 iso100"}}
	shot := must[Shot](t)(s.SaveShot(ctx, Shot{
		ShotFields: ShotFields{ShootID: shoot.ID, CameraID: camera.ID, Name: "Dawn", StartsAt: &start, Light: light, Placed: &placed,
			Asked: assemble.Asked{Look: assemble.ShotLook{FPS: "25", Target: "180°"}, Scene: assemble.ShotScene{School: "free", Activity: "walk", Lamps: &assemble.LampFields{MainsHz: &mains}}}},
		Answer: Answer{Model: "1", At: start, Given: calc.ShotAnswer{Model: "1", Settled: true}},
	}, []Reading{{ReadingFields: ReadingFields{Role: "at", Source: "real", TakenAt: start, Light: light, EV100: 10.64, SpreadStops: 0.2}}}))
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}

	s = open(t, path)
	if got := must[Camera](t)(s.Cameras().Get(ctx, camera.ID)); !reflect.DeepEqual(got, camera) {
		t.Errorf("camera came back as %+v, was %+v", got, camera)
	}
	if got := must[Filter](t)(s.Filters().Get(ctx, filter.ID)); !reflect.DeepEqual(got, filter) {
		t.Errorf("filter came back as %+v, was %+v", got, filter)
	}
	got := must[[]Shot](t)(s.ShotsOf(ctx, shoot.ID))
	if len(got) != 1 || !got[0].StartsAt.Equal(start) || !reflect.DeepEqual(got[0].Light, shot.Light) || !reflect.DeepEqual(got[0].Placed, shot.Placed) || !reflect.DeepEqual(got[0].Scene, shot.Scene) || !got[0].Answer.Given.Settled {
		t.Errorf("shot came back as %+v, was %+v", got, shot)
	}
	if _, offset := got[0].StartsAt.Zone(); offset != -3600 {
		t.Errorf("the shot's zone came back as %d s", offset)
	}
	if !got[0].CreatedAt.Equal(shot.CreatedAt) || got[0].CreatedAt.Nanosecond() != shot.CreatedAt.Nanosecond() {
		t.Errorf("created %v came back as %v", shot.CreatedAt, got[0].CreatedAt)
	}
	readings := must[[]Reading](t)(s.ReadingsOf(ctx, shot.ID))
	if len(readings) != 1 || !readings[0].TakenAt.Equal(start) || readings[0].EV100 != 10.64 || readings[0].Light.At.Text != "f2 1/400 iso100" {
		t.Errorf("readings came back as %+v", readings)
	}
}

func TestTheLaterOfTwoChangesIsTold(t *testing.T) {
	s, ctx := open(t, newPath(t)), t.Context()
	seen := must[Camera](t)(s.Cameras().Save(ctx, aCamera))
	mine, theirs := seen, seen
	theirs.Name = "theirs"
	mine.Name = "mine"
	stored := must[Camera](t)(s.Cameras().Save(ctx, theirs))
	if stored.Version != seen.Version+1 || !stored.UpdatedAt.After(seen.UpdatedAt) {
		t.Errorf("a change goes from version %d to %d", seen.Version, stored.Version)
	}
	if _, err := s.Cameras().Save(ctx, mine); !errors.Is(err, ErrConflict) {
		t.Errorf("the later change gives %v", err)
	}
	if now := must[Camera](t)(s.Cameras().Get(ctx, seen.ID)); now.Name != "theirs" {
		t.Errorf("stored is %q", now.Name)
	}
	mine.Version = stored.Version
	must[Camera](t)(s.Cameras().Save(ctx, mine))
}

func TestDeleteCanBeUndone(t *testing.T) {
	s, ctx := open(t, newPath(t)), t.Context()
	camera := must[Camera](t)(s.Cameras().Save(ctx, aCamera))
	if _, err := s.Cameras().Delete(ctx, camera.ID, camera.Version+1); !errors.Is(err, ErrConflict) {
		t.Errorf("deleting another version gives %v", err)
	}
	gone := must[Camera](t)(s.Cameras().Delete(ctx, camera.ID, camera.Version))
	if all := must[[]Camera](t)(s.Cameras().List(ctx)); len(all) != 0 || gone.DeletedAt == nil {
		t.Errorf("after deleting there are %d cameras", len(all))
	}
	if _, err := s.Cameras().Save(ctx, gone); !errors.Is(err, ErrConflict) {
		t.Errorf("changing what is deleted gives %v", err)
	}
	back := must[Camera](t)(s.Cameras().Restore(ctx, gone.ID, gone.Version))
	if back.DeletedAt != nil || !reflect.DeepEqual(back.CameraFields, camera.CameraFields) {
		t.Errorf("restored as %+v", back)
	}
	if _, err := s.Cameras().Restore(ctx, back.ID, back.Version); !errors.Is(err, ErrConflict) {
		t.Errorf("restoring what is there gives %v", err)
	}
	if _, err := s.Cameras().Delete(ctx, "nobody", 1); !errors.Is(err, ErrNotFound) {
		t.Errorf("deleting what never was gives %v", err)
	}
}

// A shot whose reading cannot be stored is not stored either.
func TestShotAndReadingsAreStoredTogether(t *testing.T) {
	s, ctx := open(t, newPath(t)), t.Context()
	camera := must[Camera](t)(s.Cameras().Save(ctx, aCamera))
	shoot := must[Shoot](t)(s.Shoots().Save(ctx, Shoot{ShootFields: ShootFields{Name: "x"}}))
	fields := ShotFields{ShootID: shoot.ID, CameraID: camera.ID, Name: "x"}
	_, err := s.SaveShot(ctx, Shot{ShotFields: fields}, []Reading{{ReadingFields: ReadingFields{EV100: stop.EV(nan())}}})
	if err == nil {
		t.Fatal("a reading without a number was stored")
	}
	if all := must[[]Shot](t)(s.ShotsOf(ctx, shoot.ID)); len(all) != 0 {
		t.Errorf("its shot was stored all the same: %+v", all)
	}
	fields.CameraID = "nobody's"
	if _, err := s.SaveShot(ctx, Shot{ShotFields: fields}, nil); !errors.Is(err, ErrNoSuch) {
		t.Errorf("a shot of no camera gives %v", err)
	}
}

func nan() float64 { var zero float64; return zero / zero }

const helperEnv = "PINHOLE_STORE_HELPER"

// TestHelperProcess is the second process of the next test.
// Of each camera the shot that was changed last: not one that was made later, nor one that is deleted.
func TestTheLastShotOfEachCamera(t *testing.T) {
	s, ctx := open(t, newPath(t)), t.Context()
	first, second := must[Camera](t)(s.Cameras().Save(ctx, aCamera)), must[Camera](t)(s.Cameras().Save(ctx, aCamera))
	shoot := must[Shoot](t)(s.Shoots().Save(ctx, Shoot{ShootFields: ShootFields{Name: "Harvest"}}))
	save := func(camera, name string) Shot {
		return must[Shot](t)(s.Shots().Save(ctx, Shot{ShotFields: ShotFields{ShootID: shoot.ID, CameraID: camera, Name: name}}))
	}
	changed := save(first.ID, "changed")
	save(first.ID, "made later")
	save(second.ID, "kept")
	gone := save(second.ID, "deleted")
	changed.Name = "changed last"
	must[Shot](t)(s.Shots().Save(ctx, changed))
	must[Shot](t)(s.Shots().Delete(ctx, gone.ID, gone.Version))
	names := []string{}
	for _, shot := range must[[]Shot](t)(s.LastShots(ctx)) {
		names = append(names, shot.Name)
	}
	if want := []string{"changed last", "kept"}; !reflect.DeepEqual(names, want) {
		t.Errorf("the last shots are %q, want %q", names, want)
	}
}

func TestHelperProcess(t *testing.T) {
	path := os.Getenv(helperEnv)
	if path == "" {
		t.Skip("only run by another test")
	}
	s := must[*Store](t)(Beside(t.Context(), path, clock()))
	for range 40 {
		must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "theirs"}}))
	}
	if err := s.Close(); err != nil {
		t.Error(err)
	}
}

func TestASecondProcessMayWrite(t *testing.T) {
	path := newPath(t)
	s := open(t, path)
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	other := exec.CommandContext(ctx, os.Args[0], "-test.run=^TestHelperProcess$")
	other.Env = append(os.Environ(), helperEnv+"="+path)
	if err := other.Start(); err != nil {
		t.Fatal(err)
	}
	for range 40 {
		must[Shoot](t)(s.Shoots().Save(ctx, Shoot{ShootFields: ShootFields{Name: "ours"}}))
	}
	if err := other.Wait(); err != nil {
		t.Fatalf("the other process: %v", err)
	}
	if all := must[[]Shoot](t)(s.Shoots().List(ctx)); len(all) != 80 {
		t.Errorf("%d of 80 shoots are stored", len(all))
	}
}

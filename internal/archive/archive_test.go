package archive_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"errors"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/internal/archive"
	"pinhole/internal/demo"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// keep returns a value that there has to be.
func keep[T any](t *testing.T) func(v T, err error) T {
	return func(v T, err error) T {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
}

// openService opens an empty data file whose clock ticks from an hour of a made-up day.
func openService(t *testing.T, hour int) *service.Service {
	t.Helper()
	now := time.Date(2031, 9, 20, hour, 0, 0, 0, time.UTC)
	clock := func() time.Time {
		now = now.Add(time.Millisecond)
		return now
	}
	s := keep[*store.Store](t)(store.Open(t.Context(), filepath.Join(t.TempDir(), "x.db"), clock))
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return &service.Service{Store: s, Now: clock}
}

// seeded is the data file of the demo, made once.
var seeded []byte

// lived is the demo after a day: things were changed, deleted and logged.
func lived(t *testing.T) *service.Service {
	t.Helper()
	if seeded == nil {
		first := openService(t, 8)
		path := filepath.Join(t.TempDir(), "seeded.db")
		if err := errors.Join(demo.Seed(t.Context(), first), first.Store.Backup(t.Context(), path)); err != nil {
			t.Fatal(err)
		}
		seeded = keep[[]byte](t)(os.ReadFile(path))
	}
	svc := openService(t, 9)
	path := filepath.Join(t.TempDir(), "seeded.db")
	if err := errors.Join(os.WriteFile(path, seeded, 0o600), svc.Store.Fill(t.Context(), path)); err != nil {
		t.Fatal(err)
	}
	shoots := keep[[]store.Shoot](t)(svc.Store.Shoots().List(t.Context()))
	shots := keep[[]store.Shot](t)(svc.Store.Shots().List(t.Context()))
	keep[store.Shot](t)(svc.Store.Shots().Delete(t.Context(), shots[0].ID, shots[0].Version))
	filters := keep[[]store.Filter](t)(svc.Store.Filters().List(t.Context()))
	filters[0].Name = "=scratched; \"really\""
	keep[store.Filter](t)(svc.Store.Filters().Save(t.Context(), filters[0]))
	keep[store.FieldEntry](t)(svc.Store.AddToFieldLog(t.Context(), shoots[0].ID, "entry-by-a-device", store.FieldEntryFields{Kind: "note", At: svc.Now(), Words: "wind"}))
	keep[store.FieldEntry](t)(svc.Store.AddToFieldLog(t.Context(), shoots[0].ID, "reading-by-a-device", store.FieldEntryFields{
		Kind: "reading", At: svc.Now(), Words: "EV 12", Reading: &store.FieldReading{Kind: "meter", Source: "real", EV100: 12, SpreadStops: 0.2},
	}))
	settle(t, svc, store.Taste{Preferences: assemble.Preferences{Tolerance: &assemble.Tolerance{Dark: 1, Bright: 0.5}, Schools: map[motion.ActivityName]shot.School{"walk": shot.StabiliserFirst}}})
	return svc
}

func settle(t *testing.T, svc *service.Service, what store.Taste) {
	t.Helper()
	if err := svc.Store.SettleTaste(t.Context(), what, nil); err != nil {
		t.Fatal(err)
	}
}

func exported(t *testing.T, svc *service.Service) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := svc.Export(t.Context(), &out); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func read(t *testing.T, file []byte) *store.Archive {
	t.Helper()
	return keep[*store.Archive](t)(archive.Read(bytes.NewReader(file), int64(len(file))))
}

// Everything goes out and comes in again into an empty data file, to the last field.
func TestEverythingGoesOutAndComesInAgain(t *testing.T) {
	svc := lived(t)
	file := exported(t, svc)
	if path := os.Getenv("KEEP_ARCHIVE"); path != "" {
		if err := os.WriteFile(path, file, 0o600); err != nil {
			t.Fatal(err)
		}
	}
	other := openService(t, 9)
	m := keep[*store.Merged](t)(other.Store.Merge(t.Context(), read(t, file), store.TakeNone, false))
	if !m.IsStored || m.New < 30 || m.Changed+m.Same+m.Kept+len(m.Clashes) > 0 {
		t.Errorf("into an empty file it brings %+v", m)
	}
	ours, theirs := keep[*store.Archive](t)(svc.Store.Archive(t.Context())), keep[*store.Archive](t)(other.Store.Archive(t.Context()))
	for i := range reflect.TypeFor[store.Archive]().NumField() {
		name := reflect.TypeFor[store.Archive]().Field(i).Name
		a, _ := json.Marshal(reflect.ValueOf(*ours).Field(i).Interface())
		b, _ := json.Marshal(reflect.ValueOf(*theirs).Field(i).Interface())
		if len(a) < 10 || !bytes.Equal(a, b) {
			t.Errorf("%s came as\n%.600s\nwent as\n%.600s", name, b, a)
		}
	}
	if again := keep[*store.Merged](t)(other.Store.Merge(t.Context(), read(t, file), store.TakeNone, false)); again.New+again.Changed+again.Kept+len(again.Clashes) > 0 || again.Same != m.New {
		t.Errorf("a second time it brings %+v", again)
	}
	// What lives on which lens is there, and the first rig is the first again.
	for _, c := range ours.Cameras {
		there := keep[store.Camera](t)(other.Store.Cameras().Get(t.Context(), c.ID))
		a, b := keep[[]store.Rig](t)(svc.Store.RigsOf(t.Context(), c.ID)), keep[[]store.Rig](t)(other.Store.RigsOf(t.Context(), c.ID))
		if !slices.Equal(there.Mounted, c.Mounted) || a[0].ID != b[0].ID {
			t.Errorf("%s carries %v, held as %s", c.Name, there.Mounted, b[0].Name)
		}
	}
}

// Of two data files with one past, the later change of a thing counts; what was changed in
// both is asked about, and until then nothing is stored.
func TestTwoFilesWithOnePastAreMerged(t *testing.T) {
	a := lived(t)
	b := openService(t, 10)
	keep[*store.Merged](t)(b.Store.Merge(t.Context(), read(t, exported(t, a)), store.TakeNone, false))
	filters := keep[[]store.Filter](t)(a.Store.Filters().List(t.Context()))
	rename := func(svc *service.Service, n int, name string) {
		t.Helper()
		f := keep[store.Filter](t)(svc.Store.Filters().Get(t.Context(), filters[n].ID))
		f.Name = name
		keep[store.Filter](t)(svc.Store.Filters().Save(t.Context(), f))
	}
	rename(a, 1, "only here")
	rename(b, 2, "only there")
	rename(a, 3, "both, here")
	rename(b, 3, "both, there")
	keep[store.Shoot](t)(b.Store.Shoots().Save(t.Context(), store.Shoot{ShootFields: store.ShootFields{Name: "new there"}}))
	come := read(t, exported(t, b))
	name := func(n int) string {
		t.Helper()
		return keep[store.Filter](t)(a.Store.Filters().Get(t.Context(), filters[n].ID)).Name
	}
	look := keep[*store.Merged](t)(a.Store.Merge(t.Context(), come, store.TakeNone, false))
	if look.IsStored || look.New != 1 || look.Changed != 1 || look.Kept != 1 || len(look.Clashes) != 1 || look.Clashes[0].Name != "both, here" {
		t.Fatalf("it brings %+v", look)
	}
	if name(2) == "only there" {
		t.Error("some of it is stored though it has to be asked about")
	}
	if m := keep[*store.Merged](t)(a.Store.Merge(t.Context(), come, store.TakeTheirs, true)); m.IsStored || name(3) != "both, here" {
		t.Errorf("a look stores: %+v", m)
	}
	ours := keep[*store.Merged](t)(a.Store.Merge(t.Context(), come, store.TakeOurs, false))
	if !ours.IsStored || name(1) != "only here" || name(2) != "only there" || name(3) != "both, here" {
		t.Errorf("taking ours: %+v; %s, %s, %s", ours, name(1), name(2), name(3))
	}
	theirs := keep[*store.Merged](t)(a.Store.Merge(t.Context(), come, store.TakeTheirs, false))
	if !theirs.IsStored || name(3) != "both, there" || name(1) != "only here" {
		t.Errorf("taking theirs: %+v; %s, %s", theirs, name(1), name(3))
	}
}

// changed is an archive with one of its files replaced, or left out with nil.
func changed(t *testing.T, file []byte, name string, with []byte) []byte {
	t.Helper()
	in := keep[*zip.Reader](t)(zip.NewReader(bytes.NewReader(file), int64(len(file))))
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	for _, f := range in.File {
		text := with
		if f.Name != name {
			r := keep[interface {
				Read([]byte) (int, error)
				Close() error
			}](t)(f.Open())
			var b bytes.Buffer
			if _, err := b.ReadFrom(r); err != nil {
				t.Fatal(err)
			}
			text = b.Bytes()
		} else if with == nil {
			continue
		}
		if _, err := keep[interface{ Write([]byte) (int, error) }](t)(w.Create(f.Name)).Write(text); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// A hostile or broken archive is refused with what is wrong, and nothing of it is stored.
func TestArchivesThatAreRefused(t *testing.T) {
	svc := lived(t)
	file := exported(t, svc)
	camera := `[{"id":"c","version":1,"createdAt":"2031-01-01T00:00:00Z","updatedAt":"2031-01-01T00:00:00Z","name":%q,"aperture":2,"isoBase":100,"isoCeiling":800,"rates":[],"steps":[],"mounted":[]}]`
	for what, bad := range map[string][]byte{
		"no zip":      []byte("la la la"),
		"cut short":   file[:len(file)-30],
		"newer":       changed(t, file, "pinhole-archive.json", []byte(`{"format":"pinhole-archive","version":99}`)),
		"another":     changed(t, file, "pinhole-archive.json", []byte(`{"format":"song","version":1}`)),
		"no cameras":  changed(t, file, "cameras.json", nil),
		"no list":     changed(t, file, "shots.json", []byte(`{}`)),
		"a long name": changed(t, file, "cameras.json", []byte(strings.Replace(camera, "%q", `"`+strings.Repeat("x", 400_000)+`"`, 1))),
		"no version":  changed(t, file, "cameras.json", []byte(strings.Replace(strings.Replace(camera, "%q", `"c"`, 1), `"version":1`, `"version":0`, 1))),
		"no aperture": changed(t, file, "cameras.json", []byte(strings.Replace(strings.Replace(camera, "%q", `"c"`, 1), `"aperture":2`, `"aperture":-2`, 1))),
		"a bomb":      changed(t, file, "tables/kit.csv", bytes.Repeat([]byte("0"), 70<<20)),
	} {
		_, err := archive.Read(bytes.NewReader(bad), int64(len(bad)))
		var fault *problem.Fault
		if !errors.As(err, &fault) || fault.Field != "file" || len(err.Error()) > 600 {
			t.Errorf("%s: %.300v", what, err)
		}
	}
	// A shot of a shoot that is nowhere is found out when it is brought in.
	orphan := read(t, file)
	orphan.Shoots = nil
	orphan.FieldLog, orphan.LightReadings = nil, nil
	other := openService(t, 9)
	if _, err := other.Store.Merge(t.Context(), orphan, store.TakeNone, false); !errors.Is(err, store.ErrNoSuch) {
		t.Errorf("shots without their shoot: %v", err)
	}
	if all := keep[[]store.Camera](t)(other.Store.Cameras().List(t.Context())); len(all) > 0 {
		t.Error("half of it is stored")
	}
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, file []byte) {
		a, err := archive.Read(bytes.NewReader(file), int64(len(file)))
		if err == nil && a == nil {
			t.Error("nothing is read, and no reason given")
		}
	})
}

// An archive from before there were packs comes in as it is; from a later one they are missed.
func TestAnArchiveOfTheFirstVersionComesIn(t *testing.T) {
	file := changed(t, exported(t, lived(t)), "packs.json", nil)
	if _, err := archive.Read(bytes.NewReader(file), int64(len(file))); err == nil {
		t.Error("an archive of this version without its packs is taken")
	}
	first := changed(t, file, "pinhole-archive.json", []byte(`{"format":"pinhole-archive","version":1}`))
	if a := read(t, first); len(a.Filters) == 0 || len(a.Packs) != 0 {
		t.Errorf("it has %d filters and %d packs", len(a.Filters), len(a.Packs))
	}
}

// What was settled here stays; of what was not, what comes counts.
func TestWhatWasSettledHereStays(t *testing.T) {
	file := read(t, exported(t, lived(t)))
	svc := openService(t, 9)
	own := &assemble.Tolerance{Dark: 0.3, Bright: 0.3}
	settle(t, svc, store.Taste{Preferences: assemble.Preferences{Tolerance: own}, Declined: []string{"bright"}})
	for again, want := range []store.Merged{{Changed: 1}, {Kept: 1}} {
		m := keep[*store.Merged](t)(svc.Store.Merge(t.Context(), &store.Archive{Settled: file.Settled}, store.TakeNone, false))
		if m.Changed != want.Changed || m.Kept != want.Kept || m.New+m.Same > 0 {
			t.Errorf("%d times merged it brings %+v", again+1, m)
		}
	}
	is := keep[store.Taste](t)(svc.Store.Taste(t.Context()))
	if *is.Tolerance != *own || is.Schools["walk"] != shot.StabiliserFirst || !slices.Equal(is.Declined, []string{"bright"}) {
		t.Errorf("settled is %+v", is)
	}
	bad := changed(t, exported(t, lived(t)), "settled.json", []byte(`[{"tolerance":{"dark":99,"bright":0}}]`))
	if _, err := archive.Read(bytes.NewReader(bad), int64(len(bad))); err == nil || !strings.Contains(err.Error(), "tolerance.dark") {
		t.Errorf("a tolerance of 99 stops comes in with %v", err)
	}
}

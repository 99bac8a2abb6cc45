package service

import (
	"errors"
	"path/filepath"
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/calc"
	"pinhole/core/problem"
	"pinhole/internal/store"
)

func newService(t *testing.T) *Service {
	t.Helper()
	now := func() time.Time { return time.Date(2031, 9, 20, 8, 0, 0, 0, time.UTC) }
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "pinhole.db"), now)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return &Service{Store: s, Now: now}
}

// gear stores a camera with a kit and a shoot, and returns a shot to be saved.
func gear(t *testing.T, svc *Service, labels ...string) store.Shot {
	t.Helper()
	camera, err := svc.SaveCamera(t.Context(), store.Camera{CameraFields: store.CameraFields{
		Name: "c", Aperture: 2, ISOBase: 100, ISOCeiling: 1600, Steps: []string{"1/50", "1/100"}, Rates: []string{"25"}, Mounted: []string{},
	}})
	if err != nil {
		t.Fatal(err)
	}
	for _, label := range labels {
		if _, err := svc.Store.Filters().Save(t.Context(), store.Filter{FilterFields: store.FilterFields{Label: label, Cameras: []string{camera.ID}}}); err != nil {
			t.Fatal(err)
		}
	}
	shoot, err := svc.Store.Shoots().Save(t.Context(), store.Shoot{ShootFields: store.ShootFields{Name: "s"}})
	if err != nil {
		t.Fatal(err)
	}
	return store.Shot{ShotFields: store.ShotFields{
		ShootID: shoot.ID, CameraID: camera.ID, Name: "shot", Asked: assemble.Asked{Look: assemble.ShotLook{FPS: "25", Target: "180°"}},
		Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "f2 1/400 iso100"}},
	}}
}

func TestBenchHoldsWhatGoesOnAndIsSettled(t *testing.T) {
	svc := newService(t)
	shot := gear(t, svc, "ND8", "ND 2.0", "ND32")
	if _, err := svc.Store.Filters().Save(t.Context(), store.Filter{FilterFields: store.FilterFields{Label: "ND4", Cameras: []string{"another"}}}); err != nil {
		t.Fatal(err)
	}
	b, err := svc.Bench(t.Context(), shot.CameraID, "")
	if err != nil {
		t.Fatal(err)
	}
	var titles []string
	for _, f := range b.Filters {
		titles = append(titles, f.Title)
	}
	if !slices.Equal(titles, []string{"ND8", "ND32"}) || len(b.Kit) != 2 || b.Kit[1].Stops != 5 {
		t.Errorf("on the bench are %v, counted as %+v", titles, b.Kit)
	}
	if len(b.LeftOut) != 1 || b.LeftOut[0].Open != "Is it density 2.0 or factor 2?" {
		t.Errorf("left out: %+v", b.LeftOut)
	}
	if len(b.Optics.Steps) != 2 || b.Optics.Steps[0] != 1.0/50 {
		t.Errorf("the camera's steps are %v", b.Optics.Steps)
	}
}

func TestAnOwnersWordOrAMeasurementSettlesALabel(t *testing.T) {
	settled, err := Show(store.Filter{FilterFields: store.FilterFields{Label: "ND 2.0", Means: "ND2"}})
	if err != nil || settled.Counts == nil || settled.Counts.Stops != 1 {
		t.Errorf("settled by its owner: %+v, %v", settled.Counts, err)
	}
	measured := settled.Filter
	measured.Means = ""
	m := settled.Counts.Stops + 0.1
	measured.MeasuredStops = &m
	if shown, err := Show(measured); err != nil || shown.Counts == nil || shown.Open != "" {
		t.Errorf("settled by measuring: %+v, %v", shown, err)
	}
}

func TestFaultsNameStoredFields(t *testing.T) {
	svc := newService(t)
	strong := assemble.KitFilter{}.Stops + 3
	field := func(err error) string {
		var fault *problem.Fault
		if !errors.As(err, &fault) {
			return "none"
		}
		return fault.Field
	}
	camera := func(change func(*store.CameraFields)) error {
		c := store.Camera{CameraFields: store.CameraFields{Aperture: 2, ISOBase: 100, ISOCeiling: 100}}
		change(&c.CameraFields)
		return svc.CheckCamera(c)
	}
	filter := func(f store.FilterFields) error { return svc.CheckFilter(store.Filter{FilterFields: f}) }
	for want, err := range map[string]error{
		"none":          camera(func(*store.CameraFields) {}),
		"steps[1]":      camera(func(c *store.CameraFields) { c.Steps = []string{"1/50", "soon"} }),
		"rates[0]":      camera(func(c *store.CameraFields) { c.Rates = []string{"fast"} }),
		"isoCeiling":    camera(func(c *store.CameraFields) { c.ISOCeiling = 50 }),
		"label":         filter(store.FilterFields{Label: "dark"}),
		"means":         filter(store.FilterFields{Label: "X3", Means: "very"}),
		"measuredStops": filter(store.FilterFields{Label: "VND 1-6", MeasuredStops: &strong}),
		"mounted[0]":    svc.CheckMounted(t.Context(), store.Camera{CameraFields: store.CameraFields{Mounted: []string{"gone"}}}),
	} {
		if got := field(err); got != want {
			t.Errorf("fault of %s (%v), want %s", got, err, want)
		}
	}
}

func TestAShotKeepsItsQuestionAnswerAndReadings(t *testing.T) {
	svc := newService(t)
	shot, err := svc.SaveShot(t.Context(), gear(t, svc, "ND8", "ND32"))
	if err != nil {
		t.Fatal(err)
	}
	if a := shot.Answer; a.Model != calc.ModelVersion || len(a.Request.Kit) != 2 || a.Given.Chosen.Stops != 3 || !a.At.Equal(svc.Now()) {
		t.Errorf("the answer kept is %+v", a)
	}
	// The kit may change later: the stored question still explains the stored answer.
	again, err := calc.AnswerShot(shot.Answer.Request)
	if err != nil || again.Chosen.ErrorStops != shot.Answer.Given.Chosen.ErrorStops {
		t.Errorf("asked again, the stored question gives %+v, %v", again, err)
	}
	count := func() int {
		readings, err := svc.Store.ReadingsOf(t.Context(), shot.ID)
		if err != nil {
			t.Fatal(err)
		}
		return len(readings)
	}
	if n := count(); n != 1 {
		t.Errorf("%d readings are kept, want 1", n)
	}
	shot.Name = "renamed"
	if shot, err = svc.SaveShot(t.Context(), shot); err != nil || count() != 1 {
		t.Errorf("the same light was kept again: %d, %v", count(), err)
	}
	shot.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 13"}, Low: &assemble.Entry{Text: "EV 11"}}
	if shot, err = svc.SaveShot(t.Context(), shot); err != nil || count() != 3 {
		t.Errorf("both ends of a range make %d readings, want 3 in all: %v", count(), err)
	}
	shot.Light = assemble.ShotLight{Kind: "looks", Looks: []assemble.Look{}}
	if shot, err = svc.SaveShot(t.Context(), shot); err != nil || count() != 3 {
		t.Errorf("unsettled looking was kept as a reading: %d, %v", count(), err)
	}
	shot.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "?"}}
	if _, err = svc.SaveShot(t.Context(), shot); err == nil || !strings.Contains(err.Error(), "light.at.text") {
		t.Errorf("an unreadable light gives %v", err)
	}
}

// The table holds the looks and the light of the shots on that camera, each once.
func TestCoverageFollowsTheShots(t *testing.T) {
	svc := newService(t)
	shot := gear(t, svc, "ND8")
	if _, err := svc.SaveShot(t.Context(), shot); err != nil {
		t.Fatal(err)
	}
	dark := shot
	dark.Look = assemble.ShotLook{FPS: "50", Target: "90°"}
	dark.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 16"}}
	saved, err := svc.SaveShot(t.Context(), dark)
	if err != nil {
		t.Fatal(err)
	}
	c, err := svc.Coverage(t.Context(), shot.CameraID, "", "")
	if err != nil {
		t.Fatal(err)
	}
	if len(c.Rows) != 2 || len(c.Rows[0].Cells) != glass.TableColumns || len(c.Shots) != 2 {
		t.Errorf("%d looks of %d cells, %d shots", len(c.Rows), len(c.Rows[0].Cells), len(c.Shots))
	}
	// EV 16 at f/2, 1/200: EVset 9.64, so that 6 stops and a third are wanted.
	if !slices.Equal(c.Hopeless, []string{saved.ID}) || c.Single == nil || c.Single.Closes < 1 {
		t.Errorf("hopeless %v, to buy %+v", c.Hopeless, c.Single)
	}
}

// A kit that is written and read into an empty one is the same kit.
func TestKitGoesFromOneDeskToAnother(t *testing.T) {
	for _, format := range []string{"csv", "json"} {
		from, to := newService(t), newService(t)
		gear(t, from, "ND8", "ND 2.0", "VND 1-6", "CPL")
		file, err := from.ExportKit(t.Context(), format)
		if err != nil {
			t.Fatal(err)
		}
		if format == "csv" { // which holds no cameras
			gear(t, to)
		}
		looked, err := to.ImportKit(t.Context(), Import{Format: format, Text: file})
		if err != nil || looked.Good != 4 || looked.Bad != 0 || len(looked.AddedFilters) != 0 {
			t.Fatalf("%s: %+v, %v", format, looked, err)
		}
		if done, err := to.ImportKit(t.Context(), Import{Format: format, Text: file, Apply: true}); err != nil || len(done.AddedFilters) != 4 {
			t.Fatalf("%s: %+v, %v", format, done, err)
		}
		if back, err := to.ExportKit(t.Context(), format); err != nil || back != file {
			t.Errorf("%s came back as\n%s\nwas\n%s\n%v", format, back, file, err)
		}
		// Twice the same file adds nothing.
		if again, err := to.ImportKit(t.Context(), Import{Format: format, Text: file, Apply: true}); err != nil || len(again.AddedFilters) != 0 || len(again.AddedCameras) != 0 {
			t.Errorf("%s again: %+v, %v", format, again, err)
		}
	}
}

func TestAnImportNamesWhatItLeavesOut(t *testing.T) {
	svc := newService(t)
	gear(t, svc)
	done, err := svc.ImportKit(t.Context(), Import{Format: "csv", Text: "label,cameras\nND8,c\nlight,c\nND16,the other one\nND4,\n", Apply: true})
	if err != nil || done.Good != 2 || done.Bad != 2 || len(done.AddedFilters) != 2 {
		t.Fatalf("%+v, %v", done, err)
	}
	if done.Rows[1].Fault.Field != "label" || done.Rows[2].Fault.Field != "cameras" || done.Rows[0].Says == "" {
		t.Errorf("rows %+v", done.Rows)
	}
	twice, err := svc.ImportKit(t.Context(), Import{Format: "csv", Text: "label,measured stops,cameras\nVND2-32,3,c\n"})
	if err != nil || twice.Bad != 1 || twice.Rows[0].Fault.Field != "measuredStops" {
		t.Errorf("a variable filter of one strength: %+v, %v", twice, err)
	}
	if _, err := svc.ImportKit(t.Context(), Import{Format: "json", Text: "not a kit", Apply: true}); err == nil {
		t.Error("what is no kit was imported")
	}
}

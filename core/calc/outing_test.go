package calc

import (
	"encoding/json"
	"fmt"
	"math"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"strings"
	"testing"
	"time"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// harvest is a day on the made-up island: two walks and a cellar, one camera each.
const harvest = `{"place":{"latDeg":38.4,"lonDeg":-20.5},"sky":"clear","from":"2031-09-20T05:00:00-01:00","to":"2031-09-20T21:00:00-01:00","stepS":600,
	"shots":[
		{"id":"a","name":"Dawn walk","cameraId":"pocket","from":"2031-09-20T07:30:00-01:00","minutes":20,"evSet":7.64,"shutterS":0.02,"fps":25,"isoHeadroomStops":0.5,"plane":"vertical","headingDeg":90},
		{"id":"b","name":"Noon walk","cameraId":"pocket","from":"2031-09-20T12:30:00-01:00","minutes":30,"packMin":12,"evSet":7.64,"shutterS":0.02,"fps":25,"plane":"vertical"},
		{"id":"c","name":"Cellar","cameraId":"phone","from":"2031-09-20T14:00:00-01:00","minutes":10,"evSet":2,"read":{"ev100":7.1,"spreadStops":0.2}},
		{"id":"d","name":"Somewhere","cameraId":"phone","from":"2031-09-20T15:00:00-01:00","minutes":10,"evSet":2}],
	"stacks":[{"id":"none","name":"No glass","stops":0},{"id":"8","name":"ND8","stops":3,"cameraId":"pocket"},{"id":"64","name":"ND64","stops":6,"cameraId":"pocket"},{"id":"v","name":"VND","stops":1,"mostStops":6,"cameraId":"phone"}]%s}`

func planHarvest(t *testing.T, more string) *day.OutingAnswer {
	t.Helper()
	return ask[day.OutingAnswer](t, "outing", fmt.Sprintf(harvest, more))
}

func TestAnOutingIsPlanned(t *testing.T) {
	a := planHarvest(t, "")
	if len(a.Curve) != 16*6+1 || len(a.Days) != 1 || a.Days[0].Sunrise == nil || len(a.Shots) != 3 || len(a.Unknown) != 1 || a.Unknown[0] != "d" {
		t.Fatalf("%d points, days %+v, %d shots, unknown %v", len(a.Curve), a.Days, len(a.Shots), a.Unknown)
	}
	dawn, noon, cellar := a.Shots[0], a.Shots[1], a.Shots[2]
	if dawn.ID != "a" || noon.ID != "b" || len(noon.Packs) != 3 || !noon.Packs[2].To.Equal(time.Date(2031, 9, 20, 14, 0, 0, 0, time.UTC)) {
		t.Errorf("noon has the packs %+v", noon.Packs)
	}
	// A variable filter is turned to what is needed: 7.1 against a setting of 2.
	if got := cellar.Packs[0].SettingStops; cellar.Packs[0].Stack != "v" || math.Abs(float64(got)-5.1) > 1e-9 || cellar.State != glass.Holds {
		t.Errorf("the cellar is planned as %+v", cellar)
	}
	for _, s := range a.Shots {
		if s.State == glass.Breaks && len(s.Remedies) == 0 {
			t.Errorf("%s is not served, and nothing is said to help", s.ID)
		}
	}
	if dawn.SunInFrame == nil || !strings.Contains(dawn.SunInFrame.Words, "before the camera") {
		t.Errorf("eastward at dawn the sun is %+v", dawn.SunInFrame)
	}
	if len(a.Swaps) == 0 || !strings.HasPrefix(a.Swaps[0].Because, "12:30 swap ND8 for ND64, for Noon walk") {
		t.Errorf("swaps %+v", a.Swaps)
	}
}

// An anchor moves every outdoor minute by one offset, and nothing indoors; what was
// planned before is compared with what is now.
func TestAnAnchorMovesTheDay(t *testing.T) {
	free := planHarvest(t, "")
	at := free.Curve[42]
	anchor := fmt.Sprintf(`,"anchor":{"time":%q,"ev100":%v},"before":{"a":"8","b":"64","c":"v"}`, at.Time.Format(time.RFC3339), float64(at.EV100)-1)
	a := planHarvest(t, anchor)
	if math.Abs(float64(a.Offset)+1) > 1e-9 {
		t.Errorf("a stop darker is an offset of %v", a.Offset)
	}
	// rho = exp(−|dt|/6 h) of the offset, by hand.
	moved := func(of time.Time) float64 { return -math.Exp(-math.Abs(of.Sub(at.Time).Hours()) / 6) }
	for i := range a.Curve {
		if got := float64(a.Curve[i].EV100.Above(free.Curve[i].EV100)); math.Abs(got-moved(a.Curve[i].Time)) > 1e-9 {
			t.Fatalf("at %v the light moved by %v", a.Curve[i].Time, got)
		}
	}
	for i, s := range a.Shots {
		off := float64(s.HighEV100.Above(free.Shots[i].HighEV100))
		if want := moved(s.Packs[0].From); s.ID == "c" && off != 0 || s.ID != "c" && math.Abs(off-want) > 0.1 {
			t.Errorf("%s moved by %v, want about %v, and nothing indoors", s.ID, off, want)
		}
		if stack := s.Packs[0].Stack; (stack != map[string]string{"a": "8", "b": "64", "c": "v"}[s.ID]) != strings.Contains(strings.Join(a.Changes, ";"), map[string]string{"a": "Dawn", "b": "Noon", "c": "Cellar"}[s.ID]) {
			t.Errorf("%s has %s now, and the changes are %q", s.ID, stack, a.Changes)
		}
		if kind := s.Lights[0].Kind; s.ID != "c" && (kind != day.PinnedToday || len(s.Lights) != 2 || s.Lights[1].Kind != day.Forecast || s.Lights[1].Off == 0) {
			t.Errorf("%s is judged in %+v", s.ID, s.Lights)
		}
	}
}

// Each remedy does what it says: the filter, the shutter and the hour are tried.
func TestRemediesServe(t *testing.T) {
	var r day.OutingRequest
	if err := json.Unmarshal([]byte(fmt.Sprintf(harvest, "")), &r); err != nil {
		t.Fatal(err)
	}
	r.Stacks = []day.OutingStack{{Stack: day.Stack{ID: "none"}}, {Stack: day.Stack{ID: "8", Stops: 3}}} // too little for noon
	r.Shots = r.Shots[1:2]
	r.Shots[0].PackMin, r.Shots[0].Minutes = 0, 3
	a, err := day.Outing(t.Context(), r)
	if err != nil || a.Shots[0].State != glass.Breaks || len(a.Shots[0].Remedies) != 2 {
		t.Fatalf("%+v, %v", a.Shots, err)
	}
	words := strings.Join(a.Shots[0].Remedies, "; ")
	var stops float64
	var label string
	if _, err := fmt.Sscanf(a.Shots[0].Remedies[0], "option: a filter of %f stops (%s", &stops, &label); err != nil {
		t.Fatalf("%q: %v", words, err)
	}
	served := func(change func(*day.OutingRequest)) bool {
		there := r
		there.Shots = append([]day.OutingShot{}, r.Shots...)
		change(&there)
		a, err := day.Outing(t.Context(), there)
		return err == nil && a.Shots[0].State != glass.Breaks
	}
	if !served(func(r *day.OutingRequest) {
		r.Stacks = append(r.Stacks, day.OutingStack{Stack: day.Stack{ID: "x", Stops: stop.Stops(stops)}})
	}) {
		t.Errorf("%q does not serve", a.Shots[0].Remedies[0])
	}
	hour := strings.TrimSuffix(strings.Fields(a.Shots[0].Remedies[1])[2], ",")
	start, err := time.ParseInLocation("2006-01-02 15:04", "2031-09-20 "+hour, r.Shots[0].From.Location())
	if err != nil || !served(func(r *day.OutingRequest) { r.Shots[0].From = start }) {
		t.Errorf("%q does not serve (%v)", a.Shots[0].Remedies[1], err)
	}
}

// A sky that turns counts from the minute it does.
func TestTheSkyTurns(t *testing.T) {
	clear := planHarvest(t, "")
	a := planHarvest(t, `,"turns":[{"from":"2031-09-20T12:00:00-01:00","sky":"overcast"}]`)
	for i, p := range a.Curve {
		isTurned := !p.Time.Before(time.Date(2031, 9, 20, 13, 0, 0, 0, time.UTC))
		if isTurned != (p.Sky == light.Overcast) || !isTurned && p.EV100 != clear.Curve[i].EV100 || isTurned && p.AltitudeDeg > 10 && p.EV100 >= clear.Curve[i].EV100 {
			t.Errorf("at %v the sky is %s, EV %v against %v", p.Time, p.Sky, p.EV100, clear.Curve[i].EV100)
		}
	}
}

func TestOutingsThatCannotBe(t *testing.T) {
	op, _ := Named("outing")
	for field, more := range map[string]string{
		"anchor.ev100":  `,"anchor":{"time":"2031-09-20T12:00:00-01:00","ev100":99}`,
		"turns[1].from": `,"turns":[{"from":"2031-09-20T12:00:00-01:00","sky":"clear"},{"from":"2031-09-20T11:00:00-01:00","sky":"clear"}]`,
		"turns[0].sky":  `,"turns":[{"from":"2031-09-20T12:00:00-01:00","sky":"foggy"}]`,
		"anchor.time":   `,"anchor":{"time":"1931-09-20T12:00:00-01:00","ev100":9}`,
	} {
		if _, err := op.Run([]byte(fmt.Sprintf(harvest, more))); err == nil || !strings.Contains(err.Error(), field) {
			t.Errorf("%s gives %v, want a fault of %s", more, err, field)
		}
	}
}

func BenchmarkOuting40Shots(b *testing.B) {
	r := day.OutingRequest{Place: &assemble.PlaceFields{LatDeg: 38.4, LonDeg: -20.5}, Sky: light.PartlyCloudy, StepS: 300,
		From: time.Date(2031, 9, 20, 5, 0, 0, 0, time.UTC), To: time.Date(2031, 9, 20, 22, 0, 0, 0, time.UTC)}
	for i := range 40 {
		r.Shots = append(r.Shots, day.OutingShot{ID: fmt.Sprint(i), CameraID: fmt.Sprint(i % 5), From: r.From.Add(time.Duration(i/5) * 2 * time.Hour), Minutes: 60, PackMin: 20,
			EVSet: 7.6, Headroom: 2, Plane: light.Vertical})
	}
	for c := range 5 {
		for s := range 12 {
			r.Stacks = append(r.Stacks, day.OutingStack{Stack: day.Stack{ID: fmt.Sprint(c, s), Stops: stop.Stops(s), CameraID: fmt.Sprint(c)}})
		}
	}
	b.Run("replan", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			if _, err := day.Outing(b.Context(), r); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("baseline-light-alone", func(b *testing.B) {
		b.ReportAllocs()
		o := &light.Outdoors{Place: r.Place.Place(), Sky: r.Sky, Plane: light.Vertical, Albedo: light.DefaultAlbedo}
		for b.Loop() {
			for i := range r.Shots {
				o.Curve(r.Shots[i].From, r.Shots[i].From.Add(time.Hour), time.Minute, nil)
			}
		}
	})
}

// A reading fades with time and does not end at midnight; across a change of the kind of
// sky it says nothing.
func TestAnAnchorFadesAndEndsWithItsSky(t *testing.T) {
	span := strings.Replace(harvest, `"to":"2031-09-20T21:00:00-01:00"`, `"to":"2031-09-21T21:00:00-01:00"`, 1)
	const turned = `,"turns":[{"from":"2031-09-20T18:00:00-01:00","sky":"partly"}]`
	for _, turns := range []string{"", turned} {
		free := ask[day.OutingAnswer](t, "outing", fmt.Sprintf(span, turns))
		a := ask[day.OutingAnswer](t, "outing", fmt.Sprintf(span, turns+`,"anchor":{"time":"2031-09-20T12:00:00-01:00","ev100":13}`))
		for i, p := range a.Curve {
			off := float64(p.EV100.Above(free.Curve[i].EV100))
			isOver := turns != "" && !p.Time.Before(time.Date(2031, 9, 20, 19, 0, 0, 0, time.UTC))
			want := float64(a.Offset) * math.Exp(-math.Abs(p.Time.Sub(time.Date(2031, 9, 20, 13, 0, 0, 0, time.UTC)).Hours())/6)
			if isOver {
				want = 0
			}
			if math.Abs(off-want) > 1e-9 {
				t.Fatalf("with %q at %v the anchor moves the light by %v, want %v", turns, p.Time, off, want)
			}
		}
	}
}

// The day on which the clocks go back has 25 hours and is one day; the offset of its last
// instant tells.
func TestADayOf25HoursIsOneDay(t *testing.T) {
	for _, c := range []struct {
		from, to string
		days     int
	}{
		{"2026-10-25T00:00:00+02:00", "2026-10-26T00:00:00+01:00", 1},
		{"2026-10-24T00:00:00+02:00", "2026-10-26T00:00:00+01:00", 2},
		{"2026-03-29T00:00:00+01:00", "2026-03-30T00:00:00+02:00", 1},
		{"2026-06-01T20:00:00+02:00", "2026-06-02T01:00:00+02:00", 2},
	} {
		a := ask[day.OutingAnswer](t, "outing", fmt.Sprintf(`{"place":{"latDeg":47,"lonDeg":8},"sky":"clear","from":%q,"to":%q,"stepS":3600,"shots":[],"stacks":[]}`, c.from, c.to))
		if len(a.Days) != c.days {
			t.Errorf("from %s to %s are %d days, want %d", c.from, c.to, len(a.Days), c.days)
		}
	}
}

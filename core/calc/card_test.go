package calc

import (
	"encoding/json"
	"fmt"
	"math"
	"pinhole/core/day"
	"pinhole/core/stop"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/card"
	"pinhole/core/glass"
)

const optics = `{"aperture":2,"isoBase":100,"isoCeiling":141.421356,"fastestS":0.000125}`

// bench is the pocket camera with two filters on magnets.
const pocketBench = `{"cameraId":"pocket","camera":"Pocket","optics":` + optics + `,"rig":{"mount":"magnet","payloadG":3},"whiteBalance":"5600 K","recipe":["Profile: flat"],
	"profile":{"stabiliser":"gimbal","flies":%v},"kit":[{"id":"8","stops":3,"kind":"nd"},{"id":"128","stops":7,"kind":"nd"}]}`

// field is the harvest's two walks as a card, at an instant and with marks.
func field(now string, flies bool, marks, anchor string) string {
	outing := fmt.Sprintf(`{"place":{"latDeg":38.4,"lonDeg":-20.5},"sky":"clear","from":"2031-09-20T05:00:00-01:00","to":"2031-09-20T21:00:00-01:00","stepS":86400%s,
	"shots":[
		{"id":"a","name":"Dawn walk","cameraId":"pocket","from":"2031-09-20T07:30:00-01:00","minutes":20,"evSet":7.64,"shutterS":0.02,"fps":25,"isoHeadroomStops":0.5,"plane":"vertical","headingDeg":90},
		{"id":"b","name":"Noon walk","cameraId":"pocket","from":"2031-09-20T12:30:00-01:00","minutes":30,"packMin":12,"evSet":7.64,"shutterS":0.02,"fps":25,"isoHeadroomStops":0.5,"plane":"vertical"}],
	"stacks":[{"id":"none","name":"No glass","stops":0},{"id":"p8","name":"ND8","stops":3,"cameraId":"pocket","layers":1,"filters":["8"]},{"id":"p128","name":"ND128","stops":7,"cameraId":"pocket","layers":1,"filters":["128"]}]}`, anchor)
	shot := `{"id":"%s","look":{"fps":"25","target":"180°"},"choices":{}}`
	return fmt.Sprintf(`{"now":"%s","name":"Harvest","outing":%s,"shots":[`+fmt.Sprintf(shot, "a")+","+fmt.Sprintf(shot, "b")+`],"benches":[`+fmt.Sprintf(pocketBench, flies)+`],
	"glass":[{"id":"8","title":"ND8","slot":"A1"},{"id":"128","title":"ND128"}],
	"seats":[{"stack":"p128","standing":"tried","mount":"magnet","hold":"tether","margin":2.2}],"marks":[%s]}`, now, outing, marks)
}

func cardAt(t *testing.T, now string, flies bool, marks, anchor string) card.CardCamera {
	t.Helper()
	a := ask[card.CardAnswer](t, "card", field("2031-09-20T"+now+"-01:00", flies, marks, anchor))
	if len(a.Cameras) != 1 || len(a.Cameras[0].Turns) != 4 {
		t.Fatalf("the card has %+v", a.Cameras)
	}
	return a.Cameras[0]
}

func TestTheCardSaysWhatIsOnAndWhatComesNext(t *testing.T) {
	for _, c := range []struct {
		now, whens string
		current    int
		swapIn     string
	}{
		{"05:30:00", "next later later later", 0, "in "},
		{"07:40:00", "on next later later", 0, "in "},
		{"12:35:00", "over on next later", 1, ""},
		{"20:00:00", "over over over over", 3, ""},
	} {
		of := cardAt(t, c.now, false, "", "")
		var whens []string
		for _, turn := range of.Turns {
			whens = append(whens, turn.When)
		}
		if strings.Join(whens, " ") != c.whens || of.Current != c.current {
			t.Errorf("at %s: %v, current %d", c.now, whens, of.Current)
		}
		if (of.Swap != nil) != (c.swapIn != "") || of.Swap != nil && (!strings.HasPrefix(of.Swap.In, c.swapIn) || of.Swap.To != "ND128" || !of.Swap.Due.Equal(of.Swap.At)) {
			t.Errorf("at %s the next swap is %+v", c.now, of.Swap)
		}
	}
}

func TestATurnSaysWhatToSet(t *testing.T) {
	of := cardAt(t, "12:35:00", false, "", "")
	noon := of.Turns[1]
	if noon.Glass != "ND128" || noon.Set.Shutter != "1/50" || noon.Set.FPS != "25 fps" || noon.Set.Angle != "180°" || !slices.Equal(noon.Set.Recipe, []string{"Profile: flat"}) {
		t.Errorf("noon is set to %+v with %s", noon.Set, noon.Glass)
	}
	if noon.Light.Expected.EV100 < noon.Light.LowEV100-0.01 || noon.Light.Expected.EV100 > noon.Light.HighEV100+0.01 || noon.Light.Expected.General == nil {
		t.Errorf("its light is %+v", noon.Light)
	}
	if l := noon.Light; math.Abs(float64(l.Bias)) > 0.7 || l.Auto == "" || !strings.HasPrefix(l.Meter, "f2 1/") || !strings.HasSuffix(l.Meter, " iso100") {
		t.Errorf("it would be read as %+v, %s or %s", l.Bias, l.Auto, l.Meter)
	}
	// Seen ahead, a turn's light is that of the turn; what would be read is that of now.
	if ahead := cardAt(t, "06:20:00", false, "", "").Turns[1].Light; ahead.HighEV100 != noon.Light.HighEV100 || ahead.Expected.EV100 >= noon.Light.LowEV100-0.3 || !ahead.At.Before(noon.From) {
		t.Errorf("at dawn, noon is expected as %+v", ahead)
	}
	if dawn := of.Turns[0]; dawn.Glass != "ND8" || noon.Stays || !of.Turns[2].Stays {
		t.Errorf("dawn has %s; noon stays %v, and after it %v", dawn.Glass, noon.Stays, of.Turns[2].Stays)
	}
	// The plan's left-over and the card's setting say the same of the light.
	if got, want := float64(noon.Light.HighEV100.Above(noon.Set.EVSet)-noon.Set.Stops), float64(noon.Set.Left); want > 0 && math.Abs(got-want) > 1e-9 {
		t.Errorf("left %v, by the light %v", want, got)
	}
}

func TestMarksCountForTheirTurn(t *testing.T) {
	turn := cardAt(t, "12:35:00", true, "", "").Turns[1]
	if turn.Readiness != card.Stopped || !slices.ContainsFunc(turn.Stops, func(s string) bool { return strings.Contains(s, "a magnet never flies") }) {
		t.Fatalf("a magnet in flight is %s: %q", turn.Readiness, turn.Stops)
	}
	var marks []string
	for _, check := range turn.Checks {
		marks = append(marks, fmt.Sprintf(`{"turn":"%s","step":"%s","kind":"tick","at":"2031-09-20T12:20:00-01:00"}`, turn.ID, check.Step))
	}
	marked := cardAt(t, "12:35:00", true, strings.Join(marks, ","), "").Turns
	if marked[1].Readiness != card.Ready || marked[1].Checks[0].At == nil || marked[2].Readiness == card.Ready {
		t.Errorf("ticked, it is %s, and the turn after it %s", marked[1].Readiness, marked[2].Readiness)
	}
}

// Every place where glass is lost says by how much, from the same numbers as Shot.
func TestDrillsCarryTheNumbersOfTheTurn(t *testing.T) {
	turn := cardAt(t, "12:35:00", true, "", "").Turns[1]
	lost := turn.Light.HighEV100.Above(turn.Set.EVSet)
	if text := strings.Join(turn.Drills[0].Lines, " "); turn.Drills[0].Name != "glass-lost" || !strings.Contains(text, fmt.Sprintf("%v stops over", lost)) || !strings.Contains(text, "1/8000") {
		t.Errorf("glass lost: %s", text)
	}
}

func TestTheTextIsThePlan(t *testing.T) {
	a := ask[card.CardAnswer](t, "card", field("2031-09-20T05:30:00-01:00", false, "", ""))
	for _, line := range []string{"Harvest\n", "Sat 20 Sep 2031\n07:30-07:50 Dawn walk, Pocket: ND8 (A1); 1/100 to 1/50, ISO 100, 25 fps\n", " SWAP on Pocket: ND128 for ND8", "12:30-12:42 Noon walk, battery 1 of 3, Pocket: ND128"} {
		if !strings.Contains(a.Text, line) {
			t.Errorf("%q is not in\n%s", line, a.Text)
		}
	}
	if dawn, swap := strings.Index(a.Text, "Dawn walk"), strings.Index(a.Text, "SWAP"); swap < dawn {
		t.Errorf("not in order of time:\n%s", a.Text)
	}
}

func TestUntilIsReadAtAGlance(t *testing.T) {
	now := time.Date(2031, 9, 20, 12, 0, 0, 0, time.UTC)
	for d, want := range map[time.Duration]string{20 * time.Second: "now", 12 * time.Minute: "in 12 min", -8 * time.Minute: "8 min ago", 185 * time.Minute: "in 3 h 05 min", 30 * time.Hour: "in a day", 72 * time.Hour: "in 3 days"} {
		if got := card.Until(now, now.Add(d)); got != want {
			t.Errorf("%v: %q, want %q", d, got, want)
		}
	}
}

func remeter(t *testing.T, light, planned string) card.RemeterAnswer {
	t.Helper()
	return *ask[card.RemeterAnswer](t, "remeter", fmt.Sprintf(`{"bench":`+pocketBench+`,"shot":{"id":"b","look":{"fps":"25","target":"180°"},"choices":{}},"on":["128"],"shutterS":0.02,"light":%s,"planned":%s}`, false, light, planned))
}

const planned = `{"ev100":14.64,"spreadStops":0.5,"generalEv100":13.2}`

// At 1/50 and f/2 behind seven stops the setting needs EV 14.64.
// A camera's printed bias means thirds, at every frame rate alike: shutters of 1/48 or 1/240
// have no short written form, so that only the locked time itself is sent.
func TestRemeteringByBiasAtEveryFrameRate(t *testing.T) {
	for _, fps := range []float64{23.976, 24, 25, 30, 50, 60, 120} {
		shutter := 1 / (2 * fps)
		a := *ask[card.RemeterAnswer](t, "remeter", fmt.Sprintf(`{"bench":`+pocketBench+`,"shot":{"id":"b","look":{"fps":"%g","target":"180°"},"choices":{}},"on":["128"],"shutterS":%v,"light":{"kind":"bias","at":{"bias":"-0.7","glassStops":7}},"planned":{"ev100":12,"spreadStops":0.2}}`, false, fps, shutter))
		set := stop.Setting{Aperture: 2, Shutter: stop.Shutter(shutter), ISO: 100}.EV()
		if want := set.Plus(7 - 2.0/3); a.EV100.Above(want).Abs() > 1e-9 {
			t.Errorf("%g fps: EV %v, want %v", fps, a.EV100, want)
		}
	}
}

func TestRemeter(t *testing.T) {
	for _, c := range []struct {
		name, light string
		ev          float64
		off         float64
		serves      glass.State
		change      string
	}{
		{"as planned", `{"kind":"bias","at":{"bias":"0","glass":["128"]}}`, 14.64, 0, glass.Holds, ""},
		{"a cloud", `{"kind":"bias","at":{"bias":"-3","glass":["128"]}}`, 11.64, -3, glass.Breaks, "8"},
		{"darker than ISO lifts: other glass is ranked before it, whatever its cost", `{"kind":"bias","at":{"bias":"-1.2","glass":["128"]}}`, 13.44, -1.2, glass.Breaks, "8"},
		{"its automatic", `{"kind":"auto","at":{"shutter":"1/100","iso":"100","glass":["128"]}}`, 15.64, 1, glass.Breaks, ""},
		{"a hand meter", `{"kind":"meter","at":{"text":"f2 1/6400 iso100"}}`, 14.64, 0, glass.Holds, ""},
	} {
		a := remeter(t, c.light, planned)
		if math.Abs(float64(a.EV100)-c.ev) > 0.02 || a.Off == nil || math.Abs(float64(*a.Off)-c.off) > 0.02 || a.Anchor == nil || math.Abs(float64(*a.Anchor)-13.2-c.off) > 0.02 {
			t.Errorf("%s: %+v, off %v, anchor %v", c.name, a, a.Off, a.Anchor)
		}
		if c.change != "" && (a.Serves != c.serves || a.Change == nil || strings.Join(a.Change.Filters, "+") != c.change) {
			t.Errorf("%s: it %s, change to %+v; want %s and %q", c.name, a.Serves, a.Change, c.serves, c.change)
		}
		if c.serves == glass.Holds && (a.Serves != glass.Holds || a.Change != nil) {
			t.Errorf("%s: it %s and is changed for %+v", c.name, a.Serves, a.Change)
		}
	}
}

// A sky that is seen has a first glass and one for the pocket, and does not move a day whose
// forecast is surer.
func TestRemeteringByTheSky(t *testing.T) {
	a := remeter(t, `{"kind":"sky","sky":{"sky":"heavy"}}`, planned)
	if !a.Settled || a.Spread < 0.5 || a.Change == nil {
		t.Fatalf("heavy cloud behind seven stops is %+v", a)
	}
	if a.IfBrighter == nil && a.IfDarker == nil {
		t.Errorf("nothing for the pocket, ±%v", a.Spread)
	}
	for _, c := range []*card.Change{a.IfBrighter, a.IfDarker} {
		if c != nil && slices.Equal(c.Filters, a.Change.Filters) {
			t.Errorf("for the pocket is what goes on first: %v", c.Filters)
		}
	}
	if a.Anchor != nil || !strings.Contains(a.Unpinned, "surer") {
		t.Errorf("pinned is %v, %q", a.Anchor, a.Unpinned)
	}
	if unsure := remeter(t, `{"kind":"sky","sky":{"sky":"clear","facing":"front","height":"high"}}`, strings.Replace(planned, "0.5", "3", 1)); unsure.Anchor == nil {
		t.Errorf("an unsure forecast is not moved: %+v", unsure)
	}
	// Asked of the light at either end, the glass for the pocket is what is changed to.
	for off, want := range map[float64]*card.Change{float64(a.Spread): a.IfBrighter, -float64(a.Spread): a.IfDarker} {
		there := remeter(t, fmt.Sprintf(`{"kind":"meter","at":{"text":"EV %.4f"}}`, float64(a.EV100)+off), planned)
		if want != nil && (there.Change == nil || !slices.Equal(there.Change.Filters, want.Filters)) {
			t.Errorf("at %+.1f stops it is %+v, for the pocket %v", off, there.Change, want.Filters)
		}
	}
}

func TestLookingBoundsTheLight(t *testing.T) {
	look := func(saw string) card.RemeterAnswer {
		return remeter(t, `{"kind":"looks","looks":[{"stops":7,"saw":"`+saw+`"}]}`, planned)
	}
	if a := look("right"); !a.Settled || a.Anchor == nil || a.Serves != glass.Holds {
		t.Errorf("right: %+v", a)
	}
	bright, dark := look("bright"), look("dark")
	if bright.Settled || bright.Anchor != nil || !strings.Contains(bright.Against, "over forecast") {
		t.Errorf("too bright: %+v", bright)
	}
	if dark.Settled || dark.Change == nil || slices.Contains(dark.Change.Filters, "128") || !strings.Contains(dark.Against, "under forecast") {
		t.Errorf("too dark: %+v", dark)
	}
}

// What is no daylight moves no day.
func TestALampIsNoAnchor(t *testing.T) {
	a := remeter(t, `{"kind":"bias","at":{"bias":"1","glass":["128"]}}`, `{"ev100":7,"spreadStops":0.2}`)
	if a.Anchor != nil || a.Off == nil {
		t.Errorf("%+v", a)
	}
}

func TestThroughAPassage(t *testing.T) {
	a := ask[card.PassageAnswer](t, "passage", `{"optics":`+optics+`,"shutterS":0.02,"fps":25,"glassStops":6,"looseStops":6,"outsideEv100":13.64,"insideEv100":10.64,"lengthM":60,"speedMps":5}`)
	if a.Seconds != 12 || math.Abs(float64(a.Darker)-3) > 1e-9 || len(a.Ways) != 4 || a.Take != "two-takes" {
		t.Errorf("%+v", a)
	}
}

// The card of a day with two shots in four turns, beside the plan that it comes from.
func BenchmarkCard(b *testing.B) {
	var r card.CardRequest
	if err := json.Unmarshal([]byte(field("2031-09-20T12:35:00-01:00", true, "", "")), &r); err != nil {
		b.Fatal(err)
	}
	b.Run("card", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			if _, err := card.Card(b.Context(), r); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("baseline-plan-alone", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			if _, err := day.Outing(b.Context(), r.Outing); err != nil {
				b.Fatal(err)
			}
		}
	})
}

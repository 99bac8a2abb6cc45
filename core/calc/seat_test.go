package calc

import (
	"encoding/json"
	"strings"
	"testing"

	"pinhole/core/fit"
)

func ask[A any](t *testing.T, name, body string) *A {
	t.Helper()
	op, ok := Named(name)
	if !ok {
		t.Fatalf("there is no %s", name)
	}
	answer, err := op.Run([]byte(body))
	if err != nil {
		t.Fatalf("%s %s: %v", name, body, err)
	}
	return answer.(*A)
}

const aRig = `{"mount":"push-on","barrelMm":[20.00,20.02],"pupilDepthMm":3,"foldMm":4,"payloadG":8,"filterArmMm":30,"counterArmMm":15,"accelG":8,"speedMps":20,"bareG":240,"limitG":249}`
const aGlass = `{"mount":"push-on","seatMm":[20.02,20.04],"outerMm":23,"clearMm":18,"thicknessMm":2.4,"weightG":2}`
const aView = `{"aperture":2,"focalMm":5,"halfDiagonalDeg":50}`

func TestSeatJoinsTrialAndMeasures(t *testing.T) {
	a := ask[fit.SeatAnswer](t, "seat", `{"rig":`+aRig+`,"view":`+aView+`,"glass":[`+aGlass+`]}`)
	if a.Standing != fit.Computed || *a.Fit.Worst != fit.Snug || a.Hold.Verdict != fit.Unknown || a.Balance.CounterG != 4 || a.Mass.SpareG != 7 || a.Corners.LossStops == nil {
		t.Errorf("computed: %+v", a)
	}
	if len(a.Open) != 1 || !strings.Contains(a.Open[0], "pull-off") {
		t.Errorf("open: %q", a.Open)
	}
	a = ask[fit.SeatAnswer](t, "seat", `{"rig":`+aRig+`,"inFlight":true,"glass":[`+aGlass+`],"trial":{"seated":true,"pullOffG":30}}`)
	if a.Standing != fit.DoesNotGo || a.Hold.Verdict != fit.DoNotFly || !strings.Contains(a.Because[0], "do not fly") {
		t.Errorf("a weak hold in flight: %+v", a)
	}
	a = ask[fit.SeatAnswer](t, "seat", `{"rig":`+aRig+`,"inFlight":true,"glass":[`+aGlass+`],"trial":{"seated":true,"pullOffG":300}}`)
	if a.Standing != fit.Tried || len(a.Because) != 1 {
		t.Errorf("a good hold in flight: %+v", a)
	}
	// A second layer lies further out and darkens more; how the first one fits stays.
	one := ask[fit.SeatAnswer](t, "seat", `{"rig":`+aRig+`,"view":{"aperture":2,"focalMm":5,"halfDiagonalDeg":58},"glass":[`+aGlass+`]}`)
	two := ask[fit.SeatAnswer](t, "seat", `{"rig":`+aRig+`,"view":{"aperture":2,"focalMm":5,"halfDiagonalDeg":58},"glass":[`+aGlass+`,`+aGlass+`]}`)
	if two.Corners.CleanHalfDeg >= one.Corners.CleanHalfDeg || two.Standing != fit.Computed || two.Mass.TotalG != 244 {
		t.Errorf("a stack is clean to %v, its first layer to %v; %+v", two.Corners.CleanHalfDeg, one.Corners.CleanHalfDeg, two)
	}
	a = ask[fit.SeatAnswer](t, "seat", `{"rig":{},"glass":[{}],"claimed":true}`)
	if a.Standing != fit.NotKnown || a.Fit != nil || a.Hold != nil || a.Corners != nil || a.Mass != nil || len(a.Open) == 0 {
		t.Errorf("nothing known: %+v", a)
	}
}

func TestSizesThatCannotBe(t *testing.T) {
	for field, body := range map[string]string{"seatMm": `{"seatMm":[23,22]}`, "clearMm": `{"outerMm":20,"clearMm":21}`} {
		var b fit.Body
		if err := json.Unmarshal([]byte(body), &b); err != nil {
			t.Fatal(err)
		}
		if err := fit.CheckBody(&b); err == nil || !strings.Contains(err.Error(), field) {
			t.Errorf("%s gives %v", body, err)
		}
	}
	op, _ := Named("seat")
	for field, body := range map[string]string{
		"rig.barrelMm":     `{"rig":{"mount":"snap","barrelMm":[21,20]},"glass":[{"seatMm":[20,20]}]}`,
		"rig.mount":        `{"rig":{"mount":"velcro"},"glass":[{}]}`,
		"glass[0].outerMm": `{"rig":{},"glass":[{"outerMm":-3}]}`,
	} {
		if _, err := op.Run([]byte(body)); err == nil || !strings.Contains(err.Error(), field) {
			t.Errorf("%s gives %v, want a fault of %s", body, err, field)
		}
	}
	up, down := angle30(), -angle30()-1
	if err := fit.CheckRig(&fit.RigFields{TiltUpDeg: &up, TiltDownDeg: &down}); err == nil {
		t.Error("a rig that tilts down to above where it tilts up is accepted")
	}
}

func TestCompareSaysWhatToFindOut(t *testing.T) {
	a := ask[CompareAnswer](t, "compare", `{"sets":[{"name":"old","fit":1,"truth":0.1,"mass":6},{"name":"new","fit":1,"mass":3}]}`)
	if a.Ahead != nil || !strings.Contains(a.Words, "For old, find out their colour shift first") {
		t.Errorf("%+v", a)
	}
	a = ask[CompareAnswer](t, "compare", `{"sets":[{"name":"old","mass":6},{"name":"new","mass":3}],"weights":{"fit":0,"truth":0,"tint":0,"corners":0,"flare":0,"sharpness":0,"mass":1,"case":0,"price":0}}`)
	if a.Ahead == nil || *a.Ahead != "new" {
		t.Errorf("by mass alone: %+v", a)
	}
}

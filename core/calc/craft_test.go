package calc

import (
	"reflect"
	"testing"

	"pinhole/core/motion"
)

// What a craft usually does counts as if the shot said it, and gives way to what the shot says.
func TestAShotMovesAsItsCraftUnlessItSaysOtherwise(t *testing.T) {
	bare := changed(t, crates, `{"scene":{"shakeDegS":null}}`)
	for craft, said := range map[string]string{
		`{"craft":{"activity":"run"}}`:                                              `{"scene":{"activity":"run"}}`,
		`{"craft":{"activity":"run","shakeDegS":70}}`:                               `{"scene":{"shakeDegS":70}}`,
		`{"craft":{"activity":"run","shakeDegS":70},"scene":{"activity":"walk"}}`:   `{"scene":{"activity":"walk"}}`,
		`{"craft":{"activity":"run"},"scene":{"activity":"walk","shakeDegS":12.5}}`: `{"scene":{"activity":"walk","shakeDegS":12.5}}`,
	} {
		got, want := answered(t, changed(t, bare, craft)), answered(t, changed(t, bare, said))
		if !reflect.DeepEqual(got, want) {
			t.Errorf("%s is answered with %v, %s with %v", craft, got.Window, said, want.Window)
		}
	}
}

func TestSticksOfACraftByAxis(t *testing.T) {
	calm, brisk := `{"centreDegS":70,"maxDegS":360,"expo":0.5}`, `{"centreDegS":180,"maxDegS":900,"expo":0.3}`
	a := answered(t, changed(t, crates, `{"craft":{"rates":{"pan":`+brisk+`,"roll":`+brisk+`},"compared":{"pan":`+calm+`}}}`))
	if len(a.Sticks) != 2 || a.Sticks[0].Axis != motion.Pan || a.Sticks[1].Axis != motion.Roll {
		t.Fatalf("the axes are %+v", a.Sticks)
	}
	pan, roll := a.Sticks[0], a.Sticks[1]
	if pan.Compared == nil || roll.Compared != nil {
		t.Errorf("laid over the pan is %v, over the roll %v", pan.Compared, roll.Compared)
	}
	if *pan.Compared.HeavyStick <= *pan.Rates.HeavyStick {
		t.Errorf("calm rates go to %v of the stick, brisk ones to %v", *pan.Compared.HeavyStick, *pan.Rates.HeavyStick)
	}
	// Rates that are tried for the shot are laid over before others are.
	tried := answered(t, changed(t, crates, `{"craft":{"rates":{"pan":`+calm+`},"compared":{"pan":`+calm+`}},"scene":{"stick":`+brisk+`}}`))
	if got := tried.Sticks[0].Compared; got == nil || *got.HeavyStick != *pan.Rates.HeavyStick {
		t.Errorf("tried rates go to %+v", got)
	}
}

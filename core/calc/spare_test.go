package calc

import (
	"fmt"
	"slices"
	"testing"
)

// A shot whose light was only seen names the filters for the light at either end: asked of that
// light, they are what is put on.
func TestSparesAreWhatTheOtherLightCallsFor(t *testing.T) {
	sky := answered(t, changed(t, crates, `{"light":{"kind":"sky","at":null,"sky":{"sky":"gaps"}},"scene":null}`))
	spread := float64(sky.Reading.SpreadStops)
	if spread < 0.5 || sky.IfBrighter == nil && sky.IfDarker == nil {
		t.Fatalf("by eye, ±%v: %v, %v", spread, sky.IfBrighter, sky.IfDarker)
	}
	for off, spare := range map[float64]*ShotSpare{spread: sky.IfBrighter, -spread: sky.IfDarker} {
		there := answered(t, changed(t, crates, fmt.Sprintf(`{"light":{"at":{"text":"EV %.4f"}},"scene":null}`, float64(sky.Reading.EV100)+off)))
		want := there.Chosen.Filters
		if spare == nil {
			if !slices.Equal(want, sky.Chosen.Filters) {
				t.Errorf("at %+.1f stops %v goes on, and no spare is named beside %v", off, want, sky.Chosen.Filters)
			}
			continue
		}
		if !slices.Equal(spare.Filters, want) {
			t.Errorf("at %+.1f stops the spare is %v, put on is %v", off, spare.Filters, want)
		}
	}
	if metered := answered(t, crates); metered.IfBrighter != nil || metered.IfDarker != nil {
		t.Errorf("a metered light has spares %v, %v", metered.IfBrighter, metered.IfDarker)
	}
}

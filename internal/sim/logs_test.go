package sim

import (
	"bytes"
	"math"
	"testing"

	"pinhole/core/measure"
)

func measured[A any](t *testing.T, name string, file []byte) A {
	t.Helper()
	op, _ := measure.Named(name)
	answer, err := op.Run(measure.Input{Files: map[string][]measure.File{"file": {{Name: "simulated", Bytes: file}}}})
	if err != nil {
		t.Fatal(err)
	}
	return answer.(A)
}

// What the stand-ins write is read as what they did.
func TestSimulatedLogsAreRead(t *testing.T) {
	flight := measured[*measure.TelemetryAnswer](t, "telemetry", Flight(1))
	if flight.Used != flightS || flight.Shutter.Mode != measure.ModeAutomatic || flight.ISO.Mode != measure.ModeLocked || flight.EV100 == nil ||
		math.Abs(float64(flight.EV100.P95)-14.2) > 0.2 || flight.Bounds == nil {
		t.Errorf("the flight is read as %+v", flight)
	}
	walk := measured[*measure.GyroAnswer](t, "gyro", Walk(1))
	if len(walk.Refused) > 0 || !walk.BiasKnown || math.Abs(walk.BiasDegS.X-0.4) > 0.1 || *walk.ShakeDegS < 10 || *walk.ShakeDegS > 30 || *walk.IntendedDegS < 15 {
		t.Errorf("the walk is read as %+v", walk)
	}
	found := false
	for _, p := range walk.Peaks {
		found = found || math.Abs(p.Hz-61) < 0.5
	}
	if !found {
		t.Errorf("the motor at 61 Hz is not among %v", walk.Peaks)
	}
	if !bytes.Equal(Flight(7), Flight(7)) || !bytes.Equal(Walk(7), Walk(7)) || bytes.Equal(Walk(7), Walk(8)) {
		t.Error("a seed does not say which log it is")
	}
}

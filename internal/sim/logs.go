package sim

import (
	"bytes"
	"fmt"
	"io"
	"math"
	"math/rand/v2"
)

// Lengths and rates of the logs that stand in for a drone's and a gyro's.
const (
	flightS  = 90
	gyroS    = 20
	gyroHz   = 400
	gyroRest = 1.5 // seconds on the table, before it is picked up
)

// Flight returns the subtitles that a simulated drone writes beside its clip: auto shutter at
// base ISO, from open sky over dark trees and back. The same seed gives the same flight.
func Flight(seed uint64) []byte {
	random := rand.New(rand.NewPCG(seed, 0x5eed))
	var out bytes.Buffer
	phase := random.Float64()
	for i := range flightS {
		t := float64(i)
		// Over the trees the light falls by two stops and a half.
		ev := 14.2 - 2.5*math.Exp(-math.Pow((t-45-10*phase)/14, 2)) + 0.05*random.NormFloat64()
		shutter := math.Exp2(ev) / (2.8 * 2.8)
		fmt.Fprintf(&out, "%d\n%s --> %s\n[simulated: yes] [iso: 100] [shutter: 1/%.1f] [fnum: 2.8] [ev: 0] [fps: 30] [latitude: %.5f] [longitude: %.5f] [altitude: %.1f]\n\n",
			i+1, cue(t), cue(t+1), shutter, 38.4+t*2e-5, -20.5+t*1e-5, 12+6*math.Sin(t/15))
	}
	return out.Bytes()
}

func cue(t float64) string {
	s := int(t)
	return fmt.Sprintf("%02d:%02d:%02d,000", s/3600, s/60%60, s%60)
}

// Walk returns the log that a simulated gyro writes of somebody who walks with a camera: steps,
// their double, a slow look around, and the motor of a gimbal. The same seed gives the same walk.
func Walk(seed uint64) []byte {
	random := rand.New(rand.NewPCG(seed, 0x9a17))
	var out bytes.Buffer
	_, _ = io.WriteString(&out, "time (ms),gyro_x (deg/s),gyro_y (deg/s),gyro_z (deg/s)\n") // a buffer takes all
	step := 1.8 + 0.2*random.Float64()
	var phase [4]float64
	for i := range phase {
		phase[i] = 2 * math.Pi * random.Float64()
	}
	for i := range gyroS * gyroHz {
		t := float64(i) / gyroHz
		swing := func(hz, degS float64, k int) float64 { return degS * math.Sin(2*math.Pi*hz*t+phase[k]) }
		noise := func() float64 { return 0.15 * random.NormFloat64() }
		x, y, z := 0.4+noise(), -0.2+noise(), 0.1+noise()
		if t > gyroRest {
			x += swing(step, 11, 0) + swing(2*step, 6, 1)
			y += swing(2*step, 8, 1) + swing(61, 2.5, 2)
			z += swing(0.25, 25, 3) + swing(step, 5, 0)
		}
		fmt.Fprintf(&out, "%.2f,%.3f,%.3f,%.3f\n", 1000*t, x, y, z)
	}
	return out.Bytes()
}

package sim

import (
	"bytes"
	"math"
	"math/rand/v2"
	"testing"

	"pinhole/core/angle"
	"pinhole/core/stop"
	"pinhole/core/take"
)

// BenchmarkTakes measures clips of the simulated camera, drawn at random, and reports how many
// shares are told, and how many of them are told within what docs/model.md allows. The
// baseline is the share that somebody would guess who always trusts 180°.
func BenchmarkTakes(b *testing.B) {
	const clips = 40
	for b.Loop() {
		r := rand.New(rand.NewPCG(17, 8))
		var told, within, inErrors, guessed, off float64
		for i := range clips {
			fps := []float64{25, 30, 50}[i%3]
			share := 0.08 + 0.87*r.Float64()
			shake := angle.DegPerS(5 + 25*r.Float64())
			known := take.Request{ShutterS: stop.Shutter(share / fps), HFOVDeg: 70}
			clip, err := take.ReadY4M(bytes.NewReader(Clip(known, fps, shake, uint64(i))))
			if err != nil {
				b.Fatal(err)
			}
			a, err := take.Measure(clip, take.Request{HFOVDeg: 70})
			if err != nil {
				b.Fatal(err)
			}
			if math.Abs(0.5-share) <= 0.05+0.1*share {
				guessed++
			}
			if s := a.Shutter; s.Share != nil {
				told++
				off += math.Abs(*s.Share - share)
				if math.Abs(*s.Share-share) <= 0.05+0.1*share {
					within++
				}
				if math.Abs(*s.Share-share) <= 3.5*s.SE {
					inErrors++
				}
			}
		}
		b.ReportMetric(told/clips, "shares-told")
		b.ReportMetric(within/told, "within")
		b.ReportMetric(inErrors/told, "within-3.5se")
		b.ReportMetric(off/told, "mean-off")
		b.ReportMetric(guessed/clips, "baseline-guess-within")
	}
}

package practice

import (
	"fmt"

	"pinhole/core/motion"
	"pinhole/core/stop"
)

// target asks for the shutter of a frame rate and an angle; of the hardest, of frames that are
// dropped when it is shown.
func target(d *draw) (*made, bool) {
	rates := []int{24, 25, 30, 48, 50, 60, 100, 120}
	if d.Held != nil {
		rates = nil
		for _, text := range d.Held.Rates {
			if fps, err := stop.ParseRate(text); err == nil && fps >= 10 && float64(fps) == float64(int(fps)) {
				rates = append(rates, int(fps))
			}
		}
		if len(rates) < 2 {
			return nil, false
		}
	}
	fps := oneOf(d, rates...)
	deg := oneOf(d, graded(d, []int{180}, []int{90, 180, 360}, []int{90, 180})...)
	m := &made{unit: "stops", margin: 1}
	delivery := motion.Delivery{}
	asks := fmt.Sprintf("%d° at %d fps: which shutter?", deg, fps)
	if d.Grade == Grades {
		if fps%2 != 0 || fps < 48 {
			return nil, false
		}
		delivery = motion.Delivery{Showing: motion.RealTime, Rate: stop.FrameRate(fps / 2)}
		asks = fmt.Sprintf("Filmed at %d fps, every second frame dropped, shown at %d: which shutter looks like %d°?", fps, fps/2, deg)
		if d.IntN(2) == 0 {
			delivery = motion.Delivery{Showing: motion.EveryFrame}
			asks = fmt.Sprintf("Filmed at %d fps for slow motion, every frame shown at %d: which shutter is %d°?", fps, fps/2, deg)
		}
	}
	shown := delivery.Shown(stop.FrameRate(fps))
	t := stop.Angle(deg).At(shown)
	if !t.Possible(stop.FrameRate(fps)) {
		return nil, false
	}
	m.Asks = asks
	m.onScale(d, func(k int) string { return t.Times(stop.Stops(-k)).Spoken() }, func(k int) float64 { return float64(-k) })
	m.working = []string{fmt.Sprintf("The shutter is open for %d/360 of the time from one shown moment to the next: 1/%v s.", deg, shown), fmt.Sprintf("%d ÷ (360 × %v) = %s.", deg, shown, t.Spoken())}
	if delivery.Showing == motion.RealTime {
		m.working = append(m.working, "What counts is the frames that are shown, not those that are dropped.")
	}
	if delivery.Showing == motion.EveryFrame {
		m.working = append(m.working, "Every frame is shown, so the angle is that of the frames filmed.")
	}
	return m, true
}

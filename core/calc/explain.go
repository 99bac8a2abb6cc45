package calc

import (
	"fmt"

	"pinhole/core/plan"
	"pinhole/core/stop"
)

// ExplainLine is one step of the chain from reading to verdict: what it is, the
// formula, and the same with its numbers.
type ExplainLine struct {
	Name    string `json:"name"`
	Formula string `json:"formula"`
	Numbers string `json:"numbers"`
	Result  string `json:"result"`
}

// explain writes the chain of numbers, so that it can be checked by hand.
func (a *ShotAnswer) explain(s *plan.Scene, b *bench) []ExplainLine {
	q := &b.question
	set := q.Setting
	lines := []ExplainLine{
		{
			"light of the scene", "EV at ISO 100, as read", a.Reading.Text,
			fmt.Sprintf("EV %.2f, ±%.1f", float64(q.Light.High), float64(q.Light.Spread)),
		},
		{
			"shutter", "angle / (360 · fps), then the camera's nearest step", fmt.Sprintf("wanted %v", stop.Shutter(a.Shutter.IdealS)),
			fmt.Sprintf("%v, %s stops", set.Shutter, stop.Stops(set.Shutter.Over(stop.Shutter(a.Shutter.IdealS))).Signed()),
		},
		{
			"light the setting needs", "log2(N² / t) − log2(ISO / 100)",
			fmt.Sprintf("log2(%.4g² / %.6g) − log2(%.0f / 100)", float64(set.Aperture), set.Shutter.Seconds(), float64(set.ISO)), fmt.Sprintf("EV %.2f", float64(set.EV())),
		},
		{
			"glass needed", "EVscene − EVset − offset", fmt.Sprintf("%.2f − %.2f − %.2f", float64(q.Light.High), float64(set.EV()), float64(q.Offset)),
			fmt.Sprintf("%.2f stops", float64(q.Need())),
		},
		{
			"error left over", "EVscene − stops of glass − EVset", fmt.Sprintf("%.2f − %.2f − %.2f", float64(q.Light.High), float64(a.Chosen.Stops), float64(set.EV())),
			fmt.Sprintf("%+.2f stops, ±%.1f", float64(a.Chosen.ErrorStops), float64(a.Chosen.SpreadStops)),
		},
		{
			"accepted", "offset − dark ≤ error ≤ offset + bright",
			fmt.Sprintf("%.2f ≤ %.2f ≤ %.2f", float64(q.Offset-q.Band.Dark), float64(a.Chosen.ErrorStops), float64(q.Offset+q.Band.Bright)), string(a.Chosen.Verdict),
		},
	}
	if sh := s.Shaking; sh != nil && sh.Stabiliser.ShiftsFrames() {
		lines = append(lines, explainFloor(sh)...)
	}
	if p := s.Passing; p != nil && a.Motion != nil {
		lines = append(lines, ExplainLine{
			"blur of what passes", "f_px · (v·sin θ / d + ω) · t",
			fmt.Sprintf("%.0f · (%.3g / %.3g + %.3g) · %.6g", a.Motion.FPx, p.SpeedMps*abs(p.OffAxis.Sin()), p.DistanceM, abs(p.Turn.RadiansPerS()), set.Shutter.Seconds()),
			fmt.Sprintf("%.1f px, %.2f %% of the width: %s", a.Motion.BlurPx, 100*a.Motion.BlurShare, a.Motion.Class),
		})
	}
	if l := s.Lamp; l != nil {
		lines = append(lines, ExplainLine{
			"ripple of the lamps", "|sinc(pulse · t)| · depth", fmt.Sprintf("|sinc(%.4g · %.6g)| · %.3g", l.PulseHz, set.Shutter.Seconds(), l.Depth),
			fmt.Sprintf("%.1f %%, safe up to 2 %%", 100*l.Ripple(set.Shutter)),
		})
	}
	return lines
}

func explainFloor(sh *plan.Shaking) []ExplainLine {
	floor, ok := sh.Slowest()
	if !ok {
		return nil
	}
	if sh.Trial > 0 {
		return []ExplainLine{{"stabiliser's floor", "your own stepped trial", "slowest judged good", floor.String()}}
	}
	passes := 1.0
	if sh.BlurPx(sh.Lens, 1) > 0 {
		passes = sh.BlurPx(sh.Lens, 1) / (sh.Lens.PxPerRadian() * sh.Rate.RadiansPerS())
	}
	return []ExplainLine{{
		"stabiliser's floor", "q · W / (f_px · ω · g)",
		fmt.Sprintf("%.3g · %.0f / (%.0f · %.4g · %.2g)", sh.Tolerance, sh.Lens.WidthPx, sh.Lens.PxPerRadian(), sh.Rate.RadiansPerS(), passes), floor.Spoken(),
	}}
}

func abs(v float64) float64 { return max(v, -v) }

package calc

import (
	"fmt"
	"math"
	"pinhole/core/assemble"
	"pinhole/core/shot"

	"pinhole/core/glass"
	"pinhole/core/motion"
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

// explain writes the chain of numbers, so that it can be checked by hand; taken are
// the shutters the camera is set to.
func (a *ShotAnswer) explain(s *shot.Scene, b *assemble.Setup, taken stop.Span) []ExplainLine {
	q := &b.Question
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
			"ND needed", "EVscene − EVset − offset", fmt.Sprintf("%.2f − %.2f − %.2f", float64(q.Light.High), float64(set.EV()), float64(q.Offset)),
			fmt.Sprintf("%.2f stops", float64(q.Need())),
		},
		{
			"error left over", "EVscene − stops of ND − EVset", fmt.Sprintf("%.2f − %.2f − %.2f", float64(q.Light.High), float64(a.Chosen.Stops), float64(set.EV())),
			fmt.Sprintf("%+.2f stops, ±%.1f", float64(a.Chosen.ErrorStops), float64(a.Chosen.SpreadStops)),
		},
		{
			"accepted", "offset − dark ≤ error ≤ offset + bright",
			fmt.Sprintf("%.2f ≤ %.2f ≤ %.2f", float64(q.Offset-q.Band.Dark), float64(a.Chosen.ErrorStops), float64(q.Offset+q.Band.Bright)), string(a.Chosen.Verdict),
		},
	}
	lines = append(lines, a.explainGiving(q)...)
	if sh := s.Shaking; sh != nil && sh.Stabiliser.ShiftsFrames() {
		lines = append(lines, explainFloor(sh)...)
	}
	if p := s.Passing; p != nil && a.Motion != nil {
		formula, rate := "f_px · ω · t", fmt.Sprintf("%.3g", math.Abs(p.Turn.RadiansPerS()))
		if p.SpeedMps > 0 {
			formula, rate = "f_px · (v·sin θ / d + ω) · t", fmt.Sprintf("(%.3g / %.3g + %s)", p.SpeedMps*math.Abs(p.OffAxis.Sin()), p.DistanceM, rate)
		}
		lines = append(lines, ExplainLine{
			"blur of what passes", formula, fmt.Sprintf("%.0f · %s · %.6g", a.Motion.FPx, rate, taken.To.Seconds()),
			fmt.Sprintf("%.1f px, %.2f %% of the width: %s", a.Motion.BlurPx, 100*a.Motion.BlurShare, a.Motion.Class),
		})
	}
	if l := s.Lamp; l != nil {
		lines = append(lines, ExplainLine{
			"flicker", "|sinc(pulse · t)| · depth", fmt.Sprintf("|sinc(%.4g · %.6g)| · %.3g", l.PulseHz, taken.From.Seconds(), l.Depth),
			fmt.Sprintf("%.1f %%, safe up to %.0f %%", 100*l.Ripple(taken.From), 100*motion.MostRipple),
		})
	}
	return lines
}

// explainGiving writes what ISO or shutter makes good of the error, at the highest
// and in a range at the lowest light.
func (a *ShotAnswer) explainGiving(q *glass.Question) []ExplainLine {
	chosen, base, t := &a.Chosen, q.Setting.ISO, q.Setting.Shutter
	giving := func(name, formula, unit string, from float64, by stop.Stops, to string) ExplainLine {
		return ExplainLine{name, formula, fmt.Sprintf("%.6g%s · 2^%.2f", from, unit, float64(by)), to}
	}
	const iso, shutter = "base · 2^(offset − error), at most the ceiling", "t · 2^(offset − error), as far as the camera goes"
	missing := q.Offset - chosen.ErrorStops
	if m := chosen.Mode; m != nil {
		atLow := chosen.ErrorStops - q.Light.High.Above(q.Light.Low)
		lines := []ExplainLine{{
			"error at the lowest light", "error − (EVhighest − EVlowest)",
			fmt.Sprintf("%.2f − (%.2f − %.2f)", float64(chosen.ErrorStops), float64(q.Light.High), float64(q.Light.Low)), fmt.Sprintf("%+.2f stops", float64(atLow)),
		}}
		if m.FastestS < t {
			lines = append(lines, giving("shutter at the highest light", shutter, " s", t.Seconds(), missing, m.FastestText))
		}
		if m.ISOHigh > base {
			lines = append(lines, giving("ISO at the lowest light", iso, "", float64(base), q.Offset-atLow, m.ISOHigh.String()))
		}
		if m.SlowestS > t {
			lines = append(lines, giving("shutter at the lowest light", "t · 2^(offset − error − stops of ISO), at most a frame", " s", t.Seconds(),
				q.Offset-atLow-q.Headroom(), m.SlowestText))
		}
		return lines
	}
	switch left := fmt.Sprintf(", %s stops left", chosen.LeftStops.Signed()); chosen.Verdict {
	case glass.RaiseISO, glass.Dark:
		return []ExplainLine{giving("ISO", iso, "", float64(base), missing, chosen.ISO.String()+left)}
	case glass.FasterShutter:
		return []ExplainLine{giving("shutter that exposes", shutter, " s", t.Seconds(), missing, chosen.ShutterText+left)}
	}
	return nil
}

func explainFloor(sh *shot.Shaking) []ExplainLine {
	floor, ok := sh.Slowest()
	if !ok {
		return nil
	}
	if sh.Trial > 0 {
		return []ExplainLine{{"stabiliser limit", "your own shutter test", "slowest judged good", floor.String()}}
	}
	passes := 1.0
	if sh.BlurPx(sh.Lens, 1) > 0 {
		passes = sh.BlurPx(sh.Lens, 1) / (sh.Lens.PxPerRadian() * sh.Rate.RadiansPerS())
	}
	return []ExplainLine{{
		"stabiliser limit", "q · W / (f_px · ω · g)",
		fmt.Sprintf("%.3g · %.0f / (%.0f · %.4g · %.2g)", sh.Tolerance, sh.Lens.WidthPx, sh.Lens.PxPerRadian(), sh.Rate.RadiansPerS(), passes), floor.Spoken(),
	}}
}

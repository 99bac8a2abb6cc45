package day

import (
	"cmp"
	"fmt"
	"time"

	"pinhole/core/stop"
)

// because says in a sentence why a swap is made before a shot: what the old glass would have
// done to it, what the new one does, and how long the old one serves, zero for never.
func because(shot *Shot, stays, becomes Planned, latest time.Time) string {
	from, to := stays.Stack.name(), becomes.Stack.name()
	text := fmt.Sprintf("before %s at %s change %s for %s: ", cmp.Or(shot.Name, shot.ID), shot.From.Format("15:04"), from, to)
	if stays.Worst != 0 {
		text += fmt.Sprintf("%s would leave the picture %s", from, beyond(stays.Worst))
	} else {
		text += fmt.Sprintf("%s would still serve, %s on average, but ISO or error would cost more than the swap", from, sided(stays.MeanError))
	}
	text += fmt.Sprintf("; %s comes out %s on average", to, sided(becomes.MeanError))
	switch {
	case latest.IsZero():
		text += fmt.Sprintf("; %s never served", from)
	case latest.Before(shot.From):
		text += fmt.Sprintf("; %s serves until %s", from, latest.Format("15:04"))
	}
	return text
}

func (s *Stack) name() string { return cmp.Or(s.Name, s.ID) }

// sided says an error at base ISO with its side.
func sided(e stop.Stops) string {
	switch {
	case e.Abs() < 0.05:
		return "as metered"
	case e > 0:
		return fmt.Sprintf("%v stops bright", e)
	}
	return fmt.Sprintf("%v stops dark", e.Abs())
}

// beyond says an excess with its side.
func beyond(x stop.Stops) string {
	if x > 0 {
		return fmt.Sprintf("%v stops brighter than you accept", x)
	}
	return fmt.Sprintf("%v stops darker than ISO can lift", x.Abs())
}

// Words says how a planned shot comes out.
func (p *Planned) Words() string {
	text := fmt.Sprintf("%s: %s on average", p.Stack.name(), sided(p.MeanError))
	if p.Worst != 0 {
		text += fmt.Sprintf(", at worst %s", beyond(p.Worst))
	}
	return text
}

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
	text := fmt.Sprintf("%s swap %s for %s, for %s: ", shot.From.Format("15:04"), from, to, cmp.Or(shot.Name, shot.ID))
	if stays.Worst != 0 {
		text += fmt.Sprintf("%s otherwise", beyond(stays.Worst))
	} else {
		text += fmt.Sprintf("%s also covers it, %s on average, with more noise or error than the swap is worth", from, sided(stays.MeanError))
	}
	text += fmt.Sprintf("; %s: %s on average", to, sided(becomes.MeanError))
	switch {
	case latest.IsZero():
		text += fmt.Sprintf("; %s covers nothing before it", from)
	case latest.Before(shot.From):
		text += fmt.Sprintf("; last shot on %s ends %s", from, latest.Format("15:04"))
	}
	return text
}

func (s *Stack) name() string { return cmp.Or(s.Name, s.ID) }

// sided says an error at base ISO with its side.
func sided(e stop.Stops) string {
	switch {
	case e.Abs() < 0.05:
		return "no error"
	case e > 0:
		return fmt.Sprintf("%v stops over", e)
	}
	return fmt.Sprintf("%v stops under", e.Abs())
}

// beyond says an excess with its side.
func beyond(x stop.Stops) string {
	if x > 0 {
		return fmt.Sprintf("%v stops over tolerance", x)
	}
	return fmt.Sprintf("%v stops under at highest ISO", x.Abs())
}

// Words says how a planned shot comes out.
func (p *Planned) Words() string {
	text := fmt.Sprintf("%s: %s on average", p.Stack.name(), sided(p.MeanError))
	if p.Worst != 0 {
		text += fmt.Sprintf(", at worst %s", beyond(p.Worst))
	}
	return text
}

package calc

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/shot"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// ShotShort is light that is missing, and what would help.
type ShotShort struct {
	Stops stop.Stops  `json:"stops" doc:"darker than is accepted, with ISO as high as still looks good"`
	Helps []ShortHelp `json:"helps" doc:"in the order in which they cost least"`
}

// ShortHelp is one thing that would help.
type ShortHelp struct {
	Words string     `json:"words"`
	Gives stop.Stops `json:"givesStops" doc:"of the stops that are missing"`
}

// short says how much light a shot is short of at an option, nil where it is not.
func shortOf(r *assemble.ShotRequest, s *shot.Scene, q *glass.Question, taken *glass.Option) *ShotShort {
	missing := taken.Dark(q)
	if missing < 0.05 {
		return nil
	}
	a := &ShotShort{Stops: missing, Helps: []ShortHelp{}}
	help := func(gives stop.Stops, format string, args ...any) {
		if gives >= 0.05 {
			a.Helps = append(a.Helps, ShortHelp{fmt.Sprintf(format, args...), min(gives, missing)})
		}
	}
	loose := stop.Stops(0)
	for _, f := range taken.Filters {
		loose += f.Stops
	}
	help(loose, "take the filter off")
	if fps := q.Rate; fps > 0 {
		help(fps.Frame().Over(taken.Shutters().To), "open the shutter for the whole frame, %s, 360°: more motion blur", fps.Frame().Spoken())
		slowest := fps
		for _, rate := range s.Rates {
			slowest = min(slowest, rate)
		}
		help(stop.FromFactor(float64(fps/slowest)), "shoot %v fps at the same angle", slowest)
	}
	lux := q.Light.Low.Lux()
	help(missing, "bring light: %.3g lux at the subject in place of %.3g; half the distance to a small light is two stops", lux*missing.Factor(), lux)
	help(missing, "go beyond the ISO that still looks good: ISO %.0f, and noise that a stabiliser cannot track through", float64(q.Ceiling)*missing.Factor())
	return a
}

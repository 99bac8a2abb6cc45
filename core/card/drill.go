package card

import (
	"fmt"

	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Take is a take that may go wrong: the camera, what carries it, what is set, and
// what the plan knows. The zero value of a field is what is not known.
type Take struct {
	Flies   bool
	Flown   motion.Flown
	Carried motion.Carried
	// Glass is true where loose glass is on. Lost is the error when it falls off,
	// Restores the camera's shutter that then exposes, Left what stays over there.
	Glass      bool
	Lost       stop.Stops
	Restores   stop.Shutter
	Left       stop.Stops
	Stabiliser motion.Stabiliser
	// Shutter is what is set, Floor the slowest at which the stabiliser works.
	Shutter, Floor stop.Shutter
	Rate           stop.FrameRate
	// Low and High bound the light that the glass on serves, ISO and band included.
	Low, High stop.EV
	// Brighter and Darker name the glass in the pocket, for more light and for less.
	Brighter, Darker string
	PulseHz          float64
	PayloadG         float64
	SealedPort       bool
}

// Drill is what to do about one thing that goes wrong, in at most MostLines lines.
type Drill struct {
	Name  string
	Title string
	Lines []string
}

// GlassLost names the drill of a filter that fell off.
const GlassLost = "glass-lost"

// MostLines is the most lines of a drill: as many as are read in a hurry.
const MostLines = 5

// Deference closes the drills of what flies.
const Deference = "Local rules and your emergency procedure come first."

// Drills returns the drills that apply, the most urgent first.
func (t *Take) Drills() []Drill {
	var all []Drill
	if t.Glass {
		all = append(all, Drill{GlassLost, "Filter lost", t.glassLost()})
	}
	all = append(all, Drill{"light-jumped", "Light changed", t.lightJumped()})
	if t.Stabiliser.ShiftsFrames() || t.Stabiliser == "" {
		all = append(all, Drill{"ghosting", "Ghosting", t.ghosting()})
	}
	if t.Carried != motion.OnStand || t.Flies {
		all = append(all, Drill{"wobble", "Wobble", t.wobble()})
	}
	all = append(all, Drill{"lamps", "Flicker", t.lamps()})
	if t.Stabiliser.HasGimbal() {
		all = append(all, Drill{"gimbal", "Gimbal overload", t.gimbal()})
	}
	return append(all, Drill{"condensation", "Fogging", t.condensation()})
}

// halt is the first thing to do before anything is touched.
func (t *Take) halt() string {
	switch {
	case t.Flies:
		return "Land and disarm before anything is touched."
	case t.Carried == motion.Ridden:
		return "Stop where it is safe first; never reach for it while moving."
	}
	return "Stand still, away from edges, before anything is touched."
}

func (t *Take) glassLost() []string {
	over := fmt.Sprintf("%v stops over: auto exposure or %s.", t.Lost, t.Restores.Spoken())
	switch {
	case t.Lost <= 0.3:
		over = "Exposure hardly changes: this filter cuts next to nothing."
	case t.Restores == 0:
		over = fmt.Sprintf("%v stops over: auto exposure or the fastest shutter.", t.Lost)
	case t.Left > 0.3:
		over = fmt.Sprintf("%v stops over: set %s, still %v over.", t.Lost, t.Restores.Spoken(), t.Left)
	}
	if !t.Flies {
		return []string{t.halt(), over, "Find the filter before anyone walks there.", "Mark it lost in Kit: it is not offered again until it is found."}
	}
	first := "Self-levelling mode first; full manual cannot hover."
	if t.Flown == motion.Level {
		first = "Release the sticks: it levels and holds its place."
	}
	return []string{
		first,
		over + " Only if you can set it in the air.",
		"Picture gone: fly by sight or observer.",
		"Return the way you came, away from people, and land. Then find the filter.",
		Deference,
	}
}

func (t *Take) lightJumped() []string {
	lines := []string{"Leave the shutter alone mid-take; finish or cut."}
	if t.High != 0 {
		lines = append(lines, fmt.Sprintf("This filter covers %s to %s, ISO included.", t.Low, t.High))
	}
	switch {
	case t.Brighter != "" && t.Darker != "":
		lines = append(lines, fmt.Sprintf("Brighter for good: %s. Darker for good: %s.", t.Brighter, t.Darker))
	case t.Brighter != "":
		lines = append(lines, fmt.Sprintf("Brighter for good: %s. Darker: let ISO rise, to your limit.", t.Brighter))
	case t.Darker != "":
		lines = append(lines, fmt.Sprintf("Darker for good: %s. Brighter: a faster shutter, less blur.", t.Darker))
	default:
		lines = append(lines, "Brighter: a faster shutter, less blur. Darker: let ISO rise, to your limit.")
	}
	return append(lines, "Take a new reading: it corrects the forecast.", t.halt())
}

func (t *Take) ghosting() []string {
	set := "Halve the shutter time, 1 stop less ND, until the ghosting is gone."
	if t.Floor > 0 && t.Shutter > t.Floor {
		set = fmt.Sprintf("Set %s: %s is too slow for this shake. %v stops less ND.", t.Floor.Spoken(), t.Shutter.Spoken(), t.Shutter.Over(t.Floor))
	} else if t.Floor > 0 {
		set = fmt.Sprintf("%s should be fast enough: move more calmly, or halve the shutter time.", t.Shutter.Spoken())
	}
	return []string{"The shutter is too slow for this shake.", set, "Or stabiliser off and the camera on a tripod or gimbal.", "Note it.", t.halt()}
}

func (t *Take) wobble() []string {
	if t.Flies {
		return []string{
			"Land and disarm. Look for a nicked prop, a loose screw, a hard mount.",
			"Swap the props first: the usual cause.",
			"Then try a slower shutter: it averages vibration. A faster one does not cure wobble.",
			"A filter adds mass: try one take without.",
			Deference,
		}
	}
	return []string{t.halt(), "Check that clamp, arm and filter are tight.", "A slower shutter averages vibration; a faster one does not cure wobble.", "A soft mount between what vibrates and the camera helps more than any setting."}
}

func (t *Take) lamps() []string {
	lines := []string{"Flicker: the shutter does not match the mains."}
	if t.PulseHz > 0 {
		lamp := motion.Lamp{PulseHz: t.PulseHz, Depth: 1}
		safe := "no shutter fits a frame, change the frame rate"
		if all := lamp.SafeShutters(t.Rate); len(all) > 0 {
			safe = "use " + all[0].String()
			if len(all) > 1 {
				safe += " or " + all[1].String()
			}
		}
		lines = append(lines, fmt.Sprintf("Lights pulse %.0f times a second: %s.", t.PulseHz, safe))
	} else {
		lines = append(lines, "Mains of 50 Hz: 1/50 or 1/100. Mains of 60 Hz: 1/60 or 1/120.")
	}
	return append(lines, "Choose ND for that shutter.", "Flickers at every shutter: the lights are dimmed. Turn them up full, or off.")
}

func (t *Take) gimbal() []string {
	limit := "Heavier than it carries? Lighter filter, or none."
	if t.PayloadG > 0 {
		limit = fmt.Sprintf("It carries %.1f g at the lens: lighter filter, or none.", t.PayloadG)
	}
	first := "Power off now; never fight its motors."
	if t.Flies {
		first = "Point level, come back and land; then power off."
	}
	return []string{first, limit, "Check the filter is straight and clears the frame at full tilt.", "Self-test again with the filter on: no pass, no take.", "Hot motors: let them cool before the next."}
}

func (t *Take) condensation() []string {
	lines := []string{t.halt(), "Do not wipe yet: power off, into a closed bag, and let it reach the air's warmth.", "Then wipe lens and filter dry, both sides, and put the filter on at the same warmth.", "Next time: filter and camera outdoors ten minutes before."}
	if t.SealedPort {
		lines = append(lines, "Fog behind a sealed port: open it only where it is dry, and look at the seal.")
	}
	return lines
}

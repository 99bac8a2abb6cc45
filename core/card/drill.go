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

// MostLines is the most lines of a drill: as many as are read in a hurry.
const MostLines = 5

// deference closes the drills of what flies.
const deference = "Local rules and your own emergency procedure come before this card."

// Drills returns the drills that apply, the most urgent first.
func (t *Take) Drills() []Drill {
	var all []Drill
	if t.Glass {
		all = append(all, Drill{"glass-lost", "Glass lost", t.glassLost()})
	}
	all = append(all, Drill{"light-jumped", "Light jumped", t.lightJumped()})
	if t.Stabiliser.ShiftsFrames() || t.Stabiliser == "" {
		all = append(all, Drill{"ghosting", "Ghosts after the stabiliser", t.ghosting()})
	}
	if t.Carried != motion.OnStand || t.Flies {
		all = append(all, Drill{"wobble", "Wobble", t.wobble()})
	}
	all = append(all, Drill{"lamps", "Lamps beat", t.lamps()})
	if t.Stabiliser.HasGimbal() {
		all = append(all, Drill{"gimbal", "Gimbal strains", t.gimbal()})
	}
	return append(all, Drill{"condensation", "Fogged", t.condensation()})
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
	over := fmt.Sprintf("The view is %v stops over: automatic, or %s.", t.Lost, t.Restores.Spoken())
	switch {
	case t.Lost <= 0.3:
		over = "The view stays as it is: this glass takes next to no light."
	case t.Restores == 0:
		over = fmt.Sprintf("The view is %v stops over: automatic, or the fastest shutter.", t.Lost)
	case t.Left > 0.3:
		over = fmt.Sprintf("The view is %v stops over; even %s leaves it %v over.", t.Lost, t.Restores.Spoken(), t.Left)
	}
	if !t.Flies {
		return []string{t.halt(), over, "Look for the glass; nobody walks where it may lie until it is found.", "Log it as lost: it is not offered again until it is found."}
	}
	first := "First into a mode that holds itself level: full manual cannot hover."
	if t.Flown == motion.Level {
		first = "Let go of the sticks: it holds itself level and in place."
	}
	return []string{
		first,
		over + " Only if it can be done in the air.",
		"No view to trust: fly by sight, or by your observer's word.",
		"Come back the way you came, away from people, and land. Then look for the glass.",
		deference,
	}
}

func (t *Take) lightJumped() []string {
	lines := []string{"Do not chase it with the shutter in the take: finish, or cut."}
	if t.High != 0 {
		lines = append(lines, fmt.Sprintf("This glass serves %s to %s, ISO included.", t.Low, t.High))
	}
	switch {
	case t.Brighter != "" && t.Darker != "":
		lines = append(lines, fmt.Sprintf("Brighter for good: %s. Darker for good: %s.", t.Brighter, t.Darker))
	case t.Brighter != "":
		lines = append(lines, fmt.Sprintf("Brighter for good: %s. Darker: let ISO rise, as far as it looks good.", t.Brighter))
	case t.Darker != "":
		lines = append(lines, fmt.Sprintf("Darker for good: %s. Brighter: a faster shutter, and the blur is gone.", t.Darker))
	default:
		lines = append(lines, "Brighter: a faster shutter, and the blur is gone. Darker: let ISO rise, as far as it looks good.")
	}
	return append(lines, "Read it again, and pin it: the rest of the day moves with it.", t.halt())
}

func (t *Take) ghosting() []string {
	set := "Half the shutter time until the ghosts are gone; glass lighter by a stop for each."
	if t.Floor > 0 && t.Shutter > t.Floor {
		set = fmt.Sprintf("Set %s: what is set, %s, is too slow for it. Glass %v stops lighter.", t.Floor.Spoken(), t.Shutter.Spoken(), t.Shutter.Over(t.Floor))
	} else if t.Floor > 0 {
		set = fmt.Sprintf("By the numbers %s is fast enough: move more calmly, or half the time.", t.Shutter.Spoken())
	}
	return []string{"The shutter is open longer than this shake allows.", set, "Or the stabiliser off, and the camera on a stand or a gimbal.", "Log it: the next shot starts from what you saw.", t.halt()}
}

func (t *Take) wobble() []string {
	if t.Flies {
		return []string{
			"Land and disarm. Look for a nicked prop, a loose screw, a hard mount.",
			"Swap the props first: it is the usual cause.",
			"Then a slower shutter averages fast vibration away; a faster one freezes slow shake.",
			"Glass adds mass before the lens: try one take without.",
			deference,
		}
	}
	return []string{t.halt(), "Is everything tight: clamp, arm, glass?", "A slower shutter averages fast vibration away; a faster one freezes slow shake.", "Something soft between engine and camera helps more than any setting."}
}

func (t *Take) lamps() []string {
	lines := []string{"Bands or a beat: the shutter is not a whole number of the lamps' pulses."}
	if t.PulseHz > 0 {
		lamp := motion.Lamp{PulseHz: t.PulseHz, Depth: 1}
		safe := "none that leaves a frame its time: change the frame rate"
		if all := lamp.SafeShutters(t.Rate); len(all) > 0 {
			safe = all[0].String()
			if len(all) > 1 {
				safe += " or " + all[1].String()
			}
		}
		lines = append(lines, fmt.Sprintf("These pulse %.0f times a second: %s.", t.PulseHz, safe))
	} else {
		lines = append(lines, "Mains of 50 Hz: 1/50 or 1/100. Mains of 60 Hz: 1/60 or 1/120.")
	}
	return append(lines, "Glass for that shutter, not another frame rate, if the look is to stay.", "Beats on at every shutter: the lamps are dimmed. Turn them up full, or off.")
}

func (t *Take) gimbal() []string {
	limit := "Heavier than it carries? Lighter glass, or none."
	if t.PayloadG > 0 {
		limit = fmt.Sprintf("It carries %.1f g before the lens: lighter glass, or none.", t.PayloadG)
	}
	first := "Power off now; never hold it against its motors."
	if t.Flies {
		first = "Point level, come back and land; then power off."
	}
	return []string{first, limit, "Is the glass straight, and does it touch the frame at full tilt?", "Self-test again with the glass on: no pass, no take.", "Hot motors: let them cool before the next."}
}

func (t *Take) condensation() []string {
	lines := []string{t.halt(), "Do not wipe yet: power off, into a closed bag, and let it reach the air's warmth.", "Then wipe lens and glass dry, both sides, and put the glass on at the same warmth.", "Next time: glass and camera outdoors ten minutes before."}
	if t.SealedPort {
		lines = append(lines, "Fog behind a sealed port: open it only where it is dry, and look at the seal.")
	}
	return lines
}

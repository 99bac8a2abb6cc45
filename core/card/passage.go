package card

import (
	"fmt"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// Passage is a dark stretch on the way, and the setting that the camera comes to it
// with.
type Passage struct {
	Outside, Inside stop.EV
	// Seconds is how long it lasts, above 0.
	Seconds float64
	// Setting is what is locked outside, Glass all the glass before it and Loose what
	// of that could be left off.
	Setting      stop.Setting
	Glass, Loose stop.Stops
	// Ceiling is the highest ISO that still looks good, Rate the frame rate, 0 for
	// stills.
	Ceiling stop.ISO
	Rate    stop.FrameRate
	Offset  stop.Stops
	Band    glass.Band
	Flies   bool
}

// Way is one way through a passage.
type Way struct {
	Name  string
	Title string
	State glass.State
	// Inside is the error inside, negative darker than wanted; Exit how far the first
	// moment outside is burnt.
	Inside, Exit stop.Stops
	Words        string
}

// Ways of going through.
const (
	LockThrough = "lock"
	BandThrough = "band"
	Float       = "float-shutter"
	TwoTakes    = "two-takes"
)

// visible is how dark a picture may be and still be lifted afterwards: half of what
// it holds below the meter's aim. A limit of ours.
const visible = light.DefaultDepth / 2

// Ways returns the ways through, and the index of the one to take: the first that
// holds, else the first that can be lifted afterwards, else two takes.
func (p *Passage) Ways() ([]Way, int) {
	all := []Way{p.lock(), p.band(), p.float(), p.twoTakes()}
	for _, want := range []glass.State{glass.Holds, glass.Tight} {
		for i := range all {
			if all[i].State == want {
				return all, i
			}
		}
	}
	return all, len(all) - 1
}

// Cautions are what holds for every passage.
func (p *Passage) Cautions() []string {
	all := []string{"Never take a filter off or change it while moving: plan for it, or stop first."}
	if p.Flies {
		return append(all, "What the picture shows is what you fly by: if it goes dark, go round. Local rules and your observer come first.")
	}
	return append(all, "Go by your own eyes and the rules of the road, not by the picture.")
}

// error is how the picture comes out inside as it is set, against what is wanted.
func (p *Passage) error() stop.Stops {
	return p.Inside.Plus(-p.Glass).Above(p.Setting.EV()) - p.Offset
}

// outside is how the picture comes out outside as it is set, against what is wanted: not
// always right, where ISO was raised or the light has moved.
func (p *Passage) outside() stop.Stops { return p.error() + p.Outside.Above(p.Inside) }

func (p *Passage) headroom() stop.Stops { return max(0, p.Ceiling.Over(p.Setting.ISO)) }

func (p *Passage) judged(left stop.Stops) glass.State {
	switch {
	case left >= -p.Band.Dark-stop.Tolerance:
		return glass.Holds
	case left >= -visible:
		return glass.Tight
	}
	return glass.Breaks
}

// howLong says how long it lasts.
func (p *Passage) howLong() string {
	if p.Seconds < 1.5 {
		return "1 s"
	}
	return fmt.Sprintf("%.0f s", p.Seconds)
}

// come says how a picture comes out inside.
func come(left stop.Stops) string {
	switch {
	case left > -0.05 && left < 0.05:
		return "correct"
	case left < 0:
		return fmt.Sprintf("%v stops under", left.Abs())
	}
	return fmt.Sprintf("%v stops over", left)
}

func (p *Passage) lock() Way {
	e := p.error()
	w := Way{Name: LockThrough, Title: "Stay locked", State: p.judged(e), Inside: e, Exit: p.outside()}
	exit := "correct"
	if out := p.outside(); !stop.AtMost(out, p.Band.Bright) || !stop.AtMost(-p.Band.Dark, out) {
		exit = "as outside, " + come(out)
	}
	w.Words = fmt.Sprintf("Inside %[2]s for %[1]s; exit %[3]s.", p.howLong(), come(e), exit)
	if e < -visible {
		w.Words = fmt.Sprintf("Inside %[2]s for %[1]s, hardly visible; exit %[3]s.", p.howLong(), come(e), exit)
	}
	return w
}

// exitWords says what an automatic does at the bright end. How long it takes to come
// back is the camera's own: seconds at most.
func exitWords(burnt stop.Stops) string {
	if burnt < 0.05 {
		return "exit correct"
	}
	return fmt.Sprintf("exit %v stops over until auto exposure recovers", burnt)
}

func (p *Passage) band() Way {
	lift := min(p.headroom(), max(0, -p.error()))
	left := p.error() + lift
	iso := p.Setting.ISO.Raised(lift)
	return Way{
		Name: BandThrough, Title: fmt.Sprintf("Auto ISO %.0f–%.0f", float64(p.Setting.ISO), float64(iso)), State: p.judged(left), Inside: left, Exit: p.outside() + lift,
		Words: fmt.Sprintf("Shutter locked; inside %s at %v; %s.", come(left), iso, exitWords(p.outside()+lift)),
	}
}

func (p *Passage) float() Way {
	slow := stop.Stops(0)
	if p.Rate > 0 {
		slow = max(0, p.Rate.Frame().Over(p.Setting.Shutter))
	}
	dark := max(0, -p.error())
	slow = min(slow, dark)
	lift := min(p.headroom(), dark-slow)
	left := p.error() + slow + lift
	t := p.Setting.Shutter.Times(slow)
	return Way{
		Name: Float, Title: fmt.Sprintf("Auto shutter, ISO up to %.0f", float64(p.Setting.ISO.Raised(lift))), State: p.judged(left), Inside: left, Exit: p.outside() + slow + lift,
		Words: fmt.Sprintf("Inside %s at %s: more blur, and a stabiliser ghosts; %s.", come(left), t.Spoken(), exitWords(p.outside()+slow+lift)),
	}
}

func (p *Passage) twoTakes() Way {
	bare := p.error() + p.Loose
	lift := min(p.headroom(), max(0, -bare))
	left := min(0, bare+lift)
	t := p.Setting.Shutter.Times(-max(0, bare)) // bright enough for less time
	with := "as set"
	if p.Loose > 0 {
		with = "no filter"
	}
	w := Way{Name: TwoTakes, Title: "Two takes", State: p.judged(left), Inside: left}
	w.Words = fmt.Sprintf("Stop or land first, then change. Inside, %s: %s at %s, %v. Neither end is over.", with, come(left), t.Spoken(), p.Setting.ISO.Raised(lift))
	if w.State == glass.Breaks {
		w.Words += " Bring light."
	}
	return w
}

// Dark is a kind of dark place, for when nobody can meter it.
type Dark string

// The dark places.
const (
	UnderTrees  Dark = "trees"
	LitTunnel   Dark = "lit-tunnel"
	Underground Dark = "hall"
	Unlit       Dark = "unlit"
)

// Values returns every Dark there is.
func (Dark) Values() []Dark {
	return []Dark{UnderTrees, LitTunnel, Underground, Unlit}
}

// Light returns the light inside and how far it may be off, as rules of thumb of
// ours: dense trees take four stops of the daylight, a lit tunnel or underpass has
// some 150 lux, a barn or a garage some 40, and an unlit passage next to nothing.
func (d Dark) Light(outside stop.EV) (inside stop.EV, spread stop.Stops) {
	switch d {
	case UnderTrees:
		return outside.Plus(-4), 1
	case LitTunnel:
		return min(outside, stop.FromLux(150)), 1
	case Underground:
		return min(outside, stop.FromLux(40)), 1.5
	}
	return min(outside, stop.FromLux(1)), 2
}

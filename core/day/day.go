package day

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"math"
	"slices"
	"time"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Shot is one shot of a day, or one battery of it, in light that is known minute by minute.
type Shot struct {
	ID       string `json:"id" minLength:"1" maxLength:"100"`
	CameraID string `json:"cameraId" minLength:"1" maxLength:"100"`
	// Name is what it is called in words; its id by default.
	Name string    `json:"-"`
	From time.Time `json:"from"`
	To   time.Time `json:"to" doc:"whole minutes after from"`
	// EVSet is the light its setting needs.
	EVSet    stop.EV    `json:"evSet" minimum:"-20" maximum:"40" doc:"the light its setting needs"`
	Points   []stop.EV  `json:"points" minItems:"1" maxItems:"1441" minimum:"-20" maximum:"40" doc:"EV at ISO 100, one a minute from from to to, both included"`
	Offset   stop.Stops `json:"offsetStops,omitempty" minimum:"-5" maximum:"5" doc:"exposure wanted against the meter"`
	Headroom stop.Stops `json:"isoHeadroomStops,omitempty" minimum:"0" maximum:"20" doc:"what ISO can lift"`
	Spread   stop.Stops `json:"spreadStops,omitempty" minimum:"0" maximum:"10" doc:"how far the light may be off"`
	// Band is what this shot accepts around the error wanted; nil for the day's.
	Band *glass.Band `json:"-"`
	// HasNoOrder is true of light that was read as a range: Points are its ends, which have
	// no order in time.
	HasNoOrder bool `json:"-"`
	// Judge judges glass for this shot; nil where nothing is known of it but its points.
	Judge Judge `json:"-"`
}

// Judge says what glass makes of one shot, in its light and in light brighter by off.
type Judge interface {
	// Cost returns what the shot costs with a stack; takes is false where the shot does not
	// take it.
	Cost(stack *Stack, off stop.Stops) (cost float64, takes bool)
	// Breaks reports whether the shot breaks with a stack, which is not nil.
	Breaks(stack *Stack, off stop.Stops) bool
	// Setting returns the stops of a stack as it is turned for this shot.
	Setting(stack *Stack) stop.Stops
}

// Stack is glass that may be on a camera, whole.
type Stack struct {
	ID    string     `json:"id" minLength:"1" maxLength:"200"`
	Name  string     `json:"name,omitempty" maxLength:"300" doc:"what it is called in words; its id by default"`
	Stops stop.Stops `json:"stops" minimum:"-1" maximum:"40"`
	// Most is the darkest setting of glass with a variable filter, which is turned anew
	// for every shot and is no swap; 0 for glass of fixed strength.
	Most     stop.Stops `json:"mostStops,omitempty" minimum:"0" maximum:"40" doc:"of glass that is turned: its darkest"`
	CameraID string     `json:"cameraId,omitempty" maxLength:"100" doc:"the only camera it goes on"`
}

// DefaultSwapCost is what a swap weighs: as much as a shot whose light lies a
// tenth of a stop beyond what is accepted.
const DefaultSwapCost = 1

// Day is the shots of a day and the glass for them.
type Day struct {
	// Shots of one camera do not overlap.
	Shots  []Shot
	Stacks []Stack
	// Start is what cameras carry at first, by the ids of camera and stack. A
	// camera that is not named takes its first glass for nothing.
	Start    map[string]string
	Band     glass.Band
	SwapCost float64
}

// Planned is one shot with its glass.
type Planned struct {
	Shot  *Shot
	Stack *Stack
	// MeanError is the mean over the minutes of the error with ISO at base.
	MeanError stop.Stops
	// Setting is what the glass takes, turned for this shot where it turns.
	Setting stop.Stops
	// Worst is the largest excess, beyond band and ISO, in its direction: positive
	// too bright. 0 is a shot that is served throughout.
	Worst stop.Stops
	// LastMinute is the last minute before the light, once served by this glass,
	// leaves it, counted on through the camera's later shots; zero where it was
	// never served.
	LastMinute time.Time
	// Brighter and Darker are what to carry for a light off by the spread: the
	// stack that would then serve best, nil where the planned one still serves.
	Brighter, Darker *Stack
}

// Swap is a change of glass before a shot.
type Swap struct {
	CameraID string     `json:"cameraId"`
	At       time.Time  `json:"at" doc:"when the new glass has to be on"`
	From     string     `json:"from" doc:"the glass that was on"`
	To       string     `json:"to"`
	Shot     string     `json:"shot"`
	Latest   *time.Time `json:"latest" doc:"the last minute the old glass serves; null where it never did"`
	Because  string     `json:"because"`
}

// Plan is the glass of a day.
type Plan struct {
	Shots []Planned // in order of start
	Swaps []Swap
	Cost  float64
}

// Weights of the cost of a shot, in the measure of one stop over all of it.
const (
	weightExcess = 10
	weightLift   = 0.6
	weightError  = 0.05
)

// Plan chooses one stack per shot so that the sum of their costs and of the swaps
// is least, camera by camera, by dynamic programming over the shots in order of
// start: 10·mean(excess) + 0.6·mean(ISO lift) + 0.05·mean|e − b|, and SwapCost
// whenever the stack is not what the camera carried before. Of equal plans the one
// with fewer swaps is taken, then the earlier stacks.
//
// Every shot has at least one point, and every camera a stack that goes on it. Plan gives up
// when the context ends, with its error.
func (d *Day) Plan(ctx context.Context) (Plan, error) {
	var p Plan
	for _, camera := range d.cameras() {
		shots := d.shotsOf(camera)
		stacks := d.stacksFor(camera)
		chosen, cost, err := d.choose(ctx, camera, shots, stacks)
		if err != nil {
			return p, err
		}
		p.Cost += cost
		d.describe(&p, camera, shots, stacks, chosen)
	}
	slices.SortStableFunc(p.Shots, func(a, b Planned) int { return a.Shot.From.Compare(b.Shot.From) })
	slices.SortStableFunc(p.Swaps, func(a, b Swap) int { return a.At.Compare(b.At) })
	return p, nil
}

// cameras returns the cameras in the order of their first mention.
func (d *Day) cameras() []string {
	var cameras []string
	for _, s := range d.Shots {
		if !slices.Contains(cameras, s.CameraID) {
			cameras = append(cameras, s.CameraID)
		}
	}
	return cameras
}

func (d *Day) shotsOf(camera string) []*Shot {
	var shots []*Shot
	for i := range d.Shots {
		if d.Shots[i].CameraID == camera {
			shots = append(shots, &d.Shots[i])
		}
	}
	slices.SortStableFunc(shots, func(a, b *Shot) int { return a.From.Compare(b.From) })
	return shots
}

func (d *Day) stacksFor(camera string) []*Stack {
	var stacks []*Stack
	for i := range d.Stacks {
		if s := &d.Stacks[i]; s.CameraID == "" || s.CameraID == camera {
			stacks = append(stacks, s)
		}
	}
	return stacks
}

// excess returns how far an error lies beyond what band and ISO accept, with the
// direction it has.
func (d *Day) excess(s *Shot, e stop.Stops) stop.Stops {
	off, band := e-s.Offset, d.bandOf(s)
	switch {
	case off > band.Bright+stop.Tolerance:
		return off - band.Bright
	case off < -band.Dark-s.Headroom-stop.Tolerance:
		return off + band.Dark + s.Headroom
	}
	return 0
}

func (d *Day) bandOf(s *Shot) glass.Band {
	if s.Band != nil {
		return *s.Band
	}
	return d.Band
}

// weightUnfit is the cost of glass that a shot does not take: more than any light could
// cost, so that it is planned only where nothing else is there. It is no part of what a
// plan costs.
const weightUnfit = 1e6

// costOn returns the cost of a shot under a stack in light brighter by off.
func (d *Day) costOn(s *Shot, stack *Stack, off stop.Stops) float64 {
	if s.Judge == nil {
		there := *s
		there.EVSet = s.EVSet.Plus(-off) // brighter light is a setting that needs less
		return d.costOf(&there, stack.at(&there))
	}
	cost, takes := s.Judge.Cost(stack, off)
	if !takes {
		cost = weightUnfit
	}
	return cost
}

// costOf returns the cost of a shot under glass of the given stops.
func (d *Day) costOf(s *Shot, glass stop.Stops) float64 {
	var excess, lift, off float64
	shift := s.EVSet.Plus(glass + s.Offset)
	band := d.bandOf(s)
	bright, dark := float64(band.Bright), float64(band.Dark)
	headroom := float64(s.Headroom)
	for _, ev := range s.Points {
		o := float64(ev - shift) // e − b
		if o >= 0 {
			off += o
			excess += max(0, o-bright)
			continue
		}
		off -= o
		lift += min(headroom, max(0, -o-dark))
		excess += max(0, -o-dark-headroom)
	}
	return (weightExcess*excess + weightLift*lift + weightError*off) / float64(len(s.Points))
}

// way is the best way to have a stack on at a shot.
type way struct {
	unfit int // shots that do not take what is on
	cost  float64
	swaps int
	from  int // the stack before
}

// better reports whether w beats other: with fewer shots that do not take what is on,
// then cheaper beyond rounding, then with fewer swaps.
func (w way) better(other way) bool {
	if w.unfit != other.unfit {
		return w.unfit < other.unfit
	}
	if math.Abs(w.cost-other.cost) > stop.Tolerance {
		return w.cost < other.cost
	}
	return w.swaps < other.swaps
}

// choose returns the index of the stack for each shot and what the whole costs.
func (d *Day) choose(ctx context.Context, camera string, shots []*Shot, stacks []*Stack) (chosen []int, cost float64, err error) {
	ways := make([][]way, len(shots))
	started, isStarted := d.Start[camera]
	for i, shot := range shots {
		if err := ctx.Err(); err != nil {
			return nil, 0, err
		}
		ways[i] = make([]way, len(stacks))
		best := 0 // of the ways so far, from which any glass can be swapped to
		if i > 0 {
			for j := range stacks {
				if ways[i-1][j].better(ways[i-1][best]) {
					best = j
				}
			}
		}
		for j, stack := range stacks {
			w := way{from: j}
			switch {
			case i > 0:
				w = ways[i-1][j]
				w.from = j
				if best != j {
					swapped := ways[i-1][best]
					swapped.cost += d.SwapCost
					swapped.swaps++
					swapped.from = best
					if swapped.better(w) {
						w = swapped
					}
				}
			case isStarted && stack.ID != started:
				w.cost, w.swaps = d.SwapCost, 1
			}
			cost := d.costOn(shot, stack, 0)
			if cost >= weightUnfit {
				w.unfit++
				cost = 0
			}
			w.cost += cost
			ways[i][j] = w
		}
	}
	last := ways[len(shots)-1]
	at := 0
	for j := range last {
		if last[j].better(last[at]) {
			at = j
		}
	}
	cost = last[at].cost
	chosen = make([]int, len(shots))
	for i := len(shots) - 1; i >= 0; i-- {
		chosen[i] = at
		at = ways[i][at].from
	}
	return chosen, cost, nil
}

// describe adds one camera's shots and swaps to the plan.
func (d *Day) describe(p *Plan, camera string, shots []*Shot, stacks []*Stack, chosen []int) {
	carried := d.carriedAtFirst(camera)
	var latest time.Time
	if carried != nil {
		latest = d.lastMinute(shots, carried)
	}
	for i, shot := range shots {
		stack := stacks[chosen[i]]
		planned := d.planned(shot, stack)
		planned.LastMinute = d.lastMinute(shots[i:], stack)
		planned.Brighter = d.spare(shot, stack, stacks, shot.Spread)
		planned.Darker = d.spare(shot, stack, stacks, -shot.Spread)
		p.Shots = append(p.Shots, planned)
		if carried != nil && carried.ID != stack.ID {
			p.Swaps = append(p.Swaps, Swap{
				CameraID: camera, At: shot.From, From: carried.ID, To: stack.ID, Shot: shot.ID, Latest: Known(latest),
				Because: because(shot, d.planned(shot, carried), planned, latest),
			})
		}
		carried, latest = stack, planned.LastMinute
	}
}

// carriedAtFirst returns the stack a camera starts with, nil where none is named.
func (d *Day) carriedAtFirst(camera string) *Stack {
	id, isStarted := d.Start[camera]
	if !isStarted {
		return nil
	}
	i := slices.IndexFunc(d.Stacks, func(s Stack) bool { return s.ID == id })
	return &d.Stacks[i]
}

func (d *Day) planned(shot *Shot, stack *Stack) Planned {
	p := Planned{Shot: shot, Stack: stack, Setting: d.setting(shot, stack)}
	for _, ev := range shot.Points {
		e := ev.Above(shot.EVSet) - p.Setting
		p.MeanError += e
		if x := d.excess(shot, e); x.Abs() > p.Worst.Abs() {
			p.Worst = x
		}
	}
	p.MeanError /= stop.Stops(len(shot.Points))
	return p
}

// setting returns the stops of a stack as it is turned for a shot.
func (d *Day) setting(shot *Shot, stack *Stack) stop.Stops {
	if shot.Judge != nil {
		return shot.Judge.Setting(stack)
	}
	return stack.at(shot)
}

// served reports whether a stack serves one point of a shot, ISO included.
func (d *Day) served(shot *Shot, point int, stack *Stack) bool {
	need := shot.Points[point].Above(shot.EVSet)
	return d.excess(shot, need-stack.near(need-shot.Offset)) == 0
}

// lastMinute walks the minutes of the shots until the light, once served, is not.
func (d *Day) lastMinute(shots []*Shot, stack *Stack) time.Time {
	var last time.Time
	for _, shot := range shots {
		minutes := int(shot.To.Sub(shot.From)/time.Minute) + 1
		for m := range minutes {
			isServed := false
			if shot.HasNoOrder { // each minute may see all of it
				isServed = d.planned(shot, stack).Worst == 0
			} else {
				isServed = d.served(shot, m, stack)
			}
			if isServed {
				last = shot.From.Add(time.Duration(m) * time.Minute)
			} else if !last.IsZero() {
				return last
			}
		}
	}
	return last
}

// at returns what the stack takes in a shot: turned, where it turns, for the middle of
// the shot's light.
func (s *Stack) at(shot *Shot) stop.Stops {
	if s.Most <= s.Stops {
		return s.Stops
	}
	middle := (slices.Min(shot.Points) + slices.Max(shot.Points)) / 2
	return s.near(middle.Above(shot.EVSet) - shot.Offset)
}

// near returns what comes nearest to the wanted stops of what the stack can take.
func (s *Stack) near(want stop.Stops) stop.Stops {
	return min(max(want, s.Stops), max(s.Most, s.Stops))
}

// serves reports whether a shot is served by a stack in light brighter by off.
func (d *Day) serves(shot *Shot, stack *Stack, off stop.Stops) bool {
	if shot.Judge != nil {
		return !shot.Judge.Breaks(stack, off)
	}
	there := *shot
	there.EVSet = shot.EVSet.Plus(-off)
	return d.planned(&there, stack).Worst == 0
}

// spare returns the stack that serves a shot best when its light is off by a
// spread, nil where the planned one still serves or none is better.
func (d *Day) spare(shot *Shot, planned *Stack, stacks []*Stack, off stop.Stops) *Stack {
	if off == 0 || d.serves(shot, planned, off) {
		return nil
	}
	best, least := planned, d.costOn(shot, planned, off)
	for _, s := range stacks {
		if cost := d.costOn(shot, s, off); cost < least-stop.Tolerance {
			best, least = s, cost
		}
	}
	if best == planned {
		return nil
	}
	return best
}

// IDOf returns the id of a stack, "" for none.
func IDOf(s *Stack) string {
	if s == nil {
		return ""
	}
	return s.ID
}

// Check returns the fault of shots and stacks that contradict each other.
func (d *Day) Check() error {
	for i, s := range d.Shots {
		goesOn := func(g Stack) bool { return g.CameraID == "" || g.CameraID == s.CameraID }
		if !slices.ContainsFunc(d.Stacks, goesOn) {
			return &problem.Fault{Field: fmt.Sprintf("shots[%d].cameraId", i), Value: s.CameraID, Allowed: "a camera on which at least one stack goes; no filter is a stack of 0 stops"}
		}
		for _, other := range d.Shots[:i] {
			if other.CameraID == s.CameraID && other.From.Before(s.To) && s.From.Before(other.To) {
				return &problem.Fault{Field: fmt.Sprintf("shots[%d].from", i), Value: s.From, Allowed: fmt.Sprintf("a time at which its camera is free: it shoots %s from %s to %s",
					cmp.Or(other.Name, other.ID), other.From.Format("15:04"), other.To.Format("15:04"))}
			}
		}
	}
	for _, camera := range slices.Sorted(maps.Keys(d.Start)) {
		id := d.Start[camera]
		i := slices.IndexFunc(d.Stacks, func(g Stack) bool { return g.ID == id })
		if i < 0 || d.Stacks[i].CameraID != "" && d.Stacks[i].CameraID != camera {
			return &problem.Fault{Field: "start." + camera, Value: id, Allowed: "the id of a stack that goes on this camera"}
		}
	}
	return nil
}

package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/stop"
)

// SolveRequest asks which glass brings a light to a setting.
type SolveRequest struct {
	assemble.Wish
	Light assemble.SceneLight `json:"light"`
	Most  int                 `json:"most,omitempty" minimum:"1" doc:"at most so many options are written, the best; all of them where left out"`
}

// SolveAnswer is the setting and the options, best first.
type SolveAnswer struct {
	ShutterS  stop.Shutter `json:"shutterS"`
	AngleDeg  *stop.Angle  `json:"angleDeg" doc:"null for a still"`
	SnapStops stop.Stops   `json:"snapStops" doc:"what the camera's own step lets in beyond the wish"`
	EVSet     stop.EV      `json:"evSet" doc:"the light the setting needs, at ISO 100"`
	NeedStops stop.Stops   `json:"needStops" doc:"glass needed at the highest light; negative where light is missing"`
	Options   []Option     `json:"options"`
	Mode      *Mode        `json:"mode,omitempty" doc:"in a range of light: how the best option rides it"`
	Ladder    []Rung       `json:"ladder" doc:"whole stops from the bare camera's shutter to the target, for counting aloud"`
}

// Option is a stack of glass and what the camera does behind it.
type Option struct {
	Filters       []string              `json:"filters" doc:"ids, the one on the camera first; what lives on the lens is not listed"`
	Stops         stop.Stops            `json:"stops"`
	Settings      map[string]stop.Stops `json:"settings,omitempty" doc:"where a variable filter is turned to"`
	Ring          string                `json:"ring,omitempty" doc:"where that is between the marks of its ring, where they were measured"`
	ErrorStops    stop.Stops            `json:"errorStops" doc:"with ISO at base, positive brighter than the meter"`
	LeftStops     stop.Stops            `json:"leftStops" doc:"after ISO or shutter has done what it can"`
	SpreadStops   stop.Stops            `json:"spreadStops" doc:"how far the error may be off"`
	Verdict       glass.Verdict         `json:"verdict"`
	State         glass.State           `json:"state"`
	CouldBe       []glass.State         `json:"couldBe,omitempty" doc:"states it could turn out to have when light and glass are off by the spread"`
	ISO           stop.ISO              `json:"iso"`
	ISOText       string                `json:"isoText" doc:"as it is set, or the band in which it floats"`
	ShutterS      stop.Shutter          `json:"shutterS"`
	ShutterText   string                `json:"shutterText"`
	AngleDeg      *stop.Angle           `json:"angleDeg" doc:"null for a still"`
	Cost          float64               `json:"cost"`
	LostStops     stop.Stops            `json:"lostStops" doc:"the error when the loose glass falls off"`
	LostShutterS  stop.Shutter          `json:"lostShutterS" doc:"the shutter at base ISO that then restores the exposure, as far as the camera goes"`
	LostOverStops stop.Stops            `json:"lostOverStops" doc:"what then stays over"`
	LostSaved     *bool                 `json:"lostSaved" doc:"whether the fastest shutter then still exposes; null where that is not known"`
	Mode          *Mode                 `json:"mode,omitempty"`
	Reasons       []string              `json:"reasons,omitempty" doc:"why it stands where it does, the main one first; of the options of a shot, the chosen one's alone"`
}

// Locked returns the shutter that is set; ok is false where the camera moves it by itself.
func (o *Option) Locked() (t stop.Shutter, ok bool) {
	return o.ShutterS, o.Mode == nil || o.Mode.FastestS == o.Mode.SlowestS
}

// Mode is how the camera rides a range of light.
type Mode struct {
	Kind            glass.Verdict `json:"kind" enum:"lock,float-iso,float-shutter"`
	ISOLow          stop.ISO      `json:"isoLow" doc:"at the highest light"`
	ISOHigh         stop.ISO      `json:"isoHigh" doc:"at the lowest light"`
	SlowestS        stop.Shutter  `json:"slowestS"`
	FastestS        stop.Shutter  `json:"fastestS"`
	SlowestText     string        `json:"slowestText"`
	FastestText     string        `json:"fastestText"`
	SlowestAngleDeg *stop.Angle   `json:"slowestAngleDeg"`
	FastestAngleDeg *stop.Angle   `json:"fastestAngleDeg"`
	ShortStops      stop.Stops    `json:"shortStops" doc:"how far the lowest light stays too dark"`
}

// Rung is one count of the ladder.
type Rung struct {
	ShutterS stop.Shutter `json:"shutterS"`
	EV100    stop.EV      `json:"ev100"`
	Text     string       `json:"text" doc:"as it is said: 1/640 for 1/625"`
}

// Solve answers solve.
func Solve(r SolveRequest) (*SolveAnswer, error) {
	light, err := r.Light.Light()
	if err != nil {
		return nil, err
	}
	b, err := r.Wish.Setup()
	if err != nil {
		return nil, err
	}
	b.Question.Light = light
	return solved(b, r.Most, toldOption), nil
}

// solved returns the best of the options, written each by a function; 0 is all of them.
func solved(b *assemble.Setup, most int, write func(*assemble.Setup, *glass.Option) Option) *SolveAnswer {
	q := &b.Question
	a := &SolveAnswer{
		ShutterS: q.Setting.Shutter, AngleDeg: b.Angle(q.Setting.Shutter), SnapStops: b.Snapped.Off,
		EVSet: q.Setting.EV(), NeedStops: q.Need(), Ladder: []Rung{},
	}
	if most == 0 {
		most = len(b.Stacks)
	}
	options := glass.Foremost(q, b.Stacks, most)
	a.Options = make([]Option, len(options))
	for i := range options {
		a.Options[i] = write(b, &options[i])
	}
	a.Mode = a.Options[0].Mode
	for _, c := range q.Ladder() {
		a.Ladder = append(a.Ladder, Rung{ShutterS: c.Shutter, EV100: c.EV, Text: c.Shutter.Spoken()})
	}
	return a
}

// toldOption writes an option as its answer, with its reasons: of the forty of a kit nobody reads
// more than those of one, and they take longer than choosing it.
func toldOption(b *assemble.Setup, o *glass.Option) Option {
	out := optionOf(b, o)
	out.Reasons = o.Reasons(&b.Question)
	return out
}

// optionOf writes an option as its answer, without its reasons.
func optionOf(b *assemble.Setup, o *glass.Option) Option {
	q := &b.Question
	out := Option{
		Filters: glass.IDs(o.Filters), Stops: o.Stops, ErrorStops: o.Error, LeftStops: o.Left, SpreadStops: o.Spread(q),
		Verdict: o.Verdict, State: o.State(q), CouldBe: o.CouldBe(q), ISO: o.ISO, ISOText: o.SpokenISO(q), ShutterS: o.Shutter, ShutterText: q.Spoken(o.Shutter), AngleDeg: b.Angle(o.Shutter),
		Cost: o.Cost, LostStops: o.Lost, Mode: modeOf(b, o.Mode),
	}
	if o.Turned != nil {
		out.Settings = map[string]stop.Stops{o.Turned.ID: o.Setting}
		out.Ring = o.Turned.Ring.Words(o.Setting)
	}
	out.LostShutterS, out.LostOverStops = o.Restores(q)
	if saved, known := o.Saved(q); known {
		out.LostSaved = &saved
	}
	return out
}

func modeOf(b *assemble.Setup, m *glass.Mode) *Mode {
	if m == nil {
		return nil
	}
	return &Mode{
		Kind: m.Kind, ISOLow: m.ISOLow, ISOHigh: m.ISOHigh, SlowestS: m.Slowest, FastestS: m.Fastest,
		SlowestText: b.Question.Spoken(m.Slowest), FastestText: b.Question.Spoken(m.Fastest),
		SlowestAngleDeg: b.Angle(m.Slowest), FastestAngleDeg: b.Angle(m.Fastest), ShortStops: m.Short,
	}
}

package calc

import (
	"errors"
	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/shot"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// WindowRequest is one shot with everything that makes a demand on its shutter.
type WindowRequest struct {
	assemble.Wish
	Light      assemble.SceneLight  `json:"light"`
	School     shot.School          `json:"school,omitempty" enum:"angle,fixed,stabiliser-first,free" doc:"what the shutter is chosen by; angle with angleDeg, fixed with shutterS by default"`
	Rates      []float64            `json:"rates,omitempty" maxItems:"40" minimum:"0.00001" maximum:"10000" doc:"the camera's frame rates; a trade doubles the present one when they are left out"`
	Carried    motion.Carried       `json:"carried,omitempty" doc:"what carries the camera: who pans, and who can be put on a stand; left out, not known"`
	ViewsDeg   []angle.Deg          `json:"viewsDeg,omitempty" maxItems:"20" minimum:"0.01" maximum:"360" doc:"fields of view the camera can be switched to, beside the one in use, degrees"`
	Stabiliser *WindowShake         `json:"stabiliser,omitempty"`
	Blur       *WindowMovement      `json:"blur,omitempty" doc:"what passes through the picture"`
	Vibration  *WindowVibration     `json:"vibration,omitempty"`
	Lamps      *assemble.LampFields `json:"lamps,omitempty"`
}

// WindowShake is the shake, its stabiliser, and what a trial found.
type WindowShake struct {
	assemble.LensFields
	assemble.ShakeFields
	TrialS     stop.Shutter  `json:"trialS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"slowest shutter judged good in a shutter test, seconds"`
	TrialShake angle.DegPerS `json:"trialShakeDegS,omitempty" minimum:"0" maximum:"100000" doc:"shake of the path of that test, degrees a second; that of walking by default"`
}

// WindowMovement is what passes.
type WindowMovement struct {
	assemble.LensFields
	assemble.MovementFields
}

// WindowVibration is what a motor does.
type WindowVibration struct {
	assemble.LensFields
	assemble.VibrationFields
}

// WindowAnswer is every demand on one scale, who excludes whom, and the verdict.
type WindowAnswer struct {
	TargetS   stop.Shutter     `json:"targetS" doc:"what the camera offers for the wish"`
	FromS     stop.Shutter     `json:"fromS" doc:"the shortest time the window shows"`
	ToS       stop.Shutter     `json:"toS" doc:"the longest: a frame"`
	Marks     []WindowMark     `json:"marks"`
	Bands     []WindowBand     `json:"bands"`
	Overlap   []WindowOverlap  `json:"overlap" doc:"what all demands make of each time together"`
	Conflicts []WindowConflict `json:"conflicts" doc:"pairs that exclude each other, the worst first"`
	Trades    []WindowTrade    `json:"trades" doc:"what would help, each made and the whole shot judged again, the best first"`
	Verdict   WindowVerdict    `json:"verdict"`
}

// WindowMark is a single time.
type WindowMark struct {
	Kind     shot.MarkKind `json:"kind"`
	ShutterS stop.Shutter  `json:"shutterS"`
	Text     string        `json:"text"`
}

// WindowBand is a stretch on which a demand has one state.
type WindowBand struct {
	Kind    shot.Kind    `json:"kind"`
	Filters []string     `json:"filters,omitempty" doc:"exposure: whose; what lives on the lens is not listed"`
	Stops   *stop.Stops  `json:"stops,omitempty" doc:"exposure: the glass in all"`
	FromS   stop.Shutter `json:"fromS"`
	ToS     stop.Shutter `json:"toS"`
	Verdict glass.State  `json:"verdict"`
}

// WindowOverlap is a stretch on which all demands together have one state.
type WindowOverlap struct {
	FromS   stop.Shutter `json:"fromS"`
	ToS     stop.Shutter `json:"toS"`
	Verdict glass.State  `json:"verdict"`
}

// WindowConflict is two demands that exclude each other.
type WindowConflict struct {
	A           shot.Kind   `json:"a"`
	B           shot.Kind   `json:"b"`
	Verdict     glass.State `json:"verdict" enum:"tight,breaks" doc:"breaks: no shutter bears both; tight: none holds both"`
	HoldsStops  stop.Stops  `json:"holdsStops" doc:"between where each holds"`
	BreaksStops stop.Stops  `json:"breaksStops" doc:"between where each can be borne; 0 where they meet"`
	Text        string      `json:"text"`
}

// WindowTrade is a change to the request that helps.
type WindowTrade struct {
	Kind        shot.TradeKind `json:"kind"`
	A           shot.Kind      `json:"a"`
	B           shot.Kind      `json:"b"`
	Measure     glass.State    `json:"measure" enum:"tight,breaks" doc:"what the sizes are of: the demands that break, or all that do not hold"`
	GainStops   stop.Stops     `json:"gainStops" doc:"by how much what gives way becomes less"`
	LeavesStops stop.Stops     `json:"leavesStops" doc:"by how much the worst demand still misses, in that measure; 0 is none"`
	State       glass.State    `json:"state" doc:"of the whole shot with it"`
	Serves      bool           `json:"serves" doc:"no demand of the whole shot breaks with it"`
	Still       shot.Kind      `json:"still,omitempty" doc:"the demand that is worst with it"`
	StillName   string         `json:"stillName,omitempty" doc:"that demand as sentences call it"`
	Does        string         `json:"does"`
	Costs       string         `json:"costs"`
	Change      map[string]any `json:"change" doc:"a JSON merge patch (RFC 7396) for the request"`
}

// WindowVerdict is what the school takes.
type WindowVerdict struct {
	ShutterS stop.Shutter  `json:"shutterS"`
	Text     string        `json:"text"`
	AngleDeg *stop.Angle   `json:"angleDeg" doc:"null for a still"`
	Filters  []string      `json:"filters"`
	State    glass.State   `json:"state"`
	CouldBe  []glass.State `json:"couldBe,omitempty" doc:"what the exposure could turn out to be within the spread"`
	Option   Option        `json:"option" doc:"the glass taken, in full; why is said in because"`
	Gives    *string       `json:"gives" doc:"what gives way and by how much; null where nothing does"`
	Strains  []Strain      `json:"strains" doc:"every demand that does not hold there, the worst first"`
	Because  []string      `json:"because"`
}

// Strain is a demand that does not hold at the verdict.
type Strain struct {
	Kind  shot.Kind   `json:"kind"`
	State glass.State `json:"state" enum:"tight,breaks"`
	Stops stop.Stops  `json:"stops" doc:"by how much it misses where it holds"`
	Off   stop.Stops  `json:"offStops,omitempty" doc:"how far the light has to be off for it to break, where it holds in the light as it is"`
}

// ShutterWindow answers window.
func ShutterWindow(r WindowRequest) (*WindowAnswer, error) {
	scene, b, err := r.scene()
	if err != nil {
		return nil, err
	}
	w, err := scene.Window()
	if errors.Is(err, shot.ErrNoStep) {
		return nil, assemble.NoPossibleStep("camera.steps", r.Camera.Steps, scene.Question.Rate)
	}
	if err != nil {
		return nil, err
	}
	return windowOf(b, scene, w, r.patch), nil
}

// windowOf writes a window as its answer; patch writes a change for the request that
// was asked.
func windowOf(b *assemble.Setup, scene *shot.Scene, w *shot.Window, patch func(shot.Change) map[string]any) *WindowAnswer {
	a := &WindowAnswer{
		TargetS: w.Target.Offered, FromS: w.Span.From, ToS: w.Span.To,
		Bands: bandsOf(scene, w), Conflicts: []WindowConflict{}, Trades: []WindowTrade{},
	}
	for _, m := range w.Marks {
		a.Marks = append(a.Marks, WindowMark{m.Kind, m.At, m.At.String()})
	}
	for _, o := range w.Overlap {
		a.Overlap = append(a.Overlap, WindowOverlap{o.From, o.To, o.State})
	}
	for _, c := range w.Conflicts {
		a.Conflicts = append(a.Conflicts, WindowConflict{c.A, c.B, c.State, c.Holds, c.Breaks, c.Words()})
	}
	for _, t := range scene.Trades(w) {
		a.Trades = append(a.Trades, WindowTrade{
			Kind: t.Kind, A: t.A, B: t.B, Measure: t.State, GainStops: t.Gain(), LeavesStops: t.Leaves, State: t.After, Serves: t.Serves(), Still: t.Still, StillName: t.Still.Name(),
			Does: t.Does, Costs: t.Costs, Change: patch(t.Change),
		})
	}
	a.Verdict = verdictOf(b, &w.Verdict)
	return a
}

func verdictOf(b *assemble.Setup, v *shot.Verdict) WindowVerdict {
	at := *b
	at.Question = v.Question
	t := v.Question.Setting.Shutter
	taken := optionOf(&at, &v.Option)
	out := WindowVerdict{
		ShutterS: t, Text: t.String(), AngleDeg: at.Angle(t), Filters: taken.Filters, State: v.State,
		CouldBe: taken.CouldBe, Option: taken, Strains: []Strain{}, Because: v.Because(),
	}
	if gives := v.Gives(); gives != "" {
		out.Gives = &gives
	}
	for _, s := range v.Strains {
		out.Strains = append(out.Strains, Strain{s.Kind, s.State, s.Stops, s.Spread})
	}
	return out
}

// usualBands is room for the bands of most windows.
const usualBands = 64

func bandsOf(scene *shot.Scene, w *shot.Window) []WindowBand {
	bands := make([]WindowBand, 0, usualBands)
	for _, d := range w.Shown() {
		for _, band := range d.Bands(w.Span) {
			bands = append(bands, WindowBand{Kind: d.Kind, FromS: band.From, ToS: band.To, Verdict: band.State})
		}
	}
	for _, o := range w.Options {
		on := glass.IDs(o.Filters)
		for _, band := range scene.Exposes(o.Stack).Bands(w.Span) {
			bands = append(bands, WindowBand{
				Kind: shot.Exposure, Filters: on, Stops: &o.Stops, FromS: band.From, ToS: band.To, Verdict: band.State,
			})
		}
	}
	return bands
}

// scene turns the request into what plan weighs.
func (r *WindowRequest) scene() (*shot.Scene, *assemble.Setup, error) {
	light, err := r.Light.Light()
	if err != nil {
		return nil, nil, err
	}
	b, err := r.Wish.Setup()
	if err != nil {
		return nil, nil, err
	}
	b.Question.Light = light
	s := &shot.Scene{Question: b.Question, Stacks: b.Stacks, Away: b.Rules.Away(b.Kit), School: r.School}
	s.Rebuild = b.Rebuild
	if r.AngleDeg != nil {
		s.Wish.Angle = *r.AngleDeg
	} else {
		s.Wish.Time = *r.ShutterS
	}
	s.Views, s.Carried = r.ViewsDeg, r.Carried
	for _, fps := range r.Rates {
		s.Rates = append(s.Rates, stop.ExactRate(fps))
	}
	return s, b, r.demands(s)
}

// demands fills in what shakes, passes, vibrates and pulses.
func (r *WindowRequest) demands(s *shot.Scene) error {
	if f := r.Stabiliser; f != nil {
		lens, err := f.Lens("stabiliser.")
		if err != nil {
			return err
		}
		s.Shaking = &shot.Shaking{Lens: lens, Shake: f.Shake(), Trial: f.TrialS, TrialRate: f.TrialShake}
	}
	if f := r.Blur; f != nil {
		lens, err := f.Lens("blur.")
		if err != nil {
			return err
		}
		m, err := f.Movement("blur.")
		if err != nil {
			return err
		}
		s.Passing = &shot.Passing{Lens: lens, Movement: m}
	}
	if f := r.Vibration; f != nil {
		lens, err := f.Lens("vibration.")
		if err != nil {
			return err
		}
		v, err := f.Vibration("vibration.")
		if err != nil {
			return err
		}
		s.Vibration = &shot.Vibrating{Lens: lens, Vibration: v}
	}
	if f := r.Lamps; f != nil {
		lamp, err := f.Lamp("lamps.")
		if err != nil {
			return err
		}
		s.Lamp = &lamp
	}
	return checkOneLens(s)
}

// checkOneLens returns the fault of parts that see through different lenses: a
// shot has one.
func checkOneLens(s *shot.Scene) error {
	var first *motion.Lens
	check := func(field string, l motion.Lens) error {
		if first != nil && *first != l {
			return &problem.Fault{Field: field, Value: l.HFOV, Allowed: "the same widthPx, hfovDeg and projection in every part: a shot has one lens"}
		}
		first = &l
		return nil
	}
	var faults []error
	if s.Shaking != nil {
		faults = append(faults, check("stabiliser.hfovDeg", s.Shaking.Lens))
	}
	if s.Passing != nil {
		faults = append(faults, check("blur.hfovDeg", s.Passing.Lens))
	}
	if s.Vibration != nil {
		faults = append(faults, check("vibration.hfovDeg", s.Vibration.Lens))
	}
	return errors.Join(faults...)
}

// patch writes a change as a merge patch for the request.
func (r *WindowRequest) patch(c shot.Change) map[string]any {
	patch := map[string]any{}
	into := func(part, field string, value any) {
		fields, ok := patch[part].(map[string]any)
		if !ok {
			fields = map[string]any{}
			patch[part] = fields
		}
		fields[field] = value
	}
	if c.Rate != nil {
		patch["fps"] = float64(*c.Rate)
	}
	if c.Time != nil {
		patch["shutterS"] = *c.Time
		if r.AngleDeg != nil {
			patch["angleDeg"] = nil
		}
	}
	if c.Ceiling != nil {
		into("camera", "isoCeiling", *c.Ceiling)
	}
	if c.Glass != nil {
		// A merge patch replaces lists whole.
		patch["kit"] = append(r.Kit[:len(r.Kit):len(r.Kit)], assemble.KitFilter{ID: shot.NewGlass, Kind: glass.ND, Stops: *c.Glass})
		if r.AtHand != nil {
			patch["atHand"] = r.AlsoAtHand(shot.NewGlass).AtHand
		}
	}
	if c.Bring != nil {
		patch["atHand"] = r.AlsoAtHand(c.Bring.ID).AtHand
	}
	if c.Stand {
		patch["carried"] = motion.OnStand
		into("stabiliser", "kind", motion.NoStabiliser)
		into("stabiliser", "shakeDegS", motion.StandShake)
	}
	if c.HFOV != nil {
		for part, isThere := range map[string]bool{"stabiliser": r.Stabiliser != nil, "blur": r.Blur != nil, "vibration": r.Vibration != nil} {
			if isThere {
				into(part, "hfovDeg", *c.HFOV)
			}
		}
	}
	return patch
}

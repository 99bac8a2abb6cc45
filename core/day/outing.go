package day

import (
	"cmp"
	"fmt"
	"pinhole/core/assemble"
	"slices"
	"time"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// OutingRequest asks for the light of a day, or of a few, and which glass goes on
// which camera when.
type OutingRequest struct {
	Place     *assemble.PlaceFields  `json:"place,omitempty" doc:"left out, only shots whose light was read are planned"`
	Sky       light.Sky              `json:"sky" enum:"clear,partly,overcast"`
	Turns     []assemble.SkyTurn     `json:"turns,omitempty" maxItems:"100" doc:"changes of the sky, in order of time"`
	Surface   stop.Stops             `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5" doc:"of the place in general"`
	Anchor    *assemble.LightReading `json:"anchor,omitempty" doc:"a reading on the spot that moves the curve"`
	From      time.Time              `json:"from" doc:"where the curve begins"`
	To        time.Time              `json:"to"`
	StepS     float64                `json:"stepS" minimum:"60" maximum:"86400" doc:"seconds from point to point of the curve"`
	Shots     []OutingShot           `json:"shots" maxItems:"60"`
	Stacks    []OutingStack          `json:"stacks" maxItems:"400"`
	Start     map[string]string      `json:"start,omitempty" doc:"what cameras carry at first: the id of a stack by the id of its camera"`
	Tolerance *assemble.Tolerance    `json:"tolerance,omitempty"`
	SwapCost  *float64               `json:"swapCost,omitempty" minimum:"0" maximum:"1000"`
	Before    map[string]string      `json:"before,omitempty" doc:"the plan as it was made: stacks by the ids of their shots"`
}

// OutingShot is a shot with a time.
type OutingShot struct {
	ID       string               `json:"id" minLength:"1" maxLength:"100"`
	Name     string               `json:"name" maxLength:"80"`
	CameraID string               `json:"cameraId" minLength:"1" maxLength:"100"`
	RigID    string               `json:"rigId,omitempty" maxLength:"100" doc:"how the camera is held: only stacks for that are put on"`
	From     time.Time            `json:"from"`
	Minutes  int                  `json:"minutes" minimum:"1" maximum:"1440"`
	PackMin  float64              `json:"packMin,omitempty" minimum:"0" maximum:"1440" doc:"how long a battery lasts: glass is changed with it; 0 is all of the shot"`
	EVSet    stop.EV              `json:"evSet" minimum:"-20" maximum:"40" doc:"the light its setting needs"`
	ShutterS stop.Shutter         `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400"`
	FPS      float64              `json:"fps,omitempty" minimum:"0" maximum:"10000"`
	Offset   stop.Stops           `json:"offsetStops,omitempty" minimum:"-5" maximum:"5"`
	Headroom stop.Stops           `json:"isoHeadroomStops,omitempty" minimum:"0" maximum:"20"`
	Plane    light.Plane          `json:"plane,omitempty" enum:"vertical,top,shade" doc:"which way the subject faces; left out, its light is what was read"`
	Heading  *angle.Deg           `json:"headingDeg,omitempty" minimum:"-360" maximum:"360" doc:"of the camera, which an upright subject faces"`
	Surface  *stop.Stops          `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5"`
	Band     *assemble.Tolerance  `json:"tolerance,omitempty" doc:"that of the day by default"`
	Layers   int                  `json:"maxLayers,omitempty" minimum:"1" maximum:"4" doc:"most loose layers; as many as the stacks have by default"`
	Required []string             `json:"required,omitempty" maxItems:"4" doc:"glass asked for, for its effect: only stacks with just that are put on"`
	Read     *assemble.SceneLight `json:"read,omitempty" doc:"its light as it was read, where no daylight is computed for it"`
}

// OutingStack is glass as it may be on a camera.
type OutingStack struct {
	ID       string     `json:"id" minLength:"1" maxLength:"200"`
	Name     string     `json:"name" maxLength:"300"`
	Stops    stop.Stops `json:"stops" minimum:"-1" maximum:"40"`
	Most     stop.Stops `json:"mostStops,omitempty" minimum:"0" maximum:"40" doc:"of glass that is turned: its darkest"`
	CameraID string     `json:"cameraId,omitempty" maxLength:"100"`
	RigID    string     `json:"rigId,omitempty" maxLength:"100" doc:"how the camera is held that it goes on"`
	Layers   int        `json:"layers,omitempty" minimum:"0" maximum:"8" doc:"how many filters are in it"`
	Filters  []string   `json:"filters,omitempty" maxItems:"8" doc:"ids of its loose filters, the one on the camera first"`
	Effects  []string   `json:"effects,omitempty" maxItems:"4" doc:"what in it is there for its effect"`
}

// OutingAnswer is the light and the plan.
type OutingAnswer struct {
	Curve   []CurvePoint `json:"curve"`
	Days    []SunDay     `json:"days" doc:"one for each local day that the span touches"`
	Shots   []OutingPlan `json:"shots" doc:"in order of start; left out are shots whose light is not known"`
	Swaps   []OutingSwap `json:"swaps"`
	Unknown []string     `json:"unknown" doc:"ids of shots whose light is not known"`
	Changes []string     `json:"changes" doc:"what is other than in the plan as it was made"`
	Offset  stop.Stops   `json:"offsetStops" doc:"anchor less model"`
	Cost    float64      `json:"cost"`
}

// CurvePoint is the light of the place at an instant.
type CurvePoint struct {
	Time        time.Time  `json:"time"`
	EV100       stop.EV    `json:"ev100"`
	SpreadStops stop.Stops `json:"spreadStops"`
	AltitudeDeg angle.Deg  `json:"altitudeDeg"`
	AzimuthDeg  angle.Deg  `json:"azimuthDeg"`
	Sky         light.Sky  `json:"sky" enum:"clear,partly,overcast"`
}

// SunDay is what the sun does on one day; null where it does not.
type SunDay struct {
	Noon    time.Time  `json:"noon"`
	Sunrise *time.Time `json:"sunrise"`
	Sunset  *time.Time `json:"sunset"`
	Golden  DawnDusk   `json:"golden" doc:"ends in the morning, begins in the evening: sun at 6 degrees"`
	Blue    DawnDusk   `json:"blue" doc:"ends in the morning, begins in the evening: sun at -4 degrees"`
	Civil   DawnDusk   `json:"civil" doc:"sun at -6 degrees"`
	// Polar says on which side of the horizon the sun stays, where it does.
	Polar light.Polar `json:"polar,omitempty" enum:"day,night"`
}

// OutingPlan is one shot of the plan.
type OutingPlan struct {
	ID         string       `json:"id"`
	Packs      []OutingPack `json:"packs" doc:"one for each battery"`
	LowEV100   stop.EV      `json:"lowEv100"`
	HighEV100  stop.EV      `json:"highEv100"`
	Spread     stop.Stops   `json:"spreadStops"`
	WorstStops stop.Stops   `json:"worstStops" doc:"the largest excess beyond band and ISO, positive brighter; 0 is served throughout"`
	State      glass.State  `json:"state" enum:"holds,tight,breaks" doc:"holds: served; tight: served, not if the light is off by its spread; breaks: not served"`
	Words      string       `json:"words"`
	Remedies   []string     `json:"remedies" doc:"what would serve it, where nothing does"`
	SunInFrame *SunView     `json:"sun,omitempty" doc:"where the sun stands for the camera, where its heading is known"`
}

// SunView is where the sun stands as the camera sees it.
type SunView struct {
	AltitudeDeg angle.Deg `json:"altitudeDeg" doc:"midway through the shot"`
	OffAxisDeg  angle.Deg `json:"offAxisDeg" doc:"to the right of where the camera looks, negative to the left, 180 behind"`
	Words       string    `json:"words"`
}

// OutingPack is one battery of a shot.
type OutingPack struct {
	From         time.Time  `json:"from"`
	To           time.Time  `json:"to"`
	Stack        string     `json:"stack"`
	SettingStops stop.Stops `json:"settingStops" doc:"what the glass takes, turned where it turns"`
	LowEV100     stop.EV    `json:"lowEv100"`
	HighEV100    stop.EV    `json:"highEv100"`
	LastMinute   *time.Time `json:"lastMinute" doc:"the last minute this glass serves; null where it never does"`
	Brighter     string     `json:"brighter,omitempty" doc:"the stack to have in the pocket for brighter light"`
	Darker       string     `json:"darker,omitempty"`
}

// OutingSwap is one change of glass.
type OutingSwap struct {
	CameraID string     `json:"cameraId"`
	At       time.Time  `json:"at" doc:"when the new glass has to be on"`
	From     string     `json:"from"`
	To       string     `json:"to"`
	Shot     string     `json:"shot"`
	Latest   *time.Time `json:"latest" doc:"the last minute the old glass serves"`
	Because  string     `json:"because"`
}

// outing is a request made ready.
type Prepared struct {
	*OutingRequest
	anchor *light.Anchor
	offset stop.Stops
	Day    Day
	// segments are the packs of each shot that is planned, as indices into day.Shots.
	segments map[string][]int
	lights   map[subject]*minutes
	Stacks   map[string]*OutingStack
	Names    map[string]string
}

// Outing answers outing.
func Outing(r OutingRequest) (*OutingAnswer, error) {
	o, err := r.Prepare()
	if err != nil {
		return nil, err
	}
	a := &OutingAnswer{Curve: []CurvePoint{}, Days: []SunDay{}, Shots: []OutingPlan{}, Swaps: []OutingSwap{}, Unknown: []string{}, Changes: []string{}, Offset: o.offset}
	if r.Place != nil {
		a.light(o)
	}
	if err := o.Take(a); err != nil {
		return nil, err
	}
	if len(o.Day.Shots) > 0 {
		a.Plan(o)
	}
	return a, nil
}

func (r *OutingRequest) Prepare() (*Prepared, error) {
	for field, t := range map[string]time.Time{"from": r.From, "to": r.To} {
		if err := assemble.CheckYear(field, t); err != nil {
			return nil, err
		}
	}
	step := time.Duration(r.StepS * float64(time.Second))
	if r.To.Before(r.From) || r.To.Sub(r.From)/step >= MaxPoints {
		return nil, &problem.Fault{Field: "to", Value: r.To, Allowed: fmt.Sprintf("an instant after from, with at most %d points between them", MaxPoints)}
	}
	for i := range r.Turns[:max(len(r.Turns)-1, 0)] {
		if r.Turns[i+1].From.Before(r.Turns[i].From) {
			return nil, &problem.Fault{Field: fmt.Sprintf("turns[%d].from", i+1), Value: r.Turns[i+1].From, Allowed: "an instant after the turn before it"}
		}
	}
	o := &Prepared{OutingRequest: r, segments: map[string][]int{}, lights: map[subject]*minutes{}, Stacks: map[string]*OutingStack{}, Names: map[string]string{}}
	o.Day = Day{Start: map[string]string{}, Band: glass.DefaultBand, SwapCost: DefaultSwapCost, Keeps: true}
	if t := r.Tolerance; t != nil {
		o.Day.Band = glass.Band{Dark: t.Dark, Bright: t.Bright}
	}
	if r.SwapCost != nil {
		o.Day.SwapCost = *r.SwapCost
	}
	for i, s := range r.Stacks {
		if _, isThere := o.Names[s.ID]; isThere {
			return nil, &problem.Fault{Field: fmt.Sprintf("stacks[%d].id", i), Value: s.ID, Allowed: "an id that no other stack has"}
		}
		o.Names[s.ID], o.Stacks[s.ID] = cmp.Or(s.Name, s.ID), &r.Stacks[i]
		o.Day.Stacks = append(o.Day.Stacks, Stack{ID: s.ID, Name: s.Name, Stops: s.Stops, Most: s.Most, Camera: s.CameraID})
	}
	for camera, id := range r.Start {
		// What a camera carried and is no longer there is no start.
		if slices.ContainsFunc(o.Day.Stacks, func(s Stack) bool { return s.ID == id && (s.Camera == "" || s.Camera == camera) }) {
			o.Day.Start[camera] = id
		}
	}
	if r.Anchor != nil && r.Place != nil {
		if err := assemble.CheckYear("anchor.time", r.Anchor.Time); err != nil {
			return nil, err
		}
		o.anchor = &light.Anchor{At: r.Anchor.Time, EV: r.Anchor.EV100}
		o.offset = o.outdoors(light.Vertical, nil, r.Surface).Offset(*o.anchor)
	}
	return o, nil
}

// outdoors returns a subject of the place.
func (o *Prepared) outdoors(plane light.Plane, heading *angle.Deg, surface stop.Stops) *light.Outdoors {
	out := &light.Outdoors{Place: o.Place.Place(), Sky: o.Sky, Plane: plane, Albedo: light.DefaultAlbedo, Surface: surface}
	for _, turn := range o.Turns {
		out.Turns = append(out.Turns, light.SkyTurn(turn))
	}
	if heading != nil {
		out.HasHeading, out.Faces = true, light.FacingCamera(*heading)
	}
	return out
}

// curve returns the light of a subject, moved as the anchor says.
func (o *Prepared) curve(out *light.Outdoors, from, to time.Time, step time.Duration) []light.Point {
	points := out.Curve(from, to, step, nil)
	if o.anchor != nil {
		for i := range points {
			points[i].Scene = o.anchor.Moved(points[i], o.offset)
		}
	}
	return points
}

// light fills in the curve and the days.
func (a *OutingAnswer) light(o *Prepared) {
	general := o.outdoors(light.Vertical, nil, o.Surface)
	for _, p := range o.curve(general, o.From, o.To, time.Duration(o.StepS*float64(time.Second))) {
		a.Curve = append(a.Curve, CurvePoint{p.At, p.EV, p.Spread, p.Sun.Apparent(), p.Sun.Azimuth, general.SkyAt(p.At)})
	}
	for day := light.DayOf(o.From, o.Place.Place()); day.Start.Before(o.To) || len(a.Days) == 0; day = light.DayOf(day.End.Add(time.Hour), o.Place.Place()) {
		through := func(altitude angle.Deg) DawnDusk {
			c := day.Through(altitude)
			return DawnDusk{Known(c.Up), Known(c.Down)}
		}
		horizon := through(light.Horizon)
		a.Days = append(a.Days, SunDay{Noon: day.Noon, Sunrise: horizon.Dawn, Sunset: horizon.Dusk, Golden: through(light.Golden), Blue: through(light.Blue), Civil: through(light.Civil), Polar: day.Polar()})
	}
}

// Take turns the shots into packs with their light.
func (o *Prepared) Take(a *OutingAnswer) error {
	for i := range o.Shots {
		s := &o.Shots[i]
		path := fmt.Sprintf("shots[%d]", i)
		if err := assemble.CheckYear(path+".from", s.From); err != nil {
			return err
		}
		if _, isThere := o.segments[s.ID]; isThere {
			return &problem.Fault{Field: path + ".id", Value: s.ID, Allowed: "an id that no other shot has"}
		}
		points, spread, err := o.LightOf(s, path, s.From)
		if err != nil {
			return err
		}
		goesOn := func(g Stack) bool { return g.Camera == "" || g.Camera == s.CameraID }
		if points == nil || !slices.ContainsFunc(o.Day.Stacks, goesOn) {
			a.Unknown = append(a.Unknown, s.ID)
			continue
		}
		o.addPacks(s, points, spread)
	}
	return o.Day.Check()
}

// addPacks splits a shot where its battery is changed.
func (o *Prepared) addPacks(s *OutingShot, points []stop.EV, spread stop.Stops) {
	pack := s.Minutes
	if s.PackMin >= 1 {
		pack = min(pack, int(s.PackMin))
	}
	for at := 0; at < s.Minutes; at += pack {
		until := min(at+pack, s.Minutes)
		o.segments[s.ID] = append(o.segments[s.ID], len(o.Day.Shots))
		o.Day.Shots = append(o.Day.Shots, Shot{
			ID: fmt.Sprintf("%s, pack %d", s.ID, 1+at/pack), Name: s.Name, Camera: s.CameraID, From: s.From.Add(time.Duration(at) * time.Minute), To: s.From.Add(time.Duration(until) * time.Minute),
			EVSet: s.EVSet, Points: points[at : until+1], Offset: s.Offset, Headroom: s.Headroom, Spread: spread,
			Takes: o.takes(s), Band: s.Band.Band(),
		})
	}
}

// takes returns what tells the glass that a shot takes: that with the effects it asks
// for, and no others.
func (o *Prepared) takes(s *OutingShot) func(*Stack) bool {
	return func(stack *Stack) bool {
		of := o.Stacks[stack.ID]
		effects := of.Effects
		if s.RigID != of.RigID || s.Layers > 0 && of.Layers > s.Layers {
			return false
		}
		return len(effects) == len(s.Required) && !slices.ContainsFunc(s.Required, func(id string) bool { return !slices.Contains(effects, id) })
	}
}

// LightOf returns the light of each minute of a shot that begins at an instant, both
// ends included, and its widest spread; nil where it is not known.
func (o *Prepared) LightOf(s *OutingShot, path string, start time.Time) ([]stop.EV, stop.Stops, error) {
	points := make([]stop.EV, 0, s.Minutes+1)
	if s.Plane == "" && s.Read != nil {
		read, err := s.Read.Light()
		if err != nil {
			return nil, 0, problem.At(path+".read", err)
		}
		for m := range s.Minutes + 1 { // a range is walked through, from its highest
			part := stop.Stops(m) / stop.Stops(s.Minutes)
			points = append(points, read.High.Plus(-part*read.High.Above(read.Low)))
		}
		return points, read.Spread, nil
	}
	if o.Place == nil || s.Plane == "" {
		return nil, 0, nil
	}
	var spread stop.Stops
	minutes := o.SubjectOf(s)
	for m := range s.Minutes + 1 {
		scene := minutes.At(start.Add(time.Duration(m) * time.Minute))
		points, spread = append(points, scene.EV), max(spread, scene.Spread)
	}
	return points, spread, nil
}

// SubjectOf returns the light of a shot's subject, which has a plane.
func (o *Prepared) SubjectOf(s *OutingShot) *minutes {
	surface := o.Surface
	if s.Surface != nil {
		surface = *s.Surface
	}
	return o.MinutesOf(s.Plane, s.Heading, surface)
}

// minutes is the light of one subject by the minute, computed once: shots that look
// alike share it, and a search for a better hour walks over it again and again.
type minutes struct {
	of    func(time.Time) light.Scene
	Known map[int64]light.Scene // by Unix time in seconds
}

func (m *minutes) At(t time.Time) light.Scene {
	scene, isKnown := m.Known[t.Unix()]
	if !isKnown {
		scene = m.of(t)
		m.Known[t.Unix()] = scene
	}
	return scene
}

// subject is what minutes are told apart by.
type subject struct {
	plane      light.Plane
	hasHeading bool
	heading    angle.Deg
	surface    stop.Stops
}

func (o *Prepared) MinutesOf(plane light.Plane, heading *angle.Deg, surface stop.Stops) *minutes {
	key := subject{plane: plane, surface: surface}
	if heading != nil {
		key.hasHeading, key.heading = true, *heading
	}
	if o.lights[key] == nil {
		out := o.outdoors(plane, heading, surface)
		o.lights[key] = &minutes{Known: map[int64]light.Scene{}, of: func(t time.Time) light.Scene {
			scene, sun := out.At(t)
			if o.anchor == nil {
				return scene
			}
			return o.anchor.Moved(light.Point{At: t, Sun: sun, Scene: scene}, o.offset)
		}}
	}
	return o.lights[key]
}

// DawnDusk is when the sun rises and sinks through one altitude.
type DawnDusk struct {
	Dawn *time.Time `json:"dawn"`
	Dusk *time.Time `json:"dusk"`
}

// Known returns the instant, nil for the zero one.
func Known(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

// MaxPoints bounds a curve: two days by the minute and a little.
const MaxPoints = 3000

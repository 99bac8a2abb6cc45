package day

import (
	"fmt"
	"slices"
	"time"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Evidence says where a light comes from, the strongest first.
type Evidence string

// The kinds of evidence.
const (
	ReadThen    Evidence = "reading"  // read on the spot, within the time of the shot
	PinnedToday Evidence = "pinned"   // read on the day, and faded by distance
	Forecast    Evidence = "forecast" // of sun and sky alone
	TypedAhead  Evidence = "typed"    // an expectation
)

// Values returns every Evidence there is.
func (Evidence) Values() []Evidence {
	return []Evidence{ReadThen, PinnedToday, Forecast, TypedAhead}
}

// LightFor is one light that is known for a shot.
type LightFor struct {
	Kind        Evidence   `json:"kind"`
	LowEV100    stop.EV    `json:"lowEv100"`
	HighEV100   stop.EV    `json:"highEv100"`
	SpreadStops stop.Stops `json:"spreadStops"`
	IsUsed      bool       `json:"isUsed" doc:"the shot is judged in this light"`
	// Off is how much brighter the middle of it is than that of the light that is used.
	Off   stop.Stops `json:"offStops" doc:"brighter than the light that is used, at the middle"`
	Words string     `json:"words"`
}

// sky is the daylight of an outing, with the reading that moves it.
type sky struct {
	anchor *light.Anchor
	offset stop.Stops
	known  map[subject]*minutes
}

func (r *OutingRequest) sky() (sky, error) {
	s := sky{known: map[subject]*minutes{}}
	if r.Anchor != nil && r.Place != nil {
		if err := assemble.CheckYear("anchor.time", r.Anchor.Time); err != nil {
			return s, err
		}
		s.anchor = &light.Anchor{At: r.Anchor.Time, EV: r.Anchor.EV100}
		s.offset = r.outdoors(subject{plane: light.Vertical, surface: r.Surface}).Offset(*s.anchor)
	}
	return s, nil
}

// subject is what the light of two shots is told apart by.
type subject struct {
	plane      light.Plane
	hasHeading bool
	heading    angle.Deg
	surface    stop.Stops
}

// general is the subject by which the light of a place in general is told.
func (r *OutingRequest) general() subject { return subject{plane: light.Vertical, surface: r.Surface} }

func (r *OutingRequest) subjectOf(s *OutingShot) subject {
	of := subject{plane: s.Plane, surface: r.Surface}
	if s.Surface != nil {
		of.surface = *s.Surface
	}
	if s.Heading != nil {
		of.hasHeading, of.heading = true, *s.Heading
	}
	return of
}

// outdoors returns a subject of the place.
func (r *OutingRequest) outdoors(of subject) *light.Outdoors {
	out := &light.Outdoors{Place: r.Place.Place(), Sky: r.Sky, Plane: of.plane, Albedo: light.DefaultAlbedo, Surface: of.surface}
	for _, turn := range r.Turns {
		out.Turns = append(out.Turns, light.SkyTurn(turn))
	}
	if len(r.Known) > 0 {
		out.Known = map[light.Sky]light.Known{}
		for _, k := range r.Known {
			known := light.Known{Offset: k.Offset, Spread: k.Spread}
			for _, m := range k.Moments {
				known.Moments = append(known.Moments, light.KnownMoment(m))
			}
			out.Known[k.Sky] = known
		}
	}
	if of.hasHeading {
		out.HasHeading, out.Faces = true, light.FacingCamera(of.heading)
	}
	return out
}

// minutes is the light of one subject by the minute, computed once: shots that look
// alike share it, and a search for a better hour walks over it again and again.
type minutes struct {
	outdoors *light.Outdoors
	// hours are by the hours of Unix time; each minute of one keeps the instant that was
	// last asked for within it.
	hours map[int64]*[60]light.Point
	// hour is the last one that was asked for.
	hour   int64
	inHour *[60]light.Point
}

func (o *Prepared) minutesOf(of subject) *minutes {
	if o.known[of] == nil {
		o.known[of] = &minutes{outdoors: o.outdoors(of), hours: map[int64]*[60]light.Point{}}
	}
	return o.known[of]
}

// at returns the light of the model at an instant.
func (m *minutes) at(t time.Time) *light.Point {
	second := t.Unix()
	in := (second%3600 + 3600) % 3600 // also before 1970
	if hour := (second - in) / 3600; m.inHour == nil || hour != m.hour {
		if m.hours[hour] == nil {
			m.hours[hour] = new([60]light.Point)
		}
		m.hour, m.inHour = hour, m.hours[hour]
	}
	p := &m.inHour[in/60]
	if p.At.IsZero() || p.At.Unix() != second {
		p.At = t
		p.Scene, p.Sun = m.outdoors.At(t)
	}
	return p
}

// moved returns the light at an instant as a reading moves it; nil is none.
func (m *minutes) moved(t time.Time, by *light.Anchor, offset stop.Stops) light.Scene {
	p := m.at(t)
	if by == nil {
		return p.Scene
	}
	return m.outdoors.Moved(*by, *p, offset)
}

// daylight returns the light of a subject at an instant, moved by the reading that is
// pinned.
func (o *Prepared) daylight(of subject, t time.Time) light.Scene {
	return o.minutesOf(of).moved(t, o.anchor, o.offset)
}

// DaylightOf returns the light of a shot's subject and of its place in general at an
// instant; ok is false for a shot that is not lit by the day.
func (o *Prepared) DaylightOf(s *OutingShot, t time.Time) (subject light.Scene, general stop.EV, ok bool) {
	if !o.isDaylit(s) {
		return light.Scene{}, 0, false
	}
	return o.daylight(o.subjectOf(s), t), o.daylight(o.general(), t).EV, true
}

func (r *OutingRequest) isDaylit(s *OutingShot) bool { return r.Place != nil && s.Plane != "" }

// seen is the light of a stretch of a shot.
type seen struct {
	points     []stop.EV // by the minute, or the two ends of a range that has no order
	hasNoOrder bool
	spread     stop.Stops
}

func (s seen) light() glass.Light {
	return glass.Light{Low: slices.Min(s.points), High: slices.Max(s.points), Spread: s.spread}
}

// lightOf returns the strongest evidence of the light of a shot, if it began at an instant,
// from one of its minutes to another, both included.
func (o *Prepared) lightOf(s *OutingShot, start time.Time, from, until int) seen {
	reading := s.readThen()
	if !o.isDaylit(s) {
		if reading != nil && start.Equal(s.From) {
			return seen{[]stop.EV{reading.EV100}, true, light.OnTheSpot}
		}
		typed, _ := s.Read.Light() // lightsOf has read it
		if typed.IsRange() {
			return seen{[]stop.EV{typed.High, typed.Low}, true, typed.Spread}
		}
		return seen{[]stop.EV{typed.High}, true, typed.Spread}
	}
	of := o.minutesOf(o.subjectOf(s))
	anchor, offset := o.anchor, o.offset
	if reading != nil { // of this very subject
		anchor = &light.Anchor{At: reading.At, EV: reading.EV100}
		offset = reading.EV100.Above(of.at(reading.At).EV)
	}
	out := seen{points: make([]stop.EV, 0, until-from+1)}
	for m := from; m <= until; m++ {
		scene := of.moved(start.Add(time.Duration(m)*time.Minute), anchor, offset)
		out.points, out.spread = append(out.points, scene.EV), max(out.spread, scene.Spread)
	}
	return out
}

// readThen returns the last reading within the time of a shot, nil for none.
func (s *OutingShot) readThen() *TakenReading {
	var last *TakenReading
	for i := range s.Readings {
		r := &s.Readings[i]
		if !r.At.Before(s.From) && !r.At.After(s.until()) && (last == nil || r.At.After(last.At)) {
			last = r
		}
	}
	return last
}

// lightsOf returns every light that is known for a shot, the one it is judged in first;
// none where none is.
func (o *Prepared) lightsOf(s *OutingShot, path string) ([]LightFor, error) {
	var all []LightFor
	add := func(kind Evidence, l glass.Light, words string) {
		all = append(all, LightFor{Kind: kind, LowEV100: l.Low, HighEV100: l.High, SpreadStops: l.Spread, Words: words})
	}
	if r := s.readThen(); r != nil {
		if err := assemble.CheckYear(path+".readings", r.At); err != nil {
			return nil, err
		}
		add(ReadThen, o.lightOf(s, s.From, 0, s.Minutes).light(), "read on the spot at "+r.At.In(s.From.Location()).Format("15:04"))
	}
	if o.isDaylit(s) {
		without := *s
		without.Readings = nil
		day := o.lightOf(&without, s.From, 0, s.Minutes).light()
		if o.anchor == nil {
			add(Forecast, day, "forecast, "+string(o.outdoors(o.general()).SkyAt(s.From))+" sky")
		} else {
			forecast := o.anchor
			o.anchor = nil
			plain := o.lightOf(&without, s.From, 0, s.Minutes).light()
			o.anchor = forecast
			if plain != day {
				add(PinnedToday, day, "moved by the reading of "+o.anchor.At.In(s.From.Location()).Format("2 Jan 15:04")+", faded by distance")
			}
			add(Forecast, plain, "forecast, "+string(o.outdoors(o.general()).SkyAt(s.From))+" sky")
		}
	}
	if s.Read != nil {
		typed, err := s.Read.Light()
		if err != nil {
			return nil, problem.At(path+".read", err)
		}
		add(TypedAhead, typed, "typed ahead: an expectation")
	}
	for i := range all {
		middle := (all[i].LowEV100 + all[i].HighEV100) / 2
		all[i].IsUsed = i == 0
		all[i].Off = middle.Above((all[0].LowEV100 + all[0].HighEV100) / 2)
		if i > 0 && all[i].Off.Abs() >= 0.05 {
			all[i].Words += fmt.Sprintf(", %s stops against the one that is used", all[i].Off.Signed())
		}
	}
	return all, nil
}

// curve returns the light of the place in general.
func (o *Prepared) curve() []CurvePoint {
	general := o.outdoors(o.general())
	points := []CurvePoint{}
	for _, p := range general.Curve(o.From, o.To, time.Duration(o.StepS*float64(time.Second)), o.anchor) {
		points = append(points, CurvePoint{p.At, p.EV, p.Spread, p.Sun.Apparent(), p.Sun.Azimuth, general.SkyAt(p.At)})
	}
	return points
}

// days returns the sun of each local day that the span touches. The last instant has the
// offset of its own day, which tells a day of 25 hours from two.
func (o *Prepared) days() []SunDay {
	all := []SunDay{}
	last := o.To.Add(-time.Nanosecond)
	if last.Before(o.From) {
		last = o.From
	}
	of := func(t time.Time) int { y, m, d := t.Date(); return (y*100+int(m))*100 + d }
	for t := o.From; len(all) == 0 || of(t) <= of(last); t = t.AddDate(0, 0, 1) {
		local := light.DayOf(t, o.Place.Place())
		through := func(altitude angle.Deg) DawnDusk {
			c := local.Through(altitude)
			return DawnDusk{Known(c.Up), Known(c.Down)}
		}
		horizon := through(light.Horizon)
		all = append(all, SunDay{Noon: local.Noon, Sunrise: horizon.Dawn, Sunset: horizon.Dusk, Golden: through(light.Golden), Blue: through(light.Blue), Civil: through(light.Civil), Polar: local.Polar()})
	}
	return all
}

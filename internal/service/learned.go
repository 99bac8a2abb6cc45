package service

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"
	"time"

	"pinhole/core/angle"
	"pinhole/core/day"
	"pinhole/core/learn"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// Learned is what the log teaches, with the names of what it is of.
type Learned struct {
	learn.Answer
	Records int               `json:"records" doc:"that count: not struck"`
	Struck  int               `json:"struck"`
	Names   map[string]string `json:"names" doc:"of filters and cameras, by id"`
	// Band is how far the band of a belief reaches.
	Band float64 `json:"bandSds" doc:"standard deviations to either side of a belief, within which it holds nine times in ten"`
	// IsUsed says whether answers are given with it.
	IsUsed bool `json:"used"`
	// Printed is what each filter is counted as without the log.
	Printed map[string]stop.Stops `json:"printed"`
	// Stabilisers are of cameras as they are held, by their records of stepped trials.
	Stabilisers []StabiliserLearned `json:"stabilisers"`
	// glass is every filter as it is known without the log, by id.
	glass map[string]learn.Glass
}

// FilterLearned is what the log makes of a filter's strength.
type FilterLearned struct {
	Stops   stop.Stops `json:"stops"`
	Spread  stop.Stops `json:"sdStops"`
	Records int        `json:"records"`
}

// StabiliserLearned is the limit of a stabiliser as trials tell it.
type StabiliserLearned struct {
	RigID    string `json:"rigId"`
	Mode     string `json:"mode"`
	Activity string `json:"activity"`
	// ShakeDegS is the shake of the path that was tried.
	ShakeDegS angle.DegPerS `json:"shakeDegS"`
	learn.LearnedFloor
}

// taught holds what was learned last, for as long as no record changes.
type taught struct {
	mu      sync.Mutex
	mark    string
	learned *Learned
}

// logRequest builds what is asked of the log from its records. Records whose filter is gone
// are left out.
func (svc *Service) logRequest(ctx context.Context) (*learn.Request, *Learned, error) {
	cameras, filters, err := svc.gear(ctx)
	if err != nil {
		return nil, nil, err
	}
	rigs, err := svc.Store.Rigs().List(ctx)
	if err != nil {
		return nil, nil, err
	}
	records, err := svc.Store.Teaching(ctx)
	if err != nil {
		return nil, nil, err
	}
	settled, err := svc.Store.Taste(ctx)
	if err != nil {
		return nil, nil, err
	}
	l := &Learned{Names: map[string]string{meter: "hand meter", eye: "your eye"}, Printed: map[string]stop.Stops{}, glass: map[string]learn.Glass{}}
	r := &learn.Request{AsOf: svc.Now()}
	if t := settled.Tolerance; t != nil {
		r.Limits = learn.Limits(*t)
	}
	for _, c := range cameras {
		l.Names[c.ID] = c.Name
	}
	held := map[string]int{}
	for _, rig := range rigs {
		held[rig.CameraID]++
	}
	for _, rig := range rigs {
		l.Names[rig.ID] = l.Names[rig.CameraID]
		if rig.Name != "" && held[rig.CameraID] > 1 {
			l.Names[rig.ID] += ", " + rig.Name
		}
	}
	for _, f := range filters {
		shown, err := Show(f)
		if err != nil || shown.Counts == nil {
			continue
		}
		l.Names[f.ID] = shown.Title
		g := learn.Glass{ID: f.ID, Kind: shown.Counts.Kind, Stops: shown.Counts.Stops}
		if m := f.MeasuredStops; m != nil {
			g.Benches = []learn.Bench{{Stops: *m, Spread: f.StdErrStops}}
		}
		l.Printed[f.ID] = shown.Takes
		l.glass[f.ID] = g
		for _, h := range f.History {
			if (h.What == "dropped" || h.What == "replaced") && !h.At.After(r.AsOf) {
				r.Resets = append(r.Resets, learn.Reset{Kind: learn.Filter, ID: f.ID, Time: h.At})
			}
		}
	}
	slices.SortStableFunc(records, func(a, b store.Record) int { return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.ID, b.ID)) })
	readers := map[string]bool{}
	var resets []*store.Record
	for i := range records {
		rec := &records[i]
		if rec.Struck != nil {
			l.Struck++
			continue
		}
		if slices.ContainsFunc(rec.Glass, func(id string) bool { return l.glass[id].ID == "" }) || rec.At.After(r.AsOf) {
			continue
		}
		l.Records++
		l.askOf(r, rec.Glass)
		switch {
		case rec.Seen != nil:
			addSeen(r, rec, readers)
		case rec.Took != nil:
			addTake(r, rec)
		case rec.Step != nil:
			addStep(r, l, rec)
		case rec.Reset != nil:
			resets = append(resets, rec)
		}
	}
	r.Resets = slices.DeleteFunc(r.Resets, func(reset learn.Reset) bool {
		return !slices.ContainsFunc(r.Filters, func(g learn.Glass) bool { return g.ID == reset.ID })
	})
	for _, rec := range resets {
		addReset(r, rec)
	}
	return r, l, nil
}

// askOf adds filters to what is asked of the log: those of which there is no record have nothing to
// learn, and would only make it slow.
func (l *Learned) askOf(r *learn.Request, ids []string) {
	for _, id := range ids {
		g, isKnown := l.glass[id]
		if isKnown && !slices.ContainsFunc(r.Filters, func(o learn.Glass) bool { return o.ID == id }) {
			r.Filters = append(r.Filters, g)
		}
	}
}

// addReset says that a camera is another one from then on: each way in which it meters, and its
// stabiliser.
func addReset(r *learn.Request, rec *store.Record) {
	for _, i := range r.Instruments {
		if strings.HasPrefix(i.ID, rec.RigID+" ") {
			r.Resets = append(r.Resets, learn.Reset{Kind: learn.Instrument, ID: i.ID, Time: rec.At})
		}
	}
	if slices.ContainsFunc(r.Trials, func(t learn.Trial) bool { return t.Camera == rec.RigID }) {
		r.Resets = append(r.Resets, learn.Reset{Kind: learn.Floor, ID: rec.RigID, Time: rec.At})
	}
}

// seeing is what a record was seen by and through.
func seeing(rec *store.Record) learn.Seeing {
	s := learn.Seeing{By: instrument(rec.RigID, learn.Kind(rec.Seen.Kind)), Kind: learn.Kind(rec.Seen.Kind), Glass: rec.Glass, Settings: rec.Seen.Settings}
	if rec.Doubted != nil {
		s.Kind = learn.ByEye
	}
	// What came in from elsewhere may name a setting of a filter that is not on.
	s.Settings = maps.Clone(s.Settings)
	maps.DeleteFunc(s.Settings, func(id string, _ stop.Stops) bool { return !slices.Contains(rec.Glass, id) })
	if rec.There != nil {
		s.Light = learn.Light{Place: rec.There.Name, Sky: string(rec.There.Sky), EV: &rec.There.EV100}
	} else {
		s.Light.Scene = cmp.Or(rec.ShotID, rec.ShootID, rec.ID) + " " + rec.At.UTC().Format(time.DateOnly)
	}
	return s
}

func addSeen(r *learn.Request, rec *store.Record, readers map[string]bool) {
	s := seeing(rec)
	if s.By != "" && !readers[s.By] {
		readers[s.By] = true
		r.Instruments = append(r.Instruments, learn.Reader{ID: s.By})
	}
	e := learn.Exposure{ID: rec.ID, Time: rec.At, Seeing: s, Seen: rec.Seen.EV100, Spread: rec.Seen.SpreadStops}
	if rec.Doubted != nil {
		e.Spread = nil
	}
	r.Exposures = append(r.Exposures, e)
	if f := rec.Seen.Foretold; f != nil {
		r.Outcomes = append(r.Outcomes, learn.Prediction{Kind: "seen", Predicted: float64(f.EV100), Spread: f.SpreadStops, Was: float64(rec.Seen.EV100), Scale: &f.Scale})
	}
}

func addTake(r *learn.Request, rec *store.Record) {
	t := learn.Take{
		Time: rec.At, Shoot: rec.ShootID, IsKept: rec.Took.Kept, Why: rec.Took.Why, Error: rec.Took.ErrorStops, Activity: rec.Took.Activity, School: rec.Took.School,
		Look: rec.Took.Look, Glass: rec.Glass, FirstRight: rec.Took.FirstRight, Swaps: rec.Took.Swaps, MinutesLost: rec.Took.MinutesLost,
	}
	if rec.There != nil {
		t.Place, t.Sky = rec.There.Name, string(rec.There.Sky)
	}
	r.Takes = append(r.Takes, t)
}

// addStep adds a step of a trial, and asks once for the limit of each stabiliser and activity.
func addStep(r *learn.Request, l *Learned, rec *store.Record) {
	s := rec.Step
	m := learn.Mover{Camera: rec.RigID, Mode: s.Mode, Activity: s.Activity, IsMeasured: s.Measured, Computed: s.ComputedS}
	r.Trials = append(r.Trials, learn.Trial{ID: rec.ID, Time: rec.At, Mover: m, Shutter: s.ShutterS, Grade: learn.Grade(s.Grade), Why: learn.Fault(s.Why), ISO: s.ISO, Ceiling: s.Ceiling})
	id := fmt.Sprintf("%s %s %s", rec.RigID, s.Mode, s.Activity)
	if s.ComputedS != nil && !slices.ContainsFunc(r.Floors, func(f learn.FloorAsk) bool { return f.ID == id }) {
		r.Floors = append(r.Floors, learn.FloorAsk{ID: id, Mover: m})
		l.Stabilisers = append(l.Stabilisers, StabiliserLearned{RigID: rec.RigID, Mode: s.Mode, Activity: s.Activity, ShakeDegS: s.ShakeDegS})
	}
}

// Learned returns what the log teaches as it is now.
func (svc *Service) Learned(ctx context.Context) (*Learned, error) {
	svc.taught.mu.Lock()
	defer svc.taught.mu.Unlock()
	mark, err := svc.Store.RecordsChanged(ctx)
	if err != nil {
		return nil, err
	}
	isUsed, err := svc.Store.LogUsed(ctx)
	if err != nil {
		return nil, err
	}
	settled, err := svc.Store.Taste(ctx)
	if err != nil {
		return nil, err
	}
	mark += fmt.Sprint(" ", isUsed, svc.Now().Format(" 2006-01-02")) // with the day everything grows older
	if svc.taught.mark == mark {
		return svc.taught.learned, nil
	}
	r, l, err := svc.logRequest(ctx)
	if err != nil {
		return nil, err
	}
	answer, err := learn.Learn(*r)
	if err != nil {
		return nil, fmt.Errorf("learn from %d records: %w", l.Records, err)
	}
	quiet(&answer.Taste, &settled)
	l.Answer, l.Band, l.IsUsed = *answer, learn.BandErrors, isUsed
	if l.Stabilisers == nil {
		l.Stabilisers = []StabiliserLearned{}
	}
	for i := range l.Stabilisers {
		l.Stabilisers[i].LearnedFloor = answer.Floors[i]
	}
	svc.taught.mark, svc.taught.learned = mark, l
	return l, nil
}

// inUse returns what the log teaches for answers, nil where it is left aside.
func (svc *Service) inUse(ctx context.Context) (*Learned, error) {
	l, err := svc.Learned(ctx)
	if err != nil || !l.IsUsed {
		return nil, err
	}
	return l, nil
}

// UseLog says whether answers are given with what the log teaches.
func (svc *Service) UseLog(ctx context.Context, isUsed bool) (*Learned, error) {
	if err := svc.Store.SetLogUsed(ctx, isUsed); err != nil {
		return nil, err
	}
	return svc.Learned(ctx)
}

// foretell returns what the log, without a record, foretells of what the record saw, and what its
// ± are scaled by.
func (svc *Service) foretell(ctx context.Context, rec *store.Record) (told learn.Told, scale float64, err error) {
	r, l, err := svc.logRequest(ctx)
	if err != nil {
		return told, 1, err
	}
	l.askOf(r, rec.Glass)
	s := seeing(rec)
	if s.By != "" && !slices.ContainsFunc(r.Instruments, func(i learn.Reader) bool { return i.ID == s.By }) {
		r.Instruments = append(r.Instruments, learn.Reader{ID: s.By})
	}
	for _, id := range s.Glass {
		if !slices.ContainsFunc(r.Filters, func(g learn.Glass) bool { return g.ID == id }) {
			return told, 1, nil
		}
	}
	r.Exposures = slices.DeleteFunc(r.Exposures, func(e learn.Exposure) bool { return e.ID == rec.ID })
	r.Asks = []learn.Ask{{ID: rec.ID + " asked", Time: rec.At, Seeing: s}}
	a, err := learn.Learn(*r)
	if err != nil {
		return told, 1, fmt.Errorf("foretell a reading: %w", err)
	}
	scale = 1
	for _, c := range a.Calibration {
		if c.Kind == "seen" {
			scale = c.Scale
		}
	}
	return a.Asks[0], scale, nil
}

// teach counts a filter as the log teaches it, where it has records; what is turned stays at what
// its ring says.
func (l *Learned) teach(f *ShownFilter) {
	if l == nil || f.Counts == nil || f.Counts.MaxStops != nil || len(f.Counts.Ring) > 0 {
		return
	}
	i := slices.IndexFunc(l.Filters, func(g learn.LearnedGlass) bool { return g.ID == f.ID })
	if i < 0 || l.Filters[i].Records == 0 {
		return
	}
	g := l.Filters[i]
	f.Learned = &FilterLearned{g.Stops, g.Spread, g.Records}
	stops := g.Stops
	f.Counts.MeasuredStops, f.Counts.StdErrStops, f.Counts.Learned = &stops, g.Spread, true
	f.Takes = stops
}

// ShowTaught is Show, with what the log makes of the filter.
func (svc *Service) ShowTaught(f store.Filter) (ShownFilter, error) {
	shown, err := Show(f)
	if err != nil {
		return shown, err
	}
	l, err := svc.inUse(context.Background()) // at hand since the last record
	if err != nil {
		return shown, err
	}
	l.teach(&shown)
	return shown, nil
}

// teachCamera gives a camera the limit that its own stepped trials tell, that of which there are
// most.
func (l *Learned) teachCamera(b *Bench) {
	if l == nil || b.Camera.Profile == nil {
		return
	}
	best := -1
	for i, s := range l.Stabilisers {
		if s.RigID == b.Rig.ID && s.Floor != nil && s.ShakeDegS > 0 && s.Trials > 0 && (best < 0 || s.Trials > l.Stabilisers[best].Trials) {
			best = i
		}
	}
	if best < 0 {
		return
	}
	of := l.Stabilisers[best]
	profile := *b.Camera.Profile
	profile.TrialS, profile.TrialShake = *of.Floor, &of.ShakeDegS
	b.Camera.Profile = &profile
}

// momentsApart is how far apart what is known of a read day is asked.
const momentsApart = 30 * time.Minute

// addLearned adds what the log knows of the light at a shoot's place: in general, and where its
// days were read, hour by hour. A reading that is pinned is an order, and moves the curve instead.
func (svc *Service) addLearned(ctx context.Context, out *Day) error {
	taught, err := svc.inUse(ctx)
	if err != nil || taught == nil {
		return err
	}
	place := cmp.Or(out.Shoot.Place, out.Shoot.Name)
	for _, p := range taught.Places {
		if p.Place == place {
			out.Request.Known = append(out.Request.Known, day.SkyKnown{Sky: p.Sky, Offset: p.Offset, Spread: p.DaySpread, Days: p.Days})
		}
	}
	if len(out.Request.Known) == 0 || out.Request.Anchor != nil {
		return nil
	}
	r, _, err := svc.logRequest(ctx)
	if err != nil {
		return err
	}
	isNear := func(e learn.Exposure) bool {
		return e.Light.Place == place && e.Time.After(out.Request.From.Add(-12*time.Hour)) && e.Time.Before(out.Request.To.Add(12*time.Hour))
	}
	if !slices.ContainsFunc(r.Exposures, isNear) {
		return nil
	}
	var asked []*day.KnownMoment
	none := stop.EV(0)
	for i := range out.Request.Known {
		k := &out.Request.Known[i]
		for at := out.Request.From; !at.After(out.Request.To); at = at.Add(momentsApart) {
			k.Moments = append(k.Moments, day.KnownMoment{At: at})
		}
		for m := range k.Moments {
			asked = append(asked, &k.Moments[m])
			r.Asks = append(r.Asks, learn.Ask{ID: fmt.Sprint(len(asked)), Time: k.Moments[m].At, Seeing: learn.Seeing{
				Light: learn.Light{Place: place, Sky: string(k.Sky), EV: &none},
			}})
		}
	}
	a, err := learn.Learn(*r)
	if err != nil {
		return fmt.Errorf("what is known of the light at %s: %w", place, err)
	}
	for i, told := range a.Asks {
		asked[i].Offset, asked[i].Spread = stop.Stops(told.EV), told.Spread
	}
	return nil
}

// ForgetPlace removes for good what the log knows of a place.
func (svc *Service) ForgetPlace(ctx context.Context, place string) (*Learned, error) {
	n, err := svc.Store.ForgetPlace(ctx, place)
	if err != nil {
		return nil, err
	}
	if n == 0 {
		return nil, &problem.Fault{Field: "place", Value: place, Allowed: "a place of which the log has records"}
	}
	return svc.Learned(ctx)
}

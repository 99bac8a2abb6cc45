package learn

import (
	"cmp"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"gonum.org/v1/gonum/mat"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// dense learns a log a second way: by the formulas of docs/model.md as they stand there, with one
// matrix inverted for each block and one for all, and nothing of the package but its request.
type dense struct {
	Request
	names  []string // of the lasting unknowns
	kinds  []string // filter, instrument, place; "" for a reset
	prior  []float64
	blocks []*denseBlock
	tau, k map[string]float64 // of each sky

	x, c []float64
	a    *mat.Dense
}

type denseBlock struct {
	key, sky   string
	hours      []float64
	h          [][]float64
	y, noise2  []float64
	age, kappa float64
	w          []float64
	inverse    *mat.Dense // of its covariance
}

const (
	densePlace = 0.2
	denseScene = 8.5
)

func hoursOf(t time.Time) float64 { return float64(t.UnixMilli()) / 3_600_000 }

func invert(m mat.Matrix) *mat.Dense {
	var out mat.Dense
	if err := out.Inverse(m); err != nil {
		panic(err)
	}
	return &out
}

func logDet(m mat.Matrix) float64 { v, _ := mat.LogDet(m); return v }

func (d *dense) at(name string) int { return slices.Index(d.names, name) }

func (d *dense) filter(id string) *Glass {
	return &d.Filters[slices.IndexFunc(d.Filters, func(g Glass) bool { return g.ID == id })]
}

func turns(k glass.Kind) bool {
	return k == glass.Polariser || k == glass.NDPolariser || k == glass.Variable
}

func keyOf(l *Light) (key, sky string) {
	if l.Scene != "" {
		return "scene " + l.Scene, ""
	}
	return "place " + l.Place + " " + l.Sky, l.Sky
}

func newDense(r Request) *dense {
	d := &dense{Request: r, tau: map[string]float64{}, k: map[string]float64{}}
	add := func(name, kind string, spread float64) {
		if d.at(name) < 0 {
			d.names, d.kinds, d.prior = append(d.names, name), append(d.kinds, kind), append(d.prior, spread*spread)
		}
	}
	spreads := map[glass.Kind]float64{glass.ND: 0.25, glass.Graduated: 0.25, glass.Clear: 0.1, glass.Mist: 0.1, glass.Night: 0.3, glass.Polariser: 0.25, glass.NDPolariser: 0.35, glass.Variable: 0.4}
	for _, g := range r.Filters {
		spread := spreads[g.Kind]
		if g.Spread != nil {
			spread = float64(*g.Spread)
		}
		add("filter "+g.ID, "filter", spread)
	}
	for _, i := range r.Instruments {
		spread := 0.3
		if i.Spread != nil {
			spread = float64(*i.Spread)
		}
		add("instrument "+i.ID, "instrument", spread)
	}
	for i := range r.Exposures {
		if key, sky := keyOf(&r.Exposures[i].Light); sky != "" {
			add(key, "place", densePlace)
		}
	}
	for i, reset := range r.Resets {
		add(fmt.Sprint("reset ", i), "", map[What]float64{Filter: 0.25, Instrument: 0.3}[reset.Kind])
	}
	for _, e := range slices.SortedStableFunc(slices.Values(r.Exposures), func(a, b Exposure) int { return a.Time.Compare(b.Time) }) {
		key, sky := keyOf(&e.Light)
		b := d.last(key)
		if b == nil || sky != "" && hoursOf(e.Time)-b.hours[len(b.hours)-1] > 12 {
			b = &denseBlock{key: key, sky: sky}
			d.blocks = append(d.blocks, b)
		}
		noise := map[Kind]float64{ByMeter: 0.15, ByFrame: 0.1, ByEye: 0.5}[e.Kind]
		if noise = cmp.Or(noise, 0.2); e.Spread != nil {
			noise = float64(*e.Spread)
		}
		over := denseScene
		if e.Light.EV != nil {
			over = float64(*e.Light.EV)
		}
		b.hours, b.h = append(b.hours, hoursOf(e.Time)), append(b.h, d.row(e.Time, &e.Seeing, true))
		b.y, b.noise2, b.w = append(b.y, float64(e.Seen)-over+d.printed(&e.Seeing)), append(b.noise2, noise*noise+d.turned(&e.Seeing)), append(b.w, 1)
		b.age = math.Exp2(math.Floor((hoursOf(r.AsOf)-hoursOf(e.Time))/24+1e-9) / 730)
	}
	return d
}

func (d *dense) last(key string) *denseBlock {
	for _, b := range slices.Backward(d.blocks) {
		if b.key == key {
			return b
		}
	}
	return nil
}

// row says which unknowns are in a reading, and with which sign.
func (d *dense) row(at time.Time, s *Seeing, hasPlace bool) []float64 {
	row := make([]float64, len(d.names))
	add := func(kind What, id string, sign float64) {
		row[d.at(string(kind)+" "+id)] += sign
		for i, reset := range d.Resets {
			if reset.Kind == kind && reset.ID == id && !reset.Time.After(at) {
				row[d.at(fmt.Sprint("reset ", i))] += sign
			}
		}
	}
	for _, id := range s.Glass {
		add(Filter, id, -1)
	}
	if s.By != "" {
		add(Instrument, s.By, 1)
	}
	if key, sky := keyOf(&s.Light); hasPlace && sky != "" && d.at(key) >= 0 {
		row[d.at(key)]++
	}
	return row
}

func (d *dense) printed(s *Seeing) (sum float64) {
	for _, id := range s.Glass {
		stops, isSet := s.Settings[id]
		if !isSet {
			stops = d.filter(id).Stops
		}
		sum += float64(stops)
	}
	return sum
}

func (d *dense) turned(s *Seeing) (noise2 float64) {
	for _, id := range s.Glass {
		if turns(d.filter(id).Kind) {
			noise2 += 0.3 * 0.3
		}
	}
	return noise2
}

func denseDays(sky string) float64 {
	s := map[string]float64{"clear": 0.3, "partly": 1, "overcast": 0.7}[sky]
	return s*s - densePlace*densePlace
}

// sway is K between some hours and others.
func (d *dense) sway(sky string, a, b []float64) *mat.Dense {
	m := mat.NewDense(len(a), len(b), nil)
	for i := range a {
		for j := range b {
			v := 25.0
			if sky != "" {
				k, tau := cmp.Or(d.k[sky], 1), cmp.Or(d.tau[sky], 6)
				v = k * k * denseDays(sky) * math.Exp(-math.Abs(a[i]-b[j])/tau)
			}
			m.Set(i, j, v)
		}
	}
	return m
}

func (d *dense) covariance(b *denseBlock, level, age float64, w []float64) *mat.Dense {
	v := d.sway(b.sky, b.hours, b.hours)
	v.Apply(func(i, j int, at float64) float64 {
		if at += level; i == j {
			at += b.noise2[i] / w[i]
		}
		return age * at
	}, v)
	return v
}

// once solves for the lasting unknowns with the doubts as they stand.
func (d *dense) once(scaled []float64) {
	n := len(d.names)
	a, c := mat.NewDense(n, n, nil), make([]float64, n)
	for i, v := range scaled {
		a.Set(i, i, 1/v)
	}
	add := func(row []float64, other []float64, weight, y float64) {
		for i := range row {
			for j := range other {
				a.Set(i, j, a.At(i, j)+row[i]*weight*other[j])
			}
			c[i] += row[i] * weight * y
		}
	}
	for _, b := range d.blocks {
		b.inverse = invert(d.covariance(b, b.kappa, b.age, b.w))
		for i := range b.y {
			for j := range b.y {
				add(b.h[i], b.h[j], b.inverse.At(i, j), b.y[j])
			}
		}
	}
	for _, g := range d.Filters {
		for _, e := range g.Benches {
			at := d.AsOf // a bench without a time is of the filter as it is
			if e.Time != nil {
				at = *e.Time
			}
			row := d.row(at, &Seeing{Glass: []string{g.ID}}, false)
			for i := range row {
				row[i] = -row[i]
			}
			spread := max(0.03, float64(e.Spread))
			add(row, row, 1/(spread*spread), float64(e.Stops-g.Stops))
		}
	}
	x := mat.NewVecDense(n, nil)
	x.MulVec(invert(a), mat.NewVecDense(n, c))
	d.x, d.c, d.a = x.RawVector().Data, c, a
}

// solve doubts days and records for ten rounds.
func (d *dense) solve(scaled []float64) {
	for _, b := range d.blocks {
		b.kappa = 0
		for i := range b.w {
			b.w[i] = 1
		}
	}
	for round := range 10 {
		d.once(scaled)
		for _, b := range d.blocks {
			e := mat.NewVecDense(len(b.y), nil)
			for i := range b.y {
				e.SetVec(i, b.y[i]-dot(b.h[i], d.x))
			}
			kappa, w := b.kappa, slices.Clone(b.w)
			if b.sky != "" {
				inverse, ones := invert(d.covariance(b, 0, 1, b.w)), mat.NewVecDense(len(b.y), slices.Repeat([]float64{1}, len(b.y)))
				v := 1 / mat.Inner(ones, inverse, ones)
				mu := v * mat.Inner(ones, inverse, e)
				kappa = v * max(0, (mu*mu/v-1)/5)
			}
			if round >= 3 {
				k := d.sway(b.sky, b.hours, b.hours)
				k.Apply(func(_, _ int, at float64) float64 { return b.age * (at + b.kappa) }, k)
				var follows, light mat.VecDense
				follows.MulVec(b.inverse, e)
				light.MulVec(k, &follows)
				for i := range w {
					off := e.AtVec(i) - light.AtVec(i)
					w[i] = min(1, 5/(4+off*off/b.noise2[i]))
				}
			}
			b.kappa, b.w = kappa, w
		}
	}
	d.once(scaled)
}

// spread learns how far and how long each sky strays, from the first pass.
func (d *dense) spread() {
	ks, taus := map[string]float64{}, map[string]float64{}
	for _, sky := range []string{"clear", "partly", "overcast"} {
		var of []*denseBlock
		for _, b := range d.blocks {
			if b.sky == sky {
				of = append(of, b)
			}
		}
		if len(of) < 5 {
			continue
		}
		var logs, k2s, tau2s []float64
		for step := -6; step <= 6; step++ {
			for _, tau := range []float64{1.5, 3, 6, 12, 24} {
				k := math.Exp2(float64(step) / 3)
				d.k[sky], d.tau[sky] = k, tau
				a, b := math.Log2(k)/0.6, math.Log2(tau/6)
				weight := -(a*a + b*b) / 2
				for _, b := range of {
					n := float64(len(b.y))
					e := mat.NewVecDense(len(b.y), nil)
					for i, row := range b.h {
						e.SetVec(i, b.y[i])
						for j, in := range row {
							if d.kinds[j] != "place" {
								e.SetVec(i, e.AtVec(i)-in*d.x[j])
							}
						}
					}
					v := d.covariance(b, densePlace*densePlace, 1, slices.Repeat([]float64{1}, len(b.y)))
					m, most := mat.Inner(e, invert(v), e), n+3*math.Sqrt(2*n)
					if m > most {
						m = most * (1 + math.Log(m/most))
					}
					weight -= (logDet(v) + m) / 2 / b.age
				}
				logs, k2s, tau2s = append(logs, weight), append(k2s, k*k), append(tau2s, math.Log2(tau))
			}
		}
		delete(d.k, sky)
		delete(d.tau, sky)
		ks[sky], taus[sky] = math.Sqrt(denseMean(logs, k2s)), math.Exp2(denseMean(logs, tau2s))
	}
	d.k, d.tau = ks, taus
}

func denseMean(logs, values []float64) float64 {
	most, sum, all := slices.Max(logs), 0.0, 0.0
	for i, l := range logs {
		sum, all = sum+math.Exp(l-most)*values[i], all+math.Exp(l-most)
	}
	return sum / all
}

// strays returns by how much the variance of each kind is multiplied, from the first pass.
func (d *dense) strays() map[string]float64 {
	out := map[string]float64{}
	if len(d.blocks) < 5 {
		return out
	}
	for _, kind := range []string{"filter", "instrument", "place"} {
		if !slices.Contains(d.kinds, kind) {
			continue
		}
		var logs, before, g2s []float64
		for step := -6; step <= 6; step++ {
			g := math.Exp2(float64(step) / 3)
			a, logP := mat.DenseCopyOf(d.a), 0.0
			for i, p := range d.prior {
				there := p
				if d.kinds[i] == kind {
					there *= g * g
				}
				a.Set(i, i, a.At(i, i)-1/p+1/there)
				logP += math.Log(there)
			}
			c, z := mat.NewVecDense(len(d.c), d.c), (math.Log2(g)+0.49*math.Ln2)/0.7
			before = append(before, -z*z/2)
			logs, g2s = append(logs, -z*z/2-logP/2-logDet(a)/2+mat.Inner(c, invert(a), c)/2), append(g2s, g*g)
		}
		out[kind] = denseMean(logs, g2s) / denseMean(before, g2s)
	}
	return out
}

// light answers what is asked of a light: its mean over the forecast, its variance, and how it hangs
// on the lasting unknowns.
func (d *dense) light(ask *Ask) (mean, variance float64, hangs []float64) {
	key, sky := keyOf(&ask.Light)
	hangs = d.row(ask.Time, &Seeing{Light: ask.Light}, true)
	at := []float64{hoursOf(ask.Time)}
	var near *denseBlock
	nearest := math.Inf(1)
	for _, b := range d.blocks {
		for _, h := range b.hours {
			if off := math.Abs(h - at[0]); b.key == key && (sky == "" || off <= 12) && off < nearest {
				near, nearest = b, off
			}
		}
	}
	if near == nil {
		return 0, d.sway(sky, at, at).At(0, 0), hangs
	}
	to := d.sway(sky, at, near.hours)
	to.Apply(func(_, _ int, v float64) float64 { return near.age * (v + near.kappa) }, to)
	gain := mat.NewVecDense(len(near.y), nil)
	gain.MulVec(near.inverse, to.RowView(0))
	variance = near.age*(d.sway(sky, at, at).At(0, 0)+near.kappa) - mat.Dot(gain, to.RowView(0))
	for i := range near.y {
		mean += gain.AtVec(i) * (near.y[i] - dot(near.h[i], d.x))
		for j := range hangs {
			hangs[j] -= gain.AtVec(i) * near.h[i][j]
		}
	}
	return mean, variance, hangs
}

// drawn is a log of any kind: readings through any glass under any sky, resets and benches.
func drawn(r *rand.Rand) Request {
	kinds := []Glass{{ID: "n3", Kind: glass.ND, Stops: 3}, {ID: "n5", Kind: glass.ND, Stops: 5}, {ID: "pol", Kind: glass.Polariser, Stops: 1.5}, {ID: "var", Kind: glass.Variable, Stops: 2}, {ID: "hy", Kind: glass.NDPolariser, Stops: 5.5}, {ID: "mist", Kind: glass.Mist, Stops: 0.2}}
	own := stop.Stops(0.15)
	q := Request{Filters: kinds[:2+r.IntN(5)], Instruments: []Reader{{ID: "cam"}, {ID: "meter", Spread: &own}}[:1+r.IntN(2)]}
	q.Filters = slices.Clone(q.Filters)
	if r.IntN(2) == 0 {
		q.Filters[0].Benches = []Bench{{Stops: 3.2, Spread: 0.05}}
	}
	seeing := func() Seeing {
		s := Seeing{Kind: Kind("").Values()[r.IntN(5)], Light: Light{Scene: "table"}}
		if r.IntN(8) > 0 {
			ev := stop.EV(9 + 7*r.Float64())
			s.Light = Light{Place: []string{"quay", "hill"}[r.IntN(2)], Sky: string(light.Sky("").Values()[r.IntN(3)]), EV: &ev}
		}
		for _, i := range r.Perm(len(q.Filters))[:r.IntN(3)] {
			if s.Glass = append(s.Glass, q.Filters[i].ID); q.Filters[i].Kind == glass.Variable && r.IntN(2) == 0 {
				s.Settings = map[string]stop.Stops{q.Filters[i].ID: stop.Stops(2 + 3*r.Float64())}
			}
		}
		if r.IntN(5) > 0 {
			s.By = q.Instruments[r.IntN(len(q.Instruments))].ID
		}
		return s
	}
	n, days := 2+r.IntN(50), 1+r.IntN(90)
	moment := func() time.Time {
		return start.AddDate(0, 0, r.IntN(days)).Add(time.Duration(r.IntN(840)) * time.Minute)
	}
	d := &dense{Request: q}
	for i := range n {
		s := seeing()
		off := r.NormFloat64() / 2
		if r.IntN(20) == 0 {
			off += 4 // mistyped
		}
		ev := denseScene
		if s.Light.EV != nil {
			ev = float64(*s.Light.EV)
		}
		q.Exposures = append(q.Exposures, Exposure{ID: fmt.Sprint("e", i), Time: moment(), Seeing: s, Seen: stop.EV(ev - d.printed(&s) + off)})
	}
	for i := range 3 {
		q.Asks = append(q.Asks, Ask{ID: fmt.Sprint("a", i), Time: moment(), Seeing: seeing()})
	}
	if r.IntN(2) == 0 {
		q.Resets = []Reset{{Kind: Filter, ID: "n3", Time: moment()}, {Kind: Instrument, ID: "cam", Time: moment()}}
	}
	q.AsOf = start.AddDate(0, 0, days+r.IntN(400))
	return q
}

// What a log teaches is what the formulas say, written out with nothing but matrices.
func TestLearningIsItsFormulas(t *testing.T) {
	r := rand.New(rand.NewPCG(27, 11))
	for n := range 60 {
		q := drawn(r)
		d := newDense(q)
		d.solve(d.prior)
		d.spread()
		further := d.strays()
		scaled := slices.Clone(d.prior)
		for i, kind := range d.kinds {
			scaled[i] *= cmp.Or(further[kind], 1)
		}
		d.solve(scaled)
		covariance := invert(d.a)
		varianceOf := func(row []float64) float64 {
			v := mat.NewVecDense(len(row), row)
			return mat.Inner(v, covariance, v)
		}
		a := learned(t, q)
		for _, g := range a.Filters {
			row := d.row(q.AsOf, &Seeing{Glass: []string{g.ID}}, false)
			near(t, fmt.Sprint(n, " ", g.ID), float64(g.Stops), float64(d.filter(g.ID).Stops)-dot(row, d.x), 1e-6)
		}
		for _, i := range a.Instruments {
			near(t, fmt.Sprint(n, " ", i.ID), float64(i.Offset), dot(d.row(q.AsOf, &Seeing{By: i.ID}, false), d.x), 1e-6)
		}
		for _, s := range a.Skies {
			k := cmp.Or(d.k[string(s.Sky)], 1)
			near(t, fmt.Sprint(n, " spread, ", s.Sky), float64(s.Spread), math.Sqrt(densePlace*densePlace+k*k*denseDays(string(s.Sky))), 1e-6)
			near(t, fmt.Sprint(n, " tau, ", s.Sky), s.TauH, cmp.Or(d.tau[string(s.Sky)], 6), 1e-5)
		}
		for i := range q.Asks {
			ask, told := &q.Asks[i], a.Asks[i]
			mean, variance, hangs := d.light(ask)
			over := denseScene
			if ask.Light.EV != nil {
				over = float64(*ask.Light.EV)
			}
			if key, sky := keyOf(&ask.Light); sky != "" && d.at(key) < 0 { // a place that was never read
				variance += densePlace * densePlace * cmp.Or(further["place"], 1)
			}
			near(t, fmt.Sprint(n, " light"), float64(told.EV), over+dot(d.row(ask.Time, &Seeing{Light: ask.Light}, true), d.x)+mean, 1e-6)
			near(t, fmt.Sprint(n, " its ±"), float64(told.Spread), math.Sqrt(variance+varianceOf(hangs)), 1e-6)
			if told.Seen != nil {
				near(t, fmt.Sprint(n, " seen"), float64(*told.Seen), over+dot(d.row(ask.Time, &ask.Seeing, true), d.x)+mean-d.printed(&ask.Seeing), 1e-6)
			}
		}
	}
}

package learn

import (
	"fmt"
	"math"
	"time"

	"gonum.org/v1/gonum/mat"

	"pinhole/core/light"
)

// How the log is solved.
const (
	halfLifeDays = 730.0
	rounds       = 10
	recordsFrom  = 3 // rounds before single records are weighed
	dayPart      = 5.0
	recordPart   = 4.0
	doubtWeight  = 0.4
	doubtDay     = 10.0
)

// state is what is known of the lasting unknowns: A, its right side c, x = A⁻¹c.
type state struct {
	left   *mat.SymDense
	right  *mat.VecDense
	factor mat.Cholesky
	x      *mat.VecDense
}

// swayed is how far and how long the light strays under each sky.
type swayed struct {
	variance map[light.Sky]float64
	tauH     map[light.Sky]float64
}

func (s *swayed) of(b *block) (level, sway, tauH float64) {
	if b.isScene {
		return sceneSpread * sceneSpread, 0, 1
	}
	return 0, s.variance[b.sky], s.tauH[b.sky]
}

// noises returns the variance of each reading, what is doubted having more.
func (b *block) noises() []float64 {
	all := make([]float64, len(b.readings))
	for i, r := range b.readings {
		all[i] = r.noise2 / r.weight
	}
	return all
}

// noise2 returns the variance of each reading as such.
func (b *block) noise2() []float64 {
	all := make([]float64, len(b.readings))
	for i, r := range b.readings {
		all[i] = r.noise2
	}
	return all
}

// drift takes the block's covariance apart, but for its ageing, which multiplies all of it.
func (b *block) drift(s *swayed, widened float64) *drift {
	level, sway, tauH := s.of(b)
	return newDrift(b.hours, b.noises(), level+widened, sway, tauH)
}

// solve finds the lasting unknowns; further is how many times further than assumed each kind
// strays.
func (l *log) solve(s *swayed, further [3]float64) (*state, error) {
	n := len(l.unknowns)
	if n == 0 {
		return nil, nil
	}
	found := &state{left: mat.NewSymDense(n, nil), right: mat.NewVecDense(n, nil)}
	add := func(i, j int, v float64) { found.left.SetSym(i, j, found.left.At(i, j)+v) }
	for i, u := range l.unknowns {
		variance := u.spread * u.spread
		if u.kind != strayReset {
			variance *= further[u.kind] * further[u.kind]
		}
		add(i, i, 1/variance)
	}
	for i := range l.Filters {
		f := &l.Filters[i]
		for _, b := range f.Benches {
			spread := max(float64(b.Spread), benchLeast)
			worth, above := 1/(spread*spread), float64(b.Stops-f.Stops)
			terms := l.termsOf(i, l.resets[Filter][f.ID], l.benchedAt(&b), 1)
			for _, t := range terms {
				found.right.SetVec(t.at, found.right.AtVec(t.at)+worth*above)
				for _, o := range terms {
					if o.at >= t.at {
						add(t.at, o.at, worth)
					}
				}
			}
		}
	}
	for _, b := range l.blocks {
		d := b.drift(s, b.widened)
		y := make([]float64, len(b.readings))
		for i, r := range b.readings {
			y[i] = r.above
		}
		d.whitened(y, y)
		white := make([][]float64, len(b.rows))
		for k, row := range b.rows {
			white[k] = d.whitened(make([]float64, len(row)), row)
			found.right.SetVec(b.columns[k], found.right.AtVec(b.columns[k])+dot(white[k], y)/b.ageing)
			for j := range k + 1 {
				low, high := min(b.columns[j], b.columns[k]), max(b.columns[j], b.columns[k])
				add(low, high, dot(white[j], white[k])/b.ageing)
			}
		}
	}
	if !found.factor.Factorize(found.left) {
		return nil, fmt.Errorf("the log of %d records has no solution", len(l.Exposures))
	}
	found.x = mat.NewVecDense(n, nil)
	return found, found.factor.SolveVecTo(found.x, found.right)
}

// benchedAt returns when a filter was measured; what is not said is taken for now.
func (l *log) benchedAt(b *Bench) time.Time {
	if b.Time == nil {
		return l.AsOf
	}
	return *b.Time
}

// left returns what the lasting unknowns leave of a block's readings: its light and the noise.
func (b *block) left(x *mat.VecDense, isUsed func(at int) bool) []float64 {
	e := make([]float64, len(b.readings))
	for i, r := range b.readings {
		e[i] = r.above
		for _, t := range r.terms {
			if isUsed == nil || isUsed(t.at) {
				e[i] -= t.sign * x.AtVec(t.at)
			}
		}
	}
	return e
}

// oddDay returns a day's mean light over what its place has, and the variance of that.
func (b *block) oddDay(s *swayed, e []float64) (mean, variance float64) {
	d := b.drift(s, 0)
	ones := make([]float64, len(e))
	for i := range ones {
		ones[i] = 1
	}
	d.whitened(ones, ones)
	variance = 1 / dot(ones, ones)
	return variance * dot(ones, d.whitened(make([]float64, len(e)), e)), variance
}

// noiseOf returns what is left of the readings when the block's light is taken off.
func (b *block) noiseOf(s *swayed, e []float64) []float64 {
	d := b.drift(s, b.widened)
	rest := d.solved(e)
	for i, noise := range b.noises() {
		rest[i] *= noise
	}
	return rest
}

// weigh doubts days and records, from what one solution leaves.
func (l *log) weigh(s *swayed, x *mat.VecDense, isRecords bool) {
	for _, b := range l.blocks {
		e := b.left(x, nil)
		rest := b.noiseOf(s, e)
		if !b.isScene {
			mean, variance := b.oddDay(s, e)
			b.widened = variance * max(0, (mean*mean/variance-1)/dayPart)
		}
		if !isRecords {
			continue
		}
		for i := range b.readings {
			r := &b.readings[i]
			r.weight = min(1, (recordPart+1)/(recordPart+rest[i]*rest[i]/r.noise2))
		}
	}
}

// settled solves in rounds that doubt what does not go with the rest.
func (l *log) settled(s *swayed, further [3]float64) (*state, error) {
	for _, b := range l.blocks {
		b.widened = 0
		for i := range b.readings {
			b.readings[i].weight = 1
		}
	}
	for round := range rounds {
		found, err := l.solve(s, further)
		if err != nil || found == nil {
			return nil, err
		}
		l.weigh(s, found.x, round >= recordsFrom)
	}
	return l.solve(s, further)
}

// doubts lists the records and days that do not go with the rest.
func (l *log) doubts(s *swayed, x *mat.VecDense) []Doubtful {
	all := []Doubtful{}
	for _, b := range l.blocks {
		e := b.left(x, nil)
		rest := b.noiseOf(s, e)
		if !b.isScene {
			if mean, variance := b.oddDay(s, e); mean*mean/variance > doubtDay {
				offset := 0.0
				for i := range e {
					offset += (e[i] - rest[i]) / float64(len(e))
				}
				all = append(all, Doubtful{
					Kind: DoubtDay, Place: b.place, Sky: b.sky, Date: b.readings[0].Time.Format("2006-01-02"),
					Offset: stopsOf(offset), Widened: stopsOf(math.Sqrt(b.widened)),
				})
			}
		}
		for i, r := range b.readings {
			if weight := r.weight; weight < doubtWeight {
				all = append(all, Doubtful{Kind: DoubtRecord, ID: r.ID, Left: stopsOf(rest[i]), Weight: &weight})
			}
		}
	}
	return all
}

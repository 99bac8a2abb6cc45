package learn

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"time"
)

// From how many shoots on a trend is told, and how sure it has to be.
const (
	shootsLeast = 4
	trendErrors = 2.0
)

// right lists which glass was right where.
func (r *Request) right() []Right {
	all := []Right{}
	for i := range r.Takes {
		t := &r.Takes[i]
		if t.Place == "" || t.Sky == "" {
			continue
		}
		at := slices.IndexFunc(all, func(o Right) bool { return o.Place == t.Place && o.Sky == t.Sky && o.Look == t.Look })
		if at < 0 {
			at = len(all)
			all = append(all, Right{Place: t.Place, Sky: t.Sky, Look: t.Look})
		}
		stack := slices.Sorted(slices.Values(t.Glass))
		here := &all[at]
		k := slices.IndexFunc(here.Glass, func(g RightGlass) bool { return slices.Equal(g.Glass, stack) })
		if k < 0 {
			k = len(here.Glass)
			here.Glass = append(here.Glass, RightGlass{Glass: append([]string{}, stack...)})
		}
		here.Glass[k].Used++
		if t.IsKept {
			here.Glass[k].Good++
		}
	}
	for i := range all {
		for k := range all[i].Glass {
			g := &all[i].Glass[k]
			g.Share = float64(g.Good+1) / float64(g.Used+2)
		}
		slices.SortFunc(all[i].Glass, func(a, b RightGlass) int {
			return cmp.Or(cmp.Compare(b.Share, a.Share), cmp.Compare(b.Used, a.Used), slices.Compare(a.Glass, b.Glass))
		})
	}
	slices.SortFunc(all, func(a, b Right) int {
		return cmp.Or(strings.Compare(a.Place, b.Place), strings.Compare(a.Sky, b.Sky), strings.Compare(a.Look, b.Look))
	})
	return all
}

// trends says how shoots go over time.
func (r *Request) trends() []Trend {
	all := []Trend{}
	for _, what := range []struct {
		name string
		sign float64 // 1 where more is better
		of   func(t *Take) *float64
	}{
		{"firstRight", 1, func(t *Take) *float64 {
			if t.FirstRight == nil {
				return nil
			}
			v := 0.0
			if *t.FirstRight {
				v = 1
			}
			return &v
		}},
		{"swaps", -1, func(t *Take) *float64 { return t.Swaps }},
		{"minutesLost", -1, func(t *Take) *float64 { return t.MinutesLost }},
	} {
		if trend, ok := r.trend(what.of, what.sign); ok {
			trend.What = what.name
			all = append(all, trend)
		}
	}
	return all
}

// trend is the line through the means of the shoots, in the order of their first takes.
func (r *Request) trend(of func(t *Take) *float64, sign float64) (trend Trend, ok bool) {
	type shoot struct {
		name   string
		first  time.Time
		sum, n float64
	}
	var shoots []shoot
	total := 0.0
	for i := range r.Takes {
		t := &r.Takes[i]
		v := of(t)
		if v == nil || t.Shoot == "" {
			continue
		}
		at := slices.IndexFunc(shoots, func(s shoot) bool { return s.name == t.Shoot })
		if at < 0 {
			at = len(shoots)
			shoots = append(shoots, shoot{name: t.Shoot, first: t.Time})
		}
		s := &shoots[at]
		s.sum, s.n = s.sum+*v, s.n+1
		if t.Time.Before(s.first) {
			s.first = t.Time
		}
		total, trend.Takes = total+*v, trend.Takes+1
	}
	if trend.Takes == 0 {
		return trend, false
	}
	trend.Mean, trend.Shoots, trend.Verdict = total/float64(trend.Takes), len(shoots), CannotTell
	if len(shoots) < shootsLeast {
		return trend, true
	}
	slices.SortStableFunc(shoots, func(a, b shoot) int { return cmp.Or(a.first.Compare(b.first), strings.Compare(a.name, b.name)) })
	var w, wx, wy, wxx, wxy float64
	for i, s := range shoots {
		x, y := float64(i), s.sum/s.n
		w, wx, wy, wxx, wxy = w+s.n, wx+s.n*x, wy+s.n*y, wxx+s.n*x*x, wxy+s.n*x*y
	}
	spread := wxx - wx*wx/w
	slope := (wxy - wx*wy/w) / spread
	start := (wy - slope*wx) / w
	rest := 0.0
	for i, s := range shoots {
		rest += s.n * square(s.sum/s.n-start-slope*float64(i))
	}
	se := math.Sqrt(rest / float64(len(shoots)-2) / spread)
	trend.Slope, trend.SDSlope = &slope, &se
	if math.Abs(slope) > trendErrors*se {
		trend.Verdict = Worse
		if slope*sign > 0 {
			trend.Verdict = Better
		}
	}
	return trend, true
}

package learn

import (
	"cmp"
	"math"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// What is taken for well exposed.
const (
	limitSpread  = 0.6
	limitSlope   = 0.4
	judgedLeast  = 8
	againstLeast = 3
	offLeast     = 1.0 / 6
	schoolLeast  = 5
	whyDark      = "dark"
	whyBright    = "bright"
	schoolMost   = 0.5
)

// taste reads the takes.
func (k *known) taste() Taste {
	t := Taste{Binned: map[string]int{}}
	dark, bright := float64(glass.DefaultBand.Dark), float64(glass.DefaultBand.Bright)
	if k.Limits.Dark > 0 {
		dark = float64(k.Limits.Dark)
	}
	if k.Limits.Bright > 0 {
		bright = float64(k.Limits.Bright)
	}
	t.Dark, t.Bright = k.side(dark, -1, whyDark), k.side(bright, 1, whyBright)
	for i := range k.Takes {
		if take := &k.Takes[i]; !take.IsKept && take.Why != "" {
			t.Binned[take.Why]++
		}
	}
	t.Schools = k.schools()
	return t
}

// side finds one limit of the exposure; sign is 1 where beyond it is too bright.
func (k *known) side(present float64, sign float64, why string) TasteSide {
	type judged struct {
		error, weight float64
		isKept        bool
	}
	var all []judged
	s := TasteSide{}
	for i := range k.Takes {
		take := &k.Takes[i]
		if take.Error == nil || !take.IsKept && take.Why != why {
			continue
		}
		j := judged{sign * float64(*take.Error), 1 / aged(k.AsOf, take.Time), take.IsKept}
		all = append(all, j)
		isBeyond := j.error > present
		if isBeyond {
			s.Beyond++
		}
		if isBeyond && j.isKept {
			s.KeptBeyond++
		}
		if isBeyond == j.isKept {
			s.Against++
		}
	}
	limit, bend := present, 0.0
	for range newtonRounds {
		slope := -(limit - present) / (limitSpread * limitSpread)
		bend = 1 / (limitSpread * limitSpread)
		for _, j := range all {
			kept := likely((limit - j.error) / limitSlope)
			if j.isKept {
				slope += j.weight * (1 - kept) / limitSlope
			} else {
				slope -= j.weight * kept / limitSlope
			}
			bend += j.weight * kept * (1 - kept) / (limitSlope * limitSlope)
		}
		step := min(max(slope/bend, -1), 1)
		limit += step
		if math.Abs(step) < newtonEnough {
			break
		}
	}
	spread := 1 / math.Sqrt(bend)
	off := math.Abs(limit - present)
	s.Limit, s.Spread = stop.Stops(limit), stop.Stops(spread)
	s.IsSuggest = len(all) >= judgedLeast && s.Against >= againstLeast && off > BandErrors*spread && off > offLeast
	if s.IsSuggest {
		farthest := 0.0
		for _, j := range all {
			if j.isKept {
				farthest = max(farthest, j.error)
			}
		}
		offer := stop.Stops(math.Round(10*min(max(limit, 0), farthest)) / 10)
		s.Offer = &offer
	}
	return s
}

// schools finds for each activity how most takes that were kept were shot.
func (k *known) schools() []School {
	all := []School{}
	used := map[string]map[string]int{}
	for i := range k.Takes {
		if t := &k.Takes[i]; t.IsKept && t.Activity != "" && t.School != "" {
			if used[t.Activity] == nil {
				used[t.Activity] = map[string]int{}
			}
			used[t.Activity][t.School]++
		}
	}
	for activity, by := range used {
		s := School{Activity: activity}
		for school, n := range by {
			s.Of += n
			if n > s.Used || n == s.Used && school < s.School {
				s.School, s.Used = school, n
			}
		}
		s.Band = shareBand(s.Used, s.Of)
		s.IsSuggest = s.Of >= schoolLeast && s.Band[0] > schoolMost
		all = append(all, s)
	}
	slices.SortFunc(all, func(a, b School) int { return cmp.Compare(a.Activity, b.Activity) })
	return all
}

// shareBand returns the 90 % band of a share of which so many were so (Wilson 1927).
func shareBand(n, of int) [2]float64 {
	const z2 = BandErrors * BandErrors
	m, p := float64(of), float64(n)/float64(of)
	middle := (p + z2/(2*m)) / (1 + z2/m)
	half := BandErrors * math.Sqrt(p*(1-p)/m+z2/(4*m*m)) / (1 + z2/m)
	return [2]float64{max(middle-half, 0), min(middle+half, 1)}
}

package light

import (
	"time"

	"pinhole/core/angle"
)

// Geometric altitudes of the sun's centre at which something begins or ends.
const (
	// Horizon is sunrise and sunset: 34' of refraction and 16' of the sun's
	// radius below the horizon.
	Horizon = angle.Deg(-0.833)
	// Golden and Blue bound the hours that people name so: the sun is golden from 6°
	// down to 4° below the horizon, and blue from there to the end of civil twilight.
	Golden       = angle.Deg(6)
	Blue         = angle.Deg(-4)
	Civil        = angle.Deg(-6)
	Nautical     = angle.Deg(-12)
	Astronomical = angle.Deg(-18)
)

// Crossing is when the sun first rises through an altitude on one day, and when
// it last sinks through it. Either is the zero time where it does not happen.
type Crossing struct{ Up, Down time.Time }

// Happens reports whether the sun crosses the altitude at all on that day.
func (c Crossing) Happens() bool { return !c.Up.IsZero() || !c.Down.IsZero() }

// Day is the sun's way over one place on one local day.
type Day struct {
	// Noon is when the sun stands in the meridian, to the second.
	Noon  time.Time
	Place Place
	// Start and End bound the local day: midnight to midnight in its own zone, 23
	// or 25 hours where the clocks change.
	Start, End time.Time

	samples []sample
}

type sample struct {
	at  time.Time
	alt angle.Deg
}

// sampleEvery is how densely a day is looked at. Between two samples the sun's
// altitude bends once at most, so that a crossing can hide only around a culmination,
// which is looked at by itself.
const sampleEvery = 30 * time.Minute

// DayOf returns the local day that holds t, in the zone t is in.
func DayOf(t time.Time, at Place) Day {
	year, month, day := t.Date()
	d := Day{
		Place: at,
		Start: time.Date(year, month, day, 0, 0, 0, 0, t.Location()),
		End:   time.Date(year, month, day+1, 0, 0, 0, 0, t.Location()),
	}
	d.Noon = d.transit()
	d.sample()
	return d
}

func (d *Day) altitude(t time.Time) angle.Deg { return Sun(t, d.Place).Geometric }

// transit returns the passage through the meridian nearest to the middle of the day.
func (d *Day) transit() time.Time {
	t := d.Start.Add(d.End.Sub(d.Start) / 2)
	for range 4 { // the hour angle runs within a thousandth of 15° an hour
		h := hourAngle(apparentSun(centuries(t)), t, d.Place)
		t = t.Add(-time.Duration(float64(angle.FromRadians(h).Turn()) / 15 * float64(time.Hour)))
	}
	return t.Round(time.Second)
}

// sample fills the day's altitudes, the lowest and highest points between two
// samples included.
func (d *Day) sample() {
	for t := d.Start; t.Before(d.End); t = t.Add(sampleEvery) {
		d.samples = append(d.samples, sample{t, d.altitude(t)})
	}
	d.samples = append(d.samples, sample{d.End, d.altitude(d.End)})
	for i := 1; i < len(d.samples)-1; i++ {
		a, b, c := d.samples[i-1], d.samples[i], d.samples[i+1]
		if (b.alt-a.alt)*(c.alt-b.alt) < 0 {
			d.samples[i] = d.turning(a.at, c.at, b.alt > a.alt)
		}
	}
}

// turning returns the highest or lowest point between two instants, around which
// the altitude bends once.
func (d *Day) turning(from, to time.Time, isHighest bool) sample {
	for to.Sub(from) > time.Second {
		third := to.Sub(from) / 3
		left, right := from.Add(third), to.Add(-third)
		if (d.altitude(left) < d.altitude(right)) == isHighest {
			from = left
		} else {
			to = right
		}
	}
	return sample{from, d.altitude(from)}
}

// Through returns when the sun crosses an altitude, to the second.
func (d *Day) Through(altitude angle.Deg) Crossing {
	var c Crossing
	for i := 1; i < len(d.samples); i++ {
		a, b := d.samples[i-1], d.samples[i]
		switch {
		case a.alt < altitude && b.alt >= altitude && c.Up.IsZero():
			c.Up = d.crossing(a, b, altitude)
		case a.alt >= altitude && b.alt < altitude:
			c.Down = d.crossing(a, b, altitude)
		}
	}
	return c
}

// crossing halves the way between two samples on either side of the altitude.
func (d *Day) crossing(a, b sample, altitude angle.Deg) time.Time {
	isRising := a.alt < b.alt
	low, high := a.at, b.at
	for high.Sub(low) > 500*time.Millisecond {
		middle := low.Add(high.Sub(low) / 2)
		if (d.altitude(middle) < altitude) == isRising {
			low = middle
		} else {
			high = middle
		}
	}
	return high.Round(time.Second)
}

// Highest returns the highest geometric altitude of the day.
func (d *Day) Highest() angle.Deg {
	v := d.samples[0].alt
	for _, s := range d.samples[1:] {
		v = max(v, s.alt)
	}
	return v
}

// Polar says that the sun stays on one side of the horizon all day.
type Polar string

// The polar days.
const (
	PolarDay   Polar = "day"
	PolarNight Polar = "night"
)

// Values returns every Polar there is.
func (Polar) Values() []Polar {
	return []Polar{PolarDay, PolarNight}
}

// Polar returns PolarDay or PolarNight where the sun neither rises nor sets, and
// "" on other days.
func (d *Day) Polar() Polar {
	switch {
	case d.Through(Horizon).Happens():
		return ""
	case d.samples[0].alt >= Horizon:
		return PolarDay
	}
	return PolarNight
}

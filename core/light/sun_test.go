package light

import (
	"math"
	"testing"
	"time"

	"pinhole/core/angle"
)

func instant(t testing.TB, text string) time.Time {
	t.Helper()
	at, err := time.Parse(time.RFC3339, text)
	if err != nil {
		t.Fatal(err)
	}
	return at
}

// Meeus, Astronomical Algorithms, example 25.a: the sun on 1992 October 13 at 0h
// dynamical time, by the same low-accuracy method.
func TestApparentSunAgreesWithThePublishedExample(t *testing.T) {
	const T = -0.072183436
	s := apparentSun(T)
	const within = 0.00002 // the example prints five decimals
	if a := float64(angle.FromRadians(s.rightAscension).Heading()); math.Abs(a-198.38083) > within {
		t.Errorf("right ascension %.6f°, want 198.38083°", a)
	}
	if d := float64(angle.FromRadians(s.declination)); math.Abs(d+7.78507) > within {
		t.Errorf("declination %.6f°, want -7.78507°", d)
	}
}

// Positions by an independent ephemeris: the astronomy-engine JavaScript library
// (VSOP87 and IAU 2006 rotation), topocentric and without refraction, run once.
func TestSunAgreesWithAnIndependentEphemeris(t *testing.T) {
	tests := []struct {
		at                string
		lat, lon          angle.Deg
		altitude, azimuth float64
	}{
		{"2031-09-20T09:40:00-01:00", 38.4, -20.5, 38.4377, 126.7573},
		{"1950-01-01T00:00:00Z", -80, 10, 13.1891, 171.3196},
		{"2050-12-31T23:59:00Z", 10, -179.5, 56.9787, 179.0582},
		{"1987-05-05T15:15:15Z", -33, 60, -25.0084, 273.7064},
		{"2031-09-20T21:00:00-01:00", 38.4, -20.5, -30.4056, 299.2216},
	}
	const within = 0.05 // degrees, as promised
	for _, test := range tests {
		got := Sun(instant(t, test.at), Place{test.lat, test.lon})
		if math.Abs(float64(got.Geometric)-test.altitude) > within {
			t.Errorf("%s: altitude %v, want %v", test.at, got.Geometric, test.altitude)
		}
		if off := (got.Azimuth - angle.Deg(test.azimuth)).Turn().Abs() * angle.Deg(got.Geometric.Cos()); off > within {
			t.Errorf("%s: azimuth %v, want %v", test.at, got.Azimuth, test.azimuth)
		}
	}
}

// Rise and set by the same library's search for the sun's upper limb with 34' of
// refraction, to the second; places on open water, two of them beside the date
// line, two where the sun barely sets.
func TestRiseAndSetAgreeWithAnIndependentAlmanac(t *testing.T) {
	tests := []struct {
		day      string
		lat, lon angle.Deg
		up, down string
	}{
		{"2031-09-20T12:00:00-01:00", 38.4, -20.5, "2031-09-20T06:07:43-01:00", "2031-09-20T18:22:35-01:00"},
		{"2031-12-21T12:00:00-01:00", 38.4, -20.5, "2031-12-21T07:35:18-01:00", "2031-12-21T17:04:38-01:00"},
		{"2024-02-29T12:00:00-02:00", 0, -25, "2024-02-29T05:49:03-02:00", "2024-02-29T17:55:41-02:00"},
		{"1955-06-21T12:00:00-09:00", -45, -130, "1955-06-21T07:18:42-09:00", "1955-06-21T16:04:25-09:00"},
		{"2050-03-20T12:00:00-02:00", 60, -30, "2050-03-20T06:01:01-02:00", "2050-03-20T18:15:03-02:00"},
		{"2010-07-01T12:00:00-02:00", 65.5, -30, "2010-07-01T00:55:29-02:00", "2010-07-01T23:09:19-02:00"},
		{"1999-11-11T12:00:00+05:00", -10, 75, "1999-11-11T05:27:50+05:00", "1999-11-11T18:00:12+05:00"},
		{"2026-01-15T12:00:00-12:00", 52, -179.9, "2026-01-15T08:00:14-12:00", "2026-01-15T16:18:31-12:00"},
		{"2026-01-15T12:00:00+12:00", -52, 179.9, "2026-01-15T04:03:31+12:00", "2026-01-15T20:14:51+12:00"},
		{"2044-08-08T12:00:00+07:00", -60, 100, "2044-08-08T08:16:50+07:00", "2044-08-08T16:35:16+07:00"},
		{"2018-04-10T12:00:00+11:00", 20, 170, "2018-04-10T05:26:33+11:00", "2018-04-10T17:56:35+11:00"},
		{"2035-10-30T12:00:00-01:00", -66, -10, "2035-10-30T03:00:38-01:00", "2035-10-30T19:49:21-01:00"},
	}
	for _, test := range tests {
		d := DayOf(instant(t, test.day), Place{test.lat, test.lon})
		got := d.Through(Horizon)
		// The sun sinks slowly at high latitudes: 0.01° takes a minute at 65°.
		within := 30 * time.Second
		if test.lat.Abs() > 62 {
			within = 2 * time.Minute
		}
		if off := got.Up.Sub(instant(t, test.up)).Abs(); off > within {
			t.Errorf("%s at %v, %v: sunrise %v, want %s", test.day, test.lat, test.lon, got.Up, test.up)
		}
		if off := got.Down.Sub(instant(t, test.down)).Abs(); off > within {
			t.Errorf("%s at %v, %v: sunset %v, want %s", test.day, test.lat, test.lon, got.Down, test.down)
		}
	}
}

func TestPolarDaysAreAnswered(t *testing.T) {
	tests := []struct {
		at   string
		lat  angle.Deg
		want Polar
	}{
		{"2031-06-21T12:00:00Z", 71, PolarDay},
		{"2031-12-21T12:00:00Z", 71, PolarNight},
		{"2031-12-21T12:00:00Z", -90, PolarDay},
		{"2031-06-21T12:00:00Z", -90, PolarNight},
		{"2031-06-21T12:00:00Z", 90, PolarDay},
		{"2031-03-21T12:00:00Z", 0, ""},
	}
	for _, test := range tests {
		d := DayOf(instant(t, test.at), Place{Lat: test.lat})
		if got := d.Polar(); got != test.want {
			t.Errorf("%s at %v: polar %q, want %q", test.at, test.lat, got, test.want)
		}
	}
	// Not one crossing of the horizon, and still a civil twilight around noon.
	d := DayOf(instant(t, "2031-12-21T12:00:00Z"), Place{Lat: 71})
	if c := d.Through(Civil); d.Through(Horizon).Happens() || c.Up.IsZero() || c.Down.IsZero() || !c.Up.Before(c.Down) {
		t.Errorf("polar night at 71° north has civil twilight %+v", c)
	}
}

// A sun that only just rises crosses the horizon twice within minutes; the way
// there is found between any two samples of the day.
func TestABriefSunIsNotMissed(t *testing.T) {
	noon := instant(t, "2031-12-21T12:00:00Z")
	found := false
	for lat := angle.Deg(66); lat < 69; lat += 0.01 {
		d := DayOf(noon, Place{Lat: lat})
		above := d.Highest() - Horizon
		if above <= 0.0001 || above > 0.01 {
			continue
		}
		found = true
		c := d.Through(Horizon)
		if c.Up.IsZero() || c.Down.IsZero() || c.Down.Sub(c.Up) > 40*time.Minute {
			t.Errorf("at %v the sun rises %v above the horizon, from %v to %v", lat, above, c.Up, c.Down)
		}
	}
	if !found {
		t.Fatal("no latitude with a brief sun was tried")
	}
}

// Where the clocks change, the local day has 23 or 25 hours, and a crossing
// carries the zone that is in force when it happens.
func TestDaysOfClockChanges(t *testing.T) {
	zone := time.FixedZone("summer", 3600)
	plain := DayOf(time.Date(2031, 3, 30, 12, 0, 0, 0, zone), Place{45, 0})
	if h := plain.End.Sub(plain.Start).Hours(); h != 24 {
		t.Errorf("a day at a fixed offset has %v hours", h)
	}
	change, err := time.LoadLocation("CET")
	if err != nil {
		t.Skip("no zone data here:", err)
	}
	d := DayOf(time.Date(2031, 3, 30, 12, 0, 0, 0, change), Place{45, 0})
	if h := d.End.Sub(d.Start).Hours(); h != 23 {
		t.Errorf("the day the clocks go forward has %v hours", h)
	}
	if _, offset := d.Through(Horizon).Up.Zone(); offset != 7200 {
		t.Errorf("sunrise after the change is at offset %v s", offset)
	}
}

func TestNoonIsTheHighestPoint(t *testing.T) {
	for _, lat := range []angle.Deg{-70, -23, 0, 23, 50} {
		at := Place{lat, -20.5}
		d := DayOf(instant(t, "2031-09-20T01:00:00-01:00"), at)
		noon := Sun(d.Noon, at)
		if noon.Geometric < d.Highest()-0.01 {
			t.Errorf("at %v the sun at noon is at %v, the day's highest %v", lat, noon.Geometric, d.Highest())
		}
		if side := noon.Azimuth.Turn().Abs(); side > 0.5 && side < 179.5 {
			t.Errorf("at %v the sun at noon is at %v, neither north nor south", lat, noon.Azimuth)
		}
	}
}

func BenchmarkSunYearByTheMinute(b *testing.B) {
	at := Place{38.4, -20.5}
	start := instant(b, "2031-01-01T00:00:00-01:00")
	const minutes = 365 * 24 * 60
	perPosition := func(b *testing.B) {
		b.ReportMetric(float64(b.Elapsed().Nanoseconds())/float64(b.N)/minutes, "ns/position")
	}
	b.Run("sun", func(b *testing.B) {
		b.ReportAllocs()
		var sum angle.Deg
		for b.Loop() {
			for m := range minutes {
				sum += Sun(start.Add(time.Duration(m)*time.Minute), at).Geometric
			}
		}
		_ = sum
		perPosition(b)
	})
	// The baseline: the bare trigonometric calls that one position needs.
	b.Run("baseline-trigonometry", func(b *testing.B) {
		b.ReportAllocs()
		var sum float64
		for b.Loop() {
			for m := range minutes {
				x := float64(m) * 1e-5
				for k := range 11 { // of the anomaly, the node, the longitude, the obliquity and the three axes
					sum += math.Sin(x + float64(k))
				}
				sum += math.Asin(math.Mod(x, 1)) + math.Atan2(x, 2) + math.Atan2(x, 3) + math.Atan2(x, 4) + math.Hypot(x, 5)
			}
		}
		_ = sum
		perPosition(b)
	})
}

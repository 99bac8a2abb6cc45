package fit

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"pinhole/core/angle"
)

func TestClassesBeginAndEndWhereTheyShould(t *testing.T) {
	tests := []struct {
		clearance float64
		want      Class
	}{
		{-1, TooTight}, {-0.151, TooTight}, {-0.15, Tight}, {-0.051, Tight}, {-0.05, Snug}, {0, Snug},
		{0.08, Snug}, {0.03 + 0.05, Snug}, {0.081, Loose}, {0.20, Loose}, {0.1 + 0.1, Loose}, {0.201, FallsOff}, {5, FallsOff},
	}
	for _, test := range tests {
		if got := ClassOf(test.clearance); got != test.want {
			t.Errorf("ClassOf(%v) = %s, want %s", test.clearance, got, test.want)
		}
	}
}

func TestWorstOfARange(t *testing.T) {
	at := func(low, high float64) Rings { return Rings{Barrel: Range{20, 20}, Filter: Range{20 + low, 20 + high}} }
	tests := []struct {
		low, high float64
		want      Class
	}{
		{0, 0.05, Snug}, {-0.1, 0.05, Tight}, {-0.1, 0.1, Loose}, {-0.2, 0.1, TooTight}, {-0.2, 0.3, FallsOff}, {0.1, 0.15, Loose},
	}
	for _, test := range tests {
		if got := at(test.low, test.high).Worst(); got != test.want {
			t.Errorf("worst of [%v, %v] is %s, want %s", test.low, test.high, got, test.want)
		}
	}
}

// The measurement named is the one whose doubt is widest; narrowing it to a point
// narrows the clearance by as much.
func TestSettleNamesTheWidestDoubt(t *testing.T) {
	tests := []struct {
		rings Rings
		want  string
	}{
		{Rings{Barrel: Range{20, 20.2}, Filter: Range{20, 20.1}, GaugeMm: 0.02}, "barrel"},
		{Rings{Barrel: Range{20, 20.1}, Filter: Range{20, 20.2}, GaugeMm: 0.02}, "filter"},
		{Rings{Barrel: Range{20, 20}, Filter: Range{20.06, 20.06}, GaugeMm: 0.02}, "finer gauge"},
		{Rings{Barrel: Range{20, 20}, Filter: Range{20, 20}, GaugeMm: 0.001}, ""},
	}
	for _, test := range tests {
		got := test.rings.Settle()
		if !strings.Contains(got, test.want) || (test.want == "") != (got == "") {
			t.Errorf("Settle(%+v) = %q, want it to name %q", test.rings, got, test.want)
		}
	}
}

func TestJudgeHold(t *testing.T) {
	pull := Pull{MassG: 100 / gravity, AccelG: 10, DiameterMm: 20} // one newton, no wind
	tests := []struct {
		hold Hold
		want Verdict
	}{
		{Hold{Mount: Twist, PullOffN: 3, Share: 1}, Holds},
		{Hold{Mount: Twist, PullOffN: 2.99, Share: 1}, Tether},
		{Hold{Mount: Twist, PullOffN: 1.5, Share: 1}, Tether},
		{Hold{Mount: Twist, PullOffN: 1.49, Share: 1}, DoNotFly},
		{Hold{Mount: Magnet, PullOffN: 50, Share: 1}, Holds},
		{Hold{Mount: Magnet, PullOffN: 50, Share: 1, InFlight: true}, Tether},
		{Hold{Mount: Magnet, PullOffN: 1, Share: 1, InFlight: true}, DoNotFly},
		{Hold{Mount: Twist, Share: 1}, Unknown},
		{Hold{Mount: Magnet, Share: 1, InFlight: true}, Unknown},
	}
	for _, test := range tests {
		if got := test.hold.Judge(pull); got != test.want {
			t.Errorf("%+v: %s, want %s", test.hold, got, test.want)
		}
	}
	still := Pull{MassG: 5, DiameterMm: 20}
	if m, known := (Hold{Mount: Clip, PullOffN: 1, Share: 0.6}).Margin(still); known || m != 0 {
		t.Errorf("nothing pulls, and the margin is %v", m)
	}
	if v := (Hold{Mount: Clip, PullOffN: 1, Share: 0.6}).Judge(still); v != Holds {
		t.Errorf("nothing pulls, and the verdict is %s", v)
	}
}

// Rays from a distant point at angle θ cross the pupil as a bundle of parallel
// lines; those that also cross every ring's opening pass. One ring at a time, as
// the model takes the smallest share.
func TestCornerLossAgainstACountOfRays(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	const rays = 200_000
	const within = 4 * 0.5 / 447 // four standard errors of a share from that many rays
	for _, test := range []struct {
		pupil, clear, z float64
		theta           angle.Deg
	}{
		{2, 10, 5, 20}, {2, 10, 5, 40}, {2, 10, 5, 45}, {2, 10, 5, 50}, {2, 10, 5, 55}, {4, 3, 1, 0}, {4, 3, 2, 45}, {1.5, 6, 3, 44}, {3, 3, 1, 30},
	} {
		passed := 0
		for range rays {
			r, phi := test.pupil/2*math.Sqrt(random.Float64()), 2*math.Pi*random.Float64()
			x, y := r*math.Cos(phi), r*math.Sin(phi)
			// A line that leaves the pupil at (x, y) towards θ is at (x + z·tan θ, y) at the ring.
			if math.Hypot(x+test.z*test.theta.Tan(), y) <= test.clear/2 {
				passed++
			}
		}
		counted := float64(passed) / rays
		if got := Passed(test.pupil, []Ring{{test.clear, test.z}}, test.theta); math.Abs(got-counted) > within {
			t.Errorf("%+v: share %.4f, counted %.4f", test, got, counted)
		}
	}
}

func TestCornersOfSpecialRings(t *testing.T) {
	if share := Passed(2, nil, 60); share != 1 {
		t.Errorf("without rings %v passes", share)
	}
	if _, ok := Loss(Passed(2, []Ring{{4, 10}}, 80)); ok {
		t.Error("a loss is given where nothing passes")
	}
	if share := Passed(4, []Ring{{2, 1}}, 0); math.Abs(share-0.25) > 1e-12 {
		t.Errorf("a ring of half the pupil passes %v, want a quarter", share)
	}
	if clean := Clean(4, []Ring{{2, 1}}); clean != 0 {
		t.Errorf("a ring narrower than the pupil is clean to %v", clean)
	}
	if clean := Clean(2, []Ring{{4, 0}}); clean != 90 {
		t.Errorf("a ring at the pupil is clean to %v", clean)
	}
	// Just inside the clean field all passes, just outside it not.
	rings := []Ring{{11.5, 3.5}, {14, 5.5}}
	clean := Clean(2.4, rings)
	if in, out := Passed(2.4, rings, clean-0.01), Passed(2.4, rings, clean+0.5); in != 1 || out >= 1 {
		t.Errorf("at the clean angle %v: %v inside, %v outside", clean, in, out)
	}
	if far := Clean(2.4, Moved(rings, WanderMm)); far >= clean {
		t.Errorf("rings further out are clean to %v, no less than %v", far, clean)
	}
}

func TestBalanceAndMass(t *testing.T) {
	if c := Counterweight(10, 30, 15); c != 20 {
		t.Errorf("ten grams at twice the arm are balanced by %v", c)
	}
	m := Mass{PartsG: []float64{200, 45, 5.5}, LimitG: 250}
	if m.TotalG() != 250.5 || m.SpareG() != -0.5 {
		t.Errorf("%v g, %v g to spare", m.TotalG(), m.SpareG())
	}
}

package motion

import (
	"math"
	"testing"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

const within = 1e-9 // relative; sums and products of a few terms

func near(got, want float64) bool { return math.Abs(got-want) <= within*max(1, math.Abs(want)) }

var (
	wide    = Lens{WidthPx: 1920, HFOV: 90, Projection: Rectilinear}
	fisheye = Lens{WidthPx: 1920, HFOV: 180, Projection: Equidistant}
)

func TestImageScale(t *testing.T) {
	// tan 45° is 1: half the width stands for one radian.
	if got := wide.PxPerRadian(); !near(got, 960) {
		t.Errorf("rectilinear 90°: %v px per radian, want 960", got)
	}
	if got := fisheye.PxPerRadian(); !near(got, 1920/math.Pi) {
		t.Errorf("fisheye 180°: %v px per radian, want %v", got, 1920/math.Pi)
	}
	// For a narrow view the two agree.
	a, b := Lens{1920, 1, Rectilinear}, Lens{1920, 1, Equidistant}
	if math.Abs(a.PxPerRadian()/b.PxPerRadian()-1) > 1e-4 {
		t.Errorf("at 1° rectilinear %v and fisheye %v differ", a.PxPerRadian(), b.PxPerRadian())
	}
	for _, l := range []Lens{wide, fisheye} {
		if got := l.Widened(1.25).PxPerRadian(); !near(got, l.PxPerRadian()/1.25) {
			t.Errorf("%s widened by 1.25: %v px per radian", l.Projection, got)
		}
	}
}

func TestMovements(t *testing.T) {
	sideways := Movement{SpeedMps: 10, DistanceM: 5, OffAxis: 90}
	tests := []struct {
		name string
		m    Movement
		want float64 // px in a hundredth of a second
	}{
		{"still", Movement{}, 0},
		{"a speed of zero at no distance", Movement{OffAxis: 90}, 0},
		{"sideways", sideways, 960 * 2 * 0.01},
		{"at 30° off the axis", Movement{SpeedMps: 10, DistanceM: 5, OffAxis: 30}, 960 * 0.01},
		{"straight ahead", Movement{SpeedMps: 10, DistanceM: 5}, 0},
		{"a turn", Movement{Turn: 90}, 960 * math.Pi / 2 * 0.01},
		{"a turn the other way", Movement{Turn: -90}, 960 * math.Pi / 2 * 0.01},
		{"both at their worst", Movement{SpeedMps: 10, DistanceM: 5, OffAxis: 90, Turn: -90}, 960 * (2 + math.Pi/2) * 0.01},
	}
	for _, test := range tests {
		if got := BlurPx(wide, test.m, 0.01); !near(got, test.want) {
			t.Errorf("%s: %v px, want %v", test.name, got, test.want)
		}
	}
	if d := VisibleWithinM(wide, sideways, 0.01); !near(d, 960*10*0.01/(0.004*1920)) {
		t.Errorf("blur shows within %v m", d)
	}
	at := sideways
	at.DistanceM = VisibleWithinM(wide, sideways, 0.01)
	if share := wide.Share(BlurPx(wide, at, 0.01)); !near(share, NaturalFrom) {
		t.Errorf("at that distance the blur is %v of the width", share)
	}
	if d := VisibleWithinM(wide, Movement{Turn: 100}, 0.01); d != 0 {
		t.Errorf("a turn alone shows blur within %v m", d)
	}
	if _, moves := ShutterForShare(wide, Movement{}, 0.01); moves {
		t.Error("a shutter blurs what stands still")
	}
}

func TestClassesBeginAtTheirBounds(t *testing.T) {
	for _, test := range []struct {
		share float64
		want  Class
	}{{0, Frozen}, {0.000999, Frozen}, {0.001, Crisp}, {0.00399, Crisp}, {0.004, Natural}, {0.0199, Natural}, {0.02, Heavy}, {0.0499, Heavy}, {0.05, Smeared}, {9, Smeared}} {
		if got := Classify(test.share); got != test.want {
			t.Errorf("Classify(%v) = %s, want %s", test.share, got, test.want)
		}
	}
}

func TestStrobingNeedsALongStep(t *testing.T) {
	m := Movement{Turn: 60}
	from := stop.Shutter(0.4 / 25) // 60 % of the step uncovered
	if Strobes(wide, m, from, 25) || !Strobes(wide, m, from*0.99, 25) {
		t.Error("strobing does not end there")
	}
	if slow := (Movement{Turn: 1}); IsLongStep(wide, slow, 25) || Strobes(wide, slow, 1e-4, 25) {
		t.Error("a step of less than 1 % of the width strobes")
	}
}

// 60 recorded and 30 shown has the step of 30; a clip sped up twice that of half the rate.
func TestDeliveryIsWhatIsShown(t *testing.T) {
	for _, c := range []struct {
		d    Delivery
		want stop.FrameRate
	}{
		{Delivery{}, 60}, {Delivery{Showing: EveryFrame, Rate: 30}, 60}, {Delivery{Showing: RealTime, Rate: 30}, 30}, {Delivery{Showing: SpeedUp, Rate: 30, Factor: 2}, 15},
	} {
		if got := c.d.Shown(60); got != c.want {
			t.Errorf("%+v of 60 fps shows %v moments a second, want %v", c.d, got, c.want)
		}
	}
}

// A subject that crosses the frame at once, and one that takes its time.
func TestInView(t *testing.T) {
	m := Movement{SpeedMps: 2, DistanceM: 2, OffAxis: 90, Turn: 400}
	if got, want := m.InViewS(wide), wide.WidthPx/wide.PxPerRadian(); !near(got, want) {
		t.Errorf("at one radian a second it is in view for %v s, want %v; a turn is no passing", got, want)
	}
	if got := (Movement{Turn: 100}).InViewS(wide); !math.IsInf(got, 1) {
		t.Errorf("where nothing passes it is in view for %v s", got)
	}
}

func TestFloor(t *testing.T) {
	shake := Shake{Stabiliser: Electronic, Rate: 40, Passes: GimbalPasses, Tolerance: GhostTolerance}
	floor, ok := shake.Floor(wide)
	if !ok || !near(shake.BlurPx(wide, floor), 0.002*1920) {
		t.Errorf("at the floor %v the blur is %v px", floor, shake.BlurPx(wide, floor))
	}
	shake.Stabiliser = GimbalAndElectronic
	if with, _ := shake.Floor(wide); !near(with.Seconds(), floor.Seconds()/GimbalPasses) {
		t.Errorf("a gimbal moves the floor from %v to %v", floor, with)
	}
	for _, s := range []Stabiliser{NoStabiliser, Gimbal} {
		shake.Stabiliser = s
		if _, ok := shake.Floor(wide); ok {
			t.Errorf("%s has a floor", s)
		}
	}
	if _, ok := (Shake{Stabiliser: Post, Tolerance: GhostTolerance}).Floor(wide); ok {
		t.Error("without shake there is a floor")
	}
}

// The ranges where |sinc| stays small, against looking at every point.
func TestSincWithinAgainstEveryPoint(t *testing.T) {
	for _, most := range []float64{0.01, 0.02, 0.1, 0.128, 0.2171, 0.2173, 0.5, 0.99, 1, 3} {
		for _, upTo := range []float64{0.3, 0.99, 1.01, 4.2, 30} {
			found := sincWithin(most, upTo)
			for x := 0.0; x <= upTo; x += 0.0007 {
				in := false
				for _, i := range found {
					in = in || x >= i.From && x <= i.To
				}
				if v := math.Abs(sinc(x)); in != (v <= most) && math.Abs(v-most) > 1e-9 {
					t.Fatalf("|sinc(%v)| is %v: within %v is %v in %v", x, v, most, in, found)
				}
			}
		}
	}
}

func TestLargestSincAgainstEveryPoint(t *testing.T) {
	for from := 0.0; from < 4; from += 0.037 {
		for _, to := range []float64{from, from * 1.1 / 0.9, from + 1.7} {
			want := 0.0
			for i := range 2001 {
				want = max(want, math.Abs(sinc(from+(to-from)*float64(i)/2000)))
			}
			if got := largestSinc(from, to); got < want-1e-12 || got > want+1e-5 {
				t.Errorf("largest in [%v, %v] is %v, want %v", from, to, got, want)
			}
		}
	}
}

func TestVibration(t *testing.T) {
	v := Vibration{Hz: 200, Peak: 0.1, ReadoutS: 0.01}
	if got := v.Averaging(1. / 200); got > within {
		t.Errorf("an exposure of one whole swing leaves %v", got)
	}
	if got := v.WobblePx(wide, 1e-9); !near(got, wide.Px(0.2)) {
		t.Errorf("a very short exposure leaves %v of %v px", got, wide.Px(0.2))
	}
	v.Wanders = MotorWanders
	if got := v.Averaging(1. / 200); got < 0.05 {
		t.Errorf("a motor that wanders is averaged to %v by chance", got)
	}
	if v.ReadoutS = 0.002; v.Bands() != 0.4 || v.Shows(wide, 1e-4) {
		t.Error("wobble shows with less than half a band in the frame")
	}
	if got := v.SoftnessPx(wide, 1); !near(got, wide.Px(0.2)) {
		t.Errorf("a long exposure is soft by %v px, want the whole swing", got)
	}
	if hz := FromMotor(12000, 3); hz != 600 {
		t.Errorf("three blades at 12,000 turns a minute pass at %v Hz", hz)
	}
}

// Steady is where Shows is false, whether the frequency wanders or not.
func TestSteadyAgainstEveryShutter(t *testing.T) {
	for _, wanders := range []float64{0, MotorWanders} {
		v := Vibration{Hz: 310, Wanders: wanders, Peak: 0.2, ReadoutS: 0.01}
		const longest = stop.Shutter(0.04)
		steady := v.Steady(wide, 1, longest)
		for s := stop.Shutter(1e-5); s < longest; s += 7e-6 {
			in := false
			for _, span := range steady {
				in = in || s >= span.From && s <= span.To
			}
			edge := math.Abs(wide.Share(v.WobblePx(wide, s))-wobbleShare) < 1e-9
			if in == v.Shows(wide, s) && !edge {
				t.Fatalf("wandering %v: at %v s wobble shows is %v and steady is %v", wanders, s.Seconds(), v.Shows(wide, s), in)
			}
		}
	}
	gentle := Vibration{Hz: 310, Peak: 1e-6, ReadoutS: 0.01}
	if s := gentle.Steady(wide, 1, 0.04); len(s) != 1 || s[0].From != 0 {
		t.Errorf("a swing too small to see is steady in %v", s)
	}
}

func TestLamps(t *testing.T) {
	l := OnMains(50)
	for _, s := range l.SafeShutters(25) {
		if !l.Safe(s) {
			t.Errorf("%v is listed as safe with a ripple of %v", s, l.Ripple(s))
		}
	}
	if n := len(l.SafeShutters(25)); n != 4 {
		t.Errorf("%d safe shutters at 25 fps, want 1/100 to 1/25", n)
	}
	if b := l.BeatHz(25); b != 0 {
		t.Errorf("100 Hz at 25 fps beats at %v", b)
	}
	if b := l.BeatHz(24); b != 4 {
		t.Errorf("100 Hz at 24 fps beats at %v", b)
	}
	if n := len((Lamp{PulseHz: 25000, Depth: 1}).SafeShutters(24)); n != maxSafe {
		t.Errorf("a fast driver lists %d shutters", n)
	}
	if c := (Lamp{PulseHz: 100, Depth: 0.01}).Calm(MostRipple, 0.04); len(c) != 1 || c[0] != (stop.Span{To: 0.04}) {
		t.Errorf("a lamp that hardly pulses is calm in %v", c)
	}
}

func TestStick(t *testing.T) {
	r := Rates{Centre: 150, Max: 600, Expo: 0.4}
	if r.At(0) != 0 || !near(float64(r.At(1)), 600) || r.At(-0.3) != -r.At(0.3) {
		t.Errorf("rates %v, %v, %v, %v", r.At(0), r.At(1), r.At(-0.3), r.At(0.3))
	}
	for _, most := range []angle.DegPerS{0, 1, 150, 599} {
		x := r.StickFor(most)
		if got := r.At(x); math.Abs(float64(got-most)) > 1e-9 {
			t.Errorf("stick %v for %v °/s turns at %v", x, most, got)
		}
	}
	if x := r.StickFor(600); x != 1 {
		t.Errorf("full rate is at stick %v", x)
	}
	if x := (Rates{}).StickFor(0); x != 1 {
		t.Errorf("a stick that does nothing may go to %v", x)
	}
	turn := TurnForShare(wide, 0.01, SmearedFrom)
	if share := wide.Share(BlurPx(wide, Movement{Turn: turn}, 0.01)); !near(share, SmearedFrom) {
		t.Errorf("the turn for 5 %% of the width smears %v", share)
	}
}

// In a roll the middle of an edge goes round a circle of half the width, here walked in
// small steps.
func TestARollSmearsTheEdgeAsItGoesRound(t *testing.T) {
	const exposure = 0.01
	rate := RateForShare(Roll, wide, exposure, SmearedFrom)
	x, y, path := wide.WidthPx/2, 0.0, 0.0
	const steps = 10_000
	step := float64(rate) * math.Pi / 180 * exposure / steps
	for range steps {
		nx, ny := x*math.Cos(step)-y*math.Sin(step), x*math.Sin(step)+y*math.Cos(step)
		path += math.Hypot(nx-x, ny-y)
		x, y = nx, ny
	}
	if share := path / wide.WidthPx; math.Abs(share-SmearedFrom) > 1e-6 {
		t.Errorf("a roll at %v moves the edge by %v of the width", rate, share)
	}
	if RateForShare(Pan, wide, exposure, SmearedFrom) != TurnForShare(wide, exposure, SmearedFrom) || RateForShare(Pitch, wide, exposure, SmearedFrom) != TurnForShare(wide, exposure, SmearedFrom) {
		t.Error("a pan or a pitch does not turn the whole picture")
	}
}

func TestUptilt(t *testing.T) {
	if got := Uptilt(24, 11, 11); !near(float64(got), 24) {
		t.Errorf("at its own speed the tilt is %v", got)
	}
	if got := Uptilt(45, 10, 20); !near(float64(got), float64(angle.FromRadians(math.Atan(4)))) {
		t.Errorf("twice as fast: %v", got)
	}
	if got := Uptilt(24, 11, 0); got != 0 {
		t.Errorf("hovering: %v", got)
	}
}

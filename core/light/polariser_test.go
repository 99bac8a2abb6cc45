package light

import (
	"math"
	"testing"

	"pinhole/core/angle"
)

const opticsWithin = 1e-9

func TestFresnelAgainstClosedForms(t *testing.T) {
	const n = waterIndex
	// At normal incidence both are ((n−1)/(n+1))².
	rs, rp := Fresnel(0, n)
	want := math.Pow((n-1)/(n+1), 2)
	if math.Abs(rs-want) > opticsWithin || math.Abs(rp-want) > opticsWithin {
		t.Errorf("straight down: %v and %v, want %v", rs, rp, want)
	}
	// At Brewster's angle nothing is reflected along the plane of incidence, and
	// across it ((n²−1)/(n²+1))².
	brewster := angle.FromRadians(math.Atan(n))
	rs, rp = Fresnel(brewster, n)
	want = math.Pow((n*n-1)/(n*n+1), 2)
	if math.Abs(rs-want) > opticsWithin || rp > opticsWithin {
		t.Errorf("at Brewster's angle: %v and %v, want %v and 0", rs, rp, want)
	}
	if rs, rp = Fresnel(90, n); math.Abs(rs-1) > opticsWithin || math.Abs(rp-1) > opticsWithin {
		t.Errorf("grazing: %v and %v, want 1", rs, rp)
	}
}

func TestGlareLeft(t *testing.T) {
	if g := GlareLeft(90); math.Abs(g-1) > opticsWithin {
		t.Errorf("straight down %v of the glare is left, want all", g)
	}
	if g := GlareLeft(0); math.Abs(g-1) > opticsWithin {
		t.Errorf("level with the water %v is left, want all", g)
	}
	if g := GlareLeft(37); g > 0.001 {
		t.Errorf("at 37° %v is left, want nearly nothing", g)
	}
}

func TestSkyIsMostPolarisedAcrossTheSun(t *testing.T) {
	if p := SkyPolarisation(90); math.Abs(p-0.8) > opticsWithin {
		t.Errorf("at 90°: %v", p)
	}
	for _, gamma := range []angle.Deg{0, 180} {
		if p := SkyPolarisation(gamma); p > opticsWithin {
			t.Errorf("at %v: %v, want none", gamma, p)
		}
	}
}

// The frame's edges lie in the camera's plane: with the camera looking straight
// up they are equally far from the zenith, whatever its azimuth.
func TestEdgesOfACameraThatLooksUp(t *testing.T) {
	camera, sun := Direction{Altitude: 90, Azimuth: 123}, Direction{Altitude: 90}
	e := AcrossFrame(camera, sun, 80)
	if math.Abs(e.Left-e.Right) > opticsWithin || math.Abs(e.Left-SkyPolarisation(40)) > opticsWithin {
		t.Errorf("left %v, right %v, want %v on both", e.Left, e.Right, SkyPolarisation(40))
	}
	if g := camera.From(sun); g > 1e-6 {
		t.Errorf("the zenith is %v from the zenith", g)
	}
}

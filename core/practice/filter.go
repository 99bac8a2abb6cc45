package practice

import (
	"fmt"
	"math"
	"slices"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// nearest is how far from what is needed the right filter is at the most.
const nearest = 0.3

// brightest is the brightest light that is asked about: pale ground in the sun.
const brightest = stop.EV(16.5)

// filter asks for the filter of a reading. The harder, the less the reading is at the camera's own
// setting.
func filter(d *draw) (*made, bool) {
	r, name, titles := d.gear(2, 3, 4, 5, 6, 7, 8, 9)
	sorted := byStops(r.Kit)
	right := sorted[d.IntN(len(sorted)-d.of+1)+d.place()]
	takes, err := right.Takes()
	if err != nil {
		return nil, false
	}
	r.Look = assemble.ShotLook{FPS: rateOf(d, &r), Target: oneOf(d, graded(d, []string{"180°"}, []string{"180°", "180°", "90°"}, []string{"180°", "90°", "360°"})...)}
	// The reading that needs it: the target's light behind the filter, a little off.
	r.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 10"}}
	setup, err := r.Setup()
	if err != nil {
		return nil, false
	}
	set := setup.Question.Setting
	ev := set.EV().Plus(takes + stop.Stops(nearest*(2*d.Float64()-1)))
	if ev > brightest {
		return nil, false
	}
	text := fmt.Sprintf("EV %.1f", math.Round(10*float64(ev))/10)
	if d.Grade < Grades || d.IntN(2) == 0 { // a meter that shows a shutter at base ISO
		text = fmt.Sprintf("f/%v %s ISO %.0f", set.Aperture, stop.ShutterFor(set.Aperture, set.ISO, ev).Spoken(), float64(set.ISO))
	}
	r.Light.At.Text = text
	m := &made{shot: &r}
	need, ok := m.only(d, &r, right.ID, titles)
	if !ok {
		return nil, false
	}
	m.Asks = "Which filter goes on?"
	m.Question.Given = []string{
		fmt.Sprintf("%s, f/%v, base ISO %.0f", begun(name), set.Aperture, float64(set.ISO)),
		fmt.Sprintf("Meter, no filter: %s", text), fmt.Sprintf("Wanted: %s at %s fps", r.Look.Target, r.Look.FPS),
	}
	m.working = []string{
		fmt.Sprintf("%s at %s fps is %s: that needs EV %.1f at base ISO.", r.Look.Target, r.Look.FPS, set.Shutter.Spoken(), float64(set.EV())),
		fmt.Sprintf("The light is %v: %v stops more.", need.light, need.stops),
		fmt.Sprintf("%s cuts %v stops.", nameIn(right.ID, titles), takes),
	}
	return m, true
}

// needed is what a shot needs before its lens.
type needed struct {
	light stop.EV
	stops stop.Stops
}

// only offers the filter if it is the one that the product takes, and every other leaves half of what
// they are apart more.
func (m *made) only(d *draw, r *assemble.ShotRequest, right string, titles map[string]string) (n needed, ok bool) {
	v, ready, ok := best(r)
	if !ok || !slices.Equal(glass.IDs(v.Option.Filters), []string{right}) || v.Option.ISO != v.Question.Setting.ISO {
		return n, false
	}
	n = needed{ready.High.EV, v.Question.Need()}
	is := v.Option.Filters[0].Stops
	for _, k := range r.Kit {
		takes, err := k.Takes()
		if err != nil || k.ID != right && (takes-n.stops).Abs() < (is-n.stops).Abs()+apart/2 {
			return n, false
		}
	}
	return n, m.inKit(d, r.Kit, right, titles)
}

// sky asks for the filter under a sky that is drawn. Filters are farther apart, as light by the eye
// is less sure.
func sky(d *draw) (*made, bool) {
	r, name, titles := d.gear(1, 3, 5, 7, 9)
	if titles != nil && !isFar(r.Kit) {
		d.Held = nil
		r, name, titles = d.gear(1, 3, 5, 7, 9)
	}
	sight := assemble.Sight{
		Sky: oneOf(d, light.Seen("").Values()...), Facing: oneOf(d, graded(d, []light.Facing{light.FromFront}, []light.Facing{light.FromFront, light.FromSide}, []light.Facing{light.FromFront, light.FromSide, light.FromBehind, light.InShade})...),
		Ground: oneOf(d, graded(d, []light.Ground{light.OrdinaryGround}, []light.Ground{light.OrdinaryGround, light.PaleGround}, []light.Ground{light.OrdinaryGround, light.PaleGround, light.SnowGround, light.WaterGround})...),
		Height: oneOf(d, light.Height("").Values()...),
	}
	r.Look = assemble.ShotLook{FPS: rateOf(d, &r), Target: "180°"}
	r.Light = assemble.ShotLight{Kind: "sky", Sky: &sight}
	setup, err := r.Setup()
	if err != nil {
		return nil, false
	}
	scene := sight.Scene()
	need := scene.EV.Above(setup.Question.Setting.EV())
	at := slices.IndexFunc(r.Kit, func(k assemble.KitFilter) bool {
		takes, err := k.Takes()
		return err == nil && (takes-need).Abs() < 0.45
	})
	if at < 0 {
		return nil, false
	}
	m := &made{shot: &r}
	if _, ok := m.only(d, &r, r.Kit[at].ID, titles); !ok {
		return nil, false
	}
	still := 0.0
	distance := 4.0
	drawn := r
	drawn.Scene.Movement = &assemble.MovementFields{SpeedMps: &still, DistanceM: &distance}
	m.margin = 2 * float64(apart)
	m.Asks = "Under this sky, which filter goes on first?"
	m.Loops = []Drawn{{drawn, "taken"}} // as it comes out behind the right one, and so well exposed
	m.Question.Given = []string{
		fmt.Sprintf("%s, f/%v, base ISO %.0f", begun(name), r.Camera.Aperture, float64(r.Camera.ISOBase)), fmt.Sprintf("Wanted: 180° at %s fps", r.Look.FPS),
		fmt.Sprintf("The sun is %s; %s", heightWords[sight.Height], facingWords[sight.Facing]),
	}
	m.working = []string{
		fmt.Sprintf("%s, %s, sun %s, %s ground: %v ±%v.", begun(skyWords[sight.Sky]), facingWords[sight.Facing], heightWords[sight.Height], sight.Ground, scene.EV, scene.Spread),
		fmt.Sprintf("%s needs EV %.1f at base ISO, %v stops less.", setup.Question.Setting.Shutter.Spoken(), float64(setup.Question.Setting.EV()), need),
		fmt.Sprintf("%s is the nearest; a reading tells the rest.", nameIn(r.Kit[at].ID, titles)),
	}
	return m, true
}

// isFar reports whether all filters are twice as far apart as usual.
func isFar(kit []assemble.KitFilter) bool {
	sorted := byStops(kit)
	for i := range sorted[1:] {
		a, _ := sorted[i].Takes()
		b, _ := sorted[i+1].Takes()
		if b-a < 2*apart {
			return false
		}
	}
	return true
}

var (
	skyWords = map[light.Seen]string{
		light.SeenClear: "clear", light.SeenHazy: "hazy sun", light.SeenGaps: "clouds with gaps", light.SeenOvercast: "overcast", light.SeenHeavy: "heavy cloud",
	}
	facingWords = map[light.Facing]string{
		light.FromFront: "the subject has it in its face", light.FromSide: "the subject has it at its side", light.FromBehind: "the subject stands before it",
		light.InShade: "the subject is in open shade", light.FromAbove: "the subject is the ground, seen from above",
	}
	heightWords = map[light.Height]string{light.HighSun: "high", light.MiddleSun: "at middle height", light.LowSun: "low"}
)

// lightRange asks how a camera is set for a range of light.
func lightRange(d *draw) (*made, bool) {
	r, name, titles := d.gear(2, 3, 4, 5, 6, 7, 8)
	r.Look = assemble.ShotLook{FPS: rateOf(d, &r), Target: "180°"}
	r.Priority = oneOf(d, glass.BlurFirst, glass.ImageFirst)
	high := 10 + 5.5*d.Float64()
	wide := []float64{0.3, 0.6, 0.9, 1.5, 2, 2.5, 3}[d.IntN(7)]
	text := func(ev float64) string { return fmt.Sprintf("EV %.1f", ev) }
	r.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: text(high)}, Low: &assemble.Entry{Text: text(high - wide)}}
	v, _, ok := best(&r)
	if !ok || len(v.Option.Filters) == 0 {
		return nil, false
	}
	const lock, iso, shutter = "Lock shutter and ISO", "Lock the shutter, ISO automatic in a band", "Shutter automatic within limits"
	right, ok := map[glass.Verdict]string{glass.Lock: lock, glass.FloatISO: iso, glass.FloatShutter: shutter}[v.Option.Verdict]
	band := v.Question.Band
	accepted := float64(band.Bright + band.Dark)
	if !ok || right != aimed(d, lock, iso, shutter) || tooNear(v) {
		return nil, false
	}
	if (right == lock) != (wide < accepted) {
		return nil, false // it is the filter that is not there, and not the range, that says so
	}
	m := &made{shot: &r}
	m.Asks = "The light changes during the take. How is the camera set?"
	keep := map[glass.Priority]string{glass.BlurFirst: "the blur is to stay", glass.ImageFirst: "noise is to stay low"}[r.Priority]
	m.Question.Given = []string{
		fmt.Sprintf("%s behind %s", begun(name), nameIn(v.Option.Filters[0].ID, titles)), fmt.Sprintf("%s to %s; accepted: %v over, %v under", text(high-wide), text(high), band.Bright, band.Dark),
		fmt.Sprintf("180° at %s fps, and %s", r.Look.FPS, keep),
	}
	m.ofSet(right, lock, iso, shutter)
	m.working = []string{fmt.Sprintf("The light spans %.1f stops, %v are accepted.", wide, stop.Stops(accepted)), sentence(v.Option.Consequence(&v.Question))}
	return m, true
}

// tooNear reports whether a range a fifth of a stop narrower or wider is set otherwise: that is
// nothing to be known by heart.
func tooNear(v *shot.Verdict) bool {
	for _, by := range []stop.Stops{0.2, -0.2} {
		q := v.Question
		q.Light.Low = q.Light.Low.Plus(by)
		if q.Light.Low > q.Light.High {
			continue
		}
		if o := glass.Weigh(&q, v.Option.Stack); o.Verdict != v.Option.Verdict {
			return true
		}
	}
	return false
}

package line

import (
	"maps"
	"slices"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/shot"
)

// phrase is what some words say: the part they make, and what that sets. Of the phrases of
// one slot a line has one.
type phrase struct {
	kind       Kind
	slot, text string
	set        func(*reader)
}

// mostWords is the most words that a phrase has.
const mostWords = 5

// phrases are the words that stand for themselves, by how people write them.
var phrases = madePhrases()

func madePhrases() map[string]phrase {
	all := map[string]phrase{}
	add := func(kind Kind, slot, text string, set func(*reader), others ...string) {
		for _, as := range append(others, text) {
			all[strings.ToLower(as)] = phrase{kind, slot, text, set}
		}
	}
	for _, a := range assemble.Archetypes() {
		add(Camera, "camera", a.Called[0], func(r *reader) { r.Archetype = a.Key }, a.Called[1:]...)
	}
	sky := func(v light.Seen, text string, others ...string) {
		add(Light, "sky", text, func(r *reader) { r.sight.Sky = v }, others...)
	}
	sky(light.SeenClear, "clear sky", "sunny", "sun", "in the sun", "sunshine", "clear", "bright sun", "full sun", "blue sky")
	sky(light.SeenHazy, "hazy sun", "hazy", "haze", "light cloud", "thin cloud", "thin clouds")
	sky(light.SeenGaps, "clouds with gaps", "gaps", "broken clouds", "broken cloud", "partly cloudy", "sun and clouds", "sun and cloud")
	sky(light.SeenOvercast, "overcast", "bright overcast", "cloudy", "cloud", "clouds", "grey sky", "gray sky")
	sky(light.SeenHeavy, "heavy cloud", "heavy", "heavy clouds", "heavy overcast", "dark cloud", "dark clouds", "rain")
	facing := func(v light.Facing, text string, others ...string) {
		add(Light, "facing", text, func(r *reader) { r.sight.Facing = v }, others...)
	}
	facing(light.FromFront, "sun behind me", "sun in its face", "front lit", "front light", "from the front", "sun behind the camera")
	facing(light.FromSide, "sun from the side", "from the side", "side lit", "side light", "sidelight")
	facing(light.FromBehind, "against the light", "backlit", "back lit", "backlight", "against the sun", "into the sun", "sun behind it", "sun behind the subject")
	facing(light.InShade, "open shade", "shade", "in the shade", "in shade", "in open shade")
	facing(light.FromAbove, "ground from above", "from above", "top down")
	ground := func(v light.Ground, text string, others ...string) {
		add(Light, "ground", text, func(r *reader) { r.sight.Ground = v }, others...)
	}
	ground(light.OrdinaryGround, "ordinary ground", "grass", "mixed ground")
	ground(light.PaleGround, "pale stone", "sand", "pale sand", "pale rock", "concrete", "beach")
	ground(light.SnowGround, "snow", "salt", "white sand")
	ground(light.WaterGround, "water", "sea", "lake", "water toward the sun")
	ground(light.DarkGround, "dark wood", "forest", "dark leaf", "wet tar", "dark forest")
	height := func(v light.Height, text string, others ...string) {
		add(Light, "height", text, func(r *reader) { r.sight.Height = v }, others...)
	}
	height(light.HighSun, "high sun", "sun high", "noon", "midday")
	height(light.MiddleSun, "middle sun", "sun middle", "sun at middle height")
	height(light.LowSun, "low sun", "sun low", "golden hour")

	activity := func(v motion.ActivityName, text string, others ...string) {
		add(Motion, "activity", text, func(r *reader) { r.Activity = v }, others...)
	}
	activity("stand", "on a tripod", "tripod", "stand", "on a stand", "on the stand")
	activity("held", "handheld", "held", "hand held", "held still", "in the hand", "by hand")
	activity("walk", "walking", "walk", "walking calmly")
	activity("brisk", "brisk walk", "brisk", "walking briskly")
	activity("run", "running", "run")
	activity("helmet", "helmet", "on a helmet", "rough helmet", "helmet mount")
	activity("helmet-smooth", "helmet, smooth road", "helmet smooth road", "helmet on smooth road", "smooth helmet", "helmet smooth")
	activity("bar", "handlebar", "bar", "on a bar", "chest", "on the bar", "chest mount", "on the chest", "bike", "on a bike")
	activity("bar-smooth", "handlebar, smooth road", "handlebar smooth road", "bar smooth road", "bar smooth", "handlebar smooth")
	activity("cruise", "cruise", "fpv cruise", "cruising", "gentle flight", "in gentle flight", "flying")
	activity("freestyle", "freestyle", "fpv freestyle", "hard flight", "in hard flight")

	taste := func(slot, text string, set func(*reader), others ...string) { add(Taste, slot, text, set, others...) }
	for _, b := range usual.Bands {
		others := map[string][]string{"centred": {"centered"}, "wide": {"wide tolerance"}}[b.Name]
		text := map[string]string{"wide": "wide tolerance"}[b.Name]
		if text == "" {
			text = b.Name
		}
		taste("tolerance", text, func(r *reader) { r.Choices.Tolerance = &b.Band }, others...)
	}
	taste("priority", "blur first", func(r *reader) { r.Choices.Priority = glass.BlurFirst }, "keep the shutter")
	taste("priority", "image first", func(r *reader) { r.Choices.Priority = glass.ImageFirst }, "keep iso")
	taste("school", "stabiliser first", func(r *reader) { r.School = shot.StabiliserFirst }, "stabilizer first")
	taste("school", "any shutter", func(r *reader) { r.School = shot.Free }, "free shutter", "shutter free")
	taste("school", "on automatic", func(r *reader) { r.School = shot.ByAutomatic }, "camera on automatic", "plain automatic")
	// A comma within a phrase is no word.
	for as, p := range maps.Clone(all) {
		if bare := strings.ReplaceAll(as, ",", ""); bare != as {
			all[bare] = p
		}
	}
	return all
}

// vocabulary is every phrase, for guessing what was meant.
var vocabulary = slices.Sorted(maps.Keys(phrases))

// fillers are words that say nothing by themselves.
var fillers = map[string]bool{"at": true, "and": true, "with": true, "the": true, "a": true, "an": true, "of": true, "in": true, "on": true, "my": true, "is": true, "away": true, "meter": true, "says": true, "reads": true, "shows": true, "ground": true, "lens": true, "kit": true, "interval": true, "&": true, "+": true, "-": true, "the sun": true}

// saysNothing reports whether a word says nothing of a shot by itself.
func saysNothing(w word) bool { return fillers[w.text] || pictureSize.MatchString(w.text) }

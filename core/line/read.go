package line

import (
	"cmp"
	"maps"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/agnivade/levenshtein"

	"pinhole/core/assemble"
	"pinhole/core/stop"
)

// MaxRunes is the longest line that is read, in characters.
const MaxRunes = 500

// reader reads a line, one stretch of it after the other.
type reader struct {
	*Sentence
	cameras map[string]string // by what they are called
	runes   []rune
	sight   assemble.Sight
	taken   map[string]bool // the slots of the phrases that were said

	now stretch
	at  int // the word of the stretch that is read next

	// saysRate: a frame rate stands somewhere with its unit, so that no bare number is one.
	saysRate bool
	prefers  preference
	// isBySetting: the light is a setting that was read, and nothing says how.
	isBySetting bool
	// isLitTwice: a second reading was left out; isSeen: light is told by eye as well.
	isLitTwice, isSeen bool
}

// matcher reads what begins at the next word, and returns how many words that was: none
// where it is something else.
type matcher func(*reader) int

// matchers are tried in this order. What has more words or a unit goes before what is bare.
var matchers = []matcher{
	(*reader).cameraName, (*reader).timeLapse, (*reader).view, (*reader).rate, (*reader).angle, (*reader).still, (*reader).wanted, (*reader).readingAt,
	(*reader).isoCeiling, (*reader).cameraSettings, (*reader).target, (*reader).layers, (*reader).aim, (*reader).lamps, (*reader).shaking, (*reader).turning, (*reader).passing,
	(*reader).noGlass, (*reader).effect, (*reader).phrase, (*reader).ring, (*reader).bareRate, (*reader).bareRing,
}

// A preference settles what a setting is that a line may mean either way.
type preference int

const (
	asItStands     preference = iota // in a look it is wanted, elsewhere it was read
	settingAsLight                   // it is what a meter said
	timeAsWish                       // it is what is wanted
)

// Read reads a line. The names are those of the cameras that may be named in it.
//
// Where a setting in a look would leave a line without light, it is the light if hardly anyone
// would want its angle; where a line without > tells of light beside a setting, that is what is
// wanted if somebody would.
func Read(text string, names ...string) *Sentence {
	cameras := called(joined(flat(stretches(text))), names)
	r := read(text, cameras, asItStands)
	isOdd := func() bool { return oddAt(r.FPS, cmp.Or(r.ReadAt.Shutter, r.wish())) }
	switch {
	case r.Light == nil && isOdd():
		if lit := read(text, cameras, settingAsLight); lit.Light != nil {
			return lit.Sentence
		}
	case r.isBySetting && (r.isLitTwice || r.isSeen) && !isOdd() && !strings.ContainsAny(text, ">→"):
		if wished := read(text, cameras, timeAsWish); wished.Light != nil && wished.Target != "" {
			return wished.Sentence
		}
	}
	return r.Sentence
}

// usual are the defaults where a line and its camera say nothing.
var usual = assemble.UsualPresets()

// oddAngle is a shutter angle that hardly anyone wants: what a meter said is often shorter.
const oddAngle = 45

// oddAt reports whether a time is of an odd angle at a frame rate, the usual one if none is said.
func oddAt(fps string, t stop.Shutter) bool {
	rate, err := stop.ParseRate(cmp.Or(fps, usual.Rate))
	return err == nil && rate > 0 && t > 0 && t.Angle(rate) < oddAngle
}

// wish is the time that is wanted, 0 where none is said.
func (r *reader) wish() stop.Shutter {
	t, err := stop.ParseShutter(r.Target, 0)
	if err != nil {
		return 0
	}
	return t
}

func read(text string, cameras map[string]string, prefers preference) *reader {
	r := &reader{Sentence: &Sentence{Parts: []Part{}, Unread: []Unread{}}, cameras: cameras, taken: map[string]bool{}, prefers: prefers}
	runes := []rune(text)
	if len(runes) > MaxRunes {
		r.Unread = append(r.Unread, Unread{string(runes[MaxRunes:]), MaxRunes, len(runes), []string{}})
		runes = runes[:MaxRunes]
	}
	r.runes = runes
	all := stretches(string(runes))
	r.saysRate = slices.ContainsFunc(all, stretch.saysRate)
	for _, s := range all {
		r.now, r.at = s, 0
		r.now.isLook = s.isLook || slices.ContainsFunc(s.words, saysLook)
		missed := 0
		for r.at < len(s.words) {
			if n := r.match(); n > 0 {
				r.miss(missed)
				missed = 0
				r.at += n
				continue
			}
			r.at++
			missed++
		}
		r.miss(missed)
	}
	r.isSeen = r.sight != (assemble.Sight{})
	r.settleLight()
	slices.SortStableFunc(r.Parts, func(a, b Part) int { return a.Start - b.Start })
	slices.SortStableFunc(r.Unread, func(a, b Unread) int { return a.Start - b.Start })
	return r
}

// called returns the cameras by what they are called in a line, in lower case: by their whole
// names, and by a beginning of one that is no other camera's and says nothing by itself, as "row
// walker" for "Row walker (pocket gimbal)". One word is enough before a bracket alone.
func called(line string, names []string) map[string]string {
	cameras, wholes := map[string]string{}, make([]string, len(names))
	for i, name := range names {
		words := flat(stretches(name))
		wholes[i] = joined(words)
		for n := 1; n < len(words) && strings.Contains(line, words[0].text); n++ {
			short := joined(words[:n])
			switch of, isTaken := cameras[short]; {
			case n == 1 && words[1].text[0] != '(':
			case isTaken && of != name:
				cameras[short] = "" // two begin so: neither is meant
			case isTaken || strings.Contains(line, short) && len(Read(short).Unread) > 0:
				cameras[short] = name
			}
		}
	}
	for i, name := range names {
		cameras[wholes[i]] = name
	}
	maps.DeleteFunc(cameras, func(_, name string) bool { return name == "" })
	return cameras
}

func flat(all []stretch) (words []word) {
	for _, s := range all {
		words = append(words, s.words...)
	}
	return words
}

func (r *reader) match() int {
	for _, m := range matchers {
		if n := m(r); n > 0 {
			return n
		}
	}
	return 0
}

// rest are the words from the next one on.
func (r *reader) rest() []word { return r.now.words[r.at:] }

// peek is the text of the i-th word from the next one on, "" past the last.
func (r *reader) peek(i int) string {
	if rest := r.rest(); i < len(rest) {
		return rest[i].text
	}
	return ""
}

// say adds the part that the next n words make.
func (r *reader) say(kind Kind, text string, n int) int {
	words := r.rest()
	r.Parts = append(r.Parts, Part{Kind: kind, Text: text, Start: words[0].start, End: words[n-1].end})
	return n
}

// spoil notes the next n words as not read, though what they are is known.
func (r *reader) spoil(n int) int {
	r.at += n
	r.miss(n)
	r.at -= n
	return n
}

// miss notes the last words that could not be read, but for fillers at their ends.
func (r *reader) miss(words int) {
	all := r.now.words[r.at-words : r.at]
	for len(all) > 0 && saysNothing(all[0]) {
		all = all[1:]
	}
	for len(all) > 0 && saysNothing(all[len(all)-1]) {
		all = all[:len(all)-1]
	}
	if len(all) == 0 {
		return
	}
	from, to := all[0].start, all[len(all)-1].end
	r.Unread = append(r.Unread, Unread{string(r.runes[from:to]), from, to, r.guesses(joined(all))})
}

// mostGuesses is how many things a stretch that could not be read might be.
const mostGuesses = 3

// guesses are the phrases and cameras that are spelled much like a text, and what a bare
// number may be.
func (r *reader) guesses(text string) []string {
	type guess struct {
		says string
		far  int
	}
	var all []guess
	size := utf8.RuneCountInString(text)
	consider := func(as, says string) {
		length := utf8.RuneCountInString(as)
		most := 1 + length/4
		if size > length+most || length > size+most {
			return // as far apart as their lengths at least
		}
		if far := levenshtein.ComputeDistance(text, as); far <= most {
			all = append(all, guess{says, far})
		}
	}
	for _, as := range vocabulary {
		consider(as, phrases[as].text)
	}
	for _, as := range slices.Sorted(keys(r.cameras)) {
		consider(as, r.cameras[as])
	}
	slices.SortStableFunc(all, func(a, b guess) int { return a.far - b.far })
	says := []string{}
	for _, g := range all {
		if !slices.Contains(says, g.says) && len(says) < mostGuesses {
			says = append(says, g.says)
		}
	}
	if number.MatchString(text) && amount(text) > 0 {
		says = append(says, text+" fps", "ND"+text, "1/"+text)
	}
	if strings.HasPrefix(text, "night") {
		says = append(says, "night filter")
	}
	if strings.HasSuffix(text, "iso") || strings.HasPrefix(text, "iso") {
		says = append(says, "iso100")
	}
	return says[:min(len(says), mostGuesses)]
}

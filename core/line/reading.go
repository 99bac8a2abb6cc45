package line

import (
	"cmp"
	"slices"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// reading is light that was read, as it is put together from its words.
type reading struct {
	kind            string // auto or bias, where that was said
	aperture        stop.FNumber
	shutter         stop.Shutter
	iso             stop.ISO
	fText, tText    string
	isoText, valued string // valued: EV 14.3, 6400 lux
	bias            string
	glass           []string
	on              stop.Stops
}

// readingAt reads a reading: a setting, EV, lux, the camera's own automatic or its bias, with
// the glass that was on; from one to another where the shot sees a range.
func (r *reader) readingAt() int {
	at, n := r.oneReading(0, "")
	isSet := at.valued == "" && at.kind == "" && len(at.glass) == 0 && r.peek(1) != "to" // a range is read
	isWish := r.now.isLook && !(r.prefers == settingAsLight && (at.aperture != 0 || at.iso != 0)) || r.prefers == timeAsWish
	if isSet && isWish {
		return 0 // in a look a time is the one that is wanted
	}
	if n == 0 && r.peek(1) == "to" { // the unit stands behind the second amount
		if high, words := r.value(2, ""); words > 0 {
			at.valued, n = r.value(0, (&reading{valued: high}).form())
		}
	}
	if n == 0 && r.peek(0) == "ev" && signed.MatchString(r.peek(1)) {
		return r.spoil(2) // of no light on earth, and no filter either
	}
	if n == 0 {
		return 0
	}
	if r.Light != nil { // of two readings the first counts
		r.isLitTwice = true
		return r.spoil(n)
	}
	read, text := at.light(), at.text()
	if r.peek(n) == "to" {
		if low, words := r.oneReading(n+1, at.form()); words > 0 && low.form() == at.form() {
			if ranged := rangeOf(&at, &low); ranged != nil {
				read, text, n = ranged, text+" to "+low.short(), n+1+words
			}
		}
	} else if m := spanWord.FindStringSubmatch(r.spanAt(0)); m != nil && at.valued != "" {
		low := at
		low.valued = strings.Replace(at.valued, tidy(m[1]), tidy(m[2]), 1)
		_, err := light.ParseWritten(low.valued)
		if ranged := rangeOf(&at, &low); ranged != nil && err == nil {
			read, text = ranged, at.text()+" to "+tidy(m[2])
		}
	}
	r.Light, r.isBySetting = read, isSet
	if at.aperture != 0 {
		r.ReadAt = stop.Setting{Aperture: at.aperture, Shutter: at.shutter, ISO: at.iso}
	} else {
		r.ReadAt = stop.Setting{Shutter: at.shutter, ISO: at.iso}
	}
	return r.say(Light, text, n)
}

// spanAt is the word from the i-th on that may hold a range, as in EV 11-14.
func (r *reader) spanAt(i int) string {
	text := strings.TrimPrefix(r.peek(i), "ev")
	if text == "" {
		text = r.peek(i + 1)
	}
	return strings.TrimSuffix(strings.TrimSuffix(text, "ev"), "lux")
}

// rangeOf is the light between two readings of one form, whichever is named first.
func rangeOf(a, b *reading) *assemble.ShotLight {
	high, low := a.light(), b.light()
	if high.Kind != low.Kind {
		return nil
	}
	if a.brightness() < b.brightness() {
		high, low = low, high
	}
	return &assemble.ShotLight{Kind: high.Kind, At: high.At, Low: low.At}
}

// brightness tells which of two readings of one form is of more light, in stops from a zero
// of its own: what a reading leaves out is the same for both.
func (a *reading) brightness() stop.Stops {
	if a.valued != "" {
		w, err := light.ParseWritten(a.valued)
		if err != nil {
			return 0 // it was read as this before
		}
		if w.Form == light.AsLux {
			return stop.Stops(stop.FromLux(w.Lux))
		}
		return stop.Stops(w.EV)
	}
	set := stop.Setting{Aperture: cmp.Or(a.aperture, 1), Shutter: cmp.Or(a.shutter, 1), ISO: cmp.Or(a.iso, 100)}
	bias, err := stop.ParseBias(cmp.Or(a.bias, "0"))
	if err != nil {
		return 0 // it was read as this before
	}
	return stop.Stops(set.EV()) + a.on + bias
}

// value reads EV or lux in one word or two; form is what the words before it were, so that a
// second amount needs no unit.
func (r *reader) value(i int, form string) (text string, n int) {
	first, second := r.peek(i), r.peek(i+1)
	bare := func(s string) string { // of a range the first
		if m := spanWord.FindStringSubmatch(s); m != nil {
			return m[1]
		}
		return s
	}
	try := func(amount, unit string, words int) bool {
		amount = bare(amount)
		if !signed.MatchString(amount) || strings.Contains(amount, "/") {
			return false
		}
		text = "EV " + minus(amount)
		if unit != "ev" {
			text = minus(amount) + " " + unit
		}
		if _, err := light.ParseWritten(text); err != nil {
			return false
		}
		n = words
		return true
	}
	lux := map[string]string{"lux": "lux", "lx": "lux", "klx": "klx"}
	switch {
	case first == "ev" && try(second, "ev", 2),
		strings.HasPrefix(first, "ev") && try(first[2:], "ev", 1),
		strings.HasSuffix(first, "ev") && try(strings.TrimSuffix(first, "ev"), "ev", 1),
		second == "ev" && form != "lux" && !number.MatchString(r.peek(i+2)) && try(first, "ev", 2),
		lux[second] != "" && try(first, lux[second], 2),
		strings.HasSuffix(first, "klx") && try(strings.TrimSuffix(first, "klx"), "klx", 1),
		strings.HasSuffix(first, "lux") && try(strings.TrimSuffix(first, "lux"), "lux", 1),
		(form == "EV" || form == "lux" || form == "klx") && try(first, strings.ToLower(form), 1):
		return text, n
	}
	return "", 0
}

// minus writes a number without idle zeros, with its sign where that is minus.
func minus(text string) string { return strings.TrimPrefix(withSign(text), "+") }

// form is what a reading was written in.
func (a *reading) form() string {
	switch {
	case a.valued != "" && strings.HasPrefix(a.valued, "EV"):
		return "EV"
	case strings.HasSuffix(a.valued, "klx"):
		return "klx"
	case a.valued != "":
		return "lux"
	case a.kind != "":
		return a.kind
	case a.aperture != 0:
		return "meter"
	}
	return "auto"
}

// oneReading reads one reading from the i-th word on. It is none where nothing tells of
// light: an aperture or an ISO alone are the camera's.
func (r *reader) oneReading(i int, form string) (a reading, n int) {
	if text, words := r.value(i, form); words > 0 {
		a.valued = text
		return a, words
	}
	from := i
	if form == "auto" || form == "bias" {
		a.kind = form
	}
	for {
		word := r.peek(i)
		switch {
		case word == "auto" && a.kind == "":
			a.kind = "auto"
			i++
			continue
		case word == "bias" && a.bias == "" && signed.MatchString(r.peek(i+1)) && !strings.Contains(r.peek(i+1), "/"):
			if v, err := stop.ParseBias(r.peek(i + 1)); err != nil || v.Abs() > 10 {
				return a, 0
			}
			a.kind, a.bias = "bias", withSign(r.peek(i+1))
			i += 2
			continue
		case word == "at" && i > from && (fraction.MatchString(r.peek(i+1)) || fNumber.MatchString(r.peek(i+1)) || strings.HasPrefix(r.peek(i+1), "iso")):
			i++
			continue
		case word == "shutter" && (a.kind == "auto" || r.prefers == settingAsLight) && a.shutter == 0:
			i++
			continue
		case word == "behind" || word == "through" || word == "with" && i > from || r.isOn(i):
			if label, words := r.glassOf(i); words > 0 && len(a.glass) < mostRequired {
				if l, err := glass.ParseLabel(label); err == nil && l.Kind != glass.Variable {
					a.glass, a.on = append(a.glass, label), a.on+l.Total()
					i += words
					continue
				}
			}
		case fNumber.MatchString(word) && a.aperture == 0:
			if f, err := stop.ParseFNumber(word[1:]); err == nil {
				a.aperture, a.fText = f, "f"+tidy(word[1:])
				i++
				continue
			}
		case strings.HasPrefix(word, "iso") && a.iso == 0:
			m, words := isoWord.FindStringSubmatch(word), 1
			if word == "iso" {
				m, words = isoWord.FindStringSubmatch("iso"+r.peek(i+1)), 2
			}
			if m != nil && m[2] == "" {
				if iso, err := stop.ParseISO(m[1]); err == nil {
					a.iso, a.isoText = iso, "iso"+tidy(m[1])
					i += words
					continue
				}
			}
		case a.shutter == 0 && (fraction.MatchString(word) || seconds.MatchString(word) || number.MatchString(word) && (a.kind == "auto" || a.aperture != 0 && !r.now.isLook && amount(word) >= 24)):
			if text, t, ok := shutterText(word); ok {
				a.shutter, a.tText = t, text
				i++
				continue
			}
		}
		break
	}
	if a.shutter == 0 && a.kind != "bias" || a.kind == "bias" && a.bias == "" {
		return a, 0
	}
	return a, i - from
}

// isOn reports whether a filter stands at the i-th word that is said to be on: ND8 on.
func (r *reader) isOn(i int) bool {
	if !slices.ContainsFunc(r.now.words, func(w word) bool { return w.text == "on" }) {
		return false
	}
	_, n := r.label(i, false)
	return n > 0 && r.peek(i+n) == "on" && !number.MatchString(r.peek(i+n+1))
}

// glassOf reads the glass that a reading was taken through: behind ND8, with ND8 on, ND8 on.
func (r *reader) glassOf(i int) (label string, words int) {
	word := r.peek(i)
	if word != "behind" && word != "through" {
		before := 0
		if word == "with" { // with CPL alone asks for it
			before = 1
		}
		if !r.isOn(i + before) {
			return "", 0
		}
		label, words = r.label(i+before, false)
		return label, before + words + 1
	}
	if label, words = r.label(i+1, false); words == 0 {
		label, words = r.label(i+1, true) // a bare number there is nothing else
	}
	if words == 0 {
		return "", 0
	}
	return label, 1 + words
}

// light is the reading as a shot takes it.
func (a *reading) light() *assemble.ShotLight {
	switch {
	case a.valued != "" && a.form() == "EV":
		return &assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: a.valued}}
	case a.valued != "":
		return &assemble.ShotLight{Kind: "lux", At: &assemble.Entry{Text: a.valued}}
	}
	e := &assemble.Entry{Shutter: a.tText, ISO: strings.TrimPrefix(a.isoText, "iso"), Bias: a.bias}
	if len(a.glass) > 0 {
		e.Stops, e.Glass = &a.on, a.glass
	}
	switch {
	case a.kind == "bias":
		return &assemble.ShotLight{Kind: "bias", At: e}
	case a.aperture == 0 || a.kind == "auto" || len(a.glass) > 0:
		return &assemble.ShotLight{Kind: "auto", At: e}
	}
	return &assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: a.setting()}}
}

// setting is what was set, as f2 1/1250 iso50.
func (a *reading) setting() string {
	var words []string
	for _, text := range []string{a.fText, a.tText, a.isoText} {
		if text != "" {
			words = append(words, text)
		}
	}
	return strings.Join(words, " ")
}

// text is the reading as it is written in the canonical line.
func (a *reading) text() string {
	if a.valued != "" {
		return a.valued
	}
	text := a.setting()
	switch {
	case a.kind == "bias":
		text = strings.TrimSpace("bias " + a.bias + " " + text)
	case a.light().Kind == "auto":
		text = "auto " + text
	}
	for _, g := range a.glass {
		text += " behind " + g
	}
	return text
}

// short is the second reading of a range: its form is that of the first.
func (a *reading) short() string {
	if a.valued != "" {
		return strings.TrimPrefix(a.valued, "EV ")
	}
	return strings.TrimPrefix(a.text(), "auto ")
}

// settleLight makes light of what was seen, where nothing was read; words of what was seen
// beside a reading say nothing more, and are given back as not read.
func (r *reader) settleLight() {
	if r.sight == (assemble.Sight{}) {
		return
	}
	if r.Light == nil {
		sight := r.sight
		if sight.Sky == "" {
			sight.Sky = light.SeenClear
		}
		r.Light = &assemble.ShotLight{Kind: "sky", Sky: &sight}
		return
	}
	var kept []Part
	for _, p := range r.Parts {
		if seen, isPhrase := phrases[strings.ToLower(p.Text)]; p.Kind == Light && isPhrase && seen.kind == Light {
			r.Unread = append(r.Unread, Unread{string(r.runes[p.Start:p.End]), p.Start, p.End, []string{}})
			continue
		}
		kept = append(kept, p)
	}
	r.Parts = kept
}

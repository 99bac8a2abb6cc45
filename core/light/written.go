package light

import (
	"errors"
	"regexp"
	"strings"

	"pinhole/core/stop"
)

// Written is a reading as people write it down: a camera setting, an exposure
// value, incident light or a bias. Exactly one form is filled in; of a setting,
// what was not written is zero.
type Written struct {
	Form    Form
	Setting stop.Setting
	EV      stop.EV
	Lux     float64
	Bias    stop.Stops
}

// Form says which form a reading was written in.
type Form string

// The forms.
const (
	AsSetting Form = "setting" // f2 1/1250 iso50
	AsEV      Form = "ev"      // EV 14.3
	AsLux     Form = "lux"     // 6400 lux
	AsBias    Form = "bias"    // bias +0.7
)

// Causes of a reading that cannot be read.
var (
	// ErrReading: a word of the text is none of the known forms.
	ErrReading = errors.New("write f2 1/1250 iso50, EV 14.3, 6400 lux or bias +0.7")
	// ErrTwice: the same quantity stands twice, or two forms are mixed.
	ErrTwice = errors.New("write each quantity once and one form only")
	// ErrReach: light that no scene on earth has.
	ErrReach = errors.New("light lies between EV -20 and 40, a bias between -10 and 10")
)

// The reach of a written reading.
const (
	darkestEV, brightestEV = stop.EV(-20), stop.EV(40)
	widestBias             = stop.Stops(10)
)

// maxWritten is the longest text that is read, in bytes.
const maxWritten = 100

// ParseWritten reads one reading: "f2 1/1250 iso50" in any order and with parts
// missing, or without its marks in the order in which meters show it, "2 1/1250 50";
// "EV 14.3", "LV 14.3" or "14.3 ev", at ISO 100; "6400 lux" or "6.4 klx"; "bias +0.7". A number
// alone is an EV below 20, which no light on earth reaches, and from there on the shutter of a
// setting. Errors are *stop.ParseError with cause ErrReading, ErrTwice or ErrReach, or the cause
// of the part that could not be read.
func ParseWritten(text string) (Written, error) {
	w, err := parseWritten(text)
	if err != nil {
		if len(text) > maxWritten {
			text = text[:maxWritten] + "…"
		}
		return Written{}, &stop.ParseError{What: "a reading", Input: text, Err: cause(err)}
	}
	return w, nil
}

func cause(err error) error {
	var parse *stop.ParseError
	if errors.As(err, &parse) {
		return parse.Err
	}
	return err
}

// joiner closes the gaps that people leave inside one quantity, after parted set apart what is
// not one.
var (
	parted    = strings.NewReplacer(", ", " ", " @ ", " ", "@", " ", " at ", " ")
	joiner    = strings.NewReplacer("iso ", "iso", "f/ ", "f", "f/", "f", "f ", "f", " / ", "/", "lv ", "ev", "lv", "ev", "ev ", "ev", "bias ", "bias", " lux", "lux", " lx", "lx", " klx", "klx", " ev", "ev", ",", ".")
	thousands = regexp.MustCompile(`^([0-9]{1,3})[ '’]([0-9]{3} ?(?:lux|lx))$`)
)

// leastShutter is the least number that is a shutter where it stands alone.
const leastShutter = 20

// What an aperture and an ISO may be that are written without their marks.
const (
	widestBare, narrowestBare = 0.7, 32
	leastBareISO              = 25
)

var (
	bareNumber = regexp.MustCompile(`^[0-9]+(\.[0-9]+)?$`)
	bareTime   = regexp.MustCompile(`^1/[0-9]+(\.[0-9]+)?s?$`)
)

// IsBareSetting reports whether three words are aperture, time and ISO without their marks, in
// the order in which meters show them: 2.8 1/1600 100.
func IsBareSetting(aperture, time, iso string) bool {
	if !bareNumber.MatchString(aperture) || !bareTime.MatchString(time) || !bareNumber.MatchString(iso) {
		return false
	}
	n, err1 := stop.ParseSigned(aperture)
	i, err2 := stop.ParseSigned(iso)
	return err1 == nil && err2 == nil && n >= widestBare && n <= narrowestBare && i >= leastBareISO
}

func parseWritten(text string) (Written, error) {
	if len(text) > maxWritten {
		return Written{}, ErrReading
	}
	var w Written
	plain := strings.Join(strings.Fields(strings.ToLower(text)), " ")
	if strings.HasSuffix(plain, "x") { // of lux
		plain = thousands.ReplaceAllString(plain, "$1$2")
	}
	words := strings.Fields(joiner.Replace(parted.Replace(plain)))
	switch {
	case len(words) == 0:
		return Written{}, ErrReading
	case len(words) == 1:
		if v, err := stop.ParseSigned(words[0]); err == nil && v < leastShutter {
			return w, w.takeEV(words[0])
		}
	case len(words) == 2 && strings.HasPrefix(words[0], "ev") && words[1] == "iso100":
		words = words[:1] // as meters show it anyway
	case len(words) == 3 && IsBareSetting(words[0], words[1], words[2]):
		words[0], words[2] = "f"+words[0], "iso"+words[2]
	case len(words) == 3 && strings.HasPrefix(words[0], "f") && !strings.HasPrefix(words[1], "iso") && bareNumber.MatchString(words[2]):
		words[2] = "iso" + words[2]
	}
	for _, word := range words {
		if err := w.take(word); err != nil {
			return Written{}, err
		}
	}
	return w, nil
}

// take reads one word of the text.
func (w *Written) take(word string) error {
	if ev, ok := strings.CutPrefix(word, "ev"); ok {
		return w.takeEV(ev)
	}
	if ev, ok := strings.CutSuffix(word, "ev"); ok {
		return w.takeEV(ev)
	}
	if bias, ok := strings.CutPrefix(word, "bias"); ok {
		return w.takeBias(bias)
	}
	for _, unit := range []struct {
		name string
		lux  float64
	}{{"klx", 1000}, {"lux", 1}, {"lx", 1}} {
		if amount, ok := strings.CutSuffix(word, unit.name); ok {
			return w.takeLux(amount, unit.lux)
		}
	}
	return w.takeSetting(word)
}

// become notes the form, unless another one was written before.
func (w *Written) become(f Form) error {
	if w.Form != "" {
		return ErrTwice
	}
	w.Form = f
	return nil
}

func (w *Written) takeEV(text string) error {
	v, err := stop.ParseSigned(text)
	if err != nil {
		return ErrReading
	}
	w.EV = stop.EV(v)
	if w.EV < darkestEV || w.EV > brightestEV {
		return ErrReach
	}
	return w.become(AsEV)
}

func (w *Written) takeBias(text string) error {
	v, err := stop.ParseSigned(text)
	if err != nil {
		return ErrReading
	}
	w.Bias = stop.Stops(v)
	if w.Bias.Abs() > widestBias {
		return ErrReach
	}
	return w.become(AsBias)
}

func (w *Written) takeLux(text string, unit float64) error {
	v, err := stop.ParseSigned(text)
	if err != nil {
		return ErrReading
	}
	w.Lux = v * unit
	if w.Lux <= 0 || stop.FromLux(w.Lux) < darkestEV || stop.FromLux(w.Lux) > brightestEV {
		return ErrReach
	}
	return w.become(AsLux)
}

// takeSetting reads a part of a camera setting: f2, iso50, or else a shutter time.
func (w *Written) takeSetting(word string) error {
	if w.Form != AsSetting {
		if err := w.become(AsSetting); err != nil {
			return err
		}
	}
	switch {
	case strings.HasPrefix(word, "f"):
		return once(&w.Setting.Aperture, word, stop.ParseFNumber)
	case strings.HasPrefix(word, "iso"):
		return once(&w.Setting.ISO, word, stop.ParseISO)
	}
	return once(&w.Setting.Shutter, word, func(s string) (stop.Shutter, error) { return stop.ParseShutter(s, 0) })
}

// once reads a quantity that was not written before.
func once[T ~float64](into *T, word string, parse func(string) (T, error)) error {
	if *into != 0 {
		return ErrTwice
	}
	v, err := parse(word)
	if err != nil {
		return ErrReading
	}
	*into = v
	return nil
}

package measure

import (
	"cmp"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Option is what a measurement is given.
type Option struct {
	// Name as on the command line: without-exposure. The bare path is "file".
	Name   string
	IsFile bool
	// MaxBytes bounds a file, MaxFileBytes by default.
	MaxBytes int
	// Many options may be given again and again.
	Many     bool
	Required bool
	Doc      string
}

// MostBytes returns how long a file of the option may be.
func (p Option) MostBytes() int { return cmp.Or(p.MaxBytes, MaxFileBytes) }

// Operation is a measurement by its name.
type Operation struct {
	Name    string
	Summary string
	Options []Option
	// Answer is the type of what is answered.
	Answer reflect.Type
	answer func(Input) (any, error)
}

// operation returns a measurement with the type of its answer.
func operation[A any](name, summary string, answer func(Input) (*A, error), options ...Option) Operation {
	return Operation{name, summary, options, reflect.TypeFor[A](), func(in Input) (any, error) {
		a, err := answer(in)
		if err != nil {
			return nil, err
		}
		return a, nil
	}}
}

// Input is what came in, by the names of options.
type Input struct {
	Files map[string][]File
	Texts map[string][]string
}

func (in Input) has(option string) bool { return len(in.Files[option])+len(in.Texts[option]) > 0 }

// file returns the file of an option that was given one.
func (in Input) file(option string) File      { return in.Files[option][0] }
func (in Input) files(option string) []File   { return in.Files[option] }
func (in Input) texts(option string) []string { return in.Texts[option] }

// text returns what an option says, "" for one that was not given.
func (in Input) text(option string) string {
	if all := in.Texts[option]; len(all) > 0 {
		return all[0]
	}
	return ""
}

// number returns the number of an option, 0 where it was not given; it lies within a range.
func (in Input) number(option string, least, most float64) (float64, error) {
	text := in.text(option)
	if text == "" {
		return 0, nil
	}
	v, err := stop.ParseSigned(text)
	if err != nil || v < least || v > most {
		return 0, &problem.Fault{Field: option, Value: text, Allowed: fmt.Sprintf("a number from %v to %v", least, most)}
	}
	return v, nil
}

func (in Input) stops(option string, least, most float64) (stop.Stops, error) {
	v, err := in.number(option, least, most)
	return stop.Stops(v), err
}

// oneOf returns the word of an option, "" where it was not given.
func (in Input) oneOf(option string, words ...string) (string, error) {
	text := in.text(option)
	if text != "" && !slices.Contains(words, text) {
		return "", &problem.Fault{Field: option, Value: text, Allowed: "one of " + strings.Join(words, ", ")}
	}
	return text, nil
}

var (
	oneFile  = Option{Name: "file", IsFile: true, Required: true, Doc: "the file to read"}
	without  = Option{Name: "without", IsFile: true, Required: true, Doc: "the frame without the filter"}
	with     = Option{Name: "with", IsFile: true, Required: true, Doc: "the frame with it"}
	curveArg = Option{Name: "curve", IsFile: true, Doc: "the answer of curve, for profiles that are not sRGB"}
	onStops  = Option{Name: "on", Doc: "stops of the filters that were on"}
)

var operations = []Operation{
	operation("frame", "Read a frame: clipping, histogram, advice in stops", measureFrame,
		oneFile, Option{Name: "kit", IsFile: true, Doc: "JSON list of filters to choose from"}, onStops),
	operation("filter", "Measure what a filter cuts, by frames or by readings of the automatic", measureFilter,
		Option{Name: "without", IsFile: true, Many: true, Doc: "a frame without the filter"},
		Option{Name: "with", IsFile: true, Many: true, Doc: "a frame with it"},
		Option{Name: "without-exposure", Many: true, Doc: "f2.8 1/500 iso100; once for all of its side"},
		Option{Name: "with-exposure", Many: true, Doc: "f2.8 1/500 iso100; once for all of its side"},
		curveArg,
		Option{Name: "share", Doc: "0 to 1: where one frame with it was taken between two without, where the light drifts steadily; the middle by default"},
		Option{Name: "without-reading", Many: true, Doc: "what the automatic chose: 1/1000 iso100, or 1/50..1/40 iso100"},
		Option{Name: "with-reading", Many: true, Doc: "what it chose with the filter on"}),
	operation("curve", "Find a profile's transfer curve from a bracket", measureCurve,
		Option{Name: "frame", IsFile: true, Many: true, Required: true, Doc: "a frame of the bracket, without a filter; three at least"},
		Option{Name: "frame-exposure", Many: true, Doc: "1/500 iso100, one for each"}),
	operation("corners", "Measure how a filter darkens the corners", measureCorners, without, with, curveArg),
	operation("sharpness", "Measure what a filter takes of sharpness, by a slanted edge", measureSharpness,
		without, with, Option{Name: "roi", Doc: "x,y,width,height of the edge; the middle by default"}, curveArg),
	operation("flare", "Measure the veil that a filter lays over the dark", measureFlare, without, with, curveArg),
	operation("telemetry", "Read how a clip was exposed, from its subtitles or a table", measureTelemetry,
		oneFile, Option{Name: "target", Doc: "1/100 or 180°; 180° by default where the frame rate is known"},
		Option{Name: "fps", Doc: "frames per second, where the file does not say"}, Option{Name: "aperture", Doc: "f-number, where the file does not say"},
		onStops, Option{Name: "iso-base", Doc: "the lowest ISO, where it is not in the file"}),
	operation("take", "Measure a clip: movement, the shutter's share, flicker, wobble, exposure", measureTake,
		Option{Name: "file", IsFile: true, Required: true, MaxBytes: MaxTakeBytes, Doc: "YUV4MPEG2 of 8 bits; its luma is read"},
		Option{Name: "request", Doc: "JSON of what is known beside it: fps, widthPx, hfovDeg, projection, readoutS, shutterS, mainsHz, bitsPerFrame, times"},
		Option{Name: "shot", IsFile: true, Doc: "JSON of the shot it is a take of, as calc shot takes it: what was meant is laid beside"}),
	operation("takes", "Join what windows of one clip say, each measured by take", joinTakes,
		Option{Name: "file", IsFile: true, Required: true, Doc: "JSON: parts, each the answer of take, continued where it begins with the last frame of the one before"},
		Option{Name: "request", Doc: "JSON of what is known beside it, as take has it"},
		Option{Name: "shot", IsFile: true, Doc: "JSON of the shot it is a take of, as calc shot takes it"}),
	operation("gyro", "Read how a camera shook, from the log of a gyro", measureGyro,
		oneFile, Option{Name: "rate-unit", Doc: "deg/s or rad/s, where the heading does not say"}, Option{Name: "time-unit", Doc: "s, ms, us or ns"},
		Option{Name: "columns", Doc: "the three of the gyro, with commas between"},
		Option{Name: "stabiliser", Doc: "none, electronic, gimbal, gimbal+electronic or post: what limit follows"},
		Option{Name: "shutter", Doc: "1/100: what it leaves of each frequency"},
		Option{Name: "motor-rpm", Doc: "turns a minute of a motor: its peaks are named"}, Option{Name: "blades", Doc: "with it: the blades of its propeller"},
		Option{Name: "width-px", Doc: "of the picture"}, Option{Name: "hfov-deg", Doc: "field of view, degrees"}, Option{Name: "projection", Doc: "rectilinear or equidistant"}),
}

// Operations returns every measurement.
func Operations() []Operation { return operations }

// Named returns a measurement by its name.
func Named(name string) (Operation, bool) {
	i := slices.IndexFunc(operations, func(o Operation) bool { return o.Name == name })
	if i < 0 {
		return Operation{}, false
	}
	return operations[i], true
}

// Run answers the measurement. The error is a *problem.Document for input that cannot be read.
func (o Operation) Run(in Input) (any, error) {
	answer, err := o.run(in)
	var fault *problem.Fault
	if errors.As(err, &fault) {
		return nil, problem.Invalid(*fault)
	}
	return answer, err
}

func (o Operation) run(in Input) (any, error) {
	for name := range in.Files {
		if !slices.ContainsFunc(o.Options, func(p Option) bool { return p.Name == name && p.IsFile }) {
			return nil, &problem.Fault{Field: name, Value: "a file", Allowed: "files for " + o.names(true)}
		}
	}
	for name := range in.Texts {
		if !slices.ContainsFunc(o.Options, func(p Option) bool { return p.Name == name && !p.IsFile }) {
			return nil, &problem.Fault{Field: name, Value: in.text(name), Allowed: "texts for " + o.names(false)}
		}
	}
	for _, p := range o.Options {
		n := len(in.Files[p.Name]) + len(in.Texts[p.Name])
		if p.Required && n == 0 {
			return nil, &problem.Fault{Field: p.Name, Allowed: p.Doc}
		}
		if !p.Many && n > 1 {
			return nil, &problem.Fault{Field: p.Name, Value: strconv.Itoa(n), Allowed: "once"}
		}
		for _, f := range in.Files[p.Name] {
			if most := p.MostBytes(); len(f.Bytes) > most {
				return nil, &problem.Fault{Field: p.Name, Value: fmt.Sprintf("%s, %d bytes", f.Name, len(f.Bytes)), Allowed: fmt.Sprintf("at most %d bytes", most)}
			}
		}
	}
	return o.answer(in)
}

func (o Operation) names(files bool) string {
	var all []string
	for _, p := range o.Options {
		if p.IsFile == files {
			all = append(all, p.Name)
		}
	}
	if len(all) == 0 {
		return "none"
	}
	return strings.Join(all, ", ")
}

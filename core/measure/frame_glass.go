package measure

import (
	"encoding/json"
	"fmt"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/request"
	"pinhole/core/stop"
)

// FrameGlass is the filters of a kit that bring a frame to middle grey.
type FrameGlass struct {
	OnStops   stop.Stops    `json:"onStops" doc:"what was on"`
	WantStops stop.Stops    `json:"wantStops"`
	Options   []FrameOption `json:"options" doc:"best first"`
}

// FrameOption is a stack and the error it leaves, with ISO at base.
type FrameOption struct {
	Filters    []string      `json:"filters"`
	Stops      stop.Stops    `json:"stops"`
	ErrorStops stop.Stops    `json:"errorStops" doc:"positive: brighter than metered"`
	Verdict    glass.Verdict `json:"verdict"`
}

// frameKit is a kit and what of it was on.
type frameKit struct {
	on   stop.Stops
	wish assemble.Wish
}

// mostOptions bounds what is answered of a large kit.
const mostOptions = 12

// readFrameKit reads --kit and --on; without a kit it returns nil.
func readFrameKit(in Input) (*frameKit, error) {
	on, err := in.stops("on", -5, 40)
	if err != nil {
		return nil, err
	}
	if !in.has("kit") {
		return nil, nil
	}
	file := in.file("kit")
	fault := func(err error) error {
		return &problem.Fault{Field: "kit", Value: fmt.Sprintf("%s: %.160s", file.Name, err), Allowed: "a list of filters as the kit of solve"}
	}
	var raw json.RawMessage = file.Bytes
	body, err := json.Marshal(map[string]any{"kit": raw})
	if err != nil {
		return nil, fault(err)
	}
	kit, err := request.Decode[struct {
		Kit []assemble.KitFilter `json:"kit" maxItems:"200"`
	}](body)
	if err != nil {
		return nil, fault(err)
	}
	// Which shutter it was does not matter: filters are counted from one setting to another.
	shutter := stop.Shutter(1. / 100)
	return &frameKit{on: on, wish: assemble.Wish{
		Camera: assemble.Camera{Aperture: 1, ISOBase: 100, ISOCeiling: 100}, ShutterS: &shutter, Kit: kit.Kit,
	}}, nil
}

// glass returns the filters that make good what a frame advises.
func (k *frameKit) glass(advice stop.Stops) (*FrameGlass, error) {
	setup, err := k.wish.Setup()
	if err != nil {
		return nil, problem.At("kit", err)
	}
	q := &setup.Question
	want := k.on - advice
	light := q.Setting.EV().Plus(want)
	q.Light = glass.Light{Low: light, High: light}
	out := &FrameGlass{OnStops: k.on, WantStops: want, Options: []FrameOption{}}
	for _, o := range glass.Choose(q, setup.Stacks) {
		if len(out.Options) == mostOptions {
			break
		}
		out.Options = append(out.Options, FrameOption{glass.IDs(o.Filters), o.Stops, o.Error, o.Verdict})
	}
	return out, nil
}

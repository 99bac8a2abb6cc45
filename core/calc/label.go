package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/stop"
)

// LabelRequest asks what a label says.
type LabelRequest struct {
	Label string `json:"label" maxLength:"60" minLength:"1" doc:"the text on the ring, as in ND16, 4 stop, 0.9, ND8/PL"`
}

// LabelAnswer is what the label says, in all three languages of strength.
type LabelAnswer struct {
	Kind           glass.Kind     `json:"kind"`
	Stops          stop.Stops     `json:"stops" doc:"stops of grey: without the polariser of a hybrid, the least of a variable, the dark half of a graduated filter"`
	Factor         float64        `json:"factor"`
	Density        float64        `json:"density"`
	MinStops       *stop.Stops    `json:"minStops,omitempty"`
	MaxStops       *stop.Stops    `json:"maxStops,omitempty"`
	PolariserStops *stop.Stops    `json:"polariserStops,omitempty"`
	TotalStops     stop.Stops     `json:"totalStops" doc:"what a kit counts: a hybrid with its polariser, a graduated filter nothing"`
	SpreadStops    stop.Stops     `json:"spreadStops" doc:"how far unmeasured glass of this kind strays"`
	Reads          string         `json:"reads" doc:"how the text was read, in words"`
	Canonical      string         `json:"canonical" doc:"a written form with this one reading"`
	Ambiguous      bool           `json:"ambiguous"`
	Alternatives   []LabelReading `json:"alternatives" doc:"further readings; only the owner can say which is right"`
}

// LabelReading is another way to read a label.
type LabelReading struct {
	Kind       glass.Kind `json:"kind"`
	Stops      stop.Stops `json:"stops"`
	TotalStops stop.Stops `json:"totalStops"`
	Reads      string     `json:"reads"`
	Canonical  string     `json:"canonical"`
}

// ReadLabel answers label.
func ReadLabel(r LabelRequest) (*LabelAnswer, error) {
	l, err := glass.ParseLabel(r.Label)
	if err != nil {
		return nil, assemble.Unreadable("label", err)
	}
	a := &LabelAnswer{
		Kind: l.Kind, Stops: l.Stops, Factor: l.Stops.Factor(), Density: l.Stops.Density(),
		TotalStops: l.Total(), SpreadStops: l.Kind.Spread(), Reads: l.As, Canonical: l.String(),
		Ambiguous: l.Ambiguous(), Alternatives: []LabelReading{},
	}
	switch l.Kind {
	case glass.Variable:
		a.MinStops, a.MaxStops = &l.Reading.Stops, &l.Most
	case glass.NDPolariser:
		a.PolariserStops = &l.PolariserStops
	}
	for _, o := range l.Others {
		a.Alternatives = append(a.Alternatives, LabelReading{Kind: o.Kind, Stops: o.Stops, TotalStops: o.Total(), Reads: o.As, Canonical: o.String()})
	}
	return a, nil
}

package assemble

import (
	"pinhole/core/glass"
	"pinhole/core/stop"
)

// Tolerance is the accepted exposure error, in stops, both sides positive.
type Tolerance struct {
	Dark   stop.Stops `json:"dark" minimum:"0" maximum:"5" doc:"stops darker than wanted"`
	Bright stop.Stops `json:"bright" minimum:"0" maximum:"5" doc:"stops brighter than wanted"`
}

// Choices are the user's schools and rules, each with a default.
type Choices struct {
	MaxLayers   int            `json:"maxLayers,omitempty" minimum:"1" maximum:"4" doc:"most loose layers in a stack; 2 by default"`
	OffsetStops stop.Stops     `json:"offsetStops,omitempty" minimum:"-5" maximum:"5" doc:"exposure wanted against the meter, positive brighter"`
	Tolerance   *Tolerance     `json:"tolerance,omitempty" doc:"two thirds dark and one third bright by default"`
	Priority    glass.Priority `json:"priority,omitempty" enum:"blur,image" doc:"what is kept first: the shutter (blur, the default) or ISO (image)"`
	Allow       []glass.Kind   `json:"allow,omitempty" maxItems:"8" enum:"nd,nd-polariser,polariser,variable,graduated,clear,mist,night" doc:"kinds used for their darkness; nd and variable by default"`
	Required    []string       `json:"required,omitempty" maxItems:"4" doc:"ids of glass asked for, for its effect"`
	Mounted     []string       `json:"mounted,omitempty" maxItems:"4" doc:"ids of glass that lives on the lens"`
}

func (c *Choices) Rules() glass.Rules {
	return glass.Rules{MaxLayers: c.MaxLayers, Allow: c.Allow, Required: c.Required, Mounted: c.Mounted}
}

// Band returns the tolerance as plan takes it, nil for none.
func (t *Tolerance) Band() *glass.Band {
	if t == nil {
		return nil
	}
	return &glass.Band{Dark: t.Dark, Bright: t.Bright}
}

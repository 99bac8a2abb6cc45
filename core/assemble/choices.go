package assemble

import (
	"cmp"
	"slices"

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
	MaxLayers   int            `json:"maxLayers,omitempty" minimum:"1" maximum:"4" doc:"most loose layers in a stack; by default what the camera's mount takes"`
	OffsetStops stop.Stops     `json:"offsetStops,omitempty" minimum:"-5" maximum:"5" doc:"exposure wanted against the meter, positive brighter"`
	Tolerance   *Tolerance     `json:"tolerance,omitempty" doc:"two thirds dark and one third bright by default"`
	Priority    glass.Priority `json:"priority,omitempty" doc:"what is kept first: the shutter (blur, the default) or ISO (image)"`
	Allow       []glass.Kind   `json:"allow,omitempty" maxItems:"8" doc:"kinds used for their darkness; nd and variable by default"`
	Fallback    []glass.Kind   `json:"fallback,omitempty" maxItems:"8" doc:"kinds that stand in where no option is on without them; none by default, nd-polariser where a whole shot is answered and allow is left out"`
	FreeLift    *stop.Stops    `json:"freeLiftStops,omitempty" minimum:"0" maximum:"20" doc:"how much ISO may rise and the shot still holds; 1 by default"`
	Required    []string       `json:"required,omitempty" maxItems:"4" doc:"ids of glass asked for, for its effect"`
	Mounted     []string       `json:"mounted,omitempty" maxItems:"4" doc:"ids of glass that lives on the lens"`
	AtHand      *[]string      `json:"atHand,omitempty" maxItems:"200" doc:"ids of the glass that is there to choose from, for its darkness; all of the kit by default"`
}

// ForShot returns the choices as a whole shot is answered by: glass with a polariser in
// it may stand in, unless the kinds are chosen.
func (c Choices) ForShot() Choices {
	if c.Allow == nil && c.Fallback == nil {
		c.Fallback = []glass.Kind{glass.NDPolariser}
	}
	return c
}

// AlsoAtHand returns the choices with one more filter to choose from, where not all are.
func (c Choices) AlsoAtHand(id string) Choices {
	if c.AtHand != nil {
		all := append(slices.Clone(*c.AtHand), id)
		c.AtHand = &all
	}
	return c
}

// IsAtHand reports whether a filter of the kit is there to choose from, is asked for, or is on
// the lens.
func (c *Choices) IsAtHand(id string) bool {
	return c.AtHand == nil || slices.Contains(*c.AtHand, id) || slices.Contains(c.Required, id) || slices.Contains(c.Mounted, id)
}

// Rules returns what the choices let be built on a camera, as many layers as its mount
// takes where they do not say.
func (c *Choices) Rules(on *Camera) glass.Rules {
	return glass.Rules{MaxLayers: cmp.Or(c.MaxLayers, on.Mount.Layers()), Allow: c.Allow, Fallback: c.Fallback, Required: c.Required, Mounted: c.Mounted, AtHand: c.AtHand}
}

// Band returns the tolerance as plan takes it, nil for none.
func (t *Tolerance) Band() *glass.Band {
	if t == nil {
		return nil
	}
	return &glass.Band{Dark: t.Dark, Bright: t.Bright}
}

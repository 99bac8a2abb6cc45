package light

import "pinhole/core/stop"

// Surface is what a scene is mostly made of, and how much brighter than mid-grey it is,
// in stops. Rules of thumb.
type Surface struct {
	Name  string     `json:"name"`
	Stops stop.Stops `json:"stops" doc:"brighter than mid-grey"`
}

// How much brighter than mid-grey what scenes are made of is, in stops.
const (
	bright = stop.Stops(1)
	pale   = stop.Stops(0.5)
	dark   = stop.Stops(-0.5)
)

// Surfaces returns what scenes are usually made of, the brightest first.
func Surfaces() []Surface {
	return []Surface{{"snow, salt, white sand", bright}, {"pale rock, concrete", pale}, {"mixed", 0}, {"dark leaf, wet tar", dark}}
}

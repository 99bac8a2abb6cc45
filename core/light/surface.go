package light

import "pinhole/core/stop"

// Surface is what a scene is mostly made of, and how much brighter than mid-grey it is,
// in stops. Rules of thumb.
type Surface struct {
	Name  string     `json:"name"`
	Stops stop.Stops `json:"stops" doc:"brighter than mid-grey"`
}

// Surfaces returns what scenes are usually made of, the brightest first.
func Surfaces() []Surface {
	return []Surface{{"snow, salt, white sand", 1}, {"pale rock, concrete", 0.5}, {"mixed", 0}, {"dark leaf, wet tar", -0.5}}
}

// Package plan weighs demands against each other: those that one shot makes on
// its shutter, and those that a day of shots makes on the glass each camera
// carries.
//
// Nothing here knows what a demand costs outside the picture: a swap in the rain
// or a stand that is at home. Those are settings of the caller.
package plan

// Package glass reads filter labels, stacks filters and chooses among the
// stacks: which glass brings this light to that camera setting, what error is
// left, and what the camera must do about it.
//
// Stops of glass count what it takes away. An error counts the other way: a
// positive error is a picture brighter than the meter's aim.
package glass

// Package shot judges one shot: a camera at a shutter, behind glass, in a light. It
// gathers what the shot demands, says which demands hold, which are tight and which
// break, what excludes what, and which small change would serve.
//
// There is one judge, [Scene.Judge]. Every place of the product asks it: the shot
// itself, lists, the plan of a day, the card, re-metering, coverage and buying.
package shot

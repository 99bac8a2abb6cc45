// Package learn finds what a log of readings, trials and takes teaches: how far filters, cameras
// and meters are off, what a place and a day do to the light, at which shutter a stabiliser
// works, what is taken for well exposed, and whether the ± that were stated are true.
//
// It keeps nothing: the same request gives the same answer. Every ± is one standard deviation,
// stops; a band holds 90 % (±1.645 of them). The model stands in docs/model.md, section What a
// log teaches.
package learn

// Package files reads and writes open formats: tracks as GPX, the exposure of a still
// from its EXIF, and a plan as iCalendar and CSV.
//
// Readers take hostile files: they bound what they keep, and say in a *problem.Fault
// what is wrong and what is allowed.
package files

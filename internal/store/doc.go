// Package store keeps cameras, rigs, filters, trials, shoots, shots and readings in
// one SQLite file.
//
// Every stored thing carries a version that each change raises. A change names
// the version it was made on and fails with ErrConflict when another came
// first, so that nothing is lost in silence. Deleting only marks; Restore takes
// it back.
package store

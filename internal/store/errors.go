package store

import "errors"

// Errors that callers tell apart.
var (
	// ErrNotFound: nothing stored has that id.
	ErrNotFound = errors.New("not found")
	// ErrConflict: the thing was changed since the version that the change names.
	ErrConflict = errors.New("changed elsewhere in the meantime")
	// ErrNoSuch: a change names another thing, by id, that is not there.
	ErrNoSuch = errors.New("refers to something that is not there")
)

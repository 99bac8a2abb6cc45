package assemble

import (
	"errors"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Unreadable returns the fault of a text field that a parser refused.
func Unreadable(field string, err error) error {
	var parse *stop.ParseError
	if errors.As(err, &parse) {
		return &problem.Fault{Field: field, Value: parse.Input, Allowed: parse.Err.Error()}
	}
	return err
}

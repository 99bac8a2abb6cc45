package calc

import (
	"errors"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// unreadable returns the fault of a text field that a parser refused.
func unreadable(field string, err error) error {
	var parse *stop.ParseError
	if errors.As(err, &parse) {
		return &problem.Fault{Field: field, Value: parse.Input, Allowed: parse.Err.Error()}
	}
	return err
}

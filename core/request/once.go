package request

import (
	"encoding/json"
	"fmt"

	"pinhole/core/problem"
)

// readOnce reads a JSON value as encoding/json does into an any, and refuses a field that an
// object has twice: which of the two counts is read differently by every reader, so that a
// check of the one lets the other pass. The error is that of the decoder, or a
// *problem.Fault.
func readOnce(d *json.Decoder) (any, error) {
	token, err := d.Token()
	if err != nil {
		return nil, err
	}
	switch token {
	case json.Delim('{'):
		return readObject(d)
	case json.Delim('['):
		list := []any{}
		for d.More() {
			v, err := readOnce(d)
			if err != nil {
				return nil, problem.At(fmt.Sprintf("[%d]", len(list)), err)
			}
			list = append(list, v)
		}
		_, err := d.Token()
		return list, err
	}
	return token, nil
}

func readObject(d *json.Decoder) (any, error) {
	object := map[string]any{}
	for d.More() {
		token, err := d.Token()
		if err != nil {
			return nil, err
		}
		name, _ := token.(string) // the decoder has seen to it
		if _, isThere := object[name]; isThere {
			return nil, &problem.Fault{Field: name, Value: "given twice", Allowed: "each field once"}
		}
		if object[name], err = readOnce(d); err != nil {
			return nil, problem.At(name, err)
		}
	}
	_, err := d.Token()
	return object, err
}

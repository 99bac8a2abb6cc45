package request

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"

	"pinhole/core/problem"
)

// MaxBytes is the most bytes a request may have.
const MaxBytes = 1 << 20

// Decode reads one JSON value of type T and checks it against T's struct tags:
// no unknown, missing or repeated field, every number finite and within
// its range, every list within its length. A null stands for a missing value.
//
// The error is a *problem.Document that names every faulty field, up to a score.
func Decode[T any](body []byte) (T, error) {
	var fast, value T
	if len(body) > MaxBytes {
		return value, problem.TooLarge(MaxBytes)
	}
	if decodeFast(body, &fast) {
		return fast, nil
	}
	raw, err := readValue(body)
	if err != nil {
		return value, err
	}
	if faults := check(&value, raw); len(faults) > 0 {
		return value, problem.Invalid(faults...)
	}
	if err := json.Unmarshal(body, &value); err != nil {
		return value, malformed(err, body)
	}
	return value, nil
}

// readValue reads one JSON value into an any, its numbers as they are written. The error is a
// *problem.Document.
func readValue(body []byte) (any, error) {
	d := json.NewDecoder(bytes.NewReader(body))
	d.UseNumber() // as it is written, so that 1e999 can be named instead of failing
	raw, err := readOnce(d)
	var twice *problem.Fault
	if errors.As(err, &twice) {
		return nil, problem.Invalid(*twice)
	}
	if err != nil {
		return nil, malformed(err, body)
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return nil, problem.Malformed("there is more after the end of the JSON value")
	}
	return raw, nil
}

func malformed(err error, body []byte) error {
	switch {
	case len(bytes.TrimSpace(body)) == 0:
		return problem.Malformed("the request is empty")
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return problem.Malformed("the JSON value has no end")
	}
	return problem.Malformed(err.Error())
}

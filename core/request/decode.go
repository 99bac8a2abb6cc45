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
	var value T
	if len(body) > MaxBytes {
		return value, problem.TooLarge(MaxBytes)
	}
	d := json.NewDecoder(bytes.NewReader(body))
	d.UseNumber() // so that 1e999 can be named instead of failing
	raw, err := readOnce(d)
	var twice *problem.Fault
	if errors.As(err, &twice) {
		return value, problem.Invalid(*twice)
	}
	if err != nil {
		return value, malformed(err, body)
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return value, problem.Malformed("there is more after the end of the JSON value")
	}
	if faults := check(&value, raw); len(faults) > 0 {
		return value, problem.Invalid(faults...)
	}
	if err := json.Unmarshal(body, &value); err != nil {
		return value, malformed(err, body)
	}
	return value, nil
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

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
// no unknown, missing or repeated-by-case field, every number finite and within
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
	var raw any
	if err := d.Decode(&raw); err != nil {
		return value, malformed(err)
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return value, problem.Malformed("there is more after the end of the JSON value")
	}
	if faults := check(&value, raw); len(faults) > 0 {
		return value, problem.Invalid(faults...)
	}
	if err := json.Unmarshal(body, &value); err != nil {
		return value, malformed(err)
	}
	return value, nil
}

func malformed(err error) error {
	if errors.Is(err, io.EOF) {
		return problem.Malformed("the request is empty")
	}
	return problem.Malformed(err.Error())
}

package calc

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"

	"pinhole/core/problem"
)

// MaxRequest is the most bytes a request may have.
const MaxRequest = 1 << 20

// Decode reads one JSON value of type T and checks it against T's struct tags:
// no unknown, missing or repeated-by-case field, every number finite and within
// its range, every list within its length. A null stands for a missing value.
//
// The error is a *problem.Document that names every faulty field, up to a score.
func Decode[T any](body []byte) (T, error) {
	var request T
	if len(body) > MaxRequest {
		return request, problem.TooLarge(MaxRequest)
	}
	d := json.NewDecoder(bytes.NewReader(body))
	d.UseNumber() // so that 1e999 can be named instead of failing
	var raw any
	if err := d.Decode(&raw); err != nil {
		return request, malformed(err)
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return request, problem.Malformed("there is more after the end of the JSON value")
	}
	if faults := check(&request, raw); len(faults) > 0 {
		return request, problem.Invalid(faults...)
	}
	if err := json.Unmarshal(body, &request); err != nil {
		return request, malformed(err)
	}
	return request, nil
}

func malformed(err error) error {
	if errors.Is(err, io.EOF) {
		return problem.Malformed("the request is empty")
	}
	return problem.Malformed(err.Error())
}

// Package problem is the one shape in which every failure leaves Pinhole: a
// problem document after RFC 9457, with a fault for each field that was wrong.
package problem

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
)

// Fault says what is wrong with one field.
type Fault struct {
	Field   string `json:"field" doc:"path of the field in the request, as in kit[2].stops"`
	Value   any    `json:"value" doc:"what was given; null when nothing was"`
	Allowed string `json:"allowed" doc:"what is allowed there, in a sentence"`
}

// Error returns the fault as a sentence: "camera.aperture is 0.2: between 0.5 and 64".
func (f *Fault) Error() string {
	if f.Value == nil {
		return f.Field + " is missing: " + f.Allowed
	}
	return fmt.Sprintf("%s is %s: %s", f.Field, f.shownValue(), f.Allowed)
}

// MarshalJSON writes the fault; a value that is long is cut short, so that no answer is
// larger than what was asked.
func (f Fault) MarshalJSON() ([]byte, error) {
	type plain Fault // without this method
	if text, err := json.Marshal(f.Value); err != nil || len(text) > longestShown {
		f.Value = f.shownValue()
	}
	return json.Marshal(plain(f))
}

// longestShown bounds how much of a wrong value is repeated back, in bytes.
const longestShown = 80

func (f *Fault) shownValue() string {
	var out bytes.Buffer
	enc := json.NewEncoder(&out)
	enc.SetEscapeHTML(false) // a person reads it
	if err := enc.Encode(f.Value); err != nil {
		return fmt.Sprintf("a %T", f.Value)
	}
	text := bytes.TrimSpace(out.Bytes())
	if len(text) > longestShown {
		return strings.ToValidUTF8(string(text[:longestShown]), "") + "…"
	}
	return string(text)
}

// Document is a problem document (RFC 9457, media type application/problem+json)
// with the member "errors" for the faults of single fields.
type Document struct {
	Type    string  `json:"type" doc:"what kind of problem, as a stable name" example:"about:blank"`
	Title   string  `json:"title"`
	Status  int     `json:"status" doc:"the HTTP status of the answer"`
	Detail  string  `json:"detail" doc:"this occurrence, in a sentence"`
	Errors  []Fault `json:"errors,omitempty"`
	Current any     `json:"current,omitempty" doc:"in a conflict, the stored state that the change did not know"`
}

// MediaType is the content type of a Document.
const MediaType = "application/problem+json"

// Error returns the detail.
func (d *Document) Error() string { return d.Detail }

// The statuses a Document carries, as HTTP numbers them.
const (
	statusMalformed = 400
	statusTooLarge  = 413
	statusInvalid   = 422
)

// Invalid returns the document for a request whose fields are wrong; there is
// at least one fault. Its detail says the first one.
func Invalid(faults ...Fault) *Document {
	detail := faults[0].Error()
	if n := len(faults) - 1; n > 0 {
		detail += fmt.Sprintf(" (and %d more)", n)
	}
	return &Document{Type: "about:blank", Title: "The request cannot be answered as it is", Status: statusInvalid, Detail: detail, Errors: faults}
}

// Malformed returns the document for a request that is not JSON at all.
func Malformed(reason string) *Document {
	return &Document{Type: "about:blank", Title: "The request is not valid JSON", Status: statusMalformed, Detail: reason}
}

// TooLarge returns the document for a request of more than limit bytes.
func TooLarge(limit int) *Document {
	return &Document{Type: "about:blank", Title: "The request is too large", Status: statusTooLarge,
		Detail: fmt.Sprintf("a request has at most %d bytes", limit)}
}

// At returns err with path put before the field of its fault, as in At("light", …) of a
// fault of "at.bias", which becomes "light.at.bias". An error that holds no fault is
// returned as it is.
func At(path string, err error) error {
	var fault *Fault
	if path == "" || !errors.As(err, &fault) {
		return err
	}
	there := *fault
	if there.Field = path; fault.Field != "" {
		if !strings.HasPrefix(fault.Field, "[") {
			there.Field += "."
		}
		there.Field += fault.Field
	}
	return &there
}

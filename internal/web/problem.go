package web

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
	"pinhole/core/problem"
	"pinhole/internal/store"
)

// failure is a problem document on its way out.
type failure struct{ *problem.Document }

// GetStatus returns the HTTP status.
func (f *failure) GetStatus() int { return f.Status }

// ContentType returns the media type of problem documents.
func (f *failure) ContentType(string) string { return problem.MediaType }

func newFailure(status int, detail string) *failure {
	return &failure{&problem.Document{Type: "about:blank", Title: http.StatusText(status), Status: status, Detail: detail}}
}

// init gives huma's own refusals (a missing parameter, a body too large) our
// shape. These are variables of that package, so they are set once, before any use.
func init() {
	huma.DefaultArrayNullable = false // our lists are empty, never null
	huma.NewError = func(status int, message string, causes ...error) huma.StatusError {
		var tooLarge *http.MaxBytesError
		if errors.As(errors.Join(causes...), &tooLarge) {
			return &failure{problem.TooLarge(int(tooLarge.Limit))}
		}
		if status >= http.StatusInternalServerError {
			return newFailure(status, internalDetail)
		}
		f := newFailure(status, message)
		for _, cause := range causes {
			var detail *huma.ErrorDetail
			if errors.As(cause, &detail) {
				f.Errors = append(f.Errors, problem.Fault{Field: field(detail.Location), Value: detail.Value, Allowed: detail.Message})
			}
		}
		if len(f.Errors) > 0 {
			f.Detail = f.Errors[0].Error()
		}
		return f
	}
	huma.NewErrorWithContext = func(_ huma.Context, status int, message string, causes ...error) huma.StatusError {
		return huma.NewError(status, message, causes...)
	}
}

// field turns huma's location ("query.version") into the name of the field.
func field(location string) string {
	_, name, found := strings.Cut(location, ".")
	if !found {
		return location
	}
	return name
}

// internalDetail is all that a client learns of a fault inside.
const internalDetail = "something went wrong inside; the log has the cause"

// statuses maps errors to statuses and what is said about them. The first that
// matches counts.
var statuses = []status{
	{err: store.ErrNotFound, status: http.StatusNotFound, detail: "not found; perhaps deleted"},
	{err: store.ErrConflict, status: http.StatusConflict, detail: "it was changed elsewhere since you opened it; nothing of yours was stored"},
	{err: store.ErrNoSuch, status: http.StatusUnprocessableEntity, detail: "it names a shoot, camera or shot that is not there"},
	{err: store.ErrBadBackup, status: http.StatusUnprocessableEntity, detail: store.ErrBadBackup.Error()},
	ofFile(store.ErrFull, http.StatusInsufficientStorage),
	ofFile(store.ErrReadOnly, http.StatusServiceUnavailable),
	ofFile(store.ErrBusy, http.StatusServiceUnavailable),
	ofFile(store.ErrDisk, http.StatusServiceUnavailable),
	ofFile(store.ErrDamaged, http.StatusServiceUnavailable),
	ofFile(store.ErrGone, http.StatusServiceUnavailable),
}

// status is how an error is answered.
type status struct {
	err    error
	status int
	detail string
	// isOfFile is true of what is wrong with the data file: its owner has to do something,
	// and the log is told.
	isOfFile bool
}

// ofFile answers with what the error itself says to do.
func ofFile(err error, code int) status { return status{err, code, err.Error(), true} }

// fail turns any error into a failure, and logs those that are ours.
func fail(ctx context.Context, log *slog.Logger, err error) error {
	var said *failure
	if errors.As(err, &said) {
		return said
	}
	var doc *problem.Document
	if errors.As(calc.AsDocument(err), &doc) {
		return &failure{doc}
	}
	for _, s := range statuses {
		if errors.Is(err, s.err) {
			if s.isOfFile {
				log.ErrorContext(ctx, "data file", "error", err)
			}
			return newFailure(s.status, s.detail)
		}
	}
	if errors.Is(err, context.Canceled) {
		return newFailure(http.StatusServiceUnavailable, "the request was given up")
	}
	log.ErrorContext(ctx, "request failed", "error", err)
	return newFailure(http.StatusInternalServerError, internalDetail)
}

// writeFailure answers outside of huma's operations.
func writeFailure(w http.ResponseWriter, f *failure) {
	w.Header().Set("Content-Type", problem.MediaType)
	w.WriteHeader(f.Status)
	// Nothing is left to say to a client that does not read the answer.
	_ = json.NewEncoder(w).Encode(f)
}

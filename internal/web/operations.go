package web

import (
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/request"
)

// answer is what an operation answers with as JSON. To huma all answers are of one type: it compiles some hundred
// lines for each way of asking, and would for each answer as well.
type answer struct{ Body any }

// register registers an operation that answers with an A, or with what went wrong.
func register[In, A any](s *server, op huma.Operation, do func(context.Context, *In) (*A, error)) {
	huma.Register(s.api, op, func(ctx context.Context, in *In) (*answer, error) {
		a, err := do(ctx, in)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer{a}, nil
	})
	s.describe(op.Method, op.Path, nil, reflect.TypeFor[A]())
}

// addAsked registers an operation that answers by its address alone, or does what that says.
func addAsked[In, A any](s *server, method, path, id, summary, tag string, do func(context.Context, *In) (*A, error)) {
	register(s, huma.Operation{
		OperationID: id, Method: method, Path: path, Summary: summary, Tags: []string{tag},
		Errors: []int{http.StatusNotFound, http.StatusUnprocessableEntity},
	}, do)
}

// addGot registers an operation that answers a question with one thing.
func addGot[In, A any](s *server, path, id, summary, tag string, read func(context.Context, *In) (*A, error)) {
	addAsked(s, http.MethodGet, path, id, summary, tag, read)
}

// addListed registers an operation that answers a question with several things.
func addListed[In, A any](s *server, path, id, summary, tag string, read func(context.Context, *In) ([]A, error)) {
	addGot(s, path, id, summary, tag, func(ctx context.Context, in *In) (*listing[A], error) {
		all, err := read(ctx, in)
		return &listing[A]{all}, err
	})
}

// addPosted registers an operation that answers a JSON request and keeps nothing.
func addPosted[R, A any](s *server, path, id, summary, tag string, compute func(context.Context, R) (*A, error)) {
	register(s, huma.Operation{
		OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, Tags: []string{tag},
		Errors: []int{http.StatusBadRequest, http.StatusUnprocessableEntity}, SkipValidateBody: true,
	}, func(ctx context.Context, in *RawJSON) (*A, error) {
		r, err := request.Decode[R](in.RawBody)
		if err != nil {
			return nil, err
		}
		return compute(ctx, r)
	})
	s.describe(http.MethodPost, path, reflect.TypeFor[R](), nil)
}

// addFile registers an operation that reads a file and keeps nothing of it.
func addFile[A any](s *server, path, id, summary string, read func(context.Context, []byte) (*A, error)) {
	register(s, huma.Operation{
		OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, Tags: []string{"files"}, MaxBodyBytes: mostUpload,
		Errors: []int{http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *FileInput) (*A, error) { return read(ctx, in.RawBody) })
}

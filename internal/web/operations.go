package web

import (
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/request"
)

// addAsked registers an operation that answers by its address alone, or does what that says.
func addAsked[In, A any](s *server, method, path, id, summary, tag string, do func(context.Context, *In) (*A, error)) {
	huma.Register(s.api, huma.Operation{
		OperationID: id, Method: method, Path: path, Summary: summary, Tags: []string{tag},
		Errors: []int{http.StatusNotFound, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *In) (*answer[A], error) {
		a, err := do(ctx, in)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[A]{*a}, nil
	})
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
	huma.Register(s.api, huma.Operation{
		OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, Tags: []string{tag},
		Errors: []int{http.StatusBadRequest, http.StatusUnprocessableEntity}, SkipValidateBody: true,
	}, func(ctx context.Context, in *RawJSON) (*answer[A], error) {
		r, err := request.Decode[R](in.RawBody)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		a, err := compute(ctx, r)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[A]{*a}, nil
	})
	s.describe(http.MethodPost, path, reflect.TypeFor[R](), nil)
}

// addFile registers an operation that reads a file and keeps nothing of it.
func addFile[A any](s *server, path, id, summary string, read func(context.Context, []byte) (*A, error)) {
	huma.Register(s.api, huma.Operation{
		OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, Tags: []string{"files"}, MaxBodyBytes: mostUpload,
		Errors: []int{http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *FileInput) (*answer[A], error) {
		a, err := read(ctx, in.RawBody)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[A]{*a}, nil
	})
}

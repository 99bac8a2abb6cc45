package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
)

// registerCalc opens the HTTP door to every computation.
func (s *server) registerCalc() {
	for _, op := range calc.Operations() {
		path := "/api/calc/" + op.Name
		huma.Register(s.api, huma.Operation{
			OperationID: "calc-" + op.Name, Method: http.MethodPost, Path: path, Summary: op.Summary, Tags: []string{"calc"},
			Errors: []int{http.StatusBadRequest, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity}, SkipValidateBody: true,
		}, func(ctx context.Context, in *RawJSON) (*answer, error) {
			out, err := op.RunIn(ctx, in.RawBody)
			if err != nil {
				return nil, fail(ctx, s.log, err)
			}
			return &answer{out}, nil
		})
		s.describe(http.MethodPost, path, op.Request, op.Answer)
		s.exemplify(path, op.Example())
	}
}

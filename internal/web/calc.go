package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
)

// anyAnswer is an answer whose type only the table of computations knows.
type anyAnswer struct{ Body any }

// registerCalc opens the HTTP door to every computation.
func (s *server) registerCalc() {
	for _, op := range calc.Operations() {
		path := "/api/calc/" + op.Name
		huma.Register(s.api, huma.Operation{
			OperationID: "calc-" + op.Name, Method: http.MethodPost, Path: path, Summary: op.Summary, Tags: []string{"calc"},
			Errors: []int{http.StatusBadRequest, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity}, SkipValidateBody: true,
		}, func(ctx context.Context, in *RawJSON) (*anyAnswer, error) {
			answer, err := op.RunIn(ctx, in.RawBody)
			if err != nil {
				return nil, fail(ctx, s.log, err)
			}
			return &anyAnswer{answer}, nil
		})
		s.describe(http.MethodPost, path, op.Request, op.Answer)
		s.exemplify(path, op.Example())
	}
}

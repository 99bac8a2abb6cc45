package web

import (
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/request"
	"pinhole/internal/desk"
	"pinhole/internal/store"
)

// LogInput names a shoot and an entry of its field log.
type LogInput struct {
	ByID
	Entry string `path:"entry" minLength:"8" maxLength:"60" doc:"an id that the device made"`
	RawJSON
}

// registerCard opens the doors to what is used in the field.
func (s *server) registerCard(kept *desk.Desk) {
	addGot(s, "/api/shoots/{id}/card", "get-card", "Get all that the card of a shoot needs, to go on without the server", "field", func(ctx context.Context, in *ByID) (*desk.Card, error) {
		return kept.Card(ctx, in.ID)
	})
	const path = "/api/shoots/{id}/log/{entry}"
	huma.Register(s.api, huma.Operation{
		OperationID: "log-in-field", Method: http.MethodPut, Path: path, Summary: "Log what was done in the field; sending twice stores once", Tags: []string{"field"},
		Errors: []int{http.StatusBadRequest, http.StatusNotFound, http.StatusUnprocessableEntity}, SkipValidateBody: true,
	}, func(ctx context.Context, in *LogInput) (*answer[store.FieldEntry], error) {
		fields, err := request.Decode[store.FieldEntryFields](in.RawBody)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		added, err := kept.LogInField(ctx, in.ID, in.Entry, fields)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[store.FieldEntry]{*added}, nil
	})
	s.describe(http.MethodPut, path, reflect.TypeFor[store.FieldEntryFields](), nil)
}

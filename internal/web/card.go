package web

import (
	"bytes"
	"context"
	"net/http"
	"reflect"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/request"
	"pinhole/internal/paper"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// CardInput names a shoot, and the shot of it that is shot now.
type CardInput struct {
	ByID
	Shot string `query:"shot" maxLength:"60" doc:"a shot of the shoot that is shot now, whatever is planned; the plan by default"`
}

// LogInput names a shoot and an entry of its field log.
type LogInput struct {
	ByID
	Entry string `path:"entry" minLength:"8" maxLength:"60" doc:"an id that the device made"`
	RawJSON
}

// LogPart names a shoot and the part of its field log that is wanted.
type LogPart struct {
	ByID
	Part
}

// Before is an instant that what is older than it goes by.
type Before struct {
	Before time.Time `query:"before" required:"true" doc:"what arrived before it is removed"`
}

// PaperInput names a shoot and the paper its card is written on.
type PaperInput struct {
	ByID
	Size string `query:"size" enum:"a5,pocket" default:"a5"`
}

// registerCard opens the doors to what is used in the field.
func (s *server) registerCard(kept *service.Service) {
	addGot(s, "/api/shoots/{id}/card", "get-card", "Get all that the field card of a shoot needs, to go on without the server", "field", func(ctx context.Context, in *CardInput) (*service.Card, error) {
		return kept.Card(ctx, in.ID, in.Shot)
	})
	addGot(s, "/api/shoots/{id}/log", "list-field-log", "List what was done in the field, the latest first", "field", func(ctx context.Context, in *LogPart) (*part[store.FieldEntry], error) {
		some, next, err := kept.Store.FieldLogPart(ctx, in.ID, in.page())
		return &part[store.FieldEntry]{some, next}, err
	})
	size := func(ctx context.Context) (*store.FieldLogSize, error) {
		size, err := kept.Store.FieldLogSize(ctx)
		return &size, err
	}
	addGot(s, "/api/field-log", "measure-field-log", "Get how long the field log is", "field", func(ctx context.Context, _ *struct{}) (*store.FieldLogSize, error) { return size(ctx) })
	addAsked(s, http.MethodDelete, "/api/field-log", "prune-field-log", "Remove for good what was done in the field before an instant", "field", func(ctx context.Context, in *Before) (*store.FieldLogSize, error) {
		if err := kept.Store.PruneFieldLog(ctx, in.Before); err != nil {
			return nil, err
		}
		return size(ctx)
	})
	const path = "/api/shoots/{id}/log/{entry}"
	register(s, huma.Operation{
		OperationID: "log-in-field", Method: http.MethodPut, Path: path, Summary: "Log what was done in the field; sending twice stores once", Tags: []string{"field"},
		Errors: []int{http.StatusBadRequest, http.StatusNotFound, http.StatusUnprocessableEntity}, SkipValidateBody: true,
	}, func(ctx context.Context, in *LogInput) (*store.FieldEntry, error) {
		fields, err := request.Decode[store.FieldEntryFields](in.RawBody)
		if err != nil {
			return nil, err
		}
		return kept.LogInField(ctx, in.ID, in.Entry, fields)
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "print-card", Method: http.MethodGet, Path: "/api/shoots/{id}/paper", Summary: "Write the field card of a shoot as PDF", Tags: []string{"field"},
		Errors: []int{http.StatusNotFound, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *PaperInput) (*file, error) {
		card, err := kept.CardPaper(ctx, in.ID)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		size := map[string]paper.CardSize{"a5": paper.A5, "pocket": paper.Pocket}[in.Size]
		var out bytes.Buffer
		if err := paper.WriteCard(&out, *card, size, kept.Now()); err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &file{"application/pdf", `attachment; filename="card-` + in.Size + `.pdf"`, out.Bytes()}, nil
	})
	s.describe(http.MethodPut, path, reflect.TypeFor[store.FieldEntryFields](), nil)
}

package web

import (
	"context"
	"net/http"
	"pinhole/core/take"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
	"pinhole/core/request"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// OnRig names a camera and how it is held.
type OnRig struct {
	ByID
	Rig string `query:"rig" maxLength:"60" doc:"the camera's first by default"`
}

// CoverageInput names a camera, how it is held, and whose light is wanted.
type CoverageInput struct {
	OnRig
	Shoot string `query:"shoot" maxLength:"60" doc:"the shoot whose light is wanted; all by default"`
}

// registerShots opens the doors to shots, and to the bench they are answered on.
func (s *server) registerShots() {
	kept := s.service
	if kept == nil {
		kept = &service.Service{Store: &store.Store{}} // for describing the API only
	}
	shots := kept.Store.Shots()
	addResource(s, resource[store.Shot, store.ShotFields, store.Shot]{
		name: "shot", plural: "shots", get: kept.Shot, list: kept.ShotPage, remove: shots.Delete, restore: shots.Restore,
		save: kept.SaveShot,
		join: func(m store.Meta, f store.ShotFields) store.Shot { return store.Shot{Meta: m, ShotFields: f} },
		show: asIs[store.Shot],
	})
	addGot(s, "/api/shots/{id}/take", "get-take-request", "Get what is known of a clip of a shot before it is measured", "shots", func(ctx context.Context, in *ByID) (*take.Request, error) {
		return kept.TakeOf(ctx, in.ID)
	})
	addListed(s, "/api/shots/{id}/readings", "list-readings", "List the readings taken for a shot", "shots", func(ctx context.Context, in *ByID) ([]store.Reading, error) {
		return kept.Store.ReadingsOf(ctx, in.ID)
	})
	addGot(s, "/api/cameras/{id}/bench", "get-bench", "Get a camera with the filters that go on it", "cameras", func(ctx context.Context, in *OnRig) (*service.Bench, error) {
		return kept.Bench(ctx, in.ID, in.Rig)
	})
	addListed(s, "/api/askable", "list-askable", "List the cameras that a line may name, the one that was worked on last first", "cameras", func(ctx context.Context, _ *struct{}) ([]calc.AskCamera, error) {
		return kept.Askable(ctx)
	})
	const keep = "/api/keep"
	register(s, huma.Operation{
		OperationID: "keep-line", Method: http.MethodPost, Path: keep, Summary: "Make camera, filters and shot of a line, all or none", Tags: []string{"shots"},
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity}, SkipValidateBody: true,
	}, func(ctx context.Context, in *CreateInput) (*store.Shot, error) {
		r, err := request.Decode[service.KeepRequest](in.RawBody)
		if err != nil {
			return nil, err
		}
		kept, err := s.service.Keep(ctx, in.Key, r)
		return &kept, err
	})
	s.describe(http.MethodPost, keep, reflect.TypeFor[service.KeepRequest](), nil)
	addGot(s, "/api/cameras/{id}/coverage", "get-coverage", "Get the light a camera's filters cover, and what would close its gaps", "cameras", func(ctx context.Context, in *CoverageInput) (*service.Covered, error) {
		return kept.Coverage(ctx, in.ID, in.Rig, in.Shoot)
	})
}

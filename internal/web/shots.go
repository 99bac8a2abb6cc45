package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/internal/desk"
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
	kept := s.desk
	if kept == nil {
		kept = &desk.Desk{Store: &store.Store{}} // for describing the API only
	}
	shots := kept.Store.Shots()
	addResource(s, resource[store.Shot, store.ShotFields, store.Shot]{
		name: "shot", plural: "shots", get: shots.Get, list: shots.List, remove: shots.Delete, restore: shots.Restore,
		save: kept.SaveShot,
		join: func(m store.Meta, f store.ShotFields) store.Shot { return store.Shot{Meta: m, ShotFields: f} },
		show: asIs[store.Shot],
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "list-readings", Method: http.MethodGet, Path: "/api/shots/{id}/readings", Summary: "List the readings taken for a shot", Tags: []string{"shots"},
	}, func(ctx context.Context, in *ByID) (*answer[listing[store.Reading]], error) {
		all, err := kept.Store.ReadingsOf(ctx, in.ID)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[listing[store.Reading]]{listing[store.Reading]{Items: all}}, nil
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "get-bench", Method: http.MethodGet, Path: "/api/cameras/{id}/bench", Summary: "Get a camera with the glass that goes on it", Tags: []string{"cameras"},
		Errors: []int{http.StatusNotFound},
	}, func(ctx context.Context, in *OnRig) (*answer[desk.Bench], error) {
		b, err := kept.Bench(ctx, in.ID, in.Rig)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[desk.Bench]{*b}, nil
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "get-coverage", Method: http.MethodGet, Path: "/api/cameras/{id}/coverage", Summary: "Get the light a camera's glass covers, and what would close its gaps", Tags: []string{"cameras"},
		Errors: []int{http.StatusNotFound},
	}, func(ctx context.Context, in *CoverageInput) (*answer[desk.Covered], error) {
		c, err := kept.Coverage(ctx, in.ID, in.Rig, in.Shoot)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[desk.Covered]{*c}, nil
	})
}

package web

import (
	"context"

	"pinhole/core/calc"
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
		name: "shot", plural: "shots", get: shots.Get, list: shots.Page, remove: shots.Delete, restore: shots.Restore,
		save: kept.SaveShot,
		join: func(m store.Meta, f store.ShotFields) store.Shot { return store.Shot{Meta: m, ShotFields: f} },
		show: asIs[store.Shot],
	})
	addListed(s, "/api/shots/{id}/readings", "list-readings", "List the readings taken for a shot", "shots", func(ctx context.Context, in *ByID) ([]store.Reading, error) {
		return kept.Store.ReadingsOf(ctx, in.ID)
	})
	addGot(s, "/api/cameras/{id}/bench", "get-bench", "Get a camera with the glass that goes on it", "cameras", func(ctx context.Context, in *OnRig) (*desk.Bench, error) {
		return kept.Bench(ctx, in.ID, in.Rig)
	})
	addListed(s, "/api/askable", "list-askable", "List the cameras that a line may name, the one that was worked on last first", "cameras", func(ctx context.Context, _ *struct{}) ([]calc.AskCamera, error) {
		return kept.Askable(ctx)
	})
	addGot(s, "/api/cameras/{id}/coverage", "get-coverage", "Get the light a camera's glass covers, and what would close its gaps", "cameras", func(ctx context.Context, in *CoverageInput) (*desk.Covered, error) {
		return kept.Coverage(ctx, in.ID, in.Rig, in.Shoot)
	})
}

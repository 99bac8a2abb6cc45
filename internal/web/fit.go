package web

import (
	"bytes"
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/assemble"
	"pinhole/internal/paper"
	"pinhole/internal/service"
)

type (
	// SeatInput names a rig and the glass on it.
	SeatInput struct {
		ByID
		Filters []string `query:"filters,explode" required:"true" minItems:"1" maxItems:"4" doc:"ids, the one on the rig first"`
	}
	// LabelsInput is what is printed, and how large.
	LabelsInput struct {
		Filters  []string `query:"filters,explode" maxItems:"500" doc:"ids; the whole kit by default"`
		WidthMm  float64  `query:"widthMm" default:"24" minimum:"12" maximum:"90"`
		HeightMm float64  `query:"heightMm" default:"14" minimum:"8" maximum:"60"`
	}
)

// registerFit opens the doors to how glass goes on rigs, and to what follows from it.
func (s *server) registerFit(kept *service.Service) {
	addListed(s, "/api/archetypes", "list-archetypes", "List the kinds of camera to start from", "cameras", func(context.Context, *struct{}) ([]service.Archetype, error) {
		return service.Archetypes(), nil
	})
	addGot(s, "/api/presets", "get-presets", "Get the defaults and the usual choices offered for a shot", "shots", func(context.Context, *struct{}) (*assemble.Presets, error) {
		presets := assemble.UsualPresets()
		return &presets, nil
	})
	addListed(s, "/api/fits", "list-fits", "List how every filter stands on every rig", "kit", func(ctx context.Context, _ *struct{}) ([]service.FitCell, error) {
		return kept.Fits(ctx)
	})
	addGot(s, "/api/rigs/{id}/seat", "get-seat", "Get all that is known of a filter on a rig: evidence, clearance, hold, corners, balance, mass", "kit", func(ctx context.Context, in *SeatInput) (*service.Seat, error) {
		return kept.SeatOn(ctx, in.ID, in.Filters)
	})
	addListed(s, "/api/rigs/{id}/sets", "list-sets", "List the sets in the kit as they are on a rig", "kit", func(ctx context.Context, in *ByID) ([]service.FilterSet, error) {
		return kept.Sets(ctx, in.ID)
	})
	addPosted(s, "/api/kit/buy", "buy-pack", "Move a pack that was considered into the kit", "kit", kept.Buy)
	huma.Register(s.api, huma.Operation{
		OperationID: "print-labels", Method: http.MethodGet, Path: "/api/kit/labels.pdf", Summary: "Print slot labels at true size", Tags: []string{"kit"},
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *LabelsInput) (*file, error) {
		labels, err := kept.Labels(ctx, in.Filters)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		var pdf bytes.Buffer
		if err := paper.WriteLabels(&pdf, labels, paper.LabelSize{WidthMm: in.WidthMm, HeightMm: in.HeightMm}, kept.Now()); err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &file{"application/pdf", `inline; filename="slot-labels.pdf"`, pdf.Bytes()}, nil
	})
}

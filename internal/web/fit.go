package web

import (
	"bytes"
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/internal/desk"
	"pinhole/internal/paper"
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
func (s *server) registerFit(kept *desk.Desk) {
	huma.Register(s.api, huma.Operation{
		OperationID: "list-archetypes", Method: http.MethodGet, Path: "/api/archetypes", Summary: "List the kinds of camera to start from", Tags: []string{"cameras"},
	}, func(context.Context, *struct{}) (*answer[listing[desk.Archetype]], error) {
		return &answer[listing[desk.Archetype]]{listing[desk.Archetype]{Items: desk.Archetypes()}}, nil
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "list-fits", Method: http.MethodGet, Path: "/api/fits", Summary: "List how every filter stands on every rig", Tags: []string{"kit"},
	}, func(ctx context.Context, _ *struct{}) (*answer[listing[desk.FitCell]], error) {
		all, err := kept.Fits(ctx)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[listing[desk.FitCell]]{listing[desk.FitCell]{Items: all}}, nil
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "get-seat", Method: http.MethodGet, Path: "/api/rigs/{id}/seat", Summary: "Get all that is known of glass on a rig: evidence, clearance, hold, corners, balance, mass", Tags: []string{"kit"},
		Errors: []int{http.StatusNotFound, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *SeatInput) (*answer[desk.Seat], error) {
		seat, err := kept.SeatOn(ctx, in.ID, in.Filters)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[desk.Seat]{*seat}, nil
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "list-sets", Method: http.MethodGet, Path: "/api/rigs/{id}/sets", Summary: "List the sets in the kit as they are on a rig", Tags: []string{"kit"},
		Errors: []int{http.StatusNotFound},
	}, func(ctx context.Context, in *ByID) (*answer[listing[desk.FilterSet]], error) {
		all, err := kept.Sets(ctx, in.ID)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[listing[desk.FilterSet]]{listing[desk.FilterSet]{Items: all}}, nil
	})
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

package web

import (
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
	"pinhole/core/request"
	"pinhole/internal/render"
	"pinhole/internal/sim"
)

// drawing is a picture on its way out.
type drawing struct {
	ContentType string `header:"Content-Type"`
	Body        []byte
}

// maxDrawings is how many pictures are drawn at once; each takes every core.
const maxDrawings = 2

// registerDrawings opens the doors to loops of a shot and to the simulated camera.
func (s *server) registerDrawings() {
	turns := make(chan struct{}, maxDrawings)
	inTurn := func(ctx context.Context, draw func() ([]byte, error)) ([]byte, error) {
		select {
		case turns <- struct{}{}:
			defer func() { <-turns }()
			return draw()
		case <-ctx.Done():
			return nil, ctx.Err()
		}
	}
	addDrawing(s, "/api/render/loop", "draw-loop", "Draw a shot at a setting: sixteen frames below each other", "image/jpeg",
		func(ctx context.Context, r calc.LoopRequest) ([]byte, error) {
			loop, err := calc.PlanLoop(r)
			if err != nil {
				return nil, err
			}
			return inTurn(ctx, func() ([]byte, error) { return render.Sprite(ctx, loop.View, loop.Exposure) })
		})
	addDrawing(s, "/api/sim/camera/frame", "simulate-frame", "Take a test frame with the simulated camera", "image/png",
		func(ctx context.Context, r sim.CameraRequest) ([]byte, error) {
			return inTurn(ctx, func() ([]byte, error) { return sim.TestFrame(r) })
		})
	huma.Register(s.api, huma.Operation{
		OperationID: "simulate-camera", Method: http.MethodPost, Path: "/api/sim/camera", Summary: "Point the simulated camera at a light", Tags: []string{"simulated"},
		Errors: []int{http.StatusBadRequest, http.StatusUnprocessableEntity}, SkipValidateBody: true,
	}, func(ctx context.Context, in *RawJSON) (*answer[sim.CameraAnswer], error) {
		r, err := request.Decode[sim.CameraRequest](in.RawBody)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		a, err := sim.Camera(r)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[sim.CameraAnswer]{*a}, nil
	})
	s.describe(http.MethodPost, "/api/sim/camera", reflect.TypeFor[sim.CameraRequest](), nil)
}

// addDrawing registers an operation that answers with a picture.
func addDrawing[R any](s *server, path, id, summary, media string, draw func(context.Context, R) ([]byte, error)) {
	huma.Register(s.api, huma.Operation{
		OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, Tags: []string{"drawings"},
		Errors: []int{http.StatusBadRequest, http.StatusUnprocessableEntity}, SkipValidateBody: true,
		Responses: map[string]*huma.Response{"200": {Description: "the picture", Content: map[string]*huma.MediaType{
			media: {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}},
		}}},
	}, func(ctx context.Context, in *RawJSON) (*drawing, error) {
		r, err := request.Decode[R](in.RawBody)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		picture, err := draw(ctx, r)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &drawing{media, picture}, nil
	})
	s.describe(http.MethodPost, path, reflect.TypeFor[R](), nil)
}

package web

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"mime/multipart"
	"net/http"
	"net/textproto"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
	"pinhole/core/request"
	"pinhole/internal/render"
	"pinhole/internal/sim"
)

// Media types of drawings.
const (
	mediaPNG   = "image/png"
	mediaJPEG  = "image/jpeg"
	mediaParts = "multipart/form-data"
)

// inParts returns the frames of a loop as the parts of one answer, which browsers
// take apart by themselves.
func inParts(frames [][]byte) (*drawing, error) {
	var body bytes.Buffer
	parts := multipart.NewWriter(&body)
	for i, frame := range frames {
		header := textproto.MIMEHeader{
			"Content-Disposition": {fmt.Sprintf(`form-data; name="frame"; filename="%02d.jpg"`, i)}, "Content-Type": {mediaJPEG},
		}
		part, err := parts.CreatePart(header)
		if err == nil {
			_, err = part.Write(frame)
		}
		if err != nil {
			return nil, fmt.Errorf("write frame %d: %w", i, err)
		}
	}
	if err := parts.Close(); err != nil {
		return nil, fmt.Errorf("write the frames: %w", err)
	}
	return &drawing{parts.FormDataContentType(), body.Bytes()}, nil
}

// drawing is a picture on its way out.
type drawing struct {
	ContentType string `header:"Content-Type"`
	Body        []byte
}

// maxDrawings is how many pictures are drawn at once; each takes every core.
const maxDrawings = 2

// maxWaiting is how many more may wait for their turn.
const maxWaiting = 16

// registerDrawings opens the doors to loops of a shot and to the simulated camera.
func (s *server) registerDrawings() {
	drawings := newQueue(maxDrawings, maxWaiting)
	inTurn := func(ctx context.Context, draw func() (*drawing, error)) (drawn *drawing, err error) {
		err = drawings.do(ctx, func() error {
			drawn, err = draw()
			return err
		})
		if errors.Is(err, errTooMany) {
			err = newFailure(http.StatusServiceUnavailable, "too many pictures are being drawn: try again")
		}
		return drawn, err
	}
	addDrawing(s, "/api/render/loop", "draw-loop", "Draw a shot at a setting: sixteen frames, or a still one, one part each", mediaParts,
		func(ctx context.Context, r calc.LoopRequest) (*drawing, error) {
			loop, err := calc.PlanLoop(r)
			if err != nil {
				return nil, err
			}
			return inTurn(ctx, func() (*drawing, error) {
				frames, err := render.Frames(ctx, loop.View, loop.Exposure, loop.Frames)
				if err != nil {
					return nil, err
				}
				return inParts(frames)
			})
		})
	addDrawing(s, "/api/sim/camera/frame", "simulate-frame", "Take a test frame with the simulated camera", mediaPNG,
		func(ctx context.Context, r sim.CameraRequest) (*drawing, error) {
			return inTurn(ctx, func() (*drawing, error) {
				frame, err := sim.TestFrame(r)
				return &drawing{mediaPNG, frame}, err
			})
		})
	addPosted(s, "/api/sim/camera", "simulate-camera", "Point the simulated camera at a light", "simulated",
		func(_ context.Context, r sim.CameraRequest) (*sim.CameraAnswer, error) { return sim.Camera(r) })
}

// addDrawing registers an operation that answers with a picture.
func addDrawing[R any](s *server, path, id, summary, media string, draw func(context.Context, R) (*drawing, error)) {
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
		out, err := draw(ctx, r)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return out, nil
	})
	s.describe(http.MethodPost, path, reflect.TypeFor[R](), nil)
}

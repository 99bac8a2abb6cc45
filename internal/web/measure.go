package web

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"mime"
	"mime/multipart"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/measure"
	"pinhole/internal/paper"
	"pinhole/internal/service"
	"pinhole/internal/sim"
)

// mostMeasured is the most of what is handed over to be measured, in bytes: a pair with what
// stands around it.
const mostMeasured = 2*measure.MaxFileBytes + 1<<20

// MeasureInput is files and texts, by the names of options.
type MeasureInput struct {
	RawBody multipart.Form
}

// registerMeasure opens the HTTP door to every measurement. Nothing of the files is kept.
func (s *server) registerMeasure() {
	for _, op := range measure.Operations() {
		path := "/api/measure/" + op.Name
		huma.Register(s.api, huma.Operation{
			OperationID: "measure-" + op.Name, Method: http.MethodPost, Path: path, Summary: op.Summary, Tags: []string{"measure"},
			MaxBodyBytes: mostMeasured, SkipValidateBody: true,
			Errors: []int{http.StatusBadRequest, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity},
		}, func(ctx context.Context, in *MeasureInput) (*answer, error) {
			defer in.RawBody.RemoveAll()
			given, err := measureInput(op, &in.RawBody)
			if err != nil {
				return nil, fail(ctx, s.log, err)
			}
			out, err := op.Run(given)
			if err != nil {
				return nil, fail(ctx, s.log, err)
			}
			return &answer{out}, nil
		})
		s.describe(http.MethodPost, path, nil, op.Answer)
	}
}

// SeedInput says which of many made-up logs is meant.
type SeedInput struct {
	Seed uint64 `query:"seed" maximum:"1000000" default:"1"`
}

// registerStandIns offers what is measured where nothing is there yet: logs of simulated devices,
// and the target to print.
func (s *server) registerStandIns(kept *service.Service) {
	for _, standIn := range []struct {
		path, id, summary, media, name string
		write                          func(seed uint64) ([]byte, error)
	}{
		{"/api/sim/flight.srt", "simulate-flight", "Write the subtitles of a simulated flight", "application/x-subrip", "simulated-flight.srt",
			func(seed uint64) ([]byte, error) { return sim.Flight(seed), nil }},
		{"/api/sim/walk.csv", "simulate-walk", "Write the gyro log of a simulated walk", "text/csv; charset=utf-8", "simulated-walk.csv",
			func(seed uint64) ([]byte, error) { return sim.Walk(seed), nil }},
		{"/api/measure/target.pdf", "print-target", "Print the target for sharpness", "application/pdf", "sharpness-target.pdf",
			func(uint64) ([]byte, error) {
				var pdf bytes.Buffer
				err := paper.WriteTarget(&pdf, kept.Now())
				return pdf.Bytes(), err
			}},
	} {
		huma.Register(s.api, huma.Operation{
			OperationID: standIn.id, Method: http.MethodGet, Path: standIn.path, Summary: standIn.summary, Tags: []string{"measure"},
		}, func(ctx context.Context, in *SeedInput) (*file, error) {
			body, err := standIn.write(in.Seed)
			if err != nil {
				return nil, fail(ctx, s.log, err)
			}
			return &file{standIn.media, `attachment; filename="` + standIn.name + `"`, body}, nil
		})
	}
}

// TargetInput says what the simulated camera is pointed at, and through what.
type TargetInput struct {
	Target   sim.Target `path:"target" enum:"wall,edge,lamp"`
	FilterID string     `query:"filterId" maxLength:"60" doc:"of the filter that is on; nothing by default"`
	RigID    string     `query:"rigId" maxLength:"60" doc:"of the camera, as it is held"`
	Frame    int        `query:"frame" minimum:"0" maximum:"1000" doc:"how many were taken before: the light falls a little with each"`
}

// registerTargets offers frames of the simulated camera to compare filters by.
func (s *server) registerTargets(kept *service.Service) {
	huma.Register(s.api, huma.Operation{
		OperationID: "simulate-target", Method: http.MethodGet, Path: "/api/sim/target/{target}", Tags: []string{"measure"},
		Summary: "Take a frame of a target with the simulated camera",
	}, func(ctx context.Context, in *TargetInput) (*file, error) {
		name, body, err := kept.SimulatedTarget(ctx, in.Target, in.FilterID, in.RigID, in.Frame)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &file{mediaPNG, mime.FormatMediaType("attachment", map[string]string{"filename": name}), body}, nil
	})
}

// ClipInput says what shot the simulated camera records.
type ClipInput struct {
	ShotID string `query:"shotId" maxLength:"60" required:"true"`
}

// registerClips offers clips of the simulated camera.
func (s *server) registerClips(kept *service.Service) {
	huma.Register(s.api, huma.Operation{
		OperationID: "simulate-clip", Method: http.MethodGet, Path: "/api/sim/clip.y4m", Tags: []string{"measure"},
		Summary: "Record a clip of a shot with the simulated camera",
	}, func(ctx context.Context, in *ClipInput) (*file, error) {
		name, body, err := kept.SimulatedClip(ctx, in.ShotID)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &file{"application/octet-stream", mime.FormatMediaType("attachment", map[string]string{"filename": name}), body}, nil
	})
}

// measureInput returns the parts of a form by the options they are named after: withoutExposure
// is without-exposure. A part that no option has keeps its name and is refused by it.
func measureInput(op measure.Operation, form *multipart.Form) (measure.Input, error) {
	in := measure.Input{Files: map[string][]measure.File{}, Texts: map[string][]string{}}
	names := map[string]string{}
	for _, p := range op.Options {
		names[camelCase(p.Name)] = p.Name
	}
	option := func(part string) string {
		if name, known := names[part]; known {
			return name
		}
		return part
	}
	for part, values := range form.Value {
		in.Texts[option(part)] = values
	}
	for part, files := range form.File {
		for _, header := range files {
			opened, err := header.Open()
			if err != nil {
				return measure.Input{}, fmt.Errorf("open the part %s: %w", part, err)
			}
			body, err := io.ReadAll(io.LimitReader(opened, measure.MaxFileBytes+1))
			_ = opened.Close() // nothing was written to it
			if err != nil {
				return measure.Input{}, fmt.Errorf("read the part %s: %w", part, err)
			}
			in.Files[option(part)] = append(in.Files[option(part)], measure.File{Name: header.Filename, Bytes: body})
		}
	}
	return in, nil
}

// camelCase writes without-exposure as withoutExposure.
func camelCase(name string) string {
	words := strings.Split(name, "-")
	for i, w := range words[1:] {
		words[i+1] = strings.ToUpper(w[:1]) + w[1:]
	}
	return strings.Join(words, "")
}

package web

import (
	"context"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/measure"
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
		}, func(ctx context.Context, in *MeasureInput) (*anyAnswer, error) {
			defer in.RawBody.RemoveAll()
			given, err := measureInput(op, &in.RawBody)
			if err != nil {
				return nil, fail(ctx, s.log, err)
			}
			answer, err := op.Run(given)
			if err != nil {
				return nil, fail(ctx, s.log, err)
			}
			return &anyAnswer{answer}, nil
		})
		s.describe(http.MethodPost, path, nil, op.Answer)
	}
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

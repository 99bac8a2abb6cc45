package web

import (
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/request"
	"pinhole/internal/desk"
)

// ExportInput names the format of an exported kit.
type ExportInput struct {
	Format string `query:"format" enum:"csv,json" default:"csv"`
}

// file is a file on its way out, to be saved.
type file struct {
	ContentType        string `header:"Content-Type"`
	ContentDisposition string `header:"Content-Disposition"`
	Body               []byte
}

// registerKit opens the doors to the kit as a file.
func (s *server) registerKit(kept *desk.Desk) {
	huma.Register(s.api, huma.Operation{
		OperationID: "import-kit", Method: http.MethodPost, Path: "/api/kit/import", Summary: "Look at a kit file, or add its good rows", Tags: []string{"kit"},
		Errors: []int{http.StatusBadRequest, http.StatusUnprocessableEntity}, SkipValidateBody: true,
	}, func(ctx context.Context, in *RawJSON) (*answer[desk.Imported], error) {
		asked, err := request.Decode[desk.Import](in.RawBody)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		done, err := kept.ImportKit(ctx, asked)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &answer[desk.Imported]{*done}, nil
	})
	s.describe(http.MethodPost, "/api/kit/import", reflect.TypeFor[desk.Import](), nil)
	huma.Register(s.api, huma.Operation{
		OperationID: "export-kit", Method: http.MethodGet, Path: "/api/kit/export", Summary: "Write the kit as a file", Tags: []string{"kit"},
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *ExportInput) (*file, error) {
		text, err := kept.ExportKit(ctx, in.Format)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		media := map[string]string{"csv": "text/csv; charset=utf-8", "json": "application/json"}[in.Format]
		return &file{media, `attachment; filename="kit.` + in.Format + `"`, []byte(text)}, nil
	})
	s.registerFit(kept)
}

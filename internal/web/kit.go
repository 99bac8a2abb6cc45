package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/internal/service"
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
func (s *server) registerKit(kept *service.Service) {
	addPosted(s, "/api/kit/import", "import-kit", "Look at a kit file, or add its good rows", "kit", kept.ImportKit)
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
	s.registerStandIns(kept)
	s.registerTargets(kept)
	s.registerClips(kept)
}

package web

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"os"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/internal/archive"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// ArchiveInput is an archive on its way in.
type ArchiveInput struct {
	Take string `query:"take" enum:"ours,theirs" doc:"what becomes of what was changed both here and there; left out, nothing is stored while there is such"`
	Look bool   `query:"look" doc:"say what it would bring, and store nothing"`
	FileInput
}

// registerArchive opens the doors by which everything goes out and comes in.
func (s *server) registerArchive(kept *service.Service) {
	huma.Register(s.api, huma.Operation{
		OperationID: "export-archive", Method: http.MethodGet, Path: "/api/archive", Summary: "Write everything as one open archive", Tags: []string{"archive"},
		Errors: []int{http.StatusForbidden},
	}, func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		f, err := os.CreateTemp("", "pinhole-archive-*.zip")
		if err != nil {
			return nil, fail(ctx, s.log, fmt.Errorf("make room for an archive: %w", err))
		}
		defer os.Remove(f.Name()) // an open file outlives its name
		if err := kept.Export(ctx, f); err != nil {
			_ = f.Close()
			return nil, fail(ctx, s.log, err)
		}
		return streamed(f, "application/zip", fmt.Sprintf("pinhole-%s.zip", kept.Now().Format(time.DateOnly))), nil
	})
	register(s, huma.Operation{
		OperationID: "import-archive", Method: http.MethodPost, Path: "/api/import/archive", Summary: "Bring an archive in, or look at what it would bring", Tags: []string{"archive"},
		MaxBodyBytes: mostUpload, Errors: []int{http.StatusForbidden, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *ArchiveInput) (*store.Merged, error) {
		come, err := archive.Read(bytes.NewReader(in.RawBody), int64(len(in.RawBody)))
		if err != nil {
			return nil, err
		}
		return kept.Store.Merge(ctx, come, store.Take(in.Take), in.Look)
	})
}

package web

import (
	"context"
	"net/http"

	"pinhole/internal/store"
)

// registerBin opens the doors to what was deleted.
func (s *server) registerBin(kept *store.Store) {
	listed := func(ctx context.Context, _ *struct{}) (*listing[store.Binned], error) {
		all, err := kept.Bin(ctx)
		return &listing[store.Binned]{all}, err
	}
	addGot(s, "/api/bin", "list-bin", "List what was deleted and can be brought back", "bin", listed)
	addAsked(s, http.MethodDelete, "/api/bin", "empty-bin", "Remove for good what was deleted", "bin", func(ctx context.Context, in *struct{}) (*listing[store.Binned], error) {
		if err := kept.EmptyBin(ctx); err != nil {
			return nil, err
		}
		return listed(ctx, in)
	})
}

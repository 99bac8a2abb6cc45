package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
	"pinhole/internal/service"
)

// Status is what the page shows about the server.
type Status struct {
	Version string `json:"version"`
	Model   string `json:"model" doc:"version of the rules that answers follow"`
	Demo    bool   `json:"demo" doc:"true where the data is the made-up demo"`
	// Damage is told so that the page can say that nothing is stored.
	Damage string `json:"damage,omitempty" doc:"what is wrong with the data file, which is then only read"`
	// AtDesk is false for devices that are let in by a passphrase.
	AtDesk      bool   `json:"atDesk" doc:"true on the machine that keeps the data"`
	Fingerprint string `json:"fingerprint,omitempty" doc:"SHA-256 of the certificate authority that other devices are asked to trust"`
	KeepDays    int    `json:"keepDays" doc:"for how many days a device keeps what it was shown, for when the server is gone"`
	// Shared are web addresses.
	Shared []string `json:"shared" doc:"where other devices on the local network reach this, none where they do not"`
}

// Health says that the server does what it is asked about.
type Health struct {
	OK bool `json:"ok"`
}

// registerHealth opens two doors for who watches the server: health fails where the data
// cannot be read, readiness where nothing can be stored.
func (s *server) registerHealth(kept *service.Service) {
	check := func(path, id, summary string, ask func(context.Context) error) {
		addGot(s, path, id, summary, "status", func(ctx context.Context, _ *struct{}) (*Health, error) {
			if err := ask(ctx); err != nil {
				s.log.ErrorContext(ctx, id, "error", err)
				return nil, newFailure(http.StatusServiceUnavailable, summary+": no")
			}
			return &Health{true}, nil
		})
	}
	check("/api/health", "get-health", "Can the data be read", kept.Store.Readable)
	check("/api/ready", "get-readiness", "Can something be stored", kept.Store.Writable)
}

func (s *server) registerStatus(config Config) {
	register(s, huma.Operation{
		OperationID: "get-status", Method: http.MethodGet, Path: "/api/status", Summary: "Get the server's versions", Tags: []string{"status"},
	}, func(ctx context.Context, _ *struct{}) (*Status, error) {
		days, err := s.service.Store.KeepDays(ctx)
		if err != nil {
			return nil, err
		}
		damage := s.service.Store.Damage()
		return &Status{KeepDays: days, Damage: damage, Fingerprint: config.Fingerprint, AtDesk: s.door == nil, Version: config.Version, Model: calc.ModelVersion, Demo: config.Demo, Shared: append([]string{}, config.Shared...)}, nil
	})
}

package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/calc"
)

// Status is what the page shows about the server.
type Status struct {
	Version string `json:"version"`
	Model   string `json:"model" doc:"version of the rules that answers follow"`
	Demo    bool   `json:"demo" doc:"true where the data is the made-up demo"`
	// Shared are web addresses.
	Shared []string `json:"shared" doc:"where other devices on the local network reach this, none where they do not"`
}

func (s *server) registerStatus(config Config) {
	huma.Register(s.api, huma.Operation{
		OperationID: "get-status", Method: http.MethodGet, Path: "/api/status", Summary: "Get the server's versions", Tags: []string{"status"},
	}, func(context.Context, *struct{}) (*answer[Status], error) {
		return &answer[Status]{Status{Version: config.Version, Model: calc.ModelVersion, Demo: config.Demo, Shared: append([]string{}, config.Shared...)}}, nil
	})
}

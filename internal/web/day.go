package web

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"pinhole/core/assemble"
	"pinhole/core/exif"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/internal/files"
	"pinhole/internal/service"
	"pinhole/internal/sim"
	"pinhole/internal/store"
	"pinhole/internal/zone"
)

type (
	// PlanFileInput names a shoot and the format of its plan.
	PlanFileInput struct {
		ByID
		Format string `query:"format" enum:"ics,csv,json" default:"ics"`
	}
	// YearInput names a shoot and one of its cameras.
	YearInput struct {
		ByID
		Camera string `query:"camera" maxLength:"60" doc:"that of the first shot by default"`
	}
	// FileInput is a file as it is.
	FileInput struct {
		RawBody []byte `contentType:"application/octet-stream"`
	}
	// ZoneAnswer is the time zone of a place.
	ZoneAnswer struct {
		Zone string `json:"zone" doc:"IANA name"`
	}
)

// mostUpload is the largest file that is read.
const mostUpload = 32 << 20

// registerDay opens the doors to the light and the plan of a shoot.
func (s *server) registerDay(kept *service.Service) {
	addGot(s, "/api/shoots/{id}/day", "get-day", "Get a shoot ready for planning", "shoots", func(ctx context.Context, in *ByID) (*service.Day, error) {
		return kept.Day(ctx, in.ID)
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "export-plan", Method: http.MethodGet, Path: "/api/shoots/{id}/plan", Summary: "Write the plan of a shoot as a file", Tags: []string{"shoots"},
		Errors: []int{http.StatusNotFound, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *PlanFileInput) (*file, error) {
		p, err := kept.PlanFile(ctx, in.ID)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		var out bytes.Buffer
		media := "text/calendar; charset=utf-8"
		switch in.Format {
		case "csv":
			media, err = "text/csv; charset=utf-8", files.WritePlanCSV(&out, *p)
		case "json":
			media, err = "application/json", json.NewEncoder(&out).Encode(p)
		default:
			err = files.WriteCalendar(&out, *p, kept.Now())
		}
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return &file{media, `attachment; filename="plan.` + in.Format + `"`, out.Bytes()}, nil
	})
	addGot(s, "/api/shoots/{id}/year", "get-year", "Get the light of a shoot's place through a year, and the filters it calls for", "shoots", func(ctx context.Context, in *YearInput) (*service.YearOf, error) {
		return kept.Year(ctx, in.ID, in.Camera)
	})
	addPosted(s, "/api/zone", "find-zone", "Find the time zone of a place, without a network", "shoots", func(_ context.Context, r assemble.PlaceFields) (*ZoneAnswer, error) {
		name, err := zone.At(r)
		return &ZoneAnswer{name}, err
	})
	addPosted(s, "/api/sim/meter", "simulate-meter", "Hold the simulated meter into a day", "simulated", func(_ context.Context, r sim.MeterRequest) (*sim.MeterAnswer, error) {
		return sim.Meter(r), nil
	})
	addPosted(s, "/api/sim/sky", "simulate-sky", "Ask the simulated sky service", "simulated", func(_ context.Context, r sim.SkyRequest) (*sim.SkyAnswer, error) {
		return sim.Sky(r), nil
	})
	addFile(s, "/api/import/track", "import-track", "Read a GPX track", func(_ context.Context, body []byte) (*files.Track, error) {
		return files.ReadTrack(bytes.NewReader(body))
	})
	addFile(s, "/api/import/still", "import-still", "Read the exposure of a picture: JPEG, PNG, HEIC, AVIF or raw", func(_ context.Context, body []byte) (*exif.Still, error) {
		return exif.ReadStill(body)
	})
	readings := kept.Store.LightReadings()
	addResource(s, resource[store.LightReading, store.LightReadingFields, store.LightReading]{
		name: "light-reading", plural: "light-readings", get: readings.Get, list: readings.Page, remove: readings.Delete, restore: readings.Restore,
		save: kept.SaveLightReading,
		join: func(m store.Meta, f store.LightReadingFields) store.LightReading {
			return store.LightReading{Meta: m, LightReadingFields: f}
		},
		show: asIs[store.LightReading],
	})
}

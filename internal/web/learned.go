package web

import (
	"context"

	"pinhole/internal/desk"
	"pinhole/internal/store"
)

// UseLog says whether answers are given with what the log teaches.
type UseLog struct {
	Used bool `json:"used"`
}

// Forget names a place of which the log is to know nothing more.
type Forget struct {
	Place string `json:"place" minLength:"1" maxLength:"120"`
}

// registerLearned opens the doors to the records and to what they teach.
func (s *server) registerLearned(kept *desk.Desk) {
	records := kept.Store.Records()
	addResource(s, resource[store.Record, store.RecordFields, store.Record]{
		name: "record", plural: "records", get: records.Get, list: records.Page, remove: records.Delete, restore: records.Restore,
		save: checked(records, kept.CheckRecord),
		join: func(m store.Meta, f store.RecordFields) store.Record { return store.Record{Meta: m, RecordFields: f} },
		show: asIs[store.Record],
	})
	addGot(s, "/api/learned", "get-learned", "Get what the log teaches", "records", func(ctx context.Context, _ *struct{}) (*desk.Learned, error) {
		return kept.Learned(ctx)
	})
	addPosted(s, "/api/learned/use", "use-log", "Say whether answers are given with what the log teaches", "records", func(ctx context.Context, u UseLog) (*desk.Learned, error) {
		return kept.UseLog(ctx, u.Used)
	})
	addPosted(s, "/api/learned/settle", "settle-suggestion", "Take a suggestion of the log, or decline it for good", "records", kept.Settle)
	addPosted(s, "/api/learned/forget", "forget-place", "Remove for good what the log knows of a place", "records", func(ctx context.Context, f Forget) (*desk.Learned, error) {
		return kept.ForgetPlace(ctx, f.Place)
	})
}

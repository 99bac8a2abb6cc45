package web

import (
	"context"

	"pinhole/core/practice"
	"pinhole/internal/service"
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
func (s *server) registerLearned(kept *service.Service) {
	records := kept.Store.Records()
	addResource(s, resource[store.Record, store.RecordFields, store.Record]{
		name: "record", plural: "records", get: records.Get, list: records.Page, remove: records.Delete, restore: records.Restore,
		save: checked(records, kept.CheckRecord),
		join: func(m store.Meta, f store.RecordFields) store.Record { return store.Record{Meta: m, RecordFields: f} },
		show: asIs[store.Record],
	})
	answers := kept.Store.PracticeAnswers()
	addResource(s, resource[store.PracticeAnswer, practice.Answered, store.PracticeAnswer]{
		name: "practice-answer", plural: "practice-answers", get: answers.Get, list: answers.Page, remove: answers.Delete, restore: answers.Restore, save: answers.Save,
		join: func(m store.Meta, f practice.Answered) store.PracticeAnswer {
			return store.PracticeAnswer{Meta: m, Answered: f}
		},
		show: asIs[store.PracticeAnswer],
	})
	addGot(s, "/api/practice", "get-practice", "Get the mistakes of the log that practice trains, and the guesses of light", "practice-answers", func(ctx context.Context, _ *struct{}) (*service.Practice, error) {
		return kept.Practice(ctx)
	})
	addGot(s, "/api/learned", "get-learned", "Get what the log teaches", "records", func(ctx context.Context, _ *struct{}) (*service.Learned, error) {
		return kept.Learned(ctx)
	})
	addPosted(s, "/api/learned/use", "use-log", "Say whether answers are given with what the log teaches", "records", func(ctx context.Context, u UseLog) (*service.Learned, error) {
		return kept.UseLog(ctx, u.Used)
	})
	addPosted(s, "/api/learned/settle", "settle-suggestion", "Take a suggestion of the log, or decline it for good", "records", kept.Settle)
	addPosted(s, "/api/learned/forget", "forget-place", "Remove for good what the log knows of a place", "records", func(ctx context.Context, f Forget) (*service.Learned, error) {
		return kept.ForgetPlace(ctx, f.Place)
	})
}

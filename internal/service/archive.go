package service

import (
	"bytes"
	"context"
	"errors"
	"io"
	"time"

	"pinhole/internal/archive"
	"pinhole/internal/sheet"
	"pinhole/internal/store"
)

// Export writes everything as one archive, with tables of what people look up.
func (svc *Service) Export(ctx context.Context, w io.Writer) error {
	all, err := svc.Store.Archive(ctx)
	if err != nil {
		return err
	}
	kit, err := svc.ExportKit(ctx, "csv")
	if err != nil {
		return err
	}
	shots, err1 := table("shots.csv", shotRows(all))
	log, err2 := table("field-log.csv", logRows(all))
	if err := errors.Join(err1, err2); err != nil {
		return err
	}
	return archive.Write(w, all, []archive.Table{{Name: "kit.csv", Text: []byte(kit)}, shots, log}, svc.Now())
}

func table(name string, rows [][]string) (archive.Table, error) {
	for _, row := range rows {
		for i := range row {
			row[i] = sheet.Guarded(row[i])
		}
	}
	var out bytes.Buffer
	err := sheet.Write(&out, rows)
	return archive.Table{Name: name, Text: out.Bytes()}, err
}

// shotRows are the shots that are not deleted, with what they were told when they were typed.
func shotRows(a *store.Archive) [][]string {
	shoots := map[string]string{}
	for _, s := range a.Shoots {
		shoots[s.ID] = s.Name
	}
	rows := [][]string{{"shoot", "shot", "starts at", "camera", "frame rate", "target", "light", "glass", "state"}}
	for _, s := range a.Shots {
		if s.DeletedAt != nil {
			continue
		}
		starts, light, glass := "", "", ""
		if s.StartsAt != nil {
			starts = s.StartsAt.Format(time.RFC3339)
		}
		if r := s.Answer.Given.Reading; r != nil {
			light = r.Text
		}
		for i, id := range s.Answer.Given.Chosen.Filters {
			if i > 0 {
				glass += " + "
			}
			glass += s.Answer.Glass[id]
		}
		rows = append(rows, []string{shoots[s.ShootID], s.Name, starts, s.Answer.Camera, s.Look.FPS, s.Look.Target, light, glass, string(s.Answer.Given.State)})
	}
	return rows
}

func logRows(a *store.Archive) [][]string {
	shoots := map[string]string{}
	for _, s := range a.Shoots {
		shoots[s.ID] = s.Name
	}
	rows := [][]string{{"shoot", "at", "what", "step", "words"}}
	for _, e := range a.FieldLog {
		rows = append(rows, []string{shoots[e.ShootID], e.At.Format(time.RFC3339), e.Kind, e.Step, e.Words})
	}
	return rows
}

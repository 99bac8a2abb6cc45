package web

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/internal/service"
	"pinhole/internal/store"
)

type (
	// Backups are the copies that lie beside the data file.
	Backups struct {
		IsDaily bool         `json:"isDaily" doc:"a copy makes itself each day"`
		Folder  string       `json:"folder" doc:"where the copies lie"`
		Bytes   int64        `json:"bytes" doc:"size of the data file"`
		Copies  []store.Copy `json:"copies" doc:"the latest first"`
	}
	// BackupRule says whether copies make themselves.
	BackupRule struct {
		IsDaily bool `json:"isDaily"`
	}
	// Restored says where the state that was replaced is kept.
	Restored struct {
		Aside string `json:"aside" doc:"the file that holds what was there before"`
	}
	// ByName names a copy.
	ByName struct {
		Name string `path:"name" maxLength:"60"`
	}
)

// registerBackups opens the doors to backups.
func (s *server) registerBackups(kept *service.Service) {
	data := kept.Store
	state := func(ctx context.Context) (*Backups, error) {
		isDaily, err := data.CopiesDaily(ctx)
		copies, err2 := data.Copies()
		size, err3 := data.Size(ctx)
		return &Backups{IsDaily: isDaily, Folder: data.CopiesFolder(), Bytes: size, Copies: copies}, errors.Join(err, err2, err3)
	}
	then := func(ctx context.Context, err error) (*Backups, error) {
		if err != nil {
			return nil, err
		}
		return state(ctx)
	}
	addGot(s, "/api/backups", "list-backups", "List the copies of the data file", "backups", func(ctx context.Context, _ *struct{}) (*Backups, error) {
		return state(ctx)
	})
	addPosted(s, "/api/backups/daily", "set-daily-backups", "Turn daily copies on or off", "backups", func(ctx context.Context, r BackupRule) (*Backups, error) {
		return then(ctx, data.SetCopiesDaily(ctx, r.IsDaily))
	})
	addAsked(s, http.MethodPost, "/api/backups", "make-backup", "Make a copy of the data file now", "backups", func(ctx context.Context, _ *struct{}) (*Backups, error) {
		return then(ctx, data.MakeCopy(ctx))
	})
	addAsked(s, http.MethodDelete, "/api/backups/{name}", "remove-backup", "Remove a copy", "backups", func(ctx context.Context, in *ByName) (*Backups, error) {
		return then(ctx, data.RemoveCopy(in.Name))
	})
	addAsked(s, http.MethodPost, "/api/backups/{name}/restore", "restore-backup", "Put a copy in place of the data file", "backups", func(ctx context.Context, in *ByName) (*Restored, error) {
		path, err := data.CopyPath(in.Name)
		if err != nil {
			return nil, err
		}
		aside, err := data.Restore(ctx, path)
		return &Restored{aside}, err
	})
	addFile(s, "/api/import/backup", "restore-file", "Put a backup file in place of the data file", func(ctx context.Context, body []byte) (*Restored, error) {
		aside, err := restoreBytes(ctx, data, body)
		return &Restored{aside}, err
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "download-backup", Method: http.MethodGet, Path: "/api/backups/file", Summary: "Take a copy of the data file away", Tags: []string{"backups"},
		Errors: []int{http.StatusForbidden},
	}, func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		f, err := freshCopy(ctx, data)
		if err != nil {
			return nil, fail(ctx, s.log, err)
		}
		return streamed(f, "application/vnd.sqlite3", fmt.Sprintf("pinhole-%s.db", kept.Now().Format(time.DateOnly))), nil
	})
}

// streamed answers with a file to be saved, from its start, and closes it.
func streamed(f *os.File, media, name string) *huma.StreamResponse {
	return &huma.StreamResponse{Body: func(out huma.Context) {
		defer f.Close()
		if _, err := f.Seek(0, io.SeekStart); err != nil {
			out.SetStatus(http.StatusInternalServerError)
			return
		}
		out.SetHeader("Content-Type", media)
		out.SetHeader("Content-Disposition", `attachment; filename="`+name+`"`)
		// Nothing is left to say to a client that does not read the answer.
		_, _ = io.Copy(out.BodyWriter(), f)
	}}
}

// freshCopy returns a copy of the data file that goes when it is closed.
func freshCopy(ctx context.Context, data *store.Store) (*os.File, error) {
	folder, err := os.MkdirTemp("", "pinhole-backup-")
	if err != nil {
		return nil, fmt.Errorf("make room for a backup: %w", err)
	}
	defer os.RemoveAll(folder) // an open file outlives its name
	path := filepath.Join(folder, "pinhole.db")
	if err := data.Backup(ctx, path); err != nil {
		return nil, err
	}
	return os.Open(path)
}

// restoreBytes restores a backup that was sent.
func restoreBytes(ctx context.Context, data *store.Store, body []byte) (aside string, err error) {
	folder, err := os.MkdirTemp("", "pinhole-restore-")
	if err != nil {
		return "", fmt.Errorf("make room for a backup: %w", err)
	}
	defer func() { err = errors.Join(err, os.RemoveAll(folder)) }()
	path := filepath.Join(folder, "sent.db")
	if err := os.WriteFile(path, body, 0o600); err != nil {
		return "", fmt.Errorf("keep the backup that was sent: %w", err)
	}
	return data.Restore(ctx, path)
}

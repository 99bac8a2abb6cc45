package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"pinhole/core/assemble"
	"time"

	"pinhole/core/calc"
)

// Shot is one shot with the answer it was last given.
type Shot struct {
	Meta
	ShotFields
	Answer Answer `json:"answer"`
}

// ShotFields is what is wished for and read for a shot, as typed.
type ShotFields struct {
	ShootID  string     `json:"shootId" minLength:"1" maxLength:"60"`
	CameraID string     `json:"cameraId" minLength:"1" maxLength:"60"`
	RigID    string     `json:"rigId,omitempty" maxLength:"60" doc:"how the camera is held; its first rig by default"`
	Name     string     `json:"name" minLength:"1" maxLength:"80"`
	StartsAt *time.Time `json:"startsAt,omitempty" doc:"with the zone it is planned in"`
	assemble.Asked
	Light  assemble.ShotLight `json:"light"`
	Day    ShotDay            `json:"day,omitzero"`
	Placed *[]string          `json:"placed,omitempty" maxItems:"4" doc:"glass put on by hand; left out, the best option is taken"`
}

// Answer is what a shot was told, and everything needed to explain it later:
// the request as it stood then and the version of the rules.
type Answer struct {
	Model   string               `json:"model"`
	At      time.Time            `json:"at"`
	Request assemble.ShotRequest `json:"request"`
	Given   calc.ShotAnswer      `json:"given"`
	// Unanswered says why there is no answer, of a shot that its camera's gear gives none.
	Unanswered string `json:"unanswered,omitempty" doc:"why there is no answer"`
	// Camera and Glass are what things were called, for when they are gone.
	Camera string            `json:"camera,omitempty"`
	Glass  map[string]string `json:"glass,omitempty" doc:"names by id"`
}

func shots() table[Shot] {
	return table[Shot]{
		name: "shots",
		meta: func(s *Shot) *Meta { return &s.Meta },
		columns: func(s *Shot) []column {
			return []column{
				{"shoot_id", &s.ShootID},
				{"camera_id", &s.CameraID},
				{"name", &s.Name},
				{"starts_at", maybe{&s.StartsAt}},
				{"look", asJSON{&s.Look}},
				{"light", asJSON{&s.Light}},
				{"choices", asJSON{&s.Choices}},
				{"placed", asJSON{&s.Placed}},
				{"answer", asJSON{&s.Answer}},
				{"scene", asJSON{&s.Scene}},
				{"rig_id", &s.RigID},
				{"day", asJSON{&s.Day}},
			}
		},
	}
}

// Shots returns the collection of shots.
func (s *Store) Shots() Collection[Shot] { return Collection[Shot]{s, shots()} }

// ShotsOf returns the shots of a shoot.
func (s *Store) ShotsOf(ctx context.Context, shootID string) ([]Shot, error) {
	return shots().list(ctx, s.reader, "shoot_id = ?", shootID)
}

// ShotNames returns what the shots of a shoot are called.
func (s *Store) ShotNames(ctx context.Context, shootID string) (names []string, err error) {
	rows, err := s.reader.QueryContext(ctx, "SELECT name FROM shots WHERE deleted_at IS NULL AND shoot_id = ?", shootID)
	if err != nil {
		return nil, fmt.Errorf("read the names of shots: %w", translate(err))
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		var name string
		if err := rows.Scan(&name); err != nil {
			return nil, fmt.Errorf("read the name of a shot: %w", err)
		}
		names = append(names, name)
	}
	return names, rows.Err()
}

// LastShots returns of each camera the shot that was changed last, the latest first.
func (s *Store) LastShots(ctx context.Context) ([]Shot, error) {
	return shots().query(ctx, s.reader, `deleted_at IS NULL AND id = (
		SELECT last.id FROM shots AS last WHERE last.camera_id = shots.camera_id AND last.deleted_at IS NULL
		ORDER BY last.updated_at DESC, last.created_at, last.id LIMIT 1)
		ORDER BY updated_at DESC, created_at, id`)
}

// SaveShot stores a new shot (without an id) or a changed one, together with the
// readings that its light was taken from. Both or neither are stored.
func (s *Store) SaveShot(ctx context.Context, shot Shot, taken []Reading) (saved Shot, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		isSent, err := shots().isSent(ctx, tx, shot)
		if err != nil {
			return err
		}
		saved, err = shots().save(ctx, tx, shot, s.now())
		if err != nil || isSent { // with its readings
			return err
		}
		for _, r := range taken {
			r.ShotID = saved.ID
			if _, err := readings().insert(ctx, tx, r, s.now()); err != nil {
				return err
			}
		}
		return nil
	})
	return saved, err
}

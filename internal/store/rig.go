package store

import (
	"context"
	"database/sql"
	"pinhole/core/assemble"
	"pinhole/core/fit"
)

// Rig is a camera as it is held: bare, in a frame, cage or case, and which way
// round.
type Rig struct {
	Meta
	RigFields
}

// RigFields is what an owner says of a rig.
type RigFields struct {
	CameraID string `json:"cameraId" minLength:"1" maxLength:"60"`
	RigSheet
}

// RigSheet is a rig apart from whose it is.
type RigSheet struct {
	Name     string            `json:"name" minLength:"1" maxLength:"80"`
	Housing  string            `json:"housing" enum:"bare,frame,cage,case"`
	Way      string            `json:"way" enum:"upright,upside-down,sideways,reversed" doc:"which way round the camera sits"`
	Measures fit.RigFields     `json:"measures"`
	Craft    *assemble.Craft   `json:"craft,omitempty" doc:"how it usually moves, and its pilot's rates"`
	Recipe   Recipe            `json:"recipe,omitzero" doc:"what is set otherwise than on the camera as it usually is"`
	Sources  map[string]Source `json:"sources,omitempty" doc:"where the measures come from (printed, measured, assumed), by the name of their field"`
}

// BareRig is a camera of which nobody has said how it is held.
func BareRig() RigSheet { return RigSheet{Name: "bare", Housing: "bare", Way: "upright"} }

func rigs() table[Rig] {
	return table[Rig]{
		name: "rigs",
		meta: func(r *Rig) *Meta { return &r.Meta },
		columns: func(r *Rig) []column {
			return []column{
				{"camera_id", &r.CameraID},
				{"name", &r.Name},
				{"housing", &r.Housing},
				{"way", &r.Way},
				{"measures", asJSON{&r.Measures}},
				{"sources", asJSON{&r.Sources}},
				{"craft", asJSON{&r.Craft}},
				{"recipe", asJSON{&r.Recipe}},
			}
		},
	}
}

// Rigs returns the collection of rigs, of cameras that are deleted too.
func (s *Store) Rigs() Collection[Rig] { return Collection[Rig]{s, rigs()} }

// RigsOf returns the rigs of a camera in the order in which they were added, whatever the
// clock said; the first is the one it is held as where nothing is said.
func (s *Store) RigsOf(ctx context.Context, cameraID string) ([]Rig, error) {
	return rigs().query(ctx, s.reader, "deleted_at IS NULL AND camera_id = ? ORDER BY position", cameraID)
}

// AddCamera stores a new camera with its first rig. Both or neither are stored.
func (s *Store) AddCamera(ctx context.Context, c Camera, rig RigSheet) (added Camera, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		cameras := s.Cameras().table
		isSent, err := cameras.isSent(ctx, tx, c)
		if err != nil {
			return err
		}
		if added, err = cameras.insert(ctx, tx, c, s.now()); err != nil || isSent { // with its rig
			return err
		}
		_, err = rigs().insert(ctx, tx, Rig{RigFields: RigFields{CameraID: added.ID, RigSheet: rig}}, s.now())
		return err
	})
	return added, err
}

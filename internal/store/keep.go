package store

import (
	"context"
	"database/sql"
)

// Keeping is a shot with the gear and the shoot that are stored along with it. What is new
// comes with an id already, so that the shot can name it.
type Keeping struct {
	Camera  *Camera
	Rig     RigSheet // of the camera, where that is new
	Filters []Filter
	Shoot   *Shoot
	Shot    Shot
}

// Keep stores a shot and what is new with it: all or none. A shot that is there already, by
// its id, was sent before, and is returned as it is.
func (s *Store) Keep(ctx context.Context, k Keeping) (kept Shot, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		isSent, err := shots().isSent(ctx, tx, k.Shot)
		if err != nil {
			return err
		}
		if isSent {
			kept, err = shots().get(ctx, tx, k.Shot.ID)
			return err
		}
		now := s.now()
		if k.Camera != nil {
			added, err := s.Cameras().table.insert(ctx, tx, *k.Camera, now)
			if err != nil {
				return err
			}
			if _, err := rigs().insert(ctx, tx, Rig{RigFields: RigFields{CameraID: added.ID, RigSheet: k.Rig}}, now); err != nil {
				return err
			}
		}
		for _, f := range k.Filters {
			if _, err := s.Filters().table.insert(ctx, tx, f, now); err != nil {
				return err
			}
		}
		if k.Shoot != nil {
			if _, err := s.Shoots().table.insert(ctx, tx, *k.Shoot, now); err != nil {
				return err
			}
		}
		kept, err = shots().insert(ctx, tx, k.Shot, now)
		return err
	})
	return kept, err
}

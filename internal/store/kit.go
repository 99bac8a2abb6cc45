package store

import (
	"context"
	"database/sql"
)

// KitCamera is a camera with the ways in which it is held.
type KitCamera struct {
	CameraFields
	Rigs []RigSheet `json:"rigs,omitempty" maxItems:"20"`
}

// AddKit stores cameras and filters that are new, all or none, and returns their ids. The filters name
// their cameras by name, of those added and those there already.
func (s *Store) AddKit(ctx context.Context, cameras []KitCamera, filters []FilterFields) (cameraIDs, filterIDs []string, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		cameraTable, filterTable := s.Cameras().table, s.Filters().table
		for _, c := range cameras {
			added, err := cameraTable.insert(ctx, tx, Camera{CameraFields: c.CameraFields}, s.now())
			if err != nil {
				return err
			}
			cameraIDs = append(cameraIDs, added.ID)
			if len(c.Rigs) == 0 {
				c.Rigs = []RigSheet{BareRig()}
			}
			for _, rig := range c.Rigs {
				if _, err := rigs().insert(ctx, tx, Rig{RigFields: RigFields{CameraID: added.ID, RigSheet: rig}}, s.now()); err != nil {
					return err
				}
			}
		}
		all, err := cameraTable.list(ctx, tx, "")
		if err != nil {
			return err
		}
		ids := map[string]string{}
		for _, c := range all {
			ids[c.Name] = c.ID
		}
		for _, f := range filters {
			byName := f.Cameras
			f.Cameras = []string{}
			for _, name := range byName {
				f.Cameras = append(f.Cameras, ids[name])
			}
			added, err := filterTable.insert(ctx, tx, Filter{FilterFields: f}, s.now())
			if err != nil {
				return err
			}
			filterIDs = append(filterIDs, added.ID)
		}
		return nil
	})
	if err != nil {
		return nil, nil, err
	}
	return cameraIDs, filterIDs, nil
}

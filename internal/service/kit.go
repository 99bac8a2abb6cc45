package service

import (
	"context"
	"errors"
	"fmt"
	"pinhole/core/fit"
	"slices"
	"strings"

	"pinhole/core/problem"
	"pinhole/internal/kitfile"
	"pinhole/internal/store"
)

// Import is a kit file and whether it is only looked at.
type Import struct {
	Format string `json:"format" enum:"csv,json"`
	Text   string `json:"text" minLength:"1" maxLength:"900000" doc:"the content of the file"`
	Apply  bool   `json:"apply" doc:"false: say what is in it; true: add its good rows"`
}

// Imported is what a kit file holds, row by row, and what was added.
type Imported struct {
	Rows         []ImportedRow `json:"rows"`
	NewCameras   []string      `json:"newCameras" doc:"names of cameras that come with the file"`
	Good         int           `json:"good"`
	Bad          int           `json:"bad"`
	LeftOut      []string      `json:"leftOut" doc:"columns of the table that say nothing of a filter"`
	AddedFilters []string      `json:"addedFilters" doc:"ids of what was added"`
	AddedCameras []string      `json:"addedCameras" doc:"ids of what was added"`
}

// ImportedRow is one filter of the file.
type ImportedRow struct {
	Line  int            `json:"line"`
	Title string         `json:"title"`
	Says  string         `json:"says,omitempty" doc:"how its label reads"`
	Known bool           `json:"known" doc:"the same filter is in the kit; it is not added again"`
	Fault *problem.Fault `json:"fault,omitempty"`
}

// ImportKit reads a kit file and, where asked to, adds its good rows: all of them
// or, when storing fails, none. A row that is in the kit already is not added twice.
func (svc *Service) ImportKit(ctx context.Context, in Import) (*Imported, error) {
	newCameras, read, err := readKit(in)
	if err != nil {
		return nil, err
	}
	cameras, filters, err := svc.gear(ctx)
	if err != nil {
		return nil, err
	}
	out := &Imported{Rows: []ImportedRow{}, NewCameras: []string{}, LeftOut: append([]string{}, read.LeftOut...), AddedFilters: []string{}, AddedCameras: []string{}}
	ids := map[string]string{}
	for _, c := range cameras {
		ids[c.Name] = c.ID
	}
	newCameras = slices.DeleteFunc(newCameras, func(c store.KitCamera) bool { return ids[c.Name] != "" })
	for i, c := range newCameras {
		if err := checkKitCamera(c); err != nil {
			return nil, named(fmt.Sprintf("cameras[%d]", i), c.Name, err)
		}
		out.NewCameras = append(out.NewCameras, c.Name)
	}
	var good []store.FilterFields
	for _, row := range read.Rows {
		shown := svc.importedRow(row, ids, out.NewCameras, filters)
		out.Rows = append(out.Rows, shown)
		switch {
		case shown.Fault != nil:
			out.Bad++
		case !shown.Known:
			out.Good++
			good = append(good, *row.Filter)
		}
	}
	if !in.Apply {
		return out, nil
	}
	cameraIDs, filterIDs, err := svc.Store.AddKit(ctx, newCameras, good)
	if err != nil {
		return nil, err
	}
	out.AddedCameras, out.AddedFilters = append(out.AddedCameras, cameraIDs...), append(out.AddedFilters, filterIDs...)
	return out, nil
}

// gear returns the whole kit.
func (svc *Service) gear(ctx context.Context) ([]store.Camera, []store.Filter, error) {
	cameras, err := svc.Store.Cameras().List(ctx)
	if err != nil {
		return nil, nil, err
	}
	filters, err := svc.Store.Filters().List(ctx)
	return cameras, filters, err
}

func checkKitCamera(c store.KitCamera) error {
	if _, err := optics(c.CameraFields); err != nil {
		return err
	}
	for _, rig := range c.Rigs {
		if err := fit.CheckRig(&rig.Measures); err != nil {
			return err
		}
	}
	return nil
}

func readKit(in Import) ([]store.KitCamera, kitfile.Table, error) {
	if in.Format == "json" {
		cameras, rows, err := kitfile.ReadJSON(in.Text)
		return cameras, kitfile.Table{Rows: rows}, err
	}
	read, err := kitfile.ReadCSV(in.Text)
	return nil, read, err
}

// importedRow says what one row is.
func (svc *Service) importedRow(row kitfile.Row, ids map[string]string, newCameras []string, there []store.Filter) ImportedRow {
	out := ImportedRow{Line: row.Line, Fault: row.Fault}
	if row.Filter == nil {
		return out
	}
	f := *row.Filter
	shown, err := Show(store.Filter{FilterFields: f})
	out.Title = shown.Title
	if err != nil {
		if !errors.As(err, &out.Fault) {
			out.Fault = &problem.Fault{Field: "label", Value: f.Label, Allowed: err.Error()}
		}
		return out
	}
	out.Says = shown.Reads.Reads
	for _, name := range f.Cameras {
		if ids[name] == "" && !slices.Contains(newCameras, name) {
			out.Fault = &problem.Fault{Field: "cameras", Value: name, Allowed: "names of cameras in the kit or in the file, with ; between them"}
			return out
		}
	}
	out.Known = slices.ContainsFunc(there, func(k store.Filter) bool {
		return k.Label == f.Label && k.Name == f.Name && k.Slot == f.Slot && sameCameras(k.Cameras, f.Cameras, ids)
	})
	return out
}

func sameCameras(stored, named []string, ids map[string]string) bool {
	return len(stored) == len(named) && !slices.ContainsFunc(named, func(name string) bool { return !slices.Contains(stored, ids[name]) })
}

// ExportKit returns the kit as a file of the format, "csv" or "json".
func (svc *Service) ExportKit(ctx context.Context, format string) (string, error) {
	cameras, filters, err := svc.gear(ctx)
	if err != nil {
		return "", err
	}
	names := map[string]string{}
	k := kitfile.Kit{}
	for _, c := range cameras {
		names[c.ID] = c.Name
		fields := c.CameraFields
		fields.Mounted = []string{} // ids, which mean nothing elsewhere
		held, err := svc.Store.RigsOf(ctx, c.ID)
		if err != nil {
			return "", err
		}
		kept := store.KitCamera{CameraFields: fields}
		for _, rig := range held {
			kept.Rigs = append(kept.Rigs, rig.RigSheet)
		}
		k.Cameras = append(k.Cameras, kept)
	}
	for _, f := range filters {
		fields := f.FilterFields
		fields.Cameras = []string{}
		for _, id := range f.Cameras {
			if names[id] != "" {
				fields.Cameras = append(fields.Cameras, names[id])
			}
		}
		k.Filters = append(k.Filters, fields)
	}
	var file strings.Builder
	if format == "json" {
		err = kitfile.WriteJSON(&file, k)
	} else {
		err = kitfile.WriteCSV(&file, k.Filters)
	}
	return file.String(), err
}

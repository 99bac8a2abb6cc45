// Package archive writes everything that is kept as one open file and reads it back: a zip
// of JSON documents, one of each kind, beside tables for spreadsheets. docs/archive.md
// describes it.
package archive

import (
	"archive/zip"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"time"

	"pinhole/core/practice"
	"pinhole/core/problem"
	"pinhole/core/request"
	"pinhole/internal/store"
)

// Format and Version mark an archive.
const (
	Format  = "pinhole-archive"
	Version = 5
)

// about is the first document of an archive.
type about struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	Made    time.Time `json:"made"`
}

// Bounds on what is read of an archive, so that none is a bomb.
const (
	maxFiles     = 100
	maxFileBytes = 64 << 20
	maxRows      = 100_000
)

// kind is one document of an archive: how it is written of one, and read into one.
type kind struct {
	file string
	// since is the version of the format in which it came; an older archive has none of it.
	since int
	write func(*store.Archive) any
	read  func(*store.Archive, []json.RawMessage) error
}

var kinds = []kind{
	of("cameras.json", func(a *store.Archive) *[]store.Camera { return &a.Cameras }, func(v *store.Camera) part { return part{&v.Meta, &v.CameraFields, checked[store.CameraFields]} }),
	of("rigs.json", func(a *store.Archive) *[]store.Rig { return &a.Rigs }, func(v *store.Rig) part { return part{&v.Meta, &v.RigFields, checked[store.RigFields]} }),
	of("filters.json", func(a *store.Archive) *[]store.Filter { return &a.Filters }, func(v *store.Filter) part { return part{&v.Meta, &v.FilterFields, checked[store.FilterFields]} }),
	since(2, of("packs.json", func(a *store.Archive) *[]store.Pack { return &a.Packs }, func(v *store.Pack) part { return part{&v.Meta, &v.PackFields, checked[store.PackFields]} })),
	of("trials.json", func(a *store.Archive) *[]store.Trial { return &a.Trials }, func(v *store.Trial) part { return part{&v.Meta, &v.TrialFields, checked[store.TrialFields]} }),
	of("shoots.json", func(a *store.Archive) *[]store.Shoot { return &a.Shoots }, func(v *store.Shoot) part { return part{&v.Meta, &v.ShootFields, checked[store.ShootFields]} }),
	of("shots.json", func(a *store.Archive) *[]store.Shot { return &a.Shots }, func(v *store.Shot) part { return part{&v.Meta, &v.ShotFields, checked[store.ShotFields]} }),
	of("readings.json", func(a *store.Archive) *[]store.Reading { return &a.Readings }, func(v *store.Reading) part { return part{&v.Meta, &v.ReadingFields, checked[store.ReadingFields]} }),
	of("light-readings.json", func(a *store.Archive) *[]store.LightReading { return &a.LightReadings }, func(v *store.LightReading) part {
		return part{&v.Meta, &v.LightReadingFields, checked[store.LightReadingFields]}
	}),
	of("field-log.json", func(a *store.Archive) *[]store.LoggedEntry { return &a.FieldLog }, func(v *store.LoggedEntry) part {
		return part{nil, &v.FieldEntryFields, checked[store.FieldEntryFields]}
	}),
	since(3, of("records.json", func(a *store.Archive) *[]store.Record { return &a.Records }, func(v *store.Record) part { return part{&v.Meta, &v.RecordFields, checked[store.RecordFields]} })),
	since(4, of("practice.json", func(a *store.Archive) *[]store.PracticeAnswer { return &a.Practice }, func(v *store.PracticeAnswer) part {
		return part{&v.Meta, &v.Answered, checked[practice.Answered]}
	})),
	since(5, of("settled.json", func(a *store.Archive) *[]store.Taste { return &a.Settled }, func(v *store.Taste) part { return part{nil, v, checked[store.Taste]} })),
}

// part is what of a thing came from outside, and how that is checked.
type part struct {
	meta   *store.Meta
	fields any
	check  func([]byte) error
}

// checked asks of fields what is asked of them at the door.
func checked[F any](text []byte) error {
	_, err := request.Decode[F](text)
	return err
}

// since returns a kind that came in a later version of the format than the first.
func since(version int, k kind) kind {
	k.since = version
	return k
}

func of[T any](file string, list func(*store.Archive) *[]T, parts func(*T) part) kind {
	return kind{file, 1,
		func(a *store.Archive) any { return *list(a) },
		func(a *store.Archive, rows []json.RawMessage) error {
			for i, row := range rows {
				var v T
				if err := json.Unmarshal(row, &v); err != nil {
					return fmt.Errorf("[%d]: %w", i, err)
				}
				if err := parts(&v).isSound(); err != nil {
					return fmt.Errorf("[%d]: %w", i, err)
				}
				*list(a) = append(*list(a), v)
			}
			return nil
		},
	}
}

// longestID bounds an id, in bytes.
const longestID = 60

func (p part) isSound() error {
	if m := p.meta; m != nil {
		if m.ID == "" || len(m.ID) > longestID || m.Version < 1 || m.CreatedAt.IsZero() || m.UpdatedAt.IsZero() { // whichever came first: clocks are set
			return errors.New("an id, a version from 1, and when it was made and changed belong to every thing")
		}
	}
	text, err := json.Marshal(p.fields)
	if err != nil {
		return err
	}
	return p.check(text)
}

// Table is a table for spreadsheets that goes out with an archive; none comes in.
type Table struct {
	Name string
	Text []byte
}

// Write writes an archive.
func Write(w io.Writer, a *store.Archive, tables []Table, made time.Time) error {
	out := zip.NewWriter(w)
	add := func(name string, text []byte) error {
		f, err := out.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: made})
		if err == nil {
			_, err = f.Write(text)
		}
		return err
	}
	document := func(name string, v any) error {
		text, err := json.MarshalIndent(v, "", " ")
		if err != nil {
			return err
		}
		return add(name, append(text, '\n'))
	}
	err := document(Format+".json", about{Format, Version, made})
	for _, k := range kinds {
		err = errors.Join(err, document(k.file, k.write(a)))
	}
	for _, t := range tables {
		err = errors.Join(err, add("tables/"+t.Name, t.Text))
	}
	if err = errors.Join(err, out.Close()); err != nil {
		return fmt.Errorf("write the archive: %w", err)
	}
	return nil
}

// Read reads an archive. Faults name "file".
func Read(r io.ReaderAt, size int64) (*store.Archive, error) {
	in, err := zip.NewReader(r, size)
	if err != nil {
		return nil, fault("not a zip file: " + err.Error())
	}
	if len(in.File) > maxFiles {
		return nil, fault(fmt.Sprintf("%d files", len(in.File)))
	}
	texts := map[string][]byte{}
	for _, f := range in.File {
		if _, isThere := texts[f.Name]; isThere {
			return nil, fault(f.Name + " twice")
		}
		if texts[f.Name], err = read(f); err != nil {
			return nil, fault(fmt.Sprintf("%.60s: %s", f.Name, err))
		}
	}
	var first about
	if err := json.Unmarshal(texts[Format+".json"], &first); err != nil || first.Format != Format {
		return nil, fault("no " + Format + ".json in it")
	}
	if first.Version > Version {
		return nil, &problem.Fault{Field: "file", Value: first.Version, Allowed: fmt.Sprintf("an archive of version %d at most: a newer Pinhole made this one", Version)}
	}
	a := &store.Archive{}
	for _, k := range kinds {
		text, isThere := texts[k.file]
		if !isThere && first.Version < k.since {
			continue
		}
		if !isThere {
			return nil, fault("no " + k.file + " in it: it has " + fmt.Sprint(slices.Sorted(maps.Keys(texts))))
		}
		var rows []json.RawMessage
		if err := json.Unmarshal(text, &rows); err != nil || len(rows) > maxRows {
			return nil, fault(fmt.Sprintf("%s is no list of at most %d things", k.file, maxRows))
		}
		if err := k.read(a, rows); err != nil {
			return nil, fault(k.file + err.Error())
		}
	}
	return a, nil
}

func read(f *zip.File) (text []byte, err error) {
	in, err := f.Open()
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, in.Close()) }()
	text, err = io.ReadAll(io.LimitReader(in, maxFileBytes+1))
	if len(text) > maxFileBytes {
		return nil, fmt.Errorf("more than %d MB", maxFileBytes>>20)
	}
	return text, err
}

func fault(what string) error {
	if len(what) > 300 {
		what = what[:300] + "…"
	}
	return &problem.Fault{Field: "file", Value: what, Allowed: "an archive that pinhole export wrote"}
}

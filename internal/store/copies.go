package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// How many of the copies that make themselves are kept.
const (
	keptDaily  = 7
	keptWeekly = 4
)

// Copy is a backup that lies beside the data file.
type Copy struct {
	Name  string    `json:"name"`
	At    time.Time `json:"at"`
	Bytes int64     `json:"bytes"`
	// IsDaily is true of copies that make themselves, and go after a while.
	IsDaily bool `json:"isDaily" doc:"it made itself, and goes by itself after a while"`
}

// copiesOff is the setting that turns daily copies off.
const copiesOff = "copies-off"

// Names of copies: the daily ones by their day in UTC, those made by hand by their instant.
const (
	dailyName = "2006-01-02.db"
	ownName   = "2006-01-02T150405.000Z.db"
)

// CopiesFolder is where copies lie.
func (s *Store) CopiesFolder() string { return s.path + ".copies" }

// Size returns how large the data file is, its log aside, in bytes.
func (s *Store) Size(ctx context.Context) (size int64, err error) {
	const query = "SELECT page_count * page_size FROM pragma_page_count, pragma_page_size"
	if err := s.reader.QueryRowContext(ctx, query).Scan(&size); err != nil {
		return 0, fmt.Errorf("measure the data file: %w", translate(err))
	}
	return size, nil
}

// Copies returns the copies, the latest first.
func (s *Store) Copies() ([]Copy, error) {
	all := []Copy{}
	entries, err := os.ReadDir(s.CopiesFolder())
	if errors.Is(err, fs.ErrNotExist) {
		return all, nil
	}
	for _, e := range entries {
		info, err := e.Info()
		if err != nil || !strings.HasSuffix(e.Name(), ".db") {
			continue // it went in the meantime, or is none of ours
		}
		c := Copy{Name: e.Name(), Bytes: info.Size()}
		if c.At, err = time.Parse(dailyName, c.Name); err == nil {
			c.IsDaily, c.At = true, info.ModTime()
		} else if c.At, err = time.Parse(ownName, c.Name); err != nil {
			continue
		}
		all = append(all, c)
	}
	slices.SortFunc(all, func(a, b Copy) int { return b.At.Compare(a.At) })
	return all, err
}

// MakeCopy makes a copy that is kept until somebody removes it.
func (s *Store) MakeCopy(ctx context.Context) error {
	return s.copyAs(ctx, s.now().UTC().Format(ownName))
}

func (s *Store) copyAs(ctx context.Context, name string) error {
	if err := os.MkdirAll(s.CopiesFolder(), 0o700); err != nil {
		return fmt.Errorf("make the folder of the copies: %w", err)
	}
	return s.Backup(ctx, filepath.Join(s.CopiesFolder(), name))
}

// CopyPath returns where a copy is; ErrNotFound where there is none of that name.
func (s *Store) CopyPath(name string) (string, error) {
	all, err := s.Copies()
	if err != nil {
		return "", err
	}
	if !slices.ContainsFunc(all, func(c Copy) bool { return c.Name == name }) {
		return "", fmt.Errorf("copy %q: %w", name, ErrNotFound)
	}
	return filepath.Join(s.CopiesFolder(), name), nil
}

// RemoveCopy removes a copy.
func (s *Store) RemoveCopy(name string) error {
	path, err := s.CopyPath(name)
	if err != nil {
		return err
	}
	return os.Remove(path)
}

// CopiesDaily reports whether copies make themselves.
func (s *Store) CopiesDaily(ctx context.Context) (bool, error) {
	off, err := s.Setting(ctx, copiesOff)
	return off == "", err
}

// SetCopiesDaily turns the daily copies on or off. Those that are there stay.
func (s *Store) SetCopiesDaily(ctx context.Context, isOn bool) error {
	off := "off"
	if isOn {
		off = ""
	}
	return s.setSetting(ctx, copiesOff, off)
}

// KeepDaily makes the copy of today, where there is none and they are on, and removes those
// that are no longer kept. A damaged file is not copied: it would push out sound ones.
func (s *Store) KeepDaily(ctx context.Context) error {
	isOn, err := s.CopiesDaily(ctx)
	if err != nil || !isOn || s.Damage() != "" {
		return err
	}
	today := s.now().UTC().Format(dailyName)
	if err := s.copyAs(ctx, today); err != nil && !errors.Is(err, ErrThere) {
		return err
	}
	all, err := s.Copies()
	if err != nil {
		return err
	}
	var daily []string
	for _, c := range all {
		if c.IsDaily {
			daily = append(daily, c.Name)
		}
	}
	for _, name := range outlived(daily) {
		err = errors.Join(err, s.RemoveCopy(name))
	}
	return err
}

// outlived returns those of daily copies that are not kept: beside the last seven, the first
// of a week is, for the four weeks before.
func outlived(names []string) []string {
	slices.Sort(names)
	slices.Reverse(names)
	if len(names) <= keptDaily {
		return nil
	}
	type week struct{ year, week int }
	firsts := map[week]string{}
	var weeks []week // the latest first
	for _, name := range names[keptDaily:] {
		day, err := time.Parse(dailyName, name)
		if err != nil {
			continue // Copies lists none
		}
		var w week
		w.year, w.week = day.ISOWeek()
		if _, isKnown := firsts[w]; !isKnown {
			weeks = append(weeks, w)
		}
		firsts[w] = name
	}
	var kept []string
	for _, w := range weeks[:min(keptWeekly, len(weeks))] {
		kept = append(kept, firsts[w])
	}
	return slices.DeleteFunc(names[keptDaily:], func(name string) bool { return slices.Contains(kept, name) })
}

// hourly is how often it is seen whether the copy of today is there.
const hourly = time.Hour

// KeepHouse makes daily copies, and forgets devices whose time is over, until the context ends; failed is told what goes wrong.
func (s *Store) KeepHouse(ctx context.Context, failed func(error)) {
	for {
		if err := s.KeepDaily(ctx); err != nil && ctx.Err() == nil {
			failed(fmt.Errorf("make the copy of today: %w", err))
		}
		if err := s.ForgetExpired(ctx); err != nil && ctx.Err() == nil {
			failed(fmt.Errorf("forget devices whose time is over: %w", err))
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(hourly):
		}
	}
}

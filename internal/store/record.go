package store

import (
	"context"
	"database/sql"
	"fmt"
	"time"

	"pinhole/core/angle"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// Record is one thing that happened: a light that was seen, what became of a take, a step of a
// stepped trial, which teach; and what was done beside. It keeps what was known and foretold then.
type Record struct {
	Meta
	RecordFields
}

// RecordFields is what happened, when and where, and what it came from.
type RecordFields struct {
	Kind    string       `json:"kind" enum:"seen,take,step,reset,done"`
	At      time.Time    `json:"at"`
	From    string       `json:"from" enum:"reading,card,shot,frame,clip,telemetry,trial,hand" doc:"what it came from"`
	Source  string       `json:"source" enum:"real,simulated"`
	ShootID string       `json:"shootId,omitempty" maxLength:"60"`
	ShotID  string       `json:"shotId,omitempty" maxLength:"60"`
	RigID   string       `json:"rigId,omitempty" maxLength:"60" doc:"the camera as it was held"`
	Name    string       `json:"name" maxLength:"200" doc:"of the shot or the reading, as it was called"`
	Words   string       `json:"words,omitempty" maxLength:"500" doc:"as it was read, or a note"`
	There   *RecordPlace `json:"there,omitempty" doc:"where, and what was foretold of the light there"`
	Glass   []string     `json:"glass,omitempty" maxItems:"20" doc:"ids of the filters that were on"`
	Seen    *RecordSeen  `json:"seen,omitempty"`
	Took    *RecordTake  `json:"took,omitempty"`
	Step    *RecordStep  `json:"step,omitempty"`
	Reset   *RecordReset `json:"reset,omitempty" doc:"something that became another one"`
	Done    *RecordDone  `json:"done,omitempty" doc:"something done in the field that teaches nothing by itself"`
	Doubted *Struck      `json:"doubted,omitempty" doc:"a light seen that counts as if it was judged by eye"`
	Struck  *Struck      `json:"struck,omitempty" doc:"it is kept, and teaches nothing"`
}

// RecordPlace is a place under a sky, with the light that was foretold.
type RecordPlace struct {
	Name  string    `json:"name" minLength:"1" maxLength:"120"`
	Sky   light.Sky `json:"sky"`
	EV100 stop.EV   `json:"ev100" minimum:"-20" maximum:"40" doc:"the forecast, without what the log teaches"`
}

// RecordSeen is a light as an instrument showed it through what was on.
type RecordSeen struct {
	Kind        string                `json:"kind" enum:"auto,meter,bias,frame,eye"`
	EV100       stop.EV               `json:"ev100" minimum:"-30" maximum:"40" doc:"as it was shown, behind the filters"`
	SpreadStops *stop.Stops           `json:"spreadStops,omitempty" minimum:"0.0001" maximum:"10"`
	Settings    map[string]stop.Stops `json:"settings,omitempty" minimum:"0" maximum:"40" doc:"stops that variable filters stood at, by id"`
	Foretold    *Foretold             `json:"foretold,omitempty" doc:"what the log foretold it would show"`
	GuessOff    *stop.Stops           `json:"guessOffStops,omitempty" minimum:"-60" maximum:"60" doc:"how much brighter the light was guessed to be before it was read"`
}

// Foretold is what was stated of something before it was seen.
type Foretold struct {
	EV100       stop.EV    `json:"ev100" minimum:"-30" maximum:"40"`
	SpreadStops stop.Stops `json:"spreadStops" minimum:"0.0001" maximum:"10" doc:"before it was scaled"`
	Scale       float64    `json:"scale" exclusiveMinimum:"0" maximum:"100"`
}

// RecordTake is what became of a take.
type RecordTake struct {
	Kept        bool         `json:"kept"`
	Grade       string       `json:"grade,omitempty" enum:"good,usable,bad"`
	Why         string       `json:"why,omitempty" maxLength:"60" doc:"of one that is not kept: dark, bright, ghost, noise, smear, strobing, lamps, focus, or any word"`
	ErrorStops  *stop.Stops  `json:"errorStops,omitempty" minimum:"-40" maximum:"40" doc:"how much brighter than metered it was meant"`
	Activity    string       `json:"activity,omitempty" maxLength:"60"`
	School      string       `json:"school,omitempty" maxLength:"60"`
	Look        string       `json:"look,omitempty" maxLength:"100"`
	ShutterS    stop.Shutter `json:"shutterS,omitempty" minimum:"0" maximum:"86400"`
	ISO         float64      `json:"iso,omitempty" minimum:"0" maximum:"10000000"`
	FirstRight  *bool        `json:"firstRight,omitempty" doc:"the filter that was planned stayed on"`
	Swaps       *float64     `json:"swaps,omitempty" minimum:"0" maximum:"1000"`
	MinutesLost *float64     `json:"minutesLost,omitempty" minimum:"0" maximum:"100000"`
	Outcome     *Outcome     `json:"outcome,omitempty" doc:"what was measured of it"`
	Clip        *RecordClip  `json:"clip,omitempty"`
}

// RecordClip is how a clip is known again; the clip itself is never kept.
type RecordClip struct {
	Name     string   `json:"name" maxLength:"200"`
	Hash     string   `json:"hash,omitempty" maxLength:"64" doc:"SHA-256 of its size and its first and last MiB, in hexadecimal"`
	Pictures []string `json:"pictures,omitempty" maxItems:"4" maxLength:"40000" doc:"small JPEGs, base64"`
}

// RecordStep is one shutter of a stepped trial, judged.
type RecordStep struct {
	Mode      string        `json:"mode" maxLength:"60" doc:"of the stabiliser"`
	Activity  string        `json:"activity" maxLength:"60"`
	ShakeDegS angle.DegPerS `json:"shakeDegS,omitempty" minimum:"0" maximum:"100000" doc:"the shake behind the computed limit"`
	Measured  bool          `json:"measured,omitempty" doc:"it was measured"`
	ComputedS *stop.Shutter `json:"computedS,omitempty" minimum:"0" maximum:"86400" doc:"the limit at the default tolerance; left out where there is none"`
	ShutterS  stop.Shutter  `json:"shutterS" exclusiveMinimum:"0" maximum:"86400"`
	Grade     string        `json:"grade" enum:"bad,usable,good"`
	Why       string        `json:"why,omitempty" enum:",ghost,noise,other"`
	ISO       float64       `json:"iso,omitempty" minimum:"0" maximum:"10000000"`
	Ceiling   float64       `json:"isoCeiling,omitempty" minimum:"0" maximum:"10000000"`
}

// RecordReset says that a camera may see or hold still otherwise from now on; what happens to a
// filter stands in its history.
type RecordReset struct {
	Words string `json:"words" minLength:"1" maxLength:"100" doc:"new firmware, a repair"`
}

// RecordDone is something that was done: a step of a checklist, a change of filters (which are the
// record's), a correction of the forecast, a note, a reading that teaches nothing by itself, what
// telemetry says of a take.
type RecordDone struct {
	What    string   `json:"what" enum:"tick,untick,override,swap,pin,note,reading,telemetry"`
	Turn    string   `json:"turn,omitempty" maxLength:"400" doc:"of the card"`
	Step    string   `json:"step,omitempty" maxLength:"120" doc:"of its checklist"`
	Anchor  *Anchor  `json:"anchor,omitempty" doc:"pin: what the forecast was corrected by"`
	Outcome *Outcome `json:"outcome,omitempty" doc:"telemetry: what was measured"`
}

// Struck says who took a record out of what teaches, when and why.
type Struck struct {
	By  string    `json:"by,omitempty" maxLength:"60" doc:"the device"`
	At  time.Time `json:"at"`
	Why string    `json:"why,omitempty" maxLength:"200"`
}

// Records returns the collection of records.
func (s *Store) Records() Collection[Record] { return Collection[Record]{s, records()} }

func records() table[Record] {
	return table[Record]{
		name: "records",
		meta: func(r *Record) *Meta { return &r.Meta },
		columns: func(r *Record) []column {
			return []column{{"kind", &r.Kind}, {"at", zoned{&r.At}}, {"record", asJSON{&r.RecordFields}}}
		},
	}
}

// Teaching returns the records that can teach, oldest first.
func (s *Store) Teaching(ctx context.Context) ([]Record, error) {
	return records().list(ctx, s.reader, teaches)
}

// RecordsOf returns the records of a shoot, oldest first.
func (s *Store) RecordsOf(ctx context.Context, shootID string) ([]Record, error) {
	return records().list(ctx, s.reader, "record ->> '$.shootId' = ?", shootID)
}

// teaches holds for records of other kinds than done, of which there are many.
const teaches = "kind <> 'done'"

// AddRecords stores new records: all of them or none.
func (s *Store) AddRecords(ctx context.Context, all []Record) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		for _, r := range all {
			if _, err := records().insert(ctx, tx, r, s.now()); err != nil {
				return err
			}
		}
		return nil
	})
}

// RecordsChanged returns a text that is another one whenever a record that teaches, a filter or a
// rig has changed, or what was settled of preferences.
func (s *Store) RecordsChanged(ctx context.Context) (mark string, err error) {
	const of = "(SELECT COUNT(*) || ' ' || COALESCE(SUM(version), 0) || ' ' || COALESCE(MAX(updated_at), '') FROM "
	const query = "SELECT " + of + "records WHERE " + teaches + ") || ' ' || " + of + "filters) || ' ' || " + of + "rigs) || ' ' || COALESCE((SELECT value FROM settings WHERE name = '" + taste + "'), '')"
	if err := s.reader.QueryRowContext(ctx, query).Scan(&mark); err != nil {
		return "", fmt.Errorf("look whether records have changed: %w", err)
	}
	return mark, nil
}

// ForgetPlace removes for good what was recorded at a place and on shoots there, and returns how
// much that was.
func (s *Store) ForgetPlace(ctx context.Context, place string) (n int64, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		const there = "record ->> '$.there.name' = ?1 OR record ->> '$.shootId' IN (SELECT id FROM shoots WHERE COALESCE(NULLIF(place, ''), name) = ?1)"
		gone, err := tx.ExecContext(ctx, "DELETE FROM records WHERE "+there, place)
		if err != nil {
			return fmt.Errorf("forget %s: %w", place, translate(err))
		}
		n, err = gone.RowsAffected()
		return err
	})
	return n, err
}

// logNotUsed is the setting that leaves what the log teaches aside.
const logNotUsed = "log-not-used"

// LogUsed reports whether answers are given with what the log teaches.
func (s *Store) LogUsed(ctx context.Context) (bool, error) {
	value, err := s.Setting(ctx, logNotUsed)
	return value == "", err
}

// SetLogUsed says whether answers are given with what the log teaches.
func (s *Store) SetLogUsed(ctx context.Context, isUsed bool) error {
	value := "1"
	if isUsed {
		value = ""
	}
	return s.setSetting(ctx, logNotUsed, value)
}

// earlierRecorded is the setting that says that what was kept before there were records has them.
const earlierRecorded = "earlier-recorded"

// EarlierRecorded reports whether what was kept before there were records has them.
func (s *Store) EarlierRecorded(ctx context.Context) (bool, error) {
	value, err := s.Setting(ctx, earlierRecorded)
	return value != "", err
}

// SetEarlierRecorded says that it has.
func (s *Store) SetEarlierRecorded(ctx context.Context) error {
	return s.setSetting(ctx, earlierRecorded, "1")
}

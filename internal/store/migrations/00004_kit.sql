-- +goose Up
ALTER TABLE cameras ADD COLUMN t_number REAL; -- null while not known
ALTER TABLE cameras ADD COLUMN frame_sizes TEXT NOT NULL DEFAULT '[]'; -- JSON list of written sizes
ALTER TABLE cameras ADD COLUMN mass_g REAL NOT NULL DEFAULT 0; -- 0: not known
ALTER TABLE cameras ADD COLUMN sealed_port INTEGER NOT NULL DEFAULT 0;
ALTER TABLE cameras ADD COLUMN archetype TEXT NOT NULL DEFAULT '';
ALTER TABLE cameras ADD COLUMN recipe TEXT NOT NULL DEFAULT '{}'; -- JSON: what to set beside shutter and ISO
ALTER TABLE cameras ADD COLUMN sources TEXT NOT NULL DEFAULT '{}'; -- JSON: field to printed, measured or assumed

CREATE TABLE rigs (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    camera_id  TEXT NOT NULL REFERENCES cameras (id),
    name       TEXT NOT NULL,
    housing    TEXT NOT NULL,
    way        TEXT NOT NULL,
    measures   TEXT NOT NULL, -- JSON: mount, barrel, pupil, tilt, payload, use
    sources    TEXT NOT NULL  -- JSON: field to printed, measured or assumed
) STRICT;
CREATE INDEX rigs_of_camera ON rigs (camera_id);
-- Every camera had one way of being held, which had no name.
INSERT INTO rigs SELECT 'rig-' || id, 1, created_at, created_at, NULL, id, 'bare', 'bare', 'upright', '{}', '{}' FROM cameras;

CREATE TABLE trials_of_rigs (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    rig_id     TEXT NOT NULL REFERENCES rigs (id),
    filter_id  TEXT NOT NULL REFERENCES filters (id),
    tried_at   TEXT NOT NULL, -- RFC 3339 with its zone
    found      TEXT NOT NULL  -- JSON: what the trial found
) STRICT;
INSERT INTO trials_of_rigs SELECT id, version, created_at, updated_at, deleted_at, 'rig-' || camera_id, filter_id, tried_at, found FROM trials;
DROP TABLE trials;
ALTER TABLE trials_of_rigs RENAME TO trials;
CREATE INDEX trials_of_rig ON trials (rig_id);

ALTER TABLE shots ADD COLUMN rig_id TEXT NOT NULL DEFAULT ''; -- '': the camera's first

-- Corners and cast that were 0 were not measured; from now on null says so.
ALTER TABLE filters ADD COLUMN corner REAL;
ALTER TABLE filters ADD COLUMN tint REAL;
UPDATE filters SET corner = nullif(corner_stops, 0), tint = nullif(cast_stops, 0);
ALTER TABLE filters DROP COLUMN corner_stops;
ALTER TABLE filters DROP COLUMN cast_stops;
ALTER TABLE filters RENAME COLUMN corner TO corner_stops;
ALTER TABLE filters RENAME COLUMN tint TO cast_stops;
ALTER TABLE filters ADD COLUMN flare REAL; -- 0 none to 3 heavy; null: not judged
ALTER TABLE filters ADD COLUMN sharpness_lost REAL; -- per cent; null: not measured
ALTER TABLE filters ADD COLUMN body TEXT NOT NULL DEFAULT '{}'; -- JSON: mount and sizes
ALTER TABLE filters ADD COLUMN ring TEXT NOT NULL DEFAULT '[]'; -- JSON: marks of a variable filter
ALTER TABLE filters ADD COLUMN price REAL;
ALTER TABLE filters ADD COLUMN set_name TEXT NOT NULL DEFAULT '';
ALTER TABLE filters ADD COLUMN condition TEXT NOT NULL DEFAULT '';
ALTER TABLE filters ADD COLUMN history TEXT NOT NULL DEFAULT '[]'; -- JSON: what happened to it, when

-- +goose Down
ALTER TABLE filters DROP COLUMN history;
ALTER TABLE filters DROP COLUMN condition;
ALTER TABLE filters DROP COLUMN set_name;
ALTER TABLE filters DROP COLUMN price;
ALTER TABLE filters DROP COLUMN ring;
ALTER TABLE filters DROP COLUMN body;
ALTER TABLE filters DROP COLUMN sharpness_lost;
ALTER TABLE filters DROP COLUMN flare;
UPDATE filters SET corner_stops = coalesce(corner_stops, 0), cast_stops = coalesce(cast_stops, 0);
ALTER TABLE shots DROP COLUMN rig_id;
DROP INDEX trials_of_rig;
ALTER TABLE trials RENAME TO trials_of_rigs;
CREATE TABLE trials (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    camera_id  TEXT NOT NULL REFERENCES cameras (id),
    filter_id  TEXT NOT NULL REFERENCES filters (id),
    tried_at   TEXT NOT NULL,
    found      TEXT NOT NULL
) STRICT;
INSERT INTO trials SELECT t.id, t.version, t.created_at, t.updated_at, t.deleted_at, r.camera_id, t.filter_id, t.tried_at, t.found
    FROM trials_of_rigs t JOIN rigs r ON r.id = t.rig_id;
CREATE INDEX trials_of_camera ON trials (camera_id);
DROP TABLE trials_of_rigs;
DROP TABLE rigs;
ALTER TABLE cameras DROP COLUMN sources;
ALTER TABLE cameras DROP COLUMN recipe;
ALTER TABLE cameras DROP COLUMN archetype;
ALTER TABLE cameras DROP COLUMN sealed_port;
ALTER TABLE cameras DROP COLUMN mass_g;
ALTER TABLE cameras DROP COLUMN frame_sizes;
ALTER TABLE cameras DROP COLUMN t_number;

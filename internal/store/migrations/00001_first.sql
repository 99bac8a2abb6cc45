-- +goose Up
-- Instants are RFC 3339 texts in UTC with nine decimals, so that they sort and
-- round-trip. Every table starts with the columns of Meta.
CREATE TABLE cameras (
    id          TEXT PRIMARY KEY,
    version     INTEGER NOT NULL,
    created_at  TEXT NOT NULL,
    updated_at  TEXT NOT NULL,
    deleted_at  TEXT,
    name        TEXT NOT NULL,
    aperture    REAL NOT NULL CHECK (aperture > 0),
    iso_base    REAL NOT NULL CHECK (iso_base > 0),
    iso_ceiling REAL NOT NULL CHECK (iso_ceiling >= iso_base),
    steps       TEXT NOT NULL, -- JSON list of written shutter times
    rates       TEXT NOT NULL, -- JSON list of written frame rates
    mounted     TEXT NOT NULL, -- JSON list of ids of filters that live on the lens
    notes       TEXT NOT NULL
) STRICT;

CREATE TABLE filters (
    id             TEXT PRIMARY KEY,
    version        INTEGER NOT NULL,
    created_at     TEXT NOT NULL,
    updated_at     TEXT NOT NULL,
    deleted_at     TEXT,
    label          TEXT NOT NULL,
    means          TEXT NOT NULL, -- the reading its owner settled on, '' while unsettled
    name           TEXT NOT NULL,
    measured_stops REAL,
    std_err_stops  REAL NOT NULL,
    corner_stops   REAL NOT NULL,
    cast_stops     REAL NOT NULL,
    weight_g       REAL NOT NULL,
    needs_base     INTEGER NOT NULL,
    closed         INTEGER NOT NULL,
    cameras        TEXT NOT NULL, -- JSON list of ids of cameras it goes on
    slot           TEXT NOT NULL
) STRICT;

CREATE TABLE shoots (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    name       TEXT NOT NULL,
    place      TEXT NOT NULL,
    notes      TEXT NOT NULL
) STRICT;

CREATE TABLE shots (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    shoot_id   TEXT NOT NULL REFERENCES shoots (id),
    camera_id  TEXT NOT NULL REFERENCES cameras (id),
    name       TEXT NOT NULL,
    starts_at  TEXT, -- RFC 3339 with the zone it was planned in
    look       TEXT NOT NULL, -- JSON, as typed
    light      TEXT NOT NULL, -- JSON, as typed
    choices    TEXT NOT NULL, -- JSON
    placed     TEXT NOT NULL, -- JSON list of ids, null while the best option is taken
    answer     TEXT NOT NULL  -- JSON: the request, the answer it was given, the model that gave it
) STRICT;
CREATE INDEX shots_of_shoot ON shots (shoot_id);

CREATE TABLE readings (
    id           TEXT PRIMARY KEY,
    version      INTEGER NOT NULL,
    created_at   TEXT NOT NULL,
    updated_at   TEXT NOT NULL,
    deleted_at   TEXT,
    shot_id      TEXT NOT NULL REFERENCES shots (id),
    role         TEXT NOT NULL, -- at, or low for the lowest of a range
    source       TEXT NOT NULL, -- real or simulated
    taken_at     TEXT NOT NULL, -- RFC 3339 with its zone
    light        TEXT NOT NULL, -- JSON, as typed
    ev100        REAL NOT NULL,
    spread_stops REAL NOT NULL
) STRICT;
CREATE INDEX readings_of_shot ON readings (shot_id);

-- +goose Down
DROP TABLE readings;
DROP TABLE shots;
DROP TABLE shoots;
DROP TABLE filters;
DROP TABLE cameras;

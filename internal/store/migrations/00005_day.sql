-- +goose Up
ALTER TABLE cameras ADD COLUMN pack_min REAL NOT NULL DEFAULT 0; -- minutes that a battery lasts; 0: not known
ALTER TABLE shoots ADD COLUMN day TEXT NOT NULL DEFAULT '{}'; -- JSON: place, zone, days, sky, anchor
ALTER TABLE shoots ADD COLUMN kept TEXT NOT NULL DEFAULT 'null'; -- JSON: the plan as it was made
ALTER TABLE shots ADD COLUMN day TEXT NOT NULL DEFAULT '{}'; -- JSON: how long, and what daylight falls on it

CREATE TABLE light_readings (
    id           TEXT PRIMARY KEY,
    version      INTEGER NOT NULL,
    created_at   TEXT NOT NULL,
    updated_at   TEXT NOT NULL,
    deleted_at   TEXT,
    shoot_id     TEXT NOT NULL REFERENCES shoots (id),
    kind         TEXT NOT NULL, -- meter, auto, lux, sky or still
    source       TEXT NOT NULL, -- real or simulated
    taken_at     TEXT NOT NULL, -- RFC 3339 with its zone
    words        TEXT NOT NULL, -- as it was read
    ev100        REAL NOT NULL,
    spread_stops REAL NOT NULL
) STRICT;
CREATE INDEX light_readings_of_shoot ON light_readings (shoot_id);

-- +goose Down
DROP TABLE light_readings;
ALTER TABLE shots DROP COLUMN day;
ALTER TABLE shoots DROP COLUMN kept;
ALTER TABLE shoots DROP COLUMN day;
ALTER TABLE cameras DROP COLUMN pack_min;

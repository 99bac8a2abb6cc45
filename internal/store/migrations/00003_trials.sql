-- +goose Up
CREATE TABLE trials (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    camera_id  TEXT NOT NULL REFERENCES cameras (id),
    filter_id  TEXT NOT NULL REFERENCES filters (id),
    tried_at   TEXT NOT NULL, -- RFC 3339 with its zone
    found      TEXT NOT NULL  -- JSON: what the trial found
) STRICT;
CREATE INDEX trials_of_camera ON trials (camera_id);

-- +goose Down
DROP TABLE trials;

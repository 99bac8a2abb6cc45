-- +goose Up
-- What happened and teaches: lights that were seen, takes, steps of trials.
CREATE TABLE records (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    kind       TEXT NOT NULL,
    at         TEXT NOT NULL,
    record     TEXT NOT NULL -- JSON: all of it
) STRICT;
CREATE INDEX records_by_time ON records (at);

-- +goose Down
DROP TABLE records;

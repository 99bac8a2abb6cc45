-- +goose Up
CREATE TABLE packs (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    name       TEXT NOT NULL,
    labels     TEXT NOT NULL, -- JSON: the texts on the rings
    price      REAL,
    cameras    TEXT NOT NULL  -- JSON: ids of the cameras it would go on
) STRICT;

-- +goose Down
DROP TABLE packs;

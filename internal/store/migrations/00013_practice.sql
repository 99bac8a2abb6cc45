-- +goose Up
-- Questions of practice that were answered; what is due follows from them.
CREATE TABLE practice_answers (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    deleted_at TEXT,
    kind       TEXT NOT NULL,
    at         TEXT NOT NULL,
    answer     TEXT NOT NULL -- JSON: all of it
) STRICT;
CREATE INDEX practice_answers_by_time ON practice_answers (at);

-- +goose Down
DROP TABLE practice_answers;

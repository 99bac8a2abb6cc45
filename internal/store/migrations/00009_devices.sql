-- +goose Up
-- Devices that were let in. Who was in gives the passphrase once more: their tokens were
-- kept as they are, and are now kept hashed.
DROP TABLE sessions;
CREATE TABLE devices (
    id         TEXT PRIMARY KEY, -- hash of the session's token
    data       BLOB NOT NULL,
    expires_at TEXT NOT NULL,
    since      TEXT NOT NULL,
    last_used  TEXT NOT NULL,
    agent      TEXT NOT NULL, -- what the browser calls itself
    address    TEXT NOT NULL,
    revoked_at TEXT -- it is told so until it expires
) STRICT;

-- +goose Down
DROP TABLE devices;
CREATE TABLE sessions (
    token  TEXT PRIMARY KEY,
    data   BLOB NOT NULL,
    expiry REAL NOT NULL
);

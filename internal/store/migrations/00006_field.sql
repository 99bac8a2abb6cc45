-- +goose Up
-- What was done in the field, in the order in which it arrived; nothing is changed or deleted.
CREATE TABLE field_log (
    id          TEXT PRIMARY KEY, -- made on the device, so that sending twice stores once
    shoot_id    TEXT NOT NULL REFERENCES shoots (id),
    received_at TEXT NOT NULL,
    entry       TEXT NOT NULL, -- JSON: what, when, of what
    clash       TEXT NOT NULL  -- JSON: what it clashes with, or null
) STRICT;
CREATE INDEX field_log_of_shoot ON field_log (shoot_id);

-- +goose Down
DROP TABLE field_log;

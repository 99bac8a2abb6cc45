-- +goose Up
-- How a camera usually moves as it is held, and what is set on it then.
ALTER TABLE rigs ADD COLUMN craft TEXT NOT NULL DEFAULT 'null';
ALTER TABLE rigs ADD COLUMN recipe TEXT NOT NULL DEFAULT '{}';

-- +goose Down
ALTER TABLE rigs DROP COLUMN recipe;
ALTER TABLE rigs DROP COLUMN craft;

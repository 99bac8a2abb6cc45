-- +goose Up
ALTER TABLE cameras ADD COLUMN profile TEXT NOT NULL DEFAULT 'null'; -- JSON: lens, stabiliser, automatic; null while nothing is known
ALTER TABLE shots ADD COLUMN scene TEXT NOT NULL DEFAULT '{}'; -- JSON: what moves, shakes and shines, and the school

-- +goose Down
ALTER TABLE shots DROP COLUMN scene;
ALTER TABLE cameras DROP COLUMN profile;

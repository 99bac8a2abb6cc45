-- +goose Up
-- Rigs stand in the order in which they were added to their camera, not by the clock.
ALTER TABLE rigs ADD COLUMN position INTEGER NOT NULL DEFAULT 0;
UPDATE rigs SET position = (SELECT count(*) FROM rigs AS before WHERE before.camera_id = rigs.camera_id AND (before.created_at, before.id) <= (rigs.created_at, rigs.id));
-- +goose StatementBegin
CREATE TRIGGER rigs_in_order AFTER INSERT ON rigs BEGIN
    UPDATE rigs SET position = (SELECT max(position) + 1 FROM rigs WHERE camera_id = NEW.camera_id) WHERE id = NEW.id;
END;
-- +goose StatementEnd

-- +goose Down
DROP TRIGGER rigs_in_order;
ALTER TABLE rigs DROP COLUMN position;

-- +goose Up
-- What made each revision of the one before it: edits by id, JSON. Null where
-- that is not known, as of revisions saved before.
ALTER TABLE revisions ADD COLUMN ops BLOB;

-- +goose Down
ALTER TABLE revisions DROP COLUMN ops;

-- +goose Up
-- Large documents are packed quickly as they are saved (coding 3), and packed
-- for good with the plain ones later.
DROP INDEX documents_plain;
CREATE INDEX documents_unpacked ON documents (job_id, number) WHERE coding IN (0, 3);

-- +goose Down
DROP INDEX documents_unpacked;
CREATE INDEX documents_plain ON documents (job_id, number) WHERE coding = 0;

-- +goose Up
-- Photographs of a job, as the browser shrank them. They lie apart: opening a job reads
-- none of them.
CREATE TABLE photos (
    job_id   TEXT NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    id       TEXT NOT NULL,
    taken_at TEXT NOT NULL,
    kind     TEXT NOT NULL,             -- image/jpeg or image/png
    width    INTEGER NOT NULL,
    height   INTEGER NOT NULL,
    size     INTEGER NOT NULL,          -- bytes, so that a sum reads no photograph
    bytes    BLOB NOT NULL,
    PRIMARY KEY (job_id, id)
) STRICT;

-- +goose Down
DROP TABLE photos;

-- +goose Up
CREATE TABLE jobs (
    id         TEXT PRIMARY KEY,
    head       INTEGER NOT NULL,      -- number of the revision that is current
    created_at TEXT NOT NULL,         -- RFC 3339, UTC
    deleted_at TEXT                   -- set while the job is in the bin
) STRICT;

CREATE TABLE revisions (
    job_id   TEXT NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    number   INTEGER NOT NULL,        -- 1, 2, 3 … in order of saving
    parent   INTEGER,                 -- what undo goes back to; null for the first
    doc      BLOB NOT NULL,           -- the job document, byte for byte
    what     TEXT NOT NULL,           -- what changed, in the user's words
    saved_at TEXT NOT NULL,
    PRIMARY KEY (job_id, number),
    FOREIGN KEY (job_id, parent) REFERENCES revisions (job_id, number)
) STRICT;

-- +goose Down
DROP TABLE revisions;
DROP TABLE jobs;

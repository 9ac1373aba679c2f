-- +goose Up
-- Documents lie apart, so that a list or a history reads none of them.
CREATE TABLE documents (
    job_id TEXT NOT NULL,
    number INTEGER NOT NULL,
    coding INTEGER NOT NULL DEFAULT 0,  -- 0 as it is; 1 zstd; 2 zstd against the revision base
    base   INTEGER,                     -- for 2: the revision, of coding 1, that it is told from
    doc    BLOB NOT NULL,
    PRIMARY KEY (job_id, number),
    FOREIGN KEY (job_id, number) REFERENCES revisions (job_id, number) ON DELETE CASCADE
) STRICT;
INSERT INTO documents (job_id, number, doc) SELECT job_id, number, doc FROM revisions;
ALTER TABLE revisions DROP COLUMN doc;

ALTER TABLE revisions ADD COLUMN name   TEXT NOT NULL DEFAULT '';     -- the job's name then
ALTER TABLE revisions ADD COLUMN facts  BLOB;                         -- what a list shows of it, JSON; null until it is worked out
ALTER TABLE revisions ADD COLUMN pinned INTEGER NOT NULL DEFAULT 0;   -- kept however old
UPDATE revisions SET name = COALESCE((
    SELECT CASE WHEN json_valid(CAST(d.doc AS TEXT)) THEN json_extract(CAST(d.doc AS TEXT), '$.name') END
    FROM documents d WHERE d.job_id = revisions.job_id AND d.number = revisions.number), '');

-- The current revision's, beside the job, so that lists and searches touch one small table.
ALTER TABLE jobs ADD COLUMN name     TEXT NOT NULL DEFAULT '';
ALTER TABLE jobs ADD COLUMN sought   TEXT NOT NULL DEFAULT '';        -- the name as it is searched
ALTER TABLE jobs ADD COLUMN saved_at TEXT NOT NULL DEFAULT '';
ALTER TABLE jobs ADD COLUMN facts    BLOB;
UPDATE jobs SET (name, sought, saved_at) = (
    SELECT r.name, lower(r.name), r.saved_at FROM revisions r WHERE r.job_id = jobs.id AND r.number = jobs.head);
CREATE INDEX jobs_by_time ON jobs (deleted_at IS NOT NULL, saved_at DESC, id);
CREATE INDEX jobs_undescribed ON jobs (id) WHERE facts IS NULL;
CREATE INDEX documents_plain ON documents (job_id, number) WHERE coding = 0;

CREATE TABLE keeping (
    key   TEXT PRIMARY KEY,             -- settings and notes of the keeping of jobs
    value TEXT NOT NULL
) STRICT;

-- +goose Down
ALTER TABLE revisions ADD COLUMN doc BLOB NOT NULL DEFAULT x'';
UPDATE revisions SET doc = (SELECT d.doc FROM documents d WHERE d.job_id = revisions.job_id AND d.number = revisions.number);
DROP TABLE keeping;
DROP TABLE documents;

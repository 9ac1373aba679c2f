-- +goose Up
-- Whether something can be redone is asked of every revision that is read: by its
-- children, which without an index are looked for among all of the job's.
CREATE INDEX revisions_by_parent ON revisions (job_id, parent);

-- SHA-256 of the revision's document. Those that are there already are summed once,
-- by the program; null of one that could not be read then.
ALTER TABLE revisions ADD COLUMN sum BLOB;

-- The highest number that a revision of a job ever had here, whatever was put back
-- since: numbers are never given twice, so that nothing is taken for something else.
CREATE TABLE numbers (
    job_id TEXT PRIMARY KEY,
    used   INTEGER NOT NULL
) STRICT;

-- Which database this is: another one after each restore.
INSERT INTO keeping (key, value) VALUES ('generation', lower(hex(randomblob(8))));

-- Photographs that were deleted for good: no backup that is put back brings one back.
CREATE TABLE unwanted (
    job_id TEXT NOT NULL,
    photo  TEXT NOT NULL,
    PRIMARY KEY (job_id, photo)
) STRICT;

-- +goose Down
DROP TABLE unwanted;
DELETE FROM keeping WHERE key = 'generation';
DROP TABLE numbers;
ALTER TABLE revisions DROP COLUMN sum;
DROP INDEX revisions_by_parent;

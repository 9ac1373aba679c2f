-- +goose Up
-- Whether something can be redone is asked of every revision that is read: by its
-- children, which without an index are looked for among all of the job's.
CREATE INDEX revisions_by_parent ON revisions (job_id, parent);

-- +goose Down
DROP INDEX revisions_by_parent;

package store

import (
	"context"
	"database/sql"
	"errors"
	"strings"
	"time"
)

// Query asks for a page of the list of jobs.
type Query struct {
	Words string // that the name holds; none for all
	Bin   bool   // those in the bin rather than the others
	Skip  int
	Most  int
}

// Entry is a job as a list shows it. No document is read for it.
type Entry struct {
	Job       string
	Number    int
	Name      string
	Facts     []byte // nil until the revision is described
	SavedAt   time.Time
	DeletedAt time.Time // zero if it is not in the bin
}

// Listing is a page of the list, and how many there are in all.
type Listing struct {
	Entries []Entry
	Count   int // that the words fit
	Binned  int // in the bin

	Generation string // of the database that all of them are of
}

// List returns a page of jobs, the latest saved first.
func (s *Store) List(ctx context.Context, q Query) (out Listing, err error) {
	where, args := `(deleted_at IS NOT NULL) = ?`, []any{q.Bin}
	for _, w := range strings.Fields(sought(q.Words)) {
		where += ` AND instr(sought, ?) > 0`
		args = append(args, w)
	}
	err = s.snapshot(ctx, func(tx *sql.Tx) (err error) {
		if out.Generation, err = noted(ctx, tx, keyGeneration); err != nil {
			return err
		}
		if err := tx.QueryRowContext(ctx, `SELECT COUNT(*) FROM jobs WHERE `+where, args...).Scan(&out.Count); err != nil {
			return err
		}
		if err := tx.QueryRowContext(ctx, `SELECT COUNT(*) FROM jobs WHERE deleted_at IS NOT NULL`).Scan(&out.Binned); err != nil {
			return err
		}
		rows, err := tx.QueryContext(ctx, `SELECT id, head, name, facts, saved_at, COALESCE(deleted_at, '')
			FROM jobs WHERE `+where+` ORDER BY saved_at DESC, id LIMIT ? OFFSET ?`, append(args, q.Most, q.Skip)...)
		if err != nil {
			return err
		}
		defer func() { err = errors.Join(err, rows.Close()) }()
		for rows.Next() {
			e, err := scanEntry(rows)
			if err != nil {
				return err
			}
			out.Entries = append(out.Entries, e)
		}
		return rows.Err()
	})
	return out, err
}

func scanEntry(rows *sql.Rows) (e Entry, err error) {
	var saved, deleted string
	if err := rows.Scan(&e.Job, &e.Number, &e.Name, &e.Facts, &saved, &deleted); err != nil {
		return e, err
	}
	if e.SavedAt, err = time.Parse(time.RFC3339Nano, saved); err == nil && deleted != "" {
		e.DeletedAt, err = time.Parse(time.RFC3339Nano, deleted)
	}
	return e, err
}

// Undescribed is a job whose current revision no list can show yet; false if
// there is none after the one given.
func (s *Store) Undescribed(ctx context.Context, after string) (r Revision, ok bool, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		var id string
		err := tx.QueryRowContext(ctx, `SELECT id FROM jobs INDEXED BY jobs_undescribed WHERE facts IS NULL AND id > ? ORDER BY id LIMIT 1`, after).Scan(&id)
		if errors.Is(err, sql.ErrNoRows) {
			return nil
		}
		if err != nil {
			return err
		}
		ok = true
		r, err = current(ctx, tx, id)
		if err != nil {
			r.Job = id
		}
		return err
	})
	return r, ok, err
}

// Describe keeps what lists show of a revision: the name and, as JSON, the rest.
func (s *Store) Describe(ctx context.Context, id string, number int, name string, facts []byte) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE revisions SET name = ?, facts = ? WHERE job_id = ? AND number = ?`, name, facts, id, number); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `UPDATE jobs SET name = ?, sought = ?, facts = ? WHERE id = ? AND head = ?`, name, sought(name), facts, id, number)
		return err
	})
}

package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"slices"
	"sync"
)

// health is what was last found of the database.
type health struct {
	sync.Mutex
	err error
}

// Ping tells whether the database answers, takes writes, lies where it lay,
// and was whole when it was last looked over.
func (s *Store) Ping(ctx context.Context) (err error) {
	defer told(&err)
	if err := s.there(); err != nil {
		return err
	}
	if s.noRoom != nil {
		return s.noRoom
	}
	var n int
	if err := s.read.QueryRowContext(ctx, `SELECT COUNT(*) FROM keeping`).Scan(&n); err != nil {
		return err
	}
	s.health.Lock()
	defer s.health.Unlock()
	return s.health.err
}

// Look looks the database over for damage, and remembers what it found for
// Ping. It reads every page.
func (s *Store) Look(ctx context.Context) error {
	err := trouble(whole(ctx, s.read, "quick_check"))
	if errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	s.health.Lock()
	defer s.health.Unlock()
	s.health.err = err
	return err
}

// whole runs one of SQLite's checks, integrity_check or quick_check.
func whole(ctx context.Context, db *sql.DB, check string) error {
	var found string
	if err := db.QueryRowContext(ctx, "PRAGMA "+check+"(1)").Scan(&found); err != nil {
		return err
	}
	if found != "ok" {
		return Trouble{Damaged, fmt.Errorf("a page of the database is damaged: %s", found)}
	}
	return nil
}

// Each gives every job's current revision to do, one after another, those in
// the bin too; with the error of those of which nothing can be read. Of a
// damaged database it gives what is left: a job whose current revision cannot
// be read as of the newest one that can.
func (s *Store) Each(ctx context.Context, do func(Revision, error) error) (err error) {
	defer told(&err)
	ids, damaged, err := s.allIDs(ctx)
	if err != nil {
		return err
	}
	for _, id := range ids {
		r, err := s.Get(ctx, id)
		if errors.Is(err, ErrNotFound) && !damaged {
			continue // gone meanwhile
		}
		if err != nil && ctx.Err() == nil {
			r, err = s.newestReadable(ctx, id, err)
		}
		r.Job = id
		if err := do(r, err); err != nil {
			return err
		}
	}
	return nil
}

// allIDs lists the jobs, from wherever their ids can still be read.
func (s *Store) allIDs(ctx context.Context) (ids []string, damaged bool, err error) {
	var errs error
	read := 0
	for _, query := range []string{`SELECT id FROM jobs`, `SELECT id FROM jobs NOT INDEXED`, `SELECT DISTINCT job_id FROM documents`, `SELECT job_id FROM documents NOT INDEXED`, `SELECT job_id FROM revisions NOT INDEXED`} {
		found, err := column[string](ctx, s.read, query)
		ids, errs = append(ids, found...), errors.Join(errs, err)
		if err == nil {
			read++
			if errs == nil {
				return ids, false, nil
			}
		}
	}
	slices.Sort(ids)
	if ids = slices.Compact(ids); len(ids) == 0 && read == 0 {
		return nil, true, errs
	}
	return ids, true, nil
}

// newestReadable is the newest of a job's documents that can be read.
func (s *Store) newestReadable(ctx context.Context, id string, why error) (Revision, error) {
	numbers, err := column[int](ctx, s.read, `SELECT number FROM documents WHERE job_id = ?`, id)
	if len(numbers) == 0 && err != nil {
		numbers, _ = column[int](ctx, s.read, `SELECT number FROM documents NOT INDEXED WHERE job_id = ?`, id) // what comes before the damage
	}
	slices.Sort(numbers)
	for _, n := range slices.Backward(numbers) {
		if doc, err := s.Doc(ctx, id, n); err == nil {
			return Revision{Job: id, Number: n, Doc: doc, Name: fmt.Sprintf("Rescued, revision %d,", n)}, nil
		}
	}
	return Revision{Job: id}, why
}

// Size is how large the database is, with what is free within it, in bytes.
type Size struct {
	Bytes, Free     int64
	Jobs, Revisions int
	Documents       int64 // bytes of all documents as they are kept
}

// Size measures the database.
func (s *Store) Size(ctx context.Context) (z Size, err error) {
	defer told(&err)
	var page int64
	err = s.read.QueryRowContext(ctx, `SELECT (SELECT page_count FROM pragma_page_count), (SELECT freelist_count FROM pragma_freelist_count),
		(SELECT page_size FROM pragma_page_size), (SELECT COUNT(*) FROM jobs), (SELECT COUNT(*) FROM revisions),
		(SELECT COALESCE(SUM(LENGTH(doc)), 0) FROM documents)`).Scan(&z.Bytes, &z.Free, &page, &z.Jobs, &z.Revisions, &z.Documents)
	z.Bytes, z.Free = z.Bytes*page, z.Free*page
	return z, err
}

// Bytes is how large the database is, without counting anything in it.
func (s *Store) Bytes(ctx context.Context) (n int64, err error) {
	defer told(&err)
	err = s.read.QueryRowContext(ctx, `SELECT (SELECT page_count FROM pragma_page_count) * (SELECT page_size FROM pragma_page_size)`).Scan(&n)
	return n, err
}

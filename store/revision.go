package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"math"
	"strings"
	"time"
)

// Revision is one saved state of a job.
type Revision struct {
	Job     string
	Number  int
	Parent  int // 0 for the first
	Doc     []byte
	What    string
	Name    string
	Facts   []byte // what a list shows of it; nil until it is described
	Pinned  bool
	SavedAt time.Time
	Sum     []byte // SHA-256 of the document
	CanUndo bool
	CanRedo bool
	Deleted bool // the job is in the bin

	Generation string // of the database that it is of
}

// Base names the revision that a change was made to. The number says which of the
// job's, the generation of which database: another one after each restore. Without a
// generation it is taken to be of this one.
type Base struct {
	Number     int
	Generation string
}

// At names the revision as the base of a change.
func (r Revision) At() Base { return Base{r.Number, r.Generation} }

// is tells whether a change was made to this revision.
func (b Base) is(r Revision) bool {
	return b.Number == r.Number && (b.Generation == "" || b.Generation == r.Generation)
}

// Draft is what a save brings: a document, what it changed, the job's name,
// and what a list shows of it, where that is known already.
type Draft struct {
	Doc   []byte
	What  string
	Name  string
	Facts []byte
	Ops   []byte // the edits that made it of the revision before, where they are known
}

// Create saves a document as a new job.
func (s *Store) Create(ctx context.Context, d Draft) (head Revision, err error) {
	err = s.tx(ctx, func(tx *sql.Tx) error {
		head, err = s.create(ctx, tx, d)
		return err
	})
	return head, err
}

func (s *Store) create(ctx context.Context, tx *sql.Tx, d Draft) (Revision, error) {
	id := strings.ToLower(rand.Text()[:12])
	if _, err := tx.ExecContext(ctx, `INSERT INTO jobs (id, head, created_at) VALUES (?, 1, ?)`, id, s.stamp()); err != nil {
		return Revision{}, err
	}
	if err := s.add(ctx, tx, id, 1, nil, d); err != nil {
		return Revision{}, err
	}
	return setHead(ctx, tx, id, 1)
}

func (s *Store) stamp() string { return s.now().Format(time.RFC3339Nano) }

// add writes a revision.
func (s *Store) add(ctx context.Context, tx *sql.Tx, id string, number int, parent any, d Draft) error {
	if _, err := tx.ExecContext(ctx,
		`INSERT INTO revisions (job_id, number, parent, what, saved_at, name, facts, ops, sum) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		id, number, parent, d.What, s.stamp(), d.Name, d.Facts, d.Ops, sumOf(d.Doc)); err != nil {
		return err
	}
	raw, coding, err := asSaved(d.Doc)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO documents (job_id, number, coding, doc) VALUES (?, ?, ?, ?)`, id, number, coding, raw)
	return err
}

// setHead makes a revision current, and puts what lists show of it beside the job.
func setHead(ctx context.Context, tx *sql.Tx, id string, number int) (Revision, error) {
	if _, err := tx.ExecContext(ctx, `UPDATE jobs SET head = ?1, (name, saved_at, facts) = (
		SELECT name, saved_at, facts FROM revisions WHERE job_id = ?2 AND number = ?1) WHERE id = ?2`, number, id); err != nil {
		return Revision{}, err
	}
	head, err := current(ctx, tx, id)
	if err != nil {
		return head, err
	}
	_, err = tx.ExecContext(ctx, `UPDATE jobs SET sought = ? WHERE id = ?`, sought(head.Name), id)
	return head, err
}

// sought is a name as it is searched: without the case of its letters, in any
// script.
func sought(name string) string { return strings.ToLower(name) }

type querier interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
	QueryContext(context.Context, string, ...any) (*sql.Rows, error)
}

const columns = `r.job_id, r.number, COALESCE(r.parent, 0), r.what, r.name, r.facts, r.pinned, r.saved_at, r.sum,
	r.parent IS NOT NULL,
	EXISTS (SELECT 1 FROM revisions c WHERE c.job_id = r.job_id AND c.parent = r.number),
	j.deleted_at IS NOT NULL, COALESCE((SELECT value FROM keeping WHERE key = '` + keyGeneration + `'), '')`

func scan(row interface{ Scan(...any) error }) (Revision, error) {
	var r Revision
	var saved string
	err := row.Scan(&r.Job, &r.Number, &r.Parent, &r.What, &r.Name, &r.Facts, &r.Pinned, &saved, &r.Sum, &r.CanUndo, &r.CanRedo, &r.Deleted, &r.Generation)
	if errors.Is(err, sql.ErrNoRows) {
		return r, ErrNotFound
	}
	if err != nil {
		return r, err
	}
	r.SavedAt, err = time.Parse(time.RFC3339Nano, saved)
	return r, err
}

// current is a job's head, with its document.
func current(ctx context.Context, q querier, id string) (Revision, error) {
	r, err := head(ctx, q, id)
	if err != nil {
		return r, err
	}
	r.Doc, err = checked(ctx, q, id, r.Number, r.Sum)
	return r, err
}

// head is a job's current revision without its document.
func head(ctx context.Context, q querier, id string) (Revision, error) {
	return scan(q.QueryRowContext(ctx, `SELECT `+columns+`
		FROM jobs j JOIN revisions r ON r.job_id = j.id AND r.number = j.head WHERE j.id = ?`, id))
}

// Get returns a job's current revision.
func (s *Store) Get(ctx context.Context, id string) (r Revision, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		r, err = current(ctx, tx, id)
		return err
	})
	return r, err
}

// Beginning are the jobs whose ids begin so, but those in the bin.
func (s *Store) Beginning(ctx context.Context, letters string, most int) (out []Revision, err error) {
	defer told(&err)
	rows, err := s.read.QueryContext(ctx, `SELECT id FROM jobs WHERE substr(id, 1, ?) = ? AND deleted_at IS NULL ORDER BY id LIMIT ?`, len(letters), letters, most)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var ids []string
	for rows.Next() {
		var id string
		if err := rows.Scan(&id); err != nil {
			return nil, err
		}
		ids = append(ids, id)
	}
	if err := rows.Err(); err != nil {
		return nil, err
	}
	for _, id := range ids {
		r, err := head(ctx, s.read, id)
		if err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, nil
}

// Head returns a job's current revision without its document.
func (s *Store) Head(ctx context.Context, id string) (r Revision, err error) {
	defer told(&err)
	return head(ctx, s.read, id)
}

// Doc returns the document of one of a job's revisions.
func (s *Store) Doc(ctx context.Context, id string, number int) (doc []byte, err error) {
	return s.DocAt(ctx, id, Base{Number: number})
}

// DocAt is Doc of a revision that is named by its database too; ErrNothingThen where
// that is another one.
func (s *Store) DocAt(ctx context.Context, id string, base Base) (doc []byte, err error) {
	number := base.Number
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		var sum []byte
		if base.Generation != "" {
			if now, err := noted(ctx, tx, keyGeneration); err != nil {
				return err
			} else if now != base.Generation {
				return ErrNothingThen
			}
		}
		if err := tx.QueryRowContext(ctx, `SELECT sum FROM revisions WHERE job_id = ? AND number = ?`, id, number).Scan(&sum); err != nil && !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		doc, err = checked(ctx, tx, id, number, sum)
		return err
	})
	return doc, err
}

// Ops returns the edits that made a revision of the one before it; nil where
// they are not known.
func (s *Store) Ops(ctx context.Context, id string, number int) (ops []byte, err error) {
	defer told(&err)
	err = s.read.QueryRowContext(ctx, `SELECT ops FROM revisions WHERE job_id = ? AND number = ?`, id, number).Scan(&ops)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return ops, err
}

// History is a page of a job's revisions.
type History struct {
	Head      int
	Revisions []Revision // without their documents, the newest first
	More      bool       // there are older ones
}

// History returns a page of a job's revisions: so many at most of those before a number,
// or of the newest where that is 0.
func (s *Store) History(ctx context.Context, id string, before, most int) (h History, err error) {
	if before <= 0 {
		before = math.MaxInt
	}
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		now, err := head(ctx, tx, id)
		if err != nil {
			return err
		}
		h.Head = now.Number
		h.Revisions, err = all(ctx, tx, `SELECT `+columns+`
			FROM jobs j JOIN revisions r ON r.job_id = j.id WHERE j.id = ? AND r.number < ? ORDER BY r.number DESC LIMIT ?`, id, before, most+1)
		if h.More = len(h.Revisions) > most; h.More {
			h.Revisions = h.Revisions[:most]
		}
		return err
	})
	return h, err
}

func all(ctx context.Context, q querier, query string, args ...any) (list []Revision, err error) {
	rows, err := q.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		r, err := scan(rows)
		if err != nil {
			return nil, err
		}
		list = append(list, r)
	}
	return list, rows.Err()
}

// Save adds a revision on top of base, which must be the current one.
func (s *Store) Save(ctx context.Context, id string, base Base, d Draft) (Revision, error) {
	// A conflict is seen without waiting in the line of those who write.
	if now, err := s.Head(ctx, id); err != nil {
		return Revision{}, err
	} else if !base.is(now) {
		return s.stale(ctx, id, base)
	}
	return s.move(ctx, id, base, func(tx *sql.Tx, head Revision) (int, error) { return s.append(ctx, tx, head, d) })
}

func (s *Store) stale(ctx context.Context, id string, base Base) (Revision, error) {
	now, err := s.Get(ctx, id)
	if err == nil && !base.is(now) {
		err = &StaleError{Base: base, Head: now}
	}
	return Revision{}, err
}

// Undo makes the parent of the current revision current.
func (s *Store) Undo(ctx context.Context, id string, base Base) (Revision, error) {
	return s.move(ctx, id, base, func(_ *sql.Tx, head Revision) (int, error) {
		if !head.CanUndo {
			return 0, ErrNothingThen
		}
		return head.Parent, nil
	})
}

// Redo makes the newest child of the current revision current.
func (s *Store) Redo(ctx context.Context, id string, base Base) (Revision, error) {
	return s.move(ctx, id, base, func(tx *sql.Tx, head Revision) (int, error) {
		if !head.CanRedo {
			return 0, ErrNothingThen
		}
		var n int
		err := tx.QueryRowContext(ctx, `SELECT MAX(number) FROM revisions WHERE job_id = ? AND parent = ?`, id, head.Number).Scan(&n)
		return n, err
	})
}

// RestoredAs says in the history that an earlier revision was taken up again.
func RestoredAs(number int) string { return fmt.Sprintf("Back to revision %d", number) }

// Restore saves an earlier revision's document as a new revision.
func (s *Store) Restore(ctx context.Context, id string, base Base, number int) (Revision, error) {
	return s.move(ctx, id, base, func(tx *sql.Tx, head Revision) (int, error) {
		doc, err := document(ctx, tx, id, number)
		if err != nil {
			return 0, err
		}
		d := Draft{Doc: doc, What: RestoredAs(number)}
		err = tx.QueryRowContext(ctx, `SELECT name, facts FROM revisions WHERE job_id = ? AND number = ?`, id, number).Scan(&d.Name, &d.Facts)
		if err != nil {
			return 0, err
		}
		return s.append(ctx, tx, head, d)
	})
}

// append writes a revision whose parent is the head.
func (s *Store) append(ctx context.Context, tx *sql.Tx, head Revision, d Draft) (int, error) {
	var n int
	// A number that was given here once is not given again, whatever was put back since.
	if err := tx.QueryRowContext(ctx, `SELECT max((SELECT MAX(number) FROM revisions WHERE job_id = ?1), COALESCE((SELECT used FROM numbers WHERE job_id = ?1), 0)) + 1`, head.Job).Scan(&n); err != nil {
		return 0, err
	}
	return n, s.add(ctx, tx, head.Job, n, head.Number, d)
}

// move changes a job's head, if base is still the head.
func (s *Store) move(ctx context.Context, id string, base Base, to func(*sql.Tx, Revision) (int, error)) (Revision, error) {
	var moved Revision
	err := s.tx(ctx, func(tx *sql.Tx) error {
		now, err := head(ctx, tx, id)
		if err != nil {
			return err
		}
		if !base.is(now) {
			if now.Doc, err = document(ctx, tx, id, now.Number); err != nil {
				return err
			}
			return &StaleError{Base: base, Head: now}
		}
		n, err := to(tx, now)
		if err != nil {
			return err
		}
		moved, err = setHead(ctx, tx, id, n)
		return err
	})
	return moved, err
}

// Pin keeps a revision however old it gets; unpinned it goes by age again.
func (s *Store) Pin(ctx context.Context, id string, number int, pinned bool) error {
	return s.one(ctx, `UPDATE revisions SET pinned = ? WHERE job_id = ? AND number = ?`, pinned, id, number)
}

// Delete puts a job in the bin; Undelete takes it out again.
func (s *Store) Delete(ctx context.Context, id string) error {
	return s.one(ctx, `UPDATE jobs SET deleted_at = ? WHERE id = ?`, s.stamp(), id)
}

// Undelete takes a job out of the bin.
func (s *Store) Undelete(ctx context.Context, id string) error {
	return s.one(ctx, `UPDATE jobs SET deleted_at = NULL WHERE id = ?`, id)
}

// one changes one row, which must be there.
func (s *Store) one(ctx context.Context, query string, args ...any) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, query, args...)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(ErrNotFound, err)
		}
		return nil
	})
}

// CreateMany saves documents as new jobs, all or none.
func (s *Store) CreateMany(ctx context.Context, all []Draft) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		for _, d := range all {
			if _, err := s.create(ctx, tx, d); err != nil {
				return err
			}
		}
		return nil
	})
}

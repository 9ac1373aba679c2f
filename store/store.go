// Package store keeps jobs in SQLite.
//
// Every save is a revision that is never changed again. A job's head says
// which revision is current; undo moves it to the revision's parent, redo to
// its newest child. Saving against a revision that is not the head is refused
// with a *StaleError that carries the head, so that nothing is lost.
package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"strings"
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the database/sql driver "sqlite"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open database.
type Store struct {
	db  *sql.DB
	now func() time.Time
}

// Errors that callers tell apart.
var (
	ErrNotFound    = errors.New("no such job")
	ErrNothingThen = errors.New("nothing to go to")
)

// StaleError refuses a change that was made against a revision which is no
// longer the newest.
type StaleError struct {
	Base int
	Head Revision
}

func (e *StaleError) Error() string {
	return fmt.Sprintf("the change was made to revision %d, but revision %d is current", e.Base, e.Head.Number)
}

// Revision is one saved state of a job.
type Revision struct {
	Job     string
	Number  int
	Parent  int // 0 for the first
	Doc     []byte
	What    string
	SavedAt time.Time
	CanUndo bool
	CanRedo bool
	Deleted bool // the job is in the bin
}

// Open opens the database file, creating and migrating it as needed.
// Durability comes before speed: a write-ahead log with full sync.
func Open(ctx context.Context, path string) (*Store, error) {
	pragmas := url.Values{"_txlock": {"immediate"}, "_pragma": {
		"busy_timeout(5000)", "journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(1)",
	}}
	db, err := sql.Open("sqlite", "file:"+(&url.URL{Path: path}).EscapedPath()+"?"+pragmas.Encode())
	if err != nil {
		return nil, err
	}
	if err := migrate(ctx, db); err != nil {
		return nil, errors.Join(fmt.Errorf("open %s: %w", path, err), db.Close())
	}
	return &Store{db: db, now: func() time.Time { return time.Now().UTC() }}, nil
}

func migrate(ctx context.Context, db *sql.DB) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, db, dir)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// Close closes the database.
func (s *Store) Close() error { return s.db.Close() }

// Ping tells whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.db.PingContext(ctx) }

// tx runs do in a transaction, which takes the write lock at its start.
func (s *Store) tx(ctx context.Context, do func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := do(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// Create saves a document as a new job.
func (s *Store) Create(ctx context.Context, doc []byte, what string) (Revision, error) {
	id := strings.ToLower(rand.Text()[:12])
	var head Revision
	err := s.tx(ctx, func(tx *sql.Tx) error {
		at := s.now().Format(time.RFC3339Nano)
		if _, err := tx.ExecContext(ctx, `INSERT INTO jobs (id, head, created_at) VALUES (?, 1, ?)`, id, at); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx,
			`INSERT INTO revisions (job_id, number, doc, what, saved_at) VALUES (?, 1, ?, ?, ?)`, id, doc, what, at); err != nil {
			return err
		}
		var err error
		head, err = current(ctx, tx, id)
		return err
	})
	return head, err
}

type querier interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
	QueryContext(context.Context, string, ...any) (*sql.Rows, error)
}

const columns = `r.job_id, r.number, COALESCE(r.parent, 0), r.doc, r.what, r.saved_at,
	r.parent IS NOT NULL,
	EXISTS (SELECT 1 FROM revisions c WHERE c.job_id = r.job_id AND c.parent = r.number),
	j.deleted_at IS NOT NULL`

func scan(row interface{ Scan(...any) error }) (Revision, error) {
	var r Revision
	var saved string
	err := row.Scan(&r.Job, &r.Number, &r.Parent, &r.Doc, &r.What, &saved, &r.CanUndo, &r.CanRedo, &r.Deleted)
	if errors.Is(err, sql.ErrNoRows) {
		return r, ErrNotFound
	}
	if err != nil {
		return r, err
	}
	r.SavedAt, err = time.Parse(time.RFC3339Nano, saved)
	return r, err
}

func current(ctx context.Context, q querier, id string) (Revision, error) {
	return scan(q.QueryRowContext(ctx, `SELECT `+columns+`
		FROM jobs j JOIN revisions r ON r.job_id = j.id AND r.number = j.head WHERE j.id = ?`, id))
}

// Get returns a job's current revision.
func (s *Store) Get(ctx context.Context, id string) (Revision, error) { return current(ctx, s.db, id) }

// List returns the current revision of every job, the latest saved first,
// those in the bin included.
func (s *Store) List(ctx context.Context) ([]Revision, error) {
	return s.all(ctx, `SELECT `+columns+`
		FROM jobs j JOIN revisions r ON r.job_id = j.id AND r.number = j.head
		ORDER BY r.saved_at DESC, j.id`)
}

// History returns a job's revisions, the newest first.
func (s *Store) History(ctx context.Context, id string) ([]Revision, error) {
	if _, err := s.Get(ctx, id); err != nil {
		return nil, err
	}
	return s.all(ctx, `SELECT `+columns+`
		FROM jobs j JOIN revisions r ON r.job_id = j.id WHERE j.id = ? ORDER BY r.number DESC`, id)
}

func (s *Store) all(ctx context.Context, query string, args ...any) (list []Revision, err error) {
	rows, err := s.db.QueryContext(ctx, query, args...)
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
func (s *Store) Save(ctx context.Context, id string, base int, doc []byte, what string) (Revision, error) {
	return s.move(ctx, id, base, func(tx *sql.Tx, head Revision) (int, error) {
		return s.append(ctx, tx, head, doc, what)
	})
}

// Undo makes the parent of the current revision current.
func (s *Store) Undo(ctx context.Context, id string, base int) (Revision, error) {
	return s.move(ctx, id, base, func(_ *sql.Tx, head Revision) (int, error) {
		if !head.CanUndo {
			return 0, ErrNothingThen
		}
		return head.Parent, nil
	})
}

// Redo makes the newest child of the current revision current.
func (s *Store) Redo(ctx context.Context, id string, base int) (Revision, error) {
	return s.move(ctx, id, base, func(tx *sql.Tx, head Revision) (int, error) {
		if !head.CanRedo {
			return 0, ErrNothingThen
		}
		var n int
		err := tx.QueryRowContext(ctx, `SELECT MAX(number) FROM revisions WHERE job_id = ? AND parent = ?`, id, head.Number).Scan(&n)
		return n, err
	})
}

// Restore saves an earlier revision's document as a new revision.
func (s *Store) Restore(ctx context.Context, id string, base, number int) (Revision, error) {
	return s.move(ctx, id, base, func(tx *sql.Tx, head Revision) (int, error) {
		var doc []byte
		err := tx.QueryRowContext(ctx, `SELECT doc FROM revisions WHERE job_id = ? AND number = ?`, id, number).Scan(&doc)
		if errors.Is(err, sql.ErrNoRows) {
			return 0, ErrNothingThen
		}
		if err != nil {
			return 0, err
		}
		return s.append(ctx, tx, head, doc, fmt.Sprintf("Back to revision %d", number))
	})
}

// Doc returns the document of one of a job's revisions.
func (s *Store) Doc(ctx context.Context, id string, number int) ([]byte, error) {
	var doc []byte
	err := s.db.QueryRowContext(ctx, `SELECT doc FROM revisions WHERE job_id = ? AND number = ?`, id, number).Scan(&doc)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNothingThen
	}
	return doc, err
}

// append writes a revision whose parent is the head.
func (s *Store) append(ctx context.Context, tx *sql.Tx, head Revision, doc []byte, what string) (int, error) {
	var n int
	err := tx.QueryRowContext(ctx, `
		INSERT INTO revisions (job_id, number, parent, doc, what, saved_at)
		SELECT ?, MAX(number) + 1, ?, ?, ?, ? FROM revisions WHERE job_id = ? RETURNING number`,
		head.Job, head.Number, doc, what, s.now().Format(time.RFC3339Nano), head.Job).Scan(&n)
	return n, err
}

// move changes a job's head, if base is still the head.
func (s *Store) move(ctx context.Context, id string, base int, to func(*sql.Tx, Revision) (int, error)) (Revision, error) {
	var head Revision
	err := s.tx(ctx, func(tx *sql.Tx) error {
		now, err := current(ctx, tx, id)
		if err != nil {
			return err
		}
		if now.Number != base {
			return &StaleError{Base: base, Head: now}
		}
		n, err := to(tx, now)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE jobs SET head = ? WHERE id = ?`, n, id); err != nil {
			return err
		}
		head, err = current(ctx, tx, id)
		return err
	})
	return head, err
}

// Delete puts a job in the bin; Undelete takes it out again.
func (s *Store) Delete(ctx context.Context, id string) error {
	return s.bin(ctx, id, s.now().Format(time.RFC3339Nano))
}

// Undelete takes a job out of the bin.
func (s *Store) Undelete(ctx context.Context, id string) error { return s.bin(ctx, id, nil) }

func (s *Store) bin(ctx context.Context, id string, at any) error {
	res, err := s.db.ExecContext(ctx, `UPDATE jobs SET deleted_at = ? WHERE id = ?`, at, id)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(ErrNotFound, err)
	}
	return nil
}

// Package store keeps jobs in SQLite.
//
// Every save is a revision that is never changed again. A job's head says
// which revision is current; undo moves it to the revision's parent, redo to
// its newest child. Saving against a revision that is not the head is refused
// with a *StaleError that carries the head, so that nothing is lost.
//
// One connection writes, its users waiting in line; many read, each from a
// snapshot. What the database or the disk refuses comes back as Trouble, which
// says what to do.
package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"runtime"
	"time"

	"golang.org/x/sync/semaphore"
	_ "modernc.org/sqlite" // the database/sql driver "sqlite"
)

// FileName is the database's name in its data folder.
const FileName = "mallow.db"

// Store is an open database.
type Store struct {
	path   string
	file   os.FileInfo // the file as it was opened
	write  *sql.DB
	line   *semaphore.Weighted // first come, first served, for the one that writes
	read   *sql.DB
	now    func() time.Time
	health health
	noRoom error // why it only reads
}

// Errors that callers tell apart.
var (
	ErrNotFound    = errors.New("no such job")
	ErrNothingThen = errors.New("nothing to go to")
)

// StaleError refuses a change that was made against a revision which is no
// longer the newest.
type StaleError struct {
	Base Base
	Head Revision
}

func (e *StaleError) Error() string {
	if of := e.Base.Generation; of != "" && of != e.Head.Generation {
		return fmt.Sprintf("the change was made to revision %d of another database: a backup was put back since, and revision %d is current", e.Base.Number, e.Head.Number)
	}
	return fmt.Sprintf("the change was made to revision %d, but revision %d is current", e.Base.Number, e.Head.Number)
}

// Open opens the database file, creating and migrating it as needed. A file
// of a newer Mallow, or of another program, is refused and left as it is.
// Before a migration the file is backed up.
func Open(ctx context.Context, path string) (*Store, error) { return open(ctx, path, time.Now) }

// OpenAt is Open with another clock, for what goes by age.
func OpenAt(ctx context.Context, path string, now func() time.Time) (*Store, error) {
	return open(ctx, path, now)
}

func open(ctx context.Context, path string, now func() time.Time) (*Store, error) {
	s := &Store{path: path, line: semaphore.NewWeighted(1), now: func() time.Time { return now().UTC() }}
	if err := s.open(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("open %s: %w", path, trouble(err)), s.Close())
	}
	return s, nil
}

func (s *Store) open(ctx context.Context) error {
	err := s.openToWrite(ctx)
	if err == nil || !short(err) {
		return err
	}
	if info, gone := os.Stat(s.path); gone != nil || info.Size() == 0 {
		return err
	}
	for _, db := range []*sql.DB{s.write, s.read} {
		if db != nil {
			_ = db.Close() // it was opened in vain, and there is no room to fold its log
		}
	}
	s.write, s.read = nil, nil
	return s.openToRead(ctx, err)
}

func (s *Store) openToWrite(ctx context.Context) (err error) {
	if err := s.admit(ctx); err != nil {
		return err
	}
	if _, err := os.Stat(s.path); err == nil {
		if err := s.change(ctx); err != nil {
			return err
		}
	}
	if s.write, err = sql.Open("sqlite", address(s.path, "rwc", "immediate", writing...)); err != nil {
		return err
	}
	s.write.SetMaxOpenConns(1)
	if err := s.migrate(ctx); err != nil {
		return err
	}
	if s.read, err = sql.Open("sqlite", address(s.path, "rw", "deferred", reading...)); err != nil {
		return err
	}
	readers := max(4, 2*runtime.NumCPU())
	s.read.SetMaxOpenConns(readers)
	s.read.SetMaxIdleConns(readers)
	if s.file, err = os.Stat(s.path); err != nil {
		return err
	}
	return s.mark()
}

// Durability comes before speed: a write-ahead log with full sync.
var (
	writing = []string{"busy_timeout(5000)", "auto_vacuum(INCREMENTAL)", "journal_mode(WAL)", "synchronous(FULL)",
		"foreign_keys(1)", "journal_size_limit(16777216)"}
	reading = []string{"busy_timeout(5000)", "query_only(1)"}
)

// address is the name that the driver opens a file by.
func address(path, mode, lock string, pragmas ...string) string {
	v := url.Values{"_txlock": {lock}, "_pragma": pragmas, "mode": {mode}}
	return "file:" + (&url.URL{Path: filepath.ToSlash(path)}).EscapedPath() + "?" + v.Encode()
}

// readOnly is the name by which a file is opened to be read alone; one that nobody
// writes, without touching anything beside it, on a disk that takes no writes too.
func readOnly(path string, still bool) string {
	at := address(path, "ro", "deferred", "busy_timeout(5000)")
	if still {
		at += "&immutable=1"
	}
	return at
}

// Path is where the database lies.
func (s *Store) Path() string { return s.path }

// Close closes the database. Whoever reads goes first, so that the one that
// writes is the last and folds the write-ahead log into the file.
func (s *Store) Close() error {
	var err error
	if s.read != nil {
		err = s.read.Close()
	}
	if s.write != nil {
		if e := s.line.Acquire(context.Background(), 1); e == nil {
			defer s.line.Release(1)
		}
		_, folded := s.write.Exec(`PRAGMA wal_checkpoint(TRUNCATE)`)
		err = errors.Join(err, folded, s.write.Close())
	}
	return err
}

// tx runs do in a transaction of the connection that writes.
func (s *Store) tx(ctx context.Context, do func(*sql.Tx) error) (err error) {
	defer told(&err)
	if err := s.line.Acquire(ctx, 1); err != nil {
		return err
	}
	defer s.line.Release(1)
	if s.noRoom != nil {
		return s.noRoom
	}
	if err := s.there(); err != nil {
		return err
	}
	tx, err := s.write.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := do(tx); err != nil {
		return errors.Join(err, rolledBack(tx))
	}
	return tx.Commit()
}

// snapshot runs do over one state of the database, whatever is written meanwhile.
func (s *Store) snapshot(ctx context.Context, do func(*sql.Tx) error) (err error) {
	defer told(&err)
	tx, err := s.read.BeginTx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return err
	}
	return errors.Join(do(tx), rolledBack(tx))
}

// rolledBack ends a transaction whose work is not wanted; that the driver has
// ended it already, as a cancelled one, is no further error.
func rolledBack(tx *sql.Tx) error {
	if err := tx.Rollback(); err != nil && !errors.Is(err, sql.ErrTxDone) {
		return err
	}
	return nil
}

// there tells whether the file that was opened is still the one at its path:
// SQLite would go on writing into a deleted one.
func (s *Store) there() error {
	now, err := os.Stat(s.path)
	if err != nil || !os.SameFile(now, s.file) {
		return Trouble{Kind: Gone, Err: fmt.Errorf("%s was deleted or replaced while Mallow had it open", s.path)}
	}
	return nil
}

// OpenCopying opens a database to be read and copied, while a server may use
// it. It is neither made nor migrated.
func OpenCopying(ctx context.Context, path string) (*Store, error) {
	s := &Store{path: path, line: semaphore.NewWeighted(1), now: func() time.Time { return time.Now().UTC() }}
	var err error
	if s.file, err = os.Stat(path); err != nil {
		return nil, err
	}
	if err := s.admit(ctx); err != nil {
		return nil, fmt.Errorf("open %s: %w", path, trouble(err))
	}
	if s.read, err = sql.Open("sqlite", address(path, "rw", "deferred", reading...)); err != nil {
		return nil, err
	}
	return s, nil
}

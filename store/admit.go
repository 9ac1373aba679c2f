package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// applicationID marks a database as Mallow's: "Mlow" in ASCII.
const applicationID = 0x4d6c6f77

// markName is a file beside the database that says that the folder holds jobs,
// so that a missing database is not taken for a new folder.
const markName = "mallow.holds-jobs"

// admit looks at the file before it is opened for writing.
func (s *Store) admit(ctx context.Context) error {
	info, err := os.Stat(s.path)
	if errors.Is(err, fs.ErrNotExist) || err == nil && info.Size() == 0 {
		if _, err := os.Stat(s.beside(markName)); err == nil {
			return s.emptied()
		}
		return nil
	}
	if err != nil {
		return err
	}
	db, err := sql.Open("sqlite", address(s.path, "ro", "deferred", "busy_timeout(5000)"))
	if err != nil {
		return err
	}
	version, err := versionOf(ctx, db)
	return errors.Join(versionKnown(version, err), db.Close())
}

func (s *Store) emptied() error {
	err := fmt.Errorf("this folder held jobs and %s is missing or empty", filepath.Base(s.path))
	if list, _ := s.Backups(); len(list) > 0 {
		err = fmt.Errorf("%w; the newest backup is %s, and mallow restore puts it back", err, list[0].Path)
	}
	return Trouble{Emptied, fmt.Errorf("%w; to begin with no jobs, take the file %s away first", err, s.beside(markName))}
}

// versionOf is the last migration that a database has had, 0 of one without
// tables.
func versionOf(ctx context.Context, db querier) (int64, error) {
	var id, tables, ours int64
	err := db.QueryRowContext(ctx, `SELECT (SELECT application_id FROM pragma_application_id),
		(SELECT COUNT(*) FROM sqlite_schema WHERE type = 'table'),
		(SELECT COUNT(*) FROM sqlite_schema WHERE type = 'table' AND name IN ('jobs', 'revisions', 'goose_db_version'))`).Scan(&id, &tables, &ours)
	switch {
	case err != nil:
		return 0, err
	case tables == 0:
		return 0, nil
	case id != applicationID && (id != 0 || ours != 3): // the first version did not mark its files
		return 0, Trouble{Foreign, errors.New("it is a database of another program")}
	}
	var v, made int64
	if err := db.QueryRowContext(ctx, `SELECT COUNT(*) FROM sqlite_schema WHERE name = 'goose_db_version'`).Scan(&made); err != nil || made == 0 {
		return 0, err // ended before its first migration
	}
	err = db.QueryRowContext(ctx, `SELECT COALESCE(MAX(version_id), 0) FROM goose_db_version WHERE is_applied`).Scan(&v)
	return v, err
}

func versionKnown(v int64, err error) error {
	if err != nil {
		if t := trouble(err); Is(t, Damaged) {
			return fmt.Errorf("it cannot be read as a database: %w", t)
		}
		return err
	}
	if newest := Version(); v > newest {
		return Trouble{Newer, fmt.Errorf("it was written by a newer Mallow (its data has version %d, this one knows %d); nothing was changed in it: start the newer Mallow, or restore a backup that is older", v, newest)}
	}
	return nil
}

// Version is the newest version of the data that this program knows.
func Version() int64 {
	files, err := fs.Glob(migrations, "migrations/*.sql")
	if err != nil {
		return 0
	}
	newest := int64(0)
	for _, f := range files {
		if n, err := goose.NumericComponent(f); err == nil {
			newest = max(newest, n)
		}
	}
	return newest
}

// migrate makes the tables of a new database.
func (s *Store) migrate(ctx context.Context) error {
	// What is as it should be is not written to: there may be no room for it.
	if v, err := versionOf(ctx, s.write); err != nil || v == Version() {
		return err
	}
	// Marked first: a file that is only half made is to be known as ours.
	if _, err := s.write.ExecContext(ctx, fmt.Sprintf(`PRAGMA application_id = %d`, applicationID)); err != nil {
		return err
	}
	return migrate(ctx, s.write)
}

// beforeName is the database as it was before its last change to another
// version. It is kept until the next such change.
const beforeName = "mallow.before.db"

// change brings a database of an older version to this program's. While nobody
// else has it open, it is backed up, and a copy of it, with what is in its log, is
// changed as a whole, counted, and takes its place in one step: at no moment is
// there no database, and whoever is killed in between finds the old one. Where that
// does not go well, the file is as it was.
func (s *Store) change(ctx context.Context) (err error) {
	db, err := sql.Open("sqlite", address(s.path, "rw", "deferred", "busy_timeout(5000)"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	had, err := versionOf(ctx, db)
	if err = errors.Join(err, db.Close()); err != nil || had == 0 || had == Version() {
		return err
	}
	// To hold a file whose log others read too, all of them must be gone.
	db, err = sql.Open("sqlite", address(s.path, "rw", "exclusive", "busy_timeout(2000)", "locking_mode(EXCLUSIVE)"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	defer func() { err = errors.Join(err, db.Close()) }()
	for _, q := range []string{`BEGIN EXCLUSIVE`, `COMMIT`, `PRAGMA wal_checkpoint(TRUNCATE)`} {
		if _, err := db.ExecContext(ctx, q); err != nil {
			if Is(trouble(err), Busy) {
				return Trouble{Busy, fmt.Errorf("its data is of version %d and is to be changed to %d, and another program has it open%s: stop that one first, or what it saves would be lost; nothing was changed", had, Version(), holders(s.path))}
			}
			return err
		}
	}
	if _, err := s.backUpFile(ctx, db, fmt.Sprintf("before-version-%d", Version())); err != nil {
		return fmt.Errorf("the backup before the change to version %d: %w", Version(), err)
	}
	part, err := s.migratedCopy(ctx, func(to string) error { return copyPages(ctx, db, to) })
	if err == nil {
		err = sameCounts(ctx, db, part)
	}
	if err != nil {
		return fmt.Errorf("the change to version %d did not go well; the file was left as it was: %w", Version(), errors.Join(err, removed(s.beside(restoringName))))
	}
	if err := synced(part); err != nil {
		return err
	}
	before := s.beside(beforeName)
	if err := removed(before, before+"-wal", before+"-shm"); err != nil {
		return err
	}
	if err := os.Link(s.path, before); err != nil { // a disk that knows no links has a copy
		if err := errors.Join(copyFile(s.path, before), synced(before)); err != nil {
			return errors.Join(err, removed(before))
		}
	}
	if err := os.Rename(part, s.path); err != nil {
		return err
	}
	return synced(s.path)
}

// sameCounts tells whether a changed copy has all that the database has.
func sameCounts(ctx context.Context, db *sql.DB, part string) (err error) {
	changed, err := sql.Open("sqlite", address(part, "rw", "deferred"))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, changed.Close()) }()
	for _, table := range []string{"jobs", "revisions", "documents", "photos"} {
		var there, was, is int
		if err := db.QueryRowContext(ctx, `SELECT COUNT(*) FROM sqlite_schema WHERE type = 'table' AND name = ?`, table).Scan(&there); err != nil {
			return err
		}
		if there == 0 {
			continue // this version had none
		}
		if err := errors.Join(db.QueryRowContext(ctx, `SELECT COUNT(*) FROM `+table).Scan(&was), changed.QueryRowContext(ctx, `SELECT COUNT(*) FROM `+table).Scan(&is)); err != nil {
			return err
		}
		if was != is {
			return fmt.Errorf("of %d %s the changed copy has %d", was, table, is)
		}
	}
	return allSums(ctx, changed)
}

// holders names the processes that have a file open, where the system tells.
func holders(path string) string {
	own := os.Getpid()
	file, err := os.Stat(path)
	if err != nil {
		return ""
	}
	var out []string
	processes, _ := filepath.Glob("/proc/[0-9]*") // none on systems without it
	for _, p := range processes {
		if filepath.Base(p) == fmt.Sprint(own) {
			continue
		}
		open, _ := filepath.Glob(p + "/fd/*")
		for _, fd := range open {
			if info, err := os.Stat(fd); err == nil && os.SameFile(info, file) {
				name, _ := os.ReadFile(p + "/comm")
				out = append(out, fmt.Sprintf("process %s (%s)", filepath.Base(p), strings.TrimSpace(string(name))))
				break
			}
		}
	}
	if len(out) == 0 {
		return ""
	}
	return ": " + strings.Join(out, ", ")
}

// summed is the version from which on documents have sums.
const summed = 6

func migrate(ctx context.Context, db *sql.DB) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, db, dir)
	if err != nil {
		return err
	}
	had, err := versionOf(ctx, db)
	if err != nil || had == Version() {
		return err
	}
	if had >= 2 { // the guard is taken down: what it hides was done
		if _, err := db.ExecContext(ctx, `INSERT INTO goose_db_version (version_id, is_applied) SELECT 1, 1 WHERE NOT EXISTS (SELECT 1 FROM goose_db_version WHERE version_id = 1)`); err != nil {
			return err
		}
	}
	if _, err = p.Up(ctx); err != nil {
		return err
	}
	// A guard that the first version reads already, which looks for nothing newer: it finds
	// its own migration missing below later ones, says so and does not start.
	if _, err := db.ExecContext(ctx, `DELETE FROM goose_db_version WHERE version_id = 1`); err != nil {
		return err
	}
	if had > 0 && had < summed {
		if err := sumAll(ctx, db); err != nil {
			return err
		}
	}
	if had == 0 || had >= 2 {
		return nil
	}
	// An old file shrinks only once it is rewritten.
	if _, err := db.ExecContext(ctx, `PRAGMA auto_vacuum = INCREMENTAL`); err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, `VACUUM`)
	return err
}

// mark says beside the database that the folder holds jobs, and keeps others
// of this machine from reading them.
func (s *Store) mark() error {
	for _, f := range []string{s.path, s.path + "-wal", s.path + "-shm"} {
		if err := os.Chmod(f, 0o600); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
	}
	if _, err := os.Stat(s.beside(markName)); err == nil {
		return nil
	}
	return os.WriteFile(s.beside(markName), []byte("Mallow's jobs are in "+filepath.Base(s.path)+", its backups in "+backupFolder+".\n"), 0o600)
}

// beside is a file in the database's folder.
func (s *Store) beside(name string) string { return filepath.Join(filepath.Dir(s.path), name) }

// synced makes sure that a file and its name are on the disk.
func synced(path string) error {
	for _, p := range []string{path, filepath.Dir(path)} {
		f, err := os.Open(p)
		if err != nil {
			return err
		}
		if err := errors.Join(f.Sync(), f.Close()); err != nil {
			return err
		}
	}
	return nil
}

// newest first, by name, which holds the time.
func newestFirst(list []Backup) {
	slices.SortFunc(list, func(a, b Backup) int { return b.At.Compare(a.At) })
}

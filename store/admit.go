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
func versionOf(ctx context.Context, db *sql.DB) (int64, error) {
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
	// Marked first: a file that is only half made is to be known as ours.
	if _, err := s.write.ExecContext(ctx, fmt.Sprintf(`PRAGMA application_id = %d`, applicationID)); err != nil {
		return err
	}
	return migrate(ctx, s.write)
}

// beforeName is the database as it was before its last change to another
// version, kept until a start after that one has gone well.
const beforeName = "mallow.before.db"

// change brings a database of an older version to this program's. It is backed
// up, and a copy of it is changed as a whole and takes its place. Where that
// does not go well, the file is as it was.
func (s *Store) change(ctx context.Context) error {
	db, err := sql.Open("sqlite", address(s.path, "rw", "deferred", "busy_timeout(5000)"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	had, err := versionOf(ctx, db)
	before := s.beside(beforeName)
	if err != nil || had == 0 || had == Version() {
		if err == nil && had == Version() { // the copy of before the last change has had its clean start
			err = removed(before)
		}
		return errors.Join(err, db.Close())
	}
	_, err = s.backUpFile(ctx, db, fmt.Sprintf("before-version-%d", Version()))
	if err = errors.Join(err, db.Close()); err != nil { // which folds the log into the file
		return fmt.Errorf("the backup before the change to version %d: %w", Version(), err)
	}
	part, err := s.migratedCopy(ctx, s.path)
	if err != nil {
		return fmt.Errorf("the change to version %d did not go well; the file was left as it was: %w", Version(), err)
	}
	if err := errors.Join(os.Rename(s.path, before), removed(s.path+"-wal", s.path+"-shm")); err != nil {
		return err
	}
	if err := os.Rename(part, s.path); err != nil {
		return errors.Join(err, os.Rename(before, s.path))
	}
	return synced(s.path)
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
	had, err := versionOf(ctx, db)
	if err != nil {
		return err
	}
	if _, err = p.Up(ctx); err != nil || had == 0 || had >= 2 {
		return err
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

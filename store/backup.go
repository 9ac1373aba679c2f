package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// backupFolder is where automatic backups are, in the data folder.
const backupFolder = "backups"

const (
	backupPrefix = "mallow-"
	backupStamp  = "20060102T150405.000Z"
)

// Backup is a kept copy of the whole database.
type Backup struct {
	Name  string // of the file, in the backups' folder
	Path  string
	Why   string // daily, asked, before-restore, before-version-2
	At    time.Time
	Bytes int64
}

// Verified is what a backup was found to hold.
type Verified struct {
	Path      string
	Bytes     int64
	Jobs      int
	Revisions int
	Newest    time.Time // of the last save
	Version   int64     // of its data
	Sealed    bool      // it has a digest over all of its bytes, which fits
}

// BackUp copies the database to a file, while it is used, seals it with a digest
// and verifies the copy: it opens, it is whole, no job is missing, and every current
// document is what the database holds of that revision. An existing file is not
// written over.
func (s *Store) BackUp(ctx context.Context, to string) (Verified, error) {
	return s.backUp(ctx, s.read, to)
}

func (s *Store) backUp(ctx context.Context, from *sql.DB, to string) (v Verified, err error) {
	defer told(&err)
	if _, err := os.Lstat(to); !errors.Is(err, fs.ErrNotExist) {
		return v, fmt.Errorf("%s is there already: %w", to, fs.ErrExist)
	}
	had, err := jobIDs(ctx, from)
	if err != nil {
		return v, err
	}
	part := to + ".part-" + strings.ToLower(rand.Text()[:6])
	defer func() { err = errors.Join(err, removed(part, part+"-journal", part+"-wal", part+"-shm")) }()
	if err := copyPages(ctx, from, part); err != nil {
		return v, err
	}
	if err := seal(ctx, part, s.now()); err != nil {
		return v, err
	}
	if v, err = verify(ctx, part, from, had); err != nil {
		return v, fmt.Errorf("the copy is not good and was not kept: %w", err)
	}
	if err := errors.Join(os.Chmod(part, 0o600), synced(part)); err != nil {
		return v, err
	}
	if err := os.Link(part, to); err != nil { // unlike a rename, never over another file
		return v, err
	}
	v.Path = to
	return v, synced(to)
}

func removed(paths ...string) error {
	var err error
	for _, p := range paths {
		if e := os.Remove(p); e != nil && !errors.Is(e, fs.ErrNotExist) {
			err = errors.Join(err, e)
		}
	}
	return err
}

func jobIDs(ctx context.Context, db *sql.DB) ([]string, error) {
	var tables int
	if err := db.QueryRowContext(ctx, `SELECT COUNT(*) FROM sqlite_schema WHERE name = 'jobs'`).Scan(&tables); err != nil || tables == 0 {
		return nil, err
	}
	return column[string](ctx, db, `SELECT id FROM jobs`)
}

// copyPages copies a database as it stands at one moment; who writes goes on.
func copyPages(ctx context.Context, from *sql.DB, to string) (err error) {
	// The file is made first, for its owner alone.
	f, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	if err := f.Close(); err != nil {
		return err
	}
	conn, err := from.Conn(ctx)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, conn.Close()) }()
	return conn.Raw(func(driver any) error {
		b, err := driver.(backupper).NewBackup(address(to, "rw", "deferred", "journal_mode(OFF)"))
		if err != nil {
			return err
		}
		// All at once: a copy in steps begins again whenever somebody writes.
		_, err = b.Step(-1)
		return errors.Join(err, b.Finish())
	})
}

// Verify opens a backup and looks whether it is whole, to the checksum of its every
// revision.
func Verify(ctx context.Context, file string) (Verified, error) {
	v, err := verify(ctx, file, nil, nil)
	if err == nil && v.Version >= summed {
		err = everySum(ctx, file)
	}
	return v, trouble(err)
}

// verify looks a copy over; with the database that it was copied from it
// compares the current documents too, which never change under their number.
func verify(ctx context.Context, file string, live *sql.DB, had []string) (v Verified, err error) {
	info, err := os.Stat(file)
	if err != nil {
		return v, err
	}
	v = Verified{Path: file, Bytes: info.Size()}
	logged := false // a copy of a folder in use has what is not folded in yet beside it
	if log, err := os.Stat(file + "-wal"); err == nil && log.Size() > 0 {
		logged = true
	}
	db, err := sql.Open("sqlite", readOnly(file, !logged))
	if err != nil {
		return v, err
	}
	db.SetMaxOpenConns(1)
	defer func() { err = errors.Join(err, db.Close()) }()
	if v.Version, err = versionOf(ctx, db); err != nil {
		return v, err
	}
	if v.Version == 0 {
		return v, Trouble{Foreign, errors.New("it holds no jobs of Mallow's")}
	}
	if err := versionKnown(v.Version, nil); err != nil {
		return v, err
	}
	if !logged {
		if err := full(ctx, db, v.Bytes); err != nil {
			return v, err
		}
		if v.Sealed, err = sealed(ctx, db, file); err != nil {
			return v, err
		}
	}
	if err := whole(ctx, db, "integrity_check"); err != nil {
		return v, err
	}
	var newest string
	if err := db.QueryRowContext(ctx, `SELECT (SELECT COUNT(*) FROM jobs), (SELECT COUNT(*) FROM revisions),
		COALESCE((SELECT MAX(saved_at) FROM revisions), '')`).Scan(&v.Jobs, &v.Revisions, &newest); err != nil {
		return v, err
	}
	if newest != "" {
		if v.Newest, err = time.Parse(time.RFC3339Nano, newest); err != nil {
			return v, err
		}
	}
	if v.Version < 2 { // an older file is compared once it is migrated
		return v, nil
	}
	return v, sameDocuments(ctx, db, live, had)
}

// sameDocuments reads every current document of a copy.
func sameDocuments(ctx context.Context, db, live *sql.DB, had []string) error {
	ids, err := jobIDs(ctx, db)
	if err != nil {
		return err
	}
	there := map[string]bool{}
	for _, id := range ids {
		there[id] = true
		var number int
		if err := db.QueryRowContext(ctx, `SELECT head FROM jobs WHERE id = ?`, id).Scan(&number); err != nil {
			return err
		}
		copied, err := document(ctx, db, id, number)
		if err != nil {
			return fmt.Errorf("job %s: %w", id, err)
		}
		if live == nil {
			continue
		}
		own, err := document(ctx, live, id, number)
		if err != nil || sha256.Sum256(own) != sha256.Sum256(copied) {
			return errors.Join(fmt.Errorf("job %s, revision %d, is not what the database holds", id, number), err)
		}
	}
	for _, id := range had {
		if !there[id] {
			return fmt.Errorf("job %s is missing", id)
		}
	}
	return nil
}

// backUpFile makes one of the automatic backups.
func (s *Store) backUpFile(ctx context.Context, from *sql.DB, why string) (Backup, error) {
	dir := s.beside(backupFolder)
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return Backup{}, err
	}
	at := s.now().UTC().Truncate(time.Millisecond)
	name := backupPrefix + at.Format(backupStamp) + "-" + why + ".db"
	v, err := s.backUp(ctx, from, filepath.Join(dir, name))
	return Backup{Name: name, Path: v.Path, Why: why, At: at, Bytes: v.Bytes}, err
}

// BackUpNow makes one more of the backups that the data folder keeps, and drops those
// that are too many then.
func (s *Store) BackUpNow(ctx context.Context, why string) (Backup, error) {
	b, err := s.backUpFile(ctx, s.read, why)
	if err != nil {
		return b, err
	}
	return b, s.rotate()
}

// rotate drops the backups that the rotation does not keep.
func (s *Store) rotate() error {
	list, err := s.Backups()
	if err != nil {
		return err
	}
	_, leave := Rotated(list)
	for _, b := range leave {
		if err := os.Remove(b.Path); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
	}
	return nil
}

// Backups lists what the data folder keeps, the newest first.
func (s *Store) Backups() ([]Backup, error) { return BackupsIn(filepath.Dir(s.path)) }

// BackupsIn lists the backups that a data folder keeps, the newest first.
func BackupsIn(folder string) ([]Backup, error) {
	dir := filepath.Join(folder, backupFolder)
	entries, err := os.ReadDir(dir)
	if err != nil {
		if errors.Is(err, fs.ErrNotExist) {
			err = nil
		}
		return nil, err
	}
	var list []Backup
	for _, e := range entries {
		stamp, why, ok := strings.Cut(strings.TrimSuffix(strings.TrimPrefix(e.Name(), backupPrefix), ".db"), "-")
		at, err := time.Parse(backupStamp, stamp)
		info, gone := e.Info()
		if !ok || err != nil || gone != nil || !strings.HasSuffix(e.Name(), ".db") {
			continue // not one of ours
		}
		list = append(list, Backup{Name: e.Name(), Path: filepath.Join(dir, e.Name()), Why: why, At: at, Bytes: info.Size()})
	}
	newestFirst(list)
	return list, nil
}

// What the rotation keeps of the backups.
const (
	keptDays   = 7
	keptWeeks  = 4
	keptMonths = 6
	keptOthers = 5 // of those made by hand, and of those made before something
	// mostBackupBytes is how large all of them may be together; the newest, and the
	// newest of those made before something, stay whatever their size.
	mostBackupBytes = 20 << 30
)

// Rotated splits backups, the newest first, into those that stay and those
// that go: the newest of each of the last 7 days, 4 weeks and 6 months that
// have one, the last 5 made by hand and the last 5 made before something. Where they
// are too large together the oldest of those go too.
func Rotated(list []Backup) (stay, leave []Backup) {
	days, weeks, months, others := map[string]bool{}, map[string]bool{}, map[string]bool{}, map[bool]int{}
	first := func(kept map[string]bool, most int, key string) bool {
		if kept[key] || len(kept) >= most {
			return false
		}
		kept[key] = true
		return true
	}
	for _, b := range list {
		if b.Why != daily {
			others[b.Why == asked]++
			if others[b.Why == asked] <= keptOthers {
				stay = append(stay, b)
				continue
			}
			leave = append(leave, b)
			continue
		}
		y, w := b.At.ISOWeek()
		day := first(days, keptDays, b.At.Format(time.DateOnly))
		week := first(weeks, keptWeeks, fmt.Sprint(y, w))
		month := first(months, keptMonths, b.At.Format("2006-01"))
		if day || week || month {
			stay = append(stay, b)
		} else {
			leave = append(leave, b)
		}
	}
	bytes, before := int64(0), false
	stay = slices.DeleteFunc(stay, func(b Backup) bool {
		first := bytes == 0 || b.Why != daily && b.Why != asked && !before
		before = before || b.Why != daily && b.Why != asked
		if bytes += b.Bytes; bytes <= mostBackupBytes || first {
			return false
		}
		leave = append(leave, b)
		return true
	})
	return stay, leave
}

// Why backups are made, beside what they are made before.
const (
	daily = "daily"
	asked = "asked"
)

// DailyBackUp makes the day's backup if there is none of the last day, and
// drops those that the rotation does not keep. False: it was not time.
func (s *Store) DailyBackUp(ctx context.Context) (bool, error) {
	list, err := s.Backups()
	if err != nil {
		return false, err
	}
	for _, b := range list {
		if age := s.now().Sub(b.At); b.Why == daily && age >= 0 && age < 24*time.Hour {
			return false, nil
		}
	}
	if _, err := s.BackUpNow(ctx, daily); err != nil {
		return false, err
	}
	return true, nil
}

// backupper is what the driver's connections can do.
type backupper interface {
	NewBackup(to string) (*backup, error)
}

package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"
)

// short tells whether a database does not open for want of room: SQLite writes even to
// read, where it keeps the index of its log.
func short(err error) bool {
	var e *sqlite.Error
	return Is(trouble(err), Full) || errors.As(err, &e) &&
		slices.Contains([]int{lib.SQLITE_IOERR_SHMSIZE, lib.SQLITE_IOERR_SHMOPEN, lib.SQLITE_IOERR_SHMMAP, lib.SQLITE_IOERR_WRITE}, e.Code())
}

// openToRead opens a database on a disk that has no room, so that the jobs are read and
// taken out all the same. Whoever saves is told why not.
func (s *Store) openToRead(ctx context.Context, why error) (err error) {
	log, gone := os.Stat(s.path + "-wal")
	at := readOnly(s.path, true)
	if gone == nil && log.Size() > 0 { // what is in the log is found by an index in memory, which one connection alone has
		at = address(s.path, "rw", "deferred", "locking_mode(EXCLUSIVE)", "busy_timeout(5000)", "query_only(1)")
	}
	if s.read, err = sql.Open("sqlite", at); err != nil {
		return err
	}
	s.read.SetMaxOpenConns(1)
	s.read.SetMaxIdleConns(1)
	s.read.SetConnMaxLifetime(0)
	v, err := versionOf(ctx, s.read)
	switch {
	case err != nil:
		return errors.Join(why, err)
	case v != Version():
		return Trouble{Full, fmt.Errorf("its data is of version %d and there is no room to change it to %d: %w", v, Version(), why)}
	}
	s.noRoom = Trouble{Full, fmt.Errorf("there was no room on the disk when Mallow started, so that it only reads: %w", why)}
	s.file, err = os.Stat(s.path)
	return err
}

// Spare is a file in the data folder that nothing needs.
type Spare struct {
	Path  string
	Bytes int64
}

// Spares are what can be deleted to make room, the oldest first: backups but the newest,
// and what databases were before they were changed or replaced.
func (s *Store) Spares() ([]Spare, error) {
	dir := filepath.Dir(s.path)
	list, err := s.Backups()
	if err != nil {
		return nil, err
	}
	var out []Spare
	kept, err := filepath.Glob(filepath.Join(dir, "mallow-before-restore-*.db"))
	if err != nil {
		return nil, err
	}
	slices.Sort(kept)
	for _, path := range append(kept, filepath.Join(dir, beforeName)) {
		if info, err := os.Stat(path); err == nil {
			out = append(out, Spare{path, info.Size()})
		}
	}
	for i := len(list) - 1; i > 0; i-- {
		out = append(out, Spare{list[i].Path, list[i].Bytes})
	}
	return out, nil
}

// RoomSays says how there is room again, and names what can be deleted.
func (s *Store) RoomSays() string {
	const named = 3
	then := ", then try again: it goes on by itself."
	if s.noRoom != nil {
		then = ", then start Mallow again: it was started without room, so that it only reads."
	}
	then = " Free some space where the jobs are kept" + then
	list, err := s.Spares()
	if err != nil || len(list) == 0 {
		return then + " Nothing in the data folder is to spare: make room elsewhere on the disk."
	}
	var all int64
	var names []string
	for _, one := range list {
		all += one.Bytes
		if len(names) < named {
			names = append(names, one.Path)
		}
	}
	more := ""
	if n := len(list) - len(names); n > 0 {
		more = fmt.Sprintf(" and %d more", n)
	}
	return then + fmt.Sprintf(" To spare in the data folder, %.1f MB together: %s%s.", float64(all)/1e6, strings.Join(names, ", "), more)
}

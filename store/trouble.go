package store

import (
	"context"
	"errors"
	"io/fs"
	"syscall"

	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"
)

// Kind is what is the matter with the database or its disk.
type Kind string

// Kinds of trouble.
const (
	Full     Kind = "full"      // no room on the disk
	ReadOnly Kind = "read-only" // the file, the folder or the disk takes no writes
	Busy     Kind = "busy"      // another program holds the database
	Damaged  Kind = "damaged"   // a page or a document cannot be read
	Gone     Kind = "gone"      // the file was deleted or replaced under us
	Disk     Kind = "disk"      // the disk fails
	Newer    Kind = "newer"     // written by a newer Mallow
	Foreign  Kind = "foreign"   // not a database of Mallow's
	Emptied  Kind = "emptied"   // the folder held jobs and the file is missing or empty
)

// Trouble is what the database or the disk refused. What was saved before is
// kept, and what was refused changed nothing.
type Trouble struct {
	Kind Kind
	Err  error
}

func (t Trouble) Error() string { return t.Err.Error() }
func (t Trouble) Unwrap() error { return t.Err }

// Is the trouble of one kind.
func Is(err error, k Kind) bool {
	var t Trouble
	return errors.As(err, &t) && t.Kind == k
}

var kinds = map[int]Kind{
	lib.SQLITE_FULL:     Full,
	lib.SQLITE_READONLY: ReadOnly,
	lib.SQLITE_PERM:     ReadOnly,
	lib.SQLITE_BUSY:     Busy,
	lib.SQLITE_LOCKED:   Busy,
	lib.SQLITE_CORRUPT:  Damaged,
	lib.SQLITE_NOTADB:   Damaged,
	lib.SQLITE_IOERR:    Disk,
	lib.SQLITE_CANTOPEN: Disk,
}

// trouble recognises what the database or the disk refused; other errors stay
// what they are.
func trouble(err error) error {
	var known Trouble
	if err == nil || errors.As(err, &known) || errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	switch {
	case errors.Is(err, syscall.ENOSPC), errors.Is(err, syscall.EDQUOT):
		return Trouble{Full, err}
	case errors.Is(err, syscall.EROFS), errors.Is(err, fs.ErrPermission):
		return Trouble{ReadOnly, err}
	}
	var e *sqlite.Error
	if errors.As(err, &e) {
		if k, ok := kinds[e.Code()&0xff]; ok {
			return Trouble{k, err}
		}
	}
	return err
}

// told makes trouble of what a function returns.
func told(err *error) { *err = trouble(*err) }

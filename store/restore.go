package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"time"

	"modernc.org/sqlite"
)

type backup = sqlite.Backup

// RestoreTo puts a backup into a data folder whose server is not running. What
// the folder held is kept beside it, under the name that is returned; without
// over such a folder is refused.
func RestoreTo(ctx context.Context, file, folder string, over bool) (v Verified, kept string, err error) {
	defer told(&err)
	if v, err = Verify(ctx, file); err != nil {
		return v, "", err
	}
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return v, "", err
	}
	target := filepath.Join(folder, FileName)
	if info, err := os.Stat(target); err == nil && info.Size() > 0 {
		if !over {
			return v, "", fmt.Errorf("%s holds jobs already: %w", folder, fs.ErrExist)
		}
		if same, err := os.Stat(file); err == nil && os.SameFile(same, info) {
			return v, "", fmt.Errorf("%s is the database itself", file)
		}
		kept = filepath.Join(folder, "mallow-before-restore-"+time.Now().UTC().Format(backupStamp)+".db")
	}
	part := target + ".restored"
	if err := removed(part); err != nil {
		return v, "", err
	}
	if err := copyFile(file, part); err != nil {
		return v, "", errors.Join(err, removed(part))
	}
	if kept != "" { // with its log, which holds what is not folded in yet
		for _, end := range []string{"", "-wal", "-shm"} {
			if err := os.Rename(target+end, kept+end); err != nil && !errors.Is(err, fs.ErrNotExist) {
				return v, "", err
			}
		}
	} else if err := removed(target+"-wal", target+"-shm"); err != nil {
		return v, "", err
	}
	if err := os.Rename(part, target); err != nil {
		return v, kept, err
	}
	return v, kept, synced(target)
}

// copyFile copies a closed file and makes sure that it is on the disk.
func copyFile(from, to string) (err error) {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, in.Close()) }()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Sync(), out.Close())
}

// Replace takes everything out of a backup in place of what the open database
// holds, in one transaction: all of it or nothing. What was there is backed up
// first.
func (s *Store) Replace(ctx context.Context, file string) (before Backup, err error) {
	defer told(&err)
	if _, err := Verify(ctx, file); err != nil {
		return before, err
	}
	// Of an older version it is a copy that is migrated, not the backup.
	part, err := s.migratedCopy(ctx, file)
	if err != nil {
		return before, err
	}
	defer func() { err = errors.Join(err, removed(part, part+"-wal", part+"-shm")) }()
	if before, err = s.BackUpNow(ctx, "before-restore"); err != nil {
		return before, err
	}
	if err := s.line.Acquire(ctx, 1); err != nil {
		return before, err
	}
	defer s.line.Release(1)
	if err := s.there(); err != nil {
		return before, err
	}
	conn, err := s.write.Conn(ctx)
	if err != nil {
		return before, err
	}
	defer func() { err = errors.Join(err, conn.Close()) }()
	if _, err := conn.ExecContext(ctx, `ATTACH ? AS kept`, part); err != nil {
		return before, err
	}
	defer func() {
		_, e := conn.ExecContext(context.WithoutCancel(ctx), `DETACH kept`)
		err = errors.Join(err, e)
	}()
	return before, replaceAll(ctx, conn)
}

func replaceAll(ctx context.Context, conn *sql.Conn) error {
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	for _, q := range []string{
		`DELETE FROM jobs`, // revisions, documents and photographs with them
		`INSERT INTO jobs (id, head, created_at, deleted_at, name, sought, saved_at, facts)
			SELECT id, head, created_at, deleted_at, name, sought, saved_at, facts FROM kept.jobs`,
		`INSERT INTO revisions (job_id, number, parent, what, saved_at, name, facts, pinned, ops)
			SELECT job_id, number, parent, what, saved_at, name, facts, pinned, ops FROM kept.revisions ORDER BY job_id, number`,
		`INSERT INTO documents (job_id, number, coding, base, doc)
			SELECT job_id, number, coding, base, doc FROM kept.documents`,
		`INSERT INTO photos (job_id, id, taken_at, kind, width, height, size, bytes)
			SELECT job_id, id, taken_at, kind, width, height, size, bytes FROM kept.photos`,
	} {
		if _, err := tx.ExecContext(ctx, q); err != nil {
			return errors.Join(err, rolledBack(tx))
		}
	}
	return tx.Commit()
}

// migratedCopy is a copy of a backup with the tables of this version.
func (s *Store) migratedCopy(ctx context.Context, file string) (string, error) {
	part := s.beside("mallow-restoring.db")
	if err := removed(part, part+"-wal", part+"-shm"); err != nil {
		return "", err
	}
	if err := copyFile(file, part); err != nil {
		return "", errors.Join(err, removed(part))
	}
	db, err := sql.Open("sqlite", address(part, "rw", "immediate", "foreign_keys(1)"))
	if err != nil {
		return "", err
	}
	db.SetMaxOpenConns(1)
	if err := errors.Join(migrate(ctx, db), db.Close()); err != nil {
		return "", errors.Join(err, removed(part, part+"-wal", part+"-shm"))
	}
	return part, nil
}

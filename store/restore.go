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
	"strings"
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
	if err := removed(part, part+"-wal", part+"-shm", part+"-journal"); err != nil {
		return v, "", err
	}
	defer func() { err = errors.Join(err, removed(part, part+"-wal", part+"-shm", part+"-journal")) }()
	if err := copied(ctx, file, part); err != nil {
		return v, "", err
	}
	if err := anotherOne(ctx, part, target); err != nil {
		return v, "", err
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

// copied copies a database that nobody writes; what it has in a log beside it too.
func copied(ctx context.Context, file, to string) (err error) {
	if log, err := os.Stat(file + "-wal"); err != nil || log.Size() == 0 {
		return copyFile(file, to)
	}
	db, err := sql.Open("sqlite", readOnly(file, false))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	if err := copyPages(ctx, db, to); err != nil {
		return err
	}
	return synced(to)
}

// anotherOne makes a restored file another database than the one that it is put
// in place of, where there is one: it has a generation of its own, and gives no
// number that was given there.
func anotherOne(ctx context.Context, part, before string) (err error) {
	db, err := sql.Open("sqlite", address(part, "rw", "immediate", "journal_mode(DELETE)", "synchronous(FULL)", "foreign_keys(1)"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	defer func() { err = errors.Join(err, db.Close()) }()
	if _, err := db.ExecContext(ctx, `DROP TABLE IF EXISTS manifest`); err != nil {
		return err
	}
	version, err := versionOf(ctx, db)
	if err != nil {
		return err
	}
	if version < summed { // it is changed to this version when it is opened, which gives it a generation
		return nil
	}
	conn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, conn.Close()) }()
	was, unwanted := map[string]held{}, []string(nil)
	if info, err := os.Stat(before); err == nil && info.Size() > 0 {
		// What stands there may be damaged or of another version: then nothing is
		// known of its numbers, and the generation alone tells them apart.
		if old, err := sql.Open("sqlite", readOnly(before, false)); err == nil {
			if found, err := heldIn(ctx, old); err == nil {
				was = found
			}
			unwanted, _ = column[string](ctx, old, `SELECT job_id || '/' || photo FROM unwanted`)
			_ = old.Close() // only read
		}
	}
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	for _, one := range unwanted { // what was deleted for good stays deleted
		job, photo, _ := strings.Cut(one, "/")
		for _, q := range []string{`INSERT OR IGNORE INTO unwanted (job_id, photo) VALUES (?, ?)`, `DELETE FROM photos WHERE job_id = ? AND id = ?`} {
			if _, err := tx.ExecContext(ctx, q, job, photo); err != nil {
				return errors.Join(err, rolledBack(tx))
			}
		}
	}
	if err := putBack(ctx, tx, was, time.Now().UTC()); err != nil {
		return errors.Join(err, rolledBack(tx))
	}
	return tx.Commit()
}

// held is what a database had of a job before another one was put in its place.
type held struct {
	used, head int
	sum        string
}

// heldIn reads that of all jobs, and of those that it once had.
func heldIn(ctx context.Context, q querier) (map[string]held, error) {
	out := map[string]held{}
	rows, err := q.QueryContext(ctx, `SELECT j.id, j.head, COALESCE((SELECT MAX(number) FROM revisions r WHERE r.job_id = j.id), 0), COALESCE((SELECT hex(sum) FROM revisions r WHERE r.job_id = j.id AND r.number = j.head), '')
		FROM jobs j UNION ALL SELECT job_id, 0, used, '' FROM numbers`)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		var id string
		var h held
		if err := rows.Scan(&id, &h.head, &h.used, &h.sum); err != nil {
			return nil, err
		}
		if was, there := out[id]; there {
			h.used = max(h.used, was.used)
			if h.sum == "" {
				h.head, h.sum = was.head, was.sum
			}
		}
		out[id] = h
	}
	return out, rows.Err()
}

// PutBackAs says in the history that a job is as a backup had it.
const PutBackAs = "As it was in the backup"

// putBack makes what was put in place of another database one of its own. A job
// that is not as it was there is saved once more under a number that was never
// given: who still has a page of before is told so, whatever number that has.
func putBack(ctx context.Context, tx *sql.Tx, was map[string]held, now time.Time) error {
	if _, err := tx.ExecContext(ctx, `INSERT INTO keeping (key, value) VALUES (?, lower(hex(randomblob(8))))
		ON CONFLICT (key) DO UPDATE SET value = excluded.value`, keyGeneration); err != nil {
		return err
	}
	is, err := heldIn(ctx, tx)
	if err != nil {
		return err
	}
	for id, h := range was {
		if _, err := tx.ExecContext(ctx, `INSERT INTO numbers (job_id, used) VALUES (?, ?) ON CONFLICT (job_id) DO UPDATE SET used = max(used, excluded.used)`, id, max(h.used, is[id].used)); err != nil {
			return err
		}
	}
	for id, h := range is {
		before, there := was[id]
		if h.head == 0 || there && before.sum != "" && before.sum == h.sum && before.head == h.head && before.used == h.used {
			continue // not there, or the very same
		}
		if !there { // other windows than this database's know nothing of it
			continue
		}
		doc, err := document(ctx, tx, id, h.head)
		if err != nil { // it can't be read, and is put back as it is
			continue
		}
		raw, coding, err := asSaved(doc)
		if err != nil {
			return err
		}
		n := max(before.used, h.used) + 1
		if _, err := tx.ExecContext(ctx, `INSERT INTO revisions (job_id, number, parent, what, saved_at, name, facts, sum)
			SELECT job_id, ?, number, ?, ?, name, facts, sum FROM revisions WHERE job_id = ? AND number = ?`, n, PutBackAs, now.Format(time.RFC3339Nano), id, h.head); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO documents (job_id, number, coding, doc) VALUES (?, ?, ?, ?)`, id, n, coding, raw); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE jobs SET head = ? WHERE id = ?`, n, id); err != nil {
			return err
		}
	}
	return nil
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
	part, err := s.migratedCopy(ctx, func(to string) error { return copied(ctx, file, to) })
	if err != nil {
		return before, err
	}
	defer func() { err = errors.Join(err, removed(part, part+"-wal", part+"-shm", part+"-journal")) }()
	// Nobody saves from the copy on: what is saved is in it, or in what comes after.
	if err := s.line.Acquire(ctx, 1); err != nil {
		return before, err
	}
	defer s.line.Release(1)
	if s.noRoom != nil {
		return before, s.noRoom
	}
	if before, err = s.BackUpNow(ctx, "before-restore"); err != nil {
		return before, err
	}
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
	return before, s.replaceAll(ctx, conn)
}

func (s *Store) replaceAll(ctx context.Context, conn *sql.Conn) error {
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	was, err := heldIn(ctx, tx)
	if err != nil {
		return errors.Join(err, rolledBack(tx))
	}
	for _, q := range []string{
		`DELETE FROM jobs`, // revisions, documents and photographs with them
		`INSERT INTO jobs (id, head, created_at, deleted_at, name, sought, saved_at, facts)
			SELECT id, head, created_at, deleted_at, name, sought, saved_at, facts FROM kept.jobs`,
		`INSERT INTO revisions (job_id, number, parent, what, saved_at, name, facts, pinned, ops, sum)
			SELECT job_id, number, parent, what, saved_at, name, facts, pinned, ops, sum FROM kept.revisions ORDER BY job_id, number`,
		`INSERT INTO documents (job_id, number, coding, base, doc)
			SELECT job_id, number, coding, base, doc FROM kept.documents`,
		`INSERT INTO photos (job_id, id, taken_at, kind, width, height, size, bytes)
			SELECT job_id, id, taken_at, kind, width, height, size, bytes FROM kept.photos`,
	} {
		if _, err := tx.ExecContext(ctx, q); err != nil {
			return errors.Join(err, rolledBack(tx))
		}
	}
	// What was deleted for good in either stays deleted.
	for _, q := range []string{
		`INSERT OR IGNORE INTO unwanted (job_id, photo) SELECT job_id, photo FROM kept.unwanted`,
		`DELETE FROM photos WHERE EXISTS (SELECT 1 FROM unwanted u WHERE u.job_id = photos.job_id AND u.photo = photos.id)`,
	} {
		if _, err := tx.ExecContext(ctx, q); err != nil {
			return errors.Join(err, rolledBack(tx))
		}
	}
	if err := putBack(ctx, tx, was, s.now()); err != nil {
		return errors.Join(err, rolledBack(tx))
	}
	return tx.Commit()
}

// restoringName is the copy that is being made ready to take a database's place.
const restoringName = "mallow-restoring.db"

// migratedCopy is a copy of a database with the tables of this version.
func (s *Store) migratedCopy(ctx context.Context, copy func(to string) error) (string, error) {
	part := s.beside(restoringName)
	if err := removed(part, part+"-wal", part+"-shm", part+"-journal"); err != nil {
		return "", err
	}
	if err := copy(part); err != nil {
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

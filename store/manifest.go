package store

import (
	"bufio"
	"bytes"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"hash"
	"io"
	"os"
	"time"
)

// A backup holds a manifest of itself: what it was made of, and a digest over all
// of its bytes, those of the digest taken as zeros. So one file says by itself
// whether a single bit of it has changed since, also on another machine.

const (
	markBytes   = 16
	digestBytes = sha256.Size
)

// seal writes a manifest into a copy that is closed otherwise.
func seal(ctx context.Context, file string, at time.Time) (err error) {
	mark := make([]byte, markBytes)
	_, _ = rand.Read(mark) // never fails
	db, err := sql.Open("sqlite", address(file, "rw", "immediate", "journal_mode(DELETE)", "synchronous(FULL)"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	for _, q := range []string{
		`DROP TABLE IF EXISTS manifest`,
		`CREATE TABLE manifest (made_at TEXT NOT NULL, jobs INTEGER NOT NULL, revisions INTEGER NOT NULL, digest BLOB NOT NULL)`,
	} {
		if _, err := db.ExecContext(ctx, q); err != nil {
			return errors.Join(err, db.Close())
		}
	}
	_, err = db.ExecContext(ctx, `INSERT INTO manifest (made_at, jobs, revisions, digest) VALUES (?, (SELECT COUNT(*) FROM jobs), (SELECT COUNT(*) FROM revisions), ?)`,
		at.Format(time.RFC3339Nano), append(mark, make([]byte, digestBytes)...))
	if err = errors.Join(err, db.Close()); err != nil {
		return err
	}
	sum, place, err := digest(file, mark)
	if err != nil {
		return err
	}
	f, err := os.OpenFile(file, os.O_WRONLY, 0)
	if err != nil {
		return err
	}
	_, err = f.WriteAt(sum, place+markBytes)
	return errors.Join(err, f.Sync(), f.Close())
}

// digest is the digest of a sealed file, and where its mark is.
func digest(file string, mark []byte) (sum []byte, place int64, err error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, 0, err
	}
	defer f.Close() // only read
	if place, err = find(f, mark); err != nil {
		return nil, 0, err
	}
	if _, err := f.Seek(0, io.SeekStart); err != nil {
		return nil, 0, err
	}
	h := sha256.New()
	if err := feed(h, f, place+markBytes); err != nil {
		return nil, 0, err
	}
	return h.Sum(nil), place, nil
}

// feed reads a file into a hash, with zeros in place of the digest.
func feed(h hash.Hash, f io.Reader, digestAt int64) error {
	if _, err := io.CopyN(h, f, digestAt); err != nil {
		return err
	}
	if _, err := io.CopyN(io.Discard, f, digestBytes); err != nil {
		return err
	}
	h.Write(make([]byte, digestBytes))
	_, err := io.Copy(h, f)
	return err
}

// find is where a mark is in a file, in which it must be once.
func find(f io.Reader, mark []byte) (place int64, err error) {
	const piece = 1 << 20
	r := bufio.NewReaderSize(f, 2*piece)
	place = -1
	for at := int64(0); ; {
		b, err := r.Peek(piece + len(mark) - 1)
		if err != nil && !errors.Is(err, io.EOF) {
			return 0, err
		}
		for from := 0; ; {
			i := bytes.Index(b[from:], mark)
			if i < 0 {
				break
			}
			if place >= 0 {
				return 0, Trouble{Damaged, errors.New("the mark of the digest is in it twice")}
			}
			place, from = at+int64(from+i), from+i+1
		}
		n, skipped := r.Discard(min(piece, len(b)))
		at += int64(n)
		if errors.Is(err, io.EOF) || skipped != nil {
			break
		}
	}
	if place < 0 {
		return 0, Trouble{Damaged, errors.New("the mark of the digest is not in it")}
	}
	return place, nil
}

// sealed tells whether a file has a manifest, and holds it against its digest.
func sealed(ctx context.Context, db *sql.DB, file string) (bool, error) {
	var tables int
	if err := db.QueryRowContext(ctx, `SELECT COUNT(*) FROM sqlite_schema WHERE name = 'manifest'`).Scan(&tables); err != nil || tables == 0 {
		return false, err
	}
	var kept []byte
	var jobs, revisions, hasJobs, hasRevisions int
	if err := db.QueryRowContext(ctx, `SELECT digest, jobs, revisions, (SELECT COUNT(*) FROM jobs), (SELECT COUNT(*) FROM revisions) FROM manifest`).Scan(&kept, &jobs, &revisions, &hasJobs, &hasRevisions); err != nil {
		return false, err
	}
	if len(kept) != markBytes+digestBytes {
		return false, Trouble{Damaged, errors.New("its manifest is damaged")}
	}
	if jobs != hasJobs || revisions != hasRevisions {
		return false, Trouble{Damaged, fmt.Errorf("it holds %d jobs with %d revisions, and was made of %d with %d", hasJobs, hasRevisions, jobs, revisions)}
	}
	sum, _, err := digest(file, kept[:markBytes])
	if err != nil {
		return false, err
	}
	if !bytes.Equal(sum, kept[markBytes:]) {
		return false, Trouble{Damaged, errors.New("it is not as it was written: its digest differs, so that at least one bit of it has changed")}
	}
	return true, nil
}

// full tells whether a file is as long as it says it is.
func full(ctx context.Context, db *sql.DB, bytes int64) error {
	var pages, page int64
	if err := db.QueryRowContext(ctx, `SELECT (SELECT page_count FROM pragma_page_count), (SELECT page_size FROM pragma_page_size)`).Scan(&pages, &page); err != nil {
		return err
	}
	if pages*page != bytes {
		return Trouble{Damaged, fmt.Errorf("it is %d bytes long and should be %d: it was cut off, or something was added", bytes, pages*page)}
	}
	return nil
}

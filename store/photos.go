package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"
)

// Limits of the photographs of one job.
const (
	MostPhotos     = 1000
	MostPhotoBytes = 400 << 20
)

// Photo is a photograph of a job.
type Photo struct {
	ID            string
	Taken         time.Time
	Kind          string
	Width, Height int
	Size          int
}

// FullError says that a job has as many photographs as are kept.
type FullError struct {
	Count int
	Bytes int64
}

func (e *FullError) Error() string {
	return fmt.Sprintf("the job has %d photographs of %d MB: at most %d of %d MB together are kept", e.Count, e.Bytes>>20, MostPhotos, int64(MostPhotoBytes)>>20)
}

// AddPhoto keeps a photograph of a job.
func (s *Store) AddPhoto(ctx context.Context, job string, p Photo, bytes []byte) (Photo, error) {
	p.ID, p.Size, p.Taken = strings.ToLower(rand.Text()[:12]), len(bytes), s.now()
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if err := outOfBin(ctx, tx, job); err != nil {
			return err
		}
		full := FullError{}
		if err := tx.QueryRowContext(ctx, `SELECT COUNT(*), COALESCE(SUM(size), 0) FROM photos WHERE job_id = ?`, job).Scan(&full.Count, &full.Bytes); err != nil {
			return err
		}
		if full.Count >= MostPhotos || full.Bytes+int64(len(bytes)) > MostPhotoBytes {
			return &full
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO photos (job_id, id, taken_at, kind, width, height, size, bytes) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
			job, p.ID, p.Taken.Format(time.RFC3339Nano), p.Kind, p.Width, p.Height, p.Size, bytes)
		return err
	})
	return p, err
}

// outOfBin refuses a job that is in the bin: its photographs are shown to nobody.
func outOfBin(ctx context.Context, q querier, job string) error {
	r, err := head(ctx, q, job)
	if err == nil && r.Deleted {
		err = ErrNotFound
	}
	return err
}

// Photos are a job's photographs, the first taken first, without their bytes.
func (s *Store) Photos(ctx context.Context, job string) ([]Photo, error) {
	out := []Photo{}
	err := s.snapshot(ctx, func(tx *sql.Tx) error {
		if err := outOfBin(ctx, tx, job); err != nil {
			return err
		}
		rows, err := tx.QueryContext(ctx, `SELECT id, taken_at, kind, width, height, size FROM photos WHERE job_id = ? ORDER BY taken_at, id`, job)
		if err != nil {
			return err
		}
		defer func() { _ = rows.Close() }() // its error is rows.Err's
		for rows.Next() {
			var p Photo
			var taken string
			if err := rows.Scan(&p.ID, &taken, &p.Kind, &p.Width, &p.Height, &p.Size); err != nil {
				return err
			}
			if p.Taken, err = time.Parse(time.RFC3339Nano, taken); err != nil {
				return err
			}
			out = append(out, p)
		}
		return rows.Err()
	})
	return out, err
}

// PhotoBytes is one photograph as it is kept.
func (s *Store) PhotoBytes(ctx context.Context, job, id string) (kind string, bytes []byte, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		if err := outOfBin(ctx, tx, job); err != nil {
			return err
		}
		err := tx.QueryRowContext(ctx, `SELECT kind, bytes FROM photos WHERE job_id = ? AND id = ?`, job, id).Scan(&kind, &bytes)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		return err
	})
	return kind, bytes, err
}

// DeletePhoto deletes a photograph for good: what it was made of is written over in the
// database and its log, so that no copy from now on has it, and a backup that is put
// back does not bring it back. Backups that were made before have it until they go.
func (s *Store) DeletePhoto(ctx context.Context, job, id string) error {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `PRAGMA secure_delete = ON`); err != nil {
			return err
		}
		res, err := tx.ExecContext(ctx, `DELETE FROM photos WHERE job_id = ? AND id = ?`, job, id)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(ErrNotFound, err)
		}
		_, err = tx.ExecContext(ctx, `INSERT OR IGNORE INTO unwanted (job_id, photo) VALUES (?, ?)`, job, id)
		return err
	})
	if err != nil {
		return err
	}
	// A replica may hold the log a moment; then it is written over when its turn comes.
	return s.alone(ctx, func(conn *sql.Conn) error {
		_, err := conn.ExecContext(ctx, `PRAGMA secure_delete = OFF`)
		_, folded := conn.ExecContext(ctx, `PRAGMA wal_checkpoint(TRUNCATE)`)
		return errors.Join(err, folded)
	})
}

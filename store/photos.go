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
		if _, err := current(ctx, tx, job); err != nil {
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

// Photos are a job's photographs, the first taken first, without their bytes.
func (s *Store) Photos(ctx context.Context, job string) ([]Photo, error) {
	out := []Photo{}
	err := s.snapshot(ctx, func(tx *sql.Tx) error {
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
		err := tx.QueryRowContext(ctx, `SELECT kind, bytes FROM photos WHERE job_id = ? AND id = ?`, job, id).Scan(&kind, &bytes)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		return err
	})
	return kind, bytes, err
}

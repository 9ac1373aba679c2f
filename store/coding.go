package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"sync"

	"github.com/klauspost/compress/zstd"
)

// A document is written as it is, so that any program that reads SQLite reads
// it. Once a newer one is there it is packed: every thirty-second by itself,
// those between told from that one, of which they mostly differ by a few bytes.
// A large one is packed quickly as it is saved, which takes less time than
// writing it does.
const (
	plain   = 0
	packed  = 1
	against = 2
	swift   = 3

	// large is from how many bytes on a document is packed as it is saved.
	large = 256 << 10

	// every is how many revisions are told from the same one.
	every = 32
	// mostDoc bounds what a document can unfold to.
	mostDoc = 64 << 20
)

func pack(doc, dict []byte) ([]byte, error) {
	opts := []zstd.EOption{zstd.WithEncoderConcurrency(1), zstd.WithEncoderCRC(true)}
	if dict != nil {
		opts = append(opts, zstd.WithEncoderDictRaw(1, dict))
	}
	w, err := zstd.NewWriter(nil, opts...)
	if err != nil {
		return nil, err
	}
	return w.EncodeAll(doc, nil), w.Close()
}

// swiftly is shared: it may be used by many at once.
var swiftly = sync.OnceValues(func() (*zstd.Encoder, error) {
	return zstd.NewWriter(nil, zstd.WithEncoderCRC(true), zstd.WithEncoderLevel(zstd.SpeedFastest))
})

// asSaved is a document as it is written first.
func asSaved(doc []byte) (raw []byte, coding int, err error) {
	if len(doc) < large {
		return doc, plain, nil
	}
	w, err := swiftly()
	if err != nil {
		return nil, plain, err
	}
	return w.EncodeAll(doc, nil), swift, nil
}

func unpack(raw, dict []byte) ([]byte, error) {
	opts := []zstd.DOption{zstd.WithDecoderConcurrency(1), zstd.WithDecoderMaxMemory(mostDoc)}
	if dict != nil {
		opts = append(opts, zstd.WithDecoderDictRaw(1, dict))
	}
	r, err := zstd.NewReader(nil, opts...)
	if err != nil {
		return nil, err
	}
	defer r.Close()
	doc, err := r.DecodeAll(raw, nil)
	if err != nil {
		return nil, Trouble{Damaged, fmt.Errorf("a kept document cannot be unpacked: %w", err)}
	}
	return doc, nil
}

// document reads a revision's document, however it is kept.
func document(ctx context.Context, q querier, id string, number int) ([]byte, error) {
	var raw []byte
	var coding int
	var base sql.NullInt64
	err := q.QueryRowContext(ctx, `SELECT doc, coding, base FROM documents WHERE job_id = ? AND number = ?`, id, number).Scan(&raw, &coding, &base)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return nil, ErrNothingThen
	case err != nil:
		return nil, err
	}
	switch coding {
	case plain:
		return raw, nil
	case packed, swift:
		return unpack(raw, nil)
	case against:
		if int(base.Int64) == number {
			break
		}
		dict, err := document(ctx, q, id, int(base.Int64))
		if err != nil {
			return nil, err
		}
		return unpack(raw, dict)
	}
	return nil, Trouble{Damaged, fmt.Errorf("document %d of job %s is kept in a way that is not known: %d", number, id, coding)}
}

// Pack packs up to most documents that are no longer current, and tells how
// many. Packed ones are unpacked again and compared before they are kept.
func (s *Store) Pack(ctx context.Context, most int) (n int, err error) {
	type at struct {
		id     string
		number int
	}
	var old []at
	err = s.snapshot(ctx, func(tx *sql.Tx) (err error) {
		rows, err := tx.QueryContext(ctx, `SELECT d.job_id, d.number FROM documents d INDEXED BY documents_unpacked
			JOIN jobs j ON j.id = d.job_id
			WHERE d.coding IN (0, 3) AND d.number < (SELECT MAX(number) FROM revisions r WHERE r.job_id = d.job_id)
			ORDER BY d.job_id, d.number LIMIT ?`, most)
		if err != nil {
			return err
		}
		defer func() { err = errors.Join(err, rows.Close()) }()
		for rows.Next() {
			var a at
			if err := rows.Scan(&a.id, &a.number); err != nil {
				return err
			}
			old = append(old, a)
		}
		return rows.Err()
	})
	for _, a := range old {
		if err == nil {
			err = s.tx(ctx, func(tx *sql.Tx) error { return packOne(ctx, tx, a.id, a.number) })
		}
		if err == nil {
			n++
		}
	}
	return n, err
}

// packOne packs one document.
func packOne(ctx context.Context, tx *sql.Tx, id string, number int) error {
	doc, err := document(ctx, tx, id, number)
	if errors.Is(err, ErrNothingThen) {
		return nil // thinned meanwhile
	}
	if err != nil {
		return err
	}
	var base sql.NullInt64
	err = tx.QueryRowContext(ctx, `SELECT MAX(number) FROM documents WHERE job_id = ? AND coding = ? AND number < ? AND number >= ?`,
		id, packed, number, number-every).Scan(&base)
	if err != nil {
		return err
	}
	var dict []byte
	coding := packed
	if base.Valid {
		if dict, err = document(ctx, tx, id, int(base.Int64)); err != nil {
			return err
		}
		coding = against
	}
	raw, err := pack(doc, dict)
	if err != nil {
		return err
	}
	if back, err := unpack(raw, dict); err != nil || string(back) != string(doc) {
		return errors.Join(errors.New("a document did not come back as it was packed"), err)
	}
	_, err = tx.ExecContext(ctx, `UPDATE documents SET doc = ?, coding = ?, base = ? WHERE job_id = ? AND number = ?`, raw, coding, base, id, number)
	return err
}

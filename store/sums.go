package store

import (
	"bytes"
	"context"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"os"
)

func sumOf(doc []byte) []byte {
	sum := sha256.Sum256(doc)
	return sum[:]
}

// checked reads a document and holds it against its sum: one that is not what was
// saved is damaged, however whole its page looks. One that was never summed is
// taken as it is.
func checked(ctx context.Context, q querier, id string, number int, sum []byte) ([]byte, error) {
	doc, err := document(ctx, q, id, number)
	if err == nil && sum != nil && !bytes.Equal(sum, sumOf(doc)) {
		return nil, Trouble{Damaged, fmt.Errorf("revision %d of job %s is not what was saved: its checksum differs", number, id)}
	}
	return doc, err
}

// sumAtOnce is how many old documents are summed in one transaction.
const sumAtOnce = 200

// sumAll sums the documents that were saved before documents had sums. What
// cannot be read stays without one, for the doctor to name.
func sumAll(ctx context.Context, db *sql.DB) error {
	type at struct {
		row    int64
		job    string
		number int
	}
	for after := int64(0); ; {
		var list []at
		rows, err := db.QueryContext(ctx, `SELECT rowid, job_id, number FROM revisions WHERE sum IS NULL AND rowid > ? ORDER BY rowid LIMIT ?`, after, sumAtOnce)
		if err != nil {
			return err
		}
		for rows.Next() {
			var a at
			if err := rows.Scan(&a.row, &a.job, &a.number); err != nil {
				return errors.Join(err, rows.Close())
			}
			list = append(list, a)
		}
		if err := errors.Join(rows.Err(), rows.Close()); err != nil || len(list) == 0 {
			return err
		}
		tx, err := db.BeginTx(ctx, nil)
		if err != nil {
			return err
		}
		for _, a := range list {
			after = a.row
			doc, err := document(ctx, tx, a.job, a.number)
			if err != nil {
				if ctx.Err() != nil {
					return errors.Join(err, rolledBack(tx))
				}
				continue
			}
			if _, err := tx.ExecContext(ctx, `UPDATE revisions SET sum = ? WHERE rowid = ?`, sumOf(doc), a.row); err != nil {
				return errors.Join(err, rolledBack(tx))
			}
		}
		if err := tx.Commit(); err != nil {
			return err
		}
	}
}

// allSums holds every revision of a database against its sum, and the jobs against
// their revisions. It names the first that fails.
func allSums(ctx context.Context, db querier) error {
	type at struct {
		job    string
		number int
		sum    []byte
	}
	rows, err := db.QueryContext(ctx, `SELECT job_id, number, sum FROM revisions ORDER BY job_id, number`)
	if err != nil {
		return err
	}
	var list []at
	for rows.Next() {
		var a at
		if err := rows.Scan(&a.job, &a.number, &a.sum); err != nil {
			return errors.Join(err, rows.Close())
		}
		list = append(list, a)
	}
	if err := errors.Join(rows.Err(), rows.Close()); err != nil {
		return err
	}
	last := dictionary{}
	for _, a := range list {
		if err := ctx.Err(); err != nil {
			return err
		}
		doc, err := last.document(ctx, db, a.job, a.number)
		if err == nil && a.sum != nil && !bytes.Equal(a.sum, sumOf(doc)) {
			err = Trouble{Damaged, errors.New("it is not what was saved: its checksum differs")}
		}
		if err != nil {
			return fmt.Errorf("job %s, revision %d: %w", a.job, a.number, err)
		}
	}
	var lost string
	err = db.QueryRowContext(ctx, `SELECT id FROM jobs j WHERE NOT EXISTS (SELECT 1 FROM revisions r WHERE r.job_id = j.id AND r.number = j.head) LIMIT 1`).Scan(&lost)
	if err == nil {
		return Trouble{Damaged, fmt.Errorf("the current revision of job %s is missing", lost)}
	}
	if errors.Is(err, sql.ErrNoRows) {
		return nil
	}
	return err
}

// dictionary is the document that others of its job are told from, kept for the
// next of them.
type dictionary struct {
	job    string
	number int
	doc    []byte
}

func (d *dictionary) document(ctx context.Context, q querier, id string, number int) ([]byte, error) {
	var raw []byte
	var coding int
	var base sql.NullInt64
	err := q.QueryRowContext(ctx, `SELECT doc, coding, base FROM documents WHERE job_id = ? AND number = ?`, id, number).Scan(&raw, &coding, &base)
	if err != nil || coding != against {
		if err != nil {
			return nil, err
		}
		return document(ctx, q, id, number)
	}
	if n := int(base.Int64); d.job != id || d.number != n {
		if n == number {
			return document(ctx, q, id, number) // which says what is wrong with it
		}
		doc, err := document(ctx, q, id, n)
		if err != nil {
			return nil, err
		}
		*d = dictionary{id, n, doc}
	}
	return unpack(raw, d.doc)
}

// Sums holds every revision against its sum, and names the first that is not what was
// saved.
func (s *Store) Sums(ctx context.Context) (err error) {
	defer told(&err)
	return s.snapshot(ctx, func(tx *sql.Tx) error {
		v, err := versionOf(ctx, tx)
		if err != nil || v < summed { // of an older version there are none
			return err
		}
		return allSums(ctx, tx)
	})
}

// everySum is allSums of a file.
func everySum(ctx context.Context, file string) (err error) {
	log, gone := os.Stat(file + "-wal")
	db, err := sql.Open("sqlite", readOnly(file, gone != nil || log.Size() == 0))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	return allSums(ctx, db)
}

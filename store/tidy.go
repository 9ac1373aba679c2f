package store

import (
	"context"
	"database/sql"
	"errors"
	"strconv"
	"time"
)

// The rule that history is thinned by: all of the last 30 days stay, then the
// last of each day for a year, then the last of each month. Pinned revisions,
// the current one and the newest stay whatever their age.
const (
	WholeFor = 30 * 24 * time.Hour
	DailyFor = 365 * 24 * time.Hour
	// BinFor is how long a deleted job can be taken out of the bin.
	BinFor = 30 * 24 * time.Hour
	// noticed is how long what will go is shown before it goes.
	noticed = 24 * time.Hour
)

// thin tells which of a job's revisions, in order of saving, the rule lets go.
func thin(all []Revision, current int, at time.Time) []int {
	last := map[string]int{} // the newest revision of each day or month
	key := func(r Revision) string {
		if at.Sub(r.SavedAt) > DailyFor {
			return r.SavedAt.Format("2006-01")
		}
		return r.SavedAt.Format(time.DateOnly)
	}
	for _, r := range all {
		last[key(r)] = r.Number
	}
	var out []int
	for i, r := range all {
		if at.Sub(r.SavedAt) <= WholeFor || r.Pinned || r.Number == current || i == len(all)-1 || last[key(r)] == r.Number {
			continue
		}
		out = append(out, r.Number)
	}
	return out
}

// Tidying is what goes, or went, by age.
type Tidying struct {
	On        bool
	Noticed   time.Time // since when it is shown; zero if nothing was announced
	Due       time.Time // when it may go
	Revisions int
	Jobs      int // from the bin, with all their revisions
}

// keys of the keeping table.
const (
	keyOff     = "tidying-off"
	keyNoticed = "tidying-noticed"

	keyGeneration = "generation" // which database this is: another one after each restore
)

// SetTidying switches the tidying on or off.
func (s *Store) SetTidying(ctx context.Context, on bool) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		if on {
			return forget(ctx, tx, keyOff)
		}
		return note(ctx, tx, keyOff, "off")
	})
}

func note(ctx context.Context, tx *sql.Tx, key, value string) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO keeping (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value`, key, value)
	return err
}

func forget(ctx context.Context, tx *sql.Tx, key string) error {
	_, err := tx.ExecContext(ctx, `DELETE FROM keeping WHERE key = ?`, key)
	return err
}

func noted(ctx context.Context, q querier, key string) (string, error) {
	var v string
	err := q.QueryRowContext(ctx, `SELECT value FROM keeping WHERE key = ?`, key).Scan(&v)
	if errors.Is(err, sql.ErrNoRows) {
		err = nil
	}
	return v, err
}

// Tidying tells what would go by age: what was announced, or what would be now.
func (s *Store) Tidying(ctx context.Context) (t Tidying, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		t, err = s.tidying(ctx, tx)
		if err != nil {
			return err
		}
		as := s.now()
		if !t.Noticed.IsZero() {
			as = t.Noticed
		}
		due, err := outlived(ctx, tx, as)
		t.Jobs, t.Revisions = len(due.jobs), due.revisions()
		return err
	})
	return t, err
}

func (s *Store) tidying(ctx context.Context, q querier) (t Tidying, err error) {
	off, err := noted(ctx, q, keyOff)
	if err != nil {
		return t, err
	}
	t.On = off == ""
	since, err := noted(ctx, q, keyNoticed)
	if err != nil || since == "" {
		return t, err
	}
	t.Noticed, err = time.Parse(time.RFC3339Nano, since)
	t.Due = t.Noticed.Add(noticed)
	return t, err
}

// old is what has outlived its time.
type old struct {
	jobs []string         // from the bin
	thin map[string][]int // revisions of the other jobs
}

func (o old) revisions() (n int) {
	for _, list := range o.thin {
		n += len(list)
	}
	return n
}

// outlived finds what goes by age at a moment.
func outlived(ctx context.Context, q querier, at time.Time) (o old, err error) {
	o.thin = map[string][]int{}
	edge := at.Add(-BinFor).Format(time.RFC3339Nano)
	if o.jobs, err = column[string](ctx, q, `SELECT id FROM jobs WHERE deleted_at < ? ORDER BY id`, edge); err != nil {
		return o, err
	}
	edge = at.Add(-WholeFor).Format(time.RFC3339Nano)
	aged, err := column[string](ctx, q, `SELECT job_id FROM revisions WHERE saved_at < ? GROUP BY job_id HAVING COUNT(*) > 1`, edge)
	if err != nil {
		return o, err
	}
	gone := map[string]bool{}
	for _, id := range o.jobs {
		gone[id] = true
	}
	for _, id := range aged {
		if gone[id] {
			continue
		}
		revisions, err := all(ctx, q, `SELECT `+columns+` FROM jobs j JOIN revisions r ON r.job_id = j.id WHERE j.id = ? ORDER BY r.number`, id)
		if err != nil {
			return o, err
		}
		now, err := head(ctx, q, id)
		if err != nil {
			return o, err
		}
		if out := thin(revisions, now.Number, at); len(out) > 0 {
			o.thin[id] = out
		}
	}
	return o, nil
}

// column reads the one column that a query answers; with an error, what came
// before it.
func column[T any](ctx context.Context, q querier, query string, args ...any) (list []T, err error) {
	rows, err := q.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		var one T
		if err := rows.Scan(&one); err != nil {
			return list, err
		}
		list = append(list, one)
	}
	return list, rows.Err()
}

// Tidy lets go what was announced a day ago, and announces what will go next.
// It does nothing while it is switched off.
func (s *Store) Tidy(ctx context.Context) (went Tidying, err error) {
	var t Tidying
	var due old
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		if t, err = s.tidying(ctx, tx); err != nil || !t.On || t.Noticed.IsZero() || s.now().Before(t.Due) {
			return err
		}
		due, err = outlived(ctx, tx, t.Noticed)
		return err
	})
	if err != nil || !t.On || !t.Noticed.IsZero() && s.now().Before(t.Due) {
		return went, err
	}
	// One job a transaction: who saves meanwhile waits for one at most.
	for _, id := range due.jobs {
		err := s.tx(ctx, func(tx *sql.Tx) error {
			res, err := tx.ExecContext(ctx, `DELETE FROM jobs WHERE id = ? AND deleted_at < ?`, id, t.Noticed.Add(-BinFor).Format(time.RFC3339Nano))
			if err == nil {
				if n, e := res.RowsAffected(); e == nil {
					went.Jobs += int(n)
				}
			}
			return err
		})
		if err != nil {
			return went, err
		}
	}
	for id, numbers := range due.thin {
		n, err := s.thinJob(ctx, id, numbers, false)
		went.Revisions += n
		if err != nil {
			return went, err
		}
	}
	if err := s.shrink(ctx); err != nil {
		return went, err
	}
	return went, s.tx(ctx, func(tx *sql.Tx) error { return note(ctx, tx, keyNoticed, s.stamp()) })
}

// thinJob lets revisions of one job go. Those after them become children of
// what is left before, and are told from another where what they were told
// from goes. Single: only those of which one came at the most.
func (s *Store) thinJob(ctx context.Context, id string, numbers []int, single bool) (n int, err error) {
	err = s.tx(ctx, func(tx *sql.Tx) error {
		for _, number := range numbers {
			now, err := head(ctx, tx, id)
			if errors.Is(err, ErrNotFound) {
				return nil
			}
			if err != nil {
				return err
			}
			var pinned bool
			err = tx.QueryRowContext(ctx, `SELECT pinned FROM revisions WHERE job_id = ? AND number = ?`, id, number).Scan(&pinned)
			if errors.Is(err, sql.ErrNoRows) || err == nil && (pinned || now.Number == number) {
				continue // pinned or gone back to since it was announced
			}
			if err == nil && single {
				var children int
				err = tx.QueryRowContext(ctx, `SELECT COUNT(*) FROM revisions WHERE job_id = ? AND parent = ?`, id, number).Scan(&children)
				if err == nil && children > 1 {
					continue
				}
			}
			if err == nil {
				err = drop(ctx, tx, id, number)
			}
			if err != nil {
				return err
			}
			n++
		}
		return nil
	})
	return n, err
}

func drop(ctx context.Context, tx *sql.Tx, id string, number int) error {
	rows, err := column[int](ctx, tx, `SELECT number FROM documents WHERE job_id = ? AND base = ? ORDER BY number`, id, number)
	if err != nil {
		return err
	}
	docs := map[int][]byte{}
	for _, n := range rows {
		if docs[n], err = document(ctx, tx, id, n); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE documents SET doc = ?, coding = ?, base = NULL WHERE job_id = ? AND number = ?`, docs[n], plain, id, n); err != nil {
			return err
		}
	}
	if _, err := tx.ExecContext(ctx, `UPDATE revisions SET parent = (SELECT parent FROM revisions WHERE job_id = ?1 AND number = ?2)
		WHERE job_id = ?1 AND parent = ?2`, id, number); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM revisions WHERE job_id = ? AND number = ?`, id, number); err != nil {
		return err
	}
	for _, n := range rows {
		if err := packOne(ctx, tx, id, n); err != nil {
			return err
		}
	}
	return nil
}

// shrinkPages is how many pages are given back at a time, so that nobody waits
// long for the one that writes.
const shrinkPages = 500

// shrink gives pages that hold nothing any more back to the disk.
func (s *Store) shrink(ctx context.Context) error {
	for {
		var before, after int64
		err := s.alone(ctx, func(conn *sql.Conn) error {
			const count = `SELECT freelist_count FROM pragma_freelist_count`
			if err := conn.QueryRowContext(ctx, count).Scan(&before); err != nil || before == 0 {
				return err
			}
			rows, err := conn.QueryContext(ctx, `PRAGMA incremental_vacuum(`+strconv.Itoa(shrinkPages)+`)`)
			if err != nil {
				return err
			}
			for rows.Next() { // each row gives back one page
			}
			if err := errors.Join(rows.Err(), rows.Close()); err != nil {
				return err
			}
			return conn.QueryRowContext(ctx, count).Scan(&after)
		})
		if err != nil || after == 0 || after >= before {
			return err
		}
	}
}

// alone runs do on the connection that writes, outside a transaction.
func (s *Store) alone(ctx context.Context, do func(*sql.Conn) error) (err error) {
	defer told(&err)
	if err := s.line.Acquire(ctx, 1); err != nil {
		return err
	}
	defer s.line.Release(1)
	if s.noRoom != nil {
		return s.noRoom
	}
	conn, err := s.write.Conn(ctx)
	if err != nil {
		return err
	}
	return errors.Join(do(conn), conn.Close())
}

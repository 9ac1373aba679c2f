package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"strings"
	"time"
)

// Steps of one entry become one: a revision goes when the next one came of it within a
// minute and set all the fields that it set, so that it was a half-typed figure or a
// place that a hand passed. All of the last day stay, as do revisions that are current,
// pinned, or add a fact, and those of which another one came too.
const (
	foldAfter  = 24 * time.Hour
	foldWithin = time.Minute
	foldAtOnce = 100
	keyFolded  = "folded" // up to when
)

// step is what folding goes by.
type step struct {
	job            string
	number, parent int
	saved          time.Time
	sets           map[string]bool
	kept           bool // pinned, with a fact, or made by edits that are not known
}

// passes tells whether a step is one on the way to the next.
func (a step) passes(next step) bool {
	if a.kept || next.parent != a.number || next.job != a.job || next.sets == nil {
		return false
	}
	if apart := next.saved.Sub(a.saved); apart < 0 || apart > foldWithin {
		return false
	}
	for path := range a.sets {
		if !next.sets[path] {
			return false
		}
	}
	return true
}

// sets are the fields that edits set; nil where they are not known. Fact: they add one.
func sets(ops []byte) (fields map[string]bool, fact bool) {
	var edits []struct {
		Path string `json:"path"`
	}
	if ops == nil || json.Unmarshal(ops, &edits) != nil || len(edits) == 0 {
		return nil, false
	}
	fields = map[string]bool{}
	for _, e := range edits {
		fields[e.Path] = true
		fact = fact || strings.HasPrefix(e.Path, "/observed")
	}
	return fields, fact
}

// Fold lets steps of entries go that are older than a day, and tells how many went.
func (s *Store) Fold(ctx context.Context) (n int, err error) {
	until := s.now().Add(-foldAfter)
	passed := map[string][]int{}
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		from, err := noted(ctx, tx, keyFolded)
		if err != nil {
			return err
		}
		rows, err := tx.QueryContext(ctx, `SELECT job_id, number, COALESCE(parent, 0), saved_at, pinned, ops FROM revisions
			WHERE saved_at > ? AND saved_at <= ? ORDER BY job_id, number`, from, until.Format(time.RFC3339Nano))
		if err != nil {
			return err
		}
		defer func() { err = errors.Join(err, rows.Close()) }()
		var last step
		for rows.Next() {
			var now step
			var saved string
			var ops []byte
			if err := rows.Scan(&now.job, &now.number, &now.parent, &saved, &now.kept, &ops); err != nil {
				return err
			}
			if now.saved, err = time.Parse(time.RFC3339Nano, saved); err != nil {
				return err
			}
			fact := false
			now.sets, fact = sets(ops)
			now.kept = now.kept || fact || now.sets == nil || now.parent == 0
			if last.passes(now) {
				passed[last.job] = append(passed[last.job], last.number)
			}
			last = now
		}
		return rows.Err()
	})
	if err != nil {
		return 0, err
	}
	for id, numbers := range passed {
		for len(numbers) > 0 {
			some := numbers[:min(foldAtOnce, len(numbers))]
			numbers = numbers[len(some):]
			gone, err := s.thinJob(ctx, id, some, true)
			if n += gone; err != nil {
				return n, err
			}
		}
	}
	return n, s.tx(ctx, func(tx *sql.Tx) error { return note(ctx, tx, keyFolded, until.Format(time.RFC3339Nano)) })
}

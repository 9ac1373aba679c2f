package store_test

import (
	"context"
	"fmt"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"mallow/store"
)

// By hand: what a length was typed to within seconds becomes its last one, after a day.
// A fact, a pinned state, another field, a pause, what was undone and the first state stay.
func TestStepsOfOneEntryAreFolded(t *testing.T) {
	ctx := context.Background()
	now := time.Date(2027, 3, 1, 9, 0, 0, 0, time.UTC)
	s := must1(store.OpenAt(ctx, filepath.Join(t.TempDir(), store.FileName), func() time.Time { return now }))(t)
	defer s.Close()
	r := must1(s.Create(ctx, draft([]byte(`{"n":1}`), "new")))(t)
	save := func(after time.Duration, paths ...string) int {
		t.Helper()
		now = now.Add(after)
		ops := "["
		for i, p := range paths {
			if i > 0 {
				ops += ","
			}
			ops += fmt.Sprintf(`{"path":%q,"value":%d}`, p, r.Number)
		}
		d := draft(fmt.Appendf(nil, `{"n":%d}`, r.Number+1), "x")
		if d.Ops = []byte(ops + "]"); len(paths) == 0 {
			d.Ops = nil
		}
		r = must1(s.Save(ctx, r.Job, r.At(), d))(t)
		return r.Number
	}
	length, laid := "/lines/L1/runs/R1/length", "/lines/L1/runs/R1/laid"
	save(time.Second, length)           // 2 goes
	save(time.Second, length)           // 3 goes
	save(time.Second, length, laid)     // 4 stays: the next does not lay
	save(2*time.Second, length)         // 5 stays: a pause follows
	save(2*time.Minute, length)         // 6 goes
	pinned := save(time.Second, length) // 7 stays: pinned
	save(time.Second, length)           // 8 stays: another field follows
	save(time.Second, "/name")          // 9 stays: a fact follows, which does not set it
	save(time.Second, "/observed/f1")   // 10 stays: a fact
	save(time.Second, "/observed/f1")   // 11 stays: a fact
	save(time.Second)                   // 12 stays: it is not known what it sets
	save(time.Second, length)           // 13 stays: two came of it
	was := r
	save(time.Second, length) // 14 stays: nothing came of it
	r = must1(s.Undo(ctx, r.Job, r.At()))(t)
	if r.Number != was.Number {
		t.Fatal(r.Number)
	}
	last := save(time.Second, length) // 15 stays: current
	if err := s.Pin(ctx, r.Job, pinned, true); err != nil {
		t.Fatal(err)
	}
	if n := must1(s.Fold(ctx))(t); n != 0 {
		t.Errorf("%d went within the day", n)
	}
	now = now.Add(25 * time.Hour)
	if n := must1(s.Fold(ctx))(t); n != 3 {
		t.Errorf("%d went", n)
	}
	page := must1(s.History(ctx, r.Job, 0, 50))(t)
	var left []int
	for _, r := range slices.Backward(page.Revisions) {
		left = append(left, r.Number)
		if doc := must1(s.Doc(ctx, r.Job, r.Number))(t); string(doc) != fmt.Sprintf(`{"n":%d}`, r.Number) && r.Number != 14 && r.Number != last {
			t.Errorf("revision %d is %s", r.Number, doc)
		}
	}
	if want := []int{1, 4, 5, 7, 8, 9, 10, 11, 12, 13, 14, 15}; !slices.Equal(left, want) {
		t.Errorf("left are %v, want %v", left, want)
	}
	// Undo goes on over what is left.
	for r.CanUndo {
		r = must1(s.Undo(ctx, r.Job, r.At()))(t)
	}
	if r.Number != 1 {
		t.Errorf("undone to %d", r.Number)
	}
	if n := must1(s.Fold(ctx))(t); n != 0 {
		t.Errorf("again, %d went", n)
	}
}

package store_test

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"mallow/store"
)

// A clock that is set back, by an hour or by a year, loses nothing: revisions follow each
// other by number, backups are made, and what goes by age waits.
func TestAClockThatIsSetBack(t *testing.T) {
	for _, back := range []time.Duration{time.Hour, 400 * 24 * time.Hour} {
		ctx := context.Background()
		now := time.Date(2027, 3, 1, 9, 0, 0, 0, time.UTC)
		s := must1(store.OpenAt(ctx, filepath.Join(t.TempDir(), store.FileName), func() time.Time { return now }))(t)
		r := must1(s.Create(ctx, draft([]byte("1"), "1")))(t)
		keep := func() {
			t.Helper()
			for range 3 {
				now = now.Add(time.Second)
				r = must1(s.Save(ctx, r.Job, r.At(), draft(fmt.Append(nil, r.Number+1), "more")))(t)
			}
			must1(s.DailyBackUp(ctx))(t)
			must1(s.TryBackup(ctx))(t)
			must1(s.Tidy(ctx))(t)
			must1(s.Fold(ctx))(t)
			must1(s.Pack(ctx, 100))(t)
		}
		keep()
		now = now.Add(-back)
		keep()
		now = now.Add(2 * time.Hour)
		keep()
		page := must1(s.History(ctx, r.Job, 0, 50))(t)
		if len(page.Revisions) != 10 || page.Head != 10 || page.Revisions[0].Number != 10 {
			t.Errorf("back by %v: %d revisions, the head is %d", back, len(page.Revisions), page.Head)
		}
		for _, one := range page.Revisions {
			if doc := must1(s.Doc(ctx, r.Job, one.Number))(t); string(doc) != fmt.Sprint(one.Number) {
				t.Errorf("back by %v: revision %d is %s", back, one.Number, doc)
			}
		}
		for _, b := range must1(s.Backups())(t) {
			if _, err := store.Verify(ctx, b.Path); err != nil {
				t.Errorf("back by %v: %s: %v", back, b.Name, err)
			}
		}
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	}
}

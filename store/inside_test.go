package store

import (
	"context"
	"path/filepath"
	"testing"
	"time"
)

// The connection that writes is as durable as promised, and those that read
// cannot write.
func TestConnectionsAreAsPromised(t *testing.T) {
	ctx := context.Background()
	s, err := Open(ctx, filepath.Join(t.TempDir(), FileName))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for pragma, want := range map[string]string{"synchronous": "2", "journal_mode": "wal", "foreign_keys": "1", "auto_vacuum": "2", "application_id": "1298952055"} {
		var got string
		if err := s.write.QueryRowContext(ctx, "PRAGMA "+pragma).Scan(&got); err != nil || got != want {
			t.Errorf("%s is %s, want %s (%v)", pragma, got, want, err)
		}
	}
	if _, err := s.read.ExecContext(ctx, "DELETE FROM jobs"); err == nil {
		t.Error("a connection that reads has written")
	}
}

// The edges of the rule: exactly 30 days old stays, a second more goes if its
// day has a later one; a year old by the day, a second more by the month.
func TestEdgesOfThinning(t *testing.T) {
	at := time.Date(2026, 6, 15, 12, 0, 0, 0, time.UTC)
	rev := func(n int, age time.Duration) Revision { return Revision{Number: n, SavedAt: at.Add(-age)} }
	for _, c := range []struct {
		age  time.Duration
		want int
	}{{WholeFor, 0}, {WholeFor + time.Second, 1}} {
		// A later one of the same day, and the newest of all.
		got := thin([]Revision{rev(1, c.age), rev(2, c.age-time.Hour), rev(3, 0)}, 3, at)
		if len(got) != c.want {
			t.Errorf("%v old: %v go", c.age, got)
		}
	}
	for _, c := range []struct {
		age  time.Duration
		want int
	}{{DailyFor, 0}, {DailyFor + time.Second, 1}} {
		// A later one of the same month, two days on.
		got := thin([]Revision{rev(1, c.age), rev(2, c.age-48*time.Hour), rev(3, 0)}, 3, at)
		if c.want == 1 { // both older than a year: the later one stands for the month
			got = thin([]Revision{rev(1, c.age+72*time.Hour), rev(2, c.age), rev(3, 0)}, 3, at)
		}
		if len(got) != c.want {
			t.Errorf("%v old: %v go", c.age, got)
		}
	}
}

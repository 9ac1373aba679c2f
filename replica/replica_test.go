package replica_test

import (
	"context"
	"log/slog"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"mallow/replica"
	"mallow/store"
)

// A replica restores what was last saved, and what was there at a moment
// between two saves.
func TestReplicaRestores(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()

	s, err := store.Open(ctx, filepath.Join(dir, "data", "x", store.FileName))
	if err == nil {
		s.Close()
		t.Fatal("a folder that is not there was opened")
	}
	if s, err = store.Open(ctx, filepath.Join(dir, store.FileName)); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for _, target := range []string{filepath.Join(dir, "within"), dir, dir + "/x/.."} {
		if _, err := replica.Start(ctx, s.Path(), target, slog.New(slog.DiscardHandler)); err == nil || !strings.Contains(err.Error(), "within the data folder") {
			t.Errorf("a replica at %s, beside the database: %v", target, err)
		}
	}
	if _, err := replica.Start(ctx, s.Path(), "ftp://x/y", slog.New(slog.DiscardHandler)); err == nil {
		t.Error("an address that is none was taken")
	}
	copied := t.TempDir()
	r, err := replica.Start(ctx, s.Path(), copied, slog.New(slog.DiscardHandler))
	if err != nil {
		t.Fatal(err)
	}
	first, err := s.Create(ctx, store.Draft{Doc: []byte("first"), What: "one", Name: "A"})
	if err != nil {
		t.Fatal(err)
	}
	time.Sleep(time.Second)
	between := time.Now()
	time.Sleep(700 * time.Millisecond)
	if _, err := s.Save(ctx, first.Job, store.Base{Number: 1}, store.Draft{Doc: []byte("second"), What: "two", Name: "A"}); err != nil {
		t.Fatal(err)
	}
	if err := r.Stop(); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		at   time.Time
		want string
	}{{time.Time{}, "second"}, {time.Now(), "second"}, {between, "first"}} {
		to := filepath.Join(t.TempDir(), store.FileName)
		if _, err := replica.Restore(ctx, copied, to, c.at); err != nil {
			t.Fatalf("at %v: %v", c.at, err)
		}
		back, err := store.Open(ctx, to)
		if err != nil {
			t.Fatal(err)
		}
		if got, err := back.Get(ctx, first.Job); err != nil || string(got.Doc) != c.want {
			t.Errorf("at %v: %q, want %q (%v)", c.at, got.Doc, c.want, err)
		}
		back.Close()
	}
	if _, err := replica.Restore(ctx, copied, filepath.Join(t.TempDir(), "x.db"), time.Now().AddDate(-1, 0, 0)); err == nil || !strings.Contains(err.Error(), "goes back to") {
		t.Errorf("a year back: %v", err)
	}
	if _, err := replica.Restore(ctx, t.TempDir(), filepath.Join(t.TempDir(), "x.db"), time.Time{}); err == nil || !strings.Contains(err.Error(), "no replica") {
		t.Errorf("where there is none: %v", err)
	}
}

func TestPasswordsAreNotShown(t *testing.T) {
	for target, want := range map[string]string{"sftp://crew:se@cret@host/x": "sftp://crew@host/x", "/mnt/disk": "/mnt/disk", "sftp://host/x": "sftp://host/x"} {
		if got := replica.Shown(target); got != want {
			t.Errorf("%s: %s", target, got)
		}
	}
}

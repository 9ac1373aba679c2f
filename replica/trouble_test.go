package replica_test

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"mallow/replica"
	"mallow/store"
)

// until waits for a state of the replica, which is to be seen within ten seconds.
func until(t *testing.T, r *replica.Replica, what string, is func(replica.Status) bool) {
	t.Helper()
	for began := time.Now(); time.Since(began) < 10*time.Second; time.Sleep(20 * time.Millisecond) {
		if is(r.Status()) {
			return
		}
	}
	t.Fatalf("%s was not seen within ten seconds: %+v", what, r.Status())
}

func whole(s replica.Status) bool { return s.OK() && !s.Behind && !s.Held.IsZero() }

// saved saves so many revisions of a job more, each a page and more.
func saved(t *testing.T, s *store.Store, r store.Revision, n int) store.Revision {
	t.Helper()
	for range n {
		var err error
		if r, err = s.Save(context.Background(), r.Job, r.At(), store.Draft{Doc: fmt.Appendf(nil, "%d %s", r.Number+1, strings.Repeat(fmt.Sprint(r.Number*7919), 2000)), What: "more", Name: "A"}); err != nil {
			t.Fatal(err)
		}
	}
	return r
}

// restores makes sure that the replica has all that was saved.
func restores(t *testing.T, target string, last store.Revision) {
	t.Helper()
	ctx := context.Background()
	to := filepath.Join(t.TempDir(), store.FileName)
	if _, err := replica.Restore(ctx, target, to, time.Time{}); err != nil {
		t.Fatal(err)
	}
	back, err := store.Open(ctx, to)
	if err != nil {
		t.Fatal(err)
	}
	defer back.Close()
	if got, err := back.Get(ctx, last.Job); err != nil || got.Number != last.Number || string(got.Doc) != string(last.Doc) {
		t.Errorf("the replica has revision %d, %d was saved (%v)", got.Number, last.Number, err)
	}
}

func started(t *testing.T, target string) (*store.Store, *replica.Replica, store.Revision) {
	t.Helper()
	ctx := context.Background()
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	r, err := replica.Start(ctx, s.Path(), target, slog.New(slog.DiscardHandler))
	if err != nil {
		t.Fatal(err)
	}
	first, err := s.Create(ctx, store.Draft{Doc: []byte("1"), What: "one", Name: "A"})
	if err != nil {
		t.Fatal(err)
	}
	return s, r, first
}

// A disk that is gone leaves an empty folder behind: nothing is written there, it is told
// within ten seconds, the jobs are saved meanwhile, and what is missing is sent when the
// disk is back.
func TestAReplicaThatIsGoneIsSeenAndCatchesUp(t *testing.T) {
	target := filepath.Join(t.TempDir(), "disk")
	s, r, last := started(t, target)
	until(t, r, "a whole replica", whole)
	away := target + "-away"
	if err := os.Rename(target, away); err != nil {
		t.Fatal(err)
	}
	if err := os.Mkdir(target, 0o700); err != nil { // the mount point without its disk
		t.Fatal(err)
	}
	until(t, r, "a disk that is gone", func(s replica.Status) bool { return !s.OK() && strings.Contains(s.Wrong, replica.MarkerName) })
	last = saved(t, s, last, 40)
	time.Sleep(time.Second)
	if list, err := os.ReadDir(target); err != nil || len(list) != 0 {
		t.Errorf("%d files were written into an empty mount point (%v)", len(list), err)
	}
	if err := replica.Looked(context.Background(), s.Path(), target); err == nil {
		t.Error("an empty mount point looks like a replica")
	}
	if err := errors.Join(os.Remove(target), os.Rename(away, target)); err != nil {
		t.Fatal(err)
	}
	until(t, r, "a replica that is back and whole", whole)
	restores(t, target, last)
	if err := r.Stop(); err != nil {
		t.Fatal(err)
	}
	// Started again without its disk, the jobs are there and the folder stays empty; a new
	// disk is taken when the marker says that it is meant.
	if err := errors.Join(os.Rename(target, away), os.Mkdir(target, 0o700)); err != nil {
		t.Fatal(err)
	}
	if r, last = again(t, s, target, last); r.Status().OK() {
		t.Error("an empty mount point was taken for a replica")
	}
	if err := os.WriteFile(filepath.Join(target, replica.MarkerName), nil, 0o600); err != nil {
		t.Fatal(err)
	}
	until(t, r, "a new disk", whole)
	last = saved(t, s, last, 3)
	if err := r.Stop(); err != nil {
		t.Fatal(err)
	}
	restores(t, target, last)
}

func again(t *testing.T, s *store.Store, target string, last store.Revision) (*replica.Replica, store.Revision) {
	t.Helper()
	r, err := replica.Start(context.Background(), s.Path(), target, slog.New(slog.DiscardHandler))
	if err != nil {
		t.Fatal(err)
	}
	return r, saved(t, s, last, 1)
}

// A full disk is told, and what is missing is sent when there is room again.
func TestAFullReplicaIsSeenAndCatchesUp(t *testing.T) {
	target := t.TempDir()
	if err := syscall.Mount("tmpfs", target, "tmpfs", 0, "size=2m"); err != nil {
		t.Skip("no file system of two megabytes can be made here:", err)
	}
	t.Cleanup(func() { _ = syscall.Unmount(target, syscall.MNT_DETACH) })
	s, r, last := started(t, target)
	until(t, r, "a whole replica", whole)
	filler := filepath.Join(target, "something else")
	if err := os.WriteFile(filler, make([]byte, 2<<20), 0o600); err != nil && !errors.Is(err, syscall.ENOSPC) {
		t.Fatal(err)
	}
	until(t, r, "a full disk", func(s replica.Status) bool { return strings.Contains(s.Wrong, "full") })
	last = saved(t, s, last, 20)
	if err := os.Remove(filler); err != nil {
		t.Fatal(err)
	}
	until(t, r, "room again, and a whole replica", whole)
	restores(t, target, last)
	if err := r.Stop(); err != nil {
		t.Fatal(err)
	}
}

package store_test

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"path/filepath"
	"sync"
	"testing"

	"mallow/store"
)

func open(t testing.TB) (*store.Store, string) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "a job's ?#% file.db") // names that a URL would trip over
	s, err := store.Open(context.Background(), file)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return s, file
}

func draft(doc []byte, what string) store.Draft {
	return store.Draft{Doc: doc, What: what, Name: "Job"}
}

func TestUndoRedoAndHistory(t *testing.T) {
	ctx := context.Background()
	s, file := open(t)
	r, err := s.Create(ctx, draft([]byte(`{"n":1}`), "one"))
	if err != nil {
		t.Fatal(err)
	}
	id := r.Job
	step := func(what string, do func() (store.Revision, error), doc string, undo, redo bool) {
		t.Helper()
		got, err := do()
		if err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		if string(got.Doc) != doc || got.CanUndo != undo || got.CanRedo != redo {
			t.Fatalf("%s: got %s, undo %v, redo %v", what, got.Doc, got.CanUndo, got.CanRedo)
		}
		r = got
	}
	save := func(doc string) func() (store.Revision, error) {
		return func() (store.Revision, error) { return s.Save(ctx, id, r.At(), draft([]byte(doc), "saved")) }
	}
	undo := func() (store.Revision, error) { return s.Undo(ctx, id, r.At()) }
	redo := func() (store.Revision, error) { return s.Redo(ctx, id, r.At()) }
	step("save", save(`{"n":2}`), `{"n":2}`, true, false)
	step("save", save(`{"n":3}`), `{"n":3}`, true, false)
	step("undo", undo, `{"n":2}`, true, true)
	step("undo", undo, `{"n":1}`, false, true)
	step("redo", redo, `{"n":2}`, true, true)
	step("save after undo", save(`{"n":4}`), `{"n":4}`, true, false)
	step("undo", undo, `{"n":2}`, true, true)
	step("redo goes to the newest", redo, `{"n":4}`, true, false)
	step("restore what the undo left behind", func() (store.Revision, error) { return s.Restore(ctx, id, r.At(), 3) }, `{"n":3}`, true, false)
	step("undo of the restore", undo, `{"n":4}`, true, true)
	for range 2 {
		if r, err = s.Undo(ctx, id, r.At()); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := undo(); !errors.Is(err, store.ErrNothingThen) {
		t.Errorf("undo before the first: %v", err)
	}
	if _, err := s.Restore(ctx, id, r.At(), 99); !errors.Is(err, store.ErrNothingThen) {
		t.Errorf("restore of what never was: %v", err)
	}
	page, err := s.History(ctx, id, 0, 50)
	all := page.Revisions
	if err != nil || len(all) != 5 || all[0].Number != 5 {
		t.Errorf("history: %d revisions, %v", len(all), err)
	}
	safely(t, file)
}

// safely checks on a connection of its own that the file is what was promised.
func safely(t *testing.T, file string) {
	t.Helper()
	db, err := sql.Open("sqlite", "file:"+(&url.URL{Path: file}).EscapedPath())
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	var mode, whole string
	if err := db.QueryRow("PRAGMA journal_mode").Scan(&mode); err != nil || mode != "wal" {
		t.Errorf("journal mode %s, %v", mode, err)
	}
	if err := db.QueryRow("PRAGMA integrity_check").Scan(&whole); err != nil || whole != "ok" {
		t.Errorf("integrity: %s, %v", whole, err)
	}
}

// The second of two windows is refused, and is handed what the first saved.
func TestStaleSaveIsRefused(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	first, err := s.Create(ctx, draft([]byte("a"), "one"))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, first.Job, first.At(), draft([]byte("b"), "first window")); err != nil {
		t.Fatal(err)
	}
	for what, do := range map[string]func() (store.Revision, error){
		"save": func() (store.Revision, error) {
			return s.Save(ctx, first.Job, first.At(), draft([]byte("c"), "second window"))
		},
		"undo":    func() (store.Revision, error) { return s.Undo(ctx, first.Job, first.At()) },
		"redo":    func() (store.Revision, error) { return s.Redo(ctx, first.Job, first.At()) },
		"restore": func() (store.Revision, error) { return s.Restore(ctx, first.Job, first.At(), 1) },
	} {
		_, err := do()
		var stale *store.StaleError
		if !errors.As(err, &stale) || string(stale.Head.Doc) != "b" || stale.Head.What != "first window" {
			t.Errorf("%s: %v", what, err)
		}
	}
	if now, err := s.Get(ctx, first.Job); err != nil || string(now.Doc) != "b" || now.Number != 2 {
		t.Errorf("after the refusals: %s, revision %d, %v", now.Doc, now.Number, err)
	}
}

// Of many saves at once against one revision, one gets through.
func TestOnlyOneOfManySavesWins(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	r, err := s.Create(ctx, draft([]byte("0"), "one"))
	if err != nil {
		t.Fatal(err)
	}
	var won, refused int
	var mu sync.Mutex
	var wait sync.WaitGroup
	for i := range 12 {
		wait.Go(func() {
			_, err := s.Save(ctx, r.Job, r.At(), draft(fmt.Append(nil, i), "at once"))
			var stale *store.StaleError
			mu.Lock()
			defer mu.Unlock()
			switch {
			case err == nil:
				won++
			case errors.As(err, &stale):
				refused++
			default:
				t.Error(err)
			}
		})
	}
	wait.Wait()
	if won != 1 || refused != 11 {
		t.Errorf("%d got through, %d were refused", won, refused)
	}
}

func TestDeleteCanBeUndone(t *testing.T) {
	ctx := context.Background()
	s, file := open(t)
	r, err := s.Create(ctx, draft([]byte("kept"), "one"))
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Delete(ctx, r.Job); err != nil {
		t.Fatal(err)
	}
	for bin, want := range map[bool]int{true: 1, false: 0} {
		if list, err := s.List(ctx, store.Query{Bin: bin, Most: 10}); err != nil || len(list.Entries) != want || list.Count != want || list.Binned != 1 {
			t.Errorf("list %v, %v", list, err)
		}
	}
	if err := s.Undelete(ctx, r.Job); err != nil {
		t.Fatal(err)
	}
	// A second opening migrates nothing and finds it all.
	again, err := store.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	if got, err := again.Get(ctx, r.Job); err != nil || string(got.Doc) != "kept" || got.Deleted {
		t.Errorf("got %+v, %v", got, err)
	}
	for what, err := range map[string]error{"delete": s.Delete(ctx, "none"), "undelete": s.Undelete(ctx, "none")} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s of no job: %v", what, err)
		}
	}
	if _, err := s.History(ctx, "none", 0, 50); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("history of no job: %v", err)
	}
}

func TestOpenRefusesWhatIsNoDatabase(t *testing.T) {
	if _, err := store.Open(context.Background(), t.TempDir()); err == nil {
		t.Error("a folder was opened as a database")
	}
}

func BenchmarkSave(b *testing.B) {
	ctx := context.Background()
	s, _ := open(b)
	doc := make([]byte, 4000)
	r, err := s.Create(ctx, draft(doc, "one"))
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		if r, err = s.Save(ctx, r.Job, r.At(), draft(doc, "again")); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkLoad(b *testing.B) {
	ctx := context.Background()
	s, _ := open(b)
	r, err := s.Create(ctx, draft(make([]byte, 4000), "one"))
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		if _, err := s.Get(ctx, r.Job); err != nil {
			b.Fatal(err)
		}
	}
}

// A job that was saved so often, as by a log of taps: its history's first page, and one
// more save.
func BenchmarkGrownOld(b *testing.B) {
	for _, n := range []int{1, 1_000, 10_000, 100_000} {
		ctx := context.Background()
		dir := b.TempDir()
		s, err := store.Open(ctx, filepath.Join(dir, store.FileName))
		if err != nil {
			b.Fatal(err)
		}
		r, err := s.Create(ctx, draft([]byte(`{"name":"a"}`), "new"))
		if err != nil {
			b.Fatal(err)
		}
		if err := s.Close(); err != nil {
			b.Fatal(err)
		}
		grow(b, filepath.Join(dir, store.FileName), r.Job, n)
		if s, err = store.Open(ctx, filepath.Join(dir, store.FileName)); err != nil {
			b.Fatal(err)
		}
		if r, err = s.Get(ctx, r.Job); err != nil || r.Number != n {
			b.Fatal(r.Number, err)
		}
		b.Run(fmt.Sprintf("history/%d", n), func(b *testing.B) {
			for b.Loop() {
				if _, err := s.History(ctx, r.Job, 0, 50); err != nil {
					b.Fatal(err)
				}
			}
		})
		b.Run(fmt.Sprintf("save/%d", n), func(b *testing.B) {
			for b.Loop() {
				if r, err = s.Save(ctx, r.Job, r.At(), draft([]byte(`{"name":"b"}`), "more")); err != nil {
					b.Fatal(err)
				}
			}
		})
		if err := s.Close(); err != nil {
			b.Fatal(err)
		}
	}
}

// grow gives a job so many revisions, which to save one by one would take an hour.
func grow(b *testing.B, path, job string, n int) {
	b.Helper()
	db, err := sql.Open("sqlite", path)
	if err != nil {
		b.Fatal(err)
	}
	for _, q := range []string{
		`INSERT INTO revisions (job_id, number, parent, what, saved_at, name, facts, ops, sum)
			WITH RECURSIVE n (i) AS (SELECT 2 UNION ALL SELECT i + 1 FROM n WHERE i < ?2)
			SELECT job_id, i, i - 1, 'P' || i || ' dug', saved_at, name, facts, ops, sum FROM n, revisions WHERE job_id = ?1 AND number = 1 AND ?2 > 1`,
		`INSERT INTO documents (job_id, number, coding, doc)
			WITH RECURSIVE n (i) AS (SELECT 2 UNION ALL SELECT i + 1 FROM n WHERE i < ?2)
			SELECT job_id, i, coding, doc FROM n, documents WHERE job_id = ?1 AND number = 1 AND ?2 > 1`,
		`UPDATE jobs SET head = ?2 WHERE id = ?1`,
	} {
		if _, err := db.Exec(q, job, n); err != nil {
			b.Fatal(err)
		}
	}
	if err := db.Close(); err != nil {
		b.Fatal(err)
	}
}

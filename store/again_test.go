package store_test

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"math/rand/v2"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"mallow/store"
)

// Going back twice: A is saved as revision 2, an older backup is put back, C is saved, and
// what was there before is put back. No number stands for two documents, and a page of
// either time is told that it is stale.
func TestNumbersAreNeverGivenTwice(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	job := must1(s.Create(ctx, draft([]byte("one"), "one")))(t).Job
	older := must1(s.BackUpNow(ctx, "asked"))(t)
	a := must1(s.Save(ctx, job, store.Base{Number: 1}, draft([]byte("A"), "A")))(t)
	before := must1(s.Replace(ctx, older.Path))(t)
	now := must1(s.Get(ctx, job))(t)
	if string(now.Doc) != "one" || now.Number <= a.Number || now.What != store.PutBackAs {
		t.Fatalf("put back it is revision %d, %q, %q", now.Number, now.Doc, now.What)
	}
	var stale *store.StaleError
	if _, err := s.Save(ctx, job, a.At(), draft([]byte("of the page of before"), "x")); !errors.As(err, &stale) {
		t.Fatalf("a page of before saved over it: %v", err)
	}
	c := must1(s.Save(ctx, job, now.At(), draft([]byte("C"), "C")))(t)
	must1(s.Replace(ctx, before.Path))(t)
	now = must1(s.Get(ctx, job))(t)
	if string(now.Doc) != "A" || now.Number <= c.Number {
		t.Fatalf("put back again it is revision %d, %q", now.Number, now.Doc)
	}
	for _, base := range []int{1, a.Number, c.Number} {
		if _, err := s.Save(ctx, job, store.Base{Number: base}, draft([]byte("stale"), "x")); !errors.As(err, &stale) {
			t.Errorf("on revision %d of before it was saved: %v", base, err)
		}
	}
	// One that was not changed since is the very same, and its pages need not be told.
	same := must1(s.BackUpNow(ctx, "asked"))(t)
	must1(s.Replace(ctx, same.Path))(t)
	if again := must1(s.Get(ctx, job))(t); again.Number != now.Number {
		t.Errorf("unchanged it went from revision %d to %d", now.Number, again.Number)
	}
}

// A folder that another backup is put into goes on with its numbers too.
func TestRestoredFoldersGoOnCounting(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	file := filepath.Join(dir, store.FileName)
	s := must1(store.Open(ctx, file))(t)
	job := must1(s.Create(ctx, draft([]byte("one"), "one")))(t).Job
	older := filepath.Join(t.TempDir(), "older.db")
	must1(s.BackUp(ctx, older))(t)
	a := must1(s.Save(ctx, job, store.Base{Number: 1}, draft([]byte("A"), "A")))(t)
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	if _, _, err := store.RestoreTo(ctx, older, dir, true); err != nil {
		t.Fatal(err)
	}
	s = must1(store.Open(ctx, file))(t)
	defer s.Close()
	if now := must1(s.Get(ctx, job))(t); string(now.Doc) != "one" || now.Number <= a.Number {
		t.Errorf("restored it is revision %d, %q", now.Number, now.Doc)
	}
}

// What is saved while a backup is put back is in the copy that is made first, or in what
// comes after: nothing that was acknowledged is in neither.
func TestNothingIsLostWhileABackupIsPutBack(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	must1(s.Create(ctx, draft([]byte("one"), "one")))(t)
	b := must1(s.BackUpNow(ctx, "asked"))(t)
	var stop atomic.Bool
	var group sync.WaitGroup
	var lock sync.Mutex
	acknowledged := map[string]bool{}
	for w := range 4 {
		group.Go(func() {
			for n := 0; !stop.Load(); n++ {
				if r, err := s.Create(ctx, draft(fmt.Appendf(nil, "%d %d", w, n), "new")); err == nil {
					lock.Lock()
					acknowledged[r.Job] = true
					lock.Unlock()
				}
			}
		})
	}
	var kept []store.Backup
	for range 5 {
		kept = append(kept, must1(s.Replace(ctx, b.Path))(t))
	}
	stop.Store(true)
	group.Wait()
	found := map[string]bool{}
	in := func(db *sql.DB) {
		rows, err := db.Query(`SELECT id FROM jobs`)
		if err != nil {
			t.Fatal(err)
		}
		defer rows.Close()
		for rows.Next() {
			var id string
			if err := rows.Scan(&id); err != nil {
				t.Fatal(err)
			}
			found[id] = true
		}
	}
	for _, path := range append([]string{s.Path()}, kept[0].Path, kept[1].Path, kept[2].Path, kept[3].Path, kept[4].Path) {
		db := must1(sql.Open("sqlite", "file:"+(&url.URL{Path: path}).EscapedPath()))(t)
		in(db)
		if err := db.Close(); err != nil {
			t.Fatal(err)
		}
	}
	lost := 0
	for id := range acknowledged {
		if !found[id] {
			lost++
		}
	}
	if lost > 0 || len(acknowledged) < 20 {
		t.Errorf("%d of %d acknowledged jobs are nowhere", lost, len(acknowledged))
	}
}

// A backup of which one bit differs, that lacks its last byte, or in which a document was
// changed is refused, and says what is the matter.
func TestAnAlteredBackupIsRefused(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	r := must1(s.Create(ctx, draft([]byte(`{"name":"Tansy Bank","length":20000}`), "one")))(t)
	for n := range 40 {
		r = must1(s.Save(ctx, r.Job, r.At(), draft(fmt.Appendf(nil, `{"name":"Tansy Bank","length":%d}`, 20001+n), "again")))(t)
	}
	must1(s.Pack(ctx, 20))(t)
	file := filepath.Join(t.TempDir(), "jobs.db")
	if v := must1(s.BackUp(ctx, file))(t); !v.Sealed {
		t.Error("a backup without a digest")
	}
	whole := must1(os.ReadFile(file))(t)
	refused := func(what string, raw []byte) {
		t.Helper()
		bad := filepath.Join(t.TempDir(), "bad.db")
		if err := os.WriteFile(bad, raw, 0o600); err != nil {
			t.Fatal(err)
		}
		into := t.TempDir()
		if _, _, err := store.RestoreTo(ctx, bad, into, false); err == nil {
			t.Errorf("%s: it was restored", what)
		}
		if left, _ := os.ReadDir(into); len(left) > 0 {
			t.Errorf("%s: it left %v", what, left)
		}
	}
	rng := rand.New(rand.NewPCG(36, 5))
	for range 25 {
		raw := append([]byte{}, whole...)
		bit := rng.IntN(8 * len(raw))
		raw[bit/8] ^= 1 << (bit % 8)
		refused(fmt.Sprintf("bit %d", bit), raw)
	}
	refused("a byte short", whole[:len(whole)-1])
	refused("a byte long", append(append([]byte{}, whole...), 0))
	// The very document is told, also in a raw copy that has no digest of its own.
	changed := filepath.Join(t.TempDir(), "changed.db")
	if err := os.WriteFile(changed, whole, 0o600); err != nil {
		t.Fatal(err)
	}
	db := must1(sql.Open("sqlite", changed))(t)
	for _, q := range []string{`DROP TABLE manifest`, `UPDATE documents SET coding = 0, doc = CAST('{"name":"Tansy Bank","length":90000}' AS BLOB) WHERE number = 41`} {
		if _, err := db.Exec(q); err != nil {
			t.Fatal(err)
		}
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	if _, err := store.Verify(ctx, changed); !store.Is(err, store.Damaged) || !strings.Contains(err.Error(), r.Job) || !strings.Contains(err.Error(), "41") {
		t.Errorf("a changed document: %v", err)
	}
}

// While another program has the file open, no upgrade begins; what is only in its log then
// is in what comes of the next.
func TestUpgradesWaitForWhoeverHasTheFile(t *testing.T) {
	ctx := context.Background()
	file := filepath.Join(t.TempDir(), store.FileName)
	written(t, file, firstSchema)
	other := must1(sql.Open("sqlite", "file:"+file+"?_pragma=journal_mode(WAL)"))(t)
	other.SetMaxOpenConns(1)
	for n := range 50 {
		if _, err := other.Exec(`INSERT INTO revisions (job_id, number, parent, doc, what, saved_at) VALUES ('a', ?, ?, CAST('{}' AS BLOB), 'more', '2026-11-24T10:00:00Z')`, 3+n, 2+n); err != nil {
			t.Fatal(err)
		}
	}
	if s, err := store.Open(ctx, file); !store.Is(err, store.Busy) || !strings.Contains(err.Error(), "stop that one first") {
		t.Fatalf("it was opened while another program has it: %v, %v", s, err)
	}
	var n int
	if err := other.QueryRow(`SELECT COUNT(*) FROM revisions WHERE job_id = 'a'`).Scan(&n); err != nil || n != 52 {
		t.Fatalf("the other program finds %d, %v", n, err)
	}
	if err := other.Close(); err != nil {
		t.Fatal(err)
	}
	s := must1(store.Open(ctx, file))(t)
	defer s.Close()
	if all := must1(s.History(ctx, "a", 0, 1000))(t).Revisions; len(all) != 52 {
		t.Errorf("%d of 52 revisions are left", len(all))
	}
}

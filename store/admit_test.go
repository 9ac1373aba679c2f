package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"mallow/store"
)

// firstSchema is the data as the first version wrote it.
const firstSchema = `
CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY AUTOINCREMENT, version_id INTEGER NOT NULL, is_applied INTEGER NOT NULL, tstamp TIMESTAMP DEFAULT (datetime('now')));
INSERT INTO goose_db_version (version_id, is_applied) VALUES (0, 1), (1, 1);
CREATE TABLE jobs (id TEXT PRIMARY KEY, head INTEGER NOT NULL, created_at TEXT NOT NULL, deleted_at TEXT) STRICT;
CREATE TABLE revisions (
    job_id TEXT NOT NULL REFERENCES jobs (id) ON DELETE CASCADE, number INTEGER NOT NULL, parent INTEGER,
    doc BLOB NOT NULL, what TEXT NOT NULL, saved_at TEXT NOT NULL,
    PRIMARY KEY (job_id, number), FOREIGN KEY (job_id, parent) REFERENCES revisions (job_id, number)) STRICT;
INSERT INTO jobs VALUES ('a', 2, '2026-01-01T00:00:00Z', NULL), ('b', 1, '2026-01-01T00:00:00Z', '2026-01-02T00:00:00Z');
INSERT INTO revisions VALUES ('a', 1, NULL, CAST('{"name":"Old"}' AS BLOB), 'first', '2026-01-01T00:00:00Z'),
	('a', 2, 1, CAST('{"name":"Tansy Bank"}' AS BLOB), 'second', '2026-01-03T00:00:00Z'), ('b', 1, NULL, CAST('no json' AS BLOB), 'first', '2026-01-02T00:00:00Z');`

func written(t *testing.T, file, statements string) {
	t.Helper()
	db, err := sql.Open("sqlite", file)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec(statements); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
}

// A file of the first version keeps every document, is backed up before it is
// changed, and can be found by its names.
func TestTheFirstVersionIsMigrated(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	file := filepath.Join(dir, store.FileName)
	written(t, file, firstSchema)
	s, err := store.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for number, want := range map[int]string{1: `{"name":"Old"}`, 2: `{"name":"Tansy Bank"}`} {
		if doc, err := s.Doc(ctx, "a", number); err != nil || string(doc) != want {
			t.Errorf("revision %d: %s, %v", number, doc, err)
		}
	}
	list, err := s.List(ctx, store.Query{Words: "bank TANSY", Most: 5})
	if err != nil || len(list.Entries) != 1 || list.Entries[0].Name != "Tansy Bank" || list.Binned != 1 {
		t.Errorf("list %+v, %v", list, err)
	}
	if r, err := s.Get(ctx, "b"); err != nil || string(r.Doc) != "no json" || !r.Deleted {
		t.Errorf("the binned job: %+v, %v", r, err)
	}
	backups, err := s.Backups()
	if err != nil || len(backups) != 1 || backups[0].Why != "before-version-6" {
		t.Fatalf("backups %v, %v", backups, err)
	}
	if v, err := store.Verify(ctx, backups[0].Path); err != nil || v.Version != 1 || v.Jobs != 2 || v.Revisions != 3 {
		t.Errorf("the backup: %+v, %v", v, err)
	}
	if r, err := s.Save(ctx, "a", store.Base{Number: 2}, draft([]byte("{}"), "third")); err != nil || r.Number != 3 {
		t.Errorf("a save: %+v, %v", r, err)
	}
	// The backup of the old version restores into the new one.
	if _, err := s.Replace(ctx, backups[0].Path); err != nil {
		t.Fatal(err)
	}
	// Under a number that was never given: 3 was saved meanwhile.
	if r, err := s.Get(ctx, "a"); err != nil || r.Number != 4 || r.Parent != 2 || string(r.Doc) != `{"name":"Tansy Bank"}` {
		t.Errorf("restored: %+v, %v", r, err)
	}
}

// A file of an older version is changed as a whole, with a copy of before kept
// beside it; a change that does not go well leaves
// the file as it was, byte for byte, and says so.
func TestAChangeOfVersionIsAllOrNothing(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	file, before := filepath.Join(dir, store.FileName), filepath.Join(dir, "mallow.before.db")
	written(t, file, firstSchema)
	for start, kept := range []bool{true, true} {
		s, err := store.Open(ctx, file)
		if err != nil {
			t.Fatal(err)
		}
		if r, err := s.Get(ctx, "a"); err != nil || string(r.Doc) != `{"name":"Tansy Bank"}` {
			t.Errorf("start %d: %s, %v", start, r.Doc, err)
		}
		if err := s.Close(); err != nil {
			t.Fatal(err)
		}
		if _, err := os.Stat(before); (err == nil) != kept {
			t.Errorf("start %d: the copy of before: %v", start, err)
		}
	}
	// A column that stands in the way of the last change but one and the last.
	broken := filepath.Join(t.TempDir(), store.FileName)
	written(t, broken, firstSchema+`ALTER TABLE revisions ADD COLUMN ops BLOB;`)
	was, err := os.ReadFile(broken)
	if err != nil {
		t.Fatal(err)
	}
	if s, err := store.Open(ctx, broken); err == nil || !strings.Contains(err.Error(), "left as it was") {
		t.Errorf("it opened: %v, %v", s, err)
	}
	if is, err := os.ReadFile(broken); err != nil || !bytes.Equal(is, was) {
		t.Errorf("the file changed from %d to %d bytes, %v", len(was), len(is), err)
	}
}

// The edits that made a revision are kept beside it.
func TestOpsStayBesideTheirRevision(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	d := draft([]byte(`{}`), "first")
	first, err := s.Create(ctx, d)
	if err != nil {
		t.Fatal(err)
	}
	d.Ops = []byte(`[{"path":"/name","value":"B"}]`)
	if _, err := s.Save(ctx, first.Job, store.Base{Number: 1}, d); err != nil {
		t.Fatal(err)
	}
	for number, want := range map[int]string{1: "", 2: string(d.Ops)} {
		if ops, err := s.Ops(ctx, first.Job, number); err != nil || string(ops) != want {
			t.Errorf("revision %d: %s, %v", number, ops, err)
		}
	}
	if _, err := s.Ops(ctx, first.Job, 9); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a revision that is not there: %v", err)
	}
}

func TestWhatIsNotOursIsNotOpened(t *testing.T) {
	ctx := context.Background()
	for name, c := range map[string]struct {
		statements string
		kind       store.Kind
	}{
		"newer":   {firstSchema + fmt.Sprintf(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (%d, 1)`, store.Version()+1), store.Newer},
		"foreign": {`CREATE TABLE notes (text TEXT); INSERT INTO notes VALUES ('mine')`, store.Foreign},
		"marked":  {firstSchema + `PRAGMA application_id = 77`, store.Foreign},
	} {
		file := filepath.Join(t.TempDir(), store.FileName)
		written(t, file, c.statements)
		before, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		s, err := store.Open(ctx, file)
		if !store.Is(err, c.kind) {
			t.Errorf("%s: opened with %v", name, err)
		}
		if s != nil {
			s.Close()
		}
		after, err := os.ReadFile(file)
		if err != nil || string(after) != string(before) {
			t.Errorf("%s: the file was changed, %v", name, err)
		}
		if _, err := store.Verify(ctx, file); !store.Is(err, c.kind) {
			t.Errorf("%s: as a backup: %v", name, err)
		}
	}
}

// A folder that held jobs is not begun again with an empty file, and says
// where the newest backup is.
func TestAMissingDatabaseIsNotTakenAsNew(t *testing.T) {
	ctx := context.Background()
	file := filepath.Join(t.TempDir(), store.FileName)
	s, err := store.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	b, err := s.BackUpNow(ctx, "asked")
	if err := errors.Join(err, s.Close()); err != nil {
		t.Fatal(err)
	}
	for name, do := range map[string]func() error{
		"missing": func() error { return os.Remove(file) },
		"empty":   func() error { return os.WriteFile(file, nil, 0o600) },
	} {
		if err := do(); err != nil {
			t.Fatal(err)
		}
		s, err := store.Open(ctx, file)
		if !store.Is(err, store.Emptied) || !strings.Contains(err.Error(), b.Path) {
			t.Errorf("%s: %v", name, err)
		}
		if s != nil {
			s.Close()
		}
	}
}

// SQLite goes on writing into a deleted file; Mallow does not.
func TestADeletedDatabaseTakesNoSave(t *testing.T) {
	ctx := context.Background()
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := s.Ping(ctx); err != nil {
		t.Fatal(err)
	}
	if err := os.Rename(s.Path(), s.Path()+".away"); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Create(ctx, draft([]byte("{}"), "new")); !store.Is(err, store.Gone) {
		t.Errorf("a save into a deleted file: %v", err)
	}
	if err := s.Ping(ctx); !store.Is(err, store.Gone) {
		t.Errorf("health: %v", err)
	}
	if err := os.Rename(s.Path()+".away", s.Path()); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Create(ctx, draft([]byte("{}"), "new")); err != nil {
		t.Errorf("once it is back: %v", err)
	}
}

func TestOneServerHoldsAFolder(t *testing.T) {
	dir := t.TempDir()
	first, err := store.Hold(dir, store.Holder{PID: 4711, Address: "http://127.0.0.1:1/"})
	if err != nil {
		t.Fatal(err)
	}
	_, err = store.Hold(dir, store.Holder{PID: 2})
	var held *store.HeldError
	if !errors.As(err, &held) || held.By.PID != 4711 || !strings.Contains(err.Error(), "127.0.0.1:1") {
		t.Errorf("the second: %v", err)
	}
	if err := first.Release(); err != nil {
		t.Fatal(err)
	}
	second, err := store.Hold(dir, store.Holder{PID: 2})
	if err != nil {
		t.Fatal(err)
	}
	second.Release()
}

func TestFilesAreTheOwnersAlone(t *testing.T) {
	ctx := context.Background()
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if _, err := s.Create(ctx, draft([]byte("{}"), "new")); err != nil {
		t.Fatal(err)
	}
	if _, err := s.BackUpNow(ctx, "asked"); err != nil {
		t.Fatal(err)
	}
	err = filepath.Walk(filepath.Dir(s.Path()), func(path string, info os.FileInfo, err error) error {
		if err == nil && info.Mode().Perm()&0o077 != 0 && path != filepath.Dir(s.Path()) {
			t.Errorf("%s is %v", path, info.Mode())
		}
		return err
	})
	if err != nil {
		t.Error(err)
	}
}

// A damaged page is noticed, the sound jobs are still read, and writes do not
// make it worse unseen.
func TestDamageIsNoticed(t *testing.T) {
	ctx := context.Background()
	file := filepath.Join(t.TempDir(), store.FileName)
	s, err := store.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	doc := []byte(strings.Repeat("concrete ", 2000))
	for range 30 {
		if _, err := s.Create(ctx, draft(doc, "new")); err != nil {
			t.Fatal(err)
		}
	}
	if err := errors.Join(s.Look(ctx), s.Close()); err != nil {
		t.Fatal(err)
	}
	raw, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	for at := len(raw) / 2; at < len(raw)/2+4096; at++ {
		raw[at] ^= 0xa5
	}
	if err := os.WriteFile(file, raw, 0o600); err != nil {
		t.Fatal(err)
	}
	if s, err = store.Open(ctx, file); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := s.Look(ctx); !store.Is(err, store.Damaged) {
		t.Errorf("looked over: %v", err)
	}
	if err := s.Ping(ctx); !store.Is(err, store.Damaged) {
		t.Errorf("health: %v", err)
	}
	sound := 0
	if err := s.Each(ctx, func(r store.Revision, err error) error {
		if err == nil && string(r.Doc) == string(doc) {
			sound++
		}
		return nil
	}); err != nil || sound < 20 {
		t.Errorf("%d of 30 jobs could be read, %v", sound, err)
	}
	if _, err := s.BackUpNow(ctx, "daily"); err == nil {
		t.Error("a damaged database was taken for a good backup")
	}
	if list, err := s.Backups(); err != nil || len(list) != 0 {
		t.Errorf("a bad backup was kept: %v, %v", list, err)
	}
}

// A file whose making was cut short, after the mark or before the first
// migration, is gone on with.
func TestAHalfMadeDatabaseIsGoneOnWith(t *testing.T) {
	ctx := context.Background()
	const mark = `PRAGMA application_id = 1298952055;`
	const list = `CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY AUTOINCREMENT, version_id INTEGER NOT NULL, is_applied INTEGER NOT NULL, tstamp TIMESTAMP DEFAULT (datetime('now')));`
	for name, made := range map[string]string{"marked": mark, "begun": mark + list + `INSERT INTO goose_db_version (version_id, is_applied) VALUES (0, 1);`} {
		file := filepath.Join(t.TempDir(), store.FileName)
		written(t, file, made)
		s, err := store.Open(ctx, file)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if _, err := s.Create(ctx, draft([]byte("{}"), "new")); err != nil {
			t.Errorf("%s: %v", name, err)
		}
		s.Close()
	}
}

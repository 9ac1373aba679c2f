package store_test

import (
	"context"
	"database/sql"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/pressly/goose/v3"

	"mallow/store"
)

// The first version opens a file by bringing it up with the one migration that it has,
// and looks for nothing newer. On data of this version that fails before anything is
// read or written; and this version opens its own data again, and after a change too.
func TestTheFirstVersionIsKeptFromNewData(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), store.FileName)
	s := must1(store.Open(ctx, path))(t)
	job := must1(s.Create(ctx, draft([]byte("a"), "a")))(t).Job
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	up := func() error {
		db, err := sql.Open("sqlite", path)
		if err != nil {
			t.Fatal(err)
		}
		defer db.Close()
		p, err := goose.NewProvider(goose.DialectSQLite3, db, fstest.MapFS{"00001_jobs.sql": {Data: []byte("-- +goose Up\nCREATE TABLE jobs (id TEXT);\n")}})
		if err != nil {
			t.Fatal(err)
		}
		_, err = p.Up(ctx)
		return err
	}
	for range 2 {
		if err := up(); err == nil || !strings.Contains(err.Error(), "missing") {
			t.Errorf("the first version starts on new data: %v", err)
		}
		again := must1(store.Open(ctx, path))(t)
		if r, err := again.Get(ctx, job); err != nil || string(r.Doc) != "a" {
			t.Errorf("%q %v", r.Doc, err)
		}
		if err := again.Close(); err != nil {
			t.Fatal(err)
		}
	}
}

package store_test

import (
	"bytes"
	"context"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"mallow/store"
)

// small is a folder on a disk of so many bytes.
func small(t *testing.T, size string) string {
	t.Helper()
	dir := t.TempDir()
	if err := syscall.Mount("tmpfs", dir, "tmpfs", 0, "size="+size); err != nil {
		t.Skip("no small file system can be made here:", err)
	}
	t.Cleanup(func() { _ = syscall.Unmount(dir, syscall.MNT_DETACH) })
	return dir
}

func fill(t *testing.T, dir string) string {
	t.Helper()
	file := filepath.Join(dir, "something else")
	f, err := os.Create(file)
	if err != nil {
		t.Fatal(err)
	}
	for err == nil {
		_, err = f.Write(make([]byte, 4096))
	}
	if err := f.Close(); err != nil || !errors.Is(err, nil) {
		t.Log(err)
	}
	return file
}

// On a full disk the jobs are there to be read and taken out, whether Mallow was closed
// well or killed; a save says what to delete; and with room it goes on.
func TestAFullDiskIsRead(t *testing.T) {
	for _, closed := range []bool{true, false} {
		ctx := context.Background()
		dir := small(t, "8m")
		path := filepath.Join(dir, store.FileName)
		s := must1(store.Open(ctx, path))(t)
		doc := bytes.Repeat([]byte("tansy "), 5000)
		r := must1(s.Create(ctx, draft(doc, "a")))(t)
		must1(s.BackUpNow(ctx, "asked"))(t)
		must1(s.BackUpNow(ctx, "asked"))(t)
		r = must1(s.Save(ctx, r.Job, r.At(), draft([]byte("last"), "b")))(t)
		if !closed { // as after a kill: what is saved is in the log still
			killed := small(t, "8m")
			for _, end := range []string{"", "-wal"} {
				if err := os.WriteFile(filepath.Join(killed, store.FileName+end), must1(os.ReadFile(path+end))(t), 0o600); err != nil {
					t.Fatal(err)
				}
			}
			if err := os.CopyFS(filepath.Join(killed, "backups"), os.DirFS(filepath.Join(dir, "backups"))); err != nil {
				t.Fatal(err)
			}
			dir, path = killed, filepath.Join(killed, store.FileName)
		}
		if err := s.Close(); err != nil {
			t.Fatal(err)
		}
		filler := fill(t, dir)
		full, err := store.Open(ctx, path)
		if err != nil {
			t.Fatalf("closed %v: %v", closed, err)
		}
		if got, err := full.Get(ctx, r.Job); err != nil || string(got.Doc) != "last" {
			t.Errorf("closed %v: %q %v", closed, got.Doc, err)
		}
		if page, err := full.History(ctx, r.Job, 0, 10); err != nil || len(page.Revisions) != 2 {
			t.Errorf("closed %v: %v %v", closed, page, err)
		}
		if _, err := full.Save(ctx, r.Job, r.At(), draft([]byte("more"), "c")); !store.Is(err, store.Full) {
			t.Errorf("closed %v: saved on a full disk: %v", closed, err)
		}
		if err := full.Ping(ctx); !store.Is(err, store.Full) {
			t.Errorf("closed %v: %v", closed, err)
		}
		list, err := full.Spares()
		if err != nil || len(list) != 1 || !strings.Contains(full.RoomSays(), list[0].Path) || !strings.Contains(full.RoomSays(), "start Mallow again") {
			t.Errorf("closed %v: to delete are %v: %s", closed, list, full.RoomSays())
		}
		if err := full.Close(); err != nil {
			t.Error(err)
		}
		if err := os.Remove(filler); err != nil {
			t.Fatal(err)
		}
		again := must1(store.Open(ctx, path))(t)
		if _, err := again.Save(ctx, r.Job, r.At(), draft([]byte("more"), "c")); err != nil {
			t.Errorf("closed %v, with room again: %v", closed, err)
		}
		if err := again.Close(); err != nil {
			t.Error(err)
		}
	}
}

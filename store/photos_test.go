package store_test

import (
	"bytes"
	"context"
	"errors"
	"path/filepath"
	"testing"

	"mallow/store"
)

// A backup has the photographs, and putting it back brings them; what was taken since is
// gone with the rest. Other jobs' photographs are nobody's business.
func TestBackupsHavePhotographs(t *testing.T) {
	ctx := context.Background()
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), "mallow.db"))
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = s.Close() }()
	a, err := s.Create(ctx, store.Draft{Doc: []byte("{}"), Name: "a"})
	if err != nil {
		t.Fatal(err)
	}
	b, err := s.Create(ctx, store.Draft{Doc: []byte("{}"), Name: "b"})
	if err != nil {
		t.Fatal(err)
	}
	kept, err := s.AddPhoto(ctx, a.Job, store.Photo{Kind: "image/jpeg", Width: 2, Height: 1}, []byte("first"))
	if err != nil {
		t.Fatal(err)
	}
	if _, _, err := s.PhotoBytes(ctx, b.Job, kept.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("another job's photograph: %v", err)
	}
	if _, err := s.AddPhoto(ctx, "nobody", store.Photo{}, []byte("x")); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a photograph of no job: %v", err)
	}
	made, err := s.BackUpNow(ctx, "test")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.AddPhoto(ctx, a.Job, store.Photo{Kind: "image/jpeg"}, []byte("later")); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Replace(ctx, made.Path); err != nil {
		t.Fatal(err)
	}
	all, err := s.Photos(ctx, a.Job)
	if err != nil || len(all) != 1 || all[0] != kept {
		t.Errorf("%+v, %v", all, err)
	}
	if kind, raw, err := s.PhotoBytes(ctx, a.Job, kept.ID); err != nil || kind != "image/jpeg" || !bytes.Equal(raw, []byte("first")) {
		t.Errorf("%s %q %v", kind, raw, err)
	}
}

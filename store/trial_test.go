package store_test

import (
	"context"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"mallow/store"
)

// The newest backup is put back for a trial every week. One that cannot be is told, with
// the day when one last could, and tried again the next day.
func TestTheNewestBackupIsTried(t *testing.T) {
	ctx := context.Background()
	now := time.Date(2027, 3, 1, 9, 0, 0, 0, time.UTC)
	dir := t.TempDir()
	s := must1(store.OpenAt(ctx, filepath.Join(dir, store.FileName), func() time.Time { return now }))(t)
	defer s.Close()
	if tried, err := s.TryBackup(ctx); tried || err != nil {
		t.Errorf("there is no backup: %v %v", tried, err)
	}
	for range 3 {
		must1(s.Create(ctx, draft([]byte(`{"name":"a"}`), "a")))(t)
	}
	must1(s.BackUpNow(ctx, "asked"))(t)
	if tried, err := s.TryBackup(ctx); !tried || err != nil {
		t.Fatalf("%v %v", tried, err)
	}
	first := must1(s.Trial(ctx))(t)
	if first.Jobs != 3 || first.Failed != "" || !first.Held.Equal(now) {
		t.Errorf("%+v", first)
	}
	held := now
	now = now.Add(6 * 24 * time.Hour)
	if tried, _ := s.TryBackup(ctx); tried {
		t.Error("tried again within the week")
	}
	now = now.Add(2 * 24 * time.Hour)
	b := must1(s.BackUpNow(ctx, "asked"))(t)
	raw := must1(os.ReadFile(b.Path))(t)
	raw[len(raw)/2] ^= 4
	if err := os.WriteFile(b.Path, raw, 0o600); err != nil {
		t.Fatal(err)
	}
	if tried, err := s.TryBackup(ctx); !tried || err == nil {
		t.Errorf("a damaged backup: %v %v", tried, err)
	}
	if bad := must1(s.Trial(ctx))(t); bad.Failed == "" || bad.Name != b.Name || !bad.Held.Equal(held) {
		t.Errorf("%+v", bad)
	}
	now = now.Add(25 * time.Hour)
	must1(s.BackUpNow(ctx, "asked"))(t)
	if tried, err := s.TryBackup(ctx); !tried || err != nil {
		t.Errorf("the next day: %v %v", tried, err)
	}
	if entries := must1(os.ReadDir(dir))(t); slices.ContainsFunc(entries, func(e os.DirEntry) bool { return e.IsDir() && e.Name() != "backups" }) {
		t.Errorf("the trial left something behind: %v", entries)
	}
}

// By hand: of 30 made by hand, 30 before something and 30 daily ones, a day apart, the
// last 5 of each of the first two stay. Too large together, the oldest go, but never the
// newest, nor the newest of those made before something.
func TestBackupsByHandAreRotated(t *testing.T) {
	day := time.Date(2027, 3, 1, 9, 0, 0, 0, time.UTC)
	var list []store.Backup
	for n := range 30 {
		for i, why := range []string{"asked", "before-restore"} {
			list = append(list, store.Backup{Why: why, At: day.AddDate(0, 0, -n).Add(-time.Duration(i) * time.Hour), Bytes: 1})
		}
	}
	stay, leave := store.Rotated(list)
	if len(stay) != 10 || len(leave) != 50 {
		t.Errorf("%d stay, %d go", len(stay), len(leave))
	}
	for i := range list {
		list[i].Bytes = 6 << 30
	}
	stay, _ = store.Rotated(list)
	if len(stay) != 3 { // 18 GB; the fourth would make it 24
		t.Errorf("%d of 6 GB stay", len(stay))
	}
	for i := range list {
		list[i].Bytes = 50 << 30
	}
	stay, _ = store.Rotated(list)
	if len(stay) != 2 || stay[0].Why != "asked" || stay[1].Why != "before-restore" {
		t.Errorf("of 50 GB each stay %v", stay)
	}
}

package main

import (
	"bytes"
	"context"
	"errors"
	"net"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"mallow/store"
)

// held is a data folder with some jobs.
func held(t *testing.T, n int) string {
	t.Helper()
	dir := t.TempDir()
	s, err := store.Open(context.Background(), filepath.Join(dir, store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	for range n {
		if _, err := s.Create(context.Background(), store.Draft{Doc: []byte(`{"mallow":1}`), What: "new", Name: "A"}); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	return dir
}

// Two commands move the jobs to another machine; a folder that holds jobs is
// only replaced when that is said, and what it held is kept.
func TestBackupAndRestore(t *testing.T) {
	from, file := held(t, 3), filepath.Join(t.TempDir(), "jobs.db")
	if out, _, err := call("", "backup", "--data", from, "--to", file); err != nil || !strings.Contains(out, "holds 3 jobs") {
		t.Fatalf("%q, %v", out, err)
	}
	var usage usageError
	if _, _, err := call("", "backup", "--data", from, "--to", file); !errors.As(err, &usage) {
		t.Errorf("over a file: %v", err)
	}
	to := filepath.Join(t.TempDir(), "new")
	if out, _, err := call("", "restore", file, "--data", to); err != nil || !strings.Contains(out, "holds 3 jobs") {
		t.Fatalf("%q, %v", out, err)
	}
	if out, _, err := call("", "doctor", "--data", to); !errors.Is(err, errUnwell) || !strings.Contains(out, "Integrity    whole") || !strings.Contains(out, "Make a backup") {
		t.Errorf("%s, %v", out, err)
	}
	other := held(t, 1)
	if _, _, err := call("", "restore", file, "--data", other); !errors.As(err, &usage) || !strings.Contains(err.Error(), "--over") {
		t.Errorf("into a folder that holds jobs: %v", err)
	}
	out, _, err := call("", "restore", file, "--data", other, "--over")
	if err != nil || !strings.Contains(out, "mallow-before-restore-") {
		t.Fatalf("%q, %v", out, err)
	}
	kept, err := filepath.Glob(filepath.Join(other, "mallow-before-restore-*.db"))
	if err != nil || len(kept) != 1 {
		t.Fatal(kept, err)
	}
	if v, err := store.Verify(context.Background(), kept[0]); err != nil || v.Jobs != 1 {
		t.Errorf("what was kept: %+v, %v", v, err)
	}
	if out, _, err := call("", "backup", "--data", other); err != nil || !strings.Contains(out, "holds 3 jobs") || !strings.Contains(out, "backups") {
		t.Errorf("%q, %v", out, err)
	}
	if out, _, err := call("", "doctor", "--data", other); err != nil || !strings.Contains(out, "All is well") {
		t.Errorf("%s, %v", out, err)
	}
}

// What cannot be restored is refused, in a line, with what to do.
func TestRestoreRefuses(t *testing.T) {
	junk := filepath.Join(t.TempDir(), "junk.db")
	if err := os.WriteFile(junk, bytes.Repeat([]byte("junk "), 9000), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, args := range [][]string{{"restore"}, {"restore", junk}, {"restore", "no such file"}, {"restore", junk, "--from", "x"}, {"restore", "--from", t.TempDir()},
		{"restore", "--from", "x", "--at", "noon"}, {"restore", junk, "--at", "2026-01-01"}, {"backup", "--data", t.TempDir()}} {
		var usage usageError
		_, _, err := call("", append(args, "--data", t.TempDir())...)
		if !errors.As(err, &usage) || strings.Contains(err.Error(), "\n") {
			t.Errorf("%v: %v", args, err)
		}
	}
	dir := held(t, 1)
	lock, err := store.Hold(dir, store.Holder{PID: 1, Since: time.Now()})
	if err != nil {
		t.Fatal(err)
	}
	defer lock.Release()
	for _, args := range [][]string{{"serve", "--listen", "127.0.0.1:0", "--data", dir}, {"restore", junk, "--over", "--data", dir}} {
		if _, _, err := call("", args...); err == nil || !strings.Contains(err.Error(), "in use by process 1") {
			t.Errorf("%v in a folder in use: %v", args, err)
		}
	}
}

func TestMoments(t *testing.T) {
	for text, want := range map[string]string{"2026-11-27 14:30:05": "2026-11-27T14:30:05", "2026-11-27 14:30": "2026-11-27T14:30:00", "2026-11-27": "2026-11-27T00:00:00"} {
		if got, err := moment(text); err != nil || got.Format("2006-01-02T15:04:05") != want {
			t.Errorf("%s: %v, %v", text, got, err)
		}
	}
}

// A file without end, or larger than the server takes, is refused without
// being read whole.
func TestLargeFilesAreRefused(t *testing.T) {
	big := filepath.Join(t.TempDir(), "big.csv")
	if err := os.WriteFile(big, bytes.Repeat([]byte("x"), mostFile+2), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, args := range [][]string{{"import", big}, {"import", "/dev/zero"}, {"plan", big}, {"export", "/dev/zero", "--to", "x.pdf"}} {
		if _, _, err := call("", args...); err == nil || !strings.Contains(err.Error(), "more than 4 MB") {
			t.Errorf("%v: %v", args, err)
		}
	}
	if _, _, err := call(strings.Repeat("1,2\n", mostFile/3), "import", "-"); err == nil || !strings.Contains(err.Error(), "more than 4 MB") {
		t.Errorf("standard input: %v", err)
	}
}

// Files that are written appear whole or not at all.
func TestFilesAreWrittenBeside(t *testing.T) {
	dir := t.TempDir()
	name := filepath.Join(dir, "out.json")
	for _, text := range []string{"first", "second"} {
		if err := writeFile(name, []byte(text)); err != nil {
			t.Fatal(err)
		}
		if raw, err := os.ReadFile(name); err != nil || string(raw) != text {
			t.Errorf("%q, %v", raw, err)
		}
	}
	if err := writeFile(filepath.Join(dir, "none", "x"), nil); err == nil {
		t.Error("into no folder")
	}
	if list, err := os.ReadDir(dir); err != nil || len(list) != 1 {
		t.Errorf("left behind: %v, %v", list, err)
	}
}

// An address that listens everywhere is told as one that opens.
func TestAddressesThatOpen(t *testing.T) {
	for addr, want := range map[string]string{"127.0.0.1:80": "http://127.0.0.1:80/", "[::]:81": "http://localhost:81/", "0.0.0.0:82": "http://127.0.0.1:82/", "[::1]:83": "http://[::1]:83/", "192.0.2.1:84": "http://192.0.2.1:84/"} {
		a, err := net.ResolveTCPAddr("tcp", addr)
		if err != nil {
			t.Fatal(err)
		}
		if got := url(a); got != want {
			t.Errorf("%s: %s, want %s", addr, got, want)
		}
	}
}

// Folders of demos that were killed go with the next demo, others stay.
func TestSweep(t *testing.T) {
	temp := t.TempDir()
	old := time.Now().Add(-time.Hour)
	for _, name := range []string{demoPrefix + "dead", demoPrefix + "alive", demoPrefix + "new", "other"} {
		dir := filepath.Join(temp, name)
		if err := os.Mkdir(dir, 0o700); err != nil {
			t.Fatal(err)
		}
		if name == demoPrefix+"alive" {
			lock, err := store.Hold(dir, store.Holder{PID: 1})
			if err != nil {
				t.Fatal(err)
			}
			defer lock.Release()
		}
		if name != demoPrefix+"new" {
			if err := os.Chtimes(dir, old, old); err != nil {
				t.Fatal(err)
			}
		}
	}
	sweep(temp)
	left, err := filepath.Glob(filepath.Join(temp, "*"))
	if err != nil || len(left) != 3 {
		t.Errorf("left %v, %v", left, err)
	}
}

// Metrics are for this machine alone.
func TestMetricsStayOnLoopback(t *testing.T) {
	for _, addr := range []string{"0.0.0.0:0", ":0", "192.0.2.1:9", "nowhere"} {
		s := serving{metrics: addr}
		if _, err := s.serveMetrics(nil); err == nil {
			t.Errorf("%s was taken", addr)
		}
	}
}

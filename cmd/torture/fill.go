package main

import (
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"syscall"

	"mallow/store"
)

// fill makes a database of many small jobs that are described already.
func fill(ctx context.Context, file string, n int) error {
	if err := os.MkdirAll(filepath.Dir(file), 0o700); err != nil {
		return err
	}
	s, err := store.Open(ctx, file)
	if err != nil {
		return err
	}
	doc := numbered(0)
	facts := []byte(`{"units":{"system":"imperial","smallestMark":1.5875},"outline":{"length":95554.8,"ground":[[0,0],[95554.8,0]],"posts":[],"bays":[],"gates":[]},"posts":40,"bags":153,"missing":0,"problems":0}`)
	drafts := make([]store.Draft, n)
	for i := range drafts {
		drafts[i] = store.Draft{Doc: doc, What: "New job", Name: fmt.Sprintf("Job No. %d", i), Facts: facts}
	}
	if err := s.CreateMany(ctx, drafts); err != nil {
		return err
	}
	return s.Close()
}

// maxRSS is the most memory that an ended process had resident, in bytes.
func maxRSS(cmd *exec.Cmd) int64 {
	if u, ok := cmd.ProcessState.SysUsage().(*syscall.Rusage); ok {
		return u.Maxrss << 10
	}
	return 0
}

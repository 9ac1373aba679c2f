package main

import (
	"context"
	"errors"
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

// weighed runs the program and says the most memory it had resident, in bytes.
// What a process is said to have held at most includes what its parent held
// when it began, and this one has held hundreds of megabytes by then; so a
// fresh one of these begins it.
func (r *rig) weighed(args ...string) (used int64, out []byte, err error) {
	self, err := os.Executable()
	if err != nil {
		return 0, nil, err
	}
	out, err = exec.CommandContext(r.ctx, self, append([]string{"weigh", r.binary}, args...)...).Output()
	if err != nil {
		return 0, out, err
	}
	var failed bool
	if _, err := fmt.Sscan(string(out), &used, &failed); err != nil {
		return 0, out, fmt.Errorf("%q: %w", out, err)
	}
	if failed {
		err = errProgram
	}
	return used, out, err
}

// errProgram says that a weighed program ended with an error of its own.
var errProgram = errors.New("the program ended with an error")

// weigh runs a program for weighed: it prints its most resident memory,
// whether it failed, and what it said.
func weigh(args []string) error {
	cmd := exec.Command(args[0], args[1:]...)
	out, err := cmd.CombinedOutput()
	usage, ok := cmd.ProcessState.SysUsage().(*syscall.Rusage)
	if !ok {
		return errors.Join(err, errors.New("this machine does not say what a process used"))
	}
	fmt.Println(usage.Maxrss<<10, err != nil)
	_, err = os.Stdout.Write(out)
	return err
}

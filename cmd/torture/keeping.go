package main

import (
	"bytes"
	"database/sql"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	_ "modernc.org/sqlite"

	"mallow/store"
)

// kills ends the server with SIGKILL at any moment while many save, and looks
// whether all that was acknowledged is there.
func kills(r *rig) error {
	data, a := filepath.Join(r.dir, "data"), newAcknowledged()
	n := 0
	for end := r.until(); time.Now().Before(end); n++ {
		if err := r.round(data, a, n, func(s *server) error { s.kill(); return nil }); err != nil {
			return fmt.Errorf("kill %d: %w", n, err)
		}
	}
	r.say("%d kills, %d acknowledged saves, 0 lost", n, a.all)
	return nil
}

// stops ends it with SIGTERM under load: it ends, loses nothing, and leaves one
// file.
func stops(r *rig) error {
	data, a := filepath.Join(r.dir, "data"), newAcknowledged()
	n, slowest := 0, time.Duration(0)
	for end := r.until(); time.Now().Before(end); n++ {
		err := r.round(data, a, n, func(s *server) error {
			took, err := s.stop()
			slowest = max(slowest, took)
			return err
		})
		if err != nil {
			return fmt.Errorf("stop %d: %w", n, err)
		}
		if files := left(data); len(files) != 1 {
			return fmt.Errorf("stop %d left %v", n, files)
		}
	}
	r.say("%d stops, 0 hangs, the slowest %v; %d acknowledged saves, 0 lost; one file left", n, slowest.Round(time.Millisecond), a.all)
	return nil
}

// round starts a server, checks what the last one acknowledged, and lets six
// writers save until end ends it at some moment.
func (r *rig) round(data string, a *acknowledged, n int, end func(*server) error) error {
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	if err := a.check(s); err != nil {
		s.kill()
		return err
	}
	stop := make(chan struct{})
	var wait sync.WaitGroup
	errs := make([]error, 6)
	for w := range errs {
		wait.Go(func() { errs[w] = a.write(s, stop, (n*10+w)*100000) })
	}
	time.Sleep(time.Duration(20+r.rand.IntN(400)) * time.Millisecond)
	err = end(s)
	close(stop)
	wait.Wait()
	return errors.Join(err, errors.Join(errs...))
}

// earlyStops sends the signal in the first milliseconds.
func earlyStops(r *rig) error {
	data := filepath.Join(r.dir, "data")
	n := 0
	for end := r.until(); time.Now().Before(end); n++ {
		s, err := r.begin("serve", "--data", data, "--listen", "127.0.0.1:0")
		if err != nil {
			return err
		}
		time.Sleep(time.Duration(r.rand.IntN(40000)) * time.Microsecond)
		if _, err := s.stop(); err != nil && !strings.Contains(err.Error(), "signal") {
			return fmt.Errorf("stop %d: %w: %s", n, err, s.out)
		}
	}
	r.say("%d stops within 40 ms of the start, 0 hangs", n)
	return nil
}

// oddEnds: a second signal ends it at once, and a log that nobody reads any
// more does not end it.
func oddEnds(r *rig) error {
	data := filepath.Join(r.dir, "data")
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	c, err := net.Dial("tcp", strings.TrimPrefix(s.url, "http://"))
	if err != nil {
		return err
	}
	defer c.Close()
	fmt.Fprintf(c, "POST /api/plan HTTP/1.1\r\nHost: localhost\r\nContent-Length: 100000\r\n\r\n{") // it waits for this one
	time.Sleep(100 * time.Millisecond)
	_ = s.cmd.Process.Signal(syscall.SIGTERM)
	time.Sleep(200 * time.Millisecond)
	began := time.Now()
	_ = s.cmd.Process.Signal(syscall.SIGTERM)
	select {
	case <-s.done:
	case <-time.After(2 * time.Second):
		s.kill()
		return errors.New("a second signal did not end it within 2 s")
	}
	took := time.Since(began)
	in, out, err := os.Pipe()
	if err != nil {
		return err
	}
	b := &server{cmd: exec.CommandContext(r.ctx, r.binary, "serve", "--data", data, "--listen", "127.0.0.1:0", "--verbose"), out: &tail{}, done: make(chan struct{})}
	b.cmd.Stdout, b.cmd.Stderr = b.out, out
	if err := b.cmd.Start(); err != nil {
		return err
	}
	go func() {
		b.err = b.cmd.Wait()
		close(b.done)
	}()
	if err := errors.Join(out.Close(), in.Close()); err != nil {
		return err
	}
	defer b.kill()
	for range 300 {
		if b.url = strings.TrimSuffix(address.FindString(b.out.String()), "/"); b.url != "" {
			break
		}
		time.Sleep(10 * time.Millisecond)
	}
	for n := range 20 {
		if _, err := b.create(n); err != nil {
			return fmt.Errorf("with a broken log: %w", err)
		}
	}
	r.say("ended %v after the second signal; goes on with a broken log", took.Round(time.Millisecond))
	return b.alive()
}

// writers: 50 save and 50 read at once; then 500 edits of one job from ten
// windows, most of which meet another's.
func writers(r *rig) error {
	s, err := r.serve(filepath.Join(r.dir, "data"))
	if err != nil {
		return err
	}
	defer s.kill()
	var saves, reads, conflicts times
	var failed atomic.Int64
	var wait sync.WaitGroup
	end := time.Now().Add(r.length * 2 / 3)
	for w := range 50 {
		wait.Go(func() {
			st, err := s.create(w * 1000)
			for n := 1; err == nil && time.Now().Before(end); n++ {
				began := time.Now()
				var status int
				if st, status, err = s.save(st.ID, st.Revision, w*1000+n); status != http.StatusOK {
					failed.Add(1)
				}
				saves.add(time.Since(began))
			}
			if err != nil {
				failed.Add(1)
			}
		})
		wait.Go(func() {
			for time.Now().Before(end) {
				began := time.Now()
				if status, err := s.ask("GET", "/api/jobs?most=20", nil, nil); err != nil || status != http.StatusOK {
					failed.Add(1)
				}
				reads.add(time.Since(began))
			}
		})
	}
	wait.Wait()
	st, err := s.create(1)
	if err != nil {
		return err
	}
	began := time.Now()
	var done atomic.Int64
	for w := range 10 {
		wait.Go(func() {
			for range 50 {
				for {
					var now state
					if status, err := s.ask("GET", "/api/jobs/"+st.ID, nil, &now); err != nil || status != http.StatusOK {
						failed.Add(1)
						return
					}
					sent := time.Now()
					doc := bytes.Replace(numbered(w), []byte(`"No. `), fmt.Appendf(nil, `"%d No. `, now.Revision), 1)
					status, err := s.ask("PUT", "/api/jobs/"+st.ID, saving{now.Revision, doc, "edit"}, nil)
					if err == nil && status == http.StatusOK {
						done.Add(1)
						break
					}
					if status != http.StatusConflict {
						failed.Add(1)
						return
					}
					conflicts.add(time.Since(sent))
				}
			}
		})
	}
	wait.Wait()
	r.say("%d saves p50 %v p99 %v, %d lists p99 %v; %d of 500 edits in %.1f s, %d conflicts p99 %v; %d errors", len(saves.all), saves.at(0.5), saves.at(0.99),
		len(reads.all), reads.at(0.99), done.Load(), time.Since(began).Seconds(), len(conflicts.all), conflicts.at(0.99), failed.Load())
	if failed.Load() > 0 || done.Load() != 500 {
		return errors.New("not all were answered as they should be: " + s.out.String())
	}
	return s.alive()
}

// replicas kills a replicating server and restores its replica elsewhere.
func replicas(r *rig) error {
	worst, n, saves := time.Duration(0), 0, 0
	for end := r.until(); time.Now().Before(end) || n == 0; n++ {
		data, copied, found := filepath.Join(r.dir, fmt.Sprint("data", n)), filepath.Join(r.dir, fmt.Sprint("copy", n)), filepath.Join(r.dir, fmt.Sprint("found", n))
		s, err := r.serve(data, "--replicate", copied)
		if err != nil {
			return err
		}
		st, err := s.create(0)
		if err != nil {
			s.kill()
			return err
		}
		var at []time.Time
		for k, stop := 1, time.Now().Add(time.Duration(1000+r.rand.IntN(1500))*time.Millisecond); time.Now().Before(stop); k++ {
			next, status, err := s.save(st.ID, st.Revision, k)
			if err != nil || status != http.StatusOK {
				s.kill()
				return fmt.Errorf("a save: %d, %v", status, err)
			}
			at, st = append(at, time.Now()), next
		}
		killed := time.Now()
		s.kill()
		if out, err := exec.CommandContext(r.ctx, r.binary, "restore", "--from", copied, "--data", found).CombinedOutput(); err != nil {
			return fmt.Errorf("restore: %w: %s", err, out)
		}
		there, err := r.serve(found)
		if err != nil {
			return err
		}
		var back state
		status, err := there.ask("GET", "/api/jobs/"+st.ID, nil, &back)
		there.kill()
		if err != nil || status != http.StatusOK {
			return fmt.Errorf("the restored job: %d, %v", status, err)
		}
		if lost := len(at) + 1 - back.Revision; lost > 0 {
			worst = max(worst, killed.Sub(at[len(at)-lost]))
		}
		saves += len(at)
		if worst > replicaLate {
			return fmt.Errorf("what was saved %v before the kill is not in the replica", worst)
		}
	}
	r.say("%d machines lost, %d saves; the oldest save that a replica did not have was %v old", n, saves, worst.Round(time.Millisecond))
	return nil
}

// replicaLate is when a replica has failed, not only been slow on a busy machine:
// it is to be a second behind at the most, and says how far it was.
const replicaLate = 10 * time.Second

// backups copies a database while it is written to, and compares.
func backups(r *rig) error {
	data, a := filepath.Join(r.dir, "data"), newAcknowledged()
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	defer s.kill()
	stop := make(chan struct{})
	var wait sync.WaitGroup
	for w := range 4 {
		wait.Go(func() { _ = a.write(s, stop, w*100000) })
	}
	n := 0
	for end := r.until(); time.Now().Before(end) || n == 0; n++ {
		file := filepath.Join(r.dir, fmt.Sprintf("%d.db", n))
		if out, err := exec.CommandContext(r.ctx, r.binary, "backup", "--data", data, "--to", file).CombinedOutput(); err != nil {
			close(stop)
			return fmt.Errorf("backup %d: %w: %s", n, err, out)
		}
		if _, err := store.Verify(r.ctx, file); err != nil {
			close(stop)
			return fmt.Errorf("backup %d: %w", n, err)
		}
		if n > 0 {
			_ = os.Remove(file)
		}
	}
	close(stop)
	wait.Wait()
	other := filepath.Join(r.dir, "other")
	if out, err := exec.CommandContext(r.ctx, r.binary, "restore", filepath.Join(r.dir, "0.db"), "--data", other).CombinedOutput(); err != nil {
		return fmt.Errorf("restore: %w: %s", err, out)
	}
	there, err := r.serve(other)
	if err != nil {
		return err
	}
	there.kill()
	r.say("%d backups while %d saves were made, all whole; moved to another folder with two commands", n, a.all)
	return nil
}

// twoServers: the second one is told who holds the folder.
func twoServers(r *rig) error {
	data := filepath.Join(r.dir, "data")
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	defer s.kill()
	out, err := exec.CommandContext(r.ctx, r.binary, "serve", "--data", data, "--listen", "127.0.0.1:0").CombinedOutput()
	if err == nil || !strings.Contains(string(out), s.url) || !strings.Contains(string(out), fmt.Sprint(s.cmd.Process.Pid)) {
		return fmt.Errorf("the second said %q (%v)", out, err)
	}
	s.kill()
	again, err := r.serve(data) // the lock went with the process
	if err != nil {
		return err
	}
	again.kill()
	r.say("refused with process and address; free again after a kill")
	return nil
}

// newerData is not opened, and not changed.
func newerData(r *rig) error {
	data := filepath.Join(r.dir, "data")
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	if _, err := s.stop(); err != nil {
		return err
	}
	file := filepath.Join(data, store.FileName)
	db, err := sql.Open("sqlite", file)
	if err != nil {
		return err
	}
	if _, err := db.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (?, 1)`, store.Version()+1); err != nil {
		return err
	}
	if err := db.Close(); err != nil {
		return err
	}
	before, err := os.ReadFile(file)
	if err != nil {
		return err
	}
	out, err := exec.CommandContext(r.ctx, r.binary, "serve", "--data", data, "--listen", "127.0.0.1:0").CombinedOutput()
	after, e := os.ReadFile(file)
	if err == nil || e != nil || !bytes.Equal(before, after) || !strings.Contains(string(out), "newer Mallow") {
		return fmt.Errorf("it said %q (%v), the file is the same: %v", out, err, bytes.Equal(before, after))
	}
	r.say("refused, unchanged")
	return nil
}

// mounted gives a trial a small disk of its own, where that is allowed.
func (r *rig) mounted(size string) (dir string, un func(), err error) {
	dir = filepath.Join(r.dir, "disk")
	if err := os.Mkdir(dir, 0o700); err != nil {
		return "", nil, err
	}
	if out, err := exec.Command("mount", "-t", "tmpfs", "-o", "size="+size, "tmpfs", dir).CombinedOutput(); err != nil {
		return "", nil, skipped{fmt.Sprintf("no disk of its own can be mounted here (%s)", strings.TrimSpace(string(out)))}
	}
	return dir, func() { _ = exec.Command("umount", dir).Run() }, nil
}

// fullDisk fills the disk: what is refused is said, what was acknowledged is
// kept, and it goes on by itself once there is room.
func fullDisk(r *rig) error {
	disk, un, err := r.mounted("3m")
	if err != nil {
		return err
	}
	defer un()
	data, a := filepath.Join(disk, "data"), newAcknowledged()
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	defer s.kill()
	filler := filepath.Join(disk, "filler")
	first, err := s.create(0)
	if err != nil {
		return err
	}
	a.note(first, 0)
	_ = os.WriteFile(filler, make([]byte, 2200<<10), 0o600)
	refused, st := 0, first
	for n := 1; n < 2000 && refused < 5; n++ {
		next, status, err := s.save(st.ID, st.Revision, n)
		switch {
		case err != nil:
			return err
		case status == http.StatusOK:
			st = next
			a.note(st, n)
		case status == http.StatusInsufficientStorage:
			refused++
		default:
			return fmt.Errorf("a save on a full disk: status %d: %s", status, s.out)
		}
	}
	if refused == 0 {
		return errors.New("the disk was never full")
	}
	if status, err := s.ask("GET", "/api/jobs", nil, nil); err != nil || status != http.StatusOK {
		return fmt.Errorf("the list on a full disk: %d, %v", status, err)
	}
	if err := os.Remove(filler); err != nil {
		return err
	}
	next, status, err := s.save(st.ID, st.Revision, 99999)
	if err != nil || status != http.StatusOK {
		return fmt.Errorf("once there is room: %d, %v", status, err)
	}
	a.note(next, 99999)
	r.say("%d saves, then 507 said so; it went on once there was room; 0 lost", a.all)
	return errors.Join(a.check(s), s.alive())
}

// readOnlyDisk turns the disk read-only under it.
func readOnlyDisk(r *rig) error {
	disk, un, err := r.mounted("8m")
	if err != nil {
		return err
	}
	defer un()
	s, err := r.serve(filepath.Join(disk, "data"))
	if err != nil {
		return err
	}
	defer s.kill()
	st, err := s.create(0)
	if err != nil {
		return err
	}
	remount := func(how string) error { return exec.Command("mount", "-o", "remount,"+how, disk).Run() }
	if err := remount("ro"); err != nil {
		return skipped{"the disk cannot be made read-only while it is in use here"}
	}
	_, status, err := s.save(st.ID, st.Revision, 1)
	if err != nil || status != http.StatusServiceUnavailable {
		return fmt.Errorf("a save on a read-only disk: %d, %v: %s", status, err, s.out)
	}
	if status, err := s.ask("GET", "/api/jobs/"+st.ID, nil, nil); err != nil || status != http.StatusOK {
		return fmt.Errorf("reading it: %d, %v", status, err)
	}
	if err := remount("rw"); err != nil {
		return err
	}
	if _, status, err = s.save(st.ID, st.Revision, 1); err != nil || status != http.StatusOK {
		return fmt.Errorf("once it is writable: %d, %v", status, err)
	}
	r.say("503 said so, reading went on, and saving once it was writable")
	return nil
}

// damagedPages spoils a page of the database: it is noticed, named, and the
// sound jobs come out.
func damagedPages(r *rig) error {
	n, noticed, jobs, out := 0, 0, 0, 0
	for end := r.until(); time.Now().Before(end) || n == 0; n++ {
		data := filepath.Join(r.dir, fmt.Sprint("data", n))
		s, err := r.serve(data)
		if err != nil {
			return err
		}
		for k := range 12 {
			if _, err := s.create(k); err != nil {
				return err
			}
		}
		if _, err := s.stop(); err != nil {
			return err
		}
		file := filepath.Join(data, store.FileName)
		raw, err := os.ReadFile(file)
		if err != nil {
			return err
		}
		page := 1 + r.rand.IntN(len(raw)/4096-1)
		for i := range 4096 {
			raw[page*4096+i] ^= byte(1 + r.rand.IntN(255))
		}
		if err := os.WriteFile(file, raw, 0o600); err != nil {
			return err
		}
		said, err := exec.CommandContext(r.ctx, r.binary, "doctor", "--data", data, "--rescue", filepath.Join(r.dir, fmt.Sprint(n, ".zip"))).CombinedOutput()
		if err == nil || bytes.Contains(said, []byte("panic")) {
			return fmt.Errorf("page %d damaged, and the doctor said: %s", page, said)
		}
		noticed++
		var got, bad int
		for _, line := range strings.Split(string(said), "\n") {
			if rest, ok := strings.CutPrefix(line, "Rescued"); ok {
				_, _ = fmt.Sscanf(strings.TrimSpace(rest), "%d job", &got)
				_, _ = fmt.Sscanf(rest[strings.LastIndex(rest, ",")+1:], "%d", &bad)
			}
		}
		jobs, out = jobs+12, out+got
		if s, err = r.serve(data); err == nil { // it may be too damaged to open, and says so
			var status int
			for range 200 { // until it has looked its pages over
				if status, err = s.ask("GET", "/healthz", nil, nil); err != nil || status != http.StatusOK {
					break
				}
				time.Sleep(50 * time.Millisecond)
			}
			if e := s.alive(); err != nil || status != http.StatusServiceUnavailable || e != nil {
				s.kill()
				return fmt.Errorf("page %d damaged, and health says %d, %v, %v", page, status, err, e)
			}
			s.kill()
		} else if !strings.Contains(err.Error(), "malformed") && !strings.Contains(err.Error(), "not a database") && !strings.Contains(err.Error(), "corrupt") {
			return fmt.Errorf("page %d damaged: %w", page, err)
		}
	}
	r.say("%d pages spoilt, %d noticed; %d of %d jobs came out", n, noticed, out, jobs)
	return nil
}

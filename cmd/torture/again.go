package main

import (
	"bytes"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"mallow/store"
)

// named is a job as a window has it: the revision, and of which database it is.
type named struct {
	state
	Generation string `json:"generation"`
}

type kept struct {
	Backups []struct {
		Name, Why string
	} `json:"backups"`
}

// goingBack puts backups back while clients save, with pages of every time: no number
// stands for two revisions, no page of before saves over what it does not show, and every
// revision is what was saved. (That no save falls between a backup that is put back and
// the one made before it is held by the store's own tests.)
func goingBack(r *rig) error {
	data := filepath.Join(r.dir, "data")
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	defer s.kill()
	var first named
	if status, err := s.ask("POST", "/api/jobs", map[string]any{"name": "Going back"}, &first); err != nil || status != http.StatusCreated {
		return fmt.Errorf("a new job: %d, %v", status, err)
	}
	path := "/api/jobs/" + first.ID
	var mu sync.Mutex
	given := map[int]string{} // what each revision was saved as: a number never stands for two
	var acknowledged, refused, twice atomic.Int64
	edit := func(at named, mark string) (next named, status int, err error) {
		next = at
		status, err = s.ask("PATCH", path, map[string]any{"base": at.Revision, "generation": at.Generation, "what": mark,
			"edits": []any{map[string]any{"path": "/notes", "value": mark}}}, &next)
		if err == nil && status == http.StatusOK {
			mu.Lock()
			defer mu.Unlock()
			if was, there := given[next.Revision]; there && was != mark {
				twice.Add(1)
			}
			given[next.Revision] = mark
		}
		return next, status, err
	}
	stop := make(chan struct{})
	var wait sync.WaitGroup
	for w := range 4 {
		wait.Go(func() {
			at := first
			for n := 0; ; n++ {
				select {
				case <-stop:
					return
				default:
				}
				next, status, err := edit(at, fmt.Sprintf("%d of window %d", n, w))
				switch {
				case err != nil:
					return
				case status == http.StatusOK:
					acknowledged.Add(1)
					at = next
				case status == http.StatusConflict:
					refused.Add(1)
					if s, err := s.ask("GET", path, nil, &at); err != nil || s != http.StatusOK {
						return
					}
				default:
					return
				}
			}
		})
	}
	restores := 0
	var problem error
	for end := r.until(); time.Now().Before(end) || restores < 2; restores++ {
		var k kept
		if status, err := s.ask("POST", "/api/keeping/backups", map[string]any{}, &k); err != nil || status != http.StatusOK || len(k.Backups) == 0 {
			problem = fmt.Errorf("a backup: %d, %v", status, err)
			break
		}
		time.Sleep(time.Duration(r.rand.IntN(150)) * time.Millisecond)
		stale := named{}
		if _, err := s.ask("GET", path, nil, &stale); err != nil {
			problem = err
			break
		}
		// The day's may have been made before there was a job.
		k.Backups = slices.DeleteFunc(k.Backups, func(b struct{ Name, Why string }) bool { return b.Why == "daily" })
		one := k.Backups[r.rand.IntN(len(k.Backups))].Name
		if status, err := s.ask("POST", "/api/keeping/restore", map[string]string{"name": one}, &k); err != nil || status != http.StatusOK {
			problem = fmt.Errorf("putting %s back: %d, %v", one, status, err)
			break
		}
		// A page of before the restore is told.
		if _, status, err := edit(stale, "a page of before"); err != nil || status != http.StatusConflict {
			problem = fmt.Errorf("a page of before the restore: status %d, %v", status, err)
			break
		}
	}
	close(stop)
	wait.Wait()
	if problem != nil {
		return problem
	}
	if n := twice.Load(); n > 0 {
		return fmt.Errorf("%d numbers stand for two revisions", n)
	}
	if out, err := exec.CommandContext(r.ctx, r.binary, "doctor", "--data", data).CombinedOutput(); err != nil && !strings.Contains(string(out), "every revision is what was saved") {
		return fmt.Errorf("the doctor: %s", out)
	}
	r.say("%d restores under load, %d acknowledged saves, %d pages of before refused, no number given twice", restores, acknowledged.Load(), refused.Load())
	return s.alive()
}

// older makes of a data folder one of the version before.
func older(file string) error {
	db, err := sql.Open("sqlite", file)
	if err != nil {
		return err
	}
	for _, q := range []string{`DROP TABLE unwanted`, `DELETE FROM keeping WHERE key = 'generation'`, `DROP TABLE numbers`,
		`ALTER TABLE revisions DROP COLUMN sum`, `DROP INDEX revisions_by_parent`, `DELETE FROM goose_db_version WHERE version_id = 6`, `PRAGMA wal_checkpoint(TRUNCATE)`} {
		if _, err := db.Exec(q); err != nil {
			return errors.Join(err, db.Close())
		}
	}
	return db.Close()
}

// killedUpgrades kills the start that changes data to this version at any moment of it,
// sometimes while another program reads, and starts again: every revision is there.
func killedUpgrades(r *rig) error {
	data := filepath.Join(r.dir, "data")
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	a, stop := newAcknowledged(), make(chan struct{})
	time.AfterFunc(700*time.Millisecond, func() { close(stop) })
	if err := a.write(s, stop, 0); err != nil {
		s.kill()
		return err
	}
	if _, err := s.stop(); err != nil {
		return err
	}
	from := filepath.Join(r.dir, "older.db")
	if err := older(filepath.Join(data, store.FileName)); err != nil {
		return err
	}
	if err := os.Rename(filepath.Join(data, store.FileName), from); err != nil {
		return err
	}
	raw, err := os.ReadFile(from)
	if err != nil {
		return err
	}
	n, half, waited := 0, 0, 0
	for end := r.until(); time.Now().Before(end) || n == 0; n++ {
		at := filepath.Join(r.dir, fmt.Sprint("try", n))
		if err := os.MkdirAll(at, 0o700); err != nil {
			return err
		}
		file := filepath.Join(at, store.FileName)
		if err := os.WriteFile(file, raw, 0o600); err != nil {
			return err
		}
		var reader *sql.DB
		if r.rand.IntN(4) == 0 { // another program reads
			if reader, err = sql.Open("sqlite", file); err != nil {
				return err
			}
			tx, err := reader.Begin()
			if err != nil {
				return err
			}
			var jobs int
			if err := tx.QueryRow(`SELECT COUNT(*) FROM jobs`).Scan(&jobs); err != nil {
				return err
			}
			waited++
			time.AfterFunc(time.Duration(r.rand.IntN(100))*time.Millisecond, func() { _ = tx.Rollback() })
		}
		for range 1 + r.rand.IntN(3) {
			b, err := r.begin("serve", "--data", at, "--listen", "127.0.0.1:0")
			if err != nil {
				return err
			}
			time.Sleep(time.Duration(r.rand.IntN(500)) * time.Millisecond)
			b.kill()
		}
		if reader != nil {
			if err := reader.Close(); err != nil {
				return err
			}
		}
		if _, err := os.Stat(filepath.Join(at, "mallow.before.db")); err == nil {
			half++
		}
		again, err := r.serve(at)
		if err != nil {
			return fmt.Errorf("upgrade %d: %w", n, err)
		}
		err = a.check(again)
		again.kill()
		if err != nil {
			return fmt.Errorf("upgrade %d: %w", n, err)
		}
		if err := os.RemoveAll(at); err != nil {
			return err
		}
	}
	r.say("%d upgrades killed up to three times, %d of them with another program reading, %d had been done; %d revisions, 0 lost", n, waited, half, a.all)
	return nil
}

// bitFlips alters a backup by one bit, or cuts it: it is refused.
func bitFlips(r *rig) error {
	data := filepath.Join(r.dir, "data")
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	for n := range 4 {
		if _, err := s.create(n); err != nil {
			s.kill()
			return err
		}
	}
	if _, err := s.stop(); err != nil {
		return err
	}
	file := filepath.Join(r.dir, "backup.db")
	if out, err := exec.CommandContext(r.ctx, r.binary, "backup", "--data", data, "--to", file).CombinedOutput(); err != nil {
		return fmt.Errorf("backup: %w: %s", err, out)
	}
	whole, err := os.ReadFile(file)
	if err != nil {
		return err
	}
	bad, n, taken := filepath.Join(r.dir, "bad.db"), 0, 0
	for end := r.until(); time.Now().Before(end) || n < 20; n++ {
		raw := bytes.Clone(whole)
		if n%10 == 9 {
			raw = raw[:len(raw)-1-r.rand.IntN(len(raw)/2)]
		} else {
			raw[r.rand.IntN(len(raw))] ^= 1 << r.rand.IntN(8)
		}
		if err := os.WriteFile(bad, raw, 0o600); err != nil {
			return err
		}
		if _, err := store.Verify(r.ctx, bad); err == nil {
			taken++
		}
	}
	if taken > 0 {
		return fmt.Errorf("%d of %d altered backups were taken for whole", taken, n)
	}
	r.say("%d backups with one bit altered or cut, all refused", n)
	return nil
}

// memoryCeiling is what the server may take, whatever is asked of it at once.
const memoryCeiling = 1500 << 20

// filesAndBoards asks for the dearest files and the board again and again, hangs up now
// and then, and looks how long somebody else's plan takes and how much memory.
func filesAndBoards(r *rig) error {
	s, err := r.serve(filepath.Join(r.dir, "data"))
	if err != nil {
		return err
	}
	defer s.kill()
	long := `{"mallow":2,"name":"Long","units":{"system":"metric","smallestMark":1},"days":{"start":"2027-05-03"},"lines":[{"id":"L1","runs":[{"id":"R1","length":9899000,"spacing":{"most":1000}}]}]}`
	var runs []string
	for i := range 495 {
		runs = append(runs, fmt.Sprintf(`{"id":"R%d","length":20000,"gates":[{"id":"G1","at":4000,"opening":1200}]}`, i+1))
	}
	many := `{"mallow":2,"name":"Runs","units":{"system":"metric","smallestMark":1},"days":{"start":"2027-05-03"},"lines":[{"id":"L1","runs":[` + strings.Join(runs, ",") + `]}]}`
	var paths []string
	for _, doc := range []string{long, many, many} {
		var st state
		if status, err := s.ask("POST", "/api/jobs", map[string]any{"doc": json.RawMessage(doc)}, &st); err != nil || status != http.StatusCreated {
			return fmt.Errorf("a dear job: %d, %v", status, err)
		}
		paths = append(paths, "/api/jobs/"+st.ID)
	}
	for n := range 20 {
		if _, err := s.ask("POST", "/api/jobs", map[string]any{"doc": json.RawMessage(strings.Replace(long, "9899000", fmt.Sprint(900000+n*1000), 1))}, nil); err != nil {
			return err
		}
	}
	stop := make(chan struct{})
	var wait sync.WaitGroup
	var files, boards, hungUp atomic.Int64
	impatient := &http.Client{Timeout: 400 * time.Millisecond}
	asks := []func(n int){
		func(n int) {
			if _, err := s.ask("GET", paths[n%len(paths)]+"/export?what=xlsx", nil, nil); err == nil {
				files.Add(1)
			}
		},
		func(n int) {
			if _, err := s.ask("GET", paths[1+n%2]+"/export?what=pdf", nil, nil); err == nil {
				files.Add(1)
			}
		},
		func(int) {
			if _, err := s.ask("POST", "/api/board", map[string]any{}, nil); err == nil {
				boards.Add(1)
			}
		},
		func(n int) {
			res, err := impatient.Get(s.url + paths[n%len(paths)] + "/export?what=pdf")
			if err == nil {
				_ = res.Body.Close() // nobody waits for it
			}
			hungUp.Add(1)
			time.Sleep(200 * time.Millisecond)
		},
	}
	for _, ask := range append(asks, asks[2]) {
		wait.Go(func() {
			for n := 0; ; n++ {
				select {
				case <-stop:
					return
				default:
					ask(n)
				}
			}
		})
	}
	var plans times
	peak := uint64(0)
	for end := time.Now().Add(max(20*time.Second, r.length)); time.Now().Before(end); time.Sleep(100 * time.Millisecond) {
		began := time.Now()
		if status, err := s.ask("POST", "/api/plan", numbered(0), nil); err != nil || status != http.StatusOK {
			close(stop)
			return fmt.Errorf("somebody else's plan: %d, %v", status, err)
		}
		plans.add(time.Since(began))
		peak = max(peak, s.memory())
	}
	close(stop)
	err = s.alive()
	s.kill()
	wait.Wait()
	r.say("%d files and %d boards while %d hung up: somebody else's plan p50 %v p99 %v, at most %v; %d MB resident", files.Load(), boards.Load(), hungUp.Load(), plans.at(0.5), plans.at(0.99), plans.at(1), peak>>20)
	if peak > memoryCeiling {
		err = errors.Join(err, fmt.Errorf("it took %d MB; %d MB is the ceiling", peak>>20, memoryCeiling>>20))
	}
	return err
}

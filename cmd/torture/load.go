package main

import (
	"bytes"
	"compress/gzip"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"time"
)

// memory is what a process has resident, in bytes.
func (s *server) memory() uint64 {
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", s.cmd.Process.Pid))
	if err != nil {
		return 0
	}
	for _, line := range strings.Split(string(raw), "\n") {
		if rest, ok := strings.CutPrefix(line, "VmRSS:"); ok {
			kb, _ := strconv.ParseUint(strings.Fields(rest)[0], 10, 64)
			return kb << 10
		}
	}
	return 0
}

// bombs sends what is small and unfolds, what is deep, endless or no number.
func bombs(r *rig) error {
	s, err := r.serve(filepath.Join(r.dir, "data"))
	if err != nil {
		return err
	}
	defer s.kill()
	var z bytes.Buffer
	w := gzip.NewWriter(&z)
	if _, err := w.Write(make([]byte, 256<<20)); err != nil || w.Close() != nil {
		return err
	}
	deep := []byte(strings.Repeat(`{"a":`, 300_000))
	wide := []byte(`{"mallow":1,"name":"x","units":{"system":"metric","smallestMark":1},"lines":[{"id":"L","runs":[` + strings.TrimSuffix(strings.Repeat(`{"id":"R"},`, 200_000), ",") + `]}]}`)
	kept, err := s.create(0)
	if err != nil {
		return err
	}
	emoji := bytes.ReplaceAll(numbered(1), []byte(`"No. 1"`), []byte(`"🦊👨‍👩‍👧 \u0000\ud83d"`))
	numbers := 0
	send := func(path, encoding string, body []byte) error {
		req, err := http.NewRequest("POST", s.url+path, bytes.NewReader(body))
		if err != nil {
			return err
		}
		if encoding != "" {
			req.Header.Set("Content-Encoding", encoding)
		}
		numbers++
		res, err := client.Do(req)
		if err != nil {
			return s.alive() // it may hang up on what is too large
		}
		_, _ = io.Copy(io.Discard, res.Body)
		if err := res.Body.Close(); err != nil {
			return err
		}
		if res.StatusCode == http.StatusInternalServerError {
			return fmt.Errorf("%s answered 500 to %d bytes", path, len(body))
		}
		return s.alive()
	}
	for _, path := range []string{"/api/plan", "/api/tell", "/api/bill", "/api/explain", "/api/advise", "/api/ways", "/api/jobs", "/api/reshape", "/api/import", "/api/alternatives", "/api/looks", "/api/square", "/api/pegs", "/api/rod/walk", "/api/office/ask"} {
		for _, body := range [][]byte{deep, wide, emoji, {}, []byte("null"), []byte(`[]`), []byte(`"`), bytes.Repeat([]byte("9"), 1<<20), make([]byte, 5<<20)} {
			if err := send(path, "", body); err != nil {
				return err
			}
		}
		for _, e := range []string{"gzip", "br", "zstd", "deflate"} {
			if err := send(path, e, z.Bytes()); err != nil {
				return err
			}
		}
	}
	for _, path := range []string{"/print?sheet=load", "/print"} {
		if err := send("/api/jobs/"+kept.ID+path, "", nil); err != nil {
			return err
		}
	}
	before := s.memory()
	for name, from := range map[string]string{"/dev/zero": "/dev/zero", "a line of 100 MB": filepath.Join(r.dir, "line.csv")} {
		if name != from {
			if err := os.WriteFile(from, bytes.Repeat([]byte("x"), 100<<20), 0o600); err != nil {
				return err
			}
		}
		used, out, err := r.weighed("import", from)
		if err == nil {
			return fmt.Errorf("%s was taken in", name)
		}
		if !errors.Is(err, errProgram) {
			return err
		}
		if used > 200<<20 {
			return fmt.Errorf("%s took %d MB: %s", name, used>>20, out)
		}
		r.say("%s refused with %d MB", name, used>>20)
	}
	r.say("%d bombs, no 500, %d MB resident after", numbers, before>>20)
	if before > 600<<20 {
		return fmt.Errorf("%d MB are resident", before>>20)
	}
	return nil
}

// slowClients connect and send or read next to nothing.
func slowClients(r *rig) error {
	s, err := r.serve(filepath.Join(r.dir, "data"))
	if err != nil {
		return err
	}
	defer s.kill()
	st, err := s.create(0)
	if err != nil {
		return err
	}
	host := strings.TrimPrefix(s.url, "http://")
	var conns []net.Conn
	defer func() {
		for _, c := range conns {
			c.Close()
		}
	}()
	doc := numbered(0)
	for i := range 400 {
		c, err := net.Dial("tcp", host)
		if err != nil {
			return err
		}
		conns = append(conns, c)
		switch i % 4 {
		case 0: // a head that never ends
			fmt.Fprintf(c, "GET /api/jobs HTTP/1.1\r\nHost: localhost\r\nX-Slow: ")
		case 1: // a body that never comes
			fmt.Fprintf(c, "POST /api/plan HTTP/1.1\r\nHost: localhost\r\nContent-Length: 100000\r\n\r\n{")
		case 2: // plans that nobody reads
			fmt.Fprintf(c, "POST /api/plan HTTP/1.1\r\nHost: localhost\r\nContent-Length: %d\r\n\r\n%s", len(doc), doc)
		case 3: // events that nobody reads
			fmt.Fprintf(c, "GET /api/live HTTP/1.1\r\nHost: localhost\r\n\r\n")
		}
	}
	var health, saves times
	for end := r.until(); time.Now().Before(end); {
		began := time.Now()
		if status, err := s.ask("GET", "/healthz", nil, nil); err != nil || status != http.StatusOK {
			return fmt.Errorf("health: %d, %v", status, err)
		}
		health.add(time.Since(began))
		began = time.Now()
		next, status, err := s.save(st.ID, st.Revision, len(saves.all))
		if err != nil || status != http.StatusOK {
			return fmt.Errorf("a save: %d, %v", status, err)
		}
		st = next
		saves.add(time.Since(began))
	}
	r.say("400 slow clients: health p99 %v, saves p99 %v, %d MB resident", health.at(0.99), saves.at(0.99), s.memory()>>20)
	return s.alive()
}

// listeners: a thousand windows listen to one job, and hear of a save.
func listeners(r *rig) error {
	s, err := r.serve(filepath.Join(r.dir, "data"))
	if err != nil {
		return err
	}
	defer s.kill()
	st, err := s.create(0)
	if err != nil {
		return err
	}
	time.Sleep(300 * time.Millisecond)
	before := s.memory()
	const many = 1000
	var wait sync.WaitGroup
	heard := make(chan time.Time, many)
	ready := make(chan error, many)
	for range many {
		wait.Go(func() {
			c, err := net.Dial("tcp", strings.TrimPrefix(s.url, "http://"))
			if err != nil {
				ready <- err
				return
			}
			defer c.Close()
			_ = c.SetDeadline(time.Now().Add(30 * time.Second))
			fmt.Fprintf(c, "GET /api/live?job=%s HTTP/1.1\r\nHost: localhost\r\n\r\n", st.ID)
			buf := make([]byte, 2048)
			all, told := "", false
			for {
				n, err := c.Read(buf)
				if err != nil {
					if !told {
						ready <- err
					}
					return
				}
				all += string(buf[:n])
				if !told && strings.Contains(all, ": listening") {
					told = true
					ready <- nil
				}
				if strings.Contains(all, `"saved"`) {
					heard <- time.Now()
					return
				}
			}
		})
	}
	for range many {
		if err := <-ready; err != nil {
			return fmt.Errorf("a listener: %w", err)
		}
	}
	more := s.memory() - min(before, s.memory())
	began := time.Now()
	if _, status, err := s.save(st.ID, st.Revision, 1); err != nil || status != http.StatusOK {
		return fmt.Errorf("a save: %d, %v", status, err)
	}
	wait.Wait()
	close(heard)
	var slowest time.Duration
	n := 0
	for at := range heard {
		n++
		slowest = max(slowest, at.Sub(began))
	}
	r.say("%d of %d heard within %v; %d MB more resident", n, many, slowest.Round(time.Millisecond), more>>20)
	if n != many || more > 100<<20 {
		return errors.New("not all heard, or it took too much memory")
	}
	return s.alive()
}

// manyJobs: the first page of ten thousand jobs.
func manyJobs(r *rig) error {
	data := filepath.Join(r.dir, "data")
	if err := fill(r.ctx, filepath.Join(data, "mallow.db"), 10_000); err != nil {
		return err
	}
	s, err := r.serve(data)
	if err != nil {
		return err
	}
	defer s.kill()
	var first, search times
	for end := r.until(); time.Now().Before(end) || len(first.all) < 20; {
		for path, into := range map[string]*times{"/api/jobs": &first, "/api/jobs?words=99+no": &search} {
			began := time.Now()
			if status, err := s.ask("GET", path, nil, nil); err != nil || status != http.StatusOK {
				return fmt.Errorf("the list: %d, %v", status, err)
			}
			into.add(time.Since(began))
		}
	}
	r.say("10000 jobs: first page p50 %v p99 %v, search p50 %v p99 %v", first.at(0.5), first.at(0.99), search.at(0.5), search.at(0.99))
	return s.alive()
}

// slowest searches for the worst document, then has eight of them planned at
// once while health is asked.
func slowest(r *rig) error {
	var found bytes.Buffer
	worst, err := searchWorst(&found, r.length*3/4, r.rand.Uint64())
	if err != nil {
		return err
	}
	if keepWorst != "" {
		if err := os.WriteFile(keepWorst, worst.doc, 0o600); err != nil {
			return err
		}
	}
	lines := strings.Split(strings.TrimSpace(found.String()), "\n")
	r.say("%s", lines[len(lines)-1])
	s, err := r.serve(filepath.Join(r.dir, "data"))
	if err != nil {
		return err
	}
	defer s.kill()
	end := make(chan struct{})
	var wait sync.WaitGroup
	for range 8 {
		wait.Go(func() {
			for {
				select {
				case <-end:
					return
				default:
					_, _ = s.ask("POST", "/api/plan", worst.doc, nil)
				}
			}
		})
	}
	var health times
	peak := uint64(0)
	for stop := time.Now().Add(max(3*time.Second, r.length/4)); time.Now().Before(stop); time.Sleep(5 * time.Millisecond) {
		began := time.Now()
		if status, err := s.ask("GET", "/healthz", nil, nil); err != nil || status != http.StatusOK {
			close(end)
			return fmt.Errorf("health: %d, %v", status, err)
		}
		health.add(time.Since(began))
		peak = max(peak, s.memory())
	}
	close(end)
	s.kill()
	wait.Wait()
	r.say("with eight of it at once health p50 %v p99 %v, %d MB resident", health.at(0.5), health.at(0.99), peak>>20)
	return nil
}

package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"syscall"
	"time"

	"mallow/demo"
)

// server is one run of the program.
type server struct {
	cmd  *exec.Cmd
	url  string
	out  *tail
	done chan struct{} // closed when it has ended
	err  error
}

// tail keeps the end of what a program says.
type tail struct {
	sync.Mutex
	b []byte
}

func (t *tail) Write(p []byte) (int, error) {
	t.Lock()
	defer t.Unlock()
	if t.b = append(t.b, p...); len(t.b) > 64<<10 {
		t.b = t.b[len(t.b)-32<<10:]
	}
	return len(p), nil
}

func (t *tail) String() string {
	t.Lock()
	defer t.Unlock()
	return string(t.b)
}

var address = regexp.MustCompile(`http://\S+/`)

// begin starts the program without waiting for it.
func (r *rig) begin(args ...string) (*server, error) {
	s := &server{cmd: exec.CommandContext(r.ctx, r.binary, args...), out: &tail{}, done: make(chan struct{})}
	s.cmd.Stdout, s.cmd.Stderr = s.out, s.out
	if err := s.cmd.Start(); err != nil {
		return nil, err
	}
	go func() {
		s.err = s.cmd.Wait()
		close(s.done)
	}()
	return s, nil
}

// serve starts a server on a data folder and waits until it answers.
func (r *rig) serve(data string, more ...string) (*server, error) {
	s, err := r.begin(append([]string{"serve", "--data", data, "--listen", "127.0.0.1:0"}, more...)...)
	if err != nil {
		return nil, err
	}
	for range 1000 {
		if url := address.FindString(s.out.String()); url != "" {
			s.url = strings.TrimSuffix(url, "/")
			return s, nil
		}
		select {
		case <-s.done:
			return nil, fmt.Errorf("ended at its start: %v: %s", s.err, s.out)
		case <-time.After(10 * time.Millisecond):
		}
	}
	s.kill()
	return nil, errors.New("did not start within 10 s")
}

func (s *server) kill() {
	_ = s.cmd.Process.Kill()
	<-s.done
}

// stop asks it to end and tells how long that took.
func (s *server) stop() (time.Duration, error) {
	began := time.Now()
	if err := s.cmd.Process.Signal(syscall.SIGTERM); err != nil {
		return 0, err
	}
	select {
	case <-s.done:
		return time.Since(began), s.err
	case <-time.After(20 * time.Second):
		s.kill()
		return time.Since(began), errors.New("it did not end within 20 s")
	}
}

func (s *server) alive() error {
	select {
	case <-s.done:
		return fmt.Errorf("it is down: %v: %s", s.err, s.out)
	default:
		return nil
	}
}

var client = &http.Client{Timeout: 60 * time.Second, Transport: &http.Transport{MaxIdleConnsPerHost: 200}}

// ask sends a request and decodes its answer.
func (s *server) ask(method, path string, body, into any) (status int, err error) {
	var in io.Reader
	switch b := body.(type) {
	case nil:
	case []byte:
		in = bytes.NewReader(b)
	default:
		raw, err := json.Marshal(b)
		if err != nil {
			return 0, err
		}
		in = bytes.NewReader(raw)
	}
	ctx, stop := context.WithTimeout(context.Background(), 60*time.Second)
	defer stop()
	req, err := http.NewRequestWithContext(ctx, method, s.url+path, in)
	if err != nil {
		return 0, err
	}
	res, err := client.Do(req)
	if err != nil {
		return 0, err
	}
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	if err != nil {
		return 0, err
	}
	if into != nil && res.StatusCode < 300 {
		err = json.Unmarshal(raw, into)
	}
	return res.StatusCode, err
}

// state is a job as the server answers it.
type state struct {
	ID       string          `json:"id"`
	Revision int             `json:"revision"`
	Doc      json.RawMessage `json:"doc"`
	Problem  string          `json:"problem"`
}

type saving struct {
	Base int             `json:"base"`
	Doc  json.RawMessage `json:"doc"`
	What string          `json:"what"`
}

var docs = sync.OnceValues(demo.Jobs)

// numbered is a demo job whose name holds a number, to know it again.
func numbered(n int) json.RawMessage {
	all, err := docs()
	if err != nil {
		panic(err)
	}
	var doc map[string]any
	if err := json.Unmarshal(all[n%len(all)], &doc); err != nil {
		panic(err)
	}
	doc["name"] = fmt.Sprintf("No. %d", n)
	raw, err := json.Marshal(doc)
	if err != nil {
		panic(err)
	}
	return raw
}

func (s *server) create(n int) (st state, err error) {
	status, err := s.ask("POST", "/api/jobs", map[string]any{"doc": numbered(n)}, &st)
	if err == nil && status != http.StatusCreated {
		err = fmt.Errorf("a new job: status %d", status)
	}
	return st, err
}

func (s *server) save(id string, base, n int) (st state, status int, err error) {
	status, err = s.ask("PUT", "/api/jobs/"+id, saving{base, numbered(n), fmt.Sprint(n)}, &st)
	return st, status, err
}

// acknowledged is what was said to be saved.
type acknowledged struct {
	sync.Mutex
	last map[string]int // revision of each job
	n    map[string]int // and the number in it
	all  int
}

func newAcknowledged() *acknowledged {
	return &acknowledged{last: map[string]int{}, n: map[string]int{}}
}

func (a *acknowledged) note(st state, n int) {
	a.Lock()
	defer a.Unlock()
	a.last[st.ID], a.n[st.ID] = st.Revision, n
	a.all++
}

// check reads every job and compares it with what was acknowledged. A save
// whose answer never came may be there too.
func (a *acknowledged) check(s *server) error {
	a.Lock()
	defer a.Unlock()
	for id, revision := range a.last {
		var st state
		status, err := s.ask("GET", "/api/jobs/"+id, nil, &st)
		if err != nil || status != http.StatusOK {
			return fmt.Errorf("job %s: status %d, %v", id, status, err)
		}
		if st.Revision < revision {
			return fmt.Errorf("job %s is at revision %d, %d was acknowledged: %d saves lost", id, st.Revision, revision, revision-st.Revision)
		}
		if st.Revision == revision && !strings.Contains(string(st.Doc), fmt.Sprintf(`"No. %d"`, a.n[id])) {
			return fmt.Errorf("job %s, revision %d, is not what was saved", id, revision)
		}
	}
	return nil
}

// write saves one job after another until stopped or the server has gone.
func (a *acknowledged) write(s *server, stop <-chan struct{}, first int) error {
	st, err := s.create(first)
	if err != nil {
		return nil // it went before anything was acknowledged
	}
	a.note(st, first)
	for n := first + 1; ; n++ {
		select {
		case <-stop:
			return nil
		default:
		}
		next, status, err := s.save(st.ID, st.Revision, n)
		switch {
		case err != nil:
			return nil // its server has gone
		case status == http.StatusServiceUnavailable:
			return nil // stopping, and it says so
		case status != http.StatusOK:
			return fmt.Errorf("a save: status %d", status)
		}
		st = next
		a.note(st, n)
	}
}

// left is what lies in a data folder.
func left(data string) []string {
	list, _ := filepath.Glob(filepath.Join(data, "mallow.db*"))
	for i := range list {
		list[i] = filepath.Base(list[i])
	}
	return list
}

// times are how long things took.
type times struct {
	sync.Mutex
	all []time.Duration
}

func (t *times) add(d time.Duration) {
	t.Lock()
	defer t.Unlock()
	t.all = append(t.all, d)
}

// at is the time that a share of them stayed under.
func (t *times) at(share float64) time.Duration {
	t.Lock()
	defer t.Unlock()
	if len(t.all) == 0 {
		return 0
	}
	slices.Sort(t.all)
	return t.all[min(len(t.all)-1, int(share*float64(len(t.all))))].Round(100 * time.Microsecond)
}

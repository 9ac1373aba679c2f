package server

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"testing/fstest"
	"testing/synctest"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/catalog"
	"mallow/store"
)

func inside(t *testing.T) (*Server, *LockedLog) {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	kept, err := store.Open(context.Background(), filepath.Join(t.TempDir(), store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	var log LockedLog
	s := New(Config{Store: kept, Catalog: cat, Web: fstest.MapFS{}, Log: slog.New(slog.NewTextHandler(&log, nil)), Metrics: true})
	t.Cleanup(func() { s.Close(); _ = kept.Close() })
	return s, &log
}

// Places are given first come, first served; beyond the line one is told at
// once, and who gives up leaves it. Who came is counted before it stands in
// line, so the test waits until it blocks there, not until it is counted.
func TestGateIsFair(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		g := newGate(1, 3, mostWait, errBusy)
		ctx := context.Background()
		leave, err := g.enter(ctx)
		if err != nil {
			t.Fatal(err)
		}
		var order []int
		var mu sync.Mutex
		var wait sync.WaitGroup
		for i := range 3 {
			wait.Go(func() {
				leave, err := g.enter(ctx)
				if err != nil {
					t.Error(err)
					return
				}
				mu.Lock()
				order = append(order, i)
				mu.Unlock()
				leave()
			})
			synctest.Wait()
		}
		if _, err := g.enter(ctx); !errors.Is(err, errBusy) {
			t.Errorf("a fourth in a line of three: %v", err)
		}
		leave()
		wait.Wait()
		if fmt.Sprint(order) != "[0 1 2]" || g.waiting.Load() != 0 {
			t.Errorf("served in order %v, %d wait", order, g.waiting.Load())
		}
		leave, _ = g.enter(ctx)
		gone, stop := context.WithCancelCause(ctx)
		stop(errHungUp)
		if _, err := g.enter(gone); !errors.Is(err, errHungUp) || g.waiting.Load() != 0 {
			t.Errorf("who hung up: %v", err)
		}
		leave()
	})
}

// A panic in a stream or beside the requests is logged with its stack, is told
// to the client, and ends nothing else.
func TestPanicsStayWhereTheyAre(t *testing.T) {
	s, log := inside(t)
	for path, want := range map[string]string{"/breaks": "told: panic: on purpose", "/panics": "Something broke in Mallow"} {
		app := fiber.New(fiber.Config{ErrorHandler: s.fail})
		app.Use(s.logged)
		app.Get("/breaks", func(c fiber.Ctx) error {
			return s.stream(c, "text/plain", time.Minute, func(context.Context, pipe) error { panic("on purpose") },
				func(out pipe, err error) { fmt.Fprint(out, "told: ", err) })
		})
		app.Get("/panics", func(c fiber.Ctx) (err error) {
			defer s.recovered("here", func(e error) { err = e })
			panic("a handler")
		})
		l, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			t.Fatal(err)
		}
		go func() { _ = app.Listener(l, fiber.ListenConfig{DisableStartupMessage: true}) }()
		res, err := http.Get("http://" + l.Addr().String() + path)
		if err != nil {
			t.Fatal(err)
		}
		body, err := io.ReadAll(res.Body)
		if err != nil || !strings.Contains(string(body), want) {
			t.Errorf("%s: %q, %v", path, body, err)
		}
		if err := errors.Join(res.Body.Close(), app.Shutdown()); err != nil {
			t.Error(err)
		}
	}
	s.guarded(func() { panic("beside") })
	s.beside.Go(func() {})
	s.stop(errStopping)
	s.beside.Wait()
	for _, want := range []string{"on purpose", "beside", "inside_test.go"} {
		if !strings.Contains(log.String(), want) {
			t.Errorf("the log does not say %q", want)
		}
	}
}

// Every trouble has its own words, says what was kept and what to do, and is
// no plain 500.
func TestEveryTroubleHasItsWords(t *testing.T) {
	s, _ := inside(t)
	seen := map[string]bool{}
	for _, k := range []store.Kind{store.Full, store.ReadOnly, store.Busy, store.Damaged, store.Gone, store.Disk} {
		p := s.problem(asking{}, fmt.Errorf("saving: %w", store.Trouble{Kind: k, Err: syscall.EIO}))
		if p.Status < 503 || p.Title == "" || seen[p.Title] || len(p.Detail) < 60 {
			t.Errorf("%s: %+v", k, p)
		}
		seen[p.Title] = true
	}
	for err, status := range map[error]int{errTookTooLong: 503, errBusy: 503, errFilesBusy: 503, errHungUp: statusHungUp, errStopping: 503, context.Canceled: 503, errors.New("?"): 500} {
		if p := s.problem(asking{}, err); p.Status != status {
			t.Errorf("%v: %d", err, p.Status)
		}
	}
}

// What cannot be sent whole does not look whole: of a file the connection breaks, of an
// answer by lines the last one says why.
func TestWhatBrokeLooksBroken(t *testing.T) {
	s, _ := inside(t)
	wrong := error(nil)
	app := fiber.New(fiber.Config{ErrorHandler: s.fail})
	app.Get("/file", func(c fiber.Ctx) error {
		return s.file(c, "application/zip", time.Minute, func(_ context.Context, out pipe) error {
			_, err := out.WriteString("half of it")
			return errors.Join(err, out.Flush(), wrong)
		})
	})
	app.Get("/lines", func(c fiber.Ctx) error {
		return s.lines(c, time.Minute, func(_ context.Context, say func(any) error) error {
			return errors.Join(say(BoardLine{Done: 1, Of: 2}), wrong)
		})
	})
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	go func() { _ = app.Listener(l, fiber.ListenConfig{DisableStartupMessage: true}) }()
	defer func() { _ = app.Shutdown() }()
	ask := func(path string) (string, error) {
		t.Helper()
		res, err := http.Get("http://" + l.Addr().String() + path)
		if err != nil {
			return "", err
		}
		defer res.Body.Close()
		raw, err := io.ReadAll(res.Body)
		return string(raw), err
	}
	if raw, err := ask("/file"); err != nil || raw != "half of it" {
		t.Errorf("a whole file: %q %v", raw, err)
	}
	if raw, err := ask("/lines"); err != nil || !strings.HasSuffix(raw, "{\"end\":\"done\"}\n") {
		t.Errorf("a whole answer: %q %v", raw, err)
	}
	wrong = errTookTooLong
	if raw, err := ask("/file"); err == nil {
		t.Errorf("half a file looks whole: %q", raw)
	}
	if raw, err := ask("/lines"); err != nil || !strings.Contains(raw, `{"end":"failed","problem":{"title":"This took too long"`) {
		t.Errorf("a broken answer: %q %v", raw, err)
	}
}

// A listener that does not take its events is let go; nobody waits for it.
func TestSlowListenersAreLetGo(t *testing.T) {
	h := newHub()
	slow, _, _, _, _ := h.listen("", "")
	for i := range 3 * eventsKept {
		h.tell(Event{Job: "a", Revision: i, Kind: EventSaved})
	}
	n := 0
	for range slow {
		n++
	}
	if n != eventsWaiting || h.count() != 0 || len(h.last) > 2*eventsKept {
		t.Errorf("%d events waited, %d listen, %d kept", n, h.count(), len(h.last))
	}
	// Back again with the last that it took: what is still kept is told, else all is read again.
	_, missed, _, reset, _ := h.listen("", h.id(h.n-5))
	if len(missed) != 5 || reset {
		t.Errorf("%d missed, reset %v", len(missed), reset)
	}
	if _, missed, _, reset, _ = h.listen("", h.id(1)); len(missed) != 0 || !reset {
		t.Errorf("long ago: %d missed, reset %v", len(missed), reset)
	}
	for range mostListeners {
		h.listen("a", "")
	}
	if _, _, _, _, ok := h.listen("a", ""); ok {
		t.Error("more listen than may")
	}
}

// What is counted can be read, and the planner's line is among it.
func TestMetrics(t *testing.T) {
	s, _ := inside(t)
	if err := s.planned(context.Background(), "test", time.Second, func(stop func() error) error { return stop() }); err != nil {
		t.Fatal(err)
	}
	families, err := s.metrics.registry.Gather()
	if err != nil {
		t.Fatal(err)
	}
	var names []string
	for _, f := range families {
		names = append(names, f.GetName())
	}
	all := strings.Join(names, " ")
	for _, want := range []string{"mallow_plan_seconds", "mallow_plans_waiting", "mallow_listeners", "mallow_database_bytes", "mallow_panics_total", "go_goroutines"} {
		if !strings.Contains(all, want) {
			t.Errorf("no %s in %s", want, all)
		}
	}
}

// LockedLog is a log that many write and a test reads; the tests from outside
// use it too.
type LockedLog struct {
	sync.Mutex
	b bytes.Buffer
}

func (l *LockedLog) Write(p []byte) (int, error) {
	l.Lock()
	defer l.Unlock()
	return l.b.Write(p)
}

func (l *LockedLog) String() string {
	l.Lock()
	defer l.Unlock()
	return l.b.String()
}

package server_test

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/santhosh-tekuri/jsonschema/v6"

	"mallow/catalog"
	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/demo"
	"mallow/server"
	"mallow/standin"
	"mallow/store"
)

type client struct {
	t    *testing.T
	app  *fiber.App
	log  *server.LockedLog
	srv  *server.Server
	kept *store.Store
}

func start(t *testing.T) *client {
	t.Helper()
	return startLevel(t, standin.Level{Tilt: 0.1, Seed: 1})
}

func startLevel(t *testing.T, level standin.Level) *client {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	kept, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "jobs.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = kept.Close() })
	var log server.LockedLog
	web := fstest.MapFS{
		"index.html":      {Data: []byte("<!doctype html>")},
		"assets/index.js": {Data: []byte("1")},
	}
	s := server.New(server.Config{
		Store: kept, Catalog: cat, Web: web, Hosts: []string{"fence.test"}, Version: "test",
		Log: slog.New(slog.NewTextHandler(&log, &slog.HandlerOptions{Level: slog.LevelDebug})), Level: level,
	})
	t.Cleanup(s.Close) // before the store
	return &client{t, s.App, &log, s, kept}
}

// listed reads the list once every job in it is described.
func (c *client) listed(query string) server.JobList {
	c.t.Helper()
	var list server.JobList
	for range 200 {
		list = server.JobList{}
		c.must(200, "GET", "/api/jobs"+query, "", &list)
		if !slices.ContainsFunc(list.Jobs, func(j server.JobSummary) bool { return j.Pending }) {
			return list
		}
		time.Sleep(10 * time.Millisecond)
	}
	c.t.Fatal("the list is never described")
	return list
}

// ask sends a request and returns the status, the headers and the body.
func (c *client) ask(method, path, body string, header ...string) (int, http.Header, []byte) {
	c.t.Helper()
	req, err := http.NewRequest(method, "http://localhost"+path, strings.NewReader(body))
	if err != nil {
		c.t.Fatal(err)
	}
	for i := 0; i < len(header); i += 2 {
		if header[i] == "Host" {
			req.Host = header[i+1]
		}
		req.Header.Set(header[i], header[i+1])
	}
	res, err := c.app.Test(req, fiber.TestConfig{Timeout: 30 * time.Second, FailOnTimeout: true})
	if err != nil {
		c.t.Fatal(err)
	}
	defer res.Body.Close()
	out, err := io.ReadAll(res.Body)
	if err != nil {
		c.t.Fatal(err)
	}
	return res.StatusCode, res.Header, out
}

// must asks and decodes, failing on another status.
func (c *client) must(status int, method, path, body string, into any) {
	c.t.Helper()
	got, _, raw := c.ask(method, path, body)
	if got != status {
		c.t.Fatalf("%s %s: %d, want %d: %s", method, path, got, status, raw)
	}
	if into != nil {
		if err := json.Unmarshal(raw, into); err != nil {
			c.t.Fatalf("%s %s: %v in %s", method, path, err, raw)
		}
	}
}

func body(t *testing.T, v any) string {
	t.Helper()
	raw, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(raw)
}

func shippedNow(t *testing.T) materials.Catalog {
	t.Helper()
	c, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return c
}

func demoDoc(t *testing.T) string {
	t.Helper()
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	return string(docs[0])
}

func TestJobFromNewToBin(t *testing.T) {
	c := start(t)
	var job, next server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"Far side","system":"metric"}`, &job)
	if job.Revision != 1 || !strings.Contains(string(job.Doc), `"system":"metric"`) {
		t.Fatalf("got %+v", job)
	}
	path := "/api/jobs/" + job.ID
	c.must(200, "PUT", path, body(t, server.SaveRequest{Base: 1, Doc: server.Document(demoDoc(t)), What: strings.Repeat("long ", 90)}), &next)
	if next.Revision != 2 || !next.CanUndo || len([]rune(next.What)) > 201 {
		t.Fatalf("got revision %d, undo %v", next.Revision, next.CanUndo)
	}
	c.must(200, "POST", path+"/undo", `{"base":2}`, &next)
	c.must(200, "POST", path+"/redo", `{"base":1}`, &next)
	c.must(200, "POST", path+"/restore", `{"base":2,"revision":1}`, &next)
	if next.Revision != 3 || string(next.Doc) != string(job.Doc) {
		t.Fatalf("restored %d: %s", next.Revision, next.Doc)
	}
	var h server.History
	c.must(200, "GET", path+"/history", "", &h)
	if len(h.Revisions) != 3 || !h.Revisions[0].Current {
		t.Fatalf("history %+v", h)
	}
	c.must(204, "DELETE", path, "", nil)
	list := c.listed("?bin=true")
	if len(list.Jobs) != 1 || !list.Jobs[0].Deleted || list.Jobs[0].GoneAt == nil || list.Jobs[0].Name != "Far side" || list.Jobs[0].Missing != 3 {
		t.Fatalf("list %+v", list)
	}
	c.must(204, "POST", path+"/undelete", "{}", nil)
	if list = c.listed(""); len(list.Jobs) != 1 || list.Jobs[0].Deleted {
		t.Fatal("the list still says deleted")
	}
}

// A save on top of another window's: fields that do not touch each other are
// merged, the same field edited twice is asked about, and nothing is saved
// then.
func TestSavesOnTopOfEachOther(t *testing.T) {
	c := start(t)
	var j server.JobState
	c.must(201, "POST", "/api/jobs", body(t, server.CreateRequest{Doc: server.Document(demoDoc(t))}), &j)
	edited := func(edits ...job.Edit) server.Document {
		doc, err := document.Apply(j.Doc, edits)
		if err != nil {
			t.Fatal(err)
		}
		return doc
	}
	save := func(doc server.Document, what string) string {
		return body(t, server.SaveRequest{Base: 1, Doc: doc, What: what})
	}
	path, most, name := "/api/jobs/"+j.ID, job.Set("/lines/L1/runs/R1/spacing/most", 1800), job.Set("/name", "Here")
	c.must(200, "PUT", path, save(edited(most), "theirs"), nil)
	var both server.JobState
	c.must(200, "PUT", path, save(edited(name), "mine"), &both)
	if got, _, err := document.Decode(both.Doc, shippedNow(t)); err != nil || !both.Merged || both.Revision != 3 || got.Name != "Here" || got.Lines[0].Runs[0].Spacing.Most != 1800 {
		t.Fatalf("merged %v, revision %d, %v", both.Merged, both.Revision, err)
	}
	var p server.Problem
	c.must(409, "PUT", path, save(edited(job.Set("/name", "Elsewhere"), job.Set("/lines/L1/name", "L")), "third"), &p)
	if p.Current == nil || p.Current.Revision != 3 || len(p.Clashes) != 1 || p.Clashes[0].Path != "/name" || p.Clashes[0].Mine != "Elsewhere" || p.Clashes[0].Theirs != "Here" {
		t.Fatalf("%+v", p.Clashes)
	}
	if got, _, err := document.Decode(p.Merged, shippedNow(t)); err != nil || got.Name != "Here" || got.Lines[0].Name != "L" {
		t.Errorf("the merged job: %v %v", got.Name, err)
	}
	var head server.Head
	if c.must(200, "GET", path+"/head", "", &head); head.Revision != 3 {
		t.Errorf("revision %d is current, want 3: a clash saves nothing", head.Revision)
	}
}

// A gate that is too wide for its run is refused with the way out: a run as
// long as it asks for. Taken, it plans.
func TestRefusedGateOffersALongerRun(t *testing.T) {
	c := start(t)
	doc := `{"mallow":1,"name":"G","units":{"system":"imperial","smallestMark":1.5875},"site":{},"lines":[{"id":"L1","runs":[{"id":"R1","length":3048,"gates":[{"id":"G1","at":1524,"opening":4876.8,"gap":100}]}]}]}`
	var p server.Problem
	c.must(422, "POST", "/api/plan", doc, &p)
	if len(p.Ways) != 1 || len(p.Fields) == 0 {
		t.Fatalf("%+v", p)
	}
	changed, err := document.Apply([]byte(doc), p.Ways[0].Edits)
	if err != nil {
		t.Fatal(err)
	}
	if run := c.planOf(changed).Runs[0]; len(run.Gates) != 1 || len(run.Posts) != 2 || !strings.Contains(p.Ways[0].Says, "16'") {
		t.Errorf("%s: %d gates, %d posts", p.Ways[0].Says, len(run.Gates), len(run.Posts))
	}
}

// Bad input is answered with a status of the caller's, the field and what is
// allowed; never with a 500.
func TestBadInput(t *testing.T) {
	c := start(t)
	var job server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"A"}`, &job)
	path := "/api/jobs/" + job.ID
	for _, k := range []struct {
		method, path, body string
		status             int
		says               string
	}{
		{"POST", "/api/plan", "", 422, "/"},
		{"POST", "/api/plan", `{"mallow":1}`, 422, "/name"},
		{"POST", "/api/plan", `{"mallow":9}`, 422, "/mallow"},
		{"POST", "/api/jobs", `{"name":`, 400, "JSON"},
		{"POST", "/api/jobs", `{"name":""}`, 422, "/name"},
		{"POST", "/api/jobs", `{"doc":{"mallow":1}}`, 422, "/name"},
		{"PUT", path, `[]`, 400, "JSON"},
		{"PUT", path, `{"base":1,"doc":{},"what":""}`, 422, "/mallow"},
		{"PUT", path, `{"base":1}`, 422, "/"},
		{"PUT", "/api/jobs/none", `{"base":1,"doc":` + demoDoc(t) + `,"what":""}`, 404, "No such job"},
		{"POST", path + "/undo", `{"base":1}`, 422, "no such earlier"},
		{"POST", path + "/restore", `{"base":1,"revision":7}`, 422, "no such earlier"},
		{"GET", "/api/jobs/none", "", 404, "No such job"},
		{"GET", "/api/jobs/none/history", "", 404, "No such job"},
		{"DELETE", "/api/jobs/none", "", 404, "No such job"},
		{"GET", "/api/nothing", "", 404, "nothing at this address"},
	} {
		status, header, raw := c.ask(k.method, k.path, k.body)
		var p server.Problem
		if err := json.Unmarshal(raw, &p); err != nil || status != k.status || !strings.Contains(string(raw), k.says) || p.Status != status {
			t.Errorf("%s %s %.40s: %d %s", k.method, k.path, k.body, status, raw)
		}
		if got := header.Get("Content-Type"); got != "application/problem+json" {
			t.Errorf("%s %s: content type %s", k.method, k.path, got)
		}
	}
	var now server.JobState
	c.must(200, "GET", path, "", &now)
	if string(now.Doc) != string(job.Doc) || now.Revision != 1 {
		t.Error("a refused change was stored")
	}
}

func TestTapeReading(t *testing.T) {
	c := start(t)
	var r calls.Reading
	c.must(200, "GET", "/api/tape?system=imperial&text=8-6-1%2F2", "", &r)
	if !r.OK || r.Length != 2603.5 {
		t.Errorf("got %+v", r)
	}
	c.must(200, "GET", "/api/tape?system=imperial&text=131.5", "", &r)
	if !r.Bare || len(r.Others) != 2 || r.Others[0].Text != "131.5 ft" || r.Others[0].Length != 40081.2 {
		t.Errorf("got %+v", r)
	}
	var bad calls.Reading
	c.must(200, "GET", "/api/tape?text=8%27+x", "", &bad)
	if bad.OK || bad.Part != "x" || bad.Why == "" {
		t.Errorf("got %+v", bad)
	}
}

func TestGuards(t *testing.T) {
	c := start(t)
	for _, k := range []struct {
		what   string
		method string
		header []string
		status int
	}{
		{"loopback by name", "GET", []string{"Host", "localhost:8420"}, 200},
		{"loopback by number", "GET", []string{"Host", "127.0.0.1:1"}, 200},
		{"loopback, version 6", "GET", []string{"Host", "[::1]:8420"}, 200},
		{"a name it was given", "GET", []string{"Host", "Fence.Test:80"}, 200},
		{"another site's name for loopback", "GET", []string{"Host", "elsewhere.test"}, 421},
		{"another site's page", "POST", []string{"Sec-Fetch-Site", "cross-site"}, 403},
		{"another site's origin", "POST", []string{"Origin", "http://elsewhere.test"}, 403},
		{"a name that ends alike", "POST", []string{"Origin", "http://evil-localhost"}, 403},
		{"its own page", "POST", []string{"Sec-Fetch-Site", "same-origin", "Origin", "http://localhost"}, 422},
		{"a program", "POST", nil, 422},
	} {
		path := "/api/jobs"
		if k.method == "POST" {
			path = "/api/plan"
		}
		if status, _, raw := c.ask(k.method, path, "{}", k.header...); status != k.status {
			t.Errorf("%s: %d, want %d: %s", k.what, status, k.status, raw)
		}
	}
}

func TestFrontEndAndHeaders(t *testing.T) {
	c := start(t)
	for path, cache := range map[string]string{
		"/": "no-cache", "/assets/index.js": "public, max-age=31536000, immutable", "/healthz": "", "/api/version": "no-store",
	} {
		status, h, _ := c.ask("GET", path, "")
		csp := h.Get("Content-Security-Policy")
		if status != 200 || h.Get("Cache-Control") != cache || h.Get("Last-Modified") != "" {
			t.Errorf("%s: %d, cache %q, modified %q", path, status, h.Get("Cache-Control"), h.Get("Last-Modified"))
		}
		if !strings.Contains(csp, "default-src 'self'") || !strings.Contains(csp, "script-src 'self' 'wasm-unsafe-eval';") || strings.Count(csp, "unsafe") != 1 || h.Get("X-Frame-Options") != "DENY" || h.Get("X-Content-Type-Options") != "nosniff" {
			t.Errorf("%s: policy %q", path, csp)
		}
	}
	if status, _, _ := c.ask("GET", "/no/such/page", ""); status != 404 {
		t.Errorf("a page that is not there: %d", status)
	}
}

// A job that was stored by something newer or broken is listed with the
// reason, and does not take the list down.
func TestUnreadableJobIsListed(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	kept, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "jobs.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = kept.Close() })
	if _, err := kept.Create(context.Background(), store.Draft{Doc: []byte(`{"mallow":7}`), What: "newer"}); err != nil {
		t.Fatal(err)
	}
	s := server.New(server.Config{Store: kept, Catalog: cat, Web: fstest.MapFS{}, Log: slog.New(slog.DiscardHandler)})
	t.Cleanup(s.Close)
	c := &client{t, s.App, nil, s, kept}
	list := c.listed("")
	if len(list.Jobs) != 1 || !strings.Contains(list.Jobs[0].Problem, "newer Mallow") {
		t.Errorf("got %+v", list)
	}
	if status, _, raw := c.ask("GET", "/", ""); status != 503 || !strings.Contains(string(raw), "make build") {
		t.Errorf("without a built interface: %d %s", status, raw)
	}
}

// The published schemas and the code agree: what the server takes and gives
// is what they say.
func TestSchemas(t *testing.T) {
	c := start(t)
	compiler := jsonschema.NewCompiler()
	check := func(file string, raw []byte) error {
		s, err := compiler.Compile("../docs/" + file)
		if err != nil {
			t.Fatal(err)
		}
		v, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
		if err != nil {
			t.Fatal(err)
		}
		return s.Validate(v)
	}
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	var empty server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"Empty"}`, &empty)
	for _, doc := range append(docs, empty.Doc) {
		if err := check("job.schema.json", doc); err != nil {
			t.Error(err)
		}
		status, _, raw := c.ask("POST", "/api/plan", string(doc))
		if status != 200 {
			t.Fatalf("%d %s", status, raw)
		}
		if err := check("plan.schema.json", raw); err != nil {
			t.Error(err)
		}
	}
	for _, bad := range []string{
		`{"mallow":2}`,
		`{"mallow":3,"name":"a","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"a","runs":[{"id":"b"}]}]}`,
		`{"mallow":2,"name":"a","units":{"system":"feet","smallestMark":1},"site":{},"lines":[{"id":"a","runs":[{"id":"b"}]}]}`,
		`{"mallow":2,"name":"a","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"a","runs":[{"id":"b","length":3}]}]}`,
		`{"mallow":2,"name":"a","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"a","runs":[{"id":"b","keepOuts":[{}]}]}]}`,
	} {
		if err := check("job.schema.json", []byte(bad)); err == nil {
			t.Errorf("the schema takes %s", bad)
		}
		if status, _, _ := c.ask("POST", "/api/plan", bad); status != 422 {
			t.Errorf("the server takes %s", bad)
		}
	}
	var p plan.Plan
	c.must(200, "POST", "/api/plan", string(docs[0]), &p)
	if p.Mallow != plan.Version || len(p.Runs) != 3 || len(p.Lines) != 1 {
		t.Errorf("the plan reads back with %d lines, %d runs", len(p.Lines), len(p.Runs))
	}
}

func TestEveryChangeIsLogged(t *testing.T) {
	c := start(t)
	c.must(201, "POST", "/api/jobs", `{"name":"A"}`, nil)
	c.ask("POST", "/api/jobs", `{`)
	if log := c.log.String(); !strings.Contains(log, "status=201") || !strings.Contains(log, "status=400") || !strings.Contains(log, "path=/api/jobs") {
		t.Errorf("log: %s", log)
	}
}

// A request past the limit is answered with 413, over a real connection, and
// the server goes on answering.
func TestBodyLimit(t *testing.T) {
	c := start(t)
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	served := make(chan error, 1)
	go func() { served <- c.app.Listener(listener, fiber.ListenConfig{DisableStartupMessage: true}) }()
	for size, want := range map[int]int{5 << 20: http.StatusRequestEntityTooLarge, 1 << 10: http.StatusUnprocessableEntity} {
		// What is too long is refused by its header: its body is not sent,
		// and no write meets a connection that was closed.
		conn, err := net.Dial("tcp", listener.Addr().String())
		if err != nil {
			t.Fatal(err)
		}
		if err := conn.SetDeadline(time.Now().Add(time.Minute)); err != nil {
			t.Fatal(err)
		}
		body := strings.Repeat(" ", size)
		if want == http.StatusRequestEntityTooLarge {
			body = ""
		}
		if _, err := fmt.Fprintf(conn, "POST /api/plan HTTP/1.1\r\nHost: %s\r\nContent-Length: %d\r\n\r\n%s", listener.Addr(), size, body); err != nil {
			t.Fatalf("%d bytes: %v", size, err)
		}
		res, err := http.ReadResponse(bufio.NewReader(conn), nil)
		if err != nil {
			t.Fatalf("%d bytes: %v", size, err)
		}
		_, _ = res.Body.Close(), conn.Close()
		if res.StatusCode != want {
			t.Errorf("%d bytes were answered with %d, want %d", size, res.StatusCode, want)
		}
	}
	if err := c.app.Shutdown(); err != nil {
		t.Fatal(err)
	}
	if err := <-served; err != nil {
		t.Fatal(err)
	}
}

// What was seen stays seen: it cannot be taken out or changed by a save, and an
// earlier revision that is taken up again has it too. What was edited is kept
// beside each revision.
func TestFactsAreOnlyAdded(t *testing.T) {
	c := start(t)
	var kept server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+demoDoc(t)+`}`, &kept)
	put := func(status int, doc string) (s server.JobState) {
		t.Helper()
		code, _, raw := c.ask("PUT", "/api/jobs/"+kept.ID, fmt.Sprintf(`{"base":%d,"doc":%s,"what":"x"}`, kept.Revision, doc))
		if code != status {
			t.Fatalf("%d, want %d: %.300s", code, status, raw)
		}
		if status == 200 {
			if err := json.Unmarshal(raw, &kept); err != nil {
				t.Fatal(err)
			}
		}
		return kept
	}
	edited := func(edits ...job.Edit) string {
		t.Helper()
		doc, err := document.Apply(kept.Doc, edits)
		if err != nil {
			t.Fatal(err)
		}
		return string(doc)
	}
	put(200, edited(job.Set("/observed/f1", map[string]any{"id": "f1", "on": "post/R1.5", "what": "rock", "at": 9521, "value": 500})))
	put(200, edited(job.Set("/observed/f2", map[string]any{"id": "f2", "on": "post/R1.5", "what": "staked"}), job.Set("/name", "Named")))
	put(422, edited(job.Set("/observed/f1", nil)))
	put(422, edited(job.Set("/observed/f1/value", 600)))
	put(422, edited(job.Set("/observed/f3", map[string]any{"id": "f3", "on": "post/R1.5", "what": "struck out", "strikes": "f9"})))
	put(422, edited(job.Set("/observed/f3", map[string]any{"id": "f3", "on": "post/R1.5", "what": "depth"})))
	put(422, edited(job.Set("/observed/f3", map[string]any{"id": "f3", "on": "the moon", "what": "dug"})))
	var made server.Edits
	c.must(200, "GET", fmt.Sprintf("/api/jobs/%s/revisions/%d/edits", kept.ID, kept.Revision), "", &made)
	if paths := fmt.Sprint(made.Edits); !made.Known || !strings.Contains(paths, "/name Named") || !strings.Contains(paths, "/observed/f2") || strings.Contains(paths, "/observed/f1") {
		t.Errorf("edited: %v", made)
	}
	c.must(200, "GET", fmt.Sprintf("/api/jobs/%s/revisions/1/edits", kept.ID), "", &made)
	if made.Known {
		t.Errorf("the first revision was made of %v", made.Edits)
	}
	if code, _, _ := c.ask("GET", "/api/jobs/"+kept.ID+"/revisions/99/edits", ""); code != 404 {
		t.Errorf("a revision that is not there: %d", code)
	}
	c.must(200, "POST", "/api/jobs/"+kept.ID+"/restore", fmt.Sprintf(`{"base":%d,"revision":1}`, kept.Revision), &kept)
	j, _, err := document.Decode(kept.Doc, shippedNow(t))
	if err != nil || len(j.Observed) != 2 || j.Name == "Named" || j.Lines[0].Runs[0].Laid[4].Label != "P5" {
		t.Errorf("taken up again: %d facts, %s, %v, %v", len(j.Observed), j.Name, j.Lines[0].Runs[0].Laid[4], err)
	}
}

// A job that was saved as version 1 opens as version 2, says what it could not
// take over, and is saved so.
func TestVersion1IsOpenedAsVersion2(t *testing.T) {
	c := start(t)
	old, err := os.ReadFile("../core/document/testdata/version1/08-own-fields.json")
	if err != nil {
		t.Fatal(err)
	}
	var kept server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+string(old)+`}`, &kept)
	if !strings.Contains(string(kept.Doc), `"mallow":2`) || len(kept.Left) != 7 {
		t.Errorf("%s, %v", kept.Doc, kept.Left)
	}
	var again server.JobState
	c.must(200, "GET", "/api/jobs/"+kept.ID, "", &again)
	if !strings.Contains(string(again.Doc), `"observed.v1"`) || len(again.Left) != 0 {
		t.Errorf("%s, %v", again.Doc, again.Left)
	}
	if code, _, raw := c.ask("POST", "/api/jobs", `{"doc":`+strings.Replace(string(old), `"mallow": 1`, `"mallow": 3`, 1)+`}`); code != 422 || !strings.Contains(string(raw), "newer Mallow") {
		t.Errorf("version 3: %d %s", code, raw)
	}
}

// said are the lines of an answer that comes line by line, without the last one, which
// says that it is whole.
func said(t testing.TB, raw []byte) []json.RawMessage {
	t.Helper()
	var out []json.RawMessage
	for line := range bytes.Lines(raw) {
		out = append(out, bytes.TrimSpace(line))
	}
	if len(out) == 0 || string(out[len(out)-1]) != `{"end":"done"}` {
		t.Fatalf("an answer that broke off: %.400s", raw)
	}
	return out[:len(out)-1]
}

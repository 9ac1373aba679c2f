package server_test

import (
	"archive/zip"
	"bufio"
	"bytes"
	"compress/gzip"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/valyala/fasthttp"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/server"
	"mallow/store"
)

// listening serves the application on a port of its own.
func (c *client) listening() string {
	c.t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		c.t.Fatal(err)
	}
	go func() { _ = c.app.Listener(l, fiber.ListenConfig{DisableStartupMessage: true}) }()
	c.t.Cleanup(func() { c.srv.EndStreams(); _ = c.app.ShutdownWithTimeout(2 * time.Second) })
	return "http://" + l.Addr().String()
}

// A job whose names are emoji prints; what the fonts lack is a substitute.
func TestEmojiPrint(t *testing.T) {
	c := start(t)
	doc, err := document.Apply([]byte(demoDoc(t)), []job.Edit{job.Set("/name", "🦊🏡"), job.Set("/lines/L1/runs/R1/name", "👨‍👩‍👧"), job.Set("/lines/L1/runs/R1/gates/G1/name", "\U0001F6AA")})
	if err != nil {
		t.Fatal(err)
	}
	var kept server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+string(doc)+`}`, &kept)
	status, _, raw := c.ask("POST", "/api/jobs/"+kept.ID+"/print?sheet=load", "")
	lines := said(t, raw)
	var last server.Printing
	if err := json.Unmarshal(lines[len(lines)-1], &last); err != nil || status != 200 || last.Ready == "" {
		t.Fatalf("%d %s", status, raw)
	}
	if status, _, pdf := c.ask("GET", "/api/prints/"+last.Ready, ""); status != 200 || !bytes.HasPrefix(pdf, []byte("%PDF")) {
		t.Errorf("the print: %d", status)
	}
}

// 300 runs of 24 km are refused at save with what was given and what is
// allowed; stored already, they open to be read only and no list plans them.
func TestJobsOverTheLimit(t *testing.T) {
	c := start(t)
	var j map[string]any
	if err := json.Unmarshal([]byte(demoDoc(t)), &j); err != nil {
		t.Fatal(err)
	}
	line := j["lines"].([]any)[0].(map[string]any)
	var runs []any
	for i := range 300 {
		runs = append(runs, map[string]any{"id": fmt.Sprint("R", i), "length": 2.4e7})
	}
	line["runs"] = runs
	delete(line, "books")
	doc := body(t, j)
	var p server.Problem
	c.must(422, "POST", "/api/jobs", `{"doc":`+doc+`}`, &p)
	if len(p.Fields) == 0 || !strings.Contains(p.Fields[0].Given, "posts in the job") || !strings.Contains(p.Fields[0].Allowed, "at most 10,000 posts in one job") {
		t.Errorf("%+v", p.Fields)
	}
	kept, err := c.kept.Create(context.Background(), store.Draft{Doc: []byte(doc), What: "older", Name: "Long one"})
	if err != nil {
		t.Fatal(err)
	}
	c.must(201, "POST", "/api/jobs", `{"name":"Wakes the list"}`, nil)
	list := c.listed("")
	if len(list.Jobs) != 2 || !strings.Contains(list.Jobs[0].Problem+list.Jobs[1].Problem, "10,000 posts") {
		t.Errorf("%+v", list.Jobs)
	}
	var state server.JobState
	c.must(200, "GET", "/api/jobs/"+kept.Job, "", &state)
	if !strings.Contains(state.Problem, "10,000 posts") || state.Name != "Tansy Bank Orchard" {
		t.Errorf("opens with %q", state.Problem)
	}
	if status, head, raw := c.ask("GET", "/api/jobs/"+kept.Job+"/export?what=json", ""); status != 200 || string(raw) != doc || !strings.Contains(head.Get("Content-Disposition"), "Tansy Bank Orchard") {
		t.Errorf("taken out: %d, %s", status, head.Get("Content-Disposition"))
	}
	for _, path := range []string{"/export?what=pdf", "/pages", "/page.svg"} {
		if status, _, _ := c.ask("GET", "/api/jobs/"+kept.Job+path, ""); status != 422 {
			t.Errorf("%s: %d", path, status)
		}
	}
}

// A packed body is refused before it unfolds.
func TestPackedBodiesAreRefused(t *testing.T) {
	c := start(t)
	var bomb bytes.Buffer
	z := gzip.NewWriter(&bomb)
	if _, err := z.Write(make([]byte, 64<<20)); err != nil || z.Close() != nil {
		t.Fatal(err)
	}
	for _, encoding := range []string{"gzip", "deflate", "br", "zstd", "gzip, gzip", "x-unknown"} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		status, head, _ := c.ask("POST", "/api/plan", bomb.String(), "Content-Encoding", encoding)
		runtime.ReadMemStats(&after)
		if status != 415 || head.Get("Accept-Encoding") != "identity" || after.TotalAlloc-before.TotalAlloc > 16<<20 {
			t.Errorf("%s: %d, %d MB", encoding, status, (after.TotalAlloc-before.TotalAlloc)>>20)
		}
	}
	if status, _, _ := c.ask("POST", "/api/plan", demoDoc(t), "Content-Encoding", "identity"); status != 200 {
		t.Errorf("identity: %d", status)
	}
}

func TestMethodsThatAreNotThere(t *testing.T) {
	c := start(t)
	for path, allow := range map[string]string{"/api/plan": "POST", "/api/jobs": "HEAD, GET, POST", "/api/jobs/x": "HEAD, GET, PUT, PATCH, DELETE", "/healthz": "HEAD, GET"} {
		status, head, _ := c.ask("TRACE", path, "")
		if status != 405 || head.Get("Allow") != allow {
			t.Errorf("%s: %d, Allow %q", path, status, head.Get("Allow"))
		}
	}
}

// Only who is on this machine may call it localhost.
func TestLocalhostFromAfar(t *testing.T) {
	c := start(t)
	for peer, want := range map[string]int{"127.0.0.1:5": 200, "[::1]:5": 200, "192.0.2.7:5": 421, "[2001:db8::7]:5": 421} {
		for _, host := range []string{"localhost", "127.0.0.1", "[::1]:8420"} {
			addr, err := net.ResolveTCPAddr("tcp", peer)
			if err != nil {
				t.Fatal(err)
			}
			var req fasthttp.Request
			req.SetRequestURI("/api/version")
			req.SetHost(host)
			var ctx fasthttp.RequestCtx
			ctx.Init(&req, addr, nil)
			c.app.Handler()(&ctx)
			if got := ctx.Response.StatusCode(); got != want {
				t.Errorf("%s from %s: %d, want %d", host, peer, got, want)
			}
		}
	}
}

// The list comes in pages and is searched, in any case and script.
func TestListPagesAndSearch(t *testing.T) {
	c := start(t)
	for i := range 7 {
		c.must(201, "POST", "/api/jobs", body(t, server.CreateRequest{Name: fmt.Sprintf("Łąka %d", i)}), nil)
	}
	c.must(201, "POST", "/api/jobs", `{"name":"Heron Lane"}`, nil)
	seen := map[string]bool{}
	for skip := 0; skip < 9; skip += 3 {
		list := c.listed(fmt.Sprintf("?most=3&skip=%d", skip))
		if list.Count != 8 || len(list.Jobs) != min(3, 8-skip) {
			t.Errorf("page at %d: %d of %d", skip, len(list.Jobs), list.Count)
		}
		for _, j := range list.Jobs {
			seen[j.ID] = true
		}
	}
	if len(seen) != 8 {
		t.Errorf("%d jobs on the pages", len(seen))
	}
	for words, want := range map[string]int{"łąka": 7, "ŁĄKA%205": 1, "heron": 1, "lane+heron": 1, "swan": 0, "%25": 0} {
		if list := c.listed("?words=" + words); list.Count != want {
			t.Errorf("%s: %d, want %d", words, list.Count, want)
		}
	}
	for _, bad := range []string{"?most=0", "?most=100000", "?skip=-1", "?words=" + strings.Repeat("x", 300)} {
		if status, _, _ := c.ask("GET", "/api/jobs"+bad, ""); status != 422 {
			t.Errorf("%.20s: %d", bad, status)
		}
	}
}

// A backup is made and put back through the API; what was there before is the
// newest backup then. All jobs come out in one file.
func TestKeeping(t *testing.T) {
	c := start(t)
	var j server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"Before/after: \"x\""}`, &j)
	var k server.Keeping
	c.must(200, "POST", "/api/keeping/backups", "{}", &k)
	if len(k.Backups) != 1 || k.Jobs != 1 || k.Folder != filepath.Dir(c.kept.Path()) || !k.Tidying.On {
		t.Fatalf("%+v", k)
	}
	first := k.Backups[0].Name
	c.must(201, "POST", "/api/jobs", `{"name":"Later"}`, nil)
	c.must(200, "POST", "/api/keeping/restore", body(t, server.BackupRequest{Name: first}), &k)
	if k.Jobs != 1 || len(k.Backups) != 2 || k.Backups[0].Why != "before-restore" {
		t.Fatalf("%+v", k)
	}
	c.must(200, "POST", "/api/keeping/restore", body(t, server.BackupRequest{Name: k.Backups[0].Name}), &k)
	if k.Jobs != 2 {
		t.Fatalf("the putting back was not undone: %+v", k)
	}
	c.must(404, "POST", "/api/keeping/restore", `{"name":"../../etc/passwd"}`, nil)
	c.must(200, "PUT", "/api/keeping/tidying", `{"on":false}`, &k)
	if k.Tidying.On {
		t.Error("still on")
	}
	var h server.History
	c.must(204, "POST", "/api/jobs/"+j.ID+"/pin", `{"revision":1,"pinned":true}`, nil)
	c.must(200, "GET", "/api/jobs/"+j.ID+"/history?most=1", "", &h)
	if page := h.Revisions; len(page) != 1 {
		t.Errorf("a page of one has %d", len(page))
	}
	c.must(200, "GET", "/api/jobs/"+j.ID+"/history?before=2", "", &h)
	if len(h.Revisions) != 1 || !h.Revisions[0].Pinned || h.More {
		t.Errorf("not pinned: %+v", h)
	}
	for _, bad := range []string{"before=-1", "most=0", "most=201"} {
		if status, _, raw := c.ask("GET", "/api/jobs/"+j.ID+"/history?"+bad, ""); status != 422 || !strings.Contains(string(raw), bad[:4]) {
			t.Errorf("%s: %d %s", bad, status, raw)
		}
	}
	c.must(404, "POST", "/api/jobs/"+j.ID+"/pin", `{"revision":9,"pinned":true}`, nil)
	c.must(204, "DELETE", "/api/jobs/"+j.ID, "", nil)
	_, _, raw := c.ask("GET", "/api/jobs.zip", "")
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	if err != nil || len(z.File) != 2 {
		t.Fatalf("%d bytes: %v", len(raw), err)
	}
	names := z.File[0].Name + "\n" + z.File[1].Name
	if !strings.Contains(names, "bin/Before-after- -x- "+j.ID+".json") || !strings.Contains(names, "Later ") {
		t.Errorf("files %q", names)
	}
}

// Trouble with the disk is said as what it is, and health is not well then.
func TestTroubleIsSaid(t *testing.T) {
	c := start(t)
	c.must(201, "POST", "/api/jobs", `{"name":"A"}`, nil)
	if _, err := c.kept.BackUpNow(context.Background(), "asked"); err != nil {
		t.Fatal(err)
	}
	away := c.kept.Path() + ".away"
	if err := os.Rename(c.kept.Path(), away); err != nil {
		t.Fatal(err)
	}
	var p server.Problem
	c.must(503, "POST", "/api/jobs", `{"name":"B"}`, &p)
	if p.Title != "The database was taken away" || !strings.Contains(p.Detail, "-asked.db") {
		t.Errorf("%+v", p)
	}
	c.must(503, "GET", "/healthz", "", nil)
	var k server.Keeping
	c.must(200, "GET", "/api/keeping", "", &k)
	if !strings.Contains(k.Trouble, "taken away") {
		t.Errorf("keeping says %q", k.Trouble)
	}
	if err := os.Rename(away, c.kept.Path()); err != nil {
		t.Fatal(err)
	}
	c.must(201, "POST", "/api/jobs", `{"name":"B"}`, nil)
	c.must(200, "GET", "/healthz", "", nil)
}

// hear reads the next event of a stream.
func hear(t *testing.T, in *bufio.Reader) (id string, e server.Event) {
	t.Helper()
	for {
		line, err := in.ReadString('\n')
		if err != nil {
			t.Fatal(err)
		}
		if rest, ok := strings.CutPrefix(line, "id: "); ok {
			id = strings.TrimSpace(rest)
		}
		if rest, ok := strings.CutPrefix(line, "data: "); ok {
			if err := json.Unmarshal([]byte(rest), &e); err != nil {
				t.Fatal(err)
			}
			return id, e
		}
	}
}

func listen(t *testing.T, url, since string) *bufio.Reader {
	t.Helper()
	ctx, stop := context.WithTimeout(context.Background(), 20*time.Second)
	t.Cleanup(stop)
	req, err := http.NewRequestWithContext(ctx, "GET", url, nil)
	if err != nil {
		t.Fatal(err)
	}
	req.Header.Set("Last-Event-ID", since)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { res.Body.Close() })
	in := bufio.NewReader(res.Body)
	for line := ""; line != "\n"; { // the greeting
		if line, err = in.ReadString('\n'); err != nil {
			t.Fatal(err)
		}
	}
	return in
}

// Windows hear of what others do, to one job or to all; who comes back hears
// what it missed, or is told to read everything again.
func TestLiveEvents(t *testing.T) {
	c := start(t)
	url := c.listening()
	var a, b server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"A"}`, &a)
	c.must(201, "POST", "/api/jobs", `{"name":"B"}`, &b)
	c.listed("")
	one, all := listen(t, url+"/api/live?job="+a.ID, ""), listen(t, url+"/api/live", "")
	c.must(204, "DELETE", "/api/jobs/"+b.ID, "", nil)
	c.must(200, "PUT", "/api/jobs/"+a.ID, body(t, server.SaveRequest{Base: 1, Doc: a.Doc, What: "Again"}), nil)
	id, e := hear(t, one)
	if e.Kind != server.EventSaved || e.Job != a.ID || e.Revision != 2 || e.What != "Again" {
		t.Errorf("heard %+v", e)
	}
	if _, e := hear(t, all); e.Kind != server.EventDeleted || e.Job != b.ID {
		t.Errorf("the list heard %+v", e)
	}
	if _, e := hear(t, all); e.Kind != server.EventSaved {
		t.Errorf("the list heard %+v", e)
	}
	c.must(204, "POST", "/api/jobs/"+b.ID+"/undelete", "{}", nil)
	late := listen(t, url+"/api/live?job="+b.ID, id)
	if _, e := hear(t, late); e.Kind != server.EventPutBack && e.Kind != server.EventDescribed {
		t.Errorf("missed %+v", e)
	}
	for _, since := range []string{"nonsense", "elsewhere-3", strings.Split(id, "-")[0] + "-99999"} {
		if _, e := hear(t, listen(t, url+"/api/live", since)); e.Kind != server.EventReset {
			t.Errorf("since %s: %+v", since, e)
		}
	}
}

// Who hangs up while a plan is made ends it, and the place in line is free.
func TestHangingUpEndsThePlan(t *testing.T) {
	c := start(t)
	url := strings.TrimPrefix(c.listening(), "http://")
	// How soon the planning begins and ends is the machine's affair: so hang up
	// sooner and later.
	for try := range 10 {
		conn, err := net.Dial("tcp", url)
		if err != nil {
			t.Fatal(err)
		}
		doc := slowDoc(t, try)
		fmt.Fprintf(conn, "POST /api/plan HTTP/1.1\r\nHost: localhost\r\nContent-Length: %d\r\n\r\n%s", len(doc), doc)
		time.Sleep(time.Duration(20<<(try%5)) * time.Millisecond)
		conn.Close()
		for range 500 { // far longer than it takes, for slow machines
			log := c.log.String()
			if strings.Contains(log, "status=499") {
				return
			}
			if strings.Count(log, "path=/api/plan") > try {
				break // it was too late this time
			}
			time.Sleep(10 * time.Millisecond)
		}
	}
	t.Errorf("the plan went on: %s", c.log.String())
}

// slowDoc takes most of a second to plan, and is another one each time.
func slowDoc(t *testing.T, n int) string {
	t.Helper()
	ground := make([]job.GroundPoint, 2000)
	for k := range ground {
		ground[k] = job.GroundPoint{At: length.Length(k) * 1700, Height: 100 * length.Length(math.Sin(float64(k*k%977)))}
	}
	doc, err := document.Apply([]byte(demoDoc(t)), []job.Edit{
		job.Set("/lines/L1/runs/R1/grade/look", "rolling"), job.Set("/lines/L1/runs/R1/length", 3.4e6+float64(n)), job.Set("/lines/L1/runs/R1/ground", ground),
	})
	if err != nil {
		t.Fatal(err)
	}
	return string(doc)
}

// Health answers quickly while the planner is busy, and those over the line
// are told to come back.
func TestThePlannerHasALine(t *testing.T) {
	c := start(t)
	url := c.listening()
	doc := demoDoc(t)
	codes := make(chan int, 200)
	for range 160 {
		go func() {
			res, err := http.Post(url+"/api/plan", "application/json", strings.NewReader(doc))
			if err != nil {
				codes <- 0
				return
			}
			_, _ = io.Copy(io.Discard, res.Body)
			if res.StatusCode == 503 && res.Header.Get("Retry-After") == "" {
				codes <- -1
			} else {
				codes <- res.StatusCode
			}
			res.Body.Close()
		}()
	}
	for range 5 {
		if res, err := http.Get(url + "/healthz"); err != nil || res.StatusCode != 200 {
			t.Errorf("health: %v", err)
		} else {
			res.Body.Close()
		}
	}
	count := map[int]int{}
	for range 160 {
		count[<-codes]++
	}
	if count[200] == 0 || count[200]+count[503] != 160 {
		t.Errorf("answers %v", count)
	}
}

// Another program that keeps the database locked is named as such, and what
// is only read is still answered.
func TestLockedByAnotherProgram(t *testing.T) {
	if testing.Short() {
		t.Skip("waits for the database as long as a save does")
	}
	c := start(t)
	c.must(201, "POST", "/api/jobs", `{"name":"A"}`, nil)
	other, err := sql.Open("sqlite", "file:"+c.kept.Path()+"?_pragma=busy_timeout(5000)")
	if err != nil {
		t.Fatal(err)
	}
	defer other.Close()
	other.SetMaxOpenConns(1)
	if _, err := other.Exec("BEGIN IMMEDIATE"); err != nil {
		t.Fatal(err)
	}
	var p server.Problem
	res, err := http.Post(c.listening()+"/api/jobs", "application/json", strings.NewReader(`{"name":"B"}`))
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	status := res.StatusCode
	if err := errors.Join(err, json.Unmarshal(raw, &p)); err != nil || status != 503 || p.Title != "Another program holds the jobs" {
		t.Errorf("%d %s", status, raw)
	}
	c.must(200, "GET", "/api/jobs", "", nil)
	if _, err := other.Exec("ROLLBACK"); err != nil {
		t.Fatal(err)
	}
	c.must(201, "POST", "/api/jobs", `{"name":"B"}`, nil)
}

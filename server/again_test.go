package server_test

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"mallow/core/job"
	"mallow/server"
	"mallow/store"
)

// Going back: what the server had in its memory of the job is of the database that was
// replaced. Revisions are named by it too, so that a page of before is told, merged with
// what stands there now, and never saved over it.
func TestAReplacedDatabaseIsAnotherOne(t *testing.T) {
	c := start(t)
	ctx := context.Background()
	var made server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"One"}`, &made)
	path := "/api/jobs/" + made.ID
	edit := func(status int, base server.JobState, field, value string) (s server.Saved) {
		t.Helper()
		c.must(status, "PATCH", path, body(t, server.EditRequest{Base: base.Revision, Generation: base.Generation, Edits: []job.Edit{job.Set(field, value)}, What: value}), &s)
		return s
	}
	now := func() (s server.JobState) {
		t.Helper()
		c.must(200, "GET", path, "", &s)
		return s
	}
	notes := func(s server.JobState) string {
		var d struct{ Notes string }
		if err := json.Unmarshal(s.Doc, &d); err != nil {
			t.Fatal(err)
		}
		return d.Notes
	}
	older, err := c.kept.BackUpNow(ctx, "asked")
	if err != nil {
		t.Fatal(err)
	}
	edit(200, made, "/notes", "A")
	a := now()
	c.must(200, "POST", "/api/keeping/restore", body(t, server.BackupRequest{Name: older.Name}), nil)
	back := now()
	if notes(back) != "" || back.Generation == a.Generation || back.Revision == a.Revision {
		t.Fatalf("%+v", back)
	}
	edit(200, back, "/notes", "C")
	list, err := c.kept.Backups()
	if err != nil {
		t.Fatal(err)
	}
	var before string
	for _, b := range list {
		if b.Why == "before-restore" {
			before = b.Name
			break
		}
	}
	stale := now()
	c.must(200, "POST", "/api/keeping/restore", body(t, server.BackupRequest{Name: before}), nil)
	third := now()
	if notes(third) != "A" {
		t.Fatalf("the database holds %q", notes(third))
	}
	// Edits of a page that shows C are refused with what is there now; with what they
	// were made to they are laid over it.
	for _, of := range []server.JobState{stale, back, made} {
		status, _, raw := c.ask("PATCH", path, body(t, server.EditRequest{Base: of.Revision, Generation: of.Generation, Edits: []job.Edit{job.Set("/name", "Mine")}, What: "x"}))
		var p server.Problem
		if err := json.Unmarshal(raw, &p); err != nil || status != 409 || p.Current == nil || notes(*p.Current) != "A" || p.Clashes != nil {
			t.Errorf("%d %.300s", status, raw)
		}
	}
	for _, way := range []string{"undo", "redo"} {
		if status, _, _ := c.ask("POST", path+"/"+way, body(t, server.MoveRequest{Base: third.Revision, Generation: stale.Generation})); status != 409 {
			t.Errorf("%s from a page of before: %d", way, status)
		}
	}
	mine := strings.Replace(string(stale.Doc), `"One"`, `"Mine"`, 1)
	var merged server.JobState
	c.must(200, "PUT", path, body(t, server.SaveRequest{Base: stale.Revision, Generation: stale.Generation, From: stale.Doc, Doc: server.Document(mine), What: "x"}), &merged)
	if !merged.Merged || notes(merged) != "A" || merged.Name != "Mine" {
		t.Errorf("laid over: %q %q", notes(merged), merged.Name)
	}
	// Where both changed the same, it is asked about.
	mine = strings.Replace(string(stale.Doc), `"C"`, `"D"`, 1)
	status, _, raw := c.ask("PUT", path, body(t, server.SaveRequest{Base: stale.Revision, Generation: stale.Generation, From: stale.Doc, Doc: server.Document(mine), What: "x"}))
	if status != 409 || !bytes.Contains(raw, []byte(`"clashes"`)) || notes(now()) != "A" {
		t.Errorf("%d %.300s", status, raw)
	}
	// A page that does not say of which database it is is known by the number, which is
	// never given twice.
	if status, _, _ := c.ask("PATCH", path, body(t, server.EditRequest{Base: a.Revision, Edits: []job.Edit{job.Set("/name", "x")}, What: "x"})); status != 200 && status != 409 {
		t.Errorf("%d", status)
	}
}

// Facts stay whatever is saved, by whichever way, on whichever base.
func TestEveryPathKeepsFacts(t *testing.T) {
	c := start(t)
	var made server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+demoDoc(t)+`}`, &made)
	path := "/api/jobs/" + made.ID
	var saved server.Saved
	c.must(200, "PATCH", path, body(t, server.EditRequest{Base: 1, Generation: made.Generation, Edits: []job.Edit{job.Set("/observed/q1", map[string]any{"id": "q1", "on": "post/R1.2", "what": "dug"})}, What: "dug"}), &saved)
	without := made.Doc // the document before the fact
	var j map[string]any
	if err := json.Unmarshal(without, &j); err != nil {
		t.Fatal(err)
	}
	j["notes"] = "without"
	mine := server.Document(body(t, j))
	for name, req := range map[string]server.SaveRequest{
		"on the current revision":           {Base: saved.Revision, Generation: saved.Generation, Doc: mine},
		"that says what it was made of":     {Base: saved.Revision, From: made.Doc, Doc: mine},
		"of a base that is not there":       {Base: 99, Doc: mine},
		"of another database":               {Base: 1, Generation: "0123", Doc: mine},
		"laid over, from one with the fact": {Base: 1, Generation: "0123", From: current(c, path).Doc, Doc: mine},
	} {
		req.What = name
		if status, _, raw := c.ask("PUT", path, body(t, req)); status < 400 || status >= 500 {
			t.Errorf("%s: %d %.200s", name, status, raw)
		}
	}
	// On the base it was made to, it is laid over what came since, which it has then.
	c.must(200, "PUT", path, body(t, server.SaveRequest{Base: 1, Doc: mine, What: "merged"}), nil)
	c.must(200, "POST", path+"/restore", body(t, server.MoveRequest{Base: current(c, path).Revision, Revision: 1}), nil)
	if got := current(c, path); !bytes.Contains(got.Doc, []byte(`"q1"`)) {
		t.Errorf("the fact is gone: %.300s", got.Doc)
	}
	// A current document that cannot be planned has facts too.
	broken := bytes.Replace(current(c, path).Doc, []byte(`"mallow":2`), []byte(`"mallow":2,"units":7`), 1)
	broken = bytes.Replace(broken, []byte(`"units":{`), []byte(`"unit":{`), 1)
	r, err := c.kept.Get(context.Background(), made.ID)
	if err != nil {
		t.Fatal(err)
	}
	head, err := c.kept.Save(context.Background(), made.ID, r.At(), store.Draft{Doc: broken, What: "broken", Name: "x"})
	if err != nil {
		t.Fatal(err)
	}
	if status, _, _ := c.ask("PUT", path, body(t, server.SaveRequest{Base: head.Number, Doc: without, What: "x"})); status != 422 {
		t.Errorf("over a broken document facts are lost: %d", status)
	}
	c.must(200, "POST", path+"/restore", body(t, server.MoveRequest{Base: head.Number, Revision: 1}), nil)
	if got := current(c, path); !bytes.Contains(got.Doc, []byte(`"q1"`)) {
		t.Error("put back over a broken document, the facts are gone")
	}
}

func current(c *client, path string) (s server.JobState) {
	c.t.Helper()
	c.must(200, "GET", path, "", &s)
	return s
}

// Edits put nothing into a document that is deeper than one is read.
func TestEditsAreNoDeeperThanDocuments(t *testing.T) {
	c := start(t)
	var made server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"One"}`, &made)
	path := "/api/jobs/" + made.ID
	deep := strings.Repeat(`{"a":`, 9990) + "1" + strings.Repeat("}", 9990)
	for _, at := range []string{"/mine", "/observed/f1", "/lines/L1/mine"} {
		if status, _, raw := c.ask("PATCH", path, `{"base":1,"what":"x","edits":[{"path":"`+at+`","value":`+deep+`}]}`); status != 422 || !bytes.Contains(raw, []byte("levels")) {
			t.Errorf("%s: %d %.200s", at, status, raw)
		}
	}
	fine := strings.Repeat(`{"a":`, 20) + "1" + strings.Repeat("}", 20)
	c.must(200, "PATCH", path, `{"base":1,"what":"x","edits":[{"path":"/mine","value":`+fine+`}]}`, nil)
	c.must(200, "PATCH", path, `{"base":1,"what":"y","edits":[{"path":"/notes","value":"stale"}]}`, nil)
}

// Whoever sends too much without waiting for an answer reads the refusal, and not that
// the connection broke.
func TestTooMuchIsRefusedAndNotReset(t *testing.T) {
	c := start(t)
	at := strings.TrimPrefix(c.listening(), "http://")
	for _, chunked := range []bool{false, true} {
		conn, err := net.Dial("tcp", at)
		if err != nil {
			t.Fatal(err)
		}
		if err := conn.SetDeadline(time.Now().Add(time.Minute)); err != nil {
			t.Fatal(err)
		}
		const size = 12 << 20
		var sent error
		if chunked {
			_, sent = fmt.Fprintf(conn, "PUT /api/jobs/x HTTP/1.1\r\nHost: %s\r\nTransfer-Encoding: chunked\r\n\r\n%x\r\n%s\r\n0\r\n\r\n", at, size, strings.Repeat(" ", size))
		} else {
			_, sent = fmt.Fprintf(conn, "PUT /api/jobs/x HTTP/1.1\r\nHost: %s\r\nContent-Length: %d\r\n\r\n%s", at, size, strings.Repeat(" ", size))
		}
		res, err := http.ReadResponse(bufio.NewReader(conn), nil)
		if sent != nil || err != nil || res.StatusCode != http.StatusRequestEntityTooLarge {
			t.Errorf("chunked %v: %v, %v, %v", chunked, sent, err, res)
		}
		_ = conn.Close() // it was answered
	}
}

// A photograph is deleted for good: nobody gets it, its bytes are in no page of the
// database, and a backup that is put back does not bring it back. A job in the bin shows
// none.
func TestPhotographsAreDeletedForGood(t *testing.T) {
	c := start(t)
	ctx := context.Background()
	var made server.JobState
	c.must(201, "POST", "/api/jobs", `{"name":"One"}`, &made)
	at := "/api/jobs/" + made.ID + "/photos"
	var kept, stays server.KeptPhoto
	raw := picture(t, 640, 480)
	c.must(201, "POST", at, raw, &kept)
	c.must(201, "POST", at, picture(t, 20, 20), &stays)
	status, head, _ := c.ask("GET", at+"/"+kept.ID, "")
	if status != 200 || head.Get("Cache-Control") != "private, no-cache" {
		t.Errorf("%d %v", status, head)
	}
	if status, _, again := c.ask("GET", at+"/"+kept.ID, "", "If-None-Match", head.Get("ETag")); status != 304 || len(again) != 0 {
		t.Errorf("asked again: %d, %d bytes", status, len(again))
	}
	backup, err := c.kept.BackUpNow(ctx, "asked")
	if err != nil {
		t.Fatal(err)
	}
	c.must(204, "DELETE", at+"/"+kept.ID, "", nil)
	c.must(404, "DELETE", at+"/"+kept.ID, "", nil)
	gone := func(when string) {
		t.Helper()
		if status, _, _ := c.ask("GET", at+"/"+kept.ID, "", "If-None-Match", head.Get("ETag")); status != 404 {
			t.Errorf("%s: %d", when, status)
		}
		var all server.KeptPhotos
		if c.must(200, "GET", at, "", &all); len(all.Photos) != 1 || all.Photos[0].ID != stays.ID {
			t.Errorf("%s: %+v", when, all)
		}
	}
	gone("deleted")
	later, err := c.kept.BackUpNow(ctx, "asked")
	if err != nil {
		t.Fatal(err)
	}
	for _, file := range []string{c.kept.Path(), c.kept.Path() + "-wal", later.Path} {
		if holds(t, file, raw[len(raw)/2:len(raw)/2+200]) {
			t.Errorf("%s still holds it", file)
		}
	}
	if !holds(t, backup.Path, raw[len(raw)/2:len(raw)/2+200]) {
		t.Error("the backup of before does not hold it: the test looks for nothing")
	}
	c.must(200, "POST", "/api/keeping/restore", body(t, server.BackupRequest{Name: backup.Name}), nil)
	gone("after an older backup was put back")
	c.must(204, "DELETE", "/api/jobs/"+made.ID, "", nil)
	for _, path := range []string{at, at + "/" + stays.ID, at + ".zip"} {
		if status, _, _ := c.ask("GET", path, ""); status != 404 {
			t.Errorf("in the bin, %s: %d", path, status)
		}
	}
	if status, _, _ := c.ask("POST", at, raw); status != 404 {
		t.Errorf("in the bin, one more: %d", status)
	}
}

// Prints are kept for whoever printed them, whatever others print meanwhile.
func TestPrintsAreKeptByJob(t *testing.T) {
	c := start(t)
	ready := func(path string) string {
		t.Helper()
		_, _, raw := c.ask("POST", path+"/print?sheet=load", "{}")
		lines := said(t, raw)
		var last server.Printing
		if err := json.Unmarshal(lines[len(lines)-1], &last); err != nil || last.Ready == "" {
			t.Fatalf("%s", raw)
		}
		return "/api/prints/" + last.Ready
	}
	var paths []string
	for range 2 {
		var made server.JobState
		c.must(201, "POST", "/api/jobs", `{"doc":`+demoDoc(t)+`}`, &made)
		paths = append(paths, "/api/jobs/"+made.ID)
	}
	mine := ready(paths[0])
	var theirs []string
	for range 6 {
		theirs = append(theirs, ready(paths[1]))
	}
	if status, _, _ := c.ask("GET", mine, ""); status != 200 {
		t.Errorf("others printed six times, and mine is gone: %d", status)
	}
	for i, at := range theirs {
		want := 200
		if i < 2 { // of one job the last four are kept
			want = 404
		}
		if status, _, _ := c.ask("GET", at, ""); status != want {
			t.Errorf("theirs, %d: %d", i, status)
		}
	}
}

// A replica in trouble is seen where one looks.
func TestAReplicaInTroubleIsSeen(t *testing.T) {
	c := start(t)
	if status, _, raw := c.ask("GET", "/readyz", ""); status != 200 || string(raw) != "ready\n" {
		t.Errorf("%d %s", status, raw)
	}
	wrong := "its disk is full"
	c.srv.Replica = &server.Replica{At: "/mnt/other", Look: func() server.ReplicaState {
		return server.ReplicaState{At: "/mnt/other", Wrong: wrong, Behind: true}
	}}
	if status, _, raw := c.ask("GET", "/readyz", ""); status != 503 || !strings.Contains(string(raw), "/mnt/other") || !strings.Contains(string(raw), wrong) {
		t.Errorf("%d %s", status, raw)
	}
	var k server.Keeping
	if c.must(200, "GET", "/api/keeping", "", &k); k.Replica == nil || k.Replica.Wrong != wrong || !k.Replica.Behind {
		t.Errorf("%+v", k.Replica)
	}
	c.must(200, "GET", "/healthz", "", nil)
	wrong = ""
	if status, _, _ := c.ask("GET", "/readyz", ""); status != 200 {
		t.Errorf("all is well: %d", status)
	}
}

// holds tells whether a file has some bytes in it.
func holds(t *testing.T, file, some string) bool {
	t.Helper()
	raw, err := os.ReadFile(file)
	if errors.Is(err, fs.ErrNotExist) {
		return false
	}
	if err != nil {
		t.Fatal(err)
	}
	return bytes.Contains(raw, []byte(some))
}

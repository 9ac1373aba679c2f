package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/server"
)

// Edits are saved like the document that they make; what others saved meanwhile
// is merged or asked about, and what they cannot be made of is refused by name.
func TestEditsAreSaved(t *testing.T) {
	c := start(t)
	var one server.JobState
	c.must(201, "POST", "/api/jobs", body(t, server.CreateRequest{Doc: server.Document(demoDoc(t))}), &one)
	path := "/api/jobs/" + one.ID
	edit := func(status, base int, into any, edits ...job.Edit) {
		t.Helper()
		c.must(status, "PATCH", path, body(t, server.EditRequest{Base: base, Edits: edits, What: "Edited"}), into)
	}
	current := func() (state server.JobState) {
		c.must(200, "GET", path, "", &state)
		return state
	}

	var saved server.Saved
	edit(200, 1, &saved, job.Set("/name", "Edited once"))
	if saved.Revision != 2 || !saved.CanUndo || saved.State != nil || len(saved.Made) != 0 {
		t.Fatalf("%+v", saved)
	}
	want, err := document.Apply(one.Doc, []job.Edit{job.Set("/name", "Edited once")})
	if err != nil {
		t.Fatal(err)
	}
	if got := current(); got.Name != "Edited once" || !same(t, got.Doc, want) {
		t.Fatalf("saved is %s", got.Doc)
	}

	// A longer run has new posts, and the window is told their names.
	line := jobOf(t, one.Doc).Lines[0]
	run := job.At("/lines", line.ID, "runs", line.Runs[0].ID)
	edit(200, 2, &saved, job.Set(run+"/length", *line.Runs[0].Length+30*length.Foot))
	if len(saved.Made) != 2 || saved.Made[0].Path != run+"/laid" {
		t.Fatalf("made on top: %+v", saved.Made)
	}
	want, err = document.Apply(want, append([]job.Edit{job.Set(run+"/length", *line.Runs[0].Length+30*length.Foot)}, saved.Made...))
	if err != nil {
		t.Fatal(err)
	}
	if got := current(); !same(t, got.Doc, want) {
		t.Fatal("what the window has is not what was saved")
	}
	// Numbers stay as they were written, in lists and objects too.
	c.must(200, "PATCH", path, `{"base":3,"what":"x","edits":[{"path":"`+run+`/ground","value":[{"id":"h1","at":0.0,"height":0},{"id":"h2","at":9000.50,"height":-20}]},
		{"path":"/observed/f901","value":{"id":"f901","on":"post/R1.3","what":"depth","value":905.5,"unit":"mm"}}]}`, &saved)
	if got := current(); !bytes.Contains(got.Doc, []byte(`"at":9000.50`)) || !bytes.Contains(got.Doc, []byte(`905.5`)) {
		t.Fatalf("saved is %s", got.Doc)
	}
	c.must(200, "POST", path+"/undo", body(t, server.MoveRequest{Base: 4}), nil)
	var edits server.Edits
	c.must(200, "GET", path+"/revisions/3/edits", "", &edits)
	if len(edits.Edits) != 3 {
		t.Fatalf("kept beside the revision: %+v", edits)
	}

	// Another window saved: other fields are merged, the same one is asked about.
	edit(200, 2, &saved, job.Set("/notes", "Gate code is with the owner"))
	if saved.State == nil || !saved.State.Merged || saved.Revision != 5 || !bytes.Contains(saved.State.Doc, []byte("Gate code")) {
		t.Fatalf("%+v", saved)
	}
	// Both move posts: their names are nobody's change.
	var clash server.Problem
	status, _, answer := c.ask("PATCH", path, body(t, server.EditRequest{Base: 2, Edits: []job.Edit{job.Set(run+"/spacing/most", 1900)}, What: "x"}))
	if status != http.StatusOK {
		t.Fatalf("%d %s", status, answer)
	}
	edit(200, 6, nil, job.Set(run+"/spacing/most", 2000))
	status, _, answer = c.ask("PATCH", path, body(t, server.EditRequest{Base: 6, Edits: []job.Edit{job.Set(run+"/spacing/most", 2100)}, What: "x"}))
	if err := json.Unmarshal(answer, &clash); err != nil || status != http.StatusConflict || len(clash.Clashes) != 1 {
		t.Fatalf("%d %v %+v", status, err, clash.Clashes)
	}
	status, _, answer = c.ask("PATCH", path, body(t, server.EditRequest{Base: 1, Edits: []job.Edit{job.Set("/name", "Another")}, What: "x"}))
	if status != http.StatusConflict || !bytes.Contains(answer, []byte("/name")) {
		t.Fatalf("%d %s", status, answer)
	}

	for _, bad := range []struct {
		status int
		edit   job.Edit
		says   string
	}{
		{422, job.Set("/lines/L99/name", "x"), "/lines/L99/name"},
		{422, job.Set(run+"/length", -5), run + "/length"},
		{422, job.Set("/mallow", 1), "/mallow"},
		{422, job.Set("/name", strings.Repeat("🌿", 1_000_000)), "/name"},
		{422, job.Set("", "x"), "/"},
		{422, job.Set("/observed/f1", "dug"), "/observed/f1"},
	} {
		status, _, answer := c.ask("PATCH", path, body(t, server.EditRequest{Base: 7, Edits: []job.Edit{bad.edit}, What: "x"}))
		if status != bad.status || !bytes.Contains(answer, []byte(bad.says)) {
			t.Errorf("%s: %d %.300s", bad.edit.Path, status, answer)
		}
	}
	many := make([]job.Edit, 1001)
	for i := range many {
		many[i] = job.Set("/notes", fmt.Sprint(i))
	}
	edit(422, 7, nil, many...)
	c.must(404, "PATCH", "/api/jobs/nobody", body(t, server.EditRequest{Base: 1, Edits: many[:1], What: "x"}), nil)
	edit(409, 77, nil, many[0]) // of which nothing is known: it may be of another database
	c.must(400, "PATCH", path, "{", nil)
	if got := current(); got.Revision != 7 {
		t.Fatalf("what was refused was saved: revision %d", got.Revision)
	}
}

// A fact that is written down stays, whoever edits.
func TestEditsCannotEraseAFact(t *testing.T) {
	c := start(t)
	var one server.JobState
	c.must(201, "POST", "/api/jobs", body(t, server.CreateRequest{Doc: server.Document(demoDoc(t))}), &one)
	post := jobOf(t, one.Doc).Lines[0].Runs[0].Laid[3].ID
	fact := job.Fact{ID: "f900", On: job.On("post", post), What: job.MarkDug}
	at := job.At("/observed", fact.ID)
	send := func(status, base int, e job.Edit) {
		t.Helper()
		c.must(status, "PATCH", "/api/jobs/"+one.ID, body(t, server.EditRequest{Base: base, Edits: []job.Edit{e}, What: "x"}), nil)
	}
	send(200, 1, job.Set(at, fact))
	send(422, 2, job.Set(at, nil))
	send(422, 2, job.Set(at+"/what", "set"))
	send(422, 2, job.Set("/observed", []job.Fact{}))
	send(422, 2, job.Set("/observed", nil))
}

func jobOf(t *testing.T, doc []byte) job.Job {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	j, _, err := document.Decode(doc, cat)
	if err != nil {
		t.Fatal(err)
	}
	return j
}

func same(t *testing.T, a, b []byte) bool {
	t.Helper()
	var x, y any
	if err := json.Unmarshal(a, &x); err != nil {
		t.Fatal(err)
	}
	if err := json.Unmarshal(b, &y); err != nil {
		t.Fatal(err)
	}
	return fmt.Sprint(x) == fmt.Sprint(y)
}

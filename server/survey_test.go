package server_test

import (
	"bufio"
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"math"
	"net"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/survey"
	"mallow/demo"
	"mallow/exchange"
	"mallow/server"
	"mallow/standin"
)

func (c *client) planOf(doc []byte) plan.Plan {
	c.t.Helper()
	var p plan.Plan
	c.must(200, "POST", "/api/plan", string(doc), &p)
	return p
}

func demoJob(t *testing.T, n int) string {
	t.Helper()
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	return string(docs[n])
}

func TestReshapeAnswersAChangedDocument(t *testing.T) {
	c := start(t)
	doc := demoDoc(t)
	var made server.Changed
	c.must(200, "POST", "/api/reshape", `{"doc":`+doc+`,"op":{"do":"split","line":"L1","run":"R1","at":20000}}`, &made)
	if p := c.planOf(made.Doc); len(p.Runs) != 4 || made.What != `Lane split at 65' 7 3/8"` {
		t.Errorf("%d runs, %q", len(p.Runs), made.What)
	}
	for _, op := range []string{`{"do":"split","line":"L1","run":"R1","at":14900}`, `{"do":"join","line":"L1","run":"R3"}`, `{"do":"paint","line":"L1"}`, `{"do":"split","line":"L10"}`} {
		status, _, raw := c.ask("POST", "/api/reshape", `{"doc":`+doc+`,"op":`+op+`}`)
		if status != 422 || !strings.Contains(string(raw), "detail") {
			t.Errorf("%s: %d %s", op, status, raw)
		}
	}
	if status, _, _ := c.ask("POST", "/api/reshape", `{"op":`); status != 400 {
		t.Errorf("half a request: %d", status)
	}
}

func TestSquareOverTheAPI(t *testing.T) {
	c := start(t)
	var s calls.Squared
	c.must(200, "POST", "/api/square", `{"legA":8000,"legB":6000,"angle":90,"taped":10020,"far":30000,"mark":1,"system":"metric"}`, &s)
	if !length.Same(s.Diagonal, 10000) || s.Three == nil || s.Check == nil || s.Check.Within {
		t.Errorf("got %+v", s)
	}
	for _, bad := range []string{
		`{"legA":8000,"legB":6000,"angle":90,"taped":15000,"far":1,"mark":1,"system":"metric"}`,
		`{"legA":1,"legB":6000,"angle":90,"far":1,"mark":1}`, `{"legA":8000,"legB":6000,"angle":0,"far":1,"mark":1}`, `{}`,
	} {
		status, _, raw := c.ask("POST", "/api/square", bad)
		if status != 422 || !strings.Contains(string(raw), `"fields"`) {
			t.Errorf("%s: %d %s", bad, status, raw)
		}
	}
	_, _, raw := c.ask("POST", "/api/square", `{"legA":8000,"legB":6000,"angle":90,"taped":15000,"far":1,"mark":1,"system":"metric"}`)
	if !strings.Contains(string(raw), "2.000 m to 14.000 m") {
		t.Errorf("the shortest and longest diagonal are not said: %s", raw)
	}
}

// lines reads a streamed answer.
func streamed[T any](c *client, path, body string) []T {
	c.t.Helper()
	status, header, raw := c.ask("POST", path, body)
	if status != 200 || header.Get("Content-Type") != "application/x-ndjson" {
		c.t.Fatalf("%s: %d %s", path, status, raw)
	}
	var out []T
	for _, line := range said(c.t, raw) {
		var one T
		if err := json.Unmarshal(line, &one); err != nil {
			c.t.Fatal(err)
		}
		out = append(out, one)
	}
	return out
}

// The whole way of a level that is out: the walk's page closes badly, the peg
// test finds the tilt, and corrected by it the page closes.
func TestLevelThatIsOutIsFoundAndCorrected(t *testing.T) {
	c := start(t)
	doc := demoDoc(t)
	readings := streamed[server.WalkReading](c, "/api/rod/walk", `{"doc":`+doc+`,"line":"L1","every":4000}`)
	if len(readings) < 30 || readings[0].Stop.Look != survey.BackLook || readings[len(readings)-1].Number != readings[0].Of {
		t.Fatalf("%d readings", len(readings))
	}
	var rows []job.Reading
	for _, r := range readings {
		rows = append(rows[:r.Row:r.Row], r.Entry)
	}
	page := job.Book{ID: "B9", Kind: job.Rod, Rows: rows}
	check := func() plan.BookCheck {
		var j job.Job
		if err := json.Unmarshal([]byte(doc), &j); err != nil {
			t.Fatal(err)
		}
		changed, err := document.Apply([]byte(doc), []job.Edit{job.Set("/lines/L1/books", append(j.Lines[0].Books, page))})
		if err != nil {
			t.Fatal(err)
		}
		for _, b := range c.planOf(changed).Lines[0].Books {
			if b.Book == "B9" {
				return b
			}
		}
		t.Fatal("the page is not checked")
		return plan.BookCheck{}
	}
	bad := check()
	if !bad.Closed || bad.Error.Abs() < bad.Allowance {
		t.Errorf("a level out by 0.1 mm/m closes by %v, %v allowed", bad.Error, bad.Allowance)
	}
	pegs := map[string]server.PegReading{}
	for _, p := range streamed[server.PegReading](c, "/api/rod/pegs", `{}`) {
		pegs[p.Name] = p
	}
	var test survey.PegTest
	c.must(200, "POST", "/api/pegs", fmt.Sprintf(`{"midA":%v,"midB":%v,"endA":%v,"endB":%v,"farA":%v,"farB":%v}`, pegs["midA"].Reading, pegs["midB"].Reading,
		pegs["endA"].Reading, pegs["endB"].Reading, pegs["endA"].Sight, pegs["endB"].Sight), &test)
	if math.Abs(test.Tilt-0.1) > 1e-9 || test.Passes {
		t.Errorf("the peg test finds %+v", test)
	}
	page.Tilt = test.Tilt
	if good := check(); good.Error.Abs() > 1e-6 {
		t.Errorf("corrected, the page closes by %v", good.Error)
	}
	for body, status := range map[string]int{
		`{"doc":` + doc + `,"line":"L4","every":4000}`: 422, `{"doc":` + doc + `,"line":"L1","every":1}`: 422, `{"doc":{},"line":"L1","every":4000}`: 422, `{"doc":` + doc + `,"line":"L1","every":300}`: 200,
	} {
		if got, _, raw := c.ask("POST", "/api/rod/walk", body); got != status {
			t.Errorf("%.40s…: %d %.200s", body[len(body)-40:], got, raw)
		}
	}
	if got, _, raw := c.ask("POST", "/api/pegs", `{"midA":1,"midB":2,"endA":3,"endB":4,"farA":5000,"farB":5100}`); got != 422 || !strings.Contains(string(raw), "differ by a metre") {
		t.Errorf("pegs at one distance: %d %s", got, raw)
	}
}

// Readings are sent as they are taken: the first is there long before the
// last could be.
func TestReadingsComeOneByOne(t *testing.T) {
	c := startLevel(t, standin.Level{Tilt: 0.1, Seed: 1, Lag: 150 * time.Millisecond})
	ln, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	go func() { _ = c.app.Listener(ln, fiber.ListenConfig{DisableStartupMessage: true}) }()
	t.Cleanup(func() { _ = c.app.Shutdown() })
	res, err := http.Post("http://"+ln.Addr().String()+"/api/rod/pegs", "application/json", strings.NewReader("{}"))
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	in := bufio.NewScanner(res.Body)
	var times []time.Time
	for in.Scan() {
		times = append(times, time.Now())
	}
	// Three lags lie between the first and the last; were they buffered, none would.
	if len(times) != 5 || times[3].Sub(times[0]) < 200*time.Millisecond {
		t.Errorf("%d readings, the last %v after the first", len(times), times[len(times)-1].Sub(times[0]))
	}
}

// A ticket, a wait over a weekend, and marks that stand in the way.
func TestLocatingOffice(t *testing.T) {
	c := start(t)
	doc := demoDoc(t)
	ask := func(path, doc, day string, status int) []byte {
		t.Helper()
		got, _, raw := c.ask("POST", path, `{"doc":`+doc+`,"day":"`+day+`"}`)
		if got != status {
			t.Fatalf("%s on %s: %d %s", path, day, got, raw)
		}
		return raw
	}
	var made server.Changed
	if raw := ask("/api/office/marks", doc, "2026-11-27", 422); !strings.Contains(string(raw), "not been asked") {
		t.Errorf("%s", raw)
	}
	if err := json.Unmarshal(ask("/api/office/ask", doc, "2026-11-27", 200), &made); err != nil { // a Friday
		t.Fatal(err)
	}
	var asked job.Job
	if err := json.Unmarshal(made.Doc, &asked); err != nil || asked.Site.Before.Ticket.Clear != "2026-12-02" {
		t.Fatalf("three working days from Friday: %+v", asked.Site.Before.Ticket)
	}
	if raw := ask("/api/office/marks", string(made.Doc), "2026-12-01", 422); !strings.Contains(string(raw), "by 2026-12-02") {
		t.Errorf("%s", raw)
	}
	if c.planOf(made.Doc).Before.Ready {
		t.Error("cleared without marks")
	}
	if err := json.Unmarshal(ask("/api/office/marks", string(made.Doc), "2026-12-02", 200), &made); err != nil {
		t.Fatal(err)
	}
	p, marks := c.planOf(made.Doc), 0
	for _, r := range p.Runs {
		for _, o := range r.InTheWay {
			if o.Marked && o.Colour != "" && o.HandTo > o.HandFrom {
				marks++
			}
		}
	}
	if !p.Before.Ready || marks == 0 {
		t.Errorf("ready %v with %d marks", p.Before.Ready, marks)
	}
	var twice server.Changed
	if err := json.Unmarshal(ask("/api/office/marks", string(made.Doc), "2026-12-03", 200), &twice); err != nil || !strings.Contains(twice.What, "0 new") {
		t.Errorf("coming twice marks again: %q", twice.What)
	}
	ask("/api/office/ask", doc, "tomorrow", 422)
}

func TestImportShowsBeforeAnythingChanges(t *testing.T) {
	c := start(t)
	doc := demoJob(t, 1)
	post := func(status int, fields string) exchange.ImportPreview {
		t.Helper()
		var p exchange.ImportPreview
		got, _, raw := c.ask("POST", "/api/import", `{"doc":`+doc+`,"line":"L1","off":150,"thin":0,`+fields+`}`)
		if got != status {
			t.Fatalf("%s: %d %.300s", fields, got, raw)
		}
		if status == 200 {
			if err := json.Unmarshal(raw, &p); err != nil {
				t.Fatal(err)
			}
		}
		return p
	}
	p := post(200, `"name":"yard.csv","text":"x,y,z\n0,0,1\n9,0,1.2\nnine,0,2\n9,7,1.1\n0,7,1\n0,0,1\n"`)
	if p.Count != 5 || p.BadCount != 1 || p.Bad[0].Row != 4 || !p.Closed || len(p.Lengths) != 4 || p.Problem != "" {
		t.Fatalf("got %+v", p)
	}
	if q := c.planOf(p.Doc); len(q.Lines) != 2 || !q.Lines[1].Closed || q.Lines[1].Length != 32000 {
		t.Errorf("a line added: %d lines, %v", len(q.Lines), q.Lines[1].Length)
	}
	p = post(200, `"replace":true,"name":"yard.csv","text":"x,y,z\n0,0,1\n9,0,1.2\n9,7,1.1\n"`)
	if q := c.planOf(p.Doc); len(q.Lines) != 1 || q.Lines[0].Runs != 2 || q.Lines[0].Name != "Yard" {
		t.Errorf("a line replaced: %+v", q.Lines[0].Runs)
	}
	p = post(200, `"run":"R2","name":"g.csv","text":"station,height\n0,0\n5,0.2\n15.271,0.4\n40,9\n"`)
	if p.Kept != 3 || len(p.Notes) != 1 || p.Doc == nil {
		t.Errorf("ground: %+v", p)
	}
	if p = post(200, `"run":"R9","name":"g.csv","text":"station,height\n0,0\n"`); p.Problem == "" || p.Doc != nil {
		t.Errorf("no such run: %+v", p)
	}
	if p = post(200, `"name":"a.csv","text":"x,y\n1,1\n1,1.1\n"`); !strings.Contains(p.Problem, "no line") || p.Doc != nil {
		t.Errorf("a heap: %+v", p)
	}
	post(422, `"name":"a.csv","text":"mood\nfine\n"`)
}

// A job's line goes out and comes in as the same line.
func TestExportOverTheAPI(t *testing.T) {
	c := start(t)
	var kept server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+demoDoc(t)+`}`, &kept)
	path := "/api/jobs/" + kept.ID + "/export?line=0&what="
	want := c.planOf(kept.Doc)
	for _, what := range []string{"csv", "gpx", "geojson"} {
		status, header, raw := c.ask("GET", path+what, "")
		if status != 200 || !strings.Contains(header.Get("Content-Disposition"), "Tansy Bank Orchard - line - r1."+what) {
			t.Fatalf("%s: %d %v", what, status, header)
		}
		var p exchange.ImportPreview
		c.must(200, "POST", "/api/import", body(t, exchange.ImportRequest{Doc: kept.Doc, Line: "L1", Name: "line." + what, Text: string(raw), Replace: true, Off: 150}), &p)
		got := c.planOf(p.Doc)
		for r := range want.Runs {
			if (got.Runs[r].Length-want.Runs[r].Length).Abs() > 0.02 || len(got.Runs[r].Ground) != len(want.Runs[r].Ground) {
				t.Errorf("%s: run %d is %v with %d heights, was %v with %d", what, r, got.Runs[r].Length, len(got.Runs[r].Ground), want.Runs[r].Length, len(want.Runs[r].Ground))
			}
		}
	}
	if status, _, raw := c.ask("GET", path+"ground&run=R1", ""); status != 200 || !strings.HasPrefix(string(raw), "station_ft,height_ft") {
		t.Errorf("ground: %d %.60s", status, raw)
	}
	status, header, raw := c.ask("GET", path+"setout&run=R1", "")
	rows, err := csv.NewReader(bytes.NewReader(raw)).ReadAll()
	if err != nil || status != 200 || len(rows) != 20 || rows[0][2] != "level_ft" || !strings.Contains(header.Get("Content-Disposition"), "Tansy Bank Orchard - Lane - Set-out - r1.csv") {
		t.Fatalf("set-out: %d %v, %d rows", status, err, len(rows))
	}
	// Running distances: the last mark is the run, and each adds up with its check.
	if last := rows[19]; last[0] != "P19" || last[2] != "131.5" || last[4] != `131' 6"` || last[6] != "0" {
		t.Errorf("the last mark: %v", last)
	}
	for _, row := range rows[1:] {
		level, _ := strconv.ParseFloat(row[2], 64)
		back, _ := strconv.ParseFloat(row[6], 64)
		if math.Abs(level+back-131.5) > 1e-6 {
			t.Errorf("%s: %v and %v", row[0], level, back)
		}
	}
	status, header, raw = c.ask("GET", path+"posts&run=R1", "")
	rows, err = csv.NewReader(bytes.NewReader(raw)).ReadAll()
	if err != nil || status != 200 || len(rows) != 20 || rows[0][5] != "top_ft" || !strings.Contains(header.Get("Content-Disposition"), "Posts - r1.csv") {
		t.Fatalf("posts: %d %v, %d rows", status, err, len(rows))
	}
	status, header, raw = c.ask("GET", path+"holes&run=R1", "")
	if holes, err := csv.NewReader(bytes.NewReader(raw)).ReadAll(); err != nil || status != 200 || len(holes) != 20 || holes[0][6] != "dig_ft" || !strings.Contains(header.Get("Content-Disposition"), "Holes - r1.csv") {
		t.Fatalf("holes: %d %v, %d rows", status, err, len(holes))
	} else {
		sum := 0.0
		for _, row := range holes[1:] {
			v, _ := strconv.ParseFloat(row[at(holes[0], "concrete_volume_ft3")], 64)
			sum += v
		}
		if math.Abs(sum-47.2278) > 0.0015 || holes[8][6] != "4.5" || holes[8][at(holes[0], "layers_from_the_bottom")] != `gravel 6"; concrete 46"; soil 2"; mound 1"` {
			t.Errorf("holes add up to %.4f ft³; the gate post's is %v", sum, holes[8])
		}
	}
	// The top is the ground and what shows over it, as the level string finds it too.
	high := 0.0
	for _, row := range rows[1:] {
		top, _ := strconv.ParseFloat(row[5], 64)
		high = max(high, top)
	}
	for _, row := range rows[1:] {
		v := func(name string) float64 {
			f, _ := strconv.ParseFloat(row[at(rows[0], name+"_ft")], 64)
			return f
		}
		ground, above, top, off := v("ground"), v("top_above_ground"), v("top"), v("from_level_string")
		if math.Abs(ground+above-top) > 1e-6 || math.Abs(high+off-top) > 1e-6 {
			t.Errorf("%s: ground %v, above %v, top %v, off the level string %v", row[0], ground, above, top, off)
		}
	}
	for _, bad := range []string{path + "dwg", path + "posts&run=R9", path + "setout&run=R9", path + "ground&run=R9", "/api/jobs/" + kept.ID + "/export?what=csv&line=7"} {
		if status, _, raw := c.ask("GET", bad, ""); status != 422 || !strings.Contains(string(raw), "detail") {
			t.Errorf("%s: %d %s", bad, status, raw)
		}
	}
	c.must(201, "POST", "/api/jobs", `{"doc":`+demoJob(t, 1)+`}`, &kept)
	if status, _, raw := c.ask("GET", "/api/jobs/"+kept.ID+"/export?what=gpx", ""); status != 422 || !strings.Contains(string(raw), "Enter the place of the map") {
		t.Errorf("a line that is nowhere on earth: %d %s", status, raw)
	}
}

// Every look over the wire: one is planned, and one that is taken is what the
// plan then says.
func TestLooksOverTheWire(t *testing.T) {
	c := start(t)
	doc := demoJob(t, 0)
	var got calls.Looks
	c.must(200, "POST", "/api/looks", `{"doc":`+doc+`,"run":"R1"}`, &got)
	if got.Run != "R1" || len(got.Looks) != 8 {
		t.Fatalf("%d looks of %s", len(got.Looks), got.Run)
	}
	for _, l := range got.Looks {
		changed, err := document.Apply([]byte(doc), l.Edits)
		if err != nil {
			t.Fatal(err)
		}
		if after := c.planOf(changed).Runs[0].Totals; math.Abs(float64(after.Fill-l.Fill)) > 1e-9 || after.Bags != l.Bags {
			t.Errorf("%s: says %v to fill and %d bags, taken %v and %d", l.ID, l.Fill, l.Bags, after.Fill, after.Bags)
		}
		if l.Now != (l.ID == "stepped gradual") {
			t.Errorf("%s is planned: %v", l.ID, l.Now)
		}
	}
	for _, run := range []string{"R9", ""} {
		if status, _, raw := c.ask("POST", "/api/looks", `{"doc":`+doc+`,"run":"`+run+`"}`); status != 422 || !strings.Contains(string(raw), "a run that has a length") {
			t.Errorf("looks of %q: %d %s", run, status, raw)
		}
	}
}

// The layouts worth having, over the wire: the one as it is first, and one
// that is taken is what the plan then says.
func TestAlternativesOverTheWire(t *testing.T) {
	c := start(t)
	doc := demoJob(t, 0)
	var got calls.Alternatives
	c.must(200, "POST", "/api/alternatives", `{"doc":`+doc+`,"run":"R2"}`, &got)
	if got.Run != "R2" || len(got.Layouts) < 2 || got.Layouts[0].ID != "now" || len(got.Layouts[0].Edits) != 0 {
		t.Fatalf("%+v", got)
	}
	before := c.planOf([]byte(doc))
	changed, err := document.Apply([]byte(doc), got.Layouts[1].Edits)
	if err != nil {
		t.Fatal(err)
	}
	if after := c.planOf(changed); after.Totals.Posts-before.Totals.Posts != got.Layouts[1].Cost.Posts {
		t.Errorf("%d posts more, said %+v", after.Totals.Posts-before.Totals.Posts, got.Layouts[1].Cost)
	}
	for _, run := range []string{"R9", ""} {
		if status, _, raw := c.ask("POST", "/api/alternatives", `{"doc":`+doc+`,"run":"`+run+`"}`); status != 422 || !strings.Contains(string(raw), "a run that has a length") {
			t.Errorf("run %q: %d %s", run, status, raw)
		}
	}
}

// at is the place of a name among others; the test fails where it is not there.
func at(heads []string, name string) int {
	i := slices.Index(heads, name)
	if i < 0 {
		panic("no column " + name)
	}
	return i
}

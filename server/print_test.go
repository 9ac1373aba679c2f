package server_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"mallow/server"
)

// A print says how far it is, page by page, and is fetched when it is done; a
// page is drawn as the PDF has it; what cannot be printed is refused.
func TestPrintingOverTheAPI(t *testing.T) {
	c := start(t)
	var kept server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+demoDoc(t)+`}`, &kept)
	path := "/api/jobs/" + kept.ID
	var pages server.Pages
	c.must(200, "GET", path+"/pages?sheet=stakeout&run=R1&paper=a4", "", &pages)
	if pages.Count < 1 || pages.Width != 210 {
		t.Fatalf("%+v", pages)
	}
	status, _, raw := c.ask("POST", path+"/print?sheet=stakeout&run=R1&paper=a4", "{}")
	if status != 200 {
		t.Fatalf("%d %s", status, raw)
	}
	last := server.Printing{}
	for _, line := range said(t, raw) {
		was := last
		last = server.Printing{}
		if err := json.Unmarshal(line, &last); err != nil {
			t.Fatal(err)
		}
		if last.Ready == "" && (last.Done <= was.Done && was.Of > 0 || last.Of != pages.Count) {
			t.Errorf("%+v after %+v", last, was)
		}
	}
	if last.Ready == "" || !strings.HasSuffix(last.Name, "Lane - stakeout - r1.pdf") {
		t.Fatalf("%+v", last)
	}
	status, header, file := c.ask("GET", "/api/prints/"+last.Ready, "")
	if status != 200 || header.Get("Content-Type") != "application/pdf" || !bytes.HasPrefix(file, []byte("%PDF-")) {
		t.Errorf("%d %v", status, header)
	}
	status, header, svg := c.ask("GET", path+"/page.svg?sheet=stakeout&run=R1&paper=a4&page=1", "")
	if status != 200 || header.Get("Content-Type") != "image/svg+xml" || !bytes.Contains(svg, []byte("131&#39; 6&#34;")) {
		t.Errorf("%d %v", status, header)
	}
	for address, want := range map[string]int{
		path + "/page.svg?sheet=stakeout&run=R1&page=99": 404, path + "/pages?sheet=poem": 422, path + "/pages?paper=folio": 422,
		path + "/pages?sheet=holes&run=R9": 422, "/api/prints/none": 404, "/api/jobs/none/pages": 404,
	} {
		if status, _, raw := c.ask("GET", address, ""); status != want || !strings.Contains(string(raw), "detail") {
			t.Errorf("%s: %d %s", address, status, raw)
		}
	}
	if status, _, _ := c.ask("POST", path+"/print?sheet=poem", "{}"); status != 422 {
		t.Errorf("no such sheet: %d", status)
	}
}

package server_test

import (
	"encoding/json"
	"strings"
	"testing"

	"mallow/server"
)

// The board comes line by line; one crew's jobs are held against each other, a job that
// keeps clear no longer clashes, jobs without a first day and unreadable ones are no
// trouble; the crew's calendar has each day once.
func TestBoardOverTheAPI(t *testing.T) {
	c := start(t)
	doc := func(name, start string) string {
		return `{"doc":{"mallow":2,"name":"` + name + `","units":{"system":"imperial","smallestMark":1.5875},"site":{"before":{"services":true}},"days":{"start":"` + start + `","crew":"Reed 🦊"},"lines":[{"id":"L1","runs":[{"id":"R1","length":24384}]}]}}`
	}
	var first, second server.JobState
	c.must(201, "POST", "/api/jobs", doc("First", "2027-05-03"), &first)
	c.must(201, "POST", "/api/jobs", doc("Second", "2027-05-04"), &second)
	c.must(201, "POST", "/api/jobs", `{"name":"No day","system":"metric"}`, nil)
	board := func() *server.Board {
		status, _, raw := c.ask("POST", "/api/board", "{}")
		if status != 200 {
			t.Fatalf("%d %s", status, raw)
		}
		lines := said(t, raw)
		if len(lines) != 3 {
			t.Fatalf("%d lines: %s", len(lines), raw)
		}
		for n, line := range lines {
			var l server.BoardLine
			if err := json.Unmarshal(line, &l); err != nil {
				t.Fatal(err)
			}
			if n < 2 && (l.Done != n+1 || l.Of != 2) {
				t.Errorf("line %d says %d of %d", n, l.Done, l.Of)
			}
			if l.Board != nil {
				return l.Board
			}
		}
		t.Fatal("no board")
		return nil
	}
	b := board()
	if len(b.Crews) != 1 || len(b.Crews[0].Jobs) != 2 || len(b.Wrong) != 0 || b.Left != 0 {
		t.Fatalf("%+v", b)
	}
	late := b.Crews[0].Jobs[1]
	if late.ID != second.ID || len(late.Clash) == 0 || late.Clear == nil {
		t.Fatalf("%+v", late)
	}
	c.must(200, "PATCH", "/api/jobs/"+second.ID, body(t, map[string]any{"base": late.Revision, "what": "clear", "edits": []any{map[string]any{"path": "/days/taken", "value": late.Clear.Taken}}}), nil)
	if late = board().Crews[0].Jobs[1]; len(late.Clash) != 0 || late.Clear != nil {
		t.Errorf("it still clashes: %+v", late)
	}
	_, header, ics := c.ask("GET", "/api/board.ics?crew=Reed%20%F0%9F%A6%8A", "")
	if !strings.HasPrefix(header.Get("Content-Type"), "text/calendar") || strings.Count(string(ics), "BEGIN:VEVENT") < 4 {
		t.Errorf("%s: %.300s", header.Get("Content-Type"), ics)
	}
	seen := map[string]bool{}
	for _, line := range strings.Split(string(ics), "\r\n") {
		if day, ok := strings.CutPrefix(line, "DTSTART:"); ok {
			if seen[day[:8]] {
				t.Errorf("twice on %s", day)
			}
			seen[day[:8]] = true
		}
	}
	if _, _, none := c.ask("GET", "/api/board.ics?crew=nobody", ""); strings.Contains(string(none), "VEVENT") {
		t.Error("a crew that there is not has days")
	}
}

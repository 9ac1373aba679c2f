package main

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"mallow/core/bill"
	"mallow/core/plan"
)

// call runs the command in this process, as main does.
func call(stdin string, args ...string) (out, diag string, err error) {
	var o, d bytes.Buffer
	c := root()
	c.SetArgs(args)
	c.SetIn(strings.NewReader(stdin))
	c.SetOut(&o)
	c.SetErr(&d)
	err = c.ExecuteContext(context.Background())
	return o.String(), d.String(), err
}

const lane = "../../demo/jobs/1-tansy-bank.json"

func TestPlanPrintsTables(t *testing.T) {
	out, _, err := call("", "plan", lane)
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{"Tansy Bank Orchard", "131' 6\" level", "P19", "The load", "124 bags", "60 lb bag, 7440 lb", "or by truck", "Soil to haul off", "Round the trees alone", "80 lb bag, 2320 lb", "NOT CLEARED TO DIG", "R1 to R2", "80.02° left", "corner posts counted once", "Rack it", "Cautions",
		"Set out, every mark from P1", "Tops, set by string", "Story stick, from the reference mark 12\"", "Top rail hole", "7' 0 3/16\"", "Pin 1", "Cut for B1", "Rails, cut from lengths", "Terminal posts", "3 1/2\" square timber, 10' 0\" long", "Boarded timber", "Digging by hand", "(the load stays the same)"} {
		if !strings.Contains(out, want) {
			t.Errorf("the tables do not say %q", want)
		}
	}
	table, _, err := call("", "plan", "--table", lane)
	if err != nil || table != out {
		t.Errorf("--table is not the usual output: %v", err)
	}
}

// The bill is one list: of the job or of one run, as a table, CSV or JSON, each
// with the same items.
func TestLoadPrintsTheBill(t *testing.T) {
	whole, _, err := call("", "load", lane)
	if err != nil || !strings.Contains(whole, "124 bags") || !strings.Contains(whole, "Gate leaves") {
		t.Fatalf("%v: %s", err, whole)
	}
	for _, name := range []string{"R1", "Lane"} {
		one, _, err := call("", "load", "--run", name, lane)
		if err != nil || !strings.Contains(one, "105 bags") || strings.Contains(one, "round hollow steel") {
			t.Errorf("%s: %v: %s", name, err, one)
		}
	}
	raw, _, err := call("", "load", "--json", lane)
	if err != nil {
		t.Fatal(err)
	}
	var items []bill.Item
	if err := json.Unmarshal([]byte(raw), &items); err != nil {
		t.Fatal(err)
	}
	table, _, err := call("", "load", "--csv", lane)
	if err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(table, "\ufeff"))).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	if want := len(bill.Rows(items)); len(rows)-1 != want || strings.Count(strings.TrimSpace(whole), "\n")+1 != want {
		t.Errorf("%d rows of CSV, %d lines of the table, %d in the document", len(rows)-1, strings.Count(whole, "\n"), want)
	}
	if out, _, err := call(`{"mallow":1,"name":"Bare","units":{"system":"metric","smallestMark":1},"lines":[{"id":"L1","runs":[{"id":"R1","name":"Run"}]}]}`, "load", "-"); err != nil || out != "Nothing yet: no run has a length.\n" {
		t.Errorf("a job without a length: %v, %q", err, out)
	}
	for _, wrong := range [][]string{{"load", "--run", "R9", lane}, {"load", "--csv", "--json", lane}, {"load"}, {"load", "nowhere.json"}} {
		if out, _, err := call("", wrong...); err == nil || out != "" {
			t.Errorf("%v: %v, printed %q", wrong, err, out)
		}
	}
}

func TestPlanPrintsThePlanDocument(t *testing.T) {
	doc, err := os.ReadFile(lane)
	if err != nil {
		t.Fatal(err)
	}
	out, diag, err := call(strings.Replace(string(doc), `"site"`, `"sight":1,"site"`, 1), "plan", "--json", "-")
	if err != nil {
		t.Fatal(err)
	}
	var p plan.Plan
	if err := json.Unmarshal([]byte(out), &p); err != nil || len(p.Runs[0].Posts) != 19 || p.Runs[0].Totals.Bags != 105 || p.Totals.Bags != 153 {
		t.Errorf("got %d posts, %d bags, %v", len(p.Runs[0].Posts), p.Totals.Bags, err)
	}
	if !strings.Contains(diag, "/sight is not a field that Mallow knows") {
		t.Errorf("the unknown field is not named: %q", diag)
	}
}

// Bad input is a usage error (exit code 2) and one line.
func TestBadInputIsOneLine(t *testing.T) {
	broken := filepath.Join(t.TempDir(), "broken.json")
	if err := os.WriteFile(broken, []byte(`{"mallow":1,"name":"x","units":{"system":"metric","smallestMark":3}}`), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, args := range [][]string{
		{"plan"}, {"plan", "no such file"}, {"plan", broken}, {"plan", lane, "more"}, {"plan", "--json", "--table", lane},
		{"plan", "--colour"}, {"serve", "extra"}, {"dig"}, {"version", "2"},
		{"serve", "--listen", "nowhere:at:all", "--data", t.TempDir()}, {"serve", "--data", broken},
	} {
		_, _, err := call("", args...)
		var usage usageError
		if err == nil || strings.Contains(err.Error(), "\n") {
			t.Errorf("%v: %v", args, err)
		} else if !errors.As(err, &usage) {
			t.Errorf("%v: %v is not a usage error", args, err)
		}
	}
}

func TestHelpEverywhere(t *testing.T) {
	for _, args := range [][]string{{"--help"}, {}, {"serve", "--help"}, {"demo", "--help"}, {"plan", "--help"}, {"version", "--help"}} {
		out, _, err := call("", args...)
		if err != nil || !strings.Contains(out, "Usage:") {
			t.Errorf("%v: %v %q", args, err, out)
		}
	}
	if out, _, err := call("", "version"); err != nil || !strings.HasPrefix(out, "mallow ") {
		t.Errorf("version: %q, %v", out, err)
	}
}

func TestDataFolder(t *testing.T) {
	t.Setenv(dataVariable, filepath.Join(t.TempDir(), "by variable"))
	if dir, err := dataDir(""); err != nil || filepath.Base(dir) != "by variable" {
		t.Errorf("got %s, %v", dir, err)
	}
	flag := filepath.Join(t.TempDir(), "by flag")
	if dir, err := dataDir(flag); err != nil || dir != flag {
		t.Errorf("got %s, %v", dir, err)
	}
	t.Setenv(dataVariable, "")
	t.Setenv("HOME", t.TempDir())
	if dir, err := dataDir(""); err != nil || filepath.Base(dir) != "mallow" {
		t.Errorf("got %s, %v", dir, err)
	}
}

// demo serves the demo jobs on a free port, and is gone, with its data, when
// it is told to stop.
func TestDemoServesAndStops(t *testing.T) {
	scratch := t.TempDir()
	t.Setenv("TMPDIR", scratch)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	r, w := io.Pipe()
	c := root()
	c.SetArgs([]string{"demo", "--listen", "127.0.0.1:0"})
	c.SetOut(w)
	done := make(chan error, 1)
	go func() { done <- c.ExecuteContext(ctx) }()
	line := make([]byte, 200)
	n, err := r.Read(line)
	if err != nil {
		t.Fatal(err)
	}
	address := regexp.MustCompile(`http://[^ ]+/`).FindString(string(line[:n]))
	res, err := http.Get(address + "api/jobs")
	if err != nil {
		t.Fatal(err)
	}
	raw, err := io.ReadAll(res.Body)
	if err != nil || res.Body.Close() != nil || !strings.Contains(string(raw), "Tansy Bank Orchard") || !strings.Contains(string(raw), "Pipit Yard") {
		t.Errorf("jobs: %v %s", err, raw)
	}
	stop()
	select {
	case err := <-done:
		if err != nil {
			t.Errorf("stopped with %v", err)
		}
	case <-time.After(20 * time.Second):
		t.Fatal("does not stop")
	}
	if left, err := os.ReadDir(scratch); err != nil || len(left) != 0 {
		t.Errorf("left behind: %v, %v", left, err)
	}
}

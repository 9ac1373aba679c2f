package main

import (
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// A fact is written into the file, what to do about it is printed, and the record has
// it; what cannot be written names what was given and leaves the file as it was.
func TestLogWritesAndAdvises(t *testing.T) {
	file := filepath.Join(t.TempDir(), "job.json")
	doc := `{"mallow":2,"name":"Log","units":{"system":"imperial","smallestMark":1.5875},"site":{"frostDepth":600},"lines":[{"id":"L1","runs":[{"id":"R1","name":"Front","length":24384}]}]}`
	if err := os.WriteFile(file, []byte(doc), 0o600); err != nil {
		t.Fatal(err)
	}
	out, errs, err := call("", "log", file, "--on", "P4", "--set", `rock=14"`, "--set", "note=blue clay 🦊", "--by", "Ash")
	if err != nil || !strings.Contains(out, "Rock stopped P4") || !strings.Contains(out, "or: ") {
		t.Fatalf("%v %s %s", err, out, errs)
	}
	if out, errs, err = call("", "log", file, "--on", "front p2", "--set", "dug", "--set", "bags=2.5"); err != nil {
		t.Fatalf("%v %s %s", err, out, errs)
	}
	out, _, _ = call("", "log", file)
	for _, want := range []string{"11 posts: 1 staked, 1 dug, 1 set, 1 poured", "Next: P1", "Rock at", `14"`, "blue clay 🦊", "2.5"} {
		if !strings.Contains(out, want) {
			t.Errorf("the record lacks %q:\n%s", want, out)
		}
	}
	if csv, _, _ := call("", "log", file, "--csv"); !strings.Contains(csv, "Ash") {
		t.Errorf("who saw it is not in the file: %s", csv)
	}
	// A station without a unit is in feet, as everywhere: P5 of 8 ft bays stands at 32.
	if _, errs, err = call("", "log", file, "--on", "P5", "--set", "landed=32"); err != nil {
		t.Fatalf("%v %s", err, errs)
	}
	if written, _ := os.ReadFile(file); !strings.Contains(string(written), "9753.") {
		t.Errorf("32 was not read as feet: %s", written)
	}
	before, _ := os.ReadFile(file)
	for _, bad := range [][]string{{"--on", "P99", "--set", "dug"}, {"--on", "P1", "--set", "painted"}, {"--on", "P1", "--set", "depth"}, {"--on", "P1", "--set", "dug=3"}, {"--on", "P1", "--set", "bags=many"}, {"--on", "P1", "--set", "depth=🦊"}, {"--on", "P1", "--set", "depth=900ft"}, {"--on", "P1"}, {"--set", "dug"}} {
		var usage usageError
		if _, _, err := call("", append([]string{"log", file}, bad...)...); !errors.As(err, &usage) {
			t.Errorf("%v: %v", bad, err)
		}
	}
	if after, _ := os.ReadFile(file); string(after) != string(before) {
		t.Error("a refused fact changed the file")
	}
}

package document_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
)

var golden = flag.Bool("golden", false, "write what documents of version 1 become")

// Documents of version 1, both demo jobs and ten odd ones, become what is
// written beside them, and say what they could not.
func TestVersion1IsMigrated(t *testing.T) {
	files, err := filepath.Glob("testdata/version1/*.json")
	if err != nil || len(files) != 12 {
		t.Fatal(files, err)
	}
	for _, file := range files {
		raw, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		o, err := document.Open(raw, shipped(t))
		if err != nil {
			t.Errorf("%s: %v", file, err)
			continue
		}
		var made bytes.Buffer
		if err := json.Indent(&made, o.Doc, "", " "); err != nil {
			t.Fatal(err)
		}
		for _, l := range append(slices.Clone(o.Left), o.Unknown...) {
			made.WriteString("\n" + l)
		}
		want := strings.Replace(file, ".json", ".want", 1)
		if *golden {
			if err := os.WriteFile(want, made.Bytes(), 0o644); err != nil {
				t.Fatal(err)
			}
		}
		if is, err := os.ReadFile(want); err != nil || !bytes.Equal(is, made.Bytes()) {
			t.Errorf("%s has become\n%s\n%v", file, made.Bytes(), err)
		}
		// Read again it is the same job, and stays as it is.
		again, err := document.Open(o.Doc, shipped(t))
		if err != nil || !bytes.Equal(again.Doc, o.Doc) || !reflect.DeepEqual(again.Job, o.Job) || len(again.Left) > 0 {
			t.Errorf("%s read again is another job, %v", file, err)
		}
	}
}

// What was among the plans of version 1 is in its place on the runs, from the
// facts.
func TestFactsOfVersion1AreInTheirPlaces(t *testing.T) {
	read := func(name string) job.Job {
		raw, err := os.ReadFile("testdata/version1/" + name + ".json")
		if err != nil {
			t.Fatal(err)
		}
		o, err := document.Open(raw, shipped(t))
		if err != nil {
			t.Fatal(err)
		}
		return o.Job
	}
	var landed []string
	for _, f := range read("03-landed").Lines[0].Runs[0].FixedPosts {
		if f.Landed {
			landed = append(landed, f.ID)
		}
	}
	if !slices.Equal(landed, []string{"F1", "F2"}) {
		t.Errorf("landed: %v", landed)
	}
	hits := map[string]job.Hit{}
	for _, o := range read("04-struck").Lines[0].Runs[0].Overrides {
		if o.Hit != nil {
			hits[o.ID] = *o.Hit
		}
	}
	if want := map[string]job.Hit{"S1": {What: job.HitRock, Depth: 400}, "S2": {What: job.HitWater, Depth: 700, Settled: job.SettledWider}, "S4": {What: job.HitRoot, Depth: 350, Settled: job.SettledAsIs}}; !reflect.DeepEqual(hits, want) {
		t.Errorf("hits: %v", hits)
	}
	dropped := read("06-dropped")
	if a, b := dropped.Lines[0].Runs[0].Gates, dropped.Lines[0].Runs[1].Gates; a[0].Sag != 76.2 || a[1].Sag != 0 || b[0].Sag != 12.5 {
		t.Errorf("gates: %v, %v", a, b)
	}
}

// Whatever a document of version 1 says, it is refused by a named field, or
// becomes one of version 2 that reads as the same job.
func FuzzMigrate(f *testing.F) {
	files, err := filepath.Glob("testdata/version1/*.json")
	if err != nil {
		f.Fatal(err)
	}
	for _, file := range files {
		raw, err := os.ReadFile(file)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	}
	cat := shipped(f)
	f.Fuzz(func(t *testing.T, raw []byte) {
		o, err := document.Open(raw, cat)
		if err != nil {
			return
		}
		again, err := document.Open(o.Doc, cat)
		if err != nil {
			t.Fatalf("%s became %s: %v", raw, o.Doc, err)
		}
		if !bytes.Equal(again.Doc, o.Doc) || !reflect.DeepEqual(again.Job, o.Job) {
			t.Fatalf("%s became %s, which reads as another job", raw, o.Doc)
		}
	})
}

package document_test

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/demo"
)

func shipped(t testing.TB) materials.Catalog {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return cat
}

// doc is a small sound document; RUN stands for more fields of its run.
const doc = `{"mallow":1,"name":"A","units":{"system":"imperial","smallestMark":1.5875},"site":{},
	"lines":[{"id":"L1","runs":[{"id":"R1","length":30000RUN}]}]}`

func with(run string) []byte { return []byte(strings.Replace(doc, "RUN", run, 1)) }

// inJob is a document with more fields of the job.
func inJob(fields string) string {
	return strings.Replace(string(with("")), `"site":{}`, `"site":{}`+fields, 1)
}

func TestDecodeFillsInUsualValues(t *testing.T) {
	j, unknown, err := document.Decode(with(`,"hole":{"frostMargin":0}`), shipped(t))
	if err != nil || len(unknown) > 0 {
		t.Fatal(err, unknown)
	}
	run := j.Lines[0].Runs[0]
	if run.Hole.FrostMargin == nil || *run.Hole.FrostMargin != 0 || run.Hole.Floor != nil {
		t.Errorf("a margin of 0 that was given became %v", run.Hole.FrostMargin)
	}
	if !length.Same(run.Spacing.Most, 96*length.Inch) || !length.Same(run.Fence.Height, 6*length.Foot) {
		t.Errorf("usual values: most %v, height %v", run.Spacing.Most, run.Fence.Height)
	}
}

// Each refusal names the field, what was given and what is allowed.
func TestDecodeRefuses(t *testing.T) {
	for _, c := range []struct{ what, doc, field, given, allowed string }{
		{"not JSON", `{"mallow":1,`, "/", "ends at byte", "JSON object"},
		{"no object", `[1]`, "/", "[1]", "object"},
		{"two documents", `{"mallow":1} {}`, "/", "more text", "nothing after"},
		{"doubled name", `{"mallow":1,"name":"a","name":"b"}`, "/name", "twice", "once"},
		{"no version", `{"name":"a"}`, "/mallow", "nothing", "2, the version"},
		{"a newer version", `{"mallow":3}`, "/mallow", "3", "newer Mallow"},
		{"version as text", `{"mallow":"1"}`, "/mallow", `"1"`, "1"},
		{"no name", `{"mallow":1,"units":{"system":"metric","smallestMark":1},"lines":[]}`, "/name", "nothing", "1 to 120"},
		{"a mark no tape has", strings.Replace(string(with("")), "1.5875", "2", 1), "/units/smallestMark", "2", "1.5875"},
		{"length as text", strings.Replace(doc, "30000RUN", `"30 ft"`, 1), "/lines/L1/runs/R1/length", `"30 ft"`, "11 13/16\" to 62 miles"},
		{"too short", strings.Replace(doc, "30000RUN", "12", 1), "/lines/L1/runs/R1/length", `1/2"`, "11 13/16"},
		{"huge number", strings.Replace(doc, "30000RUN", "1e999", 1), "/lines/L1/runs/R1/length", "1e999", "62 miles"},
		{"units nobody has", string(with(`,"hole":{"entered":{"floor":"cubits"}}`)), "/lines/L1/runs/R1/hole/entered/floor", "cubits", "imperial, metric"},
		{"a hole its post does not fit in", string(with(`,"hole":{"width":100}`)), "/lines/L1/runs/R1/hole/width", `3 15/16"`, "post across its corners"},
		{"a foot too near the ground", string(with(`,"hole":{"depth":20}`)), "/lines/L1/runs/R1/hole/depth", `13/16"`, "or 0 to go by the rules"},
		{"one kind twice", string(with(`,"kinds":[{"kind":"gate"},{"kind":"gate"}]`)), "/lines/L1/runs/R1/kinds/gate/kind", "gate", "no other"},
		{"a hole off the run", string(with(`,"spots":[{"id":"S1","at":40000}]`)), "/lines/L1/runs/R1/overrides/S1/at", "131'", "on the run"},
		{"a core in a solid post", string(with(`,"setting":{"inside":"core"}`)), "/lines/L1/runs/R1/setting/inside", "core", "hollow"},
		{"a way of setting nobody knows", string(with(`,"setting":{"method":"glued"}`)), "/lines/L1/runs/R1/setting/method", "glued", "braced"},
		{"too much rubble", string(with(`,"setting":{"rubble":0.9}`)), "/lines/L1/runs/R1/setting/rubble", "0.9", "0 to 0.4"},
		{"an auger for a drinking straw", strings.Replace(string(with("")), `"site":{}`, `"site":{},"hole":{"augers":[10]}`, 1), "/hole/augers", `3/8"`, `1 15/16"`},
		{"misspelt case", string(with(`,"Gates":[]`)), "/lines/L1/runs/R1/Gates", "[]", "gates"},
		{"one run's name twice", strings.Replace(string(with("")), `}]}]`, `},{"id":"R1"}]}]`, 1), "/lines/L1/runs/R1/id", `"R1"`, "no other entry"},
		{"a line of two runs closed", strings.Replace(string(with("")), `"id":"L1"`, `"id":"L1","closed":true`, 1), "/lines/L1/closed", "true", "fewer than 3 runs"},
		{"a corner measured no way", string(with(`,"corner":{"by":"eye","side":"left"}`)), "/lines/L1/runs/R1/corner/by", "eye", "deflection, interior, offset, diagonal"},
		{"an impossible triangle", string(with(`,"corner":{"by":"diagonal","side":"left","back":3000,"forth":4000,"diagonal":7100}`)), "/lines/L1/runs/R1/corner/diagonal", `23' 3 1/2"`, `3' 3 3/8" to 22' 11 9/16"`},
		{"an offset of nothing", string(with(`,"corner":{"by":"offset","side":"left"}`)), "/lines/L1/runs/R1/corner/off", `0"`, "more than 0"},
		{"a pour on no day", inJob(`,"pour":{"date":"soon"}`), "/pour/date", "soon", "year-month-day"},
		{"a pour at no time", inJob(`,"pour":{"from":"7:30"}`), "/pour/from", "7:30", "07:30"},
		{"a pour that ends before it begins", inJob(`,"pour":{"from":"09:00","to":"08:00"}`), "/pour/to", "08:00", "after 09:00"},
		{"a rate twice", inJob(`,"pour":{"rates":[{"method":"braced","place":3},{"method":"braced","place":4}]}`), "/pour/rates", "braced", "once"},
		{"weather at no time", inJob(`,"weather":{"hours":[{"at":"2027-05-03 07:00","temp":3}]}`), "/weather/hours/0/at", "2027-05-03 07:00", "offset"},
		{"a day of weather twice", inJob(`,"weather":{"days":[{"date":"2027-05-03","morning":1,"noon":2,"night":3},{"date":"2027-05-03","morning":1,"noon":2,"night":3}]}`), "/weather/days/1/date", "2027-05-03", "once"},
		{"a first day that is none", inJob(`,"days":{"start":"2027-02-30"}`), "/days/start", "2027-02-30", "year-month-day"},
		{"a day off that is none", inJob(`,"days":{"rest":["x"]}`), "/days/rest/0", "x", "year-month-day"},
		{"a task moved twice", inJob(`,"days":{"moves":[{"task":"dig","date":"2027-05-03"},{"task":"dig","date":"2027-05-04"}]}`), "/days/moves", "dig", "once"},
		{"a crew that is back before it leaves", inJob(`,"days":{"from":"09:00","to":"09:00"}`), "/days/to", "09:00", "after 09:00"},
		{"a keep-out without a place", string(with(`,"keepOuts":[{"id":"K1","kind":"rock"}]`)), "/lines/L1/runs/R1/keepOuts/K1/at", "nothing", "millimetres"},
		{"a keep-out off the run", string(with(`,"keepOuts":[{"id":"K1","kind":"rock","at":30010}]`)), "/lines/L1/runs/R1/keepOuts/K1/at", `98' 5 1/2"`, "on the run"},
		{"a page of no run", strings.Replace(string(with("")), `"id":"L1"`, `"id":"L1","books":[{"id":"B1","kind":"drops","run":"R9","rows":[]}]`, 1), "/lines/L1/books/B1/run", `"R9"`, "a run of this line"},
		{"drops out of order", strings.Replace(string(with("")), `"id":"L1"`, `"id":"L1","books":[{"id":"B1","kind":"drops","run":"R1","rows":[{"at":500},{"at":500}]}]`, 1), "/lines/L1/books/B1/rows/w2/at", `1' 7 11/16"`, "past the row before"},
		{"a rod page that begins nowhere", strings.Replace(string(with("")), `"id":"L1"`, `"id":"L1","books":[{"id":"B1","kind":"rod","rows":[{"mark":"sill"}]}]`, 1), "/lines/L1/books/B1/rows/w1/back", "nothing", "known height"},
		{"two readings on one point", strings.Replace(string(with("")), `"id":"L1"`, `"id":"L1","books":[{"id":"B1","kind":"rod","rows":[{"mark":"sill","back":1000},{"mark":"step","side":5,"fore":6}]}]`, 1), "/lines/L1/books/B1/rows/w2/side", `3/16"`, "nothing where there is a fore"},
		{"a ticket's date", strings.Replace(string(with("")), `"site":{}`, `"site":{"before":{"ticket":{"number":"7","asked":"2026-02-30","clear":"2026-03-04"}}}`, 1), "/site/before/ticket/asked", `"2026-02-30"`, "year-month-day"},
		{"a held post off the run", string(with(`,"fixedPosts":[{"id":"F1","at":30500}]`)), "/lines/L1/runs/R1/fixedPosts/F1/at", "100' 0 13/16", "on the run, at most 98' 5"},
		{"a held post in a gate", string(with(`,"gates":[{"id":"G1","at":4000,"opening":1000}],"fixedPosts":[{"id":"F1","at":4200}]`)), "/lines/L1/runs/R1/fixedPosts/F1/at", "13' 9", "clear of the gate at 13' 1"},
		{"two posts held in one place", string(with(`,"fixedPosts":[{"id":"F1","at":4000},{"id":"F2","at":4030}]`)), "/lines/L1/runs/R1/fixedPosts/F2/at", "13' 2", "clear of the fixed post at 13' 1"},
		{"two held posts of one name", string(with(`,"fixedPosts":[{"id":"F1","at":3000},{"id":"F1","at":5000}]`)), "/lines/L1/runs/R1/fixedPosts/F1/id", "\"F1\"", "no other entry"},
		{"a look off the run", string(with(`,"grade":{"look":"raked","give":"fill","parts":[{"from":30500,"to":31000,"look":"level"}]}`)), "/lines/L1/runs/R1/grade/parts/a1/from", "100' 0 13/16", "a distance on the run"},
		{"a look that ends before it begins", string(with(`,"grade":{"look":"raked","give":"fill","parts":[{"from":3000,"to":2000,"look":"level"}]}`)), "/lines/L1/runs/R1/grade/parts/a1/to", "6' 6 3/4", "past where the part begins"},
		{"two looks in one place", string(with(`,"grade":{"look":"raked","give":"fill","parts":[{"from":0,"to":2000,"look":"level"},{"from":1000,"to":4000,"look":"stepped"}]}`)), "/lines/L1/runs/R1/grade/parts/a2/from", "3' 3 3/8", "the end of the part before it"},
		{"a look nobody knows", string(with(`,"grade":{"look":"wavy","give":"fill"}`)), "/lines/L1/runs/R1/grade/look", "\"wavy\"", "level, stepped, raked, rolling"},
		{"straighter than straight", string(with(`,"grade":{"look":"raked","give":"fill","straight":1.5}`)), "/lines/L1/runs/R1/grade/straight", "1.5", "0 to 1"},
		{"a rail over the fence", string(with(`,"fence":{"height":1200,"gapLeast":50,"gapMost":75,"rails":[300,1300]}`)), "/lines/L1/runs/R1/fence/rails", "51 3/16", "on the fence, 0 to 47 1/4"},
		{"rails upside down", string(with(`,"fence":{"height":1200,"gapLeast":50,"gapMost":75,"rails":[900,300]}`)), "/lines/L1/runs/R1/fence/rails", "11 13/16", "over the rail under it"},
		{"a held bay past the end", string(with(`,"heldBays":[{"id":"H1","at":28000,"width":3600}]`)), "/lines/L1/runs/R1/heldBays/H1/at", "91' 10", "at most 86' 7"},
		{"panels without a panel", string(with(`,"spacing":{"way":"panels between","most":2400}`)), "/lines/L1/runs/R1/spacing/piece", "nothing", "the length of a panel"},
		{"rails shorter than their overlap", string(with(`,"spacing":{"way":"overlapping rails","most":2400,"piece":500,"overlap":600}`)), "/lines/L1/runs/R1/spacing/piece", "19 11/16", "long enough for a bay"},
		{"a least bay over the regular one", string(with(`,"spacing":{"way":"module","most":2400,"piece":1800,"least":1900}`)), "/lines/L1/runs/R1/spacing/least", "6' 2", "at most the regular bay, 5' 10"},
		{"a system with an unknown way to set posts", strings.Replace(string(with("")), `"lines"`, `"systems":[{"id":"own-1","name":"Own","system":"imperial","fence":{"height":1800},"post":{"width":89,"stock":[2400]},"spacing":{"most":2400},"grade":{"look":"level","give":"fill"},"hole":{"widthFactor":3,"augers":[250],"share":"none"},"setting":{"bag":"60lb"},"allowed":["glued"]}],"lines"`, 1), "/systems/own-1/allowed", "glued", "braced, fast"},
		{"an unknown way", string(with(`,"spacing":{"way":"by eye","most":2400}`)), "/lines/L1/runs/R1/spacing/way", "by eye", "equal, panels between"},
		{"pieces so short that posts would be countless", strings.Replace(string(with(`,"spacing":{"way":"module","most":2400,"piece":300}`)), "30000", "100000000", 1), "/lines/L1/runs/R1/spacing/piece", "11 13/16", "a run may have 10000"},
		{"a held post without a name", string(with(`,"fixedPosts":[{"at":9}]`)), "/lines/L1/runs/R1/fixedPosts/#1/id", "nothing", "1 to 40"},
		{"an unknown look", string(with(`,"grade":{"look":"wavy"}`)), "/lines/L1/runs/R1/grade/look", "wavy", "stepped"},
		{"gaps crossed", string(with(`,"fence":{"gapLeast":100,"gapMost":50}`)), "/lines/L1/runs/R1/fence/gapMost", `1 15/16"`, "least gap"},
		{"a hollow post without a wall", string(with(`,"post":{"hollow":true}`)), "/lines/L1/runs/R1/post/wall", `0"`, "hollow"},
		{"a hole narrower than the post", string(with(`,"hole":{"width":100}`)), "/lines/L1/runs/R1/hole/width", `3 15/16"`, "corners"},
		{"a gate off the run", string(with(`,"gates":[{"id":"G","at":100,"opening":1000}]`)), "/lines/L1/runs/R1/gates/G/at", `0' 3 15/16"`, "both gate posts"},
		{"a gate too wide", strings.Replace(string(with(`,"gates":[{"id":"G","at":500,"opening":1000}]`)), "30000", "1000", 1), "/lines/L1/runs/R1/gates/G/opening", `39 3/8"`, "room for"},
		{"gates over each other", string(with(`,"gates":[{"id":"A","at":9000,"opening":1000},{"id":"B","at":9500,"opening":1000}]`)), "/lines/L1/runs/R1/gates/B/at", `31' 2"`, "clear of the gate"},
		{"one gate's name twice", string(with(`,"gates":[{"id":"A","at":9000,"opening":1000},{"id":"A","at":19000,"opening":1000}]`)), "/lines/L1/runs/R1/gates/A/id", `"A"`, "no other entry"},
		{"ground off the run", string(with(`,"ground":[{"at":30001,"height":0}]`)), "/lines/L1/runs/R1/ground/h1/at", `98' 5 1/8"`, "on the run"},
		{"ground out of order", string(with(`,"ground":[{"at":500,"height":0},{"at":500,"height":1}]`)), "/lines/L1/runs/R1/ground/h2/at", `1' 7 11/16"`, "past"},
		{"more posts than a run may have", strings.Replace(string(with(`,"spacing":{"most":300}`)), "30000", "90000000", 1), "/lines/L1/runs/R1/spacing/most", `11 13/16"`, "10000"},
		{"nested without end", strings.Repeat(`{"a":`, 200), "/a", "deeper", "levels"},
	} {
		_, _, err := document.Decode([]byte(c.doc), shipped(t))
		var refused document.Errors
		if !errors.As(err, &refused) {
			t.Errorf("%s: got %v, want a refusal", c.what, err)
			continue
		}
		f := refused[0]
		if !strings.HasPrefix(f.Field, c.field) || !strings.Contains(f.Given, c.given) || !strings.Contains(f.Allowed, c.allowed) {
			t.Errorf("%s: got %v", c.what, f)
		}
		if strings.Contains(err.Error(), "\n") {
			t.Errorf("%s: the error is not one line: %q", c.what, err)
		}
	}
}

// Fields that this version does not know stay in the document through any
// edit, and are reported.
func TestUnknownFieldsAreKept(t *testing.T) {
	old := with(`,"colour":"green","hole":{"frostMargin":10,"lining":{"belled":true}}`)
	_, unknown, err := document.Decode(old, shipped(t))
	if err != nil || strings.Join(unknown, " ") != "/lines/L1/runs/R1/colour /lines/L1/runs/R1/hole/lining" {
		t.Fatal(unknown, err)
	}
	edited, err := document.Apply(old, []job.Edit{
		job.Set("/lines/L1/runs/R1/hole/frostMargin", length.Length(25)),
		job.Set("/lines/L1/runs/R1/grade/look", job.Raked), // makes the missing object
		job.Set("/lines/L1/runs/R1/length", nil),
	})
	if err != nil {
		t.Fatal(err)
	}
	j, unknown, err := document.Decode(edited, shipped(t))
	if err != nil || len(unknown) != 2 {
		t.Fatal(unknown, err)
	}
	run := j.Lines[0].Runs[0]
	if *run.Hole.FrostMargin != 25 || run.Grade.Look != job.Raked || run.Length != nil {
		t.Errorf("the edits came out as %+v", run)
	}
	if !strings.Contains(string(edited), `"belled":true`) {
		t.Errorf("the unknown field is gone: %s", edited)
	}
	if _, err := document.Apply(old, []job.Edit{job.Set("/lines/L8/id", "x")}); err == nil {
		t.Error("an edit of a line that is not there was taken")
	}
}

// A new job written out and read again is the same job, and so are the demo's.
func TestNewJobReadsBack(t *testing.T) {
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		fresh := document.New("A site", sys, shipped(t))
		raw, err := json.Marshal(fresh)
		if err != nil {
			t.Fatal(err)
		}
		back, unknown, err := document.Decode(raw, shipped(t))
		if err != nil || len(unknown) > 0 {
			t.Fatal(err, unknown)
		}
		again, err := json.Marshal(back)
		if err != nil || string(again) != string(raw) {
			t.Errorf("%s:\n%s\n%s", sys, raw, again)
		}
	}
	docs, err := demo.Jobs()
	if err != nil || len(docs) == 0 {
		t.Fatal(err)
	}
	for _, d := range docs {
		if _, unknown, err := document.Decode(d, shipped(t)); err != nil || len(unknown) > 0 {
			t.Errorf("demo job: %v, unknown %v", err, unknown)
		}
	}
}

func FuzzDecode(f *testing.F) {
	docs, err := demo.Jobs()
	if err != nil {
		f.Fatal(err)
	}
	for _, d := range docs {
		f.Add(d)
	}
	f.Add(with(`,"gates":[{"id":"A","at":9000,"opening":1000}],"ground":[{"at":0,"height":-5}]`))
	f.Add([]byte(`{"mallow":1,"lines":[[]],"units":null}`))
	cat := shipped(f)
	f.Fuzz(func(t *testing.T, raw []byte) {
		j, _, err := document.Decode(raw, cat)
		if err != nil {
			var refused document.Errors
			if !errors.As(err, &refused) || len(refused) == 0 || refused[0].Allowed == "" {
				t.Fatalf("%v does not say what is allowed", err)
			}
			return
		}
		out, err := json.Marshal(j)
		if err != nil {
			t.Fatal(err)
		}
		if _, _, err := document.Decode(out, cat); err != nil {
			t.Fatalf("what was read cannot be written and read again: %v", err)
		}
	})
}

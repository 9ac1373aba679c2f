package plan_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/record"
)

// metric is a saved job of one run with something more about it.
func metric(t testing.TB, run string) (job.Job, []string) {
	t.Helper()
	j := asSaved(t, decode(t, `{"mallow":2,"name":"Stands","units":{"system":"metric","smallestMark":1},"lines":[{"id":"L1","runs":[{"id":"R1",`+run+`}]}]}`))
	return j, namesOf(t, j)
}

// stays checks that only one post moved, and that all kept their names.
func stays(t testing.TB, before, after job.Job, post string, to length.Length) {
	t.Helper()
	was, is := stationsOf(t, before), stationsOf(t, after)
	if len(was) != len(is) {
		t.Errorf("%d posts became %d", len(was), len(is))
	}
	for id, at := range was {
		want := at
		if id == post {
			want = to
		}
		if got, there := is[id]; !there || (got-want).Abs() > 0.01 {
			t.Errorf("%s stood at %v and is at %v (%v), want %v", id, at, got, there, want)
		}
	}
	if e := document.Check(after); len(e) > 0 {
		t.Errorf("it is refused: %v", e)
	}
}

// However far off its mark a post lands, only the bays beside it change, the crew is asked,
// and leaving it is among the ways; set posts stay, in equal bays as in panels.
func TestLandedMovesNobodyElse(t *testing.T) {
	for name, run := range map[string]string{
		"equal bays": `"length":24000,"spacing":{"most":2400}`,
		"panels":     `"length":24000,"spacing":{"way":"panels between","piece":1830,"play":4}`,
	} {
		j, ids := metric(t, run)
		for i := range 6 {
			j = saw(j, fact(i, ids[i], job.MarkSet))
		}
		j = asSaved(t, j)
		mark := stationsOf(t, j)[ids[6]]
		for _, off := range []length.Length{40, -60, 38.0001, 300, -1200, 1200, -1700} {
			after := asSaved(t, saw(j, seenAt(20, ids[6], job.Landed, mark+off), fact(21, ids[6], job.MarkSet)))
			stays(t, j, after, ids[6], mark+off)
			again := asSaved(t, after)
			stays(t, after, again, ids[6], mark+off)
			if ways := wayIDs(waysAt(t, after, ids[6])); !slices.Contains(ways, "leave") && !slices.Contains(ways, "take") {
				t.Errorf("%s, %v off: no way leaves it: %v", name, off, ways)
			}
			if got := stateAt(t, after, ids[6]); len(got) != 1 || got[0] != record.Open && off.Abs() > 20 {
				t.Errorf("%s, %v off: %v", name, off, got)
			}
			if find(plan.Make(after, shipped(t)), "landed") == nil {
				t.Errorf("%s, %v off: nothing is found", name, off)
			}
		}
	}
}

// A gate's post can be written down where it stands, on its mark or off it: the opening
// is what stands, the gate goes along where that is taken, and struck out it is as before.
func TestGatePostsStand(t *testing.T) {
	j, ids := metric(t, `"length":12000,"spacing":{"most":2000},"gates":[{"id":"G1","at":6000,"opening":1200}]`)
	first, second := ids[3], ids[4]
	stays(t, j, asSaved(t, saw(j, seenAt(1, first, job.Landed, 5350))), first, 5350)
	off := asSaved(t, saw(j, seenAt(1, first, job.Landed, 5330)))
	stays(t, j, off, first, 5330)
	if g := off.Lines[0].Runs[0].Gates[0]; !length.Same(g.Inside(), 1220) || !length.Same(g.Asked().Inside(), 1200) {
		t.Errorf("20 wider, the opening is %v; asked for are %v", g.Inside(), g.Asked().Inside())
	}
	if find(plan.Make(off, shipped(t)), "landed") == nil {
		t.Error("nothing is found of an opening 20 too wide")
	}
	ways := waysAt(t, off, first)
	if !slices.Contains(wayIDs(ways), "leave") {
		t.Errorf("no way leaves it: %v", wayIDs(ways))
	}
	moved := takenIn(t, off, wayOf(t, ways, "gate"))
	if at := stationsOf(t, moved); !length.Same(at[first], 5330) || !length.Same(at[second], 6630) {
		t.Errorf("moved along with its post the gate's posts are at %v and %v", at[first], at[second])
	}
	if g := moved.Lines[0].Runs[0].Gates[0]; !length.Same(g.Inside(), 1200) || !length.Same(g.At, 5980) {
		t.Errorf("moved, the gate is at %v and %v wide", g.At, g.Inside())
	}
	both := asSaved(t, saw(off, seenAt(2, second, job.Landed, 6665)))
	stays(t, off, both, second, 6665)
	for _, w := range waysAt(t, both, first) {
		if w.ID == "gate" {
			t.Error("a gate whose other post stands too is to be moved")
		}
	}
	struck := asSaved(t, saw(off, job.Fact{ID: "f9", On: job.On("post", first), What: job.StruckOut, Strikes: "f1"}))
	stays(t, j, struck, "", 0)
	if g := struck.Lines[0].Runs[0].Gates[0]; !length.Same(g.Inside(), 1200) {
		t.Errorf("struck out, the opening is %v", g.Inside())
	}
}

// So can the posts of a held bay.
func TestHeldBaysPostsStand(t *testing.T) {
	j, ids := metric(t, `"length":12000,"spacing":{"most":2000},"heldBays":[{"id":"H1","at":4000,"width":1500}]`)
	at := stationsOf(t, j)
	for _, id := range ids[1 : len(ids)-1] {
		for _, off := range []length.Length{0, 25, -40, 90} {
			stays(t, j, asSaved(t, saw(j, seenAt(1, id, job.Landed, at[id]+off))), id, at[id]+off)
		}
	}
}

// What stands can always be written down, wherever that is, and planned: on random runs
// with gates and held bays, any posts anywhere, one after another.
func TestWhatStandsCanBeWrittenDown(t *testing.T) {
	rng := rand.New(rand.NewPCG(36, 1))
	for n := range sized(400, 60) {
		gate := 2000 + rng.IntN(8000)
		j, ids := metric(t, fmt.Sprintf(`"length":16000,"spacing":{"most":%d},"gates":[{"id":"G1","at":%d,"opening":%d}],"heldBays":[{"id":"H1","at":12000,"width":%d}]`, 1200+rng.IntN(1400), gate, 900+rng.IntN(1000), 800+rng.IntN(1800)))
		for k := range 1 + rng.IntN(6) {
			id := ids[rng.IntN(len(ids))]
			at := laidAt(j, id) + length.Length(rng.NormFloat64()*[]float64{5, 50, 600, 4000}[rng.IntN(4)])
			if at < 0 || at > 16000 {
				continue
			}
			j = asSaved(t, saw(j, seenAt(k, id, job.Landed, at)))
			if e := document.Check(j); len(e) > 0 {
				t.Fatalf("job %d: %s at %v is refused: %v", n, id, at, e)
			}
			r := recordOf(t, j)
			if i := slices.IndexFunc(r.Posts, func(p record.RecordPost) bool { return p.ID == id }); i < 0 || (r.Posts[i].At == nil || !length.Same(*r.Posts[i].At, at)) {
				t.Fatalf("job %d: %s is not written down at %v", n, id, at)
			}
		}
	}
}

// A fact of a post that was never laid out is that of the post that has its name when it is.
func TestFactsWithoutALayout(t *testing.T) {
	j := decode(t, `{"mallow":2,"name":"Facts","units":{"system":"metric","smallestMark":1},"lines":[{"id":"L1","runs":[{"id":"R1","length":12000,"spacing":{"most":2000}}]}],
		"observed":[{"id":"f1","on":"post/R1.3","what":"rock","at":4000,"value":400}]}`)
	posts := makeRun(t, j).Posts
	if p := posts[2]; p.ID != "R1.3" || p.Stopped == nil || !length.Same(p.HoleDepth, 400) {
		t.Errorf("%s: stopped %v at %v", p.ID, p.Stopped, p.HoleDepth)
	}
}

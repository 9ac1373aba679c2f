package reshape_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/core/reshape"
	"mallow/core/survey"
)

func shipped(t testing.TB) materials.Catalog {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return cat
}

func ptr[T any](v T) *T { return &v }

// random is a line of several runs, with corners, gates, things in the way
// and heights in books of every kind.
func random(t testing.TB, rng *rand.Rand, cat materials.Catalog) job.Job {
	j := document.New("Random", length.Imperial, cat)
	like := j.Lines[0].Runs[0]
	l := job.Line{ID: "L1", Bearing: ptr(rng.Float64() * 360), X: length.Length(rng.NormFloat64() * 1e4)}
	n := 1 + rng.IntN(5)
	for r := range n {
		run := like
		run.ID = "R" + string(rune('1'+r))
		run.Length = ptr(length.Length(9000 + rng.Float64()*20000))
		run.Grade.Look = []job.Look{job.Stepped, job.Raked}[rng.IntN(2)]
		if rng.IntN(4) == 0 {
			run.Taped = job.TapedSlope
		}
		if r > 0 {
			run.Corner = &job.Corner{By: job.ByDeflection, Side: []job.Side{job.Left, job.Right}[rng.IntN(2)], Angle: 5 + rng.Float64()*90}
			if rng.IntN(3) == 0 {
				back, forth := *l.Runs[r-1].Length, *run.Length
				run.Corner = &job.Corner{By: job.ByDiagonal, Side: job.Right, Diagonal: (back - forth).Abs() + (back+forth-(back-forth).Abs())*length.Length(0.3+0.6*rng.Float64())}
			}
		}
		if rng.IntN(2) == 0 {
			run.Gates = []job.Gate{{ID: "G1", At: *run.Length * length.Length(0.3+0.4*rng.Float64()), Opening: 1000, Gap: 100}}
		}
		if rng.IntN(2) == 0 {
			run.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Rock, At: *run.Length * 0.3, Width: 600}, {ID: "K2", Kind: job.Service, Service: "water", At: *run.Length * 0.7, Hand: 450}}
		}
		if rng.IntN(3) == 0 {
			run.FixedPosts = []job.FixedPost{{ID: "F1", At: *run.Length * 0.15}, {ID: "F2", At: *run.Length * 0.85, Landed: true}}
			run.HeldBays = []job.HeldBay{{ID: "H1", At: *run.Length * 0.16, Width: *run.Length * 0.05}}
			if len(document.CheckRun("", run, j.Units)) > 0 {
				run.FixedPosts, run.HeldBays = nil, nil
			}
		}
		kind := rng.IntN(4)
		book := job.Book{ID: "B" + run.ID, Kind: []job.BookKind{job.Drops, job.Rises, job.Rod, job.Drops}[kind], Run: run.ID}
		for i := range 5 {
			at, h := *run.Length*length.Length(i)/4, length.Length(rng.NormFloat64()*150)
			switch {
			case kind == 3:
				if before := l.Runs[:r]; i == 0 && r > 0 && len(before[r-1].Ground) > 0 {
					h = before[r-1].Ground[4].Height // one corner, one height
				}
				run.Ground = append(run.Ground, job.GroundPoint{At: at, Height: h})
			case kind == 2:
				row := job.Reading{Run: run.ID, At: at, Side: ptr(1500 + h)}
				if i == 0 {
					row.Back, row.Side = row.Side, nil
				}
				book.Rows = append(book.Rows, row)
			default:
				book.Rows = append(book.Rows, job.Reading{At: at, Drop: 1000 + h, Rise: h})
			}
		}
		if kind == 2 {
			book.Run = ""
		}
		if len(book.Rows) > 0 {
			l.Books = append(l.Books, book)
		}
		l.Runs = append(l.Runs, run)
	}
	if n >= 3 && rng.IntN(2) == 0 {
		l.Closed = true
	}
	j.Lines = []job.Line{l}
	j.Site.FrostDepth = ptr(length.Length(900))
	if errs := document.Check(j); len(errs) > 0 {
		t.Fatal(errs)
	}
	return j
}

func written(t testing.TB, j job.Job) []byte {
	t.Helper()
	doc, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	return doc
}

// place is a height and a place on the map of something on a line.
type place struct{ x, y, h float64 }

// picture is where a line's corners, gates, obstacles and ground are, as
// seen from the line's first post, heights from its first height.
func picture(l job.Line) map[string][]place {
	sv := survey.Reduce(l, "")
	lengths := make([]length.Length, len(sv.Runs))
	for i, g := range sv.Runs {
		lengths[i] = g.Length
	}
	laid := survey.Lay(l, lengths)
	out := map[string][]place{}
	for r, run := range l.Runs {
		ground := sv.Runs[r].Profile()
		put := func(what string, at length.Length) {
			p := laid.Raw[r].Towards(laid.Raw[r+1], float64(at/lengths[r]))
			out[what] = append(out[what], place{float64(p.X), float64(p.Y), float64(ground.Height(at))})
		}
		for _, g := range run.Gates {
			put("gates", g.At)
		}
		for _, k := range run.KeepOuts {
			put("obstacles", k.From())
			put("obstacles", k.To())
		}
		for _, f := range run.FixedPosts {
			put("held", f.At)
		}
		for _, h := range run.HeldBays {
			put("held", h.At)
			put("held", h.At+h.Width)
		}
		for _, s := range run.Overrides {
			put("held", s.At)
		}
		for i := range 9 { // the ground, wherever its points are now
			put("ground", lengths[r]*length.Length(i)/8)
		}
	}
	return out
}

// level takes the datum out, which is any one mark: heights are over the mean
// of the ground.
func level(p map[string][]place) map[string][]place {
	mean := 0.0
	for _, g := range p["ground"] {
		mean += g.h / float64(len(p["ground"]))
	}
	for _, list := range p {
		for i := range list {
			list[i].h -= mean
		}
	}
	return p
}

// same compares pictures as sets of places.
func same(t *testing.T, what string, a, b map[string][]place, kinds ...string) {
	t.Helper()
	for _, kind := range kinds {
		if len(a[kind]) != len(b[kind]) {
			t.Fatalf("%s: %d %s, want %d", what, len(b[kind]), kind, len(a[kind]))
		}
		for _, p := range a[kind] {
			best := math.Inf(1)
			for _, q := range b[kind] {
				best = min(best, math.Hypot(math.Hypot(p.x-q.x, p.y-q.y), p.h-q.h))
			}
			if best > 0.05 {
				t.Fatalf("%s: a place of %s at %.1f, %.1f, height %.1f is %.2f off", what, kind, p.x, p.y, p.h, best)
			}
		}
	}
}

// apply makes a change through the document, as the interface does.
func apply(t *testing.T, j job.Job, op reshape.Op, cat materials.Catalog) (job.Job, error) {
	t.Helper()
	doc, _, err := reshape.Apply(written(t, j), op, cat)
	if err != nil {
		return j, err
	}
	changed, unknown, err := document.Decode(doc, cat)
	if err != nil || len(unknown) > 0 {
		t.Fatalf("%s made a document that cannot be read: %v %v", op.Do, err, unknown)
	}
	return changed, nil
}

func must(t *testing.T, j job.Job, op reshape.Op, cat materials.Catalog) job.Job {
	t.Helper()
	out, err := apply(t, j, op, cat)
	if err != nil {
		t.Fatalf("%s: %v", op.Do, err)
	}
	return out
}

// totals are what must not change when a line is only written down otherwise.
func totals(p plan.Plan) [10]float64 {
	t := p.Totals
	for _, r := range p.Runs {
		for _, post := range r.Posts {
			if (post.Finished - post.Ground).Abs() > 0.5 {
				// Posts that give way to something are spaced again beside a
				// split, and how deep they are dug goes with the ground there.
				t.Dug, t.Spoil, t.Hours.ByHand, t.Holes, t.Concrete, t.Bags = 0, 0, 0, nil, 0, 0
			}
		}
	}
	return [10]float64{math.Round(float64(t.Dug) * 1e9), math.Round(float64(t.Spoil) * 1e9), math.Round(float64(t.Stone) * 1e9), math.Round(t.Hours.ByHand * 1e6),
		float64(t.Posts), math.Round(float64(t.Concrete) * 1e9), math.Round(float64(t.Gravel) * 1e9), float64(t.Bags), float64(len(t.Stock)), float64(len(t.Holes))}
}

// Splitting a run at any of its posts, and joining it again, changes no total
// of the job, moves nothing on the map, and loses no gate, no obstacle and no
// height.
func TestSplitAndJoinChangeNothing(t *testing.T) {
	t.Parallel()
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(21, 7))
	split := 0
	for n := range sized(250, 30) {
		j := random(t, rng, cat)
		j = spotted(n, j, cat)
		p := plan.Make(j, cat)
		before := picture(j.Lines[0])
		r := rng.IntN(len(j.Lines[0].Runs))
		posts := p.Runs[r].Posts
		at := posts[rng.IntN(len(posts))]
		if at.Held != "" || at.Station < 300 || at.Station > p.Runs[r].Length-300 {
			continue
		}
		split++
		two := must(t, j, reshape.Op{Do: "split", Line: "L1", Run: j.Lines[0].Runs[r].ID, At: at.Station}, cat)
		if got := plan.Make(two, cat); totals(got) != totals(p) {
			t.Fatalf("job %d split at %s of run %d: totals %v, were %v", n, at.Label, r, totals(got), totals(p))
		}
		// Of two heights at a corner the first counts, and not what lies between
		// it and the next: there a split can move the ground.
		if len(survey.Reduce(j.Lines[0], "").Conflicts) > 0 {
			continue
		}
		same(t, "split", before, picture(two.Lines[0]), "gates", "held")
		one, err := apply(t, two, reshape.Op{Do: "join", Line: "L1", Run: two.Lines[0].Runs[r].ID}, cat)
		if err != nil {
			t.Fatalf("job %d: joining again: %v", n, err)
		}
		if got := plan.Make(one, cat); totals(got) != totals(p) {
			t.Fatalf("job %d split and joined: totals %v, were %v", n, totals(got), totals(p))
		}
		same(t, "split and joined", before, picture(one.Lines[0]), "gates", "held", "ground")
	}
	if split < sized(120, 10) {
		t.Errorf("only %d jobs were split", split)
	}
}

// spotted gives one post of the job a hole of its own: wider, or stopped by
// rock, with its middle off the post's.
func spotted(n int, j job.Job, cat materials.Catalog) job.Job {
	rng := rand.New(rand.NewPCG(uint64(n), 61))
	r := rng.IntN(len(j.Lines[0].Runs))
	posts := plan.Make(j, cat).Runs[r].Posts
	post := posts[1+rng.IntN(len(posts)-1)] // the first may be dug with the run before
	spot := job.HoleOverride{ID: "S1", At: post.Station}
	spot.Hole.Width, spot.Hole.Along = ptr(length.Length(500)), ptr(length.Length(60))
	if rng.IntN(2) == 0 {
		spot.Hit = &job.Hit{What: job.HitRock, Depth: 400}
	}
	j.Lines[0].Runs[r].Overrides = []job.HoleOverride{spot}
	return j.WithFacts()
}

// turned tells whether all posts stand where they stood, seen from the other end.
func turned(p, q plan.Plan) bool {
	for i, r := range p.Runs {
		o := q.Runs[len(q.Runs)-1-i]
		for k, post := range r.Posts {
			if n := len(o.Posts); n != len(r.Posts) || (o.Posts[n-1-k].Station+post.Station-r.Length).Abs() > 0.01 {
				return false
			}
		}
	}
	return true
}

// Turned round, the same fence stands in the same place with the same load;
// turned round twice, it is the same line.
func TestReverseKeepsTheFenceWhereItIs(t *testing.T) {
	t.Parallel()
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(22, 7))
	for n := range sized(150, 20) {
		j := random(t, rng, cat)
		if j.Lines[0].Closed || len(survey.Reduce(j.Lines[0], "").Conflicts) > 0 {
			continue // a random misclosure comes to lie elsewhere, and of two heights the first walked counts
		}
		j = spotted(n, j, cat)
		p := plan.Make(j, cat)
		back := must(t, j, reshape.Op{Do: "reverse", Line: "L1"}, cat)
		same(t, "reversed", level(picture(j.Lines[0])), level(picture(back.Lines[0])), "gates", "held", "obstacles")
		// Counted in the run that ends there, a corner post between unlike runs may change its stock.
		got := plan.Make(back, cat)
		if got.Totals.Posts != p.Totals.Posts {
			t.Fatalf("job %d reversed: %d posts, were %d", n, got.Totals.Posts, p.Totals.Posts)
		}
		if !turned(p, got) {
			continue // of two layouts as good, the one walked first: a hole's own rules may find no post
		}
		if math.Abs(float64(got.Totals.Gravel-p.Totals.Gravel)) > 1e-9 {
			t.Fatalf("job %d reversed: %d posts and %v gravel, were %d and %v", n, got.Totals.Posts, got.Totals.Gravel, p.Totals.Posts, p.Totals.Gravel)
		}
		again := must(t, back, reshape.Op{Do: "reverse", Line: "L1"}, cat)
		same(t, "reversed twice", level(picture(j.Lines[0])), level(picture(again.Lines[0])), "gates", "held", "obstacles", "ground")
		if a, b := j.Lines[0].Runs[0].String.Face, again.Lines[0].Runs[0].String.Face; a != b {
			t.Fatalf("the lined face was %s and is %s", a, b)
		}
	}
}

// startsAt is the run that starts at a corner, or none at an open line's end.
func startsAt(l job.Line, corner int) string {
	if corner < len(l.Runs) {
		return l.Runs[corner].ID
	}
	return ""
}

// A dragged corner goes where it was dragged to; every other corner stays.
func TestMoveCorner(t *testing.T) {
	t.Parallel()
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(23, 7))
	moved := 0
	for n := range sized(400, 45) {
		j := random(t, rng, cat)
		j.Lines[0].Balance = false
		before := plan.Make(j, cat).Lines[0]
		i := rng.IntN(len(before.Corners))
		to := before.Corners[i].Place
		to.X, to.Y = to.X+length.Length(rng.NormFloat64()*900), to.Y+length.Length(rng.NormFloat64()*900)
		changed, err := apply(t, j, reshape.Op{Do: "move corner", Line: "L1", Run: startsAt(j.Lines[0], i), Place: &to}, cat)
		var refused reshape.Refused
		if errors.As(err, &refused) || err != nil && strings.Contains(err.Error(), "allowed") {
			continue // a gate, a reading or a triangle stood in the way
		}
		if err != nil {
			t.Fatal(err)
		}
		if sv := survey.Reduce(j.Lines[0], ""); len(sv.Conflicts) > 0 || sv.Loop != nil && sv.Loop.Error.Abs() > 60 {
			continue // heights with slips in them
		}
		if len(survey.Reduce(changed.Lines[0], "").Conflicts) > 0 {
			continue // a shortened run ends at another height than the next begins: said, not mended
		}
		moved++
		within := length.Length(0.05)
		if j.Lines[0].Closed {
			// Heights that do not close are spread again over the new distances,
			// which changes what slope tapes come to by parts of a millimetre.
			within = 1
		}
		for k, c := range plan.Make(changed, cat).Lines[0].Corners {
			want := before.Corners[k].Place
			if k == i {
				want = to
			}
			if c.Place.To(want) > within {
				t.Fatalf("job %d: corner %d of %d moved, corner %d is at %v, want %v", n, i, len(before.Corners), k, c.Place, want)
			}
		}
	}
	if moved < sized(90, 7) {
		t.Errorf("only %d corners could be moved", moved)
	}
}

func TestOtherChanges(t *testing.T) {
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(24, 7))
	j := random(t, rng, cat)
	for len(j.Lines[0].Runs) < 4 || j.Lines[0].Closed {
		j = random(t, rng, cat)
	}
	runs := len(j.Lines[0].Runs)
	more := must(t, j, reshape.Op{Do: "add run", Line: "L1", Run: "R2"}, cat)
	if r := more.Lines[0].Runs[2]; len(more.Lines[0].Runs) != runs+1 || r.Length != nil || r.ID == "" || !reflect.DeepEqual(r.Fence, j.Lines[0].Runs[1].Fence) {
		t.Errorf("added: %+v", r)
	}
	less := must(t, more, reshape.Op{Do: "remove run", Line: "L1", Run: "R3"}, cat)
	if len(less.Lines[0].Runs) != runs {
		t.Errorf("%d runs after taking the new one away", len(less.Lines[0].Runs))
	}
	order := must(t, j, reshape.Op{Do: "move run", Line: "L1", Run: "R1", After: "R3"}, cat).Lines[0]
	if order.Runs[2].ID != "R1" || order.Runs[0].ID != "R2" || len(order.Books) != len(j.Lines[0].Books) {
		t.Errorf("moved: %s %s %s", order.Runs[0].ID, order.Runs[1].ID, order.Runs[2].ID)
	}
	closed := must(t, j, reshape.Op{Do: "close", Line: "L1"}, cat)
	if p := plan.Make(closed, cat); !closed.Lines[0].Closed || p.Lines[0].Closing == nil {
		t.Error("a closed line has no closing")
	}
	if open := must(t, closed, reshape.Op{Do: "open", Line: "L1"}, cat); open.Lines[0].Closed {
		t.Error("it stayed closed")
	}
	two := must(t, j, reshape.Op{Do: "add line", Line: "L1"}, cat)
	if len(two.Lines) != 2 || len(two.Lines[1].Runs) != 1 {
		t.Errorf("%d lines", len(two.Lines))
	}
	if one := must(t, two, reshape.Op{Do: "remove line", Line: "L2"}, cat); len(one.Lines) != 1 {
		t.Errorf("%d lines", len(one.Lines))
	}
}

// A run that is shortened keeps the ground it still has, whichever book it was
// written in.
func TestResizeCutsTheBooksAtTheEnd(t *testing.T) {
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(25, 7))
	for n := range 200 {
		j := random(t, rng, cat)
		l := &j.Lines[0]
		l.Closed, l.Runs, l.Books = false, l.Runs[:1], slices.DeleteFunc(l.Books, func(b job.Book) bool { return b.ID != "BR1" })
		l.Runs[0].Gates, l.Runs[0].KeepOuts = nil, nil
		l.Runs[0].FixedPosts, l.Runs[0].HeldBays = nil, nil
		before := survey.Reduce(*l, "").Runs[0].Profile()
		to := *l.Runs[0].Length * length.Length(0.3+0.65*rng.Float64())
		short := must(t, j, reshape.Op{Do: "resize", Line: "L1", Run: "R1", At: to}, cat).Lines[0]
		g := survey.Reduce(short, "").Runs[0]
		if !length.Same(*short.Runs[0].Length, to) {
			t.Fatalf("job %d: %v long, want %v", n, *short.Runs[0].Length, to)
		}
		profile, lift := g.Profile(), before.Height(0)-g.Profile().Height(0)
		last := g.Length
		if len(short.Books) > 0 && short.Books[0].Kind == job.Rod {
			last = g.Points[len(g.Points)-2].At // beyond its last reading the ground is level
		}
		for i := range 20 {
			at := last * length.Length(i) / 19
			if off := (profile.Height(at) + lift - before.Height(at)).Abs(); off > 0.01 {
				t.Fatalf("job %d: the ground at %v moved by %v", n, at, off)
			}
		}
	}
}

// What cannot be done is refused in words, and the document stays as it is.
func TestRefusals(t *testing.T) {
	cat := shipped(t)
	j := document.New("A", length.Metric, cat)
	run := j.Lines[0].Runs[0]
	run.Length = ptr(length.Length(10000))
	run.Gates = []job.Gate{{ID: "G1", Name: "Yard gate", At: 5000, Opening: 1200}}
	second := run
	second.ID, second.Gates = "R2", nil
	second.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 40}
	second.FixedPosts = []job.FixedPost{{ID: "F1", At: 8000}}
	second.HeldBays = []job.HeldBay{{ID: "H1", Name: "Removable", At: 2000, Width: 2000}}
	j.Lines[0].Runs = []job.Run{run, second}
	for _, c := range []struct {
		op  reshape.Op
		why string
	}{
		{reshape.Op{Do: "split", Line: "L1", Run: "R1", At: 5100}, "in the opening of Yard gate"},
		{reshape.Op{Do: "split", Line: "L1", Run: "R1", At: 100}, "is split from 0.300 m to 9.700 m"},
		{reshape.Op{Do: "join", Line: "L1", Run: "R1"}, "turns 40.0°"},
		{reshape.Op{Do: "join", Line: "L1", Run: "R2"}, "no run after"},
		{reshape.Op{Do: "close", Line: "L1"}, "at least 3 runs"},
		{reshape.Op{Do: "resize", Line: "L1", Run: "R1", At: 4000}, "Yard gate reaches to"},
		{reshape.Op{Do: "remove line", Line: "L1"}, "at least one line"},
		{reshape.Op{Do: "split", Line: "L4", Run: "R1"}, `no line "L4"`},
		{reshape.Op{Do: "split", Line: "L1", Run: "R8"}, `no run "R8"`},
		{reshape.Op{Do: "move corner", Line: "L1", Run: "R2"}, "none was given"},
		{reshape.Op{Do: "split", Line: "L1", Run: "R2", At: 3000}, "in the fixed bay Removable"},
		{reshape.Op{Do: "resize", Line: "L1", Run: "R2", At: 7000}, "A post is fixed at 8.000 m"},
		{reshape.Op{Do: "resize", Line: "L1", Run: "R2", At: 3500}, "past a run of 3.500 m"},
		{reshape.Op{Do: "fly", Line: "L1", Run: "R1"}, `"fly"`},
	} {
		_, err := apply(t, j, c.op, cat)
		var refused reshape.Refused
		if !errors.As(err, &refused) || !strings.Contains(refused.Why, c.why) {
			t.Errorf("%s: got %v, want %q", c.op.Do, err, c.why)
		}
	}
	if _, _, err := reshape.Apply([]byte(`{`), reshape.Op{Do: "split", Line: "L1", Run: "R1"}, cat); err == nil {
		t.Error("half a document was changed")
	}
}

// Fields that this version does not know stay with the run they are in, also
// in both halves of a split one.
func TestUnknownFieldsStayWithTheirRun(t *testing.T) {
	cat := shipped(t)
	j := random(t, rand.New(rand.NewPCG(1, 1)), cat)
	doc, err := document.Apply(written(t, j), []job.Edit{job.Set("/lines/L1/runs/R1/paint", "green"), job.Set("/lines/L1/mood", "fine")})
	if err != nil {
		t.Fatal(err)
	}
	changed, what, err := reshape.Apply(doc, reshape.Op{Do: "split", Line: "L1", Run: "R1", At: 3000}, cat)
	if err != nil || what == "" {
		t.Fatal(err)
	}
	_, unknown, err := document.Decode(changed, cat)
	if err != nil || strings.Join(unknown, " ") != "/lines/L1/mood /lines/L1/runs/R1/paint /lines/L1/runs/R6/paint" {
		t.Errorf("kept %v (%v)", unknown, err)
	}
}

// Any change of any demo line is refused in words, or makes a document that
// can be read and planned, with every gate still in it unless its run was
// taken away.
func FuzzApply(f *testing.F) {
	dos := []string{"add run", "remove run", "move run", "split", "join", "reverse", "close", "open", "resize", "move corner", "add line", "remove line"}
	for i := range dos {
		f.Add(i, 0, 1, 2, 9000.0, 1200.0, -4000.0)
		f.Add(i, 0, 3, 0, 12000.0, 1e9, 5.0)
	}
	cat := shipped(f)
	docs, befores := smallLines(f, cat)
	f.Fuzz(func(t *testing.T, do, line, run, to int, at, x, y float64) {
		op := reshape.Op{Do: dos[uint(do)%uint(len(dos))], Line: fmt.Sprint("L", line+1), Run: []string{"", fmt.Sprint("R", run)}[min(1, max(0, run))], After: fmt.Sprint("R", to), At: length.Length(at), Place: &survey.Place{X: length.Length(x), Y: length.Length(y)}}
		k := uint(do) / uint(len(dos)) % uint(len(docs))
		for _, doc := range docs[k : k+1] {
			before := befores[k]
			changed, what, err := reshape.Apply(doc, op, cat)
			if err != nil {
				var refused reshape.Refused
				var fields document.Errors
				if !errors.As(err, &refused) && !errors.As(err, &fields) {
					t.Fatalf("%+v: %v", op, err)
				}
				continue
			}
			after, _, err := document.Decode(changed, cat)
			if err != nil || what == "" {
				t.Fatalf("%+v: %q, %v", op, what, err)
			}
			if gates(after) != gates(before) && op.Do != "remove run" && op.Do != "remove line" {
				t.Fatalf("%+v: %d gates of %d", op, gates(after), gates(before))
			}
			// A plan costs more than all the rest: one in many is made.
			if math.Float64bits(at)^math.Float64bits(x)&0x3f != 7 {
				continue
			}
			if _, err := json.Marshal(plan.Make(after, cat)); err != nil {
				t.Fatalf("%+v: %v", op, err)
			}
		}
	})
}

// smallLines are an open and a closed line that are quick to read: three runs
// with a gate, heights and something in the way.
func smallLines(f *testing.F, cat materials.Catalog) (docs [][]byte, jobs []job.Job) {
	for _, closed := range []bool{false, true} {
		j := document.New("Small", length.Metric, cat)
		like := j.Lines[0].Runs[0]
		j.Lines[0].Runs, j.Lines[0].Closed = nil, closed
		for i := range 3 {
			r, long, turn := like, length.Length(9000+1000*i), 120.0
			r.ID, r.Length = fmt.Sprintf("R%d", i+1), &long
			r.Ground = []job.GroundPoint{{At: 0}, {At: 4000, Height: 200}}
			if i == 1 {
				r.Gates = []job.Gate{{ID: "G1", At: 4000, Opening: 1000, Gap: 50}}
				r.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Drain, At: 7000, Width: 100}}
			}
			if i > 0 {
				r.Corner = &job.Corner{By: "deflection", Side: job.Left, Angle: turn}
			}
			j.Lines[0].Runs = append(j.Lines[0].Runs, r)
		}
		raw, err := json.Marshal(j)
		if err != nil {
			f.Fatal(err)
		}
		read, _, err := document.Decode(raw, cat)
		if err != nil {
			f.Fatal(err)
		}
		docs, jobs = append(docs, raw), append(jobs, read)
	}
	return docs, jobs
}

func gates(j job.Job) int {
	n := 0
	for _, l := range j.Lines {
		for _, r := range l.Runs {
			n += len(r.Gates)
		}
	}
	return n
}

// Looks, heights of their own and held heights stay where they are on the ground when a run is
// split, joined, turned round or shortened.
func TestLooksStayOnTheGround(t *testing.T) {
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(26, 7))
	for n := range 200 {
		j := document.New("A", length.Metric, cat)
		run := &j.Lines[0].Runs[0]
		run.Length = ptr(length.Length(20000))
		g := job.Grade{Look: job.Looks[rng.IntN(4)], Give: job.Fill, StartGap: ptr(length.Length(60)), EndGap: ptr(length.Length(70))}
		for range rng.IntN(4) {
			from := length.Length(rng.IntN(18000))
			part := job.LookPart{From: from, To: from + 500 + length.Length(rng.IntN(4000)), Look: job.Looks[rng.IntN(4)]}
			if rng.IntN(2) == 0 {
				part.Height = ptr(length.Length(900 + 100*rng.IntN(6)))
			}
			g.Parts = g.WithPart(part)
		}
		run.Grade = g
		look := func(l job.Line, at length.Length) string {
			for _, r := range l.Runs {
				if at <= *r.Length {
					return fmt.Sprint(r.Grade.LookAt(at), " ", float64(r.HeightAt(at)))
				}
				at -= *r.Length
			}
			return ""
		}
		at := length.Length(1000 + rng.IntN(18000))
		split := must(t, j, reshape.Op{Do: "split", Line: "L1", Run: "R1", At: at}, cat)
		if a, b := split.Lines[0].Runs[0].Grade, split.Lines[0].Runs[1].Grade; *a.StartGap != 60 || a.EndGap != nil || b.StartGap != nil || *b.EndGap != 70 {
			t.Fatalf("case %d: held ends after the split: %+v, %+v", n, a, b)
		}
		joined := must(t, split, reshape.Op{Do: "join", Line: "L1", Run: "R1"}, cat)
		turned := must(t, j, reshape.Op{Do: "reverse", Line: "L1"}, cat)
		short := must(t, j, reshape.Op{Do: "resize", Line: "L1", Run: "R1", At: at}, cat)
		for range 40 {
			s := length.Length(rng.Float64() * 19999)
			want := look(j.Lines[0], s)
			for name, got := range map[string]string{
				"split":  look(split.Lines[0], s),
				"joined": look(joined.Lines[0], s), "turned": look(turned.Lines[0], 20000-s),
			} {
				if got != want {
					t.Fatalf("case %d, %s: %s at %v, was %s (%+v)", n, name, got, s, want, g.Parts)
				}
			}
			if s < at && look(short.Lines[0], s) != want {
				t.Fatalf("case %d, shortened: another look at %v", n, s)
			}
		}
		if back := turned.Lines[0].Runs[0].Grade; *back.StartGap != 70 || *back.EndGap != 60 {
			t.Fatalf("case %d: held ends do not turn round", n)
		}
	}
}

// Names and facts go with the ground: whatever is split, joined or turned
// round, a post is who it was where it stands, and so is what was seen there.
func TestNamesAndFactsGoWithTheGround(t *testing.T) {
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(18, 7))
	for n := range sized(200, 25) {
		j := document.New("Names", length.Metric, cat)
		run := &j.Lines[0].Runs[0]
		run.Length = ptr(length.Length(12000 + rng.IntN(12000)))
		second := *run
		second.ID, second.Corner = "R2", &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 35}
		j.Lines[0].Runs = append(j.Lines[0].Runs, second)
		where := func(j job.Job) map[string][2]length.Length { // each post on the map
			r, err := plan.Compute(nil, j, cat, nil)
			if err != nil {
				t.Fatal(err)
			}
			out := map[string][2]length.Length{}
			for k, run := range r.Runs {
				at := r.Lines[0].Walk.Places[k]
				for _, p := range run.Holes.Posts {
					f := p.Station / run.Laid.Ground.Length
					out[p.ID] = [2]length.Length{at.From.X + f*(at.To.X-at.From.X), at.From.Y + f*(at.To.Y-at.From.Y)}
				}
			}
			return out
		}
		o, err := document.Open(written(t, j), cat)
		if err != nil {
			t.Fatal(err)
		}
		r, err := plan.Compute(nil, o.Job, cat, nil)
		if err != nil {
			t.Fatal(err)
		}
		posts := r.Runs[0].Holes.Posts
		struck := posts[1+rng.IntN(len(posts)-2)]
		depth, at := 400.0, struck.Station
		o.Job.Observed = []job.Fact{{ID: "f1", On: job.On("post", struck.ID), What: job.SeenRock, At: &at, Value: &depth}}
		if o, err = document.Open(written(t, o.Job), cat); err != nil {
			t.Fatal(err)
		}
		if _, err := o.Lay(r.Laid()); err != nil {
			t.Fatal(err)
		}
		doc, names := o.Doc, where(o.Job)
		split := posts[1+rng.IntN(len(posts)-2)]
		for _, op := range []reshape.Op{{Do: "split", Line: "L1", Run: "R1", At: split.Station}, {Do: "reverse", Line: "L1"}, {Do: "reverse", Line: "L1"}, {Do: "join", Line: "L1", Run: "R1"}} {
			if op.Do == "split" && (op.At < 300 || op.At > *run.Length-300) {
				break
			}
			changed, _, err := reshape.Apply(doc, op, cat)
			if err != nil {
				t.Fatalf("case %d, %s: %v", n, op.Do, err)
			}
			o, err := document.Open(changed, cat)
			if err != nil {
				t.Fatal(err)
			}
			for id, p := range where(o.Job) {
				was, known := names[id]
				if !known || (was[0]-p[0]).Abs() > 1 || (was[1]-p[1]).Abs() > 1 {
					t.Fatalf("case %d, %s: %s stands at %v, stood at %v (%v)", n, op.Do, id, p, was, known)
				}
			}
			hit := 0
			for _, r := range o.Job.Lines[0].Runs {
				for _, h := range r.Overrides {
					if h.Hit != nil && h.Hit.Depth == 400 {
						hit++
					}
				}
			}
			if hit != 1 || len(o.Job.Observed) != 1 || o.Job.Observed[0].On != job.On("post", struck.ID) {
				t.Fatalf("case %d, %s: %d holes are stopped, facts %v", n, op.Do, hit, o.Job.Observed)
			}
			doc = changed
		}
	}
}

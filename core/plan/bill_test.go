package plan_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"mallow/core/bill"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// exact is how much a bill has of items of a kind, or of one by its name.
func exact(items []bill.Item, of func(bill.Item) bool) float64 {
	sum := 0.0
	for _, i := range items {
		if of(i) {
			sum += i.Exact
		}
	}
	return sum
}

func kindIs(k bill.Kind) func(bill.Item) bool { return func(i bill.Item) bool { return i.Kind == k } }
func called(id string) func(bill.Item) bool   { return func(i bill.Item) bool { return i.ID == id } }

func alike(a, b float64) bool { return math.Abs(a-b) <= 1e-9*max(1, math.Abs(a), math.Abs(b)) }

// The bill of the job is the sum of those of its runs, item by item, and every
// item adds up to what posts, bays and gates say, counted here from these
// alone. Rounding happens where it is bought, and only there.
func TestBillAddsUp(t *testing.T) {
	rng := rand.New(rand.NewPCG(18, 1))
	for n := range sized(400, 60) {
		j := randomLines(t, rng)
		if n < 2 {
			j = demoJob(t, n)
		}
		p := plan.Make(j, shipped(t))
		sums := map[string]float64{}
		for r := range p.Runs {
			run := &p.Runs[r]
			runBillIsWhatItsPostsSay(t, n, run)
			for _, i := range run.Items {
				sums[i.ID] += i.Exact
				if len(i.Runs) != 1 || i.Runs[0].Run != run.ID || i.Runs[0].Exact != i.Exact {
					t.Fatalf("job %d, run %s: %s is shared out as %+v", n, run.ID, i.ID, i.Runs)
				}
				boughtWhole(t, i)
			}
		}
		for _, i := range p.Items {
			if !alike(i.Exact, sums[i.ID]) {
				t.Fatalf("job %d: %s comes to %g, its runs to %g", n, i.ID, i.Exact, sums[i.ID])
			}
			shared := 0.0
			for _, s := range i.Runs {
				shared += s.Exact
			}
			if !alike(shared, i.Exact) {
				t.Fatalf("job %d: %s comes to %g, shared out %g", n, i.ID, i.Exact, shared)
			}
			boughtWhole(t, i)
			delete(sums, i.ID)
		}
		if len(sums) > 0 {
			t.Fatalf("job %d: the job's bill lacks %v", n, sums)
		}
	}
}

// runBillIsWhatItsPostsSay counts the posts, bays and gates of a run by hand.
func runBillIsWhatItsPostsSay(t *testing.T, n int, run *plan.Run) {
	t.Helper()
	posts, concrete, gravel, spoil := 0, length.Volume(0), length.Volume(0), length.Volume(0)
	ids := []string{}
	for i := range run.Posts {
		q := &run.Posts[i]
		if q.Shared != "" || q.Stays != "" {
			continue
		}
		posts++
		ids = append(ids, q.Label)
		concrete += q.ConcreteVolume
		gravel += q.GravelVolume
		spoil += run.Cards[q.Card].Spoil
	}
	leaves := 0
	for _, g := range run.Gates {
		leaves += len(g.Leaves)
		if g.RunBack != nil {
			leaves++
		}
	}
	var placed []string
	for _, i := range run.Items {
		count := 0
		for _, g := range i.Goes {
			if g.Run != run.ID {
				t.Fatalf("job %d, run %s: %s goes to %s", n, run.ID, i.ID, g.Run)
			}
			count += len(g.At)
			if i.Kind == bill.Post {
				placed = append(placed, g.At...)
			}
		}
		if i.Kind == bill.Post && count != int(i.Exact) {
			t.Fatalf("job %d, run %s: %g of %s go to %d places", n, run.ID, i.Exact, i.ID, count)
		}
	}
	slices.Sort(placed)
	slices.Sort(ids)
	if !slices.Equal(placed, ids) {
		t.Fatalf("job %d, run %s: posts go to %v, there are %v", n, run.ID, placed, ids)
	}
	hours, auger := exact(run.Items, called("digging-by-hand")), exact(run.Items, called("digging-by-auger"))
	for _, c := range []struct {
		what      string
		got, want float64
	}{
		{"posts", exact(run.Items, kindIs(bill.Post)), float64(posts)},
		{"leaves", exact(run.Items, kindIs(bill.Leaf)), float64(leaves)},
		{"pieces", setBays(run), float64(run.Totals.Pieces)},
		{"gravel, a tenth more loose", exact(run.Items, kindIs(bill.Gravel)), 1.1 * float64(gravel)},
		{"spoil", exact(run.Items, kindIs(bill.Spoil)), float64(spoil)},
		{"concrete to buy", exact(run.Items, kindIs(bill.Concrete)), float64(run.Totals.ConcreteToBuy)},
		{"fill", exact(run.Items, called("soil-to-fill")), float64(run.Totals.Fill)},
		{"cut", exact(run.Items, called("soil-to-cut")), float64(run.Totals.Cut)},
		{"hours by hand", hours, run.Totals.Hours.ByHand},
		{"hours by auger", auger, run.Totals.Hours.ByAuger},
	} {
		if !alike(c.got, c.want) {
			t.Fatalf("job %d, run %s: %s come to %g, want %g", n, run.ID, c.what, c.got, c.want)
		}
	}
	if bought := exact(run.Items, kindIs(bill.Concrete)); bought < float64(concrete)-1e-9 {
		t.Fatalf("job %d, run %s: %g of concrete is bought for %g", n, run.ID, bought, float64(concrete))
	}
}

// setBays is how many of the pieces that set a run's bays its bill has. A fence of
// horizontal boards has its bays set by boards that its bill counts row by row.
func setBays(run *plan.Run) float64 {
	n, boards := 0.0, false
	for _, i := range run.Items {
		switch {
		case i.Cuts != nil && !i.Cuts.Joined:
			for _, w := range i.Cuts.Wants {
				boards = boards || w.Part == "Upright in the middle of the bay"
				if w.Part == "Rail" || w.Part == "Panel" || w.Part == "Metal panel" {
					n += float64(w.Count)
				}
			}
		case i.What == "Split rail", strings.HasPrefix(i.ID, "panels/"), strings.HasPrefix(i.ID, "rails/"), i.What == "Bays of boards":
			n += i.Exact
		}
	}
	if boards || len(run.Rails) == 0 && run.Way != job.PanelsBetween && run.Way != job.PanelsOnFaces && run.Way != job.OverlapRails && run.Way != job.FixedModule {
		return float64(run.Totals.Pieces)
	}
	return n
}

// boughtWhole holds that what is bought covers what is needed, by less than
// one more.
func boughtWhole(t *testing.T, i bill.Item) {
	t.Helper()
	cat := shipped(t)
	covers := func(count, of float64) {
		if bought := count * of; bought < i.Exact*(1-1e-6) || bought >= i.Exact+of {
			t.Fatalf("%s: %g of %g each are bought for %g", i.ID, count, of, i.Exact)
		}
	}
	if len(i.Bought) == 0 || i.What == "" {
		t.Fatalf("%s is not bought: %+v", i.ID, i)
	}
	for _, b := range i.Bought {
		if len(b.Many) == 0 {
			t.Fatalf("%s by %s is not said", i.ID, b.By)
		}
		switch b.By {
		case "pieces", "loose", "hours":
			if b.Count != i.Exact {
				t.Fatalf("%s: %g of %g are bought", i.ID, b.Count, i.Exact)
			}
		case "bags":
			if id, ok := strings.CutPrefix(i.ID, "concrete/"); ok {
				bag, known := cat.Bag(id)
				if !known {
					t.Fatalf("%s is bought in bags that nobody sells", i.ID)
				}
				covers(b.Count, float64(bag.Yield))
			}
			fallthrough
		case "bulk bags":
			if b.Count != math.Trunc(b.Count) || b.Count < 1 {
				t.Fatalf("%s: %g bags", i.ID, b.Count)
			}
		}
	}
}

// The demo's hillside, worked by hand: on the Lane 17 holes take 5.19 bags each
// and the two of the gate 8.39: 17 × 5.188 + 2 × 8.386 = 104.97.
func TestBillByHand(t *testing.T) {
	p := plan.Make(demoJob(t, 0), shipped(t))
	run := p.Runs[0]
	bags := 0.0
	for _, q := range run.Posts {
		if q.Shared == "" {
			bags += q.Bags
		}
	}
	k := slices.IndexFunc(run.Items, kindIs(bill.Concrete))
	if got := run.Items[k].Bought[0]; got.By != "bags" || got.Count != math.Ceil(bags) || got.Many.Print(p.Units) != "105 bags" {
		t.Errorf("bought %s by %s; the posts say %.2f", got.Many.Print(p.Units), got.By, bags)
	}
	// The same item has the same name in the job's bill.
	if !slices.ContainsFunc(p.Items, called(run.Items[k].ID)) {
		t.Errorf("%s is not in the job's bill", run.Items[k].ID)
	}
}

// What an item is called does not hang on what else is in the job.
func TestItemsKeepTheirNames(t *testing.T) {
	j := demoJob(t, 0)
	before := plan.Make(j, shipped(t)).Items
	j.Lines = append([]job.Line{}, j.Lines...)
	j.Lines[0].Runs = append([]job.Run{}, j.Lines[0].Runs...)
	j.Lines[0].Runs[2].Name = "Elsewhere"
	j.Lines[0].Runs[2].Spacing.Most -= 100
	after := plan.Make(j, shipped(t)).Items
	kept := 0
	for _, i := range before {
		if slices.ContainsFunc(after, called(i.ID)) {
			kept++
		}
	}
	if kept < len(before)-3 {
		t.Errorf("only %d of %d items are called as before", kept, len(before))
	}
}

// Waste that is not the same on all runs is not said as that of the first.
func TestBillSaysWhichWaste(t *testing.T) {
	say := func(lane, trees float64) string {
		j := demoJob(t, 0)
		j.Lines = append([]job.Line{}, j.Lines...)
		j.Lines[0].Runs = append([]job.Run{}, j.Lines[0].Runs[:2]...)
		j.Lines[0].Runs[0].Setting.Waste, j.Lines[0].Runs[1].Setting.Waste = &lane, &trees
		p := plan.Make(j, shipped(t))
		k := slices.IndexFunc(p.Items, kindIs(bill.Concrete))
		return p.Items[k].Bought[0].Of.Print(p.Units)
	}
	for want, wastes := range map[string][2]float64{
		", with 10 % waste": {0.1, 0.1}, ", with the waste that was given": {0.1, 0.05}, " lb": {0, 0},
	} {
		if got := say(wastes[0], wastes[1]); !strings.HasSuffix(got, want) {
			t.Errorf("waste %v is said as %q", wastes, got)
		}
	}
}

package plan_test

import (
	"math"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// stockOf is the length of all posts together, as bought.
func stockOf(t plan.Totals) (sum length.Length) {
	for _, s := range t.Stock {
		sum += s.Length * length.Length(s.Count)
	}
	return sum
}

// Near misses: each is said, and each way that is offered is taken and saves
// what it says.
func TestNearMisses(t *testing.T) {
	cat := shipped(t)
	ft := length.Foot
	imperial := func(change func(*job.Job, *job.Run)) job.Job {
		j := document.New("N", length.Imperial, cat)
		r := &j.Lines[0].Runs[0]
		r.Length = ptr(56 * ft)
		change(&j, r)
		return j
	}
	for _, c := range []struct {
		rule, says string
		job        job.Job
		ways       int
		saves      func(before, after plan.Totals) bool
	}{
		// 6 ft over a gap of 2 in, 42 in in the ground and 1 in to trim: 9 ft 9 in of post; 42.5 with frost makes 10 ft and 1/2 in.
		{"near-stock", "8 posts need 12' 0\" stock for the last 1/2\" or less. A little shorter, and 10' 0\" stock does", imperial(func(j *job.Job, r *job.Run) {
			j.Site.FrostDepth, j.Hole.FrostMargin, j.Hole.RoundDepthTo = ptr(45.5*inch), ptr(length.Length(0)), ptr(length.Length(0))
		}), 3, func(a, b plan.Totals) bool { return stockOf(a)-stockOf(b) == 16*ft }},
		{"near-auger", "the 16\" auger is only 1/2\" too narrow", imperial(func(_ *job.Job, r *job.Run) {
			r.Post.Width = 5.5 * inch // three times it is 16 1/2 in
		}), 1, func(a, b plan.Totals) bool { return b.Concrete < a.Concrete && b.Posts == a.Posts }},
		{"near-bay", "one post more, because 7 bays would each be 3/4\" over", imperial(func(_ *job.Job, r *job.Run) {
			r.Length = ptr(56*ft + 5*inch) // seven bays of 96 5/7
		}), 1, func(a, b plan.Totals) bool { return b.Posts == a.Posts-1 }},
		{"near-panel", "more play at each joint", func() job.Job {
			j := outfitted(t, "metal-panel", 60*ft)
			r := &j.Lines[0].Runs[0]
			regular := r.Spacing.Regular(r.Post.Width, r.Post.Width)
			r.Length = ptr(8*regular + 1.5*inch)
			return j
		}(), 1, func(a, b plan.Totals) bool { return a.CutPieces > 0 && b.CutPieces == 0 }},
		{"near-truck", "The truck's order goes up to", func() job.Job {
			// Concrete just over a quarter yard once its waste is on.
			for long := 40 * ft; long < 200*ft; long += ft {
				j := imperial(func(j *job.Job, r *job.Run) { r.Length = ptr(long) })
				if find(plan.Make(j, cat), "near-truck") != nil {
					return j
				}
			}
			t.Fatal("no job is near a step of the truck")
			return job.Job{}
		}(), 1, func(a, b plan.Totals) bool { return b.Truck.Order < a.Truck.Order-0.1 && b.Waste > 0.02 }},
	} {
		p := plan.Make(c.job, cat)
		f := find(p, c.rule)
		if f == nil {
			t.Errorf("%s is not said: %d posts, stock %v", c.rule, p.Totals.Posts, p.Totals.Stock)
			continue
		}
		if says := f.Says.Print(c.job.Units); !strings.Contains(says, c.says) {
			t.Errorf("%s does not say %q: %s", c.rule, c.says, says)
		}
		if len(f.Remedies) < c.ways {
			t.Errorf("%s has %d ways, want %d", c.rule, len(f.Remedies), c.ways)
		}
		for _, way := range f.Remedies {
			after := plan.Make(applied(t, c.job, way.Edits), cat)
			if !c.saves(p.Totals, after.Totals) {
				t.Errorf("%s, %s: saves nothing: posts %d and %d, stock %v and %v, cut %d and %d", c.rule, way.Says.Print(c.job.Units),
					p.Totals.Posts, after.Totals.Posts, stockOf(p.Totals), stockOf(after.Totals), p.Totals.CutPieces, after.Totals.CutPieces)
			}
			if again := find(after, c.rule); again != nil && again.Place == f.Place {
				t.Errorf("%s, %s: it is still said: %s", c.rule, way.Says.Print(c.job.Units), again.Says.Print(c.job.Units))
			}
		}
	}
	// Well under a stock length, or well over it, nothing is said.
	for _, frost := range []length.Length{44.9 * inch, 47 * inch} {
		j := imperial(func(j *job.Job, r *job.Run) {
			j.Site.FrostDepth, j.Hole.FrostMargin, j.Hole.RoundDepthTo = &frost, ptr(length.Length(0)), ptr(length.Length(0))
		})
		if f := find(plan.Make(j, cat), "near-stock"); f != nil {
			t.Errorf("frost at %v in: %s", frost.Inches(), f.Says.Print(j.Units))
		}
	}
}

// Each limit of a near miss, just under it and just over it.
func TestNearMissLimits(t *testing.T) {
	cat := shipped(t)
	feet := func(change func(*job.Job, *job.Run)) job.Job {
		j := document.New("N", length.Imperial, cat)
		j.Lines[0].Runs[0].Length = ptr(56 * length.Foot)
		change(&j, &j.Lines[0].Runs[0])
		return j
	}
	frost := func(at length.Length) job.Job { // posts pass 10 ft from 45 in on
		return feet(func(j *job.Job, _ *job.Run) {
			j.Site.FrostDepth, j.Hole.FrostMargin, j.Hole.RoundDepthTo = ptr(at*inch), ptr(length.Length(0)), ptr(length.Length(0))
		})
	}
	thick := func(wide length.Length) job.Job { // 16 in is 4 % less than 16.67
		return feet(func(_ *job.Job, r *job.Run) { r.Post.Width = wide * inch / 3 })
	}
	play := func(by length.Length) job.Job { // eight panels, two joints each
		j := outfitted(t, "metal-panel", 60*length.Foot)
		r := &j.Lines[0].Runs[0]
		r.Length = ptr(8*r.Spacing.Regular(r.Post.Width, r.Post.Width) + 16*by)
		return j
	}
	// A hole's width by hand is looked for that gives a figure between two others.
	search := func(figure func(plan.Totals) float64, by length.Length, from, to float64) job.Job {
		for wide := length.Length(300); wide < 300+6000*by; wide += by {
			j := feet(func(_ *job.Job, r *job.Run) { r.Hole.Width = ptr(wide) })
			if f := figure(computed(t, j, nil).Totals); f > from && f < to {
				return j
			}
		}
		t.Fatalf("no hole gives a figure between %v and %v", from, to)
		return job.Job{}
	}
	lastBag := func(b plan.Totals) float64 { return math.Mod(b.BagKinds[0].Exact, 1) }
	lastStep := func(b plan.Totals) float64 {
		step := length.CubicYard / 4
		return b.Waste - (float64((b.Truck.Order-step)/b.Concrete) - 1)
	}
	for _, c := range []struct {
		rule        string
		under, over job.Job
	}{
		{"near-stock", frost(46), frost(46.1)},
		{"near-auger", thick(16.65), thick(16.7)},
		{"near-panel", play(3.95), play(4.05)},
		{"near-bag", search(lastBag, 0.01, 0.046, 0.05), search(lastBag, 0.01, 0.0501, 0.055)},
		{"near-truck", search(lastStep, 0.05, 0.018, 0.02), search(lastStep, 0.05, 0.0201, 0.0225)},
	} {
		if find(plan.Make(c.under, cat), c.rule) == nil {
			t.Errorf("%s is not said just under its limit", c.rule)
		}
		if f := find(plan.Make(c.over, cat), c.rule); f != nil {
			t.Errorf("%s is said just over its limit: %s", c.rule, f.Says.Print(c.over.Units))
		}
	}
}

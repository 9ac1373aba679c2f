package plan

import (
	"cmp"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/reason"
)

// totals adds up the run: exact values first, whole bags last. A corner post
// is counted in the run that ends there.
func (m *maker) totals() Totals {
	own := make([]Post, 0, len(m.out.Posts))
	t := Totals{BagKinds: []BagCount{}}
	t.pieces(m.out.Bays, m.out.Rails)
	t.soil(m.out.Bays, m.run.Grade.StripWidth(m.job.Units))
	t.breaks(m.out.Posts, m.job.Units.SmallestMark)
	for i := range m.out.Posts {
		if m.out.Posts[i].Shared != "" {
			t.Elsewhere++
			continue
		}
		if m.out.Posts[i].Stays != "" {
			t.Reused++
			continue
		}
		own = append(own, m.out.Posts[i])
	}
	t.count(own)
	t.ConcreteToBuy = t.Concrete * length.Volume(1+m.run.Setting.Waste)
	if m.bagKnown {
		t.bag(m.bag, pour.Bags(t.ConcreteToBuy, m.bag.Yield))
	}
	t.gravel(m.cat)
	t.Why = TotalsWhy{Concrete: m.whyBags(t), Gravel: m.whyGravel(t)}
	return t
}

func (t *Totals) count(posts []Post) {
	t.Posts, t.Kinds = len(posts), []KindCount{}
	counts := map[job.PostKind]int{}
	for i := range posts {
		counts[posts[i].Kind]++
		t.Concrete += posts[i].ConcreteVolume
		t.Gravel += posts[i].GravelVolume
	}
	for _, kind := range []job.PostKind{job.EndPost, job.CornerPost, job.GatePost, job.LinePost} {
		if n := counts[kind]; n > 0 {
			t.Kinds = append(t.Kinds, KindCount{kind, n})
		}
	}
	t.Holes = holesBySize(posts)
	t.Stock, t.StockShort = stockByLength(posts)
}

// pieces counts the panels, boards or rails that set the bays.
func (t *Totals) pieces(bays []Bay, rails []RailRow) {
	for _, row := range rails {
		for _, p := range row.Pieces {
			t.Pieces++
			if p.Cut {
				t.CutPieces++
			}
		}
	}
	for i := range bays {
		if bays[i].Piece > 0 {
			t.Pieces++
			if bays[i].PieceCut {
				t.CutPieces++
			}
		}
	}
}

func (t *Totals) bag(b materials.Bag, exact float64) {
	n := pour.WholeBags(exact)
	t.BagKinds = append(t.BagKinds, BagCount{b.Name, exact, n, b.Mass * length.Mass(n)})
	t.Bags += n
}

func (t *Totals) gravel(cat materials.Catalog) {
	t.GravelLoose = t.Gravel * length.Volume(1+cat.Gravel.Tamping)
	t.GravelMass = length.Mass(float64(t.GravelLoose) * cat.Gravel.Density)
}

// jobTotals adds up all runs. Bags of one kind are rounded up once for the
// job, not once for each run.
func jobTotals(runs []*maker, book *reason.Book, cat materials.Catalog) Totals {
	if len(runs) == 1 {
		return runs[0].out.Totals
	}
	t := Totals{BagKinds: []BagCount{}}
	var posts []Post
	exact := map[string]float64{}
	var kinds []materials.Bag
	for _, m := range runs {
		for i := range m.out.Posts {
			if m.out.Posts[i].Shared == "" && m.out.Posts[i].Stays == "" {
				posts = append(posts, m.out.Posts[i])
			}
		}
		t.Elsewhere += m.out.Totals.Elsewhere
		t.Reused += m.out.Totals.Reused
		t.Pieces, t.CutPieces = t.Pieces+m.out.Totals.Pieces, t.CutPieces+m.out.Totals.CutPieces
		t.Cut, t.Fill, t.InfillBoards = t.Cut+m.out.Totals.Cut, t.Fill+m.out.Totals.Fill, t.InfillBoards+m.out.Totals.InfillBoards
		t.GradePosts, t.Steps = t.GradePosts+m.out.Totals.GradePosts, t.Steps+m.out.Totals.Steps
		t.ConcreteToBuy += m.out.Totals.ConcreteToBuy
		if !m.bagKnown || len(m.out.Posts) == 0 {
			continue
		}
		if _, seen := exact[m.bag.ID]; !seen {
			kinds = append(kinds, m.bag)
		}
		exact[m.bag.ID] += m.out.Totals.BagKinds[0].Exact
	}
	t.count(posts)
	for _, b := range kinds {
		t.bag(b, exact[b.ID])
	}
	t.gravel(cat)
	few := reason.NewIndex[any](book)
	t.Why = TotalsWhy{Concrete: few.Put("concrete", func() reason.Why { return whyJobConcrete(runs, t) }),
		Gravel: few.Put("gravel", func() reason.Why { return whyJobGravel(runs, t) })}
	return t
}

func whyJobConcrete(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Concrete for the job",
		Sentence: reason.Say(t.Posts, " holes on ", len(runs), " runs take ", t.ConcreteToBuy, " (", reason.Bulk(t.ConcreteToBuy), ").")}
	w.Steps = append(w.Steps, reason.Step{Rule: "Rounded up once", Governs: true, Source: geometry,
		Says: reason.Say("The runs' exact volumes are added; bags of a kind are rounded up once for the job.")})
	if t.Elsewhere > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: "Corner posts once", Source: practice,
			Says: reason.Say(t.Elsewhere, plural(t.Elsewhere, " corner post belongs", " corner posts belong"), " to two runs and is dug once: counted in the run that ends there.")})
	}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours,
			Says: reason.Say(m.out.Totals.Posts, plural(m.out.Totals.Posts, " hole", " holes"), ", ", m.out.Totals.ConcreteToBuy)})
	}
	return w
}

func whyJobGravel(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Gravel for the job", Sentence: reason.Say(t.Gravel, " tamped in the holes = ", reason.Bulk(t.GravelLoose), " loose.")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours, Says: reason.Say(m.out.Totals.Gravel, " tamped")})
	}
	return w
}

// holesBySize counts the holes of each size, the smallest first.
func holesBySize(posts []Post) []Holes {
	all := make([]Holes, 0, len(posts))
	for i := range posts {
		if posts[i].HoleDepth > 0 { // a driven post may have none
			all = append(all, Holes{posts[i].HoleWidth, posts[i].HoleDepth, 1})
		}
	}
	slices.SortFunc(all, func(a, b Holes) int {
		return cmp.Or(cmp.Compare(a.Width, b.Width), cmp.Compare(a.Depth, b.Depth))
	})
	out := all[:0]
	for _, h := range all {
		if n := len(out); n > 0 && length.Same(out[n-1].Width, h.Width) && length.Same(out[n-1].Depth, h.Depth) {
			out[n-1].Count++
			continue
		}
		out = append(out, h)
	}
	return out
}

// stockByLength counts the posts of each stock length, the shortest first.
func stockByLength(posts []Post) (out []Stock, short int) {
	out = []Stock{}
	for i := range posts {
		if posts[i].Stays != "" {
			continue
		}
		if posts[i].Stock == nil {
			short++
			continue
		}
		l := *posts[i].Stock // one of a few lengths
		k := slices.IndexFunc(out, func(s Stock) bool { return length.Same(s.Length, l) })
		if k < 0 {
			out = append(out, Stock{l, 1})
			continue
		}
		out[k].Count++
	}
	slices.SortFunc(out, func(a, b Stock) int { return cmp.Compare(a.Length, b.Length) })
	return out, short
}

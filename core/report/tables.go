package report

import (
	"slices"
	"strings"

	"mallow/core/bill"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/words"
)

// of are the tables that there are of a run, by their ids, in their order.
var of = []struct {
	id    string
	table func(plan.Plan, *plan.Run) Table
}{
	{"setout", SetOut}, {"posts", Posts}, {"bays", Bays}, {"holes", Holes}, {"gates", Gates}, {"load", loadOf},
}

// IDs are the ids of the tables.
func IDs() []string {
	var out []string
	for _, t := range of {
		out = append(out, t.id)
	}
	return out
}

// Of is a table of one run.
func Of(p plan.Plan, id string, run int) (Table, bool) {
	for _, t := range of {
		if t.id == id {
			return t.table(p, &p.Runs[run]), true
		}
	}
	return Table{}, false
}

// All is a table of all runs, with the run in the first column; the load, of
// the whole job too.
func All(p plan.Plan, id string) (Table, bool) {
	var out Table
	for i := range p.Runs {
		t, ok := Of(p, id, i)
		if !ok {
			return t, false
		}
		out = out.After(t.under(runName(&p.Runs[i])))
	}
	if id == "load" && len(p.Runs) > 1 {
		out = out.After(Load(p, p.Items).under(words.Plain("report.whole-job")))
	}
	return out, slices.Contains(IDs(), id)
}

// under is a table with the name of what it is of in a first column.
func (t Table) under(name string) Table {
	t.Columns = append([]Column{{ID: "run", Name: words.Plain("report.head-run"), Kind: Text}}, t.Columns...)
	rows := make([]Row, len(t.Rows))
	for i, r := range t.Rows {
		r.Cells = append([]any{name}, r.Cells...)
		rows[i] = r
	}
	t.Rows = rows
	return t
}

func runName(r *plan.Run) string {
	if r.Name != "" {
		return r.Name
	}
	return r.ID
}

// standing is a post with where it stands.
type standing struct {
	plan *plan.Plan
	run  *plan.Run
	i    int
	*plan.Post
}

func posts(p *plan.Plan, r *plan.Run) []standing {
	out := make([]standing, len(r.Posts))
	for i := range r.Posts {
		out[i] = standing{p, r, i, &r.Posts[i]}
	}
	return out
}

func (s standing) row() Row {
	r := Row{Run: s.run.ID, Post: s.ID}
	if s.i > 0 {
		r.Bay = s.run.Bays[s.i-1].ID
	}
	return r
}

// role is what kind of post it is to those who set it.
func (s standing) role() string {
	switch {
	case s.Kind == job.GatePost && s.Hung:
		return words.Plain("report.hinge")
	case s.Kind == job.GatePost:
		return words.Plain("report.latch")
	}
	return string(s.Kind)
}

// onMap is where the post stands on the site map.
func (s standing) onMap() (x, y length.Length) {
	at := s.run.From.Towards(s.run.To, float64(s.Station/max(1, s.run.Length)))
	return at.X, at.Y
}

// dug tells whether a hole is dug for it in its own run.
func (s standing) dug() bool { return s.Card >= 0 && s.Shared == "" }

// notes are what else must be known where the post is marked or dug.
func (s standing) notes(pins bool) reason.Text {
	var all []reason.Text
	say := func(t reason.Text) { all = append(all, t) }
	if s.Stays != "" {
		say(words.Say("report.stays"))
	}
	if s.Shared != "" {
		say(words.Say("report.dug-with", words.V{"run": s.Shared}))
	}
	if s.Driven {
		say(words.Say("report.driven"))
	}
	if len(s.Hand) > 0 {
		say(words.Say("report.by-hand"))
	}
	if s.Repoured != "" {
		say(words.Say("report.old-footing-out"))
	}
	switch {
	case s.Stopped != nil:
		say(words.Say("report.stopped-by", words.V{"what": string(s.Stopped.What)}))
	case s.Spot != "":
		say(words.Say("report.own-rules"))
	}
	if m := s.mark(); pins && m.Pin > 0 {
		say(words.Say("report.pin", words.V{"pin": m.Pin, "past": m.Past}))
	}
	var out reason.Text
	for i, t := range all {
		if i > 0 {
			out = out.Words("; ")
		}
		out = append(out, t...)
	}
	return out
}

// length is a length that is there; nothing where it is not.
func maybe(l *length.Length) any {
	if l == nil {
		return nil
	}
	return *l
}

func some(l length.Length, there bool) any {
	if !there {
		return nil
	}
	return l
}

// postColumns say which post a row is of.
func postColumns() []column[standing] {
	return []column[standing]{
		col("post", Text, func(s standing) any { return s.Label }),
		col("kind", Text, func(s standing) any { return s.role() }),
	}
}

func mapColumns() []column[standing] {
	return []column[standing]{
		col("x", Tape, func(s standing) any { x, _ := s.onMap(); return x }, file),
		col("y", Tape, func(s standing) any { _, y := s.onMap(); return y }, file),
	}
}

// SetOut are a run's marks in taping order: running distances from its first
// post, level and along the ground, the check from the far end, and where each
// post stands on the map for those who set out with an instrument.
func SetOut(p plan.Plan, r *plan.Run) Table {
	columns := append(postColumns(),
		col("level", Tape, func(s standing) any { return s.mark().Level }, main, why("station")),
		col("slope", Tape, func(s standing) any { return s.mark().Slope }),
		col("level_tape", Text, func(s standing) any { return s.plan.Units.Tape(s.mark().Level) }, file),
		col("slope_tape", Text, func(s standing) any { return s.plan.Units.Tape(s.mark().Slope) }, file),
		col("from_far_end", Tape, func(s standing) any { return s.mark().Back }),
		col("bay", Short, func(s standing) any { return some(s.mark().Bay, s.i > 0) }, why("spacing")),
		col("clear", Short, func(s standing) any { return some(s.mark().Clear, s.i > 0) }),
		col("offset", Short, func(s standing) any { return s.run.SetOut.Offset }, file),
		col("hole_width", Short, func(s standing) any { return some(s.HoleWidth, s.Stays == "") }, why("holeWidth")),
		col("hole_depth", Short, func(s standing) any { return some(s.HoleDepth, s.Stays == "") }, why("holeDepth")),
		col("pin", Count, func(s standing) any { return orNothing(s.mark().Pin) }, file),
		col("past_pin", Tape, func(s standing) any { return some(s.mark().Past, s.mark().Pin > 0) }, file),
		col("notes", Words, func(s standing) any { return s.notes(true) }),
	)
	if r.SetOut == nil {
		return filled("setout", p.Units, columns, nil, standing.row)
	}
	return filled("setout", p.Units, append(columns, mapColumns()...), posts(&p, r), standing.row)
}

func orNothing(n int) any {
	if n == 0 {
		return nil
	}
	return n
}

func (s standing) mark() plan.Mark {
	if s.run.SetOut == nil {
		return plan.Mark{}
	}
	return s.run.SetOut.Marks[s.i]
}

func (s standing) top() plan.TopPost {
	if s.run.TopLine == nil {
		return plan.TopPost{}
	}
	return s.run.TopLine.Posts[s.i]
}

// Posts are what is marked on every post and cut of it, and how its top is
// found by laser, level string, tight string and eye.
func Posts(p plan.Plan, r *plan.Run) Table {
	columns := append(postColumns(),
		col("level", Tape, func(s standing) any { return s.Station }, why("station"), file),
		col("slope", Tape, func(s standing) any { return s.Slope }, file),
		col("ground", Short, func(s standing) any { return s.Ground }, file),
		col("top", Short, func(s standing) any { return s.Top }, file),
		col("stock", Short, func(s standing) any { return maybe(s.Stock) }, why("stock")),
		col("top_above_ground", Short, func(s standing) any { return s.AboveGrade }, main, why("top")),
		col("top_tape", Text, func(s standing) any { return s.plan.Units.Tape(s.AboveGrade) }, file),
		col("face_before", Short, func(s standing) any { return s.AboveBefore }),
		col("face_after", Short, func(s standing) any { return s.AboveAfter }),
		col("in_ground", Short, func(s standing) any { return s.Foot }),
		col("post_needed", Short, func(s standing) any { return s.Needed }, file),
		col("cut_to", Short, func(s standing) any { return some(s.Needed, s.CutFirst) }, page),
		col("cut_off", Short, func(s standing) any {
			if s.CutFirst {
				return nil
			}
			return maybe(s.CutOff)
		}),
		col("mark_above_ground", Short, func(s standing) any { return s.Mark }, why("tops")),
		col("step", Rise, func(s standing) any { return s.Step }),
		col("overlap", Short, func(s standing) any { return some(s.Overlap, s.Step.Abs() >= s.plan.Units.SmallestMark/2) }),
		col("grade_post", Flag, func(s standing) any { return s.Grade }),
		col("rail_holes", Words, func(s standing) any { return railHoles(s) }),
		col("stays", Text, func(s standing) any {
			switch {
			case s.Stays != "":
				return words.Plain("report.stays")
			case s.Stock == nil:
				return words.Plain("report.none-long-enough")
			}
			return ""
		}),
		col("from_laser", Short, func(s standing) any { return s.top().Laser }, file),
		col("from_level_string", Short, func(s standing) any { return -s.top().Drop }, file),
		col("from_tight_string", Short, func(s standing) any { return s.top().String }, file),
		col("from_sight", Short, func(s standing) any { return s.top().Sight }, file),
	)
	return filled("posts", p.Units, append(columns, mapColumns()...), posts(&p, r), standing.row)
}

// railHoles are the middles of the holes for routed rails, on the one face and
// on the other where that is not the same.
func railHoles(s standing) reason.Text {
	var out reason.Text
	for i, h := range s.Holes {
		if i > 0 {
			out = out.Words(" · ")
		}
		switch {
		case h.Before == nil && h.After == nil:
		case h.Before == nil:
			out = out.Length(*h.After)
		case h.After == nil || (*h.Before-*h.After).Abs() < s.plan.Units.SmallestMark/2:
			out = out.Length(*h.Before)
		default:
			out = out.Length(*h.Before).Words("/").Length(*h.After)
		}
	}
	return out
}

// spanning is a bay with where it is.
type spanning struct {
	plan *plan.Plan
	run  *plan.Run
	*plan.Bay
}

// Bays are what is cut and closed between the posts.
func Bays(p plan.Plan, r *plan.Run) Table {
	list := make([]spanning, len(r.Bays))
	for i := range r.Bays {
		list[i] = spanning{&p, r, &r.Bays[i]}
	}
	return filled("bays", p.Units, []column[spanning]{
		col("bay_name", Text, func(b spanning) any { return b.Label }),
		col("from", Text, func(b spanning) any { return b.From }),
		col("to", Text, func(b spanning) any { return b.To }),
		col("gate", Text, func(b spanning) any { return b.Gate }),
		col("centres", Short, func(b spanning) any { return b.CentreToCentre }, why("spacing"), total),
		col("between_faces", Short, func(b spanning) any { return b.Clear }),
		col("on_ground", Short, func(b spanning) any { return b.OnGround }),
		col("look", Text, func(b spanning) any { return string(b.Look) }, file),
		col("lean", Rise, func(b spanning) any { return b.Lean }, why("lean")),
		col("angle", Degrees, func(b spanning) any {
			if b.Lean.Abs() < b.plan.Units.SmallestMark/2 {
				return nil
			}
			return b.Angle
		}),
		col("rail", Short, func(b spanning) any { return some(b.Long, b.Gate == "") }, main, why("lean")),
		col("piece_cut", Short, func(b spanning) any { return some(b.Piece, b.PieceCut) }),
		col("gap_first_face", Short, func(b spanning) any { return b.FaceStart }),
		col("gap_second_face", Short, func(b spanning) any { return b.FaceEnd }),
		col("gap_least", Short, func(b spanning) any { return b.GapLeast.Gap }, why("gap")),
		col("gap_least_at", Tape, func(b spanning) any { return b.GapLeast.At }, file),
		col("gap_most", Short, func(b spanning) any { return b.GapMost.Gap }),
		col("gap_most_at", Tape, func(b spanning) any { return b.GapMost.At }, file),
		col("cut", Short, func(b spanning) any {
			if b.Cut == nil {
				return nil
			}
			return b.Cut.Depth
		}),
		col("fill", Short, func(b spanning) any {
			if b.Fill == nil || b.Infill != nil {
				return nil
			}
			return b.Fill.Depth
		}),
		col("boards", Count, func(b spanning) any {
			if b.Infill == nil {
				return nil
			}
			return b.Infill.Boards
		}),
	}, list, func(b spanning) Row { return Row{Run: r.ID, Bay: b.ID} })
}

// Holes are how wide and deep is dug for every post, where foot and concrete
// end, what goes in, and the gust at which its footing reaches the published
// limit.
func Holes(p plan.Plan, r *plan.Run) Table {
	card := func(s standing) *plan.Card { return &s.run.Cards[s.Card] }
	dug := func(v func(standing) any) func(standing) any {
		return func(s standing) any {
			if s.Card < 0 {
				return nil
			}
			return v(s)
		}
	}
	// A corner post's hole is dug, and counted, with the run that ends there.
	counted := func(v func(standing) any) func(standing) any {
		return func(s standing) any {
			if !s.dug() {
				return nil
			}
			return v(s)
		}
	}
	columns := append(postColumns(),
		col("level", Tape, func(s standing) any { return s.Station }, file),
		col("set", Text, func(s standing) any {
			if s.Card < 0 {
				return words.Plain("report.set-stays")
			}
			return string(card(s).Method)
		}, file),
		col("width", Short, dug(func(s standing) any { return s.HoleWidth }), why("holeWidth")),
		col("square", Flag, dug(func(s standing) any { return card(s).Square })),
		col("dig", Short, dug(func(s standing) any { return s.HoleDepth }), main, why("holeDepth")),
		col("concrete_bottom", Short, dug(func(s standing) any { return s.Bottom })),
		col("foot", Short, dug(func(s standing) any { return s.Foot })),
		col("gravel", Short, dug(func(s standing) any { return s.Gravel })),
		col("dug_volume", Small, counted(func(s standing) any { return card(s).Dug }), file, total),
		col("gravel_volume", Small, counted(func(s standing) any { return card(s).Gravel }), file, total),
		col("stone_volume", Small, counted(func(s standing) any { return card(s).Stone }), file, total),
		col("concrete_volume", Small, counted(func(s standing) any { return card(s).Concrete }), total, why("concrete")),
		col("soil_back", Small, counted(func(s standing) any { return card(s).Soil }), file, total),
		col("spoil_loose", Small, counted(func(s standing) any { return card(s).Spoil }), file, total),
		col("bag", Text, counted(func(s standing) any { return card(s).Bag }), file),
		col("bags", Number, counted(func(s standing) any { return card(s).Bags }), total),
		col("layers_from_the_bottom", Text, dug(func(s standing) any { return layers(s.plan.Units, card(s)) }), file),
		col("stopped_by", Text, func(s standing) any {
			if s.Stopped == nil {
				return ""
			}
			return string(s.Stopped.What)
		}, file),
		col("dug_with_run", Text, func(s standing) any { return s.Shared }, file),
		col("gust", Wind, func(s standing) any {
			if s.Wind == nil {
				return nil
			}
			return s.Wind.Gust
		}, file),
		col("notes", Words, func(s standing) any { return s.notes(false) }),
	)
	return filled("holes", p.Units, columns, posts(&p, r), standing.row)
}

// layers names a hole's layers with their heights, from the bottom up.
func layers(u length.Units, c *plan.Card) string {
	var out []string
	for _, l := range c.Layers {
		out = append(out, string(l.Kind)+" "+u.Short(l.To-l.From))
	}
	return strings.Join(out, "; ")
}

// leaf is a leaf with its gate; of a sliding gate, the gate alone.
type leaf struct {
	run *plan.Run
	*plan.Gate
	leaf *plan.GateLeaf
}

// Gates are a run's gates, a row for each leaf and one for a sliding gate: the
// opening with its post distances and check diagonal, the leaf to order, the
// least gap on its way, and where its hinges and latch go.
func Gates(p plan.Plan, r *plan.Run) Table {
	var list []leaf
	for i := range r.Gates {
		g := &r.Gates[i]
		if g.RunBack != nil {
			list = append(list, leaf{r, g, nil})
		}
		for k := range g.Leaves {
			list = append(list, leaf{r, g, &g.Leaves[k]})
		}
	}
	its := func(v func(*plan.GateLeaf) any) func(leaf) any {
		return func(l leaf) any {
			if l.leaf == nil {
				return nil
			}
			return v(l.leaf)
		}
	}
	hinge := func(last bool) func(leaf) any {
		return its(func(l *plan.GateLeaf) any {
			switch n := len(l.Hinges); {
			case n == 0:
				return nil
			case last:
				return l.Hinges[n-1].Above
			}
			return l.Hinges[0].Above
		})
	}
	least := func(l leaf) (gap length.Length, degrees float64, known bool) {
		if l.leaf == nil {
			return l.RunBack.Gap, 0, true
		}
		for i, s := range l.leaf.Sides {
			if i == 0 || s.Gap < gap {
				gap, degrees, known = s.Gap, s.Angle, true
			}
		}
		return gap, degrees, known
	}
	return filled("gates", p.Units, []column[leaf]{
		col("gate", Text, func(l leaf) any { return l.ID }, file),
		col("name", Text, func(l leaf) any { return gateName(l.Gate) }),
		col("gate_kind", Text, func(l leaf) any { return string(l.Kind) }, file),
		col("use", Text, func(l leaf) any { return string(l.Use) }, file),
		col("middle", Tape, func(l leaf) any { return l.At }),
		col("first_post", Text, func(l leaf) any { return l.First }),
		col("second_post", Text, func(l leaf) any { return l.Second }),
		col("inside", Short, func(l leaf) any { return l.Opening }, main),
		col("clear_way", Short, func(l leaf) any { return l.Clear }),
		col("centre_to_centre", Short, func(l leaf) any { return l.Centre }),
		col("outside", Short, func(l leaf) any { return l.Outside }, file),
		col("diagonal", Short, func(l leaf) any { return l.Checks[2].Length }),
		col("gap_under", Short, func(l leaf) any { return l.Bottom - l.Highest }, file),
		col("hangs_on", Text, its(func(l *plan.GateLeaf) any { return l.Post })),
		col("swings", Text, func(l leaf) any { return string(l.Swing) }),
		col("leaf_width", Short, func(l leaf) any {
			if l.leaf == nil {
				return l.RunBack.Past
			}
			return l.leaf.Width
		}),
		col("leaf_height", Short, func(l leaf) any {
			if l.leaf == nil {
				return l.Leaf
			}
			return l.leaf.Height
		}),
		col("leaf", Mass, its(func(l *plan.GateLeaf) any { return l.Mass }), total),
		col("estimated", Flag, its(func(l *plan.GateLeaf) any { return l.Estimated }), file),
		col("moment", Moment, its(func(l *plan.GateLeaf) any { return l.Moment }), file),
		col("hinge_pull", Force, its(func(l *plan.GateLeaf) any { return l.Pull })),
		col("least_gap", Short, func(l leaf) any { gap, _, known := least(l); return some(gap, known) }),
		col("least_gap_at", Degrees, func(l leaf) any {
			if _, degrees, _ := least(l); l.leaf != nil {
				return degrees
			}
			return nil
		}, file),
		col("bottom_hinge", Short, hinge(false), file),
		col("top_hinge", Short, hinge(true), file),
		col("latch", Short, func(l leaf) any {
			if l.Latch == nil {
				return nil
			}
			return l.Latch.Above
		}, file),
	}, list, func(leaf) Row { return Row{Run: r.ID} })
}

func gateName(g *plan.Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}

func loadOf(p plan.Plan, r *plan.Run) Table { return Load(p, r.Items) }

// Load is a bill: each way to buy each item in a row of its own, the exact
// number with its unit, and how it is said.
func Load(p plan.Plan, items []bill.Item) Table {
	names := map[string]string{} // of gates, by their ids in all runs
	for i := range p.Runs {
		for k := range p.Runs[i].Gates {
			g := &p.Runs[i].Gates[k]
			names[p.Runs[i].ID+"/"+g.ID] = gateName(g)
		}
	}
	imperial := p.Units.System == length.Imperial
	bulk, per := "m³", 1.0
	if imperial {
		bulk, per = "yd³", float64(length.CubicYard)
	}
	inBulk := func(r bill.Row) bool { return r.Item.Unit == bill.CubicMetres }
	t := filled("load", p.Units, []column[bill.Row]{
		col("item", Text, func(r bill.Row) any { return r.Item.ID }, file),
		col("item_kind", Text, func(r bill.Row) any { return string(r.Item.Kind) }, file),
		col("what", Text, func(r bill.Row) any { return r.Buy.What }),
		col("exact", Number, func(r bill.Row) any {
			if inBulk(r) {
				return r.Item.Exact / per
			}
			return r.Item.Exact
		}, file),
		col("unit", Text, func(r bill.Row) any {
			if inBulk(r) {
				return bulk
			}
			return string(r.Item.Unit)
		}, file),
		col("bought_by", Text, func(r bill.Row) any { return r.By }, file),
		col("to_buy", Number, func(r bill.Row) any {
			if r.By == bill.Truck || r.By == bill.Loose {
				return r.Count / per
			}
			return r.Count
		}, file),
		col("how_many", Words, func(r bill.Row) any { return r.Many }, main),
		col("piece", Short, func(r bill.Row) any { return some(r.Item.Length, r.Item.Length > 0) }, file),
		col("piece_tape", Text, func(r bill.Row) any {
			if r.Item.Length == 0 {
				return ""
			}
			return p.Units.Short(r.Item.Length)
		}, file),
		col("of_what", Words, func(r bill.Row) any { return r.Of }),
		col("for", Text, func(r bill.Row) any { return gatesOf(r, names) }, page),
		col("of_them_cut", Count, func(r bill.Row) any {
			if r.Or {
				return nil
			}
			return orNothing(r.Item.Cut)
		}, file),
		col("where", Text, func(r bill.Row) any { return where(r) }, file),
	}, bill.Rows(items), func(bill.Row) Row { return Row{} })
	return t
}

// gatesOf are the gates that leaves are for, by the names that are on the site.
func gatesOf(r bill.Row, names map[string]string) string {
	var out []string
	if r.Item.Kind != bill.Leaf || r.Or {
		return ""
	}
	for _, lot := range r.Item.Goes {
		for _, id := range lot.At {
			if name := names[lot.Run+"/"+id]; name != "" && !slices.Contains(out, name) {
				out = append(out, name)
			}
		}
	}
	return strings.Join(out, ", ")
}

// where is where an item's pieces go.
func where(r bill.Row) string {
	var all []string
	if r.Or {
		return ""
	}
	for _, g := range r.Item.Goes {
		all = append(all, g.At...)
	}
	return strings.Join(all, " ")
}

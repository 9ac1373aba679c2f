package paper

import (
	"slices"
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/scene"
	"mallow/core/stage/build"
	"mallow/core/words"
)

// builds are what is put together on each run: a bay with its parts, the spacers,
// how many of each part, and the order of the work.
func (w writer) builds(run string) []Sheet {
	out := w.each(run, func(i int) []Sheet {
		r := w.plan.Runs[i]
		if r.Built == nil || len(r.Built.Parts) == 0 {
			return nil
		}
		return []Sheet{{Of: w.name(i), At: w.at(i), Alone: true, Blocks: w.build(r)}}
	})
	if n := len(out); n > 0 { // once, under the last
		out[n-1] = w.warned(out[n-1], "build")
	}
	return out
}

func (w writer) build(r plan.Run) []Block {
	parts := Table{Head: []string{words.Plain("paper.part"), words.Plain("report.head-how_many"), words.Plain("paper.lengths"), words.Plain("paper.gap")}, Bold: 1, Size: 9}
	for i := range r.Built.Parts {
		p := &r.Built.Parts[i]
		if p.Kind == job.FinishPart {
			continue
		}
		many := strconv.Itoa(p.Count)
		if p.By == job.ByRoll {
			many = w.units.Tape(length.Length(p.Taken()) * length.Metre)
		}
		parts.Rows = append(parts.Rows, []string{p.Name, many, w.lengths(p), w.gap(p)})
	}
	var picture []Block
	for k := range r.Bays {
		if b := &r.Bays[k]; b.Gate == "" {
			picture = append(picture, Figure{Plan: w.plan, View: scene.View{Of: scene.OfBay, Run: r.ID, Bay: b.ID}, Height: 70})
			break
		}
	}
	out := []Block{Uneven{Columns{picture, {parts.said()}}, []float64{4, 5}}}
	if steps := r.Built.Cat.Steps(r.Built.Spec.System, w.job.Systems); len(steps) > 0 {
		out = append(out, Heading(words.Plain("paper.order-of-work")), List{Items: steps, Numbered: true})
	}
	return out
}

// said is a table without the columns that say nothing.
func (t Table) said() Table {
	out := Table{Bold: t.Bold, Size: t.Size, Tick: t.Tick, Rows: make([][]string, len(t.Rows))}
	for k, h := range t.Head {
		if !slices.ContainsFunc(t.Rows, func(row []string) bool { return row[k] != "" }) {
			continue
		}
		out.Head = append(out.Head, h)
		for i, row := range t.Rows {
			out.Rows[i] = append(out.Rows[i], row[k])
		}
	}
	return out
}

// mostLengths is how many lengths of a part are named on its line.
const mostLengths = 3

// lengths are those of a part's pieces.
func (w writer) lengths(p *build.Part) string {
	out, n := "", 0
	counts := map[length.Length]int{}
	var order []length.Length
	for _, q := range p.Pieces {
		if q.Long == 0 {
			continue
		}
		key := w.units.Round(q.Long)
		if counts[key] == 0 {
			order = append(order, key)
		}
		counts[key] += q.Count
	}
	for _, l := range order {
		if n++; n > mostLengths {
			return words.Plain("paper.and-others", words.V{"list": out, "count": len(order) - mostLengths})
		}
		if out != "" {
			out += ", "
		}
		out += w.words("paper.label-many", words.V{"count": counts[l], "long": l})
	}
	return out
}

// gap is the spacer of pieces side by side.
func (w writer) gap(p *build.Part) string {
	if len(p.Fills) == 0 || p.Fills[0].Gaps == 0 {
		return ""
	}
	least, most := p.Fills[0].Gap, p.Fills[0].Gap
	for _, f := range p.Fills {
		least, most = min(least, f.Gap), max(most, f.Gap)
	}
	if length.Same(least, most) {
		return w.units.Short(least)
	}
	return w.units.Short(least) + "–" + w.units.Short(most)
}

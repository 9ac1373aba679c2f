package plan

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// pool asks what barriers round water are usually held to.
func (w *gateJudge) pool() {
	if !w.g.Pool {
		return
	}
	p := w.m.cat.Passage
	if w.out.Kind == job.SwingGate && w.out.Swing != job.SwingOut {
		w.find("pool-swing", finding.Check, reason.Say("A gate in a pool barrier opens away from the water: who leans on it shuts it. ", w.name(), " swings ", string(w.out.Swing), "."),
			finding.Remedy{Says: reason.Say("Swing it out"), Edits: []job.Edit{w.set("swing", job.SwingOut)}})
	}
	if t := w.out.Latch; t != nil && t.Above < p.PoolLatch-length.Tolerance {
		high := finding.Remedy{Says: reason.Say("Latch at ", p.PoolLatch), Edits: []job.Edit{w.set("latch", p.PoolLatch)}}
		says := reason.Say("Codes usually ask for a latch ", p.PoolLatch, " up, out of a small child's reach; ", w.name(), " has it at ", t.Above, ".")
		if t.OnLeaf-t.Above+p.PoolLatch >= w.out.Leaf {
			w.find("pool-latch", finding.Check, append(says, reason.Say(" The leaf is not that high: a shielded latch inside, as the local code says, or a higher gate.")...))
		} else {
			w.find("pool-latch", finding.Check, says, high)
		}
	}
	if under := w.out.Bottom - w.out.Highest; under > p.PoolGap+length.Tolerance {
		g := w.g
		g.Gap = p.PoolGap
		var remedies []finding.Remedy
		if w.m.worst(g).Gap >= wanted(g)-length.Tolerance || w.g.Kind == job.SlideGate {
			remedies = append(remedies, finding.Remedy{Says: reason.Say("A gap of ", p.PoolGap), Edits: []job.Edit{w.set("gap", p.PoolGap)}})
		}
		w.find("pool-gap", finding.Check, reason.Say("Codes usually allow no more than ", p.PoolGap, " under a gate in a pool barrier; ", w.name(), " has ", under, "."), remedies...)
	}
}

// animals asks what keeps animals in.
func (w *gateJudge) animals() {
	p := w.m.cat.Passage
	if under := w.out.Bottom - w.out.Highest; w.g.Animals && under > p.Creeping+length.Tolerance {
		g := w.g
		g.Gap = p.Creeping
		var remedies []finding.Remedy
		if w.m.worst(g).Gap >= wanted(g)-length.Tolerance {
			remedies = append(remedies, finding.Remedy{Says: reason.Say("A gap of ", p.Creeping), Edits: []job.Edit{w.set("gap", p.Creeping)}})
		}
		w.find("animals-gap", finding.Note, reason.Say("Small animals get through a gap of more than ", p.Creeping, "; ", w.name(), " has ", under, ". Where the leaf needs it to swing, a flap of belting closes it."), remedies...)
	}
}

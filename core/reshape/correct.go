package reshape

import (
	"slices"
	"strconv"
	"strings"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// Systems finds fence systems; a catalogue does.
type Systems interface {
	System(id string, own []job.System) (job.System, bool)
}

// Correct gives a run another taped length as a crew means it that taped the
// run wrong: what stands at its far end, a height and a gate, moves with that
// end. It says what moved. What lies past a nearer end refuses the change, and
// the message says what to do first.
func Correct(j job.Job, line, r int, to length.Length, systems Systems) (job.Line, string, error) {
	l := copied(j.Lines[line])
	run := &l.Runs[r]
	var moved []string
	if run.Length != nil {
		from := *run.Length
		if moveEnd(run, from, to) {
			moved = append(moved, words.Plain("reshape.the-height-at-its-far"))
		}
		for b := range l.Books {
			book := &l.Books[b]
			for i := range book.Rows {
				row := &book.Rows[i]
				if (book.Run == run.ID && book.Kind != job.Rod || row.Run == run.ID) && row.At >= from-length.Tolerance {
					row.At = to
				}
			}
		}
		if run.Taped != job.TapedSlope {
			for i := range run.Gates {
				if moveGate(run, i, from, to) {
					moved = append(moved, named(run.Gates[i].Name, run.Gates[i].ID))
				}
			}
		}
	}
	if err := resize(&l, r, to, j.Units); err != nil {
		return l, "", err
	}
	run.Assumed = false
	if err := bareGate(j, run, systems); err != nil {
		return l, "", err
	}
	if len(moved) == 0 {
		return l, "", nil
	}
	return l, words.Plain("reshape.moved-with-it", words.V{"join": strings.Join(moved, words.Plain("reshape.and"))}), nil
}

// moveEnd takes the height that was measured at a run's end along with it.
func moveEnd(run *job.Run, from, to length.Length) bool {
	n := len(run.Ground)
	if n == 0 || run.Ground[n-1].At < from-length.Tolerance {
		return false
	}
	end := run.Ground[n-1]
	kept := run.Ground[: n-1 : n-1]
	for len(kept) > 0 && kept[len(kept)-1].At >= to-length.Tolerance {
		kept = kept[:len(kept)-1]
	}
	end.At = to
	run.Ground = append(kept, end)
	return true
}

// moveGate takes a gate whose second post is the run's end post along with
// it; one across the whole run gets as much wider.
func moveGate(run *job.Run, i int, from, to length.Length) bool {
	g := &run.Gates[i]
	first, second := run.GatePosts(*g)
	if second < from-length.Millimetre {
		return false
	}
	if first <= length.Millimetre && g.Leaf == nil && g.Clear == nil {
		g.Opening += to - from
		g.At += (to - from) / 2
		return true
	}
	g.At += to - from
	return true
}

// Outfit gives a run a fence system, or every run of the line where r is -1. A
// bare gate gets its gate. Without a system a run keeps its values, and is of
// no type any more.
func Outfit(j job.Job, line, r int, id string, systems Systems, usual document.Usual) (job.Line, string, error) {
	l := copied(j.Lines[line])
	if r < 0 {
		name := ""
		for i := range l.Runs {
			j.Lines = slices.Clone(j.Lines)
			j.Lines[line] = l
			var err error
			if l, name, err = Outfit(j, line, i, id, systems, usual); err != nil {
				return l, "", err
			}
		}
		return l, words.Plain("reshape.on-every-run", words.V{"name": name}), nil
	}
	if id == "" {
		l.Runs[r].System = ""
		return l, words.Plain("reshape.no-fence-type"), nil
	}
	s, ok := systems.System(id, j.Systems)
	if !ok {
		return l, "", refuse(words.Plain("reshape.there-is-no-fence-type", words.V{"id": strconv.Quote(id)}))
	}
	l.Runs[r] = s.Outfit(l.Runs[r])
	if err := bareGate(j, &l.Runs[r], systems); err != nil {
		return l, "", err
	}
	return l, s.Name, nil
}

// bareGate puts a gate across a run whose system is nothing but one: two posts
// and no fence.
func bareGate(j job.Job, run *job.Run, systems Systems) error {
	s, ok := systems.System(run.System, j.Systems)
	if !ok || !s.Gate || run.Length == nil || len(run.Gates) > 0 {
		return nil
	}
	usual, ok := systems.(document.Usual)
	if !ok {
		return nil
	}
	g := usual.UsualGate(j.Units.System)
	g.ID, g.Name = "G1", words.Plain("reshape.gate")
	g.At, g.Opening = *run.Length/2, *run.Length-run.PostOf(job.GatePost).Width
	run.Gates = []job.Gate{g}
	if errs := document.CheckGates("", *run, j.Units); len(errs) > 0 {
		return refuse(words.Plain("reshape.a-bare-gate-stands-between", words.V{"length": j.Units.Tape(*run.Length), "allowed": errs[0].Allowed}))
	}
	return nil
}

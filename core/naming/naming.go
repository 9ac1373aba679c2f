// Package naming lets posts keep their names while a run is laid out again:
// which post of a new layout is which of the last one, and what the posts are
// called in order along the run.
package naming

import (
	"math"

	"mallow/core/length"
)

// Known is a post of the last layout.
type Known struct {
	At length.Length
	By string // what it stands by: an end, a gate's post, a held post; empty for a line post
}

// same is within what two posts are one: half a millimetre, as stations are
// kept to the millimetre.
const same = length.Millimetre / 2

// Match finds for each post of a new layout the post of the last one that it
// is, by its place in the list; −1 for a new one. Both are in order of
// station.
//
// A post that stands by something is the one that stood by it. Of the others,
// one that has not moved is itself, and between those that have not moved as
// many names are kept as there are posts to bear them: in their order, so that
// no two ever change places, and so that all together move the least.
func Match(known, now []Known) []int {
	out := make([]int, len(now))
	for i := range out {
		out[i] = -1
	}
	free := byAnchor(known, now, out)
	var olds, news []int
	for k := range known {
		if free[k] {
			olds = append(olds, k)
		}
	}
	for i := range now {
		if out[i] < 0 {
			news = append(news, i)
		}
	}
	// What has not moved splits the rest into gaps that have nothing to do
	// with each other.
	a, b := 0, 0
	for i, k := 0, 0; i <= len(news); i++ {
		if i == len(news) {
			gap(known, now, olds[a:], news[b:], out)
			break
		}
		at := now[news[i]].At
		for k < len(olds) && known[olds[k]].At < at-same {
			k++
		}
		if k < len(olds) && (known[olds[k]].At-at).Abs() <= same {
			gap(known, now, olds[a:k], news[b:i], out)
			out[news[i]] = olds[k]
			k++
			a, b = k, i+1
		}
	}
	return out
}

// byAnchor matches what stands by the same thing, the nearest where several
// did, and tells which of the known posts are left.
func byAnchor(known, now []Known, out []int) (free []bool) {
	by := map[string][]int{}
	free = make([]bool, len(known))
	for k, p := range known {
		free[k] = true
		if p.By != "" {
			by[p.By] = append(by[p.By], k)
		}
	}
	for i, p := range now {
		if p.By == "" {
			continue
		}
		best := -1
		for _, k := range by[p.By] {
			if free[k] && (best < 0 || (known[k].At-p.At).Abs() < (known[best].At-p.At).Abs()) {
				best = k
			}
		}
		if best >= 0 {
			out[i], free[best] = best, false
		}
	}
	return free
}

// gap matches the posts of one gap: every one of the fewer, in order, with the
// least that all of them move. The table holds, for the first i of the fewer
// and the s that are skipped among the more, the least way so far.
func gap(known, now []Known, olds, news []int, out []int) {
	few, more, swapped := olds, news, false
	if len(few) > len(more) {
		few, more, swapped = news, olds, true
	}
	if len(few) == 0 {
		return
	}
	skips := len(more) - len(few)
	off := func(i, k int) float64 {
		f, m := few[i], more[k]
		if swapped {
			f, m = m, f
		}
		return float64((known[f].At - now[m].At).Abs())
	}
	least := make([]float64, skips+1)
	skip := make([]bool, len(few)*(skips+1)) // the least way there skips one more
	for i := range few {
		best := math.Inf(1) // of the ways that skip no more than so many
		for s, way := range least {
			if best <= way {
				skip[i*(skips+1)+s] = true
			} else {
				best = way
			}
			least[s] = best + off(i, i+s)
		}
	}
	s := 0
	for k := range least {
		if least[k] < least[s] {
			s = k
		}
	}
	for i := len(few) - 1; i >= 0; i-- {
		if swapped {
			out[few[i]] = more[i+s]
		} else {
			out[more[i+s]] = few[i]
		}
		for skip[i*(skips+1)+s] {
			s--
		}
	}
}

package spacing

import (
	"math"

	"mallow/core/length"
)

// The solver counts in whole units of a ten-thousandth of a millimetre, so
// that a post that must stand exactly at the edge of a keep-out does, whatever
// sums led there. A run of 100 km is 10¹² units: far inside an int64. Tape
// marks, down to 1/32 in, are whole numbers of it to the last bit but one.
const unit = 1e-4 * length.Millimetre

func up(l length.Length) int64      { return int64(math.Ceil(float64(l/unit) - 1e-6)) }
func down(l length.Length) int64    { return int64(math.Floor(float64(l/unit) + 1e-6)) }
func nearest(l length.Length) int64 { return int64(math.Round(float64(l / unit))) }

// span is a closed stretch of places.
type span struct{ from, to int64 }

// spans is a set of places: stretches in order, no two touching.
type spans []span

// room hands out space for sets from one large piece, since a search makes
// hundreds of thousands of small ones.
type room struct{ free []span }

func (r *room) set(most int) spans {
	const least, piece = 64, 8192
	if cap(r.free)-len(r.free) < most {
		r.free = make([]span, 0, max(least, min(4*cap(r.free), piece), most))
	}
	n := len(r.free)
	r.free = r.free[:n+most]
	return spans(r.free[n : n : n+most])
}

// keep gives back what a set, the last one handed out, does not need.
func (r *room) keep(s spans) spans {
	r.free = r.free[:len(r.free)-(cap(s)-len(s))]
	return s[:len(s):len(s)]
}

// join adds a stretch that begins no earlier than the ones before it.
func (s spans) join(x span) spans {
	if n := len(s); n > 0 && x.from <= s[n-1].to {
		s[n-1].to = max(s[n-1].to, x.to)
		return s
	}
	return append(s, x)
}

// or is every place in either set.
func (s spans) or(t spans, r *room) spans {
	if len(t) == 0 {
		return s
	}
	out := r.set(len(s) + len(t))
	i, j := 0, 0
	for i < len(s) || j < len(t) {
		if j == len(t) || i < len(s) && s[i].from <= t[j].from {
			out, i = out.join(s[i]), i+1
		} else {
			out, j = out.join(t[j]), j+1
		}
	}
	return r.keep(out)
}

// and is every place in both sets.
func (s spans) and(t spans, r *room) spans {
	if len(s) == 0 || len(t) == 0 {
		return nil
	}
	out := r.set(len(s) + len(t))
	for i, j := 0, 0; i < len(s) && j < len(t); {
		from, to := max(s[i].from, t[j].from), min(s[i].to, t[j].to)
		if from <= to {
			out = append(out, span{from, to})
		}
		if s[i].to < t[j].to {
			i++
		} else {
			j++
		}
	}
	return r.keep(out)
}

// moved is every place inside that a step of between least and most leads to.
func (s spans) moved(least, most int64, inside span, r *room) spans {
	out := r.set(len(s))
	for _, x := range s {
		if from, to := max(x.from+least, inside.from), min(x.to+most, inside.to); from <= to {
			out = out.join(span{from, to})
		}
	}
	return r.keep(out)
}

func (s spans) equal(t spans) bool {
	if len(s) != len(t) {
		return false
	}
	for i := range s {
		if s[i] != t[i] {
			return false
		}
	}
	return true
}

// find returns the stretch that holds a place, or that follows it.
func (s spans) find(x int64) (i int, in bool) {
	lo, hi := 0, len(s)
	for lo < hi {
		mid := (lo + hi) / 2
		if s[mid].to < x {
			lo = mid + 1
		} else {
			hi = mid
		}
	}
	return lo, lo < len(s) && s[lo].from <= x
}

// closest returns the place in the set, between from and to, that is nearest
// to zero.
func (s spans) closest(from, to int64) (int64, bool) {
	best, ok := int64(0), false
	i, _ := s.find(from)
	for ; i < len(s) && s[i].from <= to; i++ {
		x := min(max(0, max(s[i].from, from)), min(s[i].to, to))
		if !ok || abs(x) < abs(best) {
			best, ok = x, true
		}
	}
	return best, ok
}

func abs(x int64) int64 {
	if x < 0 {
		return -x
	}
	return x
}

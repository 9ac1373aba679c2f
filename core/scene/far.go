package scene

import (
	"math"
	"sort"

	"mallow/core/length"
	"mallow/core/survey"
)

// surface is a line over the ground between two stations, level beyond its
// ends. Of what is less than a pixel apart, the lowest and the highest are
// drawn.
func (r *run) surface(ground []survey.Point, from, to length.Length) []float64 {
	g := profile(ground, r.Length)
	at := func(s length.Length) float64 { return float64(g.Height(max(0, min(r.Length, s)))) }
	out := []float64{r.x(from), at(from)}
	first := sort.Search(len(ground), func(i int) bool { return ground[i].At > from })
	for i := first; i < len(ground) && ground[i].At < to; {
		lowest, highest, k := i, i, i
		for ; k < len(ground) && ground[k].At < to && (k == i || float64(ground[k].At-ground[i].At) < r.per); k++ {
			if ground[k].Height < ground[lowest].Height {
				lowest = k
			}
			if ground[k].Height > ground[highest].Height {
				highest = k
			}
		}
		for _, n := range []int{min(lowest, highest), max(lowest, highest)} {
			if n == lowest && n == highest && len(out) > 2 && out[len(out)-2] == r.x(ground[n].At) {
				continue
			}
			out = append(out, r.x(ground[n].At), float64(ground[n].Height))
		}
		i = k
	}
	return append(out, r.x(to), at(to))
}

// group is bays that are drawn as one: less than a few pixels wide together.
type group struct{ from, to int } // posts

// groups are the bays in sight, drawn one by one or, where a pixel holds
// several, together. Gates stand by themselves.
func (r *run) groups() []group {
	var out []group
	for i := r.first; i < r.last-1; {
		k := i + 1
		for r.per > 0 && k < r.last-1 && r.Bays[i].Gate == "" && r.Bays[k].Gate == "" &&
			float64(r.Posts[k+1].Station-r.Posts[i].Station) < together*r.per {
			k++
		}
		out = append(out, group{i, k})
		i = k
	}
	return out
}

// together are the tops and the feet of bays that are drawn as one: their
// ends, and in every two pixels between them the highest top and the lowest
// foot.
func (r *run) together(g group) (tops, feet []float64) {
	first, last := &r.Bays[g.from], &r.Bays[g.to-1]
	x1, x2 := r.x(r.Posts[g.from].Station), r.x(r.Posts[g.to].Station)
	tops, feet = []float64{x1, float64(first.TopStart)}, []float64{x1, float64(first.BottomStart)}
	for i := g.from + 1; i < g.to; {
		start := r.Posts[i].Station
		high, low := math.Inf(-1), math.Inf(1)
		var atHigh, atLow float64
		for ; i < g.to && float64(r.Posts[i].Station-start) <= 2*r.per; i++ {
			before, after, x := &r.Bays[i-1], &r.Bays[i], r.x(r.Posts[i].Station)
			if top := float64(max(before.TopEnd, after.TopStart)); top > high {
				high, atHigh = top, x
			}
			if foot := float64(min(before.BottomEnd, after.BottomStart)); foot < low {
				low, atLow = foot, x
			}
		}
		tops, feet = append(tops, atHigh, high), append(feet, atLow, low)
	}
	return append(tops, x2, float64(last.TopEnd)), append(feet, x2, float64(last.BottomEnd))
}

// backwards are the points of a line from its end to its start.
func backwards(line []float64) []float64 {
	out := make([]float64, 0, len(line))
	for i := len(line) - 2; i >= 0; i -= 2 {
		out = append(out, line[i], line[i+1])
	}
	return out
}

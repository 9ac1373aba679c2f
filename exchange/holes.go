package exchange

import (
	"strconv"

	"mallow/core/footing"
	"mallow/core/length"
	"mallow/core/plan"
)

// HolesCSV writes a run's holes: for every post how wide and deep it is dug,
// where foot and concrete end, what goes in by layer, and the gust at which
// its footing reaches the published limit. Lengths are in metres or feet,
// volumes in litres or cubic feet, gusts in kilometres or miles per hour.
func HolesCSV(p plan.Plan, run int) (Written, error) {
	in, number := columns(p.Units)
	small, per, speed, wind := "L", length.Volume(0.001), "km_h", 3.6
	if p.Units.System == length.Imperial {
		small, per, speed, wind = "ft3", length.CubicFoot, "mph", 3600/1609.344
	}
	volume := func(v length.Volume) string { return strconv.FormatFloat(float64(v/per), 'f', 4, 64) }
	rows := [][]string{{"post", "kind", in("level"), "set", in("width"), "square", in("dig"), in("concrete_bottom"), in("foot"), in("gravel"),
		"gravel_" + small, "stone_" + small, "concrete_" + small, "soil_back_" + small, "spoil_loose_" + small, "bag", "bags", "layers_from_the_bottom", "stopped_by", "dug_with_run", "gust_" + speed}}
	r := p.Runs[run]
	for _, post := range r.Posts {
		if post.Card < 0 {
			rows = append(rows, append([]string{post.Label, string(post.Kind), number(post.Station), "stays"}, make([]string, len(rows[0])-4)...))
			continue
		}
		c := r.Cards[post.Card]
		stopped, gust := "", ""
		if post.Stopped != nil {
			stopped = string(post.Stopped.What)
		}
		if post.Wind != nil {
			gust = strconv.FormatFloat(post.Wind.Gust*wind, 'f', 1, 64)
		}
		rows = append(rows, []string{post.Label, string(post.Kind), number(post.Station), string(c.Method), number(post.HoleWidth), strconv.FormatBool(c.Square), number(post.HoleDepth), number(post.Bottom), number(post.Foot), number(post.Gravel),
			volume(c.Gravel), volume(c.Stone), volume(c.Concrete), volume(c.Soil), volume(c.Spoil), c.Bag, strconv.FormatFloat(c.Bags, 'f', 3, 64), layers(p.Units, c.Layers), stopped, post.Shared, gust})
	}
	return table("holes.csv", rows, len(r.Posts) > 0)
}

// layers names a hole's layers with their heights, from the bottom up.
func layers(u length.Units, list []footing.Layer) string {
	out := ""
	for i, l := range list {
		if i > 0 {
			out += "; "
		}
		out += string(l.Kind) + " " + u.Short(l.To-l.From)
	}
	return out
}

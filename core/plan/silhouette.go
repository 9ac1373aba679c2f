package plan

import "mallow/core/length"

// Silhouette is a run's outline, true to scale, small enough to list many.
type Silhouette struct {
	Length length.Length      `json:"length" jsonschema:"required"`
	Ground [][2]length.Length `json:"ground" jsonschema:"required" jsonschema_description:"Station and height of each break point."`
	Posts  [][3]length.Length `json:"posts" jsonschema:"required" jsonschema_description:"Station, ground and top of each post."`
	Hollow bool               `json:"hollow" jsonschema:"required" jsonschema_description:"Hollow posts: drawn as metal."`
	Bays   []Outline          `json:"bays" jsonschema:"required"`
}

// Outline is one bay's panel or leaf.
type Outline struct {
	Corners [4]length.Length `json:"corners" jsonschema:"required" jsonschema_description:"Bottom and top at its first post, bottom and top at its second."`
	Gate    bool             `json:"gate" jsonschema:"required"`
}

// Outline draws the first run of a plan small.
func (p Plan) Outline() Silhouette {
	s := Silhouette{Ground: [][2]length.Length{}, Posts: [][3]length.Length{}, Bays: []Outline{}}
	if len(p.Runs) == 0 {
		return s
	}
	run := p.Runs[0]
	s.Length, s.Hollow = run.Length, run.Hollow
	for _, g := range run.Ground {
		s.Ground = append(s.Ground, [2]length.Length{g.At, g.Height})
	}
	for _, post := range run.Posts {
		s.Posts = append(s.Posts, [3]length.Length{post.Station, post.Ground, post.Top})
	}
	for _, b := range run.Bays {
		s.Bays = append(s.Bays, Outline{[4]length.Length{b.BottomStart, b.TopStart, b.BottomEnd, b.TopEnd}, b.Gate != ""})
	}
	return s
}

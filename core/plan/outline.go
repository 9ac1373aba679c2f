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
	Ends    [2]length.Length `json:"ends" jsonschema:"required" jsonschema_description:"Stations of its two posts."`
	Corners [4]length.Length `json:"corners" jsonschema:"required" jsonschema_description:"Bottom and top at its first post, bottom and top at its second."`
	Gate    bool             `json:"gate" jsonschema:"required"`
	Odd     bool             `json:"odd" jsonschema:"required" jsonschema_description:"Not the regular bay, or its piece is cut."`
}

// Outline draws a plan's first line small, unrolled corner after corner.
func (p Plan) Outline() Silhouette {
	s := Silhouette{Ground: [][2]length.Length{}, Posts: [][3]length.Length{}, Bays: []Outline{}}
	for i, run := range p.Runs {
		if run.Line != p.Runs[0].Line {
			break
		}
		if i == 0 {
			s.Hollow = run.Hollow
		}
		s.add(run, run.Start, i == 0)
	}
	return s
}

// add draws a run from a place on; first tells that its first post is not
// drawn yet.
func (s *Silhouette) add(run Run, start length.Length, first bool) {
	s.Length = start + run.Length
	for _, g := range run.Ground {
		s.Ground = append(s.Ground, [2]length.Length{start + g.At, g.Height})
	}
	for _, post := range run.Posts {
		if post.Shared == "" || first {
			s.Posts = append(s.Posts, [3]length.Length{start + post.Station, post.Ground, post.Top})
		}
	}
	for b, bay := range run.Bays {
		s.Bays = append(s.Bays, Outline{
			Ends:    [2]length.Length{start + run.Posts[b].Station, start + run.Posts[b+1].Station},
			Corners: [4]length.Length{bay.BottomStart, bay.TopStart, bay.BottomEnd, bay.TopEnd}, Gate: bay.Gate != "", Odd: bay.Odd || bay.PieceCut,
		})
	}
}

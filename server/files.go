package server

import (
	"fmt"
	"slices"
	"strconv"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/survey"
	"mallow/exchange"
)

// importFile reads a file and shows what it would make of the job. Nothing is
// kept; the interface saves the document if it is taken.
func (s *Server) importFile(c fiber.Ctx) error {
	var req ImportRequest
	if err := read(c, &req); err != nil {
		return err
	}
	j, _, err := document.Decode(req.Doc, s.Catalog)
	if err != nil {
		return err
	}
	found, err := exchange.Read(req.Name, []byte(req.Text), exchange.Options{Unit: req.Unit, System: j.Units.System, Origin: j.Site.Place})
	if err != nil {
		return err
	}
	out := ImportPreview{Found: found, Places: []survey.Place{}, Ground: []job.GroundPoint{}}
	if req.Off <= 0 {
		req.Off = 150
	}
	if err := s.build(j, req, &out); err != nil {
		var file exchange.FileError
		if !asFile(err, &file) {
			return err
		}
		out.Problem = file.Why
	}
	if out.Problem == "" {
		if _, _, err := document.Decode(out.Doc, s.Catalog); err != nil {
			out.Problem, out.Doc = err.Error(), nil
		}
	}
	// The points are many and are drawn, not listed: the places suffice.
	out.Points, out.Count = out.Points[:min(len(out.Points), 12)], len(found.Points)
	return c.JSON(out)
}

func asFile(err error, into *exchange.FileError) bool {
	f, ok := err.(exchange.FileError)
	if ok {
		*into = f
	}
	return ok
}

// build makes the changed document of what was found.
func (s *Server) build(j job.Job, req ImportRequest, out *ImportPreview) error {
	if out.Shape == exchange.Profile {
		return s.buildGround(j, req, out)
	}
	at := slices.IndexFunc(j.Lines, func(l job.Line) bool { return l.ID == req.Line })
	if at < 0 {
		return exchange.FileError{Why: fmt.Sprintf("There is no line %q; the job has %d.", req.Line, len(j.Lines))}
	}
	taken := map[string]bool{}
	for l, line := range j.Lines {
		for _, r := range line.Runs {
			taken[r.ID] = taken[r.ID] || !(req.Replace && l == at)
		}
	}
	n := 0
	built, err := out.Line(exchange.Build{Off: req.Off, Thin: req.Thin, Like: j.Lines[at].Runs[0], ID: func() string {
		for n++; taken["R"+strconv.Itoa(n)]; n++ {
		}
		return "R" + strconv.Itoa(n)
	}})
	if err != nil {
		return err
	}
	lines := append([]job.Line(nil), j.Lines...)
	line := built.Line
	if req.Replace {
		old := lines[at]
		line.ID, line.Name = old.ID, old.Name
		lines[at] = line
		out.What = "Line read from " + req.Name
	} else {
		line.ID, line.Name = freshLine(lines), clip(req.Name)
		if r := []rune(line.Name); len(r) > 100 {
			line.Name = string(r[:100])
		}
		lines = append(lines, line)
		out.What = "A line added from " + req.Name
	}
	out.Notes = built.Notes
	for _, r := range line.Runs {
		out.Lengths = append(out.Lengths, *r.Length)
	}
	out.Closed, out.Kept = line.Closed, built.Kept
	for _, i := range built.Corners {
		out.Places = append(out.Places, survey.Place{X: out.Points[i].X, Y: out.Points[i].Y})
	}
	if out.Doc, err = document.ReplaceLines(req.Doc, lines, nil); err != nil || out.Origin == nil || j.Site.Place != nil {
		return err
	}
	out.Notes = append(out.Notes, "The map's zero is put at the first point")
	out.Doc, err = document.Apply(out.Doc, []job.Edit{job.Set("/site/place", *out.Origin)})
	return err
}

func freshLine(lines []job.Line) string {
	for n := 1; ; n++ {
		id, taken := "L"+strconv.Itoa(n), false
		for _, l := range lines {
			taken = taken || l.ID == id
		}
		if !taken {
			return id
		}
	}
}

func (s *Server) buildGround(j job.Job, req ImportRequest, out *ImportPreview) error {
	for _, line := range j.Lines {
		for _, run := range line.Runs {
			if run.ID != req.Run {
				continue
			}
			last := out.Points[max(0, len(out.Points)-1)].X
			edits := []job.Edit{}
			span := run.Length
			if span == nil {
				if last < 300 {
					return exchange.FileError{Why: "The run has no length yet, and the file's last station is too short to be it."}
				}
				span = &last
				edits = append(edits, job.Set(job.At("/lines", line.ID, "runs", run.ID, "length"), last))
				out.Notes = append(out.Notes, "The run had no length: the last station is taken, "+j.Units.Tape(last))
			}
			ground, notes, err := out.Found.Ground(*span)
			if err != nil {
				return err
			}
			out.Notes, out.Ground, out.Kept = append(out.Notes, notes...), ground, len(ground)
			out.What = "Ground read from " + req.Name
			out.Doc, err = document.Apply(req.Doc, append(edits, job.Set(job.At("/lines", line.ID, "runs", run.ID, "ground"), ground)))
			return err
		}
	}
	return exchange.FileError{Why: "Pick the run whose ground this is."}
}

package calls

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/reshape"
	"mallow/core/stringline"
	"mallow/core/survey"
)

func list(names []string) string { return strings.Join(names, ", ") }

// planned are a job's figures and findings.
func planned(c *Core, stop func() error, doc []byte) (any, error) {
	r, err := c.computed(stop, doc)
	if err != nil {
		return nil, err
	}
	return r.Figures(), nil
}

// told is what is said beside them.
func told(c *Core, stop func() error, doc []byte) (any, error) {
	r, err := c.computed(stop, doc)
	if err != nil {
		return nil, err
	}
	return r.Tell(stop)
}

// billed is what the job takes, item by item.
func billed(c *Core, stop func() error, doc []byte) (any, error) {
	r, err := c.computed(stop, doc)
	if err != nil {
		return nil, err
	}
	return r.Bill(), nil
}

// built is what stands above ground on a run, and its cut lists.
func built(c *Core, stop func() error, req BuildRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	b, ok := r.Built(req.Run, req.Alone)
	if !ok {
		return nil, noSuchRun(req.Run)
	}
	return b, nil
}

// mostRows is how many rows of a table are sent at once.
const mostRows = 500

// tabled are rows of a table of a run.
func tabled(c *Core, stop func() error, req TableRequest) (any, error) {
	if req.From < 0 || req.Most < 1 || req.Most > mostRows {
		return nil, document.Errors{{Field: "/most", Given: fmt.Sprintf("%d rows from %d on", req.Most, req.From), Allowed: fmt.Sprintf("1 to %d, from 0 on", mostRows)}}
	}
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	p := r.Figures()
	if req.Table == "pour" {
		p.Pour = r.PourDay()
	}
	run := slices.IndexFunc(p.Runs, func(run plan.Run) bool { return run.ID == req.Run })
	if run < 0 {
		return nil, document.Errors{{Field: "/run", Given: document.Brief(req.Run), Allowed: "a run of the job"}}
	}
	t, ok := report.Of(p, req.Table, run)
	if !ok {
		return nil, document.Errors{{Field: "/table", Given: document.Brief(req.Table), Allowed: list(report.IDs())}}
	}
	t = t.Read().Find(req.Find)
	if req.Sort != "" {
		if t, ok = t.Sort(req.Sort, req.Down); !ok {
			return nil, document.Errors{{Field: "/sort", Given: document.Brief(req.Sort), Allowed: "a column of the table"}}
		}
	}
	out := TableRows{Name: t.Name, Columns: append([]report.Column{}, t.Columns...), Rows: []TableRow{}, Count: len(t.Rows)}
	for i := min(req.From, len(t.Rows)); i < min(req.From+req.Most, len(t.Rows)); i++ {
		out.Rows = append(out.Rows, TableRow{Post: t.Rows[i].Post, Bay: t.Rows[i].Bay, Cells: t.Shown(i)})
	}
	return out, nil
}

// explained are the reasons of one figure.
func explained(c *Core, stop func() error, req ExplainRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	why, ok := r.Explain(req.Figure)
	if !ok {
		given, err := json.Marshal(req.Figure)
		if err != nil {
			return nil, err
		}
		return nil, document.Errors{{Field: "/figure", Given: document.Brief(string(given)), Allowed: "a figure of the plan that can be explained"}}
	}
	return Explained{Figure: why.Figure, Sentence: why.Sentence, Steps: why.Steps, Asked: why.Asked, Caution: why.Caution}, nil
}

// advised are the ways out of findings, one finding after another, each as soon
// as it is worked out.
func advised(c *Core, stop func() error, body []byte, send func([]byte) error) error {
	var req AdviseRequest
	if err := Read(body, &req); err != nil {
		return err
	}
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return err
	}
	return r.Advise(stop, req.Findings, func(a plan.Advised) error {
		out, err := json.Marshal(a)
		if err != nil {
			return err
		}
		return send(out)
	})
}

// waysOf are the ways out of a hole that was stopped.
func waysOf(c *Core, stop func() error, req WaysRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	ways, ok, err := r.Ways(stop, req.Run, req.Post)
	if err != nil {
		return nil, err
	}
	if !ok {
		return nil, document.Errors{{Field: "/post", Given: document.Brief(req.Run + " " + req.Post), Allowed: "a post whose hole was stopped"}}
	}
	return Ways{Ways: ways}, nil
}

// alternatives are the layouts of a run that are worth having. Nothing is kept:
// the interface saves the one that is taken.
func alternatives(c *Core, stop func() error, req AlternativesRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	layouts, ok, err := r.Alternatives(stop, req.Run)
	if err != nil {
		return nil, err
	}
	if !ok {
		return nil, noSuchRun(req.Run)
	}
	return Alternatives{Run: req.Run, Layouts: layouts}, nil
}

// poured is the day on which a job's concrete is poured.
func poured(c *Core, stop func() error, doc []byte) (any, error) {
	r, err := c.computed(stop, doc)
	if err != nil {
		return nil, err
	}
	return r.PourDay(), nil
}

// scheduled is a job's work laid out in days.
func scheduled(c *Core, stop func() error, doc []byte) (any, error) {
	r, err := c.computed(stop, doc)
	if err != nil {
		return nil, err
	}
	return r.Schedule(), nil
}

// recorded is what was seen on site against the plan.
func recorded(c *Core, stop func() error, doc []byte) (any, error) {
	r, err := c.computed(stop, doc)
	if err != nil {
		return nil, err
	}
	return r.Record(), nil
}

// forecast is the same, with what the pour and the days say of the pace.
func forecast(c *Core, stop func() error, doc []byte) (any, error) {
	r, err := c.computed(stop, doc)
	if err != nil {
		return nil, err
	}
	return r.Forecast(), nil
}

// amended is what can be done about what differs from the plan.
func amended(c *Core, stop func() error, req AmendRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	all, err := r.Amend(stop, req.Post)
	if err != nil {
		return nil, err
	}
	return Amended{Deviations: all}, nil
}

// compared is a run with other bays, lengths and heights, and what is cut for it.
func compared(c *Core, stop func() error, req AlternativesRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	choices, ok, err := r.Compared(stop, req.Run)
	if err != nil {
		return nil, err
	}
	if !ok {
		return nil, noSuchRun(req.Run)
	}
	return Compared{Run: req.Run, Choices: choices}, nil
}

// looks is a run in every look, side by side.
func looks(c *Core, stop func() error, req AlternativesRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	looks, ok, err := r.Looks(stop, req.Run)
	if err != nil {
		return nil, err
	}
	if !ok {
		return nil, noSuchRun(req.Run)
	}
	return Looks{Run: req.Run, Looks: looks}, nil
}

func noSuchRun(run string) error {
	return document.Errors{{Field: "/run", Given: document.Brief(strconv.Quote(run)), Allowed: "the id of a run that has a length"}}
}

// reshaped is a document with its lines changed as a whole. Nothing is kept:
// the interface saves what it takes.
func reshaped(c *Core, _ func() error, req ReshapeRequest) (any, error) {
	doc, what, err := reshape.Apply(req.Doc, req.Op, c.Catalog)
	if err != nil {
		return nil, err
	}
	return Changed{Doc: doc, What: what}, nil
}

// squared says what a corner's diagonal should be, and what a taped one means.
func squared(_ *Core, _ func() error, req SquareRequest) (any, error) {
	var bad document.Errors
	check := func(field string, v, least, most float64, allowed string) {
		if !(v >= least && v <= most) {
			bad = append(bad, document.FieldError{Field: field, Given: strconv.FormatFloat(v, 'g', -1, 64), Allowed: allowed})
		}
	}
	const legs = "millimetres from 100 to 1000000"
	check("/legA", float64(req.LegA), 100, 1e6, legs)
	check("/legB", float64(req.LegB), 100, 1e6, legs)
	check("/angle", req.Angle, 1, 179, "degrees from 1 to 179")
	check("/far", float64(req.Far), 0, 1e8, "millimetres from 0 to 100000000")
	check("/mark", float64(req.Mark), 0.5, 30, "millimetres from 0.5 to 30")
	if len(bad) > 0 {
		return nil, bad
	}
	q := stringline.Square{LegA: req.LegA, LegB: req.LegB, Angle: req.Angle}
	out := Squared{Diagonal: survey.Diagonal(q.LegA, q.LegB, q.Angle)}
	if math.Abs(req.Angle-90) < 1e-9 {
		if three, ok := stringline.Largest345(q.LegA, q.LegB, stringline.Unit(req.System)); ok {
			out.Three = &three
		}
	}
	if req.Taped != nil {
		judged, err := q.Judge(*req.Taped, req.Far, req.Mark)
		if err != nil {
			u := length.Units{System: req.System, SmallestMark: req.Mark}
			return nil, document.Errors{{Field: "/taped", Given: u.Tape(*req.Taped),
				Allowed: u.Tape((q.LegA - q.LegB).Abs()) + " to " + u.Tape(q.LegA+q.LegB) + ": with these legs no diagonal is shorter or longer"}}
		}
		out.Check = &judged
	}
	return out, nil
}

// pegged works out a two-peg test.
func pegged(_ *Core, _ func() error, req PegRequest) (any, error) {
	for field, v := range map[string]length.Length{"/midA": req.MidA, "/midB": req.MidB, "/endA": req.EndA, "/endB": req.EndB, "/farA": req.FarA, "/farB": req.FarB} {
		if !(v.Abs() <= 1e6) {
			return nil, document.Errors{{Field: field, Given: fmt.Sprint(float64(v)), Allowed: "millimetres up to 1000000"}}
		}
	}
	if (req.FarA - req.FarB).Abs() < length.Metre {
		return nil, document.Errors{{Field: "/farB", Given: fmt.Sprintf("%g and %g mm", req.FarA, req.FarB), Allowed: "distances to the two pegs that differ by a metre at least, or the tilt cannot show"}}
	}
	return survey.Pegs{MidA: req.MidA, MidB: req.MidB, EndA: req.EndA, EndB: req.EndB, FarA: req.FarA, FarB: req.FarB}.Test(), nil
}

// read reads an entry while it is being typed, so that the notation has one
// reader. What is not understood is an answer too, not a failure.
func read(_ *Core, _ func() error, req TapeRequest) (any, error) {
	sys := length.Imperial
	if req.System == length.Metric {
		sys = length.Metric
	}
	r, err := length.ReadAs(req.Text, sys, job.EntryOf(req.Field))
	var not *length.ParseError
	switch {
	case errors.As(err, &not):
		return Reading{Others: []OtherReading{}, Part: not.Part, Why: not.Why}, nil
	case err != nil:
		return nil, err
	}
	out := Reading{OK: true, Length: r.Length, Bare: r.Bare, System: r.System, Others: []OtherReading{}}
	for _, o := range r.Others {
		out.Others = append(out.Others, OtherReading{strings.TrimSpace(req.Text) + " " + o.Unit, o.Length})
	}
	return out, nil
}

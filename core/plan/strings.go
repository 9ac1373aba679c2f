package plan

import (
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stringline"
	"mallow/core/survey"
)

// RunString is how a run's posts are brought into line and to height.
type RunString struct {
	School   job.School    `json:"school" jsonschema:"required,enum=face,enum=off,enum=stand-off,enum=sight"`
	Face     job.Side      `json:"face" jsonschema:"required,enum=left,enum=right"`
	Ends     job.Ends      `json:"ends" jsonschema:"required,enum=boards,enum=stakes"`
	Kind     string        `json:"kind" jsonschema:"required" jsonschema_description:"Name of the string."`
	Pull     float64       `json:"pull" jsonschema:"required" jsonschema_description:"Newtons."`
	ToFace   length.Length `json:"toFace" jsonschema:"required" jsonschema_description:"From the string to the near face of every post: the one constant to hold."`
	ToCentre length.Length `json:"toCentre" jsonschema:"required"`
	Beyond   length.Length `json:"beyond" jsonschema:"required"`
	Span     length.Length `json:"span" jsonschema:"required" jsonschema_description:"Of the alignment string, tie to tie."`
	From     survey.Place  `json:"from" jsonschema:"required" jsonschema_description:"Tie at the run's start, on the map."`
	To       survey.Place  `json:"to" jsonschema:"required" jsonschema_description:"Tie at its end."`
	LowStart length.Length `json:"lowStart" jsonschema:"required" jsonschema_description:"Height of the alignment string's tie above the datum."`
	LowEnd   length.Length `json:"lowEnd" jsonschema:"required"`
	Mark     length.Length `json:"mark" jsonschema:"required" jsonschema_description:"Height string below the tops."`

	HighStart  length.Length `json:"highStart" jsonschema:"required" jsonschema_description:"Height of the height string at the first post, above the datum."`
	HighEnd    length.Length `json:"highEnd" jsonschema:"required"`
	Sag        length.Length `json:"sag" jsonschema:"required" jsonschema_description:"Of the height string at mid-span, without props."`
	Props      int           `json:"props" jsonschema:"required"`
	SagPropped length.Length `json:"sagPropped" jsonschema:"required" jsonschema_description:"Most sag with the props that are set."`
	PropsFor   int           `json:"propsFor" jsonschema:"required" jsonschema_description:"Props that keep the sag within what is let go."`
	SagAllowed length.Length `json:"sagAllowed" jsonschema:"required"`

	Drift        length.Length  `json:"drift" jsonschema:"required" jsonschema_description:"Of the alignment string at mid-span, in today's wind."`
	DriftAllowed length.Length  `json:"driftAllowed" jsonschema:"required"`
	SightFrom    *length.Length `json:"sightFrom,omitempty" jsonschema_description:"Longest span that holds its line in today's wind; sight along the posts on a longer one. Left out without wind."`
	Sight        bool           `json:"sight" jsonschema:"required" jsonschema_description:"Line the posts up by eye."`

	Hang   []Hang       `json:"hang" jsonschema:"required" jsonschema_description:"The hanging height string from end to end, prop to prop."`
	Posts  []StringPost `json:"posts" jsonschema:"required"`
	Order  []string     `json:"order" jsonschema:"required" jsonschema_description:"Posts in the order of setting."`
	Target string       `json:"target" jsonschema:"required" jsonschema_description:"Far post that is sighted at."`
	Why    RunStringWhy `json:"why" jsonschema:"required"`
}

// Hang is the height string at one place.
type Hang struct {
	At     length.Length `json:"at" jsonschema:"required"`
	Height length.Length `json:"height" jsonschema:"required" jsonschema_description:"Pulled straight, from prop to prop, above the datum."`
	Sag    length.Length `json:"sag" jsonschema:"required" jsonschema_description:"How far it hangs under that."`
}

// StringPost is what the strings do at one post.
type StringPost struct {
	Post  string        `json:"post" jsonschema:"required"`
	Low   length.Length `json:"low" jsonschema:"required" jsonschema_description:"Alignment string above ground here, sagging."`
	Sag   length.Length `json:"sag" jsonschema:"required" jsonschema_description:"Of the height string here, on its props."`
	Drift length.Length `json:"drift" jsonschema:"required" jsonschema_description:"Of the alignment string here."`
	High  length.Length `json:"high" jsonschema:"required" jsonschema_description:"Height string above ground here, sagging, or the line of sight."`
	Mark  length.Length `json:"mark" jsonschema:"required" jsonschema_description:"The post's mark over that; negative is under it."`
}

// RunStringWhy is where the strings' figures are explained.
type RunStringWhy struct {
	Constant reason.Ref `json:"constant" jsonschema:"required"`
	Sag      reason.Ref `json:"sag" jsonschema:"required"`
	Drift    reason.Ref `json:"drift" jsonschema:"required"`
}

const (
	sagAllowed   = 3 * length.Millimetre  // 1/8 in, which the eye lets go along a top line (common practice)
	sagSpoken    = 10 * length.Millimetre // 3/8 in, from which a sag is worth a word: under it a prop or two is habit
	sagMuch      = 20 * length.Millimetre // 3/4 in, from which the middle posts would visibly be set low
	driftAllowed = 6 * length.Millimetre  // 1/4 in out of line (common practice)
	propEvery    = 4                      // posts over which a height string is trusted without a prop (common practice: 3 or 4)
	leastClear   = 25 * length.Millimetre
)

func (m *maker) strings() {
	s := m.run.String
	kind, ok := m.cat.String(s.Kind)
	if !ok {
		usual, _ := m.cat.String(m.usual.String.Kind)
		m.find(finding.Finding{Rule: "string-unknown", Stage: finding.Strings, Severity: finding.Check,
			Says:     reason.Say("There is no string called ", s.Kind, " in the catalogue; ", usual.Name, " is reckoned with."),
			Remedies: []finding.Remedy{{Says: reason.Say("Take ", usual.Name), Edits: []job.Edit{m.set("/string/kind", usual.ID)}}}})
		kind = usual
	}
	cord := stringline.Cord{Weight: kind.Weight, Diameter: kind.Diameter, Pull: s.Pull}
	run, n := m.out.Length, len(m.out.Posts)
	last := m.out.Posts[n-1]
	wind := m.job.Site.Wind
	out := &RunString{
		School: s.School, Face: s.Face, Ends: s.Ends, Kind: kind.Name, Pull: s.Pull, Beyond: s.Beyond, Mark: s.Mark,
		Span: run + 2*s.Beyond, LowStart: m.profile.Height(0) + s.Low, LowEnd: m.profile.Height(run) + s.Low,
		HighStart: m.line.Tops[0] - s.Mark, HighEnd: m.line.Tops[n-1] - s.Mark, Props: s.Props, SagAllowed: sagAllowed, DriftAllowed: driftAllowed,
		Order: []string{}, Target: last.ID,
	}
	out.ToFace, out.ToCentre = stringline.Constant(s, m.run.Post)
	out.Sag, out.SagPropped = cord.MidSag(run), cord.MidSag(run/length.Length(s.Props+1))
	out.PropsFor = max(cord.Props(run, sagAllowed), (n-2)/propEvery)
	out.Drift = cord.MidDrift(wind, out.Span)
	if wind > 0 {
		from := cord.LongestDrift(wind, driftAllowed)
		out.SightFrom = &from
	}
	out.Sight = s.School == job.BySight
	hung := func(at length.Length) length.Length {
		if out.Sight {
			return 0 // a line of sight does not sag
		}
		return cord.Hung(run, s.Props, at)
	}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		part := p.Station / run
		high := out.HighStart + (out.HighEnd-out.HighStart)*part - hung(p.Station)
		out.Posts = append(out.Posts, StringPost{
			Post: p.ID, Low: m.low(out, cord, p.Station) - p.Ground, Sag: hung(p.Station),
			Drift: cord.Drift(wind, out.Span, p.Station+s.Beyond), High: high - p.Ground, Mark: m.line.Tops[i] - s.Mark - high,
		})
	}
	out.hang(hung, run)
	out.Order = m.order()
	out.From, out.To = m.ties(out)
	m.remind(out)
	m.out.String = out
	m.whyStrings(cord, kind, wind)
	m.judgeStrings(cord, kind, wind)
}

// stringWeight says what a string weighs, given in newtons on each metre.
func (m *maker) stringWeight(newtons float64) reason.Text {
	if m.job.Units.System == length.Metric {
		return reason.Say("It weighs ", length.Mass(newtons/9.80665*30), " on 30 m")
	}
	return reason.Say("It weighs ", length.Mass(newtons/9.80665*30.48), " on 100 ft")
}

// low is the height of the sagging alignment string over a station.
func (m *maker) low(s *RunString, cord stringline.Cord, at length.Length) length.Length {
	part := (at + s.Beyond) / s.Span
	return s.LowStart + (s.LowEnd-s.LowStart)*part - cord.Sag(s.Span, at+s.Beyond)
}

// order is the order of setting: the two ends first, then gate posts, then
// the rest from the start, so that the eye always has set posts near it and
// the far target before it.
func (m *maker) order() []string {
	n := len(m.out.Posts)
	out := []string{m.out.Posts[0].ID, m.out.Posts[n-1].ID}
	for _, gates := range []bool{true, false} {
		for i := 1; i < n-1; i++ {
			if (m.out.Posts[i].Kind == job.GatePost) == gates {
				out = append(out, m.out.Posts[i].ID)
			}
		}
	}
	return out
}

var (
	catenary = reason.Source{Kind: reason.Published, Name: "first term of the catenary, wL²/8T"}
	drag     = reason.Source{Kind: reason.Published, Name: "drag of a thin round line across the wind, coefficient 1.2, air 1.225 kg/m³"}
)

var schoolCosts = map[job.School]string{
	job.OnFace:   "The string lies on the faces: nothing to measure, but one post that leans on it moves it for all.",
	job.JustOff:  "Held just off, no post can push it; every post is set by the same small gap.",
	job.StandOff: "Far enough off to stay up through digging; every post is measured to it, and a long measure is easily not square.",
	job.BySight:  "No string: nothing sags or blows. It takes a practised eye and straight posts.",
}

func (m *maker) whyStrings(cord stringline.Cord, kind materials.String, wind float64) {
	s, out := m.run.String, m.out.String
	set := m.measured("/string/mark", "Height string below the tops", s.Mark, m.usual.String.Mark)
	out.Why.Constant = m.few.Put("constant", func() reason.Why {
		return reason.Why{Figure: "Offset of the string",
			Sentence: reason.Say("Hold ", out.ToFace, " from the string to the ", s.Face, " face of every post: ", out.ToCentre, " to its centre."),
			Steps: []reason.Step{
				{Rule: "School", Governs: true, Source: practice, Says: reason.Say(schoolCosts[s.School]),
					Settings: []reason.Setting{m.choice("/string/school", "School", string(s.School), string(m.usual.String.School), "face", "off", "stand-off", "sight"),
						m.byHand("/string/off", "String off the faces", s.Off)}},
				{Rule: "Half a post", Source: geometry, Says: reason.Say(m.run.Post.Width, " ÷ 2 = ", m.run.Post.Width/2, " from face to centre.")},
			}}
	})
	out.Why.Sag = m.few.Put("sag", func() reason.Why {
		w := reason.Why{Figure: "Sag of the height string",
			Sentence: reason.Say(kind.Name, " pulled to ", reason.Force(s.Pull), " hangs ", out.Sag, " at the middle of ", m.out.Length),
			Steps: []reason.Step{
				{Rule: "Sag", Governs: true, Source: catenary, Says: append(m.stringWeight(kind.Weight), reason.Say("; half the span is a quarter of the sag.")...),
					Settings: []reason.Setting{{Path: m.path + "/string/pull", Name: "Pull, newtons", Kind: reason.RatioSetting, Value: s.Pull, Usual: m.usual.String.Pull, Changed: s.Pull != m.usual.String.Pull}}},
				{Rule: "Props", Source: practice, Says: reason.Say("A height string is trusted over 3 or 4 posts; ", out.PropsFor, plural(out.PropsFor, " prop keeps", " props keep"), " it within ", sagAllowed, ".")},
				{Rule: "String", Source: kind.Source, Says: reason.Say(kind.Name), Settings: []reason.Setting{set}},
			}}
		if s.Props > 0 {
			w.Sentence = append(w.Sentence, reason.Say("; on ", s.Props, plural(s.Props, " prop ", " props "), out.SagPropped)...)
		}
		w.Sentence = append(w.Sentence, reason.Say(".")...)
		return w
	})
	out.Why.Drift = m.few.Put("drift", func() reason.Why {
		w := reason.Why{Figure: "Drift of the string in the wind",
			Sentence: reason.Say("No wind entered: the string is taken to hang straight."),
			Steps:    []reason.Step{{Rule: "Drift", Governs: true, Source: drag, Says: reason.Say("A wind square across the string bows it as its weight makes it sag.")}}}
		if wind > 0 {
			w.Sentence = reason.Say("A wind of ", reason.Speed(wind), " square across pushes it ", out.Drift, " out at the middle of ", out.Span, "; over ", *out.SightFrom, " sight along the posts instead.")
		}
		return w
	})
}

func (m *maker) judgeStrings(cord stringline.Cord, kind materials.String, wind float64) {
	s, out := m.run.String, m.out.String
	if s.Pull > kind.Most {
		m.find(finding.Finding{Rule: "string-breaks", Stage: finding.Strings, Severity: finding.Cannot,
			Says:     reason.Say(kind.Name, " stands ", reason.Force(kind.Most), "; ", reason.Force(s.Pull), " breaks it, and it whips."),
			Remedies: []finding.Remedy{{Says: reason.Say("Pull ", reason.Force(kind.Pull)), Edits: []job.Edit{m.set("/string/pull", kind.Pull)}}}})
	}
	if !out.Sight && s.Props < out.PropsFor && out.SagPropped > sagSpoken {
		severity := finding.Note
		if out.SagPropped > sagMuch {
			severity = finding.Check
		}
		m.find(finding.Finding{Rule: "sag", Stage: finding.Strings, Severity: severity,
			Says:     reason.Say("The height string of ", m.name(), " sags ", out.SagPropped, " where it hangs freest; the middle posts would be set that low."),
			Remedies: []finding.Remedy{{Says: reason.Say(out.PropsFor, plural(out.PropsFor, " prop", " props")), Edits: []job.Edit{m.set("/string/props", out.PropsFor)}}}})
	}
	if out.Sight {
		return
	}
	if out.Drift > driftAllowed {
		m.find(finding.Finding{Rule: "drift", Stage: finding.Strings, Severity: finding.Check,
			Says:     reason.Say("Today's wind pushes the string of ", m.name(), " ", out.Drift, " out of line at its middle. Over ", *out.SightFrom, " sight along the posts instead, or wait for a still morning."),
			Remedies: []finding.Remedy{{Says: reason.Say("Set ", m.name(), " by sight"), Edits: []job.Edit{m.set("/string/school", job.BySight)}}}})
	}
	m.judgeLow(cord)
}

// judgeLow looks for ground that the alignment string would touch.
func (m *maker) judgeLow(cord stringline.Cord) {
	out := m.out.String
	least, where := length.Length(math.Inf(1)), length.Length(0)
	m.profile.Each(0, m.out.Length, func(at, ground length.Length) {
		if clear := m.low(out, cord, at) - ground; clear < least {
			least, where = clear, at
		}
	})
	if least >= leastClear {
		return
	}
	raised := m.job.Units.SmallestMark * length.Length(math.Ceil(float64((m.run.String.Low+leastClear-least)/m.job.Units.SmallestMark)))
	f := finding.Finding{Rule: "string-touches", Stage: finding.Strings, Severity: finding.Check,
		Says: reason.Say("The alignment string of ", m.name(), " comes within ", max(0, least), " of the ground at ", reason.Tape(where), ". A string that touches is not straight.")}
	if raised <= 2000 {
		f.Remedies = []finding.Remedy{{Says: reason.Say("Tie it ", raised, " above ground"), Edits: []job.Edit{m.set("/string/low", raised)}}}
	} else {
		f.Says = append(f.Says, reason.Say(" String it in two lengths, over the crest and beyond.")...)
	}
	m.find(f)
}

// hangPieces is how finely the curve of a hanging string is given.
const hangPieces = 8

// hang gives the height string's curve, prop to prop.
func (s *RunString) hang(hung func(length.Length) length.Length, run length.Length) {
	n := (s.Props + 1) * hangPieces
	for i := 0; i <= n; i++ {
		at := run * length.Length(i) / length.Length(n)
		s.Hang = append(s.Hang, Hang{at, s.HighStart + (s.HighEnd-s.HighStart)*at/run, hung(at)})
	}
}

// ties are the places on the map where the alignment string is tied: beyond
// the end posts, and off their centres to the side of the lined faces.
func (m *maker) ties(s *RunString) (from, to survey.Place) {
	a, b := m.out.From, m.out.To
	ux, uy := length.Length(1), length.Length(0)
	if far := a.To(b); far > length.Tolerance { // a spread misclosure could leave nothing of a run
		ux, uy = (b.X-a.X)/far, (b.Y-a.Y)/far
	}
	off := s.ToCentre * length.Length(s.Face.Sign())
	if s.School == job.BySight {
		off = 0
	}
	from = survey.Place{X: a.X - ux*s.Beyond - uy*off, Y: a.Y - uy*s.Beyond + ux*off}
	to = survey.Place{X: b.X + ux*s.Beyond - uy*off, Y: b.Y + uy*s.Beyond + ux*off}
	return from, to
}

// remind says what is easily forgotten while posts are lined up and set.
func (m *maker) remind(s *RunString) {
	add := func(stage finding.Stage, parts ...any) {
		m.out.Reminders = append(m.out.Reminders, Caution{stage, reason.Say(parts...)})
	}
	side := string(s.Face)
	if m.run.Post.Shape == job.SquarePost && !m.run.Post.Hollow {
		add(finding.Strings, "Sort the posts first: sight along each and mark its straightest face. That face goes to the ", side, ", where it is lined up; a bow goes along the fence, never across it.")
		add(finding.Pour, "Before each post goes in: its marked straight face to the ", side, ", the side that is lined up.")
	} else if m.run.Post.Shape == job.SquarePost {
		add(finding.Pour, "Turn each post so that its face lies flat to the line on the ", side, " before the concrete takes hold; a twist cannot be planed off later.")
	} else {
		add(finding.Pour, "A round post has no face to turn: hold its ", side, " side to the line, and turn brackets and marks the same way on all.")
	}
	if !m.job.Site.Before.Neighbour {
		add(finding.Strings, "Which way the good face looks is not settled yet: see Before you dig. The lined side is the one that shows.")
	}
	if s.School == job.BySight {
		add(finding.Pour, "Sight along both sides of the posts to ", s.Target, ": a twisted or bowed post then cancels out.")
	}
}

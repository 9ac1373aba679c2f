package paper

import (
	"fmt"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"github.com/skip2/go-qrcode"

	"mallow/core/plan"
)

// A sheet's code is four letters of its job's id, and which sheet it is:
// K7QF-S2 is the stake-out of run R2. Whoever holds the paper types it
// where jobs are searched; the QR code beside it opens the same place.

// letters of the kinds of sheet in codes.
var letters = map[string]string{"load": "L", "yard": "Y", "strings": "T", "stakeout": "S", "holes": "H", "gate": "G", "customer": "C", "build": "U", "cuts": "K", "labels": "B", "order": "O", "pour": "P", "day": "D"}

// ofJob is how many letters of a job's id stand in a code.
const ofJob = 4

// mostNumber is the largest number in a code: four figures.
const mostNumber = 9999

var shape = regexp.MustCompile(`^([A-Z2-7]{4})-([A-Z])([0-9]{0,4})$`)

// Code is a code that was typed.
type Code struct {
	Job    string // the first letters of its id
	kind   string
	number int
}

// ParseCode reads a code, in any case.
func ParseCode(typed string) (Code, bool) {
	m := shape.FindStringSubmatch(strings.ToUpper(strings.TrimSpace(typed)))
	if m == nil {
		return Code{}, false
	}
	c := Code{Job: strings.ToLower(m[1])}
	for kind, letter := range letters {
		if letter == m[2] {
			c.kind = kind
		}
	}
	c.number, _ = strconv.Atoi(m[3])
	return c, c.kind != ""
}

// In is the place in a job that the code means; the job itself where what it
// names is not there any more.
func (c Code) In(p plan.Plan) Place {
	at := Place{Stage: stageOf(c.kind)}
	n := 0
	for i := range p.Runs {
		r := &p.Runs[i]
		if c.kind == "gate" {
			for k := range r.Gates {
				if n++; n == c.number {
					at.Run, at.Gate = r.ID, r.Gates[k].ID
				}
			}
		} else if runNumber(p, i) == c.number || c.number == 0 && i == 0 {
			at.Run = r.ID
		}
	}
	if at.Run == "" {
		return Place{}
	}
	return at
}

// runNumber is the number of a run in codes: its own, R7, which stays when runs
// are moved; of one with another id its place, where no run has that number.
func runNumber(p plan.Plan, run int) int {
	own := func(id string) int {
		n, err := strconv.Atoi(strings.TrimPrefix(id, "R"))
		if err != nil || n > mostNumber || id != "R"+strconv.Itoa(n) {
			return 0
		}
		return n
	}
	if n := own(p.Runs[run].ID); n > 0 {
		return n
	}
	if slices.ContainsFunc(p.Runs, func(r plan.Run) bool { return own(r.ID) == run+1 }) {
		return 0
	}
	return run + 1
}

func stageOf(kind string) string {
	for _, k := range Kinds {
		if k.ID == kind {
			return k.Stage
		}
	}
	return ""
}

// Path is the place's address on the server that keeps the job.
func (at Place) Path(job string) string {
	path := "/jobs/" + url.PathEscape(job)
	if at.Run == "" {
		return path
	}
	path += "/runs/" + url.PathEscape(at.Run)
	if at.Stage != "" {
		path += "/" + at.Stage
	}
	if at.Gate != "" {
		path += "?gate=" + url.QueryEscape(at.Gate)
	}
	return path
}

// coded is a code as it is printed.
type coded struct {
	Words string
	qr    [][]bool
}

// codeOf is the code of a page: of the first sheet on it. A file of no kept job
// has none.
func codeOf(s Stamp, sheets []Sheet) coded {
	if len(s.ID) < ofJob || s.Base == "" || len(sheets) == 0 {
		return coded{}
	}
	first := sheets[0]
	out := coded{Words: strings.ToUpper(s.ID[:ofJob])}
	if letter := letters[first.Kind]; letter != "" {
		out.Words += "-" + letter
		if first.At.Number > 0 {
			out.Words += fmt.Sprint(first.At.Number)
		}
	}
	qr, err := qrcode.New(s.Base+first.At.Path(s.ID), qrcode.Low)
	if err != nil {
		return out // an address too long for one: the words are there
	}
	qr.DisableBorder = true // the page is white round it
	out.qr = qr.Bitmap()
	return out
}

// squares draws the QR code: a filled strip for each stretch of dark modules.
func (c coded) squares(x, y float64) []Line {
	var out []Line
	size := square / float64(max(1, len(c.qr)))
	for row, cells := range c.qr {
		for from := 0; from < len(cells); from++ {
			to := from
			for to < len(cells) && cells[to] {
				to++
			}
			if to == from {
				continue
			}
			x1, x2 := x+float64(from)*size, x+float64(to)*size
			y1, y2 := y+float64(row)*size, y+float64(row+1)*size
			out = append(out, Line{Points: [][2]float64{{x1, y1}, {x2, y1}, {x2, y2}, {x1, y2}}, Closed: true, Fill: 1})
			from = to
		}
	}
	return out
}

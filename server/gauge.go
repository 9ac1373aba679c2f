package server

import (
	"encoding/json"
	"strconv"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/standin"
)

// GaugeRequest asks a simulated device for a measure at a post.
type GaugeRequest struct {
	Doc  json.RawMessage `json:"doc" jsonschema:"required"`
	Post string          `json:"post" jsonschema:"required" jsonschema_description:"Its id."`
	Of   string          `json:"of" jsonschema:"required,enum=gap,enum=line,enum=depth,enum=width,enum=plumb,enum=lean,enum=top" jsonschema_description:"What is measured."`
}

// Gauged is what a device sent.
type Gauged struct {
	Device standin.GaugeKind `json:"device" jsonschema:"required,enum=tape,enum=level,enum=inclinometer"`
	Value  length.Length     `json:"value" jsonschema:"required"`
}

// gaugeLag is how long a device takes after its button was pressed.
const gaugeLag = 60 * time.Millisecond

// device answers with what a simulated tape, level or inclinometer measures.
func (s *Server) device(c fiber.Ctx) error {
	var req GaugeRequest
	if err := read(c, &req); err != nil {
		return err
	}
	return s.planning(c, "device", planBudget, func(stop func() error) error {
		j, _, err := document.Decode(req.Doc, s.Catalog)
		if err != nil {
			return err
		}
		r, err := plan.Compute(stop, j, s.Catalog, nil)
		if err != nil {
			return err
		}
		for _, run := range r.Runs {
			i := run.Load.PostAt(req.Post)
			if i < 0 {
				continue
			}
			p, kind, should := &run.Load.Posts[i], standin.ButtonTape, length.Length(0)
			switch req.Of {
			case "gap":
				if i == 0 {
					return document.Errors{{Field: "/of", Given: strconv.Quote("gap"), Allowed: "at a post with one before it"}}
				}
				should = p.Station - run.Load.Posts[i-1].Station
			case "depth":
				should = p.HoleDepth
			case "width":
				should = p.HoleWidth
			case "line":
			case "top":
				kind = standin.DigitalLevel
			case "plumb", "lean":
				kind = standin.Inclinometer
			default:
				return document.Errors{{Field: "/of", Given: strconv.Quote(document.Brief(req.Of)), Allowed: "gap, line, depth, width, plumb, lean, top"}}
			}
			v, err := standin.NewGauge(kind, should, run.Load.Spec.Fence.Height, req.Post+req.Of, gaugeLag).Next(c.Context())
			if err != nil {
				return err
			}
			return c.JSON(Gauged{kind, v})
		}
		return document.Errors{{Field: "/post", Given: strconv.Quote(document.Brief(req.Post)), Allowed: "a post of the plan, by its id"}}
	})
}

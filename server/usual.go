package server

import (
	"bytes"
	"strconv"
	"sync"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/plan"
	"mallow/core/stage/record"
	"mallow/store"
)

// What finished jobs teach is found again only for those that were saved since.
const mostTaught = 2000

// taught is what single revisions teach; nil for those that teach nothing.
type taught struct {
	sync.Mutex
	by map[string]*record.Usual
}

func (t *taught) find(key string) (*record.Usual, bool) {
	t.Lock()
	defer t.Unlock()
	u, known := t.by[key]
	return u, known
}

func (t *taught) keep(key string, u *record.Usual) {
	t.Lock()
	defer t.Unlock()
	if t.by == nil || len(t.by) >= mostTaught {
		t.by = map[string]*record.Usual{}
	}
	t.by[key] = u
}

func (t *taught) forget() {
	t.Lock()
	defer t.Unlock()
	t.by = nil
}

// usual answers with what all finished jobs say of how the crew works.
func (s *Server) usual(c fiber.Ctx) error {
	var out record.Usual
	err := s.Store.Each(c.Context(), func(r store.Revision, err error) error {
		if err != nil || r.Deleted || !bytes.Contains(r.Doc, []byte(`"observed"`)) {
			return nil // one that cannot be read teaches nothing
		}
		key := r.Generation + "/" + r.Job + "/" + strconv.Itoa(r.Number)
		one, known := s.taught.find(key)
		if !known {
			if err := s.planning(c, "usual", planBudget, func(stop func() error) error {
				o, err := document.Open(r.Doc, s.Catalog)
				if err != nil {
					return nil // likewise
				}
				p, err := plan.Compute(stop, o.Job, s.Catalog, nil)
				if err != nil {
					return err
				}
				u := record.Usual{}
				if p.Learn(&u) {
					one = &u
				}
				return nil
			}); err != nil {
				return err
			}
			s.taught.keep(key, one)
		}
		if one != nil {
			out.Join(*one)
		}
		return nil
	})
	if err != nil {
		return err
	}
	out.Offer(s.Catalog.Supply.Crew)
	return c.JSON(out)
}

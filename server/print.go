package server

import (
	"cmp"
	"context"
	"crypto/rand"
	"encoding/hex"
	"mime"
	"net/url"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/plan"
	"mallow/exchange"
	"mallow/files"
	"mallow/paper"
	"mallow/store"
)

// source is a kept job, planned, with what its sheets are stamped with.
func (s *Server) source(c fiber.Ctx, stop func() error) (files.Source, error) {
	rev, err := s.Store.Get(c.Context(), c.Params("id"))
	if err != nil {
		return files.Source{}, err
	}
	src, err := s.sourceOf(rev, stop)
	src.Stamp.ID, src.Stamp.Base = rev.Job, s.ownAddress(c)
	return src, err
}

func (s *Server) sourceOf(rev store.Revision, stop func() error) (files.Source, error) {
	o, err := document.Open(rev.Doc, s.Catalog)
	if err != nil {
		return files.Source{}, err
	}
	p, err := plan.Worded(stop, o.Job, s.Catalog)
	if err != nil {
		return files.Source{}, err
	}
	return files.Of(o, p, rev.Number, rev.SavedAt), nil
}

// want reads what file is wanted from the query.
func want(c fiber.Ctx) (files.Want, error) {
	w := files.Want{Want: exchange.Want{What: c.Query("what"), Run: c.Query("run"), Line: fiber.Query[int](c, "line"), View: c.Query("view")}, Sheet: c.Query("sheet")}
	size, err := paper.SizeOf(c.Query("paper", paper.Letter.Name))
	if err != nil {
		return w, exchange.FileError{Why: err.Error()}
	}
	w.Size = size
	return w, w.Check()
}

// exportFile sends a job, or a part of it, as a file. The document itself
// comes out of a job that cannot be planned too.
func (s *Server) exportFile(c fiber.Ctx) error {
	w, err := want(c)
	if err != nil {
		return err
	}
	if w.What == "json" {
		rev, err := s.Store.Get(c.Context(), c.Params("id"))
		if err != nil {
			return err
		}
		file, err := exchange.Source{Doc: rev.Doc, Plan: plan.Plan{Name: cmp.Or(rev.Name, rev.Job)}, Revision: rev.Number}.Export(w.Want, nil)
		if err != nil {
			return err
		}
		return send(c, file)
	}
	return s.filing(c, "export", func(stop func() error) error {
		src, err := s.source(c, stop)
		if err != nil {
			return err
		}
		file, err := src.Export(w, func(int, int) error { return stop() })
		if err != nil {
			return err
		}
		return send(c, file)
	})
}

// send sends a file under its name, in any script.
func send(c fiber.Ctx, file exchange.Written) error {
	c.Set(fiber.HeaderContentType, file.Type)
	c.Set(fiber.HeaderContentDisposition, disposition(file.Name))
	return c.Send(file.Data)
}

// disposition names an attachment (RFC 6266): in ASCII for old clients, and as
// it is written.
func disposition(name string) string {
	ascii := strings.Map(func(r rune) rune {
		if r < ' ' || r > '~' || r == '"' || r == '\\' {
			return '_'
		}
		return r
	}, name)
	return mime.FormatMediaType("attachment", map[string]string{"filename": ascii}) + "; filename*=UTF-8''" + url.PathEscape(name)
}

// pages says how many pages a sheet has.
func (s *Server) pages(c fiber.Ctx) error {
	var d paper.Document
	if err := s.laid(c, &d); err != nil {
		return err
	}
	return c.JSON(Pages{Count: len(d.Pages), Width: d.Size.Width, Height: d.Size.Height})
}

// pageSVG draws one page, counted from 1.
func (s *Server) pageSVG(c fiber.Ctx) error {
	var d paper.Document
	if err := s.laid(c, &d); err != nil {
		return err
	}
	n := fiber.Query[int](c, "page", 1)
	if n < 1 || n > len(d.Pages) {
		return fiber.NewError(fiber.StatusNotFound, "There is no such page.")
	}
	c.Set(fiber.HeaderContentType, "image/svg+xml")
	return c.Send(d.SVG(n - 1))
}

func (s *Server) laid(c fiber.Ctx, into *paper.Document) error {
	w, err := want(c)
	if err != nil {
		return err
	}
	return s.filing(c, "pages", func(stop func() error) error {
		src, err := s.source(c, stop)
		if err == nil {
			*into, err = src.Document(w, stop)
		}
		return err
	})
}

// prints keeps what was printed until it is fetched: the last few of each job and
// person, within bounds for all of them together.
type prints struct {
	sync.Mutex
	list []printed // the oldest first
}

// of is the job that a print is of, and where whoever printed it asked from.
type of struct{ job, by string }

type printed struct {
	of
	token string
	file  exchange.Written
	until time.Time
}

const (
	keptPrints = 4         // of one job and person
	mostPrints = 64        // of all
	printBytes = 128 << 20 // likewise; the newest is kept whatever its size
	keptFor    = 5 * time.Minute
)

func (p *prints) keep(whose of, f exchange.Written) string {
	var raw [16]byte
	_, _ = rand.Read(raw[:]) // never fails
	token := hex.EncodeToString(raw[:])
	p.Lock()
	defer p.Unlock()
	p.drop()
	p.list = append(p.list, printed{whose, token, f, time.Now().Add(keptFor)})
	own, all, bytes := 0, 0, 0
	for i := len(p.list) - 1; i >= 0; i-- { // the oldest of those that are too many go
		one := p.list[i]
		if one.of == whose {
			own++
		}
		all++
		bytes += len(one.file.Data)
		if i < len(p.list)-1 && (one.of == whose && own > keptPrints || all > mostPrints || bytes > printBytes) {
			p.list = slices.Delete(p.list, i, i+1)
			all, bytes = all-1, bytes-len(one.file.Data)
		}
	}
	return token
}

// drop forgets what nobody fetched in time.
func (p *prints) drop() {
	kept := p.list[:0]
	for _, one := range p.list {
		if time.Now().Before(one.until) {
			kept = append(kept, one)
		}
	}
	p.list = kept
}

func (p *prints) take(token string) (exchange.Written, bool) {
	p.Lock()
	defer p.Unlock()
	p.drop()
	for _, one := range p.list {
		if one.token == token {
			return one.file, true
		}
	}
	return exchange.Written{}, false
}

// print writes sheets as PDF and says how far it is, line by line. Whoever
// hangs up stops it.
func (s *Server) print(c fiber.Ctx) error {
	w, err := want(c)
	if err != nil {
		return err
	}
	w.What = "pdf"
	rev, err := s.Store.Get(c.Context(), c.Params("id")) // while it can still be said as an error
	if err != nil {
		return err
	}
	base, by := s.ownAddress(c), c.IP()
	return s.lines(c, filesWait+exportBudget, func(ctx context.Context, say func(any) error) error {
		if s.files.waits() {
			if err := say(Printing{Waiting: true}); err != nil {
				return err
			}
		}
		return s.filed(ctx, "print", func(stop func() error) error {
			src, err := s.sourceOf(rev, stop)
			if err != nil {
				return err
			}
			src.Stamp.ID, src.Stamp.Base = rev.Job, base
			return s.printTo(say, stop, src, w, of{rev.Job, by})
		})
	})
}

// mostSteps is how often a print says how far it is.
const mostSteps = 50

func (s *Server) printTo(say func(any) error, stop func() error, src files.Source, w files.Want, whose of) error {
	file, err := src.Export(w, func(done, of int) error {
		if of == 0 {
			return stop()
		}
		if every := max(1, of/mostSteps); done%every != 0 && done != of {
			return stop()
		}
		if err := say(Printing{Done: done, Of: of}); err != nil {
			return err
		}
		return stop()
	})
	if err != nil {
		return err
	}
	return say(Printing{Ready: s.prints.keep(whose, file), Name: file.Name})
}

// fetchPrint sends what was printed.
func (s *Server) fetchPrint(c fiber.Ctx) error {
	file, ok := s.prints.take(c.Params("token"))
	if !ok {
		return fiber.NewError(fiber.StatusNotFound, "This print is not kept any more. Print it again.")
	}
	return send(c, file)
}

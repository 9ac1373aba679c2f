package server

import (
	"bufio"
	"context"
	"crypto/rand"
	"encoding/hex"
	"encoding/json"
	"mime"
	"net/url"
	"strings"
	"sync"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/exchange"
	"mallow/paper"
)

// source is a kept job, planned, with what its sheets are stamped with.
func (s *server) source(c fiber.Ctx) (exchange.Source, error) {
	rev, err := s.Store.Get(c.Context(), c.Params("id"))
	if err != nil {
		return exchange.Source{}, err
	}
	j, p, err := s.planned(rev.Doc)
	if err != nil {
		return exchange.Source{}, err
	}
	return exchange.Source{Job: j, Plan: p, Doc: rev.Doc,
		Stamp: paper.Stamp{Job: p.Name, Revision: rev.Number, Date: rev.SavedAt, Cleared: p.Before.Ready}}, nil
}

// want reads what file is wanted from the query.
func want(c fiber.Ctx) (exchange.Want, error) {
	w := exchange.Want{What: c.Query("what"), Sheet: c.Query("sheet"), Run: c.Query("run"), Line: fiber.Query[int](c, "line"), View: c.Query("view")}
	size, err := paper.SizeOf(c.Query("paper", paper.Letter.Name))
	if err != nil {
		return w, exchange.FileError{Why: err.Error()}
	}
	w.Size = size
	return w, nil
}

// exportFile sends a job, or a part of it, as a file.
func (s *server) exportFile(c fiber.Ctx) error {
	w, err := want(c)
	if err != nil {
		return err
	}
	src, err := s.source(c)
	if err != nil {
		return err
	}
	file, err := src.Export(w, nil)
	if err != nil {
		return err
	}
	return send(c, file)
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
func (s *server) pages(c fiber.Ctx) error {
	d, err := s.laid(c)
	if err != nil {
		return err
	}
	return c.JSON(Pages{Count: len(d.Pages), Width: d.Size.Width, Height: d.Size.Height})
}

// pageSVG draws one page, counted from 1.
func (s *server) pageSVG(c fiber.Ctx) error {
	d, err := s.laid(c)
	if err != nil {
		return err
	}
	n := fiber.Query[int](c, "page", 1)
	if n < 1 || n > len(d.Pages) {
		return fiber.NewError(fiber.StatusNotFound, "There is no such page.")
	}
	c.Set(fiber.HeaderContentType, "image/svg+xml")
	return c.Send(d.SVG(n - 1))
}

func (s *server) laid(c fiber.Ctx) (paper.Document, error) {
	w, err := want(c)
	if err != nil {
		return paper.Document{}, err
	}
	src, err := s.source(c)
	if err != nil {
		return paper.Document{}, err
	}
	return src.Document(w)
}

// prints keeps what was printed until it is fetched, a few at a time.
type prints struct {
	sync.Mutex
	list []printed
}

type printed struct {
	token string
	file  exchange.Written
	until time.Time
}

const (
	keptPrints = 4
	keptFor    = 5 * time.Minute
)

func (p *prints) keep(f exchange.Written) string {
	var raw [16]byte
	_, _ = rand.Read(raw[:]) // never fails
	token := hex.EncodeToString(raw[:])
	p.Lock()
	defer p.Unlock()
	p.drop()
	if len(p.list) >= keptPrints {
		p.list = p.list[1:]
	}
	p.list = append(p.list, printed{token, f, time.Now().Add(keptFor)})
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
func (s *server) print(c fiber.Ctx) error {
	w, err := want(c)
	if err != nil {
		return err
	}
	w.What = "pdf"
	src, err := s.source(c)
	if err != nil {
		return err
	}
	if _, err := src.Document(w); err != nil { // a refusal is an answer, not a stream
		return err
	}
	c.Set(fiber.HeaderContentType, "application/x-ndjson")
	c.Set("X-Accel-Buffering", "no")
	return c.SendStreamWriter(func(out *bufio.Writer) {
		ctx, stop := context.WithTimeout(context.Background(), keptFor)
		defer stop()
		enc := json.NewEncoder(out)
		every := 1
		file, err := src.Export(w, func(done, of int) error {
			if every = max(1, of/50); done%every != 0 && done != of {
				return ctx.Err()
			}
			if err := enc.Encode(Printing{Done: done, Of: of}); err != nil {
				return err
			}
			if err := out.Flush(); err != nil {
				return err // whoever listened has gone
			}
			return ctx.Err()
		})
		if err != nil {
			s.Log.Info("printing stopped", "error", err)
			return
		}
		if enc.Encode(Printing{Ready: s.prints.keep(file), Name: file.Name}) == nil {
			_ = out.Flush() // whoever listened may have gone
		}
	})
}

// fetchPrint sends what was printed.
func (s *server) fetchPrint(c fiber.Ctx) error {
	file, ok := s.prints.take(c.Params("token"))
	if !ok {
		return fiber.NewError(fiber.StatusNotFound, "This print is not kept any more. Print it again.")
	}
	return send(c, file)
}

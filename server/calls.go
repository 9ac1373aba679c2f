package server

import (
	"context"
	"encoding/json"

	"github.com/gofiber/fiber/v3"

	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/length"
)

// Messages of calls that others answer with too.
type (
	Document = calls.Document
	Changed  = calls.Changed
)

// call answers a call of the core that has one answer.
func (s *Server) call(name string) fiber.Handler {
	return func(c fiber.Ctx) error { return s.answerCall(c, name, c.Body()) }
}

// exportCall writes a file of a document that is at hand.
func (s *Server) exportCall(c fiber.Ctx) error {
	return s.filing(c, "export", s.answering(c, "export", c.Body()))
}

// answering answers a call of the core while it is planned.
func (s *Server) answering(c fiber.Ctx, name string, request []byte) func(stop func() error) error {
	return func(stop func() error) error {
		return s.core.Answer(stop, name, request, func(out []byte) error {
			c.Set(fiber.HeaderContentType, fiber.MIMEApplicationJSONCharsetUTF8)
			return c.Send(out)
		})
	}
}

// answerCall answers it to a request that is at hand.
func (s *Server) answerCall(c fiber.Ctx, name string, request []byte) error {
	return s.planning(c, name, planBudget, s.answering(c, name, request))
}

// advise answers with the ways out of findings, one finding a line, each as
// soon as it is worked out.
func (s *Server) advise(c fiber.Ctx) error {
	var req calls.AdviseRequest
	if err := read(c, &req); err != nil {
		return err
	}
	if _, _, err := document.Decode(req.Doc, s.Catalog); err != nil {
		return err // while it can still be said as an error
	}
	body := append([]byte{}, c.Body()...) // the stream outlives the request
	return s.lines(c, mostWait+planBudget, func(ctx context.Context, say func(any) error) error {
		return s.planned(ctx, "advise", planBudget, func(stop func() error) error {
			return s.core.Answer(stop, "advise", body, func(line []byte) error { return say(json.RawMessage(line)) })
		})
	})
}

// tape reads an entry while it is being typed.
func (s *Server) tape(c fiber.Ctx) error {
	request, err := json.Marshal(calls.TapeRequest{Text: c.Query("text"), System: length.System(c.Query("system")), Field: c.Query("field")})
	if err != nil {
		return err
	}
	return s.answerCall(c, "tape", request)
}

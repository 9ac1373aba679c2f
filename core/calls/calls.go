// Package calls is what can be asked of the core, JSON in and JSON out. The
// server answers these calls for windows that have no core of their own; in a
// browser the core answers them itself.
package calls

import (
	"bytes"
	"encoding/json"
	"errors"
	"maps"
	"slices"

	"mallow/core/document"
	"mallow/core/materials"
	"mallow/core/reshape"
)

// Core answers calls about job documents. Many may ask it at once.
type Core struct {
	Catalog materials.Catalog
	More    map[string]Answer // calls besides the core's own
	results results
	last    lastPlan
}

// Answer answers a call: its request as JSON. What it sends is JSON too, mostly
// one value; stop is asked now and then whether to go on.
type Answer func(c *Core, stop func() error, request []byte, send func([]byte) error) error

var answers = map[string]Answer{
	"plan": whole(planned), "replan": replanned, "tell": whole(told), "bill": whole(billed), "build": Asked(built), "pour": whole(poured), "days": whole(scheduled), "record": whole(recorded), "forecast": whole(forecast), "amend": Asked(amended),
	"explain": Asked(explained), "table": Asked(tabled), "draw": Asked(drawn), "ways": Asked(waysOf), "advise": advised,
	"alternatives": Asked(alternatives), "looks": Asked(looks), "compare": Asked(compared),
	"reshape": Asked(reshaped), "square": Asked(squared), "pegs": Asked(pegged), "tape": Asked(read),
}

// Names are the calls that there are.
func Names() []string { return slices.Sorted(maps.Keys(answers)) }

// Answer answers one call.
func (c *Core) Answer(stop func() error, name string, request []byte, send func([]byte) error) error {
	answer, ok := answers[name]
	if !ok {
		answer, ok = c.More[name]
	}
	if !ok {
		return document.Errors{{Field: "/call", Given: document.Brief(name), Allowed: list(Names())}}
	}
	return answer(c, stop, request, send)
}

// Malformed is a request that is not the JSON that belongs there.
type Malformed struct{ error }

// Read parses a request. Numbers of what is kept stay as they were written.
func Read(request []byte, into any) error {
	dec := json.NewDecoder(bytes.NewReader(request))
	dec.UseNumber()
	err := dec.Decode(into)
	if err == nil && len(bytes.TrimSpace(request[dec.InputOffset():])) > 0 {
		err = errFollows
	}
	if err != nil {
		return Malformed{err}
	}
	return nil
}

var errFollows = errors.New("something follows it")

// whole is a call whose request is a document, and whose answer mostly numbers.
func whole(of func(c *Core, stop func() error, doc []byte) (any, error)) Answer {
	return func(c *Core, stop func() error, doc []byte, send func([]byte) error) error {
		v, err := of(c, stop, doc)
		return sent(v, err, send)
	}
}

// Asked is a call with a request of its own.
func Asked[T any](of func(c *Core, stop func() error, request T) (any, error)) Answer {
	return func(c *Core, stop func() error, body []byte, send func([]byte) error) error {
		var request T
		if err := Read(body, &request); err != nil {
			return err
		}
		v, err := of(c, stop, request)
		return sent(v, err, send)
	}
}

// sent sends an answer, where there is one.
func sent(v any, err error, send func([]byte) error) error {
	if err != nil {
		return err
	}
	out, err := figures(v)
	if err != nil {
		return err
	}
	return send(out)
}

// Unusable is an error of a file that cannot be read or made: it says why.
type Unusable interface{ Unusable() string }

// WaysOut is an error of a document with the ways out of it.
type WaysOut struct {
	error
	Ways []document.Mend
}

// Unwrap is the error itself.
func (w WaysOut) Unwrap() error { return w.error }

// Problem is an error as it is told, in the words of the trade (RFC 9457).
type Problem struct {
	Title  string                `json:"title"`
	Status int                   `json:"status"`
	Detail string                `json:"detail"`
	Fields []document.FieldError `json:"fields,omitempty"`
	Ways   []document.Mend       `json:"ways,omitempty"`
}

// ProblemOf tells an error of a call; false where it is not the asker's to mend.
func ProblemOf(err error) (Problem, bool) {
	var fields document.Errors
	var refused reshape.Refused
	var malformed Malformed
	var file Unusable
	switch {
	case errors.As(err, &fields):
		p := Problem{Status: 422, Title: "Some of what was entered cannot be used", Detail: fields.Error(), Fields: fields}
		var out WaysOut
		if errors.As(err, &out) {
			p.Ways = out.Ways
		}
		return p, true
	case errors.As(err, &refused):
		return Problem{Status: 422, Title: "That cannot be done to the line", Detail: refused.Why}, true
	case errors.As(err, &file):
		return Problem{Status: 422, Title: "The file cannot be used", Detail: file.Unusable()}, true
	case errors.As(err, &malformed):
		return Problem{Status: 400, Title: "That did not work", Detail: "The request is not the JSON that belongs here: " + malformed.Error() + "."}, true
	}
	return Problem{}, false
}

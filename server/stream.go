package server

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"runtime/debug"
	"sync"
	"time"

	"github.com/gofiber/fiber/v3"
)

// writeTimeout is how long one piece of an answer may take to be taken: who
// does not read is let go.
const writeTimeout = 60 * time.Second

// guarded runs do beside the rest. A panic in it is logged with its stack and
// goes no further.
func (s *Server) guarded(do func()) {
	s.beside.Go(func() {
		defer s.recovered("background", nil)
		do()
	})
}

// recovered, deferred, logs a panic with its stack and tells then.
func (s *Server) recovered(where string, then func(error)) {
	if r := recover(); r != nil {
		s.metrics.panicked()
		s.Log.Error("panic", "in", where, "panic", fmt.Sprint(r), "stack", string(debug.Stack()))
		if then != nil {
			then(fmt.Errorf("panic: %v", r))
		}
	}
}

// pipe is an answer that is sent piece by piece.
type pipe struct {
	*bufio.Writer
	conn net.Conn
}

// Flush sends what was written; each piece has its own time to be taken.
func (p pipe) Flush() error {
	if p.conn != nil {
		if err := p.conn.SetWriteDeadline(time.Now().Add(writeTimeout)); err != nil {
			return err
		}
	}
	return p.Writer.Flush()
}

// broken ends the connection, so that whoever reads does not take for whole what is not.
func (p pipe) broken() {
	if p.conn != nil {
		_ = p.conn.Close() // it is of no use any more, whatever it says
	}
}

// End is the last line of an answer that comes line by line. One without it broke off.
type End struct {
	End     string   `json:"end" jsonschema:"required,enum=done,enum=failed"`
	Problem *Problem `json:"problem,omitempty" jsonschema_description:"Why it was not done."`
}

// How an answer line by line ends.
const (
	endDone   = "done"
	endFailed = "failed"
)

// lines answers line by line, each as soon as it is said, and says at the end that it
// is done, or why not.
func (s *Server) lines(c fiber.Ctx, budget time.Duration, do func(ctx context.Context, say func(any) error) error) error {
	at := asked(c)
	say := func(out pipe, one any) error {
		raw, err := json.Marshal(one)
		if err != nil {
			return err
		}
		if _, err = out.Write(append(raw, '\n')); err == nil {
			err = out.Flush()
		}
		if err != nil {
			return errHungUp
		}
		return nil
	}
	return s.stream(c, "application/x-ndjson", budget, func(ctx context.Context, out pipe) error {
		// What takes long says nothing for a while: an empty line tells that it is at it.
		var one sync.Mutex
		alone := func(what any) error {
			one.Lock()
			defer one.Unlock()
			return say(out, what)
		}
		done := make(chan struct{})
		beating := make(chan struct{})
		s.guarded(func() {
			defer close(beating)
			beat := time.NewTicker(lineBeat)
			defer beat.Stop()
			for {
				select {
				case <-done:
					return
				case <-beat.C:
					one.Lock()
					_ = out.WriteByte('\n') // whoever does not listen is found out by the work itself
					_ = out.Flush()
					one.Unlock()
				}
			}
		})
		defer func() { close(done); <-beating }() // nobody writes when this has ended
		if err := do(ctx, alone); err != nil {
			return err
		}
		return alone(End{End: endDone})
	}, func(out pipe, err error) {
		p := s.problem(at, err)
		_ = say(out, End{endFailed, &p}) // whoever listened may have gone
	})
}

// lineBeat is how often an answer by lines shows that it goes on.
const lineBeat = 5 * time.Second

// file answers with a file piece by piece. Where it cannot be finished the connection is
// broken: half a file never looks whole.
func (s *Server) file(c fiber.Ctx, kind string, budget time.Duration, do func(context.Context, pipe) error) error {
	return s.stream(c, kind, budget, do, func(out pipe, _ error) { out.broken() })
}

// stream answers piece by piece, for as long as do goes on; it ends with the
// client, the budget or the server. What goes wrong within it is logged, and
// told to the client by failed, as the answer has begun.
func (s *Server) stream(c fiber.Ctx, kind string, budget time.Duration, do func(context.Context, pipe) error, failed func(pipe, error)) error {
	c.Set(fiber.HeaderContentType, kind)
	c.Set("X-Accel-Buffering", "no")
	conn, id, path := c.RequestCtx().Conn(), requestID(c), c.Route().Path
	return c.SendStreamWriter(func(w *bufio.Writer) {
		out := pipe{w, conn}
		told := func(err error) {
			if err == nil || errors.Is(err, errHungUp) {
				return
			}
			if !errors.Is(err, errStopping) {
				s.Log.Warn("a stream ended early", "id", id, "path", path, "error", err)
			}
			if failed != nil {
				failed(out, err)
				_ = out.Flush() // whoever listened may have gone
			}
		}
		defer s.recovered(path, told)
		ctx, end := s.until(conn, budget)
		defer end()
		err := do(ctx, out)
		if why := context.Cause(ctx); err != nil && why != nil { // which says it better
			err = why
		}
		told(err)
	})
}

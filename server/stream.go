package server

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"runtime/debug"
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
			if err == nil || errors.Is(err, errHungUp) || errors.Is(err, errStopping) {
				return
			}
			s.Log.Warn("a stream ended early", "id", id, "path", path, "error", err)
			if failed != nil {
				failed(out, err)
				_ = out.Flush() // whoever listened may have gone
			}
		}
		defer s.recovered(path, told)
		ctx, end := s.until(conn, budget)
		defer end()
		told(do(ctx, out))
	})
}

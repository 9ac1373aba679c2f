package server

import (
	"context"
	"errors"
	"net"
	"sync/atomic"
	"time"

	"github.com/gofiber/fiber/v3"
	"golang.org/x/sync/semaphore"
)

// What a request may take of the machine.
const (
	planBudget   = 15 * time.Second // a plan, ways out, layouts side by side
	layBudget    = 8 * time.Second  // the names of posts in a save, with the wait for it
	exportBudget = 30 * time.Second // a file or a set of sheets
	zipBudget    = 10 * time.Minute // what is only copied, to whoever takes it slowly
	// mostWaiting is how many wait in line for the planner; who comes after them
	// is told to come back.
	mostWaiting = 64
	// mostWait is how long one waits there.
	mostWait = 10 * time.Second
	// Files are written one at a time, beside the planning and never in its way; so
	// many wait for that, so long. So does whoever asks for the board.
	filesWaiting = 16
	filesWait    = 60 * time.Second
	boardWaiting = 16
	boardWait    = 60 * time.Second
	// peekEvery is how often a client is looked for while it waits.
	peekEvery = 100 * time.Millisecond
)

// Why work was ended before it was done.
var (
	errTookTooLong = errors.New("it took too long")
	errHungUp      = errors.New("the client hung up")
	errStopping    = errors.New("the server is stopping")
	errBusy        = errors.New("too many wait for the planner")
	errFilesBusy   = errors.New("too many wait for files")
)

// gate lets only so many do a kind of work at once, first come, first served.
type gate struct {
	places  *semaphore.Weighted
	waiting atomic.Int64
	most    int64
	wait    time.Duration
	busy    error // to those who come when too many wait, or who waited too long
}

func newGate(places, most int, wait time.Duration, busy error) *gate {
	return &gate{places: semaphore.NewWeighted(int64(places)), most: int64(most), wait: wait, busy: busy}
}

// waits tells whether who comes now has to wait.
func (g *gate) waits() bool {
	if !g.places.TryAcquire(1) {
		return true
	}
	g.places.Release(1)
	return false
}

// enter waits for a place. What it returns gives the place back.
func (g *gate) enter(ctx context.Context) (func(), error) {
	if g.places.TryAcquire(1) {
		return func() { g.places.Release(1) }, nil
	}
	defer g.waiting.Add(-1)
	if g.waiting.Add(1) > g.most {
		return nil, g.busy
	}
	waiting, stop := context.WithTimeoutCause(ctx, g.wait, g.busy)
	defer stop()
	if err := g.places.Acquire(waiting, 1); err != nil {
		return nil, context.Cause(waiting)
	}
	return func() { g.places.Release(1) }, nil
}

// until is a context that ends with the budget, with the server, and when the
// client hangs up, and says which it was.
func (s *Server) until(conn net.Conn, budget time.Duration) (context.Context, context.CancelFunc) {
	ctx, stop := context.WithTimeoutCause(s.running, budget, errTookTooLong)
	ctx, end := context.WithCancelCause(ctx)
	if peek := peeker(conn); peek != nil {
		s.guarded(func() {
			tick := time.NewTicker(peekEvery)
			defer tick.Stop()
			for {
				select {
				case <-ctx.Done():
					return
				case <-tick.C:
					if peek() {
						end(errHungUp)
						return
					}
				}
			}
		})
	}
	return ctx, func() { end(nil); stop() }
}

// planning does work that plans, within its budget, when its turn comes. What
// it does asks now and then whether to go on.
func (s *Server) planning(c fiber.Ctx, what string, budget time.Duration, do func(stop func() error) error) error {
	ctx, end := s.until(c.RequestCtx().Conn(), mostWait+budget)
	defer end()
	return s.planned(ctx, what, budget, do)
}

// planned is planning for those who have a context already. The budget is for
// the work, not for the waiting.
func (s *Server) planned(ctx context.Context, what string, budget time.Duration, do func(stop func() error) error) error {
	return s.within(ctx, s.gate, what, budget, do)
}

// filing writes a file, when its turn comes.
func (s *Server) filing(c fiber.Ctx, what string, do func(stop func() error) error) error {
	ctx, end := s.until(c.RequestCtx().Conn(), filesWait+exportBudget)
	defer end()
	return s.filed(ctx, what, do)
}

// filed is filing for those who have a context already.
func (s *Server) filed(ctx context.Context, what string, do func(stop func() error) error) error {
	return s.within(ctx, s.files, what, exportBudget, do)
}

// within does work in its gate.
func (s *Server) within(ctx context.Context, g *gate, what string, budget time.Duration, do func(stop func() error) error) error {
	leave, err := g.enter(ctx)
	if err != nil {
		return err
	}
	defer leave()
	ctx, stop := context.WithTimeoutCause(ctx, budget, errTookTooLong)
	defer stop()
	start := time.Now()
	defer func() { s.metrics.planned(what, time.Since(start)) }()
	return do(func() error {
		select {
		case <-ctx.Done():
			return context.Cause(ctx)
		default:
			return nil
		}
	})
}

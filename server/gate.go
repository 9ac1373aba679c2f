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
	exportBudget = 60 * time.Second // a file or a set of sheets
	// mostWaiting is how many wait in line for the planner; who comes after them
	// is told to come back.
	mostWaiting = 64
	// mostWait is how long one waits there.
	mostWait = 10 * time.Second
	// peekEvery is how often a client is looked for while it waits.
	peekEvery = 100 * time.Millisecond
)

// Why work was ended before it was done.
var (
	errTookTooLong = errors.New("it took too long")
	errHungUp      = errors.New("the client hung up")
	errStopping    = errors.New("the server is stopping")
	errBusy        = errors.New("too many wait for the planner")
)

// gate lets as many plan at once as there are processors to do it, first come,
// first served.
type gate struct {
	places  *semaphore.Weighted
	waiting atomic.Int64
	most    int64
}

func newGate(places, most int) *gate {
	return &gate{places: semaphore.NewWeighted(int64(places)), most: int64(most)}
}

// enter waits for a place. What it returns gives the place back.
func (g *gate) enter(ctx context.Context) (func(), error) {
	if g.places.TryAcquire(1) {
		return func() { g.places.Release(1) }, nil
	}
	defer g.waiting.Add(-1)
	if g.waiting.Add(1) > g.most {
		return nil, errBusy
	}
	waiting, stop := context.WithTimeoutCause(ctx, mostWait, errBusy)
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
	leave, err := s.gate.enter(ctx)
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

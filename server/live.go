package server

import (
	"context"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/gofiber/fiber/v3"
)

// EventKind is what happened to a job.
type EventKind string

// Kinds of events.
const (
	EventSaved     EventKind = "saved"
	EventDeleted   EventKind = "deleted"
	EventPutBack   EventKind = "put back"
	EventDescribed EventKind = "described"
	EventReset     EventKind = "reset" // some were missed, or everything changed: read it all again
)

// Event tells of a change of a job.
type Event struct {
	Job      string    `json:"job,omitempty"`
	Revision int       `json:"revision,omitempty" jsonschema_description:"The job's current revision."`
	What     string    `json:"what,omitempty" jsonschema_description:"What the revision changed."`
	Kind     EventKind `json:"kind" jsonschema:"required,enum=saved,enum=deleted,enum=put back,enum=described,enum=reset"`
}

const (
	mostListeners = 2000
	eventsKept    = 1024 // for those who come back
	eventsWaiting = 64   // for a listener that does not take them; then it is let go and comes back
	heartbeat     = 20 * time.Second
	listenFor     = 12 * time.Hour
)

type numbered struct {
	n     uint64
	event Event
}

// hub tells listeners of events. Nobody who does not listen holds it up.
type hub struct {
	sync.Mutex
	epoch     string // of this start of the server; numbers begin again with it
	n         uint64
	last      []numbered
	listeners map[chan numbered]string // by the job that they listen to; none for all
}

func newHub() *hub {
	return &hub{epoch: strconv.FormatInt(time.Now().UnixMicro(), 36), listeners: map[chan numbered]string{}}
}

func (h *hub) tell(e Event) {
	h.Lock()
	defer h.Unlock()
	h.n++
	one := numbered{h.n, e}
	if h.last = append(h.last, one); len(h.last) > 2*eventsKept {
		h.last = append(h.last[:0], h.last[len(h.last)-eventsKept:]...)
	}
	for to, job := range h.listeners {
		if job != "" && job != e.Job && e.Kind != EventReset {
			continue
		}
		select {
		case to <- one:
		default:
			delete(h.listeners, to)
			close(to)
		}
	}
}

// listen begins to listen, with what was missed since an event that had been
// heard; reset says that it is not known what was missed.
func (h *hub) listen(job, since string) (to chan numbered, missed []Event, now string, reset, ok bool) {
	h.Lock()
	defer h.Unlock()
	if len(h.listeners) >= mostListeners {
		return nil, nil, "", false, false
	}
	now = h.id(h.n)
	if since != "" {
		epoch, n, _ := strings.Cut(since, "-")
		from, err := strconv.ParseUint(n, 10, 64)
		known := err == nil && epoch == h.epoch && from <= h.n && (from == h.n || len(h.last) > 0 && h.last[0].n <= from+1)
		reset = !known
		for _, one := range h.last {
			if known && one.n > from && (job == "" || job == one.event.Job || one.event.Kind == EventReset) {
				missed = append(missed, one.event)
			}
		}
	}
	to = make(chan numbered, eventsWaiting)
	h.listeners[to] = job
	return to, missed, now, reset, true
}

func (h *hub) leave(to chan numbered) {
	h.Lock()
	defer h.Unlock()
	delete(h.listeners, to)
}

func (h *hub) count() int {
	h.Lock()
	defer h.Unlock()
	return len(h.listeners)
}

func (h *hub) id(n uint64) string { return fmt.Sprintf("%s-%d", h.epoch, n) }

// liveEvents streams what happens to one job, or to all of them.
func (s *Server) liveEvents(c fiber.Ctx) error {
	job := strings.Clone(c.Query("job"))
	to, missed, now, reset, ok := s.live.listen(job, strings.Clone(c.Get("Last-Event-ID", c.Query("since"))))
	if !ok {
		return errBusy
	}
	return s.stream(c, "text/event-stream", listenFor, func(ctx context.Context, out pipe) error {
		defer s.live.leave(to)
		send := func(id string, e Event) error {
			raw, err := json.Marshal(e)
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(out, "id: %s\ndata: %s\n\n", id, raw)
			return err
		}
		if _, err := fmt.Fprintf(out, "retry: 2000\nid: %s\n: listening\n\n", now); err != nil {
			return errHungUp
		}
		if reset {
			missed = []Event{{Kind: EventReset}}
		}
		for _, e := range missed {
			if send(now, e) != nil {
				return errHungUp
			}
		}
		beat := time.NewTicker(heartbeat)
		defer beat.Stop()
		for {
			if out.Flush() != nil {
				return errHungUp
			}
			select {
			case <-ctx.Done():
				return context.Cause(ctx)
			case <-s.listening.Done():
				return errStopping
			case <-beat.C:
				if _, err := out.WriteString(": here\n\n"); err != nil {
					return errHungUp
				}
			case one, ok := <-to:
				if !ok {
					return nil // it was too slow; it comes back and hears what it missed
				}
				if send(s.live.id(one.n), one.event) != nil {
					return errHungUp
				}
			}
		}
	}, nil)
}

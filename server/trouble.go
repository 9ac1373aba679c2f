package server

import (
	"context"
	"errors"
	"fmt"
	"net"
	"strconv"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/calls"
	"mallow/standin"
	"mallow/store"
)

// troubles say what is the matter with the database or its disk, what was
// kept, and what to do.
var troubles = map[store.Kind]Problem{
	store.Full: {Status: fiber.StatusInsufficientStorage, Title: "The disk is full",
		Detail: "What was saved before is kept and can be read and taken out; this was not saved."},
	store.ReadOnly: {Status: fiber.StatusServiceUnavailable, Title: "The jobs cannot be written",
		Detail: "The data folder or its disk is read-only. What was saved before is kept and can be read; this was not saved. Make it writable, then try again."},
	store.Busy: {Status: fiber.StatusServiceUnavailable, Title: "Another program holds the jobs",
		Detail: "Something else keeps the database locked, a copy or a database tool. What was saved before is kept; this was not. Close that program, then try again."},
	store.Damaged: {Status: fiber.StatusServiceUnavailable, Title: "Part of the database is damaged",
		Detail: "The disk or another program damaged it. Stop Mallow, keep a copy of the data folder, and restore the newest backup with mallow restore. Jobs that can still be read come out under Keeping, or with mallow doctor --rescue."},
	store.Gone: {Status: fiber.StatusServiceUnavailable, Title: "The database was taken away",
		Detail: "Its file was deleted, moved or replaced while Mallow had it open, so nothing more is saved. Put the file back, or stop Mallow and restore the newest backup with mallow restore."},
	store.Disk: {Status: fiber.StatusServiceUnavailable, Title: "The disk does not answer as it should",
		Detail: "Reading or writing failed. What was saved before was written to the disk; this was not. Look at the disk, its cable or its mount, then try again."},
}

// asking is what the log says of a request.
type asking struct{ id, method, path string }

func asked(c fiber.Ctx) asking { return asking{requestID(c), c.Method(), c.Route().Path} }

// problem is an error in the words of the trade. What is ours to mend is
// logged; what is the user's to mend says how.
func (s *Server) problem(at asking, err error) Problem {
	var stale *store.StaleError
	var wait standin.WaitError
	var known *fiber.Error
	var trouble store.Trouble
	if p, ok := calls.ProblemOf(err); ok {
		return Problem{Status: p.Status, Title: p.Title, Detail: p.Detail, Fields: p.Fields, Ways: p.Ways}
	}
	switch {
	case errors.As(err, &stale):
		current := s.state(stale.Head)
		p := Problem{Status: fiber.StatusConflict, Title: "The job was changed elsewhere",
			Detail: "It was saved in another window since this one loaded it. Nothing is lost: choose which to go on with.", Current: &current}
		var both clash
		if errors.As(err, &both) {
			p.Detail = "Another window changed the same fields. Nothing is lost: choose for each which value to keep."
			p.Clashes, p.Merged = both.clashes, both.merged
		}
		return p
	case errors.Is(err, store.ErrNotFound):
		return Problem{Status: fiber.StatusNotFound, Title: "No such job", Detail: "It is not in this list of jobs. It may be kept in another data folder."}
	case errors.Is(err, store.ErrNothingThen):
		return Problem{Status: fiber.StatusUnprocessableEntity, Title: "Nothing to go to", Detail: "There is no such earlier or later state of this job."}
	case errors.As(err, &wait):
		return Problem{Status: fiber.StatusUnprocessableEntity, Title: "Not marked yet", Detail: wait.Error()}
	case errors.Is(err, errTookTooLong):
		return Problem{Status: fiber.StatusServiceUnavailable, Title: "This took too long",
			Detail: fmt.Sprintf("Mallow stops planning after %g seconds, and files and sheets after %g. What was saved is kept. Split the job, or ask for one run's sheets at a time.", planBudget.Seconds(), exportBudget.Seconds())}
	case errors.Is(err, errBusy):
		return Problem{Status: fiber.StatusServiceUnavailable, Title: "Mallow is busy", Detail: "Many plans are being worked out at once. Try again in a second; what was saved is kept."}
	case errors.Is(err, errFilesBusy):
		return Problem{Status: fiber.StatusServiceUnavailable, Title: "Other files come first", Detail: fmt.Sprintf("Files are written one at a time, and the line is full. Try again in %g seconds; planning goes on meanwhile.", exportBudget.Seconds())}
	case errors.Is(err, errHungUp):
		return Problem{Status: statusHungUp, Title: "Nobody waits for this any more", Detail: "The connection was closed before the answer was ready."}
	case errors.Is(err, context.Canceled), errors.Is(err, errStopping):
		return Problem{Status: fiber.StatusServiceUnavailable, Title: "Mallow is stopping", Detail: "Try again when it is back."}
	case errors.As(err, &known):
		return Problem{Status: known.Code, Title: "That did not work", Detail: known.Message}
	case errors.As(err, &trouble):
		s.Log.Error("the database", "id", at.id, "trouble", string(trouble.Kind), "error", trouble.Err)
		if p, ok := troubles[trouble.Kind]; ok {
			if trouble.Kind == store.Damaged || trouble.Kind == store.Gone {
				p.Detail += s.newestBackup()
			}
			if trouble.Kind == store.Full {
				p.Detail += s.Store.RoomSays()
			}
			return p
		}
	}
	s.Log.Error("request failed", "id", at.id, "method", at.method, "path", at.path, "error", err)
	return Problem{Status: fiber.StatusInternalServerError, Title: "Something broke in Mallow",
		Detail: "Nothing that was saved is lost. Try again; if it stays, look at the log for request " + at.id + "."}
}

// statusHungUp is logged for requests whose client has gone; nobody reads it.
const statusHungUp = 499

// newestBackup names the newest backup, if there is one.
func (s *Server) newestBackup() string {
	list, err := s.Store.Backups()
	if err != nil || len(list) == 0 {
		return " There is no backup in the data folder."
	}
	return " The newest backup is " + strconv.Quote(list[0].Name) + "."
}

// What is taken of a request that is too large before it is refused, and how long.
const (
	mostDrained  = 64 << 20
	drainAtOnce  = 300 * time.Millisecond // nothing comes for so long: it is all there
	drainAllowed = 10 * time.Second
)

// drain takes what is left of a request that will be refused, so that whoever sends it
// without waiting reads the refusal, and not that the connection broke.
func drain(conn net.Conn, length int) {
	if conn == nil {
		return
	}
	buf, began := make([]byte, 64<<10), time.Now()
	for taken := 0; taken < mostDrained && time.Since(began) < drainAllowed; {
		if conn.SetReadDeadline(time.Now().Add(drainAtOnce)) != nil {
			return
		}
		n, err := conn.Read(buf)
		if taken += n; err != nil || length > 0 && taken >= length {
			return
		}
	}
}

// fail answers an error.
func (s *Server) fail(c fiber.Ctx, err error) error {
	if why := context.Cause(c.Context()); why != nil && (errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded)) {
		err = why // which says it better
	}
	if known := (*fiber.Error)(nil); errors.As(err, &known) && known.Code == fiber.StatusRequestEntityTooLarge {
		drain(c.RequestCtx().Conn(), c.Request().Header.ContentLength())
	}
	p := s.problem(asked(c), err)
	switch {
	case errors.Is(err, errBusy):
		c.Set(fiber.HeaderRetryAfter, "1")
	case errors.Is(err, errFilesBusy):
		c.Set(fiber.HeaderRetryAfter, "10")
	case p.Status == fiber.StatusServiceUnavailable:
		c.Set(fiber.HeaderRetryAfter, "2")
	}
	c.Status(p.Status)
	return c.JSON(p, "application/problem+json")
}

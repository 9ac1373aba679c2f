// Package server is the Fiber application: the API, its guards and the
// embedded front end.
package server

import (
	"context"
	"errors"
	"io/fs"
	"log/slog"
	"net"
	"strings"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/gofiber/fiber/v3/middleware/compress"
	"github.com/gofiber/fiber/v3/middleware/helmet"
	"github.com/gofiber/fiber/v3/middleware/recover"
	"github.com/gofiber/fiber/v3/middleware/static"

	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/reshape"
	"mallow/exchange"
	"mallow/standin"
	"mallow/store"
)

// Config is what the server needs.
type Config struct {
	Store   *store.Store
	Catalog materials.Catalog
	Level   standin.Level // the simulated level with its rod
	Web     fs.FS         // the built front end
	Hosts   []string      // names it answers to, besides loopback and the address it listens on
	Log     *slog.Logger
	Version string
}

// bodyLimit bounds a request: a job of 20,000 ground points is about 1 MB.
const bodyLimit = 4 << 20

// policy allows nothing from outside and no inline script. Bits UI places
// its floating parts through the style object, which style-src leaves alone.
const policy = "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:; " +
	"font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

type server struct {
	Config
	outlines outlineCache
	prints   prints
}

// New builds the application.
func New(c Config) *fiber.App {
	s := &server{Config: c}
	app := fiber.New(fiber.Config{
		AppName:      "Mallow",
		BodyLimit:    bodyLimit,
		Immutable:    true,
		ReadTimeout:  15 * time.Second,
		IdleTimeout:  60 * time.Second,
		ErrorHandler: s.fail,
	})
	app.Use(s.logged, recover.New(), s.hostChecked, s.sameOrigin)
	app.Use(helmet.New(helmet.Config{
		ContentSecurityPolicy: policy, XFrameOptions: "DENY",
		PermissionPolicy: "camera=(), geolocation=(), microphone=()",
	}))
	app.Get("/healthz", s.health)
	s.routes(app.Group("/api", noStore))
	app.Use("/api", func(fiber.Ctx) error {
		return fiber.NewError(fiber.StatusNotFound, "There is nothing at this address of the API.")
	})
	s.frontEnd(app)
	return app
}

func (s *server) routes(api fiber.Router) {
	api.Get("/version", func(c fiber.Ctx) error { return c.JSON(fiber.Map{"version": s.Version}) })
	api.Get("/catalogue", s.catalogue)
	api.Get("/tape", s.tape)
	api.Post("/plan", s.plan)
	api.Post("/reshape", s.reshape)
	api.Post("/alternatives", s.alternatives)
	api.Post("/looks", s.looks)
	api.Post("/square", s.square)
	api.Post("/pegs", s.pegs)
	api.Post("/rod/walk", s.walk)
	api.Post("/rod/pegs", s.walkPegs)
	api.Post("/office/ask", s.askOffice)
	api.Post("/office/marks", s.officeMarks)
	api.Post("/import", s.importFile)
	api.Get("/jobs", s.list)
	api.Post("/jobs", s.create)
	api.Get("/jobs/:id", s.get)
	api.Get("/jobs/:id/head", s.head)
	api.Put("/jobs/:id", s.save)
	api.Delete("/jobs/:id", s.delete)
	api.Post("/jobs/:id/undelete", s.undelete)
	api.Post("/jobs/:id/undo", s.undo)
	api.Post("/jobs/:id/redo", s.redo)
	api.Post("/jobs/:id/restore", s.restore)
	api.Get("/jobs/:id/history", s.history)
	api.Get("/jobs/:id/export", s.exportFile)
	api.Get("/jobs/:id/pages", s.pages)
	api.Get("/jobs/:id/page.svg", s.pageSVG)
	api.Post("/jobs/:id/print", s.print)
	api.Get("/prints/:token", s.fetchPrint)
}

func noStore(c fiber.Ctx) error {
	c.Set(fiber.HeaderCacheControl, "no-store")
	return c.Next()
}

// frontEnd serves the built interface; every other address is the interface's
// own and gets its page.
func (s *server) frontEnd(app *fiber.App) {
	if _, err := fs.Stat(s.Web, "index.html"); err != nil {
		app.Use(func(c fiber.Ctx) error {
			return c.Status(fiber.StatusServiceUnavailable).SendString("The interface was not built into this binary. Run: make build\n")
		})
		return
	}
	app.Use(compress.New())
	app.Use(static.New("", static.Config{
		FS: s.Web,
		// Embedded files have no date, so an upgrade could look unchanged.
		ModifyResponse: func(c fiber.Ctx) error {
			c.Response().Header.Del(fiber.HeaderLastModified)
			if strings.HasPrefix(c.Path(), "/assets/") {
				c.Set(fiber.HeaderCacheControl, "public, max-age=31536000, immutable")
			} else {
				c.Set(fiber.HeaderCacheControl, "no-cache")
			}
			return nil
		},
		NotFoundHandler: func(fiber.Ctx) error {
			return fiber.NewError(fiber.StatusNotFound, "There is nothing at this address.")
		},
	}))
}

func (s *server) health(c fiber.Ctx) error {
	if err := s.Store.Ping(c.Context()); err != nil {
		return err
	}
	return c.SendString("ok\n")
}

// hostChecked refuses names that this server does not go by, so that a page
// elsewhere cannot reach it by pointing its own name at loopback.
func (s *server) hostChecked(c fiber.Ctx) error {
	name := c.Host()
	if h, _, err := net.SplitHostPort(name); err == nil {
		name = h
	}
	name = strings.ToLower(strings.Trim(name, "[]"))
	if ip := net.ParseIP(name); name == "localhost" || ip != nil && ip.IsLoopback() {
		return c.Next()
	}
	for _, h := range s.Hosts {
		if strings.EqualFold(h, name) {
			return c.Next()
		}
	}
	return fiber.NewError(fiber.StatusMisdirectedRequest,
		"Mallow does not answer to the name "+name+". Start it with --host "+name+" if it should.")
}

// sameOrigin refuses changes that another site's page asks for.
func (s *server) sameOrigin(c fiber.Ctx) error {
	switch c.Method() {
	case fiber.MethodGet, fiber.MethodHead, fiber.MethodOptions:
		return c.Next()
	}
	if site := c.Get("Sec-Fetch-Site"); site != "" && site != "same-origin" && site != "none" {
		return fiber.NewError(fiber.StatusForbidden, "A page of another site asked for this change.")
	}
	if origin := c.Get(fiber.HeaderOrigin); origin != "" && !strings.HasSuffix(origin, "://"+c.Host()) {
		return fiber.NewError(fiber.StatusForbidden, "A page of another site asked for this change.")
	}
	return c.Next()
}

func (s *server) logged(c fiber.Ctx) error {
	start := time.Now()
	err := c.Next()
	if err != nil { // answer now, so that the log has the status
		if err = s.fail(c, err); err != nil {
			return err
		}
	}
	level := slog.LevelDebug
	if c.Response().StatusCode() >= fiber.StatusInternalServerError {
		level = slog.LevelError
	} else if c.Method() != fiber.MethodGet && !strings.HasSuffix(c.Path(), "/plan") {
		level = slog.LevelInfo
	}
	bytes := -1 // of a stream, which to measure would be to wait for
	if !c.Response().IsBodyStream() {
		bytes = len(c.Response().Body())
	}
	s.Log.Log(c.Context(), level, "request", "method", c.Method(), "path", c.Path(),
		"status", c.Response().StatusCode(), "took", time.Since(start), "bytes", bytes)
	return nil
}

// fail answers an error in the words of the trade. What is ours to mend is
// logged; what is the user's to mend says how.
func (s *server) fail(c fiber.Ctx, err error) error {
	p := Problem{Status: fiber.StatusInternalServerError, Title: "Something broke in Mallow",
		Detail: "Nothing that was saved is lost. Try again; if it stays, look at the log."}
	var fields job.Errors
	var stale *store.StaleError
	var refused reshape.Refused
	var file exchange.FileError
	var wait standin.WaitError
	var known *fiber.Error
	switch {
	case errors.As(err, &fields):
		p = Problem{Status: fiber.StatusUnprocessableEntity, Title: "Some of what was entered cannot be used", Detail: fields.Error(), Fields: fields}
		var out waysOut
		if errors.As(err, &out) {
			p.Ways = out.ways
		}
	case errors.As(err, &stale):
		current := s.state(stale.Head)
		p = Problem{Status: fiber.StatusConflict, Title: "The job was changed elsewhere",
			Detail: "It was saved in another window since this one loaded it. Nothing is lost: choose which to go on with.", Current: &current}
		var both clash
		if errors.As(err, &both) {
			p.Detail = "Another window changed the same fields. Nothing is lost: choose for each which value to keep."
			p.Clashes, p.Merged = both.clashes, both.merged
		}
	case errors.Is(err, store.ErrNotFound):
		p = Problem{Status: fiber.StatusNotFound, Title: "No such job", Detail: "It is not in this list of jobs. It may be kept in another data folder."}
	case errors.Is(err, store.ErrNothingThen):
		p = Problem{Status: fiber.StatusUnprocessableEntity, Title: "Nothing to go to", Detail: "There is no such earlier or later state of this job."}
	case errors.As(err, &refused):
		p = Problem{Status: fiber.StatusUnprocessableEntity, Title: "That cannot be done to the line", Detail: refused.Why}
	case errors.As(err, &file):
		p = Problem{Status: fiber.StatusUnprocessableEntity, Title: "The file cannot be used", Detail: file.Why}
	case errors.As(err, &wait):
		p = Problem{Status: fiber.StatusUnprocessableEntity, Title: "Not marked yet", Detail: wait.Error()}
	case errors.As(err, &known):
		p = Problem{Status: known.Code, Title: "That did not work", Detail: known.Message}
	case errors.Is(err, context.Canceled):
		p = Problem{Status: fiber.StatusServiceUnavailable, Title: "Mallow is stopping", Detail: "Try again when it is back."}
	default:
		s.Log.Error("request failed", "method", c.Method(), "path", c.Path(), "error", err)
	}
	c.Status(p.Status)
	return c.JSON(p, "application/problem+json")
}

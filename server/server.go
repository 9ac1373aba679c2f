// Package server is the Fiber application: the API, its guards and the
// embedded front end.
package server

import (
	"context"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"path"
	"runtime"
	"runtime/debug"
	"strings"
	"sync"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/gofiber/fiber/v3/middleware/compress"
	"github.com/gofiber/fiber/v3/middleware/helmet"
	"github.com/gofiber/fiber/v3/middleware/recover"
	"github.com/gofiber/fiber/v3/middleware/requestid"
	"github.com/gofiber/fiber/v3/middleware/static"

	"mallow/core/calls"
	"mallow/core/materials"
	"mallow/exchange"
	"mallow/help"
	"mallow/standin"
	"mallow/store"
)

// Config is what the server needs.
type Config struct {
	Store    *store.Store
	Catalog  materials.Catalog
	Level    standin.Level // the simulated level with its rod
	Web      fs.FS         // the built front end
	Examples [][]byte      // job documents that are there to try
	Hosts    []string      // names it answers to, besides loopback and the address it listens on
	Log      *slog.Logger
	Version  string

	Planners  int  // how many plan at once; 0: as many as there are processors
	Metrics   bool // count requests and plans
	Replica   *Replica
	Throwaway bool // a demo: what is changed is gone when it stops
}

// Replica is the second copy of the jobs.
type Replica struct {
	At   string // where it is, to be shown
	Look func() ReplicaState
}

// bodyLimit bounds a request: a job of 20,000 ground points is about 1 MB.
const bodyLimit = 4 << 20

const (
	headerLimit     = 8 << 10
	mostConnections = 4096
)

// policy allows nothing from outside and no inline script. Bits UI places
// its floating parts through the style object, which style-src leaves alone.
const policy = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'; img-src 'self' data:; " +
	"font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// Server is the application, and what goes on beside its requests.
type Server struct {
	App *fiber.App
	Config
	prints      prints
	core        calls.Core
	fences      fences
	heads       heads
	gate        *gate // for planning
	files       *gate // for writing files
	boardGate   *gate // for the board
	pictures    *gate // for reading photographs
	board       boards
	taught      taught
	live        *hub
	metrics     *metrics
	undescribed chan struct{}

	running context.Context // until Close
	stop    context.CancelCauseFunc

	listening    context.Context // until EndStreams
	endListening context.CancelCauseFunc
	beside       sync.WaitGroup
}

// New builds the application and begins what goes on beside it. Close ends it.
func New(c Config) *Server {
	s := &Server{Config: c, core: calls.Core{Catalog: c.Catalog, More: exchange.Calls()}, live: newHub(), undescribed: make(chan struct{}, 1)}
	planners := c.Planners
	if planners <= 0 {
		planners = runtime.NumCPU()
	}
	s.gate = newGate(planners, mostWaiting, mostWait, errBusy)
	s.files = newGate(1, filesWaiting, filesWait, errFilesBusy)
	s.pictures = newGate(1, mostWaiting, mostWait, errBusy)
	s.boardGate = newGate(1, boardWaiting, boardWait, errBusy)
	s.running, s.stop = context.WithCancelCause(context.Background())
	s.listening, s.endListening = context.WithCancelCause(s.running)
	if c.Metrics {
		s.metrics = newMetrics(s)
	}
	s.App = s.app()
	s.guarded(s.describe)
	return s
}

// EndStreams ends those streams that would go on for ever: a server that stops
// waits for its requests.
func (s *Server) EndStreams() { s.endListening(errStopping) }

// Close ends whatever still goes on.
func (s *Server) Close() {
	s.stop(errStopping)
	s.beside.Wait()
}

func (s *Server) app() *fiber.App {
	app := fiber.New(fiber.Config{
		AppName:        "Mallow",
		BodyLimit:      bodyLimit,
		Immutable:      true,
		ReadTimeout:    30 * time.Second,
		WriteTimeout:   writeTimeout,
		IdleTimeout:    60 * time.Second,
		ReadBufferSize: headerLimit,
		Concurrency:    mostConnections,
		ErrorHandler:   s.fail,
	})
	app.Use(requestid.New(), s.logged, recover.New(recover.Config{EnableStackTrace: true, StackTraceHandler: s.panicked}),
		s.hostChecked, s.sameOrigin, plainBody)
	app.Use("/api", s.bounded)
	app.Use(helmet.New(helmet.Config{
		ContentSecurityPolicy: policy, XFrameOptions: "DENY",
		PermissionPolicy: "camera=(), geolocation=(), microphone=()",
	}))
	s.routes(app)
	app.Use("/api", func(fiber.Ctx) error {
		return fiber.NewError(fiber.StatusNotFound, "There is nothing at this address of the API.")
	})
	s.frontEnd(app)
	return app
}

// route is one address of the API and what answers there.
type route struct {
	method, path string
	handler      fiber.Handler
}

func (s *Server) routes(app *fiber.App) {
	app.Use("/api", noStore)
	allowed := map[string][]string{}
	for _, r := range []route{
		{fiber.MethodGet, "/healthz", s.health},
		{fiber.MethodGet, "/readyz", s.ready},
		{fiber.MethodGet, "/api/version", func(c fiber.Ctx) error { return c.JSON(fiber.Map{"version": s.Version}) }},
		{fiber.MethodGet, "/api/catalogue", s.catalogue},
		{fiber.MethodGet, "/api/tape", s.tape},
		{fiber.MethodPost, "/api/plan", s.call("plan")},
		{fiber.MethodPost, "/api/tell", s.call("tell")},
		{fiber.MethodPost, "/api/bill", s.call("bill")},
		{fiber.MethodPost, "/api/build", s.call("build")},
		{fiber.MethodPost, "/api/pour", s.call("pour")},
		{fiber.MethodPost, "/api/days", s.call("days")},
		{fiber.MethodPost, "/api/record", s.call("record")},
		{fiber.MethodPost, "/api/forecast", s.call("forecast")},
		{fiber.MethodPost, "/api/amend", s.call("amend")},
		{fiber.MethodPost, "/api/table", s.call("table")},
		{fiber.MethodPost, "/api/draw", s.call("draw")},
		{fiber.MethodPost, "/api/explain", s.call("explain")},
		{fiber.MethodPost, "/api/advise", s.advise},
		{fiber.MethodPost, "/api/ways", s.call("ways")},
		{fiber.MethodPost, "/api/reshape", s.call("reshape")},
		{fiber.MethodPost, "/api/alternatives", s.call("alternatives")},
		{fiber.MethodPost, "/api/compare", s.call("compare")},
		{fiber.MethodPost, "/api/looks", s.call("looks")},
		{fiber.MethodPost, "/api/square", s.call("square")},
		{fiber.MethodPost, "/api/pegs", s.call("pegs")},
		{fiber.MethodPost, "/api/rod/walk", s.walk},
		{fiber.MethodPost, "/api/rod/pegs", s.walkPegs},
		{fiber.MethodPost, "/api/weather", s.call("weather")},
		{fiber.MethodPost, "/api/weather/ask", s.askWeather},
		{fiber.MethodPost, "/api/office/ask", s.askOffice},
		{fiber.MethodPost, "/api/office/marks", s.officeMarks},
		{fiber.MethodPost, "/api/import", s.call("import")},
		{fiber.MethodPost, "/api/export", s.exportCall},
		{fiber.MethodGet, "/api/fences", s.fenceTypes},
		{fiber.MethodGet, "/api/examples", s.exampleJobs},
		{fiber.MethodGet, "/api/help", func(c fiber.Ctx) error { return c.JSON(Help{help.Stages(), help.Terms()}) }},
		{fiber.MethodGet, "/api/places/:code", s.place},
		{fiber.MethodGet, "/s/:code", s.openPlace},
		{fiber.MethodGet, "/api/jobs", s.list},
		{fiber.MethodPost, "/api/jobs", s.create},
		{fiber.MethodGet, "/api/jobs/:id", s.get},
		{fiber.MethodGet, "/api/jobs/:id/head", s.head},
		{fiber.MethodPut, "/api/jobs/:id", s.save},
		{fiber.MethodPatch, "/api/jobs/:id", s.edit},
		{fiber.MethodDelete, "/api/jobs/:id", s.delete},
		{fiber.MethodPost, "/api/jobs/:id/undelete", s.undelete},
		{fiber.MethodPost, "/api/jobs/:id/undo", s.undo},
		{fiber.MethodPost, "/api/jobs/:id/redo", s.redo},
		{fiber.MethodPost, "/api/jobs/:id/restore", s.restore},
		{fiber.MethodGet, "/api/jobs/:id/history", s.history},
		{fiber.MethodGet, "/api/jobs/:id/revisions/:revision/edits", s.edits},
		{fiber.MethodGet, "/api/jobs/:id/photos", s.photos},
		{fiber.MethodPost, "/api/jobs/:id/photos", s.addPhoto},
		{fiber.MethodGet, "/api/jobs/:id/photos/:photo", s.photo},
		{fiber.MethodDelete, "/api/jobs/:id/photos/:photo", s.deletePhoto},
		{fiber.MethodGet, "/api/jobs/:id/photos.zip", s.photosZip},
		{fiber.MethodGet, "/api/usual", s.usual},
		{fiber.MethodPost, "/api/device", s.device},
		{fiber.MethodGet, "/api/jobs/:id/export", s.exportFile},
		{fiber.MethodGet, "/api/jobs/:id/pages", s.pages},
		{fiber.MethodGet, "/api/jobs/:id/page.svg", s.pageSVG},
		{fiber.MethodPost, "/api/jobs/:id/print", s.print},
		{fiber.MethodGet, "/api/prints/:token", s.fetchPrint},
		{fiber.MethodPost, "/api/jobs/:id/pin", s.pin},
		{fiber.MethodGet, "/api/jobs.zip", s.allJobs},
		{fiber.MethodPost, "/api/board", s.boardOf},
		{fiber.MethodGet, "/api/board.ics", s.crewCalendar},
		{fiber.MethodGet, "/api/live", s.liveEvents},
		{fiber.MethodGet, "/api/keeping", s.keeping},
		{fiber.MethodPost, "/api/keeping/backups", s.backUp},
		{fiber.MethodPost, "/api/keeping/restore", s.restoreBackup},
		{fiber.MethodPut, "/api/keeping/tidying", s.setTidying},
	} {
		app.Add([]string{r.method}, r.path, r.handler)
		if r.method == fiber.MethodGet {
			app.Add([]string{fiber.MethodHead}, r.path, r.handler)
			allowed[r.path] = append(allowed[r.path], fiber.MethodHead)
		}
		allowed[r.path] = append(allowed[r.path], r.method)
	}
	for path, methods := range allowed {
		app.All(path, func(c fiber.Ctx) error {
			c.Set(fiber.HeaderAllow, strings.Join(methods, ", "))
			return fiber.NewError(fiber.StatusMethodNotAllowed, "This address takes "+strings.Join(methods, ", ")+", not "+c.Method()+".")
		})
	}
}

// requestBudget is how long what a request asks of the store may take, beside what has
// a budget of its own.
const requestBudget = time.Minute

// bounded gives a request a context that ends with it, with its time and with the
// server; one that only reads ends when nobody waits for it any more too. What changes
// something goes on: it may be the last that a window that was closed had to say.
func (s *Server) bounded(c fiber.Ctx) error {
	var conn net.Conn
	if c.Method() == fiber.MethodGet || c.Method() == fiber.MethodHead {
		conn = c.RequestCtx().Conn()
	}
	ctx, end := s.until(conn, requestBudget)
	defer end()
	c.SetContext(ctx)
	return c.Next()
}

func noStore(c fiber.Ctx) error {
	c.Set(fiber.HeaderCacheControl, "no-store")
	return c.Next()
}

// frontEnd serves the built interface; every other address is the interface's
// own and gets its page.
func (s *Server) frontEnd(app *fiber.App) {
	if _, err := fs.Stat(s.Web, "index.html"); err != nil {
		app.Use(func(c fiber.Ctx) error {
			return c.Status(fiber.StatusServiceUnavailable).SendString("The interface was not built into this binary. Run: make build\n")
		})
		return
	}
	app.Use(s.coreFile)
	app.Use(compress.New())
	app.Use(s.page)
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

// coreFile sends the core for browsers, which is kept packed only.
func (s *Server) coreFile(c fiber.Ctx) error {
	if c.Method() != fiber.MethodGet && c.Method() != fiber.MethodHead || path.Ext(c.Path()) != ".wasm" {
		return c.Next()
	}
	name := strings.TrimPrefix(path.Clean(c.Path()), "/")
	coding, ending := "br", ".br"
	if !strings.Contains(c.Get(fiber.HeaderAcceptEncoding), "br") { // a browser that is not on this machine takes it by https only
		coding, ending = "gzip", ".gz"
	}
	file, err := fs.ReadFile(s.Web, name+ending)
	if err != nil {
		return c.Next()
	}
	c.Set(fiber.HeaderContentEncoding, coding)
	c.Set(fiber.HeaderVary, fiber.HeaderAcceptEncoding)
	c.Set(fiber.HeaderContentType, "application/wasm")
	c.Set(fiber.HeaderCacheControl, "public, max-age=31536000, immutable")
	return c.Send(file)
}

// page answers an address of the interface with its page, which then shows what
// belongs there. One that leads nowhere gets it too, and is not found.
func (s *Server) page(c fiber.Ctx) error {
	if c.Method() != fiber.MethodGet && c.Method() != fiber.MethodHead || path.Ext(c.Path()) != "" {
		return c.Next()
	}
	index, err := fs.ReadFile(s.Web, "index.html")
	if err != nil {
		return err
	}
	c.Set(fiber.HeaderCacheControl, "no-cache")
	c.Set(fiber.HeaderContentType, fiber.MIMETextHTMLCharsetUTF8)
	if p := c.Path(); p != "/" && p != "/keeping" && p != "/board" && !strings.HasPrefix(p, "/jobs/") {
		c.Status(fiber.StatusNotFound)
	}
	return c.Send(index)
}

func (s *Server) health(c fiber.Ctx) error {
	if err := s.Store.Ping(c.Context()); err != nil {
		return err
	}
	return c.SendString("ok\n")
}

// ready tells whether all is as it should be, the second copy too: what is not is said
// line by line. Who only wants to know whether to send requests here asks for health.
func (s *Server) ready(c fiber.Ctx) error {
	var wrong []string
	if err := s.Store.Ping(c.Context()); err != nil {
		p := s.problem(asked(c), err)
		wrong = append(wrong, p.Title+". "+p.Detail)
	}
	if s.Replica != nil {
		if now := s.Replica.Look(); now.Wrong != "" {
			wrong = append(wrong, "The second copy at "+s.Replica.At+" takes nothing: "+now.Wrong+".")
		}
	}
	if len(wrong) > 0 {
		return c.Status(fiber.StatusServiceUnavailable).SendString(strings.Join(wrong, "\n") + "\n")
	}
	return c.SendString("ready\n")
}

// hostChecked refuses names that this server does not go by, so that a page
// elsewhere cannot reach it by pointing its own name at this machine. Only who
// is on this machine may call it localhost.
func (s *Server) hostChecked(c fiber.Ctx) error {
	name := c.Host()
	if h, _, err := net.SplitHostPort(name); err == nil {
		name = h
	}
	name = strings.ToLower(strings.Trim(name, "[]"))
	if ip := net.ParseIP(name); (name == "localhost" || ip != nil && ip.IsLoopback()) && nearby(c) {
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

// nearby tells whether a request comes from this machine. A connection without
// an address, as tests make, does not come over a network.
func nearby(c fiber.Ctx) bool {
	ip := c.RequestCtx().RemoteIP()
	return ip.IsLoopback() || ip.IsUnspecified()
}

// plainBody refuses packed bodies: a few bytes can unfold to gigabytes, and no
// window of Mallow's sends any.
func plainBody(c fiber.Ctx) error {
	if e := c.Get(fiber.HeaderContentEncoding); e != "" && !strings.EqualFold(e, "identity") {
		c.Set(fiber.HeaderAcceptEncoding, "identity")
		return fiber.NewError(fiber.StatusUnsupportedMediaType, "Send the body as it is, not packed: Content-Encoding is not taken.")
	}
	return c.Next()
}

// sameOrigin refuses changes that another site's page asks for.
func (s *Server) sameOrigin(c fiber.Ctx) error {
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

// logged notes what was answered: addresses with the ids of jobs, never their
// names or what is in them.
func (s *Server) logged(c fiber.Ctx) error {
	start := time.Now()
	err := c.Next()
	if err != nil { // answer now, so that the log has the status
		if err = s.fail(c, err); err != nil {
			return err
		}
	}
	status := c.Response().StatusCode()
	level := slog.LevelDebug
	if status >= fiber.StatusInternalServerError {
		level = slog.LevelError
	} else if c.Method() != fiber.MethodGet && !strings.HasSuffix(c.Path(), "/plan") {
		level = slog.LevelInfo
	}
	bytes := -1 // of a stream, which to measure would be to wait for
	if !c.Response().IsBodyStream() {
		bytes = len(c.Response().Body())
	}
	took := time.Since(start)
	s.metrics.answered(c.Method(), c.Route().Path, status, took)
	s.Log.Log(c.Context(), level, "request", "id", requestID(c), "method", c.Method(), "path", c.Path(),
		"status", status, "took", took, "bytes", bytes)
	return nil
}

func requestID(c fiber.Ctx) string { return requestid.FromContext(c) }

func (s *Server) panicked(c fiber.Ctx, r any) {
	s.metrics.panicked()
	s.Log.Error("panic", "id", requestID(c), "in", c.Route().Path, "panic", fmt.Sprint(r), "stack", string(debug.Stack()))
}

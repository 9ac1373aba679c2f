package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"runtime"
	"sync"
	"time"

	"github.com/adrg/xdg"
	"github.com/gofiber/fiber/v3"
	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/demo"
	"mallow/replica"
	"mallow/server"
	"mallow/standin"
	"mallow/store"
	"mallow/web"
)

// usualAddress is on loopback: nobody else reaches it unless asked to.
const usualAddress = "127.0.0.1:8420"

// dataVariable names the environment variable for the data folder.
const dataVariable = "MALLOW_DATA"

// stopFor is how long requests in flight may take to end.
const stopFor = 5 * time.Second

type serving struct {
	listen    string
	hosts     []string
	verbose   bool
	metrics   string
	replicate string
	demo      bool
}

func (s *serving) flags(c *cobra.Command) {
	c.Flags().StringVar(&s.listen, "listen", usualAddress, "address to listen on; port 0 takes a free one")
	c.Flags().StringSliceVar(&s.hosts, "host", nil, "further host name to answer to, when not on loopback")
	c.Flags().BoolVar(&s.verbose, "verbose", false, "log every request")
	c.Flags().StringVar(&s.metrics, "metrics", "", "loopback address to serve metrics on, such as 127.0.0.1:9420")
}

func serveCommand() *cobra.Command {
	var s serving
	var data string
	c := &cobra.Command{
		Use: "serve", Short: "Serve the application with your own jobs", Args: args(cobra.NoArgs),
		Long: "Serve the application with your own jobs.\n\nJobs are kept in one file, mallow.db, in the data folder: the one named by --data,\nor else by the environment variable " + dataVariable + ", or else where this platform keeps\napplication data. One server uses a folder at a time.",
		RunE: func(c *cobra.Command, _ []string) error {
			dir, err := dataDir(data)
			if err != nil {
				return err
			}
			return s.serve(c.Context(), dir, nil, c.OutOrStdout())
		},
	}
	s.flags(c)
	dataFlag(c, &data)
	c.Flags().StringVar(&s.replicate, "replicate", "", "keep a second copy, at most a second behind, in a folder on another disk or at sftp://user@host/folder")
	return c
}

func dataFlag(c *cobra.Command, data *string) {
	c.Flags().StringVar(data, "data", "", "data folder (environment variable "+dataVariable+")")
}

// demoPrefix begins the names of throwaway data folders.
const demoPrefix = "mallow-demo-"

func demoCommand() *cobra.Command {
	s := serving{demo: true}
	c := &cobra.Command{
		Use: "demo", Short: "Serve a throwaway copy of the demo jobs", Args: args(cobra.NoArgs),
		Long: "Serve a throwaway copy of the demo jobs on loopback and print its address.\nWhat is changed is gone when it stops; your own jobs are not touched.",
		RunE: func(c *cobra.Command, _ []string) (err error) {
			sweep(os.TempDir())
			dir, err := os.MkdirTemp("", demoPrefix)
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
			docs, err := demo.Jobs()
			if err != nil {
				return err
			}
			return s.serve(c.Context(), dir, docs, c.OutOrStdout())
		},
	}
	s.flags(c)
	return c
}

// sweep takes away the folders of demos that were killed. What cannot be taken
// away is another user's, or in use.
func sweep(temp string) {
	list, err := filepath.Glob(filepath.Join(temp, demoPrefix+"*"))
	if err != nil {
		return
	}
	for _, dir := range list {
		info, err := os.Stat(dir)
		if err != nil || !info.IsDir() || time.Since(info.ModTime()) < time.Minute {
			continue // it may just be starting
		}
		if lock, err := store.Hold(dir, store.Holder{PID: os.Getpid()}); err == nil {
			_ = errors.Join(lock.Release(), os.RemoveAll(dir))
		}
	}
}

// folderOf is the data folder: the flag's, the environment's, or the platform's.
func folderOf(flag string) string {
	switch {
	case flag != "":
		return flag
	case os.Getenv(dataVariable) != "":
		return os.Getenv(dataVariable)
	}
	return filepath.Join(xdg.DataHome, "mallow")
}

// dataDir is the data folder, made if it is not there.
func dataDir(flag string) (string, error) {
	dir := folderOf(flag)
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return "", usageError{fmt.Errorf("the data folder cannot be used: %w", err)}
	}
	return dir, nil
}

func (s *serving) serve(ctx context.Context, dir string, docs [][]byte, out io.Writer) (err error) {
	ownersAlone()
	cat, err := catalog.Load()
	if err != nil {
		return err
	}
	lock, err := store.Hold(dir, store.Holder{PID: os.Getpid(), Since: time.Now()})
	if err != nil {
		return usageError{err}
	}
	defer func() { err = errors.Join(err, lock.Release()) }()
	listener, err := s.open()
	if err != nil {
		return err
	}
	defer listener.Close() // closed by the server in most cases
	if err := lock.Say(store.Holder{PID: os.Getpid(), Address: url(listener.Addr()), Since: time.Now()}); err != nil {
		return err
	}
	kept, err := store.Open(ctx, filepath.Join(dir, store.FileName))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, kept.Close()) }()
	if err := fill(ctx, kept, cat, docs); err != nil {
		return err
	}
	log := s.log()
	var second *server.Replica
	if s.replicate != "" {
		copied, err := replica.Start(context.WithoutCancel(ctx), kept.Path(), s.replicate, log)
		if err != nil {
			return usageError{err}
		}
		second = secondCopy(copied, s.replicate)
		defer func() {
			if err := copied.Stop(); err != nil {
				log.Error("the last of the replica", "error", err)
			}
		}()
	}
	planners := shareProcessors()
	examples, err := demo.Jobs()
	if err != nil {
		return err
	}
	app := server.New(server.Config{
		Examples: examples,
		Planners: planners,
		Level:    standin.Usual,
		Store:    kept, Catalog: cat, Web: web.Files(), Hosts: s.names(), Version: version, Log: log,
		Metrics: s.metrics != "", Replica: second, Throwaway: s.demo,
	})
	defer app.Close()
	counted, err := s.serveMetrics(app)
	if err != nil {
		return err
	}
	defer counted()
	defer s.keep(ctx, kept, log)()
	fmt.Fprintf(out, "Mallow is at %s (stop with Ctrl-C)\n", url(listener.Addr()))
	return attend(ctx, app, listener)
}

// secondCopy is what the server shows of a replica.
func secondCopy(r *replica.Replica, target string) *server.Replica {
	moment := func(t time.Time) *time.Time {
		if t.IsZero() {
			return nil
		}
		return &t
	}
	at := replica.Shown(target)
	return &server.Replica{At: at, Look: func() server.ReplicaState {
		now := r.Status()
		return server.ReplicaState{At: at, Wrong: now.Wrong, Since: moment(now.Since), Held: moment(now.Held), Behind: now.Behind}
	}}
}

// shareProcessors has the system share the processors between planning and all
// else: as many plan at once as there are processors, and what is short finds
// a thread of its own beside them. It returns how many may plan at once.
func shareProcessors() int {
	processors := runtime.GOMAXPROCS(0)
	if os.Getenv("GOMAXPROCS") == "" {
		runtime.GOMAXPROCS(processors + 2)
	}
	return processors
}

// attend serves until the context ends, then lets requests in flight end.
func attend(ctx context.Context, app *server.Server, listener net.Listener) error {
	ended := make(chan error, 1)
	go func() {
		ended <- app.App.Listener(listener, fiber.ListenConfig{DisableStartupMessage: true})
	}()
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	// Closed here too: a signal may come before the server knows its listener,
	// and nothing would end it then.
	closed := listener.Close()
	app.EndStreams()
	if err := app.App.ShutdownWithTimeout(stopFor); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	select {
	case err := <-ended:
		if errors.Is(err, net.ErrClosed) {
			err = nil
		}
		return err
	case <-time.After(stopFor):
		return closed
	}
}

// closing is a listener that can be closed more than once.
type closing struct {
	net.Listener
	once sync.Once
	err  error
}

func (c *closing) Close() error {
	c.once.Do(func() { c.err = c.Listener.Close() })
	return c.err
}

// fill puts demo jobs into an empty store. The first is to stand first in the
// list: it is saved last.
func fill(ctx context.Context, kept *store.Store, usual document.Usual, docs [][]byte) error {
	for i := len(docs) - 1; i >= 0; i-- {
		o, err := document.Open(docs[i], usual)
		if err != nil {
			return err
		}
		if _, err := kept.Create(ctx, store.Draft{Doc: o.Doc, What: "Demo job", Name: o.Job.Name}); err != nil {
			return err
		}
	}
	return nil
}

func (s *serving) log() *slog.Logger {
	level := slog.LevelInfo
	if s.verbose {
		level = slog.LevelDebug
	}
	return slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
}

// keep does what nobody waits for, beside the serving; a demo is not kept.
// What it returns waits for the end of it.
func (s *serving) keep(ctx context.Context, kept *store.Store, log *slog.Logger) func() {
	if s.demo {
		return func() {}
	}
	ctx, stop := context.WithCancel(ctx)
	var beside sync.WaitGroup
	beside.Go(func() {
		defer func() {
			if r := recover(); r != nil {
				log.Error("panic", "in", "keeping", "panic", fmt.Sprint(r))
			}
		}()
		kept.Keeping(ctx, log)
	})
	return func() { stop(); beside.Wait() }
}

// serveMetrics serves what is counted on a listener that only this machine
// reaches. What it returns ends it.
func (s *serving) serveMetrics(app *server.Server) (func(), error) {
	if s.metrics == "" {
		return func() {}, nil
	}
	host, _, err := net.SplitHostPort(s.metrics)
	if ip := net.ParseIP(host); err != nil || host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, usageError{fmt.Errorf("--metrics %s: an address on loopback, such as 127.0.0.1:9420", s.metrics)}
	}
	l, err := net.Listen("tcp", s.metrics)
	if err != nil {
		return nil, usageError{fmt.Errorf("cannot listen on %s: %w", s.metrics, err)}
	}
	mux := http.NewServeMux()
	mux.Handle("GET /metrics", app.Metrics())
	srv := &http.Server{Handler: mux, ReadTimeout: 5 * time.Second, WriteTimeout: 10 * time.Second}
	go func() { _ = srv.Serve(l) }() // ends with Close
	return func() { _ = srv.Close() }, nil
}

// names are the hosts to answer to: those asked for and the one listened on.
func (s *serving) names() []string {
	host, _, err := net.SplitHostPort(s.listen)
	if err != nil || host == "" {
		return s.hosts
	}
	return append(s.hosts, host)
}

// url is an address that can be opened: one that listens everywhere is reached
// by loopback.
func url(addr net.Addr) string {
	host, port, err := net.SplitHostPort(addr.String())
	if err != nil {
		return "http://" + addr.String() + "/"
	}
	if ip := net.ParseIP(host); ip != nil && ip.IsUnspecified() {
		if host = "127.0.0.1"; ip.To4() == nil {
			host = "localhost"
		}
	}
	return "http://" + net.JoinHostPort(host, port) + "/"
}

// open listens where it was asked to. When the usual address is taken, which
// is no mistake of the user's, any free port will do.
func (s *serving) open() (net.Listener, error) {
	l, err := net.Listen("tcp", s.listen)
	if err != nil && s.listen == usualAddress {
		l, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return nil, usageError{fmt.Errorf("cannot listen on %s: %w", s.listen, err)}
	}
	return &closing{Listener: l}, nil
}

package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"time"

	"github.com/adrg/xdg"
	"github.com/gofiber/fiber/v3"
	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/demo"
	"mallow/server"
	"mallow/standin"
	"mallow/store"
	"mallow/web"
)

// usualAddress is on loopback: nobody else reaches it unless asked to.
const usualAddress = "127.0.0.1:8420"

// dataVariable names the environment variable for the data folder.
const dataVariable = "MALLOW_DATA"

type serving struct {
	listen  string
	hosts   []string
	verbose bool
}

func (s *serving) flags(c *cobra.Command) {
	c.Flags().StringVar(&s.listen, "listen", usualAddress, "address to listen on; port 0 takes a free one")
	c.Flags().StringSliceVar(&s.hosts, "host", nil, "further host name to answer to, when not on loopback")
	c.Flags().BoolVar(&s.verbose, "verbose", false, "log every request")
}

func serveCommand() *cobra.Command {
	var s serving
	var data string
	c := &cobra.Command{
		Use: "serve", Short: "Serve the application with your own jobs", Args: args(cobra.NoArgs),
		Long: "Serve the application with your own jobs.\n\nJobs are kept in one file, mallow.db, in the data folder: the one named by --data,\nor else by the environment variable " + dataVariable + ", or else where this platform keeps\napplication data.",
		RunE: func(c *cobra.Command, _ []string) error {
			dir, err := dataDir(data)
			if err != nil {
				return err
			}
			return s.serve(c.Context(), filepath.Join(dir, "mallow.db"), nil, c.OutOrStdout())
		},
	}
	s.flags(c)
	c.Flags().StringVar(&data, "data", "", "data folder (environment variable "+dataVariable+")")
	return c
}

func demoCommand() *cobra.Command {
	var s serving
	c := &cobra.Command{
		Use: "demo", Short: "Serve a throwaway copy of the demo jobs", Args: args(cobra.NoArgs),
		Long: "Serve a throwaway copy of the demo jobs on loopback and print its address.\nWhat is changed is gone when it stops; your own jobs are not touched.",
		RunE: func(c *cobra.Command, _ []string) (err error) {
			dir, err := os.MkdirTemp("", "mallow-demo-")
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
			docs, err := demo.Jobs()
			if err != nil {
				return err
			}
			return s.serve(c.Context(), filepath.Join(dir, "mallow.db"), docs, c.OutOrStdout())
		},
	}
	s.flags(c)
	return c
}

// dataDir is the data folder, made if it is not there.
func dataDir(flag string) (string, error) {
	dir := flag
	if dir == "" {
		dir = os.Getenv(dataVariable)
	}
	if dir == "" {
		dir = filepath.Join(xdg.DataHome, "mallow")
	}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return "", usageError{fmt.Errorf("the data folder cannot be used: %w", err)}
	}
	return dir, nil
}

func (s *serving) serve(ctx context.Context, file string, docs [][]byte, out io.Writer) (err error) {
	cat, err := catalog.Load()
	if err != nil {
		return err
	}
	listener, err := s.open()
	if err != nil {
		return err
	}
	kept, err := store.Open(ctx, file)
	if err != nil {
		return errors.Join(err, listener.Close())
	}
	defer func() { err = errors.Join(err, kept.Close()) }()
	// The first demo job is to stand first in the list: it is saved last.
	for i := len(docs) - 1; i >= 0; i-- {
		if _, err := kept.Create(ctx, docs[i], "Demo job"); err != nil {
			return errors.Join(err, listener.Close())
		}
	}
	level := slog.LevelInfo
	if s.verbose {
		level = slog.LevelDebug
	}
	app := server.New(server.Config{
		Level: standin.Usual,
		Store: kept, Catalog: cat, Web: web.Files(), Hosts: s.names(), Version: version,
		Log: slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level})),
	})
	fmt.Fprintf(out, "Mallow is at http://%s/ (stop with Ctrl-C)\n", listener.Addr())
	return app.Listener(listener, fiber.ListenConfig{
		DisableStartupMessage: true, GracefulContext: ctx, ShutdownTimeout: 5 * time.Second,
	})
}

// names are the hosts to answer to: those asked for and the one listened on.
func (s *serving) names() []string {
	host, _, err := net.SplitHostPort(s.listen)
	if err != nil {
		return s.hosts
	}
	return append(s.hosts, host)
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
	return l, nil
}

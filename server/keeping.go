package server

import (
	"archive/zip"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/gofiber/fiber/v3"

	"mallow/store"
)

// keeping tells how the jobs are kept.
func (s *Server) keeping(c fiber.Ctx) error {
	size, err := s.Store.Size(c.Context())
	if err != nil {
		return err
	}
	list, err := s.Store.Backups()
	if err != nil {
		return err
	}
	t, err := s.Store.Tidying(c.Context())
	if err != nil {
		return err
	}
	out := Keeping{Folder: filepath.Dir(s.Store.Path()), Bytes: size.Bytes, Jobs: size.Jobs, Revisions: size.Revisions,
		Backups: []KeptBackup{}, Throwaway: s.Throwaway,
		Tidying: TidyingState{On: t.On, Revisions: t.Revisions, Jobs: t.Jobs}}
	if !t.Due.IsZero() {
		out.Tidying.Due = &t.Due
	}
	if err := s.Store.Ping(c.Context()); err != nil {
		p := s.problem(asked(c), err)
		out.Trouble = p.Title + ". " + p.Detail
	}
	if s.Replica != nil {
		now := s.Replica.Look()
		out.Replica = &now
	}
	trial, err := s.Store.Trial(c.Context())
	if err != nil {
		return err
	}
	if !trial.At.IsZero() {
		out.Trial = &TrialState{At: trial.At, Name: trial.Name, Jobs: trial.Jobs, Failed: trial.Failed}
		if !trial.Held.IsZero() {
			out.Trial.Held = &trial.Held
		}
	}
	for _, b := range list {
		out.Backups = append(out.Backups, KeptBackup{b.Name, b.Why, b.At, b.Bytes})
	}
	return c.JSON(out)
}

func (s *Server) backUp(c fiber.Ctx) error {
	if _, err := s.Store.BackUpNow(c.Context(), "asked"); err != nil {
		return err
	}
	return s.keeping(c)
}

// restoreBackup puts a backup in place of all jobs. What was there is backed
// up first, so that it can be undone the same way.
func (s *Server) restoreBackup(c fiber.Ctx) error {
	var req BackupRequest
	if err := read(c, &req); err != nil {
		return err
	}
	list, err := s.Store.Backups()
	if err != nil {
		return err
	}
	i := slices.IndexFunc(list, func(b store.Backup) bool { return b.Name == req.Name })
	if i < 0 {
		return fiber.NewError(fiber.StatusNotFound, "There is no such backup in the data folder any more.")
	}
	if _, err := s.Store.Replace(c.Context(), list[i].Path); err != nil {
		return err
	}
	s.heads.forget()
	s.taught.forget()
	s.board.forget()
	s.described(store.Revision{})
	s.live.tell(Event{Kind: EventReset})
	return s.keeping(c)
}

func (s *Server) setTidying(c fiber.Ctx) error {
	var req TidyingRequest
	if err := read(c, &req); err != nil {
		return err
	}
	if err := s.Store.SetTidying(c.Context(), req.On); err != nil {
		return err
	}
	return s.keeping(c)
}

// pin keeps a revision however old it gets.
func (s *Server) pin(c fiber.Ctx) error {
	var req PinRequest
	if err := read(c, &req); err != nil {
		return err
	}
	if err := s.Store.Pin(c.Context(), c.Params("id"), req.Revision, req.Pinned); err != nil {
		return err
	}
	return c.SendStatus(fiber.StatusNoContent)
}

// allJobs sends every job that can be read as a document, in one zip. Those
// that cannot be are named in it.
func (s *Server) allJobs(c fiber.Ctx) error {
	c.Set(fiber.HeaderContentDisposition, disposition("mallow-jobs.zip"))
	return s.file(c, "application/zip", zipBudget, func(ctx context.Context, out pipe) error {
		z := zip.NewWriter(out)
		n, bad, err := ZipJobs(ctx, z, s.Store)
		if err != nil {
			return err
		}
		s.Log.Info("all jobs sent", "jobs", n, "unreadable", bad)
		return errors.Join(z.Close(), out.Flush())
	})
}

// ZipJobs writes every job's current document into a zip, and tells how many
// there were and how many could not be read.
func ZipJobs(ctx context.Context, z *zip.Writer, from *store.Store) (n, bad int, err error) {
	var lost []string
	err = from.Each(ctx, func(r store.Revision, err error) error {
		if ctx.Err() != nil {
			return context.Cause(ctx)
		}
		if err != nil {
			bad++
			lost = append(lost, r.Job+": "+err.Error())
			return nil
		}
		n++
		w, err := z.Create(FileNameOf(r))
		if err != nil {
			return err
		}
		_, err = w.Write(r.Doc)
		return err
	})
	if err == nil && bad > 0 {
		w, e := z.Create("could-not-be-read.txt")
		if err = e; err == nil {
			_, err = fmt.Fprintln(w, strings.Join(lost, "\n"))
		}
	}
	return n, bad, err
}

// FileNameOf is what a job's document is called as a file: its name, as far as
// every system takes it, and its id.
func FileNameOf(r store.Revision) string {
	name := safeName(r.Name)
	if long := []rune(name); len(long) > 60 {
		name = string(long[:60])
	}
	folder := ""
	if r.Deleted {
		folder = "bin/"
	}
	return folder + strings.Trim(name+" "+r.Job, " .") + ".json"
}

// safeName is a name with what no system takes in a file's name left out.
func safeName(name string) string {
	return strings.Map(func(c rune) rune {
		if c < ' ' || strings.ContainsRune(`<>:"/\|?*`, c) || c == os.PathSeparator {
			return '-'
		}
		return c
	}, name)
}

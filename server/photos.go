package server

import (
	"archive/zip"
	"context"
	"errors"
	"slices"
	"strconv"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/photo"
	"mallow/store"
)

// KeptPhoto is a photograph as it is told of.
type KeptPhoto struct {
	ID     string    `json:"id" jsonschema:"required"`
	Taken  time.Time `json:"taken" jsonschema:"required"`
	Width  int       `json:"width" jsonschema:"required"`
	Height int       `json:"height" jsonschema:"required"`
	Size   int       `json:"size" jsonschema:"required" jsonschema_description:"Bytes."`
}

// KeptPhotos are all of a job.
type KeptPhotos struct {
	Photos []KeptPhoto `json:"photos" jsonschema:"required"`
}

func keptPhoto(p store.Photo) KeptPhoto { return KeptPhoto{p.ID, p.Taken, p.Width, p.Height, p.Size} }

func (s *Server) photos(c fiber.Ctx) error {
	all, err := s.Store.Photos(c.Context(), c.Params("id"))
	if err != nil {
		return err
	}
	out := KeptPhotos{Photos: []KeptPhoto{}}
	for _, p := range all {
		out.Photos = append(out.Photos, keptPhoto(p))
	}
	return c.JSON(out)
}

// addPhoto keeps one photograph, which is the body of the request.
func (s *Server) addPhoto(c fiber.Ctx) error {
	refuse := func(given, allowed string) error {
		return document.Errors{{Field: "/photo", Given: given, Allowed: allowed}}
	}
	var clean photo.Clean
	err := s.within(c.Context(), s.pictures, "photo", planBudget, func(func() error) (err error) {
		clean, err = photo.Take(c.Body())
		return err
	})
	var no photo.Refused
	if errors.As(err, &no) {
		return refuse(no.Given, no.Allowed)
	}
	if err != nil {
		return err
	}
	p, err := s.Store.AddPhoto(c.Context(), c.Params("id"), store.Photo{Kind: clean.Kind, Width: clean.Width, Height: clean.Height}, clean.Bytes)
	if full := (*store.FullError)(nil); errors.As(err, &full) {
		return refuse("one more", full.Error())
	}
	if err != nil {
		return err
	}
	return c.Status(fiber.StatusCreated).JSON(keptPhoto(p))
}

// photo sends one. What is kept is never changed, and may be deleted: a browser that has
// it asks whether it is still there.
func (s *Server) photo(c fiber.Ctx) error {
	kind, data, err := s.Store.PhotoBytes(c.Context(), c.Params("id"), c.Params("photo"))
	if err != nil {
		return err
	}
	tag := strconv.Quote(c.Params("photo"))
	c.Set(fiber.HeaderCacheControl, "private, no-cache")
	c.Set(fiber.HeaderETag, tag)
	if c.Get(fiber.HeaderIfNoneMatch) == tag {
		return c.SendStatus(fiber.StatusNotModified)
	}
	c.Set(fiber.HeaderContentType, kind)
	return c.Send(data)
}

// deletePhoto deletes one for good: what was noted of it stays, the picture does not.
func (s *Server) deletePhoto(c fiber.Ctx) error {
	if err := s.Store.DeletePhoto(c.Context(), c.Params("id"), c.Params("photo")); err != nil {
		return err
	}
	s.live.tell(Event{Job: c.Params("id"), Kind: EventReset})
	return c.SendStatus(fiber.StatusNoContent)
}

// photosZip sends all of a job's photographs, named by their post and time.
func (s *Server) photosZip(c fiber.Ctx) error {
	rev, err := s.Store.Get(c.Context(), c.Params("id"))
	if err != nil {
		return err
	}
	all, err := s.Store.Photos(c.Context(), rev.Job)
	if err != nil {
		return err
	}
	of := map[string]string{}
	if o, err := document.Open(rev.Doc, s.Catalog); err == nil && c.Method() != fiber.MethodHead {
		err := s.filing(c, "photos", func(stop func() error) (err error) {
			of, err = s.labelsOf(stop, o.Job)
			return err
		})
		if err != nil {
			return err
		}
	}
	c.Set(fiber.HeaderContentDisposition, disposition(rev.Name+" photographs.zip"))
	return s.file(c, "application/zip", zipBudget, func(ctx context.Context, out pipe) error {
		z := zip.NewWriter(out)
		for _, p := range all {
			kind, data, err := s.Store.PhotoBytes(ctx, rev.Job, p.ID)
			if err != nil {
				return err
			}
			ending := ".jpg"
			if kind == "image/png" {
				ending = ".png"
			}
			name := p.Taken.Format("2006-01-02 1504 ")
			if on := of[p.ID]; on != "" {
				name += on + " "
			}
			w, err := z.CreateHeader(&zip.FileHeader{Name: safeName(name+p.ID) + ending, Modified: p.Taken, Method: zip.Store})
			if err != nil {
				return err
			}
			if _, err := w.Write(data); err != nil {
				return err
			}
			if err := out.Flush(); err != nil {
				return err
			}
		}
		return errors.Join(z.Close(), out.Flush())
	})
}

// labelsOf are the posts that a job's photographs show, by the photograph. It plans the
// job once, if any photograph is noted.
func (s *Server) labelsOf(stop func() error, j job.Job) (map[string]string, error) {
	out := map[string]string{}
	if !slices.ContainsFunc(j.Observed, func(f job.Fact) bool { return f.Photo != "" }) {
		return out, nil
	}
	r, err := plan.Compute(stop, j, s.Catalog, nil)
	if err != nil {
		return nil, err
	}
	names := map[string]string{}
	for _, run := range r.Runs {
		for i := range run.Load.Posts {
			names[run.Load.Posts[i].ID] = run.Load.Spec.Name + " " + run.Load.Posts[i].Label
		}
	}
	for _, f := range j.Observed {
		if f.Photo != "" {
			out[f.Photo] = names[f.OnPost()]
		}
	}
	return out, nil
}

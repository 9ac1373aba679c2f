package server

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"image"
	_ "image/jpeg" // what photographs are
	_ "image/png"
	"strconv"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/store"
)

// Limits of one photograph: the browser shrinks it to far less.
const (
	mostPhoto  = 3 << 20
	mostPixels = 4096 // along a side
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
	body := c.Body()
	refuse := func(given, allowed string) error {
		return document.Errors{{Field: "/photo", Given: given, Allowed: allowed}}
	}
	if len(body) > mostPhoto {
		return refuse(strconv.Itoa(len(body))+" bytes", "at most "+strconv.Itoa(mostPhoto)+" bytes: shrink it first")
	}
	is, kind, err := image.DecodeConfig(bytes.NewReader(body))
	if err != nil || kind != "jpeg" && kind != "png" {
		return refuse(strconv.Itoa(len(body))+" bytes that are no photograph", "a photograph as JPEG or PNG")
	}
	if is.Width < 1 || is.Height < 1 || is.Width > mostPixels || is.Height > mostPixels {
		return refuse(strconv.Itoa(is.Width)+" × "+strconv.Itoa(is.Height)+" pixels", "at most "+strconv.Itoa(mostPixels)+" pixels along a side: shrink it first")
	}
	p, err := s.Store.AddPhoto(c.Context(), c.Params("id"), store.Photo{Kind: "image/" + kind, Width: is.Width, Height: is.Height}, bytes.Clone(body))
	if full := (*store.FullError)(nil); errors.As(err, &full) {
		return refuse("one more", full.Error())
	}
	if err != nil {
		return err
	}
	return c.Status(fiber.StatusCreated).JSON(keptPhoto(p))
}

// photo sends one; what is kept is never changed.
func (s *Server) photo(c fiber.Ctx) error {
	kind, data, err := s.Store.PhotoBytes(c.Context(), c.Params("id"), c.Params("photo"))
	if err != nil {
		return err
	}
	c.Set(fiber.HeaderContentType, kind)
	c.Set(fiber.HeaderCacheControl, "private, max-age=31536000, immutable")
	return c.Send(data)
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
	if o, err := document.Open(rev.Doc, s.Catalog); err == nil {
		of = labelsOf(s, o.Job)
	}
	c.Set(fiber.HeaderContentDisposition, disposition(rev.Name+" photographs.zip"))
	return s.stream(c, "application/zip", exportBudget, func(ctx context.Context, out pipe) error {
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
	}, nil)
}

// labelsOf are the posts that a job's photographs show, by the photograph.
func labelsOf(s *Server, j job.Job) map[string]string {
	out, names := map[string]string{}, map[string]string(nil)
	for _, f := range j.Observed {
		if f.Photo == "" {
			continue
		}
		if names == nil {
			names = map[string]string{}
			if r, err := plan.Compute(nil, j, s.Catalog, nil); err == nil {
				for _, run := range r.Runs {
					for i := range run.Load.Posts {
						names[run.Load.Posts[i].ID] = run.Load.Spec.Name + " " + run.Load.Posts[i].Label
					}
				}
			}
		}
		out[f.Photo] = names[f.OnPost()]
	}
	return out
}

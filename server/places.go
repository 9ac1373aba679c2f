package server

import (
	"net"
	"strings"

	"github.com/gofiber/fiber/v3"

	"mallow/paper"
)

// ownAddress is the address under which a sheet's code finds this server: the one
// that was asked, or where that was this machine's own, a name that others can
// use, if it has one.
func (s *Server) ownAddress(c fiber.Ctx) string {
	base := c.BaseURL()
	host, port, err := net.SplitHostPort(c.Host())
	if err != nil {
		host, port = c.Host(), ""
	}
	if ip := net.ParseIP(strings.Trim(host, "[]")); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return base
	}
	for _, h := range s.Hosts {
		if ip := net.ParseIP(h); h != "localhost" && (ip == nil || !ip.IsLoopback() && !ip.IsUnspecified()) {
			if port != "" {
				h = net.JoinHostPort(h, port)
			}
			return c.Scheme() + "://" + h
		}
	}
	return base
}

// mostPlaces is how many jobs are told whose ids begin alike.
const mostPlaces = 5

// places finds what a sheet's code means.
func (s *Server) places(c fiber.Ctx) ([]Found, error) {
	code, ok := paper.ParseCode(c.Params("code"))
	if !ok {
		return nil, fiber.NewError(fiber.StatusUnprocessableEntity, "A code stands at the top of every printed sheet, such as K7QF-S2: four letters and figures, a dash, a letter and mostly a number.")
	}
	heads, err := s.Store.Beginning(c.Context(), code.Job, mostPlaces)
	if err != nil {
		return nil, err
	}
	if len(heads) == 0 {
		return nil, fiber.NewError(fiber.StatusNotFound, "No job here has sheets with that code. It may be kept on another machine, or was thrown away.")
	}
	out := make([]Found, len(heads))
	for i, h := range heads {
		out[i] = Found{Name: h.Name, Path: paper.Place{}.Path(h.Job)}
		err := s.planning(c, "place", exportBudget, func(stop func() error) error {
			rev, err := s.Store.Get(c.Context(), h.Job)
			if err != nil {
				return err
			}
			src, err := s.sourceOf(rev, stop)
			if err == nil {
				out[i].Path = code.In(src.Plan).Path(h.Job)
			}
			return err
		})
		if err != nil { // a job that cannot be planned is opened all the same
			s.Log.Warn("place", "job", h.Job, "err", err)
		}
	}
	return out, nil
}

// place tells what a sheet's code means.
func (s *Server) place(c fiber.Ctx) error {
	found, err := s.places(c)
	if err != nil {
		return err
	}
	return c.JSON(Places{Found: found})
}

// openPlace opens what a code means, for whoever types it after the address.
func (s *Server) openPlace(c fiber.Ctx) error {
	found, err := s.places(c)
	if err != nil || len(found) > 1 {
		return c.Redirect().To("/?code=" + c.Params("code")) // the list says what is wrong with it
	}
	return c.Redirect().To(found[0].Path)
}

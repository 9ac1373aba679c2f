package server

import (
	"strconv"
	"time"
	_ "time/tzdata" // sites lie in zones that this machine may not know

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/standin"
)

// skyBefore and skyAfter are the days about a pour of which the office is asked.
const (
	skyBefore = 1
	skyAfter  = 12
)

// askWeather puts the hours of the simulated weather office into a job.
func (s *Server) askWeather(c fiber.Ctx) error {
	var req SkyRequest
	if err := read(c, &req); err != nil {
		return err
	}
	j, _, err := document.Decode(req.Doc, s.Catalog)
	if err != nil {
		return err
	}
	zone, err := time.LoadLocation(req.Zone)
	if err != nil || req.Zone == "" || req.Zone == "Local" {
		return document.Errors{{Field: "/zone", Given: strconv.Quote(document.Brief(req.Zone)), Allowed: "a time zone by its name, such as America/Chicago"}}
	}
	date := j.Pour.Date
	if date == "" {
		date = req.Day
	}
	day, err := time.ParseInLocation(time.DateOnly, date, zone)
	if err != nil {
		return document.Errors{{Field: "/day", Given: strconv.Quote(document.Brief(req.Day)), Allowed: "a date, year-month-day"}}
	}
	place := j.Site.Place
	if place == nil {
		return document.Errors{{Field: "/site/place", Given: "nothing", Allowed: "where on earth the site is: latitude and longitude, under Walk, Files"}}
	}
	var office standin.WeatherOffice = standin.Forecast{}
	hours, err := office.Hours(standin.Spot{Latitude: place.Latitude, Longitude: place.Longitude}, day.AddDate(0, 0, -skyBefore), day.AddDate(0, 0, skyAfter))
	if err != nil {
		return err
	}
	w := job.Weather{Source: "Simulated weather office", Hours: hours, Days: j.Weather.Days, Offset: j.Weather.Offset}
	doc, err := document.Apply(req.Doc, []job.Edit{job.Set("/weather", w)})
	if err != nil {
		return err
	}
	return c.JSON(Changed{Doc: doc, What: "Weather for " + strconv.Itoa(skyBefore+skyAfter) + " days"})
}

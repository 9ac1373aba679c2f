// Package files writes whatever file is wanted of a job: what the exchange
// writes, and what takes larger libraries than a browser should load, printed
// sheets and the spreadsheet.
package files

import (
	"cmp"
	"context"
	"mallow/core/document"
	"mallow/core/plan"
	"mallow/core/stage/record"
	"mallow/exchange"
	"mallow/paper"
	"strings"
	"time"
)

// Want is one file that is wanted of a job: besides the formats of the
// exchange, pdf and xlsx.
type Want struct {
	exchange.Want
	Sheet string     // pdf: a set or a kind of sheets; "" is the crew's and the customer's
	Size  paper.Size // pdf
}

// Check refuses sheets that there are not.
func (w Want) Check() error {
	if w.Sheet != "" && !paper.Known(w.Sheet) {
		return exchange.Refuse("%q is no sheet; there are %s.", w.Sheet, strings.Join(paper.IDs(), ", "))
	}
	return nil
}

// Source is a job with its plan, and what its sheets are stamped with.
type Source struct {
	exchange.Source
	Stamp paper.Stamp
}

// Of is a planned job's source.
func Of(o document.Opened, p plan.Plan, revision int, saved time.Time) Source {
	return Source{exchange.Source{Job: o.Job, Plan: p, Doc: o.Doc, Revision: revision}, paper.Stamp{Job: p.Name, Revision: revision, Date: saved, Cleared: p.Before.Ready}}
}

// Export writes one file. Told hears how far it is, of nothing until that is known, and
// stops the writing with an error.
func (s Source) Export(w Want, told func(done, of int) error) (exchange.Written, error) {
	if w.What == "ics" {
		var later []record.Reminder
		if s.Plan.Log != nil {
			later = s.Plan.Log.Later
		}
		if (s.Plan.Schedule == nil || len(s.Plan.Schedule.Days) == 0) && len(later) == 0 {
			return exchange.Written{}, exchange.Refuse("There are no days yet: set the first day under Days.")
		}
		name := s.Name(w.Want, "days", "ics")
		return exchange.Written{Name: name, Type: "text/calendar; charset=utf-8", Data: Calendar(s.Plan.Name, cmp.Or(s.Stamp.ID, "job"), s.Plan.Schedule, later, s.Plan.Units, s.Stamp.Date)}, nil
	}
	if w.What != "pdf" && w.What != "xlsx" {
		return s.Source.Export(w.Want, func() error {
			if told == nil {
				return nil
			}
			return told(0, 0)
		})
	}
	if _, err := s.At(w.Want); err != nil {
		return exchange.Written{}, err
	}
	if w.What == "xlsx" {
		return Spreadsheet(s.Name(w.Want, "tables", "xlsx"), s.Plan, told)
	}
	return s.pdf(w, told)
}

// Document lays out the sheets that are wanted.
// Stop says with an error to give it up; it may be nil.
func (s Source) Document(w Want, stop func() error) (paper.Document, error) {
	if err := w.Check(); err != nil {
		return paper.Document{}, err
	}
	if _, err := s.At(w.Want); err != nil {
		return paper.Document{}, err
	}
	if w.Size == (paper.Size{}) {
		w.Size = paper.Letter
	}
	d, err := paper.Make(stop, s.Job, s.Plan, w.Sheet, w.Run, w.Size, s.Stamp)
	if err == nil && len(d.Pages) == 0 {
		err = exchange.Refuse("There is nothing to print on that sheet: no run has a length yet, or none has a gate.")
	}
	return d, err
}

func (s Source) pdf(w Want, told func(done, of int) error) (exchange.Written, error) {
	d, err := s.Document(w, func() error {
		if told == nil {
			return nil
		}
		return told(0, 0) // how many pages there will be is not known yet
	})
	if err != nil {
		return exchange.Written{}, err
	}
	data, err := d.PDF(told)
	what := w.Sheet
	if what == "" {
		what = "all sheets"
	}
	return exchange.Written{Name: s.Name(w.Want, what, "pdf"), Type: "application/pdf", Data: data}, err
}

// Until stops a writing when its context ends.
func Until(ctx context.Context, told func(done, of int)) func(done, of int) error {
	return func(done, of int) error {
		if told != nil {
			told(done, of)
		}
		return ctx.Err()
	}
}

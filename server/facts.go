package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/store"
)

// factsOf is what a list shows of a plan.
func factsOf(p plan.Plan) Facts {
	f := Facts{Units: p.Units, Outline: p.Outline(), Posts: p.Totals.Posts, Bags: p.Totals.Bags}
	for _, one := range p.Findings {
		switch one.Severity {
		case finding.Missing:
			f.Missing++
		case finding.Cannot, finding.Check:
			f.Problems++
		}
	}
	return f
}

// draft is what is saved of a checked document.
func draft(doc []byte, name, what string) store.Draft {
	return store.Draft{Doc: doc, What: clip(what), Name: name}
}

// described makes sure that what was just saved will be described.
func (s *Server) described(r store.Revision) {
	if r.Facts == nil {
		select {
		case s.undescribed <- struct{}{}:
		default: // it is awake already
		}
	}
}

// describe plans what lists cannot show yet, one job after another, whenever
// something was saved whose plan nobody had asked for, and once at the start.
func (s *Server) describe() {
	for {
		s.describeAll()
		select {
		case <-s.running.Done():
			return
		case <-s.undescribed:
		}
	}
}

func (s *Server) describeAll() {
	for after := ""; s.running.Err() == nil; {
		r, ok, err := s.Store.Undescribed(s.running, after)
		if !ok {
			if err != nil && s.running.Err() == nil {
				s.Log.Error("describing jobs", "error", err)
			}
			return
		}
		after = r.Job
		began := time.Now()
		if err != nil { // its document cannot be read; the others can
			s.Log.Error("describing a job", "job", r.Job, "error", err)
			continue
		}
		name, facts, err := s.factsOfRevision(r)
		if err != nil {
			return // stopping
		}
		raw, err := json.Marshal(facts)
		if err == nil {
			err = s.Store.Describe(s.running, r.Job, r.Number, name, raw)
		}
		if err != nil {
			s.Log.Error("describing a job", "job", r.Job, "error", err)
			continue
		}
		s.live.tell(Event{Job: r.Job, Revision: r.Number, Kind: EventDescribed})
		select { // a third of the time, at the most: others wait for their plans
		case <-s.running.Done():
		case <-time.After(2 * time.Since(began)):
		}
	}
}

// factsOfRevision plans a document, unless it is open and computed still. One
// that cannot be read, or that takes too long, is described by the reason.
func (s *Server) factsOfRevision(r store.Revision) (name string, f Facts, err error) {
	f = Facts{Units: length.Usual(length.Imperial), Outline: plan.Plan{}.Outline()}
	head, open := s.heads.find(r.Job, r.At())
	j := head.opened.Job
	if !open {
		if j, _, err = document.Decode(r.Doc, s.Catalog); err != nil {
			f.Problem = plainly(err)
			return nameIn(r.Doc), f, nil
		}
	}
	f.Units = j.Units
	err = s.planned(s.running, "facts", planBudget, func(stop func() error) error {
		defer s.recovered("describing a job", func(e error) { f.Problem, err = "its plan broke off; the log says more", nil })
		result, err := plan.Again(stop, j, s.Catalog, head.result)
		if err == nil {
			f = factsOf(result.Figures())
		}
		return err
	})
	if errors.Is(err, errTookTooLong) {
		f.Problem, err = "planning it takes too long", nil
	}
	return j.Name, f, err
}

// plainly says what is wrong with a document without the places in it, which
// only programs read.
func plainly(err error) string {
	var fields document.Errors
	if !errors.As(err, &fields) || len(fields) == 0 {
		return err.Error()
	}
	says := fields[0].Given + "; allowed is " + fields[0].Allowed
	if n := len(fields) - 1; n > 0 {
		says += fmt.Sprintf(" (and %d more)", n)
	}
	return says
}

// nameIn is the name in a document that cannot be used.
func nameIn(doc []byte) string {
	var named struct {
		Name string `json:"name"`
	}
	if json.Unmarshal(doc, &named) != nil || named.Name == "" {
		return "Unreadable job"
	}
	return named.Name
}

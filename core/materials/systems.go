package materials

import (
	"encoding/json"
	"fmt"
	"slices"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
)

// validateSystems returns the first thing wrong with the fence systems. Their
// fields are held against the job document's own limits, since a job may carry
// a copy of any of them.
func (c Catalog) validateSystems() error {
	seen := map[string]bool{}
	for _, s := range c.Systems {
		switch {
		case s.ID == "" || seen[s.ID]:
			return fmt.Errorf("fence system %q: id is empty or given twice", s.ID)
		case s.Source.Kind == "":
			return fmt.Errorf("fence system %q: has no source", s.ID)
		case len(s.Allowed) == 0:
			return fmt.Errorf("fence system %q: no way to set its posts is allowed", s.ID)
		}
		seen[s.ID] = true
		for _, f := range s.Forbidden {
			if slices.Contains(s.Allowed, f.Method) {
				return fmt.Errorf("fence system %q: setting %q is both allowed and forbidden", s.ID, f.Method)
			}
		}
		if own := s.Setting.Bag; own != nil {
			if bag, ok := c.Bag(*own); !ok || bag.System != s.System.System {
				return fmt.Errorf("fence system %q: bag %q is not a %s one of the catalogue", s.ID, *own, s.System.System)
			}
		}
		if err := c.fits(s.System); err != nil {
			return fmt.Errorf("fence system %q: %w", s.ID, err)
		}
	}
	return nil
}

// fits puts a system on a run of a job and lets the job document's own check
// look at both.
func (c Catalog) fits(s job.System) error {
	if errs := document.CheckParts("/systems/"+s.ID, s.Parts, length.Usual(s.System)); len(errs) > 0 {
		return errs
	}
	s.Parts, s.Steps = nil, nil // each field of theirs is held against its limits by a test: that takes too long for a start
	run := s.Outfit(c.UsualRun(s.System))
	long := 30 * length.Metre
	run.ID, run.Length = "R", &long
	j := job.Job{Mallow: job.Version, Name: s.Name, Units: length.Usual(s.System), Systems: []job.System{s},
		Lines: []job.Line{{ID: "L", Runs: []job.Run{run}}}}
	doc, err := json.Marshal(j)
	if err != nil {
		return err
	}
	_, unknown, err := document.Decode(doc, c)
	if err == nil && len(unknown) > 0 {
		return fmt.Errorf("unknown fields %v", unknown)
	}
	return err
}

// SpacingBy is the usual spacing by a way in which a piece sets the bay: that
// of the first system of the catalogue that is spaced so.
func (c Catalog) SpacingBy(way job.Way, sys length.System) (job.Spacing, bool) {
	for _, s := range c.Systems {
		if s.System.System == sys && s.Spacing.Way == way {
			return job.Spacing{Way: way, Piece: s.Spacing.Piece, Overlap: s.Spacing.Overlap, Play: s.Spacing.Play, Slot: s.Spacing.Slot, Span: s.Spacing.Span, Rails: s.Spacing.Rails}, true
		}
	}
	return job.Spacing{}, false
}

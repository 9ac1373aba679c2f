package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"os"
	"path/filepath"
	"time"
)

// trialEvery is how often it is tried whether the newest backup can be put back; one
// that failed is tried again the next day.
const (
	trialEvery = 7 * 24 * time.Hour
	trialAgain = 24 * time.Hour
	keyTrial   = "trial"
	trialName  = "mallow-trial"
)

// Trial is a backup that was put back for a trial, into a folder of its own.
type Trial struct {
	At     time.Time `json:"at"`
	Name   string    `json:"name"` // of the backup
	Jobs   int       `json:"jobs"`
	Failed string    `json:"failed,omitempty"` // why it could not be
	Held   time.Time `json:"held"`             // when one was last put back well; zero: never
}

// Trial is the last one; its time is zero where there was none.
func (s *Store) Trial(ctx context.Context) (t Trial, err error) {
	defer told(&err)
	raw, err := noted(ctx, s.read, keyTrial)
	if err != nil || raw == "" {
		return t, err
	}
	return t, json.Unmarshal([]byte(raw), &t)
}

// TryBackup puts the newest backup back for a trial, if it is time: it is verified,
// restored as mallow restore does, changed to this version, opened, and every one of its
// jobs is read. False: it was not time.
func (s *Store) TryBackup(ctx context.Context) (bool, error) {
	last, err := s.Trial(ctx)
	if err != nil {
		return false, err
	}
	every := trialEvery
	if last.Failed != "" {
		every = trialAgain
	}
	if age := s.now().Sub(last.At); age >= 0 && age < every {
		return false, nil
	}
	list, err := s.Backups()
	if err != nil || len(list) == 0 {
		return false, err
	}
	t := Trial{At: s.now(), Name: list[0].Name, Held: last.Held}
	if t.Jobs, err = s.tried(ctx, list[0].Path); err != nil {
		if ctx.Err() != nil {
			return false, err
		}
		t.Failed = err.Error()
	} else {
		t.Held = t.At
	}
	raw, e := json.Marshal(t)
	if e != nil {
		return true, errors.Join(err, e)
	}
	return true, errors.Join(err, s.tx(ctx, func(tx *sql.Tx) error { return note(ctx, tx, keyTrial, string(raw)) }))
}

func (s *Store) tried(ctx context.Context, file string) (jobs int, err error) {
	dir := s.beside(trialName)
	if err := os.RemoveAll(dir); err != nil { // of a trial that was cut off
		return 0, err
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	v, _, err := RestoreTo(ctx, file, dir, false)
	if err != nil {
		return 0, err
	}
	back, err := OpenAt(ctx, filepath.Join(dir, FileName), s.now)
	if err != nil {
		return 0, err
	}
	defer func() { err = errors.Join(err, back.Close()) }()
	n := 0
	err = back.Each(ctx, func(_ Revision, err error) error { n++; return err })
	if err == nil && n != v.Jobs {
		err = errors.New("put back, not every job can be read")
	}
	return n, err
}

package store

import (
	"context"
	"errors"
	"log/slog"
	"time"
)

// Keeping does what nobody waits for, until it is told to stop: it packs old
// documents, makes the day's backup and tries one now and then, lets go what is past its time, and looks
// the pages over.
func (s *Store) Keeping(ctx context.Context, log *slog.Logger) {
	said := func(what string, err error) {
		if err != nil && !errors.Is(err, context.Canceled) {
			log.Error(what+" failed", "error", err)
		}
	}
	hourly := func() {
		said("looking the database over", s.Look(ctx))
		made, err := s.DailyBackUp(ctx)
		said("the daily backup", err)
		if made {
			log.Info("backed up")
		}
		if tried, err := s.TryBackup(ctx); err != nil {
			said("the trial of the newest backup", err)
		} else if tried {
			log.Info("the newest backup was put back for a trial")
		}
		if err == nil { // nothing goes that is in no backup
			went, err := s.Tidy(ctx)
			said("tidying", err)
			if went.Jobs+went.Revisions > 0 {
				log.Info("tidied", "jobs", went.Jobs, "revisions", went.Revisions)
			}
			if t, err := s.Tidying(ctx); err == nil && t.On {
				n, err := s.Fold(ctx)
				said("folding steps of entries", err)
				if n > 0 {
					log.Info("folded", "revisions", n)
				}
			}
		}
	}
	hourly()
	hour, often := time.NewTicker(time.Hour), time.NewTicker(5*time.Second)
	defer hour.Stop()
	defer often.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-hour.C:
			hourly()
		case <-often.C:
			_, err := s.Pack(ctx, 200)
			said("packing", err)
		}
	}
}

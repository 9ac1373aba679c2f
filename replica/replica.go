// Package replica keeps a second copy of the database on another disk or
// server, at most a second behind, and brings it back as it was at any moment
// that is still kept.
//
// The copying itself is the litestream library's: it reads what SQLite writes
// into its log, and nothing of it stands in the way of a save.
package replica

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/benbjohnson/litestream"
	"github.com/benbjohnson/litestream/file"
	_ "github.com/benbjohnson/litestream/sftp" // replicas at sftp:// addresses
)

const (
	// every is how often what was written is sent: looked at and sent within
	// less than half a second.
	every = 200 * time.Millisecond
	// kept is how far back a replica can go.
	kept = 7 * 24 * time.Hour
	// ending is how long the last of it may take to be sent when Mallow stops.
	ending = 5 * time.Second
)

// Replica is a database that is being copied.
type Replica struct {
	store   *litestream.Store
	db      *litestream.DB
	at      *watched
	shown   string
	log     *slog.Logger
	stop    context.CancelFunc
	watched chan struct{}
	trying  chan error // a probe that has not answered
}

// metaOf is where it is kept what was sent already.
func metaOf(path string) string { return filepath.Join(filepath.Dir(path), ".mallow-replicating") }

// client is where a replica is: a folder, or an address of another server.
func client(target string) (litestream.ReplicaClient, error) {
	if litestream.IsURL(target) {
		c, err := litestream.NewReplicaClientFromURL(target)
		if err != nil {
			return nil, fmt.Errorf("%s: %w; a folder, or sftp://user@host/folder", Shown(target), err)
		}
		return c, nil
	}
	folder, err := filepath.Abs(target)
	if err != nil {
		return nil, err
	}
	return file.NewReplicaClient(folder), nil
}

// Shown is where a replica is without the password in it.
func Shown(target string) string {
	scheme, rest, ok := strings.Cut(target, "://")
	if !ok {
		return target
	}
	if i := strings.LastIndexByte(rest, '@'); i >= 0 {
		user, _, _ := strings.Cut(rest[:i], ":")
		rest = user + rest[i:]
	}
	return scheme + "://" + rest
}

// Start begins to copy a database.
func Start(ctx context.Context, path, target string, log *slog.Logger) (*Replica, error) {
	to, err := client(target)
	if err != nil {
		return nil, err
	}
	if !litestream.IsURL(target) {
		if err := apart(path, target); err != nil {
			return nil, err
		}
	}
	db := litestream.NewDB(path)
	db.SetMetaPath(metaOf(path))
	db.MonitorInterval = every
	at := newWatched(path, to)
	// A replica that cannot be written now is told of, and keeps nobody from the jobs.
	if err := at.heard(at.settle()); err != nil {
		log.Error("the replica takes nothing", "at", Shown(target), "why", at.now().Wrong)
		at.anew.Store(true)
	} else if at.folder != "" && at.empty() { // what was sent elsewhere is no beginning here
		if err := os.RemoveAll(db.LTXDir()); err != nil {
			return nil, err
		}
	}
	r := litestream.NewReplicaWithClient(db, at)
	r.SyncInterval = every
	db.Replica = r
	if f, ok := to.(*file.ReplicaClient); ok {
		f.Replica = r
	}
	levels := litestream.CompactionLevels{{Level: 0}, {Level: 1, Interval: 30 * time.Second}, {Level: 2, Interval: 10 * time.Minute}, {Level: 3, Interval: time.Hour}}
	s := litestream.NewStore([]*litestream.DB{db}, levels)
	s.SnapshotRetention = kept
	s.SetShutdownSyncTimeout(ending)
	quiet := quieter(log)
	s.Logger = quiet
	db.SetLogger(quiet)
	if err := s.Open(ctx); err != nil {
		return nil, fmt.Errorf("replicate to %s: %w", Shown(target), err)
	}
	watching, stop := context.WithCancel(context.WithoutCancel(ctx))
	out := &Replica{store: s, db: db, at: at, shown: Shown(target), log: log, stop: stop, watched: make(chan struct{})}
	go out.watch(watching)
	return out, nil
}

// apart refuses a folder within the data folder: it would be lost with it.
func apart(path, target string) error {
	folder, err := filepath.Abs(target)
	if err != nil {
		return err
	}
	data, err := filepath.Abs(filepath.Dir(path))
	if err != nil {
		return err
	}
	if rel, err := filepath.Rel(data, folder); err == nil && (rel == "." || !strings.HasPrefix(rel, "..")) {
		return fmt.Errorf("%s is within the data folder and would be lost with it; take a folder on another disk", target)
	}
	return nil
}

// quieter passes on only what an installer could act on.
func quieter(log *slog.Logger) *slog.Logger {
	return slog.New(onlyWarnings{log.Handler()}).With("in", "replica")
}

type onlyWarnings struct{ slog.Handler }

func (h onlyWarnings) Enabled(ctx context.Context, l slog.Level) bool {
	return l >= slog.LevelWarn && h.Handler.Enabled(ctx, l)
}
func (h onlyWarnings) WithAttrs(a []slog.Attr) slog.Handler {
	return onlyWarnings{h.Handler.WithAttrs(a)}
}
func (h onlyWarnings) WithGroup(n string) slog.Handler { return onlyWarnings{h.Handler.WithGroup(n)} }

// Stop sends the last of it and ends.
func (r *Replica) Stop() error {
	r.stop()
	<-r.watched
	ctx, stop := context.WithTimeout(context.Background(), 2*ending)
	defer stop()
	return r.store.Close(ctx)
}

// Restore writes the database of a replica into a new file, as it was at a
// moment, or as it last was if at is zero. It returns when that was.
func Restore(ctx context.Context, target, to string, at time.Time) (time.Time, error) {
	from, err := client(target)
	if err != nil {
		return time.Time{}, err
	}
	r := litestream.NewReplicaWithClient(nil, from)
	first, last, err := r.TimeBounds(ctx)
	if err != nil {
		return time.Time{}, fmt.Errorf("%s: %w", Shown(target), err)
	}
	if last.IsZero() {
		return time.Time{}, fmt.Errorf("there is no replica at %s", Shown(target))
	}
	opt := litestream.NewRestoreOptions()
	opt.OutputPath, opt.IntegrityCheck = to, litestream.IntegrityCheckFull
	switch {
	case !at.IsZero() && at.Before(first):
		return time.Time{}, fmt.Errorf("the replica at %s goes back to %s, not to %s", Shown(target), first.Local().Format(time.DateTime), at.Local().Format(time.DateTime))
	case !at.IsZero() && at.Before(last):
		opt.Timestamp, last = at, at
	}
	if err := r.Restore(ctx, opt); err != nil {
		return time.Time{}, errors.Join(fmt.Errorf("restore from %s: %w", Shown(target), err), os.RemoveAll(to))
	}
	return last, os.Chmod(to, 0o600)
}

package replica

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	"github.com/benbjohnson/litestream"
	"github.com/benbjohnson/litestream/file"
	"github.com/superfly/ltx"
)

const (
	// MarkerName is the file that says that a folder is where a replica belongs. An empty
	// mount point has none.
	MarkerName = "mallow-replica"
	// placesName is the file beside the database that says where its replicas were.
	placesName = "places"
	probeName  = ".mallow-probe"
	// probing is how often it is looked whether the replica can be written.
	probing = 2 * time.Second
	// answering is how long it may take to answer.
	answering = 6 * time.Second
)

// Status is how a replica is.
type Status struct {
	Since  time.Time // since when it is as it is
	Held   time.Time // when it was last known to have all that was written; zero: not since the start
	Wrong  string    // what is the matter; nothing: it takes what is written
	Behind bool      // something that was written is not there yet
}

// OK tells whether the replica takes what is written.
func (s Status) OK() bool { return s.Wrong == "" }

// watched is a replica's place, whose trouble is remembered. Nothing is written to a
// folder that is not the one it was.
type watched struct {
	litestream.ReplicaClient
	folder string // empty: it is at an address
	places string // file that remembers where replicas were

	anew atomic.Bool // it was taken for an empty one, and is sent all of it

	mu     sync.Mutex
	status Status
}

// errAnew says that all is sent again.
var errAnew = errors.New("it is a new disk: all of it is being sent")

// empty tells whether a folder holds nothing of a replica.
func (w *watched) empty() bool {
	_, err := os.Stat(filepath.Join(w.folder, "ltx"))
	return errors.Is(err, fs.ErrNotExist)
}

// errElsewhere says that a folder is not the one that the replica was in.
var errElsewhere = errors.New("it is not the folder that the replica was in: the file " + MarkerName + " is missing, as in an empty mount point. Mount its disk; of a new disk, make an empty file of that name in it")

// settle makes sure that a folder is the one it was, or takes a new one.
func (w *watched) settle() error {
	if w.folder == "" {
		return nil
	}
	if _, err := os.Stat(filepath.Join(w.folder, MarkerName)); err == nil {
		return w.remember()
	}
	raw, err := os.ReadFile(w.places)
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	if slices.Contains(strings.Split(string(raw), "\n"), w.folder) {
		return errElsewhere
	}
	if err := os.MkdirAll(w.folder, 0o700); err != nil {
		return err
	}
	says := "A replica of Mallow's jobs belongs here. Nothing is written where this file is missing.\n"
	if err := os.WriteFile(filepath.Join(w.folder, MarkerName), []byte(says), 0o600); err != nil {
		return err
	}
	return w.remember()
}

// remember notes that the replica is in its folder.
func (w *watched) remember() error {
	raw, err := os.ReadFile(w.places)
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	if slices.Contains(strings.Split(string(raw), "\n"), w.folder) {
		return nil
	}
	if err := os.MkdirAll(filepath.Dir(w.places), 0o700); err != nil {
		return err
	}
	return os.WriteFile(w.places, append(raw, w.folder+"\n"...), 0o600)
}

// there tells whether the replica's folder is the one it was.
func (w *watched) there() error {
	if w.folder == "" {
		return nil
	}
	_, err := os.Stat(filepath.Join(w.folder, MarkerName))
	if errors.Is(err, fs.ErrNotExist) {
		return w.settle()
	}
	if err == nil && w.anew.Load() {
		return errAnew
	}
	return err
}

// probe tries whether something can be written, or at an address read.
func (w *watched) probe(ctx context.Context) error {
	if err := w.there(); err != nil && !errors.Is(err, errAnew) {
		return err
	}
	if w.folder == "" {
		list, err := w.ReplicaClient.LTXFiles(ctx, 0, 0, false)
		if err != nil {
			return err
		}
		return list.Close()
	}
	// A page as SQLite writes it: a disk that has no room for one has none for anything.
	at := filepath.Join(w.folder, probeName)
	f, err := os.OpenFile(at, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = f.Write(make([]byte, 4096))
	return errors.Join(err, f.Sync(), f.Close(), os.Remove(at))
}

// heard remembers what came of something that was tried.
func (w *watched) heard(err error) error {
	if errors.Is(err, context.Canceled) || errors.Is(err, io.EOF) {
		return err
	}
	says := ""
	if err != nil {
		says = plainly(err)
	}
	w.mu.Lock()
	defer w.mu.Unlock()
	if (says == "") != (w.status.Wrong == "") || w.status.Since.IsZero() {
		w.status.Since, w.status.Behind = time.Now(), true // until it is known to have all
	}
	w.status.Wrong = says
	return err
}

// plainly is what is the matter with the replica's place, and what to do.
func plainly(err error) string {
	switch {
	case errors.Is(err, errElsewhere):
		return errElsewhere.Error()
	case errors.Is(err, syscall.ENOSPC), errors.Is(err, syscall.EDQUOT):
		return "its disk is full. Make room there: what is missing is sent then"
	case errors.Is(err, syscall.EROFS), errors.Is(err, fs.ErrPermission):
		return "it takes no writes. Give the user that Mallow runs as the right to write there"
	case errors.Is(err, context.DeadlineExceeded):
		return fmt.Sprintf("it did not answer for %g seconds", answering.Seconds())
	}
	return err.Error()
}

func (w *watched) WriteLTXFile(ctx context.Context, level int, minTXID, maxTXID ltx.TXID, r io.Reader) (*ltx.FileInfo, error) {
	if err := w.there(); err != nil {
		return nil, w.heard(err)
	}
	info, err := w.ReplicaClient.WriteLTXFile(ctx, level, minTXID, maxTXID, r)
	return info, w.heard(err)
}

func (w *watched) LTXFiles(ctx context.Context, level int, seek ltx.TXID, useMetadata bool) (ltx.FileIterator, error) {
	if err := w.there(); err != nil {
		return nil, w.heard(err)
	}
	return w.ReplicaClient.LTXFiles(ctx, level, seek, useMetadata)
}

func (w *watched) DeleteLTXFiles(ctx context.Context, a []*ltx.FileInfo) error {
	if err := w.there(); err != nil {
		return w.heard(err)
	}
	return w.ReplicaClient.DeleteLTXFiles(ctx, a)
}

func (w *watched) DeleteAll(ctx context.Context) error {
	if err := w.there(); err != nil {
		return w.heard(err)
	}
	return w.ReplicaClient.DeleteAll(ctx)
}

// watch looks how the replica is until it is stopped. One that is back is brought up to
// date at once: the library would wait for minutes after many failures.
func (r *Replica) watch(ctx context.Context) {
	defer close(r.watched)
	tick := time.NewTicker(probing)
	defer tick.Stop()
	for {
		r.look(ctx)
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

func (r *Replica) look(ctx context.Context) {
	was := r.at.now().Wrong
	within, stop := context.WithTimeout(ctx, answering)
	defer stop()
	// A disk that hangs holds the probe, not what is said of it, and is not tried twice at once.
	if r.trying == nil {
		done := make(chan error, 1)
		r.trying = done
		go func() { done <- r.at.probe(context.WithoutCancel(ctx)) }()
	}
	var err error
	select {
	case err = <-r.trying:
		r.trying = nil
	case <-within.Done():
		err = within.Err()
	}
	if ctx.Err() != nil {
		return
	}
	_ = r.at.heard(err) // it is said there
	if r.at.folder != "" && errors.Is(err, errElsewhere) {
		r.at.anew.Store(true) // until it is seen that what it had is there
	}
	if err == nil && r.at.anew.Load() {
		// Of a disk that has nothing the library would go on where it was, and the
		// beginning would be missing.
		if r.at.empty() {
			err = r.db.ResetLocalState(ctx)
			r.db.Replica.SetPos(ltx.Pos{})
		}
		r.at.anew.Store(err != nil)
	}
	if err == nil {
		if err = r.db.SyncAndWait(within); err != nil && ctx.Err() == nil {
			_ = r.at.heard(err)
		}
	}
	behind := r.behind()
	r.at.mu.Lock()
	if r.at.status.Behind = behind; !behind && err == nil {
		r.at.status.Held = time.Now()
	}
	now := r.at.status.Wrong
	r.at.mu.Unlock()
	switch {
	case was == "" && now != "":
		r.log.Error("the replica takes nothing", "at", r.shown, "why", now)
	case was != "" && now == "":
		r.log.Info("the replica is back", "at", r.shown)
	}
}

// behind tells whether something is written that the replica has not got.
func (r *Replica) behind() bool {
	at, err := r.db.Pos()
	return err != nil || at.TXID > r.db.Replica.Pos().TXID
}

func (w *watched) now() Status {
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.status
}

// Status is how the replica is, as it was seen within the last few seconds.
func (r *Replica) Status() Status { return r.at.now() }

// Places are the folders in which a data folder's replicas are.
func Places(data string) []string {
	raw, err := os.ReadFile(filepath.Join(metaOf(filepath.Join(data, "x")), placesName))
	if err != nil {
		return nil // it has none
	}
	return slices.DeleteFunc(strings.Split(string(raw), "\n"), func(s string) bool { return s == "" })
}

// Looked says how a place for a replica is, without writing a replica there.
func Looked(ctx context.Context, path, target string) error {
	to, err := client(target)
	if err != nil {
		return err
	}
	w := newWatched(path, to)
	if w.folder != "" {
		if _, err := os.Stat(filepath.Join(w.folder, MarkerName)); errors.Is(err, fs.ErrNotExist) {
			return errElsewhere
		} else if err != nil {
			return err
		}
	}
	within, stop := context.WithTimeout(ctx, answering)
	defer stop()
	return w.probe(within)
}

func newWatched(path string, to litestream.ReplicaClient) *watched {
	w := &watched{ReplicaClient: to, places: filepath.Join(metaOf(path), placesName)}
	if f, ok := to.(*file.ReplicaClient); ok {
		w.folder = f.Path()
	}
	return w
}

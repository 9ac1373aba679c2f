package main

import (
	"archive/zip"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/dustin/go-humanize"
	"github.com/spf13/cobra"

	"mallow/replica"
	"mallow/server"
	"mallow/store"
)

func backupCommand() *cobra.Command {
	var data, to string
	c := &cobra.Command{
		Use: "backup", Short: "Copy all jobs into one file, also while Mallow runs", Args: args(cobra.NoArgs),
		Long:    "Copy all jobs into one file and verify the copy. Mallow may run meanwhile: the copy\nis of one moment. Without --to it goes to the backups of the data folder.",
		Example: "  mallow backup --to /media/stick/jobs.db\n  mallow restore /media/stick/jobs.db        on the other machine",
		RunE: func(c *cobra.Command, _ []string) error {
			s, err := store.OpenCopying(c.Context(), filepath.Join(folderOf(data), store.FileName))
			if err != nil {
				return usageError{err}
			}
			defer s.Close() // only read
			v, err := backUp(c.Context(), s, to)
			if err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "%s holds %s, %d revisions, the last of %s: %s, verified.\n",
				v.Path, jobs(v.Jobs), v.Revisions, shownTime(v.Newest), humanize.IBytes(uint64(v.Bytes)))
			return nil
		},
	}
	dataFlag(c, &data)
	c.Flags().StringVar(&to, "to", "", "file to write; one that is there is not written over")
	return c
}

func backUp(ctx context.Context, s *store.Store, to string) (store.Verified, error) {
	if to != "" {
		v, err := s.BackUp(ctx, to)
		if errors.Is(err, os.ErrExist) {
			err = usageError{err}
		}
		return v, err
	}
	b, err := s.BackUpNow(ctx, "asked")
	if err != nil {
		return store.Verified{}, err
	}
	return store.Verify(ctx, b.Path)
}

func jobs(n int) string {
	if n == 1 {
		return "1 job"
	}
	return fmt.Sprintf("%d jobs", n)
}

func shownTime(t time.Time) string {
	if t.IsZero() {
		return "never"
	}
	return t.Local().Format(time.DateTime)
}

func restoreCommand() *cobra.Command {
	var data, from, at string
	var over bool
	c := &cobra.Command{
		Use: "restore [FILE]", Short: "Put jobs from a backup, or a replica, into the data folder", Args: args(cobra.MaximumNArgs(1)),
		Long:    "Verify a backup and put it into the data folder. A folder that holds jobs is left\nalone; with --over what it held is kept beside, under another name.\nWith --from it is a replica that is restored, as it last was or as it was at --at.",
		Example: "  mallow restore /media/stick/jobs.db\n  mallow restore --from /mnt/other/mallow --at \"2026-11-27 14:30\" --data ~/found",
		RunE: func(c *cobra.Command, given []string) error {
			if (len(given) == 0) == (from == "") {
				return usageError{errors.New("name a backup file, or a replica with --from; see mallow restore --help")}
			}
			when, err := moment(at)
			if err != nil {
				return usageError{err}
			}
			if from == "" && at != "" {
				return usageError{errors.New("--at goes with --from: a backup is of one moment")}
			}
			dir, err := dataDir(data)
			if err != nil {
				return err
			}
			lock, err := store.Hold(dir, store.Holder{PID: os.Getpid(), Since: time.Now()})
			if err != nil {
				return usageError{err}
			}
			defer lock.Release() // goes with the process at the latest
			return restore(c.Context(), c.OutOrStdout(), dir, given, from, when, over)
		},
	}
	dataFlag(c, &data)
	c.Flags().StringVar(&from, "from", "", "replica: the folder or address that --replicate was given")
	c.Flags().StringVar(&at, "at", "", "moment to go back to, such as \"2026-11-27 14:30:05\", in this machine's time")
	c.Flags().BoolVar(&over, "over", false, "also into a folder that holds jobs; those are kept beside")
	return c
}

// moment reads a time as a person types it.
func moment(text string) (time.Time, error) {
	if text == "" {
		return time.Time{}, nil
	}
	for _, layout := range []string{time.DateTime, "2006-01-02 15:04", time.RFC3339, time.DateOnly} {
		if t, err := time.ParseInLocation(layout, text, time.Local); err == nil {
			return t, nil
		}
	}
	return time.Time{}, fmt.Errorf("--at %q: a time such as \"2026-11-27 14:30:05\" or 2026-11-27T14:30:05Z", text)
}

func restore(ctx context.Context, out io.Writer, dir string, given []string, from string, at time.Time, over bool) error {
	file := ""
	if from == "" {
		file = given[0]
	} else {
		file = filepath.Join(dir, "mallow-from-replica.db")
		if err := os.RemoveAll(file); err != nil {
			return err
		}
		when, err := replica.Restore(ctx, from, file, at)
		if err != nil {
			return usageError{err}
		}
		defer os.Remove(file)
		fmt.Fprintf(out, "The replica is as of %s.\n", shownTime(when))
	}
	v, kept, err := store.RestoreTo(ctx, file, dir, over)
	switch {
	case errors.Is(err, os.ErrExist):
		return usageError{fmt.Errorf("%w; give --over to put these in its place (those are kept beside), or another folder with --data", err)}
	case err != nil:
		return usageError{err}
	}
	fmt.Fprintf(out, "%s holds %s, %d revisions, the last of %s.\n", dir, jobs(v.Jobs), v.Revisions, shownTime(v.Newest))
	if kept != "" {
		fmt.Fprintf(out, "What it held before is in %s.\n", kept)
	}
	return nil
}

func doctorCommand() *cobra.Command {
	var data, rescue string
	c := &cobra.Command{
		Use: "doctor", Short: "Look the data folder over and say what to do", Args: args(cobra.NoArgs),
		Long: "Say where the jobs are, whether they are whole, how old the backups are and how much\nroom there is; and what to do about what is not well. With --rescue every job that\ncan still be read is written into a zip of job documents.",
		RunE: func(c *cobra.Command, _ []string) error {
			return examine(c.Context(), c.OutOrStdout(), folderOf(data), rescue)
		},
	}
	dataFlag(c, &data)
	c.Flags().StringVar(&rescue, "rescue", "", "zip file to write the jobs that can be read into")
	return c
}

// oldBackup is the age at which the doctor asks for a newer one.
const oldBackup = 8 * 24 * time.Hour

// examine tells how the folder is; the error is that something must be done.
func examine(ctx context.Context, out io.Writer, dir, rescue string) error {
	var todo []string
	line := func(what, format string, a ...any) { fmt.Fprintf(out, "%-12s %s\n", what, fmt.Sprintf(format, a...)) }
	line("Mallow", "%s, data version %d", version, store.Version())
	line("Folder", "%s", dir)
	if free, ok := freeSpace(dir); ok {
		line("Disk", "%s free", humanize.IBytes(free))
		if free < 1<<30 {
			todo = append(todo, "Free some space on the disk: less than 1 GiB is left.")
		}
	}
	if lock, err := store.Hold(dir, store.Holder{}); err == nil {
		line("Server", "none uses the folder")
		_ = lock.Release() // goes with the process at the latest
	} else {
		line("Server", "%v", err)
	}
	list, err := store.BackupsIn(dir)
	if err != nil {
		return err
	}
	if len(list) == 0 {
		line("Backups", "none")
		todo = append(todo, "Make a backup: mallow backup --to FILE, on another disk.")
	} else {
		line("Backups", "%d, the newest %s (%s)", len(list), list[0].Name, humanize.Time(list[0].At))
		if time.Since(list[0].At) > oldBackup {
			todo = append(todo, "The newest backup is "+humanize.Time(list[0].At)+" old: start Mallow, which makes one a day, or run mallow backup.")
		}
		good := 0
		for _, b := range list { // each to its last bit
			if _, err := store.Verify(ctx, b.Path); err != nil {
				line("Backup", "%s: %v", b.Name, err)
				todo = append(todo, fmt.Sprintf("The backup %s cannot be put back. Delete it, and make another one with mallow backup.", b.Path))
			} else {
				good++
			}
		}
		line("Verified", "%d of %d backups, to the last bit", good, len(list))
	}
	for _, at := range replica.Places(dir) {
		if err := replica.Looked(ctx, filepath.Join(dir, store.FileName), at); err != nil {
			line("Replica", "%s: %v", at, err)
			todo = append(todo, "The replica at "+at+" takes nothing: "+err.Error()+".")
		} else {
			line("Replica", "%s takes what is written", at)
		}
	}
	todo = append(todo, examineDatabase(ctx, line, dir, rescue)...)
	if len(todo) == 0 {
		fmt.Fprintln(out, "\nAll is well.")
		return nil
	}
	fmt.Fprintln(out, "\nTo do:")
	for _, t := range todo {
		fmt.Fprintln(out, "- "+t)
	}
	return errUnwell
}

// errUnwell is that the doctor found something; it was said already.
var errUnwell = errors.New("something is to be done, see above")

func examineDatabase(ctx context.Context, line func(string, string, ...any), dir, rescue string) (todo []string) {
	s, err := store.OpenCopying(ctx, filepath.Join(dir, store.FileName))
	if err != nil {
		line("Database", "%v", err)
		return []string{"The database does not open: restore the newest backup with mallow restore FILE --over."}
	}
	defer s.Close() // only read
	if z, err := s.Size(ctx); err == nil {
		line("Database", "%s, of it %s free; %s, %d revisions", humanize.IBytes(uint64(z.Bytes)), humanize.IBytes(uint64(z.Free)), jobs(z.Jobs), z.Revisions)
	} else {
		line("Database", "%v", err)
	}
	if err := s.Look(ctx); err != nil {
		line("Integrity", "%v", err)
		todo = append(todo, "Part of the database is damaged. Stop Mallow, keep a copy of the folder, write what can be read with mallow doctor --rescue FILE.zip, then restore the newest backup.")
	} else {
		line("Integrity", "whole")
	}
	if err := s.Sums(ctx); err != nil {
		line("Checksums", "%v", err)
		todo = append(todo, "What is named is not what was saved. Write what can be read with mallow doctor --rescue FILE.zip, then restore the newest backup that is verified.")
	} else {
		line("Checksums", "every revision is what was saved")
	}
	if t, err := s.Trial(ctx); err != nil {
		line("Trial", "%v", err)
	} else if t.Failed != "" {
		line("Trial", "%s could not be put back %s: %s", t.Name, humanize.Time(t.At), t.Failed)
		todo = append(todo, "The newest backup could not be put back for a trial: look at the disk, and make another one with mallow backup.")
	} else if !t.At.IsZero() {
		line("Trial", "%s was put back with %s, %s", t.Name, jobs(t.Jobs), humanize.Time(t.At))
	}
	if rescue == "" {
		return todo
	}
	n, bad, err := rescueTo(ctx, s, rescue)
	if err != nil {
		return append(todo, fmt.Sprintf("The rescue broke off: %v.", err))
	}
	line("Rescued", "%s into %s, %d could not be read", jobs(n), rescue, bad)
	return todo
}

func rescueTo(ctx context.Context, s *store.Store, file string) (n, bad int, err error) {
	var b strings.Builder
	z := zip.NewWriter(&b)
	if n, bad, err = server.ZipJobs(ctx, z, s); err != nil {
		return n, bad, err
	}
	if err := z.Close(); err != nil {
		return n, bad, err
	}
	return n, bad, writeFile(file, []byte(b.String()))
}

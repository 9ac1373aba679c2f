package main

import (
	"crypto/rand"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
)

// mostFile is the largest file that is read: as much as the server takes.
const mostFile = 4 << 20

// readFile reads a file, or standard input for -, up to mostFile. It never
// holds more than that of it, whatever it is.
func readFile(name string, stdin io.Reader) (raw []byte, err error) {
	from := stdin
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return nil, err
		}
		defer f.Close() // only read
		from = f
	}
	raw, err = io.ReadAll(io.LimitReader(from, mostFile+1))
	if err == nil && len(raw) > mostFile {
		return nil, fmt.Errorf("%s: more than %d MB; a job document or a file of points is smaller", name, mostFile>>20)
	}
	return raw, err
}

// writeFile writes a file beside its place and then renames it, so that
// whoever reads it sees all of it or what was there before.
func writeFile(name string, data []byte) error {
	if info, err := os.Stat(name); err == nil && !info.Mode().IsRegular() {
		return os.WriteFile(name, data, 0o644) // a device or a pipe
	}
	part := filepath.Join(filepath.Dir(name), "."+filepath.Base(name)+"."+strings.ToLower(rand.Text()[:6]))
	f, err := os.OpenFile(part, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o644)
	if err != nil {
		return err
	}
	_, err = f.Write(data)
	if err = errors.Join(err, f.Sync(), f.Close()); err == nil {
		err = os.Rename(part, name)
	}
	if err != nil {
		return errors.Join(err, os.Remove(part))
	}
	return nil
}

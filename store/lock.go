package store

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"time"

	"github.com/gofrs/flock"
)

// lockName is the file whose lock says that a server uses the folder.
const lockName = "mallow.lock"

// Holder is who uses a data folder.
type Holder struct {
	PID     int       `json:"pid"`
	Address string    `json:"address,omitempty"`
	Since   time.Time `json:"since"`
}

// HeldError says that another server uses the folder.
type HeldError struct {
	Folder string
	By     Holder
}

func (e *HeldError) Error() string {
	who := "another Mallow"
	if e.By.PID != 0 {
		who = fmt.Sprintf("process %d, started %s", e.By.PID, e.By.Since.Local().Format(time.DateTime))
		if e.By.Address != "" {
			who += ", at " + e.By.Address
		}
	}
	return fmt.Sprintf("%s is in use by %s; stop that one, or use another folder with --data", e.Folder, who)
}

// Lock is a data folder that is in use. The lock goes with the process,
// however that ends.
type Lock struct{ lock *flock.Flock }

// Hold takes a data folder, or says who has it.
func Hold(folder string, who Holder) (*Lock, error) {
	path := filepath.Join(folder, lockName)
	l := &Lock{flock.New(path, flock.SetPermissions(0o600))}
	got, err := l.lock.TryLock()
	if err != nil {
		return nil, trouble(fmt.Errorf("lock %s: %w", folder, err))
	}
	if !got {
		held := &HeldError{Folder: folder}
		if raw, err := os.ReadFile(path); err == nil {
			_ = json.Unmarshal(raw, &held.By) // who just takes it has not written its name yet
		}
		return nil, held
	}
	return l, l.Say(who)
}

// Say notes who holds the folder, for others to read.
func (l *Lock) Say(who Holder) error {
	raw, err := json.Marshal(who)
	if err != nil {
		return err
	}
	err = trouble(os.WriteFile(l.lock.Path(), raw, 0o600))
	if Is(err, Full) { // it is held all the same, and others do not learn by whom
		return nil
	}
	return err
}

// Release gives the folder back.
func (l *Lock) Release() error { return l.lock.Close() }

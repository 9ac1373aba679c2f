package store

import (
	"context"
	"path/filepath"
	"testing"
)

// The connection that writes is as durable as promised, and those that read
// cannot write.
func TestConnectionsAreAsPromised(t *testing.T) {
	ctx := context.Background()
	s, err := Open(ctx, filepath.Join(t.TempDir(), FileName))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for pragma, want := range map[string]string{"synchronous": "2", "journal_mode": "wal", "foreign_keys": "1", "auto_vacuum": "2", "application_id": "1298952055"} {
		var got string
		if err := s.write.QueryRowContext(ctx, "PRAGMA "+pragma).Scan(&got); err != nil || got != want {
			t.Errorf("%s is %s, want %s (%v)", pragma, got, want, err)
		}
	}
	if _, err := s.read.ExecContext(ctx, "DELETE FROM jobs"); err == nil {
		t.Error("a connection that reads has written")
	}
}

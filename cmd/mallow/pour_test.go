package main

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"mallow/core/stage/pourday"
)

// The pour day of the orchard, by its own weather and by a file that is given; in the
// heat it takes more loads.
func TestPourIsPrinted(t *testing.T) {
	const orchard = "../../demo/jobs/1-tansy-bank.json"
	own, _, err := call("", "pour", orchard)
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{"Order 3.00 yd³, slump 3\" to 4\"", "Load 2", "Compost bays P11", "Braces come off"} {
		if !strings.Contains(own, want) {
			t.Errorf("it does not say %q:\n%.1500s", want, own)
		}
	}
	hot := filepath.Join(t.TempDir(), "hours.csv")
	text := "time,temp\n"
	for day := 3; day < 10; day++ {
		for hour := range 24 {
			text += fmt.Sprintf("2027-06-%02d %02d:00,36\n", day, hour)
		}
	}
	if err := os.WriteFile(hot, []byte(text), 0o600); err != nil {
		t.Fatal(err)
	}
	raw, _, err := call("", "pour", "--json", "--weather", hot, "--offset", "-5", "--start", "2027-06-04", orchard)
	var d pourday.Day
	if err != nil || json.Unmarshal([]byte(raw), &d) != nil || d.Date != "2027-06-04" || len(d.Loads) < 4 || !d.Known {
		t.Errorf("%v: %s, %d loads", err, d.Date, len(d.Loads))
	}
	if table, _, err := call("", "pour", "--csv", orchard); err != nil || !strings.Contains(table, "07:30") || strings.Count(table, "\n") != 34 {
		t.Errorf("as values: %v\n%.300s", err, table)
	}
	for _, wrong := range [][]string{{"--start", "tomorrow"}, {"--weather", orchard}, {"--json", "--csv"}} {
		if _, _, err := call("", append(append([]string{"pour"}, wrong...), orchard)...); err == nil {
			t.Errorf("%v is taken", wrong)
		}
	}
}

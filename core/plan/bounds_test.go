package plan_test

import (
	"encoding/json"
	"errors"
	"math"
	"os"
	"path/filepath"
	"reflect"
	"strconv"
	"strings"
	"testing"
	"time"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/demo"
)

// atBounds sets every number of a value, one after another, to what its limits
// allow at the most and the least, and to numbers that are all but nothing.
func atBounds(v reflect.Value, path, tag string, try func(path string, number float64)) {
	switch v.Kind() {
	case reflect.Pointer:
		if v.IsNil() {
			if k := v.Type().Elem().Kind(); k != reflect.Float64 && k != reflect.Int {
				return
			}
			v.Set(reflect.New(v.Type().Elem()))
			defer v.SetZero()
		}
		atBounds(v.Elem(), path, tag, try)
	case reflect.Slice:
		for i := range min(v.Len(), sized(2, 1)) {
			atBounds(v.Index(i), path+"/"+strconv.Itoa(i), tag, try)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			f := v.Type().Field(i)
			atBounds(v.Field(i), path+"/"+strings.Split(f.Tag.Get("json"), ",")[0], f.Tag.Get("jsonschema"), try)
		}
	case reflect.Float64, reflect.Int:
		was := reflect.New(v.Type()).Elem()
		was.Set(v)
		for _, n := range candidates(tag) {
			if v.Kind() == reflect.Int {
				if n != math.Trunc(n) {
					continue
				}
				v.SetInt(int64(n))
			} else {
				v.SetFloat(n)
			}
			try(path, n)
		}
		v.Set(was)
	}
}

func candidates(tag string) []float64 {
	out := []float64{1e-308}
	if !testing.Short() {
		out = append(out, 0, -1e-308, 1e-9, 1e-3, 1, 1e308)
	}
	for _, rule := range strings.Split(tag, ",") {
		key, value, _ := strings.Cut(rule, "=")
		if n, err := strconv.ParseFloat(value, 64); err == nil && (key == "minimum" || key == "maximum") {
			if out = append(out, n); !testing.Short() {
				out = append(out, math.Nextafter(n, 0), n/2)
			}
		}
	}
	return out
}

// No plan holds a number that is none, whatever one number of the document is,
// as long as the document is taken; and none takes longer than a plan may.
func TestNoNumberBreaksAPlan(t *testing.T) {
	t.Parallel()
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	files, err := filepath.Glob("testdata/cases/*.json")
	if err != nil || len(files) == 0 {
		t.Fatal(files, err)
	}
	for _, f := range files {
		raw, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		docs = append(docs, raw)
	}
	cat := shipped(t)
	tried, planned := 0, 0
	for n, doc := range docs[:min(len(docs), sized(len(docs), 1))] {
		read, _, err := document.Decode(doc, cat)
		if err != nil {
			continue // a case wrapped in its figures
		}
		var j job.Job // numbers are put into it, and what a document leaves out is shared with the catalogue
		if raw, err := json.Marshal(read); err != nil || json.Unmarshal(raw, &j) != nil {
			t.Fatal(err)
		}
		atBounds(reflect.ValueOf(&j).Elem(), "", "", func(path string, number float64) {
			if tried++; tried%sized(1, 7) != 0 { // every number in full, each seventh every day
				return
			}
			raw, err := json.Marshal(j)
			if err != nil {
				t.Fatal(err)
			}
			taken, _, err := document.Decode(raw, cat)
			if err != nil {
				return
			}
			planned++
			late := time.Now().Add(20 * time.Second)
			p, err := plan.MakeUntil(func() error {
				if time.Now().After(late) {
					return errLate
				}
				return nil
			}, taken, cat)
			if err != nil {
				t.Errorf("job %d, %s = %g: %v", n, path, number, err)
			} else if _, err := json.Marshal(p); err != nil {
				t.Errorf("job %d, %s = %g: %v", n, path, number, err)
			}
		})
	}
	t.Logf("%d numbers tried, %d planned", tried, planned)
	if planned < sized(5000, 20) {
		t.Errorf("only %d of %d were planned", planned, tried)
	}
}

var errLate = errors.New("planning takes too long")

// Documents on which planning once broke off, found by searching for the worst.
func TestFoundDocumentsPlan(t *testing.T) {
	files, err := filepath.Glob("testdata/found/*.json")
	if err != nil || len(files) == 0 {
		t.Fatal(files, err)
	}
	for _, f := range files {
		raw, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		j, _, err := document.Decode(raw, shipped(t))
		if err != nil {
			t.Fatalf("%s: %v", f, err)
		}
		if _, err := json.Marshal(plan.Make(j, shipped(t))); err != nil {
			t.Errorf("%s: %v", f, err)
		}
	}
}

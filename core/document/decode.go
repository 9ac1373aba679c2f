// Package document reads, checks, merges and writes job documents: what comes in
// is named by its field, with what was given and what is allowed.
package document

import (
	"encoding/json"
	"math"
	"reflect"
	"sort"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// Usual gives the usual run and gate of a measuring system; what a document
// leaves out is taken from it.
type Usual interface {
	UsualRun(length.System) job.Run
	UsualGate(length.System) job.Gate
	UsualRules(length.System) job.Said
}

// Opened is a job document that was read.
type Opened struct {
	Job job.Job
	// Doc is the document as this version writes it: of its own version, and
	// with an id for every entry of a list.
	Doc []byte
	// Unknown are the JSON pointers of fields that are not known. They stay in
	// the document but are not used.
	Unknown []string
	// Left is what a document of an older version said that this one cannot.
	Left []string

	tree  map[string]any    // shared with what it was edited from: changed on a copy
	parts map[string][]byte // of the tree by name, as they were written last
}

// Open reads and checks a job document, of this version or an older one. What
// it leaves out takes its usual value; what was seen on site is in its place.
// Errors about the document's content are of type Errors.
func Open(doc []byte, usual Usual) (Opened, error) {
	var out Opened
	tree, err := parse(doc)
	if err != nil {
		return out, err
	}
	version, err := versionOf(tree)
	if err != nil {
		return out, err
	}
	if version == 1 {
		out.Left = fromVersion1(tree)
	}
	named := name(tree)
	if errs := out.take(tree, nil, false, usual); len(errs) > 0 {
		return out, sorted(doc, tree, errs)
	}
	if out.Doc = doc; named || version < job.Version {
		err = out.write()
	}
	return out, err
}

// take reads a tree of this version into a job. Facts that are known lead its
// list of them: they were read and checked before. Where only facts came, the
// rest of the job is as it was.
func (o *Opened) take(tree map[string]any, known []job.Fact, factsOnly bool, usual Usual) Errors {
	sys := systemOf(tree)
	b := binder{printed: readable(length.Usual(sys)), usual: func(v reflect.Value) {
		switch at := v.Addr().Interface().(type) {
		case *job.Run:
			*at = usual.UsualRun(sys)
		case *job.Gate:
			*at = usual.UsualGate(sys)
		}
	}}
	j, was := job.Job{}, o.Job
	if fresh := without(tree, len(known)); factsOnly {
		j = was
		b.bind("/observed", fresh["observed"], reflect.ValueOf(&j.Observed).Elem(), anything)
	} else {
		b.object("", fresh, reflect.ValueOf(&j).Elem())
	}
	if len(b.errors) > 0 {
		return b.errors
	}
	j.Observed = append(known[:len(known):len(known)], j.Observed...)
	for _, field := range o.Unknown {
		if factsOnly || len(known) > 0 && strings.HasPrefix(field, "/observed/") {
			b.unknown = append(b.unknown, field)
		}
	}
	sort.Strings(b.unknown)
	j = j.Settled()
	o.tree, o.Job, o.Unknown = tree, j, b.unknown
	if factsOnly && reflect.DeepEqual(was.Lines, j.Lines) {
		return checkObserved(j, len(known)) // they move nothing
	}
	return check(j, len(known))
}

// Decode is Open for those who want the job alone.
func Decode(doc []byte, usual Usual) (job.Job, []string, error) {
	o, err := Open(doc, usual)
	return o.Job, o.Unknown, err
}

// readable prints the limits of lengths: what no tape reaches in kilometres or
// miles.
func readable(u length.Units) func(length.Length) string {
	return func(l length.Length) string {
		switch {
		case l.Abs() < 1000*length.Metre:
			return u.Short(l)
		case u.System == length.Metric:
			return words.Plain("document.km", words.V{"metres": math.Round(l.Metres() / 1000)})
		}
		return words.Plain("document.miles", words.V{"least": math.Floor(l.Metres() / 1609.344)})
	}
}

// systemOf looks ahead for the system, which decides the usual values; the
// binder reports it if it is wrong.
func systemOf(tree map[string]any) length.System {
	units, _ := tree["units"].(map[string]any)
	if units["system"] == string(length.Metric) {
		return length.Metric
	}
	return length.Imperial
}

// versionOf is the version that a document is of, one that can be read.
func versionOf(tree map[string]any) (int, error) {
	given, ok := tree["mallow"]
	if !ok {
		return 0, Errors{{"/mallow", "nothing", words.Plain("document.the-version-of-the", words.V{"version": job.Version})}}
	}
	n, isNumber := given.(json.Number)
	v, err := strconv.ParseFloat(n.String(), 64)
	whole := isNumber && err == nil && v == math.Trunc(v)
	switch {
	case whole && v >= 1 && v <= job.Version:
		return int(v), nil
	case whole && v > job.Version:
		return 0, Errors{{"/mallow", (&binder{}).show(given), words.Plain("document.this-document-was-written", words.V{"version": job.Version})}}
	}
	return 0, Errors{{"/mallow", (&binder{}).show(given), words.Plain("document.versions", words.V{"version": job.Version})}}
}

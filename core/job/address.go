package job

import (
	"strconv"
	"strings"
)

// Everything in a document has an address: the names of the fields that lead
// to it, and in lists the ids of what is gone through, such as
// /lines/L1/runs/R1/gates/G2/at. The place in a list is never an address, so
// that an edit means the same thing whoever wrote what meanwhile. Entries of
// the list kinds are told apart by the kind of post that they are for.

// lists are the fields whose entries have ids.
var lists = map[string]bool{
	"lines": true, "runs": true, "ground": true, "gates": true, "keepOuts": true, "fixedPosts": true, "heldBays": true, "kinds": true, "overrides": true, "offcuts": true,
	"parts": true, "in": true, "out": true, "books": true, "rows": true, "systems": true, "observed": true, "laid": true,
}

// IsList tells whether a field of the document is a list whose entries have
// ids, by which an address goes on.
func IsList(field string) bool { return lists[field] }

// escaped is a name without the letters that a JSON pointer cannot have in it,
// and unescaped the name again.
func escaped(name string) string {
	return strings.ReplaceAll(strings.ReplaceAll(name, "~", "~0"), "/", "~1")
}

func unescaped(name string) string {
	return strings.ReplaceAll(strings.ReplaceAll(name, "~1", "/"), "~0", "~")
}

// At is the address that names lead to, one after another, from another
// address.
func At(path string, names ...string) string {
	for _, n := range names {
		if strings.ContainsAny(n, "~/") {
			n = escaped(n)
		}
		path += "/" + n
	}
	return path
}

// FreeID is an id made of a letter and the first number that is not taken.
func FreeID(letter string, taken func(string) bool) string {
	for n := 1; ; n++ {
		if id := letter + strconv.Itoa(n); !taken(id) {
			return id
		}
	}
}

// Names are the names of an address, one after another.
func Names(path string) []string {
	steps := strings.Split(strings.TrimPrefix(path, "/"), "/")
	for i, s := range steps {
		if strings.IndexByte(s, '~') >= 0 {
			steps[i] = unescaped(s)
		}
	}
	return steps
}

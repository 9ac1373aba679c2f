package document

import (
	"encoding/json"
	"fmt"
	"math"
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// Version 1 of the job document had what was seen on site among what was
// meant: a held post that landed, what a single hole hit, how far a gate had
// dropped. Its lists were addressed by places, and some names were unclear.

// fromVersion1 makes a document of version 1 one of version 2, in place. What
// is not as it must be is left as it is, for the check to refuse. It returns
// what the document said that version 2 cannot.
func fromVersion1(tree map[string]any) (left []string) {
	m := &migration{facts: []any{}}
	tree["mallow"] = json.Number("2")
	m.aside(tree, "", "observed", "notes", "tags")
	if site, ok := tree["site"].(map[string]any); ok {
		m.aside(site, "/site", "customer", "address")
	}
	each(tree["systems"], func(s map[string]any) {
		if spacing, ok := s["spacing"].(map[string]any); ok {
			m.rename(spacing, "/systems/spacing", "odd", "remainder")
		}
	})
	eachAt(tree["lines"], "/lines", func(at string, line map[string]any) {
		eachAt(line["runs"], at+"/runs", m.run)
		eachAt(line["books"], at+"/books", func(at string, book map[string]any) { m.unnamed(book["rows"], at+"/rows") })
	})
	if len(m.facts) > 0 {
		tree["observed"] = m.facts
	}
	return m.left
}

// eachAt goes through the objects of a list, with their addresses.
func eachAt(list any, path string, do func(at string, o map[string]any)) {
	entries, _ := list.([]any)
	for i, e := range entries {
		if o, ok := e.(map[string]any); ok {
			key, ok := keyOf(o)
			if !ok {
				key = nth(i)
			}
			do(job.At(path, key), o)
		}
	}
}

type migration struct {
	facts []any
	left  []string
}

func (m *migration) leave(path, why string, v words.V) {
	m.left = append(m.left, path+": "+words.Plain(why, v))
}

// aside keeps what version 1 did not know under a name that version 2 does not
// know either.
func (m *migration) aside(o map[string]any, path string, names ...string) {
	for _, n := range names {
		v, there := o[n]
		if !there {
			continue
		}
		as := n + ".v1"
		for k := 2; o[as] != nil; k++ {
			as = fmt.Sprintf("%s.v1.%d", n, k)
		}
		o[as] = v
		delete(o, n)
		m.leave(path+"/"+n, "document.kept-as", words.V{"name": as})
	}
}

func (m *migration) rename(o map[string]any, path, from, to string) {
	m.aside(o, path, to)
	if v, there := o[from]; there {
		o[to] = v
		delete(o, from)
	}
}

// unnamed frees the name that ids have now in lists that had none.
func (m *migration) unnamed(list any, path string) {
	entries, _ := list.([]any)
	for i, e := range entries {
		if o, ok := e.(map[string]any); ok {
			m.aside(o, path+"/"+nth(i), "id")
		}
	}
}

func (m *migration) run(at string, run map[string]any) {
	m.aside(run, at, "laid", "named", "notes")
	m.rename(run, at, "spots", "overrides")
	if spacing, ok := run["spacing"].(map[string]any); ok {
		m.rename(spacing, at+"/spacing", "odd", "remainder")
	}
	if str, ok := run["string"].(map[string]any); ok {
		m.rename(str, at+"/string", "school", "position")
	}
	m.unnamed(run["ground"], at+"/ground")
	if grade, ok := run["grade"].(map[string]any); ok {
		m.unnamed(grade["parts"], at+"/grade/parts")
	}
	id, _ := run["id"].(string)
	stands := &stands{run: id}
	eachAt(run["fixedPosts"], at+"/fixedPosts", func(at string, post map[string]any) { m.landed(at, post, stands) })
	eachAt(run["overrides"], at+"/overrides", func(at string, hole map[string]any) { m.hit(at, hole, stands) })
	eachAt(run["gates"], at+"/gates", func(at string, gate map[string]any) {
		m.unnamed(gate["in"], at+"/in")
		m.unnamed(gate["out"], at+"/out")
		m.sag(at, gate, id)
	})
	if len(stands.laid) > 0 {
		run["laid"] = stands.laid
		run["named"] = json.Number(strconv.Itoa(len(stands.laid)))
	}
}

// stands are the posts of a run that facts are about.
type stands struct {
	run  string
	laid []any
	hits []float64 // stations of single holes so far
}

// post names one more post, at a station.
func (s *stands) post(at json.Number, by string) string {
	id := fmt.Sprintf("%s.%d", s.run, len(s.laid)+1)
	entry := map[string]any{"id": id, "at": at}
	if by != "" {
		entry["by"] = by
	}
	s.laid = append(s.laid, entry)
	return id
}

// fact adds a fact about something at a station, or at none.
func (m *migration) fact(on string, what job.Seen, more map[string]any) {
	f := map[string]any{"id": fmt.Sprintf("f%d", len(m.facts)+1), "on": on, "what": string(what)}
	for name, v := range more {
		f[name] = v
	}
	m.facts = append(m.facts, f)
}

func (m *migration) landed(path string, post map[string]any, s *stands) {
	v, there := post["landed"]
	if !there {
		return
	}
	landed, isBool := v.(bool)
	if !isBool {
		m.aside(post, path, "landed")
		return
	}
	at, ok := post["at"].(json.Number)
	id, named := keyOf(post)
	delete(post, "landed")
	if landed && ok && named {
		on := job.On("post", s.post(at, job.HeldBy(id)))
		m.fact(on, job.Landed, map[string]any{"at": at})
	}
}

func (m *migration) hit(path string, hole map[string]any, s *stands) {
	m.aside(hole, path, "settled")
	at, placed := hole["at"].(json.Number)
	station, _ := at.Float64()
	before := false // another single hole at the same station is the one that counts
	for _, h := range s.hits {
		before = before || math.Abs(h-station) <= float64(length.Tolerance)
	}
	s.hits = append(s.hits, station)
	hit, ok := hole["hit"].(map[string]any)
	if !ok {
		if hole["hit"] != nil {
			m.aside(hole, path, "hit")
		}
		delete(hole, "hit")
		return
	}
	what, _ := hit["what"].(string)
	depth, deep := hit["depth"].(json.Number)
	if !placed || !deep || what != string(job.SeenRock) && what != string(job.SeenWater) && what != string(job.SeenRoot) {
		m.aside(hole, path, "hit")
		return
	}
	delete(hole, "hit")
	if settled, there := hit["settled"]; there {
		hole["settled"] = settled
	}
	on := job.On("post", s.post(at, ""))
	if before {
		m.leave(path+"/hit", "document.second-hole", nil)
		m.fact(on, job.Noted, map[string]any{"at": at, "note": what + " " + depth.String() + " mm"})
		return
	}
	m.fact(on, job.Seen(what), map[string]any{"at": at, "value": depth})
	for name := range hit {
		if name != "what" && name != "depth" && name != "settled" {
			m.leave(path+"/hit/"+name, "document.kept-as", words.V{"name": name + ".v1"})
			hole[name+".v1"] = hit[name]
		}
	}
}

func (m *migration) sag(path string, gate map[string]any, run string) {
	v, there := gate["sag"]
	if !there {
		return
	}
	drop, ok := v.(json.Number)
	id, named := keyOf(gate)
	if !ok || !named {
		m.aside(gate, path, "sag")
		return
	}
	delete(gate, "sag")
	if n, err := drop.Float64(); err != nil || n != 0 {
		m.fact(job.On("gate", run, id), job.Sagged, map[string]any{"value": drop})
	}
}

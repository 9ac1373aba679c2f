package calls_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"

	"mallow/catalog"
	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/plan"
)

func core(t testing.TB) *calls.Core {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return &calls.Core{Catalog: cat}
}

func answered(t testing.TB, c *calls.Core, call string, request []byte) []byte {
	t.Helper()
	var out []byte
	if err := c.Answer(func() error { return nil }, call, request, func(b []byte) error { out = b; return nil }); err != nil {
		t.Fatalf("%s: %v", call, err)
	}
	return out
}

// What is kept of the calls before changes no answer: a core that has heard all
// of a drag answers as one that hears of the job for the first time, also when
// many ask it at once.
func TestKeptResultsChangeNoAnswer(t *testing.T) {
	docs := dragged(t, 24)
	used := core(t)
	var wait sync.WaitGroup
	for _, call := range []string{"plan", "tell", "bill"} {
		for _, doc := range docs {
			want := answered(t, core(t), call, doc)
			if got := answered(t, used, call, doc); !bytes.Equal(got, want) {
				t.Fatalf("%s is another one after others", call)
			}
			wait.Go(func() {
				if got := answered(t, used, call, doc); !bytes.Equal(got, want) {
					t.Errorf("%s is another one among others", call)
				}
			})
		}
	}
	wait.Wait()
}

// Numbers are sent with ten digits: a plan that is read back differs from the
// one that was made by less than that, and no word of it.
func TestNumbersAreSentShort(t *testing.T) {
	doc := dragged(t, 1)[0]
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	j, _, err := document.Decode(doc, cat)
	if err != nil {
		t.Fatal(err)
	}
	r, err := plan.Compute(nil, j, cat, nil)
	if err != nil {
		t.Fatal(err)
	}
	whole, err := json.Marshal(r.Figures())
	if err != nil {
		t.Fatal(err)
	}
	sent := answered(t, core(t), "plan", doc)
	if len(sent) > len(whole)*9/10 {
		t.Errorf("%d bytes are sent of %d", len(sent), len(whole))
	}
	var a, b any
	if json.Unmarshal(sent, &a) != nil || json.Unmarshal(whole, &b) != nil {
		t.Fatal("not read back")
	}
	numbers := 0
	var same func(path string, a, b any)
	same = func(path string, a, b any) {
		switch b := b.(type) {
		case map[string]any:
			for k := range b {
				same(path+"/"+k, a.(map[string]any)[k], b[k])
			}
		case []any:
			for i := range b {
				same(path, a.([]any)[i], b[i])
			}
		case float64:
			if numbers++; math.Abs(a.(float64)-b) > 1e-9*math.Abs(b) {
				t.Errorf("%s: %v is sent for %v", path, a, b)
			}
		default:
			if a != b {
				t.Errorf("%s: %v is sent for %v", path, a, b)
			}
		}
	}
	same("", a, b)
	if numbers < 2000 {
		t.Errorf("only %d numbers were compared", numbers)
	}
}

// What cannot be answered says what is wrong, and whose it is to mend.
func TestCallsThatCannotBeAnswered(t *testing.T) {
	c := core(t)
	doc := string(dragged(t, 1)[0])
	for _, bad := range []struct {
		call, request string
		status        int
		says          string
	}{
		{"guess", "{}", 422, "advise, alternatives, amend, bill"},
		{"plan", "no JSON", 422, "JSON"},
		{"plan", `{"mallow":9}`, 422, "newer Mallow"},
		{"table", "[", 400, "not the JSON that belongs here"},
		{"table", `{} {}`, 400, "something follows it"},
		{"table", `{"doc":` + doc + `,"table":"holes","run":"R9","from":0,"most":9}`, 422, "/run"},
		{"table", `{"doc":` + doc + `,"table":"🦊","run":"R1","from":0,"most":9}`, 422, "setout, posts"},
		{"table", `{"doc":` + doc + `,"table":"holes","run":"R1","from":-1,"most":9}`, 422, "/most"},
		{"table", `{"doc":` + doc + `,"table":"holes","run":"R1","from":0,"most":1000000}`, 422, "/most"},
		{"explain", `{"doc":` + doc + `,"figure":{"of":"moon"}}`, 422, "/figure"},
		{"alternatives", `{"doc":` + doc + `,"run":"R9"}`, 422, "/run"},
		{"reshape", `{"doc":` + doc + `,"op":{"do":"fly"}}`, 422, ""},
		{"ways", `{"doc":` + doc + `,"run":"R1","post":"P3"}`, 422, "/post"},
		{"pegs", `{"farA":1,"farB":2}`, 422, "/farB"},
	} {
		err := c.Answer(func() error { return nil }, bad.call, []byte(bad.request), func([]byte) error {
			t.Errorf("%s was answered", bad.call)
			return nil
		})
		p, ok := calls.ProblemOf(err)
		if raw, _ := json.Marshal(p); !ok || p.Status != bad.status || !strings.Contains(string(raw), bad.says) {
			t.Errorf("%s %.40s: %v, %s", bad.call, bad.request, err, raw)
		}
	}
	stopped := errors.New("stopped")
	err := core(t).Answer(func() error { return stopped }, "plan", []byte(doc), func([]byte) error { return nil })
	if !errors.Is(err, stopped) {
		t.Errorf("a call that is stopped: %v", err)
	}
	if _, ok := calls.ProblemOf(err); ok {
		t.Error("a call that is stopped is nobody's to mend")
	}
	if n := calls.Names(); len(n) < 13 || !slices.IsSorted(n) {
		t.Errorf("%v", n)
	}
}

// A table is sent page by page, and past its end there is nothing.
func TestRowsOfATable(t *testing.T) {
	c := core(t)
	doc := string(dragged(t, 1)[0])
	rows := func(from, most string) (out calls.TableRows) {
		raw := answered(t, c, "table", []byte(`{"doc":`+doc+`,"table":"posts","run":"R1","from":`+from+`,"most":`+most+`}`))
		if err := json.Unmarshal(raw, &out); err != nil {
			t.Fatal(err)
		}
		return out
	}
	all := rows("0", "500")
	if len(all.Rows) != all.Count || all.Count < 18 {
		t.Fatalf("%d rows of %d", len(all.Rows), all.Count)
	}
	if part := rows("5", "3"); len(part.Rows) != 3 || part.Rows[0].Post != all.Rows[5].Post || part.Count != all.Count {
		t.Errorf("%+v", part)
	}
	if past := rows("99", "3"); len(past.Rows) != 0 || past.Rows == nil {
		t.Errorf("%+v", past.Rows)
	}
}

// A plan that is put together of what changed is the whole plan, whoever asks
// in between; and most of a drag is left out.
func TestReplannedIsPlanned(t *testing.T) {
	used, whole := core(t), core(t)
	type run struct {
		ID string `json:"id"`
	}
	var had map[string]json.RawMessage
	after, sent, full := 0, 0, 0
	for i, doc := range slices.Concat(dragged(t, 12), dragged(t, 3)) {
		if i == 7 { // somebody else asks
			answered(t, used, "replan", []byte(`{"doc":`+string(doc)+`,"after":0}`))
		}
		raw := answered(t, used, "replan", []byte(`{"doc":`+string(doc)+`,"after":`+strconv.Itoa(after)+`}`))
		var re struct {
			Number int
			Runs   []string
			Plan   map[string]json.RawMessage
		}
		if err := json.Unmarshal(raw, &re); err != nil {
			t.Fatal(err)
		}
		var changed []json.RawMessage
		if err := json.Unmarshal(re.Plan["runs"], &changed); err != nil {
			t.Fatal(err)
		}
		fresh := map[string]json.RawMessage{}
		for _, one := range changed {
			var r run
			if err := json.Unmarshal(one, &r); err != nil {
				t.Fatal(err)
			}
			fresh[r.ID] = one
		}
		runs := []json.RawMessage{}
		for _, id := range re.Runs {
			if fresh[id] == nil {
				fresh[id] = had[id]
			}
			runs = append(runs, fresh[id])
		}
		var err error
		if re.Plan["runs"], err = json.Marshal(runs); err != nil {
			t.Fatal(err)
		}
		var got, want any
		put, err := json.Marshal(re.Plan)
		if err != nil {
			t.Fatal(err)
		}
		all := answered(t, whole, "plan", doc)
		if json.Unmarshal(put, &got) != nil || json.Unmarshal(all, &want) != nil || !reflect.DeepEqual(got, want) {
			t.Fatalf("document %d: what is put together is another plan", i)
		}
		if i > 0 && i != 7 {
			sent, full = sent+len(raw), full+len(all)
		}
		had, after = fresh, re.Number
	}
	if sent > full*2/3 {
		t.Errorf("%d bytes are sent of %d", sent, full)
	}
}

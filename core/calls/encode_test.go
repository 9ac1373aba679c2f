package calls

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"math/rand"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/plan"
	"mallow/core/scene"
	"mallow/demo/demotest"
)

// alike holds that two JSON texts are the same, token by token, but for digits
// of numbers that are not sent.
func alike(t *testing.T, what string, got, want []byte) {
	t.Helper()
	a, b := json.NewDecoder(bytes.NewReader(got)), json.NewDecoder(bytes.NewReader(want))
	for n := 0; ; n++ {
		x, errX := a.Token()
		y, errY := b.Token()
		if errors.Is(errX, io.EOF) && errors.Is(errY, io.EOF) {
			return
		}
		if errX != nil || errY != nil {
			t.Fatalf("%s: token %d: %v, %v", what, n, errX, errY)
		}
		p, isNumber := x.(float64)
		q, other := y.(float64)
		if isNumber && other && math.Abs(p-q) <= 6e-10*max(math.Abs(q), 1e-3) {
			continue
		}
		if x != y {
			t.Fatalf("%s: token %d is %v, want %v, before …%s", what, n, x, y, got[max(0, a.InputOffset()-80):a.InputOffset()])
		}
	}
}

// Answers are what encoding/json would write: the same fields in the same
// order, with the same left out.
func TestAnswersAreAsTheLibraryWritesThem(t *testing.T) {
	cat, docs := demotest.Catalog(t), demotest.Documents(t)
	for n, raw := range docs {
		j, _, err := document.Decode(raw, cat)
		if err != nil {
			t.Fatal(err)
		}
		r, err := plan.Compute(nil, j, cat, nil)
		if err != nil {
			t.Fatal(err)
		}
		told, err := r.Tell(nil)
		if err != nil {
			t.Fatal(err)
		}
		run := r.Figures().Runs[0].ID
		d, err := scene.Of(r.Figures(), View{Of: scene.OfMap, Run: run, Stress: scene.Strings, Frame: scene.Frame{Width: 900, Height: 500}}, scene.Screen)
		if err != nil {
			t.Fatal(err)
		}
		for _, v := range []any{r.Figures(), plan.Make(j, cat), told, r.Bill(), Drawn{Drawings: []*scene.Drawing{&d, nil}}} {
			got, err := figures(v)
			if err != nil {
				t.Fatal(err)
			}
			want, err := json.Marshal(v)
			if err != nil {
				t.Fatal(err)
			}
			alike(t, fmt.Sprintf("job %d, %T", n, v), got, want)
			if len(got) > len(want) {
				t.Errorf("%T takes %d bytes, by the library %d", v, len(got), len(want))
			}
		}
	}
}

// What is rare is written too: words that need escapes, maps, types that hold
// themselves, fields within fields, what is left out and what is not.
func TestRareValues(t *testing.T) {
	type inner struct {
		Name string `json:"name"`
		Both int    `json:"both"`
	}
	type outer struct {
		inner
		Both   string             `json:"both"`
		Empty  []int              `json:"empty,omitempty"`
		Null   []int              `json:"null"`
		Map    map[string]float64 `json:"map"`
		Any    map[string]any     `json:"any,omitempty"`
		Self   *outer             `json:"self,omitempty"`
		Raw    json.RawMessage    `json:"raw"`
		Bytes  []byte             `json:"bytes"`
		hidden int
		Plain  bool
		Skip   int `json:"-"`
	}
	v := outer{inner: inner{"a \"b\" <果>\u2028\x01", 3}, Both: "x", Map: map[string]float64{"b": 1.5, "a&": -0.25}, Raw: []byte(`{"k": [1,2]}`), Bytes: []byte("hi"), Any: map[string]any{"n": nil, "v": []any{1, "s", true}}, Skip: 1, hidden: 1}
	v.Self = &outer{Plain: true, Raw: []byte("null")}
	got, err := figures(v)
	if err != nil {
		t.Fatal(err)
	}
	want, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	if string(got) != string(want) {
		t.Errorf("written\n%s, want\n%s", got, want)
	}
	for _, bad := range []any{math.NaN(), []float64{1, math.Inf(-1)}} {
		if _, err := figures(bad); err == nil {
			t.Errorf("%v is sent", bad)
		}
	}
}

// A number is sent with ten digits, and none that says nothing.
func TestNumbersAreShort(t *testing.T) {
	for v, want := range map[float64]string{
		0: "0", math.Copysign(0, -1): "0", 1: "1", -12: "-12", 0.5: "0.5", -2.25: "-2.25", 0.1 + 0.2: "0.3", 1234.5: "1234.5", 100: "100", 1.0 / 3: "0.3333333333", 200.0 / 3: "66.66666667",
		9.99999999999: "10", 0.001: "0.001", 0.0010000001: "0.0010000001", 1e15: "1e+15", 123456789.125: "123456789.1", 1234567890.5: "1234567890", 1.005: "1.005", 10.05: "10.05", 3.0000005: "3.0000005",
	} {
		w := &writer{}
		if w.number(v); string(w.b) != want {
			t.Errorf("%v is sent as %s, want %s", v, w.b, want)
		}
	}
	rng := rand.New(rand.NewSource(3))
	for range 200_000 {
		v := (rng.Float64() - 0.5) * math.Pow(10, float64(rng.Intn(24)-10))
		if rng.Intn(3) == 0 {
			v = math.Round(v*1000) / 1000
		}
		w := &writer{}
		w.number(v)
		var back float64
		if err := json.Unmarshal(w.b, &back); err != nil {
			t.Fatalf("%v is sent as %s: %v", v, w.b, err)
		}
		if math.Abs(back-v) > 6e-10*max(math.Abs(v), 1e-3) {
			t.Fatalf("%v is sent as %s", v, w.b)
		}
		if d := strings.TrimLeft(strings.TrimLeft(string(w.b), "-0."), "0"); len(strings.ReplaceAll(strings.Split(d, "e")[0], ".", "")) > 15 || strings.Contains(d, ".") && strings.HasSuffix(d, "0") && !strings.Contains(d, "e") {
			t.Fatalf("%v is sent as %s", v, w.b)
		}
	}
}

// Of what is not there any more nothing is drawn; a frame that makes no sense
// is refused, and so are too many drawings at once.
func TestDrawings(t *testing.T) {
	cat, docs := demotest.Catalog(t), demotest.Documents(t)
	ask := func(views ...View) (out struct {
		Drawings []json.RawMessage `json:"drawings"`
	}, err error) {
		c := &Core{Catalog: cat}
		request, err := json.Marshal(DrawRequest{Doc: docs[0], Views: views})
		if err != nil {
			t.Fatal(err)
		}
		err = c.Answer(nil, "draw", request, func(answer []byte) error { return json.Unmarshal(answer, &out) })
		return out, err
	}
	frame := scene.Frame{Width: 300, Height: 200}
	out, err := ask(View{Of: scene.OfStick, Run: "R1", Frame: frame}, View{Of: scene.OfFront, Run: "R1", Gate: "gone", Frame: frame})
	if err != nil || len(out.Drawings) != 2 || string(out.Drawings[0]) == "null" || string(out.Drawings[1]) != "null" {
		t.Errorf("%v, %s", err, out.Drawings)
	}
	var fields document.Errors
	for _, v := range []View{{Of: scene.OfStick, Run: "R1"}, {Of: "moods", Run: "R1", Frame: frame}} {
		if _, err := ask(v); !errors.As(err, &fields) || fields[0].Allowed == "" {
			t.Errorf("%v is answered: %v", v, err)
		}
	}
	if _, err := ask(make([]View, mostViews+1)...); !errors.As(err, &fields) || fields[0].Field != "/views" {
		t.Errorf("too many views: %v", err)
	}
}

package exchange_test

import (
	"bufio"
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strconv"
	"strings"
	"testing"

	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/scene"
	"mallow/exchange"
)

// pairs reads a DXF file's codes and values.
func pairs(t *testing.T, data []byte) [][2]string {
	t.Helper()
	var out [][2]string
	lines := bufio.NewScanner(bytes.NewReader(data))
	for lines.Scan() {
		code := strings.TrimSpace(lines.Text())
		if _, err := strconv.Atoi(code); err != nil || !lines.Scan() {
			t.Fatalf("%q is no group code, or has no value", code)
		}
		out = append(out, [2]string{code, lines.Text()})
	}
	return out
}

// A DXF file is pairs of codes and values in sections that end, with real
// lengths in the job's unit; words in any script are ASCII in it.
func TestDXFInRealUnits(t *testing.T) {
	pic := scene.Drawing{X: scene.Axis{Zero: 5, Scale: 0.1}, Y: scene.Axis{Zero: 7, Scale: 0.1}}
	pic.Layers = []scene.Layer{{Class: scene.Post, Shapes: []scene.Shape{{Points: []float64{0, 0, 3048, -1524}}}}}
	pic.Labels = []scene.Placed{{Class: scene.Name, X: 35.48, Y: -53.96, Lines: []reason.Text{reason.Say("P1 果\n½")}}}
	for system, per := range map[length.System]float64{length.Imperial: 304.8, length.Metric: 1000} {
		list := pairs(t, exchange.DXF("x.dxf", pic, length.Usual(system)).Data)
		sections, ends := 0, 0
		var x, words []string
		entities := false
		for _, p := range list {
			switch {
			case p == [2]string{"0", "SECTION"}:
				sections++
			case p == [2]string{"0", "ENDSEC"}:
				ends++
			case p == [2]string{"2", "ENTITIES"}:
				entities = true
			case entities && p[0] == "10":
				x = append(x, p[1])
			case entities && p[0] == "1":
				words = append(words, p[1])
			}
		}
		if sections != 3 || ends != 3 || list[len(list)-1] != [2]string{"0", "EOF"} {
			t.Errorf("%d sections, %d ends, last %v", sections, ends, list[len(list)-1])
		}
		if got, _ := strconv.ParseFloat(x[1], 64); len(x) != 3 || got < 3048/per-1e-6 || got > 3048/per+1e-6 {
			t.Errorf("%s: stations %v", system, x)
		}
		if at, _ := strconv.ParseFloat(x[2], 64); at < 304.8/per-1e-6 || at > 304.8/per+1e-6 {
			t.Errorf("%s: the name stands at %v", system, x[2])
		}
		if len(words) != 1 || words[0] != `P1 \U+679C \U+00BD` {
			t.Errorf("words %q", words)
		}
	}
}

// SVG is well-formed whatever a run is called, with a group for each layer.
func TestSVGIsWellFormed(t *testing.T) {
	pic := scene.Drawing{Width: 10, Height: 10, X: scene.Axis{Scale: 1}, Y: scene.Axis{Scale: 1}, Labels: []scene.Placed{{Class: scene.Name, Lines: []reason.Text{reason.Say(`<b> & "果" ]]>`)}}}}
	for _, p := range []scene.Drawing{pic, {X: scene.Axis{Scale: 1}, Y: scene.Axis{Scale: 1}}} {
		dec := xml.NewDecoder(bytes.NewReader(exchange.SVG("x.svg", p, length.Usual(length.Metric)).Data))
		groups, said := 0, ""
		for {
			token, err := dec.Token()
			if errors.Is(err, io.EOF) {
				break
			}
			if err != nil {
				t.Fatal(err)
			}
			switch v := token.(type) {
			case xml.StartElement:
				if v.Name.Local == "g" {
					groups++
				}
			case xml.CharData:
				said += strings.TrimSpace(string(v))
			}
		}
		if groups != 12 || len(p.Labels) > 0 && said != `<b> & "果" ]]>` {
			t.Errorf("%d groups, words %q", groups, said)
		}
	}
}

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
	"mallow/drawing"
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
	var pic drawing.Picture
	pic.Paths = []drawing.Path{{Layer: drawing.Posts, Points: []drawing.Point{{X: 0, Y: 0}, {X: 3048, Y: -1524}}}}
	pic.Texts = []drawing.Text{{Layer: drawing.Names, At: drawing.Point{X: 304.8, Y: 609.6}, Words: "P1 果\n½", Size: 8}}
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
		if len(words) != 1 || words[0] != `P1 \U+679C \U+00BD` {
			t.Errorf("words %q", words)
		}
	}
}

// SVG is well-formed whatever a run is called, with a group for each layer.
func TestSVGIsWellFormed(t *testing.T) {
	pic := drawing.Picture{Texts: []drawing.Text{{Layer: drawing.Names, Words: `<b> & "果" ]]>`, Size: 8}}}
	for _, p := range []drawing.Picture{pic, {}} {
		dec := xml.NewDecoder(bytes.NewReader(exchange.SVG("x.svg", p).Data))
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
		if groups != len(drawing.Layers) || len(p.Texts) > 0 && said != pic.Texts[0].Words {
			t.Errorf("%d groups, words %q", groups, said)
		}
	}
}

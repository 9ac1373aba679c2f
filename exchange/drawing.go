package exchange

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"strconv"

	"mallow/core/length"
	"mallow/drawing"
)

// DXF writes a picture as a DXF drawing of release 12, which every drawing
// program reads: lines, areas and words on named layers, in metres or feet.
func DXF(name string, pic drawing.Picture, u length.Units) Written {
	d := dxf{per: float64(length.Metre)}
	if u.System == length.Imperial {
		d.per = float64(length.Foot)
	}
	d.header(pic)
	d.tables()
	d.group(0, "SECTION")
	d.group(2, "ENTITIES")
	for _, p := range pic.Paths {
		d.path(p)
	}
	for _, t := range pic.Texts {
		d.text(t)
	}
	d.group(0, "ENDSEC")
	d.group(0, "EOF")
	return Written{name, "image/vnd.dxf", d.Bytes()}
}

// dxf is a drawing as it is written: groups of a code and a value.
type dxf struct {
	bytes.Buffer
	per float64 // millimetres of its unit
}

func (d *dxf) group(code int, value string) { fmt.Fprintf(d, "%3d\n%s\n", code, value) }

// point writes a place under a code and the one ten above it.
func (d *dxf) point(code int, at drawing.Point) {
	d.group(code, d.number(at.X))
	d.group(code+10, d.number(at.Y))
}

func (d *dxf) number(v float64) string { return strconv.FormatFloat(v/d.per, 'f', 6, 64) }

func (d *dxf) header(pic drawing.Picture) {
	d.group(0, "SECTION")
	d.group(2, "HEADER")
	d.group(9, "$ACADVER")
	d.group(1, "AC1009")
	if low, high, ok := pic.Bounds(); ok {
		d.group(9, "$EXTMIN")
		d.point(10, low)
		d.group(9, "$EXTMAX")
		d.point(10, high)
	}
	d.group(0, "ENDSEC")
}

// tables names the kinds of line and the layers.
func (d *dxf) tables() {
	d.group(0, "SECTION")
	d.group(2, "TABLES")
	d.group(0, "TABLE")
	d.group(2, "LTYPE")
	d.group(70, "2")
	for _, t := range []struct{ name, says string }{{"CONTINUOUS", "Solid"}, {"DASHED", "Dashed"}} {
		d.group(0, "LTYPE")
		d.group(2, t.name)
		d.group(70, "0")
		d.group(3, t.says)
		d.group(72, "65")
		if t.name == "DASHED" {
			d.group(73, "2")
			d.group(40, "0.3")
			d.group(49, "0.2")
			d.group(49, "-0.1")
			continue
		}
		d.group(73, "0")
		d.group(40, "0")
	}
	d.group(0, "ENDTAB")
	d.group(0, "TABLE")
	d.group(2, "LAYER")
	d.group(70, strconv.Itoa(len(drawing.Layers)))
	for _, l := range drawing.Layers {
		d.group(0, "LAYER")
		d.group(2, string(l))
		d.group(70, "0")
		d.group(62, "7")
		d.group(6, "CONTINUOUS")
	}
	d.group(0, "ENDTAB")
	d.group(0, "ENDSEC")
}

func (d *dxf) path(p drawing.Path) {
	d.group(0, "POLYLINE")
	d.group(8, string(p.Layer))
	if p.Dash {
		d.group(6, "DASHED")
	}
	d.group(66, "1")
	if p.Closed {
		d.group(70, "1")
	}
	for _, q := range p.Points {
		d.group(0, "VERTEX")
		d.group(8, string(p.Layer))
		d.point(10, q)
	}
	d.group(0, "SEQEND")
	d.group(8, string(p.Layer))
}

func (d *dxf) text(t drawing.Text) {
	d.group(0, "TEXT")
	d.group(8, string(t.Layer))
	d.point(10, t.At)
	d.group(40, d.number(t.Size*dxfLetter))
	d.group(1, dxfWords(t.Words))
	if t.Anchor != drawing.Start {
		d.group(72, map[drawing.Anchor]string{drawing.Middle: "1", drawing.End: "2"}[t.Anchor])
		d.point(11, t.At)
	}
}

// dxfLetter is how high a letter of one point is drawn, millimetres of the
// real thing: a name of 8 points is 200 mm high.
const dxfLetter = 25

// dxfWords writes what is not ASCII as \U+XXXX, which release 12's successors
// read whatever their code page.
func dxfWords(s string) string {
	var b bytes.Buffer
	for _, r := range s {
		switch {
		case r < ' ':
			b.WriteByte(' ')
		case r < 127:
			b.WriteRune(r)
		case r <= 0xffff:
			fmt.Fprintf(&b, `\U+%04X`, r)
		default:
			b.WriteByte('?')
		}
	}
	return b.String()
}

// SVG writes a picture as SVG, in millimetres of the real thing, a group for
// each layer.
func SVG(name string, pic drawing.Picture) Written {
	low, high, ok := pic.Bounds()
	if !ok {
		low, high = drawing.Point{}, drawing.Point{X: 1, Y: 1}
	}
	const around = 800
	n := func(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
	var b bytes.Buffer
	b.WriteString(xml.Header)
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s" font-family="sans-serif">`+"\n", n(low.X-around), n(-high.Y-around), n(high.X-low.X+2*around), n(high.Y-low.Y+2*around))
	for _, layer := range drawing.Layers {
		fmt.Fprintf(&b, `<g id="%s" stroke="#000" fill="none">`+"\n", layer)
		for _, p := range pic.Paths {
			if p.Layer != layer {
				continue
			}
			b.WriteString(`<path d="`)
			for i, q := range p.Points {
				fmt.Fprintf(&b, "%s%s %s", map[bool]string{true: "M", false: "L"}[i == 0], n(q.X), n(-q.Y))
			}
			if p.Closed {
				b.WriteByte('Z')
			}
			b.WriteByte('"')
			if p.Fill > 0 && p.Closed {
				grey := int(255 * (1 - p.Fill))
				fmt.Fprintf(&b, ` fill="rgb(%d,%d,%d)"`, grey, grey, grey)
			}
			if p.Dash {
				b.WriteString(` stroke-dasharray="160 120"`)
			}
			fmt.Fprintf(&b, ` stroke-width="%s"/>`+"\n", n(p.Width*40))
		}
		for _, t := range pic.Texts {
			if t.Layer != layer {
				continue
			}
			anchor := map[drawing.Anchor]string{drawing.Start: "start", drawing.Middle: "middle", drawing.End: "end"}[t.Anchor]
			fmt.Fprintf(&b, `<text x="%s" y="%s" font-size="%s" text-anchor="%s" fill="#000" stroke="none">`, n(t.At.X), n(-t.At.Y-t.Up*30), n(t.Size*dxfLetter), anchor)
			_ = xml.EscapeText(&b, []byte(t.Words)) // a buffer takes what it is given
			b.WriteString("</text>\n")
		}
		b.WriteString("</g>\n")
	}
	b.WriteString("</svg>\n")
	return Written{name, "image/svg+xml", b.Bytes()}
}

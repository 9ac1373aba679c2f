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
	per := float64(length.Metre)
	if u.System == length.Imperial {
		per = float64(length.Foot)
	}
	var b bytes.Buffer
	group := func(code int, value string) { fmt.Fprintf(&b, "%3d\n%s\n", code, value) }
	number := func(v float64) string { return strconv.FormatFloat(v/per, 'f', 6, 64) }
	group(0, "SECTION")
	group(2, "HEADER")
	group(9, "$ACADVER")
	group(1, "AC1009")
	if low, high, ok := pic.Bounds(); ok {
		for _, c := range []struct {
			name string
			at   drawing.Point
		}{{"$EXTMIN", low}, {"$EXTMAX", high}} {
			group(9, c.name)
			group(10, number(c.at.X))
			group(20, number(c.at.Y))
		}
	}
	group(0, "ENDSEC")
	group(0, "SECTION")
	group(2, "TABLES")
	group(0, "TABLE")
	group(2, "LTYPE")
	group(70, "2")
	for _, t := range []struct{ name, says string }{{"CONTINUOUS", "Solid"}, {"DASHED", "Dashed"}} {
		group(0, "LTYPE")
		group(2, t.name)
		group(70, "0")
		group(3, t.says)
		group(72, "65")
		if t.name == "DASHED" {
			group(73, "2")
			group(40, "0.3")
			group(49, "0.2")
			group(49, "-0.1")
			continue
		}
		group(73, "0")
		group(40, "0")
	}
	group(0, "ENDTAB")
	group(0, "TABLE")
	group(2, "LAYER")
	group(70, strconv.Itoa(len(drawing.Layers)))
	for _, l := range drawing.Layers {
		group(0, "LAYER")
		group(2, string(l))
		group(70, "0")
		group(62, "7")
		group(6, "CONTINUOUS")
	}
	group(0, "ENDTAB")
	group(0, "ENDSEC")
	group(0, "SECTION")
	group(2, "ENTITIES")
	for _, p := range pic.Paths {
		group(0, "POLYLINE")
		group(8, string(p.Layer))
		if p.Dash {
			group(6, "DASHED")
		}
		group(66, "1")
		if p.Closed {
			group(70, "1")
		}
		for _, q := range p.Points {
			group(0, "VERTEX")
			group(8, string(p.Layer))
			group(10, number(q.X))
			group(20, number(q.Y))
		}
		group(0, "SEQEND")
		group(8, string(p.Layer))
	}
	for _, t := range pic.Texts {
		group(0, "TEXT")
		group(8, string(t.Layer))
		group(10, number(t.At.X))
		group(20, number(t.At.Y))
		group(40, number(t.Size*dxfLetter))
		group(1, dxfWords(t.Words))
		if t.Anchor != drawing.Start {
			group(72, map[drawing.Anchor]string{drawing.Middle: "1", drawing.End: "2"}[t.Anchor])
			group(11, number(t.At.X))
			group(21, number(t.At.Y))
		}
	}
	group(0, "ENDSEC")
	group(0, "EOF")
	return Written{name, "image/vnd.dxf", b.Bytes()}
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

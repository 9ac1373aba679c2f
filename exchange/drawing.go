package exchange

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"math"
	"strconv"

	"mallow/core/length"
	"mallow/core/scene"
)

// layers are the named layers of a drawing, which drawing programs switch on
// and off, and what lies on each.
var layers = []struct {
	name    string
	classes []scene.Class
}{
	{"GROUND", []scene.Class{scene.Ground, scene.Soil, scene.GroundLine, scene.Finished}},
	{"FROST", []scene.Class{scene.Frost, scene.FrostLine}},
	{"FOOTINGS", []scene.Class{scene.Fill, scene.Hole, scene.Inside, scene.Pin, scene.Below, scene.Core}},
	{"POSTS", []scene.Class{scene.Post, scene.Corner, scene.Stays, scene.Held, scene.Ring}},
	{"FENCE", []scene.Class{scene.Bay, scene.Far, scene.Rail, scene.Piece, scene.Board, scene.Infill, scene.Line, scene.Current, scene.Top, scene.Joint}},
	{"GATES", []scene.Class{scene.Leaf, scene.Strut, scene.Tie, scene.Jamb, scene.Hinge, scene.HingeUp, scene.HingeDown, scene.Latch}},
	{"SWINGS", []scene.Class{scene.Swept, scene.Struck, scene.RunBack}},
	{"STRINGS", []scene.Class{scene.String, scene.LowString, scene.Sight, scene.Tied, scene.BatterBoard, scene.Diagonal}},
	{"IN-THE-WAY", []scene.Class{scene.InTheWay, scene.Service, scene.Flag, scene.OldPost, scene.Hand, scene.Hits, scene.Odd}},
	{"AS-BUILT", []scene.Class{scene.Cross}},
	{"MEASURES", []scene.Class{scene.Measure, scene.Gap}},
	{"NAMES", []scene.Class{scene.Name}},
}

// layerOf is the layer of each class.
var layerOf = func() map[scene.Class]string {
	out := map[scene.Class]string{}
	for _, l := range layers {
		for _, c := range l.classes {
			out[c] = l.name
		}
	}
	return out
}()

// dashed are the classes whose lines are broken.
var dashed = map[scene.Class]bool{scene.FrostLine: true, scene.Finished: true, scene.Below: true, scene.Swept: true, scene.Struck: true, scene.RunBack: true, scene.Hand: true, scene.Odd: true, scene.LowString: true, scene.Sight: true, scene.Diagonal: true}

// on is the layer that something lies on.
func on(c scene.Class) string {
	if name, ok := layerOf[c]; ok {
		return name
	}
	return "MEASURES"
}

// outline is one line or area in millimetres.
type outline struct {
	layer  string
	class  scene.Class
	points []scene.Point
	closed bool
}

// outlines are all lines and areas of a drawing, marks and measures among them.
func outlines(d *scene.Drawing) []outline {
	var out []outline
	for _, l := range d.Layers {
		for _, s := range l.Shapes {
			o := outline{layer: on(l.Class), class: l.Class, closed: l.Area}
			for i := 0; i < len(s.Points); i += 2 {
				o.points = append(o.points, scene.Point{X: s.Points[i], Y: s.Points[i+1]})
			}
			out = append(out, o)
		}
	}
	for _, m := range d.Marks {
		for _, s := range scene.Sign(m) {
			o := outline{layer: on(m.Class), class: m.Class, closed: s.Closed}
			for i := 0; i < len(s.Points); i += 2 {
				o.points = append(o.points, scene.Point{X: m.At.X + s.Points[i]/d.X.Scale, Y: m.At.Y + s.Points[i+1]/d.Y.Scale})
			}
			out = append(out, o)
		}
	}
	for i := range d.Labels {
		for _, r := range d.Labels[i].Rules(d) {
			out = append(out, outline{layer: "MEASURES", class: scene.Measure, points: []scene.Point{d.Real(r[0], r[1]), d.Real(r[2], r[3])}})
		}
	}
	return out
}

// DXF writes a drawing as a DXF drawing of release 12, which every drawing
// program reads: lines, areas and words on named layers, in metres or feet.
func DXF(name string, pic scene.Drawing, u length.Units) Written {
	d := dxf{per: float64(length.Metre)}
	if u.System == length.Imperial {
		d.per = float64(length.Foot)
	}
	all := outlines(&pic)
	d.header(all)
	d.tables()
	d.group(0, "SECTION")
	d.group(2, "ENTITIES")
	for _, o := range all {
		d.path(o)
	}
	for i := range pic.Labels {
		d.text(&pic, &pic.Labels[i], u)
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
func (d *dxf) point(code int, at scene.Point) {
	d.group(code, d.number(at.X))
	d.group(code+10, d.number(at.Y))
}

func (d *dxf) number(v float64) string { return strconv.FormatFloat(v/d.per, 'f', 6, 64) }

func (d *dxf) header(all []outline) {
	d.group(0, "SECTION")
	d.group(2, "HEADER")
	d.group(9, "$ACADVER")
	d.group(1, "AC1009")
	if low, high, ok := extent(all); ok {
		d.group(9, "$EXTMIN")
		d.point(10, low)
		d.group(9, "$EXTMAX")
		d.point(10, high)
	}
	d.group(0, "ENDSEC")
}

func extent(all []outline) (low, high scene.Point, ok bool) {
	low, high = scene.Point{X: math.Inf(1), Y: math.Inf(1)}, scene.Point{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, o := range all {
		for _, p := range o.points {
			low.X, low.Y = min(low.X, p.X), min(low.Y, p.Y)
			high.X, high.Y = max(high.X, p.X), max(high.Y, p.Y)
		}
	}
	return low, high, len(all) > 0
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
	d.group(70, strconv.Itoa(len(layers)))
	for _, l := range layers {
		d.group(0, "LAYER")
		d.group(2, l.name)
		d.group(70, "0")
		d.group(62, "7")
		d.group(6, "CONTINUOUS")
	}
	d.group(0, "ENDTAB")
	d.group(0, "ENDSEC")
}

func (d *dxf) path(o outline) {
	d.group(0, "POLYLINE")
	d.group(8, o.layer)
	if dashed[o.class] {
		d.group(6, "DASHED")
	}
	d.group(66, "1")
	if o.closed {
		d.group(70, "1")
	}
	for _, q := range o.points {
		d.group(0, "VERTEX")
		d.group(8, o.layer)
		d.point(10, q)
	}
	d.group(0, "SEQEND")
	d.group(8, o.layer)
}

// text writes a label, line by line.
func (d *dxf) text(pic *scene.Drawing, p *scene.Placed, u length.Units) {
	for i, line := range p.Lines {
		size := scene.Normal
		if p.Strong && i == 0 {
			size = scene.Strong
		}
		at := pic.Real(p.X, p.Y+float64(i)*scene.Normal*1.22)
		d.group(0, "TEXT")
		d.group(8, on(p.Class))
		d.point(10, at)
		d.group(40, d.number(size/pic.X.Scale*0.72)) // of a capital letter
		d.group(1, dxfWords(line.Print(u)))
		if p.Turn != 0 {
			d.group(50, strconv.FormatFloat(-p.Turn, 'f', 2, 64))
		}
		if p.Anchor != "start" {
			d.group(72, map[string]string{"middle": "1", "end": "2"}[p.Anchor])
			d.point(11, at)
		}
	}
}

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

// SVG writes a drawing as SVG, in millimetres of the real thing, a group for
// each layer.
func SVG(name string, pic scene.Drawing, u length.Units) Written {
	all := outlines(&pic)
	low, high := pic.Real(0, pic.Height), pic.Real(pic.Width, 0)
	n := func(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
	pixel := 1 / pic.X.Scale
	var b bytes.Buffer
	b.WriteString(xml.Header)
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s" font-family="sans-serif">`+"\n", n(low.X), n(-high.Y), n(high.X-low.X), n(high.Y-low.Y))
	for _, layer := range layers {
		fmt.Fprintf(&b, `<g id="%s" stroke="#000" fill="none" stroke-width="%s">`+"\n", layer.name, n(pixel))
		for _, o := range all {
			if o.layer == layer.name {
				svgPath(&b, o, pixel)
			}
		}
		for i := range pic.Labels {
			if p := &pic.Labels[i]; on(p.Class) == layer.name {
				svgText(&b, &pic, p, u)
			}
		}
		b.WriteString("</g>\n")
	}
	b.WriteString("</svg>\n")
	return Written{name, "image/svg+xml", b.Bytes()}
}

// svgFills are the areas that are not white.
var svgFills = map[scene.Class]string{scene.Post: "#e0e0e0", scene.Fill: "#f0f0f0", scene.Infill: "#e6e6e6"}

func svgPath(b *bytes.Buffer, o outline, pixel float64) {
	n := func(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
	if o.class == scene.Ground || o.class == scene.Soil || o.class == scene.Frost {
		return // white
	}
	fmt.Fprintf(b, `<path class="%s" d="`, o.class)
	for i, q := range o.points {
		fmt.Fprintf(b, "%s%s %s", map[bool]string{true: "M", false: "L"}[i == 0], n(q.X), n(-q.Y))
	}
	if o.closed {
		b.WriteByte('Z')
	}
	b.WriteByte('"')
	if fill := svgFills[o.class]; fill != "" && o.closed {
		fmt.Fprintf(b, ` fill="%s"`, fill)
	}
	if dashed[o.class] {
		fmt.Fprintf(b, ` stroke-dasharray="%s %s"`, n(9*pixel), n(6*pixel))
	}
	b.WriteString("/>\n")
}

func svgText(b *bytes.Buffer, pic *scene.Drawing, p *scene.Placed, u length.Units) {
	n := func(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
	for i, line := range p.Lines {
		size := scene.Normal
		if p.Strong && i == 0 {
			size = scene.Strong
		}
		at := pic.Real(p.X, p.Y+float64(i)*scene.Normal*1.22)
		turn := ""
		if p.Turn != 0 {
			turn = fmt.Sprintf(` transform="rotate(%s %s %s)"`, n(p.Turn), n(at.X), n(-at.Y))
		}
		fmt.Fprintf(b, `<text x="%s" y="%s" font-size="%s" text-anchor="%s" fill="#000" stroke="none"%s>`, n(at.X), n(-at.Y), n(size/pic.X.Scale), p.Anchor, turn)
		_ = xml.EscapeText(b, []byte(line.Print(u))) // a buffer takes what it is given
		b.WriteString("</text>\n")
	}
}

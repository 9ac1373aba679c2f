package paper

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"strconv"
	"strings"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// PDF writes a document. Told is called after each page, with how many there
// are; an error from it stops the writing, so that it can be given up.
func (d Document) PDF(told func(done, of int) error) ([]byte, error) {
	f := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: d.Size.Width, Ht: d.Size.Height}})
	f.SetMargins(0, 0, 0)
	f.SetAutoPageBreak(false, 0)
	f.SetTitle(d.Title, true)
	f.SetCreator("Mallow", true)
	f.SetCreationDate(d.Stamp.Date)
	f.SetModificationDate(d.Stamp.Date)
	f.SetCatalogSort(true)
	f.AddUTF8FontFromBytes("go", "", goregular.TTF)
	f.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	for i, p := range d.Pages {
		f.AddPage()
		for _, line := range p.Lines {
			pdfLine(f, line)
		}
		for _, w := range p.Words {
			style := ""
			if w.Bold {
				style = "B"
			}
			f.SetFont("go", style, w.Size)
			if w.Turn == 0 {
				f.Text(w.X, w.Y, w.Text)
				continue
			}
			f.TransformBegin()
			f.TransformRotate(-w.Turn, w.X, w.Y)
			f.Text(w.X, w.Y, w.Text)
			f.TransformEnd()
		}
		if told != nil {
			if err := told(i+1, len(d.Pages)); err != nil {
				return nil, err
			}
		}
	}
	var b bytes.Buffer
	if err := f.Output(&b); err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}

func pdfLine(f *fpdf.Fpdf, line Line) {
	if len(line.Points) < 2 {
		return
	}
	f.SetLineWidth(line.Width)
	if line.Dash {
		f.SetDashPattern([]float64{1.6, 1.2}, 0)
	} else {
		f.SetDashPattern(nil, 0)
	}
	f.MoveTo(line.Points[0][0], line.Points[0][1])
	for _, p := range line.Points[1:] {
		f.LineTo(p[0], p[1])
	}
	style := "D"
	if line.White {
		f.ClosePath()
		f.SetFillColor(255, 255, 255)
		f.DrawPath("F")
		return
	}
	if line.Closed {
		f.ClosePath()
		if line.Fill > 0 {
			grey := int(255 * (1 - line.Fill))
			f.SetFillColor(grey, grey, grey)
			if style = "FD"; line.Width == 0 {
				style = "F"
			}
		}
	}
	f.DrawPath(style)
}

// SVG draws one page. Words are as wide as they were laid out, whatever font
// they are shown in.
func (d Document) SVG(page int) []byte {
	p := d.Pages[page]
	var b bytes.Buffer
	n := func(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %s %s" width="%smm" height="%smm" font-family="Archivo Variable, Go, sans-serif">`, n(d.Size.Width), n(d.Size.Height), n(d.Size.Width), n(d.Size.Height))
	fmt.Fprintf(&b, `<rect width="100%%" height="100%%" fill="#fff"/>`)
	for _, line := range p.Lines {
		var path strings.Builder
		for i, q := range line.Points {
			if i == 0 {
				path.WriteString("M")
			} else {
				path.WriteString("L")
			}
			path.WriteString(n(q[0]) + " " + n(q[1]))
		}
		fill := "none"
		if line.White {
			fill = "#fff"
		}
		if line.Closed {
			path.WriteString("z")
			if line.Fill > 0 {
				grey := int(255 * (1 - line.Fill))
				fill = fmt.Sprintf("rgb(%d,%d,%d)", grey, grey, grey)
			}
		}
		dash := ""
		if line.Dash {
			dash = ` stroke-dasharray="1.6 1.2"`
		}
		fmt.Fprintf(&b, `<path d="%s" fill="%s" stroke="%s" stroke-width="%s"%s/>`, path.String(), fill, map[bool]string{true: "none", false: "#000"}[line.White], n(line.Width), dash)
	}
	for _, w := range p.Words {
		weight := ""
		if w.Bold {
			weight = ` font-weight="700"`
		}
		turn := ""
		if w.Turn != 0 {
			turn = fmt.Sprintf(` transform="rotate(%s %s %s)"`, n(w.Turn), n(w.X), n(w.Y))
		}
		fmt.Fprintf(&b, `<text x="%s" y="%s" font-size="%s"%s%s textLength="%s" lengthAdjust="spacingAndGlyphs">`, n(w.X), n(w.Y), n(w.Size*point), weight, turn, n(w.Width))
		_ = xml.EscapeText(&b, []byte(w.Text)) // a buffer takes what it is given
		b.WriteString("</text>")
	}
	b.WriteString("</svg>")
	return b.Bytes()
}

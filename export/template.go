package export

import (
	"fmt"
	"math"

	"brevium/export/drawings"
)

// Templates are printed true to size: small pieces share a page, a larger one has its own, and
// what is larger still is tiled, with crosses by which the pages are laid over each other.

const (
	tileMargin  = 10.0 // printers leave so much white
	tileOverlap = 10.0
	tileFoot    = 14.0 // for the ruler
	blockGap    = 7.0  // between pieces that share a page
	leastTitle  = 55.0 // how wide a title is over a small piece
)

// how high lines are over a template, of its title and of a warning
const titleLine, warnLine = 4.6, 3.4

// block is a drawing that lies on a page under its title.
type block struct {
	d     drawings.Drawing
	at    drawings.Point // where it lies on its page
	title []string
	w, h  float64
}

// templates sets drawings on as few pages as their order allows.
func (p *paper) templates(all []drawings.Drawing) error {
	for _, d := range all {
		if err := d.Check(); err != nil {
			return err
		}
	}
	var shelf, page []block
	var x, high, down float64 // how far the shelf is filled, how deep it is, and what lies over it
	wide := p.w - 2*tileMargin
	flush := func() {
		if len(page) > 0 {
			p.shared(page)
		}
		shelf, page, x, high, down = nil, nil, 0, 0, 0
	}
	for _, d := range all {
		if d.Count > 1 {
			d.Says += fmt.Sprintf(" (%d are made)", d.Count)
		}
		most := p.tileRoom(d, 0)
		b, ok := p.block(d, wide, most)
		if !ok {
			flush()
			p.tiled(d)
			continue
		}
		if len(shelf) > 0 && x+b.w > wide {
			shelf, x, down, high = nil, 0, down+high+blockGap, 0
		}
		if len(page) > 0 && down+max(high, b.h) > most {
			flush()
		}
		b.at = drawings.Point{X: x, Y: down}
		shelf, page = append(shelf, b), append(page, b)
		x, high = x+b.w+blockGap, max(high, b.h)
	}
	flush()
	return nil
}

// block lays a drawing under its title, turned if it only goes on the page so; ok is false where
// it is too large either way.
func (p *paper) block(d drawings.Drawing, wide, high float64) (b block, ok bool) {
	p.font(true, 10)
	for _, d := range []drawings.Drawing{d, d.Turned()} {
		over := min(wide, max(d.W, leastTitle))
		b := block{d: d, title: p.wrap(d.Says, over), w: max(d.W, over)}
		if b.h = titleLine*float64(len(b.title)) + d.H; d.W <= wide+1e-9 && b.h <= high+1e-9 {
			return b, true
		}
	}
	return b, false
}

// tileRoom is how high a page is below its warning and so many lines of title.
func (p *paper) tileRoom(d drawings.Drawing, titles int) float64 {
	warn := p.warning(d, p.w-2*tileMargin)
	return p.h - 2*tileMargin - tileFoot - titleLine*float64(titles) - warnLine*float64(len(warn))
}

// shared is a page of one or several pieces, each under its title.
func (p *paper) shared(all []block) {
	p.templatePage(all[0].d.Warn, func(top float64) {
		for _, b := range all {
			x, y := tileMargin+b.at.X, top+b.at.Y
			p.titled(b.title, x, y)
			y += titleLine * float64(len(b.title))
			p.within("Figure", b.d.Says+", true to size", func() { p.drawing(b.d, x, y) })
		}
	})
}

// warning is what stands over each page of a plan that isn't proved, in lines: all of it, where
// that leaves two thirds of the page to the piece.
func (p *paper) warning(d drawings.Drawing, wide float64) []string {
	if d.Warn == "" {
		return nil
	}
	p.font(true, 8)
	lines := p.wrap(d.Warn, wide)
	if most := int(p.h / 3 / warnLine); len(lines) > most {
		lines = append(lines[:most-1], "… and more: see the project sheet.")
	}
	return lines
}

func (p *paper) titled(lines []string, x, y float64) {
	p.font(true, 10)
	p.within("H2", "", func() {
		for i, l := range lines {
			p.put(x, y+titleLine*(float64(i)+0.7), l)
		}
	})
}

// templatePage is a page with its warning, if there is one, and its ruler.
func (p *paper) templatePage(warn string, write func(top float64)) {
	margin, was, foot := p.margin, p.warn, p.foot
	p.margin, p.warn, p.foot = tileMargin, "", ""
	p.turn()
	p.margin, p.warn, p.foot = margin, was, foot
	p.corrected(func() { p.templateOn(warn, write) })
}

func (p *paper) templateOn(warn string, write func(top float64)) {
	top := tileMargin
	if lines := p.warning(drawings.Drawing{Warn: warn}, p.w-2*tileMargin); len(lines) > 0 {
		p.pdf.SetTextColor(156, 53, 32)
		p.within("P", "", func() {
			p.font(true, 8)
			for i, line := range lines {
				p.put(tileMargin, top+2.6+warnLine*float64(i), line)
			}
		})
		p.pdf.SetTextColor(42, 37, 32)
		top += warnLine * float64(len(lines))
	}
	write(top)
	p.artifact(func() { p.ruler(tileMargin, p.h-tileMargin-tileFoot+4) })
}

// drawing draws all lines of a drawing, its corner at a place of the page.
func (p *paper) drawing(d drawings.Drawing, x, y float64) {
	for _, kind := range drawings.Kinds {
		for _, path := range d.Paths {
			if path.Kind == kind {
				p.path(path, x, y)
			}
		}
	}
}

// path draws one line true to size, its piece beginning at a place on the page.
func (p *paper) path(path drawings.Path, dx, dy float64) {
	pdf := p.pdf
	pdf.SetDashPattern(nil, 0)
	pdf.SetLineCapStyle("butt")
	does := "D"
	switch path.Kind {
	case drawings.Cut, drawings.Hole:
		pdf.SetDrawColor(42, 37, 32)
		pdf.SetLineWidth(0.3)
	case drawings.Valley:
		pdf.SetDrawColor(123, 75, 42)
		pdf.SetLineWidth(0.25)
		pdf.SetDashPattern([]float64{4, 1.2}, 0)
	case drawings.Mountain:
		pdf.SetDrawColor(123, 75, 42)
		pdf.SetLineWidth(0.5)
		pdf.SetLineCapStyle("round")
		pdf.SetDashPattern([]float64{0.01, 1.4}, 0)
	case drawings.Bend:
		pdf.SetDrawColor(123, 75, 42)
		pdf.SetLineWidth(0.12)
	case drawings.GlueIn:
		pdf.SetFillColor(47, 111, 115)
		does = "F"
	case drawings.GlueOut:
		pdf.SetDrawColor(47, 111, 115)
		pdf.SetLineWidth(0.2)
	case drawings.Mark:
		pdf.SetDrawColor(156, 53, 32)
		pdf.SetLineWidth(0.3)
	case drawings.Name:
		p.font(false, 8)
		pdf.SetTextColor(101, 91, 78)
		p.put(path.Points[0].X+dx-p.wide(path.Text)/2, path.Points[0].Y+dy+1, path.Text)
		pdf.SetTextColor(42, 37, 32)
		return
	}
	if path.Round > 0 {
		p.circle(path.Points[0].X+dx, path.Points[0].Y+dy, path.Round/2, does)
		return
	}
	for i, q := range path.Points {
		if i == 0 {
			pdf.MoveTo(q.X+dx, q.Y+dy)
		} else {
			pdf.LineTo(q.X+dx, q.Y+dy)
		}
	}
	if path.Closed {
		pdf.ClosePath()
	}
	pdf.DrawPath(does)
}

// circle draws a round in eight curves, true to a hundred-thousandth of its radius: the
// package's own has six and is a third of a hundredth small between them.
func (p *paper) circle(x, y, r float64, does string) {
	const n = 8
	reach := r * 4 / 3 * math.Tan(math.Pi/(2*n))
	p.pdf.MoveTo(x+r, y)
	for i := range n {
		s0, c0 := math.Sincos(2 * math.Pi * float64(i) / n)
		s1, c1 := math.Sincos(2 * math.Pi * float64(i+1) / n)
		p.pdf.CurveBezierCubicTo(x+r*c0-reach*s0, y+r*s0+reach*c0, x+r*c1+reach*s1, y+r*s1-reach*c1, x+r*c1, y+r*s1)
	}
	p.pdf.ClosePath()
	p.pdf.DrawPath(does)
}

// ruler is what a printed page is checked against: 100 mm and 4 in.
func (p *paper) ruler(x, y float64) {
	pdf := p.pdf
	pdf.SetDrawColor(42, 37, 32)
	pdf.SetLineWidth(0.2)
	pdf.SetDashPattern(nil, 0)
	pdf.Line(x, y, x+100, y)
	for i := 0; i <= 100; i += 5 {
		long := 2.0
		if i%10 == 0 {
			long = 3.2
		}
		pdf.Line(x+float64(i), y, x+float64(i), y+long)
	}
	pdf.Line(x, y+5, x+101.6, y+5)
	for i := 0; i <= 16; i++ {
		long := 1.2
		if i%4 == 0 {
			long = 2.2
		}
		pdf.Line(x+float64(i)*6.35, y+5, x+float64(i)*6.35, y+5+long)
	}
	p.font(false, 7.5)
	pdf.SetTextColor(42, 37, 32)
	if !p.printer.True() {
		p.put(x, y+10.8, p.fitted(p.printer.Says(), 101))
	}
	for i, says := range []string{"100 mm; below it 4 in. Print at 100 %, not “fit to page”, and lay a",
		"ruler on this before you cut. Line: cut; dashes: valley; beads:", "mountain; dots: glue on this side; rings: on the other side."} {
		p.put(x+105, y+1.5+3.1*float64(i), says)
	}
}

package export

import (
	"fmt"
	"math"

	"brevium/core/plan"
)

// Templates are printed true to size: a piece a page where it goes on one, else tiled, with
// marks by which the pages are laid over each other.

const (
	tileMargin  = 10.0 // printers leave so much white
	tileOverlap = 10.0
	tileHead    = 9.0  // for what the page says, at the least
	tileFoot    = 14.0 // for the ruler
)

// templates adds pages with every piece of a job true to size.
func (p *paper) templates(j plan.Job) {
	for _, d := range Drawings(j) {
		if d.Count > 1 {
			d.Says += fmt.Sprintf(" (%d are made)", d.Count)
		}
		p.template(d)
	}
}

// template sets a drawing on as few pages as it needs, lying or turned.
func (p *paper) template(d Drawing) {
	wide := p.w - 2*tileMargin
	warn := p.warning(d, wide)
	p.font(true, 10)
	title := p.wrap(d.Says+" · page A1 of A1", wide)
	head := max(tileHead, titleLine*float64(len(title))+warnLine*float64(len(warn)))
	high := p.h - 2*tileMargin - head - tileFoot
	nx, ny := tiles(d.W, wide), tiles(d.H, high)
	if tx, ty := tiles(d.H, wide), tiles(d.W, high); tx*ty < nx*ny {
		turned := d
		turned.W, turned.H, turned.Paths = d.H, d.W, nil
		for _, path := range d.Paths {
			path.Points = append([]Point(nil), path.Points...)
			turned.Paths = append(turned.Paths, path)
		}
		turned.place(turned.Paths, func(q Point) Point { return Point{d.H - q.Y, q.X} })
		d, nx, ny = turned, tx, ty
	}
	for y := range ny {
		for x := range nx {
			p.tile(d, warn, x, y, nx, ny, wide, high)
		}
	}
}

// tiles is how many pages a length takes, each lying over the one before.
func tiles(size, page float64) int {
	if size <= page+1e-9 {
		return 1
	}
	return 1 + int(math.Ceil((size-page)/(page-tileOverlap)-1e-9))
}

// how high lines are over a template, of its title and of a warning
const titleLine, warnLine = 4.6, 3.4

// warning is what stands over each page of a plan that isn't proved, in lines: all of it, where
// that leaves two thirds of the page to the piece.
func (p *paper) warning(d Drawing, wide float64) []string {
	if d.Warn == "" {
		return nil
	}
	p.font(true, 8)
	lines := p.wrap(d.Warn, wide)
	if most := int(p.h / 3 / warnLine); len(lines) > most {
		lines = append(lines[:most-1], "… and more: the project sheet has all of it.")
	}
	return lines
}

func (p *paper) tile(d Drawing, warn []string, x, y, nx, ny int, wide, high float64) {
	margin, top, foot := p.margin, p.warn, p.foot
	p.margin, p.warn, p.foot = tileMargin, "", ""
	p.turn()
	says := d.Says
	if nx*ny > 1 {
		says += fmt.Sprintf(" · page %c%d of %c%d", 'A'+y%26, x+1, 'A'+(ny-1)%26, nx)
	}
	p.lines("H2", "text", "B", 10, says)
	if len(warn) > 0 {
		p.pdf.SetTextColor(156, 53, 32)
		p.within("P", "", func() {
			p.font(true, 8)
			for i, line := range warn {
				p.pdf.Text(tileMargin, p.y+2.6+warnLine*float64(i), line)
			}
		})
		p.pdf.SetTextColor(42, 37, 32)
	}
	p.margin, p.warn, p.foot = margin, top, foot
	left, above := tileMargin, p.h-tileMargin-tileFoot-high
	x0, y0 := float64(x)*(wide-tileOverlap), float64(y)*(high-tileOverlap)
	p.within("Figure", d.Says+", true to size", func() {
		p.pdf.ClipRect(left-1, above-1, wide+2, high+2, false)
		for _, kind := range Kinds {
			for _, path := range d.Paths {
				if path.Kind == kind {
					p.path(path, left-x0, above-y0)
				}
			}
		}
		p.pdf.ClipEnd()
	})
	p.artifact(func() {
		p.joins(left, above, wide, high, x, y, nx, ny)
		p.ruler(left, p.h-tileMargin-tileFoot+4)
	})
}

// path draws one line true to size, its piece beginning at a place on the page.
func (p *paper) path(path Path, dx, dy float64) {
	pdf := p.pdf
	pdf.SetDashPattern(nil, 0)
	pdf.SetLineCapStyle("butt")
	does := "D"
	switch path.Kind {
	case Cut, Hole:
		pdf.SetDrawColor(42, 37, 32)
		pdf.SetLineWidth(0.3)
	case Valley:
		pdf.SetDrawColor(123, 75, 42)
		pdf.SetLineWidth(0.25)
		pdf.SetDashPattern([]float64{4, 1.2}, 0)
	case Mountain:
		pdf.SetDrawColor(123, 75, 42)
		pdf.SetLineWidth(0.5)
		pdf.SetLineCapStyle("round")
		pdf.SetDashPattern([]float64{0.01, 1.4}, 0)
	case Bend:
		pdf.SetDrawColor(123, 75, 42)
		pdf.SetLineWidth(0.12)
	case GlueIn:
		pdf.SetFillColor(47, 111, 115)
		does = "F"
	case GlueOut:
		pdf.SetDrawColor(47, 111, 115)
		pdf.SetLineWidth(0.2)
	case Mark:
		pdf.SetDrawColor(156, 53, 32)
		pdf.SetLineWidth(0.3)
	case Name:
		p.font(false, 8)
		pdf.SetTextColor(101, 91, 78)
		text := p.legible(path.Text)
		pdf.Text(path.Points[0].X+dx-pdf.GetStringWidth(text)/2, path.Points[0].Y+dy+1, text)
		pdf.SetTextColor(42, 37, 32)
		return
	}
	if path.Round > 0 {
		pdf.Circle(path.Points[0].X+dx, path.Points[0].Y+dy, path.Round/2, does)
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

// joins marks where the next page lies over this one: crosses at the corners of the overlap,
// and a dotted edge.
func (p *paper) joins(left, top, wide, high float64, x, y, nx, ny int) {
	pdf := p.pdf
	pdf.SetDrawColor(101, 91, 78)
	pdf.SetLineWidth(0.15)
	pdf.SetLineCapStyle("butt")
	edge := func(x1, y1, x2, y2 float64) {
		pdf.SetDashPattern([]float64{0.6, 1.6}, 0)
		pdf.Line(x1, y1, x2, y2)
		pdf.SetDashPattern(nil, 0)
		for _, at := range []Point{{x1, y1}, {x2, y2}} {
			pdf.Line(at.X-3, at.Y, at.X+3, at.Y)
			pdf.Line(at.X, at.Y-3, at.X, at.Y+3)
		}
	}
	if x > 0 {
		edge(left+tileOverlap, top, left+tileOverlap, top+high)
	}
	if x+1 < nx {
		edge(left+wide-tileOverlap, top, left+wide-tileOverlap, top+high)
	}
	if y > 0 {
		edge(left, top+tileOverlap, left+wide, top+tileOverlap)
	}
	if y+1 < ny {
		edge(left, top+high-tileOverlap, left+wide, top+high-tileOverlap)
	}
	pdf.SetDashPattern(nil, 0)
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
	for i, says := range []string{"100 mm; below it 4 in. Print at 100 %, not “fit to page”, and lay a",
		"ruler on this before you cut. Line: cut; dashes: valley; beads:", "mountain; dots: glue on this side; rings: on the other side."} {
		pdf.Text(x+105, y+1.5+3.1*float64(i), says)
	}
}

package export

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/words"
)

// Printer is how true a printer is: how long what should be 1 comes out, across the page and down it, and its name. The
// zero Printer prints true.
type Printer struct {
	Name         string
	Across, Down float64
}

// Farthest is how far from 1 a printer's scale may be: beyond it the page was fitted to the paper.
const Farthest = 0.05

// True reports whether nothing is to be corrected.
func (r Printer) True() bool { return r.Across == 0 && r.Down == 0 }

// Says is the correction in words.
func (r Printer) Says() string {
	return fmt.Sprintf("For the printer “%s” only, which prints %s across and %s down", r.Name, Percent(r.Across), Percent(r.Down))
}

// Percent writes a share with one decimal place, as 99.2 %.
func Percent(share float64) string { return fmt.Sprintf("%.1f %%", share*100) }

// corrected writes part of a page so that it comes out true on this paper's printer: larger where the printer prints
// small. Both keep the middle of the page.
func (p *paper) corrected(write func()) {
	if p.printer.True() {
		write()
		return
	}
	p.pdf.TransformBegin()
	p.pdf.TransformScale(100/p.printer.Across, 100/p.printer.Down, p.w/2, p.h/2)
	write()
	p.pdf.TransformEnd()
}

// The two lines of the test page, from end mark to end mark.
var testLines = map[measure.Unit][2]measure.Length{
	measure.Millimetres: {180 * measure.Millimetre, 240 * measure.Millimetre},
	measure.Inches:      {7 * measure.Inch, 9 * measure.Inch},
}

// TestLines are how long the two lines of the test page should be, across and down.
func TestLines(unit measure.Unit) (across, down measure.Length) {
	l, ok := testLines[unit]
	if !ok {
		l = testLines[measure.Millimetres]
	}
	return l[0], l[1]
}

// TestPage writes the page by which a printer's scale is measured: a line across and a line down, with the marks of a
// ruler. With a printer it is corrected for it, so that the correction can be checked.
func TestPage(paper Format, unit measure.Unit, r Printer, american bool) ([]byte, error) {
	p := newPaper("Printer test page", paper.W, paper.H, tileMargin, "")
	p.printer = r
	if american {
		p.spell = words.American
	}
	p.turn()
	step := measure.DefaultStep(unit)
	across, down := TestLines(unit)
	x, y := (p.w-across.MM())/2, (p.h-down.MM())/2
	p.corrected(func() {
		p.artifact(func() {
			p.testLine(x, y, across.MM(), unit, false)
			p.testLine(x, y, down.MM(), unit, true)
		})
	})
	p.margin, p.y = x+18, y+22
	p.heading(1, "Printer test page")
	p.para("Print this page at 100 %. Turn off “fit to page”.")
	p.para("Measure each line with a steel ruler, from end mark to end mark.")
	p.item("The line across should be " + step.Show(across).String() + " long.")
	p.item("The line down should be " + step.Show(down).String() + " long.")
	if r.True() {
		p.para("Enter both lengths in Brevium, under “Your printers”. Templates and labels then print at their true size.")
	} else {
		p.para(r.Says() + ". Both lines should now measure exactly that.")
	}
	return p.bytes()
}

// testLine is a line with a ruler's marks inwards from it: millimetres, or sixteenths of an inch.
func (p *paper) testLine(x, y, long float64, unit measure.Unit, down bool) {
	pdf, each, big := p.pdf, 1.0, 10
	if !unit.Metric() {
		each, big = 25.4/16, 16
	}
	pdf.SetDrawColor(42, 37, 32)
	pdf.SetDashPattern(nil, 0)
	at := func(along, in float64) (float64, float64) {
		if down {
			return x + in, y + along
		}
		return x + along, y + in
	}
	line := func(a0, i0, a1, i1, wide float64) {
		pdf.SetLineWidth(wide)
		x0, y0 := at(a0, i0)
		x1, y1 := at(a1, i1)
		pdf.Line(x0, y0, x1, y1)
	}
	line(0, 0, long, 0, 0.2)
	p.font(false, 8)
	for i := range int(long/each+0.5) + 1 {
		deep := 2.0
		switch {
		case i%big == 0:
			deep = 5
		case i%(big/2) == 0:
			deep = 3.5
		}
		line(float64(i)*each, 0, float64(i)*each, deep, 0.15)
		if i%big == 0 && i > big && float64(i)*each < long-1 { // clear of the corner and of the end mark
			tx, ty := at(float64(i)*each, 8.5)
			text := fmt.Sprint(i / big * map[bool]int{true: 10, false: 1}[unit.Metric()])
			p.put(tx-p.wide(text)/2, ty+1, text)
		}
	}
	line(0, -3, 0, 8, 0.3)
	line(long, -3, long, 8, 0.3)
}

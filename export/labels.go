package export

// Labels are printed on sheets of labels that stick.

// LabelSheet is a sheet of labels: how many lie across and down, how large each is and how far apart, in millimetres.
// They lie in the middle of the paper.
type LabelSheet struct {
	ID           string
	Paper        string
	Across, Down int
	W, H         float64
	GapX, GapY   float64
	Size         string // in the unit of the paper's home
}

// Count is how many labels a sheet has.
func (l LabelSheet) Count() int { return l.Across * l.Down }

// Corner is where the label lies that is counted n, from 0, row by row.
func (l LabelSheet) Corner(n int) (x, y float64) {
	paper := FormatOf(l.Paper)
	cols, rows := float64(l.Across), float64(l.Down)
	left := (paper.W - cols*l.W - (cols-1)*l.GapX) / 2
	top := (paper.H - rows*l.H - (rows-1)*l.GapY) / 2
	return left + float64(n%l.Across)*(l.W+l.GapX), top + float64(n/l.Across)*(l.H+l.GapY)
}

const inch = 25.4

// LabelSheets lists common layouts by their size.
var LabelSheets = []LabelSheet{
	{"a4-21", "a4", 3, 7, 63.5, 38.1, 2.5, 0, "63.5 × 38.1 mm"},
	{"a4-65", "a4", 5, 13, 38.1, 21.2, 2.5, 0, "38.1 × 21.2 mm"},
	{"a4-24", "a4", 3, 8, 70, 37, 0, 0, "70 × 37 mm"},
	{"a4-14", "a4", 2, 7, 99.1, 38.1, 2.5, 0, "99.1 × 38.1 mm"},
	{"a4-8", "a4", 2, 4, 99.1, 67.7, 2.5, 0, "99.1 × 67.7 mm"},
	{"a4-4", "a4", 2, 2, 99.1, 139, 2.5, 0, "99.1 × 139 mm"},
	{"letter-30", "letter", 3, 10, 2.625 * inch, 1 * inch, 0.125 * inch, 0, "2⅝ × 1 in"},
	{"letter-80", "letter", 4, 20, 1.75 * inch, 0.5 * inch, 0.3 * inch, 0, "1¾ × ½ in"},
	{"letter-14", "letter", 2, 7, 4 * inch, 4.0 / 3 * inch, 0.1875 * inch, 0, "4 × 1⅓ in"},
	{"letter-10", "letter", 2, 5, 4 * inch, 2 * inch, 0.1875 * inch, 0, "4 × 2 in"},
	{"letter-6", "letter", 2, 3, 4 * inch, 10.0 / 3 * inch, 0.1875 * inch, 0, "4 × 3⅓ in"},
}

// LabelSheetsFor lists the layouts, those on a paper first.
func LabelSheetsFor(paper Format) (out []LabelSheet) {
	var others []LabelSheet
	for _, l := range LabelSheets {
		if l.Paper == paper.ID {
			out = append(out, l)
		} else {
			others = append(others, l)
		}
	}
	return append(out, others...)
}

// LabelSheetOf finds a layout; the first when it has another name.
func LabelSheetOf(id string) LabelSheet {
	for _, l := range LabelSheets {
		if l.ID == id {
			return l
		}
	}
	return LabelSheets[0]
}

// Label is what stands on one: a title, and lines that are left out from the last on where they don't fit.
type Label struct {
	Title string
	Lines []string
}

// labelEdge is how far text keeps from a label's edge; mostLabelPt and leastLabelPt are how large it is, in points.
const labelEdge, mostLabelPt, leastLabelPt = 2.0, 13.0, 6.5

// Labels writes labels on sheets, beginning at the label counted first, from 1: the sheet may have been used before.
func Labels(all []Label, l LabelSheet, first int, r Printer) ([]byte, error) {
	paper := FormatOf(l.Paper)
	p := newPaper("Labels", paper.W, paper.H, 0, "")
	p.printer = r
	n := min(max(first, 1), l.Count()) - 1
	for begun := 0; begun < len(all); n = 0 {
		p.turn()
		p.corrected(func() {
			for ; n < l.Count() && begun < len(all); n, begun = n+1, begun+1 {
				x, y := l.Corner(n)
				p.within("P", "", func() { p.label(all[begun], x, y, l.W, l.H) })
			}
		})
	}
	return p.bytes()
}

// label writes one as large as it fits: what doesn't fit at the smallest size is left out.
func (p *paper) label(of Label, x, y, w, h float64) {
	for {
		for pt := mostLabelPt; pt >= leastLabelPt; pt -= 0.5 {
			if p.labelAt(of, pt, x, y, w, h) {
				return
			}
		}
		if len(of.Lines) == 0 {
			p.font(true, leastLabelPt)
			p.put(x+labelEdge, y+h/2+leastLabelPt*0.12, p.fitted(of.Title, w-2*labelEdge))
			return
		}
		of.Lines = of.Lines[:len(of.Lines)-1]
	}
}

// labelAt writes a label in letters so large, in its middle, and reports whether it fits.
func (p *paper) labelAt(of Label, pt, x, y, w, h float64) bool {
	high := pt * 25.4 / 72 * 1.2
	type line struct {
		strong bool
		text   string
	}
	var lines []line
	add := func(strong bool, text string) {
		p.font(strong, pt)
		for _, t := range p.wrap(text, w-2*labelEdge) {
			lines = append(lines, line{strong, t})
		}
	}
	add(true, of.Title)
	for _, l := range of.Lines {
		add(false, l)
	}
	tall := high * float64(len(lines))
	if tall > h-2*labelEdge {
		return false
	}
	p.pdf.SetTextColor(42, 37, 32)
	at := y + (h-tall)/2
	for _, l := range lines {
		p.font(l.strong, pt)
		p.put(x+labelEdge, at+high*0.78, l.text)
		at += high
	}
	return true
}

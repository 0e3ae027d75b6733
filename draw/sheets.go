package draw

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/words"
	"brevium/draw/pen"
)

// Sheets draws where each piece comes from: the sheets, the cuts numbered in
// the order to make them, and what is left over. At most most sheets are drawn.
func Sheets(p *plan.Plan, w, h float64, most int) string {
	sheets := p.Layout.Sheets[:min(most, len(p.Layout.Sheets))]
	if len(sheets) == 0 {
		return ""
	}
	const gap = 34.0
	sw, sh := 0.0, 0.0
	for _, s := range sheets {
		sw, sh = max(sw, s.W.MM()), max(sh, s.H.MM())
	}
	scale, columns := 0.0, 1
	for n := 1; n <= len(sheets); n++ {
		rows := float64((len(sheets) + n - 1) / n)
		k := min((w-float64(n)*gap)/(float64(n)*sw), (h-rows*(gap+14))/(rows*sh))
		if k > scale {
			scale, columns = k, n
		}
	}
	scale = max(scale, 0.25)
	c := &pen.Canvas{}
	var says []string
	for i, s := range sheets {
		x := gap/2 + float64(i%columns)*(sw*scale+gap)
		y := 26 + float64(i/columns)*(sh*scale+gap+14)
		c.Text(x, y-8, "strong", "start", sheetName(p, i, s))
		d := onSheet{c, p.Step, x, y, scale, layout.Rect{W: s.W, H: s.H}}
		d.draw(s, p.CardOf(s.Stock).Inside)
		says = append(says, d.says(i, s))
	}
	rows := (len(sheets) + columns - 1) / columns
	return c.Picture("sheets", gap/2+float64(columns)*(sw*scale+gap), 26+float64(rows)*(sh*scale+gap+14),
		strings.Join(says, " ")).SVG()
}

type onSheet struct {
	*pen.Canvas
	step  measure.Step
	x, y  float64
	k     float64
	whole layout.Rect // the sheet
}

func (d onSheet) rectOf(r layout.Rect) (x, y, w, h float64) {
	return d.x + r.X.MM()*d.k, d.y + r.Y.MM()*d.k, r.W.MM() * d.k, r.H.MM() * d.k
}

func (d onSheet) draw(s layout.Sheet, colour string) {
	x, y, w, h := d.rectOf(d.whole)
	d.Rect("sheet", x, y, w, h)
	for _, o := range s.Offcuts {
		x, y, w, h := d.rectOf(o)
		d.Rect("offcut", x+2, y+2, w-4, h-4)
		d.label(x, y, w, h, "faint small", "left over", d.by(o.W, o.H))
	}
	for _, it := range s.Placed {
		x, y, w, h := d.rectOf(it.Rect)
		d.Rect("piece-edge", x, y, w, h, "fill", colour)
		name := it.Piece
		if it.Turned {
			name += ", turned"
		}
		d.label(x, y, w, h, "on-card", name, d.by(it.Rect.W, it.Rect.H))
	}
	for i, cut := range s.Cuts {
		d.cut(i, cut)
	}
}

// sheetName is what a sheet is called: its number and, of several cards, which.
func sheetName(p *plan.Plan, i int, s layout.Sheet) string {
	if !slices.ContainsFunc(p.Cuts, func(c cutting.Cut) bool { return c.Card.ID != p.Cuts[0].Card.ID }) {
		return fmt.Sprintf("Sheet %d", i+1)
	}
	return fmt.Sprintf("Sheet %d: %s", i+1, words.Cut(p.CardOf(s.Stock).Title, 24))
}

func (d onSheet) by(w, h measure.Length) string {
	return d.step.Show(w).Text + " × " + d.step.Show(h).Text
}

// label writes a name and a size in the middle of a place, turned if it is narrow, a long name cut
// short: of what is small the size alone, in two lines if need be, or the name where no size has room.
func (d onSheet) label(x, y, w, h float64, class, name, size string) {
	cx, cy := x+w/2, y+h/2
	ways := []struct {
		w, h float64
		turn []any
	}{{w, h, nil}, {h, w, []any{"transform", pen.Turned(-90, cx, cy)}}}
	figure := strings.ReplaceAll(class, "small", "") + " figure"
	high := 1.2 * pen.SizeOf(figure)
	for _, lines := range [][]string{{size}, strings.SplitAfter(size, "×")} {
		wide := 0.0
		for _, l := range lines {
			wide = max(wide, pen.Wide(l, pen.SizeOf(figure)))
		}
		for _, way := range ways {
			if wide+8 > way.w || high*float64(len(lines))+2 > way.h {
				continue
			}
			top := cy + 5 - high*float64(len(lines)-1)/2
			if short := shortened(name, class, way.w); short != "" && high*float64(len(lines)+1)+2 <= way.h {
				d.write(cx, top-high/2, class, short, way.turn)
				top += high / 2
			}
			for i, l := range lines {
				d.write(cx, top+high*float64(i), figure, strings.TrimSpace(l), way.turn)
			}
			return
		}
	}
	for _, way := range ways {
		if short := shortened(name, class, way.w); short != "" && high <= way.h {
			d.write(cx, cy+4, class, short, way.turn)
			return
		}
	}
}

// shortened is a name as far as it fits so wide a place, "" where it doesn't.
func shortened(name, class string, wide float64) string {
	size := pen.SizeOf(class)
	if pen.Wide(name, size)+8 <= wide {
		return name
	}
	if most := int((wide - 8) / (size * 0.64)); most >= 8 {
		return words.Cut(name, most)
	}
	return ""
}

// write writes a line about the middle of a place, and notes what it takes up.
func (d onSheet) write(x, y float64, class, text string, turn []any) {
	size := pen.SizeOf(class)
	d.Text(x, y, class, "middle", text, turn...)
	e := pen.At(x, y, "middle", false).Extent(text, size)
	if turn != nil { // it stands about the same middle
		mx, my, w, h := (e.X1+e.X2)/2, (e.Y1+e.Y2)/2, (e.X2-e.X1)/2, (e.Y2-e.Y1)/2
		e = pen.Between(mx-h-size/2, my-w, mx+h+size/2, my+w)
	}
	d.Labels.Taken = append(d.Labels.Taken, e)
}

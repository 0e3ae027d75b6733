package draw

import (
	"fmt"
	"hash/fnv"

	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/draw/pen"
)

// The shop is drawn too: a swatch of every card, the tools as they lie there, the
// offcuts to one scale, and what was learnt as a mark between its bounds.

// Swatch draws a sheet of a card: its colour and pattern, a corner turned up to show
// its inside, its edge as thick as it is, and the way its grain runs.
func Swatch(card shop.Card, w, h float64) string {
	c := &pen.Canvas{}
	x, y, sw, sh := 6.0, 6.0, w-16, h-16
	thick := max(1, card.Caliper.MM()*8)
	turned := min(sw, sh) * 0.3
	outline := fmt.Sprintf("M%s %sH%sV%sL%s %sH%sZ", pen.Px(x), pen.Px(y), pen.Px(x+sw), pen.Px(y+sh-turned),
		pen.Px(x+sw-turned), pen.Px(y+sh),
		pen.Px(x))
	c.Tag("path", "class", "swatch-edge", "d", outline, "transform",
		fmt.Sprintf("translate(%s %s)", pen.Px(thick), pen.Px(thick)), "fill", card.Inside)
	fill := card.Colour
	if card.Pattern != "" {
		sum := fnv.New32a()
		sum.Write([]byte(card.ID + card.Pattern + card.Ink + card.Colour))
		id := fmt.Sprintf("s%x", sum.Sum32())
		k := min(0.5, pen.RepeatOf(card)*1.2/192) // a swatch shows the pattern smaller than it is
		c.Start("defs")
		c.Start("pattern", "id", id, "width", 192, "height", 192, "patternUnits", "userSpaceOnUse", "patternTransform",
			"scale("+pen.Px(k)+")")
		c.Tag("rect", "width", 192, "height", 192, "fill", card.Colour)
		pen.DrawTile(c, card)
		c.End()
		c.End()
		fill = "url(#" + id + ")"
	}
	c.Tag("path", "class", "piece-edge", "d", outline, "fill", fill)
	c.Tag("path", "class", "piece-edge", "d", fmt.Sprintf("M%s %sH%sV%sZ", pen.Px(x+sw-turned), pen.Px(y+sh), pen.Px(x+sw-turned),
		pen.Px(y+sh-turned))+
		fmt.Sprintf("M%s %sV%sH%sZ", pen.Px(x+sw-turned), pen.Px(y+sh), pen.Px(y+sh-turned), pen.Px(x+sw)), "fill", card.Inside)
	says := card.Title
	if card.Grain != "" {
		for i := range 3 {
			at := float64(i+1) / 4
			if card.Grain == "long" == (h >= w) {
				c.Line("grain", x+sw*at*0.7, y+10, x+sw*at*0.7, y+sh*0.55)
			} else {
				c.Line("grain", x+10, y+sh*at*0.7, x+sw*0.55, y+sh*at*0.7)
			}
		}
		says += ", grain " + card.Grain
	}
	return c.Picture("swatch", w, h, says).SVG()
}

// Tools draws the scoring board with its grooves, the trimmer with its longest cut,
// and the punches to one scale.
func Tools(t shop.Tools, unit measure.Unit, w, h float64) string {
	c := &pen.Canvas{}
	board := t.Board
	if board == 0 {
		board = 12 * measure.Inch
	}
	long := max(board, t.Cuts, 300*measure.Millimetre)
	k := (w - 40) / long.MM()
	c.Text(20, 20, "strong", "start", "Scoring board")
	c.Rect("board", 20, 30, board.MM()*k, 120)
	fence := 20.0
	if t.FromRight {
		fence = 20 + board.MM()*k - 8
	}
	c.Rect("fence", fence, 30, 8, 120)
	grooves := t.Grooves
	if len(grooves) == 0 {
		grooves = []measure.Length{measure.DefaultStep(unit).Size}
	}
	for i, g := range grooves {
		every := g
		for every.MM()*k < 3 { // too near to be told apart: as many as can be
			every *= 2
		}
		for at := every; at <= board; at += every {
			x := 20 + at.MM()*k
			if t.FromRight {
				x = 20 + (board-at).MM()*k
			}
			c.Line("board-groove", x, 34+float64(i)*10, x, 146)
		}
	}
	mark := map[measure.Unit]measure.Length{measure.Inches: measure.Inch, measure.Millimetres: 50 * measure.Millimetre,
		measure.Centimetres: 50 * measure.Millimetre}[unit]
	for at := mark; at < board; at += mark {
		x := 20 + at.MM()*k
		if t.FromRight {
			x = 20 + (board-at).MM()*k
		}
		c.Text(x, 164, "small", "middle", measure.Step{Size: mark, Unit: unit}.Show(at).Text)
	}
	c.Text(20, 188, "strong", "start", "Trimmer")
	cuts := t.Cuts
	if cuts == 0 {
		cuts = 12 * measure.Inch
	}
	c.Rect("board", 20, 198, cuts.MM()*k, 26)
	c.Line("trim", 20, 211, 20+cuts.MM()*k, 211)
	return c.Picture("tools", w, max(h, punches(c, t.Punches, unit, w, 262)+16),
		"The scoring board, the trimmer and your punches").SVG()
}

// punches draws punches to one scale, in rows, about as large as they are where they
// then fit; it gives where the last ends.
func punches(c *pen.Canvas, all []shop.Punch, unit measure.Unit, w, top float64) (foot float64) {
	const full, tallest = 96 / 25.4, 150.0 // pixels a millimetre on a screen
	across := func(p shop.Punch) float64 {
		if p.Kind == "corner" { // it is known by its radius
			return max(4, 2*p.Size.MM())
		}
		return max(4, p.Size.MM())
	}
	k := full
	for _, p := range all {
		k = min(k, tallest/across(p))
	}
	c.Text(20, top, "strong", "start", "Punches, to one scale")
	if len(all) == 0 {
		c.Text(20, top+28, "faint", "start", "none described")
		return top + 28
	}
	x, y, row := 26.0, top+16, 0.0
	for _, p := range all {
		says, d := p.Kind+" "+p.Size.Exact(unit), across(p)*k
		room := max(d, pen.Wide(says, pen.SizeOf("small"))) + 22
		if x > 26 && x+room > w-10 {
			x, y, row = 26, y+row+34, 0
		}
		r, high := d/2, d
		switch p.Kind {
		case "corner":
			c.Tag("path", "class", "mark", "d", fmt.Sprintf("M%s %sV%sA%s %s 0 0 1 %s %sH%s", pen.Px(x), pen.Px(y+d), pen.Px(y+r), pen.Px(r),
				pen.Px(r), pen.Px(x+r), pen.Px(y), pen.Px(x+d)))
		case "notch":
			high = r
			c.Tag("path", "class", "mark", "d", fmt.Sprintf("M%s %sA%s %s 0 0 0 %s %s", pen.Px(x), pen.Px(y), pen.Px(r), pen.Px(r),
				pen.Px(x+d), pen.Px(y)))
		default:
			c.Tag("circle", "class", "mark", "cx", x+r, "cy", y+r, "r", r)
		}
		c.Text(x, y+high+18, "small", "start", says)
		x, row = x+room, max(row, high)
	}
	return y + row + 18
}

// Offcuts draws what was kept, to one scale.
func Offcuts(all []shop.Kept, card func(id string) shop.Card, label func(shop.Kept) string, w, h float64) string {
	c := &pen.Canvas{}
	wide, high := 0.0, 0.0
	for _, o := range all {
		wide, high = max(wide, o.Width.MM()), max(high, o.Height.MM())
	}
	columns := min(4, len(all))
	rows := (len(all) + columns - 1) / max(columns, 1)
	cell := (w - 20) / float64(max(columns, 1))
	k := min((cell-20)/max(wide, 1), (h/float64(max(rows, 1))-44)/max(high, 1), 2)
	k = max(k, 0.15)
	tall := high*k + 44
	for i, o := range all {
		x, y := 10+float64(i%columns)*cell, 10+float64(i/columns)*tall
		c.Rect("piece-edge", x, y, o.Width.MM()*k, o.Height.MM()*k, "fill", card(o.Card).Colour)
		c.Text(x, y+o.Height.MM()*k+20, "", "start", label(o))
	}
	return c.Picture("offcuts", w, max(60, float64(rows)*tall+10), fmt.Sprintf("%d offcuts, to one scale", len(all))).SVG()
}

// Learnt draws the ease that was learnt on a line: the usual, the learnt, and where it
// would lie with any one record left out.
func Learnt(usual measure.Length, l shop.Learnt, unit measure.Unit, w, h float64) string {
	const low, high = -0.5, 4.2
	c := &pen.Canvas{}
	at := func(mm float64) float64 { return 14 + (min(high, max(low, mm))-low)/(high-low)*(w-28) }
	y := h / 2
	c.Line("dim", at(low), y, at(high), y)
	mark := measure.Step{Size: measure.Inch / 32, Unit: unit}
	if unit.Metric() {
		mark.Size = measure.Millimetre
	}
	for l := measure.Length(0); l.MM() <= high; l += mark.Size {
		c.Line("tick", at(l.MM()), y-4, at(l.MM()), y+4)
		c.Text(at(l.MM()), y+18, "small faint", "middle", mark.Show(l).String())
	}
	lo, hi := (usual + l.Low).MM(), (usual + l.High).MM()
	c.Rect("learnt-range", at(lo), y-6, max(2, at(hi)-at(lo)), 12)
	c.Tag("circle", "class", "learnt-usual", "cx", at(usual.MM()), "cy", y, "r", 4.0)
	c.Tag("path", "class", "learnt-now", "d", fmt.Sprintf("M%s %sl6 -10h-12z", pen.Px(at((usual+l.More).MM())), pen.Px(y-7)))
	return c.Picture("learnt", w, h, fmt.Sprintf("Ease learnt: %s, usual %s, between %s and %s with any one "+
		"record left out", (usual+l.More).Fine(unit), usual.Fine(unit), (usual+l.Low).Fine(unit), (usual+l.High).Fine(unit))).SVG()
}

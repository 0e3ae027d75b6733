package draw

import (
	"fmt"
	"hash/fnv"

	"brevium/core/measure"
	"brevium/core/shop"
)

// The shop is drawn too: a swatch of every card, the tools as they lie there, the
// offcuts to one scale, and what was learnt as a mark between its bounds.

// Swatch draws a sheet of a card: its colour and pattern, a corner turned up to show
// its inside, its edge as thick as it is, and the way its grain runs.
func Swatch(card shop.Card, w, h float64) string {
	c := &canvas{}
	x, y, sw, sh := 6.0, 6.0, w-16, h-16
	thick := max(1, card.Caliper.MM()*8)
	turned := min(sw, sh) * 0.3
	outline := fmt.Sprintf("M%s %sH%sV%sL%s %sH%sZ", px(x), px(y), px(x+sw), px(y+sh-turned), px(x+sw-turned), px(y+sh),
		px(x))
	c.tag("path", "class", "swatch-edge", "d", outline, "transform",
		fmt.Sprintf("translate(%s %s)", px(thick), px(thick)), "fill", card.Inside)
	fill := card.Colour
	if card.Pattern != "" {
		sum := fnv.New32a()
		sum.Write([]byte(card.ID + card.Pattern + card.Ink + card.Colour))
		id := fmt.Sprintf("s%x", sum.Sum32())
		k := min(0.5, repeatOf(card)*1.2/192) // a swatch shows the pattern smaller than it is
		c.start("defs")
		c.start("pattern", "id", id, "width", 192, "height", 192, "patternUnits", "userSpaceOnUse", "patternTransform",
			"scale("+px(k)+")")
		c.tag("rect", "width", 192, "height", 192, "fill", card.Colour)
		drawTile(c, card)
		c.end()
		c.end()
		fill = "url(#" + id + ")"
	}
	c.tag("path", "class", "piece-edge", "d", outline, "fill", fill)
	c.tag("path", "class", "piece-edge", "d", fmt.Sprintf("M%s %sH%sV%sZ", px(x+sw-turned), px(y+sh), px(x+sw-turned),
		px(y+sh-turned))+
		fmt.Sprintf("M%s %sV%sH%sZ", px(x+sw-turned), px(y+sh), px(y+sh-turned), px(x+sw)), "fill", card.Inside)
	says := card.Title
	if card.Grain != "" {
		for i := range 3 {
			at := float64(i+1) / 4
			if card.Grain == "long" == (h >= w) {
				c.line("grain", x+sw*at*0.7, y+10, x+sw*at*0.7, y+sh*0.55)
			} else {
				c.line("grain", x+10, y+sh*at*0.7, x+sw*0.55, y+sh*at*0.7)
			}
		}
		says += ", grain " + card.Grain
	}
	return picture("swatch", w, h, says, c).SVG()
}

// Tools draws the scoring board with its grooves, the trimmer with its longest cut,
// and the punches to one scale.
func Tools(t shop.Tools, unit measure.Unit, w, h float64) string {
	c := &canvas{}
	board := t.Board
	if board == 0 {
		board = 12 * measure.Inch
	}
	long := max(board, t.Cuts, 300*measure.Millimetre)
	k := (w - 40) / long.MM()
	c.text(20, 20, "strong", "start", "Scoring board")
	c.rect("board", 20, 30, board.MM()*k, 120)
	fence := 20.0
	if t.FromRight {
		fence = 20 + board.MM()*k - 8
	}
	c.rect("fence", fence, 30, 8, 120)
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
			c.line("board-groove", x, 34+float64(i)*10, x, 146)
		}
	}
	mark := map[measure.Unit]measure.Length{measure.Inches: measure.Inch, measure.Millimetres: 50 * measure.Millimetre,
		measure.Centimetres: 50 * measure.Millimetre}[unit]
	for at := mark; at < board; at += mark {
		x := 20 + at.MM()*k
		if t.FromRight {
			x = 20 + (board-at).MM()*k
		}
		c.text(x, 164, "small", "middle", measure.Step{Size: mark, Unit: unit}.Show(at).Text)
	}
	c.text(20, 188, "strong", "start", "Trimmer")
	cuts := t.Cuts
	if cuts == 0 {
		cuts = 12 * measure.Inch
	}
	c.rect("board", 20, 198, cuts.MM()*k, 26)
	c.line("trim", 20, 211, 20+cuts.MM()*k, 211)
	return picture("tools", w, max(h, c.punches(t.Punches, unit, w, 262)+16),
		"The scoring board, the trimmer and the punches of the shop", c).SVG()
}

// punches draws punches to one scale, in rows, about as large as they are where they
// then fit; it gives where the last ends.
func (c *canvas) punches(all []shop.Punch, unit measure.Unit, w, top float64) (foot float64) {
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
	c.text(20, top, "strong", "start", "Punches, to one scale")
	if len(all) == 0 {
		c.text(20, top+28, "faint", "start", "none described")
		return top + 28
	}
	x, y, row := 26.0, top+16, 0.0
	for _, p := range all {
		says, d := p.Kind+" "+p.Size.Exact(unit), across(p)*k
		room := max(d, wide(says, 11)) + 22
		if x > 26 && x+room > w-10 {
			x, y, row = 26, y+row+34, 0
		}
		r, high := d/2, d
		switch p.Kind {
		case "corner":
			c.tag("path", "class", "mark", "d", fmt.Sprintf("M%s %sV%sA%s %s 0 0 1 %s %sH%s", px(x), px(y+d), px(y+r), px(r),
				px(r), px(x+r), px(y), px(x+d)))
		case "notch":
			high = r
			c.tag("path", "class", "mark", "d", fmt.Sprintf("M%s %sA%s %s 0 0 0 %s %s", px(x), px(y), px(r), px(r),
				px(x+d), px(y)))
		default:
			c.tag("circle", "class", "mark", "cx", x+r, "cy", y+r, "r", r)
		}
		c.text(x, y+high+18, "small", "start", says)
		x, row = x+room, max(row, high)
	}
	return y + row + 18
}

// Offcuts draws what was kept, to one scale.
func Offcuts(all []shop.Kept, card func(id string) shop.Card, label func(shop.Kept) string, w, h float64) string {
	c := &canvas{}
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
		c.rect("piece-edge", x, y, o.Width.MM()*k, o.Height.MM()*k, "fill", card(o.Card).Colour)
		c.text(x, y+o.Height.MM()*k+20, "", "start", label(o))
	}
	return picture("offcuts", w, max(60, float64(rows)*tall+10), fmt.Sprintf("%d offcuts, to one scale", len(all)), c).SVG()
}

// Learnt draws the ease that was learnt on a line: the usual, the learnt, and where it
// would lie with any one record left out.
func Learnt(usual measure.Length, l shop.Learnt, w, h float64) string {
	const low, high = -0.5, 4.2
	c := &canvas{}
	at := func(mm float64) float64 { return 14 + (min(high, max(low, mm))-low)/(high-low)*(w-28) }
	y := h / 2
	c.line("dim", at(low), y, at(high), y)
	for mm := 0.0; mm <= high; mm++ {
		c.line("tick", at(mm), y-4, at(mm), y+4)
		c.text(at(mm), y+18, "small faint", "middle", fmt.Sprintf("%.0f mm", mm))
	}
	lo, hi := (usual + l.Low).MM(), (usual + l.High).MM()
	c.rect("learnt-range", at(lo), y-6, max(2, at(hi)-at(lo)), 12)
	c.tag("circle", "class", "learnt-usual", "cx", at(usual.MM()), "cy", y, "r", 4.0)
	c.tag("path", "class", "learnt-now", "d", fmt.Sprintf("M%s %sl6 -10h-12z", px(at((usual+l.More).MM())), px(y-7)))
	return picture("learnt", w, h, fmt.Sprintf("Ease learnt: %.2f mm, usual %.2f mm, between %.2f and %.2f mm with any one "+
		"record left out", (usual+l.More).MM(), usual.MM(), lo, hi), c).SVG()
}

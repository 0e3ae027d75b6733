package draw

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/draw/pen"
)

// CutLook is how one sheet to be cut is drawn: at which scale, which card, and how
// lengths are said. N is its number among all, from 0.
type CutLook struct {
	N     int
	W, H  float64 // the room it may take, in pixels
	Card  shop.Card
	Step  measure.Step
	Hands bool         // pieces can be taken hold of
	Now   int          // the cut that is in hand, counted from 1; 0 shows them all
	Held  *layout.Spot // where the piece lies that was held last, if that is on this sheet
}

// CutSheet draws one sheet with its pieces and its cuts, each with its number and the
// part it goes across, so that the page can light one after another.
func CutSheet(s layout.Sheet, l CutLook) pen.Picture {
	k := min((l.W-20)/s.W.MM(), (l.H-20)/s.H.MM())
	c, print := &pen.Canvas{}, pen.NewPrints(fmt.Sprintf("cut%d%s%v", l.N, l.Card.ID, s.W))
	fill := print.On(l.Card, printedUp)
	if l.Card.Pattern != "" {
		print.Define(c, fold.Vec{X: 1}, fold.Vec{Y: 1}, k, 10, 10)
	}
	d := cutSheet{onSheet{c, l.Step, 10, 10, k, layout.Rect{W: s.W, H: s.H}}, s, l}
	d.sheet(fill)
	d.pieces()
	d.cuts()
	class := "cut-sheet"
	if l.Now > 0 {
		class += " stepping"
	}
	return c.Picture(class, s.W.MM()*k+20, s.H.MM()*k+20, d.says(l.N, s))
}

type cutSheet struct {
	onSheet
	s layout.Sheet
	l CutLook
}

func (d cutSheet) sheet(fill string) {
	x, y, w, h := d.rectOf(d.whole)
	d.Rect("sheet", x, y, w, h)
	for _, of := range []string{d.l.Card.Colour, fill} {
		if of != "" {
			d.Rect("sheet-print", x, y, w, h, "fill", of)
		}
	}
	for _, o := range d.s.Offcuts {
		x, y, w, h := d.rectOf(o)
		d.Rect("offcut", x+2, y+2, max(w-4, 1), max(h-4, 1))
		d.label(x, y, w, h, "on-card small", "left over", d.by(o.W, o.H))
	}
}

func (d cutSheet) pieces() {
	for i, it := range d.s.Placed {
		x, y, w, h := d.rectOf(it.Rect)
		attrs := []any{"class", "laid" + map[bool]string{true: " pinned"}[it.Pinned], "data-laid", fmt.Sprintf("%d:%d", d.l.N, i)}
		name := it.Piece
		if it.Turned {
			name += ", turned"
		}
		if d.l.Hands {
			attrs = append(attrs, "tabindex", "0", "role", "button", "data-mm", fmt.Sprintf("%.4f", d.k))
		}
		if at := d.l.Held; at != nil && it.Pinned && it.Rect.X == at.X && it.Rect.Y == at.Y {
			attrs = append(attrs, "id", "held-piece")
		}
		d.Group(attrs...)
		d.Title(fmt.Sprintf("%s, %s", name, d.by(it.Rect.W, it.Rect.H)))
		d.Rect("piece-edge laid-piece", x, y, w, h)
		d.label(x, y, w, h, "on-card", name, d.by(it.Rect.W, it.Rect.H))
		if it.Turned {
			d.Tag("path", "class", "turned-mark", "d", turnMark(x+w-12, y+h-14))
		}
		if it.Pinned {
			d.Tag("circle", "class", "pin-mark", "cx", x+8, "cy", y+8, "r", 4.0)
		}
		d.End()
	}
}

// cuts draws each with the part in hand below it, which is seen when it is its turn.
func (d cutSheet) cuts() {
	for i, cut := range d.s.Cuts {
		x, y, w, h := d.rectOf(cut.In)
		kept, _ := cut.Parts()
		kx, ky, kw, kh := d.rectOf(kept)
		class := "a-cut"
		if i+1 < d.l.Now {
			class += " done"
		} else if i+1 == d.l.Now {
			class += " now"
		}
		d.Group("class", class, "data-cut", fmt.Sprintf("%d:%d", d.l.N, i))
		d.Rect("in-hand", x, y, w, h)
		d.Rect("at-stop", kx, ky, kw, kh)
		d.cut(i, cut)
		d.End()
	}
}

// markRound is how large the number of a cut is.
const markRound = 9.0

// cut draws a cut with its number on it, at the first place along it where that lies on no other
// number and no name.
func (d onSheet) cut(i int, cut layout.Cut) {
	x, y, w, h := d.rectOf(cut.In)
	at, long := cut.At.MM()*d.k, w
	if cut.Down {
		long = h
		d.Line("trim", x+at, y, x+at, y+h)
	} else {
		d.Line("trim", x, y+at, x+w, y+at)
	}
	on := func(along, beside float64) (float64, float64) {
		if cut.Down {
			return x + at + beside, y + along
		}
		return x + along, y + at + beside
	}
	bx, by := d.placeFor(on, long)
	if fx, fy := on(min(max(bx-x, 0), long), 0); !cut.Down && math.Abs(by-fy) > markRound {
		d.Line("leader", bx, by, fx, fy)
	} else if fx, fy := on(min(max(by-y, 0), long), 0); cut.Down && math.Abs(bx-fx) > markRound {
		d.Line("leader", bx, by, fx, fy)
	}
	d.Marks = append(d.Marks, pen.Between(bx-markRound, by-markRound, bx+markRound, by+markRound))
	d.Tag("circle", "class", "cut-mark", "cx", bx, "cy", by, "r", markRound)
	d.Text(bx, by+4, "cut-number", "middle", fmt.Sprint(i+1))
}

// placeFor finds where the number of a cut so long goes: on it and on no name, else on a name,
// else beside it.
func (d onSheet) placeFor(on func(along, beside float64) (float64, float64), long float64) (x, y float64) {
	first := min(12, long/2)
	best, room := [2]float64{first, 0}, math.Inf(-1)
	for n := range 40 {
		beside := float64(n/2) * (markRound + 1)
		if n%2 == 1 {
			beside = -beside
		}
		names := n == 0
		for along := first; along <= max(long-markRound, first); along += 2 {
			x, y := on(along, beside)
			if r := d.free(x, y, names); r > room {
				best, room = [2]float64{along, beside}, r
			}
			if room >= 0 {
				return on(best[0], best[1])
			}
		}
	}
	return on(best[0], best[1])
}

// free is how far the number of a cut would lie from the nearest other, less than 0 where it
// would lie on it, off the sheet or, if names count, on a text.
func (d onSheet) free(x, y float64, names bool) float64 {
	if l, t, w, h := d.rectOf(d.whole); x < l || y < t || x > l+w || y > t+h {
		return -1e9
	}
	least := 1.0
	for _, m := range d.Marks {
		least = min(least, math.Hypot((m.X1+m.X2)/2-x, (m.Y1+m.Y2)/2-y)-2*markRound-1)
	}
	own := pen.Between(x-markRound, y-markRound, x+markRound, y+markRound)
	for _, t := range d.Labels.Taken {
		if names && own.Meets(t) {
			return min(least, -1e6)
		}
	}
	return least
}

func (d onSheet) says(i int, s layout.Sheet) string {
	var names []string
	for _, it := range s.Placed {
		names = append(names, it.Piece)
	}
	return fmt.Sprintf("Sheet %d holds %s, with %d cuts.", i+1, strings.Join(names, ", "), len(s.Cuts))
}

// turnMark says that a piece lies turned: most of a round, with a point.
func turnMark(x, y float64) pen.Path {
	return pen.Path{{Do: 'M', X: x, Y: y}, {Do: 'A', X: x + 5, Y: y + 5, R: 5}, {Do: 'L', X: x + 8, Y: y + 2},
		{Do: 'M', X: x + 5, Y: y + 5}, {Do: 'L', X: x + 8, Y: y + 8}}
}

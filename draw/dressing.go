package draw

import (
	"fmt"
	"hash/fnv"
	"strings"

	"brevium/core/dress"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/words"
	"brevium/draw/pen"
)

// What goes on a box: on the drawing of its pieces, and in a drawing of its own.

// layersOn gives the outlines of what lies on the outside of a piece.
func layersOn(p *plan.Plan, piece *net.Piece) (out [][]net.Point) {
	if p.Dressed == nil {
		return nil
	}
	for _, panel := range p.Dressed.Panels {
		if part := p.Box.Part(panel.Part); part == nil || part.Piece != piece || panel.Nth > 0 {
			continue
		}
		for _, l := range panel.On {
			out = append(append(out, l.Ring), l.Holes...)
		}
	}
	return out
}

// layers draws the outlines of what lies on the other side.
func (f flat) layers() {
	for _, ring := range layersOn(f.p, f.piece) {
		f.Tag("path", "class", "layer", "d", f.path(&net.Face{Points: ring}))
	}
}

// margins round a piece of the dressing, and what its texts take below it.
const pieceGap, pieceText = 26.0, 46.0

// shown is one thing of the dressing as it is drawn: a piece, or the strip of a run.
type shown struct {
	laid *dress.Laid
	run  *dress.Run
	fill string
}

// size is how large it is drawn, in pixels.
func (o shown) size(k float64) (w, h float64) {
	if o.run != nil {
		return o.run.W.MM() * k, o.run.H.MM() * k
	}
	return drawnSize(o.laid.Piece, k)
}

// says is its size as it is written below it, and how many there are.
func (o shown) says(p *plan.Plan) string {
	w, h, n := measure.Length(0), measure.Length(0), 1
	if o.run != nil {
		w, h = o.run.W, o.run.H
	} else {
		w, h, n = o.laid.Piece.Width, o.laid.Piece.Height, o.laid.Piece.Count*p.Copies
	}
	size := p.Step.Show(w).Text + " × " + p.Step.Show(h).Text
	if n > 1 {
		return fmt.Sprintf("%d of %s", n, size)
	}
	return size
}

// Dressing draws the pieces of the dressing as they stand, printed side up, at one
// scale, each with its size, how many there are, and what they go on; and the strips
// that layers of a run are cut from.
func Dressing(p *plan.Plan, w, h float64) string {
	if p.Dressed == nil || len(p.Dressed.Laid) == 0 {
		return ""
	}
	sum := fnv.New32a()
	sum.Write(p.Brief.Encode())
	c, print := &pen.Canvas{}, pen.NewPrints(fmt.Sprintf("dress%x", sum.Sum32()))
	var all []shown
	var says []string
	for i := range p.Dressed.Laid {
		l := &p.Dressed.Laid[i]
		all = append(all, shown{laid: l, fill: print.On(p.CardOf(l.Piece.Stock), printedUp)})
		says = append(says, layerSays(p, *l))
	}
	for i := range p.Dressed.Runs {
		r := &p.Dressed.Runs[i]
		all = append(all, shown{run: r, fill: print.On(r.Card, printedUp)})
	}
	k := 3.0
	rows := shelve(p, all, w, k)
	for ; k > 0.3 && (rows.high > h || rows.wide > w+pieceGap); rows = shelve(p, all, w, k) {
		k *= 0.94
	}
	print.Define(c, fold.Vec{X: 1}, fold.Vec{Y: 1}, k, 0, 0)
	for i, o := range all {
		if at := rows.at[i]; o.run != nil {
			dressingRun(c, p, o, at[0], at[1], k)
		} else {
			dressingPiece(c, p, *o.laid, o.fill, at[0], at[1], k)
		}
	}
	return c.Picture("dressing", w, rows.high+8, strings.Join(says, " ")).SVG()
}

// dressingRun draws the strip of a run, its layers in order, what lies between them cut
// away.
func dressingRun(c *pen.Canvas, p *plan.Plan, o shown, x, y, k float64) {
	r := o.run
	w, h := o.size(k)
	c.Group("data-piece", r.Name)
	c.Title(fmt.Sprintf("The strip of the %s, printed side up.", r.Name))
	c.Rect("away", x, y, w, h)
	for _, cut := range r.Cuts {
		pw, ph := drawnSize(cut.Piece, k)
		for _, fill := range []string{r.Card.Colour, o.fill} {
			if fill != "" {
				c.Rect("piece-edge", x+cut.X.MM()*k, y+cut.Y.MM()*k, pw, ph, "fill", fill)
			}
		}
	}
	c.Rect("dim", x, y, w, h)
	c.Text(x, y+h+18, "figure", "start", o.says(p))
	var order []string
	for _, cut := range r.Cuts {
		order = append(order, words.Plain(cut.On[strings.LastIndexByte(cut.On, '/')+1:]))
	}
	c.Text(x, y+h+34, "small faint", "start", words.Cut(words.Capital(r.Name)+": "+strings.Join(order, ", "),
		int(max(118, w)/6.2)))
	c.End()
}

// printedUp is how paper lies with its printed side up.
var printedUp = fold.Frame{X: fold.Vec{X: 1}, Y: fold.Vec{Y: -1}, In: fold.Vec{Z: -1}}

type shelves struct {
	at         [][2]float64
	wide, high float64
}

// lying reports whether a piece is drawn on its side: strips are long.
func lying(piece *net.Piece) bool {
	return piece.Part != net.Layer && piece.Part != net.Liner && piece.Height > piece.Width*3/2
}

// drawnSize is how large a piece is drawn, in pixels.
func drawnSize(piece *net.Piece, k float64) (w, h float64) {
	if lying(piece) {
		return piece.Height.MM() * k, piece.Width.MM() * k
	}
	return piece.Width.MM() * k, piece.Height.MM() * k
}

// shelve sets the pieces side by side in rows.
func shelve(p *plan.Plan, all []shown, w, k float64) (out shelves) {
	x, y, row := pieceGap/2, pieceGap/2, 0.0
	for _, o := range all {
		pw, ph := o.size(k)
		cell := max(pw, 118, pen.Wide(o.says(p), pen.SizeOf("figure"))) + pieceGap
		if x+cell > w && x > pieceGap {
			x, y, row = pieceGap/2, y+row+pieceText, 0
		}
		out.at = append(out.at, [2]float64{x, y})
		x, row = x+cell, max(row, ph)
		out.wide = max(out.wide, x)
	}
	out.high = y + row + pieceText
	return out
}

func dressingPiece(c *pen.Canvas, p *plan.Plan, l dress.Laid, fill string, x, y, k float64) {
	piece := l.Piece
	f := flat{Canvas: c, p: p, piece: piece, k: k, x: x, y: y}
	w, h := drawnSize(piece, k)
	c.Group("data-piece", piece.Name)
	c.Title(layerSays(p, l))
	for _, face := range piece.Kept() {
		d := f.printedSide(face)
		c.Tag("path", "class", "piece-edge", "d", d, "fill", p.CardOf(piece.Stock).Colour, "fill-rule", "evenodd")
		if fill != "" {
			c.Tag("path", "class", "piece-edge", "d", d, "fill", fill, "fill-rule", "evenodd")
		}
	}
	if l.Words != "" && pen.Wide(l.Words, pen.SizeOf("small")) < w-6 {
		c.Text(x+w/2, y+h/2+4, "on-card small", "middle", l.Words)
	}
	c.Text(x, y+h+18, "figure", "start", shown{laid: &l}.says(p))
	c.Text(x, y+h+34, "small faint", "start", words.Cut(words.Capital(words.Plain(piece.Name)), int(max(118, w)/6.2)))
	c.End()
}

// printedSide is the path of a face seen from its printed side; of a strip on its side.
func (f flat) printedSide(face *net.Face) pen.Path {
	flip := func(ring []net.Point) (out []net.Point) {
		for _, q := range ring {
			if lying(f.piece) {
				out = append(out, net.Point{X: q.Y, Y: q.X})
			} else {
				out = append(out, net.Point{X: f.piece.Width - q.X, Y: q.Y})
			}
		}
		return out
	}
	seen := &net.Face{Points: flip(face.Points)}
	for _, h := range face.Holes {
		seen.Holes = append(seen.Holes, flip(h))
	}
	return f.path(seen)
}

func layerSays(p *plan.Plan, l dress.Laid) string {
	return fmt.Sprintf("%s: %d of %s by %s.", words.Capital(words.Plain(l.Piece.Name)), l.Piece.Count*p.Copies,
		p.Step.Show(l.Piece.Width), p.Step.Show(l.Piece.Height))
}

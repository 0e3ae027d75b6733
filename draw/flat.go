// Package draw makes the flat pictures of a plan, and those of the work at the bench: pieces with their numbers, the things
// from above, sheets, layers, boards, steps.
package draw

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/words"
	"brevium/draw/pen"
)

const (
	rulerHigh  = 20.0 // above a piece
	rulerWide  = 30.0 // at its left, as wide as its numbers
	legendHigh = 30.0
)

// Flat draws the pieces, inside up, against the edges of rulers, within a
// picture about w by h. A name picks one piece; without it all are shown, at
// one scale. Link, if it is not nil, gives the address at which a piece is shown
// alone, and "" all of them: the pieces' names then lead there.
func Flat(p *plan.Plan, piece string, w, h float64, link func(piece string) string) string {
	pieces := boxPieces(p)
	if one := p.Box.Piece(piece); one != nil {
		pieces = []*net.Piece{one}
	}
	m, scale, columns := marginsFor(p.Step, pieces, w, h-legendHigh)
	c := &pen.Canvas{}
	x, y, rowHigh, wide := 0.0, 0.0, 0.0, 0.0
	var says []string
	for i, one := range pieces {
		if i%columns == 0 {
			x, y, rowHigh = 0, y+rowHigh, 0
		}
		f := flat{Canvas: c, p: p, piece: one, k: scale, x: x + m.left, y: y + m.top, margins: m, link: link,
			alone: len(pieces) == 1}
		f.draw()
		cw, ch := m.cell(one, scale)
		x, rowHigh = x+cw, max(rowHigh, ch)
		wide = max(wide, x)
		says = append(says, f.says())
	}
	wide = max(wide, 520)
	more := legend(c, wide, y+rowHigh+14, p, pieces)
	class := "flat"
	if wide > 560 {
		class += " broad" // on a phone it is as wide as its figures need
	}
	return c.Picture(class, wide, y+rowHigh+legendHigh+more, strings.Join(says, " ")).SVG()
}

// boxPieces are the pieces that are drawn together: all but the dressing, which has a
// drawing of its own.
func boxPieces(p *plan.Plan) []*net.Piece {
	return slices.DeleteFunc(p.Box.Pieces(), p.IsDressing)
}

func (m margins) cell(p *net.Piece, k float64) (w, h float64) {
	return p.Width.MM()*k + m.left + m.right, p.Height.MM()*k + m.top + marginBottom
}

// arrange finds how many pieces to set side by side for the largest scale.
func (m margins) arrange(pieces []*net.Piece, w, h float64) (scale float64, columns int) {
	columns = 1
	for n := 1; n <= len(pieces); n++ {
		wide, high := 0.0, 0.0
		rows := (len(pieces) + n - 1) / n
		for r := range rows {
			rw, rh := 0.0, 0.0
			for _, p := range pieces[r*n : min(len(pieces), (r+1)*n)] {
				rw, rh = rw+p.Width.MM(), max(rh, p.Height.MM())
			}
			wide, high = max(wide, rw), high+rh
		}
		k := min((w-float64(n)*(m.left+m.right))/wide, (h-float64(rows)*(m.top+marginBottom))/high)
		if k > scale {
			scale, columns = k, n
		}
	}
	return max(scale, 0.2), columns
}

// flat draws one piece with its top left corner at x, y; k is pixels a
// millimetre.
type flat struct {
	*pen.Canvas
	margins
	p     *plan.Plan
	piece *net.Piece
	k     float64
	x, y  float64
	link  func(piece string) string
	alone bool
}

func (f flat) at(p net.Point) (x, y float64) { return f.x + p.X.MM()*f.k, f.y + p.Y.MM()*f.k }

func (f flat) draw() {
	f.Group("data-piece", f.piece.Name)
	f.Title(fmt.Sprintf("%s, inside up", f.piece.Name))
	f.rulers()
	for _, face := range f.piece.Faces {
		if face.Waste {
			f.Tag("path", "class", "away", "d", f.path(face))
			continue
		}
		f.Tag("path", "d", f.path(face), "fill", f.p.CardOf(f.piece.Stock).Inside, "fill-rule", "evenodd",
			"data-face", readings.PanelRef(f.piece.Name, face.Name))
	}
	f.layers()
	for _, face := range stuck(f.p, f.piece) {
		f.Tag("path", "class", "glued", "d", f.path(face))
	}
	f.bends()
	f.lines()
	f.size()
	f.flags()
	f.marks()
	f.openings()
	f.names()
	f.End()
}

func (f flat) path(face *net.Face) (out pen.Path) {
	for _, points := range append([][]net.Point{face.Points}, face.Holes...) {
		line := make([][2]float64, len(points))
		for i, pt := range points {
			line[i][0], line[i][1] = f.at(pt)
		}
		out = append(out, pen.Ring(line)...)
	}
	return out
}

// lines draws folds first and cuts over them.
func (f flat) lines() {
	lines := f.piece.Outline()
	for _, folds := range []bool{true, false} {
		for _, l := range lines {
			if folds == l.Kind.Open() {
				continue
			}
			f.stroke(l)
		}
	}
}

func (f flat) stroke(l net.Line) {
	x1, y1 := f.at(l.A)
	x2, y2 := f.at(l.B)
	link := ""
	for _, pass := range f.piece.Passes {
		if on := pass.AlongWidth && l.A.X == pass.At && l.B.X == pass.At ||
			!pass.AlongWidth && l.A.Y == pass.At && l.B.Y == pass.At; on {
			link = Link(f.piece, pass)
		}
	}
	if l.Name != "" {
		link = f.piece.Name + "-" + l.Name
	}
	f.Group("data-link", link)
	switch {
	case l.Kind.Open():
		f.Line("cut", x1, y1, x2, y2)
	case l.Kind == net.Bend:
		f.Line("bend", x1, y1, x2, y2)
	case l.Fold == net.Mountain:
		f.Line("ridge", x1, y1, x2, y2)
	default:
		f.Line("groove", x1, y1, x2, y2)
		f.Line("groove-floor", x1, y1, x2, y2)
	}
	f.End()
}

// Link is the mark that ties a score's line to its numbers.
func Link(p *net.Piece, pass net.Pass) string { return p.Name + "-" + pass.Name }

// size writes the cut size below and at the right, and the piece's name, which
// leads to the piece alone, or back to all.
func (f flat) size() {
	w, h := f.piece.Width.MM()*f.k, f.piece.Height.MM()*f.k
	f.Group("data-link", f.piece.Name+"-width")
	f.Line("dim", f.x, f.y+h+12, f.x+w, f.y+h+12)
	f.Line("dim", f.x, f.y+h+8, f.x, f.y+h+16)
	f.Line("dim", f.x+w, f.y+h+8, f.x+w, f.y+h+16)
	f.Label(f.p.Step.Show(f.piece.Width).String(), "figure", pen.At(f.x+w/2, f.y+h+30, "middle", false))
	f.End()
	f.Group("data-link", f.piece.Name+"-height")
	f.Line("dim", f.x+w+10, f.y, f.x+w+10, f.y+h)
	f.Line("dim", f.x+w+6, f.y, f.x+w+14, f.y)
	f.Line("dim", f.x+w+6, f.y+h, f.x+w+14, f.y+h)
	f.Label(f.p.Step.Show(f.piece.Height).Text, "figure", pen.At(f.x+w+18, f.y+h/2+5, "start", false))
	f.End()
	name := words.Capital(f.piece.Name)
	if f.piece.Count > 1 {
		name = fmt.Sprintf("%s × %d", name, f.piece.Count)
	}
	if f.p.CardOf(f.piece.Stock).Directed() {
		name += " · pattern " + map[string]string{"top": "↑", "right": "→", "bottom": "↓", "left": "←"}[f.p.PatternTop(f.piece)]
	}
	at := pen.At(f.x-f.left+6, f.y-f.top+16, "start", false)
	switch {
	case f.link == nil || len(boxPieces(f.p)) < 2 && f.p.Dressed == nil:
		f.Label(name, "strong", at)
	case f.alone:
		f.leads("", name+" · all pieces ‹", "all pieces", at)
	default:
		f.leads(f.piece.Name, name+" ›", words.Plain(f.piece.Name)+" alone", at)
	}
}

// leads writes a text that leads to another drawing of the pieces.
func (f flat) leads(piece, text, says string, at pen.Spot) {
	f.Start("a", "href", f.link(piece), "data-go", "1", "class", "alone", "aria-label", says)
	f.Rect("hit", at.X-4, at.Y-26, pen.Wide(text, pen.SizeOf("strong"))+8, 36)
	f.Label(text, "strong", at)
	f.End()
}

// names writes each face's name on it where there is room.
func (f flat) names() {
	for _, face := range f.piece.Kept() {
		lo, hi := face.Bounds()
		w, h := (hi.X-lo.X).MM()*f.k, (hi.Y-lo.Y).MM()*f.k
		if face.Name == "strip" || face.Name == f.piece.Name {
			continue // the piece's own name says it
		}
		name := f.piece.RoleOf(face.Name)
		if name == "" {
			name = words.Plain(face.Name)
		}
		x, y := f.at(net.Point{X: (lo.X + hi.X) / 2, Y: (lo.Y + hi.Y) / 2})
		wide, full := pen.Wide(name, pen.SizeOf("on-card")), face.Area()/((hi.X-lo.X).MM()*(hi.Y-lo.Y).MM())
		if full < 0.7 {
			// A triangle has room for its name where its weight lies.
			x, y = f.at(face.Centre())
			w, h = w*full, 0
		}
		switch {
		case wide < w-8 && (h > 18 || h == 0):
			spots := []pen.Spot{pen.At(x, y+4, "middle", false), pen.At(x, y+h/4+5, "middle", false), pen.At(x, y-h/4+5, "middle", false)}
			if wide < w*0.3 {
				// Beside what stands in the middle, where a pointed flap is lower.
				low := y + 4 + h*(1-full)/2
				spots = append(spots, pen.At(x-w*0.3, low, "middle", false), pen.At(x+w*0.3, low, "middle", false))
			}
			f.Label(name, "on-card", spots...)
		case wide < h-8 && w > 18:
			f.Label(name, "on-card", pen.At(x+4, y, "middle", true), pen.At(x+4+w/4, y, "middle", true))
		}
	}
}

// bends hatches the zones where the card is bent round evenly, with how long
// each is.
func (f flat) bends() {
	for _, c := range f.piece.Curves {
		face := f.piece.Face(c.Face)
		if face == nil {
			continue
		}
		lo, hi := face.Bounds()
		x1, y1 := f.at(lo)
		x2, y2 := f.at(hi)
		f.Group("data-link", f.piece.Name+"-"+c.Face)
		for i := 1; i < 8; i++ {
			part := float64(i) / 8
			if c.AcrossWidth {
				f.Line("bend-zone", x1+(x2-x1)*part, y1, x1+(x2-x1)*part, y2)
			} else {
				f.Line("bend-zone", x1, y1+(y2-y1)*part, x2, y1+(y2-y1)*part)
			}
		}
		text := "bent, " + f.p.Step.Show(c.Length(face)).Text + " long"
		f.Label(text, "flag-text", pen.At((x1+x2)/2, (y1+y2)/2+5, "middle", false),
			pen.At((x1+x2)/2+4, (y1+y2)/2, "middle", true))
		f.End()
	}
}

// says tells the drawing in words.
func (f flat) says() string {
	show := func(l measure.Length) string { return f.p.Step.Show(l).String() }
	var up, across []string
	for _, pass := range sorted(f.piece.Passes) {
		if pass.AlongWidth {
			up = append(up, show(pass.At))
		} else {
			across = append(across, show(pass.At))
		}
	}
	return fmt.Sprintf("%s, inside up, %s wide and %s high; scores %s from the left edge and %s from the top edge.",
		words.Capital(f.piece.Name), show(f.piece.Width), show(f.piece.Height), strings.Join(up, ", "),
		strings.Join(across, ", "))
}

// legend tells the line codes that the pieces use, and how much higher than one
// row it is.
func legend(c *pen.Canvas, width, y float64, pl *plan.Plan, pieces []*net.Piece) (more float64) {
	const left, row = 16.0, 22.0
	x := left
	has := map[string]bool{"cut": true}
	for _, p := range pieces {
		for _, l := range p.Outline() {
			switch {
			case l.Kind == net.Bend:
				has["bend"] = true
			case l.Kind == net.Score && l.Fold == net.Mountain:
				has["ridge"] = true
			case l.Kind == net.Score:
				has["groove"] = true
			}
		}
		has["layer"] = has["layer"] || len(layersOn(pl, p)) > 0
		has["glued"] = has["glued"] || len(stuck(pl, p)) > 0
		has["away"] = has["away"] || len(p.Kept()) < len(p.Faces)
	}
	c.Group("class", "key")
	defer c.End()
	for _, e := range []struct{ class, word string }{
		{"cut", "cut"}, {"groove", "valley score"}, {"ridge", "mountain score"}, {"bend", "bend"}, {"layer", "layer outside"}, {"glued", "stuck"},
		{"away", "cut away"},
	} {
		if !has[e.class] {
			continue
		}
		takes := 52 + pen.Wide(e.word, 10.6) // the estimate is for what must not overlap
		if x > left && x+takes > width {
			x, y, more = left, y+row, more+row
		}
		switch e.class {
		case "glued", "away":
			c.Rect(e.class, x, y-8, 26, 14)
			c.Rect("dim", x, y-8, 26, 14)
		default:
			c.Line(e.class, x, y, x+26, y)
			if e.class == "groove" {
				c.Line("groove-floor", x, y, x+26, y)
			}
		}
		c.Text(x+32, y+4, "small", "start", e.word)
		x += takes
	}
	return more
}

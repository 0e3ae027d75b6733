package draw

import (
	"brevium/core/assembly"
	"brevium/core/plan"
	"brevium/core/sheet"
)

// openings numbers slots along the ruler and writes the width of holes in them.
func (f flat) openings() {
	for _, s := range f.piece.Slots {
		x := f.x + s.X.MM()*f.k
		f.line("flag", x, f.y-rulerWide-5, x, f.y)
		f.text(x, f.y-rulerWide-8, "flag-text", "middle", f.p.Step.Show(s.X).Text)
	}
	if len(f.piece.Slots) > 0 {
		s := f.piece.Slots[0]
		y := f.y + s.Depth.MM()*f.k/2
		if s.FromBottom {
			y = f.y + (f.piece.Height-s.Depth/2).MM()*f.k
		}
		f.text(f.x+s.X.MM()*f.k+5, y+4, "flag-text small", "start", f.p.Step.Show(s.Depth).Text+" deep")
	}
	for _, w := range f.piece.Windows {
		x, y := f.at(sheet.Point{X: (w.Lo.X + w.Hi.X) / 2, Y: (w.Lo.Y + w.Hi.Y) / 2})
		label := f.p.Step.Show(w.Hi.X-w.Lo.X).Text + " × " + f.p.Step.Show(w.Hi.Y-w.Lo.Y).Text
		if (w.Hi.X-w.Lo.X).MM()*f.k > wide(label, 12)+6 && (w.Hi.Y-w.Lo.Y).MM()*f.k > 16 {
			f.text(x, y+4, "flag-text", "middle", label)
		}
	}
	for _, h := range append(append([]sheet.Punch(nil), f.piece.Punches...), f.piece.Notches...) {
		x, y := f.at(h.Mid)
		label := "⌀ " + f.p.Step.Show(h.Diameter).Text
		if h.Diameter.MM()*f.k > wide(label, 12)+6 && h.Mid.X > 0 && h.Mid.X < f.piece.Width {
			f.text(x, y+4, "flag-text", "middle", label)
		}
	}
}

// marks shows where something is put on, with its name where there is room.
func (f flat) marks() {
	for _, m := range f.piece.Marks {
		x, y := f.at(m.At)
		f.group()
		f.title(m.What)
		f.tag("circle", "class", "mark", "cx", x, "cy", y, "r", 5.0)
		f.line("mark", x-8, y, x+8, y)
		f.line("mark", x, y-8, x, y+8)
		f.end()
		f.text(x+11, y+4, "on-card small", "start", m.What)
	}
}

// stuck lists the faces of a piece that are stuck to something: behind another
// of its own, or, where two pieces are stuck together, the smaller of the two.
func stuck(p *plan.Plan, piece *sheet.Piece) (out []*sheet.Face) {
	for _, g := range piece.Glues {
		if f := piece.Face(g.Face); f != nil {
			out = append(out, f)
		}
	}
	for _, j := range p.Box.Joins {
		a, b := faceOf(p, j.A), faceOf(p, j.B)
		if !j.Stuck || a.face == nil || b.face == nil {
			continue
		}
		small := a
		if b.face.Area() < a.face.Area() {
			small = b
		}
		if small.piece == piece {
			out = append(out, small.face)
		}
	}
	return out
}

// onPiece is a face with the piece it is of.
type onPiece struct {
	piece *sheet.Piece
	face  *sheet.Face
}

// faceOf finds a face by the path to it: "lid/back".
func faceOf(p *plan.Plan, ref string) onPiece {
	name, face := assembly.Ref(ref)
	if part := p.Box.Part(name); part != nil && part.Piece != nil {
		return onPiece{part.Piece, part.Piece.Face(face)}
	}
	return onPiece{}
}

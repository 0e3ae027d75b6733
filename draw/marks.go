package draw

import (
	"slices"

	"brevium/core/assembly"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/draw/pen"
)

// openings writes how deep slots are, and the size of windows and holes in them.
func (f flat) openings() {
	if len(f.piece.Slots) > 0 {
		s := f.piece.Slots[0]
		y := f.y + s.Depth.MM()*f.k/2
		if s.FromBottom {
			y = f.y + (f.piece.Height-s.Depth/2).MM()*f.k
		}
		f.Label(f.p.Step.Show(s.Depth).Text+" deep", "flag-text", pen.At(f.x+s.X.MM()*f.k+5, y+4, "start", false))
	}
	for _, w := range f.piece.Windows {
		x, y := f.at(net.Point{X: (w.Lo.X + w.Hi.X) / 2, Y: (w.Lo.Y + w.Hi.Y) / 2})
		text := f.p.Step.Show(w.Hi.X-w.Lo.X).Text + " × " + f.p.Step.Show(w.Hi.Y-w.Lo.Y).Text
		if (w.Hi.X-w.Lo.X).MM()*f.k > pen.Wide(text, pen.SizeOf("flag-text"))+6 && (w.Hi.Y-w.Lo.Y).MM()*f.k > 20 {
			f.Label(text, "flag-text", pen.At(x, y+5, "middle", false))
		}
	}
	for _, h := range slices.Concat(f.piece.Punches, f.piece.Notches) {
		x, y := f.at(h.Mid)
		text, r := "⌀ "+f.p.Step.Show(h.Diameter).Text, h.Diameter.MM()*f.k/2
		spots := []pen.Spot{pen.At(x+r+5, y+5, "start", false), pen.At(x-r-5, y+5, "end", false), pen.At(x, y+r+18, "middle", false)}
		if 2*r > pen.Wide(text, pen.SizeOf("flag-text"))+6 && h.Mid.X > 0 && h.Mid.X < f.piece.Width {
			spots = []pen.Spot{pen.At(x, y+4, "middle", false)}
		}
		f.Label(text, "flag-text", spots...)
	}
}

// marks shows where something is put on, with its name where there is room.
func (f flat) marks() {
	for _, m := range f.piece.Marks {
		x, y := f.at(m.At)
		f.Group()
		f.Title(m.What)
		f.Tag("circle", "class", "mark", "cx", x, "cy", y, "r", 5.0)
		f.Line("mark", x-8, y, x+8, y)
		f.Line("mark", x, y-8, x, y+8)
		f.End()
		f.Labels.Taken = append(f.Labels.Taken, pen.Between(x-9, y-9, x+9, y+9))
		f.Label(m.What, "on-card small", pen.At(x+11, y+4, "start", false), pen.At(x-11, y+4, "end", false))
	}
}

// stuck lists the faces of a piece that are stuck to something: behind another
// of its own, or, where two pieces are stuck together, the smaller of the two.
func stuck(p *plan.Plan, piece *net.Piece) (out []*net.Face) {
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
	piece *net.Piece
	face  *net.Face
}

// faceOf finds a face by the path to it: "lid/back".
func faceOf(p *plan.Plan, ref string) onPiece {
	name, face := assembly.Ref(ref)
	if part := p.Box.Part(name); part != nil && part.Piece != nil {
		return onPiece{part.Piece, part.Piece.Face(face)}
	}
	return onPiece{}
}

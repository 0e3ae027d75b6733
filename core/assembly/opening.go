package assembly

import (
	"math"
	"slices"

	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/words"
)

// What opens a box must be free to move: what is stuck to its side stays below it.

// Flank is one side of the closed box as another box meets it there.
type Flank struct {
	Still float64 // how high above the table nothing that moves lies outermost, infinite where nothing does
	Over  string  // what moves and lies outermost, "" for nothing
	Bare  bool    // a quarter of the side or more is card that stays still, level with the outermost
	Drawn bool    // the box is drawn open to that side
}

// How many places of a side are looked at, along and up; and how far behind the outermost card still meets
// what is stuck there, in millimetres.
const flankAlong, flankUp, flush = 5, 12, 1.5

// Flank looks at a side of the closed box: left, right, front or back.
func (b *Box) Flank(t Length, side string) (out Flank) {
	s := b.Assemble(t, Closed)
	all := s.Box()
	lo, hi := fold.Extent(all...)
	moves := b.opening(s)
	in := map[string]fold.Vec{"left": {X: 1}, "right": {X: -1}, "front": {Y: 1}, "back": {Y: -1}}[side]
	out.Still, out.Drawn = math.Inf(1), side == "right" && b.drawn()
	mid, size := lo.Add(hi).Times(0.5), hi.Sub(lo)
	still := 0
	for i := range flankAlong {
		for j := range flankUp {
			along, up := (float64(i)+0.5)/flankAlong-0.5, (float64(j)+0.5)/flankUp
			from := fold.Vec{X: mid.X + size.X*along, Y: mid.Y + size.Y*along, Z: lo.Z + size.Z*up}
			if in.X != 0 {
				from.X = mid.X - in.X*size.X/2
			} else {
				from.Y = mid.Y - in.Y*size.Y/2
			}
			hits, _ := crossed(all, from.Sub(in), in, nobody)
			if len(hits) == 0 || hits[0].far-1 > flush {
				continue
			}
			if !moves[hits[0].Placed] {
				still++
				continue
			}
			if low := size.Z * float64(j) / flankUp; low < out.Still {
				switch out.Still, out.Over = low, words.Plain(hits[0].Name); {
				case hits[0].Body != all[0]:
					out.Over = words.Plain(hits[0].Body.Name)
				case hits[0].Name == side:
					out.Over = "wall"
				}
			}
		}
	}
	out.Bare = 4*still >= flankAlong*flankUp
	return out
}

func nobody(a, b *fold.Placed) bool { return false }

// drawn reports whether the box opens by drawing it out of a sleeve, to the right.
func (b *Box) drawn() bool {
	return slices.ContainsFunc(b.Parts, func(p *Part) bool { return p.sleeves() })
}

// sleeves reports whether a part stays where it is while the rest is drawn out of it.
func (p *Part) sleeves() bool {
	return p.When == net.Close && p.Off == Aside && p.Piece != nil && p.Piece.Part != net.Band
}

// opening gives the faces of the closed box that move when it is opened.
func (b *Box) opening(s Standing) map[*fold.Placed]bool {
	out, drawn := map[*fold.Placed]bool{}, b.drawn()
	for _, p := range b.Parts {
		if p.Piece == nil {
			continue
		}
		for _, body := range s.All(p.Name) {
			for _, f := range body.Faces {
				out[f] = p.When == net.Close || Opens(p.Piece, f.Name) || hangsOnOpening(p.Piece, body, f.Name)
				if drawn {
					out[f] = !p.sleeves()
				}
			}
		}
	}
	return out
}

// hangsOnOpening reports whether a face hangs on one that opens.
func hangsOnOpening(p *net.Piece, body *fold.Body, face string) bool {
	for _, m := range p.Order {
		if m.When != net.Close {
			continue
		}
		for _, f := range m.Faces {
			if body.HangsOn(f)[face] {
				return true
			}
		}
	}
	return false
}

// Moves reports whether a face of a body moves when the box is opened: it opens, or hangs on what does.
func Moves(p *net.Piece, body *fold.Body, face string) bool {
	return Opens(p, face) || hangsOnOpening(p, body, face)
}

// Stuck gives the pairs of faces of different parts that are stuck to each other.
func (s Standing) Stuck() (out [][2]*fold.Placed) {
	for _, g := range s.trees {
		for _, j := range g.Joins {
			if j.Stuck {
				for _, c := range g.contacts(j) {
					out = append(out, [2]*fold.Placed{c.a, c.b})
				}
			}
		}
	}
	return out
}

package assembly

import (
	"brevium/core/measure"
	"brevium/core/net"
)

// Meet finds where the halves of a pair go: on the middle line of the face that
// closes, on a mark of the tools, as near its outer edge as leaves both halves
// card enough round them when the box is closed. It marks both pieces and says
// whether there was a place.
func (b *Box) Meet(p Pair, t, room, step Length) bool {
	whole := b.Assemble(t, Closed).whole()
	one, a := whole.find(p.A)
	other, on := whole.find(p.B)
	if a == nil || on == nil {
		return false
	}
	lo, hi := a.Bounds()
	mid := (lo.X + hi.X) / 2
	want := (p.Radius + room).MM()
	outer := fromHinge(a.Face)
	for off := Length(0); off <= hi.Y-lo.Y; off += min(step, measure.Millimetre/2) {
		at := net.Point{X: mid, Y: lo.Y + off}
		if !outer {
			at.Y = hi.Y - off
		}
		facing := on.Under(a.Place(at))
		if one.RoomRound(a, at) < want || other.RoomRound(on, facing) < want {
			continue
		}
		one.Piece.Mark(p.What, at, p.Radius)
		other.Piece.Mark(p.What, facing, p.Radius)
		return true
	}
	return false
}

// fromHinge reports whether a face hangs by its lower edge, as drawn.
func fromHinge(f *net.Face) bool {
	_, hi := f.Bounds()
	for _, e := range f.Edges {
		if !e.Kind.Open() && e.Beyond != nil && e.A.Y == hi.Y && e.B.Y == hi.Y {
			return true
		}
	}
	return false
}

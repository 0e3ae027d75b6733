package style

import (
	"brevium/core/assembly"
	"brevium/core/measure"
	"brevium/core/sheet"
)

// Liners on the floor stiffen it: glued on each other they bend as one.

// linerBorder is how much smaller a liner is than the floor, over the whole of it.
const linerBorder = measure.Inch / 8

// lineFloor lays as many liners on the floor of what the things stand in as are
// asked for. Only the floor of a tray can be lined.
func (j *Job) lineFloor(b *Box) {
	first := b.Parts[0]
	if j.Floor == 0 || first.Piece == nil || len(b.Rooms) > 0 || !j.style.Tray {
		return
	}
	lo, hi := first.Piece.Spot(first.Piece.Root, 0, 0), first.Piece.Spot(first.Piece.Root, 2, 2)
	l := j.As("liner")
	t, off := l.T(), 6*j.T()+linerBorder
	w, h := (hi.X - lo.X - off).Down(j.Mark()), (hi.Y - lo.Y - off).Down(j.Mark())
	if min(w, h) < j.Adhesive.Width {
		return
	}
	p := sheet.Grid("floor liner", sheet.Cols(w), sheet.Rows(h), "liner")
	p.Part, p.Root = sheet.Liner, "liner"
	on := first.Name + "/" + first.Piece.Root
	var at []assembly.Place
	for k := range j.Floor {
		at = append(at, assembly.Place{Face: "liner", On: on, Out: -((j.As(first.Name).T()+t)/2 + Length(k)*t)})
	}
	b.Add(p, at...)
	b.Joins = append(b.Joins, assembly.Join{A: "floor liner/liner", B: on, Or: []string{"floor liner/liner"}, Layers: 1,
		Stuck: true})
}

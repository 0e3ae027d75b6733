package drawings

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/dress"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/sets"
	"brevium/core/words"
)

// What lies on a sheet under a name: a piece, a half of one that is joined, or a strip that
// several layers are cut from.

// sheetParts finds pieces by the names they have on the sheets.
type sheetParts struct{ sets.Job }

// before counts how many of each thing lie on the sheets before the nth: the last copies of a
// piece are those for the other hand.
func before(j sets.Job, n int) map[string]int {
	out, k := map[string]int{}, 0
	for _, c := range j.Cuts {
		for _, s := range c.Sheets {
			if k++; k > n {
				return out
			}
			for _, it := range s.Placed {
				out[it.Piece]++
			}
		}
	}
	return out
}

// draw gives the lines of what lies on a sheet under a name, w by h, as it is before it is
// turned there.
func (j sheetParts) draw(name string, nth int, w, h float64) []Path {
	if p, own, ok := j.Called(name); ok {
		if of := ofPlan(p, own, nth); of != nil {
			return of
		}
	}
	return rectangle(name, w, h)
}

func rectangle(name string, w, h float64) []Path {
	return []Path{{Kind: Cut, Piece: name, Points: []Point{{0, 0}, {w, 0}, {w, h}, {0, h}}, Closed: true},
		{Kind: Name, Piece: name, Points: []Point{{w / 2, h / 2}}, Text: name}}
}

// ofPlan finds a thing of one box; nil when there is none of the name, or it is a plain
// rectangle.
func ofPlan(p *plan.Plan, name string, nth int) []Path {
	if piece := p.Box.Piece(name); piece != nil {
		of := paths(p, piece)
		if nth%piece.Count >= piece.Count-piece.Handed {
			Move(of, func(q Point) Point { return Point{piece.Width.MM() - q.X, q.Y} })
		}
		return of
	}
	if base, ok := strings.CutSuffix(name, ", first half"); ok {
		return half(p, base, false)
	}
	if base, ok := strings.CutSuffix(name, ", second half"); ok {
		return half(p, base, true)
	}
	if _, part, ok := p.RunCalled(name); ok {
		return strip(p, part)
	}
	return nil
}

// strip is a part of a run of layers on the strip they are cut from, its inside up: the run is
// told with its print up, so that left and right change over.
func strip(p *plan.Plan, part dress.RunPart) (out []Path) {
	for _, c := range part.Cuts { // the strip's own rim is not cut: nothing of it stays
		of := paths(p, c.Piece)
		left := part.W - (c.X - part.From) - c.Piece.Width
		Move(of, func(q Point) Point { return Point{q.X + left.MM(), q.Y + c.Y.MM()} })
		out = append(out, of...)
	}
	return out
}

// half is one half of a piece that is joined of two: its lines as far as the joint, and the
// joint, which is cut.
func half(p *plan.Plan, name string, second bool) []Path {
	piece := p.Box.Piece(name)
	if piece == nil {
		return nil
	}
	j := p.Joint(piece)
	lo, hi := Point{}, Point{piece.Width.MM(), piece.Height.MM()}
	joint := []Point{{j.At.MM(), 0}, {j.At.MM(), hi.Y}}
	edge := &hi
	if second {
		edge = &lo
	}
	if edge.X = j.At.MM(); !j.AlongWidth {
		*edge = map[bool]Point{false: {piece.Width.MM(), j.At.MM()}, true: {0, j.At.MM()}}[second]
		joint = []Point{{0, j.At.MM()}, {hi.X, j.At.MM()}}
	}
	var out []Path
	for _, path := range append(paths(p, piece), Path{Kind: Cut, Piece: name, Points: joint}) {
		out = append(out, Within(path, lo, hi)...)
	}
	Move(out, func(q Point) Point { return Point{q.X - lo.X, q.Y - lo.Y} })
	return out
}

// Within is what of a path lies in an upright rectangle, its edge with it.
func Within(p Path, lo, hi Point) (out []Path) {
	in := func(q Point) bool {
		return q.X >= lo.X-1e-9 && q.X <= hi.X+1e-9 && q.Y >= lo.Y-1e-9 && q.Y <= hi.Y+1e-9
	}
	if len(p.Points) == 1 {
		if in(p.Points[0]) {
			return []Path{p}
		}
		return nil
	}
	n := len(p.Points)
	if !p.Closed {
		n--
	}
	for i := range n {
		a, b := p.Points[i], p.Points[(i+1)%len(p.Points)]
		if a, b, ok := clipped(a, b, lo, hi); ok {
			out = append(out, Path{Kind: p.Kind, Piece: p.Piece, Within: p.Within, Points: []Point{a, b}})
		}
	}
	return out
}

// clipped is what of a straight line lies in an upright rectangle.
func clipped(a, b, lo, hi Point) (Point, Point, bool) {
	from, to := 0.0, 1.0
	for _, side := range [][2]float64{{a.X - b.X, a.X - lo.X}, {b.X - a.X, hi.X - a.X}, {a.Y - b.Y, a.Y - lo.Y},
		{b.Y - a.Y, hi.Y - a.Y}} {
		by, room := side[0], side[1]
		switch {
		case by == 0 && room < -1e-9:
			return a, b, false
		case by < 0:
			from = max(from, room/by)
		case by > 0:
			to = min(to, room/by)
		}
	}
	along := func(t float64) Point { return Point{a.X + t*(b.X-a.X), a.Y + t*(b.Y-a.Y)} }
	p, q := along(from), along(to)
	return p, q, from < to && math.Hypot(p.X-q.X, p.Y-q.Y) > 1e-9
}

// handsOf says for which hands a piece is made: as it is drawn, mirrored, or both.
func handsOf(piece *net.Piece) []bool {
	switch piece.Handed {
	case 0:
		return []bool{false}
	case piece.Count:
		return []bool{true}
	}
	return []bool{false, true}
}

// Mirrored is what the name of a drawing ends in that is for the other hand.
const Mirrored = " mirrored"

// Drawings lists the drawings of all pieces of a job, each once for each hand.
func Drawings(j sets.Job) (out []Drawing) {
	piecesOf(j, func(p *plan.Plan, box string, piece *net.Piece) {
		for _, d := range ofBlanks(j, p, piece) {
			if box != "" {
				d.Name, d.Says = box+": "+d.Name, words.Capital(box)+": "+words.Small(d.Says)
			}
			out = append(out, d)
		}
	})
	return out
}

// ofBlanks draws what is cut for a piece: the piece, once for each hand or, where it is made of two,
// its halves and the strip behind their joint.
func ofBlanks(j sets.Job, p *plan.Plan, piece *net.Piece) (out []Drawing) {
	if !p.Joined(piece) {
		for _, mirror := range handsOf(piece) {
			out = append(out, OfPiece(j, p, piece, mirror))
		}
		return out
	}
	for _, cut := range p.Blanks(piece, p.Copies) {
		d := Drawing{Name: cut.Name, W: cut.W.MM(), H: cut.H.MM(), Count: cut.Count, Warn: j.Warning()}
		d.Says = fmt.Sprintf("%s, %s × %s, inside face up", words.Capital(cut.Name), p.Say(cut.W), p.Say(cut.H))
		d.Paths = sheetParts{sets.JobOf(p)}.draw(cut.Name, 0, d.W, d.H)
		out = append(out, d)
	}
	return out
}

// piecesOf lists every piece of a job once, with the box it is of.
func piecesOf(j sets.Job, do func(p *plan.Plan, box string, piece *net.Piece)) {
	for i, p := range j.Plans {
		box := ""
		if len(j.Names) > 0 {
			box = j.Names[i]
		}
		for _, piece := range p.Box.Pieces() {
			do(p, box, piece)
		}
	}
}

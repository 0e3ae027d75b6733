package drawings

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/sets"
)

// A drawing is proved as the box is: its lines must be the edges of the faces that were folded.
// Whatever a file says beyond them, or leaves out, would be cut into good card.

// onNet is how far a line of a drawing may lie beside the edge it stands for, in millimetres.
const onNet = 0.02

// TrueToNets refuses a job of which any piece would be drawn otherwise than it was proved.
func TrueToNets(j sets.Job) (err error) {
	piecesOf(j, func(p *plan.Plan, _ string, piece *net.Piece) {
		if err == nil {
			err = trueTo(piece, paths(p, piece))
		}
	})
	return err
}

// trueTo compares the lines of a drawing with the faces of a piece.
func trueTo(piece *net.Piece, drawn []Path) error {
	wrong := func(what string, at Point) error {
		return fmt.Errorf("the drawing of the %s %s, %.1f mm from the left and %.1f mm down. The file was not made", piece.Name, what,
			at.X, at.Y)
	}
	lies := func(kinds map[Kind]bool, q Point) bool {
		for _, p := range drawn {
			if kinds[p.Kind] && p.from(q) < onNet {
				return true
			}
		}
		return false
	}
	var edges []net.Line
	var does []map[Kind]bool
	for _, f := range piece.Faces {
		for _, e := range f.Edges {
			if f.Waste && e.Kind != net.Hole {
				continue // what goes is drawn by the card that stays
			}
			kinds := map[Kind]bool{Valley: e.Fold == net.Valley, Mountain: e.Fold == net.Mountain}
			switch open := e.Kind.Open() || e.Beyond == nil || e.Beyond.Waste; {
			case e.Kind == net.Hole && piece.Punched(e.Line):
				continue // a round is drawn as it was asked for, and compared below
			case open:
				kinds = map[Kind]bool{Cut: true, Hole: true}
			case e.Kind == net.Bend:
				kinds = map[Kind]bool{Bend: true}
			}
			edges, does = append(edges, e.Line), append(does, kinds)
			a, b := at(e.A), at(e.B)
			for _, q := range []Point{a, {(a.X + b.X) / 2, (a.Y + b.Y) / 2}, b} {
				if q != a && q != b && kinds[Cut] {
					continue // of a round only its ends lie on the line
				}
				if !lies(kinds, q) {
					return wrong("leaves a line out", q)
				}
			}
		}
	}
	all := edgesOf(edges, does)
	for _, p := range drawn {
		switch p.Kind {
		case Cut, Valley, Mountain, Bend:
			if q, ok := p.beside(all); ok {
				return wrong("has a line that its net doesn't", q)
			}
		}
	}
	return trueHoles(piece, drawn, wrong)
}

// trueHoles compares round holes: as many circles as were punched, each of its size in its place.
func trueHoles(piece *net.Piece, drawn []Path, wrong func(string, Point) error) error {
	rounds := 0
	for _, p := range drawn {
		if p.Kind == Hole && p.Round > 0 {
			rounds++
			mid := net.Point{X: measure.FromMM(p.Points[0].X), Y: measure.FromMM(p.Points[0].Y)}
			if !piece.Proved(net.Punch{Mid: mid, Diameter: measure.FromMM(p.Round)}) {
				return wrong("has a round hole that was not proved", p.Points[0])
			}
		}
	}
	want := 0
	for _, h := range piece.Punches {
		if h.Scoop == 0 {
			want++
		}
	}
	if rounds != want {
		return wrong(fmt.Sprintf("has %d round holes, not %d", rounds, want), Point{})
	}
	return nil
}

// from is how far a place is from a path.
func (p Path) from(q Point) float64 {
	if len(p.Points) == 1 {
		return math.Abs(apartBy(p.Points[0], q) - p.Round/2)
	}
	pts := p.Points
	if p.Closed {
		pts = append(slices.Clip(pts), pts[0])
	}
	return Stroke{Points: pts}.from(q)
}

// edge is a side of a face, what is done along it and, of a facet, the round it stands for.
type edge struct {
	a, b   Point
	does   map[Kind]bool
	mid    Point
	radius float64 // 0: no facet
}

// on reports whether a place lies on an edge, or on its round.
func (e edge) on(q Point) bool {
	d := Stroke{Points: []Point{e.a, e.b}}.from(q)
	return d < onNet || e.radius > 0 && d < apartBy(e.a, e.b)/2 && math.Abs(apartBy(q, e.mid)-e.radius) < onNet
}

// beside finds a place of a path that lies beside every edge: each of its points, and the middle
// between two.
func (p Path) beside(edges []edge) (Point, bool) {
	for i, a := range p.Points {
		b := a
		if i+1 < len(p.Points) {
			b = p.Points[i+1]
		} else if p.Closed {
			b = p.Points[0]
		}
		for _, q := range []Point{a, {(a.X + b.X) / 2, (a.Y + b.Y) / 2}} {
			if !slices.ContainsFunc(edges, func(e edge) bool { return e.does[p.Kind] && e.on(q) }) {
				return q, true
			}
		}
	}
	return Point{}, false
}

// edgesOf reckons which edges are facets: those of one length that turn a little from one to the
// next, all about one middle.
func edgesOf(lines []net.Line, does []map[Kind]bool) (out []edge) {
	ends := map[net.Point][]net.Line{}
	for _, l := range lines {
		ends[l.A], ends[l.B] = append(ends[l.A], l), append(ends[l.B], l)
	}
	for i, l := range lines {
		e := edge{a: at(l.A), b: at(l.B), does: does[i]}
		for _, end := range []net.Point{l.A, l.B} {
			for _, o := range ends[end] {
				far, next := l.A, o.A
				if far == end {
					far = l.B
				}
				if next == end {
					next = o.B
				}
				mid, r := round(at(far), at(end), at(next))
				if long := apartBy(e.a, e.b); l.Kind == o.Kind && next != far && math.Abs(apartBy(at(end), at(next))-long) < 1e-3 &&
					r > 0 && long < 2*r*math.Sin(mostTurn/2) {
					e.mid, e.radius = mid, r
				}
			}
		}
		out = append(out, e)
	}
	return out
}

// round is the circle through three points; its radius is 0 where they lie on a line.
func round(a, b, c Point) (mid Point, radius float64) {
	d := 2 * (a.X*(b.Y-c.Y) + b.X*(c.Y-a.Y) + c.X*(a.Y-b.Y))
	if math.Abs(d) < 1e-9 {
		return mid, 0
	}
	sq := func(p Point) float64 { return p.X*p.X + p.Y*p.Y }
	mid = Point{(sq(a)*(b.Y-c.Y) + sq(b)*(c.Y-a.Y) + sq(c)*(a.Y-b.Y)) / d, (sq(a)*(c.X-b.X) + sq(b)*(a.X-c.X) + sq(c)*(b.X-a.X)) / d}
	return mid, apartBy(mid, a)
}

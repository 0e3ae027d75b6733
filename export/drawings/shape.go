// Package drawings draws pieces and sheets true to size, and writes them for other programs and for the cutting machine:
// each file is read back before it leaves.
//
// A Drawing is a piece, or a sheet with its pieces laid out, as lines by kind in millimetres:
// templates, drawings for other programs and the cutting machine's files are written from it.
package drawings

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/sets"
	"brevium/core/words"
)

// Kind is what is done along a line.
type Kind string

const (
	Cut      Kind = "cuts"
	Hole     Kind = "holes"
	Valley   Kind = "valley-scores"
	Mountain Kind = "mountain-scores"
	Bend     Kind = "bends" // bent by hand; shown, not scored
	GlueIn   Kind = "glue-inside"
	GlueOut  Kind = "glue-outside"
	Mark     Kind = "marks" // where something is put on
	Name     Kind = "names"
)

// Kinds lists them, in the order they are drawn.
var Kinds = []Kind{GlueIn, GlueOut, Bend, Valley, Mountain, Hole, Cut, Mark, Name}

// Point is a place in millimetres, right and down from the top left corner, inside up.
type Point struct{ X, Y float64 }

// Path is a line of a kind: through points, or a circle about the first, or a text there.
type Path struct {
	Kind   Kind
	Piece  string
	Points []Point
	Closed bool
	Within bool    // of a cut: card stays on both sides of it
	Round  float64 // the diameter of a circle
	Text   string
}

// Drawing is a piece or a sheet, W by H millimetres.
type Drawing struct {
	Name  string
	Says  string // what it is, in words
	W, H  float64
	Count int // how many are made, of both hands together
	Paths []Path
	Warn  string // why the proof does not hold; "" when it does
}

// OfPiece draws one piece as it is cut; of what is made for the other hand too, Mirror says
// which.
func OfPiece(j sets.Job, p *plan.Plan, piece *net.Piece, mirror bool) Drawing {
	d := Drawing{Name: piece.Name, W: piece.Width.MM(), H: piece.Height.MM(), Count: piece.Count * p.Copies,
		Warn: j.Warning()}
	d.Says = fmt.Sprintf("%s, %s × %s, inside face up", words.Capital(piece.Name), p.Say(piece.Width), p.Say(piece.Height))
	if mirror {
		d.Name, d.Says = piece.Name+Mirrored, d.Says+", for the other hand"
	}
	d.Paths = paths(p, piece)
	if mirror {
		Move(d.Paths, func(q Point) Point { return Point{d.W - q.X, q.Y} })
	}
	return d
}

// Move moves lines, point by point.
func Move(of []Path, to func(Point) Point) {
	for i := range of {
		for k, q := range of[i].Points {
			of[i].Points[k] = to(q)
		}
	}
}

// paths are the lines of a piece: what is cut in runs that are cut in one go.
func paths(p *plan.Plan, piece *net.Piece) (out []Path) {
	var cuts, slits, holes []net.Line
	round := piece.Punched
	for _, l := range piece.Outline() {
		ends := []Point{at(l.A), at(l.B)}
		switch {
		case l.Kind == net.Cut && slit(piece, l):
			slits = append(slits, l)
		case l.Kind == net.Cut:
			cuts = append(cuts, l)
		case l.Kind == net.Hole && !round(l):
			holes = append(holes, l)
		case l.Kind == net.Hole:
		case l.Kind == net.Bend:
			out = append(out, Path{Kind: Bend, Points: ends})
		case l.Fold == net.Mountain:
			out = append(out, Path{Kind: Mountain, Points: ends})
		default:
			out = append(out, Path{Kind: Valley, Points: ends})
		}
	}
	for _, h := range piece.Punches {
		if h.Scoop == 0 {
			out = append(out, Path{Kind: Hole, Points: []Point{at(h.Mid)}, Round: h.Diameter.MM()})
			continue
		}
		out = append(out, Path{Kind: Hole, Points: scooped(h), Closed: true})
	}
	out = append(out, chains(Hole, holes)...)
	for _, run := range chains(Cut, slits) {
		run.Within = true
		out = append(out, run)
	}
	out = append(out, chains(Cut, cuts)...)
	for _, m := range piece.Marks {
		out = append(out, Path{Kind: Mark, Points: []Point{at(m.At)}, Round: max(2*m.Radius.MM(), 2)})
	}
	for _, s := range p.Glue().Spreads(piece) {
		kind := GlueIn
		if s.Outside {
			kind = GlueOut
		}
		for _, dot := range s.Dots {
			out = append(out, Path{Kind: kind, Points: []Point{at(dot)}, Round: 1.2})
		}
	}
	for _, f := range piece.Kept() {
		name := words.Plain(f.Name)
		lo, hi := f.Bounds()
		if where, ok := freeName(out, at(f.Centre()), name, (hi.Y-lo.Y).MM()/2); ok {
			out = append(out, Path{Kind: Name, Points: []Point{where}, Text: name})
		}
	}
	for i := range out {
		out[i].Piece = piece.Name
	}
	return out
}

// freeName finds a place for a name on its face, up or down from its middle, at which it lies on
// no other name and, if that is soon, on no dot of glue; ok is false where every place is taken.
func freeName(of []Path, mid Point, name string, reach float64) (at Point, ok bool) {
	half := 0.95*float64(utf8.RuneCountInString(name)) + 1
	clear := func(off float64, dots bool) bool {
		return !slices.ContainsFunc(of, func(p Path) bool {
			x, y := p.Points[0].X-mid.X, p.Points[0].Y-mid.Y-off
			switch p.Kind {
			case Name:
				return math.Abs(x) < half+0.95*float64(utf8.RuneCountInString(p.Text))+1 && math.Abs(y) < 3.6
			case GlueIn, GlueOut:
				return dots && math.Abs(x) < half && y > -3 && y < 1.4
			}
			return false
		})
	}
	for _, dots := range []bool{true, false} {
		most := reach - 2
		if dots {
			most = min(most, 4)
		}
		for off := 0.0; off == 0 || off <= most; off += 1 {
			for _, off := range []float64{off, -off} {
				if clear(off, dots) {
					return Point{mid.X, mid.Y + off}, true
				}
			}
		}
	}
	return mid, false
}

// slit reports whether card stays on both sides of a cut.
func slit(piece *net.Piece, l net.Line) bool {
	dx, dy := (l.B.X - l.A.X).MM(), (l.B.Y - l.A.Y).MM()
	long := math.Hypot(dx, dy)
	for _, side := range []float64{0.05, -0.05} {
		off := net.Point{X: (l.A.X+l.B.X)/2 + measure.FromMM(-dy/long*side), Y: (l.A.Y+l.B.Y)/2 + measure.FromMM(dx/long*side)}
		if !slices.ContainsFunc(piece.Kept(), func(f *net.Face) bool { return net.Inside(f.Points, off) }) {
			return false
		}
	}
	return true
}

func at(p net.Point) Point { return Point{p.X.MM(), p.Y.MM()} }

// chains joins lines that run on from each other into runs, in the order they come.
func chains(kind Kind, lines []net.Line) (out []Path) {
	ends := map[net.Point][]int{}
	for i, l := range lines {
		ends[l.A], ends[l.B] = append(ends[l.A], i), append(ends[l.B], i)
	}
	used := make([]bool, len(lines))
	next := func(from net.Point) (net.Point, bool) {
		for _, i := range ends[from] {
			if used[i] {
				continue
			}
			used[i] = true
			if lines[i].A == from {
				return lines[i].B, true
			}
			return lines[i].A, true
		}
		return from, false
	}
	for i, l := range lines {
		if used[i] {
			continue
		}
		used[i] = true
		run := []net.Point{l.A, l.B}
		for _, back := range []bool{false, true} {
			for run[0] != run[len(run)-1] {
				q, ok := next(run[len(run)-1])
				if !ok {
					break
				}
				run = append(run, q)
			}
			if !back {
				slices.Reverse(run)
			}
		}
		p := Path{Kind: kind}
		if p.Closed = run[0] == run[len(run)-1]; p.Closed {
			run = run[1:]
		}
		for _, q := range run {
			p.Points = append(p.Points, at(q))
		}
		p.Points = smooth(p.Points, p.Closed)
		out = append(out, p)
	}
	return out
}

// OfSheet draws the nth sheet of a job with all that is cut from it.
func OfSheet(j sets.Job, n int) (Drawing, bool) {
	s, c, ok := j.Sheet(n)
	if !ok {
		return Drawing{}, false
	}
	d := Drawing{Name: fmt.Sprintf("sheet %d", n+1), W: s.W.MM(), H: s.H.MM(), Warn: j.Warning()}
	d.Says = fmt.Sprintf("Sheet %d: %s, %s, inside face up", n+1, c.Sheet.Title, c.Card.Title)
	seen := before(j, n)
	for _, it := range s.Placed {
		w, h := it.Rect.W.MM(), it.Rect.H.MM()
		if it.Turned {
			w, h = h, w
		}
		part := sheetParts{j}.draw(it.Piece, seen[it.Piece], w, h)
		seen[it.Piece]++
		x, y := it.Rect.X.MM(), it.Rect.Y.MM()
		Move(part, func(q Point) Point {
			if it.Turned {
				q = Point{h - q.Y, q.X}
			}
			return Point{x + q.X, y + q.Y}
		})
		d.Paths = append(d.Paths, part...)
	}
	return d, true
}

// PlainName is a name for a file: letters, figures and dashes.
func PlainName(s string) string {
	return strings.Trim(strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			return r
		case r >= 'A' && r <= 'Z':
			return r + 'a' - 'A'
		}
		return '-'
	}, s), "-")
}

// Turned is a drawing turned a quarter.
func (d Drawing) Turned() Drawing {
	t := d
	t.W, t.H, t.Paths = d.H, d.W, nil
	for _, path := range d.Paths {
		path.Points = append([]Point(nil), path.Points...)
		t.Paths = append(t.Paths, path)
	}
	Move(t.Paths, func(q Point) Point { return Point{d.H - q.Y, q.X} })
	return t
}

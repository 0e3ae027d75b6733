package net

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
)

// Face is a panel of card between lines. Points run round it, and so do the
// Edges: edge i goes from point i to the next. Holes are openings inside it.
type Face struct {
	Name   string
	Number int // its place among the piece's faces
	Points []Point
	Edges  []Edge
	Holes  [][]Point
	Waste  bool
	Trim   bool // waste that shaping a tab left
}

// Edge is one side of a face: what is done along it, and the face beyond (nil at the rim of the piece).
type Edge struct {
	Line
	Beyond *Face
}

// Bounds gives the corners of the upright rectangle round the face.
func (f *Face) Bounds() (lo, hi Point) { return Bounds(f.Points) }

// Bounds gives the corners of the upright rectangle round an outline.
func Bounds(outline []Point) (lo, hi Point) {
	lo, hi = outline[0], outline[0]
	for _, p := range outline {
		lo = Point{min(lo.X, p.X), min(lo.Y, p.Y)}
		hi = Point{max(hi.X, p.X), max(hi.Y, p.Y)}
	}
	return lo, hi
}

// Area is in square millimetres, less the holes.
func (f *Face) Area() float64 {
	a := math.Abs(area(f.Points))
	for _, h := range f.Holes {
		a -= math.Abs(area(h))
	}
	return a
}

// Centre is where the face balances, holes left out of account.
func (f *Face) Centre() Point {
	x, y, sum := 0.0, 0.0, 0.0
	for i, a := range f.Points {
		b := f.Points[(i+1)%len(f.Points)]
		cross := a.X.MM()*b.Y.MM() - b.X.MM()*a.Y.MM()
		x, y, sum = x+(a.X.MM()+b.X.MM())*cross, y+(a.Y.MM()+b.Y.MM())*cross, sum+3*cross
	}
	return Point{measure.FromMM(x / sum), measure.FromMM(y / sum)}
}

// near is how close two points are one: far below what any tool can cut, and
// above what snapping a crossing to nanometres can move it.
const near = 2_000

// finder finds what the lines of a piece come to.
type finder struct{ *Piece }

// Find cuts the piece into faces along its lines. Mistakes in the lines are kept in Faults: two names in one face
// (a score or slit is missing between them), a name on no card, a score that ends inside a face.
func (p *Piece) Find() {
	if p.shaped != nil {
		p.Faces = append([]*Face{p.shaped}, p.punched...)
		for i, f := range p.Faces {
			f.Number = i
		}
		return
	}
	m := newMesh()
	defer meshes.Put(m)
	corner := []Point{{0, 0}, {p.Width, 0}, {p.Width, p.Height}, {0, p.Height}}
	m.lines = append(m.lines[:0], p.Lines...)
	for i := range corner {
		m.lines = append(m.lines, Line{Kind: Cut, A: corner[i], B: corner[(i+1)%4]})
	}
	m.split(m.lines)
	for _, e := range m.prune() {
		if !e.line.Kind.Open() {
			p.fault("a score ends inside a face of %s", p.Name)
		}
	}
	p.Faces = m.faces()
	finder{p}.nameFaces()
	finder{p}.follow()
	slices.SortStableFunc(p.Faces, func(a, b *Face) int { return cmp.Compare(btoi(a.Waste), btoi(b.Waste)) })
	for i, f := range p.Faces {
		f.Number = i
	}
	if len(p.Curves) > 0 {
		p.facetted = finder{p}.facet()
	}
}

func btoi(b bool) int {
	if b {
		return 1
	}
	return 0
}

func (p finder) nameFaces() {
	for _, l := range p.labels {
		f := smallest(p.Faces, l.at)
		switch {
		case f == nil:
			p.fault("%s of %s lies on no card", l.name, p.Name)
		case f.Name != "" && f.Name != l.name:
			p.fault("%s and %s of %s are one face: a slit or score is missing between them", plainName(f.Name), plainName(l.name),
				p.Name)
		default:
			f.Name = l.name
		}
	}
	seen := map[string]bool{}
	for i, f := range p.Faces {
		if f.Name == waste || f.Name == trim || f.Name == "" && punched(f) {
			f.Waste, f.Trim, f.Name = true, f.Name == trim, ""
			continue
		}
		if f.Name == "" {
			f.Name = fmt.Sprintf("panel %d", i+1)
		}
		if seen[f.Name] {
			p.fault("two faces of %s are called %s", p.Name, f.Name)
		}
		seen[f.Name] = true
	}
}

func plainName(s string) string {
	if s == waste || s == trim {
		return "card cut away"
	}
	return s
}

func punched(f *Face) bool {
	for _, e := range f.Edges {
		if e.Kind != Hole {
			return false
		}
	}
	return true
}

// smallest finds the face a point lies in, of the card round what is punched out there.
func smallest(faces []*Face, at Point) *Face {
	var best *Face
	for _, f := range faces {
		if !punched(f) && Inside(f.Points, at) && (best == nil || math.Abs(area(f.Points)) < math.Abs(area(best.Points))) {
			best = f
		}
	}
	return best
}

// Inside reports whether a point lies within a closed outline.
func Inside(outline []Point, at Point) bool {
	in := false
	for i, a := range outline {
		b := outline[0]
		if i+1 < len(outline) {
			b = outline[i+1]
		}
		if (a.Y > at.Y) != (b.Y > at.Y) {
			t := float64(at.Y-a.Y) / float64(b.Y-a.Y)
			if float64(at.X) < float64(a.X)+t*float64(b.X-a.X) {
				in = !in
			}
		}
	}
	return in
}

// area is signed, in square millimetres.
func area(points []Point) float64 {
	sum := 0.0
	for i, a := range points {
		b := points[(i+1)%len(points)]
		sum += a.X.MM()*b.Y.MM() - b.X.MM()*a.Y.MM()
	}
	return sum / 2
}

// Package net is one piece of card: what is scored, slit, cut away and
// glued, in the order a maker would say it, and the faces those lines make.
//
// The piece lies inside up. X runs left to right and Y down from its top left corner. A style says lines; the faces
// are found from them (see Find), so a forgotten slit shows as a face that cannot fold.
package net

import (
	"fmt"

	"brevium/core/measure"
)

type Length = measure.Length

// Point is a place on the piece.
type Point struct{ X, Y Length }

// Add gives the point that lies so much further right and down.
func (p Point) Add(q Point) Point { return Point{p.X + q.X, p.Y + q.Y} }

// Kind is what is done along a line.
type Kind int

const (
	Score Kind = iota // pressed, to fold along
	Bend              // one of a run of narrow facets that make a curve
	Cut
	Hole // the edge of something punched out
)

func (k Kind) String() string { return [...]string{"score", "bend", "cut", "hole"}[k] }

// Open reports whether card on one side of the line is free of the other side.
func (k Kind) Open() bool { return k == Cut || k == Hole }

// Fold is the way a score folds, seen from the inside face.
type Fold int

const (
	Valley   Fold = iota // the sides rise towards you
	Mountain             // the sides fall away
)

func (f Fold) String() string { return [...]string{"valley", "mountain"}[f] }

// Line is a straight line on the piece.
type Line struct {
	Kind Kind
	Fold Fold
	A, B Point
	Turn float64 // how far a score is folded in the end, in degrees
	Via  float64 // how far it is folded first, when it is folded twice
	Free int     // the unknown that is its angle, counted from 1; 0 when Turn says it
	Name string  // of a line that is no pass, unique in the piece
}

// Pass is one run of the scoring tool, from edge to edge where it can be: cuts are made along parts of it later. A
// pass along the width at 2 in is the line x = 2 in, and From and To are its ends along the height.
type Pass struct {
	AlongWidth   bool
	At, From, To Length
	Fold         Fold
	Name         string // of the line in the piece, for drawings to point at; its parts share it
}

// Slot is a narrow opening from the top edge down, or from the bottom edge up.
type Slot struct {
	X, Width, Depth Length // X is its middle, from the left edge
	FromBottom      bool
}

// Punch is a round opening; a scoop widens it on one side.
type Punch struct {
	Mid             Point
	Diameter, Scoop Length
	Towards         float64 // where the scoop is: an angle from the right, turning down
	Inward          Point   // of a notch: the step from the edge into the card
}

// Window is an opening within a piece: the upright rectangle round it, and whether it is square,
// round or rounded at its corners.
type Window struct {
	Lo, Hi Point
	Shape  string
}

// Mark is a place on a piece where something is put: a magnet, a hook dot.
type Mark struct {
	At     Point
	What   string
	Radius Length
}

// Glue sticks one face to another, on its inside or its outside, Layers thicknesses of card away from it (1 when
// they touch). A lapped face may reach beyond what it is stuck to.
type Glue struct {
	Face, On string
	Outside  bool
	Layers   int
	Lapped   bool
	With     int // stuck when this group of the order is folded, counted from 1; 0 when both are
}

// Part is what a piece is for.
type Part string

const (
	Box    Part = "box"
	Layer  Part = "layer"
	Liner  Part = "liner"
	Band   Part = "band"
	Insert Part = "insert"
	Topper Part = "topper"
	Handle Part = "handle"
	Bow    Part = "bow"
	Ribbon Part = "ribbon" // no card: it is bought by length
)

// Piece is one piece of card and the recipe for it.
type Piece struct {
	Name          string
	Part          Part
	Count         int
	Handed        int // how many of Count are mirror images
	Width, Height Length
	Stock         string   // the card it is cut from, when that is not the box's
	Caliper       Length   // and how thick that is
	Root          string   // the face that stays on the table
	Middle        *Point   // what lies at the middle of the box; nil is the root's middle
	Rounded       Length   // how far a root or an arc is off, for the sake of the marks
	Tips          []string // what makers do before they cut
	Openings
	Sticking
	Folding
	Drawing
	Found
}

// Openings are what is cut out within a piece or put on it.
type Openings struct {
	Slots   []Slot   // for other strips to go in
	Punches []Punch  // round holes
	Notches []Punch  // half rounds out of an edge
	Windows []Window // openings within the piece
	Marks   []Mark   // where something is put on
}

// Sticking is which faces lie on which when all is folded, and what makers call them.
type Sticking struct {
	Glues  []Glue      // which face is stuck to which
	Tucks  []Glue      // faces that lie behind others without being stuck
	Crowds [][2]string // faces that press on each other where many layers come together
	Meets  [][2]string // walls whose edges come together
	roles  map[string]string
}

// Folding is how its creases are folded, and in what order.
type Folding struct {
	Order   []Move    // faces in the order they are folded
	Curves  []Curve   // faces that are bent round
	Paths   []Path    // creases whose second folding is no even one
	Unknown []float64 // angles that folding settles: the guesses to begin with, in degrees
	rules   []rule
}

// Drawing is the lines of a piece.
type Drawing struct {
	Lines   []Line
	Passes  []Pass
	Slanted []Line // bends, and scores that run with neither edge
	Slits   []Line // cuts between two faces that both stay
	labels  []label
	cells   map[string][]Point // what is left of a cell that was split
	grid    *grid
	shaped  *Face   // all of it, where it is cut to an outline
	punched []*Face // and what is punched out of that
}

// Found is what the lines come to. Only Find fills it.
type Found struct {
	Faces    []*Face  // waste last
	Faults   []string // what the lines get wrong
	facetted *Piece   // the piece with its curves in facets
}

// Phase is when something is done: while the box is made, to close it, or to close it for good once it is filled.
type Phase int

const (
	Make Phase = iota
	Close
	Seal
)

// Move is one move of the folding: faces that are turned together or in turn.
type Move struct {
	Faces []string
	When  Phase
	Told  string // what it is called, where the faces' names don't say it
}

// Path says how a crease between two faces is folded on its way the second time:
// its angle in degrees, more than 0 for a valley, at even parts of the way.
type Path struct {
	A, B  string
	Turns []float64
}

// OnItsWay gives the angle, in degrees, of a crease that has come so far on its path.
func (o *Folding) OnItsWay(a, b string, part float64) (float64, bool) {
	for _, w := range o.Paths {
		if w.A == a && w.B == b || w.A == b && w.B == a {
			at := part * float64(len(w.Turns)-1)
			i := min(int(at), len(w.Turns)-2)
			return w.Turns[i] + (w.Turns[i+1]-w.Turns[i])*(at-float64(i)), true
		}
	}
	return 0, false
}

// Curve is a face that is bent evenly, about lines along the height (or the width), through so many degrees in all.
type Curve struct {
	Face        string
	AcrossWidth bool // its ends are left and right
	Turn        float64
	Fold        Fold
}

type label struct {
	at   Point
	name string
}

// waste names card that is cut away, and trim what shaping a tab leaves.
const waste, trim = ".", ","

// New begins a piece without lines.
func New(name string, width, height Length) *Piece {
	return &Piece{Name: name, Part: Box, Count: 1, Width: width, Height: height}
}

// fault notes a mistake in a recipe; the proof reports it.
func (n *Found) fault(format string, args ...any) {
	n.Faults = append(n.Faults, fmt.Sprintf(format, args...))
}

// Label names the face that holds the point.
func (d *Drawing) Label(at Point, name string) { d.labels = append(d.labels, label{at, name}) }

// Discard marks the face that holds the point as cut away.
func (d *Drawing) Discard(at Point) { d.Label(at, waste) }

// CutAlong cuts from point to point.
func (d *Drawing) CutAlong(points ...Point) {
	for i := 1; i < len(points); i++ {
		d.Lines = append(d.Lines, Line{Kind: Cut, A: points[i-1], B: points[i]})
	}
}

// Glue sticks a face behind another, on its inside.
func (s *Sticking) Glue(face, on string) { s.GlueOver(face, on, 1) }

// GlueOver sticks a face behind another, with layers of card that lie between them in part counted in.
func (s *Sticking) GlueOver(face, on string, layers int) {
	s.Glues = append(s.Glues, Glue{Face: face, On: on, Layers: layers})
}

// GlueNow is Glue for what is stuck when the last group of the order is folded, though it is folded again later.
func (p *Piece) GlueNow(face, on string) {
	p.Glues = append(p.Glues, Glue{Face: face, On: on, Layers: 1, With: len(p.Order)})
}

// Tuck lays a face behind another, layers of card away, without sticking it.
func (s *Sticking) Tuck(face, on string, layers int) {
	s.Tucks = append(s.Tucks, Glue{Face: face, On: on, Layers: layers})
}

// GlueLapped is GlueOver for a face of which only a part lies on the other.
func (s *Sticking) GlueLapped(face, on string, layers int) {
	s.Glues = append(s.Glues, Glue{Face: face, On: on, Layers: layers, Lapped: true})
}

// GlueOutside sticks a face, or a part of it, on the outside of another, layers of card away.
func (s *Sticking) GlueOutside(face, on string, layers int) {
	s.Glues = append(s.Glues, Glue{Face: face, On: on, Outside: true, Layers: layers, Lapped: true})
}

func (d *Drawing) nextSlanted() string { return fmt.Sprintf("s%d", len(d.Slanted)+1) }

// Slant scores, or only bends, a line that runs with neither edge.
func (d *Drawing) Slant(kind Kind, a, b Point, degrees float64, fold Fold) {
	l := Line{Kind: kind, Fold: fold, A: a, B: b, Turn: degrees, Name: d.nextSlanted()}
	d.Lines, d.Slanted = append(d.Lines, l), append(d.Slanted, l)
}

// Meet says that two walls come together edge to edge.
func (s *Sticking) Meet(a, b string) { s.Meets = append(s.Meets, [2]string{a, b}) }

// FoldUp adds faces to the order of folding: those in one call move together.
func (o *Folding) FoldUp(faces ...string) { o.move(Make, faces) }

// Closing adds faces whose folding closes the box; it opens by them again.
func (o *Folding) Closing(faces ...string) { o.move(Close, faces) }

// Sealing adds faces whose folding closes the filled box for good.
func (o *Folding) Sealing(faces ...string) { o.move(Seal, faces) }

func (o *Folding) move(when Phase, faces []string) {
	o.Order = append(o.Order, Move{Faces: faces, When: when})
}

// Tell says in words what the last move means.
func (o *Folding) Tell(words string) { o.Order[len(o.Order)-1].Told = words }

// Role says what faces are, where makers have a word for such: "tab", "dust flap".
func (s *Sticking) Role(role string, faces ...string) {
	if s.roles == nil {
		s.roles = map[string]string{}
	}
	for _, f := range faces {
		s.roles[f] = role
	}
}

// Has reports whether any face is that.
func (s *Sticking) Has(role string) bool {
	for _, r := range s.roles {
		if r == role {
			return true
		}
	}
	return false
}

// RoleOf is what a face is, "" for a wall or panel.
func (s *Sticking) RoleOf(face string) string { return s.roles[face] }

// Face finds a face by name.
func (n *Found) Face(name string) *Face {
	for _, f := range n.Faces {
		if f.Name == name && !f.Waste {
			return f
		}
	}
	return nil
}

// Kept gives the faces that are not cut away.
func (n *Found) Kept() []*Face {
	for i, f := range n.Faces {
		if f.Waste {
			return n.Faces[:i]
		}
	}
	return n.Faces
}

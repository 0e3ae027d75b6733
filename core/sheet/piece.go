// Package sheet is one piece of card: what is scored, slit, cut away and
// glued, in the order a maker would say it, and the faces those lines make.
//
// The piece lies inside up. X runs left to right and Y down from its top left
// corner. A style says lines; the faces are found from them (see Find), so a
// forgotten slit shows as a face that cannot fold.
package sheet

import (
	"fmt"

	"brevium/core/measure"
)

type Length = measure.Length

// Point is a place on the piece.
type Point struct{ X, Y Length }

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

// Open says whether card on one side of the line is free of the other side.
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

// Pass is one run of the scoring tool, from edge to edge where it can be:
// cuts are made along parts of it later. A pass along the width at 2 in is the
// line x = 2 in, and From and To are its ends along the height.
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

// Glue sticks one face to another, on its inside or its outside, Layers
// thicknesses of card away from it (1 when they touch). A lapped face may
// reach beyond what it is stuck to.
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

// Piece is one piece of card and the recipe for it. Only Find may fill the
// found part.
type Piece struct {
	Name          string
	Part          Part
	Count         int
	Width, Height Length
	Stock         string // the card it is cut from, when that is not the box's
	Caliper       Length // and how thick that is

	Lines  []Line
	Passes []Pass
	labels []label

	Slots   []Slot      // for other strips to go in
	Punches []Punch     // round holes
	Notches []Punch     // half rounds out of an edge
	Windows []Window    // openings within the piece
	Marks   []Mark      // where something is put on
	Slanted []Line      // bends, and scores that run with neither edge
	Slits   []Line      // cuts between two faces that both stay
	Root    string      // the face that stays on the table
	Middle  *Point      // what lies at the middle of the box; nil is the root's middle
	Glues   []Glue      // which face is stuck to which
	Tucks   []Glue      // faces that lie behind others without being stuck
	Crowds  [][2]string // faces that press on each other where many layers come together
	Meets   [][2]string // walls whose edges come together
	Order   []Move      // faces in the order they are folded
	Curves  []Curve     // faces that are bent round
	Rounded Length      // how far a root or an arc is off, for the sake of the marks
	Tips    []string    // what makers do before they cut
	Paths   []Path      // creases whose second folding is no even one
	Unknown []float64   // angles that folding settles: the guesses to begin with, in degrees
	Handed  int         // how many of Count are mirror images

	Faces  []*Face  // found; waste last
	Faults []string // what the lines get wrong, found

	roles   map[string]string
	rules   []rule
	cells   map[string][]Point // what is left of a cell that was split
	grid    *grid
	shaped  *Face   // all of it, where it is cut to an outline
	punched []*Face // and what is punched out of that

	facetted *Piece // found: the piece with its curves in facets
}

// Phase is when something is done: while the box is made, to close it, or to
// close it for good once it is filled.
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
func (p *Piece) OnItsWay(a, b string, part float64) (float64, bool) {
	for _, w := range p.Paths {
		if w.A == a && w.B == b || w.A == b && w.B == a {
			at := part * float64(len(w.Turns)-1)
			i := min(int(at), len(w.Turns)-2)
			return w.Turns[i] + (w.Turns[i+1]-w.Turns[i])*(at-float64(i)), true
		}
	}
	return 0, false
}

// Curve is a face that is bent evenly, about lines along the height (or the
// width), through so many degrees in all.
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
func (p *Piece) fault(format string, args ...any) {
	p.Faults = append(p.Faults, fmt.Sprintf(format, args...))
}

// Name the face that holds the point.
func (p *Piece) Label(at Point, name string) { p.labels = append(p.labels, label{at, name}) }

// Discard marks the face that holds the point as cut away.
func (p *Piece) Discard(at Point) { p.Label(at, waste) }

// CutAlong cuts from point to point.
func (p *Piece) CutAlong(points ...Point) {
	for i := 1; i < len(points); i++ {
		p.Lines = append(p.Lines, Line{Kind: Cut, A: points[i-1], B: points[i]})
	}
}

// Glue sticks a face behind another, on its inside.
func (p *Piece) Glue(face, on string) { p.GlueOver(face, on, 1) }

// GlueOver sticks a face behind another, with layers of card that lie between
// them in part counted in.
func (p *Piece) GlueOver(face, on string, layers int) {
	p.Glues = append(p.Glues, Glue{Face: face, On: on, Layers: layers})
}

// GlueNow is Glue for what is stuck when the last group of the order is folded,
// though it is folded again later.
func (p *Piece) GlueNow(face, on string) {
	p.Glues = append(p.Glues, Glue{Face: face, On: on, Layers: 1, With: len(p.Order)})
}

// Tuck lays a face behind another, layers of card away, without sticking it.
func (p *Piece) Tuck(face, on string, layers int) {
	p.Tucks = append(p.Tucks, Glue{Face: face, On: on, Layers: layers})
}

// GlueLapped is GlueOver for a face of which only a part lies on the other.
func (p *Piece) GlueLapped(face, on string, layers int) {
	p.Glues = append(p.Glues, Glue{Face: face, On: on, Layers: layers, Lapped: true})
}

// GlueOutside sticks a face, or a part of it, on the outside of another, layers
// of card away.
func (p *Piece) GlueOutside(face, on string, layers int) {
	p.Glues = append(p.Glues, Glue{Face: face, On: on, Outside: true, Layers: layers, Lapped: true})
}

func (p *Piece) nextSlanted() string { return fmt.Sprintf("s%d", len(p.Slanted)+1) }

// Slant scores, or only bends, a line that runs with neither edge.
func (p *Piece) Slant(kind Kind, a, b Point, degrees float64, fold Fold) {
	l := Line{Kind: kind, Fold: fold, A: a, B: b, Turn: degrees, Name: p.nextSlanted()}
	p.Lines, p.Slanted = append(p.Lines, l), append(p.Slanted, l)
}

// Meet says that two walls come together edge to edge.
func (p *Piece) Meet(a, b string) { p.Meets = append(p.Meets, [2]string{a, b}) }

// FoldUp adds faces to the order of folding: those in one call move together.
func (p *Piece) FoldUp(faces ...string) { p.move(Make, faces) }

// Closing adds faces whose folding closes the box; it opens by them again.
func (p *Piece) Closing(faces ...string) { p.move(Close, faces) }

// Sealing adds faces whose folding closes the filled box for good.
func (p *Piece) Sealing(faces ...string) { p.move(Seal, faces) }

func (p *Piece) move(when Phase, faces []string) {
	p.Order = append(p.Order, Move{Faces: faces, When: when})
}

// Tell says in words what the last move means.
func (p *Piece) Tell(words string) { p.Order[len(p.Order)-1].Told = words }

// Role says what faces are, where makers have a word for such: "tab", "dust
// flap".
func (p *Piece) Role(role string, faces ...string) {
	if p.roles == nil {
		p.roles = map[string]string{}
	}
	for _, f := range faces {
		p.roles[f] = role
	}
}

// Has says whether any face is that.
func (p *Piece) Has(role string) bool {
	for _, r := range p.roles {
		if r == role {
			return true
		}
	}
	return false
}

// RoleOf is what a face is, "" for a wall or panel.
func (p *Piece) RoleOf(face string) string { return p.roles[face] }

// Face finds a face by name.
func (p *Piece) Face(name string) *Face {
	for _, f := range p.Faces {
		if f.Name == name && !f.Waste {
			return f
		}
	}
	return nil
}

// Kept gives the faces that are not cut away.
func (p *Piece) Kept() []*Face {
	for i, f := range p.Faces {
		if f.Waste {
			return p.Faces[:i]
		}
	}
	return p.Faces
}

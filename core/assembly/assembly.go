// Package assembly puts folded pieces together: it knows which part goes where, what is stuck to what, how the box
// is made, closed and put away, what it measures, and whether all of that can be.
//
// A box is a tree of parts. A part is a piece of card, or parts that are put
// together by themselves, in as many copies as it has places. What a style says
// is only that, and the joins; everything else is read off the folded tree.
package assembly

import (
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
)

type Length = measure.Length

// Dims is a size: left to right, front to back, up.
type Dims struct{ Length, Width, Depth Length }

// Part is a piece, or parts put together, with a place for each of its copies.
// The first part of a tree needs no place: it stands where it was folded.
type Part struct {
	Name   string
	Piece  *net.Piece
	Within *Tree // a box within the box, in place of a piece
	At     []Place
	When   net.Phase // Make, or Close for what is put on last
	Off    Way       // how what closes the box comes off again
	Rides  bool      // it is stuck on while all is flat, and goes wherever what it is stuck on goes
	Last   bool      // of what rides: it is not stuck on while flat, but when all else is done
	Rests  bool      // what holds it no join of two faces says: its weight, or layers it is stuck on
	Loose  bool      // it is cut with the rest, and has no place of its own in the folded box
}

// Way is the way a part that closes the box comes off.
type Way int

const (
	Stays  Way = iota
	Up         // lifted, and laid back so that the inside shows
	Aside      // drawn off to the right
	Corner     // drawn off over its front left corner
)

// Place lays a face of a copy along a face of another part, both drawn the same way up: their middles together, but
// for so much to the right, down and outwards as the other is drawn. Without On it is laid on the table, whose
// middle is the middle of the box.
type Place struct {
	Face             string // of this part: "back", or "lid/back" of parts within
	On               string // "base/back": a part and its face
	Nth              int    // which copy of that part, the first is 0
	Right, Down, Out Length
	Border           Length // of a layer: how far it stays from the edges
	Quarters         int    // quarter turns
	Over             bool   // turned over, the insides looking at each other
	Stood            bool   // on its lower edge, upright
	Mirror           bool   // the mirror image, for the other hand
}

// Join says that a face of one part touches a face of another: so many thicknesses of card away, stuck there or
// only lying. Faces that are joined may touch; whether they do as said is part of the proof.
type Join struct {
	A, B   string   // "lid/back"
	Or     []string // other faces that a copy of A may lie on in place of B
	Layers int
	Stuck  bool
	Lapped bool // of A only a part lies on B
}

// Clear says that a part, or a face with all that hangs on it, goes over another part (or the rest of its own
// piece, when Inner is "") with room on the sides named.
type Clear struct {
	Outer, Inner string
	Sides        []string
	Skin         Length   // what is stuck between them on each wall
	Under        []Length // or, of each side, what is
	Layers       int      // full faces of card inside the outer wall
	Fits         bool     // it is the clearance of the fit that leaves the room
}

// Pair is two halves of what holds a box closed: each is put on a face of its own, and they must come together.
type Pair struct {
	What   string
	A, B   string // "box/flap", "box/front"
	Radius Length
}

// Thread is ribbon or cord through round holes: so many of them in each of the faces, set evenly
// about its middle, and through all that lie on each other.
type Thread struct {
	What  string
	Faces []string // "lid cover/lap"
	Holes int      // in each
	Apart bool     // one lies below the other: what is tied comes out between them
}

// Tree is parts put together.
type Tree struct {
	Parts   []*Part
	Joins   []Join
	Clears  []Clear
	Pairs   []Pair
	Threads []Thread
}

// Add adds a part.
func (t *Tree) Add(p *net.Piece, at ...Place) *Part {
	part := &Part{Name: p.Name, Piece: p, At: at}
	t.Parts = append(t.Parts, part)
	return part
}

// PutOn adds a part that closes the box, and how it comes off again.
func (t *Tree) PutOn(p *net.Piece, off Way, at ...Place) *Part {
	part := t.Add(p, at...)
	part.When, part.Off = net.Close, off
	return part
}

// Nest adds a box within the box: its pieces take the name as a prefix.
func (t *Tree) Nest(name string, within *Tree, at ...Place) *Part {
	within.prefix(name)
	part := &Part{Name: name, Within: within, At: at}
	t.Parts = append(t.Parts, part)
	return part
}

func (t *Tree) prefix(name string) {
	for _, p := range t.Parts {
		if p.Within != nil {
			p.Within.prefix(name)
		} else {
			p.Piece.Name = name + " " + p.Piece.Name
		}
	}
}

// Stick adds a join of faces that are stuck to each other.
func (t *Tree) Stick(a, b string, lapped bool) {
	t.Joins = append(t.Joins, Join{A: a, B: b, Layers: 1, Stuck: true, Lapped: lapped})
}

// GoesOver says what goes over what, with room on which sides.
func (t *Tree) GoesOver(outer, inner string, sides ...string) {
	t.Clears = append(t.Clears, Clear{Outer: outer, Inner: inner, Sides: sides})
}

// Part finds a part of the tree by its name, or by the path to it.
func (t *Tree) Part(path string) *Part {
	name, rest, deep := strings.Cut(path, "/")
	for _, p := range t.Parts {
		if p.Name == name {
			if deep && p.Within != nil {
				return p.Within.Part(rest)
			}
			return p
		}
	}
	return nil
}

// Pieces lists every piece of card once, with Count what the places of its part, and of those it lies in, come to.
func (t *Tree) Pieces() []*net.Piece {
	return slices.DeleteFunc(t.All(), func(p *net.Piece) bool { return p.Part == net.Ribbon })
}

// All is Pieces with what is no card: ribbon.
func (t *Tree) All() (out []*net.Piece) {
	for _, p := range t.Parts {
		if p.Within != nil {
			out = append(out, p.Within.All()...)
		} else {
			out = append(out, p.Piece)
		}
	}
	return out
}

// Count settles how many there are of each piece, when all parts are in their places.
func (t *Tree) Count() { t.count(1, 0) }

// count counts so many copies of a tree, of which so many are for the other hand.
func (t *Tree) count(times, handed int) {
	for _, p := range t.Parts {
		all, other := 0, 0
		for _, at := range places(p) {
			all += times
			if other += handed; at.Mirror {
				other += times - 2*handed
			}
		}
		if p.Within != nil {
			p.Within.count(all, other)
		} else {
			p.Piece.Count, p.Piece.Handed = all, other
		}
	}
}

// Piece finds a piece by its name.
func (t *Tree) Piece(name string) *net.Piece {
	for _, p := range t.Pieces() {
		if p.Name == name {
			return p
		}
	}
	return nil
}

// Find finds the faces of every piece, settles its unknown angles, and counts the pieces.
func (t *Tree) Find() {
	t.Count()
	for _, p := range t.All() {
		p.Find()
		fold.Solve(p)
	}
}

// ref splits "part/face" into the path of the part and the face.
func ref(s string) (part, face string) {
	i := strings.LastIndexByte(s, '/')
	if i < 0 {
		return s, ""
	}
	return s[:i], s[i+1:]
}

// Ref splits "part/face" into the part and the face.
func Ref(s string) (part, face string) { return ref(s) }

// FindInserts finds the faces of what was put inside since.
func (t *Tree) FindInserts() {
	for _, p := range t.Pieces() {
		if p.Part == net.Insert {
			p.Find()
		}
	}
}

// Package insert makes what stands inside a box to keep things apart: slotted
// dividers, folded partitions on glued feet, a raised platform with holes, and
// trays that lift out. They are parts of the box like any other; each kind says
// which things it suits, what room it wants, and how it is built.
package insert

import (
	"brevium/core/assembly"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/style"
)

type Length = measure.Length

// Kind is one way of making compartments. What a kind leaves nil it has no
// need of.
type Kind struct {
	ID, Title, Why string
	Alone          bool // it has its size from the box alone, and needs no things
	Divides        bool // it puts card between neighbours
	Straight       bool // its strips run straight through, so columns must stand in line
	Suits          func(things []contents.Thing) string
	Room           func(room *contents.Room, things []contents.Thing, j *style.Spec) // what it wants round the things
	Needs          func(need style.Dims, l contents.Load, j *style.Spec) style.Dims  // and round them all
	Lifts          func(l contents.Load, layer int, j *style.Spec) Length            // how high a layer stands
	Build          func(*Maker)
}

// Kinds lists the ways; the first is the default.
var Kinds = []*Kind{
	{ID: "none", Title: "None", Why: "The things lie side by side.", Build: func(*Maker) {}},
	slotted, partitions, platform, trays, petals,
}

// Find gives a kind by its name.
func Find(id string) *Kind {
	for _, k := range Kinds {
		if k.ID == id {
			return k
		}
	}
	return nil
}

// none is the change that does away with compartments.
var none = []string{"arrange.compartments", "none"}

// ease is how much shorter an insert is than the inside it goes into.
const ease = measure.Millimetre / 2

// Maker makes inserts for one box.
type Maker struct {
	Spec   *style.Spec
	Box    *style.Box
	Load   contents.Load
	Height Length   // of dividers; 0 leaves it to the things
	Origin fold.Vec // of the load's corner, in millimetres from the middle of the room
}

// New begins a maker for a load that stands in the middle of the room.
func New(j *style.Spec, b *style.Box, l contents.Load, dividers Length) *Maker {
	return &Maker{Spec: j, Box: b, Load: l, Height: dividers,
		Origin: fold.Vec{X: -l.Need.Length.MM() / 2, Y: -l.Need.Width.MM() / 2}}
}

func (m *Maker) t() Length    { return m.Spec.T() }
func (m *Maker) step() Length { return m.Spec.Mark() }

// how a part stands: on its lower edge, turned to run from front to back.
const (
	stood = 1 << iota
	across90
)

// at places the middle of a face (of its lower edge, when it is stood) so many
// millimetres from the middle of the room and above its floor.
func (m *Maker) at(face string, x, y, z float64, how int) assembly.Place {
	mid := m.Box.Lo.Add(m.Box.Hi).Times(0.5)
	p := assembly.Place{Face: face, Right: measure.FromMM(mid.X + x), Down: measure.FromMM(-mid.Y - y),
		Out: measure.FromMM(-m.Box.Lo.Z - z), Stood: how&stood != 0}
	if how&across90 != 0 {
		p.Quarters = 3
	}
	return p
}

// add adds a piece that goes inside, or one more copy of it.
func (m *Maker) add(p *net.Piece, at assembly.Place) {
	if part := m.Box.Part(p.Name); part != nil && part.Piece == p {
		part.At = append(part.At, at)
		return
	}
	p.Part = net.Insert
	m.Box.Add(p, at)
}

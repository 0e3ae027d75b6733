// Package insert makes what stands inside a box to keep things apart: slotted dividers, folded partitions on glued
// feet, a raised platform with holes, and trays that lift out. They are parts of the box like any other; each kind
// says which things it suits, what room it wants, and how it is built.
package insert

import (
	"fmt"

	"brevium/core/assembly"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/style"
)

type Length = measure.Length

// Kind is one way of making compartments. What a kind leaves nil it has no need of.
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
	{ID: "none", Title: "None", Why: "Things lie side by side.", Build: func(*Maker) {}},
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

var slotted = &Kind{
	ID: "slotted", Title: "Slotted dividers", Why: "Crossed strips with slots. They lift out and fold flat.",
	Alone: true, Divides: true, Straight: true, Build: (*Maker).slotted,
}

// slotEase is how much wider a slot is than the card that goes in it.
const slotEase = measure.Millimetre / 5

// dividers settles how high dividers are.
func (m *Maker) dividers() (Length, bool) {
	inside := m.Box.Inside.Depth.Down(m.step())
	tallest := Length(0)
	for _, s := range m.Load.Stacks {
		tallest = max(tallest, s.At.Height+Length(s.Count)*s.Each.Height)
	}
	if len(m.Load.Stacks) == 0 {
		tallest = inside
	}
	h := min(inside, max((tallest*3/4).Up(m.step()), (20*measure.Millimetre).Up(m.step())))
	if m.Height > 0 {
		h = m.Height
	}
	if h > inside {
		m.Spec.Problem("arrange.dividers", fmt.Sprintf("Your dividers are %s high, but the box is only %s deep inside.",
			m.Spec.Say(h), m.Spec.Say(inside)), "Make them "+m.Spec.Say(inside)+" or lower.", "arrange.dividers", inside.Exact(m.Spec.Units))
		return 0, false
	}
	return h, true
}

// slotted makes strips along and across that cross by half slots: the ones
// along are slotted from above, the ones across from below.
func (m *Maker) slotted() {
	if len(m.Load.Across) == 0 || len(m.Load.Along) == 0 {
		// Strips all one way have nothing to cross and would fall: they get feet.
		m.partitions()
		return
	}
	h, ok := m.dividers()
	if !ok {
		return
	}
	half := (h / 2).Up(m.step())
	width := m.t() + slotEase
	along := m.strip("divider along", m.Box.Inside.Length, h)
	for _, x := range m.Load.Across {
		along.Slot(m.onStrip(along, m.Origin.X+x.MM()), width, half, false)
	}
	across := m.strip("divider across", m.Box.Inside.Width, h)
	for _, y := range m.Load.Along {
		across.Slot(m.onStrip(across, m.Origin.Y+y.MM()), width, half, true)
	}
	for _, y := range m.Load.Along {
		m.add(along, m.at("strip", 0, m.Origin.Y+y.MM(), 0, stood))
	}
	for _, x := range m.Load.Across {
		m.add(across, m.at("strip", m.Origin.X+x.MM(), 0, 0, stood|across90))
	}
}

// strip is a plain strip a little shorter than the inside it stands across.
func (m *Maker) strip(name string, inside, h Length) *net.Piece {
	p := net.New(name, (inside - ease).Down(m.step()), h)
	p.Part, p.Root = net.Insert, "strip"
	p.Label(net.Point{X: p.Width / 1000, Y: h / 2}, "strip")
	return p
}

// onStrip turns a place in the box, in millimetres from its middle, into one
// along a strip that stands in the middle.
func (m *Maker) onStrip(p *net.Piece, at float64) Length { return p.Width/2 + measure.FromMM(at) }

var trays = &Kind{
	ID: "trays", Title: "Trays that lift out", Why: "Each layer has its own tray.", Build: (*Maker).trays,
	Needs: func(need style.Dims, l contents.Load, j *style.Spec) style.Dims {
		take := TrayTakes(j.T(), j.Mark())
		layer := TrayWall(l, j.Adhesive.Width, j.Mark()) + j.T()
		return style.Dims{Length: need.Length + take.Length, Width: need.Width + take.Width,
			Depth: j.T() + Length(l.Layers)*layer + l.Room.Above}
	},
	Lifts: func(l contents.Load, layer int, j *style.Spec) Length {
		return j.T() + Length(layer)*(TrayWall(l, j.Adhesive.Width, j.Mark())+j.T())
	},
}

// TrayTakes is what lift-out trays take from the inside's floor beyond the
// room their things want: walls, tabs and ease each way.
func TrayTakes(t, step Length) style.Dims {
	ease := step.Up(measure.Millimetre)
	return style.Dims{Length: 2*t + ease + step, Width: 4*t + ease + step}
}

// TrayWall is the wall of a lift-out tray: as high as its layer, so that the
// tray above rests on it, and high enough for its tabs.
func TrayWall(load contents.Load, adhesive, step Length) Length {
	h := adhesive
	for _, s := range load.Stacks {
		h = max(h, s.Each.Height)
	}
	return h.Up(step)
}

// trays makes a tray for each layer, with a notch at either end to lift it by.
func (m *Maker) trays() {
	t := m.t()
	ease := measure.Millimetre
	wall := TrayWall(m.Load, m.Spec.Adhesive.Width, m.step())
	d := style.Dims{
		Length: (m.Box.Inside.Length - t - ease).Down(m.step()),
		Width:  (m.Box.Inside.Width - t - ease).Down(m.step()), Depth: wall,
	}
	p := style.Tray(m.Spec, "inner tray", "floor", d)
	if r := min(10*measure.Millimetre, wall*2/5, d.Width/4); r >= 4*measure.Millimetre {
		p.Notch(net.Point{X: 0, Y: p.Height / 2}, r, net.Point{X: 1})
		p.Notch(net.Point{X: p.Width, Y: p.Height / 2}, r, net.Point{X: -1})
	}
	for k := range m.Load.Layers {
		m.add(p, m.at("floor", 0, 0, (t/2+Length(k)*(wall+t)).MM(), 0))
	}
}

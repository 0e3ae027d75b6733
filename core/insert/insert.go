// Package insert makes what stands inside a box to keep things apart: slotted
// dividers, folded partitions on glued feet, a raised platform with holes, and
// trays that lift out. They are pieces like any other.
package insert

import (
	"fmt"

	"brevium/core/box"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
)

type Length = measure.Length

// Kind is one way of making compartments.
type Kind struct{ ID, Title, Why string }

// Kinds lists the ways; the first is the default.
var Kinds = []Kind{
	{"none", "None", "The things lie side by side."},
	{"slotted", "Slotted dividers", "Strips with half slots that cross; they lift out and fold flat."},
	{"partitions", "Glued partitions", "Folded strips on feet stuck to the floor; they stay where they are."},
	{"platform", "Platform with holes", "A raised floor that holds round things upright."},
	{"trays", "Trays that lift out", "Each layer in a tray of its own."},
}

// Known says whether a kind is one of Kinds.
func Known(id string) bool {
	for _, k := range Kinds {
		if k.ID == id {
			return true
		}
	}
	return false
}

// Divided says whether a kind puts card between neighbours.
func Divided(id string) bool { return id == "slotted" || id == "partitions" }

// ease is how much shorter an insert is than the inside it goes into.
const ease = measure.Millimetre / 2

// slotEase is how much wider a slot is than the card that goes in it.
const slotEase = measure.Millimetre / 5

// Maker makes inserts for one box.
type Maker struct {
	Job    *box.Job
	Box    *box.Box
	Load   contents.Load
	Height Length   // of dividers; 0 leaves it to the things
	Origin fold.Vec // where the load's corner lies in the box, in millimetres
}

func (m *Maker) t() Length    { return m.Job.T() }
func (m *Maker) step() Length { return m.Job.Step.Size }

// Add makes the pieces of a kind and stands them in the box. Problems are
// noted with the job.
func (m *Maker) Add(kind string) {
	switch kind {
	case "slotted":
		if len(m.Load.Across) > 0 && len(m.Load.Along) > 0 {
			m.slotted()
			return
		}
		// Strips all one way have nothing to cross and would fall: they get feet.
		m.partitions()
	case "partitions":
		m.partitions()
	case "platform":
		m.platform()
	case "trays":
		m.trays()
	}
}

// dividers settles how high dividers are.
func (m *Maker) dividers() (Length, bool) {
	inside := m.Box.Inside.Depth.Down(m.step())
	tallest := Length(0)
	for _, s := range m.Load.Stacks {
		tallest = max(tallest, s.At.Height+Length(s.Count)*s.Each.Height)
	}
	h := min(inside, max((tallest*3/4).Up(m.step()), (20*measure.Millimetre).Up(m.step())))
	if m.Height > 0 {
		h = m.Height
	}
	if h > inside {
		m.Job.Problem("arrange.dividers", fmt.Sprintf("Dividers of %s stand above the rim: the box is %s deep inside.", m.Job.Say(h), m.Job.Say(inside)), "Make them "+m.Job.Say(inside)+" or lower.")
		return 0, false
	}
	return h, true
}

// slotted makes strips along and across that cross by half slots: the ones
// along are slotted from above, the ones across from below.
func (m *Maker) slotted() {
	h, ok := m.dividers()
	if !ok {
		return
	}
	half := (h / 2).Up(m.step())
	width := m.t() + slotEase
	along := m.strip("divider along", m.Box.Inside.Length, h, len(m.Load.Along))
	for _, x := range m.Load.Across {
		along.Slot(m.onStrip(along, m.Origin.X+x.MM()), width, half, false)
	}
	across := m.strip("divider across", m.Box.Inside.Width, h, len(m.Load.Across))
	for _, y := range m.Load.Along {
		across.Slot(m.onStrip(across, m.Origin.Y+y.MM()), width, half, true)
	}
	m.Box.Pieces = append(m.Box.Pieces, along, across)
	floor := m.t().MM() / 2
	for _, y := range m.Load.Along {
		m.stand(box.Stand{Piece: along.Name, Upright: true, At: fold.Vec{Y: m.Origin.Y + y.MM(), Z: floor}})
	}
	for _, x := range m.Load.Across {
		m.stand(box.Stand{Piece: across.Name, Upright: true, Quarter: true, At: fold.Vec{X: m.Origin.X + x.MM(), Z: floor}})
	}
}

// stand sets a piece on the floor, which in some boxes lies on flaps.
func (m *Maker) stand(s box.Stand) {
	s.At.Z += m.Box.Floor.MM()
	m.Box.Stands = append(m.Box.Stands, s)
}

// strip is a plain strip a little shorter than the inside it stands across.
func (m *Maker) strip(name string, inside, h Length, count int) *sheet.Piece {
	p := sheet.New(name, (inside - ease).Down(m.step()), h)
	p.Part, p.Count, p.Root = sheet.Insert, count, "strip"
	p.Label(sheet.Point{X: p.Width / 1000, Y: h / 2}, "strip")
	return p
}

// onStrip turns a place in the box, in millimetres from its middle, into one
// along a strip that stands in the middle.
func (m *Maker) onStrip(p *sheet.Piece, at float64) Length {
	return p.Width/2 + measure.FromMM(at)
}

// partitions makes a folded strip for every divider: a wall and a foot that is
// stuck to the floor.
func (m *Maker) partitions() {
	h, ok := m.dividers()
	if !ok {
		return
	}
	if m.Box.Floor > 0 {
		m.Job.Problem("arrange.compartments", "The floor of this box is made of flaps, so feet can't be stuck to it.", "Choose slotted dividers that cross, a platform or trays, or another style.")
		return
	}
	foot := m.Job.Adhesive.Width.Up(m.step())
	h = min(h, (m.Box.Inside.Depth - m.t()).Down(m.step()))
	if !m.feetFit(foot) {
		m.Job.Problem("arrange.compartments", fmt.Sprintf("A compartment is narrower than a partition's foot, which wants %s for %s.", m.Job.Say(foot), m.Job.Adhesive.Title), "Choose slotted dividers or none, or stick with wet glue.")
		return
	}
	for _, y := range m.Load.Along {
		m.partition("partition along", m.Box.Inside.Length-ease, h, foot,
			m.Box.Inside.Length.MM()/-2+ease.MM()/2, m.Origin.Y+y.MM(), false)
	}
	for _, x := range m.Load.Across {
		cuts := []float64{-m.Box.Inside.Width.MM() / 2}
		for _, y := range m.Load.Along {
			cuts = append(cuts, m.Origin.Y+y.MM())
		}
		cuts = append(cuts, m.Box.Inside.Width.MM()/2)
		for i := 1; i < len(cuts); i++ {
			m.between(x.MM(), cuts[i-1], cuts[i], h, foot)
		}
	}
	for _, d := range m.Load.Short {
		lo, hi := m.Origin.Y+d.From.MM(), m.Origin.Y+d.To.MM()
		// A row at the rim of the load reaches to the wall of the box.
		if d.From <= m.Load.Room.Around+m.Load.Room.Padding {
			lo = -m.Box.Inside.Width.MM() / 2
		}
		if d.To >= m.Load.Need.Width-m.Load.Room.Around-m.Load.Room.Padding {
			hi = m.Box.Inside.Width.MM() / 2
		}
		m.between(d.X.MM(), lo, hi, h, foot)
	}
}

// feetFit says whether every foot has a floor of its own: a foot lies on the
// front or right side of its wall.
func (m *Maker) feetFit(foot Length) bool {
	clear := func(inside Length, at []float64, towards float64) bool {
		for _, a := range at {
			room := inside.MM()/2 - a*towards
			for _, b := range at {
				if d := (b - a) * towards; d > 0 {
					room = min(room, d)
				}
			}
			if room < (foot + 2*m.t()).MM() {
				return false
			}
		}
		return true
	}
	var along, across []float64
	for _, y := range m.Load.Along {
		along = append(along, m.Origin.Y+y.MM())
	}
	for _, x := range m.Load.Across {
		across = append(across, m.Origin.X+x.MM())
	}
	rows := map[Length][]float64{}
	for _, d := range m.Load.Short {
		rows[d.From] = append(rows[d.From], m.Origin.X+d.X.MM())
	}
	for _, row := range rows {
		if !clear(m.Box.Inside.Length, row, 1) {
			return false
		}
	}
	return clear(m.Box.Inside.Width, along, -1) && clear(m.Box.Inside.Length, across, 1)
}

// between stands a partition across, between two places from front to back. A
// foot of the partition along lies on the front side of it and is kept clear.
func (m *Maker) between(x, lo, hi float64, h, foot Length) {
	if hi < m.Box.Inside.Width.MM()/2-1 {
		hi -= foot.MM()
	}
	length := measure.FromMM(hi-lo) - ease - 2*m.t()
	m.partition("partition across", length, h, foot, lo+ease.MM()/2+m.t().MM(), m.Origin.X+x, true)
}

// partition makes one, or adds to the count of one that is alike, and stands
// it with its left (or front) end at from and its wall at the given place.
func (m *Maker) partition(name string, length, h, foot Length, from, at float64, across bool) {
	length = length.Down(m.step())
	if length < 2*foot || h < m.Job.Adhesive.Width {
		m.Job.Problem("arrange.compartments", "The compartments are too small for glued partitions: there is no room for their feet.", "Choose slotted dividers, or none.")
		return
	}
	p := m.alike(name, length, h+foot)
	if p == nil {
		p = sheet.Grid(name, sheet.Cols(length), sheet.Rows(h, foot), "wall\nfoot")
		p.Part, p.Root = sheet.Insert, "foot"
		p.FoldUp("wall")
		if n := m.named(name); n > 0 {
			p.Name = fmt.Sprintf("%s %d", name, n+1)
		}
		m.Box.Pieces = append(m.Box.Pieces, p)
	} else {
		p.Count++
	}
	mid := from + length.MM()/2
	s := box.Stand{Piece: p.Name, Quarter: across, At: fold.Vec{X: mid, Y: at - foot.MM()/2, Z: m.t().MM()}}
	if across {
		s.At = fold.Vec{X: at + foot.MM()/2, Y: mid, Z: m.t().MM()}
	}
	m.stand(s)
	if p.Count == 1 {
		m.Box.Seats = append(m.Box.Seats, box.Seat{Piece: p.Name, Face: "foot", On: m.Box.Holder,
			OnFace: m.Box.Piece(m.Box.Holder).Root})
	}
}

func (m *Maker) alike(name string, w, h Length) *sheet.Piece {
	for _, p := range m.Box.Pieces {
		if len(p.Name) >= len(name) && p.Name[:len(name)] == name && p.Width == w && p.Height == h {
			return p
		}
	}
	return nil
}

func (m *Maker) named(name string) (n int) {
	for _, p := range m.Box.Pieces {
		if len(p.Name) >= len(name) && p.Name[:len(name)] == name {
			n++
		}
	}
	return n
}

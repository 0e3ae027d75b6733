package insert

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/net"
)

var slotted = &Kind{
	ID: "slotted", Title: "Slotted dividers", Why: "Strips with half slots that cross; they lift out and fold flat.",
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
		m.Spec.Problem("arrange.dividers", fmt.Sprintf("Dividers of %s stand above the rim: the box is %s deep inside.",
			m.Spec.Say(h),
			m.Spec.Say(inside)), "Make them "+m.Spec.Say(inside)+" or lower.", "arrange.dividers", inside.Exact(m.Spec.Units))
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
func (m *Maker) onStrip(p *net.Piece, at float64) Length {
	return p.Width/2 + measure.FromMM(at)
}

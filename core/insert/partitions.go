package insert

import (
	"fmt"
	"strings"

	"brevium/core/assembly"
	"brevium/core/measure"
	"brevium/core/net"
)

var partitions = &Kind{
	ID: "partitions", Title: "Glued partitions", Why: "Folded strips glued to the floor. They stay in place.",
	Alone: true, Divides: true, Build: (*Maker).partitions,
}

// partitions makes a folded strip for every divider: a wall and a foot that is stuck to the floor.
func (m *Maker) partitions() {
	h, ok := m.dividers()
	if !ok {
		return
	}
	if m.Box.Lo.Z > m.t().MM() {
		m.Spec.Problem("arrange.compartments", "You can't stick partitions to this box: its floor is made of several parts.",
			"Choose slotted dividers that cross, a platform or trays, or another style.", none...)
		return
	}
	foot := m.Spec.Adhesive.Width.Up(m.step())
	h = min(h, (m.Box.Inside.Depth - m.t()).Down(m.step()))
	if !m.feetFit(foot) {
		m.Spec.Problem("arrange.compartments", fmt.Sprintf(
			"A compartment is too narrow for the foot of a partition. It needs %s for %s.",
			m.Spec.Say(foot), m.Spec.Adhesive.Title), "Choose slotted dividers or none, or stick with wet glue.", none...)
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

// feetFit reports whether every foot has a floor of its own: a foot lies on the front or right side of its wall.
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
func (m *Maker) partition(name string, length, h, foot Length, from, wall float64, across bool) {
	length = length.Down(m.step())
	if length < 2*foot || h < m.Spec.Adhesive.Width {
		m.Spec.Problem("arrange.compartments", "The compartments are too small to glue partitions in.",
			"Choose slotted dividers, or none.", none...)
		return
	}
	mid := from + length.MM()/2
	at := m.at("foot", mid, wall-foot.MM()/2, m.t().MM()/2, 0)
	if across {
		at = m.at("foot", wall+foot.MM()/2, mid, m.t().MM()/2, across90)
	}
	if same := m.alike(name, length, h+foot); same != nil {
		same.At = append(same.At, at)
		return
	}
	p := net.Grid(name, net.Cols(length), net.Rows(h, foot), "wall\nfoot")
	p.Root = "foot"
	p.FoldUp("wall")
	if n := m.named(name); n > 0 {
		p.Name = fmt.Sprintf("%s %d", name, n+1)
	}
	m.add(p, at)
	holder := m.Box.Parts[0]
	m.Box.Stick(p.Name+"/foot", holder.Name+"/"+holder.Piece.Root, false)
}

// alike finds a part of a kind that is as large.
func (m *Maker) alike(name string, w, h Length) *assembly.Part {
	for _, p := range m.Box.Parts {
		if strings.HasPrefix(p.Name, name) && p.Piece.Width == w && p.Piece.Height == h {
			return p
		}
	}
	return nil
}

func (m *Maker) named(name string) (n int) {
	for _, p := range m.Box.Parts {
		if strings.HasPrefix(p.Name, name) {
			n++
		}
	}
	return n
}

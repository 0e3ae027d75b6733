package insert

import (
	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/style"
)

var trays = &Kind{
	ID: "trays", Title: "Trays that lift out", Why: "Each layer in a tray of its own.", Build: (*Maker).trays,
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

package insert

import (
	"fmt"
	"math"

	"brevium/core/box"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
)

// A ball sits in a hole of four fifths of its diameter: three tenths of the
// diameter below its middle, so that a fifth of it hangs through.
const (
	ballHole = 0.8
	ballSits = 0.3
)

// PlatformHeight is how high a platform for these things stands: a third of
// the lowest cylinder, clear of what hangs through it of a ball.
func PlatformHeight(things []contents.Thing, step Length) Length {
	h := 12 * measure.Millimetre
	for i, t := range things {
		switch t.Shape {
		case "ball":
			h = max(h, t.Size.Height/5+measure.Millimetre)
		case "cylinder":
			if third := t.Size.Height / 3; i == 0 || third < h {
				h = max(third, 12*measure.Millimetre)
			}
		}
	}
	return h.Up(step)
}

// Lift is how much a platform lifts the things: a ball off the floor, a
// cylinder not at all.
func Lift(things []contents.Thing, step Length) Length {
	lift := Length(0)
	for _, t := range things {
		if t.Shape == "ball" {
			lift = max(lift, PlatformHeight(things, step)-t.Size.Height/5)
		}
	}
	return lift
}

// Suits says why a kind of compartment can't be for these things.
func Suits(kind string, things []contents.Thing) string {
	if kind != "platform" {
		return ""
	}
	balls, cylinders := 0, 0
	for _, t := range things {
		switch t.Shape {
		case "ball":
			balls++
		case "cylinder":
			cylinders++
		default:
			return fmt.Sprintf("A platform with holes suits round things; %s is not round.", t.Name)
		}
		if t.Lie {
			return fmt.Sprintf("A platform with holes holds things upright; %s may lie down.", t.Name)
		}
	}
	if holes := wanted(things); holes > MostHoles {
		return fmt.Sprintf("A platform for these would have %d holes, more than card between them would hold.", holes)
	}
	if balls > 0 && cylinders > 0 {
		return "A platform can't hold balls and cylinders at once: balls rest on it and cylinders stand below it."
	}
	if balls > 1 {
		return "A platform holds balls of one size only."
	}
	return ""
}

// MostHoles is how many a platform has at the most.
const MostHoles = 100

// wanted is how many holes things want at the least: one for each pile.
func wanted(things []contents.Thing) (n int) {
	for _, t := range things {
		n += (t.Count + max(t.Stack, 1) - 1) / max(t.Stack, 1)
	}
	return n
}

// platform makes a raised floor on four folded legs, with a hole for each
// stack.
func (m *Maker) platform() {
	h := PlatformHeight(m.Load.Things, m.step())
	l := (m.Box.Inside.Length - m.t() - ease).Down(m.step())
	w := (m.Box.Inside.Width - m.t() - ease).Down(m.step())
	p := sheet.Grid("platform", sheet.Cols(h, l, h), sheet.Rows(h, w, h), `
		.    back  .
		left  top  right
		.    front .`)
	p.Part, p.Root = sheet.Insert, "top"
	p.Mountains()
	p.Relabel("top", sheet.Point{X: h + measure.Millimetre, Y: h + measure.Millimetre})
	p.FoldUp("left", "right", "back", "front")
	nearest := m.nearest()
	for _, s := range m.Load.Stacks {
		t := m.Load.Things[s.Thing]
		radius := s.Each.Length/2 + ease
		if t.Shape == "ball" {
			radius = measure.FromMM(s.Each.Length.MM() * ballHole / 2)
		}
		mid := sheet.Point{
			X: h + l/2 + measure.FromMM(m.Origin.X) + s.At.Length + s.Each.Length/2,
			Y: h + w/2 - measure.FromMM(m.Origin.Y) - s.At.Width - s.Each.Width/2,
		}
		margin := min(mid.X-h, h+l-mid.X, mid.Y-h, h+w-mid.Y) - radius
		if margin < 2*measure.Millimetre {
			m.Job.Problem("arrange.compartments", fmt.Sprintf("The holes for %s come too near the platform's edge.", t.Name), "Give more finger room, at least "+m.Job.Say((3*measure.Millimetre).Up(m.step()))+".")
			return
		}
		if 2*radius.MM() > nearest-2 {
			m.Job.Problem("arrange.compartments", fmt.Sprintf("The holes for %s leave no card between them.",
				t.Name), "Give some room between things, at least "+m.Job.Say((3*measure.Millimetre).Up(m.step()))+".")
			return
		}
		// Fingers reach in on the slant, where most card lies between holes.
		scoop := min(6*measure.Millimetre, measure.FromMM((nearest*math.Sqrt2-2*radius.MM())/2-2))
		if t.Shape == "ball" || scoop < 2*measure.Millimetre || scoop > margin*3/2 {
			scoop = 0
		}
		p.Punch(mid, radius, scoop, math.Pi/4)
	}
	m.Box.Pieces = append(m.Box.Pieces, p)
	m.stand(box.Stand{Piece: p.Name, At: fold.Vec{Z: m.t().MM()/2 + h.MM()}})
}

// nearest is the least distance, in millimetres, between the middles of two
// stacks.
func (m *Maker) nearest() float64 {
	best := math.Inf(1)
	mid := func(s contents.Stack) (x, y float64) {
		return (s.At.Length + s.Each.Length/2).MM(), (s.At.Width + s.Each.Width/2).MM()
	}
	for i, a := range m.Load.Stacks {
		for _, b := range m.Load.Stacks[i+1:] {
			x1, y1 := mid(a)
			x2, y2 := mid(b)
			best = min(best, math.Hypot(x2-x1, y2-y1))
		}
	}
	return best
}

// TrayTakes is what lift-out trays take from the inside's floor beyond the
// room their things want: walls, tabs and ease each way.
func TrayTakes(t, step Length) box.Dims {
	ease := step.Up(measure.Millimetre)
	return box.Dims{Length: 2*t + ease + step, Width: 4*t + ease + step}
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
	wall := TrayWall(m.Load, m.Job.Adhesive.Width, m.step())
	d := box.Dims{
		Length: (m.Box.Inside.Length - t - ease).Down(m.step()),
		Width:  (m.Box.Inside.Width - t - ease).Down(m.step()), Depth: wall,
	}
	if !m.Job.TrayCanBe("inner tray", d) {
		return
	}
	p := m.Job.Tray("inner tray", "floor", d)
	p.Part, p.Count = sheet.Insert, m.Load.Layers
	if r := min(10*measure.Millimetre, wall*2/5, d.Width/4); r >= 4*measure.Millimetre {
		p.Notch(sheet.Point{X: 0, Y: p.Height / 2}, r, sheet.Point{X: 1})
		p.Notch(sheet.Point{X: p.Width, Y: p.Height / 2}, r, sheet.Point{X: -1})
	}
	m.Box.Pieces = append(m.Box.Pieces, p)
	for k := range m.Load.Layers {
		m.stand(box.Stand{Piece: p.Name, At: fold.Vec{Z: t.MM() + float64(k)*(wall+t).MM()}})
	}
}

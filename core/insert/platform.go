package insert

import (
	"fmt"
	"math"

	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/style"
)

var platform = &Kind{
	ID: "platform", Title: "Platform with holes", Why: "A raised floor with holes that holds round things upright.",
	Alone: true, Suits: suitsPlatform, Build: (*Maker).platform,
	Room: func(room *contents.Room, things []contents.Thing, j *style.Spec) {
		room.Below = max(room.Below, Lift(things, j.Mark()))
		if !room.Said {
			room.Between = (3 * measure.Millimetre).Up(j.Mark())
		}
	},
	Needs: func(need style.Dims, l contents.Load, j *style.Spec) style.Dims {
		need.Depth = max(need.Depth, PlatformHeight(l.Things, j.Mark())+2*j.T())
		return need
	},
}

// ballHole is the hole a ball sits in, of its diameter: three tenths of it below its middle, so that a fifth hangs through.
const ballHole = 0.8

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

// Lift is how much a platform lifts the things: a ball off the floor, a cylinder not at all.
func Lift(things []contents.Thing, step Length) Length {
	lift := Length(0)
	for _, t := range things {
		if t.Shape == "ball" {
			lift = max(lift, PlatformHeight(things, step)-t.Size.Height/5)
		}
	}
	return lift
}

// suitsPlatform says why a platform can't be for these things.
func suitsPlatform(things []contents.Thing) string {
	balls, cylinders := 0, 0
	for _, t := range things {
		switch t.Shape {
		case "ball":
			balls++
		case "cylinder":
			cylinders++
		default:
			return fmt.Sprintf("A platform with holes is for round things, and %s isn't round.", t.Name)
		}
		if t.Shape == "cylinder" && t.Turns() {
			return fmt.Sprintf("A platform with holes holds things upright, but %s lies down.", t.Name)
		}
	}
	if holes := wanted(things); holes > MostHoles {
		return fmt.Sprintf("A platform for these would need %d holes, which is too many.", holes)
	}
	if balls > 0 && cylinders > 0 {
		return "A platform can't hold both balls and cylinders."
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

// platform makes a raised floor on four folded legs, with a hole for each stack.
func (m *Maker) platform() {
	h := PlatformHeight(m.Load.Things, m.step())
	l := (m.Box.Inside.Length - m.t() - ease).Down(m.step())
	w := (m.Box.Inside.Width - m.t() - ease).Down(m.step())
	p := net.Grid("platform", net.Cols(h, l, h), net.Rows(h, w, h), `
		.    back  .
		left  top  right
		.    front .`)
	p.Root = "top"
	p.Mountains()
	p.FoldUp("left", "right", "back", "front")
	p.Role("leg", "left", "right", "back", "front")
	for i, s := range m.Load.Stacks {
		t, radius := m.Load.Things[s.Thing], m.hole(s)
		mid := net.Point{
			X: h + l/2 + measure.FromMM(m.Origin.X) + s.At.Length + s.Each.Length/2,
			Y: h + w/2 - measure.FromMM(m.Origin.Y) - s.At.Width - s.Each.Width/2,
		}
		margin := min(mid.X-h, h+l-mid.X, mid.Y-h, h+w-mid.Y)
		if min(margin-radius, margin-measure.FromMM(faceted*radius.MM()-0.8)) < 2*measure.Millimetre {
			m.tooNear("around", m.Load.Room.Around, fmt.Sprintf("The holes for %s are too close to the platform's "+
				"edge.", t.Name))
			return
		}
		between, scoop := m.cardRound(i)
		if between < 1.2 {
			m.tooNear("between", m.Load.Room.Between, fmt.Sprintf("The holes for %s leave no card between them.", t.Name))
			return
		}
		if t.Shape == "ball" || scoop < 2*measure.Millimetre || scoop > (margin-radius)*3/2 {
			scoop = 0
		}
		p.Punch(mid, radius, scoop, math.Pi/4)
	}
	m.add(p, m.at("top", 0, 0, h.MM(), 0))
}

// tooNear notes that holes want more room, and how much would do.
func (m *Maker) tooNear(room string, now Length, text string) {
	more := (now + 3*measure.Millimetre).Up(m.step())
	m.Spec.Problem("room."+room, text, "Give more room: "+m.Spec.Say(more)+".", "room."+room, more.Exact(m.Spec.Units))
}

// hole is the radius of the hole for a stack: a ball sits in it, a cylinder goes through.
func (m *Maker) hole(s contents.Stack) Length {
	if m.Load.Things[s.Thing].Shape == "ball" {
		return measure.FromMM(s.Each.Length.MM() * ballHole / 2)
	}
	return s.Each.Length/2 + ease
}

// faceted is how much larger a hole is cut than its circle: its facets lie outside.
const faceted = 1.0087

// cardRound gives how much card, in millimetres, lies between the hole of a stack and the others, and how deep a
// finger scoop there is room for: fingers reach in on the slant, where most card lies between holes in rows.
func (m *Maker) cardRound(i int) (between float64, scoop Length) {
	between = math.Inf(1)
	room := 6.0
	s := m.Load.Stacks[i]
	r := faceted * m.hole(s).MM()
	for k, o := range m.Load.Stacks {
		if k == i {
			continue
		}
		x := (o.At.Length + o.Each.Length/2 - s.At.Length - s.Each.Length/2).MM()
		y := (o.At.Width + o.Each.Width/2 - s.At.Width - s.Each.Width/2).MM()
		dist, other := math.Hypot(x, y), faceted*m.hole(o).MM()
		between = min(between, dist-r-other)
		if off := math.Abs(math.Atan2(-y, x) - math.Pi/4); off < 0.8 {
			room = min(room, dist-r-other-2.1)
		} else {
			room = min(room, (dist*math.Sqrt2-r-other)/2-2)
		}
	}
	return between, measure.FromMM(max(0, room))
}

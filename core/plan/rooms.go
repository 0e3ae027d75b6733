package plan

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/style"
)

// Room is one of several small boxes in a box, with what goes in it.
type Room struct {
	Name   string
	Load   contents.Load // empty when nothing is left for it
	Blocks []fold.Block
	Box    *assembly.Box // it alone
}

// shared is what the one arrangement is called in a box of several rooms.
const shared = "rooms"

// inRooms shares the things out among the small boxes of a style, each laid out
// by itself, and builds the box round them.
func (m *making) inRooms() *style.Box {
	if m.Kind.ID != "none" {
		m.RoomsEnough()
		return nil
	}
	m.spec.Proud, m.spec.Beside = m.Room.Proud, m.Room.Around+m.Room.Padding
	m.spec.Around, m.spec.Above = m.Room.Around, m.Room.Above
	var inside []style.Dims
	if m.spec.Given != nil {
		if _, ok := style.Inside(m.spec, m.Style); !ok {
			return nil
		}
		inside = m.spec.Insides()
	}
	loads, most := m.shareOut(inside)
	if m.allProud(m.spec, loads...) {
		return nil
	}
	m.spec.Needs = make([]style.Dims, len(loads))
	for i, l := range loads {
		m.spec.Needs[i] = style.Dims{Length: l.Need.Length, Width: l.Need.Width, Depth: l.Need.Height}
	}
	parts := m.Style.Rooms(m.spec.ChoiceOf(m.Style))
	m.spec.Need = m.spec.Needs[0]
	for i, n := range m.spec.Needs {
		if m.spec.Need.Depth = max(m.spec.Need.Depth, n.Depth); parts[i] == parts[0] {
			m.spec.Need.Length, m.spec.Need.Width = max(m.spec.Need.Length, n.Length), max(m.spec.Need.Width, n.Width)
		}
	}
	m.spec.Guilty = most
	b := style.Make(m.spec, m.Style, false) // how large it comes out hangs on every small box
	m.taken = m.spec.Taken
	if b == nil {
		return nil
	}
	m.fill(b, loads)
	return b
}

// shareOut lays out what goes in each room, and names what asks for most each way.
func (m *making) shareOut(inside []style.Dims) (loads []contents.Load, most style.Blame) {
	parts := m.Style.Rooms(m.spec.ChoiceOf(m.Style))
	need := style.Dims{}
	for r, counts := range contents.Share(m.Things, parts) {
		var things []contents.Thing
		var at []int
		for i, n := range counts {
			if n > 0 {
				t := m.Things[i]
				t.Count = n
				things, at = append(things, t), append(at, i)
			}
		}
		if len(things) == 0 {
			loads = append(loads, contents.Load{})
			continue
		}
		q := contents.Request{Things: things, Room: m.Room, Caliper: m.spec.T(), Most: 1}
		if r < len(inside) {
			in := inside[r]
			q.Inside = &contents.Size{Length: in.Length, Width: in.Width, Height: in.Depth}
		}
		l := contents.Arrangements(q)[0]
		loads = append(loads, l)
		for _, d := range []struct {
			has   style.Length
			most  *style.Length
			blame *string
			way   func(contents.Size) style.Length
		}{
			{l.Need.Length, &need.Length, &most.Length, func(s contents.Size) style.Length { return s.Length }},
			{l.Need.Width, &need.Width, &most.Width, func(s contents.Size) style.Length { return s.Width }},
			{l.Need.Height, &need.Depth, &most.Depth, func(s contents.Size) style.Length { return s.Height }},
		} {
			if d.has > *d.most {
				thing, measure := l.Guilty(d.way)
				*d.most, *d.blame = d.has, fmt.Sprintf("contents.%d.%s", at[thing], measure)
			}
		}
	}
	return loads, most
}

// fill puts the loads in the rooms of a box that was built, and tells them as one arrangement.
func (m *making) fill(b *style.Box, loads []contents.Load) {
	all := contents.Load{ID: shared, Things: m.Things, Room: m.Room, Layers: 1, Need: loads[0].Need}
	var says []string
	for i := range b.Rooms {
		r := Room{Name: b.Rooms[i].Name, Load: loads[i], Box: b.Rooms[i].Box}
		r.Load.ByHand = false
		r.Blocks = m.blocks(r.Load, r.Box)
		b.Rooms[i].Things = r.Blocks
		m.Rooms = append(m.Rooms, r)
		all.Layers = max(all.Layers, r.Load.Layers)
		if goes := r.Goes(); goes != "" {
			says = append(says, goes)
		}
	}
	all.Says = strings.Join(says, "; ")
	m.Load = all
	w := Way{Load: all, Reason: "shared among the small boxes"}
	w.Sheets, w.TooBig = m.needs(b)
	for _, p := range b.Pieces() {
		w.Area += p.Width.MM() * p.Height.MM() * float64(p.Count)
	}
	w.Cost = w.Area
	m.Ways = []Way{w}
}

// Goes tells what goes in a room, "" when nothing does.
func (r Room) Goes() string {
	var out []string
	for _, t := range r.Load.Things {
		out = append(out, fmt.Sprintf("%d × %s", t.Count, t.Name))
	}
	if len(out) == 0 {
		return ""
	}
	return fmt.Sprintf("%s in the %s", strings.Join(out, ", "), r.Name)
}

// Laid reports whether the plan knows how things lie.
func (p *Plan) Laid() bool {
	return len(p.Load.Stacks) > 0 || slices.ContainsFunc(p.Rooms, func(r Room) bool { return len(r.Load.Stacks) > 0 })
}

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
func (s *search) inRooms() *style.Box {
	if s.Kind.ID != "none" {
		s.roomsEnough()
		return nil
	}
	s.job.Proud, s.job.Beside = s.Room.Proud, s.Room.Around+s.Room.Padding
	s.job.Around, s.job.Above = s.Room.Around, s.Room.Above
	var inside []style.Dims
	if s.job.Given != nil {
		if _, ok := style.Inside(s.job, s.Style); !ok {
			return nil
		}
		inside = s.job.Insides()
	}
	loads, most := s.shareOut(inside)
	if s.allProud(s.job, loads...) {
		return nil
	}
	s.job.Needs = make([]style.Dims, len(loads))
	for i, l := range loads {
		s.job.Needs[i] = style.Dims{Length: l.Need.Length, Width: l.Need.Width, Depth: l.Need.Height}
	}
	parts := s.Style.Rooms(s.job.ChoiceOf(s.Style))
	s.job.Need = s.job.Needs[0]
	for i, n := range s.job.Needs {
		if s.job.Need.Depth = max(s.job.Need.Depth, n.Depth); parts[i] == parts[0] {
			s.job.Need.Length, s.job.Need.Width = max(s.job.Need.Length, n.Length), max(s.job.Need.Width, n.Width)
		}
	}
	s.job.Guilty = most
	b := style.Make(s.job, s.Style, false) // how large it comes out hangs on every small box
	s.plan.taken = s.job.Taken
	if b == nil {
		return nil
	}
	s.fill(b, loads)
	return b
}

// shareOut lays out what goes in each room, and names what asks for most each way.
func (s *search) shareOut(inside []style.Dims) (loads []contents.Load, most style.Blame) {
	parts := s.Style.Rooms(s.job.ChoiceOf(s.Style))
	need := style.Dims{}
	for r, counts := range contents.Share(s.Things, parts) {
		var things []contents.Thing
		var at []int
		for i, n := range counts {
			if n > 0 {
				t := s.Things[i]
				t.Count = n
				things, at = append(things, t), append(at, i)
			}
		}
		if len(things) == 0 {
			loads = append(loads, contents.Load{})
			continue
		}
		q := contents.Request{Things: things, Room: s.Room, Caliper: s.job.T(), Most: 1}
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

// fill puts the loads in the rooms of a box that was built, and tells them as one
// arrangement.
func (s *search) fill(b *style.Box, loads []contents.Load) {
	all := contents.Load{ID: shared, Things: s.Things, Room: s.Room, Layers: 1, Need: loads[0].Need}
	var says []string
	for i := range b.Rooms {
		r := Room{Name: b.Rooms[i].Name, Load: loads[i], Box: b.Rooms[i].Box}
		r.Load.ByHand = false
		r.Blocks = s.blocks(r.Load, r.Box)
		b.Rooms[i].Things = r.Blocks
		s.plan.Rooms = append(s.plan.Rooms, r)
		all.Layers = max(all.Layers, r.Load.Layers)
		if goes := r.Goes(); goes != "" {
			says = append(says, goes)
		}
	}
	all.Says = strings.Join(says, "; ")
	s.plan.Load = all
	w := Way{Load: all, Reason: "shared out among the small boxes"}
	w.Sheets, w.TooBig = s.needs(b)
	for _, p := range b.Pieces() {
		w.Area += p.Width.MM() * p.Height.MM() * float64(p.Count)
	}
	w.Cost = w.Area
	s.plan.Ways = []Way{w}
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

// Laid says whether the plan knows how things lie.
func (p *Plan) Laid() bool {
	return len(p.Load.Stacks) > 0 || slices.ContainsFunc(p.Rooms, func(r Room) bool { return len(r.Load.Stacks) > 0 })
}

// InRoom is the plan as it is for one of its rooms alone, to be drawn.
func (p *Plan) InRoom(r Room) *Plan {
	q := *p
	q.Load, q.Blocks, q.Box, q.Rooms = r.Load, r.Blocks, r.Box, nil
	return &q
}

package dress

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/wish"
)

// Liners are cut to the room that was measured on the folded box, not to the size that
// was asked for; in plain numbers to the scores.

// room is what there is between the walls before it is lined.
type room struct{ lo, hi fold.Vec }

// spans is how large the room is that liners are cut to: measured or, in plain numbers, from score to score.
func spans(k *work, r room) (long, wide, high Length) {
	long, wide, high = measured(r.hi.X-r.lo.X), measured(r.hi.Y-r.lo.Y), measured(r.hi.Z-r.lo.Z)
	if k.Plain {
		long, wide, high = k.box.Size.Length, k.box.Size.Width, k.box.Size.Depth
	}
	if root := k.box.Parts[0].Piece; k.box.Shaped && root != nil { // it may be narrower at its foot
		if f := root.Face(root.Root); f != nil {
			lo, hi := f.Bounds()
			if !k.Plain {
				hi = net.Point{X: hi.X - 2*k.T, Y: hi.Y - 2*k.T}
			}
			long, wide = min(long, hi.X-lo.X), min(wide, hi.Y-lo.Y)
		}
	}
	return long, wide, high
}

func roomOf(k *work) room {
	floor, wall, cover := k.Lined()
	by := fold.Vec{X: wall.MM(), Y: wall.MM()}
	return room{k.box.Lo.Sub(by).Sub(fold.Vec{Z: floor.MM()}), k.box.Hi.Add(by).Add(fold.Vec{Z: cover.MM()})}
}

func liners(k *work) {
	r := roomOf(k)
	used := map[string]Length{} // how thick what lines each part is so far
	for _, l := range k.Lines() {
		k.entry = l.Entry
		if len(k.box.Rooms) > 0 {
			k.wrong("in", "This box is made of several small boxes, which stay plain inside.", "Leave the liner out.")
			continue
		}
		if l.In == "floor" || l.In == "all" {
			floor(k, l, r, used)
		}
		if l.In == "walls" || l.In == "all" || l.In == "tabs" {
			walls(k, l, r, used)
		}
		if l.In == "lid" || l.In == "all" {
			cover(k, l, r, used)
		}
		if l.Words != "" {
			contrast(k, l.Words, "", l.Card.Colour)
			k.flat("Print or letter “%s” on the %s liner before it is stuck in.", l.Words, l.In)
		}
	}
}

// fits cuts a liner to a part of the room, or notes that it is too small.
func fits(k *work, l wish.Liner, what string, long, wide Length) (w, h Length, ok bool) {
	w, h = (long - l.Less).Down(k.Step.Size), (wide - l.Less).Down(k.Step.Size)
	if min(w, h) < least && l.Quiet {
		return 0, 0, false
	}
	if min(w, h) < least {
		k.wrong("less", fmt.Sprintf("The %s is %s × %s. Taking off %s leaves no liner.", what, k.Say(long), k.Say(wide),
			k.Say(l.Less)), "Take off less, or leave this liner out.", "dress."+l.Entry+".less", "")
		return 0, 0, false
	}
	return w, h, true
}

// liner makes a liner of a size.
func liner(k *work, name string, w, h Length) *net.Piece {
	p := net.Grid(k.name(name), net.Cols(w), net.Rows(h), "liner")
	p.Part, p.Root = net.Liner, "liner"
	return p
}

func floor(k *work, l wish.Liner, r room, used map[string]Length) {
	long, wide, _ := spans(k, r)
	w, h, ok := fits(k, l, "floor", long, wide)
	if !ok {
		return
	}
	at, mid := []assembly.Place{}, r.lo.Add(r.hi).Times(0.5)
	for range l.Layers {
		z := measured(r.lo.Z) + used["floor"] + l.Card.Caliper/2
		used["floor"] += l.Card.Caliper
		at = append(at, assembly.Place{Face: "liner", Right: measured(mid.X), Down: -measured(mid.Y), Out: -z, Over: true})
	}
	k.add(liner(k, "floor liner", w, h), l.Card, []string{"floor"}, at...)
}

// wall finds the face that stands on a side of the room: of the box, not of its lid.
func wall(k *work, side fold.Vec) (part string, f *fold.Placed) {
	best := 0.0
	for _, p := range k.box.Parts {
		if p.Piece == nil || p.Piece.Part != net.Box || p.When == net.Close {
			continue
		}
		body := k.stand.Of(p.Name)
		for _, g := range body.Faces {
			if math.Abs(g.In.Dot(side)) > 0.999 && g.Middle().Dot(side) > 0 && !assembly.Opens(p.Piece, g.Name) &&
				g.Area() > best {
				part, f, best = p.Name, g, g.Area()
			}
		}
	}
	return part, f
}

// tabbed reports whether tabs are stuck behind a face.
func tabbed(p *net.Piece, face string) bool {
	for _, g := range p.Glues {
		if g.On == face && !g.Outside && p.RoleOf(g.Face) == "tab" {
			return true
		}
	}
	return false
}

// walls lines the four walls, or those with tabs behind them: opposite ones are alike.
func walls(k *work, l wish.Liner, r room, used map[string]Length) {
	if k.box.Shaped && l.In == "all" {
		return
	}
	if k.box.Shaped {
		k.wrong("in", "The walls of this box aren't all upright rectangles, so they can't be lined.",
			"Line the floor, or put layers on the outside.", "dress."+l.Entry+".in", "floor")
		return
	}
	length, width, high := spans(k, r)
	lined := 0
	for _, pair := range [][2]int{{0, 1}, {2, 3}} {
		long := width
		if pair[0] == 2 {
			long = length
		}
		var sides []lining
		for _, n := range pair {
			side := fold.Sides[n]
			part, f := wall(k, side.To)
			if f == nil || l.In == "tabs" && !tabbed(k.box.Part(part).Piece, f.Name) {
				continue
			}
			w, h, ok := fits(k, l, side.Name+" wall", long, high)
			if !ok {
				return
			}
			one := lining{name: side.Name, ref: part + "/" + f.Name}
			one.ring, one.round = bulk(r, side.To, f, w, h)
			for i := range l.Layers {
				one.at = append(one.at, inside(r, side.To, part, f, used[side.Name]+Length(i)*l.Card.Caliper+l.Card.Caliper/2))
			}
			used[side.Name] += Length(l.Layers) * l.Card.Caliper
			sides = append(sides, one)
		}
		cut := func(i int) string { return fmt.Sprint(sides[i].ring, sides[i].round) }
		if len(sides) == 2 && cut(0) == cut(1) { // opposite ones are alike
			sides[0].name, sides[0].at = sides[0].name+" and "+sides[1].name, append(sides[0].at, sides[1].at...)
			sides[0].also, sides = sides[1].ref, sides[:1]
		}
		for _, one := range sides {
			refs := []string{one.ref}
			if one.also != "" {
				refs = append(refs, one.also)
			}
			p := cutTo(k.name(one.name+" wall liner"), "liner", one.ring, one.round)
			p.Part = net.Liner
			k.add(p, l.Card, refs, one.at...).Rides = true
			lined++
		}
	}
	if lined == 0 {
		k.wrong("in", "No wall of this box has tabs to hide.", "Line the walls, or leave this out.",
			"dress."+l.Entry+".in", "walls")
	}
}

// lining is a liner against one wall, or two alike: what is cut out of it, and where its copies go.
type lining struct {
	name, ref, also string
	ring            []net.Point
	round           [][]net.Point
	at              []assembly.Place
}

// bulk gives the outline of a liner so large and the holes in it, clear of what stands out of the wall behind it by
// a millimetre: magnets, dots and brads. What reaches its upper or lower edge is cut out from there.
func bulk(r room, side fold.Vec, f *fold.Placed, w, h Length) (ring []net.Point, holes [][]net.Point) {
	mid := r.lo.Add(r.hi).Times(0.5)
	right := fold.Vec{X: -side.Y, Y: side.X} // as one looks at the wall from outside, at the liner's inside
	top, foot := []net.Point{{}}, []net.Point{{X: w, Y: h}}
	for _, m := range f.Body.Piece.Marks {
		if !net.Inside(f.Face.Points, m.At) {
			continue
		}
		d, far := f.Place(m.At).Sub(mid), m.Radius+mm
		x, y := w/2+measured(d.Dot(right)), h/2-measured(d.Z)
		switch {
		case x-far < mm || x+far > w-mm || y+far <= 0 || y-far >= h:
		case y-far < mm:
			top = append(top, net.Point{X: x - far}, net.Point{X: x - far, Y: y + far},
				net.Point{X: x + far, Y: y + far}, net.Point{X: x + far})
		case y+far > h-mm:
			foot = append(foot, net.Point{X: x + far, Y: h}, net.Point{X: x + far, Y: y - far},
				net.Point{X: x - far, Y: y - far}, net.Point{X: x - far, Y: h})
		default:
			holes = append(holes, round(net.Point{X: x, Y: y}, far, far, 16))
		}
	}
	return slices.Concat(top, []net.Point{{X: w}}, foot, []net.Point{{Y: h}}), holes
}

// inside stands a liner against a wall, so far in from the side of the room.
func inside(r room, side fold.Vec, part string, f *fold.Placed, in Length) assembly.Place {
	mid := r.lo.Add(r.hi).Times(0.5)
	edge := r.hi
	if side.X+side.Y < 0 {
		edge = r.lo
	}
	along := func(v, axis float64, flat float64) float64 {
		if axis != 0 {
			return v - axis*in.MM()
		}
		return flat
	}
	at := fold.Vec{X: along(edge.X, side.X, mid.X), Y: along(edge.Y, side.Y, mid.Y), Z: mid.Z}
	right, down := middle(f, at)
	out := -measured(at.Sub(f.Middle()).Dot(f.In))
	place := assembly.Place{Face: "liner", On: part + "/" + f.Name, Right: right, Down: down, Out: out, Over: true,
		Quarters: (up(f) + 2) % 4}
	if f.In.Dot(side) > 0 { // a flap rolled in looks at its wall
		place.Over, place.Quarters = false, up(f)
	}
	return place
}

// cover lines what closes the box above, within its walls.
func cover(k *work, l wish.Liner, r room, used map[string]Length) {
	var top *Panel
	for _, p := range k.out.Panels {
		if p.Lid && p.Looks == "above" && p.Face.Level() && (top == nil || p.Face.Area() > top.Face.Area()) {
			top = p
		}
	}
	if top != nil && crowded(k, top) {
		if l.In == "lid" {
			k.wrong("in", "Flaps lie under the lid of this box, so it can't be lined.", "Line the floor or the walls.",
				"dress."+l.Entry+".in", "floor")
		}
		return
	}
	if top == nil || k.box.Above != fold.Flat {
		if l.In == "lid" {
			k.wrong("in", "This box has no flat lid to line.", "Line the floor or the walls.",
				"dress."+l.Entry+".in", "floor")
		}
		return
	}
	long, wide, _ := spans(k, r)
	w, h, ok := fits(k, l, "lid's inside", long, wide)
	if !ok {
		return
	}
	right, down := middle(top.Face, r.lo.Add(r.hi).Times(0.5))
	var at []assembly.Place
	for range l.Layers {
		at = append(at, assembly.Place{Face: "liner", On: top.Ref(), Right: right, Down: down, Over: true,
			Quarters: (top.up + 2) % 4, Out: -(top.T/2 + used["lid"] + l.Card.Caliper/2)})
		used["lid"] += l.Card.Caliper
	}
	k.add(liner(k, "lid liner", w, h), l.Card, []string{top.Ref()}, at...).Rides = true
}

// crowded reports whether other card lies close under a cover.
func crowded(k *work, top *Panel) bool {
	for _, b := range k.stand.Box() {
		for _, f := range b.Faces {
			if below := top.Face.Middle().Z - f.Middle().Z; f != top.Face && f.Level() && below > 0 && below < 3 &&
				fold.Overlap(top.Face, f) > 20 {
				return true
			}
		}
	}
	return false
}

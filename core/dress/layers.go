package dress

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/wish"
)

// least is how narrow a layer may be.
const least = 3 * mm

// cut is a layer as it is cut for one panel: as the panel is drawn, and as it stands.
type cut struct {
	panel *Panel
	lay   Lay
	up    int // quarter turns from there to here
	stood []net.Point
	holes [][]net.Point
}

// layers lays every layer on its panels. Panels alike are counted together.
func layers(k *work) {
	for _, l := range k.Layers {
		k.entry = l.Entry
		panels, ok := k.resolve("on", l.On)
		if !ok || len(panels) == 0 {
			continue // inside alone: it is lined
		}
		var cuts []cut
		var small []*Panel
		for _, p := range panels {
			if c, fits := layerFor(k, l, p); fits {
				cuts = append(cuts, c)
			} else {
				small = append(small, p)
			}
		}
		if tooSmall(k, l, small, len(cuts)) {
			continue
		}
		rounding := rounding(k, &l)
		pieces, says := lay(k, l, cuts)
		if l.Run { // the strip is cut before the layers are cut from it
			runs(k, l, cuts, pieces)
		}
		motif(k, l, cuts, pieces)
		if rounding != "" {
			k.flat("%s", rounding)
		}
		k.flat("%s", says)
	}
}

// rounding says how the corners of a layer are cut round: with the punch that comes nearest, where
// the maker owns one, or by hand.
func rounding(k *work, l *wish.Layer) string {
	if l.Round == 0 {
		return ""
	}
	l.Round = k.Tools.Owned("corner", l.Round, l.Round/2, l.Round*3/2)
	if _, owned, _ := k.Tools.Reaches("corner", l.Round, 0); owned {
		return fmt.Sprintf("Before you stick these layers, round their corners with your %s corner punch.", k.Say(l.Round))
	}
	return fmt.Sprintf("Before you stick these layers, round their corners. Draw round a coin or lid %s across at "+
		"each corner, and cut along the line.", k.Say(2*l.Round))
}

// tooSmall tells of panels that are too small for a layer: they stay bare, unless no other is left, which it says.
func tooSmall(k *work, l wish.Layer, small []*Panel, left int) bool {
	if len(small) == 0 {
		return false
	}
	w, h := small[0].size(small[0].under())
	text := fmt.Sprintf("The %s is %s × %s. A border of %s on each side leaves no layer.",
		k.called(small), k.Say(w), k.Say(h), k.Say(l.Border))
	if left == 0 {
		k.wrong("border", text, "Make the border smaller, or decorate other panels.", "dress."+l.Entry+".border", "")
		return true
	}
	k.Warn(brief.Warning{Code: "bare-panel", Text: text + " It stays plain.",
		Fix: "Make the border smaller, or leave it plain."})
	return false
}

// under is the outline that the next layer is smaller than.
func (p *Panel) under() []net.Point {
	if n := len(p.On); n > 0 {
		return p.On[n-1].Ring
	}
	return p.Outline
}

// layerFor cuts a layer for a panel: an even border, or another above and below, and
// clear of what is cut out of the panel.
func layerFor(k *work, l wish.Layer, p *Panel) (c cut, fits bool) {
	above := [4]pt{{0, -1}, {1, 0}, {0, 1}, {-1, 0}}[p.up]
	by := func(n pt) Length {
		switch d := n.dot(above); {
		case d > 0.7 && l.Top >= 0:
			return l.Top
		case d < -0.7 && l.Bottom >= 0:
			return l.Bottom
		}
		return l.Border
	}
	holes := p.Face.Face.Holes
	if n := len(p.On); n > 0 {
		holes = p.On[n-1].Holes
	}
	ring := inset(p.under(), by)
	if ring == nil {
		return c, false
	}
	if lo, hi := net.Bounds(ring); min(hi.X-lo.X, hi.Y-lo.Y) < least {
		return c, false
	}
	c.panel, c.lay = p, Lay{Card: l.Card, Ring: rounded(marked(k, ring), l.Round)}
	for _, h := range holes {
		h = inset(h, even(-l.Border))
		outside := func(q net.Point) bool { return !net.Inside(c.lay.Ring, q) }
		within := func(q net.Point) bool { return net.Inside(h, q) }
		if slices.ContainsFunc(h, outside) || slices.ContainsFunc(c.lay.Ring, within) {
			return c, false // what is cut out so near its edge leaves no layer whole
		}
		c.lay.Holes = append(c.lay.Holes, h)
	}
	if c.up = p.up; !l.Card.Directed() && len(ring) != 4 {
		c.up = 0 // of no matter which way up: copies of a panel are then alike
	}
	c.stood, c.holes = turned(c.lay.Ring, c.up), turnedAll(c.lay.Holes, c.up)
	return c, true
}

// marked makes a rectangle that lies between the marks of the tools smaller, to the next mark: it is cut by them.
func marked(k *work, ring []net.Point) []net.Point {
	lo, hi := net.Bounds(ring)
	w, h := (hi.X - lo.X).Down(k.Step.Size), (hi.Y - lo.Y).Down(k.Step.Size)
	if len(ring) != 4 || min(w, h) < least || w == hi.X-lo.X && h == hi.Y-lo.Y {
		return ring
	}
	for _, p := range ring {
		if p.X != lo.X && p.X != hi.X || p.Y != lo.Y && p.Y != hi.Y {
			return ring
		}
	}
	x, y := lo.X+(hi.X-lo.X-w)/2, lo.Y+(hi.Y-lo.Y-h)/2
	return []net.Point{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
}

// lay makes pieces of the cuts, one for all that are alike, each in its places.
func lay(k *work, l wish.Layer, cuts []cut) (pieces []*net.Piece, says string) {
	keys := make([]string, len(cuts))
	for i, c := range cuts {
		keys[i] = shapeKey(c)
	}
	pieces = make([]*net.Piece, len(cuts))
	var names []string
	for i, c := range cuts {
		if pieces[i] != nil {
			continue
		}
		var alike []*Panel
		var places []assembly.Place
		var refs []string
		deep := 0
		for n := i; n < len(cuts); n++ {
			if keys[n] == keys[i] {
				p := cuts[n].panel
				alike, places = append(alike, p), append(places, place(p, cuts[n].lay, "layer", cuts[n].up, narrowest(l)))
				refs, deep = append(refs, p.Ref()), max(deep, len(p.On))
				p.On = append(p.On, cuts[n].lay)
			}
		}
		name := k.called(alike) + " layer"
		if deep > 0 {
			name = fmt.Sprintf("%s %d", name, deep+1)
		}
		piece := cutTo(k.name(name), "layer", c.stood, c.holes)
		piece.Part = net.Layer
		part := k.add(piece, l.Card, refs, places...)
		part.Rides, part.Loose = !c.panel.Bent, c.panel.Bent
		for n := i; n < len(cuts); n++ {
			if keys[n] == keys[i] {
				pieces[n] = piece
			}
		}
		names = append(names, piece.Name)
	}
	return pieces, fmt.Sprintf("Stick on, with a border of %s all around: "+
		"the %s.", k.Say(l.Border), strings.Join(names, ", the "))
}

func narrowest(l wish.Layer) Length {
	b := l.Border
	if l.Top >= 0 {
		b = min(b, l.Top)
	}
	if l.Bottom >= 0 {
		b = min(b, l.Bottom)
	}
	return b
}

// shapeKey is the same for cuts that are alike as they stand.
func shapeKey(c cut) string {
	lo, _ := net.Bounds(c.stood)
	ring := moved(c.stood, -lo.X, -lo.Y)
	first := 0
	for i, p := range ring { // wherever its outline begins
		if p.Y < ring[first].Y || p.Y == ring[first].Y && p.X < ring[first].X {
			first = i
		}
	}
	ring = slices.Concat(ring[first:], ring[:first])
	var holes [][]net.Point
	for _, h := range c.holes {
		holes = append(holes, moved(h, -lo.X, -lo.Y))
	}
	return fmt.Sprint(ring, holes, c.panel.Bent)
}

// place lays something of an outline on a panel, on what lies there.
func place(p *Panel, l Lay, face string, quarters int, border Length) assembly.Place {
	lo, hi := net.Bounds(l.Ring)
	flo, fhi := p.Face.Bounds()
	if len(p.On) > 0 {
		border = 0 // it is from the layer below that it stays away
	}
	return assembly.Place{Face: face, On: p.Ref(), Nth: p.Nth, Quarters: quarters, Border: border,
		Right: (lo.X + hi.X - flo.X - fhi.X) / 2, Down: (lo.Y + hi.Y - flo.Y - fhi.Y) / 2,
		Out: p.T/2 + p.Thick() + l.Card.Caliper/2}
}

// on puts something of an outline on a panel: frames and toppers. It goes where the panel goes.
func on(k *work, p *Panel, name, face string, is net.Part, ring []net.Point, holes [][]net.Point, c shop.Card,
	off Length) *net.Piece {
	piece := cutTo(k.name(name), face, turned(ring, p.up), turnedAll(holes, p.up))
	piece.Part = is
	at := place(p, Lay{Card: c, Ring: ring}, face, p.up, 0)
	at.Out += off
	k.add(piece, c, []string{p.Ref()}, at).Rides = true
	return piece
}

func turnedAll(holes [][]net.Point, quarters int) (out [][]net.Point) {
	for _, h := range holes {
		out = append(out, turned(h, quarters))
	}
	return out
}

// skins measures how thick what lies under each clearance is, side by side.
func skins(k *work) {
	for _, c := range k.box.Clears {
		inner, face := c.Inner, ""
		if inner == "" {
			inner, face = assembly.Ref(c.Outer)
		}
		t := make([]Length, len(c.Sides))
		for _, p := range k.out.Panels {
			if n := slices.Index(c.Sides, p.Looks); n >= 0 && p.Part == inner && (face == "" || !p.Lid) {
				t[n] = max(t[n], p.Thick())
			}
		}
		k.out.Skins = append(k.out.Skins, t)
	}
}

// middle gives the place on a panel, from the middle of its drawing, that a place in space lies over.
func middle(f *fold.Placed, at fold.Vec) (right, down Length) {
	p := f.Under(at)
	lo, hi := f.Bounds()
	return p.X - (lo.X+hi.X)/2, p.Y - (lo.Y+hi.Y)/2
}

package dress

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fasteners"
	"brevium/core/net"
	"brevium/core/wish"
)

// Thumb notches and tabs to pull: where fingers come to.

// free finds the raw edge of a panel that fingers come to: over against a crease, or
// the highest; its middle, how long it is, and the step into the card.
func free(p *Panel) (mid net.Point, long Length, inward net.Point, ok bool) {
	lo, hi := p.Face.Bounds()
	best := -1.0
	for _, e := range p.Face.Face.Edges {
		if !e.Kind.Open() || e.Beyond != nil && !e.Beyond.Waste || e.A.X != e.B.X && e.A.Y != e.B.Y {
			continue
		}
		m := net.Point{X: (e.A.X + e.B.X) / 2, Y: (e.A.Y + e.B.Y) / 2}
		in, l := net.Point{}, (e.B.X-e.A.X).Abs()+(e.B.Y-e.A.Y).Abs()
		switch {
		case e.A.Y == e.B.Y && m.Y == lo.Y:
			in.Y = 1
		case e.A.Y == e.B.Y && m.Y == hi.Y:
			in.Y = -1
		case e.A.X == e.B.X && m.X == lo.X:
			in.X = 1
		case e.A.X == e.B.X && m.X == hi.X:
			in.X = -1
		default:
			continue
		}
		score := l.MM()
		if hinged(p, in) {
			score += 1e4
		}
		if score > best {
			best, mid, long, inward, ok = score, m, l, in, true
		}
	}
	return mid, long, inward, ok
}

// hinged reports whether the edge of a panel over against a raw one is a crease.
func hinged(p *Panel, inward net.Point) bool {
	lo, hi := p.Face.Bounds()
	for _, e := range p.Face.Face.Edges {
		if e.Kind.Open() {
			continue
		}
		if inward.Y == 1 && e.A.Y == hi.Y && e.B.Y == hi.Y || inward.Y == -1 && e.A.Y == lo.Y && e.B.Y == lo.Y ||
			inward.X == 1 && e.A.X == hi.X && e.B.X == hi.X || inward.X == -1 && e.A.X == lo.X && e.B.X == lo.X {
			return true
		}
	}
	return false
}

func notch(k *work, g wish.Grip, p *Panel) bool {
	mid, long, inward, ok := free(p)
	what := k.called([]*Panel{p})
	if !ok {
		k.wrong("on", fmt.Sprintf("The %s has no cut edge for a thumb notch.", what), "Choose a panel with one.")
		return false
	}
	w, h := p.Face.Bounds()
	deep := (h.Y - w.Y)
	if inward.X != 0 {
		deep = h.X - w.X
	}
	if most := fasteners.WidestNotch(long, deep, border); g.Width > most {
		k.wrong("width", fmt.Sprintf("A thumb notch of %s leaves too little of the %s.", k.Say(g.Width), what),
			"Make it narrower.", "dress."+g.Entry+".width", plainly(k, max(6*mm, most)))
		return false
	}
	r := g.Width / 2
	about := []net.Point{{X: mid.X - r, Y: mid.Y - r}, {X: mid.X + r, Y: mid.Y + r}}
	if tab := tabBehind(k, p, about); tab != "" {
		k.wrong("on", fmt.Sprintf("The %s lies behind that notch.", tab), "Choose shorter tabs, or another panel.")
		return false
	}
	piece(k, p).Notch(mid, r, inward)
	cutBy(k, p, "on")
	return true
}

// plainly writes a length as it would be typed.
func plainly(k *work, l Length) string { return l.Down(k.Step.Size).Exact(k.Step.Unit) }

// pulled is free for a tab to pull. Where a panel has no raw edge it takes the edge opposite the crease it hangs
// by, if what lies beyond that edge is tucked in or cut away.
func pulled(k *work, p *Panel) (mid net.Point, long Length, inward net.Point, ok bool) {
	lo, hi := p.Face.Bounds()
	mid, long, inward, ok = free(p)
	if side := min(hi.X-lo.X, hi.Y-lo.Y); ok && long > side/4 { // else it is a tab's relief
		return mid, long, inward, ok
	}
	piece := piece(k, p)
	for _, e := range p.Face.Face.Edges {
		level := e.A.Y == e.B.Y && (e.A.Y == lo.Y || e.A.Y == hi.Y)
		stands := e.A.X == e.B.X && (e.A.X == lo.X || e.A.X == hi.X)
		hangs := !e.Kind.Open() && e.Beyond != nil && !tuckedIn(piece, e.Beyond.Name)
		if !hangs || !level && !stands {
			continue
		}
		far := net.Point{X: lo.X + hi.X - e.A.X, Y: lo.Y + hi.Y - e.A.Y}
		if !goesIn(piece, p, far, level) {
			continue
		}
		if level {
			step := Length(1)
			if far.Y == hi.Y {
				step = -1
			}
			return net.Point{X: (lo.X + hi.X) / 2, Y: far.Y}, hi.X - lo.X, net.Point{Y: step}, true
		}
		step := Length(1)
		if far.X == hi.X {
			step = -1
		}
		return net.Point{X: far.X, Y: (lo.Y + hi.Y) / 2}, hi.Y - lo.Y, net.Point{X: step}, true
	}
	return mid, 0, inward, false
}

// tuckedIn reports whether a face is tucked behind another.
func tuckedIn(p *net.Piece, face string) bool {
	return slices.ContainsFunc(p.Tucks, func(g net.Glue) bool { return g.Face == face && !g.Outside })
}

// goesIn reports whether what lies beyond the far edge of a panel is tucked in, or no card at all.
func goesIn(piece *net.Piece, p *Panel, far net.Point, level bool) bool {
	for _, e := range p.Face.Face.Edges {
		at := level && e.A.Y == far.Y && e.B.Y == far.Y || !level && e.A.X == far.X && e.B.X == far.X
		if at && !e.Kind.Open() && e.Beyond != nil && !tuckedIn(piece, e.Beyond.Name) {
			return false
		}
	}
	return true
}

// noPull notes why a panel takes no tab to pull, and which would.
func noPull(k *work, g wish.Grip, p *Panel, long Length) {
	what := k.called([]*Panel{p})
	if long > 0 {
		k.wrong("width", fmt.Sprintf("The edge of the %s is %s long, too short for a tab "+
			"of %s.", what, k.Say(long), k.Say(g.Width)),
			"Make it narrower.", "dress."+g.Entry+".width", plainly(k, long))
		return
	}
	for _, q := range k.out.Panels {
		if _, long, _, ok := pulled(k, q); ok && long >= g.Width && q.Lid && q.Nth == 0 {
			k.wrong("on", fmt.Sprintf("The %s is folded along every edge, so there is no edge to pull.", what),
				fmt.Sprintf("Put the tab on the %s.", k.called([]*Panel{q})), "dress."+g.Entry+".on",
				strings.ReplaceAll(q.Ref(), " ", "-"))
			return
		}
	}
	k.wrong("on", fmt.Sprintf("The %s is folded along every edge, and nothing else on this box opens by an edge.", what),
		"Leave the tab out.")
}

// pulls sticks tabs to pull under the edges of panels.
func pulls(k *work) {
	for _, g := range k.Grips {
		if k.entry = g.Entry; g.Kind != "pull" {
			continue
		}
		p := k.find("on", g.On)
		if p == nil {
			continue
		}
		mid, long, inward, ok := pulled(k, p)
		if !ok || g.Width > long {
			noPull(k, g, p, long)
			continue
		}
		w, h := g.Width, Length(fasteners.EdgeStuck+fasteners.EdgeOut)
		if inward.X != 0 {
			w, h = h, w
		}
		ring := rounded([]net.Point{{X: mid.X - w/2, Y: mid.Y - h/2}, {X: mid.X + w/2, Y: mid.Y - h/2},
			{X: mid.X + w/2, Y: mid.Y + h/2}, {X: mid.X - w/2, Y: mid.Y + h/2}}, min(w, h)/3)
		piece := on(k, p, "pull tab", "tab", net.Topper, ring, nil, g.Card, 0)
		if with := collides(k, piece.Name); with != "" {
			k.wrong("on", fmt.Sprintf("A pull tab on the %s would be in the way: %s.", k.called([]*Panel{p}), with),
				"Put it on another panel.")
			continue
		}
		k.flat("Stick half of the %s on the edge of the %s, the other half standing out.", piece.Name, k.called([]*Panel{p}))
	}
}

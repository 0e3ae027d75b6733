package dress

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/wish"
)

// What holds a box closed, beside what its style asks: it comes on a face that moves and
// on one that it comes to lie on, and both are looked for on the folded box.

// closing is a panel that moves and the face it comes to lie on.
type closing struct {
	flap  *Panel
	under *fold.Placed
	part  string
	lid   bool // it is a part that is put on
}

// closings finds the panels that move and come to lie on others.
func closings(k *work) (out []closing) {
	for _, p := range k.out.Panels {
		if !p.Lid || p.Bent || p.Nth > 0 {
			continue
		}
		for _, part := range k.box.Parts {
			if part.Piece == nil || part.Piece.Part != net.Box || part.When == net.Close {
				continue
			}
			for _, f := range k.stand.Of(part.Name).Faces {
				moves := assembly.Moves(part.Piece, f.Body, f.Name)
				if f == p.Face || moves || math.Abs(f.In.Dot(p.Face.In)) < 0.999 || f.Layer > 0 {
					continue
				}
				apart := f.Middle().Sub(p.Face.Middle()).Dot(p.Face.In)
				if apart > 0 && apart < 4 && fold.Overlap(p.Face, f) > 80 {
					out = append(out, closing{p, f, part.Name, k.box.Part(p.Part).When == net.Close})
				}
			}
		}
	}
	return out
}

// marks places what comes in two halves: before what lines the box is cut round it.
func marks(k *work) {
	if c := k.Closure; c != nil && c.Meets() {
		if at, ok := closingAt(k); ok {
			meeting(k, c, at)
		}
	}
}

// closes holds the box closed by what needs no place inside.
func closes(k *work) {
	c := k.Closure
	if c == nil || c.Meets() {
		return
	}
	k.entry = "closure"
	if c.Kind == "seal" && len(closings(k)) == 0 {
		sealEdge(k, c)
		return
	}
	if at, ok := closingAt(k); ok {
		hold(k, c, at)
	}
}

// closingAt is where the box is held closed: at the panel that was named, or in front.
func closingAt(k *work) (best closing, ok bool) {
	k.entry = "closure"
	all := closings(k)
	if on := k.Closure.On; on != "" {
		want := k.find("on", on)
		if want == nil {
			return best, false
		}
		all = slices.DeleteFunc(all, func(x closing) bool { return x.flap.Name != want.Name || x.flap.Part != want.Part })
	}
	for _, x := range all {
		if !ok || rankOf(x) > rankOf(best) {
			best, ok = x, true
		}
	}
	if !ok {
		k.wrong("kind", "This box has no panel that closes over another, so there is nothing to hold.",
			"Put a band or a ribbon around it.", "dress.closure.kind", "", "dress.ribbon.way", "across")
	}
	return best, ok
}

// rankOf prefers what closes in front.
func rankOf(c closing) float64 {
	rank := fold.Overlap(c.flap.Face, c.under)
	if c.flap.Looks == "front" {
		rank += 1e6
	}
	return rank
}

func hold(k *work, c *wish.Closure, at closing) {
	flap, under := k.called([]*Panel{at.flap}), plain(at.part+"/"+at.under.Name)
	switch c.Kind {
	case "tuck":
		k.wrong("kind", "You choose under Box whether a flap tucks in.",
			"Choose it there, under “Closed by”.", append([]string{"dress.closure.kind", ""}, k.Tucks...)...)
	case "clip":
		k.supply("clip", 0, 0, 1, "over the edge of the "+flap)
		k.last("Clip the %s to the %s.", flap, under)
	case "seal":
		seal(k, c, at)
	case "button":
		k.supply("buttons or small brads", 0, 0, 2, "one on the "+flap+", one on the "+under)
		k.supply("string", 0, k.nice(250*mm), 1, "wound around both buttons in a figure of eight")
		k.last("Fix a button on the %s and one on the %s below it, and wind the string round both.", flap, under)
		k.box.Caution(fasteners.RibbonCare)
	}
}

// meeting places the halves of a magnet, a dot, a brad or a ribbon where both have card
// round them; the proof then checks that they meet.
func meeting(k *work, c *wish.Closure, at closing) {
	with, _ := fasteners.Chosen(c.Kind)
	if at.lid && with.Between {
		k.wrong("kind", fmt.Sprintf("A %s between the lid and the wall would keep the lid off.", with.Name),
			"Seal the lid with paper, or put a band around the box.", "dress.closure.kind", "seal")
		return
	}
	pair := assembly.Pair{What: with.Name, A: at.flap.Ref(), B: at.part + "/" + at.under.Name, Radius: with.Radius}
	if c.Width > 0 {
		pair.Radius = c.Width / 2
	}
	flap, long, says := k.called([]*Panel{at.flap}), Length(0), ""
	if !k.box.Meet(pair, k.T, fasteners.Room, k.Step.Size) {
		k.wrong("kind", fmt.Sprintf("There is no place for a %s with enough card around it, both on the %s and "+
			"under it.", with.Name,
			flap), "Seal it with paper, or tie it.", "dress.closure.kind", "seal")
		return
	}
	if with.Long > 0 {
		long = k.nice(with.Long)
		says = k.Say(long)
	}
	bought := with.Hold(k.box, pair, flap, plain(pair.B), says)
	if bought.Length = long; !with.Through {
		bought.Width = 2 * pair.Radius
	}
	k.out.Supplies = append(k.out.Supplies, bought)
}

// seal is a round of paper stuck half on what moves, half on what is under it.
func seal(k *work, c *wish.Closure, at closing) {
	p := at.flap
	across := c.Width
	if w, h := p.Size(); across == 0 {
		across = min(k.usual(inch, 25*mm), (min(2*h, w) * 3 / 4).Down(k.Step.Size))
	}
	if low, _ := fold.Reach(p.Face); low.Z < k.lo.Z+across.MM()/2 && p.Face.Place(tip(p)).Z < low.Z+1 {
		sealEdge(k, c) // it would hang below the table
		return
	}
	if w, h := p.Size(); across > 2*h || across > w {
		k.wrong("width", fmt.Sprintf("A seal of %s is larger than the %s.", k.Say(across), k.called([]*Panel{p})),
			"Make it smaller.", "dress.closure.width", plainly(k, min(2*h, w)*3/4))
		return
	}
	piece := on(k, p, "seal", "seal", net.Topper, round(tip(p), across/2, across/2, 24), nil, c.Card, 0)
	k.late(piece.Name)
	k.last("Stick the %s half on the %s and half on the %s. You cut through it to open the box.", piece.Name,
		k.called([]*Panel{p}), plain(at.part+"/"+at.under.Name))
}

// tip is the place of a panel farthest from the crease it hangs by: the middle of its edge, or its point.
func tip(p *Panel) net.Point {
	var hinge pt
	long := -1.0
	for _, e := range p.Face.Face.Edges {
		a, b := pt{float64(e.A.X), float64(e.A.Y)}, pt{float64(e.B.X), float64(e.B.Y)}
		if l := b.sub(a).len(); !e.Kind.Open() && l > long {
			hinge, long = pt{(a.x + b.x) / 2, (a.y + b.y) / 2}, l
		}
	}
	mid := p.mid()
	away := pt{float64(mid.X), float64(mid.Y)}.sub(hinge)
	if math.Abs(away.x) > math.Abs(away.y) { // along the drawing's axes
		away.y = 0
	} else {
		away.x = 0
	}
	var sum pt
	best, n := math.Inf(-1), 0.0
	for _, q := range pts(p.Outline) {
		switch d := q.dot(away) / max(away.len(), 1); {
		case d > best+1e5:
			sum, best, n = q, d, 1
		case d > best-1e5:
			sum, n = pt{sum.x + q.x, sum.y + q.y}, n+1
		}
	}
	return points([]pt{{sum.x / n, sum.y / n}})[0]
}

// sealEdge is a seal that is bent over the edge of a lid that tucks in.
func sealEdge(k *work, c *wish.Closure) {
	across := c.Width
	if across == 0 {
		across = k.usual(inch, 25*mm)
	}
	p := largest(k, func(p *Panel) bool { return p.Lid && p.Shows })
	if p == nil {
		k.wrong("kind", "This box doesn't close, so there is nothing to seal.", "Leave it out.", "dress.closure.kind", "")
		return
	}
	piece := cutTo(k.name("seal"), "seal", round(net.Point{}, across/2, across/2, 24), nil)
	piece.Part = net.Topper
	k.loose(piece, c.Card, 1, p.Ref())
	k.last("Stick half of the %s on the %s and bend the other half over its edge.", piece.Name, k.called([]*Panel{p}))
}

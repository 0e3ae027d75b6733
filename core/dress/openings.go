package dress

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/wish"
)

// What is cut into the box itself comes first: windows, thumb notches, and the holes
// that ribbon or cord goes through. Layers are then cut round it.

// border is how much card is left round what is cut out; the lap of a film may want more.
const border = 6 * mm

// openings cuts the openings and reports whether any was.
func openings(k *work) bool {
	cut := false
	for _, w := range k.Windows {
		k.entry = w.Entry
		if panels, ok := k.resolve("on", w.On); ok {
			for _, p := range one(w.On, panels) {
				cut = window(k, w, p) || cut
			}
		}
	}
	for _, g := range k.Grips {
		if k.entry = g.Entry; g.Kind != "notch" {
			continue
		}
		if panels, ok := k.resolve("on", g.On); ok {
			for _, p := range one(g.On, panels) {
				cut = notch(k, g, p) || cut
			}
		}
	}
	cut = pierce(k) || cut
	if cut {
		for _, part := range k.box.Parts {
			if part.Piece != nil && part.Piece.Part == net.Box {
				part.Piece.Find()
				fold.Solve(part.Piece)
			}
		}
		weakened(k)
	}
	return cut
}

// cutBy notes that the entry that is being worked on cuts into a piece.
func cutBy(k *work, p *Panel, field string) {
	k.cuts = append(k.cuts, cutInto{piece(k, p), k.entry, field})
}

type cutInto struct {
	piece        *net.Piece
	entry, field string
}

// weakened refuses an opening that takes card which tabs, marks or holes of the box need.
func weakened(k *work) {
	if n := len(k.cuts); n > 0 {
		if why := k.box.Loosened(assembly.Means{T: k.T, Width: k.Sticks.Width}); why != "" {
			k.entry = k.cuts[n-1].entry
			k.wrong(k.cuts[n-1].field, "That cuts away card that another part is stuck to.",
				"Put it on another panel.")
		}
	}
	for _, c := range k.cuts {
		body := fold.Folded(c.piece, k.T.MM())
		checks := body.Kept()
		body.Press(nil)
		for _, check := range slices.Concat(checks, body.Stuck(k.Sticks.Width.MM()), body.Tucked()) {
			if k.entry = c.entry; !check.Holds {
				k.wrong(c.field, "That cuts away card that is needed: "+plain(check.Figure)+".",
					"Make it smaller, or put it on another panel.")
				break
			}
		}
	}
}

// first leaves of several copies of a panel one: what is cut into it is cut into all.
func first(panels []*Panel) []*Panel {
	return slices.DeleteFunc(slices.Clone(panels), func(p *Panel) bool { return p.Nth > 0 })
}

// one leaves of the panels of a group the largest: a window is one.
func one(on string, panels []*Panel) []*Panel {
	panels = first(panels)
	if _, group := groups[strings.ToLower(strings.TrimSpace(on))]; group && len(panels) > 1 {
		return []*Panel{slices.MaxFunc(panels, byArea)}
	}
	return panels
}

// framed gives the panels with a window, every copy.
func framed(on string, panels []*Panel) []*Panel {
	cut := one(on, panels)
	return slices.DeleteFunc(slices.Clone(panels), func(p *Panel) bool {
		return !slices.ContainsFunc(cut, func(q *Panel) bool { return q.Part == p.Part && q.Name == p.Name })
	})
}

func byArea(a, b *Panel) int { return cmp.Compare(a.Face.Area(), b.Face.Area()) }

// piece gives the piece a panel is of.
func piece(k *work, p *Panel) *net.Piece { return k.box.Part(p.Part).Piece }

// ringOf is the outline of an opening, w by h as it stands, round a place of a panel.
func ringOf(shape string, mid net.Point, w, h Length, p *Panel) []net.Point {
	if p.up%2 == 1 {
		w, h = h, w
	}
	square := []net.Point{{X: mid.X - w/2, Y: mid.Y - h/2}, {X: mid.X - w/2 + w, Y: mid.Y - h/2},
		{X: mid.X - w/2 + w, Y: mid.Y - h/2 + h}, {X: mid.X - w/2, Y: mid.Y - h/2 + h}}
	switch shape {
	case "round":
		return round(mid, w/2, h/2, 32)
	case "rounded":
		return rounded(square, min(w, h)/5)
	}
	return square
}

func (p *Panel) mid() net.Point {
	lo, hi := p.Face.Bounds()
	return net.Point{X: (lo.X + hi.X) / 2, Y: (lo.Y + hi.Y) / 2}
}

// sized fills in the size of a window: half of its panel, or what was said.
func sized(w *wish.Window, p *Panel, step Length) {
	pw, ph := p.Size()
	if w.Width == 0 {
		w.Width = (pw / 2).Near(step)
	}
	if w.Height == 0 {
		w.Height = (ph / 2).Near(step)
		if w.Shape == "round" {
			w.Height = w.Width
		}
	}
	if w.Shape == "round" {
		w.Width = min(w.Width, w.Height)
		w.Height = w.Width
	}
}

func window(k *work, w wish.Window, p *Panel) bool {
	sized(&w, p, k.Step.Size)
	if p.Bent {
		k.wrong("on", fmt.Sprintf("The %s is bent, so a window in it would crack.", k.called([]*Panel{p})),
			"Cut it in a panel that stays flat.")
		return false
	}
	want := Length(border)
	if w.Film {
		want = max(want, w.Lap)
	}
	ring := ringOf(w.Shape, p.spot(-w.Right, w.Down), w.Width, w.Height, p)
	around := inset(ring, even(-want))
	pw, ph := p.Size()
	for _, q := range around {
		if !net.Inside(p.Face.Points, q) {
			k.wrong("width", fmt.Sprintf("A window of %s × %s leaves less than %s of the %s (%s × %s) "+
				"around it.", k.Say(w.Width),
				k.Say(w.Height), k.Say(want), k.called([]*Panel{p}), k.Say(pw), k.Say(ph)), "Make the window smaller, in the middle.",
				"dress."+w.Entry+".width", "", "dress."+w.Entry+".height", "", "dress."+w.Entry+".right", "",
				"dress."+w.Entry+".down", "")
			return false
		}
	}
	if tab := tabBehind(k, p, around); tab != "" {
		k.wrong("on", fmt.Sprintf("The %s lies behind that window.", tab),
			"Make the window smaller, or cut it in another panel.",
			"dress."+w.Entry+".width", "", "dress."+w.Entry+".height", "")
		return false
	}
	if lo, hi := net.Bounds(around); slices.ContainsFunc(piece(k, p).Windows, func(o net.Window) bool {
		return o.Lo.X < hi.X && o.Hi.X > lo.X && o.Lo.Y < hi.Y && o.Hi.Y > lo.Y
	}) {
		k.wrong("on", fmt.Sprintf("The %s already has a window there.", k.called([]*Panel{p})), "Cut it in another panel, or leave it out.")
		return false
	}
	piece(k, p).Opening(w.Shape, ring)
	cutBy(k, p, "on")
	if w.Film {
		k.supply("film", w.Width+2*w.Lap, w.Height+2*w.Lap, piece(k, p).Count,
			"behind the window in the "+k.called([]*Panel{p}))
		k.flat("Stick the film behind the window in the %s, with %s of lap all around.", k.called([]*Panel{p}), k.Say(w.Lap))
	}
	return true
}

// tabBehind finds a face that is stuck behind a panel where something is cut out.
func tabBehind(k *work, p *Panel, ring []net.Point) string {
	piece, body := piece(k, p), p.Face.Body
	lo, hi := net.Bounds(ring)
	for _, g := range slices.Concat(piece.Glues, piece.Tucks) {
		f := body.Find(g.Face)
		if g.On != p.Name || g.Outside || f == nil {
			continue
		}
		var under []net.Point
		for _, v := range f.Poly {
			under = append(under, p.Face.Under(v))
		}
		a, b := net.Bounds(under)
		if a.X < hi.X && b.X > lo.X && a.Y < hi.Y && b.Y > lo.Y {
			return plain(g.Face)
		}
	}
	return ""
}

// frames lays a ring of card round each window, on what lies there already.
func frames(k *work) {
	for _, w := range k.Windows {
		if k.entry = w.Entry; w.Frame == 0 || len(k.Problems) > 0 {
			continue
		}
		panels, _ := k.resolve("on", w.On)
		for _, p := range framed(w.On, panels) {
			own := w
			sized(&own, p, k.Step.Size)
			ring := ringOf(own.Shape, p.spot(-own.Right, own.Down), own.Width, own.Height, p)
			outer := inset(ring, even(-own.Frame))
			for _, q := range outer {
				if !net.Inside(p.Face.Points, q) {
					k.wrong("frame", fmt.Sprintf("A frame of %s reaches past the %s.", k.Say(own.Frame), k.called([]*Panel{p})),
						"Make the frame narrower.", "dress."+w.Entry+".frame", "")
					return
				}
			}
			piece := on(k, p, k.called([]*Panel{p})+" frame", "frame", net.Layer, outer, [][]net.Point{ring}, own.Card, 0)
			k.flat("Stick the %s around the window.", piece.Name)
			p.On = append(p.On, Lay{Card: own.Card, Ring: outer, Holes: [][]net.Point{ring}})
		}
	}
}

package dress

import (
	"fmt"
	"slices"

	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/wish"
)

// Layers cut from one strip, and those cut round a spot of their paper.

// Run is layers cut from one strip in order, so that the picture goes on round the
// corners: the seam is at the back. The strip is seen from its printed side.
type Run struct {
	Name string
	Card shop.Card
	W, H Length
	Cuts []RunCut
}

// RunCut is one layer of a run: how far from the left of the strip it begins, and from the top.
type RunCut struct {
	Piece *net.Piece
	X, Y  Length
	On    string
}

// roundOrder is the order of the sides as one goes round the box from the back's left corner, seen from outside.
var roundOrder = []string{"left", "front", "right", "back"}

// runs finds, for each part, the panels that stand round it in order.
func runs(k *work, l wish.Layer, cuts []cut, pieces []*net.Piece) {
	type at struct {
		part string
		nth  int
	}
	done := map[at]bool{}
	for _, first := range cuts {
		of := at{first.panel.Part, first.panel.Nth}
		if done[of] || first.panel.Nth > 0 {
			continue
		}
		done[of] = true
		run := Run{Card: l.Card}
		var x Length
		high, top := Length(0), tops(cuts, of.part)
		for _, side := range roundOrder {
			for i, c := range cuts {
				if c.panel.Part != of.part || c.panel.Nth != of.nth || c.panel.Looks != side || c.panel.Bent {
					continue
				}
				wide, _ := c.panel.Size()
				w, h := c.panel.size(c.lay.Ring)
				off := offset(c)
				y := top - topOf(c)
				run.Cuts = append(run.Cuts, RunCut{Piece: pieces[i], X: x + off, Y: y, On: c.panel.Ref()})
				run.W, high, x = x+off+w, max(high, y+h), x+wide
			}
		}
		if len(run.Cuts) < 2 {
			continue
		}
		start := run.Cuts[0].X
		for i := range run.Cuts {
			run.Cuts[i].X -= start
		}
		run.W, run.H = run.W-start, high
		run.Name = k.name("run round the " + of.part)
		k.out.Runs = append(k.out.Runs, run)
		k.flat("%s", run.says(k))
	}
}

// offset is how far from the left of its panel a layer begins, as it stands.
func offset(c cut) Length {
	_, whole := net.Bounds(turned(c.panel.Outline, c.panel.up))
	_, own := net.Bounds(turned(c.lay.Ring, c.panel.up))
	return whole.X - own.X // pieces are drawn inside up, so left and right change over
}

// topOf is how high the top of a layer stands, and tops the highest of a part.
func topOf(c cut) Length {
	high := 0.0
	for i, p := range c.lay.Ring {
		if z := c.panel.Face.Place(p).Z; i == 0 || z > high {
			high = z
		}
	}
	return measured(high).Near(mm / 100)
}

func tops(cuts []cut, part string) (out Length) {
	for i, c := range cuts {
		if t := topOf(c); c.panel.Part == part && (i == 0 || t > out) {
			out = t
		}
	}
	return out
}

func (r Run) says(k *work) string {
	s := fmt.Sprintf("Cut a strip of %s × %s for the %s and mark it on its back; from its left, printed side up:",
		k.Say(r.W), k.Say(r.H), r.Name)
	for i, c := range r.Cuts {
		if i > 0 {
			s += ","
		}
		s += fmt.Sprintf(" %s at %s", plain(c.On), k.Say(c.X))
	}
	return s + ". Throw away what lies between them. The picture then runs on around the corners, with its seam at the back."
}

// RunPart is a part of the strip of a run: where it begins, how wide it is, and what is cut from it.
type RunPart struct {
	From, W Length
	Cuts    []RunCut
}

// On cuts the strip of a run for sheets of that length: into as few parts as possible, each as wide as what it
// holds.
func (r Run) On(most, step Length) (parts []RunPart) {
	for _, c := range r.Cuts {
		n := len(parts) - 1
		if n < 0 || c.X+c.Piece.Width-parts[n].From > most {
			parts, n = append(parts, RunPart{From: c.X}), n+1
		}
		p := &parts[n]
		p.Cuts, p.W = append(p.Cuts, c), min(c.X+c.Piece.Width-p.From, most)
	}
	for i := range parts { // to a mark, where the sheet has room for it
		if w := parts[i].W.Up(step); w <= most {
			parts[i].W = w
		}
	}
	return parts
}

// Begins gives how far the print on a layer is shifted, inside up, so that the picture of a run goes on from layer
// to layer; 0, 0 for a layer of no run.
func (d *Dressed) Begins(piece *net.Piece, on string) (x, y Length) {
	if d == nil {
		return 0, 0
	}
	for _, r := range d.Runs {
		for _, c := range r.Cuts {
			if c.Piece == piece && c.On == on {
				return -(c.X + piece.Width), c.Y // from its printed side left and right change over
			}
		}
	}
	return 0, 0
}

// Motif is a piece that is cut round a spot of its sheet.
type Motif struct {
	Piece string // or a run
	X, Y  Length // its corner on the sheet
	W, H  Length
	Card  shop.Card
	Entry string
}

// motif finds where on its sheet the front panel must lie to have the spot in its middle.
func motif(k *work, l wish.Layer, cuts []cut, pieces []*net.Piece) {
	if l.Motif == nil || len(cuts) == 0 {
		return
	}
	i := max(0, slices.IndexFunc(cuts, func(c cut) bool { return c.panel.Looks == "front" }))
	piece := pieces[i]
	m := Motif{Piece: piece.Name, X: l.Motif.X - piece.Width/2, Y: l.Motif.Y - piece.Height/2, W: piece.Width,
		H: piece.Height, Card: l.Card, Entry: l.Entry}
	if n := len(k.out.Runs); l.Run && n > 0 {
		run := k.out.Runs[n-1]
		for _, c := range run.Cuts {
			if c.Piece == piece && c.On == cuts[i].panel.Ref() {
				m = Motif{Piece: run.Name, X: m.X - c.X, Y: m.Y - c.Y, W: run.W, H: run.H, Card: l.Card, Entry: l.Entry}
			}
		}
	}
	k.out.Motifs = append(k.out.Motifs, m)
	k.flat("Cut the %s around the motif. Its top left corner is %s from the left and %s from the top of the sheet.",
		m.Piece, k.Say(m.X), k.Say(m.Y))
}

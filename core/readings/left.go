package readings

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/cutting"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/shop"
	"brevium/core/words"
)

// What is left is good small card: corners cut away, and what remains of the sheets.

// Left is card that is left over, so many pieces alike.
type Left struct {
	From   string // “corners of the base”, “Sheet 1”
	Stock  string
	W, H   measure.Length
	Count  int
	Serves []string // what of this box could be cut from it, and what else it is good for
}

// small are usual small things, the shorter side first.
var small = []struct {
	what string
	w, h measure.Length
}{
	{"a gift tag", 35 * measure.Millimetre, 55 * measure.Millimetre},
	{"a pull tab", 18 * measure.Millimetre, 24 * measure.Millimetre},
	{"a hole's reinforcing", 15 * measure.Millimetre, 15 * measure.Millimetre},
}

// LeastLeft is the least side of what is worth keeping.
const LeastLeft = 15 * measure.Millimetre

// LeftOver lists what is left over, the largest first, with what it would do for.
func LeftOver(p *plan.Plan, kept []shop.Kept) (out []Left) {
	for _, piece := range p.Box.Pieces() {
		if piece.Part != net.Box {
			continue
		}
		for _, f := range piece.Faces {
			lo, hi := f.Bounds()
			w, h := hi.X-lo.X, hi.Y-lo.Y
			if !f.Waste || f.Trim || min(w, h) < LeastLeft || f.Area() < 0.98*w.MM()*h.MM() {
				continue
			}
			out = addLeft(out, Left{From: "corners cut out of the " + piece.Name, Stock: p.CardOf(piece.Stock).ID, W: max(w, h),
				H: min(w, h), Count: piece.Count * p.Copies})
		}
	}
	for i, s := range p.Layout.Sheets {
		for _, o := range s.Offcuts {
			if min(o.W, o.H) >= LeastLeft {
				out = addLeft(out, Left{From: fmt.Sprintf("sheet %d", i+1), Stock: s.Stock, W: max(o.W, o.H), H: min(o.W, o.H),
					Count: 1})
			}
		}
	}
	for _, o := range kept {
		if min(o.Width, o.Height) >= LeastLeft {
			out = addLeft(out, Left{From: "an offcut that you kept", Stock: o.Card, W: max(o.Width, o.Height),
				H: min(o.Width, o.Height), Count: 1})
		}
	}
	slices.SortStableFunc(out, func(a, b Left) int { return cmp.Compare(b.W.MM()*b.H.MM(), a.W.MM()*a.H.MM()) })
	out = out[:min(len(out), 8)]
	for i := range out {
		out[i].Serves = serves(p, out[i])
	}
	return out
}

func addLeft(all []Left, l Left) []Left {
	for i := range all {
		if o := &all[i]; o.From == l.From && o.W == l.W && o.H == l.H && o.Stock == l.Stock {
			o.Count += l.Count
			return all
		}
	}
	return append(all, l)
}

// serves says what can be cut from something left: of this box, pieces of the same card;
// else the usual small things.
func serves(p *plan.Plan, l Left) (out []string) {
	fits := func(w, h measure.Length) bool { return max(w, h) <= l.W && min(w, h) <= l.H }
	for _, piece := range p.Box.Pieces() {
		if p.IsDressing(piece) && p.CardOf(piece.Stock).ID == l.Stock && fits(piece.Width, piece.Height) {
			out = append(out, "the "+words.Plain(piece.Name))
		}
	}
	if len(out) > 3 {
		out = append(out[:3], fmt.Sprintf("and %d more pieces", len(out)-3))
	}
	for _, s := range small {
		if fits(s.w, s.h) && len(out) < 4 {
			out = append(out, s.what)
		}
	}
	return out
}

// Grain tells of each piece which way its grain should run, and whether it does on the sheet it is cut from.
type Grain struct {
	Piece, Says string
	Runs        bool
}

// Grains lists them; nothing where no card's grain is known.
func Grains(p *plan.Plan) (out []Grain) {
	for _, piece := range p.Box.Pieces() {
		c := p.CardOf(piece.Stock)
		if c.Runs(p.SheetOf(c)) == "" {
			continue
		}
		wants := cutting.WantsGrain(piece)
		g := Grain{Piece: piece.Name, Runs: true, Says: map[string]string{"height": "up and down, as it is drawn",
			"width": "left to right, as it is drawn"}[wants]}
		for _, cut := range p.Cuts {
			for _, s := range cut.Sheets {
				for _, l := range s.Placed {
					if l.Piece == piece.Name && (c.Runs(cut.Sheet) == wants) == l.Turned {
						g.Runs = false
					}
				}
			}
		}
		if !g.Runs {
			g.Says += "; on the sheet it lies the other way"
			if c.Directed() {
				g.Says += ", because its pattern must stand upright"
			}
		}
		out = append(out, g)
	}
	return out
}

package plan

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/shop"
	"brevium/core/style"
)

// readWish reads what goes on, in and round the box, and finds the cards it is cut from.
func (q *Request) readWish(b brief.Brief, r *brief.Reader, w Workshop) {
	q.Dressing = map[string]shop.Card{"ribbon": ribbon()}
	q.Wish = dress.Read(r, &b.Dress, dress.Shelf{
		Find: func(field, id string) (shop.Card, bool) {
			c, ok := q.stock(r, b, w, field, id)
			if ok {
				q.Dressing[c.ID] = c
			}
			return c, ok
		},
		Usual: func(part string) shop.Card {
			if c, ok := q.Stocks[part]; ok {
				return c
			}
			if part == "liner" || part == "band" || part == "strip" {
				return q.Card
			}
			return q.Layer
		},
	})
	s := style.Find(string(b.Box.Style))
	if q.Floor > 0 && s != nil && s.Tray && s.Rooms == nil {
		liner := q.Card
		if c, ok := q.Stocks["liner"]; ok {
			liner = c
		}
		q.Wish.Liners = append(q.Wish.Liners, dress.Liner{Entry: "floor", In: "floor", Less: measure.Inch / 8,
			Layers: q.Floor,
			Card:   liner, Quiet: true})
	}
	for _, l := range q.Wish.Liners {
		if l.In == "floor" && !l.Quiet {
			q.Floor += l.Layers
		}
	}
	if c, ok := q.Dressing[string(b.Dress.Scheme.Accent)]; ok { // ribbon goes with the scheme
		r := ribbon()
		r.Colour, r.Inside = c.Colour, c.Colour
		q.Dressing["ribbon"] = r
	}
	q.skin, q.deep = q.Wish.Skin()
}

// lined is what liners take of the room inside.
func (q *Request) lined() [3]measure.Length {
	floor, wall, cover := q.Wish.Lined()
	return [3]measure.Length{floor, wall, cover}
}

// ribbon is ribbon as it is drawn: it is no card.
func ribbon() shop.Card {
	return shop.Card{ID: "ribbon", Title: "ribbon", Caliper: measure.Millimetre / 5, Colour: "#9c3b32", Inside: "#9c3b32"}
}

// dress puts on, in and round the box what is asked for. How thick layers lie under a
// lid is guessed before the box is built; where the folded box says otherwise it is
// built again.
func (p *Plan) dress(s *search) bool {
	if p.Wish.Empty() {
		return true
	}
	warnings := len(p.Warnings)
	for try := 0; ; try++ {
		p.Dressed = dress.On(p.Box, p.Wish, dress.Means{Report: p.Report, T: p.Card.Caliper, Card: p.CardOf,
			Sticks: p.Adhesive,
			Tools:  p.Tools, Ease: p.Slack, Plain: p.Plain, Mass: p.goesIn()})
		skin := measure.Length(0)
		for _, sides := range p.Dressed.Skins {
			skin = max(skin, slices.Max(append(sides, 0)))
		}
		p.placeMotifs()
		if len(p.Problems) > 0 {
			p.Dressed, p.Box = nil, nil
			return false
		}
		if skin == p.skin || try > 0 {
			break
		}
		p.skin, p.Warnings = skin, p.Warnings[:warnings]
		again := newSearch(p)
		again.only = s.only
		if p.Box = again.run(); p.Box == nil {
			return false
		}
		p.Warnings = p.Warnings[:min(warnings, len(p.Warnings))]
		*s = *again
	}
	for i := range p.Box.Clears {
		p.Box.Clears[i].Under = p.Dressed.Skins[i]
	}
	return true
}

// placeMotifs refuses a motif so near the edge of its sheet that what is cut round it
// would hang over.
func (p *Plan) placeMotifs() {
	for _, m := range p.Dressed.Motifs {
		on := p.SheetOf(m.Card)
		x, y := m.X+m.W-on.Width, m.Y+m.H-on.Height
		if over := max(-m.X, -m.Y, x, y); over > 0 {
			p.Problem("dress."+m.Entry+".motif.x",
				fmt.Sprintf("Cut round that motif, the %s would hang %s over the edge of its sheet.",
					m.Piece, p.Say(over)), "Choose a spot further from the edges.", "dress."+m.Entry+".motif.x", "",
				"dress."+m.Entry+".motif.y", "")
		}
	}
}

// goesIn is how many grams all that goes in weighs, as far as that is known.
func (p *Plan) goesIn() (sum float64) {
	for _, t := range p.Things {
		sum += t.Grams * float64(t.Count)
	}
	return sum
}

// strips lays layers that are cut as a run in place of the single ones, and those that
// are cut round a motif where that is.
func (p *Plan) strips(all []layout.Piece, copies int) []layout.Piece {
	if p.Dressed == nil {
		return all
	}
	for _, r := range p.Dressed.Runs {
		for _, c := range r.Cuts {
			for i := range all {
				if all[i].Name == c.Piece.Name {
					all[i].Count -= copies
				}
			}
		}
		for n, part := range p.RunParts(r) {
			all = append(all, layout.Piece{Name: runName(r, n), W: part.W, H: r.H, Count: copies, Upright: r.Card.Directed(),
				Stock: r.Card.ID})
		}
	}
	all = slices.DeleteFunc(all, func(l layout.Piece) bool { return l.Count <= 0 })
	for _, m := range p.Dressed.Motifs {
		for i := range all {
			if all[i].Name == m.Piece {
				one := all[i]
				one.Count, one.At, one.Upright = copies, &layout.Spot{X: m.X, Y: m.Y}, true
				all[i].Count -= copies
				all = append(all, one)
				break
			}
		}
	}
	return slices.DeleteFunc(all, func(l layout.Piece) bool { return l.Count <= 0 })
}

// RunParts are the parts that the strip of a run is cut in, for the sheet it comes off.
func (p *Plan) RunParts(r dress.Run) []dress.RunPart {
	on := p.SheetOf(r.Card)
	most := max(on.Width, on.Height)
	if r.Card.Directed() {
		most = on.Width
	}
	return r.On(most, p.Step.Size)
}

// runName is what the nth part of a run is called on the sheets.
func runName(r dress.Run, n int) string {
	if n == 0 {
		return r.Name
	}
	return fmt.Sprintf("%s, part %d", r.Name, n+1)
}

// RunCalled finds a part of a run by its name on the sheets.
func (p *Plan) RunCalled(name string) (r dress.Run, part dress.RunPart, ok bool) {
	if p.Dressed == nil {
		return r, part, false
	}
	for _, r := range p.Dressed.Runs {
		for n, part := range p.RunParts(r) {
			if runName(r, n) == name {
				return r, part, true
			}
		}
	}
	return r, part, false
}

// IsDressing says whether a piece is of the dressing, and not of the box itself.
func (p *Plan) IsDressing(piece *sheet.Piece) bool {
	return p.Dressed != nil && slices.ContainsFunc(p.Dressed.Laid, func(l dress.Laid) bool { return l.Piece == piece })
}

// PanelRef is the name by which a panel is asked for in a document: without blanks.
func PanelRef(part, face string) string { return strings.ReplaceAll(part+"/"+face, " ", "-") }

// supplySays tells what is to be bought, for all copies.
func (p *Plan) supplySays(s dress.Supply) string {
	if s.Text != "" {
		return s.Text
	}
	says := s.What
	switch {
	case s.Length > 0 && s.Width > 0:
		says = fmt.Sprintf("%s, %s × %s", s.What, p.Say(s.Width), p.Say(s.Length))
	case s.Length > 0:
		says = fmt.Sprintf("%s, %s", s.What, p.Say(s.Length))
	case s.Width > 0:
		says = fmt.Sprintf("%s, %s across", s.What, p.Say(s.Width))
	}
	if n := s.Count * p.Copies; n > 1 {
		says = fmt.Sprintf("%d × %s", n, says)
	}
	return says + ": " + s.Says
}

// AllCards lists every card that anything is cut from, the box's own first.
func (q *Request) AllCards() (out []shop.Card) {
	out = append(out, q.Card)
	for _, m := range []map[string]shop.Card{q.Stocks, q.Dressing} {
		for _, c := range brief.Sorted(m) {
			if !slices.ContainsFunc(out, func(o shop.Card) bool { return o.ID == c.ID }) {
				out = append(out, c)
			}
		}
	}
	return out
}

// Supplies lists what to lay out before beginning.
func (p *Plan) Supplies() []string {
	cuts, scores, folds := "trimmer", "scoring board", "bone folder"
	if p.Tools.Scissors {
		cuts = "scissors, ruler and pencil"
	}
	if p.Tools.Ruler {
		scores = "ruler and stylus (an empty ballpoint will do)"
	}
	if p.Tools.NoFolder {
		folds = "a spoon to press folds with"
	}
	out := []string{
		cuts + " and " + scores + ", marked every " + p.Step.String(),
		folds + ", scissors or knife",
		p.sticksSaid(),
	}
	for i, c := range p.Cuts {
		out = slices.Insert(out, i, fmt.Sprintf("%d of %s: %s", len(c.Sheets), c.Sheet.Title, c.Card.Title))
	}
	for _, s := range p.Box.Supplies {
		out = append(out, s.Text)
	}
	if p.Dressed != nil {
		for _, s := range p.Dressed.Supplies {
			out = append(out, p.supplySays(s))
		}
	}
	for _, c := range p.Cards {
		for _, t := range c.Turns {
			for _, m := range t.At {
				if m.Spacer > 0 && len(p.Tools.Grooves) == 0 {
					return append(out, fmt.Sprintf("a card spacer %s thick, to hold the piece off the fence",
						p.Say(m.Spacer)))
				}
			}
		}
	}
	return out
}

// finishTitles are what the steps of the moments of a finish are called.
var finishTitles = map[string]string{"scoring": bench.FinishUnscored, "flat": bench.FinishFlat, "sticking": bench.FinishUnstuck,
	"last": bench.FinishLast}

// finishes are what is inked, stamped, lettered and stuck on, each at its moment.
func (p *Plan) finishes() (out []bench.Finish) {
	if p.Dressed == nil {
		return nil
	}
	for _, f := range p.Dressed.Finishes {
		out = append(out, bench.Finish{Title: finishTitles[f.When], Says: f.Says, Piece: f.Piece.Name, Faces: f.Faces, Minutes: f.Takes,
			Dry: f.Dry})
	}
	return out
}

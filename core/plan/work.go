package plan

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/contents"
	"brevium/core/cutting"
	"brevium/core/dress"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/net"
)

// The work at the bench, as the plan tells it.

// InBoth is what the bench is told, with every length in both units.
func (p *Plan) InBoth() bench.Guide { return p.tell(p.SayBoth) }

// SayBoth writes a length for a sentence in both units.
func (p *Plan) SayBoth(l measure.Length) string {
	return p.Say(l) + " (" + strings.ReplaceAll(p.Step.Show(l).Other, "⁄", "/") + ")"
}

// Course tells how the box comes together, step by step.
func (p *Plan) Course() []bench.Done { return bench.CourseOf(p.Box, p.goesIn()) }

// Glue is where the pieces are stuck.
func (p *Plan) Glue() bench.Glue {
	a := p.Adhesive
	return bench.Glue{Box: p.Box, Sticks: bench.Sticks{ID: a.ID, Title: a.Title, Hold: a.Hold, Press: a.Press, Dry: a.Dry}}
}

// GlueMap lists the pictures that show where the pieces of the box itself are stuck. Layers are stuck all over.
func (p *Plan) GlueMap() []bench.Frame {
	return p.Glue().Frames(slices.DeleteFunc(p.Box.Pieces(), p.IsDressing))
}

// tell tells the bench what to do, lengths as say writes them.
func (p *Plan) tell(say func(measure.Length) string) bench.Guide {
	cards := p.scoreCards(p.Box.Pieces(), say)
	w := bench.Work{Box: p.Box, Cards: cards, Cuts: Alike(p.Cuts, say), Sheets: p.Layout.Sheets, From: p.SheetsSaid(),
		Sticks: p.Glue().Sticks, Tools: p.Tools, Burnish: p.Burnish, Spacers: p.spacers(cards), Copies: p.Copies,
		Contents: p.goesIn(), Care: p.care(), Say: say}
	w.Dressing.Standing = p.Standing
	if d := p.Dressed; d != nil {
		w.Dressing.Flat, w.Dressing.Before, w.Dressing.Last = d.Flat, d.Before, d.Last
		w.Dressing.Layered, w.Dressing.Finishes = p.layered(), p.finishes()
	}
	w.Dressing.Busy = slices.ContainsFunc(p.Box.Pieces(), func(piece *net.Piece) bool {
		return piece.Part == net.Band && p.CardOf(piece.Stock).Pattern != ""
	})
	return bench.Tell(w)
}

// goesIn names what goes in, with how many.
func (p *Plan) goesIn() (out []string) {
	for _, r := range p.Rooms {
		if goes := r.Goes(); goes != "" {
			out = append(out, goes)
		}
	}
	if len(out) > 0 {
		return out
	}
	for _, t := range p.Load.Things {
		out = append(out, fmt.Sprintf("%d × %s", t.Count, t.Name))
	}
	return out
}

func (p *Plan) scoreCards(pieces []*net.Piece, say func(measure.Length) string) (cards []bench.ScoreCard) {
	var stands map[string][]dress.Stands
	if slices.ContainsFunc(pieces, func(piece *net.Piece) bool { return p.PatternTop(piece) != "" }) {
		stands = dress.Upright(p.Box, p.Card.Caliper)
	}
	for _, piece := range pieces {
		if len(piece.Passes)+len(piece.Slanted)+len(piece.Curves) == 0 && p.IsDressing(piece) {
			continue // cut to size, and nothing to score
		}
		c := bench.ScoreCardOf(piece, say, p.Step.Size, p.Tools, p.First)
		c.Count *= p.Copies
		c.Joint = p.jointCard(piece)
		c.Along, c.Spare = p.Spare(piece)
		c.Says = c.Sentences(say)
		if says := p.PatternSays(piece, stands); says != "" {
			c.Says = append(c.Says, says)
		}
		cards = append(cards, c)
	}
	return cards
}

// layered names the pieces of the box that something lies on the outside of.
func (p *Plan) layered() (names []string) {
	for _, panel := range p.Dressed.Panels {
		part := p.Box.Part(panel.Part)
		if len(panel.On) > 0 && part != nil && part.Piece != nil && !slices.Contains(names, part.Piece.Name) {
			names = append(names, part.Piece.Name)
		}
	}
	return names
}

// Alike gathers the sheets of all cards, those that are cut alike once.
func Alike(cuts []cutting.Cut, say func(measure.Length) string) (out []bench.Sheets) {
	known, n := map[string]int{}, 0
	for _, c := range cuts {
		for _, s := range c.Sheets {
			mark := c.Mark(s)
			if at, ok := known[mark]; ok {
				out[at].Alike++
			} else {
				known[mark] = len(out)
				out = append(out, bench.Sheets{N: n, Alike: 1, Of: c.Sheet.Title + ", " + c.Card.Title, Cuts: s.Steps(say)})
			}
			n++
		}
	}
	return out
}

// finishTitles are what the steps of the moments of a finish are called.
var finishTitles = map[string]string{"scoring": bench.FinishUnscored, "flat": bench.FinishFlat, "sticking": bench.FinishUnstuck,
	"last": bench.FinishLast}

// finishes are what is inked, stamped, lettered and stuck on, each at its moment.
func (p *Plan) finishes() (out []bench.Finish) {
	for _, f := range p.Dressed.Finishes {
		out = append(out, bench.Finish{Title: finishTitles[f.When], Says: f.Says, Piece: f.Piece.Name, Faces: f.Faces, Minutes: f.Takes,
			Dry: f.Dry})
	}
	return out
}

// jointCard is how a piece of two halves is told on its score card; nil for one that is cut whole.
func (p *Plan) jointCard(piece *net.Piece) *bench.Joint {
	if !p.Joined(piece) {
		return nil
	}
	all, j := p.Blanks(piece, 1), p.Joint(piece)
	out := &bench.Joint{At: j.At, Edge: "top"}
	if j.AlongWidth {
		out.Edge = "left"
	}
	for i, of := range []*[2]measure.Length{&out.First, &out.Second, &out.Strip} {
		*of = [2]measure.Length{all[i].W, all[i].H}
	}
	return out
}

// spacers tells the strips that are laid against the fence, and what each is cut
// from: an offcut of the shop, or what is left of a sheet.
func (p *Plan) spacers(cards []bench.ScoreCard) (out []string) {
	if len(p.Tools.Grooves) == 0 {
		return nil
	}
	var sizes []measure.Length
	for _, c := range cards {
		for _, t := range c.Turns {
			for _, m := range t.At {
				if m.Spacer > 0 && !slices.Contains(sizes, m.Spacer) {
					sizes = append(sizes, m.Spacer)
				}
			}
		}
	}
	slices.Sort(sizes)
	for _, s := range sizes {
		out = append(out, fmt.Sprintf("Cut a strip of card %s wide to lay against the fence%s.", p.Say(s), p.leftFor(s)))
	}
	return out
}

// leftFor finds something to cut a strip from that is so wide and a hand long.
func (p *Plan) leftFor(wide measure.Length) string {
	const hand = 60 * measure.Millimetre
	takes := func(w, h measure.Length) bool { return min(w, h) >= wide && max(w, h) >= hand }
	for _, o := range p.Kept() {
		if takes(o.Width, o.Height) {
			return fmt.Sprintf(", from the offcut of %s × %s that you kept", p.Say(o.Width), p.Say(o.Height))
		}
	}
	for i, s := range p.Layout.Sheets {
		j := slices.IndexFunc(s.Offcuts, func(r layout.Rect) bool { return takes(r.W, r.H) })
		if j >= 0 {
			return fmt.Sprintf(", from what is left of sheet %d (%s × %s)", i+1, p.Say(s.Offcuts[j].W), p.Say(s.Offcuts[j].H))
		}
	}
	return ", from any scrap"
}

// care is what the contents ask for: plain cautions, and no word that anything is safe or allowed.
func (p *Plan) care() (says []string) {
	add := func(has func(contents.Thing) bool, text string) {
		for _, t := range p.Load.Things {
			if has(t) {
				says = append(says, fmt.Sprintf(text, t.Name))
				return
			}
		}
	}
	add(func(t contents.Thing) bool { return t.Food }, "Card, ink and glue aren't made to touch food. Wrap the %s or "+
		"line the box with food paper, and follow your local rules for labelling and selling food.")
	add(func(t contents.Thing) bool { return t.Flame }, "Never light the %s in or near the box. Pass on its maker's "+
		"instructions.")
	add(func(t contents.Thing) bool { return t.Liquid }, "Close the %s tightly and keep it upright. A leak softens card.")
	add(func(t contents.Thing) bool { return t.Fragile }, "Wrap the %s so that it can't knock against its neighbours.")
	if g := p.Load.Grams(); g > 700 {
		says = append(says, fmt.Sprintf("This weighs about %.1f kg. Carry the box from below, and put nothing heavy "+
			"on top of it.", g/1000))
	}
	return says
}

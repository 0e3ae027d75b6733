package plan

import (
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/words"
)

// The work at the bench, as the plan tells it.

// InBoth are the score cards and the steps with every length in both units.
func (p *Plan) InBoth() ([]bench.ScoreCard, []bench.Step) {
	return p.bench(p.SayBoth)
}

// SayBoth writes a length for a sentence in both units.
func (p *Plan) SayBoth(l measure.Length) string {
	return p.Say(l) + " (" + strings.ReplaceAll(p.Step.Show(l).Other, "⁄", "/") + ")"
}

func (p *Plan) bench(say func(measure.Length) string) ([]bench.ScoreCard, []bench.Step) {
	pieces := p.Box.Pieces()
	cards := p.scoreCards(pieces, say)
	p.Tape = bench.TapeOf(p.Sticks(), pieces, p.Copies, p.Layout.Sheets)
	p.Tape.Strips = append(p.Tape.Strips, p.tapeBetween(pieces)...)
	w := bench.Work{Pieces: pieces, Cards: cards, From: p.SheetsSaid(), Sheets: alike(p.Cuts, say),
		Sticks: p.Sticks(), Tape: p.Tape, Tools: p.Tools, Burnish: p.Burnish, Spacers: p.spacers(cards), Copies: p.Copies,
		Say: say, Care: p.care(), Contents: p.contents(), Cautions: p.Box.Cautions,
		Deep: p.Box.Inside.Depth > 60*measure.Millimetre && min(p.Box.Inside.Length, p.Box.Inside.Width) < p.Box.Inside.Depth}
	for _, m := range p.Course() {
		w.Course = append(w.Course, bench.Done{Step: m.Step, Says: m.Says})
	}
	for _, part := range p.Box.Parts {
		if part.When == sheet.Close && len(p.Box.Clears) > 0 && part.Piece.Part == sheet.Box {
			w.Lids = append(w.Lids, part.Name)
		}
	}
	for _, n := range p.Box.Notes {
		if strings.HasSuffix(n.Code, "-plain") {
			w.Trims = append(w.Trims, words.Capital(n.Piece)+": "+words.Small(n.Text))
		}
	}
	w.Standing = p.Standing
	w.Joined, w.Errands, w.Sides = p.joinedUp(), p.Box.Errands, p.sides(pieces)
	if p.Dressed != nil {
		w.Dress, w.Before, w.Last, w.Layered = p.Dressed.Flat, p.Dressed.Before, p.Dressed.Last, p.layered()
	}
	w.Finishes, w.Inner = p.finishes(), p.gluedInside(pieces)
	for _, piece := range pieces {
		if piece.Part == sheet.Layer {
			w.Layers += piece.Count
		}
		w.Busy = w.Busy || piece.Part == sheet.Band && p.CardOf(piece.Stock).Pattern != ""
	}
	return cards, bench.Steps(w)
}

// sides tells where the marks of each piece are: on which face, and on which side of it. The two
// halves of what holds by touching look at each other when the box is closed; magnets, which hold
// through card, are inside, where they are covered.
func (p *Plan) sides(pieces []*sheet.Piece) map[*sheet.Piece][]bench.Side {
	out := map[*sheet.Piece][]bench.Side{}
	for _, piece := range pieces {
		body := p.bodyOf(piece)
		for _, m := range piece.Marks {
			side := bench.Side{Through: m.What == "brad" || m.What == "ribbon"}
			if body.Body != nil {
				for _, f := range body.Faces {
					if sheet.Inside(f.Face.Points, m.At) {
						side.Face = f.Name
						side.Outside = m.What != "magnet" && p.facesOut(body.Body, f, m)
					}
				}
			}
			out[piece] = append(out[piece], side)
		}
	}
	return out
}

// facesOut reports whether the other half of what is put on a face lies outside it when the box is
// closed.
func (p *Plan) facesOut(body *fold.Body, f *fold.Placed, m sheet.Mark) bool {
	at := f.Place(m.At)
	least, outside := 8.0, false
	for _, o := range p.Box.Proved.Bodies {
		for _, other := range o.Piece.Marks {
			if other.What != m.What || o == body && other.At == m.At {
				continue
			}
			for _, g := range o.Faces {
				if !sheet.Inside(g.Face.Points, other.At) || g == f {
					continue
				}
				if d := g.Place(other.At).Sub(at); d.Len() < least {
					least, outside = d.Len(), d.Dot(f.In) < 0
				}
			}
		}
	}
	return outside
}

func (p *Plan) scoreCards(pieces []*sheet.Piece, say func(measure.Length) string) (cards []bench.ScoreCard) {
	for _, piece := range pieces {
		if len(piece.Passes)+len(piece.Slanted)+len(piece.Curves) == 0 && p.IsDressing(piece) {
			continue // cut to size, and nothing to score
		}
		c := bench.Card(piece, say, p.Step.Size, p.Tools, p.First)
		c.Count *= p.Copies
		c.Joint = p.jointCard(piece)
		c.Along, c.Spare = p.spare(piece)
		c.Says = c.Sentences(say)
		if says := p.patternSays(piece); says != "" {
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

// alike gathers the sheets of all cards, those that are cut alike once.
func alike(cuts []Cut, say func(measure.Length) string) (out []bench.Sheets) {
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

// Stands gives the bodies that a picture of a step shows: of the parts in hand, each as
// far folded as its step has it, the first of several copies while they are folded.
func (p *Plan) Stands(f bench.Frame) assembly.Standing {
	all := p.Box.After(p.Card.Caliper, f.At)
	if f.At >= float64(len(p.Box.Course())) {
		all = p.Box.Assemble(p.Card.Caliper, assembly.Closed)
	}
	seen := map[string]bool{}
	folding := len(f.Parts) == 1 && f.Empty
	return all.Only(func(part, on string) bool {
		if on != "" { // it rides
			last := p.Box.Part(part)
			return slices.Contains(f.Parts, on) && (f.Late || last == nil || !last.Last)
		}
		if !slices.Contains(f.Parts, part) || folding && seen[part] {
			return false
		}
		seen[part] = true
		return true
	}, !f.Empty)
}

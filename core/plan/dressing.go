package plan

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Panel is a face that a viewer sees, and the layer that leaves an even
// border on it. LayerW is 0 when the panel is too small for one, or Shaped: no
// rectangle leaves an even border on it.
type Panel struct {
	Name           string
	W, H           measure.Length
	LayerW, LayerH measure.Length
	Shaped         bool
	Under          bool // the box stands on it
}

// Border is the even border round a layer: an eighth of an inch, or 3 mm.
func (p *Plan) Border() measure.Length {
	if p.Step.Unit == measure.Inches {
		return measure.Inch / 8
	}
	return 3 * measure.Millimetre
}

// Panels lists the visible faces: all that are neither stuck nor tucked behind
// something.
func (p *Plan) Panels() (out []Panel) {
	for _, piece := range p.Box.Pieces() {
		hidden := map[string]bool{}
		for _, g := range slices.Concat(piece.Glues, piece.Tucks) {
			hidden[g.Face] = hidden[g.Face] || !g.Outside
		}
		for _, f := range piece.Kept() {
			if hidden[f.Name] {
				continue
			}
			lo, hi := f.Bounds()
			q := Panel{Name: piece.Name + ", " + strings.ReplaceAll(f.Name, "-", " "), W: hi.X - lo.X, H: hi.Y - lo.Y}
			if piece.Name == f.Name {
				q.Name = piece.Name + ", bottom"
			}
			q.Under = piece == p.Box.Parts[0].Piece && f.Name == piece.Root
			q.Shaped = len(f.Holes) > 0 || f.Area() < 0.97*q.W.MM()*q.H.MM()
			if w, h := q.W-2*p.Border(), q.H-2*p.Border(); w > 0 && h > 0 && !q.Shaped {
				q.LayerW, q.LayerH = w, h
			}
			out = append(out, q)
		}
	}
	return out
}

// Supplies lists what to lay out before beginning.
func (p *Plan) Supplies() []string {
	out := []string{
		"trimmer and scoring board, marked every " + p.Step.String(),
		"bone folder, scissors or knife",
		p.sticksSaid(),
	}
	for i, c := range p.Cuts {
		out = slices.Insert(out, i, fmt.Sprintf("%d of %s: %s", len(c.Sheets), c.Sheet.Title, c.Card.Title))
	}
	out = append(out, p.Box.Supplies...)
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

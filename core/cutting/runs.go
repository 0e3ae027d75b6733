package cutting

import (
	"fmt"
	"slices"

	"brevium/core/dress"
	"brevium/core/layout"
	"brevium/core/net"
)

// strips lays layers that are cut as a run in place of the single ones, and those that
// are cut round a motif where that is.
func (t *Table) strips(all []layout.Piece, copies int) []layout.Piece {
	if t.Dressed == nil {
		return all
	}
	for _, r := range t.Dressed.Runs {
		for _, c := range r.Cuts {
			for i := range all {
				if all[i].Name == c.Piece.Name {
					all[i].Count -= copies
				}
			}
		}
		for n, part := range t.RunParts(r) {
			all = append(all, layout.Piece{Name: runName(r, n), W: part.W, H: r.H, Count: copies, Upright: r.Card.Directed(),
				Stock: r.Card.ID})
		}
	}
	all = slices.DeleteFunc(all, func(l layout.Piece) bool { return l.Count <= 0 })
	for _, m := range t.Dressed.Motifs {
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
func (t *Table) RunParts(r dress.Run) []dress.RunPart {
	on := t.SheetOf(r.Card)
	most := max(on.Width, on.Height)
	if r.Card.Directed() {
		most = on.Width
	}
	return r.On(most, t.Step.Size)
}

// runName is what the nth part of a run is called on the sheets.
func runName(r dress.Run, n int) string {
	if n == 0 {
		return r.Name
	}
	return fmt.Sprintf("%s, part %d", r.Name, n+1)
}

// RunCalled finds a part of a run by its name on the sheets.
func (t *Table) RunCalled(name string) (r dress.Run, part dress.RunPart, ok bool) {
	if t.Dressed == nil {
		return r, part, false
	}
	for _, r := range t.Dressed.Runs {
		for n, part := range t.RunParts(r) {
			if runName(r, n) == name {
				return r, part, true
			}
		}
	}
	return r, part, false
}

// IsDressing reports whether a piece is of the dressing, and not of the box itself.
func (t *Table) IsDressing(piece *net.Piece) bool {
	return t.Dressed != nil && slices.ContainsFunc(t.Dressed.Laid, func(l dress.Laid) bool { return l.Piece == piece })
}

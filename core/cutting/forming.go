package cutting

import (
	"slices"

	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/net"
)

// Straps, sleeves and covers that are formed on the box itself: cut a little long, wrapped round,
// pinched where they turn, and scored there.

// Wraps reports whether a piece only goes round another: it has two folds or more, which run one way and
// turn the same way, and no slit ends at one of them.
func (t *Table) Wraps(piece *net.Piece) bool {
	if len(piece.Passes) < 2 || len(piece.Slanted)+len(piece.Curves)+len(piece.Slits) > 0 {
		return false
	}
	for _, pass := range piece.Passes {
		if pass.AlongWidth != piece.Passes[0].AlongWidth || pass.Fold != net.Valley {
			return false
		}
	}
	first := t.Box.Parts[0].Piece
	return piece != first && (piece.Part == net.Band || piece.Part == net.Box)
}

// formed reports whether a piece is to be formed on the box: a band of the dressing as it says, all others
// as the house does it.
func (t *Table) formed(piece *net.Piece) bool {
	if t.Wish.Belt == nil || t.Wish.Belt.Form == "" || t.Dressed == nil {
		return t.Forms
	}
	belt := slices.ContainsFunc(t.Dressed.Laid, func(l dress.Laid) bool { return l.Piece == piece && l.Entry == "band" })
	return belt && t.Wish.Belt.Form == "wrapped" || !belt && t.Forms
}

// Spare is how much longer a piece that is formed on the box is cut, 0 for all others: along its width
// or its height, as its folds follow each other.
func (t *Table) Spare(piece *net.Piece) (along bool, spare measure.Length) {
	if !t.formed(piece) || t.Box == nil || len(t.Box.Parts) == 0 || !t.Wraps(piece) || t.Joined(piece) {
		return false, 0
	}
	if spare = 12 * measure.Millimetre; t.Step.Unit == measure.Inches {
		spare = measure.Inch / 2
	}
	return piece.Passes[0].AlongWidth, spare
}

package plan

import (
	"slices"

	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/sheet"
)

// Straps, sleeves and covers that are formed on the box itself: cut a little long, wrapped round,
// pinched where they turn, and scored there.

// wraps reports whether a piece only goes round another: it has two folds or more, which run one way and
// turn the same way, and no slit ends at one of them.
func (p *Plan) wraps(piece *sheet.Piece) bool {
	if len(piece.Passes) < 2 || len(piece.Slanted)+len(piece.Curves)+len(piece.Slits) > 0 {
		return false
	}
	for _, pass := range piece.Passes {
		if pass.AlongWidth != piece.Passes[0].AlongWidth || pass.Fold != sheet.Valley {
			return false
		}
	}
	first := p.Box.Parts[0].Piece
	return piece != first && (piece.Part == sheet.Band || piece.Part == sheet.Box)
}

// formed reports whether a piece is to be formed on the box: a band of the dressing as it says, all others
// as the house does it.
func (p *Plan) formed(piece *sheet.Piece) bool {
	if p.Wish.Belt == nil || p.Wish.Belt.Form == "" || p.Dressed == nil {
		return p.Forms
	}
	belt := slices.ContainsFunc(p.Dressed.Laid, func(l dress.Laid) bool { return l.Piece == piece && l.Entry == "band" })
	return belt && p.Wish.Belt.Form == "wrapped" || !belt && p.Forms
}

// spare is how much longer a piece that is formed on the box is cut, 0 for all others: along its width
// or its height, as its folds follow each other.
func (p *Plan) spare(piece *sheet.Piece) (along bool, spare measure.Length) {
	if !p.formed(piece) || p.Box == nil || len(p.Box.Parts) == 0 || !p.wraps(piece) || p.Joined(piece) {
		return false, 0
	}
	if spare = 12 * measure.Millimetre; p.Step.Unit == measure.Inches {
		spare = measure.Inch / 2
	}
	return piece.Passes[0].AlongWidth, spare
}

package cutting

import (
	"slices"

	"brevium/core/dress"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/style"
)

// ToLay lists a box's pieces for the sheets, as they are cut.
func (t *Table) ToLay(b *style.Box, copies int) (out []layout.Piece) {
	for _, piece := range b.Pieces() {
		out = append(out, t.Blanks(piece, copies)...)
	}
	return t.strips(out, copies)
}

// Blanks lists what is cut from a sheet for a piece of so many boxes: the piece itself or, where it is
// larger than its sheet and may be joined, two halves and the strip behind their joint.
func (t *Table) Blanks(piece *net.Piece, copies int) []layout.Piece {
	lies := t.OnSheet(piece, copies)
	if along, spare := t.Spare(piece); along {
		lies.W += spare
	} else {
		lies.H += spare
	}
	whole := t.upright(lies, piece)
	if !t.Joined(piece) {
		return []layout.Piece{whole}
	}
	j := t.Joint(piece)
	a, c := whole, whole
	a.Name, c.Name = piece.Name+", first half", piece.Name+", second half"
	strip := layout.Piece{Name: piece.Name + ", joint strip", W: 2 * t.Adhesive.Width.Up(t.Step.Size),
		H: piece.Height, Count: whole.Count, Stock: whole.Stock}
	if j.AlongWidth {
		a.W, c.W = j.At, piece.Width-j.At
	} else {
		a.H, c.H, strip.H = j.At, piece.Height-j.At, piece.Width
	}
	return []layout.Piece{a, c, strip}
}

// DressBlanks lists what is cut for the dressing of one box.
func (t *Table) DressBlanks() (out []layout.Piece) {
	if t.Dressed != nil {
		for _, l := range t.Dressed.Laid {
			out = append(out, t.Blanks(l.Piece, 1)...)
		}
	}
	return out
}

// Joined reports whether a piece is made of two halves: it is larger than its sheet, and may be.
func (t *Table) Joined(piece *net.Piece) bool {
	on := t.SheetOf(t.CardOf(piece.Stock))
	return t.joins(piece) && !t.upright(t.OnSheet(piece, 1), piece).Lies(on.Width, on.Height)
}

// joins reports whether a piece that is too large may be made of two: where that was
// said, and of bands and handles always.
func (t *Table) joins(piece *net.Piece) bool {
	return t.Join || t.IsDressing(piece) && (piece.Part == net.Band || piece.Part == net.Handle)
}

// Joint is where a piece is cut in two.
type Joint struct {
	AlongWidth bool
	At         measure.Length
}

// Joint puts the joint across the longer side, in the middle of it and never
// nearer to a score than the strip behind it is wide.
func (t *Table) Joint(piece *net.Piece) Joint {
	j := Joint{AlongWidth: piece.Width >= piece.Height}
	size := piece.Height
	if j.AlongWidth {
		size = piece.Width
	}
	clear := t.Adhesive.Width.Up(t.Step.Size)
	middle := (size / 2).Near(t.Step.Size)
	for off := measure.Length(0); off < size/2; off += t.Step.Size {
		for _, at := range []measure.Length{middle + off, middle - off} {
			if j.At = at; t.joinable(piece, j, clear) {
				return j
			}
		}
	}
	j.At = middle
	return j
}

func (t *Table) joinable(piece *net.Piece, j Joint, clear measure.Length) bool {
	for _, s := range piece.Passes {
		if s.AlongWidth == j.AlongWidth && (s.At-j.At).Abs() < clear {
			return false
		}
	}
	return true
}

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
// as in Supplies.
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

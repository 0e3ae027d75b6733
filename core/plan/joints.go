package plan

import (
	"brevium/core/bench"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/style"
)

// toLay lists a box's pieces for the sheets, as they are cut.
func (p *Plan) toLay(b *style.Box, copies int) (out []layout.Piece) {
	for _, piece := range b.Pieces() {
		out = append(out, p.blanks(piece, copies)...)
	}
	return p.strips(out, copies)
}

// Blanks lists what is cut from a sheet for a piece of all copies: the piece itself or, where it is
// larger than its sheet and may be joined, two halves and the strip behind their joint.
func (p *Plan) Blanks(piece *sheet.Piece) []layout.Piece { return p.blanks(piece, p.Copies) }

func (p *Plan) blanks(piece *sheet.Piece, copies int) []layout.Piece {
	lies := p.onSheet(piece, copies)
	if along, spare := p.spare(piece); along {
		lies.W += spare
	} else {
		lies.H += spare
	}
	whole := p.upright(lies, piece)
	if !p.Joined(piece) {
		return []layout.Piece{whole}
	}
	j := p.joint(piece)
	a, c := whole, whole
	a.Name, c.Name = piece.Name+", first half", piece.Name+", second half"
	strip := layout.Piece{Name: piece.Name + ", joint strip", W: 2 * p.Adhesive.Width.Up(p.Step.Size),
		H: piece.Height, Count: whole.Count, Stock: whole.Stock}
	if j.AlongWidth {
		a.W, c.W = j.At, piece.Width-j.At
	} else {
		a.H, c.H, strip.H = j.At, piece.Height-j.At, piece.Width
	}
	return []layout.Piece{a, c, strip}
}

// DressBlanks lists what is cut for the dressing of one box.
func (p *Plan) DressBlanks() (out []layout.Piece) {
	if p.Dressed != nil {
		for _, l := range p.Dressed.Laid {
			out = append(out, p.blanks(l.Piece, 1)...)
		}
	}
	return out
}

// Joined reports whether a piece is made of two halves: it is larger than its sheet, and may be.
func (p *Plan) Joined(piece *sheet.Piece) bool {
	on := p.SheetOf(p.CardOf(piece.Stock))
	return p.joins(piece) && !p.upright(p.onSheet(piece, 1), piece).Lies(on.Width, on.Height)
}

// joins says whether a piece that is too large may be made of two: where that was
// said, and of bands and handles always.
func (p *Plan) joins(piece *sheet.Piece) bool {
	return p.Join || p.IsDressing(piece) && (piece.Part == sheet.Band || piece.Part == sheet.Handle)
}

// Joint is where a piece is cut in two.
type Joint struct {
	AlongWidth bool
	At         measure.Length
}

// joint puts the joint across the longer side, in the middle of it and never
// nearer to a score than the strip behind it is wide.
func (p *Plan) joint(piece *sheet.Piece) Joint {
	j := Joint{AlongWidth: piece.Width >= piece.Height}
	size := piece.Height
	if j.AlongWidth {
		size = piece.Width
	}
	clear := p.Adhesive.Width.Up(p.Step.Size)
	middle := (size / 2).Near(p.Step.Size)
	for off := measure.Length(0); off < size/2; off += p.Step.Size {
		for _, at := range []measure.Length{middle + off, middle - off} {
			if j.At = at; p.joinable(piece, j, clear) {
				return j
			}
		}
	}
	j.At = middle
	return j
}

func (p *Plan) joinable(piece *sheet.Piece, j Joint, clear measure.Length) bool {
	for _, s := range piece.Passes {
		if s.AlongWidth == j.AlongWidth && (s.At-j.At).Abs() < clear {
			return false
		}
	}
	return true
}

// jointCard is how a piece of two halves is told on its score card; nil for one that is cut whole.
func (p *Plan) jointCard(piece *sheet.Piece) *bench.Joint {
	if !p.Joined(piece) {
		return nil
	}
	all, j := p.blanks(piece, 1), p.joint(piece)
	out := &bench.Joint{At: j.At, Edge: "top"}
	if j.AlongWidth {
		out.Edge = "left"
	}
	for i, of := range []*[2]measure.Length{&out.First, &out.Second, &out.Strip} {
		*of = [2]measure.Length{all[i].W, all[i].H}
	}
	return out
}

// JointOf is where a piece is cut in two, when it is.
func (p *Plan) JointOf(piece *sheet.Piece) Joint { return p.joint(piece) }

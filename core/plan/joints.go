package plan

import (
	"fmt"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/style"
)

// toLay lists a box's pieces for the sheets. A piece that is too large and may
// be joined is two halves and a strip behind their joint.
func (p *Plan) toLay(b *style.Box, copies int) (out []layout.Piece) {
	for _, piece := range b.Pieces() {
		whole := p.upright(p.onSheet(piece, copies), piece)
		if on := p.SheetOf(p.CardOf(piece.Stock)); !p.joins(piece) || whole.Lies(on.Width, on.Height) {
			out = append(out, whole)
			continue
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
		out = append(out, a, c, strip)
	}
	return p.strips(out, copies)
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

// Joints tells the pieces that are cut in two, for the bench.
func (p *Plan) Joints() (out []string) {
	for _, piece := range p.Box.Pieces() {
		if !p.joins(piece) {
			continue
		}
		if on := p.SheetOf(p.CardOf(piece.Stock)); !p.onSheet(piece, 1).Lies(on.Width, on.Height) {
			j := p.joint(piece)
			edge := "top"
			if j.AlongWidth {
				edge = "left"
			}
			out = append(out, fmt.Sprintf("Join the two halves of the %s edge to edge, %s from its %s edge, with the joint strip "+
				"stuck "+
				"behind them on the inside, before scoring.", piece.Name, p.Say(j.At), edge))
		}
	}
	return out
}

// JointOf is where a piece is cut in two, when it is.
func (p *Plan) JointOf(piece *sheet.Piece) Joint { return p.joint(piece) }

package plan

import (
	"fmt"
	"strings"

	"brevium/core/box"
	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/sheet"
)

// Fix is a change that would bring every piece on to its sheet: what, by how
// much, and the fields that do it.
type Fix struct {
	Text string            `json:"text"`
	Set  map[string]string `json:"set"`
}

// toLay lists a box's pieces for the sheets. A piece that is too large and may
// be joined is two halves and a strip behind their joint.
func (p *Plan) toLay(b *box.Box, copies int) (out []layout.Piece) {
	for _, piece := range b.Pieces {
		whole := layout.Piece{Name: piece.Name, W: piece.Width, H: piece.Height, Count: piece.Count * copies}
		if p.Brief.Card.Join != "yes" || p.Sheet.Takes(piece.Width, piece.Height) {
			out = append(out, whole)
			continue
		}
		j := p.joint(piece)
		a, c := whole, whole
		a.Name, c.Name = piece.Name+", first half", piece.Name+", second half"
		strip := layout.Piece{Name: piece.Name + ", joint strip", W: 2 * p.Adhesive.Width.Up(p.Step.Size),
			H: piece.Height, Count: whole.Count}
		if j.AlongWidth {
			a.W, c.W = j.At, piece.Width-j.At
		} else {
			a.H, c.H, strip.H = j.At, piece.Height-j.At, piece.Width
		}
		out = append(out, a, c, strip)
	}
	return out
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
	if p.Brief.Card.Join != "yes" {
		return nil
	}
	for _, piece := range p.Box.Pieces {
		if !p.Sheet.Takes(piece.Width, piece.Height) {
			j := p.joint(piece)
			edge := "top"
			if j.AlongWidth {
				edge = "left"
			}
			say := strings.ReplaceAll(p.Step.Show(j.At).String(), "⁄", "/")
			out = append(out, fmt.Sprintf("Join the two halves of the %s edge to edge, %s from its %s edge, with the joint strip stuck behind them on the inside, before scoring.", piece.Name, say, edge))
		}
	}
	return out
}

// fixes looks for the smallest changes that bring every piece on to a sheet.
func (p *Plan) fixes(w Workshop) (out []Fix) {
	add := func(text string, set map[string]string) { out = append(out, Fix{text, set}) }
	for _, way := range p.Ways {
		if way.ID != p.Load.ID && p.tries(w, map[string]string{"arrange.way": way.ID}) {
			add("Arrange them "+way.Says+".", map[string]string{"arrange.way": way.ID})
			break
		}
	}
	if around := p.Load.Room.Around; around > 0 {
		set := func(at measure.Length) map[string]string { return map[string]string{"room.around": at.Exact(p.Units)} }
		if at, ok := p.largest(0, around, func(at measure.Length) bool { return p.tries(w, set(at)) }); ok {
			add(fmt.Sprintf("Finger room of %s in place of %s.", p.words(at), p.words(around)), set(at))
		}
	}
	out = append(out, p.lower(w)...)
	for _, s := range w.Sheets {
		if fitsAll(s, p.Box) {
			add("Cut it from "+s.Title+".", map[string]string{"card.sheet": s.ID})
			break
		}
	}
	if set := map[string]string{"card.join": "yes"}; p.tries(w, set) {
		for _, big := range p.Layout.TooBig {
			add(fmt.Sprintf("Make the %s of two halves with a strip of %s behind the joint.", big.Name,
				p.words(2*p.Adhesive.Width.Up(p.Step.Size))), set)
			break
		}
	}
	return out
}

// lower tries lower walls: of a given size, or of the lid.
func (p *Plan) lower(w Workshop) (out []Fix) {
	if p.Brief.Size != nil {
		high := p.Box.Size.Depth
		set := func(at measure.Length) map[string]string { return map[string]string{"size.depth": at.Exact(p.Units)} }
		if at, ok := p.largest((high / 2).Up(p.Step.Size), high, func(at measure.Length) bool { return p.tries(w, set(at)) }); ok {
			return []Fix{{fmt.Sprintf("Walls of %s in place of %s.", p.words(at), p.words(high)), set(at)}}
		}
	}
	if set := map[string]string{"box.options.lid": "short", "box.options.lid-height": "",
		"box.options.reveal": ""}; p.Brief.Get("box.options.lid") == "full" && p.tries(w, set) {
		return []Fix{{"A short lid in place of a full one.", set}}
	}
	return nil
}

// largest finds the largest length on a mark, from low and below high, that will
// do. What does at a length is taken to do below it, so halving finds it in a
// dozen tries, however far apart the two are.
func (p *Plan) largest(low, high measure.Length, will func(measure.Length) bool) (measure.Length, bool) {
	step := p.Step.Size
	low, high = low.Up(step), (high - 1).Down(step)
	if low > high || !will(low) {
		return 0, false
	}
	for low < high {
		if mid := (low + high + step) / 2; will(mid.Down(step)) {
			low = mid.Down(step)
		} else {
			high = mid.Down(step) - step
		}
	}
	return low, true
}

// tries says whether a change gives a plan whose pieces all have a sheet.
func (p *Plan) tries(w Workshop, set map[string]string) bool {
	if p.remedies == nil {
		p.remedies = work(remedied)
	}
	if !p.remedies.spend(p.effort()) {
		return false
	}
	b := p.Brief.Clone()
	for field, text := range set {
		b.Set(field, text)
	}
	got := sketch(b, w, true)
	if got == nil {
		return false
	}
	for _, piece := range got.toLay(got.Box, 1) {
		if !got.Sheet.Takes(piece.W, piece.H) {
			return false
		}
	}
	return true
}

// sketch plans a brief as far as its pieces, without faces, proof or layout;
// nil when that can't be. For their sizes alone they are not laid on sheets.
func sketch(b brief.Brief, w Workshop, sizes bool) *Plan {
	s := begin(b, w)
	s.hasty, s.sizes = true, sizes
	if len(s.job.Problems) > 0 {
		return nil
	}
	if s.plan.Box = s.run(); s.plan.Box == nil || len(s.job.Problems) > 0 {
		return nil
	}
	return s.plan
}

func (p *Plan) words(l measure.Length) string {
	return strings.ReplaceAll(p.Step.Show(l).String(), "⁄", "/")
}

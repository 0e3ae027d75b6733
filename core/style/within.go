package style

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/words"
)

// A box within a box, and what an insert wants of one.

// Within makes a box of another style, of a size of its own, to stand in this one. Its outside is measured, so that
// room can be made for it. When it can't be the reason is noted, and it is nil.
func Within(j *Spec, name string, s *Style, size Dims, answers Answers) *Box {
	inner := *j
	inner.Report = &brief.Report{Units: j.Units, Step: j.Step}
	inner.Given, inner.Answers, inner.Need, inner.Taken, inner.Proud, inner.found = &size, answers, Dims{}, nil, 0, nil
	inner.Stand, inner.Needs, inner.shaped = nil, nil, false
	inner.Stocks, inner.Lined, inner.Outside, inner.Skin, inner.Lining = nil, [3]Length{}, 0, 0, 0 // small boxes are left plain
	if lid, ok := j.Stocks["lid"]; ok && slices.Contains(j.style.Apart, "lid") {
		inner.Stocks = map[string]shop.Card{"lid": lid} // lids of small boxes are lids
	}
	in := Make(&inner, s, false)
	if in == nil {
		wrong := inner.Problems[0]
		field := j.SizeField("length")
		if dim, ok := strings.CutPrefix(wrong.Field, "size."); ok { // what asks for that of this box is to blame
			field = cmp.Or(j.SizeField(dim), field)
		}
		j.Problem(field, words.Capital(name)+": "+wrong.Text, wrong.Fix)
	}
	return in
}

// Suits reports whether a box has the tray that an insert wants, or notes that it has not.
func Suits(j *Spec, insert string, b *Box) bool {
	if s := Find(b.Style); s != nil && s.Tray && b.Above != fold.Roof {
		return true
	}
	j.Problem("arrange.compartments", words.Capital(insert)+" need a square tray with walls of its own.",
		"Choose a tray with a lid, or no compartments.", "arrange.compartments", "none")
	return false
}

// Nest stands copies of a box on a face, one at each spot; a spot may name another face, and which face of the box
// is laid on it. The pieces, and the notes about them, take the name.
func Nest(j *Spec, b *Box, name string, in *Box, on string, spots ...assembly.Place) {
	first, stands := in.Parts[0], false
	for i := range spots {
		spots[i].On = cmp.Or(spots[i].On, on)
		if spots[i].Face == "" {
			stands = true
			spots[i].Face = first.Name + "/" + first.Piece.Root
			spots[i].Out -= j.T()/2 + measure.FromMM(in.Foot)
		}
	}
	for _, n := range in.Notes {
		n.Piece = name + " " + n.Piece
		*j.notes = append(*j.notes, n)
	}
	for _, s := range in.Supplies {
		s.Text, s.Count = fmt.Sprintf("for each %s: %s", name, s.Text), s.Count*max(1, len(spots))
		b.Supplies = append(b.Supplies, s)
	}
	b.Cautions = append(b.Cautions, in.Cautions...)
	for _, e := range in.Errands {
		if e.Piece != "" {
			e.Piece = name + " " + e.Piece
		}
		b.Errands = append(b.Errands, e)
	}
	b.Nest(name, &in.Tree, spots...).Rests = stands
}

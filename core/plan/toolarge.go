package plan

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/style"
)

// tooLarge refuses a box that no sheet on the shelf takes. Which measure decides, and what is least of a
// change, is looked for beside the plan.
func (m *making) tooLarge() {
	var pieces []string
	var large *net.Piece // the first; nil where no one sheet takes all of them
	r := &Refused{Box: m.Box, Guilty: m.spec.Guilty, Scores: m.spec.Scores}
	for _, piece := range m.Box.Pieces() {
		l, sheets := m.OnSheet(piece, 1), m.w.SheetsOf(m.CardOf(piece.Stock))
		if !slices.ContainsFunc(sheets, func(s shop.Sheet) bool { return l.Lies(s.Width, s.Height) }) {
			says := fmt.Sprintf("the %s %s × %s", piece.Name, m.Say(piece.Width), m.Say(piece.Height))
			if over, on := NearestSheet(l, sheets); over > 0 {
				says += fmt.Sprintf(", %s too big for %s", m.Say(over), on.Title)
			}
			pieces = append(pieces, says)
			large = cmp.Or(large, piece)
		}
	}
	r.Says = "This box is too big for every sheet you have: " + strings.Join(pieces, "; ") + "."
	if len(pieces) == 0 {
		r.Says = "No one sheet size you have takes every piece of this box."
	}
	m.Refused = r
	if len(r.Scores) > 0 {
		m.Problem(typedSide(r.Scores, large), r.Says,
			"Turn on two halves for large pieces (under Card & fit), or add a larger sheet in Supplies.",
			"card.join", "yes")
		return
	}
	size, dim := m.Box.Size, "length"
	if size.Width > size.Length {
		dim = "width"
	}
	if size.Depth > max(size.Length, size.Width) {
		dim = "depth"
	}
	m.Problem(m.SizeField(dim), r.Says, r.Fix("", 0, m.Say), "card.join", "yes")
}

// Fix says how large the deciding dimension of a refused box may be; 0 when changing one dimension is not enough.
func (r *Refused) Fix(dim string, at measure.Length, say func(measure.Length) string) string {
	fix := "Changing one size isn't enough. Make more than one smaller"
	if at > 0 {
		fix = fmt.Sprintf("Make it %s %s", say(at),
			map[string]string{"length": "long", "width": "from front to back", "depth": "high"}[dim])
	}
	return fix + ", or turn on two halves for large pieces (under Card & fit)."
}

// SizeField is the field that asks for a measure of a refused box.
func (p *Plan) SizeField(dim string) string {
	if p.Given != nil {
		return "size." + dim
	}
	g := p.Refused.Guilty
	return map[string]string{"length": g.Length, "width": g.Width, "depth": g.Depth}[dim]
}

// NearestSheet is the sheet that a piece misses by least, and by how much: the way it misses it more.
func NearestSheet(l layout.Piece, sheets []shop.Sheet) (over measure.Length, on shop.Sheet) {
	for _, s := range sheets {
		miss := max(0, l.W-s.Width, l.H-s.Height)
		if !l.Upright {
			miss = min(miss, max(0, l.H-s.Width, l.W-s.Height))
		}
		if on.ID == "" || miss < over {
			over, on = miss, s
		}
	}
	return over, on
}

// typedSide is the field of the longer side of a piece of a list of scores; of no one piece, the sheet's.
func typedSide(rows []style.Scored, piece *net.Piece) string {
	for _, row := range rows {
		if piece == nil || row.Name != piece.Name {
			continue
		}
		if piece.Width > piece.Height {
			return row.Field + "width"
		}
		return row.Field + "height"
	}
	return "card.sheet"
}

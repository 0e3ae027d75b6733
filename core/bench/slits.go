package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/sheet"
)

// slitPlaces tells where slits run: along which scores, from which edges.
func slitPlaces(p *sheet.Piece, say func(Length) string) string {
	type place struct {
		at, deep Length
		level    bool
	}
	edges := map[place][]string{}
	var order []place
	var free []string
	for _, s := range p.Slits {
		if !OnPass(p, s) {
			free = append(free, fmt.Sprintf("from %s left, %s down to %s left, %s down", say(s.A.X), say(s.A.Y), say(s.B.X),
				say(s.B.Y)))
			continue
		}
		at, size, near, far := s.A.X, p.Width, "left", "right"
		level := s.A.Y == s.B.Y
		if level {
			at, size, near, far = s.A.Y, p.Height, "top", "bottom"
		}
		edge := near
		if 2*at > size {
			at, edge = size-at, far
		}
		k := place{at, (s.A.X - s.B.X).Abs() + (s.A.Y - s.B.Y).Abs(), level}
		if edges[k] == nil {
			order = append(order, k)
		}
		if !slices.Contains(edges[k], edge) {
			edges[k] = append(edges[k], edge)
		}
	}
	var out []string
	for _, k := range order {
		from := "the " + edges[k][0] + " edge"
		if len(edges[k]) > 1 {
			slices.Sort(edges[k])
			if k.level {
				slices.Reverse(edges[k])
			}
			from = "the " + strings.Join(edges[k], " and ") + " edges"
		}
		out = append(out, fmt.Sprintf("along the score %s from %s, %s deep", say(k.at), from, say(k.deep)))
	}
	return strings.Join(append(out, free...), "; ")
}

// OnPass says whether a line runs along a score.
func OnPass(p *sheet.Piece, s sheet.Line) bool {
	return slices.ContainsFunc(p.Passes, func(q sheet.Pass) bool {
		return q.AlongWidth && s.A.X == q.At && s.B.X == q.At || !q.AlongWidth && s.A.Y == q.At && s.B.Y == q.At
	})
}

// seenSlits are the slits along scores that part faces which both are seen: a score there
// would leave a ridge. Beside a tab it is hidden, and most score right through.
func seenSlits(p *sheet.Piece) (out []sheet.Line) {
	bare := func(at sheet.Point) bool { // it lies on a wall or panel that stays
		return slices.ContainsFunc(p.Kept(), func(f *sheet.Face) bool {
			return p.RoleOf(f.Name) == "" && sheet.Inside(f.Points, at)
		})
	}
	const off = measure.Millimetre / 2
	for _, l := range p.Slits {
		mid := sheet.Point{X: (l.A.X + l.B.X) / 2, Y: (l.A.Y + l.B.Y) / 2}
		by := sheet.Point{X: off}
		if l.A.Y == l.B.Y {
			by = sheet.Point{Y: off}
		}
		if OnPass(p, l) && bare(mid.Add(by)) && bare(sheet.Point{X: mid.X - by.X, Y: mid.Y - by.Y}) {
			out = append(out, l)
		}
	}
	return out
}

package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
)

// Slit is a slit as it is told: along which score, or from where to where.
type Slit struct {
	Edge string // the edge it begins at: left, top, right, bottom; "" where it begins at none
	Deep Length // how far it runs

	Score Length // how far its score is from an edge
	Of    string // which edge that is

	From   Length    // where it begins at no edge: how far along its score, from the left or the top
	Across *net.Line // where it runs along no score: from where to where
}

func slitOf(p *net.Piece, l net.Line) Slit {
	if !OnPass(p, l) {
		return Slit{Across: &l}
	}
	level := l.A.Y == l.B.Y
	at, size, near, far := l.A.X, p.Width, "left", "right"
	from, to, long, first, last := min(l.A.Y, l.B.Y), max(l.A.Y, l.B.Y), p.Height, "top", "bottom"
	if level {
		at, size, near, far = l.A.Y, p.Height, "top", "bottom"
		from, to, long, first, last = min(l.A.X, l.B.X), max(l.A.X, l.B.X), p.Width, "left", "right"
	}
	s := Slit{Score: at, Of: near, Deep: to - from}
	if 2*at > size {
		s.Score, s.Of = size-at, far
	}
	switch {
	case from == 0:
		s.Edge = first
	case to == long:
		s.Edge = last
	default:
		s.From = from
	}
	return s
}

// line is where a slit that is told lies on a piece so large.
func (s Slit) line(w, h Length) net.Line {
	if s.Across != nil {
		return *s.Across
	}
	at := map[string]Length{"left": s.Score, "top": s.Score, "right": w - s.Score, "bottom": h - s.Score}[s.Of]
	upright := s.Of == "left" || s.Of == "right"
	from := map[string]Length{"left": 0, "top": 0, "right": w - s.Deep, "bottom": h - s.Deep, "": s.From}[s.Edge]
	if upright {
		return net.Line{Kind: net.Cut, A: net.Point{X: at, Y: from}, B: net.Point{X: at, Y: from + s.Deep}}
	}
	return net.Line{Kind: net.Cut, A: net.Point{X: from, Y: at}, B: net.Point{X: from + s.Deep, Y: at}}
}

// SlitsOf lists the slits of a piece as they are told.
func SlitsOf(p *net.Piece) (out []Slit) {
	for _, l := range p.Slits {
		out = append(out, slitOf(p, l))
	}
	return out
}

// slitPlaces tells where slits run: from which edges, along which scores, how deep.
func slitPlaces(slits []Slit, say func(Length) string) string {
	type alike struct {
		Score, Deep, From Length
		level, edge       bool
	}
	of := map[alike][]Slit{}
	var order []alike
	var free []string
	for _, s := range slits {
		if l := s.Across; l != nil {
			free = append(free, fmt.Sprintf("from %s left, %s down to %s left, %s down", say(l.A.X), say(l.A.Y), say(l.B.X),
				say(l.B.Y)))
			continue
		}
		k := alike{s.Score, s.Deep, s.From, s.Of == "top" || s.Of == "bottom", s.Edge != ""}
		if of[k] == nil {
			order = append(order, k)
		}
		of[k] = append(of[k], s)
	}
	var out []string
	for _, k := range order {
		out = append(out, together(of[k], say)...)
	}
	return strings.Join(append(out, free...), "; ")
}

// together tells slits of one depth along scores of one distance: in one go where each of the
// scores has one from each of the edges, else each by itself.
func together(slits []Slit, say func(Length) string) (out []string) {
	var edges, of []string
	for _, s := range slits {
		if !slices.Contains(edges, s.Edge) {
			edges = append(edges, s.Edge)
		}
		if !slices.Contains(of, s.Of) {
			of = append(of, s.Of)
		}
	}
	if len(slits) != len(edges)*len(of) {
		for _, s := range slits {
			out = append(out, together([]Slit{s}, say)...)
		}
		return out
	}
	s := slits[0]
	score := fmt.Sprintf("along the score %s from %s", say(s.Score), theEdges(of))
	if s.Edge == "" {
		side := "top"
		if s.Of == "top" || s.Of == "bottom" {
			side = "left"
		}
		return []string{fmt.Sprintf("%s, from %s to %s, counted from the %s edge", score, say(s.From), say(s.From+s.Deep), side)}
	}
	return []string{fmt.Sprintf("in from %s, %s, %s deep", theEdges(edges), score, say(s.Deep))}
}

// theEdges names edges: the left edge, the left and right edges.
func theEdges(of []string) string {
	slices.SortFunc(of, func(a, b string) int { return slices.Index(around, a) - slices.Index(around, b) })
	if len(of) == 1 {
		return "the " + of[0] + " edge"
	}
	return "the " + strings.Join(of, " and ") + " edges"
}

// OnPass reports whether a line runs along a score.
func OnPass(p *net.Piece, s net.Line) bool {
	return slices.ContainsFunc(p.Passes, func(q net.Pass) bool {
		return q.AlongWidth && s.A.X == q.At && s.B.X == q.At || !q.AlongWidth && s.A.Y == q.At && s.B.Y == q.At
	})
}

// seenSlits are the slits along scores that part faces which both are seen: a score there
// would leave a ridge. Beside a tab it is hidden, and most score right through.
func seenSlits(p *net.Piece) (out []Slit) {
	bare := func(at net.Point) bool { // it lies on a wall or panel that stays
		return slices.ContainsFunc(p.Kept(), func(f *net.Face) bool {
			return p.RoleOf(f.Name) == "" && net.Inside(f.Points, at)
		})
	}
	const off = measure.Millimetre / 2
	for _, l := range p.Slits {
		mid := net.Point{X: (l.A.X + l.B.X) / 2, Y: (l.A.Y + l.B.Y) / 2}
		by := net.Point{X: off}
		if l.A.Y == l.B.Y {
			by = net.Point{Y: off}
		}
		if OnPass(p, l) && bare(mid.Add(by)) && bare(net.Point{X: mid.X - by.X, Y: mid.Y - by.Y}) {
			out = append(out, slitOf(p, l))
		}
	}
	return out
}

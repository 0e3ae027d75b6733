package net

// Outline gives the lines as they end up on the card that stays: creases
// once, slits once, every edge beside nothing or beside card cut away, and holes.
func (p *Piece) Outline() []Line {
	var out []Line
	done := map[[2]Point]bool{}
	for _, f := range p.Kept() {
		for _, e := range f.Edges {
			if done[[2]Point{e.B, e.A}] {
				continue
			}
			done[[2]Point{e.A, e.B}] = true
			l := e.Line
			if e.Beyond == nil || e.Beyond.Waste {
				if l.Kind != Hole {
					l.Kind = Cut
				}
			}
			out = append(out, l)
		}
	}
	for _, f := range p.Faces {
		for _, e := range f.Edges {
			if f.Waste && e.Kind == Hole {
				out = append(out, e.Line)
			}
		}
	}
	return joinUp(out)
}

// joinUp makes one line of those that run on from each other alike.
func joinUp(lines []Line) []Line {
	for i := 0; i < len(lines); i++ {
		if lines[i].Kind == Hole {
			continue // what is punched is never joined, and may be much
		}
		for k := i + 1; k < len(lines); k++ {
			if l, ok := runOn(lines[i], lines[k]); ok {
				lines[i] = l
				lines = append(lines[:k], lines[k+1:]...)
				k = i
			}
		}
	}
	return lines
}

func runOn(a, b Line) (Line, bool) {
	if a.Kind != b.Kind || a.Fold != b.Fold || a.Turn != b.Turn || a.Via != b.Via || a.Name != b.Name || a.Kind == Hole {
		return a, false
	}
	if a.A == b.A || a.A == b.B {
		a.A, a.B = a.B, a.A
	}
	if a.B == b.B {
		b.A, b.B = b.B, b.A
	}
	whole := a
	whole.B = b.B
	return whole, a.B == b.A && whole.A != whole.B && onLine(whole, a.B)
}

// Within reports whether a line is a part of another.
func (l Line) Within(of Line) bool {
	on := func(at Point) bool { return at == of.A || at == of.B || onLine(of, at) }
	return on(l.A) && on(l.B)
}

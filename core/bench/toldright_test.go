package bench_test

import (
	"fmt"
	"slices"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// toldPlans are plans over all styles, of three sizes each, in marks of several kinds.
func toldPlans(t *testing.T) (out []*plan.Plan) {
	t.Helper()
	for i, s := range style.Styles {
		if s.ID == "score-list" {
			continue
		}
		for n, size := range [][3]int{{70, 70, 34}, {96, 60, 46}, {124, 84, 62}} {
			l, w, d := size[0], size[1], size[2]
			if s.ID == "arched-box" {
				d = max(d, l)
			}
			b := tried.Metric(s.ID, l, w, d, "card.join", "yes", "tools.step", []string{"1 mm", "1/16 in", "1/32 in"}[(i+n)%3])
			if p := advice.Make(b, request.Default); p.Holds() {
				out = append(out, p)
			}
		}
	}
	if len(out) < 40 {
		t.Fatalf("only %d plans hold", len(out))
	}
	return out
}

// spoilt is something that is told wrong.
type spoilt struct {
	what string
	card bench.ScoreCard
	cuts []bench.Cuts
}

// spoil gives a piece's card and cuts with one thing each moved by a step, dropped or turned
// round: whatever of it touches card that stays.
func spoil(p *plan.Plan, piece *net.Piece, card bench.ScoreCard, scored bool) (out []spoilt) {
	step := p.Step.Size
	cuts := bench.CutsOf(piece)
	with := func(what string, change func(c *bench.ScoreCard)) {
		c := card
		c.Turns, c.Slants = slices.Clone(c.Turns), slices.Clone(c.Slants)
		for i := range c.Turns {
			c.Turns[i].At = slices.Clone(c.Turns[i].At)
		}
		change(&c)
		out = append(out, spoilt{what, c, cuts})
	}
	for i, turn := range card.Turns {
		for k, m := range turn.At {
			name := fmt.Sprintf("the score %s from the %s edge", p.Say(m.At), turn.Edge)
			if !folds(piece, turn.Lines[k]) {
				continue // nothing that stays is folded there
			}
			for _, by := range []measure.Length{step, -step} {
				with(name+" moved", func(c *bench.ScoreCard) { at := &c.Turns[i].At[k]; at.At, at.Groove = at.At+by, at.Groove+by })
				with(name+" set otherwise", func(c *bench.ScoreCard) { c.Turns[i].At[k].Groove += by; c.Turns[i].At[k].Ruler = false })
			}
			with(name+" dropped", func(c *bench.ScoreCard) { c.Turns[i].At = slices.Delete(c.Turns[i].At, k, k+1) })
			with(name+" reversed", func(c *bench.ScoreCard) { c.Turns[i].At[k].Mountain = !m.Mountain })
			if m.To > 0 && folds(piece, ends(turn.Lines[k], step)) {
				with(name+" shorter", func(c *bench.ScoreCard) { at := &c.Turns[i].At[k]; at.From, at.To = at.From+step, at.To-step })
			}
		}
		if n := (i + 1) % len(card.Turns); n != i && !sameLines(card, i, n) {
			with("the scores of two edges exchanged", func(c *bench.ScoreCard) {
				c.Turns[i].Edge, c.Turns[(i+1)%len(c.Turns)].Edge = c.Turns[(i+1)%len(c.Turns)].Edge, c.Turns[i].Edge
			})
		}
	}
	for i := range card.Slants {
		with("a slanted line moved", func(c *bench.ScoreCard) { c.Slants[i].A.X += step })
		with("a slanted line dropped", func(c *bench.ScoreCard) { c.Slants = slices.Delete(c.Slants, i, i+1) })
		if card.Slants[i].Kind == net.Score {
			with("a slanted line reversed", func(c *bench.ScoreCard) { c.Slants[i].Fold = 1 - c.Slants[i].Fold })
		}
	}
	if scored {
		with("the piece cut a step larger", func(c *bench.ScoreCard) { c.W += step })
		with("the piece cut a step smaller", func(c *bench.ScoreCard) { c.H -= step })
	}
	for i, c := range cuts {
		for k, l := range c.Slits {
			if !parts(piece, l) {
				continue // what goes is cut away with its rim
			}
			less := slices.Clone(cuts)
			less[i].Slits = slices.Delete(slices.Clone(c.Slits), k, k+1)
			out = append(out, spoilt{"a slit dropped", card, less})
			for _, by := range []measure.Length{step, -step} {
				moved := slices.Clone(cuts)
				moved[i].Slits = slices.Clone(c.Slits)
				moved[i].Slits[k].B = net.Point{X: l.B.X + by, Y: l.B.Y + by}
				out = append(out, spoilt{"a slit moved at its end", card, moved})
			}
		}
		for k := range c.Away {
			less := slices.Clone(cuts)
			less[i].Away = slices.Delete(slices.Clone(c.Away), k, k+1)
			out = append(out, spoilt{"what is cut away dropped", card, less})
		}
	}
	return out
}

// sameLines reports whether two edges of a card, exchanged, would be scored in the same places.
func sameLines(c bench.ScoreCard, i, n int) bool {
	lines := func(edges ...string) (out []string) {
		for k, turn := range []bench.Turn{c.Turns[i], c.Turns[n]} {
			size := c.W
			if edges[k] == "top" || edges[k] == "bottom" {
				size = c.H
			}
			for _, m := range turn.At {
				at := m
				if edges[k] == "right" || edges[k] == "bottom" {
					at.At = size - m.At
				}
				upright := edges[k] == "left" || edges[k] == "right"
				out = append(out, fmt.Sprint(upright, at.At, at.From, at.To, at.Mountain))
			}
		}
		slices.Sort(out)
		return out
	}
	a, b := c.Turns[i].Edge, c.Turns[n].Edge
	return slices.Equal(lines(a, b), lines(b, a))
}

// ends is a pass without a step at either end.
func ends(s net.Pass, step measure.Length) net.Pass {
	s.To = s.From + step
	return s
}

// folds reports whether card that stays is folded along a pass.
func folds(p *net.Piece, s net.Pass) bool {
	return slices.ContainsFunc(p.Outline(), func(l net.Line) bool {
		if l.Kind != net.Score {
			return false
		}
		at, lo, hi := l.A.X, min(l.A.Y, l.B.Y), max(l.A.Y, l.B.Y)
		if !s.AlongWidth {
			at, lo, hi = l.A.Y, min(l.A.X, l.B.X), max(l.A.X, l.B.X)
		}
		upright := l.A.X == l.B.X
		return upright == s.AlongWidth && at == s.At && lo < s.To && hi > s.From
	})
}

// parts reports whether a slit parts card that stays on both sides.
func parts(p *net.Piece, s net.Line) bool {
	for _, f := range p.Kept() {
		for _, e := range f.Edges {
			if e.Kind == net.Cut && e.Beyond != nil && !e.Beyond.Waste && (e.Line.Within(s) || s.Within(e.Line)) {
				return true
			}
		}
	}
	return false
}

// Of everything that a score card, its words and its lit cuts tell of 40 plans over all styles,
// moved by a step, dropped or turned round, the proof notices all that harms: what touches card
// that stays. What harms nothing is a score that folds nothing and a slit within what goes.
func TestToldWrongIsNoticed(t *testing.T) {
	tried, missed := 0, map[string]int{}
	for _, p := range toldPlans(t) {
		for _, piece := range p.Box.Pieces() {
			i := slices.IndexFunc(p.Guide.Cards, func(c bench.ScoreCard) bool { return c.Piece == piece.Name })
			card := bench.ScoreCard{Piece: piece.Name, W: piece.Width, H: piece.Height}
			if i >= 0 {
				card = p.Guide.Cards[i]
			}
			for _, s := range spoil(p, piece, card, i >= 0) {
				tried++
				told := bench.ToldRight([]*net.Piece{piece}, []bench.ScoreCard{s.card}, func(*net.Piece) []bench.Cuts { return s.cuts }, p.Say)
				if told.Holds {
					missed[fmt.Sprintf("%s, %s: %s", p.Style.ID, piece.Name, s.what)]++
				}
			}
		}
		openingsToldWrong(p, t, &tried)
	}
	for what, n := range missed {
		t.Errorf("not noticed %d times: %s", n, what)
	}
	if tried < 4000 {
		t.Errorf("only %d were tried", tried)
	}
	t.Logf("%d tried, %d not noticed", tried, len(missed))
}

// openingsToldWrong moves, enlarges and drops what a piece is told of its holes, slots and windows.
func openingsToldWrong(p *plan.Plan, t *testing.T, tried *int) {
	step := p.Step.Size
	for _, piece := range p.Box.Pieces() {
		was := *piece
		try := func(what string, change func()) {
			*tried++
			piece.Punches, piece.Slots, piece.Windows = slices.Clone(was.Punches), slices.Clone(was.Slots), slices.Clone(was.Windows)
			change()
			if told := bench.ToldRight([]*net.Piece{piece}, p.Guide.Cards, bench.CutsOf, p.Say); told.Holds {
				t.Errorf("%s, %s: %s is not noticed", p.Style.ID, piece.Name, what)
			}
		}
		for i := range was.Punches {
			try("a hole moved", func() { piece.Punches[i].Mid.X += step })
			try("a hole larger", func() { piece.Punches[i].Diameter += 2 * step })
			try("a hole dropped", func() { piece.Punches = slices.Delete(piece.Punches, i, i+1) })
		}
		for i := range was.Slots {
			try("a slot moved", func() { piece.Slots[i].X += step })
			try("a slot deeper", func() { piece.Slots[i].Depth += step })
		}
		for i := range was.Windows {
			try("a window moved", func() { piece.Windows[i].Lo.X += step })
			try("a window dropped", func() { piece.Windows = slices.Delete(piece.Windows, i, i+1) })
		}
		piece.Punches, piece.Slots, piece.Windows = was.Punches, was.Slots, was.Windows
	}
}

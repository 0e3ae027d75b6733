// Package bench is what a maker does with the plan: the score card of each
// piece and the steps, all read off the recipe that the box is built from.
package bench

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/words"
)

type Length = measure.Length

// ScoreCard tells how one piece is cut to size and scored.
type ScoreCard struct {
	Piece  string
	Count  int
	W, H   Length
	Says   []string // sentences, in order
	Turns  []Turn
	Slants []Slant
	Bends  []Bend
	Handed int    // how many are mirror images
	Joint  *Joint // of a piece that is made of two halves
	Spare  Length // how much longer a piece is cut that is formed on the box, and not scored before
	Along  bool   // along its width, else along its height
	Ruler  bool   // scored along a ruler: every length is measured from the left or from the top
	Slit   string // where scores run on as slits between faces that stay, in words
}

// Joint is how a piece larger than its sheet is made: of two halves, width by height, edge to edge,
// with a strip stuck behind them. At is how far from an edge they meet.
type Joint struct {
	First, Second, Strip [2]Length
	At                   Length
	Edge                 string // left or top
}

// cuts tells what is cut for so many of the piece.
func (j Joint) cuts(count int, say func(Length) string) string {
	size := func(of [2]Length) string { return say(of[0]) + " × " + say(of[1]) }
	halves := fmt.Sprintf("two halves, %s and %s", size(j.First), size(j.Second))
	if j.First == j.Second {
		halves = fmt.Sprintf("two halves %s each", size(j.First))
	}
	each := ""
	if count > 1 {
		each = fmt.Sprintf(" for each of %d", count)
	}
	return fmt.Sprintf("Cut %s, and a joint strip %s%s.", halves, size(j.Strip), each)
}

// joins tells how the halves come together.
func (j Joint) joins(say func(Length) string) string {
	return fmt.Sprintf("Lay the halves edge to edge, inside up. They meet %s from the %s edge. Stick the joint strip over the joint, "+
		"half on either side, before you score.", say(j.At), j.Edge)
}

// Bend is a face that is bent round evenly, by hand: how long it is, and the radius that comes of it.
type Bend struct {
	Face         string
	Long, Radius Length
	Link         string
}

// Turn is the piece laid on the scoring board with one edge against the
// fence: At lists the distances from that edge.
type Turn struct {
	Edge  string // left, top, right or bottom, as the piece is drawn
	At    []Mark
	Lines []net.Pass // the passes, in the same order
}

// Mark is one score: the groove to use, and the spacer that holds the piece
// off the fence when no groove lies at the distance itself.
type Mark struct {
	At, Groove, Spacer Length
	Ruler              bool // no groove lies there: it is marked
	Mountain           bool
	From, To           Length // along the fence; the whole edge when To is 0
}

// the order in which a piece is turned on the board, a quarter turn each time
var around = []string{"left", "top", "right", "bottom"}

// turns gives the order in which the edges come to the fence: round, or one way first.
func turns(p *net.Piece, first string) []string {
	across, down := []string{"left", "right", "top", "bottom"}, []string{"top", "bottom", "left", "right"}
	switch {
	case first != "short" && first != "long":
		return around
	case (first == "short") == (p.Height <= p.Width): // lines down the piece are the short ones
		return across
	}
	return down
}

// ScoreCardOf reads the score card off a piece. First says which way is scored first: "" as drawn, short or long.
func ScoreCardOf(p *net.Piece, say func(Length) string, step Length, tools shop.Tools, first string) ScoreCard {
	c := ScoreCard{Ruler: tools.Ruler, Piece: p.Name, Count: p.Count, W: p.Width, H: p.Height, Handed: p.Handed}
	for _, curve := range p.Curves {
		if f := p.Face(curve.Face); f != nil {
			c.Bends = append(c.Bends, Bend{words.Plain(curve.Face), curve.Length(f), curve.Radius(f),
				p.Name + "-" + curve.Face})
		}
	}
	for _, edge := range turns(p, first) {
		if t := turn(p, edge, step, tools); len(t.At) > 0 {
			c.Turns = append(c.Turns, t)
		}
	}
	c.Slit = slitPlaces(seenSlits(p), say)
	for _, l := range p.Slanted {
		c.Slants = append(c.Slants, Slant{l, p.Name + "-" + l.Name})
	}
	c.Says = c.Sentences(say)
	return c
}

// Slant is a line that no edge of the board helps with.
type Slant struct {
	net.Line
	Link string // the mark that ties it to its numbers
}

// turn gathers the scores that lie nearest to an edge. Scoring each from its near edge leaves an odd size in the
// middle, where it needs no mark. A score that a groove sets only from the far edge is scored from there.
func turn(p *net.Piece, edge string, step Length, tools shop.Tools) Turn {
	alongWidth := edge == "left" || edge == "right"
	size, across := p.Height, p.Width
	if alongWidth {
		size, across = p.Width, p.Height
	}
	far := edge == "right" || edge == "bottom"
	t := Turn{Edge: edge}
	for _, pass := range p.Passes {
		if pass.AlongWidth != alongWidth || fromFar(pass.At, size, step, tools) != far {
			continue
		}
		at := pass.At
		if far {
			at = size - at
		}
		m := mark(at, step, tools)
		m.Mountain = pass.Fold == net.Mountain
		if pass.From > 0 || pass.To < across {
			m.From, m.To = pass.From, pass.To
		}
		t.At, t.Lines = append(t.At, m), append(t.Lines, pass)
	}
	order := make([]int, len(t.At))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(t.At[a].At, t.At[b].At) })
	sorted := Turn{Edge: edge}
	for _, i := range order {
		sorted.At, sorted.Lines = append(sorted.At, t.At[i]), append(sorted.Lines, t.Lines[i])
	}
	return sorted
}

// fromFar reports whether a score is made from the far edge of a piece so long: the
// nearer one, unless a groove lies at the distance from the other only.
func fromFar(at, size, step Length, tools shop.Tools) bool {
	if tools.Ruler {
		return false
	}
	near, far := tools.Direct(at, step), tools.Direct(size-at, step)
	if len(tools.Grooves) > 0 && near != far {
		return far
	}
	return 2*at > size
}

// mark finds the groove for a distance.
func mark(at, step Length, tools shop.Tools) Mark {
	h := tools.Set(at, step)
	return Mark{At: at, Groove: h.At, Spacer: h.Spacer, Ruler: h.Ruler}
}

// Odd reports whether no groove sets the score directly.
func (m Mark) Odd() bool { return m.Spacer > 0 || m.Ruler }

// How tells the way round a score that no groove sets; "" for one that is set.
func (m Mark) How(say func(Length) string) string {
	switch {
	case m.Ruler:
		return "there is no groove here: mark both ends with a ruler and score along a straight edge"
	case m.Spacer > 0:
		return fmt.Sprintf("the %s groove, with %s against the fence", say(m.Groove), spacerOf(m.Spacer, say))
	}
	return ""
}

// spacerOf tells a strip against the fence. One thinner than any mark is told as card is.
func spacerOf(l Length, say func(Length) string) string {
	s := say(l)
	if unit, thin := strings.CutPrefix(s, "about 0 "); thin {
		return fmt.Sprintf("card %s thick", l.Fine(measure.Unit(strings.Fields(unit)[0])))
	}
	return "a spacer of " + s
}

// Odd counts the scores of a card that no groove sets.
func (c ScoreCard) Odd() (n int) {
	for _, t := range c.Turns {
		for _, m := range t.At {
			if m.Odd() {
				n++
			}
		}
	}
	return n * c.Count
}

func (m Mark) say(say func(Length) string) string {
	s := say(m.At)
	if how := m.How(say); how != "" {
		s = fmt.Sprintf("%s (%s)", s, how)
	}
	if m.To > 0 {
		s += fmt.Sprintf(", only from %s to %s", say(m.From), say(m.To))
	}
	if m.Mountain {
		s += ", as a mountain fold"
	}
	return s
}

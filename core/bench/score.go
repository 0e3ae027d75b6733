// Package bench is what a maker does with the plan: the score card of each
// piece and the steps, all read off the recipe that the box is built from.
package bench

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/sheet"
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
	return fmt.Sprintf("Lay the halves edge to edge, inside face up; they meet %s from the %s edge. Stick the joint strip over the joint, "+
		"half on either side, before you score.", say(j.At), j.Edge)
}

// Bend is a face that is bent round evenly, by hand: how long it is, how far it
// turns in all, and the radius that comes of it.
type Bend struct {
	Face         string
	Long, Radius Length
	Degrees      float64
	Link         string
}

// Turn is the piece laid on the scoring board with one edge against the
// fence: At lists the distances from that edge.
type Turn struct {
	Edge  string // left, top, right or bottom, as the piece is drawn
	At    []Mark
	Lines []sheet.Pass // the passes, in the same order
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
func turns(p *sheet.Piece, first string) []string {
	across, down := []string{"left", "right", "top", "bottom"}, []string{"top", "bottom", "left", "right"}
	switch {
	case first != "short" && first != "long":
		return around
	case (first == "short") == (p.Height <= p.Width): // lines down the piece are the short ones
		return across
	}
	return down
}

// Card reads the score card off a piece.
// First says which way is scored first: "" as drawn, short or long.
func Card(p *sheet.Piece, say func(Length) string, step Length, tools shop.Tools, first string) ScoreCard {
	c := ScoreCard{Ruler: tools.Ruler, Piece: p.Name, Count: p.Count, W: p.Width, H: p.Height, Handed: p.Handed}
	for _, curve := range p.Curves {
		if f := p.Face(curve.Face); f != nil {
			c.Bends = append(c.Bends, Bend{words.Plain(curve.Face), curve.Length(f), curve.Radius(f), curve.Turn,
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
	sheet.Line
	Link string // the mark that ties it to its numbers
}

// turn gathers the scores nearest to an edge: scoring each from its near edge
// lets an odd size sit in the middle, where it needs no mark. One that no groove
// sets from there, and one does from the far edge, is scored from that.
func turn(p *sheet.Piece, edge string, step Length, tools shop.Tools) Turn {
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
		m.Mountain = pass.Fold == sheet.Mountain
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

// fromFar says whether a score is made from the far edge of a piece so long: the
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

// Odd says whether no groove sets the score directly.
func (m Mark) Odd() bool { return m.Spacer > 0 || m.Ruler }

// How tells the way round a score that no groove sets; "" for one that is set.
func (m Mark) How(say func(Length) string) string {
	switch {
	case m.Ruler:
		return "no groove lies there: mark it with the ruler at both ends and score along a straight edge"
	case m.Spacer > 0:
		return fmt.Sprintf("the %s groove, with %s against the fence", say(m.Groove), spacerOf(m.Spacer, say))
	}
	return ""
}

// spacerOf tells a strip against the fence. One thinner than the unit tells is told in millimetres,
// as card is.
func spacerOf(l Length, say func(Length) string) string {
	s := say(l)
	if strings.HasPrefix(s, "about 0 ") {
		return fmt.Sprintf("card %.2f mm thick", l.MM())
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

// Sentences tells the card in words.
func (c ScoreCard) Sentences(say func(Length) string) (says []string) {
	cut := fmt.Sprintf("Cut %s × %s.", say(c.W), say(c.H))
	if c.Count > 1 {
		cut = fmt.Sprintf("Cut %d pieces %s × %s.", c.Count, say(c.W), say(c.H))
	}
	if c.Spare > 0 {
		w, h := c.blank()
		cut = fmt.Sprintf("Cut %s × %s: %s longer than it will be, for it is formed on the box. Don't score it before; by measure its scores "+
			"would come so:", say(w), say(h), say(c.Spare))
		if c.Count > 1 {
			cut = fmt.Sprintf("%d pieces. ", c.Count) + cut
		}
	}
	if c.Joint != nil {
		cut = c.Joint.cuts(c.Count, say) + " " + c.Joint.joins(say)
	}
	out := []string{cut}
	if c.Slit != "" {
		defer func() {
			says = append(says, fmt.Sprintf("No score is wanted where a slit comes later (%s): stop short of it where its edge is "+
				"seen.", c.Slit))
		}()
	}
	if c.Handed > 0 {
		out = append(out, fmt.Sprintf("%d of them are mirror images: turn the card over before you score.", c.Handed))
	}
	defer func() { says = append(says, c.byHand(say)...) }()
	if c.Ruler {
		return append(out, c.byRuler(say)...)
	}
	if len(c.Turns) == 4 && c.alike(0, 1) && c.alike(0, 2) && c.alike(0, 3) {
		return append(out, fmt.Sprintf("Score %s from all four edges, turning the piece a quarter each time.",
			c.Turns[0].list(say)))
	}
	for i := 0; i < len(c.Turns); i++ {
		t := c.Turns[i]
		pair := slices.IndexFunc(c.Turns, func(o Turn) bool { return o.Edge == opposite(t.Edge) })
		switch {
		case pair > i && c.alike(i, pair):
			out = append(out, fmt.Sprintf("%s edge against the fence: score at %s. Turn half round and score the same from the %s "+
				"edge.", words.Capital(t.Edge), t.list(say), opposite(t.Edge)))
		case pair >= 0 && pair < i && c.alike(i, pair):
			// said with its pair
		default:
			out = append(out, fmt.Sprintf("Turn so that the %s edge is against the fence: score at %s.", t.Edge, t.list(say)))
		}
	}
	return out
}

// byRuler tells the scores of one who has no board: marks at both ends, measured from one edge, and
// the stylus along a ruler laid through them.
func (c ScoreCard) byRuler(say func(Length) string) (out []string) {
	for _, t := range c.Turns {
		ends := "at the top edge and at the bottom edge"
		if t.Edge == "top" || t.Edge == "bottom" {
			ends = "at the left edge and at the right edge"
		}
		out = append(out, fmt.Sprintf("Measure from the %s edge, %s: mark %s. Lay the ruler through each pair of marks and draw the stylus "+
			"along it, twice and lightly.", t.Edge, ends, t.list(say)))
	}
	return out
}

// lays tells the card lay by lay, as the piece comes to the board: each edge by itself,
// with how it is turned to get there.
func (c ScoreCard) lays(say func(Length) string) (out []Frame) {
	if c.Ruler {
		for _, says := range c.byRuler(say) {
			out = append(out, Frame{Says: says, Look: Scored, Piece: c.Piece, Uncut: true})
		}
		c.Turns = nil
	}
	for i, t := range c.Turns {
		does := fmt.Sprintf("%s edge to the fence: score %s.", words.Capital(t.Edge), t.list(say))
		switch {
		case i == 0:
		case c.alike(0, i) && len(c.Turns) == 4:
			does = fmt.Sprintf("Turn a quarter, %s edge to the fence: %s again.", t.Edge, t.list(say))
		default:
			turn := "a quarter"
			if t.Edge == opposite(c.Turns[i-1].Edge) {
				turn = "half round"
			}
			does = fmt.Sprintf("Turn %s, %s edge to the fence: score %s.", turn, t.Edge, t.list(say))
		}
		out = append(out, Frame{Says: does, Look: OnBoard, Piece: c.Piece, N: i})
	}
	if says := c.byHand(say); len(says) > 0 {
		out = append(out, Frame{Says: strings.Join(says, " "), Look: Scored, Piece: c.Piece, Uncut: true})
	}
	if len(out) == 0 {
		out = []Frame{{Says: c.Says[0], Look: Scored, Piece: c.Piece, Uncut: true}}
	}
	return out
}

// blank is the size that is cut: longer by the spare end of what is formed on the box.
func (c ScoreCard) blank() (w, h Length) {
	if c.Along {
		return c.W + c.Spare, c.H
	}
	return c.W, c.H + c.Spare
}

// byHand tells what no edge of the board helps with: slanted scores and bends.
func (c ScoreCard) byHand(say func(Length) string) (says []string) {
	bends := false
	for _, s := range c.Slants {
		if s.Kind == sheet.Score {
			says = append(says, fmt.Sprintf("Score on the slant from %s left, %s down to %s left, %s down.",
				say(s.A.X), say(s.A.Y), say(s.B.X), say(s.B.Y)))
		}
		bends = bends || s.Kind == sheet.Bend
	}
	for _, b := range c.Bends {
		says = append(says, fmt.Sprintf("Bend the %s round evenly, %s long, over something %s in radius; don't score it.",
			b.Face, say(b.Long), say(b.Radius)))
	}
	if bends {
		says = append(says, "Don't score the lines drawn as bends: the card is only bent there, by hand.")
	}
	return says
}

func (t Turn) list(say func(Length) string) string {
	var parts []string
	whole := true
	for i, m := range t.At {
		if i > 0 && m.To > 0 && t.At[i-1].To > 0 && m.At == t.At[i-1].At && m.Mountain == t.At[i-1].Mountain { // in two parts
			parts[len(parts)-1] += fmt.Sprintf(" and from %s to %s", say(m.From), say(m.To))
			continue
		}
		whole = whole && m.To == 0
		parts = append(parts, m.say(say))
	}
	if whole {
		return words.List(parts)
	}
	along := map[bool]string{true: "top", false: "left"}[t.Edge == "left" || t.Edge == "right"]
	return strings.Join(parts, "; ") + fmt.Sprintf(" (ends counted from the %s edge)", along)
}

// hasTop says whether opposite edges are scored otherwise, so that it matters which is which.
func (c ScoreCard) hasTop() bool {
	at := map[string][]Mark{}
	for _, t := range c.Turns {
		at[t.Edge] = t.At
	}
	for _, t := range c.Turns { // ends that are counted from one edge alone
		across := c.H
		if t.Edge == "top" || t.Edge == "bottom" {
			across = c.W
		}
		for _, m := range t.At {
			even := func(o Mark) bool {
				return o.At == m.At && o.From == across-m.To && o.To == across-m.From && o.Mountain == m.Mountain
			}
			if m.To > 0 && !slices.ContainsFunc(t.At, even) {
				return true
			}
		}
	}
	return !slices.Equal(at["top"], at["bottom"]) || !slices.Equal(at["left"], at["right"])
}

func (c ScoreCard) alike(i, k int) bool { return slices.Equal(c.Turns[i].At, c.Turns[k].At) }

func opposite(edge string) string {
	return map[string]string{"left": "right", "right": "left", "top": "bottom", "bottom": "top"}[edge]
}

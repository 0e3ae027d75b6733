package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/net"
	"brevium/core/words"
)

// A score card in words: whole, and lay by lay.

// Sentences tells the card in words.
func (c ScoreCard) Sentences(say func(Length) string) (says []string) {
	cut := fmt.Sprintf("Cut %s × %s.", say(c.W), say(c.H))
	if c.Count > 1 {
		cut = fmt.Sprintf("Cut %d pieces %s × %s.", c.Count, say(c.W), say(c.H))
	}
	if c.Spare > 0 {
		w, h := c.blank()
		cut = fmt.Sprintf("Cut %s × %s. That is %s too long on purpose: you form it on the box. Don't score it yet. "+
			"Its scores will be close to these:", say(w), say(h), say(c.Spare))
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
			says = append(says, fmt.Sprintf("Don't score where a slit comes later (%s). Stop short of it if its edge "+
				"shows.", c.Slit))
		}()
	}
	if c.Handed > 0 {
		out = append(out, fmt.Sprintf("%d of them are mirror images. Turn the card over before you score.", c.Handed))
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
		if s.Kind == net.Score {
			says = append(says, fmt.Sprintf("Score on the slant from %s left, %s down to %s left, %s down.",
				say(s.A.X), say(s.A.Y), say(s.B.X), say(s.B.Y)))
		}
		bends = bends || s.Kind == net.Bend
	}
	for _, b := range c.Bends {
		says = append(says, fmt.Sprintf("Bend the %s evenly, %s long, over something with a radius of %s. Don't score it.",
			b.Face, say(b.Long), say(b.Radius)))
	}
	if bends {
		says = append(says, "Don't score the lines drawn as bends. Bend the card there by hand.")
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

// hasTop reports whether opposite edges are scored otherwise, so that it matters which is which.
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

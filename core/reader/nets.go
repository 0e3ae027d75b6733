package reader

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/sheet"
	"brevium/core/style"
)

var ends, sides = []string{"back", "front"}, []string{"left", "right"}

// grid draws a typed piece by a picture of its cells, less the squares that
// are cut away, and gives the names of those.
func (p *typed) grid(picture string) (*sheet.Piece, map[string]bool) {
	gone := map[string]bool{}
	var out []string
	r := 0
	for line := range strings.SplitSeq(strings.TrimSpace(picture), "\n") {
		words, c := strings.Fields(line), 0
		if strings.Trim(line, "-~ \t") != "" {
			for i, w := range words {
				if w == "|" {
					continue
				}
				if p.Away[[2]int{c, r}] && w != "." {
					gone[w], words[i] = true, "."
				}
				c++
			}
			r++
		}
		out = append(out, strings.Join(words, " "))
	}
	return sheet.Grid(p.Name, p.Cols, p.Rows, strings.Join(out, "\n")), gone
}

// done takes out what a recipe says of squares that were cut away. Walls can't
// be.
func (l *list) done(p *typed, n *sheet.Piece, gone map[string]bool) *sheet.Piece {
	for _, wall := range []string{"panel", "left", "right", "back", "front", "seam", "bottom", "base", "lid", "top"} {
		if gone[wall] {
			l.Problem(p.Field+"away", fmt.Sprintf("One of the squares cut away is the %s of the %s: without it nothing holds "+
				"together.", wall, p.Name),
				"Count columns from the left and rows from the top; cut away corners and flaps only.")
		}
	}
	n.Forget(func(f string) bool { return gone[f] })
	return n
}

// warn says something of a piece.
func (l *list) warn(code, fix, text string, args ...any) {
	l.Warn(brief.Warning{Code: code, Text: fmt.Sprintf(text, args...), Fix: fix})
}

// shapes says that scores don't make what a piece is said to be.
func (l *list) shapes(p *typed, wants string) (*sheet.Piece, style.Dims, bool) {
	l.Problem(p.Field+"across", fmt.Sprintf("The %s has %d scores across and %d down; %s.", p.Name, len(p.Cols)-1,
		len(p.Rows)-1, wants),
		"Check the list, or say what else this piece is.", p.Field+"is", "")
	return nil, style.Dims{}, false
}

// uneven says when walls are not all of one height, and by whom the rim is
// made crooked.
func (l *list) uneven(name string, walls map[string]Length) {
	lo, hi := "", ""
	for _, name := range []string{"left", "right", "back", "front"} {
		if _, ok := walls[name]; !ok {
			continue
		}
		if lo == "" || walls[name] < walls[lo] {
			lo = name
		}
		if hi == "" || walls[name] > walls[hi] {
			hi = name
		}
	}
	if walls[lo] != walls[hi] {
		l.warn("uneven-walls", "Check the scores, if the rim was meant to be level.",
			"The walls of the %s are not of one height: the %s is %s and the %s %s.", name, lo, l.Say(walls[lo]), hi,
			l.Say(walls[hi]))
	}
}

// tab is how a corner square is cut to a tab on a wall so long, behind which
// two tabs must lie. What a maker trims unasked is trimmed, and said.
func (l *list) tab(p *typed, square, wall Length) sheet.TabShape {
	step, reach := l.Mark(), square
	switch p.Tabs {
	case "half":
		reach = square / 2
	case "narrow":
		reach = min(square, l.Wide())
	case "", "full":
		l.warnOnce("untrimmed", "Trim the ends of the tabs by a sliver, or they bind in the corners.",
			"The tabs of the %s are listed as whole squares.", p.Name)
	}
	if most := wall/2 - l.T(); reach > most && most > 0 {
		l.warnOnce("long-tabs", "Trim them so that they meet behind the wall and don't lap.",
			"Two tabs of %s are longer than the wall of the %s behind which both go.", l.Say(reach), p.Name)
		reach = most
	}
	return sheet.TabShape{Reach: reach, Mitre: min(step, square/6)}
}

func (l *list) warnOnce(code, fix, text string, args ...any) {
	said := fmt.Sprintf(text, args...)
	if !slices.ContainsFunc(l.Warnings, func(w brief.Warning) bool { return w.Code == code && w.Text == said }) {
		l.Warn(brief.Warning{Code: code, Text: said, Fix: fix})
	}
}

// openNet makes a tray of a typed piece: one wall round a panel (two scores
// each way), pinwheeled if that is said, or walls rolled over inwards (four).
func (l *list) openNet(p *typed) (*sheet.Piece, style.Dims, bool) {
	c, r := p.Cols, p.Rows
	switch {
	case len(c) == 3 && len(r) == 3 && p.Walls == "pinwheel":
		l.uneven(p.Name, map[string]Length{"left": c[0], "right": c[2], "back": r[0], "front": r[2]})
		return l.pinwheelNet(p), style.Dims{Length: c[1], Width: r[1], Depth: min(c[0], c[2], r[0], r[2])}, true
	case len(c) == 3 && len(r) == 3 && p.Walls != "rolled":
		l.uneven(p.Name, map[string]Length{"left": c[0], "right": c[2], "back": r[0], "front": r[2]})
		return l.plainNet(p), style.Dims{Length: c[1], Width: r[1], Depth: min(c[0], c[2], r[0], r[2])}, true
	case len(c) == 5 && len(r) == 5:
		l.uneven(p.Name, map[string]Length{"left": c[1], "right": c[3], "back": r[1], "front": r[3]})
		return l.rolledNet(p), style.Dims{Length: c[2], Width: r[2], Depth: min(c[1], c[3], r[1], r[3])}, true
	}
	return l.shapes(p, "a tray wants two each way, or four each way for rolled walls")
}

// corners slits the corner squares that stay to tabs on the sides.
func (l *list) corners(p *typed, n *sheet.Piece, gone map[string]bool, square, wall Length) {
	for _, end := range ends {
		for _, side := range sides {
			tab := end + "-" + side + "-tab"
			if n.Meet(end, side); !gone[tab] {
				n.Tab(tab, side, l.tab(p, square, wall))
				n.Glue(tab, end)
				n.Role("tab", tab)
			}
		}
	}
}

func (l *list) plainNet(p *typed) *sheet.Piece {
	n, gone := p.grid(`
		back-left-tab  | back  | back-right-tab
		left             panel   right
		front-left-tab | front | front-right-tab`)
	n.Root = "panel"
	l.corners(p, n, gone, min(p.Rows[0], p.Rows[2]), p.Cols[1])
	n.FoldUp("left", "right")
	n.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	n.FoldUp("back", "front")
	return l.done(p, n, gone)
}

func (l *list) pinwheelNet(p *typed) *sheet.Piece {
	t := l.T()
	n, gone := p.grid(`
		left-wrap  | back    back-wrap
		~            ~       -
		left         panel   right
		-            ~       ~
		front-wrap   front | right-wrap`)
	for _, w := range []struct {
		from, to   string
		deep, wall Length
	}{{"left", "back", p.Rows[0], p.Cols[1]}, {"back", "right", p.Cols[2], p.Rows[1]},
		{"right", "front", p.Rows[2], p.Cols[1]},
		{"front", "left", p.Cols[0], p.Rows[1]}} {
		if wrap := w.from + "-wrap"; !gone[wrap] {
			n.Corner(wrap, w.from, w.to, sheet.TabShape{Reach: min(w.deep-t, w.wall-3*t), Relief: t})
			n.Role("wrapped corner", wrap)
		}
	}
	n.Root = "panel"
	n.FoldUp("left", "right", "back", "front")
	n.FoldUp("left-wrap", "back-wrap", "right-wrap", "front-wrap")
	return l.done(p, n, gone)
}

// rolledNet is a tray of rolled walls: of each corner one square stays.
func (l *list) rolledNet(p *typed) *sheet.Piece {
	t := l.T()
	n, gone := p.grid(`
		.          .                back-roll   .                 .
		.          back-left-tab  | back      | back-right-tab    .
		left-roll  left             panel       right             right-roll
		.          front-left-tab | front     | front-right-tab   .
		.          .                front-roll  .                 .`)
	l.corners(p, n, gone, min(p.Rows[1], p.Rows[3]), p.Cols[2])
	for i, end := range ends {
		n.Tab(end+"-roll", end, sheet.TabShape{Reach: p.Rows[4*i], Relief: 2 * t})
		n.GlueOver(end+"-roll", end, 2)
		n.Turn(180, sheet.Valley, end, end+"-roll")
	}
	for k, side := range sides {
		n.Tab(side+"-roll", side, sheet.TabShape{Reach: p.Cols[4*k], Relief: 3 * t})
		n.Glue(side+"-roll", side)
		n.Turn(180, sheet.Valley, side, side+"-roll")
	}
	n.Role("rolled flap", "left-roll", "right-roll", "back-roll", "front-roll")
	n.Root = "panel"
	n.FoldUp("left", "right")
	n.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	n.FoldUp("back", "front")
	n.FoldUp("left-roll", "right-roll")
	n.FoldUp("back-roll", "front-roll")
	return l.done(p, n, gone)
}

// wrapperNet is a cover: back, bottom and front, bent up round what stands on it.
func (l *list) wrapperNet(p *typed) (*sheet.Piece, style.Dims, bool) {
	q := *p
	if len(q.Cols) == 3 && len(q.Rows) == 1 {
		q = q.turned()
	}
	if len(q.Cols) != 1 || len(q.Rows) < 2 || len(q.Rows) > 3 {
		return l.shapes(p, "a cover wants one or two scores one way")
	}
	n, gone := q.grid(strings.Join([]string{"back", "bottom", "front"}[:len(q.Rows)], "\n"))
	n.Root = "bottom"
	n.FoldUp("back")
	if len(q.Rows) == 3 {
		n.FoldUp("front")
	}
	return l.done(&q, n, gone), style.Dims{Length: q.Wide(), Width: q.Rows[1], Depth: q.Rows[0]}, true
}

// equal claims that opposite walls of a tube are equal.
func (l *list) equal(p *typed, walls []Length) {
	c := fold.Check{Name: p.Name + ": opposite walls are equal", Holds: walls[0] == walls[2] && walls[1] == walls[3],
		Figure: fmt.Sprintf("%s and %s, %s and %s", walls[0].Exact(l.Units), walls[2].Exact(l.Units), walls[1].Exact(l.Units),
			walls[3].Exact(l.Units))}
	if !c.Holds {
		c.Figure += ": it can't close square"
	}
	l.claims = append(l.claims, c)
}

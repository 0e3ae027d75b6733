package reader

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/nets"
	"brevium/core/style"
)

// sizes are those of a typed piece.
func (p *typed) sizes(t Length) nets.Sizes {
	return nets.Sizes{Name: p.Name, Cols: p.Cols, Rows: p.Rows, Away: p.Away, T: t}
}

// done takes out what a recipe says of squares that were cut away. Walls can't be.
func (l *list) done(p *typed, n nets.Net) *net.Piece {
	for _, wall := range []string{"panel", "left", "right", "back", "front", "seam", "bottom", "base", "lid", "top"} {
		if n.Gone[wall] {
			l.Problem(p.Field+"away", fmt.Sprintf("One of the squares cut away is the %s of the %s. Without it "+
				"nothing holds together.", wall, p.Name),
				"Count columns from the left and rows from the top; cut away corners and flaps only.")
		}
	}
	n.Forget(func(f string) bool { return n.Gone[f] })
	return n.Piece
}

// warn says something of a piece.
func (l *list) warn(code, fix, text string, args ...any) {
	l.Warn(brief.Warning{Code: code, Text: fmt.Sprintf(text, args...), Fix: fix})
}

// shapes says that scores don't make what a piece is said to be.
func (l *list) shapes(p *typed, wants string) (*net.Piece, style.Dims, bool) {
	l.Problem(p.Field+"across", fmt.Sprintf("The %s has %d scores across and %d down; %s.", p.Name, len(p.Cols)-1,
		len(p.Rows)-1, wants), "Check the list, or choose what else this piece is.", p.Field+"is", "")
	return nil, style.Dims{}, false
}

// uneven warns when walls differ in height, and names the lowest and the highest.
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
			"The walls of the %s have different heights: the %s is %s and the %s %s.", name, lo, l.Say(walls[lo]), hi,
			l.Say(walls[hi]))
	}
}

// tab is how a corner square is cut to a tab on a wall so long, behind which
// two tabs must lie. What a maker trims unasked is trimmed, and said.
func (l *list) tab(p *typed, square, wall Length) net.TabShape {
	step, reach := l.Mark(), square
	switch p.Tabs {
	case "half":
		reach = square / 2
	case "narrow":
		reach = min(square, l.Wide())
	case "", "full":
		l.warnOnce("untrimmed", "Trim a sliver off the ends of the tabs, or they jam in the corners.",
			"The tabs of the %s are listed as whole squares.", p.Name)
	}
	if most := wall/2 - l.T(); reach > most && most > 0 {
		l.warnOnce("long-tabs", "Trim them so that they meet behind the wall without overlapping.",
			"Two tabs of %s are longer than the wall of the %s they go behind.", l.Say(reach), p.Name)
		reach = most
	}
	return net.TabShape{Reach: reach, Mitre: min(step, square/6)}
}

// corner shapes the corner squares of a tray to tabs, when one is drawn.
func (l *list) corner(p *typed, square, wall Length) func() net.TabShape {
	return func() net.TabShape { return l.tab(p, square, wall) }
}

func (l *list) warnOnce(code, fix, text string, args ...any) {
	said := fmt.Sprintf(text, args...)
	if !slices.ContainsFunc(l.Warnings, func(w brief.Warning) bool { return w.Code == code && w.Text == said }) {
		l.Warn(brief.Warning{Code: code, Text: said, Fix: fix})
	}
}

// openNet makes a tray of a typed piece: one wall round a panel (two scores
// each way), pinwheeled if that is said, or walls rolled over inwards (four).
func (l *list) openNet(p *typed) (*net.Piece, style.Dims, bool) {
	c, r := p.Cols, p.Rows
	switch {
	case len(c) == 3 && len(r) == 3 && p.Walls == "pinwheel":
		l.uneven(p.Name, map[string]Length{"left": c[0], "right": c[2], "back": r[0], "front": r[2]})
		return l.done(p, p.sizes(l.T()).Pinwheel("panel")), style.Dims{Length: c[1], Width: r[1], Depth: min(c[0], c[2], r[0], r[2])}, true
	case len(c) == 3 && len(r) == 3 && p.Walls != "rolled":
		l.uneven(p.Name, map[string]Length{"left": c[0], "right": c[2], "back": r[0], "front": r[2]})
		n := p.sizes(l.T()).Single("panel", l.corner(p, min(r[0], r[2]), c[1]))
		return l.done(p, n), style.Dims{Length: c[1], Width: r[1], Depth: min(c[0], c[2], r[0], r[2])}, true
	case len(c) == 5 && len(r) == 5:
		l.uneven(p.Name, map[string]Length{"left": c[1], "right": c[3], "back": r[1], "front": r[3]})
		n := p.sizes(l.T()).Rolled("panel", l.corner(p, min(r[1], r[3]), c[2]))
		return l.done(p, n), style.Dims{Length: c[2], Width: r[2], Depth: min(c[1], c[3], r[1], r[3])}, true
	}
	return l.shapes(p, "a tray needs two each way, or four each way for rolled walls")
}

// wrapperNet is a cover: back, bottom and front, bent up round what stands on it.
func (l *list) wrapperNet(p *typed) (*net.Piece, style.Dims, bool) {
	q := *p
	if len(q.Cols) == 3 && len(q.Rows) == 1 {
		q = q.turned()
	}
	if len(q.Cols) != 1 || len(q.Rows) < 2 || len(q.Rows) > 3 {
		return l.shapes(p, "a cover needs one or two scores one way")
	}
	n := q.sizes(l.T()).Fill(strings.Join([]string{"back", "bottom", "front"}[:len(q.Rows)], "\n"))
	n.Root = "bottom"
	n.FoldUp("back")
	if len(q.Rows) == 3 {
		n.FoldUp("front")
	}
	return l.done(&q, n), style.Dims{Length: q.Wide(), Width: q.Rows[1], Depth: q.Rows[0]}, true
}

// equal claims that opposite walls of a tube are equal.
func (l *list) equal(p *typed, walls []Length) {
	c := fold.Check{Name: p.Name + ": opposite walls match", Holds: walls[0] == walls[2] && walls[1] == walls[3],
		Figure: fmt.Sprintf("%s and %s, %s and %s", walls[0].Exact(l.Units), walls[2].Exact(l.Units), walls[1].Exact(l.Units),
			walls[3].Exact(l.Units))}
	if !c.Holds {
		c.Figure += ": it can't close square"
	}
	l.claims = append(l.claims, c)
}

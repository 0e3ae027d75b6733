package workbench

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/web/desk"
)

// takeDeep keeps what a deep search found.
func takeDeep(_ context.Context, c *pressed) error {
	c.Doc.Sheets.Look = "deep"
	return nil
}

// holdPiece holds a piece where it lies, or so much further: "sheet:piece:how", and of
// one that was dragged how many millimetres right and down.
func holdPiece(_ context.Context, c *pressed) error {
	var n, i int
	var right, down float64
	how := ""
	got, _ := fmt.Sscanf(strings.ReplaceAll(c.Arg, ":", " "), "%d %d %s %f %f", &n, &i, &how, &right, &down)
	if got != 3 && got != 5 || max(math.Abs(right), math.Abs(down)) > 5000 {
		return desk.ErrNoAct
	}
	p := c.room.MakeIn(c.shop, *c.Seen, "").Plan
	if !p.OK() || n < 0 || n >= len(p.Layout.Sheets) || i < 0 || i >= len(p.Layout.Sheets[n].Placed) {
		c.Notice = "Someone moved that piece in another window. Look where it is now, then try again."
		return nil
	}
	sheet, it := p.Layout.Sheets[n], p.Layout.Sheets[n].Placed[i]
	pin := pinOf(it, p)
	pin.Sheet = brief.Whole(fmt.Sprint(sheetNumber(c.Doc.Sheets.Pins, p, n)))
	for _, cut := range p.Cuts {
		if cut.Card.ID == sheet.Stock && cut.Sheet.Title == sheet.Title && !cut.Offcut {
			pin.Size = brief.Text(cut.Sheet.ID)
		}
	}
	pins := slices.DeleteFunc(slices.Clone(c.Doc.Sheets.Pins), func(o brief.Pin) bool {
		return SamePlace(o, pin, p.Units) && o.Sheet == pin.Sheet
	})
	if how != "free" {
		it.Rect.X += measure.FromMM(right).Near(p.Step.Size)
		it.Rect.Y += measure.FromMM(down).Near(p.Step.Size)
		pins = append(pins, moved(pin, how, it.Rect, sheet, p))
		c.Focus = "held-piece"
	}
	c.Doc.Sheets.Pins = pins
	return nil
}

// pinOf holds a piece where it lies.
func pinOf(it layout.Placed, p *plan.Plan) brief.Pin {
	pin := brief.Pin{Piece: brief.Text(it.Piece), X: brief.Text(it.Rect.X.Exact(p.Units)), Y: brief.Text(it.Rect.Y.Exact(p.Units))}
	if it.Turned {
		pin.Turned = "yes"
	}
	return pin
}

// SamePlace reports whether two pins hold a piece in one place of their sheets, however that
// is written.
func SamePlace(a, b brief.Pin, u measure.Unit) bool {
	same := func(x, y brief.Text) bool {
		l, err := measure.Parse(string(x), u)
		m, wrong := measure.Parse(string(y), u)
		return err == nil && wrong == nil && l == m
	}
	return a.Piece == b.Piece && same(a.X, b.X) && same(a.Y, b.Y)
}

// sheetNumber is by which number pins call a sheet of a plan: by that of one which is on
// it; of a sheet that has none, by its place among those of its card, or the next number
// that no pin has.
func sheetNumber(pins []brief.Pin, p *plan.Plan, n int) int {
	sheet, nth := p.Layout.Sheets[n], 1
	for _, it := range sheet.Placed {
		own := pinOf(it, p)
		i := slices.IndexFunc(pins, func(o brief.Pin) bool { return SamePlace(o, own, p.Units) })
		if it.Pinned && i >= 0 {
			if number, err := strconv.Atoi(string(pins[i].Sheet)); err == nil {
				return number
			}
		}
	}
	for _, before := range p.Layout.Sheets[:n] {
		if before.Stock == sheet.Stock {
			nth++
		}
	}
	for slices.ContainsFunc(pins, func(o brief.Pin) bool { return string(o.Sheet) == strconv.Itoa(nth) }) {
		nth++
	}
	return nth
}

// moved is a pin so much further, within the sheet.
func moved(pin brief.Pin, how string, at layout.Rect, on layout.Sheet, p *plan.Plan) brief.Pin {
	step := p.Step.Size
	switch how {
	case "left":
		at.X -= step
	case "right":
		at.X += step
	case "up":
		at.Y -= step
	case "down":
		at.Y += step
	case "turn":
		at.W, at.H = at.H, at.W
		if pin.Turned == "yes" {
			pin.Turned = ""
		} else {
			pin.Turned = "yes"
		}
	}
	m := p.Cutting.Margin
	at.X, at.Y = max(m, min(at.X, on.W-m-at.W)), max(m, min(at.Y, on.H-m-at.H))
	pin.X, pin.Y = brief.Text(at.X.Exact(p.Units)), brief.Text(at.Y.Exact(p.Units))
	return pin
}

func unpinAll(_ context.Context, c *pressed) error {
	c.Doc.Sheets.Pins = nil
	return nil
}

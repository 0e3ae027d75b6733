package pen

import (
	"fmt"
	"hash/fnv"
	"net/url"
	"strings"

	"brevium/core/fold"
	"brevium/core/shop"
)

// tile is the side, in millimetres, of what a printed pattern repeats.
const tile = 24

// RepeatOf is how long the pattern of a card is, in millimetres.
func RepeatOf(card shop.Card) float64 {
	if card.Repeat > 0 {
		return card.Repeat.MM()
	}
	return tile
}

// DrawTile draws what the pattern of a card repeats, in eighths of a millimetre,
// upright as the sheet lies.
func DrawTile(c *Canvas, card shop.Card) {
	switch card.Pattern {
	case "stripes":
		for _, x := range []int{18, 114} {
			c.Tag("rect", "x", x, "y", "0", "width", 36, "height", 192, "fill", card.Ink)
		}
	case "dots":
		for _, at := range [][2]float64{{48, 48}, {144, 48}, {0, 144}, {96, 144}, {192, 144}} {
			c.Tag("circle", "cx", Px(at[0]), "cy", Px(at[1]), "r", 16.0, "fill", card.Ink)
		}
	case "checks":
		for _, at := range [][2]int{{0, 0}, {96, 96}} {
			c.Tag("rect", "x", at[0], "y", at[1], "width", 96, "height", 96, "fill", card.Ink, "fill-opacity", ".6")
		}
	case "sprigs":
		for _, at := range [][2]float64{{48, 92}, {144, 188}} {
			x, y := at[0], at[1]
			c.Tag("path", "d", fmt.Sprintf("M%s %sQ%s %s %s %s", Px(x), Px(y), Px(x-8), Px(y-40), Px(x+4),
				Px(y-76)), "fill", "none", "stroke", card.Ink, "stroke-width", 5.0, "stroke-linecap", "round")
			for _, leaf := range [][3]float64{{-14, -28, -40}, {14, -42, 40}, {-12, -56, -34}} {
				cx, cy := x+leaf[0], y+leaf[1]
				c.Tag("ellipse", "cx", cx, "cy", cy, "rx", 7.0, "ry", 15.0, "fill", card.Ink, "transform", Turn{leaf[2], cx, cy})
			}
		}
	}
}

// TileImage gives a tile on its card as an address that holds the picture
// itself; "" for plain card.
func TileImage(card shop.Card) string {
	if card.Pattern == "" {
		return ""
	}
	c, b := &Canvas{}, &strings.Builder{}
	c.Start("svg", "xmlns", "http://www.w3.org/2000/svg", "width", 192, "height", 192)
	c.Tag("rect", "width", 192, "height", 192, "fill", card.Colour)
	DrawTile(c, card)
	c.all.In[0].write(b)
	return "data:image/svg+xml," + url.PathEscape(b.String())
}

// Prints are the patterns of a picture: for each face a fill of its own, turned as the
// face stands. Names are the picture's own, because fills are found by name through the
// whole page.
type Prints struct {
	name string
	of   []*printing
}

// printing is the pattern of one card, and the faces it is on.
type printing struct {
	card   shop.Card
	name   string
	frames []fold.Frame
}

// NewPrints begins the fills of one picture; of names it, so that no other picture on the page has the same.
func NewPrints(of string) *Prints {
	sum := fnv.New32a()
	sum.Write([]byte(of))
	return &Prints{name: fmt.Sprintf("p%x", sum.Sum32())}
}

// On adds a face of a card and gives its fill, "" where nothing is printed.
func (p *Prints) On(card shop.Card, f fold.Frame) string {
	if p == nil || card.Pattern == "" {
		return ""
	}
	var own *printing
	for _, o := range p.of {
		if o.card.ID == card.ID {
			own = o
		}
	}
	if own == nil {
		own = &printing{card: card, name: p.name}
		if n := len(p.of); n > 0 {
			own.name = fmt.Sprintf("%s%c", p.name, 'a'+n%26)
		}
		p.of = append(p.of, own)
	}
	own.frames = append(own.frames, f)
	return fmt.Sprintf("url(#%s-%d)", own.name, len(own.frames))
}

// Define writes the fills; k, dx and dy place the picture.
func (p *Prints) Define(c *Canvas, right, up fold.Vec, k, dx, dy float64) {
	if p == nil || len(p.of) == 0 {
		return
	}
	c.Start("defs")
	defer c.End()
	for _, o := range p.of {
		c.Start("pattern", "id", o.name, "width", 192, "height", 192, "patternUnits", "userSpaceOnUse")
		DrawTile(c, o.card)
		c.End()
		eighth := RepeatOf(o.card) / 192
		for i, f := range o.frames {
			x, y := f.X.Times(k*eighth), f.Y.Times(k*eighth)
			c.Tag("pattern", "id", fmt.Sprintf("%s-%d", o.name, i+1), "href", "#"+o.name, "patternTransform",
				fmt.Sprintf("matrix(%.4f %.4f %.4f %.4f %s %s)", x.Dot(right), -x.Dot(up), y.Dot(right), -y.Dot(up),
					Px(f.At.Dot(right)*k+dx), Px(-f.At.Dot(up)*k+dy)))
		}
	}
}

// Begun is a frame from which a print begins so far right and down.
func Begun(f fold.Frame, x, y float64) fold.Frame {
	f.At = f.At.Sub(f.X.Times(x)).Sub(f.Y.Times(y))
	return f
}

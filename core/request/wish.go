package request

import (
	"slices"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/wish"
)

// readWish reads what goes on, in and round the box, and finds the cards it is cut from.
func (d *door) readWish() {
	d.Dressing = map[string]shop.Card{"ribbon": ribbon()}
	d.Wish = wish.Read(d.r, &d.Brief.Dress, wish.Shelf{
		Find: func(field, id string) (shop.Card, bool) {
			c, ok := d.stock(field, id)
			if ok {
				d.Dressing[c.ID] = c
			}
			return c, ok
		},
		Usual: func(part string) shop.Card {
			if c, ok := d.Stocks[part]; ok {
				return c
			}
			if part == "liner" || part == "band" || part == "strip" {
				return d.Card
			}
			return d.Layer
		},
	})
	s := style.Find(string(d.Brief.Box.Style))
	if d.Floor > 0 && s != nil && s.Tray && s.Rooms == nil {
		liner := d.Card
		if c, ok := d.Stocks["liner"]; ok {
			liner = c
		}
		d.Wish.Liners = append(d.Wish.Liners, wish.Liner{Entry: "floor", In: "floor", Less: measure.Inch / 8,
			Layers: d.Floor,
			Card:   liner, Quiet: true})
	}
	for _, l := range d.Wish.Liners {
		if l.In == "floor" && !l.Quiet {
			d.Floor += l.Layers
		}
	}
	if c, ok := d.Dressing[string(d.Brief.Dress.Scheme.Accent)]; ok { // ribbon goes with the scheme
		r := ribbon()
		r.Colour, r.Inside = c.Colour, c.Colour
		d.Dressing["ribbon"] = r
	}
	d.Skin, d.Deep = d.Wish.Skin()
}

// lined is what liners take of the room inside.
func (q *Request) lined() [3]measure.Length {
	floor, wall, cover := q.Wish.Lined()
	return [3]measure.Length{floor, wall, cover}
}

// ribbon is ribbon as it is drawn: it is no card.
func ribbon() shop.Card {
	return shop.Card{ID: "ribbon", Title: "ribbon", Caliper: measure.Millimetre / 5, Colour: "#9c3b32", Inside: "#9c3b32"}
}

// AllCards lists every card that anything is cut from, the box's own first.
func (q *Cards) AllCards() (out []shop.Card) {
	out = append(out, q.Card)
	for _, m := range []map[string]shop.Card{q.Stocks, q.Dressing} {
		for _, c := range brief.Sorted(m) {
			if !slices.ContainsFunc(out, func(o shop.Card) bool { return o.ID == c.ID }) {
				out = append(out, c)
			}
		}
	}
	return out
}

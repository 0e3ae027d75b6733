package request

import (
	"slices"

	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/style"
)

// readWish reads what goes on, in and round the box, and finds the cards it is cut from.
func (q *Request) readWish(b brief.Brief, r *brief.Reader, w Workshop) {
	q.Dressing = map[string]shop.Card{"ribbon": ribbon()}
	q.Wish = dress.Read(r, &b.Dress, dress.Shelf{
		Find: func(field, id string) (shop.Card, bool) {
			c, ok := q.stock(r, b, w, field, id)
			if ok {
				q.Dressing[c.ID] = c
			}
			return c, ok
		},
		Usual: func(part string) shop.Card {
			if c, ok := q.Stocks[part]; ok {
				return c
			}
			if part == "liner" || part == "band" || part == "strip" {
				return q.Card
			}
			return q.Layer
		},
	})
	s := style.Find(string(b.Box.Style))
	if q.Floor > 0 && s != nil && s.Tray && s.Rooms == nil {
		liner := q.Card
		if c, ok := q.Stocks["liner"]; ok {
			liner = c
		}
		q.Wish.Liners = append(q.Wish.Liners, dress.Liner{Entry: "floor", In: "floor", Less: measure.Inch / 8,
			Layers: q.Floor,
			Card:   liner, Quiet: true})
	}
	for _, l := range q.Wish.Liners {
		if l.In == "floor" && !l.Quiet {
			q.Floor += l.Layers
		}
	}
	if c, ok := q.Dressing[string(b.Dress.Scheme.Accent)]; ok { // ribbon goes with the scheme
		r := ribbon()
		r.Colour, r.Inside = c.Colour, c.Colour
		q.Dressing["ribbon"] = r
	}
	q.Skin, q.Deep = q.Wish.Skin()
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

package request

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/shop"
)

// Which card each part is cut from, and which sheets that comes in.

// stock finds a card by its name: the document's own, or the shop's. Of which it is
// told what is wrong with it.
func (q *Request) stock(r *brief.Reader, b brief.Brief, w Workshop, field, id string) (shop.Card, bool) {
	for _, own := range b.Card.Own {
		if own.ID == id {
			c, ok := shop.ReadStock(r, "card.own.@"+id+".", own)
			return c, ok
		}
	}
	if c, ok := w.Card(id); ok {
		q.use("card", c.Title, w.Writes[id]...)
		return c, true
	}
	first := ""
	if offered := w.Offered(); len(offered) > 0 {
		first = offered[0].ID
	}
	if why, bad := w.Troubled[id]; bad {
		r.Problem(field, "This card can't be used as it stands in the shop. "+why, "Mend it there, or choose another.",
			field, first)
	} else {
		r.Problem(field, fmt.Sprintf("There is no card called %q on the shelf.", id), "Choose one of the cards shown.",
			field, first)
	}
	return shop.Card{}, false
}

// Least is the sheet that stands for whichever needs least card.
const Least = "least"

// readCards reads which card each part is cut from, and which sheets these come in.
func (q *Request) readCards(b brief.Brief, r *brief.Reader, w Workshop) {
	var ok bool
	if q.Card, ok = q.stock(r, b, w, "card.stock", string(b.Card.Stock)); !ok {
		return
	}
	for part, id := range brief.Sorted(b.Card.Stocks) {
		if c, ok := q.stock(r, b, w, "card.stocks."+part, strings.TrimSpace(string(id))); ok {
			if q.Stocks == nil {
				q.Stocks = map[string]shop.Card{}
			}
			q.Stocks[part] = c
		}
	}
	comes := w.Comes(q.Card)
	if q.Least = string(b.Card.Sheet) == Least; q.Least {
		q.Sheet = largest(comes)
	} else if s, err := w.AnySheet(string(b.Card.Sheet), q.Units); err != nil {
		r.Problem("card.sheet", fmt.Sprintf("There is no sheet called %q on the shelf.", b.Card.Sheet),
			"Choose one of the sheets shown, or type its two sides, like “30 x 30 cm”.", "card.sheet", comes[0].ID)
	} else if q.Sheet = s; len(q.Card.Sheets) > 0 && !slices.ContainsFunc(comes, s.Same) {
		r.Problem("card.sheet", fmt.Sprintf("%s does not come in %s.", q.Card.Title, s.Title),
			"Choose one of the sheets it comes in.", "card.sheet", comes[0].ID)
	}
	q.Comes = w.Comes
	switch b.Card.Grain {
	case "", "any":
	case "keep":
		q.KeepGrain = true
	default:
		r.Problem("card.grain", fmt.Sprintf("Grain can't be %q.", b.Card.Grain), "Choose keep, or leave it open.",
			"card.grain", "")
	}
}

func largest(of []shop.Sheet) (out shop.Sheet) {
	for _, s := range of {
		if s.Area() > out.Area() {
			out = s
		}
	}
	return out
}

// CardOf gives the card a piece is cut from.
func (q *Cards) CardOf(stock string) shop.Card {
	if stock != "" && stock != q.Card.ID {
		if c, ok := q.Dressing[stock]; ok {
			return c
		}
		for _, c := range brief.Sorted(q.Stocks) {
			if c.ID == stock {
				return c
			}
		}
	}
	return q.Card
}

// SheetOf gives the sheet a card is cut from: the one that was chosen, if the card
// comes in it, else the first it comes in; the largest, where it is left to the
// plan.
func (q *Cards) SheetOf(c shop.Card) shop.Sheet {
	comes := q.Comes(c)
	switch {
	case q.Least:
		return largest(comes)
	case len(c.Sheets) == 0 || slices.ContainsFunc(comes, q.Sheet.Same):
		return q.Sheet
	}
	return comes[0]
}

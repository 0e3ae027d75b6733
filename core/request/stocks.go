package request

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/shop"
)

// Which card each part is cut from, and which sheets that comes in.

// stock finds a card by its name, in the document or in the shop, and reports whether there is one; what is wrong
// with a card is noted.
func (d *door) stock(field, id string) (shop.Card, bool) {
	for _, own := range d.Brief.Card.Own {
		if own.ID == id {
			c, ok := shop.ReadStock(d.r, "card.own.@"+id+".", own)
			return c, ok
		}
	}
	if c, ok := d.w.Card(id); ok {
		d.use("card", c.Title, d.w.Writes[id]...)
		return c, true
	}
	first := ""
	if offered := d.w.Offered(); len(offered) > 0 {
		first = offered[0].ID
	}
	if why, bad := d.w.Troubled[id]; bad {
		d.r.Problem(field, "This card can't be used as it is in Supplies. "+why, "Correct it there, or choose another card.",
			field, first)
	} else {
		d.r.Problem(field, fmt.Sprintf("You have no card called %q.", id), "Choose one of the cards shown.",
			field, first)
	}
	return shop.Card{}, false
}

// Least is the sheet that stands for whichever uses least card.
const Least = "least"

// readCards reads which card each part is cut from, and which sheets these come in.
func (d *door) readCards() {
	var ok bool
	if d.Card, ok = d.stock("card.stock", string(d.Brief.Card.Stock)); !ok {
		return
	}
	for part, id := range brief.Sorted(d.Brief.Card.Stocks) {
		if c, ok := d.stock("card.stocks."+part, strings.TrimSpace(string(id))); ok {
			if d.Stocks == nil {
				d.Stocks = map[string]shop.Card{}
			}
			d.Stocks[part] = c
		}
	}
	comes := d.w.Comes(d.Card)
	if d.Least = string(d.Brief.Card.Sheet) == Least; d.Least {
		d.Sheet = largest(comes)
	} else if s, err := d.w.AnySheet(string(d.Brief.Card.Sheet), d.Units); err != nil {
		d.r.Problem("card.sheet", fmt.Sprintf("You have no sheet called %q.", d.Brief.Card.Sheet),
			"Choose one of the sheets shown, or type its two sides, like “30 x 30 cm”.", "card.sheet", comes[0].ID)
	} else if d.Sheet = s; len(d.Card.Sheets) > 0 && !slices.ContainsFunc(comes, s.Same) {
		d.r.Problem("card.sheet", fmt.Sprintf("%s does not come in %s.", d.Card.Title, s.Title),
			"Choose one of the sheets it comes in.", "card.sheet", comes[0].ID)
	}
	d.Comes = d.w.Comes
	switch d.Brief.Card.Grain {
	case "", "any":
	case "keep":
		d.KeepGrain = true
	default:
		d.r.Problem("card.grain", fmt.Sprintf("Grain can't be %q.", d.Brief.Card.Grain), "Choose keep, or leave it open.",
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

// SheetOf gives the sheet a card is cut from: the one that was chosen, if the card comes in it, else the first it
// comes in; the largest, where it is left to the plan.
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

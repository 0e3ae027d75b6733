package supplies

import (
	"brevium/core/shop"
	"brevium/web/desk"
)

// priceGroups asks what is paid for what is no card, and for work.
func (f shopForm) priceGroups() []desk.Group {
	buys := desk.Group{Title: "What a pack costs", ID: "packs", Says: []string{"A price and how much that is for: 2.40 for 10 m. What " +
		"is left empty is told as not known. The price of card stands with the card."}}
	work := desk.Group{Title: "Your work", ID: "work", Says: []string{"What to ask for a box is reckoned from these, under its Bench."}}
	for _, k := range shop.PriceKinds {
		fd := f.Open("prices."+k.ID, "not known")
		if k.Of == nil {
			work.Fields = append(work.Fields, fd)
		} else {
			buys.Fields = append(buys.Fields, fd)
		}
	}
	work.Fields = append(work.Fields, f.Open("currency", "none"))
	return []desk.Group{buys, work}
}

package supplies

import (
	"brevium/core/shop"
	"brevium/web/desk"
)

// priceGroups asks what is paid for what is no card, and for work.
func (f shopForm) priceGroups() []desk.Group {
	buys := desk.Group{Title: "What a pack costs", ID: "packs", Says: []string{"Write a price and what you get for " +
		"it, like 2.40 for 10 m. Leave it empty if you don't know. Card has its price with the card."}}
	work := desk.Group{Title: "Your work", ID: "work", Says: []string{"Brevium works out what to charge for a box from these."}}
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

package web

import "brevium/core/shop"

// priceGroups asks what is paid for what is no card, and for work.
func (f shopForm) priceGroups() []group {
	buys := group{Title: "What a pack costs", ID: "packs", Says: []string{"A price and how much that is for: 2.40 for 10 m. What " +
		"is left empty is told as not known. The price of card stands with the card."}}
	work := group{Title: "Your work", ID: "work", Says: []string{"What to ask for a box is reckoned from these, under its Bench."}}
	for _, k := range shop.PriceKinds {
		fd := f.open("prices."+k.ID, "not known")
		if k.Of == nil {
			work.Fields = append(work.Fields, fd)
		} else {
			buys.Fields = append(buys.Fields, fd)
		}
	}
	work.Fields = append(work.Fields, f.open("currency", "none"))
	return []group{buys, work}
}

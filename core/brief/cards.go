package brief

import (
	"maps"
	"reflect"
	"slices"
	"strings"
)

// Cards are the cards that a box, or any of a set, is cut from or dressed with, by what they are named in the shop or in
// the document itself: each once, in order.
func (b *Brief) Cards() []string {
	named := map[string]bool{}
	add := func(c *Card, d *Dress) {
		if c != nil {
			named[string(c.Stock)] = true
			for _, id := range c.Stocks {
				named[strings.TrimSpace(string(id))] = true
			}
		}
		if d != nil {
			d.cards(named)
		}
	}
	add(&b.Card, &b.Dress)
	if b.Several != nil {
		for _, m := range b.Several.Boxes {
			add(m.Card, m.Dress)
		}
	}
	delete(named, "")
	return slices.Sorted(maps.Keys(named))
}

// cards notes the cards that the dressing names.
func (d Dress) cards(named map[string]bool) {
	if reflect.ValueOf(d).IsZero() {
		return
	}
	b := Brief{Dress: d}
	for path, text := range b.All() {
		if !strings.HasPrefix(path, "dress.") || !strings.HasSuffix(path, ".stock") && !strings.HasSuffix(path, ".over") &&
			!strings.HasPrefix(path, "dress.scheme.") {
			continue
		}
		for name := range strings.SplitSeq(text, ",") { // a topper names several
			named[strings.TrimSpace(name)] = true
		}
	}
}

package brief

import "slices"

// ForOthers is the document as it leaves the house. What its cards cost, how many are in hand and
// how they are packed concern nobody else; the notes go along only where that is asked.
func (b Brief) ForOthers(notes bool) Brief {
	b = b.Clone()
	b.Card.forOthers()
	if !notes {
		b.Notes = ""
	}
	if b.Several == nil {
		return b
	}
	for i := range b.Several.Boxes {
		m := &b.Several.Boxes[i]
		if m.Card != nil {
			own := *m.Card
			own.Own = slices.Clone(own.Own)
			own.forOthers()
			m.Card = &own
		}
		if !notes {
			m.Notes = ""
		}
	}
	return b
}

func (c *Card) forOthers() {
	for i := range c.Own {
		c.Own[i].Price, c.Own[i].Hand, c.Own[i].Pack = "", "", ""
	}
}

package brief

import (
	"encoding/json"
	"strings"
)

// What a document says of the shop it is cut in: cards of its own, tools, what
// was learnt. Each may be left to the shop of who plans it.

// Stock is a card or paper as a maker describes it: in a document, or on the list of a shop.
type Stock struct {
	ID      string `json:"id"`
	Title   Text   `json:"title"`
	Kind    Text   `json:"kind,omitempty"`    // card, paper or specialty
	GSM     Text   `json:"gsm,omitempty"`     // "300", or "80 lb cover"
	Caliper Text   `json:"caliper,omitempty"` // measured, of one sheet
	Ten     Text   `json:"ten,omitempty"`     // measured, of ten sheets on each other
	Bulk    Text   `json:"bulk,omitempty"`    // cm³ a gram, where nothing was measured
	Grain   Text   `json:"grain,omitempty"`   // long or short: along which side of its sheet
	Colour  Text   `json:"colour,omitempty"`  // of the outside, #rrggbb
	Inside  Text   `json:"inside,omitempty"`  // of the inside, when it has two sides
	Pattern Text   `json:"pattern,omitempty"` // plain, up (has a way up) or any
	Motif   Text   `json:"motif,omitempty"`   // sprigs, stripes, dots or checks
	Ink     Text   `json:"ink,omitempty"`
	Repeat  Text   `json:"repeat,omitempty"` // of the pattern
	Sheets  Texts  `json:"sheets,omitempty"` // "12x12", "300 x 400 mm"
	Price   Text   `json:"price,omitempty"`  // of a sheet of the first size
	Hand    Text   `json:"hand,omitempty"`   // sheets of the first size in hand
	Pack    Whole  `json:"pack,omitempty"`   // sheets in a pack as it is sold
	Retired Flag   `json:"retired,omitempty"`
}

// Trimmer is how the trimmer reads, and how long it cuts.
type Trimmer struct {
	Reads Text `json:"reads,omitempty"`
	Cuts  Text `json:"cuts,omitempty"`
}

// Texts is a list of texts in one field, with commas between; in JSON a list.
type Texts string

// List gives the texts one by one.
func (t Texts) List() (out []string) {
	for part := range strings.FieldsFuncSeq(string(t), func(r rune) bool { return r == ',' || r == ';' || r == '\n' }) {
		if part = strings.TrimSpace(part); part != "" {
			out = append(out, part)
		}
	}
	return out
}

// UnmarshalJSON reads a list of texts, or one text with commas.
func (t *Texts) UnmarshalJSON(data []byte) error {
	if len(data) == 0 || data[0] != '[' {
		return (*Text)(t).UnmarshalJSON(data)
	}
	var all []Text
	if err := json.Unmarshal(data, &all); err != nil {
		return err
	}
	parts := make([]string, len(all))
	for i, one := range all {
		parts[i] = string(one)
	}
	*t = Texts(strings.Join(parts, ", "))
	return nil
}

// MarshalJSON writes a list.
func (t Texts) MarshalJSON() ([]byte, error) {
	list := t.List()
	if Texts(strings.Join(list, ", ")) != t { // as typed, while someone is typing
		return json.Marshal(string(t))
	}
	return json.Marshal(list)
}

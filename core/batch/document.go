// Package batch is many boxes by a date: an order list goes in, one plan for all of it comes
// out, with sheets, shopping, cost, and the work shared out over the days one has time.
//
//	orders ──> boxes planned ──> sheets of all ──> minutes by stage ──> sittings
//
// The document keeps what was typed, like a box's; each order holds its box as a document of
// its own, so that a batch stays what it was promised to be whatever becomes of the box.
package batch

import (
	"encoding/json"
	"fmt"
	"slices"

	"brevium/core/brief"
	"brevium/core/document"
)

// Document is a batch as it is typed.
type Document struct {
	Name   brief.Text            `json:"name,omitempty"`
	Orders []Order               `json:"orders"`
	By     brief.Text            `json:"by,omitempty"` // for orders that say no day
	Hours  map[string]brief.Text `json:"hours"`        // that one has: mon to sun, or a date
	From   brief.Text            `json:"from,omitempty"`
	Hands  brief.Whole           `json:"hands,omitempty"`
	Notes  brief.Text            `json:"notes,omitempty"`
	Done   Progress              `json:"done,omitempty"`
}

// Order is so many of one box.
type Order struct {
	ID       string          `json:"id,omitempty"`
	Name     brief.Text      `json:"name,omitempty"` // for whom, or what
	Box      json.RawMessage `json:"box"`
	Project  string          `json:"project,omitempty"` // the box that it is a copy of
	Revision int64           `json:"revision,omitempty"`
	Count    brief.Whole     `json:"count"`
	Colours  brief.Text      `json:"colours,omitempty"` // the card, by its name
	Words    brief.Text      `json:"words,omitempty"`   // on the tag
	By       brief.Text      `json:"by,omitempty"`
	State    brief.Text      `json:"state,omitempty"` // packed, or handed over
}

// The states of an order that is not on the table.
const (
	Packed = "packed" // pre-cut and packed away, in a bag with a label
	Handed = "handed" // made and handed over
)

// What a batch may hold.
const (
	MostOrders = 300
	MostBoxes  = 3000
	Limit      = 8 << 20
	mostText   = 400
	mostDays   = 400
)

// Form states the document to the engine that reads, keeps and merges it.
var Form = document.New(document.Form[Document]{
	Name: "batch", Limit: Limit, Maps: []string{"hours", "done"},
	Lists: []document.List{{Path: "orders", What: "orders", Most: MostOrders}},
	Table: []document.Field{
		{Path: "name", Kind: document.Words, Label: "name"},
		{Path: "orders.*.name", Kind: document.Words, Label: "for", Most: mostText},
		{Path: "orders.*.count", Kind: document.Number, Label: "how many", Most: mostText},
		{Path: "orders.*.by", Kind: document.Day, Label: "by", Most: mostText},
		{Path: "orders.*.colours", Kind: document.Words, Label: "card", Most: mostText},
		{Path: "orders.*.words", Kind: document.Words, Label: "words on the tag", Most: mostText},
		{Path: "orders.*.state", Label: "state", Most: mostText},
		{Path: "by", Kind: document.Day, Label: "needed by"},
		{Path: "from", Kind: document.Day, Label: "begin on"},
		{Path: "hands", Kind: document.Number, Label: "pairs of hands"},
		{Path: "notes", Kind: document.Words, Label: "notes", Most: 4000},
	},
})

// Decode reads a batch, and refuses what is none.
func Decode(data []byte) (Document, error) { return Form.Decode(data) }

// Own says what there is too much of beside the orders.
func (d *Document) Own() error {
	if len(d.Hours) > mostDays {
		return fmt.Errorf("this batch lists hours for more than %d days", mostDays)
	}
	if most := MostOrders * len(Stages); len(d.Done) > most {
		return fmt.Errorf("this batch lists what is done more than %d times", most)
	}
	return nil
}

// Add adds an order and gives its identity: its own, if it has one that no other has.
func (d *Document) Add(o Order) string {
	if o.ID != "" && d.Of(o.ID) >= 0 {
		o.ID = ""
	}
	d.Orders = append(d.Orders, o)
	Form.Identify(d)
	return d.Orders[len(d.Orders)-1].ID
}

// Of finds an order by its identity, -1 when it is not there.
func (d *Document) Of(id string) int {
	return slices.IndexFunc(d.Orders, func(o Order) bool { return o.ID == id })
}

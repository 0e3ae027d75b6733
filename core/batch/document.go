// Package batch is many boxes by a date: an order list goes in, one plan for all of it comes
// out, with sheets, shopping, cost, and the work shared out over the days one has time.
//
//	orders ──> boxes planned ──> sheets of all ──> minutes by stage ──> sittings
//
// The document keeps what was typed, like a box's; each order holds its box as a document of
// its own, so that a batch stays what it was promised to be whatever becomes of the box.
package batch

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"

	"brevium/core/brief"
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
)

// Decode reads a batch, and refuses what is none.
func Decode(data []byte) (Document, error) {
	var d Document
	if len(data) > Limit {
		return d, fmt.Errorf("this batch is larger than %d MB", Limit>>20)
	}
	in := json.NewDecoder(bytes.NewReader(data))
	in.DisallowUnknownFields()
	if err := in.Decode(&d); err != nil {
		return d, fmt.Errorf("this is no batch of orders: %w", err)
	}
	if _, err := in.Token(); !errors.Is(err, io.EOF) {
		return d, errors.New("more follows the batch: one batch to a file")
	}
	if len(d.Orders) > MostOrders {
		return d, fmt.Errorf("this batch lists %d orders; the most is %d: make two batches of it", len(d.Orders), MostOrders)
	}
	d.identify()
	return d, d.check()
}

func (d *Document) check() error {
	for i, o := range d.Orders {
		for _, text := range []brief.Text{o.Name, o.Colours, o.Words, o.By, o.State, brief.Text(o.Count), brief.Text(o.ID)} {
			if len(text) > mostText {
				return fmt.Errorf("order %d says more than %d letters in one place; shorten it", i+1, mostText)
			}
		}
	}
	if len(d.Hours) > 400 {
		return errors.New("this batch gives the hours of more than 400 days")
	}
	return nil
}

// identify gives every order that has no identity one: the next number that is free.
func (d *Document) identify() {
	taken := map[string]bool{}
	for _, o := range d.Orders {
		taken[o.ID] = true
	}
	had := map[string]bool{}
	for i := range d.Orders {
		o := &d.Orders[i]
		for n := i + 1; o.ID == "" || had[o.ID]; n++ {
			if id := strconv.Itoa(n); !taken[id] {
				o.ID, taken[id] = id, true
			}
		}
		had[o.ID] = true
	}
}

// Add adds an order and gives its identity: its own, if it has one that no other has.
func (d *Document) Add(o Order) string {
	d.Orders = append(d.Orders, o)
	d.identify()
	return d.Orders[len(d.Orders)-1].ID
}

// Of finds an order by its identity, -1 when it is not there.
func (d *Document) Of(id string) int {
	return slices.IndexFunc(d.Orders, func(o Order) bool { return o.ID == id })
}

package batch

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/words"
)

// Batch is a batch that was read.
type Batch struct {
	Doc      Document
	Now      Moment
	From     Day // the first day on which it may be worked on
	Hands    int
	Calendar Calendar
	Orders   []*Ordered
	Problems []brief.Problem
	Warnings []brief.Warning
	shop     request.Workshop
}

// Ordered is an order that was read.
type Ordered struct {
	Order
	Place int
	Brief brief.Brief // its box, as it is made for this order
	Copy  int         // how many
	Due   Day
	Made  *Made // nil until it is planned
}

// Called is what an order goes by: for whom, or what box.
func (o *Ordered) Called() string {
	if name := strings.TrimSpace(string(o.Order.Name)); name != "" {
		return name
	}
	if name := strings.TrimSpace(string(o.Brief.Name)); name != "" {
		return name
	}
	return fmt.Sprintf("order %d", o.Place+1)
}

// OnTable reports whether the order is to be worked on: neither packed away nor handed over.
func (o *Ordered) OnTable() bool { return o.State == "" }

func (b *Batch) problem(field, text, fix string) {
	b.Problems = append(b.Problems, brief.Problem{Field: field, Text: text, Fix: fix})
}

// wrong reports whether something is wrong at a field, or below it.
func (b *Batch) wrong(field string) bool {
	for _, p := range b.Problems {
		if p.Field == field || strings.HasPrefix(p.Field, field+".") {
			return true
		}
	}
	return false
}

func sentence(err error) string { return words.Capital(strings.TrimSuffix(err.Error(), ".")) + "." }

// furthest is how far ahead one may plan, in days.
const furthest = 2 * 366

// Read reads a batch as it stands at a moment. What can't be read is told at its field, such
// as orders.2.by. A date that has gone by is refused of an order that nobody has begun; one that was begun is late.
func Read(d Document, now Moment, w request.Workshop) *Batch {
	today := now.Day
	b := &Batch{Doc: d, Now: now, From: today, Hands: 1, shop: w}
	if d.From != "" {
		from, err := ParseDay(string(d.From))
		switch {
		case err != nil:
			b.problem("from", sentence(err), "Choose the day you can begin.")
		case from.Since(today) > furthest:
			b.problem("from", from.Says()+" is more than two years away.", "Choose an earlier day.")
		default:
			b.From = from
		}
	}
	if b.From.Since(today) < 0 {
		b.From = today // what is past is past
	}
	if d.Hands != "" {
		n, err := strconv.Atoi(strings.TrimSpace(string(d.Hands)))
		if err != nil || n < 1 || n > 20 {
			b.problem("hands", fmt.Sprintf("%q isn't a number of people.", d.Hands), "Write 1 to 20.")
		} else {
			b.Hands = n
		}
	}
	b.readHours()
	if len(d.Orders) == 0 {
		b.problem("orders", "There are no orders yet.", "Add a box, how many, and the date.")
	}
	all := 0
	for i, o := range d.Orders {
		read := b.readOrder(i, o, d.Done.begun(o.ID), w)
		b.Orders = append(b.Orders, read)
		all += read.Copy
	}
	if all > MostBoxes {
		b.problem("orders", fmt.Sprintf("This batch has %d boxes. It can have up to %d.", all, MostBoxes),
			"Split it into two batches.")
	}
	return b
}

func (b *Batch) readOrder(i int, o Order, begun bool, w request.Workshop) *Ordered {
	out := &Ordered{Order: o, Place: i}
	field := fmt.Sprintf("orders.%d.", i)
	box, err := brief.Decode(o.Box)
	if len(o.Box) == 0 {
		b.problem(field+"box", "Which box is this order for?", "Choose a box.")
	} else if err != nil {
		b.problem(field+"box", "The box of this order can't be read: "+err.Error()+".", "Choose the box again.")
	}
	out.Brief = box
	n, err := strconv.Atoi(strings.TrimSpace(string(o.Count)))
	switch {
	case err != nil:
		b.problem(field+"count", fmt.Sprintf("%q isn't a number of boxes.", o.Count), "Write a whole number, 1 or more.")
	case n < 1 || n > request.MostCopies:
		b.problem(field+"count", fmt.Sprintf("One order can't be for %d boxes.", n),
			fmt.Sprintf("Write 1 to %d, or split it into two orders.", request.MostCopies))
	default:
		out.Copy = n
	}
	by := o.By
	if by == "" {
		by = b.Doc.By
	}
	switch due, err := ParseDay(string(by)); {
	case by == "":
		b.problem(field+"by", out.Called()+": when is it needed?", "Choose the day.")
	case err != nil:
		b.problem(field+"by", sentence(err), "Choose the day it is needed.")
	case due.Since(b.Now.Day) > furthest:
		b.problem(field+"by", due.Says()+" is more than two years away.", "Choose an earlier day.")
	case due.Since(b.From) < 0 && out.OnTable() && !begun:
		b.problem(field+"by", fmt.Sprintf("%s: %s comes before you can begin, on %s.", out.Called(), due.Says(),
			b.From.Says()), "Choose a later day, or remove the order.")
	default:
		out.Due = due
	}
	if o.State != "" && o.State != Packed && o.State != Handed {
		b.problem(field+"state", fmt.Sprintf("An order can't be %q.", o.State), "Say packed, handed, or nothing.")
	}
	out.fit(b, w)
	return out
}

// fit makes the box what the order asks for: so many, of that card, with those words on its tag.
func (o *Ordered) fit(b *Batch, w request.Workshop) {
	o.Brief.Copies = brief.Whole(strconv.Itoa(max(1, o.Copy)))
	if o.Brief.Several != nil {
		o.Brief.Several.Copies = o.Brief.Copies
		o.Brief.Copies = "1"
	}
	if colours := strings.TrimSpace(string(o.Colours)); colours != "" {
		id := cardNamed(w, colours)
		if id == "" {
			b.problem(fmt.Sprintf("orders.%d.colours", o.Place), fmt.Sprintf("None of your cards is called %q.", colours),
				"Write the card's name as it is in Supplies, or leave it empty to use the box's own card.")
		} else {
			o.Brief.Card.Stock = brief.Text(id)
		}
	}
	if o.Words != "" {
		for i := range o.Brief.Dress.Toppers {
			if t := &o.Brief.Dress.Toppers[i]; t.Words != "" || len(o.Brief.Dress.Toppers) == 1 {
				t.Words = o.Words
			}
		}
	}
}

// cardNamed finds a card by its identity, its title, or the one whose title begins so.
func cardNamed(w request.Workshop, name string) (id string) {
	begins := 0
	for _, c := range w.Cards {
		if strings.EqualFold(c.ID, name) || strings.EqualFold(c.Title, name) {
			return c.ID
		}
		if strings.HasPrefix(strings.ToLower(c.Title), strings.ToLower(name)) {
			if begins++; begins == 1 {
				id = c.ID
			}
		}
	}
	if begins != 1 {
		return ""
	}
	return id
}

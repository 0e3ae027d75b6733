package brief

import (
	"encoding/json"
	"fmt"
	"slices"

	"brevium/core/document"
)

// Version is the document format's number.
const Version = 1

// Limit is the largest document that is read or written, in bytes.
const Limit = 256 << 10

// The most answers to a style's questions, and cards that a document describes.
const mostOptions, mostOwn = 64, 24

// Decode reads a document, and refuses what could not be written again.
func Decode(data []byte) (Brief, error) { return Form.Decode(data) }

// Stored is Decode for a document that was checked when it was written.
func Stored(data []byte) (Brief, error) { return Form.Stored(data) }

// Check says why a brief can't be written as a document that is readable again.
func (b *Brief) Check() error { return Form.Check(b) }

// Encode writes the document. Decoding what it writes gives b again, and encoding that gives the same bytes.
func (b Brief) Encode() []byte { return Form.Encode(b) }

// Begin looks which format a document is of, and answers what it leaves unsaid.
func (b *Brief) Begin(data []byte) error {
	var head struct{ Brevium *int }
	if err := json.Unmarshal(data, &head); err != nil || head.Brevium == nil {
		return fmt.Errorf("this isn't a box that Brevium saved%s", document.Detail(err))
	}
	if *head.Brevium != Version {
		return fmt.Errorf("this box was saved by a newer Brevium (format %d; this one reads %d). Open it with that one",
			*head.Brevium, Version)
	}
	*b = silent(data)
	return nil
}

// Own says what is wrong beside the lists: answers, cards for parts, the boxes of a set.
func (b *Brief) Own() error {
	if n := len(b.Box.Options); n > mostOptions {
		return fmt.Errorf("this box lists %d options; the most is %d", n, mostOptions)
	}
	if n := len(b.Card.Stocks); n > mostOwn {
		return fmt.Errorf("this box lists %d cards for parts; the most is %d", n, mostOwn)
	}
	return b.checkSet()
}

// silent gives the answers to what a hand-written document leaves unsaid. A
// field that is there but empty was cleared by a person and stays so.
func silent(data []byte) Brief {
	var said struct {
		Units    Text
		Contents []struct{}
	}
	// What is wrong here shows again, and is told, when the whole is read.
	_ = json.Unmarshal(data, &said)
	if said.Units == "" {
		said.Units = "in"
	}
	b := New(string(said.Units))
	b.Contents = nil
	if len(said.Contents) > 0 {
		b.Contents = slices.Repeat([]Item{{Shape: "block", Count: "1"}}, min(len(said.Contents), 101))
	}
	return b
}

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

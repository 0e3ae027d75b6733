package shop

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/words"
)

// Document is a shop as it is typed and kept.
type Document struct {
	Brevium  int           `json:"brevium-shop"`
	Currency brief.Text    `json:"currency,omitempty"`
	Cards    []brief.Stock `json:"cards"`
	Offcuts  []Offcut      `json:"offcuts,omitempty"`
	Tools    brief.Tools   `json:"tools,omitzero"`
	Habits   brief.Options `json:"habits,omitempty"`
	Prices   brief.Options `json:"prices,omitempty"`
	Fits     []Fit         `json:"fits,omitempty"`
	Aside    brief.Options `json:"aside,omitempty"` // what was learnt and is not wanted
	Seen     brief.Options `json:"seen,omitempty"`  // cautions that were put away on the screen
}

// Offcut is a piece of card that was kept.
type Offcut struct {
	ID     string     `json:"id"`
	Card   brief.Text `json:"card"`
	Width  brief.Text `json:"width"`
	Height brief.Text `json:"height"`
	From   brief.Text `json:"from,omitempty"` // which box it is left of
}

// Fit is how a lid was found, with what it was planned by.
type Fit struct {
	ID      string      `json:"id"`
	On      string      `json:"on"` // the day
	Box     brief.Text  `json:"box"`
	Card    brief.Text  `json:"card"`
	Walls   brief.Text  `json:"walls"`
	Layers  brief.Whole `json:"layers"`
	Usual   brief.Text  `json:"usual"`
	Had     brief.Text  `json:"had"`
	Verdict brief.Text  `json:"verdict,omitempty"`
	Gap     brief.Text  `json:"gap,omitempty"` // how far the lid moved, both sides together
}

// The most a shop lists.
const (
	MostCards   = 1000
	MostOffcuts = 500
	MostFits    = 500
	Limit       = 512 << 10
)

// Version is the number of the shop document's format.
const Version = 1

//go:embed default.json
var shipped []byte

// Shipped is the document of the shop Brevium comes with.
func Shipped() Document {
	d, err := Decode(shipped)
	if err != nil {
		panic(err) // it is a part of the program
	}
	return d
}

// Form states the shop's document to the engine that reads, keeps and merges it: its cards and tools have the fields
// of a box's.
var Form = document.New(document.Form[Document]{
	Name: "supplies file", Limit: Limit, Table: table(), Maps: []string{"aside", "seen"},
	Lists: []document.List{{Path: "cards", What: "cards", Most: MostCards, Named: true},
		{Path: "offcuts", What: "offcuts", Most: MostOffcuts}, {Path: "fits", What: "fit records", Most: MostFits}},
})

func table() (out []document.Field) {
	tools := []document.Field{}
	for _, f := range brief.Table {
		if name, ok := strings.CutPrefix(f.Path, "card.own.*."); ok {
			f.Path = "cards.*." + name
			out = append(out, f)
		} else if strings.HasPrefix(f.Path, "tools.") {
			tools = append(tools, f)
		}
	}
	out = append(out, document.Field{Path: "offcuts.*.card", Label: "card"},
		document.Field{Path: "offcuts.*.width", Kind: document.Distance, Label: "width"},
		document.Field{Path: "offcuts.*.height", Kind: document.Distance, Label: "height"},
		document.Field{Path: "offcuts.*.from", Kind: document.Words, Label: "left of"})
	out = append(out, tools...)
	for _, h := range Habits {
		out = append(out, document.Field{Path: "habits." + h.ID, Label: words.Small(h.Label)})
	}
	for _, k := range PriceKinds {
		out = append(out, document.Field{Path: "prices." + k.ID, Kind: document.Words, Label: words.Small(k.Label),
			Help: "like " + k.Like})
	}
	return append(out, document.Field{Path: "currency", Kind: document.Words, Label: "currency", Help: "what stands behind prices",
		Most: 16})
}

// Decode reads a shop's document.
func Decode(data []byte) (Document, error) { return Form.Decode(data) }

// Begin refuses a document of another format.
func (d *Document) Begin(data []byte) error {
	var head struct {
		Brevium *int `json:"brevium-shop"`
	}
	if err := json.Unmarshal(data, &head); err != nil || head.Brevium == nil {
		return fmt.Errorf("this isn't a supplies file from Brevium%s", document.Detail(err))
	}
	if *head.Brevium != Version {
		return fmt.Errorf("these supplies were saved by a newer Brevium (format %d; this one reads %d)", *head.Brevium, Version)
	}
	return nil
}

// Check says why a document can't be kept.
func (d *Document) Check() error { return Form.Check(d) }

// Encode writes the document.
func (d Document) Encode() []byte { return Form.Encode(d) }

// Clone gives a copy that shares nothing with d.
func (d Document) Clone() Document { return document.Clone(d) }

// Of finds a card by its identity, -1 when it is not there.
func (d *Document) Of(id string) int {
	return slices.IndexFunc(d.Cards, func(c brief.Stock) bool { return c.ID == id })
}

// FieldAt finds the field at a path of a shop.
func FieldAt(path string) (document.Field, bool) { return Form.Field(path) }

// Get gives the field at a path such as "cards.@k3.caliper".
func (d *Document) Get(path string) string { return document.Get(d, path) }

// Set writes a field and reports whether there is one at that path.
func (d *Document) Set(path, text string) bool { return Form.Set(d, path, text) }

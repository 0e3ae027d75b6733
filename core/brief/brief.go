// Package brief is the document: what a maker asks for, in the maker's own
// words, and the problems those words may have.
//
// A brief keeps every field as it was typed, sense or nonsense, so nothing a
// person wrote is ever lost; a Reader turns fields into lengths and counts and
// gathers a Problem for each that cannot be read. docs/format.md describes
// the JSON.
package brief

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
)

// Version is the document format's number.
const Version = 1

// Limit is the largest document that is read, in bytes.
const Limit = 256 << 10

// Brief is a project's document. Lengths are texts with a unit; a text
// without one takes Units.
type Brief struct {
	Brevium  int     `json:"brevium"`
	Name     Text    `json:"name"`
	Units    Text    `json:"units"`
	Copies   Whole   `json:"copies"`
	Contents []Item  `json:"contents,omitempty"`
	Room     Room    `json:"room,omitzero"`
	Arrange  Arrange `json:"arrange,omitzero"`
	Size     *Size   `json:"size,omitempty"`
	Box      Box     `json:"box"`
	Card     Card    `json:"card"`
	Tools    Tools   `json:"tools"`
	Notes    Text    `json:"notes,omitempty"`
}

// Item is one kind of thing that goes in. Which measures count depends on its
// shape; what is left open is answered by the kind of thing it is.
type Item struct {
	Name         Text  `json:"name"`
	Shape        Text  `json:"shape"`
	Length       Text  `json:"length,omitempty"`
	Width        Text  `json:"width,omitempty"`
	Height       Text  `json:"height,omitempty"`
	Thickness    Text  `json:"thickness,omitempty"` // of a flat item, bare
	Decorated    Text  `json:"decorated,omitempty"` // of a flat item, with what is stuck on it
	Envelope     Flag  `json:"envelope,omitempty"`  // a flat item goes in one
	Diameter     Text  `json:"diameter,omitempty"`
	NeckDiameter Text  `json:"neck-diameter,omitempty"`
	NeckHeight   Text  `json:"neck-height,omitempty"`
	Press        Text  `json:"press,omitempty"` // how far a soft thing may be pressed down
	Count        Whole `json:"count"`
	Mass         Text  `json:"mass,omitempty"` // of one
	Lie          Flag  `json:"lie,omitempty"`
	Stand        Flag  `json:"stand,omitempty"`
	Stack        Whole `json:"stack,omitempty"` // how many may lie on each other
	Upright      Flag  `json:"upright,omitempty"`
	Food         Flag  `json:"food,omitempty"`
	Fragile      Flag  `json:"fragile,omitempty"`
	Flame        Flag  `json:"flame,omitempty"`
	Liquid       Flag  `json:"liquid,omitempty"`
}

// Room is what the contents get beyond their own size.
type Room struct {
	Around  Text `json:"around,omitempty"`  // for fingers, on each side
	Between Text `json:"between,omitempty"` // between neighbours, or each side of a divider
	Padding Text `json:"padding,omitempty"` // tissue or shred on each side, inside the finger room
	Below   Text `json:"below,omitempty"`   // tissue or shred under them
	Above   Text `json:"above,omitempty"`   // under the lid
	Proud   Text `json:"proud,omitempty"`   // may stand above the rim
}

// Arrange says how the things lie.
type Arrange struct {
	Way          Text    `json:"way,omitempty"`          // a pinned arrangement, by its name
	Compartments Text    `json:"compartments,omitempty"` // none, slotted, partitions, platform, trays
	Dividers     Text    `json:"dividers,omitempty"`     // height of dividers, when not to the things' shoulders
	Places       []Place `json:"places,omitempty"`       // arranged by hand
}

// Place is where a stack stands by hand, from the left front corner.
type Place struct {
	X      Text `json:"x"`
	Y      Text `json:"y"`
	Turned Flag `json:"turned,omitempty"`
}

// Size overrules the contents: score to score, to the letter.
type Size struct {
	Length Text `json:"length"`
	Width  Text `json:"width"`
	Depth  Text `json:"depth"`
}

// Box names a style and answers its questions.
type Box struct {
	Style   Text            `json:"style"`
	Options map[string]Text `json:"options,omitempty"`
	Pieces  []Scored        `json:"pieces,omitempty"` // typed from a list of scores
	Stated  *Size           `json:"stated,omitempty"` // the finished size such a list claims
}

// Scored is a piece from a list of scores: its cut size, where it is scored
// from the left and from the top edge, and which squares go.
type Scored struct {
	Name   Text `json:"name"`
	Is     Text `json:"is"` // tray, lid, tube or liner
	Width  Text `json:"width"`
	Height Text `json:"height"`
	Across Text `json:"across,omitempty"` // distances from the left edge
	Down   Text `json:"down,omitempty"`   // distances from the top edge
	Away   Text `json:"away,omitempty"`   // "corners", or squares as column-row
}

// Card names the card and the sheet it comes in.
type Card struct {
	Stock Text `json:"stock"`
	Sheet Text `json:"sheet"`
	Join  Flag `json:"join,omitempty"` // a piece too large is cut in two and joined
}

// Tools says what the maker measures and sticks with.
type Tools struct {
	Step     Text `json:"step"`
	Fit      Text `json:"fit"`
	Adhesive Text `json:"adhesive,omitempty"`
}

// Text is a field as typed. In JSON it may also be written as a number.
type Text string

func (t *Text) UnmarshalJSON(data []byte) error {
	if len(data) > 0 && data[0] != '"' {
		var n json.Number
		if err := json.Unmarshal(data, &n); err != nil {
			return fmt.Errorf("a text or a number belongs where %s stands", data)
		}
		*t = Text(n)
		return nil
	}
	return json.Unmarshal(data, (*string)(t))
}

// Whole is a counted field as typed, written to JSON as a number when it is one.
type Whole string

func (w *Whole) UnmarshalJSON(data []byte) error { return (*Text)(w).UnmarshalJSON(data) }

func (w Whole) MarshalJSON() ([]byte, error) {
	s := string(w)
	if s != "" && len(s) < 16 && strings.Trim(s, "0123456789") == "" && (s == "0" || s[0] != '0') {
		return []byte(s), nil
	}
	return json.Marshal(s)
}

// Flag is a question answered yes or no, or left open; in JSON true or false.
type Flag string

func (f *Flag) UnmarshalJSON(data []byte) error {
	switch string(data) {
	case "true":
		*f = "yes"
	case "false":
		*f = "no"
	default:
		return (*Text)(f).UnmarshalJSON(data)
	}
	return nil
}

func (f Flag) MarshalJSON() ([]byte, error) {
	switch f {
	case "yes":
		return []byte("true"), nil
	case "no":
		return []byte("false"), nil
	}
	return json.Marshal(string(f))
}

// New gives the brief a project starts from: one made-up thing, every
// question answered.
func New(units string) Brief {
	b := Brief{
		Brevium: Version, Name: "New box", Units: Text(units), Copies: "1",
		Box:   Box{Style: "tray-lid"},
		Card:  Card{Stock: "cover-216", Sheet: "12x12"},
		Tools: Tools{Step: "1/16 in", Fit: "snug"},
	}
	thing := Item{Name: "seed packet", Shape: "block", Length: "4 1/2 in", Width: "3 1/4 in", Height: "1/4 in", Count: "4"}
	if units == "mm" {
		b.Card.Sheet, b.Tools.Step = "a4", "1 mm"
		thing.Length, thing.Width, thing.Height = "115 mm", "82 mm", "6 mm"
	}
	b.Contents = []Item{thing}
	return b
}

// NewScores gives the brief that a list of scores from elsewhere starts from: a
// tray and its lid, to be written over.
func NewScores() Brief {
	b := New("in")
	b.Name, b.Contents = "Scores from elsewhere", nil
	b.Box = Box{Style: "score-list", Pieces: []Scored{
		{Name: "base", Is: "tray", Width: "9 in", Height: "7 1/2 in", Across: "2, 7", Down: "2, 5 1/2"},
		{Name: "lid", Is: "lid", Width: "6 9/16 in", Height: "5 1/16 in", Across: "3/4 both", Down: "3/4 both"},
	}, Stated: &Size{}}
	return b
}

// Decode reads a document. Every error says what is wrong and what would put
// it right; nothing is guessed and no unknown field is dropped.
func Decode(data []byte) (Brief, error) {
	if len(data) > Limit {
		return Brief{}, fmt.Errorf("this document is larger than %d kB; a project is never that large", Limit>>10)
	}
	var head struct{ Brevium *int }
	if err := json.Unmarshal(data, &head); err != nil || head.Brevium == nil {
		return Brief{}, fmt.Errorf("this is not a Brevium project: it should be JSON and begin {\"brevium\": %d, ...}%s", Version, detail(err))
	}
	if *head.Brevium != Version {
		return Brief{}, fmt.Errorf("this project is of format %d and this Brevium reads format %d; use a newer Brevium", *head.Brevium, Version)
	}
	b := silent(data)
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&b); err != nil {
		return Brief{}, fmt.Errorf("this project can't be read%s; see docs/format.md for what it may hold", detail(err))
	}
	return b, nil
}

func detail(err error) string {
	if err == nil {
		return ""
	}
	return " (" + strings.TrimPrefix(err.Error(), "json: ") + ")"
}

// silent gives the answers to what a hand-written document leaves unsaid. A
// field that is there but empty was cleared by a person and stays so.
func silent(data []byte) Brief {
	var said struct {
		Units    Text
		Contents []map[string]json.RawMessage
	}
	// What is wrong here shows again, and is told, when the whole is read.
	_ = json.Unmarshal(data, &said)
	if said.Units == "" {
		said.Units = "in"
	}
	b := New(string(said.Units))
	b.Contents = make([]Item, len(said.Contents))
	for i := range b.Contents {
		b.Contents[i] = Item{Shape: "block", Count: "1"}
	}
	if len(b.Contents) == 0 {
		b.Contents = nil
	}
	return b
}

// Encode writes the document. Decoding what it writes gives b again, and
// encoding that gives the same bytes.
func (b Brief) Encode() []byte {
	var out bytes.Buffer
	enc := json.NewEncoder(&out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	if err := enc.Encode(b); err != nil {
		panic(err) // strings, numbers and maps of strings always encode
	}
	return out.Bytes()
}

// Clone gives a copy that shares nothing with b.
func (b Brief) Clone() Brief {
	var c Brief
	if err := json.Unmarshal(b.Encode(), &c); err != nil {
		panic(err) // see Encode
	}
	return c
}

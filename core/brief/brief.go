// Package brief is the document: what a maker asks for, in the maker's own
// words, and the problems those words may have.
//
// A brief keeps every field as it was typed, sense or nonsense, so nothing a person wrote is ever lost; a Reader
// turns fields into lengths and counts and gathers a Problem for each that cannot be read. docs/format.md describes
// the JSON.
package brief

import (
	"cmp"
	"encoding/json"
	"fmt"
	"iter"
	"maps"
	"slices"
	"strings"
)

// Brief is a project's document. Lengths are texts with a unit; a text without one takes Units.
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
	Dress    Dress   `json:"dress,omitzero"`
	Tools    Tools   `json:"tools"`
	Sheets   Sheets  `json:"sheets,omitzero"`
	Notes    Text    `json:"notes,omitempty"`
	Several  *Set    `json:"set,omitempty"` // the project is a set of boxes
}

// Item is one kind of thing that goes in. Which measures count depends on its
// shape; what is left open is answered by the kind of thing it is.
type Item struct {
	ID           string `json:"id,omitempty"` // what this thing is known by, whatever its name and place
	Name         Text   `json:"name"`
	Shape        Text   `json:"shape"`
	Length       Text   `json:"length,omitempty"`
	Width        Text   `json:"width,omitempty"`
	Height       Text   `json:"height,omitempty"`
	Thickness    Text   `json:"thickness,omitempty"` // of a flat item, bare
	Decorated    Text   `json:"decorated,omitempty"` // of a flat item, with what is stuck on it
	Envelope     Flag   `json:"envelope,omitempty"`  // a flat item goes in one
	Diameter     Text   `json:"diameter,omitempty"`
	NeckDiameter Text   `json:"neck-diameter,omitempty"`
	NeckHeight   Text   `json:"neck-height,omitempty"`
	Press        Text   `json:"press,omitempty"` // how far a soft thing may be pressed down
	Count        Whole  `json:"count"`
	Mass         Text   `json:"mass,omitempty"` // of one
	Lie          Flag   `json:"lie,omitempty"`
	Stand        Flag   `json:"stand,omitempty"`
	Stack        Whole  `json:"stack,omitempty"` // how many may lie on each other
	Upright      Flag   `json:"upright,omitempty"`
	Food         Flag   `json:"food,omitempty"`
	Fragile      Flag   `json:"fragile,omitempty"`
	Flame        Flag   `json:"flame,omitempty"`
	Liquid       Flag   `json:"liquid,omitempty"`
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
	Way          Text      `json:"way,omitempty"`          // a pinned arrangement, by its name
	Compartments Text      `json:"compartments,omitempty"` // none, slotted, partitions, platform, trays
	Dividers     Text      `json:"dividers,omitempty"`     // height of dividers, when not to the things' shoulders
	Cells        Text      `json:"cells,omitempty"`        // "3 x 2": compartments across and deep, in a size that is given
	Places       []StackAt `json:"places,omitempty"`       // arranged by hand
}

// StackAt is where a stack stands by hand, from the left front corner.
type StackAt struct {
	Thing  string `json:"thing,omitempty"` // whose stack it is, in the order of its stacks
	X      Text   `json:"x"`
	Y      Text   `json:"y"`
	Turned Flag   `json:"turned,omitempty"`
}

// Size overrules the contents: score to score, to the letter.
type Size struct {
	Length Text `json:"length"`
	Width  Text `json:"width"`
	Depth  Text `json:"depth"`
}

// Box names a style and answers its questions.
type Box struct {
	Style   Text     `json:"style"`
	Options Options  `json:"options,omitempty"`
	Pieces  []Scored `json:"pieces,omitempty"` // typed from a list of scores
	Stated  *Size    `json:"stated,omitempty"` // the finished size such a list claims
}

// Options are the answers to a style's questions.
type Options map[string]Text

// Sorted gives what a map holds in the order of its names: nothing that comes of
// a brief may hang on the order of a map.
func Sorted[K cmp.Ordered, V any](m map[K]V) iter.Seq2[K, V] {
	return func(yield func(K, V) bool) {
		for _, k := range slices.Sorted(maps.Keys(m)) {
			if !yield(k, m[k]) {
				return
			}
		}
	}
}

// Scored is a piece from a list of scores: its cut size, where it is scored
// from the left and from the top edge, and which squares go.
type Scored struct {
	ID     string `json:"id,omitempty"`
	Name   Text   `json:"name"`
	Is     Text   `json:"is,omitempty"`    // a role of the reader; left out, the scores say it
	Walls  Text   `json:"walls,omitempty"` // of a tray: single, rolled or pinwheel
	Tabs   Text   `json:"tabs,omitempty"`  // of a tray: full, half, narrow or trimmed
	Width  Text   `json:"width"`
	Height Text   `json:"height"`
	Across Text   `json:"across,omitempty"` // distances from the left edge
	Down   Text   `json:"down,omitempty"`   // distances from the top edge
	Away   Text   `json:"away,omitempty"`   // "corners", or squares as column-row
}

// Card names the card and the sheet it comes in, for the whole box and for parts
// that have another: by the name of the piece, or what it is ("lid", "band").
type Card struct {
	Stock  Text    `json:"stock"`
	Sheet  Text    `json:"sheet"` // or least: the one that needs least card
	Stocks Options `json:"stocks,omitempty"`
	Join   Flag    `json:"join,omitempty"`  // a piece too large is cut in two and joined
	Grain  Text    `json:"grain,omitempty"` // keep: each piece lies so that the grain runs along its longer scores
	Own    []Stock `json:"own,omitempty"`   // cards that the document itself describes
}

// Sheets says how the pieces are to be laid on sheets: nothing is said where the plan's own quick rules do.
type Sheets struct {
	Aim     Text  `json:"aim,omitempty"`          // fewest sheets, least cost or card
	Tie     Text  `json:"among-equals,omitempty"` // largest offcut, or fewest stops
	Look    Text  `json:"look,omitempty"`         // quick or deep
	Sizes   Text  `json:"sizes,omitempty"`        // any that the card comes in, not only the one chosen
	Offcuts Flag  `json:"offcuts,omitempty"`      // kept ones are used first
	Margin  Text  `json:"margin,omitempty"`       // along every edge, keep pieces this far from the edge
	Pins    []Pin `json:"pins,omitempty"`
}

// Pin is a piece that a hand put in a place: on the sheet of that number of its card,
// from 1, so far from its left and its top.
type Pin struct {
	Piece  Text  `json:"piece"`
	Sheet  Whole `json:"sheet"`
	Size   Text  `json:"size,omitempty"` // which of the sheets it comes in that is
	X      Text  `json:"x"`
	Y      Text  `json:"y"`
	Turned Flag  `json:"turned,omitempty"`
}

// Asked reports whether anything is said of how sheets are to be cut.
func (s Sheets) Asked() bool {
	return s.Aim != "" || s.Tie != "" || s.Look != "" || s.Sizes != "" || s.Offcuts == "yes" || s.Margin != "" || len(s.Pins) > 0
}

// Tools says what the maker measures, scores, cuts and sticks with, and how it is liked.
type Tools struct {
	Step       Text    `json:"step"`
	Fit        Text    `json:"fit"`
	Slack      Text    `json:"slack,omitempty"` // learnt here, in place of what the fit asks for
	Adhesive   Text    `json:"adhesive,omitempty"`
	Tape       Text    `json:"tape,omitempty"`       // how wide it is
	Allowances Text    `json:"allowances,omitempty"` // card, or plain numbers
	Grooves    Texts   `json:"grooves,omitempty"`    // how far apart those of the scoring board are
	Board      Text    `json:"board,omitempty"`      // how far they go
	Numbers    Text    `json:"numbers,omitempty"`    // from the left or from the right
	Scoring    Text    `json:"scoring,omitempty"`    // board, or ruler: with a stylus along it
	Cutting    Text    `json:"cutting,omitempty"`    // trimmer, or scissors alone
	Folder     Text    `json:"folder,omitempty"`     // bone, or none
	Dressing   Text    `json:"dressing,omitempty"`   // flat, or standing: layers go on when it stands
	Wraps      Text    `json:"wraps,omitempty"`      // scored, or formed on the box: straps, sleeves, covers
	Trimmer    Trimmer `json:"trimmer,omitzero"`
	Punches    Texts   `json:"punches,omitempty"` // "hole 3 mm reach 25 mm", "corner 5 mm"
	Burnish    Text    `json:"burnish,omitempty"` // after or before cutting
	First      Text    `json:"first,omitempty"`   // which way is scored first: as drawn, short or long
	House      Text    `json:"house,omitempty"`   // no: nothing is taken from the shop's tools, habits and records
}

// Text is a field as typed. In JSON it may also be written as a number.
type Text string

// UnmarshalJSON reads a text, or a number as its digits.
func (t *Text) UnmarshalJSON(data []byte) error {
	if len(data) > 0 && data[0] != '"' {
		var n json.Number
		if err := json.Unmarshal(data, &n); err != nil {
			return fmt.Errorf("expected a text or a number where %s is", data)
		}
		*t = Text(n)
		return nil
	}
	return json.Unmarshal(data, (*string)(t))
}

// Whole is a counted field as typed, written to JSON as a number when it is one.
type Whole string

// UnmarshalJSON reads a text or a number.
func (w *Whole) UnmarshalJSON(data []byte) error { return (*Text)(w).UnmarshalJSON(data) }

// MarshalJSON writes a number where the text is a plain one, else the text.
func (w Whole) MarshalJSON() ([]byte, error) {
	s := string(w)
	if s != "" && len(s) < 16 && strings.Trim(s, "0123456789") == "" && (s == "0" || s[0] != '0') {
		return []byte(s), nil
	}
	return json.Marshal(s)
}

// Flag is a question answered yes or no, or left open; in JSON true or false.
type Flag string

// UnmarshalJSON reads true, false or a text.
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

// MarshalJSON writes true or false where yes or no was said, else the text.
func (f Flag) MarshalJSON() ([]byte, error) {
	switch f {
	case "yes":
		return []byte("true"), nil
	case "no":
		return []byte("false"), nil
	}
	return json.Marshal(string(f))
}

// New gives the brief a project starts from: one made-up thing, every question answered.
func New(units string) Brief {
	b := Brief{
		Brevium: Version, Name: "New box", Units: Text(units), Copies: "1",
		Box:   Box{Style: "tray-lid"},
		Card:  Card{Stock: "cover-216", Sheet: "12x12"},
		Tools: Tools{Step: "1/16 in", Fit: "snug"},
	}
	thing := Item{ID: "1", Name: "seed packet", Shape: "block", Length: "4 1/2 in", Width: "3 1/4 in", Height: "1/4 in",
		Count: "4"}
	if units == "mm" || units == "cm" {
		b.Card.Sheet, b.Tools.Step = "a4", "1 mm"
		thing.Length, thing.Width, thing.Height = "115 mm", "82 mm", "6 mm"
	}
	b.Contents = []Item{thing}
	return b
}

// Blank gives the brief of a box about which nothing is known yet: no thing,
// no size, every other question answered.
func Blank(units string) Brief {
	b := New(units)
	b.Contents = nil
	return b
}

// NewScores gives the brief that a list of scores from elsewhere starts from: a
// tray and its lid, to be written over.
func NewScores() Brief {
	b := New("in")
	b.Name, b.Contents = "Someone else's measurements", nil
	b.Box = Box{Style: "score-list", Pieces: []Scored{
		{ID: "1", Name: "base", Is: "tray", Width: "9 in", Height: "7 1/2 in", Across: "2, 7", Down: "2, 5 1/2"},
		{ID: "2", Name: "lid", Is: "lid", Width: "6 9/16 in", Height: "5 1/16 in", Across: "3/4 both", Down: "3/4 both"},
	}, Stated: &Size{}}
	return b
}

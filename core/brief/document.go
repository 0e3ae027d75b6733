package brief

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strconv"
	"strings"

	"brevium/core/paths"
)

// Version is the document format's number.
const Version = 1

// Limit is the largest document that is read or written, in bytes.
const Limit = 256 << 10

// The most that a document lists, beyond what any box could be made of: more is
// refused when it is read, so that nothing after has to reckon with it.
const (
	mostThings  = 100
	mostPieces  = 100
	mostPlaces  = 2000
	mostPins    = 400
	mostOptions = 64
	mostOwn     = 24
)

// Decode reads a document. Every error says what is wrong and what would put
// it right; nothing is guessed and no unknown field is dropped.
func Decode(data []byte) (Brief, error) {
	b, err := Stored(data)
	if err == nil {
		err = b.Check()
	}
	return b, err
}

// Stored is Decode for a document that was checked when it was written.
func Stored(data []byte) (Brief, error) {
	if len(data) > Limit {
		return Brief{}, fmt.Errorf("this document is larger than %d kB; a project is never that large", Limit>>10)
	}
	var head struct{ Brevium *int }
	if err := json.Unmarshal(data, &head); err != nil || head.Brevium == nil {
		return Brief{}, fmt.Errorf("this is not a Brevium project: it should be JSON and begin {\"brevium\": %d, ...}%s",
			Version, detail(err))
	}
	if *head.Brevium != Version {
		return Brief{}, fmt.Errorf("this project is of format %d and this Brevium reads format %d; use a newer Brevium",
			*head.Brevium, Version)
	}
	if err := twice(data); err != nil {
		return Brief{}, err
	}
	b := silent(data)
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&b); err != nil {
		return Brief{}, fmt.Errorf("this project can't be read%s; see docs/format.md for what it may hold", detail(err))
	}
	b.identify()
	b.identifySet()
	return b, b.checkCounts()
}

func detail(err error) string {
	if err == nil {
		return ""
	}
	return " (" + strings.TrimPrefix(err.Error(), "json: ") + ")"
}

// Check says why a brief can't be written as a document that is readable again:
// it lists too much, holds too long a text, or is too large in all.
func (b *Brief) Check() error {
	if err := b.checkCounts(); err != nil {
		return err
	}
	if err := b.checkSet(); err != nil {
		return err
	}
	for path, text := range b.All() {
		if why := TooLong(path, text); why != "" {
			return errors.New(why)
		}
	}
	if n := len(b.Encode()); n > Limit {
		return fmt.Errorf("this project would be %d kB when written; it may be %d kB", n>>10, Limit>>10)
	}
	return nil
}

// checkCounts says what there is too much of, and which identity is no use.
func (b *Brief) checkCounts() error {
	for _, l := range []struct {
		what    string
		n, most int
	}{
		{"places", len(b.Arrange.Places), mostPlaces}, {"options", len(b.Box.Options), mostOptions},
		{"pins", len(b.Sheets.Pins), mostPins},
		{"cards for parts", len(b.Card.Stocks), mostOwn}, {"cards of its own", len(b.Card.Own), mostOwn},
	} {
		if l.n > l.most {
			return fmt.Errorf("this project lists %d %s; the most is %d", l.n, l.what, l.most)
		}
	}
	for _, l := range b.lists() {
		if len(l.ids) > l.most {
			return fmt.Errorf("this project lists %d %s; the most is %d", len(l.ids), l.what, l.most)
		}
		seen := map[string]bool{}
		for _, id := range l.ids {
			if len(*id) > mostID || strings.HasPrefix(l.path, "dress.") && strings.ContainsAny(*id, ".@") || seen[*id] {
				return fmt.Errorf("the identity %.20q among the %s is too long, has a dot in it, or stands there twice; leave it out",
					*id, l.what)
			}
			seen[*id] = true
		}
	}
	for i, c := range b.Card.Own {
		if c.ID == "" || len(c.ID) > 2*mostID || strings.ContainsAny(c.ID, ".@") ||
			slices.ContainsFunc(b.Card.Own[:i], func(o Stock) bool { return o.ID == c.ID }) {
			return fmt.Errorf("the identity %.20q of a card is missing, too long, or stands there twice", c.ID)
		}
	}
	return nil
}

// Placed gives a path with the place of each list member in it where it has an identity:
// "dress.layers.@k3.border" is "dress.layers.0.border". Problems go by places.
func (b *Brief) Placed(path string) string {
	for _, l := range b.lists() {
		rest, ok := strings.CutPrefix(path, l.path+".@")
		if !ok {
			continue
		}
		id, rest, _ := strings.Cut(rest, ".")
		for i, own := range l.ids {
			if *own == id {
				return fmt.Sprintf("%s.%d.%s", l.path, i, rest)
			}
		}
	}
	return path
}

// lists gives every list whose members are known by an identity that is filled in where it is left out.
func (b *Brief) lists() []listed {
	things := ids("contents", "things", b.Contents, func(x *Item) *string { return &x.ID })
	pieces := ids("box.pieces", "pieces", b.Box.Pieces, func(x *Scored) *string { return &x.ID })
	things.most, pieces.most = mostThings, mostPieces
	return append([]listed{things, pieces}, b.Dress.lists()...)
}

// mostID is how long an identity may be.
const mostID = 24

// identify gives every member of a list that has no identity one: its number in the list, or the next that is free.
func (b *Brief) identify() {
	for _, l := range b.lists() {
		taken := map[string]bool{}
		for _, id := range l.ids {
			taken[*id] = true
		}
		for i, id := range l.ids {
			for n := i + 1; *id == ""; n++ {
				if next := strconv.Itoa(n); !taken[next] {
					*id, taken[next] = next, true
				}
			}
		}
	}
}

// twice finds a name that stands twice in one object. Of such a pair the second would silently win.
func twice(data []byte) error {
	dec := json.NewDecoder(bytes.NewReader(data))
	var in []map[string]bool // the names of each object that is open, nil for a list
	name := false            // whether a name is due
	for {
		tok, err := dec.Token()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return fmt.Errorf("this project can't be read%s", detail(err))
		}
		open := len(in) > 0 && in[len(in)-1] != nil
		switch t := tok.(type) {
		case json.Delim:
			switch t {
			case '{':
				in, name = append(in, map[string]bool{}), true
			case '[':
				in, name = append(in, nil), false
			default:
				in = in[:len(in)-1]
				name = len(in) > 0 && in[len(in)-1] != nil
			}
			continue
		case string:
			if open && name {
				// Names are matched without regard to capitals, so they are counted so.
				key := strings.ToLower(t)
				if in[len(in)-1][key] {
					return fmt.Errorf("%q stands twice in this project; take one of them out", t)
				}
				in[len(in)-1][key], name = true, false
				continue
			}
		}
		name = open
	}
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
		b.Contents = slices.Repeat([]Item{{Shape: "block", Count: "1"}}, min(len(said.Contents), mostThings+1))
	}
	return b
}

// Encode writes the document. Decoding what it writes gives b again, and encoding that gives the same bytes.
func (b Brief) Encode() []byte { return Encoded(b) }

// Encoded writes a document of texts, numbers and lists of them in the one form that documents have.
func Encoded(document any) []byte {
	var out bytes.Buffer
	enc := json.NewEncoder(&out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	if err := enc.Encode(document); err != nil {
		panic(err) // strings, numbers and maps of strings always encode
	}
	return out.Bytes()
}

// All gives every field that can be set, with its text, in the order of the
// table and then of the options. Things and pieces go by their identities.
func (b *Brief) All() func(yield func(path, text string) bool) {
	return func(yield func(path, text string) bool) {
		for _, f := range Table {
			before, after, many := strings.Cut(f.Path, "*")
			if !many {
				if !yield(f.Path, b.Get(f.Path)) {
					return
				}
				continue
			}
			n := paths.Len(b, strings.TrimSuffix(before, "."))
			for i := range n {
				path := before + strconv.Itoa(i) + after
				if !yield(path, b.Get(path)) {
					return
				}
			}
		}
		for _, part := range []struct {
			path string
			of   Options
		}{{"box.options.", b.Box.Options}, {"card.stocks.", b.Card.Stocks}} {
			for _, id := range slices.Sorted(maps.Keys(part.of)) {
				if !yield(part.path+id, string(part.of[id])) {
					return
				}
			}
		}
	}
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

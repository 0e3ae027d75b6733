package brief

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"strconv"

	"brevium/core/document"
)

// Set makes a project of several boxes. What the document itself says holds for all of them; each box of the list
// says what it has of its own, group by group: the same as the first, but ...
type Set struct {
	Name   Text     `json:"name,omitempty"`   // the project's; it stands here only where a box stands alone
	Kind   Text     `json:"kind"`             // companions, stack, nest or cluster
	Copies Whole    `json:"copies,omitempty"` // how many sets; left out, as many as the document's copies
	Step   Text     `json:"step,omitempty"`   // of a stack: how much smaller each is than the one below it
	Boxes  []Member `json:"boxes,omitempty"`
}

// Member is one box of a set, with the keys of a project. A group that is left out is as the document says for all;
// so is, of card and tools, a field, and of a box that names no style an answer.
type Member struct {
	ID       string   `json:"id,omitempty"`
	Brevium  int      `json:"brevium,omitempty"`
	Name     Text     `json:"name,omitempty"`
	Units    Text     `json:"units,omitempty"`
	Copies   Whole    `json:"copies,omitempty"` // of this box in every set
	Contents *[]Item  `json:"contents,omitempty"`
	Room     *Room    `json:"room,omitempty"`
	Arrange  *Arrange `json:"arrange,omitempty"`
	Size     *Size    `json:"size,omitempty"`
	Box      *Box     `json:"box,omitempty"`
	Card     *Card    `json:"card,omitempty"`
	Dress    *Dress   `json:"dress,omitempty"`
	Tools    *Tools   `json:"tools,omitempty"`
	Notes    Text     `json:"notes,omitempty"`
}

// mostBoxes is how many boxes a set has at the most.
const mostBoxes = 12

// IsSet reports whether the project is of several boxes.
func (b *Brief) IsSet() bool { return b.Several != nil && len(b.Several.Boxes) > 0 }

// Own reports whether a box has a size or contents of its own.
func (m Member) Own() bool { return m.Size != nil || m.Contents != nil }

// Called is the name of the nth box of a set, from 0.
func (s *Set) Called(n int) string {
	if name := string(s.Boxes[n].Name); name != "" {
		return name
	}
	return fmt.Sprintf("box %d", n+1)
}

// At finds a box of the set by its identity, -1 when it is not there.
func (s *Set) At(id string) int {
	if s == nil {
		return -1
	}
	return slices.IndexFunc(s.Boxes, func(m Member) bool { return m.ID == id })
}

// Member gives the nth box of a set as a document of its own. What is asked of the
// set as a whole stands in it too, without its boxes.
func (b Brief) Member(n int) Brief {
	out, m := b.Clone(), document.Clone(b.Several.Boxes[n])
	out.Several = &Set{Name: b.Name, Kind: b.Several.Kind, Copies: b.Several.Copies, Step: b.Several.Step}
	out.Name, out.Notes, out.Copies = Text(b.Several.Called(n)), m.Notes, "1"
	if m.Copies != "" {
		out.Copies = m.Copies
	}
	if m.Units != "" {
		out.Units = m.Units
	}
	if m.Own() {
		out.Contents, out.Size, out.Arrange = nil, m.Size, Arrange{}
		if m.Contents != nil {
			out.Contents = *m.Contents
		}
	}
	if m.Room != nil {
		out.Room = *m.Room
	}
	if m.Arrange != nil {
		out.Arrange = *m.Arrange
	}
	if m.Card != nil {
		over(&out.Card, m.Card)
	}
	if m.Tools != nil {
		over(&out.Tools, m.Tools)
	}
	if m.Dress != nil {
		out.Dress = *m.Dress
	}
	if m.Box == nil {
		return out
	}
	if m.Box.Style != "" {
		out.Box = *m.Box
		return out
	}
	for id, answer := range m.Box.Options {
		out.Set("box.options."+id, string(answer))
	}
	return out
}

// over lays what is said of a part over another of its kind.
func over[T any](whole, said *T) {
	to, from := reflect.ValueOf(whole).Elem(), reflect.ValueOf(said).Elem()
	for i := range to.NumField() {
		if !from.Field(i).IsZero() {
			to.Field(i).Set(from.Field(i))
		}
	}
}

// SetMember takes a changed box back into its set. What is the same as for all is
// not said again; what the first has in common with all, it says for all.
func (b *Brief) SetMember(n int, m Brief) {
	m = m.Clone()
	b.Name = m.Several.Name
	b.Several.Kind, b.Several.Copies, b.Several.Step = m.Several.Kind, m.Several.Copies, m.Several.Step
	own, first := &b.Several.Boxes[n], n == 0
	if m.Name != Text(b.Several.Called(n)) {
		own.Name = m.Name
	}
	own.Notes, b.Sheets = m.Notes, m.Sheets
	if m.Copies != "1" || own.Copies != "" {
		own.Copies = m.Copies
	}
	if own.Units != "" {
		own.Units = m.Units
	} else {
		b.Units = m.Units
	}
	switch {
	case first && !own.Own():
		b.Contents, b.Size = m.Contents, m.Size
	case reflect.DeepEqual(m.Contents, b.Contents) && reflect.DeepEqual(m.Size, b.Size):
		own.Contents, own.Size = nil, nil
	default:
		if own.Size, own.Contents = m.Size, nil; len(m.Contents) > 0 || m.Size == nil {
			own.Contents = &m.Contents
		}
	}
	if own.Own() { // how they lie is a matter of what they are
		own.Arrange = &m.Arrange
		if reflect.DeepEqual(m.Arrange, Arrange{}) {
			own.Arrange = nil
		}
	} else {
		share(first, &b.Arrange, &own.Arrange, m.Arrange)
	}
	share(first, &b.Room, &own.Room, m.Room)
	share(first, &b.Box, &own.Box, m.Box)
	share(first, &b.Card, &own.Card, m.Card)
	share(first, &b.Tools, &own.Tools, m.Tools)
	share(first, &b.Dress, &own.Dress, m.Dress)
}

// share keeps a part where it belongs: with what holds for all, or with the box's own.
func share[T any](first bool, all *T, own **T, now T) {
	switch {
	case first && *own == nil:
		*all = now
	case reflect.DeepEqual(*all, now):
		*own = nil
	default:
		*own = &now
	}
}

// AddMember adds a box to a set, and begins the set when there is none yet: what
// the document says becomes its first box. It gives the box's identity.
func (b *Brief) AddMember() string {
	if b.Several == nil {
		b.Several = &Set{Kind: "companions", Boxes: []Member{{ID: "1"}}}
	}
	id := ""
	for n := len(b.Several.Boxes) + 1; id == "" || b.Several.At(id) >= 0; n++ {
		id = strconv.Itoa(n)
	}
	b.Several.Boxes = append(b.Several.Boxes, Member{ID: id})
	return id
}

// RemoveMember takes a box out of a set: the others are what they were. When one is left it is a project again.
func (b *Brief) RemoveMember(n int) {
	if len(b.Several.Boxes) > 1 { // the only one stays what the project is
		b.Several.Boxes = slices.Delete(b.Several.Boxes, n, n+1)
	}
	if len(b.Several.Boxes) == 1 {
		last := b.Member(0)
		if sets := cmp.Or(b.Several.Copies, b.Copies, "1"); last.Copies == "1" {
			last.Copies = sets
		} else if n, err := strconv.Atoi(string(last.Copies)); err == nil { // of it in each set
			if k, err := strconv.Atoi(string(sets)); err == nil {
				last.Copies = Whole(strconv.Itoa(n * k))
			}
		}
		last.Name, last.Several = b.Name, nil
		*b = last
	}
}

// member states the lists of a box of a set.
var member = document.New(document.Form[Member]{Name: "box", Lists: Form.Lists})

// Settle gives the boxes of a set, and their things, identities.
func (b *Brief) Settle() {
	if b.Several == nil {
		return
	}
	if len(b.Several.Boxes) == 0 { // a set of nothing is none
		b.Several = nil
		return
	}
	if b.Several.Name != "" {
		b.Name, b.Several.Name = b.Several.Name, ""
	}
	for i := range b.Several.Boxes {
		m := &b.Several.Boxes[i]
		if m.ID == "" {
			for n := i + 1; m.ID == "" || b.Several.At(m.ID) != i; n++ {
				m.ID = strconv.Itoa(n)
			}
		}
		member.Identify(m)
	}
}

// checkSet says what a set has too much of.
func (b *Brief) checkSet() error {
	if b.Several == nil || len(b.Several.Boxes) == 0 {
		return nil
	}
	if n := len(b.Several.Boxes); n > mostBoxes {
		return fmt.Errorf("this set has %d boxes, and a set takes %d", n, mostBoxes)
	}
	for i := range b.Several.Boxes {
		if id := b.Several.Boxes[i].ID; len(id) > 24 || b.Several.At(id) != i {
			return fmt.Errorf("the id %.20q of a box is too long or used twice; leave it out", id)
		}
		m := b.Member(i)
		m.Several = nil
		if err := m.Check(); err != nil {
			return fmt.Errorf("%s: %w", b.Several.Called(i), err)
		}
	}
	return nil
}

package web

import (
	"context"
	"fmt"
	"html/template"
	"reflect"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/style"
	"brevium/draw"
	"brevium/store"
)

// A project may be a set of boxes. A page is about one of them, which the address
// names; what is typed there is laid on that box as if it were a project, and then
// taken back into the set.

// made is what a document comes to: a plan, and of a set the whole.
type made struct {
	plan *plan.Plan // of the box a page is about
	set  *sets.Set
	n    int // which box of the set it is
}

// make plans a document; box names the box of a set that is meant, the first when
// there is none so called.
func (s *Server) make(b brief.Brief, box string) made { return s.makeIn(s.workshop(), b, box) }

// makeIn is make in a given workshop.
func (s *Server) makeIn(w request.Workshop, b brief.Brief, box string) made {
	if !b.IsSet() {
		return made{plan: s.cutAsAsked(advice.Make(b, w))}
	}
	n := max(0, b.Several.At(box))
	set := s.cutSetAsAsked(sets.MakeFor(b, n, w))
	return made{set.Plans[n], set, n}
}

// job is all that is made, and whether there is a plan of all of it.
func (m made) job() (j sets.Job, ok bool) {
	switch {
	case m.set != nil && m.set.OK():
		return m.set.Job(), true
	case m.set == nil && m.plan.OK():
		return sets.JobOf(m.plan), true
	}
	return j, false
}

// card tells it as lists do.
func (m made) card() store.Summary {
	if m.set == nil || !m.set.OK() {
		return cardOf(m.plan)
	}
	return cardOfSet(m.set)
}

// picture draws it as lists do; "" when there is nothing to draw.
func (m made) picture(w, h float64) string {
	switch {
	case m.set != nil && m.set.OK():
		return draw.SetFolded(m.set, float64(len(m.set.Plans)), draw.DefaultView, w, h)
	case m.plan.OK():
		return draw.Made(m.plan, 1, w, h)
	}
	return ""
}

// member gives one box of a set as a project of its own.
func (s *Server) member(b brief.Brief, box string) (brief.Brief, int) {
	n := max(0, b.Several.At(box))
	return sets.Member(b.Clone(), n, s.workshop()), n
}

// one gives the document of the box a page is about: the project itself, or one of
// its set.
func (s *Server) one(b brief.Brief, box string) brief.Brief {
	if b.IsSet() {
		b, _ = s.member(b, box)
	}
	return b
}

// taken takes a box that was changed back into its set. What followed from the
// others and was left so follows from them still.
func taken(whole brief.Brief, n int, was, now brief.Brief) brief.Brief {
	said := whole.Member(n)
	if reflect.DeepEqual(was.Contents, now.Contents) && reflect.DeepEqual(was.Size, now.Size) {
		now.Contents, now.Size = said.Contents, said.Size
		if reflect.DeepEqual(was.Arrange, now.Arrange) {
			now.Arrange = said.Arrange
		}
	}
	if was.Room == now.Room {
		now.Room = said.Room
	}
	out := whole.Clone()
	out.SetMember(n, now)
	return out
}

// card tells the project as lists do.
func (st *state) card() store.Summary {
	if st.Set != nil && st.Set.OK() {
		return cardOfSet(st.Set.Set)
	}
	return cardOf(st.Plan)
}

// shownSet is the set as the page shows it.
type shownSet struct {
	*sets.Set
	Boxes []shownBox
	Here  string // the box the page is about
	Whole bool   // all of them are looked at
}

type shownBox struct {
	ID, Name, State string
	Here            bool
}

// laid is the sheets of one card, drawn to be printed.
type laid struct {
	Says    string
	Picture template.HTML
}

// Layout draws the sheets of the whole set.
func (s *shownSet) Layout() (out []laid) {
	for _, l := range s.Layouts {
		p := *l.Of
		p.Layout, p.Cuts = l.Layout, nil
		out = append(out, laid{fmt.Sprintf("%d of %s: %s", len(l.Sheets), l.Sheet.Title, l.Card.Title),
			template.HTML(draw.Sheets(&p, tableW, tableH, 12))})
	}
	return out
}

func newShownSet(set *sets.Set, here string) *shownSet {
	out := &shownSet{Set: set, Here: here}
	for i, m := range set.Brief.Several.Boxes {
		state := "settled"
		switch p := set.Plans[i]; {
		case !p.OK(), !p.Holds():
			state = "trouble"
		}
		out.Boxes = append(out.Boxes, shownBox{m.ID, set.Names[i], state, m.ID == here})
	}
	return out
}

// setGroup asks how the boxes of a set belong together.
func (f boxForm) setGroup() group {
	kinds := make([]style.Choice, 0, len(sets.Kinds))
	for _, k := range sets.Kinds {
		kinds = append(kinds, style.Choice{ID: k.ID, Label: k.Title, Why: k.Why})
	}
	g := group{Title: "The set", Fields: []field{f.ask("set.name"), f.buttons("set.kind", kinds)}}
	if f.b.Get("set.kind") == "stack" {
		g.Fields = append(g.Fields, f.open("set.step", ""))
	}
	named := f.ask("name")
	named.Label = "Name of this box"
	g.Fields = append(g.Fields, f.open("set.copies", "1"), named)
	return g
}

// addBox adds a box to the set, and begins the set when there is none yet.
func (s *Server) addBox(_ context.Context, c *changing[brief.Brief]) error {
	c.after = func(e *edited[brief.Brief]) {
		e.part = e.doc.AddMember()
		e.focus = "box-" + e.part
	}
	return nil
}

// removeBox takes a box out of the set.
func (s *Server) removeBox(_ context.Context, c *changing[brief.Brief]) error {
	box := c.arg
	c.after = func(e *edited[brief.Brief]) {
		n := e.doc.Several.At(box)
		if n < 0 {
			e.notice = "That box was taken out already, in another window."
			return
		}
		e.doc.RemoveMember(n)
		if e.part = ""; e.doc.IsSet() {
			e.part = e.doc.Several.Boxes[max(0, n-1)].ID
			e.focus = "box-" + e.part
		}
	}
	return nil
}

package workbench

import (
	"context"
	"fmt"
	"html/template"
	"reflect"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/draw"
	"brevium/web/desk"
)

// A project may be a set of boxes. A page is about one of them, which the address
// names; what is typed there is laid on that box as if it were a project, and then
// taken back into the set.

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
			template.HTML(draw.Sheets(&p, TableW, TableH, 12))})
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

// addBox adds a box to the set, and begins the set when there is none yet.
func addBox(_ context.Context, c *pressed) error {
	c.After = func(e *desk.Edited[brief.Brief]) {
		e.Part = e.Doc.AddMember()
		e.Focus = "box-" + e.Part
	}
	return nil
}

// removeBox takes a box out of the set.
func removeBox(_ context.Context, c *pressed) error {
	box := c.Arg
	c.After = func(e *desk.Edited[brief.Brief]) {
		n := e.Doc.Several.At(box)
		if n < 0 {
			e.Notice = "That box is gone. Someone removed it in another window."
			return
		}
		e.Doc.RemoveMember(n)
		if e.Part = ""; e.Doc.IsSet() {
			e.Part = e.Doc.Several.Boxes[max(0, n-1)].ID
			e.Focus = "box-" + e.Part
		}
	}
	return nil
}

// member gives one box of a set as a project of its own.
func member(w request.Workshop, b brief.Brief, box string) (brief.Brief, int) {
	n := max(0, b.Several.At(box))
	return sets.Member(b.Clone(), n, w), n
}

// one gives the document of the box a page is about: the project itself, or one of
// its set.
func one(w request.Workshop, b brief.Brief, box string) brief.Brief {
	if b.IsSet() {
		b, _ = member(w, b, box)
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

package workbench

import (
	"context"
	"net/http"
	"reflect"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/questions"
)

// Boxes is what the engine needs to know to change boxes: a page is about a box or, of a set, about one of its boxes,
// which the address names. A box is planned before it is kept, and how lists show it is kept with it.
func (s *Room) Boxes(c *echo.Context) desk.Kind[brief.Brief] {
	box, ctx := c.QueryParam("box"), c.Request().Context()
	was := (*brief.Brief)(nil)
	return desk.Kind[brief.Brief]{
		Kept: s.Store.Boxes, Form: brief.Form, Known: known, Written: AsStored, Nudged: Nudged, Act: s.actBox,
		Of:   func(c *echo.Context) (string, string) { return c.Param("id"), box },
		View: func(b brief.Brief) brief.Brief { return one(s.Workshop(ctx), b, box) },
		Settle: func(ctx context.Context, c *desk.Changing[brief.Brief]) error {
			w := s.Workshop(ctx)
			follow(w, &c.Doc, &c.Head.Doc)
			told := c.Doc
			if followName(&c.Doc, &c.Head.Doc) {
				told.Name = c.Head.Doc.Name
			}
			c.What = Describe(&c.Head.Doc, &told, w, c.Values.Get("act"))
			return nil
		},
		Wrap: func(head *store.Project, do desk.Making[brief.Brief]) (desk.Edited[brief.Brief], error) {
			was = nil
			e, err := editOne(s.Workshop(ctx), *head, box, c.FormValue("to-all") == "yes", do)
			e.Also = func(rev *int64) []store.Write {
				was = &head.Doc
				return []store.Write{store.KeepingCard(head.Of, rev, s.Program(ctx), s.Make(ctx, e.Doc, e.Part).Card())}
			}
			return e, err
		},
		Show: func(c *echo.Context, code int, head store.Project, e desk.Edited[brief.Brief]) error {
			st, err := s.changed(c, head, e, was)
			if err != nil {
				return err
			}
			return s.Show(c, code, st)
		},
		At: func(c *echo.Context, id, box string) string {
			v := viewOf(c)
			v.Box = box
			return "/projects/" + id + v.With()
		},
		Busy: "This box is being changed in another window, so this was not saved. Try again.",
	}
}

// editOne edits a project, or the one box of a set that a page is about; or what changes there, in all boxes of the set.
func editOne(w request.Workshop, head store.Project, box string, all bool, do desk.Making[brief.Brief]) (desk.Edited[brief.Brief],
	error) {
	own, n := head, -1
	if head.Doc.IsSet() {
		own.Doc, n = member(w, head.Doc, box)
	}
	e, err := do(&own)
	if err != nil {
		return e, err
	}
	if e.Part = box; n >= 0 {
		if e.What != "" {
			e.What = words.Capital(head.Doc.Several.Called(n)) + ": " + words.Small(e.What)
		}
		changed := e.Doc
		if e.Doc = taken(head.Doc, n, own.Doc, e.Doc); all {
			e.Doc = inEvery(w, e.Doc, n, own.Doc, changed)
		}
	}
	if e.After != nil {
		e.After(&e)
	}
	return e, nil
}

// inEvery makes the change from was to now, of box n, in the other boxes of a set, as far as they have such fields.
func inEvery(w request.Workshop, set brief.Brief, n int, was, now brief.Brief) brief.Brief {
	for i, m := range set.Several.Boxes {
		if i == n {
			continue
		}
		own, at := member(w, set, m.ID)
		changed := own.Clone()
		for path, text := range now.All() {
			if !strings.HasPrefix(path, "contents.") && was.Get(path) != text {
				changed.Set(path, text)
			}
		}
		set = taken(set, at, own, changed)
	}
	return set
}

// sizeOf writes the size a brief's contents came to, as a size to go on from;
// an empty one when they come to none.
func sizeOf(b *brief.Brief, w request.Workshop) *brief.Size {
	asked := b.Clone()
	asked.Size = nil
	p := plan.Make(asked, w)
	if !p.OK() {
		return &brief.Size{}
	}
	d := p.Box.Size
	text := func(l measure.Length) brief.Text { return brief.Text(l.Exact(p.Units)) }
	return &brief.Size{Length: text(d.Length), Width: text(d.Width), Depth: text(d.Depth)}
}

// follow changes what hangs on another field: tools go with the units, unless
// they were set in the same change; a style chosen in place of a list of scores
// is made at the size the list came to.
func follow(w request.Workshop, out, was *brief.Brief) {
	if out.Box.Style != was.Box.Style {
		dropOptions(out)
		if questions.Typed(was) && !questions.Typed(out) && len(out.Contents) == 0 && out.Size == nil {
			out.Size = sizeOf(was, w)
		}
	}
	if out.Box.Style != was.Box.Style {
		followDress(w, out)
	}
	followCard(w, out, was)
	if out.Units == was.Units || out.Tools.Step != was.Tools.Step {
		return
	}
	if u := measure.Unit(out.Units); u == measure.Inches || u == measure.Millimetres || u == measure.Centimetres {
		if fresh(was) && reflect.DeepEqual(was.Card, w.Begin(brief.Blank(string(was.Units))).Card) {
			out.Card = w.Begin(brief.Blank(string(out.Units))).Card // nothing hangs on it yet
		}
		out.Tools.Step = w.Begin(brief.Blank(string(u))).Tools.Step
	}
}

// followName calls a box that nobody has named by the first thing that goes in, and reports whether it did.
func followName(out, was *brief.Brief) bool {
	if out.Name != was.Name || out.Name != unnamed && out.Name != thingName(was) {
		return false
	}
	out.Name = thingName(out)
	return out.Name != was.Name
}

// unnamed is what a box is called before anything is known of it.
const unnamed = "New box"

// thingName calls a box by the first thing that goes in.
func thingName(b *brief.Brief) brief.Text {
	if len(b.Contents) == 0 {
		return unnamed
	}
	if name := strings.TrimSpace(string(b.Contents[0].Name)); name != "" && name != "thing" {
		return brief.Text(words.Capital(words.Cut(name, 60)))
	}
	return unnamed
}

// mostFollowed is how many things of the dressing are put elsewhere on another style.
const mostFollowed = 8

// followDress puts what dressed panels that another style has not where it may be.
func followDress(w request.Workshop, b *brief.Brief) {
	for range mostFollowed {
		p := advice.Make(*b, w)
		i := slices.IndexFunc(p.Problems, func(pr brief.Problem) bool {
			return strings.HasPrefix(pr.Field, "dress.") && len(pr.Set) > 0
		})
		if i < 0 {
			return
		}
		for path, text := range p.Problems[i].Set.All() {
			b.Set(path, text)
		}
	}
}

// followCard chooses a sheet that a card comes in, when another card was chosen and
// comes in other sheets.
func followCard(w request.Workshop, out, was *brief.Brief) {
	if out.Card.Stock == was.Card.Stock || out.Card.Sheet != was.Card.Sheet || out.Card.Sheet == request.Least {
		return
	}
	c, ok := w.Card(string(out.Card.Stock))
	comes := w.Comes(c)
	if ok && len(c.Sheets) > 0 && !slices.ContainsFunc(comes, func(t shop.Sheet) bool { return t.ID == string(out.Card.Sheet) }) {
		out.Card.Sheet = brief.Text(comes[0].ID)
	}
}

// dropOptions takes out answers to questions that the style does not ask.
func dropOptions(b *brief.Brief) {
	own := style.Find(string(b.Box.Style))
	if own == nil {
		return
	}
	for id := range b.Box.Options {
		if !slices.ContainsFunc(own.Asks, func(o style.Question) bool { return o.ID == id }) {
			b.Set("box.options."+id, "")
		}
	}
}

// Answer shows the workbench after something that changed no field of the box, or goes back to it where no script runs
// and there is nothing to tell.
func (s *Room) Answer(c *echo.Context, code int, st *State) error {
	if desk.IsScript(c) {
		return s.Show(c, http.StatusOK, st)
	}
	if len(st.Conflicts) > 0 || st.Notice != "" {
		return s.Show(c, code, st)
	}
	v := viewOf(c)
	if v.Box = ""; st.Set != nil {
		v.Box = st.Set.Here
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+v.With())
}

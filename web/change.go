package web

import (
	"context"
	"errors"
	"net/http"
	"net/url"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/store"
)

// change lays what was typed on to the project. The form says which revision
// it was made on; what another window changed since then is kept, and where
// both changed one field the newest stands and both are shown.
func (s *Server) change(c *echo.Context) error {
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	box := c.QueryParam("box")
	st, err := s.edit(c, func(head store.Project) (edited, error) {
		return s.merged(c.Request().Context(), head, values, box)
	})
	if err != nil {
		return err
	}
	code := http.StatusOK
	if len(st.Conflicts) > 0 {
		code = http.StatusConflict
	}
	return s.answer(c, code, st)
}

// edited is what a request makes of a project.
type edited struct {
	brief     brief.Brief
	what      string // in words, for the record
	conflicts []document.Conflict
	notice    string        // what could not be done, or was done elsewhere
	focus     string        // the mark of what the hand goes to next
	base      int64         // the revision that the window showed
	box       string        // of a set: which box the page is about
	after     func(*edited) // what is done to the whole set then
}

// edit changes a project: it asks what is to be made of the newest brief, plans
// it and keeps it, and starts over when another program changed it in between.
func (s *Server) edit(c *echo.Context, do func(head store.Project) (edited, error)) (*state, error) {
	ctx, id, change := c.Request().Context(), c.Param("id"), changeID(c)
	end, err := s.turns.take(ctx, id)
	if err != nil {
		return nil, err
	}
	defer end()
	for range 8 {
		head, err := s.store.Head(ctx, id)
		if err != nil {
			return nil, err
		}
		if change != "" {
			if before, err := s.store.Arrived(ctx, change); before || err != nil {
				return s.stateAfter(c, edited{}, err)
			}
		}
		e, err := s.editOne(head, c.QueryParam("box"), do)
		if err != nil {
			return nil, err
		}
		if string(e.brief.Encode()) == string(head.Brief.Encode()) {
			return s.stateOf(ctx, head, e)
		}
		st, err := s.save(ctx, head, e, c.FormValue("burst"), change)
		if errors.Is(err, store.ErrMoved) {
			continue // merge with what they did
		}
		if errors.Is(err, store.ErrArrived) {
			return s.stateAfter(c, edited{}, nil)
		}
		return st, err
	}
	return nil, echo.NewHTTPError(http.StatusConflict, "Other windows keep changing this box, so this was not kept. Try "+
		"again.")
}

// editOne edits a project, or the one box of a set that a page is about.
func (s *Server) editOne(head store.Project, box string, do func(head store.Project) (edited, error)) (edited, error) {
	own, n := head, -1
	if head.Brief.IsSet() {
		own.Brief, n = s.member(head.Brief, box)
	}
	e, err := do(own)
	if err != nil {
		return e, err
	}
	if e.box = box; n >= 0 {
		if e.what != "" {
			e.what = words.Capital(head.Brief.Several.Called(n)) + ": " + words.Small(e.what)
		}
		e.brief = taken(head.Brief, n, own.Brief, e.brief)
	}
	if e.after != nil {
		e.after(&e)
	}
	return e, nil
}

// longestBurst bounds what a window may call its changes.
const longestBurst = 80

// changeID is the name a window gave the change it sends.
func changeID(c *echo.Context) string {
	id := c.FormValue("change")
	return id[:min(len(id), longestBurst)]
}

// save plans a brief and keeps it on top of the revision it was made of.
func (s *Server) save(ctx context.Context, head store.Project, e edited, burst, change string) (*state, error) {
	m := s.make(e.brief, e.box)
	card := m.card()
	made, err := s.store.Save(ctx, head.Revision.Project, store.Change{Base: head.ID, Brief: e.brief, What: e.what,
		Burst: burst[:min(len(burst), longestBurst)], ID: change, Card: &card, Program: s.program()})
	if err != nil {
		return nil, err
	}
	now := head
	now.ID, now.Parent, now.Brief, now.What = made, head.ID, e.brief, e.what
	now.Made, now.Changed = time.Now(), time.Now()
	st := s.looked(now, m)
	st.Moved = s.moved(head.Brief, m.plan, e)
	return st, s.settle(ctx, st, e)
}

// merged lays typed fields on to the newest brief and does what a button asks.
func (s *Server) merged(ctx context.Context, head store.Project, values url.Values, box string) (edited, error) {
	seen, err := s.seen(ctx, head, values, box)
	if err != nil {
		return edited{}, err
	}
	typed, err := readForm(values, &seen, &head.Brief)
	if err != nil {
		return edited{}, err
	}
	out, conflicts := brief.Merge(head.Brief, typed)
	for _, nudge := range values["nudge"] {
		if conflict, ok := nudged(&out, nudge, values.Get("from")); !ok {
			conflicts = append(conflicts, conflict)
		}
	}
	for i, k := range conflicts {
		if at := strings.LastIndexByte(k.Field, '.'); k.Gone && at > 0 {
			conflicts[i].Theirs = seen.Get(k.Field[:at] + ".name")
		}
	}
	e := edited{brief: out, conflicts: conflicts}
	if slices.ContainsFunc(conflicts, func(k document.Conflict) bool { return k.Gone }) {
		e.focus = "conflict-0" // the field is not there any more
	}
	e.base, _ = strconv.ParseInt(values.Get("base"), 10, 64)
	if err := s.act(ctx, &e, &seen, values); err != nil {
		return e, err
	}
	s.follow(&e.brief, &head.Brief)
	e.what = describe(&head.Brief, &e.brief, s.workshop(), values.Get("act"))
	return e, nil
}

// seen gives the brief that the form was made from.
func (s *Server) seen(ctx context.Context, head store.Project, values url.Values, box string) (brief.Brief, error) {
	base, err := strconv.ParseInt(values.Get("base"), 10, 64)
	if err != nil || base == head.ID {
		return head.Brief, nil
	}
	rev, err := s.store.Revision(ctx, head.Revision.Project, base)
	if broken := new(store.Broken); errors.As(err, &broken) {
		return head.Brief, nil
	}
	if err == nil && rev.Brief.IsSet() {
		rev.Brief, _ = s.member(rev.Brief, box)
	}
	return rev.Brief, err
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
func (s *Server) follow(out, was *brief.Brief) {
	if out.Box.Style != was.Box.Style {
		dropOptions(out)
		if typed(was) && !typed(out) && len(out.Contents) == 0 && out.Size == nil {
			out.Size = sizeOf(was, s.workshop())
		}
	}
	if out.Box.Style != was.Box.Style {
		s.followDress(out)
	}
	s.followCard(out, was)
	if out.Units == was.Units || out.Tools.Step != was.Tools.Step {
		return
	}
	if u := measure.Unit(out.Units); u == measure.Inches || u == measure.Millimetres || u == measure.Centimetres {
		if fresh(was) && reflect.DeepEqual(was.Card, s.workshop().Begin(brief.Blank(string(was.Units))).Card) {
			out.Card = s.workshop().Begin(brief.Blank(string(out.Units))).Card // nothing hangs on it yet
		}
		out.Tools.Step = s.workshop().Begin(brief.Blank(string(u))).Tools.Step
	}
}

// mostFollowed is how many things of the dressing are put elsewhere on another style.
const mostFollowed = 8

// followDress puts what dressed panels that another style has not where it may be.
func (s *Server) followDress(b *brief.Brief) {
	for range mostFollowed {
		p := advice.Make(*b, s.workshop())
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
func (s *Server) followCard(out, was *brief.Brief) {
	if out.Card.Stock == was.Card.Stock || out.Card.Sheet != was.Card.Sheet || out.Card.Sheet == request.Least {
		return
	}
	c, ok := s.workshop().Card(string(out.Card.Stock))
	comes := s.workshop().Comes(c)
	if ok && len(c.Sheets) > 0 && !slices.ContainsFunc(comes, func(t shop.Sheet) bool { return t.ID == string(out.Card.Sheet) }) {
		out.Card.Sheet = brief.Text(comes[0].ID)
	}
}

// typed reports whether the project is a list of scores.
func typed(b *brief.Brief) bool {
	own := style.Find(string(b.Box.Style))
	return own != nil && own.Typed
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

// answer shows the workbench after a change, or goes back to it where no
// script runs and there is nothing to tell.
func (s *Server) answer(c *echo.Context, code int, st *state) error {
	if c.Request().Header.Get("HX-Request") == "true" {
		// htmx swaps only what succeeded; a conflict is shown like any answer.
		return s.show(c, http.StatusOK, st)
	}
	if len(st.Conflicts) > 0 || st.Notice != "" {
		return s.show(c, code, st)
	}
	v := viewOf(c)
	if v.Box = ""; st.Set != nil {
		v.Box = st.Set.Here
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+v.with())
}

func (s *Server) undo(c *echo.Context) error { return s.moveHead(c, s.store.Undo) }
func (s *Server) redo(c *echo.Context) error { return s.moveHead(c, s.store.Redo) }

func (s *Server) moveHead(c *echo.Context, move func(ctx context.Context, project, change string) (bool, error)) error {
	_, err := move(c.Request().Context(), c.Param("id"), changeID(c))
	if errors.Is(err, store.ErrArrived) {
		err = nil
	}
	st, err := s.stateAfter(c, edited{}, err)
	if err != nil {
		return err
	}
	s.keepCard(c.Request().Context(), st.Project, st.card())
	return s.answer(c, http.StatusOK, st)
}

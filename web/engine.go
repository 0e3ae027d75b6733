package web

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/document"
	"brevium/core/words"
	"brevium/store"
)

// One engine for all that is typed and pressed, whatever kind of document it changes: what a form holds is laid on the
// newest state, a button does its act, and both are kept as one change. Changes of one document take turns.

// kind is a kind of document as the pages change it.
type kind[D any] struct {
	*store.Kept[D]
	form    *document.Form[D]
	of      func(c *echo.Context) (id, part string) // which document a request is about, and which part of it
	known   func(path string) bool                  // whether a form may hold a field
	written func(path, text string, seen, head *D) string
	nudged  func(d *D, nudge, from string) (document.Conflict, bool)
	act     func(context.Context, *changing[D]) error
	says    func(was, now *D, act string) string      // what was done, in words
	view    func(whole D) D                           // the part of it that a page is about, as a document
	settle  func(context.Context, *changing[D]) error // what follows from what was typed and pressed
	wrap    func(head *store.Head[D], do making[D]) (edited[D], error)
	show    func(c *echo.Context, code int, head store.Head[D], e edited[D]) error
	at      func(c *echo.Context, id, part string) string // its address
	busy    string                                        // what is told when others keep changing it
}

// making says what is to be made of the newest state.
type making[D any] func(head *store.Head[D]) (edited[D], error)

// edited is what a request makes of a document.
type edited[D any] struct {
	doc       D
	what      string // in words, for the record
	conflicts []document.Conflict
	notice    string // what could not be done, or was done elsewhere
	foreign   *store.Foreign
	focus     string // the mark of what the hand goes to next
	base      int64  // the revision that the window showed
	part      string // which part of it the page is about: of a set a box, of the shop a card
	alone     bool   // it is undone by itself, whatever was pressed before it
	same      bool   // it is a change although the document stays what it was
	after     func(*edited[D])
	also      func(made *int64) []store.Write // what is done in the same commit, where the document is changed
	besides   []store.Write                   // and whether it is changed or not
}

// changing is what an act works on: the newest document with what was typed merged in, and the one that the page showed.
type changing[D any] struct {
	*edited[D]
	seen   *D
	head   *store.Head[D]
	act    string
	arg    string
	values url.Values
}

// longestBurst bounds what a window may call its changes.
const longestBurst = 80

func short(name string) string { return name[:min(len(name), longestBurst)] }

// actName is the name a window gave the act it sends.
func actName(c *echo.Context) string { return short(c.FormValue("sent-as")) }

// edit changes a document: it asks what is to be made of the newest state, keeps it, and starts over when another
// program changed it in between. An act that has arrived before changes nothing.
func edit[D any](s *Server, c *echo.Context, k kind[D], do making[D]) (store.Head[D], edited[D], error) {
	ctx, name := c.Request().Context(), actName(c)
	id, part := k.of(c)
	none := edited[D]{part: part}
	end, err := s.turns.take(ctx, id)
	if err != nil {
		return store.Head[D]{}, none, err
	}
	defer end()
	for range 8 {
		head, err := k.Head(ctx, id)
		if err != nil {
			return head, none, err
		}
		if name != "" {
			if before, err := s.store.Arrived(ctx, name); before || err != nil {
				return head, none, err
			}
		}
		e, err := k.make(&head, do)
		if err != nil {
			return head, e, err
		}
		parts, made := e.besides, int64(0)
		if e.same || string(k.form.Encode(e.doc)) != string(k.form.Encode(head.Doc)) {
			change := store.Change[D]{Base: head.ID, Doc: e.doc, What: e.what, Burst: burstOf(c, e.alone)}
			parts = append([]store.Write{k.Write(id, change, &made)}, parts...)
			if e.also != nil {
				parts = append(parts, e.also(&made)...)
			}
		}
		if len(parts) == 0 {
			return head, e, nil
		}
		switch err = s.store.Do(ctx, name, parts...); {
		case errors.Is(err, store.ErrMoved):
			continue // merge with what they did
		case errors.Is(err, store.ErrArrived):
			head, err = k.Head(ctx, id)
			return head, none, err
		case err != nil:
			return head, e, err
		}
		now, err := k.Head(ctx, id)
		return now, e, err
	}
	return store.Head[D]{}, none, echo.NewHTTPError(http.StatusConflict, k.busy)
}

// burstOf names the changes that are undone together: a window's, of one visit to a field. What is undone by itself is
// a burst of its own.
func burstOf(c *echo.Context, alone bool) string {
	burst := short(c.FormValue("burst"))
	if alone {
		window, _, _ := strings.Cut(burst, ":")
		burst = window + ":" + store.NewID()
	}
	return burst
}

func (k kind[D]) make(head *store.Head[D], do making[D]) (edited[D], error) {
	if k.wrap != nil {
		return k.wrap(head, do)
	}
	return do(head)
}

// keeps are the handlers that every kind has.
type keeps[D any] struct {
	s  *Server
	of func(*echo.Context) kind[D]
}

// change lays what a form holds on the newest state, and does what its button asks.
func (p keeps[D]) change(c *echo.Context) error {
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	k := p.of(c)
	head, e, err := edit(p.s, c, k, func(head *store.Head[D]) (edited[D], error) {
		return merged(c.Request().Context(), k, head, values)
	})
	return k.answer(c, head, e, err)
}

func (p keeps[D]) undo(c *echo.Context) error { return p.move(c, true) }
func (p keeps[D]) redo(c *echo.Context) error { return p.move(c, false) }

func (p keeps[D]) move(c *echo.Context, back bool) error {
	k := p.of(c)
	head, e, err := moveHead(c, k, back)
	return k.answer(c, head, e, err)
}

// page shows the newest state.
func (p keeps[D]) page(c *echo.Context) error {
	k := p.of(c)
	id, part := k.of(c)
	head, err := k.Head(c.Request().Context(), id)
	if errors.Is(err, store.ErrNone) {
		return echo.NewHTTPError(http.StatusNotFound, "There is no such "+k.form.Name+".")
	}
	if err != nil {
		return err
	}
	return k.show(c, http.StatusOK, head, edited[D]{part: part})
}

// throw throws a document away, or puts it back.
func (p keeps[D]) throw(away bool) echo.HandlerFunc {
	return func(c *echo.Context) error {
		k := p.of(c)
		id, part := k.of(c)
		if err := k.Throw(c.Request().Context(), id, away); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, k.at(c, id, part))
	}
}

// answer shows a document after something was done to it, or goes back to it where no script runs and there is nothing
// to tell.
func (k kind[D]) answer(c *echo.Context, head store.Head[D], e edited[D], err error) error {
	switch {
	case err != nil:
		return err
	case isScript(c): // htmx swaps only what succeeded; a conflict is shown like any answer
		return k.show(c, http.StatusOK, head, e)
	case len(e.conflicts) > 0:
		return k.show(c, http.StatusConflict, head, e)
	case e.notice != "" || e.foreign != nil:
		return k.show(c, http.StatusOK, head, e)
	}
	return c.Redirect(http.StatusSeeOther, k.at(c, head.Of, e.part))
}

// merged lays typed fields on the newest document and does what a button asks.
func merged[D any](ctx context.Context, k kind[D], head *store.Head[D], values url.Values) (edited[D], error) {
	seen, err := seenBy(ctx, k, head, values)
	if err != nil {
		return edited[D]{}, err
	}
	typed, err := typedIn(k, values, &seen, &head.Doc)
	if err != nil {
		return edited[D]{}, err
	}
	e := edited[D]{}
	e.doc, e.conflicts = k.form.Merge(head.Doc, typed)
	for _, nudge := range values["nudge"] {
		if k.nudged == nil {
			break
		}
		if conflict, ok := k.nudged(&e.doc, nudge, values.Get("nudged-from")); !ok {
			e.conflicts = append(e.conflicts, conflict)
		}
	}
	for i, conflict := range e.conflicts {
		if at := strings.LastIndexByte(conflict.Field, '.'); conflict.Gone && at > 0 {
			e.conflicts[i].Theirs = nameAt(&seen, conflict.Field[:at])
			e.focus = "conflict-0" // the field is not there any more
		}
	}
	e.base, _ = strconv.ParseInt(values.Get("base"), 10, 64)
	act := values.Get("act")
	name, arg, _ := strings.Cut(act, ":")
	c := &changing[D]{edited: &e, seen: &seen, head: head, act: name, arg: arg, values: values}
	if act != "" {
		if err := acted(ctx, k, c); err != nil {
			return e, err
		}
	}
	if k.settle != nil {
		if err := k.settle(ctx, c); err != nil {
			return e, err
		}
	}
	if e.what == "" {
		e.what = k.says(&head.Doc, &e.doc, act)
	}
	return e, nil
}

// acted does what a button asks: what every kind knows, or what this one does.
func acted[D any](ctx context.Context, k kind[D], c *changing[D]) error {
	if c.act == "put-back" {
		putBack(k, c)
		return nil
	}
	err := k.act(ctx, c)
	if errors.Is(err, errNoAct) {
		err = echo.NewHTTPError(http.StatusBadRequest, "That button does nothing here. Load the page again.")
	}
	return err
}

// errNoAct says that a kind knows no such button.
var errNoAct = errors.New("there is no such act")

// putBack brings back a member of a list that another window took out, as this window showed it, with what was typed in
// it since.
func putBack[D any](k kind[D], c *changing[D]) {
	own := func(conflict document.Conflict) bool {
		return conflict.Gone && strings.HasPrefix(conflict.Field, c.arg+".")
	}
	document.Insert(&c.doc, c.seen, c.arg)
	rest := []document.Conflict{}
	for _, conflict := range c.conflicts {
		if own(conflict) {
			k.form.Set(&c.doc, conflict.Field, conflict.Mine)
		} else {
			rest = append(rest, conflict)
		}
	}
	c.conflicts, c.what = rest, "Put back what another window had taken out"
	c.focus = fieldMark(c.arg + ".name")
}

// takeOut takes a member out of a list, and puts the hand on taking out the next, or on adding another. One that
// another window took out already is told; it reports whether it was there.
func takeOut[D any](c *changing[D], path, what string) bool {
	next, was := document.Remove(&c.doc, path)
	if !was {
		c.notice = "That " + what + " was taken out already, in another window."
		return false
	}
	if c.focus = "add-" + what; next != "" {
		c.focus = "take-out-" + next
	}
	return true
}

// seenBy gives the document that the form was made from.
func seenBy[D any](ctx context.Context, k kind[D], head *store.Head[D], values url.Values) (D, error) {
	base, err := strconv.ParseInt(values.Get("base"), 10, 64)
	if err != nil || base == head.ID {
		return head.Doc, nil
	}
	rev, err := k.Revision(ctx, head.Of, base)
	if errors.As(err, new(*store.Broken)) || errors.Is(err, store.ErrNone) {
		return head.Doc, nil
	}
	if k.view != nil && err == nil {
		return k.view(rev.Doc), nil
	}
	return rev.Doc, err
}

// typedIn gathers the fields a form holds, each as the document writes it, with what its window showed there before: as
// the window says, or as the document it was made from had it.
func typedIn[D any](k kind[D], values url.Values, seen, head *D) (map[string]document.Typed, error) {
	typed := map[string]document.Typed{}
	for path, v := range values {
		if len(v) == 0 || !k.known(path) {
			continue
		}
		// A box to tick sends "no" first, and "yes" behind it when ticked.
		text := strings.ReplaceAll(v[len(v)-1], "\r\n", "\n")
		if why := k.form.TooLong(path, text); why != "" {
			return nil, echo.NewHTTPError(http.StatusUnprocessableEntity, "This was not kept: "+why+".")
		}
		was := document.Get(seen, path)
		if says, ok := values["was."+path]; ok {
			was = says[0]
		}
		typed[path] = document.Typed{Text: k.written(path, text, seen, head), Was: k.written(path, was, seen, head)}
	}
	return typed, nil
}

// moveHead takes the newest change of a document back, or brings it back again, and tells of one that is another's.
func moveHead[D any](c *echo.Context, k kind[D], back bool) (head store.Head[D], e edited[D], err error) {
	ctx := c.Request().Context()
	id, part := k.of(c)
	e.part = part
	since, _ := strconv.ParseInt(c.FormValue("since"), 10, 64)
	m := store.Mover{Act: actName(c), Window: short(c.FormValue("window")), Since: since,
		Any: c.FormValue("any") == "yes" || c.FormValue("since") == ""}
	if back {
		_, err = k.Undo(ctx, id, m)
	} else {
		_, err = k.Redo(ctx, id, m)
	}
	if errors.As(err, &e.foreign) || errors.Is(err, store.ErrArrived) {
		err = nil
	}
	if err != nil {
		return head, e, err
	}
	head, err = k.Head(ctx, id)
	return head, e, err
}

func isScript(c *echo.Context) bool { return c.Request().Header.Get("HX-Request") == "true" }

// inForm reports of a path whether a form may hold it: any field of the table, and any name in a map.
func inForm[D any](f *document.Form[D]) func(path string) bool {
	return func(path string) bool {
		_, ok := f.Field(path)
		return ok || f.InMap(path)
	}
}

// nudgeSaid reads by how many steps a field is to be moved, such as "contents.@1.length:-4"; 0 when that can't be read.
func nudgeSaid(nudge string) (path string, steps int) {
	path, by, _ := strings.Cut(nudge, ":")
	n, err := strconv.Atoi(by)
	if err != nil || n < -mostSteps || n > mostSteps {
		n = 0
	}
	return path, n
}

// kept is what every page that keeps as one types says of its document, beside what it is about.
type kept struct {
	Base      int64
	Said      string // when it was last changed
	Undoes    string // what undo takes back, "" when there is nothing
	Redoes    string // what redo brings back
	Conflicts []conflict
	Notice    string
	Foreign   *store.Foreign // undo was asked for, and the newest change is another's
	Focus     string
	Seen      int64 // the revision that the window showed which made a change
}

// conflict is a field that two windows changed, in words.
type conflict struct {
	document.Conflict
	Label  string
	Member string // the path of what is gone
}

// keptOf says it of a document; label names a field for people.
func keptOf[D any](ctx context.Context, k kind[D], head *store.Head[D], e *edited[D], label func(path string) string) (kept, error) {
	out := kept{Base: head.ID, Said: "Kept " + ago(head.Changed), Notice: e.notice, Focus: e.focus, Seen: e.base, Foreign: e.foreign}
	if head.Parent != 0 {
		out.Undoes = head.What
	}
	if out.Foreign != nil {
		out.Focus = "undo-all-the-same"
	}
	next, err := k.Next(ctx, head.ID)
	if err == nil {
		out.Redoes = next.What
	} else if !errors.Is(err, store.ErrNone) {
		return out, err
	}
	for _, one := range e.conflicts {
		shown := conflict{Conflict: one, Label: label(one.Field)}
		if one.Gone {
			shown.Member = one.Field[:strings.LastIndexByte(one.Field, '.')]
		}
		out.Conflicts = append(out.Conflicts, shown)
	}
	return out, nil
}

// changed tells in words what two documents say differently: the first two fields, each with whose it is.
func changed[D any](f *document.Form[D], was, now *D) string {
	var says []string
	more := 0
	for path, text := range f.All(now) {
		if document.Get(was, path) == text {
			continue
		}
		if len(says) == 2 {
			more++
			continue
		}
		if strings.TrimSpace(text) == "" {
			text = "left open"
		}
		says = append(says, labelled(f, now, path)+" "+words.Cut(text, 40))
	}
	if len(says) == 0 {
		return "A change"
	}
	if more > 0 {
		says = append(says, fmt.Sprintf("and %d more", more))
	}
	return words.Capital(strings.Join(says, "; "))
}

// labelled names a field for people: “kraft, 300 gsm: price”.
func labelled[D any](f *document.Form[D], of *D, path string) string {
	field, ok := f.Field(path)
	if !ok {
		field.Label = words.Plain(path[strings.LastIndexByte(path, '.')+1:])
	}
	at := path[:max(0, strings.LastIndexByte(path, '.'))]
	if owner := nameAt(of, at); owner != "" && !strings.HasSuffix(path, ".name") && !strings.HasSuffix(path, ".title") {
		return owner + ": " + field.Label
	}
	return field.Label
}

// nameAt is what the member of a list is called, "" when it is called nothing.
func nameAt[D any](of *D, at string) string {
	if !strings.Contains(at, ".") {
		return ""
	}
	return strings.TrimSpace(cmp.Or(document.Get(of, at+".name"), document.Get(of, at+".title")))
}

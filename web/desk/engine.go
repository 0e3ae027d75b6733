package desk

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/document"
	"brevium/store"
)

// One engine for all that is typed and pressed, whatever kind of document it changes: what a form holds is laid on the
// newest state, a button does its act, and both are kept as one change. Changes of one document take turns.

// Kind is a kind of document as the pages change it.
type Kind[D any] struct {
	*store.Kept[D]
	Form    *document.Form[D]
	Of      func(c *echo.Context) (id, part string) // which document a request is about, and which part of it
	Known   func(path string) bool                  // whether a form may hold a field
	Written func(path, text string, seen, head *D) string
	Nudged  func(d *D, nudge, from string) (document.Conflict, bool)
	Act     func(context.Context, *Changing[D]) error
	Says    func(was, now *D, act string) string      // what was done, in words
	View    func(whole D) D                           // the part of it that a page is about, as a document
	Settle  func(context.Context, *Changing[D]) error // what follows from what was typed and pressed
	Wrap    func(head *store.Head[D], do Making[D]) (Edited[D], error)
	Show    func(c *echo.Context, code int, head store.Head[D], e Edited[D]) error
	At      func(c *echo.Context, id, part string) string // its address
	Busy    string                                        // what is told when others keep changing it
}

// Making says what is to be made of the newest state.
type Making[D any] func(head *store.Head[D]) (Edited[D], error)

// Edited is what a request makes of a document.
type Edited[D any] struct {
	Doc       D
	What      string // in words, for the record
	conflicts []document.Conflict
	Notice    string // what could not be done, or was done elsewhere
	foreign   *store.Foreign
	Focus     string // the mark of what the hand goes to next
	base      int64  // the revision that the window showed
	Part      string // which part of it the page is about: of a set a box, of the shop a card
	Alone     bool   // it is undone by itself, whatever was pressed before it
	Same      bool   // it is a change although the document stays what it was
	After     func(*Edited[D])
	Also      func(made *int64) []store.Write // what is done in the same commit, where the document is changed
	Besides   []store.Write                   // and whether it is changed or not
}

// Tells reports whether the answer says what is said but once.
func (e *Edited[D]) Tells() bool { return e.Notice != "" || len(e.conflicts) > 0 || e.foreign != nil }

// Changing is what an act works on: the newest document with what was typed merged in, and the one that the page showed.
type Changing[D any] struct {
	*Edited[D]
	Seen   *D
	Head   *store.Head[D]
	Act    string
	Arg    string
	Values url.Values
}

// longestBurst bounds what a window may call its changes.
const longestBurst = 80

func short(name string) string { return name[:min(len(name), longestBurst)] }

// ActName is the name a window gave the act it sends.
func ActName(c *echo.Context) string { return short(c.FormValue("sent-as")) }

// Edit changes a document: it asks what is to be made of the newest state, keeps it, and starts over when another
// program changed it in between. An act that has arrived before changes nothing.
func Edit[D any](s *Desk, c *echo.Context, k Kind[D], do Making[D]) (store.Head[D], Edited[D], error) {
	ctx, name := c.Request().Context(), ActName(c)
	id, part := k.Of(c)
	none := Edited[D]{Part: part}
	end, err := s.turns.take(ctx, id)
	if err != nil {
		return store.Head[D]{}, none, err
	}
	defer end()
	for range 8 {
		head, err := k.Head(ctx, id)
		before, missed := s.arrived(ctx, name)
		if err = cmp.Or(err, missed); before || err != nil {
			return head, none, err
		}
		e, err := k.make(&head, do)
		if err != nil {
			return head, e, err
		}
		parts := k.parts(id, &head, &e, burstOf(c, e.Alone))
		if len(parts) == 0 {
			return head, e, nil
		}
		switch err = s.Store.Do(ctx, name, parts...); {
		case errors.Is(err, store.ErrMoved):
			continue // merge with what they did
		case errors.Is(err, store.ErrArrived):
			head, err = k.Head(ctx, id)
			return head, none, err
		case err != nil:
			return head, e, err
		}
		if id == store.TheShop || len(e.Besides) > 0 {
			ShopMoved(ctx)
		}
		now, err := k.Head(ctx, id)
		return now, e, err
	}
	return store.Head[D]{}, none, echo.NewHTTPError(http.StatusConflict, k.Busy)
}

// arrived reports whether an act of this name has been done; one without a name has not.
func (s *Desk) arrived(ctx context.Context, name string) (bool, error) {
	if name == "" {
		return false, nil
	}
	return s.Store.Arrived(ctx, name)
}

// parts are what an act writes: the document where it changed, and what goes with it.
func (k Kind[D]) parts(id string, head *store.Head[D], e *Edited[D], burst string) []store.Write {
	if !e.Same && string(k.Form.Encode(e.Doc)) == string(k.Form.Encode(head.Doc)) {
		return e.Besides
	}
	var made int64
	parts := append([]store.Write{k.Write(id, store.Change[D]{Base: head.ID, Doc: e.Doc, What: e.What, Burst: burst},
		&made)}, e.Besides...)
	if e.Also != nil {
		parts = append(parts, e.Also(&made)...)
	}
	return parts
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

func (k Kind[D]) make(head *store.Head[D], do Making[D]) (Edited[D], error) {
	if k.Wrap != nil {
		return k.Wrap(head, do)
	}
	return do(head)
}

// merged lays typed fields on the newest document and does what a button asks.
func merged[D any](ctx context.Context, k Kind[D], head *store.Head[D], values url.Values) (Edited[D], error) {
	seen, err := seenBy(ctx, k, head, values)
	if err != nil {
		return Edited[D]{}, err
	}
	typed, err := typedIn(k, values, &seen, &head.Doc)
	if err != nil {
		return Edited[D]{}, err
	}
	e := Edited[D]{}
	e.Doc, e.conflicts = k.Form.Merge(head.Doc, typed)
	for _, nudge := range values["nudge"] {
		if k.Nudged == nil {
			break
		}
		if conflict, ok := k.Nudged(&e.Doc, nudge, values.Get("nudged-from")); !ok {
			e.conflicts = append(e.conflicts, conflict)
		}
	}
	for i, conflict := range e.conflicts {
		if at := strings.LastIndexByte(conflict.Field, '.'); conflict.Gone && at > 0 {
			e.conflicts[i].Theirs = nameAt(&seen, conflict.Field[:at])
			e.Focus = "conflict-0" // the field is not there any more
		}
	}
	e.base, _ = strconv.ParseInt(values.Get("base"), 10, 64)
	act := values.Get("act")
	name, arg, _ := strings.Cut(act, ":")
	c := &Changing[D]{Edited: &e, Seen: &seen, Head: head, Act: name, Arg: arg, Values: values}
	if act != "" {
		if err := acted(ctx, k, c); err != nil {
			return e, err
		}
	}
	if k.Settle != nil {
		if err := k.Settle(ctx, c); err != nil {
			return e, err
		}
	}
	if e.What == "" {
		e.What = k.Says(&head.Doc, &e.Doc, act)
	}
	return e, nil
}

// acted does what a button asks: what every kind knows, or what this one does.
func acted[D any](ctx context.Context, k Kind[D], c *Changing[D]) error {
	if c.Act == "put-back" {
		putBack(k, c)
		return nil
	}
	return k.Act(ctx, c)
}

// ErrNoAct refuses a button that is not known here.
var ErrNoAct = echo.NewHTTPError(http.StatusBadRequest, NoAct)

// NoAct is what a page says of a button that is not known here.
const NoAct = "This page is out of date. Reload it and try again."

// putBack brings back a member of a list that another window took out, as this window showed it, with what was typed in
// it since.
func putBack[D any](k Kind[D], c *Changing[D]) {
	own := func(conflict document.Conflict) bool {
		return conflict.Gone && strings.HasPrefix(conflict.Field, c.Arg+".")
	}
	document.Insert(&c.Doc, c.Seen, c.Arg)
	rest := []document.Conflict{}
	for _, conflict := range c.conflicts {
		if own(conflict) {
			k.Form.Set(&c.Doc, conflict.Field, conflict.Mine)
		} else {
			rest = append(rest, conflict)
		}
	}
	c.conflicts, c.What = rest, "Restored what another window had removed"
	c.Focus = FieldMark(c.Arg + ".name")
}

// TakeOut takes a member out of a list, and puts the hand on taking out the next, or on adding another. One that
// another window took out already is told; it reports whether it was there.
func TakeOut[D any](c *Changing[D], path, what string) bool {
	next, was := document.Remove(&c.Doc, path)
	if !was {
		c.Notice = "That " + what + " is gone. Someone removed it in another window."
		return false
	}
	if c.Focus = "add-" + what; next != "" {
		c.Focus = "take-out-" + next
	}
	return true
}

// seenBy gives the document that the form was made from.
func seenBy[D any](ctx context.Context, k Kind[D], head *store.Head[D], values url.Values) (D, error) {
	base, err := strconv.ParseInt(values.Get("base"), 10, 64)
	if err != nil || base == head.ID {
		return head.Doc, nil
	}
	rev, err := k.Revision(ctx, head.Of, base)
	if errors.As(err, new(*store.Broken)) || errors.Is(err, store.ErrNone) {
		return head.Doc, nil
	}
	if k.View != nil && err == nil {
		return k.View(rev.Doc), nil
	}
	return rev.Doc, err
}

// typedIn gathers the fields a form holds, each as the document writes it, with what its window showed there before: as
// the window says, or as the document it was made from had it.
func typedIn[D any](k Kind[D], values url.Values, seen, head *D) (map[string]document.Typed, error) {
	typed := map[string]document.Typed{}
	for path, v := range values {
		if len(v) == 0 || !k.Known(path) {
			continue
		}
		// A box to tick sends "no" first, and "yes" behind it when ticked.
		text := strings.ReplaceAll(v[len(v)-1], "\r\n", "\n")
		if why := k.Form.TooLong(path, text); why != "" {
			return nil, echo.NewHTTPError(http.StatusUnprocessableEntity, "This was not saved: "+why+".")
		}
		was := document.Get(seen, path)
		if says, ok := values["was."+path]; ok {
			was = says[0]
		}
		typed[path] = document.Typed{Text: k.Written(path, text, seen, head), Was: k.Written(path, was, seen, head)}
	}
	return typed, nil
}

func IsScript(c *echo.Context) bool { return c.Request().Header.Get("HX-Request") == "true" }

// InForm reports of a path whether a form may hold it: any field of the table, and any name in a map.
func InForm[D any](f *document.Form[D]) func(path string) bool {
	return func(path string) bool {
		_, ok := f.Field(path)
		return ok || f.InMap(path)
	}
}

package web

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/store"
)

// The shop is a page like a box's workbench: what is typed is kept as it goes, undone
// and merged with what other windows did.

// shopParts are the parts of the shop, in the order of its rail.
var shopParts = []struct{ ID, Title string }{
	{"cards", "Card and paper"}, {"offcuts", "Offcuts"}, {"tools", "Tools"}, {"habits", "House habits"}, {"fit",
		"How lids fitted"}, {"prices", "Prices"},
}

// shopView is what the address says of how the shop is looked at.
type shopView struct{ Stage, Card string }

func shopViewOf(c *echo.Context) shopView {
	v := shopView{Stage: shopParts[0].ID, Card: c.QueryParam("card")}
	for _, p := range shopParts {
		if p.ID == c.QueryParam("part") {
			v.Stage = p.ID
		}
	}
	return v
}

// Link gives the address of this view with some of it changed.
func (v shopView) Link(pairs ...string) string {
	q := url.Values{"part": {v.Stage}}
	if v.Card != "" && v.Stage == "cards" {
		q.Set("card", v.Card)
	}
	for i := 0; i+1 < len(pairs); i += 2 {
		if q.Set(pairs[i], pairs[i+1]); pairs[i+1] == "" {
			q.Del(pairs[i])
		}
	}
	return "?" + q.Encode()
}

// editedShop is what a request makes of the shop.
type editedShop struct {
	doc           shop.Document
	what          string
	conflicts     []document.Conflict
	notice, focus string
	card          string // the card to look at next
	boxes         []store.BoxChange
	alone         bool // it is undone by itself, whatever was pressed before it
	same          bool // it is a change although the document stays what it was
}

func (s *Server) shopPage(c *echo.Context) error { return s.showShop(c, http.StatusOK, editedShop{}) }

// changeShop lays what was typed on the newest shop and does what a button asks.
func (s *Server) changeShop(c *echo.Context) error {
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	e, err := s.editShop(c, func(head store.Shop) (editedShop, error) {
		return s.mergedShop(c.Request().Context(), head,
			values)
	})
	if err != nil {
		return err
	}
	return s.answerShop(c, e)
}

// editShop changes the shop: it asks what is to be made of the newest, keeps it, and
// starts over when another program changed it in between.
func (s *Server) editShop(c *echo.Context, do func(head store.Shop) (editedShop, error)) (editedShop, error) {
	ctx, change := c.Request().Context(), changeID(c)
	burst := c.FormValue("burst")
	end, err := s.turns.take(ctx, "shop")
	if err != nil {
		return editedShop{}, err
	}
	defer end()
	for range 8 {
		if change != "" {
			if before, err := s.store.Arrived(ctx, change); before || err != nil {
				return editedShop{}, err
			}
		}
		head, err := s.store.Shop(ctx)
		if err != nil {
			return editedShop{}, err
		}
		e, err := do(head)
		if err != nil || !e.same && string(e.doc.Encode()) == string(head.Document.Encode()) {
			return e, err
		}
		if e.alone { // undone by itself
			burst = ""
		}
		_, err = s.store.SaveShop(ctx, store.ShopChange{Base: head.ID, Document: e.doc, What: e.what,
			Burst: burst[:min(len(burst), longestBurst)], ID: change, Boxes: e.boxes})
		switch {
		case errors.Is(err, store.ErrMoved):
			continue
		case errors.Is(err, store.ErrArrived):
			return e, nil
		}
		return e, err
	}
	return editedShop{}, echo.NewHTTPError(http.StatusConflict,
		"Other windows keep changing the shop, so this was not kept. Try again.")
}

// mergedShop lays the fields of a form on the newest shop.
func (s *Server) mergedShop(ctx context.Context, head store.Shop, values url.Values) (editedShop, error) {
	seen, err := s.seenShop(ctx, head, values)
	if err != nil {
		return editedShop{}, err
	}
	units := head.Document.Units()
	typed := map[string]document.Typed{}
	for path, v := range values {
		f, ok := shop.FieldAt(path)
		if !ok || len(v) == 0 {
			continue
		}
		if why := tooLong(f, v[len(v)-1]); why != "" {
			return editedShop{}, echo.NewHTTPError(http.StatusUnprocessableEntity, "This was not kept: "+why+".")
		}
		was := seen.Get(path)
		if says, ok := values["was."+path]; ok {
			was = says[0]
		}
		typed[path] = document.Typed{Text: shopText(f, path, v[len(v)-1], units, &head.Document),
			Was: shopText(f, path, was, units, &head.Document)}
	}
	e := editedShop{}
	e.doc, e.conflicts = shop.Merge(head.Document, typed)
	for _, nudge := range values["nudge"] {
		nudgeShop(&e.doc, nudge, units)
	}
	if err := s.actShop(ctx, &e, values.Get("act")); err != nil {
		return e, err
	}
	if e.what == "" {
		e.what = describeShop(&head.Document, &e.doc)
	}
	pins, err := s.pins(ctx, &head.Document, &e.doc)
	e.boxes = append(e.boxes, pins...)
	if len(pins) > 0 && e.notice == "" {
		e.notice = fmt.Sprintf("%s planned with the old numbers, and %s until asked: see beside.",
			plainCount(len(pins), "box is", "boxes are"),
			map[bool]string{true: "keeps them", false: "keep them"}[len(pins) == 1])
	}
	return e, err
}

func plainCount(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

func tooLong(f document.Field, text string) string {
	most := max(f.Most, 200)
	if f.Path == "currency" {
		most = f.Most
	}
	if n := words.Letters(text); n > most {
		return fmt.Sprintf("“%s” is %d letters long; it takes %d", f.Title(), n, most)
	}
	return ""
}

func (s *Server) seenShop(ctx context.Context, head store.Shop, values url.Values) (shop.Document, error) {
	base, err := strconv.ParseInt(values.Get("base"), 10, 64)
	if err != nil || base == head.ID {
		return head.Document, nil
	}
	if base == 0 {
		return shop.Shipped(), nil
	}
	was, err := s.store.ShopAt(ctx, base)
	if broken := new(store.Broken); errors.As(err, &broken) || errors.Is(err, store.ErrNone) {
		return head.Document, nil
	}
	return was.Document, err
}

// shopText writes a field as the shop keeps it: a length with its unit, anything else
// as typed.
func shopText(f document.Field, path, text string, units measure.Unit, head *shop.Document) string {
	text = strings.TrimSpace(strings.ReplaceAll(text, "\r\n", "\n"))
	if f.Kind != document.Distance {
		return text
	}
	if isThickness(path) {
		units = measure.Millimetres
	}
	l, own, err := measure.ParseUnit(text, units)
	if err != nil {
		return text
	}
	// What is typed without a unit under a thickness that stands there in another is
	// meant in that.
	if bare := strings.Trim(text, "0123456789./ -") == ""; bare {
		if _, was, err := measure.ParseUnit(head.Get(path), units); err == nil && was != own {
			if in, err := measure.Parse(text, was); err == nil {
				l, own = in, was
			}
		}
	}
	return l.Exact(own)
}

// nudgeShop moves a length of the shop by steps, or a count.
func nudgeShop(d *shop.Document, nudge string, units measure.Unit) {
	path, by, _ := strings.Cut(nudge, ":")
	f, ok := shop.FieldAt(path)
	n, err := strconv.Atoi(by)
	if !ok || err != nil || n < -mostSteps || n > mostSteps || f.Kind != document.Distance {
		return
	}
	text := d.Get(path)
	l, own, err := measure.ParseUnit(text, units)
	if err != nil {
		return
	}
	step := measure.DefaultStep(own).Size
	if strings.HasSuffix(path, ".caliper") {
		step = measure.Millimetre / 100
	}
	d.Set(path, max(step, l+measure.Length(n)*step).Exact(own))
}

// describeShop tells a change of the shop in words.
func describeShop(was, now *shop.Document) string {
	var says []string
	for path, text := range now.All() {
		if was.Get(path) == text {
			continue
		}
		f, _ := shop.FieldAt(path)
		label := f.Label
		if id, ok := strings.CutPrefix(path, "cards.@"); ok {
			id, _, _ = strings.Cut(id, ".")
			label = called(now.Get("cards.@"+id+".title"), "a card") + ": " + label
		}
		if text == "" {
			text = "left open"
		}
		says = append(says, fmt.Sprintf("%s %s", label, words.Cut(text, 40)))
	}
	switch {
	case len(says) == 0:
		return "A change"
	case len(says) > 2:
		says = append(says[:2], fmt.Sprintf("and %d more", len(says)-2))
	}
	return words.Capital(strings.Join(says, "; "))
}

// numbers are the fields of a card that a plan's numbers hang on.
var numbers = []string{"caliper", "ten", "gsm", "bulk", "kind", "grain", "pattern", "sheets"}

func sameNumbers(a, b brief.Stock) bool {
	one, other := shop.Document{Cards: []brief.Stock{a}}, shop.Document{Cards: []brief.Stock{b}}
	return !slices.ContainsFunc(numbers, func(name string) bool { return one.Get("cards.0."+name) != other.Get("cards.0."+name) })
}

// pins keeps, in the boxes that are made of a card whose numbers are changed, the
// card as it was: their numbers move only when that is asked for.
func (s *Server) pins(ctx context.Context, was, now *shop.Document) (out []store.BoxChange, err error) {
	changed := map[string]*store.BoxChange{}
	var order []string
	for _, old := range was.Cards {
		i := now.Of(old.ID)
		if i < 0 || sameNumbers(old, now.Cards[i]) {
			continue
		}
		all, err := s.using(ctx, old.ID)
		if err != nil {
			return nil, err
		}
		for _, rev := range all {
			if ownCard(&rev.Brief, old.ID) >= 0 {
				continue // it keeps an older one already
			}
			c := changed[rev.Project]
			if c == nil {
				c = &store.BoxChange{Project: rev.Project, Base: rev.ID, Brief: rev.Brief.Clone()}
				changed[rev.Project], order = c, append(order, rev.Project)
			}
			c.Brief.Card.Own = append(c.Brief.Card.Own, old)
			c.What = fmt.Sprintf("It keeps %s as it was: the shop has other numbers for it now",
				called(string(old.Title), "its card"))
			if c.Brief.Check() != nil { // too full of cards to say one more
				delete(changed, rev.Project)
			}
		}
	}
	for _, id := range order {
		if c := changed[id]; c != nil {
			out = append(out, *c)
		}
	}
	return out, nil
}

// using lists the boxes that are made of a card.
func (s *Server) using(ctx context.Context, id string) ([]store.Revision, error) {
	all, err := s.store.Using(ctx, id)
	return slices.DeleteFunc(all, func(r store.Revision) bool { return !uses(&r.Brief, id) }), err
}

// uses reports whether a box, or one of a set, is cut from a card.
func uses(b *brief.Brief, id string) bool {
	of := func(c *brief.Card) bool {
		if c == nil {
			return false
		}
		for _, other := range c.Stocks {
			if string(other) == id {
				return true
			}
		}
		return string(c.Stock) == id
	}
	if of(&b.Card) || b.Dress.Uses(id) {
		return true
	}
	return b.Several != nil && slices.ContainsFunc(b.Several.Boxes, func(m brief.Member) bool {
		return of(m.Card) || m.Dress != nil && m.Dress.Uses(id)
	})
}

// ownCard finds a card among those a document describes itself, -1 when it does not.
func ownCard(b *brief.Brief, id string) int {
	return slices.IndexFunc(b.Card.Own, func(c brief.Stock) bool { return c.ID == id })
}

func (s *Server) answerShop(c *echo.Context, e editedShop) error {
	if c.Request().Header.Get("HX-Request") == "true" || len(e.conflicts) > 0 || e.notice != "" {
		return s.showShop(c, http.StatusOK, e)
	}
	v := shopViewOf(c)
	if e.card != "" {
		v.Card = e.card
	}
	return c.Redirect(http.StatusSeeOther, "/shop"+v.Link())
}

func (s *Server) undoShop(c *echo.Context) error { return s.moveShop(c, s.store.UndoShop) }
func (s *Server) redoShop(c *echo.Context) error { return s.moveShop(c, s.store.RedoShop) }

func (s *Server) moveShop(c *echo.Context, move func(context.Context, string) error) error {
	if err := move(c.Request().Context(), changeID(c)); err != nil && !errors.Is(err, store.ErrArrived) {
		return err
	}
	return s.answerShop(c, editedShop{})
}

package web

import (
	"fmt"
	"html"
	"log/slog"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/core/document"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/store"
	"brevium/web/desk"
)

// lab is a document of some kind, with what two windows do to it.
type lab struct {
	a      *app
	kind   string
	path   string
	fields func() map[string]string // as they are kept
	out    string                   // the act that takes a member out; "" where there is none
	list   string                   // of which list
}

// labs are a document of every kind there is.
func labs(t *testing.T, a *app) (out []lab) {
	ctx := t.Context()
	b := brief.New("mm")
	b.Name = "Herb box"
	for n := range 4 {
		b.Contents = append(b.Contents, brief.Item{ID: fmt.Sprint("t", n), Name: "thing", Shape: "block", Length: "30 mm",
			Width: "20 mm", Height: "10 mm", Count: "1"})
	}
	box := a.begin(b)
	out = append(out, lab{a, "box", "/projects/" + box, fieldsOf(t, a.store.Boxes, brief.Form, box), "remove-thing:", "contents"})
	d := shop.Shipped()
	for n := range 4 {
		d.Offcuts = append(d.Offcuts, shop.Offcut{ID: fmt.Sprint("o", n), Width: "90 mm", Height: "60 mm"})
	}
	a.store.Shops.Save(ctx, store.TheShop, "", store.Change[shop.Document]{Doc: d})
	out = append(out, lab{a, "shop", "/shop", fieldsOf(t, a.store.Shops, shop.Form, store.TheShop), "remove-offcut:", "offcuts"})
	orders := batch.Document{Name: "Fair", Hours: map[string]brief.Text{"sat": "3"}}
	for range 4 {
		orders.Add(batch.Order{Box: b.Encode(), Count: "2", By: "2027-03-06"})
	}
	id, _ := a.store.Batches.Create(ctx, orders, "new")
	out = append(out, lab{a, "batch", "/batches/" + id, fieldsOf(t, a.store.Batches, batch.Form, id), "take-out:", "orders"})
	l := cutlist.List{Name: "Labels", Units: "mm", Sheets: []cutlist.Sheet{{Name: "A4", Width: "210 mm", Height: "297 mm"}}}
	for range 4 {
		l.Pieces = append(l.Pieces, cutlist.Piece{Name: "p", Width: "40 mm", Height: "30 mm", Count: "1"})
	}
	id, _ = a.store.Lists.Create(ctx, l, "new")
	out = append(out, lab{a, "list", "/cut/" + id, fieldsOf(t, a.store.Lists, cutlist.Form, id), "remove-piece:", "pieces"})
	ids, _ := a.store.Log.Record(ctx, record.Making{Made: "2026-11-20", Count: 1, Box: "Tin"})
	return append(out, lab{a, "making", "/makings/" + ids[0], fieldsOf(t, a.store.Makings, record.Form, ids[0]), "", ""})
}

// fieldsOf reads the fields of words of a document as they are kept: what is typed there is kept to the letter.
func fieldsOf[D any](t *testing.T, k *store.Kept[D], f *document.Form[D], id string) func() map[string]string {
	return func() map[string]string {
		head, err := k.Head(t.Context(), id)
		if err != nil {
			t.Fatal(err)
		}
		out := map[string]string{}
		for path, text := range f.All(&head.Doc) {
			if field, ok := f.Field(path); ok && field.Kind == document.Words && f.Has(&head.Doc, path) && field.Most > 100 && len(out) < 30 {
				out[path] = text
			}
		}
		return out
	}
}

// typedChange is something a window has typed or pressed and not yet heard of.
type typedChange struct{ name, base, path, text, was, act string }

// pane is a window as its script keeps it.
type pane struct {
	name  string
	base  string
	shown map[string]string
	queue []typedChange
	n     int
}

func (p *pane) reload(l lab) { p.base, p.shown, p.queue = l.a.base(l.path), l.fields(), nil }

// Two windows type and press at random; answers come late or get lost, so that a change is sent again; the program is
// stopped and started between. What nobody changed stays, what one changed stands, what both changed is told to the
// second with what it typed; what belongs to something that was taken out is told, and nothing goes to another.
func TestTwoWindowsOfEveryKind(t *testing.T) {
	a := newApp(t)
	for seed, l := range labs(t, a) {
		r := rand.New(rand.NewPCG(27, uint64(seed)))
		model, arrived := l.fields(), map[string]bool{}
		panes := []*pane{{name: "a" + l.kind}, {name: "b" + l.kind}}
		for _, p := range panes {
			p.reload(l)
		}
		told := 0
		for step := range 160 {
			p := panes[r.IntN(2)]
			switch n := r.IntN(10); {
			case n < 5 && len(p.shown) > 0:
				p.types(r, step)
			case n == 5 && l.out != "" && step > 20 && len(model) > 6:
				p.takesOut(r, l)
			case n == 6 && len(p.queue) == 0:
				p.reload(l)
			case n == 7 && step%40 == 0:
				a.restart(t)
			default:
				told += p.deliver(t, r, l, model, arrived)
			}
		}
		for _, p := range panes {
			for len(p.queue) > 0 {
				told += p.deliver(t, r, l, model, arrived)
			}
		}
		if is := l.fields(); fmt.Sprint(is) != fmt.Sprint(model) {
			t.Errorf("%s: kept is\n%v, wanted\n%v", l.kind, is, model)
		}
		if told == 0 {
			t.Errorf("%s: the windows never met", l.kind)
		}
	}
}

// restart ends the program and starts it anew over what it kept.
func (a *app) restart(t *testing.T) {
	srv, err := newServer(a.store, request.Default, slog.New(slog.DiscardHandler), desk.Beside{Hosts: []string{"127.0.0.1"}})
	if err != nil {
		t.Fatal(err)
	}
	a.server, a.handler = srv, srv.handler()
}

func (p *pane) types(r *rand.Rand, step int) {
	paths := sortedKeys(p.shown)
	path := paths[r.IntN(len(paths))]
	c := typedChange{base: p.base, path: path, text: fmt.Sprintf("%s%d", p.name, step), was: p.shown[path]}
	p.put(c)
	p.shown[path] = c.text
}

func (p *pane) takesOut(r *rand.Rand, l lab) {
	members := map[string]string{}
	for path := range p.shown {
		if rest, ok := strings.CutPrefix(path, l.list+".@"); ok {
			id, _, _ := strings.Cut(rest, ".")
			members[id] = path
		}
	}
	if ids := sortedKeys(members); len(ids) > 1 {
		p.put(typedChange{base: p.base, act: l.out + ids[r.IntN(len(ids))]})
	}
}

func (p *pane) put(c typedChange) {
	p.n++
	c.name = fmt.Sprintf("%s:%d", p.name, p.n)
	p.queue = append(p.queue, c)
}

// deliver sends the first change of the queue; the request may be lost on its way, or the answer. It reports whether the
// other window's change was told.
func (p *pane) deliver(t *testing.T, r *rand.Rand, l lab, model map[string]string, arrived map[string]bool) (told int) {
	if len(p.queue) == 0 || r.IntN(6) == 0 {
		return 0
	}
	c := p.queue[0]
	pairs := []string{"base", c.base, "sent-as", c.name, "burst", p.name + ":" + c.name, "act", c.act}
	if c.path != "" {
		pairs = append(pairs, c.path, c.text, "was."+c.path, c.was)
	}
	w := l.a.post(l.path+"/change", pairs...)
	page := html.UnescapeString(text(w))
	if w.Code != 200 {
		t.Fatalf("%s: %v: %d %s", l.kind, c, w.Code, page)
	}
	fresh := !arrived[c.name]
	arrived[c.name] = true
	says := ""
	if fresh {
		says = expects(l, c, model)
	}
	if r.IntN(6) == 0 { // the answer is lost: it is sent again, and done once
		return 0
	}
	if says != "" && !strings.Contains(page, says) {
		t.Errorf("%s: %v: %q is not told: %s", l.kind, c, says, page)
	}
	p.queue = p.queue[1:]
	if len(p.queue) == 0 { // the answer shows the newest
		p.reload(l)
	}
	return min(1, len(says))
}

// expects does to the model what a change is to do to the document, and gives what is to be told of it.
func expects(l lab, c typedChange, model map[string]string) (says string) {
	if id, ok := strings.CutPrefix(c.act, l.out); ok && l.out != "" {
		n := len(model)
		for path := range model {
			if strings.HasPrefix(path, l.list+".@"+id+".") {
				delete(model, path)
			}
		}
		if n == len(model) {
			return "removed it in another window"
		}
		return ""
	}
	is, there := model[c.path]
	switch {
	case !there:
		return "was not saved"
	case is == c.was:
		model[c.path] = c.text
	case is != c.text:
		return fmt.Sprintf("It is now “%s”. You wrote “%s”", is, c.text)
	}
	return ""
}

func sortedKeys(m map[string]string) (out []string) {
	for k := range m {
		out = append(out, k)
	}
	slices.Sort(out)
	return out
}

// No field of any kind is called as what a form says beside its fields.
func TestFieldsAndFormsKeepApart(t *testing.T) {
	tables := [][]document.Field{brief.Table, shop.Form.Table, batch.Form.Table, cutlist.Form.Table, record.Form.Table}
	for _, f := range slices.Concat(tables...) {
		if slices.Contains([]string{"base", "burst", "act", "nudge", "nudged-from", "sent-as", "since", "window", "any", "do", "order",
			"stage", "more", "add", "day", "day-hours", "usual"}, f.Path) {
			t.Errorf("a field is called %s", f.Path)
		}
	}
}

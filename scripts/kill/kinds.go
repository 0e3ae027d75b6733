package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"time"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/core/plan"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/store"
	"brevium/web/workbench"
)

// kind is a kind of change: the nth of it, and what there is when so many have been made.
type kind struct {
	name  string
	do    func(n int) (at string, values url.Values)
	state func(n int) string
	is    func(*store.Store) (string, error)
	made  int // acknowledged
	seen  int // when it was last looked
}

var client = &http.Client{Timeout: 10 * time.Second, CheckRedirect: func(*http.Request, []*http.Request) error {
	return http.ErrUseLastResponse
}}

// write makes the next change, and reports whether it is said to be kept.
func (k *kind) write(address string) bool {
	at, values := k.do(k.made + 1)
	req, err := http.NewRequest("POST", address+at, strings.NewReader(values.Encode()))
	check(err)
	req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	req.Header.Set("HX-Request", "true")
	res, err := client.Do(req)
	if err != nil {
		return false
	}
	body, err := io.ReadAll(res.Body)
	res.Body.Close()
	if res.StatusCode >= 400 {
		panic(fmt.Sprintf("%s: %d %.300s", k.name, res.StatusCode, body))
	}
	if err != nil && res.StatusCode != http.StatusOK && res.StatusCode != http.StatusSeeOther {
		return false
	}
	k.made++ // its head is the word that it is kept
	return true
}

// new is how many were acknowledged since it was last looked.
func (k *kind) new() int { return k.made - k.seen }

// look says what is lost; what was on its way may have been kept.
func (k *kind) look(s *store.Store) (lost string) {
	is, err := k.is(s)
	switch {
	case err != nil:
		lost = err.Error()
	case is == k.state(k.made):
	case is == k.state(k.made+1):
		k.made++
	default:
		lost = fmt.Sprintf("after %d saved changes it should be %q, but it is %q", k.made, k.state(k.made), is)
		for is != k.state(k.made) && k.made > 0 {
			k.made--
		}
	}
	k.seen = k.made
	return lost
}

func number(n int) string { return strconv.Itoa(n) }
func even(n int) string   { return strconv.Itoa(n % 2) }

func form(pairs ...string) url.Values {
	v := url.Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		v.Set(pairs[i], pairs[i+1])
	}
	return v
}

// typed is a kind of change that types a number into a field.
func typed(name, at, field string, is func(*store.Store) (string, error)) *kind {
	return &kind{name: name, state: number, is: is, do: func(n int) (string, url.Values) {
		return at, form(field, number(n))
	}}
}

// switched is a kind of change that is made and taken back in turn.
func switched(name string, on, off func() (string, url.Values), is func(*store.Store) (bool, error)) *kind {
	return &kind{name: name, state: even, do: func(n int) (string, url.Values) {
		if n%2 == 1 {
			return on()
		}
		return off()
	}, is: func(s *store.Store) (string, error) {
		yes, err := is(s)
		return map[bool]string{true: "1", false: "0"}[yes], err
	}}
}

// prepare makes the database, and what is changed in it, a document for each kind.
func prepare(db string) []*kind {
	ctx := context.Background()
	s, err := store.Open(ctx, db)
	check(err)
	defer s.Close()
	box := func(name string) string {
		b := brief.New("mm")
		b.Name, b.Notes = brief.Text(name), "0"
		id, err := s.Boxes.Create(ctx, b, "new")
		check(err)
		return id
	}
	written, undone, held, shared, binned, ticked := box("written"), box("undone"), box("held"), box("shared"), box("binned"), box("made")
	list, err := s.Lists.Create(ctx, cutlist.List{Name: "0"}, "new")
	check(err)
	order := batch.Order{ID: "o", Box: brief.New("mm").Encode(), Count: "9"}
	orders, err := s.Batches.Create(ctx, batch.Document{Name: "0", Orders: []batch.Order{order}, By: "2037-01-01",
		Hours: map[string]brief.Text{"sat": "3"}}, "new")
	check(err)
	made, err := s.Log.Record(ctx, record.Of(brief.New("mm"), time.Now()))
	check(err)
	check(s.Log.KeepPhotos(ctx, store.Photo{Making: made[0], Width: 1, Height: 1, Says: "0", Data: []byte("x"), Small: []byte("x")}))
	photos, err := s.Log.Photos(ctx, made[0])
	check(err)
	check(s.Shelf.PutIn(ctx, "Shown", written))
	thing := brief.New("mm").Contents[0]
	head, err := s.Boxes.Head(ctx, held)
	check(err)
	d := docs{written, undone, held, shared, binned, ticked, list, orders, made[0], photos[0].ID, head.Doc.Contents[0].ID,
		string(thing.Name)}
	return append(d.typed(), d.switched()...)
}

// boxes is how many there are before any change.
const boxes = 6

// docs are what is changed.
type docs struct{ written, undone, held, shared, binned, ticked, list, orders, making, photo, thing, name string }

func (d docs) typed() []*kind {
	ctx := context.Background()
	return []*kind{
		typed("a field of a box", "/projects/"+d.written+"/change", "notes", func(s *store.Store) (string, error) {
			b, err := s.Boxes.Head(ctx, d.written)
			return string(b.Doc.Notes), err
		}),
		typed("the shop", "/shop/change", "prices.wage", func(s *store.Store) (string, error) {
			h, err := s.Shops.Head(ctx, store.TheShop)
			if h.Doc.Get("prices.wage") == "" {
				return "0", err
			}
			return h.Doc.Get("prices.wage"), err
		}),
		typed("a list of pieces", "/cut/"+d.list+"/change", "name", func(s *store.Store) (string, error) {
			l, err := s.Lists.Head(ctx, d.list)
			return string(l.Doc.Name), err
		}),
		typed("a batch", "/batches/"+d.orders+"/change", "name", func(s *store.Store) (string, error) {
			b, err := s.Batches.Head(ctx, d.orders)
			return string(b.Doc.Name), err
		}),
		typed("a making", "/makings/"+d.making+"/change", "notes", func(s *store.Store) (string, error) {
			m, err := s.Makings.Head(ctx, d.making)
			if m.Doc.Notes == "" {
				return "0", err
			}
			return string(m.Doc.Notes), err
		}),
		typed("a photo", "/photos/"+d.photo, "says", func(s *store.Store) (string, error) {
			p, err := s.Log.Photo(ctx, d.photo, true)
			return p.Says, err
		}),
		{name: "a new box", state: number, do: func(int) (string, url.Values) { return "/projects", form() },
			is: func(s *store.Store) (string, error) {
				here, err := s.Shelf.Count(ctx, false)
				binned, also := s.Shelf.Count(ctx, true)
				return number(here + binned - boxes), errors.Join(err, also)
			}},
		{name: "a making recorded", state: number, do: func(n int) (string, url.Values) {
			return "/projects/" + d.ticked + "/makings", form("key", fmt.Sprint("k", n), "count", "1", "made", "2026-11-20")
		}, is: func(s *store.Store) (string, error) {
			n := 0
			err := s.Log.EachMaking(ctx, store.Look{Project: d.ticked}, func(record.Making) error { n++; return nil })
			return number(n), err
		}},
	}
}

func (d docs) switched() []*kind {
	ctx := context.Background()
	on := func(at string, pairs ...string) func() (string, url.Values) {
		return func() (string, url.Values) { return at, form(pairs...) }
	}
	undone := 0
	step := sets.JobOf(plan.Make(brief.New("mm"), request.Default)).Steps[0]
	tick := func(more string) func() (string, url.Values) {
		return on("/projects/"+d.held+"/bench/tick", "step", step.ID, "mark", workbench.MarkOf(step), "more", more)
	}
	there := func(err error) (bool, error) {
		if errors.Is(err, store.ErrNone) {
			return false, nil
		}
		return err == nil, err
	}
	return []*kind{
		switched("a tick at the bench", tick("1"), tick("-1"), func(s *store.Store) (bool, error) {
			ticks, _, err := s.Log.Ticks(ctx, d.held)
			return ticks[step.ID].Done == 1, err
		}),
		switched("a usual thing", on("/projects/"+d.held+"/keep-thing", "thing", d.thing), on("/library/forget", "name", d.name),
			func(s *store.Store) (bool, error) {
				things, err := s.Things(ctx)
				return len(things) > 0, err
			}),
		switched("a folder's page", on("/folders/share", "folder", "Shown"), on("/folders/unshare", "folder", "Shown"),
			func(s *store.Store) (bool, error) {
				_, err := s.Links.CollectionOf(ctx, "Shown")
				return there(err)
			}),
		switched("undo", func() (string, url.Values) {
			undone++
			return "/projects/" + d.undone + "/change", form("notes", fmt.Sprint("turn ", undone))
		}, on("/projects/"+d.undone+"/undo", "anyway", "1"), func(s *store.Store) (bool, error) {
			b, err := s.Boxes.Head(ctx, d.undone)
			return strings.HasPrefix(string(b.Doc.Notes), "turn"), err
		}),
		switched("a folder", on("/projects/"+d.held+"/folder", "into", "Fair"), on("/projects/"+d.held+"/folder", "out", "Fair"),
			func(s *store.Store) (bool, error) {
				in, err := s.Shelf.FoldersOf(ctx, d.held)
				return len(in) > 0, err
			}),
		switched("a link", on("/projects/"+d.shared+"/share"), on("/projects/"+d.shared+"/unshare"), func(s *store.Store) (bool, error) {
			_, err := s.Links.ShareOf(ctx, d.shared)
			return there(err)
		}),
		switched("the bin", on("/projects/"+d.binned+"/bin"), on("/projects/"+d.binned+"/restore"), func(s *store.Store) (bool, error) {
			b, err := s.Boxes.Head(ctx, d.binned)
			return b.Binned, err
		}),
		switched("a tick of a batch", on("/batches/"+d.orders+"/change", "act", "tick", "do", "o/1/Trim"),
			on("/batches/"+d.orders+"/change", "act", "tick", "do", "o/-1/Trim"), func(s *store.Store) (bool, error) {
				b, err := s.Batches.Head(ctx, d.orders)
				return b.Doc.Done.Of("o", "Trim") == 1, err
			}),
	}
}

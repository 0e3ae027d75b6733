package boxes

import (
	"context"
	"errors"
	"io"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/words"
	"brevium/draw/pen"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// Listed is a project as a list shows it.
type Listed struct {
	store.Listed
	Program string // that drew it, with this shop
	Start   bool   // others are begun from it
	Put     bool   // it is put in place of what stood there
}

// Name is what to call it, whatever it is called.
func (l Listed) Name() string { return desk.Called(l.Title, desk.Nameless) }

// Pictured reports whether there is a plan to draw.
func (l Listed) Pictured() bool {
	return l.Broken == nil && l.Card != nil && l.Card.Line != workbench.Unfinished && l.Card.Line != workbench.Unbegun
}

// List gives a page of a list. It plans nothing: how a box was last shown stands there, and what is not fresh of it comes
// after (Lines).
func (s *Room) List(ctx context.Context, want store.Want, page int) ([]Listed, int, error) {
	program := s.Program(ctx)
	got, err := s.Store.Shelf.List(ctx, want, program, page)
	if err != nil {
		return nil, 0, err
	}
	out := make([]Listed, len(got.Listed))
	for i, l := range got.Listed {
		out[i] = Listed{l, program, want.Starting, false}
	}
	return out, got.All, nil
}

// linesPage is how some boxes of a list are shown now, put in place of what stood there.
type linesPage struct {
	desk.Page
	Cards []Listed
}

// Lines shows boxes of a list as they are now, those that were not fresh there, and keeps it for the next time.
func (s *Room) Lines(c *echo.Context) error {
	ctx, program := c.Request().Context(), s.Program(c.Request().Context())
	ids := c.QueryParams()["p"]
	done, err := s.Short.Take(ctx)
	if err != nil {
		return err
	}
	defer done()
	v := &linesPage{Page: desk.Page{Part: "lines", PartOnly: true}}
	for _, id := range ids[:min(len(ids), store.PerPage)] {
		head, err := s.Store.Boxes.Head(ctx, id)
		if errors.Is(err, store.ErrNone) || errors.As(err, new(*store.Broken)) {
			continue
		}
		if err != nil {
			return err
		}
		card, err := s.Store.Shelf.CardOf(ctx, id, head.ID, program)
		if errors.Is(err, store.ErrNone) {
			card = s.Work.Make(ctx, head.Doc, "").Card()
			s.Work.KeepCard(ctx, head, card)
		} else if err != nil {
			return err
		}
		v.Cards = append(v.Cards, Listed{store.Listed{Project: id, Head: head.ID, Card: &card}, program, false, true})
	}
	return s.Render(c, http.StatusOK, "lines", v)
}

// Stale is the address that tells what is not fresh on a page of a list, "" when all is.
func (v *homePage) Stale() string {
	q := url.Values{}
	for _, l := range v.Cards {
		if !l.Fresh && l.Broken == nil {
			q.Add("p", l.Project)
		}
	}
	if len(q) == 0 {
		return ""
	}
	return "/lines?" + q.Encode()
}

// pages is where a list stands among its pages.
type pages struct {
	Here, Last, All int
	query           url.Values // what is looked for, but the page
	path            string
}

// Link gives the address of a page of the list, from 1.
func (p pages) Link(n int) string {
	page := ""
	if n > 1 {
		page = strconv.Itoa(n)
	}
	return p.With("page", page)
}

// With gives the address of the list with something else looked for.
func (p pages) With(pairs ...string) string {
	q := url.Values{}
	maps.Copy(q, p.query)
	for i := 0; i+1 < len(pairs); i += 2 {
		if q.Set(pairs[i], pairs[i+1]); pairs[i+1] == "" {
			q.Del(pairs[i])
		}
	}
	if len(q) == 0 {
		return p.path
	}
	return p.path + "?" + q.Encode()
}

// wantOf reads from the address which boxes a list is to show.
func wantOf(c *echo.Context) (store.Want, url.Values) {
	q := url.Values{}
	text := func(name string) string {
		t := words.Cut(strings.TrimSpace(c.QueryParam(name)), 100)
		if t != "" {
			q.Set(name, t)
		}
		return t
	}
	want := store.Want{Words: text("q"), Folder: text("folder"), Sort: text("sort")}
	show := text("show")
	want.Archived, want.Starting = show == "by", show == "starting"
	return want, q
}

// homePage is a list of boxes: those there are, or those in the bin.
type homePage struct {
	desk.Page
	Cards           []Listed
	Look            string
	Want            store.Want
	Pages           pages
	Binned          int
	Problem, Notice string
	Clock           string // says that it is wrong
	Folders         []store.Folder
	Arrivals        []store.Arrival   // what came in from files, or as samples, and can be taken back
	Collection      *store.Collection // the link to the folder that is shown
	Address         string
}

func (s *Room) listPage(c *echo.Context, code int, name string, v *homePage, binned bool) error {
	ctx := c.Request().Context()
	want, query := wantOf(c)
	want.Binned = binned
	n, _ := strconv.Atoi(c.QueryParam("page"))
	n = min(max(n, 1), 1_000_000)
	cards, all, err := s.List(ctx, want, n-1)
	if err != nil {
		return err
	}
	if v.Binned, err = s.Store.Shelf.Count(ctx, true); err != nil {
		return err
	}
	v.Cards, v.Look, v.Want = cards, want.Words, want
	v.Pages = pages{n, max(1, (all+store.PerPage-1)/store.PerPage), all, query, c.Request().URL.Path}
	return s.Render(c, code, name, v)
}

func (s *Room) Home(c *echo.Context) error { return s.homeWith(c, http.StatusOK, "") }

func (s *Room) homeWith(c *echo.Context, code int, problem string) error {
	ctx := c.Request().Context()
	if asks, err := s.asksFirst(c); asks || err != nil {
		return errors.Join(err, s.firstPage(c))
	}
	title := "Boxes"
	if folder := c.QueryParam("folder"); folder != "" {
		title = words.Cut(folder, 40)
	}
	if look := c.QueryParam("q"); look != "" {
		title += " with “" + words.Cut(look, 40) + "”"
	}
	v := &homePage{Page: desk.Page{Title: title}, Problem: problem, Notice: homeSays[c.QueryParam("said")], Clock: s.ClockSays(c)}
	var err error
	if v.Folders, err = s.Store.Shelf.Folders(ctx); err != nil {
		return err
	}
	if v.Arrivals, err = s.Store.Arrivals(ctx); err != nil {
		return err
	}
	if folder := c.QueryParam("folder"); folder != "" {
		shared, err := s.Store.Links.CollectionOf(ctx, folder)
		if err == nil {
			v.Collection, v.Address = &shared, "http://"+c.Request().Host+"/c/"+shared.Token
		} else if !errors.Is(err, store.ErrNone) {
			return err
		}
	}
	return s.listPage(c, code, "home", v, false)
}

func (s *Room) BinPage(c *echo.Context) error {
	return s.listPage(c, http.StatusOK, "bin", &homePage{Page: desk.Page{Title: "Bin"}}, true)
}

// CardPicture draws a box as lists show it. Its address names the revision and
// the program, so a browser may keep it; it is kept here as well.
func (s *Room) CardPicture(c *echo.Context) error {
	ctx, id := c.Request().Context(), c.Param("id")
	head, err := s.Store.Boxes.Head(ctx, id)
	if err != nil {
		return err
	}
	of, _ := strconv.ParseInt(c.QueryParam("of"), 10, 64)
	card, err := s.Store.Shelf.CardOf(ctx, id, head.ID, s.Program(c.Request().Context()))
	if err != nil && !errors.Is(err, store.ErrNone) {
		return err
	}
	if len(card.Picture) == 0 {
		m := s.Work.Make(ctx, head.Doc, "")
		card = m.Card()
		svg := m.Picture(220, 150)
		if svg == "" {
			return workbench.ErrNoPlan
		}
		card.Picture = pen.File(svg)
		s.Work.KeepCard(ctx, head, card)
	}
	if of == head.ID && c.QueryParam("v") == s.Program(c.Request().Context()) {
		c.Response().Header().Set("Cache-Control", "private, max-age=31536000, immutable")
	}
	return c.Blob(http.StatusOK, "image/svg+xml", card.Picture)
}

// Create begins a box about which nothing is known yet, in the shop's unit unless another is named.
func (s *Room) Create(c *echo.Context) error {
	if c.FormValue("from") == "scores" {
		return s.Work.Begin(c, s.Workshop(c.Request().Context()).Begin(brief.NewScores()), "Started from someone's "+
			"measurements", "box")
	}
	units := c.FormValue("units")
	if units != "in" && units != "mm" && units != "cm" { // the shop's
		now, err := s.ShopNow(c.Request().Context())
		if err != nil {
			return err
		}
		units = string(now.Doc.Units())
	}
	if from := c.FormValue("from"); slices.Contains(begun, from) {
		return s.createFrom(c, from, units)
	}
	return s.Work.Begin(c, s.Workshop(c.Request().Context()).Begin(brief.Blank(units)), "Begun", "contents")
}

// createFrom begins with an example, or with the box of the first lesson, which goes straight to be made.
func (s *Room) createFrom(c *echo.Context, from, units string) error {
	ctx := c.Request().Context()
	things, err := s.Work.Usuals.List(ctx)
	if err != nil {
		return err
	}
	b := exampleOf(from, units, s.Workshop(ctx), func(name string) (brief.Item, bool) {
		for _, t := range things {
			if string(t.Name) == name {
				return t.Item, true
			}
		}
		return brief.Item{}, false
	})
	if from != first {
		return s.Work.Begin(c, b, "Opened an example", "box")
	}
	id, err := s.Work.Created(c, b, "Started the first box")
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+id+"/bench")
}

// Upload brings a document in: all of it or, with the reason, nothing.
func (s *Room) Upload(c *echo.Context) error {
	file, size, err := desk.Received(c, "document")
	if err != nil {
		return s.homeWith(c, http.StatusBadRequest, "No file was chosen. Choose a file that Brevium saved: one box or several.")
	}
	defer file.Close()
	begins := make([]byte, 2)
	if _, err := file.ReadAt(begins, 0); err == nil && string(begins) == "PK" {
		return s.bringIn(c, file, size)
	}
	data, err := io.ReadAll(io.LimitReader(file, brief.Limit+1))
	if err != nil {
		return err
	}
	b, err := brief.Decode(data)
	if err == nil {
		err = knownOptions(&b)
	}
	if err != nil {
		return s.homeWith(c, http.StatusUnprocessableEntity, "Nothing was added: "+err.Error()+".")
	}
	return s.Work.Begin(c, b, "Added from a file", "contents")
}

// Document gives the project as a file; one that can't be read, as it is
// stored.
func (s *Room) Document(c *echo.Context) error {
	ctx := c.Request().Context()
	p, err := s.Store.Boxes.Head(ctx, c.Param("id"))
	data := s.Work.Whole(c.Request().Context(), p.Doc).Encode()
	if broken := new(store.Broken); errors.As(err, &broken) {
		stored, err := s.Store.Boxes.Body(ctx, c.Param("id"))
		if err != nil {
			return err
		}
		data = []byte(stored)
	} else if err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+desk.FileName(string(p.Doc.Name))+`.brevium.json"`)
	return c.Blob(http.StatusOK, "application/json", data)
}

func (s *Room) CopyProject(c *echo.Context) error {
	p, err := s.Store.Boxes.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	b := p.Doc.Clone()
	const longest = 72
	b.Name = brief.Text(strings.TrimSuffix(words.Cut(strings.TrimSuffix(string(b.Name), ", copy"), longest), "…") + ", copy")
	return s.Work.Begin(c, b, "Copied from "+words.Cut(string(p.Doc.Name), 60), "record")
}

func (s *Room) ToBin(c *echo.Context) error {
	if err := s.Store.Boxes.Throw(c.Request().Context(), c.Param("id"), true); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

func (s *Room) Restore(c *echo.Context) error {
	if err := s.Store.Boxes.Throw(c.Request().Context(), c.Param("id"), false); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id"))
}

func (s *Room) Empty(c *echo.Context) error {
	if _, err := s.Store.Empty(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/bin")
}

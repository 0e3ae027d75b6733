package web

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/sets"
	"brevium/core/words"
	"brevium/draw"
	"brevium/store"
)

// listed is a project as a list shows it.
type listed struct {
	store.Listed
	Start bool // others are begun from it
}

// Name is what to call it, whatever it is called.
func (l listed) Name() string { return called(l.Title, nameless) }

const nameless = "A box without a name"

// Pictured reports whether there is a plan to draw.
func (l listed) Pictured() bool {
	return l.Broken == nil && l.Card != nil && l.Card.Line != unfinished && l.Card.Line != unbegun
}

const (
	unfinished = "Not finished: something in its brief needs mending."
	unbegun    = "Nothing goes in yet."
)

// cardOf tells a plan as lists do.
func cardOf(p *plan.Plan) store.Summary {
	if fresh(&p.Brief) {
		return store.Summary{Line: unbegun}
	}
	if !p.OK() {
		return store.Summary{Line: unfinished, Trouble: true}
	}
	show, o := p.Step.ShowUp, p.Box.Outside
	line := fmt.Sprintf("%s × %s × %s outside", show(o.Length).Text, show(o.Width).Text,
		show(o.Depth).Text+" "+string(p.Step.Unit))
	if n := len(p.Layout.Sheets); n > 0 {
		line += " · " + p.SheetsShort(n)
	}
	return store.Summary{Line: line, Trouble: !p.Holds()}
}

// cardOfSet tells a set as lists do.
func cardOfSet(s *sets.Set) store.Summary {
	p := s.Plans[0]
	show, o := p.Step.ShowUp, s.Outside()
	line := fmt.Sprintf("a set of %d: %s × %s × %s together · %d %s", len(s.Plans), show(o.Length).Text, show(o.Width).Text,
		show(o.Depth).Text+" "+string(p.Step.Unit), s.Sheets(), map[bool]string{true: "sheet",
			false: "sheets"}[s.Sheets() == 1])
	return store.Summary{Line: line, Trouble: !s.Holds()}
}

// list gives a page of a list. What is not kept of a box is made here, and
// kept for the next time.
func (s *Server) list(ctx context.Context, want store.Want, page int) ([]listed, int, error) {
	got, err := s.store.List(ctx, want, s.program(), page)
	if err != nil {
		return nil, 0, err
	}
	out := make([]listed, len(got.Listed))
	for i, l := range got.Listed {
		out[i].Listed, out[i].Start = l, want.Starting
		if l.Card != nil || l.Broken != nil {
			continue
		}
		head, err := s.store.Boxes.Head(ctx, l.Project)
		if err != nil {
			return nil, 0, err
		}
		card := s.make(head.Doc, "").card()
		out[i].Card = &card
		s.keepCard(ctx, head, card)
	}
	return out, got.All, nil
}

// keepCard keeps how lists show a box. It can be made again: that it could not
// be kept is no reason to show nothing.
func (s *Server) keepCard(ctx context.Context, head store.Project, card store.Summary) {
	if err := s.store.KeepCard(ctx, head.Of, head.ID, s.program(), card); err != nil {
		s.log.Warn("a card was not kept", "project", head.Of, "err", err)
	}
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
	page
	Cards           []listed
	Look            string
	Want            store.Want
	Pages           pages
	Binned          int
	Problem, Notice string
	Folders         []store.Folder
	Collection      *store.Collection // the link to the folder that is shown
	Address         string
}

func (s *Server) listPage(c *echo.Context, code int, name string, v *homePage, binned bool) error {
	ctx := c.Request().Context()
	want, query := wantOf(c)
	want.Binned = binned
	n, _ := strconv.Atoi(c.QueryParam("page"))
	n = min(max(n, 1), 1_000_000)
	cards, all, err := s.list(ctx, want, n-1)
	if err != nil {
		return err
	}
	if v.Binned, err = s.store.Count(ctx, true); err != nil {
		return err
	}
	v.Cards, v.Look, v.Want = cards, want.Words, want
	v.Pages = pages{n, max(1, (all+store.PerPage-1)/store.PerPage), all, query, c.Request().URL.Path}
	return s.render(c, code, name, v)
}

func (s *Server) home(c *echo.Context) error { return s.homeWith(c, http.StatusOK, "") }

func (s *Server) homeWith(c *echo.Context, code int, problem string) error {
	ctx := c.Request().Context()
	title := "Boxes"
	if folder := c.QueryParam("folder"); folder != "" {
		title = words.Cut(folder, 40)
	}
	if look := c.QueryParam("q"); look != "" {
		title += " with “" + words.Cut(look, 40) + "”"
	}
	v := &homePage{page: page{Title: title}, Problem: problem, Notice: homeSays[c.QueryParam("said")]}
	var err error
	if v.Folders, err = s.store.Folders(ctx); err != nil {
		return err
	}
	if folder := c.QueryParam("folder"); folder != "" {
		shared, err := s.store.CollectionOf(ctx, folder)
		if err == nil {
			v.Collection, v.Address = &shared, "http://"+c.Request().Host+"/c/"+shared.Token
		} else if !errors.Is(err, store.ErrNone) {
			return err
		}
	}
	return s.listPage(c, code, "home", v, false)
}

func (s *Server) binPage(c *echo.Context) error {
	return s.listPage(c, http.StatusOK, "bin", &homePage{page: page{Title: "Bin"}}, true)
}

// cardPicture draws a box as lists show it. Its address names the revision and
// the program, so a browser may keep it; it is kept here as well.
func (s *Server) cardPicture(c *echo.Context) error {
	ctx, id := c.Request().Context(), c.Param("id")
	head, err := s.store.Boxes.Head(ctx, id)
	if err != nil {
		return err
	}
	of, _ := strconv.ParseInt(c.QueryParam("of"), 10, 64)
	card, err := s.store.CardOf(ctx, id, head.ID, s.program())
	if err != nil && !errors.Is(err, store.ErrNone) {
		return err
	}
	if len(card.Picture) == 0 {
		m := s.make(head.Doc, "")
		card = m.card()
		svg := m.picture(220, 150)
		if svg == "" {
			return echo.NewHTTPError(http.StatusNotFound, "There is no plan to draw yet.")
		}
		card.Picture = draw.File(svg)
		s.keepCard(ctx, head, card)
	}
	if of == head.ID && c.QueryParam("v") == s.program() {
		c.Response().Header().Set("Cache-Control", "private, max-age=31536000, immutable")
	}
	return c.Blob(http.StatusOK, "image/svg+xml", card.Picture)
}

// create begins a box about which nothing is known yet, in the shop's unit unless another is named.
func (s *Server) create(c *echo.Context) error {
	if c.FormValue("from") == "scores" {
		return s.begin(c, s.workshop().Begin(brief.NewScores()), "Begun from a list of scores", "box")
	}
	units := c.FormValue("units")
	if units != "in" && units != "mm" && units != "cm" { // the shop's
		now, err := s.shopNow(c.Request().Context())
		if err != nil {
			return err
		}
		units = string(now.Doc.Units())
	}
	return s.begin(c, s.workshop().Begin(brief.Blank(units)), "Begun", "contents")
}

func (s *Server) begin(c *echo.Context, b brief.Brief, what, stage string) error {
	ctx := c.Request().Context()
	id, err := s.store.Boxes.Create(ctx, b, what)
	if err != nil {
		return err
	}
	head, err := s.store.Boxes.Head(ctx, id)
	if err != nil {
		return err
	}
	s.keepCard(ctx, head, s.make(b, "").card())
	return c.Redirect(http.StatusSeeOther, "/projects/"+id+"?stage="+stage)
}

// upload brings a document in: all of it or, with the reason, nothing.
func (s *Server) upload(c *echo.Context) error {
	data, err := uploaded(c, "document")
	if err != nil {
		return s.homeWith(c, http.StatusBadRequest, "No file was chosen. Choose a project's document, a .json file that "+
			"Brevium wrote, or a bundle of several, a .zip.")
	}
	if bytes.HasPrefix(data, []byte("PK")) {
		return s.bringIn(c, data)
	}
	b, err := brief.Decode(data)
	if err == nil {
		err = knownOptions(&b)
	}
	if err != nil {
		return s.homeWith(c, http.StatusUnprocessableEntity, "Nothing was brought in: "+err.Error()+".")
	}
	return s.begin(c, b, "Brought in from a document", "contents")
}

// document gives the project as a file; one that can't be read, as it is
// stored.
func (s *Server) document(c *echo.Context) error {
	ctx := c.Request().Context()
	p, err := s.store.Boxes.Head(ctx, c.Param("id"))
	data := s.whole(p.Doc).Encode()
	if broken := new(store.Broken); errors.As(err, &broken) {
		stored, err := s.store.Boxes.Body(ctx, c.Param("id"))
		if err != nil {
			return err
		}
		data = []byte(stored)
	} else if err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+fileName(string(p.Doc.Name))+`.brevium.json"`)
	return c.Blob(http.StatusOK, "application/json", data)
}

// whole is a document with the cards and tools of this shop that its box uses, so that it plans alike where
// the shop is another or empty. What a card costs and how many are in hand stays here.
func (s *Server) whole(b brief.Brief) brief.Brief {
	j, ok := s.make(b, "").job()
	if !ok {
		return b
	}
	out := j.Written()
	for i := range out.Card.Own {
		c := &out.Card.Own[i]
		if !slices.ContainsFunc(b.Card.Own, func(own brief.Stock) bool { return own.ID == c.ID }) {
			c.Price, c.Hand, c.Pack = "", "", ""
		}
	}
	return out
}

// brokenPage tells of a box that can't be read.
type brokenPage struct {
	page
	Why, Path string
}

// showBroken tells of a box that can't be read, and what can be done.
func (s *Server) showBroken(c *echo.Context, broken *store.Broken) {
	if err := s.render(c, http.StatusUnprocessableEntity, "broken", &brokenPage{page{Title: "This box can't be read"},
		words.Capital(broken.Why.Error()), "/projects/" + broken.Of}); err != nil {
		s.log.Error("broken page", "err", err)
	}
}

var notInNames = regexp.MustCompile(`[^a-z0-9]+`)

func fileName(name string) string {
	name = strings.Trim(notInNames.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if name == "" {
		return "box"
	}
	return name[:min(len(name), 60)]
}

func (s *Server) copyProject(c *echo.Context) error {
	p, err := s.store.Boxes.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	b := p.Doc.Clone()
	const longest = 72
	b.Name = brief.Text(strings.TrimSuffix(words.Cut(strings.TrimSuffix(string(b.Name), ", copy"), longest), "…") + ", copy")
	return s.begin(c, b, "Copied from "+words.Cut(string(p.Doc.Name), 60), "record")
}

func (s *Server) toBin(c *echo.Context) error {
	if err := s.store.Boxes.Throw(c.Request().Context(), c.Param("id"), true); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

func (s *Server) restore(c *echo.Context) error {
	if err := s.store.Boxes.Throw(c.Request().Context(), c.Param("id"), false); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id"))
}

func (s *Server) empty(c *echo.Context) error {
	if _, err := s.store.Empty(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/bin")
}

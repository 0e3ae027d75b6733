package boxes

import (
	"bytes"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/store"
	"brevium/web/desk"
)

// What came in at once, from a file or as samples, is listed and can be taken back.

// TakeBack takes back what came in at once, samples or a file.
func (s *Room) TakeBack(c *echo.Context) error {
	gone, stay, err := s.Store.TakeBack(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	said := map[bool]string{true: "took-back", false: "took-some"}[stay == 0]
	if gone == 0 {
		said = "took-none"
	}
	return c.Redirect(http.StatusSeeOther, "/?said="+said)
}

// Samples are those to look round with, nil where there are none.
func (v *homePage) Samples() *store.Arrival {
	for i := range v.Arrivals {
		if v.Arrivals[i].Kind == store.Samples {
			return &v.Arrivals[i]
		}
	}
	return nil
}

// FromFiles is what came in from files and can be taken back, the newest first.
func (v *homePage) FromFiles() (out []arrival) {
	for _, a := range v.Arrivals {
		if a.Kind != store.Samples && len(out) < 20 {
			out = append(out, arrival{a})
		}
	}
	return out
}

// arrival is what came in, as the page tells it.
type arrival struct{ store.Arrival }

// Says tells how much of it is here.
func (a arrival) Says() string {
	says := desk.PlainCount(a.Docs, "entry", "entries")
	if a.Changed > 0 {
		says += ", " + desk.PlainCount(a.Changed, "changed since", "changed since")
	}
	return says
}

// FromThings begins a box for a list of things.
func (s *Room) FromThings(c *echo.Context) error {
	list, err := desk.Chosen(c, "name, shape, count, length, width, height")
	if err != nil {
		return err
	}
	items, err := contents.ReadCSV(bytes.NewReader(list))
	if err != nil {
		return s.homeWith(c, http.StatusUnprocessableEntity, "Nothing was added: "+err.Error()+".")
	}
	now, err := s.ShopNow(c.Request().Context())
	if err != nil {
		return err
	}
	b := brief.Blank(string(now.Doc.Units()))
	b.Contents = items
	for i := range b.Contents {
		b.Contents[i].ID = desk.NewMark()
	}
	return s.Work.Begin(c, s.Workshop(c.Request().Context()).Begin(b), "Added things from a list", "contents")
}

package workbench

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/draw/pen"
	"brevium/draw/solid"
	"brevium/web/desk"
)

// looked is something makers look for in a box.
type looked struct {
	ID, Title string
	On        bool
	has       func(advice.Shown) bool
}

var wishes = []looked{
	{ID: "one", Title: "From one sheet", has: func(s advice.Shown) bool {
		return s.Plan.OK() && len(s.Plan.Layout.Sheets) == 1 && len(s.Plan.Layout.TooBig) == 0
	}},
	{ID: "clean", Title: "No seams show", has: func(s advice.Shown) bool { return s.Plan.OK() && s.Plan.Box.Clean() }},
	{ID: "flat", Title: "Stores flat", has: func(s advice.Shown) bool { return s.Plan.OK() && s.Plan.Box.Stores }},
	{ID: "tall", Title: "Tall things", has: func(s advice.Shown) bool { return s.Style.Tall }},
	{ID: "book", Title: "Opens like a book", has: func(s advice.Shown) bool { return s.Plan.OK() && s.Plan.Box.Book }},
}

// styleCard is a style in the gallery.
type styleCard struct {
	advice.Shown
	Here    bool
	Picture template.URL
}

// trouble is how little a style suits: it may come off no sheet, or fail a check.
func (s styleCard) trouble() int {
	switch {
	case !s.Plan.Holds():
		return 2
	case len(s.Plan.Layout.TooBig) > 0:
		return 1
	}
	return 0
}

// gallery shows every style at the project's own size: the fewest sheets and minutes first, those that can't be made
// last, with why.
func (s *Room) gallery(c *echo.Context, st *State, v *benchPage) error {
	ctx := c.Request().Context()
	every, err := s.everyStyle(ctx, st.Brief)
	if err != nil {
		return err
	}
	asked := slices.Clone(wishes)
	var cards, cannot []styleCard
	wanted := c.QueryParams()["want"]
	for i := range asked {
		asked[i].On = slices.Contains(wanted, asked[i].ID)
	}
	for _, shown := range every {
		if slices.ContainsFunc(asked, func(w looked) bool { return w.On && !w.has(shown) }) {
			continue
		}
		q := url.Values{"style": {shown.Style.ID}, "of": {fmt.Sprint(st.ID)}, "v": {s.Program(c.Request().Context())}}
		if st.Set != nil {
			q.Set("box", st.Set.Here)
		}
		card := styleCard{shown, string(st.Brief.Box.Style) == shown.Style.ID,
			template.URL("/projects/" + st.Of + "/style.svg?" + q.Encode())}
		if shown.Plan.OK() {
			cards = append(cards, card)
		} else {
			cannot = append(cannot, card)
		}
	}
	slices.SortStableFunc(cards, func(a, b styleCard) int {
		return cmp.Or(cmp.Compare(a.trouble(), b.trouble()), cmp.Compare(len(a.Plan.Layout.Sheets), len(b.Plan.Layout.Sheets)),
			cmp.Compare(a.Style.Level, b.Style.Level),
			cmp.Compare(a.Plan.Minutes(), b.Plan.Minutes()))
	})
	v.Wishes, v.Styles = asked, append(cards, cannot...)
	return nil
}

// everyStyle plans a document in every style.
func (s *Room) everyStyle(ctx context.Context, b brief.Brief) ([]advice.Shown, error) {
	return s.Plans.Styles.For(ctx, desk.Sum(b.Encode()), s.Workshop(ctx), func(w request.Workshop) ([]advice.Shown, error) {
		done, err := s.Short.Take(ctx)
		if err != nil {
			return nil, err
		}
		defer done()
		return advice.Each(ctx, b, w), ctx.Err()
	})
}

// StylePicture draws a style at the project's size, folding up or still.
func (s *Room) StylePicture(c *echo.Context) error {
	head, err := s.Store.Boxes.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	shown := style.Find(c.QueryParam("style"))
	if shown == nil {
		return echo.NewHTTPError(http.StatusNotFound, "This box doesn't exist.")
	}
	w := s.Workshop(c.Request().Context())
	b := one(w, head.Doc, c.QueryParam("box"))
	p := s.Plans.Advised.Get(shown.ID+" "+desk.Sum(b.Encode()), w, func(w request.Workshop) *plan.Plan { return advice.One(b, shown, w) })
	if !p.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "This box can't be made at this size.")
	}
	if c.QueryParam("of") == fmt.Sprint(head.ID) && c.QueryParam("v") == s.Program(c.Request().Context()) {
		c.Response().Header().Set("Cache-Control", "private, max-age=86400, immutable")
	}
	svg := solid.Moving(p, galleryW, galleryH)
	if c.QueryParam("still") != "" {
		svg = solid.Folded(p, assembly.Pose{Fold: 1, Lift: 0.6}, solid.DefaultView, galleryW, galleryH).SVG()
	}
	return c.Blob(http.StatusOK, "image/svg+xml", pen.File(svg))
}

const galleryW, galleryH = 300.0, 216.0

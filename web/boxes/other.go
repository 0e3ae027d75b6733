package boxes

import (
	"cmp"
	"fmt"
	"html/template"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/plan"
	"brevium/core/words"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// A box as a starting point: same box, other contents, and what is then different.

func (s *Room) OtherPage(c *echo.Context) error { return s.otherWith(c, http.StatusOK, "") }

func (s *Room) otherWith(c *echo.Context, code int, problem string) error {
	st, err := s.Work.State(c)
	if err != nil {
		return err
	}
	usual, err := s.Work.Usuals.List(c.Request().Context())
	if err != nil {
		return err
	}
	return s.Render(c, code, "other", &otherPage{desk.Page{Title: st.Called() + ": same box, other contents"}, st, usual,
		"/projects/" + st.Of, problem, st.Set != nil, c.QueryParam("thing"), st.Brief.Units})
}

// otherPage asks what else is to go into a box like this.
type otherPage struct {
	desk.Page
	S             *workbench.State
	Usual         []workbench.Usual
	Path, Problem string
	Set           bool
	Asked         string
	Units         brief.Text
}

// Other begins the same box for other contents.
func (s *Room) Other(c *echo.Context) error {
	ctx := c.Request().Context()
	head, err := s.Store.Boxes.Head(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	b, problem, err := s.forOther(c, head.Doc)
	if err != nil {
		return err
	}
	if problem != "" {
		return s.otherWith(c, http.StatusUnprocessableEntity, problem)
	}
	id, err := s.Store.Boxes.Create(ctx, b, "Started from "+words.Cut(string(head.Doc.Name), 60)+", for other contents")
	if err != nil {
		return err
	}
	now, err := s.Store.Boxes.Head(ctx, id)
	if err != nil {
		return err
	}
	s.Work.KeepCard(ctx, now, s.Work.Make(ctx, b, "").Card())
	return c.Redirect(http.StatusSeeOther, "/projects/"+id+"/against/"+c.Param("id"))
}

// forOther is a box with other things in it: whatever hung on those before is let go.
func (s *Room) forOther(c *echo.Context, of brief.Brief) (b brief.Brief, problem string, err error) {
	b = of.Clone()
	if b.Several != nil {
		return b, "Each box of a set has its own things. Copy the set and change what goes in each.", nil
	}
	usual, err := s.Work.Usuals.List(c.Request().Context())
	if err != nil {
		return b, "", err
	}
	things := thingsAsked(c, usual)
	if len(things) == 0 {
		return b, "Choose one of the usual things, or type the size of another.", nil
	}
	b.Contents, b.Size, b.Arrange, b.Sheets.Pins = things, nil, brief.Arrange{Compartments: b.Arrange.Compartments}, nil
	r := brief.NewReader(&b)
	contents.Read(&b, r)
	if len(r.Problems) > 0 {
		return b, r.Problems[0].Text + " " + r.Problems[0].Fix, nil
	}
	if b.Arrange.Compartments != "" && !plan.Make(b, s.Workshop(c.Request().Context())).OK() {
		b.Arrange.Compartments = "" // they were for what was in it
	}
	const longest = 60
	b.Name = brief.Text(strings.TrimSuffix(words.Cut(string(of.Name), longest), "…") + " for " +
		words.Cut(string(things[0].Name), 18))
	return b, "", nil
}

// thingsAsked are what is to go into it: one of the usual things, or one whose size was typed.
func thingsAsked(c *echo.Context, usual []workbench.Usual) (things []brief.Item) {
	typed := func(name string) string { return strings.TrimSpace(c.FormValue(name)) }
	count := brief.Whole(cmp.Or(typed("count"), "1"))
	for _, u := range usual {
		if name := typed("thing"); name != "" && string(u.Name) == name {
			item := u.Item
			item.ID, item.Count = "1", count
			things = append(things, item)
		}
	}
	if len(things) > 0 || typed("length") == "" {
		return things
	}
	return []brief.Item{{ID: "1", Name: brief.Text(words.Cut(cmp.Or(typed("name"), "thing"), 80)), Shape: "block", Count: count,
		Length: brief.Text(typed("length")), Width: brief.Text(c.FormValue("width")), Height: brief.Text(c.FormValue("height"))}}
}

// figure is one number of two plans.
type figure struct {
	Label, Was, Is string
}

// Same reports whether nothing changed.
func (f figure) Same() bool { return f.Was == f.Is }

// figuresOf sets two plans side by side.
func figuresOf(was, is *plan.Plan) (out []figure) {
	tell := func(p *plan.Plan) []string {
		if !p.OK() {
			why := "no plan"
			if len(p.Problems) > 0 {
				why = p.Problems[0].Text
			}
			return []string{why, "", "", "", "", "", ""}
		}
		show := func(d assembly.Dims) string {
			return fmt.Sprintf("%s × %s × %s %s", p.Step.ShowDown(d.Length).Text, p.Step.ShowDown(d.Width).Text,
				p.Step.ShowDown(d.Depth).Text,
				p.Step.Unit)
		}
		checks := "all passed"
		if !p.Holds() {
			checks = "a check failed"
		}
		return []string{p.Style.Title, show(p.Box.Inside), show(p.Box.Outside), desk.PlainCount(len(p.Box.Pieces()), "piece",
			"pieces"),
			p.SheetsShort(len(p.Layout.Sheets)), fmt.Sprintf("about %d min", p.Minutes()), checks}
	}
	a, b := tell(was), tell(is)
	for i, label := range []string{"Box", "Inside", "Outside", "Pieces", "Sheets", "Time", "Checks"} {
		out = append(out, figure{label, a[i], b[i]})
	}
	return out
}

// Against sets a box beside another: what is different in their documents, and in what comes of them.
func (s *Room) Against(c *echo.Context) error {
	ctx := c.Request().Context()
	is, err := s.Store.Boxes.Head(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	was, err := s.Store.Boxes.Head(ctx, c.Param("other"))
	if err != nil {
		return err
	}
	a, b := s.Work.Make(ctx, was.Doc, ""), s.Work.Make(ctx, is.Doc, "")
	isCalled, wasCalled := desk.Called(string(is.Doc.Name), desk.Nameless), desk.Called(string(was.Doc.Name), desk.Nameless)
	return s.Render(c, http.StatusOK, "against", &againstPage{Page: desk.Page{Title: isCalled + " beside " + wasCalled}, Is: isCalled,
		Was: wasCalled, Figures: figuresOf(a.Plan, b.Plan), Path: "/projects/" + is.Of,
		Differ:  workbench.Differences(s.Workshop(ctx), was.Doc, is.Doc),
		WasPath: "/projects/" + was.Of, WasPicture: template.HTML(a.Picture(300, 220)),
		IsPicture: template.HTML(b.Picture(300, 220)), Warnings: b.Plan.Warnings})
}

// againstPage sets two boxes side by side.
type againstPage struct {
	desk.Page
	Is, Was, Path, WasPath string
	Figures                []figure
	Differ                 []workbench.Differ
	WasPicture, IsPicture  template.HTML
	Warnings               []brief.Warning
}

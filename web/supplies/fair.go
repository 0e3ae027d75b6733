package supplies

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
	"brevium/core/costs"
	"brevium/core/cutting"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/store"
	"brevium/web/boxes"
	"brevium/web/desk"
	"brevium/web/questions"
	"brevium/web/sheets"
)

// Several boxes cut together: for the whole fair.

// fair is the boxes that a page cuts together, and how.
type fair struct {
	Ask   brief.Sheets
	Plans []*plan.Plan
	Names []string
	IDs   []string
	Wrong []string // boxes that can't be cut, and why
	query url.Values
	step  measure.Step
	units measure.Unit
}

// MostTogether is how many boxes are cut together.
const MostTogether = 40

// fairOf reads from an address, or a form, which boxes are cut together.
func (s *Room) fairOf(ctx context.Context, values url.Values) (*fair, error) {
	f := &fair{query: url.Values{}}
	text := func(name string) brief.Text { return brief.Text(values.Get(name)) }
	f.Ask = brief.Sheets{Aim: text("aim"), Tie: text("tie"), Sizes: text("sizes"), Offcuts: brief.Flag(values.Get("offcuts"))}
	for _, name := range []string{"aim", "tie", "sizes", "offcuts"} {
		if text := values.Get(name); text != "" {
			f.query.Set(name, text)
		}
	}
	ids := values["p"]
	if len(ids) > MostTogether {
		return nil, echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf("You can cut up to %d boxes together.", MostTogether))
	}
	for _, id := range ids {
		if slices.Contains(f.IDs, id) {
			continue
		}
		head, err := s.Store.Boxes.Head(ctx, id)
		if err != nil && !errors.Is(err, store.ErrNone) && !errors.As(err, new(*store.Broken)) {
			return nil, err
		}
		if err != nil {
			f.Wrong = append(f.Wrong, "A box you chose no longer exists.")
			continue
		}
		f.IDs = append(f.IDs, id)
		f.query.Add("p", id)
		if m := s.Work.Make(ctx, head.Doc, ""); m.Set != nil {
			for i, p := range m.Set.Plans {
				f.add(p, string(head.Doc.Name)+", "+m.Set.Names[i])
			}
		} else {
			f.add(m.Plan, desk.Called(string(head.Doc.Name), desk.Nameless))
		}
	}
	if pieces := f.pieces(); pieces > request.MostPieces {
		return nil, echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf("This is %d pieces, and one layout takes up "+
			"to %d. Remove a box or some copies.", pieces, request.MostPieces))
	}
	f.units = measure.Millimetres
	if len(f.Plans) > 0 {
		f.step, f.units = f.Plans[0].Step, f.Plans[0].Units
	}
	return f, nil
}

// add takes a box in, or says why it can't be cut.
func (f *fair) add(p *plan.Plan, name string) {
	switch {
	case !p.OK():
		f.Wrong = append(f.Wrong, name+" has no plan yet.")
	case len(p.Layout.TooBig) > 0:
		f.Wrong = append(f.Wrong, name+" has a piece that is too big for its sheet.")
	default:
		f.Plans, f.Names = append(f.Plans, p), append(f.Names, name)
	}
}

// pieces counts what is laid of them all.
func (f *fair) pieces() (n int) {
	for _, p := range f.Plans {
		for _, c := range p.Cuts {
			for _, sheet := range c.Sheets {
				n += len(sheet.Placed)
			}
		}
	}
	return n
}

// tasks are what is to be cut of them all.
func (f *fair) tasks() []cutting.Task {
	if len(f.Plans) == 0 {
		return nil
	}
	b := brief.Brief{Units: brief.Text(f.units), Sheets: f.Ask}
	b.Tools.Step = brief.Text(f.Plans[0].Brief.Tools.Step)
	return cutting.Together(plan.Tables(f.Plans), f.Names, request.ReadCutting(b))
}

// alone is what they would take were each laid by itself.
func (f *fair) alone() (n int) {
	for _, p := range f.Plans {
		for _, c := range p.Cuts {
			if !c.Offcut {
				n += len(c.Sheets)
			}
		}
	}
	return n
}

func (s *Room) FairPage(c *echo.Context) error {
	ctx := c.Request().Context()
	f, err := s.fairOf(ctx, c.QueryParams())
	if err != nil {
		return err
	}
	made, _ := strconv.ParseInt(c.QueryParam("cut"), 10, 64)
	cut, notice := s.justCut(ctx, made)
	if said := backSays[c.QueryParam("said")]; said != "" {
		notice = said
	}
	look := strings.TrimSpace(c.QueryParam("q"))
	var offered []boxes.Listed
	all := 1
	for page := 0; page < mostPages && len(offered) < all; page++ {
		var some []boxes.Listed
		if some, all, err = s.Boxes.List(ctx, store.Want{Words: look}, page); err != nil {
			return err
		}
		offered = append(offered, some...)
	}
	v := &fairPage{Page: desk.Page{Title: "Cut together"}, Aims: questions.Aims, F: f, Listed: offered,
		More: all - len(offered), Notice: notice, Cut: cut, Query: "?" + f.query.Encode(), Look: look, Others: f.others(offered)}
	if tasks := f.tasks(); len(tasks) > 0 {
		found, err := s.Sheets.Best(ctx, tasks)
		if err != nil {
			return err
		}
		cuts := cutting.Cuts(found)
		cut := sheets.CutViewOf(cuts, f.step, false)
		cut.Bound, cut.Proved = sheets.BoundOf(found)
		if deep := sheets.Deepened(tasks); !cut.Proved && !s.Cuttings.Has(sheets.KeyOf(deep)) {
			cut.Live, cut.Key = "/fair/least?"+f.query.Encode(), sheets.KeyOf(deep)
		}
		v.Cutting, v.Alone, v.Buys = &cut, f.alone(), shop.Shopping(costs.Needs(cuts, s.Workshop(c.Request().Context())))
	}
	return s.Render(c, http.StatusOK, "fair", v)
}

// fairPage is several boxes that are cut together.
type fairPage struct {
	desk.Page
	F                   *fair
	Aims                []style.Choice
	Listed              []boxes.Listed
	More                int
	Notice, Query, Look string
	Cut                 int64
	Others              []string
	Cutting             *sheets.CutView
	Alone               int
	Buys                []shop.Buy
}

// mostPages is how many pages of the list of boxes are offered.
const mostPages = 3

// others are the boxes that were chosen and are not offered: elsewhere in the list.
func (f *fair) others(offered []boxes.Listed) (out []string) {
	for _, id := range f.IDs {
		if !slices.ContainsFunc(offered, func(l boxes.Listed) bool { return l.Project == id }) {
			out = append(out, id)
		}
	}
	return out
}

// fairCut is what was chosen to be cut together, and the best that is known of it.
func (s *Room) fairCut(c *echo.Context) (*fair, []cutting.Found, error) {
	f, err := s.fairAsked(c)
	if err != nil {
		return nil, nil, err
	}
	tasks := f.tasks()
	if len(tasks) == 0 {
		return nil, nil, echo.NewHTTPError(http.StatusNotFound, "None of these boxes has a plan yet. Choose a box with a plan.")
	}
	found, err := s.Sheets.Best(c.Request().Context(), tasks)
	return f, found, err
}

// fairAsked reads which boxes, from the address or from a form.
func (s *Room) fairAsked(c *echo.Context) (*fair, error) {
	if c.Request().Method == http.MethodGet {
		return s.fairOf(c.Request().Context(), c.QueryParams())
	}
	values, err := c.FormValues()
	if err != nil {
		return nil, err
	}
	return s.fairOf(c.Request().Context(), values)
}

// LeastOfFair goes on looking for fewer sheets, and tells what it finds as it goes.
func (s *Room) LeastOfFair(c *echo.Context) error {
	f, found, err := s.fairCut(c)
	if err != nil {
		return err
	}
	return s.Sheets.LeastStream(c, sheets.Deepened(f.tasks()), f.step, cutting.Cuts(found), false)
}

// CutFair takes the sheets of all from the shop.
func (s *Room) CutFair(c *echo.Context) error {
	f, found, err := s.fairCut(c)
	if err != nil {
		return err
	}
	made, err := s.takeFromShop(c, cutting.Cuts(found), "several boxes", f.units)
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/fair?%s&cut=%d", f.query.Encode(), made))
}

// UncutFair puts the shop back as it was before.
func (s *Room) UncutFair(c *echo.Context) error {
	f, err := s.fairAsked(c)
	if err != nil {
		return err
	}
	said, err := s.putBackCut(c)
	if err != nil {
		return err
	}
	f.query.Set("said", said)
	return c.Redirect(http.StatusSeeOther, "/fair?"+f.query.Encode())
}

// FairShopping lists what is to be bought for all of them.
func (s *Room) FairShopping(c *echo.Context) error {
	_, found, err := s.fairCut(c)
	if err != nil {
		return err
	}
	return shoppingOf(c, s.Workshop(c.Request().Context()), cutting.Cuts(found))
}

// Has reports whether a box is among them.
func (f *fair) Has(id string) bool { return slices.Contains(f.IDs, id) }

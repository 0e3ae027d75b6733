package supplies

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// What buttons do to the shop beyond what its fields hold, and what a box gives it.

// actShop does what a button of the shop's page asks.
func (s *Room) actShop(ctx context.Context, e *desk.Changing[shop.Document]) error {
	d, arg := &e.Doc, e.Arg
	switch e.Act {
	case "add-card":
		addCard(e, brief.Stock{Title: "New card", Kind: "card", GSM: "250"})
	case "copy-card":
		if i := d.Of(arg); i >= 0 {
			c := d.Cards[i]
			c.Title = brief.Text(words.Cut(string(c.Title), 70) + ", another")
			addCard(e, c)
		}
	case "remove-card":
		return s.removeCard(ctx, e, arg)
	case "back-card":
		if i := d.Of(arg); i >= 0 {
			d.Cards[i].Retired, e.What = "", string(d.Cards[i].Title)+" offered again"
		}
	case "take-all":
		return s.takeAll(ctx, e, arg)
	case "add-offcut":
		o := shop.Offcut{ID: desk.NewMark(), Width: "4 in", Height: "3 in"}
		if len(d.Cards) > 0 {
			o.Card = brief.Text(d.Cards[0].ID)
		}
		d.Offcuts = append(d.Offcuts, o)
		e.What, e.Focus = "Added an offcut", desk.FieldMark("offcuts.@"+o.ID+".width")
	case "remove-offcut":
		desk.TakeOut(e, "offcuts.@"+arg, "offcut")
		e.What = "Removed an offcut"
	case "mend":
		_, report := shop.Read(*d)
		for _, p := range report.Problems {
			if p.Field == arg {
				for path, text := range p.Set.All() {
					d.Set(path, text)
				}
				e.Focus = desk.FieldMark(p.Field)
			}
		}
	default:
		return actLearnt(e)
	}
	return nil
}

// actLearnt does what a button asks of what was learnt of fits, and of the cautions that were put away.
func actLearnt(e *desk.Changing[shop.Document]) error {
	d, arg := &e.Doc, e.Arg
	switch e.Act {
	case "remove-fit":
		desk.TakeOut(e, "fits.@"+arg, "record")
		e.What = "Removed a fit record"
	case "reset":
		d.Fits = slices.DeleteFunc(d.Fits, func(f shop.Fit) bool {
			n, _ := strconv.Atoi(string(f.Layers))
			return shop.Key{Card: string(f.Card), Walls: string(f.Walls), Layers: n}.String() == arg
		})
		delete(d.Aside, arg)
		e.What = "Removed a card's fit records"
	case "aside":
		yes := "yes"
		if d.Aside[arg] == "yes" {
			yes = ""
		}
		d.Set("aside."+arg, yes)
		e.What = map[string]string{"yes": "Stopped using a card's fit records",
			"": "Started using a card's fit records again"}[yes]
	case "cautions":
		d.Seen, e.What = nil, "Showed all cautions again"
	default:
		return desk.ErrNoAct
	}
	return nil
}

func addCard(e *desk.Changing[shop.Document], c brief.Stock) {
	if len(e.Doc.Cards) >= shop.MostCards {
		e.Notice = fmt.Sprintf("You can have up to %d cards.", shop.MostCards)
		return
	}
	base, n := string(c.Title), 2
	taken := func(title string) bool {
		return slices.ContainsFunc(e.Doc.Cards, func(o brief.Stock) bool { return strings.EqualFold(string(o.Title), title) })
	}
	for ; taken(string(c.Title)); n++ {
		c.Title = brief.Text(fmt.Sprintf("%s %d", base, n))
	}
	c.ID, c.Retired = shop.Slug(string(c.Title), e.Doc.Cards)+"-"+desk.NewMark()[:4], ""
	e.Doc.Cards = append([]brief.Stock{c}, e.Doc.Cards...)
	e.What, e.Part, e.Focus = "Added "+string(c.Title), c.ID, desk.FieldMark("cards.@"+c.ID+".title")
}

// removeCard takes a card out; one that boxes are made of is retired, not lost.
func (s *Room) removeCard(ctx context.Context, e *desk.Changing[shop.Document], id string) error {
	i := e.Doc.Of(id)
	if i < 0 {
		e.Notice = "That card is gone. Someone removed it in another window."
		return nil
	}
	all, err := s.Store.Using(ctx, id)
	if err != nil {
		return err
	}
	title := string(e.Doc.Cards[i].Title)
	if len(all) > 0 {
		e.Doc.Cards[i].Retired = "yes"
		e.What = "Retired " + title
		e.Notice = fmt.Sprintf("%s this card, so it was hidden, not deleted. New boxes can't choose it.",
			desk.PlainCount(len(all), "box uses", "boxes use"))
		return nil
	}
	e.Doc.Cards = slices.Delete(e.Doc.Cards, i, i+1)
	e.What = "Removed " + title
	return nil
}

// takeAll lets the boxes that keep older numbers of a card take those of the shop.
func (s *Room) takeAll(ctx context.Context, e *desk.Changing[shop.Document], id string) error {
	all, err := s.Store.Using(ctx, id)
	if err != nil {
		return err
	}
	for _, rev := range all {
		b := rev.Doc.Clone()
		if workbench.DropOwn(&b, id); string(b.Encode()) != string(rev.Doc.Encode()) {
			e.Besides = append(e.Besides, s.Store.Boxes.Write(rev.Of, store.Change[brief.Brief]{Base: rev.ID, Doc: b,
				What: "It uses the new numbers of " + e.Doc.Get("cards.@"+id+".title")}, nil))
		}
	}
	e.What, e.Same = fmt.Sprintf("%s the new numbers of %s", desk.PlainCount(len(e.Besides), "box takes", "boxes take"),
		e.Doc.Get("cards.@"+id+".title")), len(e.Besides) > 0
	return nil
}

// CardsCSV gives the cards of the shop as a list.
func (s *Room) CardsCSV(c *echo.Context) error {
	head, err := s.Store.Shops.Head(c.Request().Context(), store.TheShop)
	if err != nil {
		return err
	}
	desk.AsFile(c, "cards.csv")
	return shop.WriteCSV(c.Response(), head.Doc.Cards)
}

// ReadCards lays a list of cards on those of the shop: all or nothing.
func (s *Room) ReadCards(c *echo.Context) error {
	list, err := desk.Chosen(c, "title, gsm, caliper, sheets, price")
	if err != nil {
		return err
	}
	_, _, err = s.AlterShop(c, func(head *store.Head[shop.Document]) (desk.Edited[shop.Document], error) {
		cards, err := shop.ReadCSV(bytes.NewReader(list), head.Doc.Cards, head.Doc.Units())
		if err != nil {
			return desk.Edited[shop.Document]{}, echo.NewHTTPError(http.StatusUnprocessableEntity, "Nothing was added: "+err.Error()+".")
		}
		e := desk.Edited[shop.Document]{Doc: head.Doc.Clone(), What: "Added cards from a list"}
		e.Doc.Cards = cards
		e.Besides, err = s.pins(c.Request().Context(), &head.Doc, &e.Doc)
		return e, err
	})
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/shop?part=cards")
}

// Fitted records how a lid was found to fit.
func (s *Room) Fitted(c *echo.Context, st *workbench.State) error {
	fit, why := FitOf(st, c.FormValue("verdict"), c.FormValue("gap"))
	if why != "" {
		st.Notice = why
		return s.Work.Answer(c, http.StatusUnprocessableEntity, st)
	}
	if _, _, err := s.AlterShop(c, func(head *store.Head[shop.Document]) (desk.Edited[shop.Document], error) {
		e := desk.Edited[shop.Document]{Doc: head.Doc.Clone(), What: fmt.Sprintf("How the lid of %s fitted",
			desk.Called(string(st.Brief.Name), desk.Nameless))}
		e.Doc.Fits = append(e.Doc.Fits, fit)
		return e, nil
	}); err != nil {
		return err
	}
	st, err := s.Work.State(c)
	if err != nil {
		return err
	}
	st.Notice = "Saved. Brevium plans the next lids of this card and these walls by it."
	return s.Work.Answer(c, http.StatusOK, st)
}

// FitOf is the record of a lid, or why there is none.
func FitOf(st *workbench.State, verdict, gap string) (shop.Fit, string) {
	corner := st.Sections()
	if len(corner) == 0 {
		return shop.Fit{}, "This box has no lid or sleeve, so there is no fit to record."
	}
	p := st.Shown
	fit := shop.Fit{ID: desk.NewMark(), On: time.Now().Format(time.DateOnly),
		Box:  brief.Text(words.Cut(string(st.Brief.Name), 80)),
		Card: brief.Text(p.FitKey.Card), Walls: brief.Text(p.FitKey.Walls), Layers: brief.Whole(strconv.Itoa(p.FitKey.Layers)),
		Usual: brief.Text(p.Usual.Exact("mm")), Had: brief.Text(corner[0].Play.Exact("mm"))}
	if gap = strings.TrimSpace(gap); gap != "" && verdict == "" {
		l, err := shop.ParseCaliper(gap, p.Step.Unit)
		if err != nil || l > 10*measure.Millimetre {
			return fit, fmt.Sprintf("%q can't be right. Measure how far the lid moves from side to side, and write "+
				"it like %s.", gap, p.Step.Unit.Either("1/32 in", "0.6 mm"))
		}
		fit.Gap = brief.Text(l.Exact("mm"))
		return fit, ""
	}
	for _, v := range shop.Verdicts {
		if v.ID == verdict {
			fit.Verdict = brief.Text(verdict)
			return fit, ""
		}
	}
	return fit, "Choose how it fitted, or type how far the lid moves from side to side."
}

// KeepOffcuts puts what is left of a plan's sheets on the list of the shop.
func (s *Room) KeepOffcuts(c *echo.Context, st *workbench.State) error {
	kept, all := leftOf(workbench.CutsOf(st), string(st.Brief.Name), st.Shown.Units)
	if _, _, err := s.AlterShop(c, func(head *store.Head[shop.Document]) (desk.Edited[shop.Document], error) {
		e := desk.Edited[shop.Document]{Doc: head.Doc.Clone(), What: fmt.Sprintf("Saved %s of %s", keptSaid(len(kept), all),
			desk.Called(string(st.Brief.Name), desk.Nameless))}
		e.Doc.Offcuts = append(e.Doc.Offcuts, kept...)
		return e, nil
	}); err != nil {
		return err
	}
	st.Notice = keptSaid(len(kept), all) + " added to your supplies."
	return s.Work.Answer(c, http.StatusOK, st)
}

// Caution puts a caution away: on the screen, not on what is printed.
func (s *Room) Caution(c *echo.Context) error {
	id := words.Cut(c.FormValue("caution"), 40)
	if _, _, err := s.AlterShop(c, func(head *store.Head[shop.Document]) (desk.Edited[shop.Document], error) {
		e := desk.Edited[shop.Document]{Doc: head.Doc.Clone(), What: "Hid a caution"}
		e.Doc.Set("seen."+id, "yes")
		return e, nil
	}); err != nil {
		return err
	}
	st, err := s.Work.State(c)
	if err != nil {
		return err
	}
	return s.Work.Answer(c, http.StatusOK, st)
}

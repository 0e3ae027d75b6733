package batches

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"brevium/web/desk"

	ics "github.com/arran4/golang-ical"
	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/export"
	"brevium/web/sheets"
)

// What leaves the page of a batch: the calendar, lists, labels, the schedule to print.

// workedOut is a batch as it is worked out: nil where something in it is to be mended first.
type workedOut struct {
	*batchState
	Sheets   batch.Sheets
	Shared   batch.Shared
	Sittings []sittingView
}

func (s *Room) workOut(ctx context.Context, st *batchState, pace bench.Pace) (*workedOut, error) {
	if !st.Read.OK() {
		return nil, nil
	}
	sheets, err := s.sheetsOf(ctx, st)
	if err != nil {
		return nil, err
	}
	shared := s.shared(st, pace)
	return &workedOut{st, sheets, shared, sittingsOf(shared, sheets)}, nil
}

// workedAt is the batch that is asked for, worked out; what is asked of one that can't be is refused.
func (s *Room) workedAt(c *echo.Context, what string) (*workedOut, error) {
	st, err := s.BatchAt(c)
	if err != nil {
		return nil, err
	}
	pace, err := s.Pace(c.Request().Context())
	if err != nil {
		return nil, err
	}
	w, err := s.workOut(c.Request().Context(), st, pace)
	if err == nil && w == nil {
		err = echo.NewHTTPError(http.StatusConflict, what+": fix the red fields of the batch first.")
	}
	return w, err
}

// Calendar gives the sittings as a calendar file, in local time wherever it is read.
func (s *Room) Calendar(c *echo.Context) error {
	w, err := s.workedAt(c, "There are no sittings yet")
	if err != nil {
		return err
	}
	cal := calendarOf(w, s.Clock())
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+desk.FileName(string(w.Doc.Name))+`.ics"`)
	return c.Blob(http.StatusOK, "text/calendar; charset=utf-8", []byte(cal))
}

// calendarOf writes the sittings as events, in lines as the format wants them. An order that no day has time for is an
// event of its own, on the day by which it is needed.
func calendarOf(b *workedOut, now time.Time) string {
	cal := ics.NewCalendarFor("Brevium")
	cal.SetMethod(ics.MethodPublish)
	name := b.Name()
	for _, s := range b.Sittings {
		e := cal.AddEvent(fmt.Sprintf("%s-%s@brevium", b.Of, s.Day))
		e.SetDtStampTime(now.UTC())
		local := func(minutes int) string {
			return s.Day.Add(time.Duration(minutes) * time.Minute).Format("20060102T150405")
		}
		e.SetProperty(ics.ComponentPropertyDtStart, local(s.Begins))
		e.SetProperty(ics.ComponentPropertyDtEnd, local(s.Clock(s.Minutes)))
		var titles, says []string
		for _, w := range s.Stages {
			titles = append(titles, words.Small(w.Title))
			line := fmt.Sprintf("%s %s, %d min:", w.Clock(), w.Title, w.Minutes)
			for _, entry := range w.Entries {
				line += " " + entry.Says() + ";"
			}
			says = append(says, strings.TrimSuffix(line, ";"))
		}
		e.SetSummary(name + ": " + words.List(titles))
		e.SetDescription(strings.Join(says, "\n"))
	}
	for _, o := range b.Read.Orders {
		if unmade := b.Shared.Unmade[o.ID]; unmade > 0 {
			e := cal.AddEvent(fmt.Sprintf("%s-%s-late@brevium", b.Of, o.ID))
			e.SetDtStampTime(now.UTC())
			e.SetAllDayStartAt(o.Due.Time)
			e.SetAllDayEndAt(o.Due.Plus(1).Time)
			e.SetSummary(fmt.Sprintf("%s: not enough time for %s", name, o.Called()))
			e.SetDescription(fmt.Sprintf("No day has time for %s of this work. Make your days longer, or move the date.",
				batch.MinutesSaid(unmade)))
		}
	}
	return cal.Serialize(ics.WithNewLineWindows)
}

// OrdersOut gives the order list as CSV.
func (s *Room) OrdersOut(c *echo.Context, st *batchState) error {
	var out bytes.Buffer
	if err := st.Read.WriteOrders(&out); err != nil {
		return err
	}
	desk.AsFile(c, "orders.csv")
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", out.Bytes())
}

// BatchShopping gives what is to be bought for all of it.
func (s *Room) BatchShopping(c *echo.Context) error {
	w, err := s.workedAt(c, "There is nothing to buy yet")
	if err != nil {
		return err
	}
	var out bytes.Buffer
	if err := shop.WriteShopping(&out, w.Sheets.Buys); err != nil {
		return err
	}
	desk.AsFile(c, "shopping.csv")
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", out.Bytes())
}

// label is what stands on the bag of an order that is packed away.
type label struct {
	orderView
	Done, Left []string
}

// labelsOf are the labels of what is packed away, or of every order where that is asked.
func (s *Room) labelsOf(c *echo.Context, st *batchState) (out []label, err error) {
	pace, err := s.Pace(c.Request().Context())
	if err != nil {
		return nil, err
	}
	orders, err := s.ordersOf(c.Request().Context(), st, batch.Shared{}, pace)
	if err != nil {
		return nil, err
	}
	for _, o := range orders {
		if o.State == batch.Handed || c.QueryParam("all") == "" && o.State != batch.Packed {
			continue
		}
		l := label{orderView: o}
		for _, d := range o.Stages {
			if d.Whole() {
				l.Done = append(l.Done, words.Small(d.Title))
			} else {
				l.Left = append(l.Left, words.Small(d.Title))
			}
		}
		out = append(out, l)
	}
	return out, nil
}

// Labels is a page of labels to print: for what is packed away, or for every order.
func (s *Room) Labels(c *echo.Context, st *batchState) error {
	labels, err := s.labelsOf(c, st)
	if err != nil {
		return err
	}
	form, err := s.LabelForm(c.Request().Context(), s.UsualPaper(c), st.Path()+"/labels.pdf")
	if err != nil {
		return err
	}
	form.All = c.QueryParam("all")
	return s.Render(c, http.StatusOK, "labels", &labelsPage{desk.Page{Title: "Labels: " + st.Name(), Bare: true}, st.Path(),
		st.Name(), labels, form})
}

// LabelSheets gives the labels on sheets of labels: what matters most stands first, since a small one has no room for all.
func (s *Room) LabelSheets(c *echo.Context, st *batchState) error {
	labels, err := s.labelsOf(c, st)
	if err != nil {
		return err
	}
	var out []export.Label
	for _, l := range labels {
		lines := []string{fmt.Sprintf("%d × %s, by %s", l.Copy, l.Title, l.Due.Says())}
		if l.Words != "" {
			lines = append(lines, "On the tag: “"+string(l.Words)+"”")
		}
		if len(l.Left) > 0 {
			lines = append(lines, "Still to do: "+strings.Join(l.Left, ", "))
		}
		if len(l.Done) > 0 {
			lines = append(lines, "Done: "+strings.Join(l.Done, ", "))
		}
		out = append(out, export.Label{Title: l.Called(), Lines: lines})
	}
	return s.Desk.Labels(c, out)
}

// labelsPage is a sheet of labels to print.
type labelsPage struct {
	desk.Page
	Path, Name string
	Labels     []label
	Form       desk.LabelForm
}

// schedulePage is the schedule as it is printed.
type schedulePage struct {
	desk.Page
	B          *batchState
	Path, Name string
	Work       *batch.Shared
	Sheets     *batch.Sheets
	Sittings   []sittingView
	Orders     []orderView
	Drawn      *sheets.CutView // the sheets, with their cuts in order
	Cards      []orderCards
}

// orderCards are the score cards of an order's box.
type orderCards struct {
	Title string
	Cards []bench.ScoreCard
}

// cardsOf are the score cards of what is still to be scored, each box once.
func cardsOf(st *batchState) (out []orderCards) {
	told := map[string]bool{}
	for _, o := range st.Read.Orders {
		if o.Made == nil || !o.Made.OK() || o.State == batch.Handed {
			continue
		}
		for i, p := range o.Made.Job.Plans {
			title := o.Made.Job.Name
			if i < len(o.Made.Job.Names) {
				title += ": " + o.Made.Job.Names[i]
			}
			if key := title + fmt.Sprint(p.Guide.Cards); !told[key] {
				told[key] = true
				out = append(out, orderCards{title, p.Guide.Cards})
			}
		}
	}
	return out
}

// drawnSheets draws the sheets of a batch.
func drawnSheets(s batch.Sheets) sheets.CutView {
	return sheets.CutViewOf(s.Cuts, measure.DefaultStep(s.Units), false)
}

// SchedulePrint is the schedule to print: the sittings with boxes to tick.
func (s *Room) SchedulePrint(c *echo.Context, st *batchState) error {
	ctx := c.Request().Context()
	pace, err := s.Pace(ctx)
	if err != nil {
		return err
	}
	v := &schedulePage{Page: desk.Page{Title: "Print: " + st.Name(), Bare: true}, B: st, Path: st.Path(), Name: st.Name()}
	w, err := s.workOut(ctx, st, pace)
	if err != nil {
		return err
	}
	if w != nil {
		v.Work, v.Sheets, v.Sittings = &w.Shared, &w.Sheets, w.Sittings
		drawn := drawnSheets(w.Sheets)
		v.Drawn, v.Cards = &drawn, cardsOf(st)
		if v.Orders, err = s.ordersOf(ctx, st, w.Shared, pace); err != nil {
			return err
		}
	}
	return s.Render(c, http.StatusOK, "schedule", v)
}

package batches

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/sheets"
)

// What the pages of a batch show.

// stageWork is the work on one stage within a sitting, on one order after the other.
type stageWork struct {
	Title   string
	At      int // of the clock, minutes after midnight
	After   int // minutes from the beginning of the sitting
	Setup   int
	Minutes int
	Entries []batch.Entry
	Notes   []string
}

// sittingView is a sitting as it is shown.
type sittingView struct {
	batch.Sitting
	Stages []stageWork
	Waits  []batch.Wait
}

// Ends is when the sitting is over.
func (v sittingView) Ends() string { return desk.Clock(v.Sitting.Clock(v.Minutes)) }

// Starts is when it begins.
func (v sittingView) Starts() string { return desk.Clock(v.Begins) }

// Clock is when the stage begins.
func (w stageWork) Clock() string { return desk.Clock(w.At) }

// All says that all of it is done, as acts do.
func (w stageWork) All() string {
	var out []string
	for _, e := range w.Entries {
		for _, title := range e.Titles {
			out = append(out, fmt.Sprintf("%s/%d/%s", e.Order.ID, e.More(), title))
		}
	}
	return strings.Join(out, ";")
}

// Share is how much of the sitting's bar the stage takes, in hundredths.
func (v sittingView) Share(w stageWork) string {
	return fmt.Sprintf("%.2f", 100*float64(w.Setup+w.Minutes)/float64(max(1, v.Minutes)))
}

// Left is where the stage's bar begins, in hundredths.
func (v sittingView) Left(w stageWork) string {
	return fmt.Sprintf("%.2f", 100*float64(w.After)/float64(max(1, v.Minutes)))
}

func sittingsOf(sh batch.Shared, sheets batch.Sheets) (out []sittingView) {
	for _, s := range sh.Sittings {
		v := sittingView{Sitting: s}
		for _, e := range s.Entries {
			n := len(v.Stages) - 1
			if n < 0 || v.Stages[n].Title != e.Stage {
				v.Stages = append(v.Stages, stageWork{Title: e.Stage, At: s.Clock(e.At), After: e.At, Setup: e.Setup, Notes: notesOf(e.Stage,
					sheets)})
				n++
			}
			w := &v.Stages[n]
			w.Entries, w.Minutes = append(w.Entries, e), w.Minutes+e.Minutes
		}
		for _, w := range sh.Waits {
			if w.Day == s.Day {
				v.Waits = append(v.Waits, w)
			}
		}
		out = append(out, v)
	}
	return out
}

// notesOf is small knowledge for a stage of many boxes.
func notesOf(stage string, sheets batch.Sheets) []string {
	switch stage {
	case "Trim":
		if n := len(sheets.Settings); n > 0 {
			return []string{fmt.Sprintf("%s of the trimmer, one after another. The list is at the side. Use a fresh "+
				"blade every 250 cuts.",
				desk.PlainCount(n, "setting", "settings"))}
		}
	case "Score":
		return []string{"Score one piece after another at the same setting. Then move to the next setting."}
	case "Stick":
		return []string{"Peg or weight each one and start the next while it holds."}
	case "Fill":
		return []string{"Clear the table and wash your hands before food is filled."}
	}
	return nil
}

// orderView is an order as it is shown.
type orderView struct {
	*batch.Ordered
	Fields  []desk.Field // for whom, how many, by when
	More    []desk.Field
	Box     *brief.Problem // what is wrong with its box
	Stages  []stageDone
	Ready   *batch.Day
	Late    bool
	Unmade  int  // minutes that find no day
	Stale   bool // the box was changed since it was ordered
	Minutes int  // that are left
	Title   string
}

// stageDone is how many of an order are done with a stage.
type stageDone struct {
	Title string
	Done  int
	All   int
}

// Whole reports whether all of it is done.
func (d stageDone) Whole() bool { return d.Done >= d.All }

// Finished reports whether every stage is done.
func (o orderView) Finished() bool {
	return len(o.Stages) > 0 && !slices.ContainsFunc(o.Stages, func(d stageDone) bool { return !d.Whole() })
}

// Rest is how many of an order are still to be done with the stage.
func (d stageDone) Rest() int { return d.All - d.Done }

// batchForm asks about a batch.
type batchForm struct{ desk.Form }

func askOf(st *batchState) batchForm {
	return batchForm{desk.Form{Doc: desk.Asked[batch.Document]{Of: &st.Doc}, At: batch.Form.Field,
		Placed: func(path string) string { return batch.Form.Placed(&st.Doc, path) },
		Report: &brief.Report{Problems: st.Read.Problems}}}
}

// ordersOf shows the orders; which boxes were changed since is looked up for all of them at once.
func (s *Room) ordersOf(ctx context.Context, st *batchState, sh batch.Shared, pace bench.Pace) (out []orderView, err error) {
	var ids []string
	for _, o := range st.Read.Orders {
		ids = append(ids, o.Project)
	}
	heads, err := s.Store.Shelf.Heads(ctx, ids)
	if err != nil {
		return nil, err
	}
	f := askOf(st)
	for _, o := range st.Read.Orders {
		at := "orders.@" + o.ID + "."
		v := orderView{Ordered: o, Title: desk.Called(string(o.Brief.Name), desk.Nameless), Box: f.Ask(at + "box").Problem,
			Fields: []desk.Field{f.Ask(at + "name"), f.Ask(at + "count"), f.Ask(at + "by")},
			More:   []desk.Field{f.Open(at+"colours", "the box's own"), f.Open(at+"words", "the box's own")}}
		if o.Made != nil && o.Made.OK() {
			for _, stage := range o.Made.Stages {
				v.Stages = append(v.Stages, stageDone{stage.Title, min(o.Copy, st.Doc.Done.Of(o.ID, stage.Title)), o.Copy})
				v.Minutes += st.Read.Left(o, stage, pace)
			}
		}
		if day, ok := sh.Ready[o.ID]; ok {
			v.Ready, v.Late = &day, day.Since(o.Due) > 0
		}
		if v.Unmade = sh.Unmade[o.ID]; v.Unmade > 0 {
			v.Late = true
		}
		is, known := heads[o.Project]
		v.Stale = known && is != o.Revision
		out = append(out, v)
	}
	return out, nil
}

// batchPage is a batch as its page shows it.
type batchPage struct {
	desk.Page
	desk.Kept
	B                          *batchState
	Path, Here                 string
	NameField, By, From, Hands desk.Field
	Week                       []desk.Field
	Orders                     []orderView
	OrdersProblem, HoursTold   *brief.Problem
	Work                       *batch.Shared
	Sheets                     *batch.Sheets
	Drawn                      *sheets.CutView
	Sittings                   []sittingView
	Warnings                   []brief.Warning
	Names                      []string // of boxes, to pick from
	Learnt, Packed             bool
	History                    []store.Revision[batch.Document]
}

func (s *Room) showBatch(c *echo.Context, code int, head batchHead, e desk.Edited[batch.Document]) error {
	ctx := c.Request().Context()
	st, err := s.ReadBatch(ctx, head)
	if err != nil {
		return err
	}
	pace, err := s.Pace(ctx)
	if err != nil {
		return err
	}
	f := askOf(st)
	v := &batchPage{Page: desk.Page{Title: st.Name(), Part: "batchbench", InPlace: true}, B: st, Path: st.Path(), Week: f.week(st),
		NameField: f.Ask("name"), By: f.Ask("by"), From: f.Ask("from"), Hands: f.Ask("hands"), Warnings: st.Read.Warnings,
		OrdersProblem: f.Ask("orders").Problem, HoursTold: f.Ask("hours").Problem, Learnt: pace.Learnt()}
	if v.Kept, err = desk.KeptOf(ctx, s.BatchKind(c), &st.batchHead, &e, func(path string) string {
		return desk.Labelled(batch.Form, &st.Doc, path)
	}); err != nil {
		return err
	}
	if v.Names, err = s.Store.Shelf.Names(ctx, mostNames); err != nil {
		return err
	}
	if v.History, err = s.Store.Batches.History(ctx, st.Of, st.ID, 30); err != nil {
		return err
	}
	w, err := s.workOut(ctx, st, pace)
	if err != nil {
		return err
	}
	sh := batch.Shared{}
	if w != nil {
		sh = w.Shared
		v.Work, v.Sheets, v.Sittings = &w.Shared, &w.Sheets, w.Sittings
		drawn := drawnSheets(w.Sheets)
		v.Drawn = &drawn
	}
	if v.Orders, err = s.ordersOf(ctx, st, sh, pace); err != nil {
		return err
	}
	v.Packed = slices.ContainsFunc(v.Orders, func(o orderView) bool { return o.State == batch.Packed })
	return s.Render(c, code, "batch", v)
}

// week asks for the hours of each day of the week, and of dates that are otherwise.
func (f batchForm) week(st *batchState) (out []desk.Field) {
	hours := func(name, says string) {
		fd := f.Field("text", "hours."+name, says, "")
		fd.Open = "none"
		out = append(out, fd)
	}
	for i, id := range batch.Week {
		hours(id, batch.WeekSays[i])
	}
	for name := range brief.Sorted(st.Doc.Hours) {
		if slices.Contains(batch.Week, name) {
			continue
		}
		says := name
		if d, err := batch.ParseDay(name); err == nil {
			says = d.Says()
		}
		hours(name, says)
	}
	return out
}

// mostNames is how many names of boxes there are to pick from.
const mostNames = 120

// givesPage tells what would make a batch fit.
type givesPage struct {
	desk.Page
	Path  string
	Base  int64
	Gives []batch.Give
}

// BatchGives tells what would make a batch fit that does not: it takes longer, so it comes after the page.
func (s *Room) BatchGives(c *echo.Context, st *batchState) error {
	done, err := s.Long.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	pace, err := s.Pace(c.Request().Context())
	if err != nil {
		return err
	}
	return s.Render(c, http.StatusOK, "gives", &givesPage{desk.Page{Title: "Ways to finish in time", Part: "givelist"},
		st.Path(), st.ID, st.Read.Gives(pace)})
}

// BatchStamp says that something was done elsewhere, and otherwise nothing.
func (s *Room) BatchStamp(c *echo.Context) error {
	id := c.Param("batch")
	is, err := s.Store.Batches.At(c.Request().Context(), id)
	if err != nil {
		return err
	}
	if fmt.Sprint(is) == c.QueryParam("was") {
		return c.NoContent(http.StatusNoContent)
	}
	return s.Render(c, http.StatusOK, "batch", &batchPage{Page: desk.Page{Part: "elsewhere", PartOnly: true}, Path: "/batches/" + id})
}

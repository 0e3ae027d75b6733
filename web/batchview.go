package web

import (
	"bytes"
	"fmt"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/store"
)

// What the pages of a batch show.

// stageWork is the work on one stage within a sitting, on one order after the other.
type stageWork struct {
	Title   string
	At      int // of the clock, minutes after midnight
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

// Clock writes minutes after midnight.
func Clock(m int) string { return fmt.Sprintf("%d:%02d", m/60%24, m%60) }

// Ends is when the sitting is over.
func (v sittingView) Ends() string { return Clock(v.Begins + v.Minutes) }

// Starts is when it begins.
func (v sittingView) Starts() string { return Clock(v.Begins) }

// Clock is when the stage begins.
func (w stageWork) Clock() string { return Clock(w.At) }

// Share is how much of the sitting's bar the stage takes, in hundredths.
func (v sittingView) Share(w stageWork) string {
	return fmt.Sprintf("%.2f", 100*float64(w.Setup+w.Minutes)/float64(max(1, v.Minutes)))
}

// Left is where the stage's bar begins, in hundredths.
func (v sittingView) Left(w stageWork) string {
	return fmt.Sprintf("%.2f", 100*float64(w.At-v.Begins)/float64(max(1, v.Minutes)))
}

func sittingsOf(sh batch.Shared, sheets batch.Sheets) (out []sittingView) {
	for _, s := range sh.Sittings {
		v := sittingView{Sitting: s}
		for _, e := range s.Entries {
			n := len(v.Stages) - 1
			if n < 0 || v.Stages[n].Title != e.Stage {
				v.Stages = append(v.Stages, stageWork{Title: e.Stage, At: s.Begins + e.At, Setup: e.Setup, Notes: notesOf(e.Stage,
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
			return []string{fmt.Sprintf("%s of the stop, one after the other: the list is beside. A fresh blade every 250 cuts.",
				plainCount(n, "setting", "settings"))}
		}
	case "Score":
		return []string{"One piece after another at the same setting, then the board or the fence is moved."}
	case "Stick":
		return []string{"Peg or weight each one and take up the next: holds overlap."}
	case "Fill":
		return []string{"Clear the table and wash your hands before food is filled."}
	}
	return nil
}

// orderView is an order as it is shown.
type orderView struct {
	*batch.Ordered
	Field   string
	Stages  []stageDone
	Ready   *batch.Day
	Late    bool
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

func (s *Server) ordersOf(c *echo.Context, st *batchState, sh batch.Shared, pace bench.Pace) (out []orderView) {
	for i, o := range st.Read.Orders {
		v := orderView{Ordered: o, Field: fmt.Sprintf("orders.%d.", i), Title: called(string(o.Brief.Name), nameless)}
		if o.Made != nil && o.Made.OK() {
			for _, stage := range o.Made.Stages {
				v.Stages = append(v.Stages, stageDone{stage.Title, min(o.Copy, st.Done.Of(o.ID, stage.Title)), o.Copy})
				v.Minutes += o.Left(stage, st.Done, pace)
			}
		}
		if day, ok := sh.Ready[o.ID]; ok {
			v.Ready, v.Late = &day, day.Since(o.Due) > 0
		}
		if o.Project != "" {
			head, err := s.store.Head(c.Request().Context(), o.Project)
			v.Stale = err == nil && head.ID != o.Revision
		}
		out = append(out, v)
	}
	return out
}

func (s *Server) batchPage(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	return s.showBatch(c, http.StatusOK, st)
}

func (s *Server) showBatch(c *echo.Context, code int, st *batchState) error {
	ctx := c.Request().Context()
	pace, err := s.paceNow(ctx)
	if err != nil {
		return err
	}
	data := map[string]any{"Title": called(string(st.Document.Name), "A batch"), "B": st, "Path": "/batches/" + st.ID,
		"Week": weekOf(st), "Learnt": pace.Learnt(), "Warnings": st.Read.Warnings}
	if data["CanUndo"], err = s.store.CanUndoBatch(ctx, st.ID); err != nil {
		return err
	}
	names, err := s.boxNames(c)
	if err != nil {
		return err
	}
	data["Names"] = names
	sh := batch.Shared{}
	w, err := s.workOut(ctx, st, pace)
	if err != nil {
		return err
	}
	if w != nil {
		sh = w.Shared
		data["Work"], data["Sheets"], data["Sittings"] = w.Shared, w.Sheets, w.Sittings
	}
	orders := s.ordersOf(c, st, sh, pace)
	data["Orders"] = orders
	data["Packed"] = slices.ContainsFunc(orders, func(o orderView) bool { return o.State == batch.Packed })
	return s.render(c, code, "batch", data)
}

// boxNames are the names of the boxes that were changed last, to pick from.
func (s *Server) boxNames(c *echo.Context) (out []string, err error) {
	for page := range mostPages {
		got, err := s.store.List(c.Request().Context(), store.Want{}, s.program(), page)
		if err != nil {
			return nil, err
		}
		for _, l := range got.Listed {
			if l.Title != "" && !slices.Contains(out, l.Title) {
				out = append(out, l.Title)
			}
		}
	}
	return out, nil
}

// weekDay is a field for the hours of a day of the week, or of a date that is otherwise.
type weekDay struct{ Path, Says, Text string }

func weekOf(st *batchState) (out []weekDay) {
	for i, id := range batch.Week {
		out = append(out, weekDay{"hours." + id, batch.WeekSays[i], string(st.Document.Hours[id])})
	}
	for name, text := range brief.Sorted(st.Document.Hours) {
		if slices.Contains(batch.Week, name) {
			continue
		}
		says := name
		if d, err := batch.ParseDay(name); err == nil {
			says = d.Says()
		}
		out = append(out, weekDay{"hours." + name, says, string(text)})
	}
	return out
}

// batchGives tells what would make a batch fit that does not: it takes longer, so it comes after
// the page.
func (s *Server) batchGives(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	done, err := s.turn(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	pace, err := s.paceNow(c.Request().Context())
	if err != nil {
		return err
	}
	return s.render(c, http.StatusOK, "gives", map[string]any{"Title": "What gives", "Path": "/batches/" + st.ID,
		"Gives": st.Read.Gives(st.Done, pace), "Part": "givelist"})
}

// batchStamp says that something was done elsewhere, and otherwise nothing.
func (s *Server) batchStamp(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	if st.Stamp == c.QueryParam("was") {
		return c.NoContent(http.StatusNoContent)
	}
	var b bytes.Buffer
	if err := s.pages["batch"].ExecuteTemplate(&b, "elsewhere", map[string]any{"Path": "/batches/" + st.ID}); err != nil {
		return err
	}
	return c.HTMLBlob(http.StatusOK, b.Bytes())
}

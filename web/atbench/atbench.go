package atbench

import (
	"errors"
	"fmt"
	"hash/fnv"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/bench"
	"brevium/core/sets"
	"brevium/draw"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// The work at the bench: one step fills the screen, what is done is kept, and how long it
// took is learnt from.

// benchStep is a step in the list of all.
type benchStep struct {
	bench.Step
	N       int
	Done    int  // of Count
	Changed bool // it is another step now than when it was done
	Here    bool
	Link    string
}

// Ticked reports whether all of it is done as it is now.
func (b benchStep) Ticked() bool { return b.Done >= b.Count && !b.Changed }

// Rest is how many copies are still to be done of it: all, where it says something else now.
func (b benchStep) Rest() int {
	if b.Changed {
		return b.Count
	}
	return b.Count - b.Done
}

// atBench is one picture of one step, with the way on and back.
type atBench struct {
	Path, Name, Link string
	Warning          string
	Steps            []benchStep
	Step             benchStep
	Frame            bench.Frame
	F                int // which picture of the step
	Picture          template.HTML
	Back, On         string // addresses; On is "" at the end of a step, which is ticked
	Mark             string // what the step says, in a number
	Act              string // what ticks from this page are called by, each once
	Minutes, Left    int
	Taken            string // how long it took, once all is done
	Learnt, Finished bool
	Stamp            string
	Aloud            string
	Silent           map[string]bool // cautions that were put away
}

// stampOf changes when anything of what is done does.
func stampOf(ticks map[string]store.Tick) string {
	sum := fnv.New64a()
	ids := make([]string, 0, len(ticks))
	for id := range ticks {
		ids = append(ids, id)
	}
	slices.Sort(ids)
	for _, id := range ids {
		fmt.Fprint(sum, id, ticks[id].Done, ticks[id].Print)
	}
	return strconv.FormatUint(sum.Sum64(), 36)
}

// noBenchPage says that there is nothing to make yet.
type noBenchPage struct {
	desk.Page
	S    *workbench.State
	Path string
}

// atBenchPage is one picture of one step.
type atBenchPage struct {
	desk.Page
	B    *atBench
	Path string
}

func (s *Room) BenchPage(c *echo.Context) error {
	st, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	path := "/projects/" + st.Of
	if !ok {
		return s.Render(c, http.StatusOK, "nobench", &noBenchPage{desk.Page{Title: "At the bench"}, st, path})
	}
	v, err := s.atBench(c, j, path)
	if err != nil {
		return err
	}
	return s.Render(c, http.StatusOK, "atbench", &atBenchPage{desk.Page{Title: v.Name + ": at the bench", Bare: true}, &v, path})
}

func (s *Room) atBench(c *echo.Context, j sets.Job, path string) (v atBench, err error) {
	ctx := c.Request().Context()
	ticks, seconds, err := s.Store.Log.Ticks(ctx, c.Param("id"))
	if err != nil {
		return v, err
	}
	times, err := s.Store.Log.Times(ctx)
	if err != nil {
		return v, err
	}
	pace := bench.PaceOf(times)
	v = atBench{Act: store.NewID(), Path: path, Name: desk.Called(j.Name, desk.Nameless), Link: path + "/bench", Warning: j.Warning(),
		Stamp: stampOf(ticks), Learnt: pace.Learnt(), Silent: s.Workshop(c.Request().Context()).Seen, Minutes: int(pace.Minutes(j.Steps) + 0.5)}
	at, left := -1, 0.0
	for i, step := range j.Steps {
		t := ticks[step.ID]
		b := benchStep{Step: step, N: i + 1, Done: min(t.Done, step.Count), Link: v.at(step.ID, 0)}
		b.Changed = t.Done > 0 && t.Print != workbench.MarkOf(step)
		if !b.Ticked() {
			left += pace.Of(step) * float64(step.Count-b.Done) / float64(max(step.Count, 1))
			if at < 0 {
				at = i
			}
		}
		v.Steps = append(v.Steps, b)
	}
	v.Left = int(left + 0.5)
	asked := c.QueryParam("step")
	if i := slices.IndexFunc(j.Steps, func(b bench.Step) bool { return b.ID == asked }); i >= 0 {
		at = i
	} else if asked == "all" || at < 0 {
		v.Finished, v.Taken = true, saysTime(seconds)
		return v, nil
	}
	if s.Second() {
		j = j.InBoth()
	}
	v.show(j, at, int(workbench.Slider(c, "picture", 1, 1, 1000))-1)
	return v, nil
}

// at is the address of a picture of a step.
func (v *atBench) at(step string, f int) string {
	q := url.Values{"step": {step}}
	if f > 0 {
		q.Set("picture", strconv.Itoa(f+1))
	}
	return v.Link + "?" + q.Encode()
}

// show fills in one picture of the nth step, and the ways from there.
func (v *atBench) show(j sets.Job, n, f int) {
	v.Steps[n].Here = true
	v.Step = v.Steps[n]
	v.Mark = workbench.MarkOf(v.Step.Step) // of what it says in one unit: a tick holds however it is shown
	v.Step.Step = j.Steps[n]
	frames := v.Step.Frames
	v.F = max(0, min(f, len(frames)-1))
	v.Aloud = strings.Join(v.Step.Says, " ")
	if len(frames) > 0 {
		v.Frame = frames[v.F]
		v.Picture = template.HTML(draw.Step(j, v.Frame, 480, 345).SVG())
		v.Aloud = v.Frame.Says
	}
	if v.F == 0 {
		for _, c := range v.Step.Cautions {
			v.Aloud += " " + c.Text
		}
	}
	switch {
	case v.F > 0:
		v.Back = v.at(v.Step.ID, v.F-1)
	case n > 0:
		before := v.Steps[n-1]
		v.Back = v.at(before.ID, max(0, len(before.Frames)-1))
	}
	if v.F+1 < len(frames) {
		v.On = v.at(v.Step.ID, v.F+1)
	} else {
		v.Aloud += " " + v.Step.Check
	}
}

// Last reports whether this is the last picture of its step.
func (v atBench) Last() bool { return v.On == "" }

// Plain reports whether the picture says all that the step does.
func (v atBench) Plain() bool { return len(v.Step.Frames) == 0 }

// Done counts the steps that are ticked.
func (v atBench) Done() (n int) {
	for _, s := range v.Steps {
		if s.Ticked() {
			n++
		}
	}
	return n
}

func saysTime(seconds float64) string {
	m := int(seconds/60 + 0.5)
	switch {
	case seconds <= 0:
		return ""
	case m < 1:
		return "less than a minute"
	case m < 120:
		return strings.TrimSuffix(fmt.Sprintf("%d minutes", m), map[bool]string{true: "s"}[m == 1])
	}
	return fmt.Sprintf("%d h %d min", m/60, m%60)
}

// Tick keeps what was done of a step, and goes on to the next.
func (s *Room) Tick(c *echo.Context) error {
	_, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	step, n := bench.Step{}, -1
	if ok {
		step, n = j.Step(c.FormValue("step"))
	}
	path := "/projects/" + c.Param("id") + "/bench"
	if n < 0 { // the box was changed since: the page shows what there is now
		return c.Redirect(http.StatusSeeOther, path)
	}
	more, err := strconv.Atoi(c.FormValue("more"))
	if err != nil || more > step.Count || more < -step.Count {
		return echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf(
			"This step is only done %d times. Reload the page to see what is left.",
			step.Count))
	}
	mark := workbench.MarkOf(step)
	if c.FormValue("mark") != mark { // what was done is not what it says now
		return c.Redirect(http.StatusSeeOther, path+"?"+url.Values{"step": {step.ID}}.Encode())
	}
	if more != 0 { // of one that is done already the next is shown
		err = s.Store.Do(c.Request().Context(), desk.ActName(c), store.Ticking(c.Param("id"),
			store.Tick{Step: step.ID, Print: mark}, more, step.Count,
			store.Took{Title: step.Title, Seconds: secondsTaken(c), Minutes: step.Minutes}))
		if err != nil && !errors.Is(err, store.ErrArrived) {
			return err
		}
	}
	ticks, _, err := s.Store.Log.Ticks(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, path+"?"+stepAfter(j, n, ticks[step.ID].Done).Encode())
}

// secondsTaken is how long the page saw a step take, 0 where that can't be: who went to bed over it took no night for it.
func secondsTaken(c *echo.Context) float64 {
	seconds, err := strconv.ParseFloat(c.FormValue("seconds"), 64)
	if err != nil || seconds < 1 || seconds > 8*3600 {
		return 0
	}
	return seconds
}

// stepAfter is what is shown when so many of a step are done: the rest of it, or the next.
func stepAfter(j sets.Job, n, done int) url.Values {
	step := j.Steps[n]
	switch {
	case done < step.Count:
		return url.Values{"step": {step.ID}, "picture": {strconv.Itoa(max(1, len(step.Frames)))}}
	case n+1 < len(j.Steps):
		return url.Values{"step": {j.Steps[n+1].ID}}
	}
	return url.Values{"step": {"all"}}
}

// BeginAgain clears the ticks for another making.
func (s *Room) BeginAgain(c *echo.Context) error {
	if err := s.Store.Log.BeginAgain(c.Request().Context(), c.Param("id")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"/bench")
}

// BenchStamp reports whether anything was ticked elsewhere.
func (s *Room) BenchStamp(c *echo.Context) error {
	if _, err := s.Store.Boxes.Head(c.Request().Context(), c.Param("id")); err != nil && !errors.As(err, new(*store.Broken)) {
		return err
	}
	ticks, _, err := s.Store.Log.Ticks(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	return c.String(http.StatusOK, stampOf(ticks))
}

// MarkOf is the mark of a step in the list.
func (v atBench) MarkOf(s benchStep) string { return workbench.MarkOf(s.Step) }

package atbench

import (
	"fmt"
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
	Pace    float64 // minutes that all of it takes, at this maker's pace
	Done    int     // of Count
	Changed bool    // it is another step now than when it was done
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
	at               int // which of the steps is asked for
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
	Plan             int64 // the revision that all pictures are of
	Aloud            string
	Silent           map[string]bool // cautions that were put away
	Timers           string          // what runs, as the page's script reads it
	Photos           []store.Photo
	Apart            bool // drawn for later, without what all pictures share
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
	B     *atBench
	Path  string
	Whole []atBenchPage // all there are, where they are asked for at once
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
	v, err := s.atBench(c, j)
	if err != nil {
		return err
	}
	if s.Second() {
		j = j.InBoth()
	}
	if !v.Finished {
		v.show(j, v.at, int(workbench.Slider(c, "picture", 1, 1, 1000))-1)
	}
	return s.Render(c, http.StatusOK, "atbench", newPage(v))
}

func newPage(v atBench) *atBenchPage {
	frame := desk.Page{Title: v.Name + ": at the bench", Bare: true, Manifest: v.Link + "/app.webmanifest"}
	return &atBenchPage{Page: frame, B: &v, Path: v.Path}
}

// WholeBench gives every picture of every step at once, so that a device goes on when it loses its line.
func (s *Room) WholeBench(c *echo.Context) error {
	_, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	if !ok {
		return echo.ErrNotFound
	}
	v, err := s.atBench(c, j)
	if err != nil {
		return err
	}
	if s.Second() {
		j = j.InBoth()
	}
	page := newPage(v)
	page.Part, page.PartOnly = "benchwhole", true
	v.Apart, v.Finished = true, false
	for n, step := range j.Steps {
		for f := range max(1, len(step.Frames)) {
			one := v
			one.show(j, n, f)
			page.Whole = append(page.Whole, *newPage(one))
		}
	}
	v.Finished, v.Step = true, benchStep{}
	page.Whole = append(page.Whole, *newPage(v))
	return s.Render(c, http.StatusOK, "atbench", page)
}

// atBench reads how far a box is at the bench, and which step is asked for: v.at, unless all are done.
func (s *Room) atBench(c *echo.Context, j sets.Job) (v atBench, err error) {
	ctx, id := c.Request().Context(), c.Param("id")
	ticks, seconds, err := s.Store.Log.Ticks(ctx, id)
	if err != nil {
		return v, err
	}
	now, err := s.benchNow(ctx, id, ticks)
	if err != nil {
		return v, err
	}
	times, err := s.Store.Log.Times(ctx)
	if err != nil {
		return v, err
	}
	pace := bench.PaceOf(times)
	path := "/projects/" + id
	v = atBench{Act: store.NewID(), Path: path, Name: desk.Called(j.Name, desk.Nameless), Link: path + "/bench", Warning: j.Warning(),
		Stamp: now.stamp, Plan: now.plan, Timers: now.left(), Photos: now.photos, Learnt: pace.Learnt(), Silent: s.Workshop(ctx).Seen,
		Minutes: int(pace.Minutes(j.Steps) + 0.5), Taken: saysTime(seconds)}
	at, left := -1, 0.0
	for i, step := range j.Steps {
		t := ticks[step.ID]
		b := benchStep{Step: step, N: i + 1, Pace: pace.Of(step), Done: min(t.Done, step.Count), Link: v.link(step.ID, 0)}
		b.Changed = t.Done > 0 && t.Print != workbench.MarkOf(step)
		if !b.Ticked() {
			left += b.Pace * float64(step.Count-b.Done) / float64(max(step.Count, 1))
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
		v.Finished = true
	}
	v.at = at
	return v, nil
}

// link is the address of a picture of a step.
func (v *atBench) link(step string, f int) string {
	q := url.Values{"step": {step}}
	if f > 0 {
		q.Set("picture", strconv.Itoa(f+1))
	}
	return v.Link + "?" + q.Encode()
}

// show fills in one picture of the nth step, and the ways from there.
func (v *atBench) show(j sets.Job, n, f int) {
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
		v.Back = v.link(v.Step.ID, v.F-1)
	case n > 0:
		before := v.Steps[n-1]
		v.Back = v.link(before.ID, max(0, len(before.Frames)-1))
	}
	if v.F+1 < len(frames) {
		v.On = v.link(v.Step.ID, v.F+1)
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

// MarkOf is the mark of a step in the list.
func (v atBench) MarkOf(s benchStep) string { return workbench.MarkOf(s.Step) }

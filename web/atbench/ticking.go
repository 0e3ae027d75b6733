package atbench

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"hash/fnv"
	"maps"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/bench"
	"brevium/core/sets"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/logbook"
	"brevium/web/workbench"
)

// What is done at the bench: ticks, timers, photos. A page whose device has no line keeps them, and sends them later in
// their order, each under a name of its own.

// benchNow is what devices at the same bench share.
type benchNow struct {
	timers []store.Timer
	photos []store.Photo
	plan   int64  // the box's newest revision
	stamp  string // changes when anything that a page at the bench shows does
}

func (s *Room) benchNow(ctx context.Context, id string, ticks map[string]store.Tick) (n benchNow, err error) {
	head, err := s.Store.Boxes.Head(ctx, id)
	if err != nil && !errors.As(err, new(*store.Broken)) {
		return n, err
	}
	if n.timers, err = s.Store.Log.Timers(ctx, id); err != nil {
		return n, err
	}
	if n.photos, err = s.Store.Log.BenchPhotos(ctx, id); err != nil {
		return n, err
	}
	n.plan = head.ID
	sum := fnv.New64a()
	fmt.Fprint(sum, head.ID)
	for _, step := range slices.Sorted(maps.Keys(ticks)) {
		fmt.Fprint(sum, step, ticks[step].Done, ticks[step].Print)
	}
	for _, t := range n.timers {
		fmt.Fprint(sum, t.Step, t.What, t.Ends.UnixMilli())
	}
	for _, p := range n.photos {
		fmt.Fprint(sum, p.ID)
	}
	n.stamp = strconv.FormatUint(sum.Sum64(), 36)
	return n, nil
}

// left is what runs, for the page: how long each still has, since a phone's clock may be wrong.
func (n benchNow) left() string {
	type one struct {
		Step string `json:"step"`
		What string `json:"what"`
		Left int64  `json:"left"` // in milliseconds, below 0 when it is over
	}
	out := []one{}
	for _, t := range n.timers {
		out = append(out, one{t.Step, t.What, time.Until(t.Ends).Milliseconds()})
	}
	text, _ := json.Marshal(out)
	return string(text)
}

// BenchStamp reports whether anything was ticked elsewhere.
func (s *Room) BenchStamp(c *echo.Context) error {
	ctx, id := c.Request().Context(), c.Param("id")
	ticks, _, err := s.Store.Log.Ticks(ctx, id)
	if err != nil {
		return err
	}
	now, err := s.benchNow(ctx, id, ticks)
	if err != nil {
		return err
	}
	return c.String(http.StatusOK, now.stamp)
}

// waited reports whether a page's script sent this out of its queue. It is answered with a line for the maker: "" when
// all went as she meant it.
func waited(c *echo.Context) bool { return c.FormValue("waited") == "1" }

func (s *Room) answer(c *echo.Context, says, to string) error {
	if waited(c) {
		return c.JSON(http.StatusOK, map[string]string{"says": says})
	}
	return c.Redirect(http.StatusSeeOther, to)
}

// stepOf is the step that a form names; n is -1 where there is none any more.
func (s *Room) stepOf(c *echo.Context) (j sets.Job, step bench.Step, n int, err error) {
	_, j, ok, err := s.Work.Job(c)
	n = -1
	if err == nil && ok {
		step, n = j.Step(c.FormValue("step"))
	}
	return j, step, n, err
}

// Tick keeps what was done of a step, and goes on to the next.
func (s *Room) Tick(c *echo.Context) error {
	j, step, n, err := s.stepOf(c)
	if err != nil {
		return err
	}
	path := "/projects/" + c.Param("id") + "/bench"
	if n < 0 { // the box was changed since: the page shows what there is now
		return s.answer(c, "The box was changed, and a step you ticked isn't part of it any more.", path)
	}
	more, err := strconv.Atoi(c.FormValue("more"))
	if err != nil || more > step.Count || more < -step.Count {
		return echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf(
			"This step is to be done %d times. Reload the page to see how many are left.",
			step.Count))
	}
	mark := workbench.MarkOf(step)
	if c.FormValue("mark") != mark { // what was done is not what it says now
		return s.answer(c, fmt.Sprintf("“%s” was changed before your tick arrived. Check it, then tick it again.", step.Title),
			path+"?"+url.Values{"step": {step.ID}}.Encode())
	}
	if more != 0 { // of one that is done already the next is shown
		if err := s.done(c, store.Ticking(c.Param("id"),
			store.Tick{Step: step.ID, Print: mark}, more, step.Count,
			store.Took{Title: step.Title, Seconds: secondsTaken(c), Minutes: step.Minutes})); err != nil {
			return err
		}
	}
	ticks, _, err := s.Store.Log.Ticks(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	return s.answer(c, "", path+"?"+stepAfter(j, n, ticks[step.ID].Done).Encode())
}

// done does an act once, however often it is sent.
func (s *Room) done(c *echo.Context, parts ...store.Write) error {
	err := s.Store.Do(c.Request().Context(), desk.ActName(c), parts...)
	if errors.Is(err, store.ErrArrived) {
		return nil
	}
	return err
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

// Time starts a timer of a step with so many seconds to go, or stops it.
func (s *Room) Time(c *echo.Context) error {
	_, step, n, err := s.stepOf(c)
	if err != nil {
		return err
	}
	what := c.FormValue("what")
	i := slices.IndexFunc(step.Waits, func(w bench.Wait) bool { return w.What == what })
	left, wrong := strconv.ParseFloat(c.FormValue("left"), 64)
	if n >= 0 && i >= 0 && wrong == nil && !math.IsNaN(left) {
		t := store.Timer{Step: step.ID, What: what}
		if c.FormValue("stop") == "" {
			left = max(0, min(left, float64(step.Waits[i].Seconds)))
			t.Ends = time.Now().Add(time.Duration(left * float64(time.Second)))
		}
		if err := s.done(c, store.Timing(c.Param("id"), t)); err != nil {
			return err
		}
	}
	return s.answer(c, "", "/projects/"+c.Param("id")+"/bench")
}

// AddPhoto keeps a photo taken at the bench until its box is written in the logbook.
func (s *Room) AddPhoto(c *echo.Context) error {
	form, err := c.MultipartForm()
	if err != nil || len(form.File["photo"]) == 0 {
		return echo.NewHTTPError(http.StatusBadRequest, "No photo was chosen. Choose a JPEG or PNG.")
	}
	says := ""
	if _, step, n, err := s.stepOf(c); err == nil && n >= 0 {
		says = "At the step “" + step.Title + "”"
	}
	all, wrong, err := s.Log.TakePhotos(c.Request().Context(), "", form.File["photo"][:1], says)
	if err == nil && wrong == "" {
		if err = s.done(c, store.BenchPhoto(c.Param("id"), all[0])); errors.Is(err, store.ErrFull) {
			err, wrong = nil, fmt.Sprintf("There is no more room, so this photo was not saved. An entry in the logbook holds "+
				"%d photos. Delete one here first.", store.MostPhotos)
		}
	}
	if err != nil {
		return err
	}
	if wrong != "" && !waited(c) {
		return echo.NewHTTPError(http.StatusUnprocessableEntity, wrong)
	}
	return s.answer(c, wrong, desk.BackTo(c.FormValue("to")))
}

// BenchPhoto gives the small picture of a photo that waits.
func (s *Room) BenchPhoto(c *echo.Context) error {
	p, err := s.Store.Log.BenchPhotoOf(c.Request().Context(), c.Param("id"), c.Param("photo"))
	return logbook.ShowPhoto(c, p, err, "This photo is in the logbook now, or it was deleted.")
}

// DropPhoto deletes a photo that waits.
func (s *Room) DropPhoto(c *echo.Context) error {
	err := s.Store.Log.RemoveBenchPhoto(c.Request().Context(), c.Param("id"), c.Param("photo"))
	if err != nil && !errors.Is(err, store.ErrNone) {
		return err
	}
	return s.answer(c, "", desk.BackTo(c.FormValue("to")))
}

// BeginAgain clears the ticks for another making.
func (s *Room) BeginAgain(c *echo.Context) error {
	if err := s.done(c, store.BeginningAgain(c.Param("id"))); err != nil {
		return err
	}
	return s.answer(c, "", "/projects/"+c.Param("id")+"/bench")
}

// Manifest makes the making an icon on a phone, where its browser can.
func (s *Room) Manifest(c *echo.Context) error {
	st, err := s.Work.State(c)
	if err != nil {
		return err
	}
	link := "/projects/" + c.Param("id") + "/bench"
	icon := func(size int) map[string]string {
		return map[string]string{"src": s.Static(fmt.Sprintf("icon-%d.png", size)), "type": "image/png",
			"sizes": fmt.Sprintf("%dx%d", size, size)}
	}
	c.Response().Header().Set("Content-Type", "application/manifest+json")
	return json.NewEncoder(c.Response()).Encode(map[string]any{
		"id": link, "start_url": link, "scope": link, "display": "standalone", "name": st.Called() + ": at the bench",
		"short_name": st.Called(), "background_color": "#f6f1e4", "theme_color": "#f6f1e4",
		"icons": []any{icon(192), icon(512)}})
}

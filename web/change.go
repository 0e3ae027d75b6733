package web

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v4"

	"brevium/core/box"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/store"
)

// longestField bounds what one field may hold.
const longestField = 4000

// change lays what was typed on to the project. The form says which revision
// it was made on; what another window changed since then is kept, and where
// both changed one field the newest stands and both are shown.
func (s *Server) change(c echo.Context) error {
	values, err := c.FormParams()
	if err != nil {
		return echo.NewHTTPError(http.StatusBadRequest, "That change could not be read.")
	}
	for range 5 {
		st, err := s.tryChange(c, values)
		if errors.Is(err, store.ErrMoved) {
			continue // someone was quicker: merge with what they did
		}
		if err != nil {
			return err
		}
		code := http.StatusOK
		if len(st.Conflicts) > 0 {
			code = http.StatusConflict
		}
		return s.answer(c, code, st)
	}
	return echo.NewHTTPError(http.StatusConflict, "Another window keeps changing this project. Nothing of yours was kept: try again.")
}

func (s *Server) tryChange(c echo.Context, values url.Values) (*state, error) {
	ctx, id := c.Request().Context(), c.Param("id")
	head, err := s.store.Head(ctx, id)
	if err != nil {
		return nil, err
	}
	seen, own, err := s.seen(c, head, values)
	if err != nil {
		return nil, err
	}
	typed, err := readForm(values, &seen)
	if err != nil {
		return nil, err
	}
	out, conflicts := brief.Merge(seen, head.Brief, typed)
	if own {
		// Only this window changed it since: the newer keystrokes count.
		for _, k := range conflicts {
			out.Set(k.Field, k.Mine)
		}
		conflicts = nil
	}
	note, err := s.act(ctx, &out, &seen, values)
	if err != nil {
		return nil, err
	}
	s.follow(&out, &head.Brief)
	if string(out.Encode()) != string(head.Brief.Encode()) {
		what, burst := describe(&head.Brief, &out, values), values.Get("burst")
		if err := s.store.Save(ctx, id, head.ID, out, what, burst[:min(len(burst), 80)]); err != nil {
			return nil, err
		}
	}
	st, err := s.state(c)
	if err != nil {
		return nil, err
	}
	st.Notice = note
	for _, k := range conflicts {
		st.Conflicts = append(st.Conflicts, conflict{k, fieldWords(k.Field)})
	}
	return st, nil
}

// seen gives the brief that the form was made from, and whether every change
// since came from the same window.
func (s *Server) seen(c echo.Context, head store.Project, values url.Values) (brief.Brief, bool, error) {
	base, err := strconv.ParseInt(values.Get("base"), 10, 64)
	if err != nil || base == head.ID {
		return head.Brief, false, nil
	}
	rev, err := s.store.Revision(c.Request().Context(), head.Revision.Project, base)
	if err != nil {
		return brief.Brief{}, false, err
	}
	window, _, _ := strings.Cut(values.Get("burst"), ":")
	history, err := s.store.History(c.Request().Context(), head.Revision.Project, head.ID, back)
	if err != nil {
		return brief.Brief{}, false, err
	}
	for _, h := range history {
		if h.ID == base {
			return rev.Brief, window != "", nil
		}
		if !strings.HasPrefix(h.Burst, window+":") {
			break
		}
	}
	return rev.Brief, false, nil
}

// readForm gathers the fields a form holds, each as the document writes it.
func readForm(values url.Values, seen *brief.Brief) (map[string]string, error) {
	typed := map[string]string{}
	for path, v := range values {
		if strings.HasPrefix(path, "_") || len(v) == 0 || reserved[path] {
			continue
		}
		// A box to tick sends "no" first, and "yes" behind it when ticked.
		text := strings.ReplaceAll(v[len(v)-1], "\r\n", "\n")
		if len(text) > longestField {
			return nil, echo.NewHTTPError(http.StatusRequestEntityTooLarge, "That is too long for a field. Keep it under 4000 letters.")
		}
		probe := seen.Clone()
		if !probe.Set(path, text) {
			continue // a field that this project no longer has
		}
		if isLength(path) {
			text = canonical(text, seen)
			if nudge := values.Get("nudge"); nudge != "" {
				text = nudged(path, text, nudge, seen)
			}
		}
		if was := seen.Get(path); strings.TrimSpace(text) == strings.TrimSpace(was) {
			text = was
		}
		typed[path] = text
	}
	return typed, nil
}

var reserved = map[string]bool{"base": true, "burst": true, "act": true, "nudge": true, "stage": true, "view": true, "piece": true, "usual": true}

// isLength says whether a field holds a length.
func isLength(path string) bool {
	if id, ok := strings.CutPrefix(path, "box.options."); ok {
		for _, s := range box.Styles {
			for _, o := range s.Options {
				if o.ID == id {
					return len(o.Choices) == 0
				}
			}
		}
		return false
	}
	switch path[strings.LastIndexByte(path, '.')+1:] {
	case "length", "width", "height", "depth", "diameter", "thickness", "decorated", "press", "neck-diameter", "neck-height",
		"around", "between", "padding", "below", "above", "proud", "dividers", "x", "y":
		return true
	}
	return false
}

// canonical writes a length with its unit, so that it stays what it is when
// the project's unit changes. What is no length stays as typed.
func canonical(text string, b *brief.Brief) string {
	l, unit, err := measure.ParseUnit(text, measure.Unit(b.Units))
	if err != nil {
		return text
	}
	return l.Exact(unit)
}

// nudged moves a field's length by whole steps: "contents.0.length:-4".
func nudged(path, text, nudge string, b *brief.Brief) string {
	field, by, _ := strings.Cut(nudge, ":")
	n, err := strconv.Atoi(by)
	if field != path || err != nil || n < -100 || n > 100 {
		return text
	}
	r := brief.NewReader(b)
	l, err := measure.Parse(text, r.Units)
	if err != nil {
		return text
	}
	if n > 0 {
		l = l.Down(r.Step.Size)
	} else {
		l = l.Up(r.Step.Size)
	}
	l = max(r.Step.Size, l+measure.Length(n)*r.Step.Size)
	return min(l, measure.Max).Exact(r.Units)
}

// sizeOf writes the size a brief's contents came to, as a size to go on from.
func sizeOf(b *brief.Brief, w plan.Workshop) *brief.Size {
	asked := b.Clone()
	asked.Size = nil
	d := box.Dims{Length: 5 * measure.Inch, Width: 7 * measure.Inch / 2, Depth: 2 * measure.Inch}
	p := plan.Make(asked, w)
	if p.OK() {
		d = p.Box.Size
	}
	text := func(l measure.Length) brief.Text { return brief.Text(l.Exact(p.Units)) }
	return &brief.Size{Length: text(d.Length), Width: text(d.Width), Depth: text(d.Depth)}
}

// follow changes what hangs on another field: tools go with the units, unless
// they were set in the same change; a style taken in place of a list of scores
// is made at the size the list came to.
func (s *Server) follow(out, was *brief.Brief) {
	if out.Box.Style != was.Box.Style {
		dropOptions(out)
		if typed(was) && !typed(out) && len(out.Contents) == 0 && out.Size == nil {
			out.Size = sizeOf(was, s.workshop)
		}
	}
	if out.Units == was.Units || out.Tools.Step != was.Tools.Step {
		return
	}
	if u := measure.Unit(out.Units); u == measure.Inches || u == measure.Millimetres {
		out.Tools.Step = brief.Text(measure.DefaultStep(u).String())
	}
}

// typed says whether the project is a list of scores.
func typed(b *brief.Brief) bool {
	style := box.Find(string(b.Box.Style))
	return style != nil && style.Typed
}

// dropOptions takes out answers to questions that the style does not ask.
func dropOptions(b *brief.Brief) {
	style := box.Find(string(b.Box.Style))
	if style == nil {
		return
	}
	for id := range b.Box.Options {
		if !slices.ContainsFunc(style.Options, func(o box.Option) bool { return o.ID == id }) {
			b.Set("box.options."+id, "")
		}
	}
}

// describe tells a change in words, for the record.
func describe(was, now *brief.Brief, values url.Values) string {
	if name, _, _ := strings.Cut(values.Get("act"), ":"); acts[name].says != "" {
		return acts[name].says
	}
	for path := range values {
		if old, is := was.Get(path), now.Get(path); old != is && !reserved[path] {
			if len(is) > 60 {
				is = is[:60] + "…"
			}
			return fmt.Sprintf("%s: %s", fieldWords(path), is)
		}
	}
	return "a change"
}

// fieldWords names a field for people.
func fieldWords(path string) string {
	parts := strings.Split(path, ".")
	last := strings.ReplaceAll(parts[len(parts)-1], "-", " ")
	if parts[0] == "contents" && len(parts) == 3 {
		if i, err := strconv.Atoi(parts[1]); err == nil {
			return fmt.Sprintf("%s of thing %d", last, i+1)
		}
	}
	if parts[0] == "room" {
		return "room " + last
	}
	return last
}

// answer shows the workbench after a change, or goes back to it where no
// script runs.
func (s *Server) answer(c echo.Context, code int, st *state) error {
	if c.Request().Header.Get("HX-Request") == "true" || len(st.Conflicts) > 0 {
		// htmx swaps only what succeeded; a conflict is shown like any answer.
		if c.Request().Header.Get("HX-Request") == "true" {
			code = http.StatusOK
		}
		return s.show(c, code, st)
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+viewOf(c).with())
}

func (s *Server) undo(c echo.Context) error { return s.moveHead(c, s.store.Undo) }
func (s *Server) redo(c echo.Context) error { return s.moveHead(c, s.store.Redo) }

func (s *Server) moveHead(c echo.Context, move func(context.Context, string) (bool, error)) error {
	if _, err := move(c.Request().Context(), c.Param("id")); err != nil {
		return err
	}
	st, err := s.state(c)
	if err != nil {
		return err
	}
	return s.answer(c, http.StatusOK, st)
}

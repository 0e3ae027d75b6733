package workbench

import (
	"context"
	"errors"
	"fmt"
	"hash/fnv"
	"net/http"
	"slices"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/draw"
	"brevium/draw/solid"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/questions"
)

// jobOf is what is made of a project: the newest plan, all boxes of a set. It is not OK when
// that has problems.
func jobOf(st *State) (j sets.Job, ok bool) {
	if st.Set != nil {
		if !st.Set.OK() {
			return j, false
		}
		j = st.Set.Job()
	} else {
		if !st.Plan.OK() {
			return j, false
		}
		j = sets.JobOf(st.Plan)
	}
	return j, true
}

// Job reads a project for the bench and for what is handed on: cut as it asks for.
func (s *Room) Job(c *echo.Context) (st *State, j sets.Job, ok bool, err error) {
	if st, err = s.State(c); err != nil {
		return st, j, false, err
	}
	j, err = s.JobCut(c.Request().Context(), st)
	if errors.Is(err, ErrUnmade) {
		return st, j, false, nil
	}
	return st, j, err == nil, err
}

// ErrUnmade says that there is nothing to make: the newest brief has problems.
var ErrUnmade = errors.New("one of the boxes has no plan")

// JobCut is all that is made, cut as its document asks; it waits for a place where that takes a search.
func (s *Room) JobCut(ctx context.Context, st *State) (sets.Job, error) {
	switch {
	case st.Set == nil && st.Plan.Asked():
		found, err := s.Sheets.Solved(ctx, st.Plan.Tasks())
		if err != nil {
			return sets.Job{}, err
		}
		st.cut(advice.Cut(st.Plan, found, s.Workshop(ctx)))
	case st.Set != nil && st.Set.Asked():
		found, err := s.Sheets.Solved(ctx, st.Set.Tasks())
		if err != nil {
			return sets.Job{}, err
		}
		st.Set.Set = st.Set.Cut(found)
	}
	j, ok := jobOf(st)
	if !ok {
		return j, ErrUnmade
	}
	return j, nil
}

const (
	Unfinished = "Not finished: something needs fixing."
	Unbegun    = "Nothing goes in yet."
)

// cardOf tells a plan as lists do.
func cardOf(p *plan.Plan) store.Summary {
	if fresh(&p.Brief) {
		return store.Summary{Line: Unbegun}
	}
	if !p.OK() {
		return store.Summary{Line: Unfinished, Trouble: true}
	}
	show, o := p.Step.ShowUp, p.Box.Outside
	line := fmt.Sprintf("%s × %s × %s outside", show(o.Length).Text, show(o.Width).Text,
		show(o.Depth).Text+" "+string(p.Step.Unit))
	if n := len(p.Layout.Sheets); n > 0 {
		line += " · " + p.SheetsShort(n)
	}
	return store.Summary{Line: line, Trouble: !p.Holds()}
}

// cardOfSet tells a set as lists do.
func cardOfSet(s *sets.Set) store.Summary {
	p := s.Plans[0]
	show, o := p.Step.ShowUp, s.Outside()
	line := fmt.Sprintf("a set of %d: %s × %s × %s together · %d %s", len(s.Plans), show(o.Length).Text, show(o.Width).Text,
		show(o.Depth).Text+" "+string(p.Step.Unit), s.Sheets(), map[bool]string{true: "sheet",
			false: "sheets"}[s.Sheets() == 1])
	return store.Summary{Line: line, Trouble: !s.Holds()}
}

// KeepCard keeps how lists show a box. It can be made again: that it could not
// be kept is no reason to show nothing.
func (s *Room) KeepCard(ctx context.Context, head store.Project, card store.Summary) {
	if err := s.Store.Shelf.KeepCard(ctx, head.Of, head.ID, s.Program(ctx), card); err != nil {
		s.Log.Warn("a card was not saved", "project", head.Of, "err", err)
	}
}

func (s *Room) Begin(c *echo.Context, b brief.Brief, what, stage string) error {
	id, err := s.Created(c, b, what)
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+id+View{Stage: stage, New: newBox(&b, stage)}.With())
}

// Created keeps a new box, with how lists show it, and gives its identity.
func (s *Room) Created(c *echo.Context, b brief.Brief, what string) (string, error) {
	ctx := c.Request().Context()
	id, err := s.Store.Boxes.Create(ctx, b, what)
	if err != nil {
		return "", err
	}
	head, err := s.Store.Boxes.Head(ctx, id)
	if err != nil {
		return "", err
	}
	s.KeepCard(ctx, head, s.Make(ctx, b, "").Card())
	return id, nil
}

// newBox is the first question of a box of which nothing is known, "" of any other.
func newBox(b *brief.Brief, stage string) string {
	if stage == "contents" && fresh(b) {
		return "1"
	}
	return ""
}

// Whole is a document with the cards and tools of this shop that its box uses, so that it plans alike where
// the shop is another or empty. What a card costs and how many are in hand stays here.
func (s *Room) Whole(ctx context.Context, b brief.Brief) brief.Brief {
	j, ok := s.Make(ctx, b, "").Job()
	if !ok {
		return b
	}
	out := j.Written()
	for i := range out.Card.Own {
		c := &out.Card.Own[i]
		if !slices.ContainsFunc(b.Card.Own, func(own brief.Stock) bool { return own.ID == c.ID }) {
			c.Price, c.Hand, c.Pack = "", "", ""
		}
	}
	return out
}

// lastThatWorks plans the newest state before a project's own that gives a
// plan, of a set for one of its boxes; nil when none does.
func (s *Room) lastThatWorks(ctx context.Context, project string, from int64, box string) (*plan.Plan, error) {
	trail, err := s.Store.Trail(ctx, from, back)
	if err != nil {
		return nil, err
	}
	for _, id := range trail {
		if works, known := s.Fates.Of(fmt.Sprint(id)); known && !works {
			continue
		}
		rev, err := s.Store.Boxes.Revision(ctx, project, id)
		if broken := new(store.Broken); errors.As(err, &broken) {
			continue
		}
		if err != nil {
			return nil, err
		}
		if box != "" && rev.Doc.Several.At(box) < 0 {
			continue
		}
		p := s.Make(ctx, rev.Doc, box).Plan
		if box == "" {
			s.Fates.Note(fmt.Sprint(id), p.OK())
		}
		if p.OK() {
			return p, nil
		}
	}
	return nil, nil
}

// ErrNoPlan refuses what can only be done with a plan.
var ErrNoPlan = echo.NewHTTPError(http.StatusNotFound, "This box has no plan yet. Fix the red fields first.")

// made is what a document comes to: a plan, and of a set the whole.
type made struct {
	Plan *plan.Plan // of the box a page is about
	Set  *sets.Set
	n    int  // which box of the set it is
	soon bool // it was made without what must be searched for
	more bool // and there is something to search for
}

// Make plans a document, with what can be said of it at once; box names the box of a set that is meant, the first when
// there is none so called.
func (s *Room) Make(ctx context.Context, b brief.Brief, box string) made {
	return s.MakeIn(s.Workshop(ctx), b, box)
}

// MakeIn is Make in a given workshop.
func (s *Room) MakeIn(w request.Workshop, b brief.Brief, box string) made {
	name := desk.Sum(b.Encode())
	if !b.IsSet() {
		first := s.first(w, name, b)
		return made{Plan: s.Sheets.CutAsAsked(w, first.First), soon: true, more: !first.Whole}
	}
	n := max(0, b.Several.At(box))
	first := s.firstOfSet(w, name, b, n)
	set := s.Sheets.CutSetAsAsked(first.First)
	return made{set.Plans[n], set, n, true, !first.Whole}
}

// Advise is Make with what must be searched for, which waits for its place.
func (s *Room) Advise(ctx context.Context, b brief.Brief, box string) (made, error) {
	w, name, m := s.Workshop(ctx), desk.Sum(b.Encode()), s.Make(ctx, b, box)
	var err error
	switch m.soon = false; {
	case !m.more:
	case m.Set != nil:
		set, failed := advised(ctx, s, s.Plans.SetsSaid, fmt.Sprint(name, m.n), w, func(w request.Workshop) *sets.Set {
			return sets.MakeFor(b, m.n, w)
		})
		if err = failed; err == nil {
			m.Set = s.Sheets.CutSetAsAsked(set)
			m.Plan = m.Set.Plans[m.n]
		}
	default:
		p, failed := advised(ctx, s, s.Plans.Advised, name, w, func(w request.Workshop) *plan.Plan {
			return advice.Of(s.first(w, name, b).Bare, w)
		})
		if err = failed; err == nil {
			m.Plan = s.Sheets.CutAsAsked(w, p)
		}
	}
	m.more = false
	return m, err
}

// advised remembers what was said of a plan, or says it in its place.
func advised[V any](ctx context.Context, s *Room, of desk.Plans[V], name string, w request.Workshop,
	say func(request.Workshop) V) (V, error) {
	return of.For(ctx, name, w, func(w request.Workshop) (out V, err error) {
		done, err := s.Short.Take(ctx)
		if err != nil {
			return out, err
		}
		defer done()
		return say(w), nil
	})
}

func (s *Room) first(w request.Workshop, name string, b brief.Brief) desk.AtOnce[*plan.Plan] {
	return s.Plans.Boxes.Get(name, w, func(w request.Workshop) (f desk.AtOnce[*plan.Plan]) {
		f.Bare = plan.Make(b, w)
		f.First, f.Whole = advice.Soon(f.Bare, w)
		return f
	})
}

// bare is plan.Make of a document that may be planned already, or soon is.
func (s *Room) bare(b brief.Brief, w request.Workshop) *plan.Plan {
	return s.first(w, desk.Sum(b.Encode()), b).Bare
}

func (s *Room) firstOfSet(w request.Workshop, name string, b brief.Brief, n int) desk.AtOnce[*sets.Set] {
	return s.Plans.Sets.Get(fmt.Sprint(name, n), w, func(w request.Workshop) (f desk.AtOnce[*sets.Set]) {
		f.First, f.Whole = sets.SoonFor(b, n, w)
		return f
	})
}

// Job is all that is made, and whether there is a plan of all of it.
func (m made) Job() (j sets.Job, ok bool) {
	switch {
	case m.Set != nil && m.Set.OK():
		return m.Set.Job(), true
	case m.Set == nil && m.Plan.OK():
		return sets.JobOf(m.Plan), true
	}
	return j, false
}

// Card tells it as lists do.
func (m made) Card() store.Summary {
	if m.Set == nil || !m.Set.OK() {
		return cardOf(m.Plan)
	}
	return cardOfSet(m.Set)
}

// Picture draws it as lists do; "" when there is nothing to draw.
func (m made) Picture(w, h float64) string {
	switch {
	case m.Set != nil && m.Set.OK():
		return solid.SetFolded(m.Set, float64(len(m.Set.Plans)), solid.DefaultView, w, h).SVG()
	case m.Plan.OK():
		return draw.Made(m.Plan, 1, w, h).SVG()
	}
	return ""
}

// back is how many changes back a plan that works is looked for.
const back = 60

// fresh reports whether neither what goes in nor a size has been said.
func fresh(b *brief.Brief) bool { return len(b.Contents) == 0 && b.Size == nil && !questions.Typed(b) }

// MarkOf is a number for what a step says: a tick holds for that alone.
func MarkOf(s bench.Step) string {
	sum := fnv.New64a()
	fmt.Fprint(sum, s.Title, s.Count, s.Says)
	for _, f := range s.Frames {
		fmt.Fprint(sum, f.Says)
	}
	return strconv.FormatUint(sum.Sum64(), 36)
}

// benchStage is what the bench's stage tells beside the pieces: how far the work has come, how
// long it takes, what it costs.
type benchStage struct {
	Done, Steps, Minutes int
	Learnt               bool
	Cost                 costs.Cost
}

func (s *Room) benchStage(ctx context.Context, st *State) (*benchStage, error) {
	j, ok := jobOf(st)
	if !ok { // the last plan that worked is on the table
		j = sets.JobOf(st.Shown)
	}
	pace, err := s.Pace(ctx)
	if err != nil {
		return nil, err
	}
	ticks, _, err := s.Store.Log.Ticks(ctx, st.Of)
	if err != nil {
		return nil, err
	}
	b := &benchStage{Steps: len(j.Steps), Minutes: int(pace.Minutes(j.Steps) + 0.5), Learnt: pace.Learnt(),
		Cost: costs.Reckon(j, s.Workshop(ctx), pace)}
	for _, step := range j.Steps {
		if t := ticks[step.ID]; t.Done >= step.Count && t.Print == MarkOf(step) {
			b.Done++
		}
	}
	return b, nil
}

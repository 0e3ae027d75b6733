package workbench

import (
	"context"
	"fmt"
	"html/template"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/words"
	"brevium/draw"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/questions"
)

// A project as the workbench shows it.

// Typed reports whether the project is a list of scores.
func (st *State) Typed() bool { return questions.Typed(&st.Brief) }

// Fresh reports whether nothing is known of the box yet.
func (st *State) Fresh() bool { return fresh(&st.Brief) }

// Waiting reports whether the box only waits for sizes that have not been typed
// yet, and there is no older plan to show.
func (st *State) Waiting() bool { return st.Shown == nil && WaitsForSizes(&st.Brief, st.Plan) }

// WaitsForSizes reports whether all that keeps a plan from being made is that sizes
// of a thing or of the box have not been typed yet.
func WaitsForSizes(b *brief.Brief, p *plan.Plan) bool {
	for _, pr := range p.Problems {
		f, ok := brief.FieldAt(pr.Field)
		needed := slices.ContainsFunc([]string{"contents.", "size.", "box.pieces."}, func(of string) bool {
			return strings.HasPrefix(pr.Field, of)
		})
		if !ok || !needed || f.Kind != document.Distance || len(pr.Set) > 0 || strings.TrimSpace(b.Get(pr.Field)) != "" {
			return false // what has a usual size is never waited for
		}
	}
	return len(p.Problems) > 0
}

func Looked(head store.Project, m made) *State {
	st := &State{Project: head, Brief: head.Doc, Plan: m.Plan, soon: m.soon, More: m.more}
	if m.Set != nil {
		st.Set = newShownSet(m.Set, head.Doc.Several.Boxes[m.n].ID)
		st.Brief = m.Set.Members[m.n]
	}
	return st
}

// stateAfter reads a project after something was done to it, unless that failed.
func (s *Room) stateAfter(c *echo.Context, e desk.Edited[brief.Brief], err error) (*State, error) {
	if err != nil {
		return nil, err
	}
	head, err := s.Store.Boxes.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return nil, err
	}
	if e.Part == "" {
		e.Part = c.QueryParam("box")
	}
	return s.stateOf(c, head, e)
}

// stateOf is a box with all that is to be said of it.
func (s *Room) stateOf(c *echo.Context, head store.Project, e desk.Edited[brief.Brief]) (*State, error) {
	ctx := c.Request().Context()
	m, err := s.Advise(ctx, head.Doc, e.Part)
	if err != nil {
		return nil, err
	}
	st := Looked(head, m)
	return st, s.settle(ctx, s.Boxes(c), st, e)
}

// changed is a box after a change, with what it was before where that gave a new plan. Where script shows the answer in
// place, it comes as soon as there is a plan, and the page asks for itself once more for what must be searched for; unless
// this answer says what that one would not.
func (s *Room) changed(c *echo.Context, head store.Project, e desk.Edited[brief.Brief], was *brief.Brief) (*State, error) {
	ctx := c.Request().Context()
	m, moved := s.Make(ctx, head.Doc, e.Part), ""
	if was != nil {
		moved = s.clearanceMoved(s.Workshop(ctx), *was, m.Plan, e)
	}
	if !desk.IsScript(c) || moved != "" || e.Tells() {
		st, err := s.stateOf(c, head, e)
		if err == nil {
			st.Moved = moved
		}
		return st, err
	}
	st := Looked(head, m)
	return st, s.settle(ctx, s.Boxes(c), st, e)
}

// settle fills in what the page shows beside the plan.
func (s *Room) settle(ctx context.Context, k desk.Kind[brief.Brief], st *State, e desk.Edited[brief.Brief]) (err error) {
	st.Kept, err = desk.KeptOf(ctx, k, &st.Project, &e, func(path string) string { return FieldWords(&st.Brief, path) })
	if err != nil {
		return err
	}
	box := ""
	if st.Set != nil {
		box = st.Set.Here
	} else {
		s.Fates.Note(fmt.Sprint(st.ID), st.Plan.OK())
	}
	if st.Typed() && st.soon {
		st.More = st.More || !st.Plan.Holds()
	} else if st.Typed() {
		st.Suspects = s.Plans.Suspects.Get(scoresOf(st.Plan.Brief), s.Workshop(ctx), func(w request.Workshop) []advice.Suspect {
			return advice.Suspects(st.Plan, w)
		})
	}
	if st.Plan.OK() {
		st.Shown = st.Plan
		return nil
	}
	if st.Typed() { // a list that can't be never stands beside an older one that was proved
		return nil
	}
	st.Shown, err = s.lastThatWorks(ctx, st.Of, st.ID, box)
	return err
}

// scoresOf names a list of scores by what it says of the box: neither by what it is called nor by how many there are.
func scoresOf(b brief.Brief) string {
	b.Name, b.Notes, b.Copies = "", "", ""
	return desk.Sum(b.Encode())
}

// cut lays the sheets of what is shown as they are in a plan.
func (st *State) cut(p *plan.Plan) {
	if st.Shown == st.Plan {
		st.Shown = p
	}
	st.Plan = p
}

// title tells the page from the others of the same box.
func (st *State) title(v View) string {
	name := desk.Called(string(st.Brief.Name), desk.Nameless)
	for _, stage := range Stages {
		if stage.ID == v.Stage {
			name += ": " + stage.Title
		}
	}
	for _, w := range Looks {
		if w.ID == v.View {
			name += ", " + words.Small(w.Title)
		}
	}
	if v.View == "flat" && v.Piece != "" {
		name += ", " + words.Plain(v.Piece)
	}
	return name
}

// whole reports whether the set is looked at and not one box.
func (st *State) whole() bool { return st.Set != nil && st.Set.Whole }

// Course tells the steps that the folded view goes through.
func (st *State) Course() (out []string) {
	if st.whole() {
		return st.Set.Course()
	}
	for _, m := range st.Shown.Course() {
		out = append(out, m.Says)
	}
	return out
}

// StepID is what a step of the box is called among those of all that is made.
func (st *State) StepID(id string) string {
	if st.Set == nil {
		return id
	}
	for i, p := range st.Set.Plans {
		if p == st.Shown {
			return fmt.Sprintf("%d/%s", i+1, id)
		}
	}
	return id
}

// glued is a piece with where it is stuck, from one side.
type glued struct {
	Title   string
	Picture template.HTML
}

// GlueMap draws where each piece is stuck.
func (st *State) GlueMap() (out []glued) {
	for _, g := range st.Shown.GlueMap() {
		out = append(out, glued{words.Capital(g.Says), template.HTML(draw.Glue(st.Shown, g, 320, 240).SVG())})
	}
	return out
}

// Called is what all that is made is called: of a set the set.
func (st *State) Called() string {
	if st.Set != nil {
		return desk.Called(string(st.Set.Brief.Name), desk.Nameless)
	}
	return desk.Called(string(st.Brief.Name), desk.Nameless)
}

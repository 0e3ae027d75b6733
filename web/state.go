package web

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
	"brevium/core/words"
	"brevium/draw"
	"brevium/store"
)

// A project as the workbench shows it.

// Typed reports whether the project is a list of scores.
func (st *state) Typed() bool { return typed(&st.Brief) }

// Fresh reports whether nothing is known of the box yet.
func (st *state) Fresh() bool { return fresh(&st.Brief) }

// Waiting reports whether the box only waits for sizes that have not been typed
// yet, and there is no older plan to show.
func (st *state) Waiting() bool { return st.Shown == nil && waitsForSizes(&st.Brief, st.Plan) }

// waitsForSizes reports whether all that keeps a plan from being made is that sizes
// of a thing or of the box have not been typed yet.
func waitsForSizes(b *brief.Brief, p *plan.Plan) bool {
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

func (s *Server) looked(head store.Project, m made) *state {
	st := &state{Project: head, Brief: head.Doc, Plan: m.plan}
	if m.set != nil {
		st.Set = newShownSet(m.set, head.Doc.Several.Boxes[m.n].ID)
		st.Brief = m.set.Members[m.n]
	}
	return st
}

// stateAfter reads a project after something was done to it, unless that failed.
func (s *Server) stateAfter(c *echo.Context, e edited[brief.Brief], err error) (*state, error) {
	if err != nil {
		return nil, err
	}
	head, err := s.store.Boxes.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return nil, err
	}
	if e.part == "" {
		e.part = c.QueryParam("box")
	}
	return s.stateOf(c, head, e)
}

func (s *Server) stateOf(c *echo.Context, head store.Project, e edited[brief.Brief]) (*state, error) {
	st := s.look(head, &e)
	return st, s.settle(c.Request().Context(), s.boxes(c), st, e)
}

// settle fills in what the page shows beside the plan.
func (s *Server) settle(ctx context.Context, k kind[brief.Brief], st *state, e edited[brief.Brief]) (err error) {
	st.kept, err = keptOf(ctx, k, &st.Project, &e, func(path string) string { return fieldWords(&st.Brief, path) })
	if err != nil {
		return err
	}
	box := ""
	if st.Set != nil {
		box = st.Set.Here
	} else {
		s.fates.note(fmt.Sprint(st.ID), st.Plan.OK())
	}
	if st.Typed() {
		st.Suspects = advice.Suspects(st.Plan, s.workshop())
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

// cut lays the sheets of what is shown as they are in a plan.
func (st *state) cut(p *plan.Plan) {
	if st.Shown == st.Plan {
		st.Shown = p
	}
	st.Plan = p
}

// title tells the page from the others of the same box.
func (st *state) title(v view) string {
	name := called(string(st.Brief.Name), nameless)
	for _, stage := range stages {
		if stage.ID == v.Stage {
			name += ": " + stage.Title
		}
	}
	for _, w := range looks {
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
func (st *state) whole() bool { return st.Set != nil && st.Set.Whole }

// course tells the steps that the folded view goes through.
func (st *state) course() (out []string) {
	if st.whole() {
		return st.Set.Course()
	}
	for _, m := range st.Shown.Course() {
		out = append(out, m.Says)
	}
	return out
}

// StepID is what a step of the box is called among those of all that is made.
func (st *state) StepID(id string) string {
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
func (st *state) GlueMap() (out []glued) {
	for _, g := range st.Shown.GlueMap() {
		out = append(out, glued{words.Capital(g.Says), template.HTML(draw.Glue(st.Shown, g, 320, 240))})
	}
	return out
}

// Called is what all that is made is called: of a set the set.
func (st *state) Called() string {
	if st.Set != nil {
		return called(string(st.Set.Brief.Name), nameless)
	}
	return called(string(st.Brief.Name), nameless)
}

package workbench

import (
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/draw"
	"brevium/web/desk"
	"brevium/web/sheets"
)

// CutsOf is what a box is cut from, of a set all of it.
func CutsOf(st *State) (out []cutting.Cut) {
	if st.Set == nil || !st.Set.OK() {
		return st.Shown.Cuts
	}
	for _, l := range st.Set.Layouts {
		out = append(out, l.Cut)
	}
	return out
}

// LeastOfPlan streams the deep search of a project's sheets.
func (s *Room) LeastOfPlan(c *echo.Context) error {
	st, err := s.State(c)
	if err != nil {
		return err
	}
	if st.Shown == nil || !st.Plan.OK() || st.Set != nil && !st.Set.OK() {
		return ErrNoPlan
	}
	return s.Sheets.LeastStream(c, sheets.Deepened(tasksOf(st)), st.Plan.Step, CutsOf(st), true)
}

// tasksOf is what of a project is to be cut, of a set all of it.
func tasksOf(st *State) []cutting.Task {
	if st.Set != nil {
		return st.Set.Tasks()
	}
	return st.Plan.Tasks()
}

// cutViewOfProject is the view of a project's sheets, with where to look for better.
func (s *Room) cutViewOfProject(st *State, path, here string) sheets.CutView {
	cuts, proved, whole := st.Shown.Cuts, st.Shown.Proved(), st.Shown == st.Plan
	if st.Set != nil {
		if whole = st.Set.OK(); whole {
			cuts, proved = CutsOf(st), st.Set.Proved()
		}
	}
	v := sheets.CutViewOf(cuts, st.Shown.Step, whole && st.Set == nil, st.Shown.Cutting.Pins...)
	v.Proved = proved
	for _, c := range cuts {
		v.Bound += c.Bound
	}
	if !whole || v.Proved || len(v.Left) > 0 {
		return v
	}
	deep := sheets.Deepened(tasksOf(st))
	found, looked := s.Sheets.Found(deep)
	if !looked {
		v.Live, v.Key = path+"/least"+here, sheets.KeyOf(deep)
	}
	switch {
	case found == nil:
	case sheets.UsesOf(cutting.Cuts(found)).Less(sheets.UsesOf(cuts), deep):
		v.Found = sheets.SaysFound(found)
	default: // nothing less was found, and maybe there is nothing less
		if v.Bound, v.Proved = sheets.BoundOf(found); st.Set == nil { // the tally tells it too
			p := *st.Shown // which others may be reading
			p.Layout.Bound = max(p.Layout.Bound, v.Bound)
			st.cut(&p)
		}
	}
	return v
}

// wayToCut is one of the ways shown side by side.
type wayToCut struct {
	Title, Why string
	View       sheets.CutView
	Set        brief.Changes
	Here       bool
	Small      template.HTML
}

// cutWaysPage shows the ways to cut a plan side by side.
type cutWaysPage struct {
	desk.Page
	S          *State
	Ways       []wayToCut
	Path, Here string
	Base       int64
}

// nearlyPage lists the changes that are a hair from saving.
type nearlyPage struct {
	desk.Page
	S          *State
	Near       []advice.Near
	Path, Here string
	Base       int64
}

// cutAs is a way to cut that is shown beside others, and what of the sheets it asks.
type cutAs struct{ title, why, aim, tie, sizes string }

var waysToCut = []cutAs{
	{"Fewest sheets", "from the sheet you chose", "sheets", "offcut", "one"},
	{"Largest offcut", "from any size it comes in", "sheets", "offcut", "any"},
	{"Fewest settings", "least work at the trimmer", "sheets", "stops", "one"},
	{"Least cost", "any size it comes in", "cost", "offcut", "any"},
	{"Least card", "any size it comes in", "card", "offcut", "any"},
}

// WaysToCut lays a plan's sheets by each aim, side by side.
func (s *Room) WaysToCut(c *echo.Context, st *State) error {
	done, err := s.Short.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	var ways []wayToCut
	for _, w := range waysToCut {
		if way, ok := s.cutThatWay(s.Workshop(c.Request().Context()), st.Brief.Clone(), w); ok {
			ways = append(ways, way)
		}
	}
	v := viewOf(c).opened(st)
	return s.Render(c, http.StatusOK, "cutways", &cutWaysPage{desk.Page{Title: "Ways to cut it", Part: "cutways"}, st, ways,
		"/projects/" + c.Param("id"), v.With(), st.ID})
}

// cutThatWay cuts a box the one way, where there is a plan of it at all.
func (s *Room) cutThatWay(w request.Workshop, b brief.Brief, as cutAs) (way wayToCut, ok bool) {
	set, here := brief.To("sheets.aim", as.aim, "sheets.among-equals", as.tie, "sheets.sizes", as.sizes), true
	for field, text := range set.All() {
		here = here && b.Get(field) == text
		b.Set(field, text)
	}
	p := plan.Make(b, w)
	if !p.OK() {
		return way, false
	}
	p = advice.Cut(p, s.Sheets.SolvedAtOnce(sheets.Hurried(p.Tasks())), w)
	v := sheets.CutViewOf(p.Cuts, p.Step, false)
	v.Proved = p.Proved()
	return wayToCut{Title: as.title, Why: as.why, View: v, Set: set, Here: here,
		Small: template.HTML(draw.Sheets(p, 260, 150, 6))}, true
}

// Nearly lists the changes that are a hair from saving.
func (s *Room) Nearly(c *echo.Context, st *State) error {
	done, err := s.Short.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	v := viewOf(c).opened(st)
	return s.Render(c, http.StatusOK, "nearly", &nearlyPage{desk.Page{Title: "Almost one sheet less", Part: "nearly"}, st,
		advice.Nearly(st.Plan, s.Workshop(c.Request().Context())), "/projects/" + c.Param("id"), v.With(), st.ID})
}

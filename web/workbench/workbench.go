package workbench

import (
	"context"
	"html/template"
	"net/http"
	"slices"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/plan"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/draw"
	"brevium/draw/solid"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/questions"
	"brevium/web/sheets"
)

// State is a project as the workbench shows it.
type State struct {
	store.Project
	desk.Kept
	Brief    brief.Brief // of a set the box that the page is about
	Plan     *plan.Plan  // of the newest brief
	House    request.Workshop
	soon     bool             // its plan was made without what must be searched for
	More     bool             // remedies are still to be searched for
	Moved    string           // what a change of card, layers or walls did to the fit
	Set      *shownSet        // the set it belongs to, if any
	Suspects []advice.Suspect // of a list of scores: what may be wrong in it
	Shown    *plan.Plan       // the last that worked; nil when none did
	Guide    bench.Guide      // of it: in both units where the house has it so
	Cut      int64            // the state of the shop that was made when its sheets were just cut
	Note     *record.Note     // what a making's form said that could not be kept
	Unkept   string           // why
}

func (s *Room) State(c *echo.Context) (*State, error) {
	return s.stateAfter(c, desk.Edited[brief.Brief]{}, nil)
}

// WithAnyPlan reads a box of which there is something to show, if only by an older brief.
func WithAnyPlan(read func(*echo.Context) (*State, error)) func(*echo.Context) (*State, error) {
	return refusing(read, func(st *State) bool { return st.Shown == nil })
}

// WithPlan reads a box whose newest brief has a plan.
func WithPlan(read func(*echo.Context) (*State, error)) func(*echo.Context) (*State, error) {
	return refusing(read, func(st *State) bool { return !st.Plan.OK() })
}

func refusing(read func(*echo.Context) (*State, error), what func(*State) bool) func(*echo.Context) (*State, error) {
	return func(c *echo.Context) (*State, error) {
		st, err := read(c)
		if err == nil && what(st) {
			return nil, ErrNoPlan
		}
		return st, err
	}
}

// Look makes the state of a revision: of the box that a page is about.
func (s *Room) Look(ctx context.Context, head store.Project, e *desk.Edited[brief.Brief]) *State {
	return Looked(head, s.Make(ctx, head.Doc, e.Part))
}

func (s *Room) Workbench(c *echo.Context) error {
	st, err := s.State(c)
	if err != nil {
		return err
	}
	if v := viewOf(c); v.New == "" && v.Stage == "contents" && st.Fresh() && !desk.IsScript(c) {
		return c.Redirect(http.StatusSeeOther, "/projects/"+st.Of+v.With("new", "1", "view", "")) // what the page asks for says so
	}
	return s.Show(c, http.StatusOK, st)
}

// Show renders the workbench, whole or for a swap.
func (s *Room) Show(c *echo.Context, code int, st *State) error {
	v, ctx := viewOf(c).opened(st), c.Request().Context()
	if v.Box = ""; st.Set != nil {
		v.Box, st.Set.Whole = st.Set.Here, v.All == "1" && st.Set.OK()
	}
	st.House = s.Workshop(c.Request().Context())
	f := questions.Of(&st.Brief, st.Plan, st.Shown, st.House)
	past, err := s.pastOf(ctx, st.Of)
	if err != nil {
		return err
	}
	data := &benchPage{Page: desk.Page{Part: "workbench", Title: st.title(v), InPlace: true}, Views: v.looks(),
		OnTable: OnTable{S: st, V: v, Path: "/projects/" + st.Of}, Rail: Rail(v, &st.Brief, st.Plan, st.House, past),
		Groups: f.Groups(v.Stage), Base: st.ID, Here: v.With(), UnitsField: f.Units(), NameField: f.Name()}
	if st.Shown != nil {
		data.Picture, data.Seen, data.Course = Picture(c, st, v), SeenOf(c, st), st.Course()
	}
	if err := s.showView(c, data); err != nil {
		return err
	}
	if err := s.showStage(ctx, f, data); err != nil {
		return err
	}
	return s.Render(c, code, "bench", data)
}

func (s *Room) pastOf(ctx context.Context, id string) (past Past, err error) {
	if past.Made, err = s.Store.Log.Any(ctx, id); err != nil {
		return past, err
	}
	past.Agreed, err = s.Store.Agreed(ctx, id)
	return past, err
}

// Agree notes that the maker takes what is suggested at a stage, and goes on to the page that the address tells of.
func (s *Room) Agree(c *echo.Context) error {
	at := c.FormValue("stage")
	if !slices.ContainsFunc(Stages, func(one stage) bool { return one.ID == at }) {
		return echo.NewHTTPError(http.StatusBadRequest, "That step is gone. Reload the page and try again.")
	}
	if err := s.Store.Agree(c.Request().Context(), c.Param("id"), at); err != nil {
		return err
	}
	if desk.IsScript(c) { // which asks for that page itself
		return c.NoContent(http.StatusNoContent)
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+viewOf(c).With())
}

// showView fills in what the view that is chosen shows.
func (s *Room) showView(c *echo.Context, data *benchPage) error {
	st := data.S
	switch {
	case data.V.View == "styles":
		return s.gallery(c, st, data)
	case st.Shown == nil:
	case data.V.View == "folded" && !st.whole():
		data.Stored = template.HTML(solid.Stored(st.Shown, 300, 180).SVG())
	case data.V.View == "ways":
		return s.ways(c, st, data)
	case data.V.View == "sheets":
		cut := s.cutViewOfProject(st, data.Path, data.Here)
		data.Cutting, data.Buys = &cut, shop.Shopping(costs.Needs(CutsOf(st), s.Workshop(c.Request().Context())))
	}
	return nil
}

// showStage fills in what the stage asks and tells beside its questions.
func (s *Room) showStage(ctx context.Context, f questions.Form, data *benchPage) (err error) {
	st := data.S
	switch data.V.Stage {
	case "contents":
		data.Usual, err = s.Usuals.List(ctx)
		switch data.V.New {
		case "1":
			data.Shapes = drawnShapes()
		case "3":
			dress := s.dressing(f, st, true)
			data.Dress = &dress
		}
	case "dressing":
		dress := s.dressing(f, st, false)
		data.Dress = &dress
	case "bench":
		if st.Shown == nil {
			return nil
		}
		if st.Guide = st.Shown.Guide; s.Second() {
			st.Guide = st.Shown.InBoth()
		}
		data.Bench, err = s.benchStage(ctx, st)
	case "record":
		if data.History, err = s.Store.Boxes.History(ctx, st.Of, st.ID, 30); err != nil {
			return err
		}
		data.Key = store.NewID()
		data.Record, err = s.recordStage(ctx, st)
	}
	return err
}

// OnTable is a box as it stands on the table, on the workbench or on a page that is shared.
type OnTable struct {
	S       *State
	V       View
	Path    string
	Picture template.HTML
	Seen    seen
	Course  []string
	Stored  template.HTML // as it is stored flat
}

// benchPage is the workbench.
type benchPage struct {
	desk.Page
	OnTable
	Views      []look
	Rail       []stage
	Groups     []desk.Group
	Base       int64
	Here       string
	UnitsField desk.Field
	NameField  desk.Field
	Shapes     []shapePick  // that a new thing may have
	Rows       []advice.Row // of the comparison
	Whole      bool
	Columns    []column
	Sort       string
	Wishes     []looked // of the gallery
	Styles     []styleCard
	Cutting    *sheets.CutView
	Buys       []shop.Buy
	Bench      *benchStage
	Dress      *dressPage
	Usual      []Usual
	History    []store.BoxRev
	Key        string // of a making that is recorded from here
	Record     *recordStage
}

// TableW and tableH are the room a drawing has on the table at 1280 × 800.
const TableW, TableH = 676.0, 560.0

func Picture(c *echo.Context, st *State, v View) template.HTML {
	p := st.Shown
	switch v.View {
	case "folded":
		seen := SeenOf(c, st)
		eye := solid.View{Yaw: seen.Yaw, Pitch: seen.Pitch}
		if st.whole() {
			return template.HTML(solid.SetFolded(st.Set.Set, seen.At, eye, TableW, 480).SVG())
		}
		return template.HTML(solid.Folded(p, seen.pose(p), eye, TableW, 480).SVG())
	case "layers":
		return template.HTML(draw.Dressing(p, TableW, TableH))
	case "above":
		if p.Laid() {
			return template.HTML(draw.Above(p, TableW, TableH))
		}
	case "flat":
		return template.HTML(draw.Flat(p, v.Piece, TableW, TableH, func(piece string) string {
			return "/projects/" + c.Param("id") + v.With("view", "flat", "piece", piece)
		}))
	}
	return ""
}

// Folded gives the folded picture alone, in the pose asked for.
func (s *Room) Folded(c *echo.Context, st *State) error {
	WholeSet(c, st)
	return c.HTML(http.StatusOK, string(Picture(c, st, View{View: "folded"})))
}

// Solid gives the box for the view that turns it in the page.
func Solid(c *echo.Context, st *State) error {
	if WholeSet(c, st); st.whole() {
		return c.JSONBlob(http.StatusOK, solid.SolidOfSet(st.Set.Set).JSON())
	}
	return c.JSONBlob(http.StatusOK, solid.SolidOf(st.Shown).JSON())
}

// WholeSet looks at all boxes of a set, where the address says so.
func WholeSet(c *echo.Context, st *State) {
	if st.Set != nil {
		st.Set.Whole = c.QueryParam("all") == "1" && st.Set.OK()
	}
}

// Slider reads a number from the address, within bounds.
func Slider(c *echo.Context, name string, otherwise, low, high float64) float64 {
	n, err := strconv.ParseFloat(c.QueryParam(name), 64)
	if err != nil || n != n {
		return otherwise
	}
	return min(high, max(low, n))
}

// seen is how the folded box is looked at: how many steps of its making are
// done, how far it is opened (in hundredths), and where from (in degrees).
type seen struct{ At, Lift, Yaw, Pitch float64 }

func SeenOf(c *echo.Context, st *State) seen {
	all := float64(len(st.Course()))
	return seen{Slider(c, "at", all, 0, all), Slider(c, "lift", 100, 0, 100),
		Slider(c, "yaw", solid.DefaultView.Yaw, -180, 180), Slider(c, "pitch", solid.DefaultView.Pitch, -89, 89)}
}

func (v seen) pose(p *plan.Plan) assembly.Pose {
	return assembly.Pose{Fold: v.At / float64(len(p.Box.Course())), Lift: v.Lift / 100}
}

// lay is a piece as it lies on the scoring board for one turn, with what is done there.
type lay struct {
	Board template.HTML
	Says  string
}

// Lays draws every turn of a piece on the scoring board.
func (st *State) Lays(piece string) (out []lay) {
	for _, step := range st.Guide.Steps {
		for _, f := range step.Frames {
			if step.ID == "score:"+piece && f.Look == bench.OnBoard {
				out = append(out, lay{template.HTML(draw.Step(sets.JobOf(st.Shown), f, 0, 0).SVG()), f.Says})
			}
		}
	}
	return out
}

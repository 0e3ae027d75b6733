package web

import (
	"fmt"
	"html/template"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/draw"
)

// cutView is the sheets of something as a page shows them.
type cutView struct {
	Kinds    []cutKind
	Count    int // sheets that are bought
	Offcuts  int
	Bound    int
	Proved   bool
	Used     float64
	Waste    string
	Price    int64
	Largest  string // offcut
	Settings int
	Cuts     int
	Hidden   int // kinds that are not drawn
	Left     []string
	Found    string // what was found that is less
	Live     string // where a search goes on, "" when there is nothing to look for
	Key      string
	Hands    bool
}

// cutKind is sheets that are cut alike.
type cutKind struct {
	N     int
	Title string
	Alike int
	Says  string
	SVG   template.HTML
	Steps []layout.Step
}

// Holds is what can be done with a piece that is held.
func (cutView) Holds() []holding { return holdings }

const mostDrawn = 18

// cutViewOf makes the view of what is cut. Hands says that pieces can be held; of the pins
// the last is that of the piece in hand.
func cutViewOf(cuts []cutting.Cut, step measure.Step, hands bool, pins ...request.Pin) cutView {
	v := cutView{Hands: hands}
	var held *request.Pin
	if n := len(pins); n > 0 {
		held = &pins[n-1]
	}
	known := map[string]int{}
	say := (&brief.Report{Step: step}).Say
	largest, used, whole, n := layout.Rect{}, 0.0, 0.0, 0
	one := layout.Layout{}
	for _, c := range cuts {
		for _, p := range c.TooBig {
			v.Left = append(v.Left, fmt.Sprintf("%d of %s (%s × %s)", p.Count, p.Name, say(p.W), say(p.H)))
		}
		if v.Price += c.Cost(); c.Offcut {
			v.Offcuts += len(c.Sheets)
		} else {
			v.Count += len(c.Sheets)
		}
		for _, s := range c.Sheets {
			whole, v.Cuts = whole+s.W.MM()*s.H.MM(), v.Cuts+len(s.Cuts)
			one.Sheets = append(one.Sheets, s)
			for _, p := range s.Placed {
				used += p.Rect.Area()
			}
			for _, o := range s.Offcuts {
				if o.Area() > largest.Area() {
					largest = o
				}
			}
			mark := c.Mark(s)
			for _, p := range s.Placed { // copies are told apart only by where a hand put them
				if p.Pinned {
					mark += fmt.Sprint(n)
				}
			}
			if at, ok := known[mark]; ok && at < len(v.Kinds) {
				v.Kinds[at].Alike++
			} else if known[mark] = len(v.Kinds); len(v.Kinds) < mostDrawn {
				v.Kinds = append(v.Kinds, kindOf(c, s, n, step, hands, len(cuts) > 1, held))
			} else {
				v.Hidden++
			}
			n++
		}
	}
	if v.Settings = one.Settings(); whole > 0 {
		v.Used, v.Waste = used/whole, area(whole-used, step.Unit)
	}
	if largest.W > 0 {
		v.Largest = step.Show(largest.W).Text + " × " + step.Show(largest.H).Text + " " + string(step.Unit)
	}
	return v
}

func kindOf(c cutting.Cut, s layout.Sheet, n int, step measure.Step, hands, several bool, held *request.Pin) cutKind {
	say := (&brief.Report{Step: step}).Say
	k := cutKind{N: n, Alike: 1, Title: fmt.Sprintf("Sheet %d", n+1), Steps: s.Steps(say)}
	k.Says = c.Sheet.Title
	if several && c.Card.Title != "" {
		k.Says += ", " + c.Card.Title
	}
	look := draw.CutLook{N: n, W: 330, H: 400, Card: c.Card, Step: step, Hands: hands}
	if held != nil && slices.ContainsFunc(s.Placed, func(p layout.Placed) bool { return p.Pinned && p.Piece == held.Piece }) {
		look.Held = &held.At
	}
	k.SVG = template.HTML(draw.CutSheet(s, look))
	return k
}

// tasksOf is what of a project is to be cut, of a set all of it.
func tasksOf(st *state) []cutting.Task {
	if st.Set != nil {
		return st.Set.Tasks()
	}
	return st.Plan.Tasks()
}

// cutViewOfProject is the view of a project's sheets, with where to look for better.
func (s *Server) cutViewOfProject(st *state, path, here string) cutView {
	cuts, proved, whole := st.Shown.Cuts, st.Shown.Proved(), st.Shown == st.Plan
	if st.Set != nil {
		if whole = st.Set.OK(); whole {
			cuts, proved = cutsOf(st), st.Set.Proved()
		}
	}
	v := cutViewOf(cuts, st.Shown.Step, whole && st.Set == nil, st.Shown.Cutting.Pins...)
	v.Proved = proved
	for _, c := range cuts {
		v.Bound += c.Bound
	}
	if !whole || v.Proved || len(v.Left) > 0 {
		return v
	}
	deep := deepened(tasksOf(st))
	found, looked := s.found(deep)
	if !looked {
		v.Live, v.Key = path+"/least"+here, keyOf(deep)
	}
	switch {
	case found == nil:
	case usesOf(cutting.Cuts(found)).less(usesOf(cuts), deep):
		v.Found = saysFound(found)
	default: // nothing less was found, and maybe there is nothing less
		if v.Bound, v.Proved = boundOf(found); st.Set == nil { // the tally tells it too
			st.Shown.Layout.Bound = max(st.Shown.Layout.Bound, v.Bound)
		}
	}
	return v
}

// boundOf is how many sheets are wanted at least, and whether what was found is proved.
func boundOf(found []cutting.Found) (bound int, proved bool) {
	proved = true
	for _, f := range found {
		bound, proved = bound+f.Layout.Bound, proved && f.Proved()
	}
	return bound, proved
}

// wayToCut is one of the ways shown side by side.
type wayToCut struct {
	Title, Why string
	View       cutView
	Set        brief.Changes
	Here       bool
	Small      template.HTML
}

// cutWaysPage shows the ways to cut a plan side by side.
type cutWaysPage struct {
	page
	S          *state
	Ways       []wayToCut
	Path, Here string
	Base       int64
}

// nearlyPage lists the changes that are a hair from saving.
type nearlyPage struct {
	page
	S          *state
	Near       []advice.Near
	Path, Here string
	Base       int64
}

// waysToCut lays a plan's sheets by each aim, side by side.
func (s *Server) waysToCut(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if !st.Plan.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to lay on sheets yet.")
	}
	done, err := s.turn(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	var ways []wayToCut
	for _, w := range []struct{ title, why, aim, tie, sizes string }{
		{"Fewest sheets", "of the sheet that was chosen", "sheets", "offcut", "one"},
		{"Largest offcut", "of any size it comes in, fewest sheets", "sheets", "offcut", "any"},
		{"Fewest settings", "the stop is moved least", "sheets", "stops", "one"},
		{"Least cost", "any size it comes in", "cost", "offcut", "any"},
		{"Least card", "any size it comes in", "card", "offcut", "any"},
	} {
		b := st.Brief.Clone()
		set := brief.To("sheets.aim", w.aim, "sheets.among-equals", w.tie, "sheets.sizes", w.sizes)
		for field, text := range set.All() {
			b.Set(field, text)
		}
		p := plan.Make(b, s.workshop())
		if !p.OK() {
			continue
		}
		found := s.solvedAtOnce(hurried(p.Tasks()))
		p = advice.Cut(p, found, s.workshop())
		v := cutViewOf(p.Cuts, p.Step, false)
		v.Proved = p.Proved()
		ways = append(ways, wayToCut{Title: w.title, Why: w.why, View: v, Set: set,
			Here: st.Brief.Get("sheets.aim") == w.aim && st.Brief.Get("sheets.among-equals") == w.tie &&
				st.Brief.Get("sheets.sizes") == w.sizes,
			Small: template.HTML(draw.Sheets(p, 260, 150, 6))})
	}
	v := viewOf(c).opened(st)
	return s.render(c, http.StatusOK, "cutways", &cutWaysPage{page{Title: "Ways to cut it", Part: "cutways"}, st, ways,
		"/projects/" + c.Param("id"), v.with(), st.ID})
}

// nearly lists the changes that are a hair from saving.
func (s *Server) nearly(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if !st.Plan.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to change yet.")
	}
	done, err := s.turn(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	v := viewOf(c).opened(st)
	return s.render(c, http.StatusOK, "nearly", &nearlyPage{page{Title: "A hair less", Part: "nearly"}, st,
		advice.Nearly(st.Plan, s.workshop()), "/projects/" + c.Param("id"), v.with(), st.ID})
}

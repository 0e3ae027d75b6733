package workbench

import (
	"net/url"
	"slices"

	"github.com/labstack/echo/v5"
)

// View is what the address says of how a project is looked at.
type View struct {
	Stage, View, Piece string
	Box                string // of a set: which box
	All                string // of a set: "1" to look at all of them together
	New                string // which of the three questions of a new box is asked, "1" to "3"
}

// a look is a way to look at the box. One that serves a single stage stands only
// there.
type look struct{ ID, Title, Stage string }

var Looks = []look{
	{"flat", "Flat", ""}, {"folded", "Folded", ""},
	{"above", "Inside", "contents"}, {"ways", "Arrangements", "contents"},
	{"styles", "All boxes", "box"}, {"fit", "Fit", "card"}, {"layers", "Layers", "dressing"},
	{"sheets", "Sheets", "sheets"}, {"turns", "Turn by turn", "bench"},
	{"glue", "Glue map", "bench"},
}

// mostViews is how many ways to look a stage offers at once; another one is a press away, under the first.
const mostViews = 3

// opens is the view that answers a stage: what the stage opens with.
var opens = map[string]string{"contents": "above", "box": "folded", "card": "fit", "dressing": "folded",
	"sheets": "sheets", "bench": "turns"}

// viewOf reads from the address how a project is looked at. A view that serves
// another stage than the one named gives way to that stage's own; where no stage
// is named, the view's stage is meant.
func viewOf(c *echo.Context) View {
	v := View{Piece: c.QueryParam("piece"), Box: c.QueryParam("box")}
	if c.QueryParam("all") == "1" {
		v.All = "1"
	}
	if n := c.QueryParam("new"); n == "1" || n == "2" || n == "3" {
		v.New, v.Stage = n, "contents"
		return v
	}
	for _, s := range Stages {
		if s.ID == c.QueryParam("stage") {
			v.Stage = s.ID
		}
	}
	for _, w := range Looks {
		if w.ID == c.QueryParam("view") && (w.Stage == "" || v.Stage == "" || w.Stage == v.Stage) {
			v.View = w.ID
			if v.Stage == "" {
				v.Stage = w.Stage
			}
		}
	}
	if v.Stage == "" {
		v.Stage = "contents"
	}
	return v
}

// Before and After are the questions of a new box beside this one, "" when there is none.
func (v View) Before() string { return map[string]string{"2": "1", "3": "2"}[v.New] }
func (v View) After() string  { return map[string]string{"1": "2", "2": "3"}[v.New] }

// opened fills in the view that the stage opens with. A box of which nothing is known is asked about.
func (v View) opened(st *State) View {
	if v.New == "" && v.Stage == "contents" {
		v.New = newBox(&st.Brief, v.Stage)
	}
	if v.New == "2" {
		v.View = "styles"
	}
	if v.View != "" {
		return v
	}
	v.View = opens[v.Stage]
	if v.View == "" || v.View == "above" && (st.Shown == nil || !st.Shown.Laid()) {
		v.View = "flat"
	}
	return v
}

// looks are the ways to look at the box from this stage: its own first, the one that is chosen among them.
func (v View) looks() (out []look) {
	for _, own := range []bool{true, false} {
		for _, l := range Looks {
			if (l.Stage != "") == own && (l.Stage == "" || l.Stage == v.Stage) && l.ID != "ways" {
				out = append(out, l)
			}
		}
	}
	if v.Stage == "bench" {
		slices.Reverse(out[2:]) // folded tells more at the bench than flat
	}
	return out[:min(len(out), mostViews)]
}

// Link gives the address of this view with some of it changed.
func (v View) Link(pairs ...string) string { return v.With(pairs...) }

// With gives the workbench's address with some of its view changed.
func (v View) With(pairs ...string) string {
	q := url.Values{}
	for _, p := range []struct{ name, value string }{{"stage", v.Stage}, {"view", v.View}, {"piece", v.Piece},
		{"box", v.Box}, {"all", v.All}, {"new", v.New}} {
		if p.value != "" {
			q.Set(p.name, p.value)
		}
	}
	for i := 0; i+1 < len(pairs); i += 2 {
		q.Set(pairs[i], pairs[i+1])
		if pairs[i+1] == "" {
			q.Del(pairs[i])
		}
	}
	return "?" + q.Encode()
}

package workbench

import (
	"net/url"

	"github.com/labstack/echo/v5"
)

// View is what the address says of how a project is looked at.
type View struct {
	Stage, View, Piece string
	Box                string // of a set: which box
	All                string // of a set: "1" to look at all of them together
}

// a look is a way to look at the box. One that serves a single stage stands only
// there.
type look struct{ ID, Title, Stage string }

var Looks = []look{
	{"flat", "Flat", ""}, {"folded", "Folded", ""},
	{"above", "Inside", "contents"}, {"ways", "Ways", "contents"},
	{"styles", "Styles", "box"}, {"fit", "Corner", "card"}, {"layers", "Layers", "dressing"},
	{"sheets", "Sheets", "sheets"}, {"turns", "Turn by turn", "bench"},
	{"glue", "Glue map", "bench"},
}

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

// opened fills in the view that the stage opens with.
func (v View) opened(st *State) View {
	if v.View != "" {
		return v
	}
	v.View = opens[v.Stage]
	if v.View == "" || v.View == "above" && (st.Shown == nil || !st.Shown.Laid()) {
		v.View = "flat"
	}
	return v
}

// looks are the ways to look at the box from this stage, its own first.
func (v View) looks() (out []look) {
	for _, own := range []bool{true, false} {
		for _, l := range Looks {
			if (l.Stage != "") == own && (l.Stage == "" || l.Stage == v.Stage) {
				out = append(out, l)
			}
		}
	}
	return out
}

// Link gives the address of this view with some of it changed.
func (v View) Link(pairs ...string) string { return v.With(pairs...) }

// With gives the workbench's address with some of its view changed.
func (v View) With(pairs ...string) string {
	q := url.Values{}
	for _, p := range []struct{ name, value string }{{"stage", v.Stage}, {"view", v.View}, {"piece", v.Piece},
		{"box", v.Box}, {"all", v.All}} {
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

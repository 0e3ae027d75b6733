package workbench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
)

// stage is a station of the work on the rail.
type stage struct {
	ID, Title  string
	State, Why string // whether it is done, wants a look, or is still to come
	Link       string
	Here       bool
	fields     []string // prefixes of the fields that belong to it
}

// How far a stage is.
const done, wanted, later = "done", "look", "later"

// Word is the stage's state in a word.
func (st stage) Word() string {
	return map[string]string{done: "Done", wanted: "Look here", later: "Not yet"}[st.State]
}

var Stages = []stage{
	{ID: "contents", Title: "Contents", fields: []string{"contents", "size", "room", "arrange", "set"}},
	{ID: "box", Title: "Box", fields: []string{"box"}},
	{ID: "card", Title: "Card & fit", fields: []string{"card", "tools", "units", "dress.outside", "dress.inside", "dress.floor"}},
	{ID: "dressing", Title: "Decoration", fields: []string{"dress"}},
	{ID: "sheets", Title: "Sheets", fields: []string{"copies", "sheets"}},
	{ID: "bench", Title: "Bench"},
	{ID: "record", Title: "Record", fields: []string{"name", "notes"}},
}

// Past is what was done about a box beside changing it: whether it was made, and at which stages the maker took what was
// suggested.
type Past struct {
	Made   bool
	Agreed []string
}

// Rail says of each stage whether it is done, wants a look or is still to come. Nothing is done that nobody touched or
// agreed to; a box that was made is done with.
func Rail(v View, b *brief.Brief, p *plan.Plan, w request.Workshop, past Past) []stage {
	begun := w.Begin(brief.New(string(b.Units)))
	out := make([]stage, len(Stages))
	for i, st := range Stages {
		st.Here, st.Link = st.ID == v.Stage, v.With("stage", st.ID, "view", "", "piece", "")
		switch {
		case past.Made:
			st.State, st.Why = done, "You have made this box."
		case slices.Contains(past.Agreed, st.ID):
			st.State, st.Why = done, "You took what Brevium suggests."
		case len(st.fields) == 0 || sameFields(b, &begun, st):
			st.State, st.Why = later, "Everything here is as Brevium suggests."
		default:
			st.State, st.Why = done, "You have been here."
		}
		if st.ID == "contents" && (fresh(b) || WaitsForSizes(b, p)) {
			st.State, st.Why = later, "Type what goes in."
		} else if st.ID == "record" && !past.Made {
			st.State, st.Why = later, "Write it down when you have made it."
		} else if at := slices.IndexFunc(p.Problems, func(pr brief.Problem) bool { return st.owns(pr.Field) }); at >= 0 {
			st.State, st.Why = wanted, p.Problems[at].Text
		}
		switch {
		case st.ID == "sheets" && p.OK() && len(p.Layout.TooBig) > 0:
			st.State, st.Why = wanted, "A piece is too big for its sheet."
		case st.ID == "bench" && p.OK() && !p.Holds():
			st.State, st.Why = wanted, "A check failed."
		}
		out[i] = st
	}
	return out
}

func (st stage) owns(field string) bool {
	for _, f := range st.fields {
		if field == f || strings.HasPrefix(field, f+".") {
			return true
		}
	}
	return false
}

func sameFields(a, b *brief.Brief, st stage) bool {
	part := func(x *brief.Brief) string {
		switch st.ID {
		case "contents":
			return fmt.Sprint(x.Contents, x.Room, x.Arrange, x.Size != nil)
		case "box":
			return fmt.Sprint(x.Box)
		case "card":
			return fmt.Sprint(x.Card, x.Tools, x.Dress.Bare())
		case "dressing":
			return fmt.Sprint(x.Dress)
		case "sheets":
			return fmt.Sprint(x.Copies, x.Sheets)
		}
		return fmt.Sprint(x.Name, x.Notes)
	}
	return part(a) == part(b)
}

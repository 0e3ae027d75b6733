package planjson

import (
	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/request"
	"brevium/core/sets"
)

// jsonSet is a set of boxes: a plan for each, and what is said of them all.
type jsonSet struct {
	Set      string          `json:"set"`
	Boxes    []jsonPlan      `json:"boxes"`
	Outside  *jsonDims       `json:"outside,omitempty"`
	Proof    jsonProof       `json:"proof"`
	Layout   *jsonLayout     `json:"layout,omitempty"`
	Cards    []jsonCard      `json:"score_cards,omitempty"`
	Steps    []jsonStep      `json:"steps,omitempty"`
	Warnings []brief.Warning `json:"warnings"`
	Problems []brief.Problem `json:"problems"`
}

// Of plans a document, of one box or of several, writes the plan and reports whether
// it holds.
func Of(b brief.Brief, w request.Workshop) (data []byte, holds bool) {
	if b.IsSet() {
		s := sets.Make(b, w).CutAsAsked()
		return WriteSet(s), s.Holds()
	}
	p := advice.CutAsAsked(advice.Make(b, w), w)
	out := writer{p}
	all := out.whole()
	for _, n := range advice.Nearly(p, w) {
		all.Near = append(all.Near, jsonNear{n.Text, n.Set, out.text(n.Less), n.Sheets, n.Before, n.Cost})
	}
	all.Suspects = advice.Suspects(p, w)
	return encode(all), p.Holds()
}

// WriteSet writes the plans of a set.
func WriteSet(s *sets.Set) []byte {
	out := jsonSet{Set: s.Kind, Boxes: []jsonPlan{}, Warnings: append([]brief.Warning{}, s.Warnings...),
		Problems: append([]brief.Problem{}, s.Problems...)}
	for i, p := range s.Plans {
		one := writer{p}.whole()
		one.Name = s.Names[i]
		out.Boxes = append(out.Boxes, one)
	}
	out.Proof = jsonProof{Holds: s.Holds(), Checks: append([]fold.Check{}, s.Checks...)}
	if !s.OK() {
		return encode(out)
	}
	w := writer{s.Plans[0]}
	var cuts []cutting.Cut
	for _, l := range s.Layouts {
		cuts = append(cuts, l.Cut)
	}
	out.Outside, out.Layout = w.dims(s.Outside()), w.layout(cuts...)
	out.Layout.Proved = s.Proved()
	for _, c := range s.Cards() {
		out.Cards = append(out.Cards, jsonCard{c.Piece, c.Says})
	}
	for _, step := range s.Steps() {
		out.Steps = append(out.Steps, stepOf(step))
	}
	return encode(out)
}

package planjson

import (
	"cmp"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/request"
	"brevium/core/sets"
)

// What goes on, in and round the box, beside its pieces.
type (
	jsonSupply struct {
		What   string `json:"what"`
		Width  string `json:"width,omitempty"`
		Length string `json:"length,omitempty"`
		Count  int    `json:"count"`
		Says   string `json:"says,omitempty"`
	}
	jsonRun struct {
		Name   string       `json:"name"`
		Stock  string       `json:"stock"`
		Width  string       `json:"width"`
		Height string       `json:"height"`
		Cuts   []jsonRunCut `json:"cuts"` // from the left, the printed side up
	}
	jsonRunCut struct {
		Piece string `json:"piece"`
		On    string `json:"on"`
		X     string `json:"x"`
		Y     string `json:"y"`
	}
)

func (p writer) dressed(out *jsonPlan) {
	for _, s := range p.Box.Supplies {
		out.Supplies = append(out.Supplies, p.supply(s))
	}
	if p.Dressed == nil {
		return
	}
	for _, l := range p.Dressed.Laid {
		for i := range out.Pieces {
			if out.Pieces[i].Name == l.Piece.Name {
				out.Pieces[i].On = l.On
			}
		}
	}
	for _, s := range p.Dressed.Supplies {
		out.Supplies = append(out.Supplies, p.supply(s))
	}
	for _, r := range p.Dressed.Runs {
		run := jsonRun{Name: r.Name, Stock: r.Card.ID, Width: p.text(r.W), Height: p.text(r.H)}
		for _, c := range r.Cuts {
			run.Cuts = append(run.Cuts, jsonRunCut{c.Piece.Name, c.On, p.text(c.X), p.text(c.Y)})
		}
		out.Runs = append(out.Runs, run)
	}
}

func (p writer) supply(s assembly.Supply) jsonSupply {
	n := s.Count * p.Copies
	if s.Tool {
		n = s.Count
	}
	js := jsonSupply{What: s.What, Count: n, Says: cmp.Or(s.Text, s.Says)}
	if s.Width > 0 {
		js.Width = p.text(s.Width)
	}
	if s.Length > 0 {
		js.Length = p.text(s.Length)
	}
	return js
}

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

// Of plans a document, of one box or of several, writes the plan and reports whether it holds.
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

package planjson

import (
	"cmp"

	"brevium/core/assembly"
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

// Package planjson writes a plan out for programs, as docs/format.md describes.
package planjson

import (
	"encoding/json"
	"fmt"
	"math"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/readings"
)

// The JSON of a plan: lengths are exact texts in the document's units.
type (
	jsonPlan struct {
		Name      string           `json:"name,omitempty"` // in a set
		Style     string           `json:"style"`
		Size      *jsonDims        `json:"size,omitempty"`
		Inside    *jsonDims        `json:"inside,omitempty"`
		Outside   *jsonDims        `json:"outside,omitempty"`
		Clearance string           `json:"clearance,omitempty"`
		Copies    int              `json:"copies"`
		Pieces    []jsonPiece      `json:"pieces"`
		Contents  []jsonPlaced     `json:"contents,omitempty"`
		Proof     jsonProof        `json:"proof"`
		Layout    *jsonLayout      `json:"layout,omitempty"`
		Supplies  []jsonSupply     `json:"supplies,omitempty"`
		Runs      []jsonRun        `json:"runs,omitempty"`
		Cards     []jsonCard       `json:"score_cards,omitempty"`
		Steps     []jsonStep       `json:"steps,omitempty"`
		Sections  []jsonSection    `json:"sections,omitempty"`
		Strength  []jsonCarry      `json:"strength,omitempty"`
		Grain     []jsonGrain      `json:"grain,omitempty"`
		Used      []jsonUsed       `json:"from_the_shop,omitempty"`
		Chosen    string           `json:"chosen,omitempty"`
		Ways      []jsonWay        `json:"arrangements,omitempty"`
		Fixes     []brief.Fix      `json:"make_it_fit,omitempty"`
		Near      []jsonNear       `json:"nearly,omitempty"`
		Suspects  []advice.Suspect `json:"suspects,omitempty"`
		Seams     []jsonSeam       `json:"seams,omitempty"`
		Opens     *jsonOpens       `json:"is,omitempty"`
		Notes     []jsonNote       `json:"notes,omitempty"`
		Warnings  []brief.Warning  `json:"warnings"`
		Problems  []brief.Problem  `json:"problems"`
	}
	jsonDims struct {
		Length string `json:"length"`
		Width  string `json:"width"`
		Depth  string `json:"depth"`
	}
	jsonSeam struct {
		Piece string   `json:"piece"`
		Edge  string   `json:"edge"`
		Wall  string   `json:"wall"`
		From  []string `json:"seen_from"`
	}
	jsonOpens struct {
		Clean  bool `json:"clean"`
		Book   bool `json:"opens_like_a_book"`
		Stores bool `json:"stores_flat"`
	}
	jsonNote struct {
		Code   string `json:"code"`
		Piece  string `json:"piece"`
		Figure string `json:"figure"`
		Text   string `json:"text"`
	}
	jsonPiece struct {
		Name   string      `json:"name"`
		Part   net.Part    `json:"part"`
		Stock  string      `json:"stock"`
		Count  int         `json:"count"`
		On     []string    `json:"on,omitempty"` // of the dressing: the panels it goes on
		Width  string      `json:"width"`
		Height string      `json:"height"`
		Scores []jsonScore `json:"scores"`
		Lines  []jsonLine  `json:"lines"`
		Faces  []jsonFace  `json:"faces"`
	}
	jsonScore struct {
		Along string `json:"along"`
		At    string `json:"at"`
		From  string `json:"from"`
		To    string `json:"to"`
		Fold  string `json:"fold"`
		How   string `json:"how,omitempty"` // the way round, when no groove sets it
	}
	jsonSection struct {
		Outer   string     `json:"outer"`
		Inner   string     `json:"inner"`
		Layers  []jsonSkin `json:"layers"` // from the inside out, the gap among them
		Gap     string     `json:"gap"`    // on each side
		Play    string     `json:"play"`   // over the whole width
		Verdict string     `json:"verdict,omitempty"`
	}
	jsonSkin struct {
		What  string `json:"what"`
		Stock string `json:"stock,omitempty"`
		Thick string `json:"thick"`
	}
	jsonCarry struct {
		Name     string      `json:"name"`
		Load     string      `json:"load"`
		Limit    string      `json:"limit"`
		Holds    bool        `json:"holds"`
		Text     string      `json:"text"`
		Remedy   string      `json:"remedy,omitempty"`
		Remedies []brief.Fix `json:"remedies,omitempty"`
	}
	jsonGrain struct {
		Piece string `json:"piece"`
		Runs  bool   `json:"runs"`
		Says  string `json:"says"`
	}
	jsonUsed struct {
		Kind string        `json:"kind"`
		Says string        `json:"says"`
		Set  brief.Changes `json:"set,omitempty"`
	}
	jsonLine struct {
		Kind string `json:"kind"`
		Fold string `json:"fold,omitempty"`
		X1   string `json:"x1"`
		Y1   string `json:"y1"`
		X2   string `json:"x2"`
		Y2   string `json:"y2"`
	}
	jsonFace struct {
		Name   string `json:"name"`
		Width  string `json:"width"`
		Height string `json:"height"`
	}
	jsonPlaced struct {
		Name string   `json:"name"`
		In   string   `json:"in,omitempty"` // which of several small boxes
		At   jsonDims `json:"at"`
		Size jsonDims `json:"size"`
	}
	jsonProof struct {
		Holds  bool         `json:"holds"`
		Checks []fold.Check `json:"checks"`
	}
	jsonNear struct {
		Text   string        `json:"text"`
		Set    brief.Changes `json:"set"`
		Less   string        `json:"less"`
		Sheets int           `json:"sheets"`
		Before int           `json:"before"`
		Saves  int64         `json:"saves"` // in hundredths
	}
	jsonLayout struct {
		Sheets []layout.Told `json:"sheets"`
		Count  int           `json:"count"`
		Bound  int           `json:"bound"`
		Proved bool          `json:"proved"`
		Used   float64       `json:"used"`
	}
	jsonWay struct {
		ID     string   `json:"id"`
		Says   string   `json:"says"`
		Room   jsonDims `json:"room"`
		Sheets int      `json:"sheets"`
		Reason string   `json:"reason"`
	}
	jsonCard struct {
		Piece string   `json:"piece"`
		Says  []string `json:"says"`
	}
	jsonStep struct {
		ID      string   `json:"id"`
		Title   string   `json:"title"`
		Piece   string   `json:"piece,omitempty"`
		Count   int      `json:"count"`
		Says    []string `json:"says"`
		Caution string   `json:"caution,omitempty"`
		Check   string   `json:"check,omitempty"`
		Fails   []string `json:"if_not,omitempty"`
		Minutes float64  `json:"minutes"`
	}
)

type writer struct{ *plan.Plan }

// Write writes a plan.
func Write(pl *plan.Plan) []byte { return encode(writer{pl}.whole()) }

func encode(what any) []byte {
	data, err := json.MarshalIndent(what, "", "  ")
	if err != nil {
		panic(err) // only texts, numbers and lists of them
	}
	return append(data, '\n')
}

func (p writer) whole() jsonPlan {
	out := jsonPlan{
		Style: string(p.Brief.Box.Style), Copies: p.Copies, Pieces: []jsonPiece{},
		Warnings: append([]brief.Warning{}, p.Warnings...), Problems: append([]brief.Problem{}, p.Problems...),
		Proof: jsonProof{Holds: p.Holds(), Checks: append([]fold.Check{}, p.Checks...)},
	}
	if b := p.Box; b != nil {
		out.Size, out.Inside, out.Outside = p.dims(b.Size), p.dims(b.Inside), p.dims(b.Outside)
		out.Clearance = p.text(b.Clearance)
		for _, piece := range b.Pieces() {
			out.Pieces = append(out.Pieces, p.piece(piece))
		}
		out.Contents = p.placed(p.Load, "")
		for _, r := range p.Rooms {
			out.Contents = append(out.Contents, p.placed(r.Load, r.Name)...)
		}
		for _, w := range p.Ways {
			out.Ways = append(out.Ways, jsonWay{w.ID, w.Says, p.sizeText(w.Need), w.Sheets, w.Reason})
		}
		out.Fixes = p.Advice.Fixes
		for _, s := range b.Seams {
			out.Seams = append(out.Seams, jsonSeam(s))
		}
		out.Opens = &jsonOpens{b.Clean(), b.Book, b.Stores}
		for _, n := range b.Notes {
			out.Notes = append(out.Notes, jsonNote{n.Code, n.Piece, p.text(n.Figure), n.Text})
		}
		out.Layout = p.layout(p.Cuts...)
		out.Layout.Proved = p.Proved()
		p.dressed(&out)
		p.fit(&out)
		for _, c := range p.Guide.Cards {
			out.Cards = append(out.Cards, jsonCard{c.Piece, c.Says})
		}
		for _, s := range p.Guide.Steps {
			out.Steps = append(out.Steps, stepOf(s))
		}
	}
	return out
}

// placed lists things where they lie.
func (p writer) placed(l contents.Load, in string) (out []jsonPlaced) {
	for _, it := range l.Units() {
		out = append(out, jsonPlaced{l.Things[it.Thing].Name, in, p.sizeText(it.At), p.sizeText(it.Size)})
	}
	return out
}

func (p writer) text(l measure.Length) string { return l.Exact(p.Units) }

func (p writer) dims(d assembly.Dims) *jsonDims {
	return &jsonDims{p.text(d.Length), p.text(d.Width), p.text(d.Depth)}
}

func (p writer) sizeText(s contents.Size) jsonDims {
	return jsonDims{p.text(s.Length), p.text(s.Width), p.text(s.Height)}
}

func (p writer) piece(s *net.Piece) jsonPiece {
	out := jsonPiece{Name: s.Name, Part: s.Part, Stock: p.CardOf(s.Stock).ID, Count: s.Count * p.Copies,
		Width: p.text(s.Width), Height: p.text(s.Height), Scores: []jsonScore{}, Lines: []jsonLine{}, Faces: []jsonFace{}}
	for _, pass := range s.Passes {
		along := "height"
		if pass.AlongWidth {
			along = "width"
		}
		out.Scores = append(out.Scores, jsonScore{along, p.text(pass.At), p.text(pass.From), p.text(pass.To),
			pass.Fold.String(), p.how(s.Name, pass)})
	}
	for _, l := range s.Outline() {
		j := jsonLine{l.Kind.String(), "", p.text(l.A.X), p.text(l.A.Y), p.text(l.B.X), p.text(l.B.Y)}
		if !l.Kind.Open() {
			j.Fold = l.Fold.String()
		}
		out.Lines = append(out.Lines, j)
	}
	for _, f := range s.Kept() {
		lo, hi := f.Bounds()
		out.Faces = append(out.Faces, jsonFace{f.Name, p.text(hi.X - lo.X), p.text(hi.Y - lo.Y)})
	}
	return out
}

// layout writes what is cut of several cards as one, each sheet with its card; how
// much is used is told of all of them.
func (p writer) layout(all ...cutting.Cut) *jsonLayout {
	layouts := make([]layout.Layout, len(all))
	for i, c := range all {
		layouts[i] = c.Layout
	}
	whole := layout.Join(layouts...)
	out := &jsonLayout{Sheets: []layout.Told{}, Count: len(whole.Sheets), Bound: whole.Bound, Used: whole.Used}
	for _, s := range whole.Sheets {
		out.Sheets = append(out.Sheets, s.Tell(p.Units, false))
	}
	return out
}

// how tells the way round a score that no groove sets.
func (p writer) how(piece string, pass net.Pass) string {
	for _, c := range p.Guide.Cards {
		for _, t := range c.Turns {
			for i, l := range t.Lines {
				if c.Piece == piece && l == pass {
					return t.At[i].How(p.Say)
				}
			}
		}
	}
	return ""
}

// fit writes what hangs on the shop: the corner, the strength, the grain, and what the plan took from there.
func (p writer) fit(out *jsonPlan) {
	for _, s := range readings.Sections(p.Plan) {
		js := jsonSection{Outer: s.Outer, Inner: s.Inner, Gap: p.text(s.Gap), Play: p.text(s.Play), Verdict: s.Verdict}
		for _, k := range s.Skins {
			js.Layers = append(js.Layers, jsonSkin{k.What, k.Stock, p.text(k.Thick)})
		}
		out.Sections = append(out.Sections, js)
	}
	for _, c := range readings.Carries(p.Plan) {
		js := jsonCarry{Name: c.Name, Load: grams(c.Load), Limit: grams(c.Limit), Holds: c.Holds, Text: c.Text,
			Remedies: c.Remedies}
		if len(c.Remedies) > 0 {
			js.Remedy = c.Remedies[0].Text
		}
		out.Strength = append(out.Strength, js)
	}
	for _, g := range readings.Grains(p.Plan) {
		out.Grain = append(out.Grain, jsonGrain{g.Piece, g.Runs, g.Says})
	}
	for _, u := range p.Used {
		if u.Kind != "card" { // pieces name their own
			out.Used = append(out.Used, jsonUsed{u.Kind, u.Says, u.Set})
		}
	}
	out.Chosen = p.Chosen
}

func grams(g float64) string { return fmt.Sprintf("%.0f g", g) }

func stepOf(s bench.Step) jsonStep {
	js := jsonStep{s.ID, s.Title, s.Piece, s.Count, s.Says, s.Caution(), s.Check, nil, math.Round(s.Minutes*10) / 10}
	for _, f := range s.Fails {
		js.Fails = append(js.Fails, f.When+": "+f.Do)
	}
	return js
}

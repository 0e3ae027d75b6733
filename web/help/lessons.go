package help

import (
	"fmt"
	"html/template"
	"strings"

	"brevium/core/assembly"
	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/draw"
	"brevium/draw/solid"
	"brevium/web/desk"
)

// The short lessons. What they show is planned as any box is.

func measureThings(request.Workshop) (out []lesson) {
	for _, s := range contents.Shapes {
		out = append(out, lesson{s.Title, []string{s.How}, []template.HTML{template.HTML(draw.Measuring(s.ID))}})
	}
	return append(out, lesson{"Add room", []string{
		"Type the sizes as you measured them. Brevium adds space for your fingers and for the lid.",
		"Open “Space around them” under Contents to change it."}, nil})
}

// with plans the sampler with fields changed.
func with(w request.Workshop, pairs ...string) *plan.Plan {
	b := sampler(w).Brief.Clone()
	for i := 0; i+1 < len(pairs); i += 2 {
		b.Set(pairs[i], pairs[i+1])
	}
	return plan.Make(b, w)
}

func chooseCard(w request.Workshop) (out []lesson) {
	for _, c := range w.Offered() {
		if c.Pattern != "" || len(out) == 3 {
			continue
		}
		p := with(w, "card.stock", c.ID)
		if !p.OK() {
			continue
		}
		out = append(out, lesson{c.Title, []string{
			fmt.Sprintf("This card is %s. With it, the lid of this box is %s larger than the base.", desk.Thick(c.Caliper, p.Units),
				desk.Plainly(p.Step.Show(p.Box.Clearance).String())),
			"Thin card folds easily. Thick card is stronger, but needs more room at every fold."}, []template.HTML{closed(p)}})
	}
	return append(out, lesson{"Mind the grain", []string{
		"Bend the card gently both ways. It bends more easily along the grain.",
		"Score along the grain where you can. The folds are cleaner."}, nil})
}

func closed(p *plan.Plan) template.HTML {
	return template.HTML(solid.Folded(p, assembly.Pose{Fold: 1, Lift: 0.8}, solid.DefaultView, 300, 220).SVG())
}

func scoreAndFold(w request.Workshop) (out []lesson) {
	p := sampler(w)
	for _, step := range p.Guide.Steps {
		switch step.Title {
		case "Trim", "Score", "Cut", "Fold and burnish", "Stick":
		default:
			continue
		}
		if step.Piece != "" && step.Piece != p.Guide.Cards[0].Piece {
			continue
		}
		l := lesson{Title: step.Title, Says: step.Says}
		if step.Title == "Score" {
			l.Says = []string{"Lay the card inside up on the scoring board. Follow its score card and turn it as it says."}
			l.Pictures = []template.HTML{template.HTML(draw.Board(p, p.Guide.Cards[0], 0).SVG())}
		}
		if step.Check != "" {
			l.Says = append(l.Says, "Check: "+step.Check)
		}
		out = append(out, l)
	}
	for i, fold := range []float64{0.3, 0.6, 1} {
		picture := template.HTML(solid.Folded(p, assembly.Pose{Fold: fold}, solid.DefaultView, 300, 220).SVG())
		if i == 0 {
			out = append(out, lesson{Title: "Watch it close"})
		}
		out[len(out)-1].Pictures = append(out[len(out)-1].Pictures, picture)
	}
	return out
}

func glueOrTape(w request.Workshop) (out []lesson) {
	for _, a := range shop.Adhesives {
		p := with(w, "tools.adhesive", a.ID)
		if !p.OK() {
			continue
		}
		l := lesson{Title: words.Capital(a.Title), Says: []string{a.Why,
			"Tabs are " + desk.Plainly(measure.DefaultStep(p.Units).ShowUp(a.Width).String()) + " wide.", p.Glue().Said()}}
		for i, g := range p.GlueMap() {
			if i < 2 {
				l.Pictures = append(l.Pictures, template.HTML(draw.Glue(p, g, 320, 240).SVG()))
			}
		}
		out = append(out, l)
	}
	return append(out, lesson{"Stay safe", []string{"Open a window when you glue, keep glue away from children, and follow its " +
		"instructions."}, nil})
}

func littleWaste(w request.Workshop) (out []lesson) {
	for _, n := range []string{"1", "2", "4"} {
		p := with(w, "copies", n)
		if !p.OK() || len(p.Layout.Sheets) == 0 {
			continue
		}
		made := "One box"
		if n != "1" {
			made = n + " boxes"
		}
		out = append(out, lesson{made, []string{fmt.Sprintf("%s: %d of %s, with %.0f %% of the card used.", made, len(p.Layout.Sheets),
			strings.TrimSpace(p.Sheet.Title), 100*p.Layout.Used)},
			[]template.HTML{template.HTML(draw.Sheets(p, lessonW, 300, 2))}})
	}
	return append(out, lesson{"Save more", []string{
		"Under Sheets, open “How to cut” to use offcuts first or to search longer.",
		"“Almost one sheet less” shows when a slightly smaller box would save a sheet."}, nil})
}

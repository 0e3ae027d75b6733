package plan

import (
	"fmt"

	"brevium/core/box"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
)

// warn notes what a good maker would say about a plan that can be cut.
func (p *Plan) warn(r *brief.Reader) {
	p.warnCorners(r)
	p.warnMarks(r)
	p.warnShape(r)
	if p.Units != p.Step.Unit {
		r.Warn(brief.Warning{Code: "two-units", Text: fmt.Sprintf("The project is in %s but the tools are marked in %s.", p.Units.Word(), p.Step.Unit.Word()),
			Fix: "Choose a step in the project's own unit.", Set: map[string]string{"tools.step": measure.DefaultStep(p.Units).String()}})
	}
}

// warnCorners says when a lid's tabs leave less room than the card has give.
func (p *Plan) warnCorners(r *brief.Reader) {
	a := p.Box.Assemble(p.Card.Caliper, box.Closed)
	for _, l := range p.Box.Lids {
		for _, g := range fold.Clearances(a.Of(l.Piece), a.Of(l.Over)) {
			if g.Tabs >= -p.Card.Caliper.MM()/4 {
				continue
			}
			w := brief.Warning{Code: "tight-corners",
				Text: fmt.Sprintf("The lid will be tight at its corners: the tabs inside it want %.1f mm more at the %s than the clearance leaves.", -g.Tabs, g.Side),
				Fix:  "Choose the next looser fit, or lighter card."}
			switch p.Brief.Tools.Fit {
			case "snug":
				w.Set = map[string]string{"tools.fit": "easy"}
			case "easy":
				w.Set = map[string]string{"tools.fit": "loose"}
			}
			r.Warn(w)
			return
		}
	}
}

// warnMarks says when a cut does not fall on the tools' marks.
func (p *Plan) warnMarks(r *brief.Reader) {
	for _, piece := range p.Box.Pieces {
		for _, side := range []measure.Length{piece.Width, piece.Height} {
			if side%p.Step.Size == 0 {
				continue
			}
			r.Warn(brief.Warning{Code: "off-the-marks",
				Text: fmt.Sprintf("The %s is %s on one side, between the marks of your tools (%s).", piece.Name, side.Exact(p.Units), p.Step),
				Fix:  "Give sizes in whole steps, or choose a finer step if your tools have one."})
			return
		}
	}
}

func (p *Plan) warnShape(r *brief.Reader) {
	s := p.Box.Size
	if s.Depth > 2*min(s.Length, s.Width) {
		r.Warn(brief.Warning{Code: "tall", Text: "This tray is more than twice as deep as it is wide: things are hard to take out and it tips easily.",
			Fix: "Lay the things down or spread them out, or choose a box that opens at the side."})
	}
}

package workbench

import (
	"fmt"
	"html/template"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/readings"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/draw/solid"
	"brevium/web/questions"
)

// The Decoration stage: how far to go, what lies on which panel, and what goes in, round
// and on the box.

// panelRow is a panel that can be pointed at.
type panelRow struct {
	Ref, Name string
	W, H      measure.Length
	On        []shop.Card // what lies on it
	Shows     bool
}

// level is how far to go, with the box as it then looks.
type level struct {
	advice.Level
	Picture template.HTML
}

// dressPage is what the stage shows.
type dressPage struct {
	Levels   []level
	Panels   []panelRow
	Sections []questions.Section
	Suits    []advice.Suit
	Left     []readings.Left
	Counted  []string // panels alike, counted together
}

// dressing reads what the stage shows; pictured is whether each level is drawn.
func (s *Room) dressing(f questions.Form, st *State, pictured bool) dressPage {
	page := dressPage{Sections: f.DressSections()}
	if st.Shown == nil {
		return page
	}
	w := st.House
	page.Suits, page.Left = advice.Schemes(st.Shown, w), readings.LeftOver(st.Shown, w.Offcuts())
	for _, l := range advice.LevelsOf(st.Shown, st.Shown.Brief, w, s.bare) {
		out := level{Level: l}
		if l.Plan != nil && pictured {
			out.Picture = template.HTML(solid.Folded(l.Plan, assembly.Pose{Fold: 1, Lift: 0.25}, solid.DefaultView, 240, 170).SVG())
		}
		page.Levels = append(page.Levels, out)
	}
	var panels []*dress.Panel
	if d := st.Shown.Dressed; d != nil {
		panels = d.Panels
		for _, l := range st.Shown.DressBlanks() {
			page.Counted = append(page.Counted, fmt.Sprintf("%s: %d of %s × %s", words.Capital(words.Plain(l.Name)),
				l.Count*st.Shown.Copies, st.Shown.Say(l.W), st.Shown.Say(l.H)))
		}
	} else {
		panels = dress.Panels(st.Shown.Box, st.Shown.Card.Caliper)
	}
	for _, p := range panels {
		if p.Nth > 0 {
			continue
		}
		row := panelRow{Ref: readings.PanelRef(p.Part, p.Name), Name: words.Plain(p.Part + ", " + p.Name), Shows: p.Shows}
		if p.Part == p.Name {
			row.Name = words.Plain(p.Part) + ", bottom"
		}
		row.W, row.H = p.Size()
		for _, l := range p.On {
			row.On = append(row.On, l.Card)
		}
		page.Panels = append(page.Panels, row)
	}
	return page
}

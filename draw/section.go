package draw

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/draw/pen"
)

// Section draws the corner where one thing goes over another, cut through and
// magnified: every thickness to one scale, the gap among them, each with its name
// and its figure.
func Section(p *plan.Plan, s readings.Section, w, h float64) string {
	c, unit := &pen.Canvas{}, p.Step.Unit
	all, least := 0.0, math.Inf(1)
	for _, k := range s.Skins {
		all += max(0, k.Thick.MM())
		least = min(least, max(0.02, k.Thick.MM()))
	}
	k := min(w*0.42/max(all, 0.01), 190) // pixels a millimetre
	names := w - 250
	right := names - 40
	left := right - all*k
	over := false // past the gap: these hang from the lid's top
	top, foot := 64.0, h-34
	lid := top
	rim := lid + max(0, s.Skins[len(s.Skins)-1].Thick.MM())*k // the lid rests on it
	type slab struct{ x, wide, top, foot float64 }
	var at []slab
	x := left
	for i, skin := range s.Skins {
		thick := max(0, skin.Thick.MM()) * k
		y1, y2 := rim, foot
		if over {
			y1, y2 = rim, foot-60
		}
		card := p.CardOf(skin.Stock)
		switch {
		case skin.Is == "gap":
			over = true
			c.Rect("section-gap", x, rim, max(thick, 1), foot-60-rim)
		case skin.Is == "layer":
			c.Rect("section-card", x, y1+10, thick, y2-y1-20, "fill", p.Layer.Colour)
		default:
			c.Rect("section-card", x, y1, thick, y2-y1, "fill", card.Inside)
			if !over && i == lastBefore(s, "gap") { // the floor it stands on
				c.Rect("section-card", 12, y2-thick, x-12, thick, "fill", card.Inside)
			}
			if i == len(s.Skins)-1 {
				c.Rect("section-card", 12, lid, x+thick-12, thick, "fill", card.Inside)
			}
		}
		at = append(at, slab{x, thick, y1 + 16, y2 - 16})
		x += thick
	}
	row := min(30, (h-60)/float64(len(s.Skins)))
	for i, skin := range s.Skins {
		y := 40 + float64(i)*row + row/2
		mid := at[i].x + at[i].wide/2
		to := min(at[i].top+float64(i)*14, at[i].foot)
		c.Tag("path", "class", "flag", "d", fmt.Sprintf("M%s %sL%s %sL%s %s", pen.Px(mid), pen.Px(to), pen.Px(names-18), pen.Px(y-4),
			pen.Px(names-6), pen.Px(y-4)))
		c.Tag("circle", "class", "section-dot", "cx", mid, "cy", to, "r", 2.6)
		class := ""
		if skin.Is == "gap" {
			class = "flag-text"
		}
		c.Text(names, y, class, "start", fmt.Sprintf("%s  %s", skin.What, skin.Thick.Fine(unit)))
	}
	c.Text(12, 22, "strong", "start", fmt.Sprintf("Side view of the corner of the %s, enlarged", s.Outer))
	moves := fmt.Sprintf("The %s can move %s from side to side", s.Outer, s.Play.Fine(unit))
	if s.Play < 0 {
		moves = fmt.Sprintf("The %s is %s too narrow to go on", s.Outer, (-s.Play).Fine(unit))
	}
	c.Text(12, 42, "faint", "start", moves)
	return c.Picture("section", w, h, SectionSays(s, unit)).SVG()
}

// lastBefore is the last of the card before something: the wall itself.
func lastBefore(s readings.Section, is string) (at int) {
	for i, k := range s.Skins {
		if k.Is == is {
			return at
		}
		if k.Is == "card" {
			at = i
		}
	}
	return at
}

// SectionSays tells a section in words.
func SectionSays(s readings.Section, unit measure.Unit) string {
	var out []string
	for _, k := range s.Skins {
		out = append(out, fmt.Sprintf("%s %s", k.What, k.Thick.Fine(unit)))
	}
	return fmt.Sprintf("Side view of the corner of the %s, from the inside out: %s.", s.Outer, strings.Join(out, ", "))
}

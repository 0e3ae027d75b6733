package supplies

import (
	"fmt"
	"html/template"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/draw"
	"brevium/web/desk"
)

// fitLesson is what was learnt of one card with one kind of walls.
type fitLesson struct {
	Key, Title, Says string
	Aside            bool
	Picture          template.HTML
	Records          []shop.Fit
	unit             measure.Unit
}

func learnt(st *shopState) (out []fitLesson) {
	unit := st.Doc.Units()
	for _, k := range st.Workshop.FitKeys() {
		l, _ := st.Workshop.Fit(k)
		card, _ := st.Workshop.Card(k.Card)
		usual := shop.Slack["snug"]
		one := fitLesson{Key: k.String(), Title: fmt.Sprintf("%s, %s walls", desk.Called(card.Title, k.Card), k.Walls),
			Aside: l.Aside, unit: unit,
			Picture: template.HTML(draw.Learnt(usual, l, unit, 420, 56))}
		if k.Layers > 0 {
			one.Title += ", " + desk.PlainCount(k.Layers, "layer", "layers") + " between"
		}
		for _, f := range st.Doc.Fits {
			if string(f.Card) == k.Card && string(f.Walls) == k.Walls && string(f.Layers) == fmt.Sprint(k.Layers) {
				one.Records = append(one.Records, f)
			}
		}
		one.Says = fmt.Sprintf("%s %s than usual. A snug lid gets %s of room instead of %s. Without "+
			"any one of %s it would be between %s and %s.", l.More.Abs().Fine(unit), map[bool]string{true: "more",
			false: "less"}[l.More >= 0],
			(usual + l.More).Fine(unit), usual.Fine(unit), desk.PlainCount(l.Records, "record",
				"records"), (usual + l.Low).Fine(unit), (usual + l.High).Fine(unit))
		out = append(out, one)
	}
	return out
}

// In writes a length of a record in the unit of the page.
func (l fitLesson) In(text brief.Text) string {
	at, _ := measure.Parse(string(text), measure.Millimetres)
	return at.Fine(l.unit)
}

// Found tells a record in words.
func (l fitLesson) Found(f shop.Fit) string {
	if f.Gap != "" {
		return "it moved " + l.In(f.Gap) + " from side to side"
	}
	for _, v := range shop.Verdicts {
		if v.ID == string(f.Verdict) {
			return words.Small(v.Title)
		}
	}
	return string(f.Verdict)
}

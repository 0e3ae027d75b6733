package style

import (
	"brevium/core/assembly"
	"brevium/core/net"
)

var stripColumn = &Style{
	ID: "strip-column", Title: "Strip column", Level: 3, Tall: true,
	About: "A column of four panels between two caps. Inside are a box at the foot and two half boxes above it.",
	Asks: []Question{
		length("cap", "Caps", "", "How far the two caps reach over the column's ends."),
		choose("join", "Held by", "", "caps | The caps | The caps hold it closed. Take one off to open it.",
			"caps and dot | The caps and a dot | A tab with a hook dot at the open edge too.",
			"caps and glue dot | The caps and a glue dot | A tab with a removable glue dot.").as(Closing),
	},
	Rooms: func(func(string) string) []float64 { return []float64{2, 1, 1} },
	Build: buildStripColumn,
}

// column is what a column comes to: its panels left and right, back and front, and how high it is.
type column struct{ side, back, high, cap Length }

// buildStripColumn stands the strip in one cap and puts the other over it. All four panels are as wide as the one
// opposite, or the edges would not meet. The half boxes are stuck to the panels beside the back by their long clean
// walls, so that they swing apart with them.
func buildStripColumn(j *Spec) *Box {
	d, t, step := j.Size(), j.T(), j.Mark()
	if j.Given == nil {
		d.Length = max(d.Length, d.Width)
		d.Width = d.Length
	}
	open := Answers{Choice: map[string]string{"lid": "none"}}
	foot := Within(j, "foot box", trayLid, d, open)
	if foot == nil {
		return nil
	}
	s := column{side: (foot.Outside.Width + t + air/2).Up(step), back: (foot.Outside.Length + t + air/2).Up(step),
		high: 2*d.Depth + (air / 2).Up(step)}
	deep := ((s.back - 3*t - mm/2) / 2).Down(step)
	j.Want("length", deep, 10*t+2*mm, "A half box", "walls of its own")
	j.WantFor("width", "length", deep, j.Adhesive.Width, "A half box's end", "its glue or tape")
	if deep < 10*t+2*mm {
		return nil
	}
	half := Within(j, "half box", trayLid, dims(d.Width, deep, d.Depth), open)
	if half == nil {
		return nil
	}
	room := 2 * t
	if dot := edgeDot(j.Choice("join")); dot != "" {
		room = dotted(dot) + step
	}
	s.cap = j.Measure("cap", max(j.Wide(), (s.high/8).Up(step)), j.sticks(0),
		halfOf((s.high-room)/2, "depth", "they would leave nothing between them"))
	c := j.Over("strip", "cap", 0)
	b := j.box(d, tray(j, "cap", "panel", dims(s.back+c, s.side+c, s.cap), "single"))
	cap := b.Parts[0]
	cap.At = []assembly.Place{{}, {Face: "panel", On: "cap/panel", Out: -(s.high + t), Over: true}}
	cap.When, cap.Off = net.Close, assembly.Up
	strip := net.Grid("strip", net.Cols(s.side, s.back, s.side, s.back), net.Rows(s.high), "left back right front")
	strip.Root = "back"
	strip.Meet("left", "front")
	strip.Closing("left", "right", "front")
	b.Add(strip, assembly.Place{Face: "back", On: "cap/back", Down: -(s.high + t - s.cap) / 2, Out: -c / 2})
	b.GoesOver("cap", "strip", around...)
	b.Clearance, b.OpenBy = c, 0.5
	lower := (s.high - d.Depth - t) / 2
	Nest(j, b, "foot box", foot, "strip/back", assembly.Place{Face: "base/back", Down: lower, Out: -t})
	above := assembly.Place{Face: "base/back", Down: lower - d.Depth - (air/4 + t), Out: -t}
	over := above
	over.On = "strip/right"
	Nest(j, b, "half box", half, "strip/left", above, over)
	b.Stick("foot box/base/back", "strip/back", false)
	b.Joins = append(b.Joins, assembly.Join{A: "half box/base/back", B: "strip/left", Or: []string{"strip/right"}, Layers: 1,
		Stuck: true})
	b.Rooms = []assembly.Inner{{Name: "foot box", Box: foot}, {Name: "left half box", Box: half},
		{Name: "right half box", Box: half}}
	if dot := edgeDot(j.Choice("join")); dot != "" {
		edgeTab(j, b, s, dot)
	}
	j.note("clearance", "cap", "", c, "The caps are larger than the column, so they slip over its ends.")
	return b
}

// edgeDot is what holds the open edge, "" for nothing.
func edgeDot(join string) string {
	return map[string]string{"caps and dot": "dot", "caps and glue dot": "glue-dot"}[join]
}

// edgeTab is stuck on the left panel and goes round the open edge on to the front, between the caps.
func edgeTab(j *Spec, b *Box, s column, dot string) {
	t, step := j.T(), j.Mark()
	flap := (dotted(dot) + step).Up(step)
	stuck := j.Wide() + (2 * t).Up(step)
	j.Want("width", s.side, stuck, "A side of the column", "the closing tab stuck on it")
	j.Want("length", s.back, flap, "The front of the column", "the dot on it")
	p := net.Grid("closing tab", net.Cols(flap, stuck), net.Rows(flap), "flap stuck")
	j.round(p, "flap", "stuck", 0, flap/3)
	p.Root = "stuck"
	p.Closing("flap")
	b.Add(p, assembly.Place{Face: "stuck", On: "strip/left", Right: (stuck-s.side)/2 - t, Out: t})
	b.Stick("closing tab/stuck", "strip/left", true)
	closeBy(j, b, dot, "closing tab/flap", "strip/front")
}

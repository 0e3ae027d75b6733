package style

import (
	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
)

var crossFold = &Style{
	ID: "cross-fold", Title: "Cross fold-out", Level: 3,
	Apart: []string{"lid"},
	About: "Small boxes with their own lids in a cross that opens flat when the outer lid comes off. For several small gifts.",
	Asks: []Question{
		choose("boxes", "Small boxes", "", "3 | Three | One on the middle, one on either side.",
			"2 | Two | One on either side.", "4 | Four | Two on the middle, one on either side."),
		length("lid-height", "Outer lid", "", "How deep the outer lid is. It holds the sides up."),
		length("inner-lid-height", "Small lids", "", "The depth of the small boxes' lids."),
	},
	Rooms: func(choice func(string) string) []float64 {
		return []float64{1, 1, 1, 1}[:choice("boxes")[0]-'0']
	},
	Build: buildCrossFold,
}

// air is the room between the small boxes and the cross, over the whole of it.
const air = 4 * mm

// buildCrossFold sticks each small box by its floor: the first and the last on the sides that fold up, so that they
// come to lie on their sides with their lids to the middle, the rest on the middle. Opened, all of them stand.
func buildCrossFold(j *Spec) *Box {
	d, step := j.Size(), j.Mark()
	n := len(j.style.Rooms(j.Choice))
	j.Want(shorter(d), min(d.Length, d.Width), j.Adhesive.Width, "A small box's floor", "its glue or tape")
	inner := j.Measure("inner-lid-height", max((d.Depth*3/8).Up(step), min(d.Depth, j.Wide()*3/2)), j.sticks(0),
		most(d.Depth, "depth", "the small boxes are no higher"))
	small := Within(j, "box", trayLid, d, Answers{Choice: map[string]string{"lid": "short"},
		Length: map[string]Length{"lid-height": inner}})
	if small == nil {
		return nil
	}
	o := small.Outside
	room := Length(air).Up(step)
	c := 2*o.Depth.Up(step) + Length(n-2)*o.Length.Up(step) + room
	w := o.Width.Up(step) + room
	f := max(o.Length, o.Depth).Up(step) + room
	p := net.Grid("cross", net.Cols(f, c, f), net.Rows(f, w, f), `
		.     back   .
		left  base   right
		.     front  .`)
	p.Root = "base"
	p.Closing("left")
	p.Closing("right")
	p.Closing("back", "front")
	b := j.box(d, p)
	b.Strength, b.OpenBy = 2, 1
	spots := []assembly.Place{{On: "cross/left"}, {On: "cross/right"}}
	for i := range n - 2 {
		spots = append(spots, assembly.Place{Right: Length(2*i+3-n) * o.Length.Up(step) / 2})
	}
	Nest(j, b, "box", small, "cross/base", spots...)
	b.Part("box").Rests = false // it is stuck, by the join below
	b.Joins = append(b.Joins, assembly.Join{A: "box/base/base", B: "cross/base", Or: []string{"cross/left", "cross/right"},
		Layers: 1, Stuck: true})
	names := [][]string{{"left box", "right box"}, {"left box", "right box", "middle box"},
		{"left box", "right box", "left middle box", "right middle box"}}[n-2]
	for i, name := range names {
		b.Rooms = append(b.Rooms, assembly.Inner{Name: name, Box: small, OnSide: i < 2})
	}
	gain := j.Over("cross", "lid", 0)
	b.Clearance = gain
	high := j.Measure("lid-height", min(f, max(f*2/5, 20*mm)).Up(step), j.sticks(0),
		most(f, "depth", "the sides of the cross are no higher"))
	b.PutOn(tray(j.As("lid"), "lid", "top", dims(c+gain, w+gain, high), "single"), assembly.Up,
		assembly.Place{Face: "top", On: "cross/base", Out: -(f + j.As("lid").T()/2), Over: true})
	b.GoesOver("lid", "cross", around...)
	ribbon := (2*(w+2*f) + 260*mm).Up(10 * step)
	fasteners.Ribbon(b, 1, ribbon, "a ribbon of "+j.Say(ribbon)+" around the whole box, if it will travel")
	b.Do("Close", "Tie the ribbon around the box if it will travel.")
	b.Caution("The left and right boxes lie on their sides when the box is closed. Press their lids on firmly.")
	j.note("clearance", "lid", "", gain, "The outer lid is larger than the folded cross, so it slips over.")
	return b
}

package style

import (
	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
)

var archedBox = &Style{
	ID: "arched-box", Title: "Arched box", Level: 3,
	About: "Two ends with round tops, and a cover bent over them. The front end is the door.",
	Asks: []Question{
		length("side", "Straight part", "", "How far the sides go straight up before the curve."),
		choose("closure", "Door held by", "", "dot | A hook dot | On a tab of the door, inside the cover. It doesn't show.",
			glueDot, "pull | A pull | A tab of card to pull the door open. The door stays shut by its own tabs.",
			"none | Nothing | The door stays shut by its own tabs.").as(Closing),
		choose("cover", "Cover", "", "tabs | With tabs below | The tabs turn in and stick under the floor.",
			"rolled | Rolled right round | The cover goes right under the floor and overlaps there."),
		more("foot-tab", "Tabs below", "cover=tabs", "How far the cover's tabs reach under the floor."),
		more("cover-lap", "Cover's lap", "cover=rolled", "How far the ends overlap underneath."),
	},
	Build: buildArchedBox,
}

// buildArchedBox stands the ends up from a strip; each has a tab on either side of
// its straight part, inside the cover: the back's are stuck, the front's hold the
// door. The cover is longer than the ends are round by the card it lies over.
func buildArchedBox(j *Spec) *Box {
	t, d := j.T(), j.Size()
	least := j.Adhesive.Width
	if dot := dotted(j.Choice("closure")); dot > 0 {
		least = max(least, dot+2*j.Mark())
	}
	if least = least.Up(j.Mark()); j.Given == nil {
		d.Depth = max(d.Depth, least+d.Length/2+1).Up(j.Mark())
	}
	half := d.Length / 2
	straight := d.Depth - half
	j.WantFor("length", "depth", straight, least, "The straight part of the sides", "a tab inside the cover")
	bound := Bound{At: straight, Why: "your things are that high", Dim: "depth"}
	if j.Given != nil {
		bound.Why = "the height you typed leaves only that"
		straight = j.Measure("side", straight, bound, bound)
	} else {
		straight = j.Measure("side", straight, bound, Free)
	}
	d.Depth = straight + half
	rolled := j.Is("cover", "rolled")
	foot := [2]Length{} // how far it reaches under the floor from the left, and from the right
	if rolled {
		foot[0] = d.Length + j.Gain(2*t)
		foot[1] = j.Measure("cover-lap", (j.Adhesive.Width + 2*t).Up(j.Mark()), j.sticks(2*t),
			most(d.Length-t, "length", "the floor is no wider"))
	} else {
		foot[0] = j.Measure("foot-tab", (j.Adhesive.Width + 2*t).Up(j.Mark()), j.sticks(2*t),
			halfOf(half-t, "length", "the two would meet below"))
		foot[1] = foot[0]
	}
	j.Want("width", d.Width, 12*t+mm, "The box from front to back", "two ends")
	strip := archedEnds(j, d, straight, least)
	b := j.box(d, strip)
	b.Vault, b.OpenBy = true, 0.8
	cover, long := archedCover(j, d, straight, foot)
	b.Add(cover, assembly.Place{Face: cover.Root, On: "ends/floor", Right: foot[0]/2 - half - t, Out: max(t, long-straight)})
	b.Stick("cover/"+cover.Root, "ends/floor", true)
	if !rolled {
		b.Stick("cover/right-tab", "ends/floor", true)
	}
	for _, side := range sides {
		b.Stick("ends/back-"+side+"-tab", "cover/"+side, false)
		b.Joins = append(b.Joins, assembly.Join{A: "ends/front-" + side + "-tab", B: "cover/" + side, Layers: 1})
	}
	closeBy(j, b, j.Choice("closure"), "ends/front-left-tab", "cover/left")
	if j.Is("closure", "pull") {
		doorPull(j, b, d)
	}
	j.note("arc", "cover", "side", fasteners.HalfRound(d.Length+2*t), "The curved part is as long as "+
		"the half circle over the ends and their card. Bend it, don't score it.")
	return b
}

// archedEnds is back, floor and front in one strip, rounded at both ends.
func archedEnds(j *Spec, d Dims, straight, dot Length) *net.Piece {
	t, half := j.T(), d.Length/2
	reach := max(j.Wide(), dot)
	j.Want("width", d.Width-2*t, 2*reach, "The sides, less the card", "the tabs of both ends")
	p := net.Grid("ends", net.Cols(reach, d.Length, reach), net.Rows(half, straight, d.Width, straight, half), `
		.              back  .
		back-left-tab  back  back-right-tab
		.              floor .
		front-left-tab front front-right-tab
		.              front .`)
	for _, end := range ends {
		p.Round(end, "floor", 0, half)
		for _, side := range sides {
			tab := end + "-" + side + "-tab"
			p.Tab(tab, end, net.TabShape{Reach: reach, Mitre: min(j.Mark(), straight/8)})
			p.Role("tab", tab)
		}
	}
	p.Root = "floor"
	p.FoldUp("back-left-tab", "back-right-tab", "front-left-tab", "front-right-tab")
	p.FoldUp("back")
	p.Closing("front")
	return p
}

// archedCover is bent over the ends: the round part of just its length, the straight parts by half of what the
// marks leave over longer. It gives how long these are.
func archedCover(j *Spec, d Dims, straight Length, foot [2]Length) (*net.Piece, Length) {
	t := j.T()
	arc := fasteners.HalfRound(d.Length + 2*t)
	whole := (2*(straight+t) + arc).Up(j.Mark())
	if j.Plain { // the card bends round the ends all the same: low sides must still lie before their tabs
		whole = max(2*straight+fasteners.HalfRound(d.Length), 2*(straight-straight/25+t)+arc).Up(j.Mark())
	}
	side := (whole - arc) / 2
	p := net.Grid("cover", net.Cols(foot[1], side, whole-2*side, side, foot[0]), net.Rows(d.Width),
		pick(j.Is("cover", "rolled"), "lap right arch left bottom", "right-tab right arch left left-tab"))
	p.Curve("arch", true, 180, net.Valley)
	p.Rounded = (side - straight - t).Abs() + d.Length/1000
	if j.Is("cover", "rolled") {
		p.GlueOutside("lap", "bottom", 1)
		p.Role("lap", "lap")
		p.Root = "bottom"
		p.Rounded += t // the lap goes round the other end
		p.FoldUp("left", "arch", "right", "lap")
		p.Tell("roll it round the ends and lap it below")
		return p, side
	}
	p.Role("tab", "left-tab", "right-tab")
	p.Root = "left-tab"
	p.FoldUp("left", "arch", "right", "right-tab")
	p.Tell("bend it round and turn the tabs in")
	return p, side
}

// doorPull sticks a tab of card on the door so that it stands out over the arch.
func doorPull(j *Spec, b *Box, d Dims) {
	step := j.Mark()
	wide := max(j.Wide(), min((18*mm).Up(step), (d.Length/3).Up(step)))
	out, on := (9 * mm).Up(step), max(j.Wide(), (14*mm).Up(step))
	p := net.Grid("pull", net.Cols(wide), net.Rows(out+on), "pull")
	p.Chamfer(min(wide/4, out/2))
	b.Add(p, assembly.Place{Face: "pull", On: "ends/front", Down: d.Depth/2 + out - (out+on)/2, Out: j.T(), Quarters: 2})
	b.Stick("pull/pull", "ends/front", true)
}

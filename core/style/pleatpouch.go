package style

import (
	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
)

var pleatPouch = &Style{
	ID: "pleat-pouch", Title: "Pleat-top pouch", Level: 2, Tall: true,
	About: "A flat pouch with a pleated top and a crest that stands up. For packets and cards.",
	Asks: []Question{
		length("pleat", "Pleat", "",
			"The length of each slope and the height of the crest. Make it more than half the depth from front to back."),
		choose("closure", "Closed by", "", "dot | A hook dot | Between the two halves of the crest. Opens many times.",
			glueDot, "ribbon | A ribbon | Through two holes in the crest, tied in front.",
			"glue | Sticking it | Closed for good, to be torn open.").as(Closing),
		more("hole", "Holes", "closure=ribbon", "How wide the ribbon's holes are."),
		more("tab-reach", "Tabs below", "", "How far the tabs of the base reach up inside the sides."),
		mitreQuestion,
	},
	Build: buildPleatPouch,
}

// buildPleatPouch lays crest, slope, back, base, front, slope and crest out in one column. Each side is the back's
// cell with the base's tab and the front's cell over it, so that the front is clean. How far the slopes lean
// follows from their length.
func buildPleatPouch(j *Spec) *Box {
	t, d := j.T(), j.Size()
	w := d.Width
	least := Bound{At: (w*11/20 + j.Mark()).Up(j.Mark()), Why: "shorter ones don't meet over such a width"}
	if closed := leastCrest(j); closed.At > least.At {
		least = closed
	}
	pleat := pleat(j, d, least)
	j.Want("length", d.Length, 2*j.Adhesive.Width+2*t, "The front", "what closes the crest")
	j.Want("width", w-2*t-2*j.Mark(), j.Adhesive.Width, "A side, less the card", "the glue or tape there")
	j.Want("depth", d.Depth, j.Adhesive.Width+2*t, "The front", "the tabs behind it")
	reach := j.Measure("tab-reach", min(d.Depth-t, w, 2*j.Wide()).Down(j.Mark()), j.sticks(0),
		most(min(d.Depth-t, w), shorterOf("depth", d.Depth-t, "width", w), "the side is no higher, and the strip no wider"))
	p := net.Grid("pouch", net.Cols(w, d.Length, w), net.Rows(pleat, pleat, d.Depth, w, d.Depth, pleat, pleat), `
		.          back-crest  .
		.          back-slope  .
		back-left  back        back-right
		-          ~           -
		left-tab   base        right-tab
		-          ~           -
		front-left front       front-right
		.          front-slope .
		.          front-crest .`)
	for _, side := range sides {
		p.Tab(side+"-tab", "base", endsOf(j, reach))
		p.Shorten("back-"+side, "back", w-t)
		p.Role("tab", side+"-tab")
		p.Glue(side+"-tab", "front-"+side)
		p.GlueOver("back-"+side, "front-"+side, 2)
		p.Meet("front-"+side, "back")
	}
	lean := p.Solved(50)
	for _, end := range ends {
		p.Free(lean, net.Valley, end, end+"-slope")
		p.Free(lean, net.Mountain, end+"-slope", end+"-crest")
	}
	p.Role("crest", "back-crest", "front-crest")
	p.Root = "base"
	p.FoldUp("back", "back-left", "back-right")
	p.FoldUp("left-tab", "right-tab")
	p.FoldUp("front", "front-left", "front-right")
	shut := []string{"back-slope", "front-slope", "back-crest", "front-crest"}
	b := j.box(d, p)
	b.Strength, b.OpenBy = 1, 0.8
	if j.Is("closure", "glue") {
		p.Sealing(shut...)
		p.Glue("front-crest", "back-crest")
	} else {
		p.Closing(shut...)
		p.Tuck("front-crest", "back-crest", 1)
	}
	p.Tell("fold the pleats in and the crest up")
	closeBy(j, b, j.Choice("closure"), "pouch/front-crest", "pouch/back-crest")
	crestHoles(j, b, p, d, pleat)
	return b
}

// pleat settles how long the slopes are, so that what stands above the walls lies inside them.
func pleat(j *Spec, d Dims, least Bound) Length {
	usual := max(least.At.Up(j.Mark()), (d.Width * 2 / 3).Up(j.Mark()))
	if j.Proud > 0 && !j.Asked("pleat") {
		usual = max(usual, slopesOver(j, d, false))
	}
	return j.Measure("pleat", usual, least, most(3*d.Width, "width", "longer ones make a steeple"))
}

// leastCrest is how high the crest must be for what closes it.
func leastCrest(j *Spec) Bound {
	switch j.Choice("closure") {
	case "dot", "glue-dot":
		return Bound{At: dotted(j.Choice("closure")) + j.Mark(), Why: "the dot needs card around it", Dim: "width"}
	case "ribbon":
		return Bound{At: pierced + j.Mark(), Why: "the holes need card around them", Dim: "width"}
	}
	return j.sticks(0)
}

// crestHoles punches two holes side by side in both halves of the crest, which lie on each other when it is closed.
func crestHoles(j *Spec, b *Box, p *net.Piece, d Dims, high Length) {
	if !j.Is("closure", "ribbon") {
		return
	}
	round := most(min(high-2*fasteners.Room, d.Length/3-2*fasteners.Room), "length", "some card must stay around it")
	hole := j.Measure("hole", min(5*mm, round.At), Bound{At: fasteners.Narrowest, Why: "a ribbon needs a larger hole"}, round)
	b.Threads = append(b.Threads, assembly.Thread{What: "ribbon", Faces: []string{"pouch/back-crest", "pouch/front-crest"}, Holes: 2})
	b.Do("Close", "Thread the ribbon through the two pairs of holes and tie it.")
	for _, f := range []string{"back-crest", "front-crest"} {
		lo, hi := p.Cell(f)
		for _, third := range []Length{1, 2} {
			p.Punch(net.Point{X: lo.X + (hi.X-lo.X)*third/3, Y: (lo.Y + hi.Y) / 2}, hole/2, 0, 0)
		}
	}
	ribbon := (d.Length/3 + 280*mm).Up(10 * j.Mark())
	fasteners.Ribbon(b, 1, ribbon, "a ribbon of "+j.Say(ribbon)+", through the four holes")
}

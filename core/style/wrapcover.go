package style

import (
	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
)

var wrapCover = &Style{
	ID: "wrap-cover", Title: "Tray with a wrap-round cover", Level: 3, Tray: true,
	About: "A rolled tray between two covers that open like a book. For keepsakes.",
	Asks: []Question{
		length("overhang", "Overhang", "", "How far the covers stand out on each side."),
		length("lap", "Front lap", "", "How far the lid comes down over the front."),
		choose("lap-corners", "Lap's corners", "", "straight | Straight | As it is cut.", "rounded | Rounded | They catch on nothing."),
		choose("closure", "Closed by", "",
			"ribbon | A ribbon | Through a hole in the lap and one below it. A strip of card hides the end inside.",
			"magnet | A magnet | Under the lap and behind the front. You stick it on before the tray goes in.",
			"none | Nothing | The lid's own weight keeps it shut.").as(Closing),
		more("hole", "Holes", "closure=ribbon", "How wide the ribbon's holes are."),
		more("drop", "Hole in the lap", "closure=ribbon", "How far the middle of the hole is above the edge of the lap."),
		more("drop-below", "Hole below", "closure=ribbon", "How far the middle of the hole is above the lower edge of the front."),
		more("strip", "Hiding strip", "closure=ribbon", "The length of the strip that hides the ribbon's end."),
	},
	Build: buildWrapCover,
}

// buildWrapCover stands a rolled tray on one cover and hangs another on its back. Each cover bends round what is
// inside it and is larger by that: the base cover's back lies on the tray's, the lid's on the base cover's.
func buildWrapCover(j *Spec) *Box {
	t, size := j.T(), j.Size()
	h := size.Depth
	b := j.box(size, tray(j, "tray", "base", size, "rolled"))
	b.Strength, b.OpenBy = 3, 1.15
	j.Want("depth", h, j.Adhesive.Width+2*t, "The tray's wall", "a cover stuck on its back")
	over := j.Measure("overhang", (5 * mm).Up(j.Mark()), Bound{},
		most(size.Length/2, "length", "more is all cover and no tray"))
	lap := j.Measure("lap", (h / 2).Up(j.Mark()), leastLap(j), most(h, "depth", "the tray's wall is no higher"))
	wide, round := size.Length+2*over, j.Gain(2*t)
	base := net.Grid("base cover", net.Cols(wide), net.Rows(h, size.Width+round, h), `
		back
		bottom
		front`)
	base.Root = "bottom"
	base.FoldUp("back", "front")
	above := size.Width + round + j.Gain(2*t+j.Slack+2*j.Skin)
	lid := net.Grid("lid cover", net.Cols(wide), net.Rows(lap, above, h), `
		lap
		top
		back`)
	if j.Is("lap-corners", "rounded") {
		j.round(lid, "lap", "top", 0, min(lap/2, 6*mm))
	}
	lid.Root = "back"
	lid.Closing("top")
	lid.FoldUp("lap")
	b.Add(base, assembly.Place{Face: "back", On: "tray/back", Out: t, Down: t})
	b.Add(lid, assembly.Place{Face: "back", On: "tray/back", Out: 2 * t, Down: -t})
	b.GoesOver("lid cover", "tray", "front", "back")
	b.Stick("tray/base", "base cover/bottom", false)
	b.Stick("base cover/back", "tray/back", true)
	b.Stick("lid cover/back", "base cover/back", true)
	closeCovers(j, b, base, lid, lap)
	j.note("round", "lid cover", "", above-size.Width, "The lid bends round the base cover, and the base cover "+
		"round the tray, so each is longer from front to back.")
	return b
}

// leastLap is how far the lid must come down: over what closes it, and the
// strip that hides a ribbon's end must hold there.
func leastLap(j *Spec) Bound {
	switch j.Choice("closure") {
	case "ribbon":
		return Bound{At: j.Wide() + 2*j.T().Up(j.Mark()) + j.Mark(),
			Why: "the strip that hides the ribbon's end must hold there"}
	case "magnet":
		return Bound{At: dotted("magnet"), Why: "a magnet must lie under it"}
	}
	return Bound{At: (j.Adhesive.Width/2 + 2*j.T()).Up(j.Mark()), Why: "a smaller one doesn't stay down"}
}

// closeCovers punches the holes of a ribbon, with the strip that hides its end, or marks a pair of magnets.
func closeCovers(j *Spec, b *Box, base, lid *net.Piece, lap Length) {
	mid, h := lid.Width/2, b.Size.Depth
	front, edge := base.Spot("front", 1, 2), lid.Spot("lap", 1, 0)
	closeBy(j, b, j.Choice("closure"), "lid cover/lap", "base cover/front")
	if j.Is("closure", "ribbon") {
		hole := j.Measure("hole", min(6*mm, lap*2/5), Bound{At: fasteners.Narrowest, Why: "a ribbon needs a larger hole"},
			mostOf(lap-5*mm, "lap", 1, "some card must stay around it"))
		room := hole/2 + 5*mm/2
		least := Bound{At: room, Why: "some card must stay around it"}
		lid.Punch(net.Point{X: mid, Y: edge.Y + j.Measure("drop", lap/2, least, mostOf(lap-room, "lap", 1, least.Why))},
			hole/2, 0, 0)
		below := h / 2
		if h-lap > 2*hole {
			below = (h - lap) / 2
		}
		base.Punch(net.Point{X: mid, Y: front.Y - h + j.Measure("drop-below", below, least,
			most(h-room, "depth", least.Why))}, hole/2, 0, 0)
		b.Threads = append(b.Threads, assembly.Thread{What: "ribbon", Faces: []string{"lid cover/lap", "base cover/front"}, Holes: 1,
			Apart: true})
		long := j.Measure("strip", min(lid.Width, (40*mm).Near(j.Mark())), j.sticks(hole),
			most(lid.Width, "length", "the lap is no longer"))
		strip := net.Grid("ribbon strip", net.Cols(long), net.Rows((lap - 2*j.T()).Down(j.Mark())), "strip")
		strip.Part = net.Liner
		b.Add(strip, assembly.Place{Face: "strip", On: "lid cover/lap", Out: -(j.T() + j.As("liner").T()) / 2})
		b.Stick("ribbon strip/strip", "lid cover/lap", true)
		ribbon := (lap + 220*mm).Up(10 * j.Mark()) // stuck ends, and half a bow
		fasteners.Ribbon(b, 2, ribbon, "two lengths of ribbon of "+j.Say(ribbon)+" each. Stick their ends down "+
			"flat before the tray goes in and under the strip")
		b.DoFlat("base cover", "Thread one ribbon through the hole in the front of the base cover, from outside to inside. Stick its "+
			"end down flat: the tray will cover it.")
		b.DoFlat("lid cover", "Thread the other ribbon through the hole in the lap of the lid cover in the same way; the ribbon strip "+
			"will cover its end.")
		b.Do("Close", "Tie the two ribbons.")
	}
}

package style

import (
	"brevium/core/assembly"
	"brevium/core/net"
)

var foldFlat = &Style{
	ID: "fold-flat", Title: "Fold-flat tray with a cover", Level: 2, Tray: true,
	About: "A tray with folding corners in a hinged cover. Store it flat and set it up when you need it.",
	Asks: []Question{
		choose("webs", "Webs", "", "inside | Inside | The side walls stay clean outside.",
			"outside | Outside | The inside stays clean, and things slide in."),
		choose("stuck", "Webs stuck", "", "no | No, loose | The box can be stored flat.",
			"yes | Yes | It stands by itself and stays up."),
		length("lip", "Lip", "", "How far the cover comes down over the front."),
		choose("lip-corners", "Lip's corners", "", "straight | Straight | As it is cut.", "rounded | Rounded | They catch on nothing."),
		length("overhang", "Overhang", "", "How far the cover stands out on each side."),
		choose("closure", "Closed by", "", "brad | A brad | Its legs go through the lip and the front, and open out inside.",
			"dot | A hook dot | Thin, and opens many times.", glueDot, "ribbon | A ribbon | Through lip and front, tied in a bow.",
			"none | Nothing | The lip alone keeps it shut.").as(Closing),
	},
	Build: buildFoldFlat,
}

// buildFoldFlat sticks a tray, its corners whole and folded in, into a strip that goes round it: only its base and
// its front are stuck, so that the spine is free to swing.
func buildFoldFlat(j *Spec) *Box {
	t, d := j.T(), j.Size()
	b := j.box(d, webbedTray(j, d))
	over := j.Measure("overhang", (3 * mm).Up(j.Mark()), Bound{}, most(d.Length/2, "length", "more is all cover and no tray"))
	lip := j.Measure("lip", max(14*mm, leastLip(j).At).Up(j.Mark()), leastLip(j),
		most(d.Depth-2*t, "depth", "the front is no higher"))
	base := d.Width + j.Gain(2*t)
	top := base + j.Gain(t+j.Slack+j.Skin)
	p := net.Grid("cover", net.Cols(d.Length+2*over), net.Rows(lip, top, d.Depth+j.Gain(2*t), base, d.Depth), `
		lip
		top
		spine
		bottom
		front`)
	if j.Is("lip-corners", "rounded") {
		j.round(p, "lip", "top", 0, min(lip/2, 6*mm))
	}
	p.Root = "bottom"
	p.FoldUp("front", "lip")
	p.Closing("spine", "top")
	b.Add(p, assembly.Place{Face: "bottom", On: "tray/base", Out: t, Down: t - (base-d.Width)/2})
	b.Stick("tray/base", "cover/bottom", false)
	b.Stick("tray/front", "cover/front", true)
	b.GoesOver("cover", "tray", "back")
	b.GoesOver("cover/lip", "", "front")
	closeBy(j, b, j.Choice("closure"), "cover/lip", "cover/front")
	tieBy(j, b, j.Choice("closure"), "cover/lip", "cover/front")
	if j.Is("stuck", "no") {
		b.FoldsOver("cover", [2]string{"spine", "bottom"})
		b.FoldsOver("tray", [2]string{"back", "base"}, [2]string{"left", "left-back-web"}, [2]string{"right", "right-back-web"})
	}
	j.note("round", "cover", "", top-d.Width, "The cover is longer than the tray because it bends around it "+
		"and its lip goes over the front.")
	return b
}

// webbedTray is a tray whose corner squares stay whole: each is scored from its inner to its outer corner and folds
// flat against the side wall. Two share a wall: where they would lap, their points are cut off.
func webbedTray(j *Spec, d Dims) *net.Piece {
	t, h := j.T(), d.Depth
	j.WantFor("depth", "width", d.Width, h, "The side, front to back", "a wall so high, folded in at its corners,")
	j.Want("depth", h, j.Adhesive.Width+t, "The front", "the cover stuck on it")
	j.Want("length", d.Length, 12*t+mm, "The box", "a web at either end")
	reach := min(h, (d.Width/2 - t).Down(j.Mark()))
	j.Want("width", 2*reach, 2*j.Adhesive.Width, "The side, less the card", "two webs side by side")
	p := net.Grid("tray", net.Cols(h-reach, reach, d.Length, reach, h-reach),
		net.Rows(h-reach, reach, d.Width, reach, h-reach), `
		.              back-left-web  back  back-right-web  .
		back-left-web  back-left-web  back  back-right-web  back-right-web
		left           left           base  right           right
		front-left-web front-left-web front front-right-web front-right-web
		.              front-left-web front front-right-web .`)
	way, back := net.Valley, net.Mountain
	if j.Is("webs", "outside") {
		way, back = back, way
	}
	moved := []string{"left", "right", "back", "front"}
	for i, end := range ends {
		for k, side := range sides {
			on, by := end+"-"+side+"-web", side+"-"+end+"-web"
			inner, outer := p.Spot("base", 2*k, 2*i), net.Point{}
			outer = inner.Add(net.Point{X: reach * Length(2*k-1), Y: reach * Length(2*i-1)})
			if i == k {
				p.Split(on, net.Score, inner, outer, by)
			} else {
				p.Split(on, net.Score, outer, inner, by)
			}
			p.Turn(180, way, side, by)
			p.Turn(180, back, on, by)
			web(j, p, side, by, on)
			p.Role("web", on, by)
			moved = append(moved, on, by)
		}
	}
	p.Root = "base"
	p.FoldUp(moved...)
	p.Tell("stand the four walls up and press the webs flat against the sides")
	return p
}

// web lays the two halves of a web on a side wall, stuck there or loose.
func web(j *Spec, p *net.Piece, side, first, second string) {
	lay := map[[2]bool]func(face, on string, layers int){
		{false, false}: p.Tuck, {false, true}: p.GlueOver, {true, false}: p.Over, {true, true}: p.GlueOutside,
	}[[2]bool{j.Is("webs", "outside"), j.Is("stuck", "yes")}]
	lay(first, side, 1)
	lay(second, side, 2)
}

// leastLip is how far the cover must come down over the front.
func leastLip(j *Spec) Bound {
	switch j.Choice("closure") {
	case "brad", "ribbon":
		return Bound{At: pierced + j.Mark(), Why: "what goes through it needs card around it"}
	case "dot", "glue-dot":
		return Bound{At: dotted(j.Choice("closure")) + j.Mark(), Why: "the dot needs card around it"}
	}
	return Bound{At: 6 * mm, Why: "a shorter one doesn't stay down"}
}

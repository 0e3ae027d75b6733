package style

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/net"
	"brevium/core/nets"
)

var sleeveDrawer = &Style{
	ID: "sleeve-drawer", Title: "Drawer and sleeve", Level: 2, Tray: true,
	Apart: []string{"drawer", "sleeve"},
	About: "A tray that slides out of a sleeve. Strong, and neat at the ends.",
	Asks: slices.Concat([]Question{
		choose("walls", "Drawer walls", "", "single | Single | One thickness. Least card, quickest.",
			"rolled | Rolled | Folded over inwards. Twice as thick, with no cut edge.").as(Walls).remedied(rolledWalls),
	}, tabQuestions(""), []Question{
		choose("notch", "Thumb notch", "", "both | At both ends | Opens from either side.",
			"one | At one end | The other end stays whole.", "none | None | For a ribbon pull.").unless("walls=rolled"),
		more("notch-width", "Notch", "", "How wide the thumb notch is.").unless("walls=rolled"),
		choose("sleeve", "Sleeve", "", "open | Open at both ends | One strip. Push from behind.",
			"closed | Closed at one end | Nothing falls out at the back."),
		more("seam", "Seam", "", "How wide the sleeve's glued seam is."),
		more("sleeve-length", "Sleeve", "", "The length of the sleeve. Leave it empty to match the drawer."),
		choose("clearance", "Clearance comes from", "", "grow-sleeve | A larger sleeve | The drawer keeps its size.",
			"trim-drawer | A smaller drawer | The sleeve keeps its size.", chooseForMe).as(Clearance).seldom(),
	}),
	Build: buildSleeveDrawer,
}

func buildSleeveDrawer(j *Spec) *Box {
	walls, c, size := j.Choice("walls"), j.Over("drawer", "sleeve", 0), j.Size()
	says := fmt.Sprintf("The sleeve is %s wider and taller than the drawer, so the drawer slides.", j.Say(c))
	drawer, sleeve := size, size
	if j.Is("clearance", "trim-drawer") {
		drawer.Width, drawer.Depth = size.Width-c, size.Depth-c
		says += j.noSmaller("drawer")
	} else {
		sleeve.Width, sleeve.Depth = size.Width+c, size.Depth+c
	}
	closed := j.Is("sleeve", "closed")
	if closed {
		gain := j.Gain(3 * j.As("sleeve").T())
		sleeve.Length += gain
		j.note("closed-end", "sleeve", "", gain, "The sleeve is longer than the drawer, to leave room for the tabs "+
			"at its closed end.")
	}
	flush := sleeve.Length
	sleeve.Length = j.Measure("sleeve-length", flush,
		Bound{At: flush, Dim: "length", Why: "the drawer is as long, and its notches are at its ends"}, Free)
	longer := sleeve.Length - flush // past the drawer: at both ends, or all at the open one
	p := tray(j.As("drawer"), "drawer", "bottom", drawer, walls)
	thumbNotches(j, p, drawer, walls)
	b := j.box(size, p)
	b.Clearance, b.Strength = c, min(3, 2+layers(walls))
	off := (flush - drawer.Length) / 2
	if closed {
		off -= longer / 2
	}
	b.PutOn(sleeveOf(j.As("sleeve"), sleeve, closed), assembly.Aside, assembly.Place{Face: "bottom", On: "drawer/bottom",
		Right: off, Out: (j.As("drawer").T() + j.As("sleeve").T()) / 2})
	b.GoesOver("sleeve", "drawer", "front", "back")
	j.note("clearance", "sleeve", "", c, says)
	return b
}

// sleeveOf is four walls round the drawer, the seam stuck behind the back at its lower edge, where it is seen
// least. Closed, an end panel folds up from the bottom over tabs of the sides.
func sleeveOf(j *Spec, d Dims, closed bool) *net.Piece {
	t, step := j.T(), j.Mark()
	j.Want("depth", d.Depth, j.Wide()+3*t+2*t.Up(step), "The sleeve's side", "its seam")
	j.Want("width", d.Width, 2*j.Wide()+2*t, "The sleeve from front to back", "what is stuck in it")
	seam := j.Measure("seam", j.seamWide(), j.seals(),
		most(d.Depth-3*t, "depth", "the back behind which it is stuck is no wider"))
	cols := net.Cols(d.Length)
	if closed {
		cols = append(cols, d.Depth-t.Up(step))
	}
	p := nets.Tube{Sizes: nets.Sizes{Name: "sleeve", Cols: cols, T: t,
		Rows: net.Rows(seam, d.Width, d.Depth, d.Width, d.Depth)}, SeamFirst: true, Mitre: step}.Sleeve(
		[]string{"bottom", "front", "top", "back"}, closed).Piece
	p.FoldUp("front", "top", "back", "seam")
	if closed {
		for _, side := range []string{"front", "back"} {
			p.Tab(side+"-tab", side, net.TabShape{Reach: min(j.Wide(), (d.Width/2 - t).Down(step)), Relief: t + t.Up(step),
				Mitre: step})
			p.Glue(side+"-tab", "end")
			p.Role("tab", side+"-tab")
		}
		p.FoldUp("front-tab", "back-tab")
		p.FoldUp("end")
	}
	return p
}

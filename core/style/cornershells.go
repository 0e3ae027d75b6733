package style

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/net"
)

var cornerShells = &Style{
	ID: "corner-shells", Title: "Corner shells", Level: 3, Tray: true,
	Apart: []string{"tray", "shell"},
	About: "A tray between two shells that pull off over opposite corners.",
	Asks: slices.Concat([]Question{
		choose("band", "Band", "", "yes | Yes | A band of card holds the shells together.",
			"no | No | They hold by themselves if they are snug."),
		choose("shells", "Shells", "", "loose | Both come off | The tray comes out between them.",
			"one stuck | One stays on the tray | One is stuck under the floor. Only the other comes off."),
	}, bandQuestions("band=yes")),
	Build: buildCornerShells,
}

// buildCornerShells puts two equal shells round a rolled tray, the second turned half round.
func buildCornerShells(j *Spec) *Box {
	d, c := j.Size(), j.Over("tray", "shell", 2)
	t := j.As("shell").T()
	high := d.Depth + j.Gain(2*t+j.Slack+2*j.Skin)
	b := j.box(d, tray(j.As("tray"), "tray", "base", d, "rolled"))
	b.Clearance, b.Strength = c, 3
	round := dims(d.Length+c, d.Width+c, high)
	shell := shellOf(j.As("shell"), "shell", round)
	out := (high - d.Depth) / 2
	first := assembly.Place{Face: "under", On: "tray/base", Out: out}
	second := first
	second.Quarters = 2
	places := []assembly.Place{first, second}
	if j.Is("shells", "one stuck") {
		stays := shellOf(j.As("shell"), "stuck shell", round)
		b.Add(stays, first).Rests = true // glue draws its underside up to the floor, over the ease there
		b.Do("Put together", "Stick the underside of the stuck shell below the floor of the tray.")
		b.GoesOver("stuck shell", "tray", "left", "front")
		places = places[1:]
	}
	b.PutOn(shell, assembly.Corner, places...)
	b.GoesOver("shell", "tray", "left", "front", "below")
	if j.Is("band", "yes") {
		band(j, b, "shell", dims(d.Length, d.Width+c, high), assembly.Place{On: "tray/base", Out: out})
		if j.Is("shells", "one stuck") { // each of the two is in front of one side
			b.Clears = b.Clears[:len(b.Clears)-1]
			b.GoesOver("band", "shell", "back", "above", "below")
			b.GoesOver("band", "stuck shell", "front", "above", "below")
		}
	}
	j.note("clearance", "shell", "", c, fmt.Sprintf("A shell is %s larger than the tray each way, for the three thicknesses of "+
		"card in front and behind.", j.Say(c)))
	return b
}

// shellOf goes round the front left corner of something so large, score to score. Its two large cells are cut on
// the diagonal; the halves that stay cover top and underside. The wall in front is three layers: the top's cell
// outside, that of the underside inside, and the tab of the left wall between.
func shellOf(j *Spec, name string, d Dims) *net.Piece {
	t, step := j.T(), j.Mark()
	l, w, h := d.Length, d.Width, d.Depth
	end := (3 * t).Up(step) // the left wall stops short of the other shell's three layers
	p := net.Grid(name, net.Cols(l, h, l), net.Rows(w, h), `
		top         left        under
		~           ~           ~
		top-front | front-tab | under-front`)
	at := func(x, y Length) net.Point { return net.Point{X: x, Y: y} }
	for _, half := range []struct {
		name                  string
		tip, foot, away, stay net.Point
	}{
		{"top", at(l, 0), at(0, w), at(l/10, w/10), at(l*7/10, w*7/10)},
		{"under", at(l+h, 0), at(2*l+h, w), at(h+l*19/10, w/10), at(h+l*13/10, w*7/10)},
	} {
		p.CutAlong(half.tip, half.foot)
		p.Rename(half.name, half.stay)
		p.Discard(half.away)
	}
	p.CutAlong(at(l, 0), at(l, end), at(l+h, end), at(l+h, 0))
	p.Rename("left", at(l+h/2, w/2))
	p.Discard(at(l+h/2, end/2))
	p.Shear("top-front", "top", max(step, end), 0)
	p.Tab("under-front", "under", endsOf(j, h-t.Up(step)))
	p.Tab("front-tab", "left", endsOf(j, min(h, l/2)))
	p.Role("tab", "front-tab")
	p.Glue("front-tab", "top-front")
	p.GlueOver("under-front", "top-front", 2)
	p.Meet("top-front", "left")
	p.Root = "under"
	p.FoldUp("under-front")
	p.FoldUp("left", "front-tab")
	p.FoldUp("top", "top-front")
	return p
}

package box

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var flapBox = &Style{
	ID: "flap-box", Title: "Flap box",
	About: "One strip round the contents, its top and flap closing like an envelope. For flat things, and quick to make many of.",
	Level: 2, Suits: Suits{Book: true},
	Options: []Option{
		{ID: "sides", Label: "Side walls", Default: "from-walls", Choices: []Choice{
			{"from-walls", "From front and back", "Each side is two layers thick, one from the front and one from the back; the seam is at an edge."},
			{"from-base", "From the base", "Each side stands up from the base, over tabs of front and back: less card when the box is low."},
		}},
		{ID: "flap", Label: "Flap", Default: "straight", Choices: []Choice{
			{"straight", "Straight", "The plainest to cut."},
			{"rounded", "Rounded", "Its corners cut to quarter rounds."},
			{"pointed", "Pointed", "From a shoulder at the sides to a tip in the middle."},
		}},
		{ID: "closure", Label: "Closed by", Default: "magnet", Choices: []Choice{
			{"magnet", "A pair of magnets", "Snaps shut; to be stuck on before the box is closed up."},
			{"dot", "A hook dot", "Thin, and found in any sewing box."},
			{"band", "A band", "A strip of card round the whole; nothing on the box itself."},
			{"tuck", "Tucking it in", "The flap goes inside, relieved at both ends."},
		}},
		{ID: "flap-depth", Label: "Flap", Help: "How far it comes down the front."},
		{ID: "front", Label: "Front wall", Help: "How high the front is; lower lets fingers in."},
		{ID: "dust", Label: "Dust flaps", Default: "yes", Choices: []Choice{
			{"yes", "Yes", "Nothing small falls out beside the top."}, {"no", "No", "A cut less on each side."},
		}},
		{ID: "band-width", Label: "Band", When: "closure=band", Help: "How wide the band is."},
	},
	Build: buildFlapBox,
}

// flapSizes is what the questions come to.
type flapSizes struct {
	front, flap, top Length
	tucked, dust     bool
	fromWalls        bool
}

// buildFlapBox lays flap, top, back, bottom and front out in one column. The
// top is longer than the bottom by what the flap bends round.
func buildFlapBox(j *Job) *Box {
	t := j.T()
	s := flapSizes{tucked: j.Choice("closure") == "tuck", dust: j.Choice("dust") == "yes", fromWalls: j.Choice("sides") == "from-walls"}
	taken := Dims{3 * t, t, t}
	if s.fromWalls {
		taken.Length = 5 * t
	}
	if s.tucked {
		taken.Width += t
	}
	if s.dust {
		taken.Depth += t
		if !s.fromWalls {
			taken.Length += 2 * t
		}
	}
	size := j.Size(taken)
	l, w, h := size.Length, size.Width, size.Depth
	s.front = j.Measure("front", h)
	// Long enough to be held by: a magnet or a dot wants its own width and more.
	s.flap = j.Measure("flap-depth", min((h-j.sliver()).Down(j.Step.Size), max(h*2/5, h-s.front+j.Adhesive.Width, 16*measure.Millimetre).Up(j.Step.Size)))
	j.settle("front", s.front)
	j.settle("flap-depth", s.flap)
	s.top = w
	if !s.tucked {
		s.top += (3 * t / 2).Up(j.Step.Size)
	}
	if !j.flapBoxCanBe(size, s) {
		return nil
	}
	var p *sheet.Piece
	if s.fromWalls {
		p = j.sidesFromWalls(size, s)
	} else {
		p = j.sidesFromBase(size, s)
	}
	j.shapeFlap(p, s)
	p.Root = "bottom"
	p.FoldUp("top", "flap")
	b := &Box{
		Size: size, Holder: "box", Rim: s.front, Strength: 2, Inside: size.less(taken),
		Outside: Dims{l + t, s.top + t, h + t}, Pieces: []*sheet.Piece{p},
		Opens: []string{"top", "flap"},
	}
	if s.dust {
		b.Opens = append(b.Opens, "left-dust", "right-dust")
	}
	switch {
	case !s.fromWalls:
		b.Seams = "A hair line at each corner, seen from front and back; the sides are clean."
	case s.front < h:
		b.Seams = "One on each side, at the front edge."
	default:
		b.Seams = "One on each side, at the back edge; front and back are clean."
	}
	if !s.tucked {
		b.Caps = []Cap{{"box", "flap", []string{"front"}}}
	}
	j.closeFlap(b, p, s)
	return b
}

// sidesFromWalls makes each side of a cell of the front and one of the back.
// The one on the outside is the front's, so that the seam is at the back; when
// the front is lower it is the back's, which has the whole height.
func (j *Job) sidesFromWalls(d Dims, s flapSizes) *sheet.Piece {
	t, w := j.T(), d.Width
	p := sheet.Grid("box", sheet.Cols(w, d.Length, w), sheet.Rows(s.flap, s.top, d.Depth, w, s.front), `
		.           flap     .
		`+pick(s.dust, "left-dust | top | right-dust", ". top .")+`
		back-left   back     back-right
		-           ~        -
		left-tab    bottom   right-tab
		-           ~        -
		front-left  front    front-right`)
	outer, inner, low := "front", "back", d.Depth
	if s.front < d.Depth {
		outer, inner, low = "back", "front", s.front
	}
	for _, side := range []string{"left", "right"} {
		p.Shorten(inner+"-"+side, inner, w-t)
		p.Tab(side+"-tab", "bottom", sheet.TabShape{Reach: min(low-t, w, (2 * j.Adhesive.Width).Up(j.Step.Size)), Relief: t, Mitre: j.Step.Size})
		p.Glue(inner+"-"+side, outer+"-"+side)
		p.GlueOver(side+"-tab", outer+"-"+side, 2)
		p.Meet(outer+"-"+side, inner)
		if s.dust {
			p.Tab(side+"-dust", "back-"+side, sheet.TabShape{Reach: min(d.Length/2-j.T(), s.top-t, w).Down(j.Step.Size), Relief: t, Mitre: j.Step.Size})
			p.Tuck(side+"-dust", "top", 1)
		}
	}
	p.FoldUp("left-tab", "right-tab")
	p.FoldUp(inner, inner+"-left", inner+"-right")
	p.FoldUp(outer, outer+"-left", outer+"-right")
	if s.dust {
		p.FoldUp("left-dust", "right-dust")
	}
	return p
}

// sidesFromBase stands the sides up from the bottom, over tabs of front and
// back; dust flaps hang on the top and go down inside.
func (j *Job) sidesFromBase(d Dims, s flapSizes) *sheet.Piece {
	t, h := j.T(), d.Depth
	p := sheet.Grid("box", sheet.Cols(h, d.Length, h), sheet.Rows(s.flap, s.top, h, d.Width, s.front), `
		.               flap    .
		`+pick(s.dust, "left-dust top right-dust", ". top .")+`
		-               ~       -
		back-left-tab   back    back-right-tab
		-               ~       -
		left            bottom  right
		-               ~       -
		front-left-tab  front   front-right-tab`)
	reach := min(h-t, (d.Width/2 - t).Down(j.Step.Size), (3 * j.Adhesive.Width).Up(j.Step.Size))
	for _, side := range []string{"left", "right"} {
		for _, end := range []string{"back", "front"} {
			tab := end + "-" + side + "-tab"
			p.Tab(tab, end, sheet.TabShape{Reach: reach, Mitre: j.Step.Size, Relief: t})
			p.Glue(tab, side)
			p.Meet(end, side)
		}
		if s.dust {
			p.Tab(side+"-dust", "top", sheet.TabShape{Reach: min(h/2, 15*measure.Millimetre).Up(j.Step.Size), Relief: 3 * t, Mitre: j.Step.Size})
			p.Tuck(side+"-dust", side, 2)
		}
	}
	p.FoldUp("back", "front", "back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	p.FoldUp("left", "right")
	if s.dust {
		p.FoldUp("left-dust", "right-dust")
	}
	return p
}

// shapeFlap cuts the flap's corners. Tucked in, its ends are relieved by what
// lies along the sides.
func (j *Job) shapeFlap(p *sheet.Piece, s flapSizes) {
	relief := Length(0)
	if s.tucked {
		relief = (3 * j.T()).Up(j.Step.Size)
		p.Tuck("flap", "front", 1)
	}
	switch j.Choice("flap") {
	case "rounded":
		p.Round("flap", "top", relief, s.flap*2/3)
	case "pointed":
		p.Pointed("flap", "top", relief, (s.flap / 3).Near(j.Step.Size))
	default:
		if s.tucked {
			p.Tab("flap", "top", sheet.TabShape{Reach: s.flap, Relief: relief, Mitre: j.Step.Size})
		}
	}
}

// closeFlap marks where magnets or dots go, one on the flap and one where it
// meets the front, or makes the band.
func (j *Job) closeFlap(b *Box, p *sheet.Piece, s flapSizes) {
	what := map[string]string{"magnet": "magnet", "dot": "hook dot"}[j.Choice("closure")]
	if what != "" {
		lo, hi := p.Cell("flap")
		inset := min(s.flap/2, 10*measure.Millimetre)
		if j.Choice("flap") == "pointed" {
			inset = s.flap / 2
		}
		mid := (lo.X + hi.X) / 2
		_, foot := p.Cell("bottom")
		p.Mark(what, sheet.Point{X: mid, Y: lo.Y + inset})
		p.Mark(what, sheet.Point{X: mid, Y: foot.Y + b.Size.Depth - s.flap + inset})
	}
	switch j.Choice("closure") {
	case "magnet":
		b.needMagnets("inside the flap and inside the front")
	case "dot":
		b.Supplies = append(b.Supplies, "one hook dot, both halves: one inside the flap, one outside the front")
	case "band":
		j.band(b, p, s)
	}
}

// needMagnets adds a pair of magnets and what is usually said of them.
func (b *Box) needMagnets(where string) {
	b.Supplies = append(b.Supplies, "a pair of thin disc magnets, "+where+", stuck on while the piece is flat; try the poles first")
	b.Cautions = append(b.Cautions, "Small magnets are dangerous when swallowed: keep them, and boxes that hold them, from small children, and follow your local rules.")
}

// band is a strip round bottom, front, top and back, its lap glued out of
// sight below. It bends round the box and is larger by that, and a little ease.
func (j *Job) band(b *Box, p *sheet.Piece, s flapSizes) {
	t, step := j.T(), j.Step.Size
	least := (j.Adhesive.Width + 2*t).Up(step)
	wide := j.Measure("band-width", max(least, min(b.Size.Length/3, 40*measure.Millimetre).Near(step)))
	j.settle("band-width", wide)
	deep, high := (s.top + 2*t + j.Slack).Up(step), (b.Size.Depth + 3*t + j.Slack).Up(step)
	lap := max(j.Adhesive.Width, 12*measure.Millimetre).Up(step)
	if wide < least || wide > b.Size.Length {
		j.Problem("box.options.band-width", fmt.Sprintf("A band of %s does not suit a box %s long.", j.Say(wide), j.Say(b.Size.Length)), "Make it narrower than the box, and at least "+j.Say(least)+".")
		return
	}
	if lap > deep {
		j.Problem(j.SizeField("width"), fmt.Sprintf("A band round a box only %s from front to back has no room to be stuck.", j.Say(b.Size.Width)), "Make the box wider, or close it another way.")
		return
	}
	band := sheet.Grid("band", sheet.Cols(wide), sheet.Rows(deep, high, deep, high, lap), `
		bottom
		front
		top
		back
		lap`)
	band.Part, band.Root = sheet.Band, "bottom"
	band.Tab("lap", "back", sheet.TabShape{Reach: lap, Relief: t})
	band.Glue("lap", "bottom")
	band.Meet("back", "bottom")
	band.FoldUp("front", "top", "back", "lap")
	b.Pieces = append(b.Pieces, band)
	b.Mounts = append(b.Mounts, Mount{Piece: "band", Face: "bottom", On: p.Name, OnFace: "bottom",
		Down: (s.top - b.Size.Width) / 2, Out: (high-b.Size.Depth)/2 + t/2, Closes: "side", Clears: []string{"front", "back", "above", "below"}})
}

func (j *Job) flapBoxCanBe(d Dims, s flapSizes) bool {
	before := len(j.Problems)
	t, wide := j.T(), j.Adhesive.Width
	if s.front > d.Depth {
		j.Problem("box.options.front", fmt.Sprintf("A front of %s is higher than the walls of %s.", j.Say(s.front), j.Say(d.Depth)), "Make it "+j.Say(d.Depth)+" or less.")
	} else if s.front < wide+2*t {
		field := "box.options.front"
		if !j.Asked("front") {
			field = j.SizeField("depth")
		}
		j.Problem(field, fmt.Sprintf("The front is %s high; what is stuck behind it wants %s.", j.Say(s.front), j.Say((wide+2*t).Up(j.Step.Size))), "Make it higher, or stick with wet glue.")
	}
	if s.flap > d.Depth-j.sliver() {
		j.Problem("box.options.flap-depth", fmt.Sprintf("A flap of %s is longer than the front is high (%s).", j.Say(s.flap), j.Say(d.Depth)), "Make the flap shorter or the box higher.")
	} else if least := (d.Depth - s.front + 6*measure.Millimetre).Up(j.Step.Size); s.flap < least {
		j.Problem("box.options.flap-depth", fmt.Sprintf("A flap of %s hardly reaches the front.", j.Say(s.flap)), "Make it at least "+j.Say(least)+".")
	}
	if d.Length < 2*wide+8*t {
		j.Problem(j.SizeField("length"), fmt.Sprintf("A flap box %s long is too short to be folded.", j.Say(d.Length)), "Make it longer.")
	}
	least := wide + 2*t
	if !s.fromWalls {
		least = 2 * (wide + t + j.Step.Size)
	}
	if d.Width < least {
		j.Problem(j.SizeField("width"), fmt.Sprintf("Side walls %s wide leave no room to stick them.", j.Say(d.Width)), "Make the box at least "+j.Say(least.Up(j.Step.Size))+" from front to back, or choose the other way to make the sides.")
	}
	if s.tucked && d.Length < 4*(3*t).Up(j.Step.Size)+wide {
		j.Problem(j.SizeField("length"), "The box is too short for a flap that is tucked in.", "Make it longer, or leave the flap outside.")
	}
	return len(j.Problems) == before
}

// pick chooses between two rows of a picture.
func pick(yes bool, a, b string) string {
	if yes {
		return a
	}
	return b
}

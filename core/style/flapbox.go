package style

import (
	"slices"

	"brevium/core/assembly"
	"brevium/core/net"
	"brevium/core/nets"
)

var flapBox = &Style{
	ID: "flap-box", Title: "Flap box", Level: 2,
	About: "One strip around your things, closing like an envelope. For flat things, and quick to make in numbers.",
	Asks: slices.Concat([]Question{
		choose("sides", "Side walls", "",
			"from-walls | From front and back | Each side has two layers, one from the front and one from the back.",
			"from-base | From the base | Each side folds up from the base. Uses less card for a low box."),
		choose("flap", "Flap", "", "straight | Straight | The plainest to cut.",
			"rounded | Rounded | Its corners cut to quarter rounds.",
			"pointed | Pointed | From the sides to a tip in the middle."),
		choose("closure", "Closed by", "",
			"magnet | A pair of magnets | Snaps shut. You stick it on before the box is assembled.",
			"dot | A hook dot | Thin, and found in any sewing box.", glueDot,
			"band | A band | A strip of card around the whole box.",
			"tuck | Tucking it in | The flap goes inside.").as(Closing),
		length("flap-depth", "Flap", "", "How far the flap reaches down the front."),
		length("front", "Front wall", "", "The height of the front. A lower one lets your fingers in."),
		choose("dust", "Dust flaps", "", "yes | Yes | Nothing small falls out beside the top.",
			"no | No | One cut less on each side."),
		more("dust-reach", "Dust flaps", "dust=yes", "How far they reach in."),
		more("shoulder", "Shoulder", "flap=pointed", "How far the sides run straight down before the point."),
	}, bandQuestions("closure=band"), []Question{mitreQuestion}),
	Build: buildFlapBox,
}

type flapped struct { // what the questions come to
	Dims
	front, flap, top, shoulder Length
	tucked, dust               bool
}

// buildFlapBox lays flap, top, back, bottom and front out in one column. The
// top is longer than the bottom by what the flap bends round.
func buildFlapBox(j *Spec) *Box {
	s := flapped{Dims: j.Size(), tucked: j.Is("closure", "tuck"), dust: j.Is("dust", "yes")}
	s.front = j.Measure("front", s.Depth, j.sticks(2*j.T()), most(s.Depth, "depth", "the other walls are no higher"))
	j.Want("length", s.Length, 2*j.Adhesive.Width+8*j.T(), "The front", "two tabs behind it")
	measureFlap(j, &s)
	if s.top = s.Width; !s.tucked && !j.Plain {
		s.top += j.Gain(3*j.T()/2 + j.Skin)
	}
	cut := map[string]func(*Spec, flapped) *net.Piece{"from-walls": sidesFromWalls, "from-base": sidesFromBase}
	p := cut[j.Choice("sides")](j, s)
	shapeFlap(j, p, s)
	p.Root = "bottom"
	p.Closing("top", "flap")
	b := j.box(s.Dims, p)
	switch {
	case s.tucked:
		p.Tuck("flap", "front", 1)
	case j.Plain:
		p.Over("flap", "front", 1)
		j.note("top-plain", "box", "", s.top,
			"The top is as long as the bottom. Score the flap just outside its line, so that it clears the front.")
	default:
		b.GoesOver("box/flap", "", "front")
		j.note("top", "box", "", s.top-s.Width, "The top is longer than the bottom, so its flap clears the front.")
	}
	if closeBy(j, b, j.Choice("closure"), "box/flap", "box/front"); j.Is("closure", "band") {
		band(j, b, "box", dims(s.Length, s.top, s.Depth), assembly.Place{On: "box/bottom", Down: (s.top - s.Width) / 2})
	}
	return b
}

// measureFlap settles how deep the flap is: over the front by what closes it.
func measureFlap(j *Spec, s *flapped) {
	least := Bound{At: s.Depth - s.front + 6*mm, Why: "a shorter one hardly reaches the front"}
	if round := dotted(j.Choice("closure")) / 2; round > 0 {
		least = Bound{At: s.Depth - s.front + 2*round + j.Mark(),
			Why: "what closes it needs card around it, on the flap and on the front"}
		if j.Is("flap", "pointed") {
			least.At += tipTo(round, s.Length/2, least.At-round) - round
		}
	}
	foot := most((s.Depth - j.T().Up(j.Mark())).Down(j.Mark()), "depth", "the front is no higher")
	if low := s.Depth - s.front; low > 0 && least.At-low <= foot.At {
		least.Ask = "front"
	}
	s.flap = j.Measure("flap-depth", max(s.Depth*2/5, s.Depth-s.front+j.Adhesive.Width, 16*mm).Up(j.Mark()), least, foot)
	if j.Is("flap", "pointed") {
		s.shoulder = j.Measure("shoulder", (s.flap / 3).Near(j.Mark()), Bound{},
			most(s.flap-j.Mark(), "depth", "more leaves no point"))
	}
}

// strip is the picture of the box, beside whose walls stand columns so wide.
func (s flapped) strip(j *Spec, beside Length) nets.Strip {
	away := map[[2]int]bool{{0, 0}: true, {2, 0}: true, {0, 1}: !s.dust, {2, 1}: !s.dust}
	return nets.Strip{Sizes: nets.Sizes{Name: "box", Cols: net.Cols(beside, s.Length, beside),
		Rows: net.Rows(s.flap, s.top, s.Depth, s.Width, s.front), Away: away, T: j.T()}}
}

// sidesFromWalls makes each side of a cell of the front and one of the back. The one on the outside is the front's,
// so that the seam is at the back; when the front is lower it is the back's, which has the whole height.
func sidesFromWalls(j *Spec, s flapped) *net.Piece {
	t, w := j.T(), s.Width
	j.Want("width", w, j.Adhesive.Width+2*t, "A side wall", "the glue or tape between its two halves")
	outer, inner := "front", "back"
	if s.front < s.Depth {
		outer, inner = "back", "front"
	}
	far := min(s.Length/2-t, s.top-t, w).Down(j.Mark())
	if s.dust {
		far = j.Measure("dust-reach", far, Bound{}, most(far, "length", "the two would meet, or reach beyond the top"))
	}
	n := s.strip(j, w)
	n.Tab = func() net.TabShape { return endsOf(j, min(s.front-t, w, (2*j.Adhesive.Width).Up(j.Mark()))) }
	n.Dust = func() net.TabShape { return endsOf(j, far) }
	return n.FromWalls(outer, inner, w-t, false).Piece
}

// sidesFromBase stands the sides up from the bottom, over tabs of front and
// back; dust flaps hang on the top and go down inside.
func sidesFromBase(j *Spec, s flapped) *net.Piece {
	t, h := j.T(), s.Depth
	j.Want("width", s.Width, 2*(j.Adhesive.Width+t+j.Mark()), "A side wall", "the two tabs behind it")
	n := s.strip(j, h)
	n.Tab = func() net.TabShape {
		return endsOf(j, min(h-t, (s.Width/2-t).Down(j.Mark()), (3*j.Adhesive.Width).Up(j.Mark())))
	}
	n.Dust = func() net.TabShape {
		reach := j.Measure("dust-reach", min(h/2, 15*mm).Up(j.Mark()), Bound{},
			most((h-t).Down(j.Mark()), "depth", "the side is no higher"))
		return net.TabShape{Reach: reach, Relief: 3 * t, Mitre: j.Mark()}
	}
	return n.FromBase().Piece
}

// shapeFlap cuts the flap's corners. Tucked in, its ends are relieved by what lies along the sides.
func shapeFlap(j *Spec, p *net.Piece, s flapped) {
	relief := Length(0)
	if s.tucked {
		relief = (3 * j.T()).Up(j.Mark())
		j.Want("length", s.Length, 4*relief+j.Adhesive.Width, "The box", "a flap that is tucked in")
	}
	map[string]func(){
		"straight": func() { p.Tab("flap", "top", net.TabShape{Reach: s.flap, Relief: relief, Mitre: relief / 3}) },
		"rounded":  func() { j.round(p, "flap", "top", relief, s.flap*2/3) },
		"pointed":  func() { p.Pointed("flap", "top", relief, s.shoulder) },
	}[j.Choice("flap")]()
}

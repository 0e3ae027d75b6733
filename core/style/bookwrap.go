package style

import (
	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
)

var bookWrap = &Style{
	ID: "book-wrap", Title: "Book wrap", Level: 1,
	About: "A cover like a book around a packet that slides out of a strap. For bars, tins of mints, packs of seeds.",
	Asks: []Question{
		length("border", "Border", "", "How much wider and taller the covers are than the packet, in all."),
		length("strap-lap", "Strap's lap", "", "How far the ends of the strap overlap."),
		choose("closer", "Closed by", "", "dot | A tab with a hook dot | A strip around the open edge, stuck to the "+
			"back cover.",
			"glue-dot | A tab with a glue dot | The removable kind.",
			"ribbon | A ribbon | Tied around the whole box.").as(Closing),
		more("strap-width", "Strap", "", "How wide the strap is."),
		more("closer-high", "Closing tab", "", "How high the closing tab is.").unless("closer=ribbon"),
	},
	Build: buildBookWrap,
}

// buildBookWrap lies on its back cover, the spine at the left. The strap is a loop round the packet, stuck inside
// the back cover so that the packet slides in and out to the right.
func buildBookWrap(j *Spec) *Box {
	t, step, d := j.T(), j.Mark(), j.Size()
	if j.Given == nil { // the border takes up what the card does: the packet keeps its size
		d = dims(max(d.Length, j.Need.Length.Up(step)), max(d.Width, j.Need.Width.Up(step)),
			max(d.Depth, j.Need.Depth.Up(step)))
	}
	round := j.Gain(2 * t)
	high, thick := d.Width+round, d.Depth+round
	border := j.Measure("border", max(4*mm, round+2*t).Up(step),
		Bound{At: round + 2*t, Why: "the strap would stand out over " +
			"the covers"}, most(d.Length, "length", "more is all cover and no packet"))
	j.Want("length", d.Length, 2*j.Wide()+2*t, "The packet", "the strap with its glue or tape")
	j.Want("width", high, j.Adhesive.Width+12*t+mm, "The packet, front to back", "the strap's lap")
	wide := j.Measure("strap-width", max(d.Depth, j.Wide()+2*t).Up(step), j.sticks(2*t),
		most(d.Length, "length", "the packet is no wider"))
	lap := j.Measure("strap-lap", min(max(15*mm, j.Wide()), high-3*t).Up(step), j.sticks(0),
		most(high-2*t, "width", "the strap is no longer below"))
	spine := thick + (2 * t).Up(step)
	if j.Plain {
		spine = thick + Length(mm).Up(step)
	}
	p := net.Grid("case", net.Cols(d.Length+border, spine, d.Length+border), net.Rows(d.Width+border),
		"front spine back")
	for _, cover := range []string{"front", "back"} {
		j.round(p, cover, "spine", 0, min(6*mm, d.Length/3))
	}
	p.Root = "back"
	p.Closing("spine", "front")
	b := j.box(d, p)
	b.OpenBy = 0.8
	strap := net.Loop("strap", [4]string{"under", "near", "over", "far"}, wide, high, thick, lap, t, false)
	b.Add(strap, assembly.Place{Face: "under", On: "case/back", Out: -t})
	b.Stick("strap/under", "case/back", false)
	b.GoesOver("case", "strap", "above")
	closer(j, b, d, border, spine)
	j.note("round", "strap", "", round, "The strap is larger than the packet, so the packet slides in and out.")
	j.note("spine", "case", "", spine-d.Depth, "The spine is wider than the packet is thick, to leave room for the strap.")
	return b
}

// closer is a strip round the free edge, stuck under the back cover, whose flap
// is held on the front one; or a ribbon round the whole.
func closer(j *Spec, b *Box, d Dims, border, spine Length) {
	t, step := j.T(), j.Mark()
	if j.Is("closer", "ribbon") {
		b.Lets = []string{"right"}
		ribbon := (2*(d.Length+border+spine) + 260*mm).Up(10 * step)
		fasteners.Ribbon(b, 1, ribbon, "a ribbon of "+j.Say(ribbon)+" round the whole, with a bow")
		b.Do("Close", "Tie the ribbon round the box, with the bow at the edge that opens.")
		return
	}
	cover := d.Length + border
	high := j.Measure("closer-high", min(d.Width/2, 30*mm).Up(step),
		Bound{At: max(dotted(j.Choice("closer")), j.Adhesive.Width),
			Why: "the dot needs card around it"}, most(d.Width+border, "width", "the cover is no higher"))
	under := j.Wide() + (2 * t).Up(step)
	flap := (dotted(j.Choice("closer")) + step).Up(step)
	j.Want("length", cover, flap+under, "The cover", "the closing tab with its glue or tape")
	over := spine + j.Gain(2*t+j.Slack)
	p := net.Grid("closer", net.Cols(under, over, flap), net.Rows(high), "under edge flap")
	j.round(p, "flap", "edge", 0, min(5*mm, high/3))
	p.Root = "under"
	p.FoldUp("edge")
	p.Closing("flap")
	b.Add(p, assembly.Place{Face: "under", On: "case/back", Right: cover/2 + t - under/2, Out: t})
	b.Stick("closer/under", "case/back", true)
	b.GoesOver("closer", "case", "above")
	closeBy(j, b, j.Choice("closer"), "closer/flap", "case/front")
}

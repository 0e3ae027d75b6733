package style

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/words"
)

// What holds a box closed comes in two halves, one on a face that closes and one where that face comes to lie.
// Where both have card enough round them is found by folding the box.

// closeBy holds a box closed on two faces by a pair of magnets, a dot or a brad, if an answer is one of these.
func closeBy(j *Spec, b *Box, with, a, on string) {
	if k, ok := fasteners.Chosen(with); ok && k.Long == 0 {
		hold(j, b, k, a, on)
	}
}

// tieBy ties a box shut, if so asked, with a ribbon through two faces.
func tieBy(j *Spec, b *Box, with, a, on string) {
	if k, ok := fasteners.Chosen(with); ok && k.Long > 0 {
		hold(j, b, k, a, on)
	}
}

func hold(j *Spec, b *Box, k fasteners.Kind, a, on string) {
	_, flap := assembly.Ref(a)
	_, front := assembly.Ref(on)
	long, says := k.Long.Up(10*j.Mark()), ""
	if long > 0 {
		says = j.Say(long)
	}
	bought := k.Hold(b, assembly.Pair{A: a, B: on, Radius: k.Radius}, words.Plain(flap), words.Plain(front), says)
	bought.Length = long
	b.Supplies = append(b.Supplies, bought)
}

// dotted is how large a panel must be for the dot or magnet of an answer; 0 for what needs no round.
func dotted(with string) Length {
	k, _ := fasteners.Chosen(with)
	return k.Flat()
}

// pierced is how wide the card must be where something goes through it.
var pierced = func() Length { k, _ := fasteners.Called("brad"); return 2 * (k.Radius + fasteners.Room) }()

// glueDot is the choice of one, where a hook dot is.
const glueDot = "glue-dot | A glue dot | Small, flat and removable."

// pair places the halves of what closes the box, or says that there is no room.
func pair(j *Spec, b *Box) {
	for _, p := range b.Pairs {
		if !b.Meet(p, j.T(), fasteners.Room, j.Mark()) {
			_, on := assembly.Ref(p.B)
			_, flap := assembly.Ref(p.A)
			flap, on = words.Plain(flap), words.Plain(on)
			fix, set := "Make the "+flap+" longer or the "+on+" taller, or close the box another way.", []string(nil)
			field, otherwise := otherClosure(j)
			if otherwise != "" {
				set = []string{field, otherwise}
			}
			j.Problem(field, fmt.Sprintf(
				"There is no place for a %s with enough card around it, on the %s and on the %s under it.",
				p.What, flap, on), fix, set...)
		}
	}
}

// otherClosure names the question of what closes the box, and an answer that wants no card for it.
func otherClosure(j *Spec) (field, answer string) {
	for _, q := range j.style.Asks {
		if q.For != Closing {
			continue
		}
		field = "box.options." + q.ID
		for _, plain := range []string{"none", "band", "ribbon", "glue", "caps"} {
			if slices.ContainsFunc(q.Choices, func(c Choice) bool { return c.ID == plain }) && !j.Is(q.ID, plain) {
				return field, plain
			}
		}
	}
	return field, ""
}

// tipTo is how far below the tip of a point, half as wide as half at its foot, a round of that radius has card on
// both sides.
func tipTo(round, half, more Length) (tip Length) {
	half = max(half, round*3/2) // a narrower box is refused
	for range 40 {
		tip = measure.FromMM(round.MM() * math.Hypot(half.MM(), (tip+more).MM()) / half.MM())
	}
	return tip
}

// bandQuestions ask for a band, when there is one.
func bandQuestions(when string) []Question {
	return []Question{
		length("band-width", "Band", when, "How wide the band is."),
		more("band-place", "Band's place", when, "How far it sits from the box's left side."),
		more("band-lap", "Band's lap", when, "How far the ends overlap."),
	}
}

// band is a strip round bottom, front, top and back of a part so large, its lap glued out of sight below. It bends
// round the box and is larger by that, and a little ease. The place says where the middle of what it goes round is.
func band(j *Spec, b *Box, inner string, round Dims, at assembly.Place) {
	t, card, step := j.As("band").T(), j.As(inner).T(), j.Mark()
	wide := j.Measure("band-width", min(round.Length/3, 40*mm).Near(step),
		j.sticks(2*t), most(round.Length, "length", "the box is no longer"))
	place := j.Measure("band-place", ((round.Length - wide) / 2).Down(step), Bound{},
		most(round.Length-wide, "length", "further on it slips off the box"))
	wrap := shop.Wrap{Card: card, Own: t, Ease: j.Slack, Layers: 2 * max(j.Outside, j.Skin), Plain: j.Plain}
	d := wrap.Round(round.Width, step)
	wrap.Layers = 2 * j.Skin
	h := wrap.Round(round.Depth, step)
	j.over["band"] = shop.Over{Inner: card, Outer: t, Outside: j.Outside}
	lap := j.Measure("band-lap", max(j.Adhesive.Width, 12*mm).Up(step), j.sticks(0),
		most(d, "width", "the box is no deeper below"))
	p := net.Loop("band", [4]string{"bottom", "front", "top", "back"}, wide, d, h, lap, t, false)
	at.Face, at.Right = "bottom", at.Right+place-(round.Length-wide)/2
	at.Out += (h-round.Depth)/2 + t/2
	b.PutOn(p, assembly.Aside, at)
	b.GoesOver("band", inner, "front", "back", "above", "below")
	j.note("band", "band", "", d-round.Width, "The band is a little larger than the box, so it slides on.")
}

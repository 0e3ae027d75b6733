package dress

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fasteners"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/wish"
)

// A topper is a stack of shapes, each smaller than the one below it by a border.

// foam is how thick what raises a shape is.
const foam = 2 * mm

func toppers(k *work) {
	pulls(k)
	for _, t := range k.Toppers {
		k.entry = t.Entry
		if t.On == "hanging" {
			hanging(k, t)
			continue
		}
		if t.On == "band" {
			onBand(k, t)
			continue
		}
		p := largest(k, func(p *Panel) bool { return p.Looks == "above" && p.Shows && p.Lid && !p.Bent })
		if t.On == "" && p == nil {
			p = largest(k, func(p *Panel) bool { return p.Shows && !p.Bent && p.Looks != "below" })
		}
		if t.On != "" {
			p = k.find("on", t.On)
		}
		if p == nil {
			continue
		}
		topper(k, t, p)
	}
}

// size fills in how large a topper is, of a room; what the shop has a cutter for is
// taken in the nearest size it has.
func size(k *work, t *wish.Topper, w, h Length) {
	fixed := t.Width > 0
	if !fixed {
		t.Width = (min(w, 2*h) * 11 / 20).Down(k.Step.Size)
	}
	if t.Height == 0 {
		high := map[string]Length{"rectangle": 65, "rounded": 65, "oval": 65, "banner": 65, "tag": 140}[t.Shape]
		if high == 0 {
			high = 100 // hundredths of its width
		}
		if most := h * 4 / 5; !fixed && t.Width*high/100 > most {
			t.Width = (most * 100 / high).Down(k.Step.Size)
		}
		t.Height = (t.Width * high / 100).Down(k.Step.Size)
	}
	if t.Shape == "round" {
		t.Width = min(t.Width, t.Height)
		if c, ok := cutter(k, t.Width); ok {
			k.flat("The round is %s across, as your circle cutter makes it.", k.Say(c))
			t.Width = c
		}
		t.Height = t.Width
	}
}

// cutter finds the largest circle cutter that is no larger, and hardly smaller.
func cutter(k *work, across Length) (best Length, ok bool) {
	for _, p := range k.Tools.Punches {
		if p.Kind == "circle" && p.Size <= across && p.Size > across*3/4 && p.Size > best {
			best, ok = p.Size, true
		}
	}
	return best, ok
}

// rings gives the outlines of a stack, from the lowest up, with a middle in common: as
// many as its border leaves room for.
func rings(k *work, t wish.Topper) (out [][]net.Point) {
	ring := outline(t.Shape, t.Width, t.Height)
	for i := range t.Cards {
		if i > 0 {
			next := inset(ring, even(t.Border))
			if c, ok := cutter(k, t.Width-2*t.Border*Length(i)); ok && t.Shape == "round" {
				next = moved(outline("round", c, c), (t.Width-c)/2, (t.Height-c)/2)
			}
			if next == nil {
				return out
			}
			ring = next
		}
		out = append(out, ring)
	}
	return out
}

// allRings is rings of every card of a topper, or notes that its border leaves nothing.
func allRings(k *work, t wish.Topper) [][]net.Point {
	out := rings(k, t)
	if len(out) == len(t.Cards) {
		return out
	}
	set := []string{".layers", fmt.Sprint(len(out))}
	usual := t
	if usual.Border = k.usual(inch/8, 3*mm); len(rings(k, usual)) == len(t.Cards) {
		set = []string{".border", ""}
	}
	k.wrong("border", fmt.Sprintf("A border of %s leaves nothing of a %s of %s × %s.", k.Say(t.Border), t.Shape,
		k.Say(t.Width), k.Say(t.Height)), "Make the border smaller, the topper larger, or lay fewer stacked shapes.",
		"dress."+t.Entry+set[0], set[1])
	return nil
}

// wordsOn tells what is printed or lettered on a topper, and whether it can be read.
func wordsOn(k *work, t wish.Topper, on *net.Piece) {
	if t.Words != "" {
		contrast(k, t.Words, t.Ink, t.Cards[len(t.Cards)-1].Colour)
		k.flat("Print or letter “%s” on the %s.", t.Words, on.Name)
		for i := range k.out.Laid {
			if k.out.Laid[i].Piece == on {
				k.out.Laid[i].Words = t.Words
			}
		}
	}
}

func topper(k *work, t wish.Topper, p *Panel) {
	w, h := p.Size()
	if n := len(p.On); n > 0 {
		w, h = p.size(p.On[n-1].Ring)
	}
	size(k, &t, w, h)
	beyond := t.Width+2*t.Right.Abs() > w || t.Height+2*t.Down.Abs() > h
	if beyond && !movesAlong(k, t, p, w, h) {
		at := "dress." + t.Entry
		field, fix, set := "right", "Put it in the middle.", []string{at + ".right", "", at + ".down", ""}
		if t.Width > w || t.Height > h {
			field, fix, set = "width", "Make it smaller, in the middle.",
				append(set, at+".width", plainly(k, w*3/4), at+".height", plainly(k, h*3/4))
		}
		k.wrong(field, fmt.Sprintf("A topper of %s × %s reaches past the %s (%s × %s there). It would catch or keep "+
			"the box from opening.", k.Say(t.Width), k.Say(t.Height), k.called([]*Panel{p}), k.Say(w), k.Say(h)),
			fix, set...)
		return
	}
	if p.Bent {
		k.wrong("on", fmt.Sprintf("The %s is bent, so a topper would come off it.", k.called([]*Panel{p})),
			"Put it on a flat panel.", "dress."+t.Entry+".on", "")
		return
	}
	stack := stack(k, t, p, over(k, p))
	if stack == nil {
		return
	}
	if beyond && belowTable(k, stack) {
		k.wrong("down", fmt.Sprintf("The topper would hang from the %s below the foot of the box, so the box couldn't stand.",
			k.called([]*Panel{p})), "Put it higher.", "dress."+t.Entry+".down", "")
		return
	}
	if with := collides(k, stack...); with != "" { // what slides, flaps or lifts off may come over it
		k.wrong("on", fmt.Sprintf("A topper on the %s would be in the way: %s.", k.called([]*Panel{p}), with),
			"Put it on a panel that nothing covers.", "dress."+t.Entry+".on", "")
		return
	}
	if t.Raised {
		k.supply("foam pads", 0, 0, 4*(len(t.Cards)-1), "under the upper shapes of the topper")
	}
	stacked(k, t)
	k.last("Stick the topper on the %s.", k.called([]*Panel{p}))
	k.late(stack...)
}

// movesAlong reports whether a topper may hang over the edge of a panel: the panel moves when the box is
// opened, and enough of the topper is stuck to it, a quarter of it each way at the least.
func movesAlong(k *work, t wish.Topper, p *Panel, w, h Length) bool {
	on := func(size, off, room Length) bool {
		stuck := min(room/2, off.Abs()+size/2) - max(-room/2, off.Abs()-size/2)
		return stuck >= max(size/4, min(room, size, k.Sticks.Width))
	}
	lifts := k.box.Part(p.Part).When == net.Close // it comes off whole, and is set down
	return p.Lid && !lifts && !p.Bent && on(t.Width, t.Right, w) && on(t.Height, t.Down, h)
}

// belowTable reports whether a part hangs lower than the box stands.
func belowTable(k *work, parts []string) bool {
	s := k.box.Assemble(k.T, assembly.Closed)
	return slices.ContainsFunc(parts, func(part string) bool {
		lo, _ := fold.Extent(s.Of(part))
		return lo.Z < k.lo.Z-0.1
	})
}

// stacked says how the shapes of a topper come on each other.
func stacked(k *work, t wish.Topper) {
	switch n := len(t.Cards); {
	case n < 2:
	case t.Raised:
		k.flat("Stick the %d shapes of the topper together, the largest at the bottom, with an even border. Put foam pads between them.", n)
	default:
		k.flat("Stick the %d shapes of the topper together, the largest at the bottom, with an even border.", n)
	}
}

// stack lays the shapes of a topper on the middle of a panel, so far off it, and gives their names.
func stack(k *work, t wish.Topper, p *Panel, off Length) (names []string) {
	var piece *net.Piece
	mid := p.spot(-t.Right, t.Down)
	for i, ring := range allRings(k, t) {
		if i > 0 && t.Raised {
			off += foam
		}
		stood := turned(moved(ring, -t.Width/2, -t.Height/2), -p.up) // from as it stands to as the panel is drawn
		piece = on(k, p, topperName(t, i), "topper", net.Topper, moved(stood, mid.X, mid.Y), nil, t.Cards[i], off)
		off += t.Cards[i].Caliper
		names = append(names, piece.Name)
	}
	if piece != nil {
		wordsOn(k, t, piece)
	}
	return names
}

// over is how far what goes round the box stands off a panel: a topper lies on it.
func over(k *work, p *Panel) (off Length) {
	if !slices.ContainsFunc(k.box.Parts, func(o *assembly.Part) bool {
		return o.Piece != nil && (o.Piece.Part == net.Band || o.Piece.Part == net.Ribbon)
	}) {
		return 0
	}
	for _, b := range k.box.Assemble(k.T, assembly.Closed).Bodies {
		if b.Piece.Part != net.Band && b.Piece.Part != net.Ribbon {
			continue
		}
		for _, f := range b.Faces {
			out := p.Face.Middle().Sub(f.Middle()).Dot(p.Face.In)
			if out > 0 && out < 12 && math.Abs(f.In.Dot(p.Face.In)) > 0.999 && fold.Overlap(p.Face, f) > 1 {
				off = max(off, measured(out+b.T/2)-p.T/2-p.Thick())
			}
		}
	}
	return off
}

func topperName(t wish.Topper, i int) string {
	name := t.Shape + " topper"
	if i > 0 {
		name = fmt.Sprintf("%s, layer %d", name, i+1)
	}
	return name
}

// hanging hangs a tag by a string: it is cut with the rest.
func hanging(k *work, t wish.Topper) {
	size(k, &t, 90*mm, 130*mm)
	rings := allRings(k, t)
	if rings == nil {
		return
	}
	hole := hangsBy(rings[len(rings)-1])
	if hole == nil {
		at := "dress." + t.Entry
		k.wrong("width", fmt.Sprintf("A %s of %s × %s has no room for a string hole.", t.Shape, k.Say(t.Width),
			k.Say(t.Height)), "Make it larger.", at+".width", plainly(k, 80*mm), at+".height", "", at+".border", "")
		return
	}
	if whole := (&net.Face{Points: rings[0]}); hole[0].Y > whole.Centre().Y+mm/2 {
		at := "dress." + t.Entry
		k.Warn(brief.Warning{Code: "hangs-over", Text: fmt.Sprintf("A %s this small would hang upside "+
			"down.", t.Shape), Fix: "Make it larger, or stick it on instead.",
			Set: brief.To(at+".width", plainly(k, 80*mm), at+".height", "", at+".border", "")})
	}
	var last *net.Piece
	for i, ring := range rings {
		last = cutTo(k.name(topperName(t, i)), "topper", ring, [][]net.Point{hole})
		last.Part = net.Topper
		k.loose(last, t.Cards[i], 1, "hanging")
	}
	wordsOn(k, t, last)
	k.supply("string", 0, k.nice(200*mm), 1, "for the hanging tag")
	stacked(k, t)
	k.last("Hang the %s on by its string.", last.Name)
	k.box.Caution(fasteners.RibbonCare)
}

// hangsBy is the hole that a shape hangs by: as high in its middle as leaves card enough round it or, where it
// would then hang upside down, as high as there is such a place; nil where there is none.
func hangsBy(ring []net.Point) []net.Point {
	lo, hi := net.Bounds(ring)
	mid, balance := (lo.X+hi.X)/2, (&net.Face{Points: ring}).Centre().Y
	highest := func(xs ...Length) []net.Point {
		for y := lo.Y; y < hi.Y; y += mm / 2 {
			for _, x := range xs {
				at := net.Point{X: x, Y: y}
				around := round(at, fasteners.Hole+fasteners.RoundHole, fasteners.Hole+fasteners.RoundHole, 24)
				if !slices.ContainsFunc(around, func(p net.Point) bool { return !net.Inside(ring, p) }) {
					return round(at, fasteners.Hole, fasteners.Hole, 16)
				}
			}
		}
		return nil
	}
	hole := highest(mid)
	if hole != nil && hole[0].Y <= balance {
		return hole
	}
	xs := []Length{mid}
	for off := mm / 2; off < (hi.X-lo.X)/2; off += mm / 2 {
		xs = append(xs, mid-off, mid+off)
	}
	return highest(xs...)
}

// onBand sticks a topper on the band alone, so that the band still slides off.
func onBand(k *work, t wish.Topper) {
	var band *assembly.Part
	for _, p := range k.box.Parts {
		if p.Piece != nil && p.Piece.Part == net.Band && (band == nil || !strings.HasPrefix(p.Name, "narrow")) {
			band = p
		}
	}
	if band == nil || band.Loose {
		k.wrong("on", "This box has no band to put a topper on.", "Add a band first, or put the topper on a panel.",
			"dress."+t.Entry+".on", "")
		return
	}
	face := "top"
	for _, name := range []string{"top", "front", "over", "strap"} {
		if band.Piece.Face(name) != nil {
			face = name
			break
		}
	}
	body := k.box.Assemble(k.T, assembly.Closed).Of(band.Name)
	f := body.Find(face)
	if f == nil {
		return
	}
	p := &Panel{Part: band.Name, Name: face, Face: f, T: measured(body.T), up: up(f), Outline: f.Points}
	w, h := p.Size()
	size(k, &t, max(w, h), max(w, h))
	top := stack(k, t, p, 0)
	if top == nil {
		return
	}
	if with := collides(k, top...); with != "" {
		k.wrong("on", "A topper on the band would be in the way: "+with+".", "Put it on a panel.", "dress."+t.Entry+".on", "")
	} else {
		stacked(k, t)
		k.last("Stick the topper only to the %s, so that the band still slides off.", band.Name)
	}
}

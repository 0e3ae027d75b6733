package dress

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/shop"
)

// A band goes round the closed box as it is, layers and all: its length is read off the
// outside. Round what is no block it is one strip without scores.

// way is how something goes round a box: in which plane, and over which sides.
type way struct {
	name  string
	says  string
	sides [4]string // the first is where the seam is
	flat  func(v fold.Vec) (x, y float64)
	above bool // its seam is on top
}

var ways = map[string]way{
	"across": {"across", "over top, front and back", [4]string{"bottom", "front", "top", "back"},
		func(v fold.Vec) (x, y float64) { return v.Y, v.Z }, false},
	"along": {"along", "over top, left and right", [4]string{"bottom", "left", "top", "right"},
		func(v fold.Vec) (x, y float64) { return v.X, v.Z }, false},
	"level": {"level", "round the four sides", [4]string{"back", "right", "front", "left"},
		func(v fold.Vec) (x, y float64) { return v.X, v.Y }, false},
}

// girth is how long it is round the box as a tight thread lies, in millimetres, and
// whether what it goes round is a block.
func girth(k *work, w way) (long float64, block bool) {
	var all [][2]float64
	for _, b := range k.stand.Box() {
		for _, f := range b.Faces {
			for _, v := range f.Poly {
				x, y := w.flat(v)
				all = append(all, [2]float64{x, y})
			}
		}
	}
	hull := hullOf(all)
	area, lo, hi := 0.0, hull[0], hull[0]
	for i, a := range hull {
		b := hull[(i+1)%len(hull)]
		long += math.Hypot(b[0]-a[0], b[1]-a[1])
		area += (a[0]*b[1] - b[0]*a[1]) / 2
		lo, hi = [2]float64{min(lo[0], a[0]), min(lo[1], a[1])}, [2]float64{max(hi[0], a[0]), max(hi[1], a[1])}
	}
	wide, high := around(k, w)
	box := (hi[0] - lo[0]) * (hi[1] - lo[1])
	// The hull is of middle surfaces: what card and layers add goes on every side.
	more := 2*(wide.MM()+high.MM()) - 2*(hi[0]-lo[0]+hi[1]-lo[1])
	return long + more, math.Abs(area) > 0.95*box
}

// around gives the two sizes of the outside that something goes round.
func around(k *work, w way) (wide, high Length) {
	ax, ay := w.flat(k.lo)
	bx, by := w.flat(k.hi)
	return measured(bx - ax), measured(by - ay)
}

// hullOf is the outline of what lies farthest out, counter-clockwise.
func hullOf(all [][2]float64) (out [][2]float64) {
	slices.SortFunc(all, func(a, b [2]float64) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	half := func(next func(i int) [2]float64) []([2]float64) {
		var h [][2]float64
		for i := range all {
			p := next(i)
			for len(h) > 1 && cross(h[len(h)-2], h[len(h)-1], p) <= 1e-9 {
				h = h[:len(h)-1]
			}
			h = append(h, p)
		}
		return h[:len(h)-1]
	}
	out = half(func(i int) [2]float64 { return all[i] })
	return append(out, half(func(i int) [2]float64 { return all[len(all)-1-i] })...)
}

func cross(a, b, c [2]float64) float64 { return (b[0]-a[0])*(c[1]-a[1]) - (b[1]-a[1])*(c[0]-a[0]) }

// belts puts the band on, and the narrower one on it.
func belts(k *work) {
	b := k.Belt
	if b == nil {
		return
	}
	k.entry = "band"
	least := (k.Sticks.Width + mm).Up(k.Step.Size)
	for i, width := range []Length{b.Width, b.Second} {
		field := []string{"width", "second"}[i]
		if width < least && (i == 0 || width > 0) {
			k.wrong(field, fmt.Sprintf("A band of %s is too narrow to stick with %s.",
				k.Say(width), k.Sticks.Title), "Make it "+k.Say(least)+" or wider.", "dress.band."+field, least.Exact(k.Step.Unit))
			return
		}
	}
	if b.Lap < k.Sticks.Width {
		k.wrong("lap", fmt.Sprintf("A lap of %s is too short: %s needs %s.", k.Say(b.Lap), k.Sticks.Title,
			k.Say(k.Sticks.Width)), "Make it longer.", "dress.band.lap", k.Sticks.Width.Up(k.Step.Size).Exact(k.Step.Unit))
		return
	}
	round := []string{b.Way}
	if b.Way == "cross" {
		round = []string{"across", "along"}
	}
	under := Length(0)
	for _, name := range round {
		belt(k, "paper band", ways[name], b.Width, b.Card, under, b.Stuck)
		under += b.Card.Caliper
	}
	if b.Second > 0 {
		if b.Second >= b.Width {
			k.wrong("second", "The second band must be narrower than the first.", "Make it narrower.", "dress.band.second", "")
			return
		}
		for _, name := range round {
			belt(k, "narrow band", ways[name], b.Second, b.Over, under, true)
		}
	}
}

// belt makes one strip round the box, over what lies there so far.
func belt(k *work, name string, w way, width Length, c shop.Card, under Length, stuck bool) {
	long, block := girth(k, w)
	wide, high := around(k, w)
	if most := across(k, w); width > most {
		k.wrong("width", fmt.Sprintf("The box is only %s there, so a band of %s doesn't fit.", k.Say(most), k.Say(width)),
			"Make it narrower.", "dress.band.width", plainly(k, most))
		return
	}
	wrap := wrapping(k, c, under)
	gain := wrap(k.T)
	name = k.name(name)
	if !block {
		strip := net.Grid(name, net.Cols(width), net.Rows((measured(long) + 4*gain + k.Belt.Lap).Up(k.Step.Size)),
			"strip")
		strip.Part = net.Band
		k.loose(strip, c, 1, w.sides[2])
		k.last("Bend the %s around the box, %s, and stick its lap. Don't score it: the box isn't flat there.", name,
			w.says)
		return
	}
	deep, tall := wrap(wide), wrap(high)
	lap := min(k.Belt.Lap, (deep - 2*c.Caliper).Down(k.Step.Size))
	if lap < k.Sticks.Width {
		k.wrong("way", fmt.Sprintf("The ends of the band overlap where the box is only %s wide. That is too narrow.", k.Say(wide)),
			"Put the band around it another way.", "dress.band.way", "")
		return
	}
	w = w.seamed(k.Belt.Above)
	level := w.name == "level"
	at := beltAt(k, w, width, tall-high-c.Caliper, c)
	p := net.Loop(name, w.sides, width, deep, tall, lap, c.Caliper, level)
	reach := deep // of the first side
	if k.Belt.Middle {
		p, reach = net.LoopMiddle(name, w.sides, width, deep, tall, lap, c.Caliper, k.Step.Size, level)
		at = toward(at, w.sides[1], (deep-reach)/2)
	}
	if r := min(width*2/3, tall/2, 16*mm) / 2; k.Belt.Notch && name == "paper band" && level {
		p.Notch(net.Point{X: reach + deep/2 + tall}, r, net.Point{Y: 1})
	} else if k.Belt.Notch && name == "paper band" {
		p.Notch(net.Point{Y: reach + tall/2}, r, net.Point{X: 1})
	}
	part := k.add(p, c, w.sides[:], at)
	part.When, part.Off = net.Close, assembly.Aside
	how := "Slide the %s on"
	if stuck {
		how = "Put the %s on and stick it to the box at its seam"
	}
	k.last(how+", %s. Its seam is %s. It is %s longer all around than the box.", name, w.says, w.seam(),
		k.Say(2*(deep-wide)+2*(tall-high)))
}

// wrapping gives how long a band of a card is, from score to score, round so much outside: by the one rule for every
// band, a style's own too (see shop.Wrap), and larger by a mark over another band.
func wrapping(k *work, c shop.Card, under Length) func(outside Length) Length {
	own := shop.Wrap{Card: k.T, Own: c.Caliper, Ease: k.Ease, Plain: k.Plain}
	if k.Belt.Stuck {
		own.Ease = 0
	}
	return func(outside Length) Length {
		own, scored := own, outside-k.T
		if k.Plain { // what layers and flaps add to whole marks
			own.Layers, scored = scored-scored.Down(k.Step.Size), scored.Down(k.Step.Size)
		}
		return own.Round(scored, k.Step.Size) + (2 * under).Up(k.Step.Size)
	}
}

// toward shifts what lies on the table to a side of the box.
func toward(at assembly.Place, side string, by Length) assembly.Place {
	switch side {
	case "front":
		at.Down += by
	case "back":
		at.Down -= by
	case "left":
		at.Right -= by
	case "right":
		at.Right += by
	}
	return at
}

// seamed is a way with its seam on top, where it goes over the top.
func (w way) seamed(above bool) way {
	if !above || w.name == "level" {
		return w
	}
	w.above = true
	w.sides = [4]string{w.sides[2], w.sides[3], w.sides[0], w.sides[1]}
	return w
}

// seam says where the seam is.
func (w way) seam() string {
	switch {
	case w.name == "level":
		return "at the back"
	case w.above:
		return "on top, where a topper hides it"
	}
	return "below"
}

// across is how wide the box is where a band goes.
func across(k *work, w way) Length {
	switch w.name {
	case "across":
		return measured(k.hi.X - k.lo.X)
	case "along":
		return measured(k.hi.Y - k.lo.Y)
	}
	return measured(k.hi.Z - k.lo.Z)
}

// beltAt is where the first side of a band lies: below the box or, of a level one, at
// its back. Its ease is shared out on all sides.
func beltAt(k *work, w way, width, loose Length, c shop.Card) assembly.Place {
	mid := k.lo.Add(k.hi).Times(0.5)
	p := assembly.Place{Face: w.sides[0], Right: measured(mid.X), Down: -measured(mid.Y),
		Out: -measured(k.lo.Z) + loose/2 + c.Caliper/2}
	if w.above { // what is drawn first lies on top, its inside down
		p.Over, p.Out = true, -(measured(k.hi.Z) + loose/2 + c.Caliper/2)
	}
	switch w.name {
	case "along":
		p.Quarters = 1
	case "level":
		p.Stood, p.Down = true, -(measured(k.hi.Y) + loose/2 + c.Caliper/2)
		p.Out = -(measured(mid.Z) - width/2)
	}
	return p
}

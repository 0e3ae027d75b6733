package dress

import (
	"fmt"
	"math"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
	"brevium/core/wish"
	"brevium/core/words"
)

// Ribbon, twine and lace: what is tied round the box, or through it.

// pierce punches the holes that ribbon and cord go through.
func pierce(k *work) (cut bool) {
	if h := k.Handle; h != nil && (h.Kind == "ribbon" || h.Kind == "cord") {
		k.entry = "handle"
		for _, p := range handleOn(k) {
			w, _ := p.Size()
			down := Length(12 * mm)
			if liftsOff(k) { // a lid that comes over the cord would not go home
				down += lidReaches(k, p)
			}
			k.box.Threads = append(k.box.Threads, assembly.Thread{What: h.Kind, Faces: []string{p.Ref()}, Holes: 2})
			for _, off := range []Length{-w / 5, w / 5} {
				cut = hole(k, p, off, down, "on", "Choose panels that show more, or leave the handle out.",
					"dress.handle.kind", "") || cut
			}
		}
	}
	if r := k.Ribbon; r != nil && r.Way == "holes" {
		k.entry = "ribbon"
		if p := tied(k); p != nil {
			k.box.Threads = append(k.box.Threads, assembly.Thread{What: "ribbon", Faces: []string{p.Ref()}, Holes: 2})
			for _, off := range []Length{-10 * mm, 10 * mm} {
				_, h := p.Size()
				cut = hole(k, p, off, h/2, "way", "Tie it around the box instead.", "dress.ribbon.way", "across") || cut
			}
		}
	}
	return cut
}

// hole punches a hole in a panel, so far right of its middle and down from its top as
// it stands. Fix and set say what to change where there is no room for it.
func hole(k *work, p *Panel, right, down Length, field, fix string, set ...string) bool {
	_, h := p.Size()
	at := p.spot(right, down-h/2)
	about := []net.Point{{X: at.X - fasteners.Hole, Y: at.Y - fasteners.Hole}, {X: at.X + fasteners.Hole, Y: at.Y + fasteners.Hole}}
	switch {
	case p.Face.Body.RoomRound(p.Face, at) < (fasteners.Hole + fasteners.RoundHole).MM():
		k.wrong(field, fmt.Sprintf("The %s has no room for a hole with enough card around it.", k.called([]*Panel{p})),
			fix, set...)
		return false
	case tabBehind(k, p, about) != "":
		piece(k, p).Tips = append(piece(k, p).Tips,
			fmt.Sprintf("the holes in the %s also go through the %s behind it: punch them after you "+
				"stick it.", plain(p.Name), tabBehind(k, p, about)))
	}
	piece(k, p).Punch(at, fasteners.Hole, 0, 0)
	cutBy(k, p, field)
	return true
}

// spot is a place so far right and down of a panel's middle as it stands, seen from its inside.
func (p *Panel) spot(right, down Length) net.Point {
	return turned([]net.Point{{X: right, Y: down}}, -p.up)[0].Add(p.mid())
}

// tied is the panel that a ribbon is tied over: the top, or the front.
func tied(k *work) *Panel {
	for _, side := range []string{"above", "front"} {
		if p := largest(k, func(p *Panel) bool { return p.Looks == side && p.Shows }); p != nil {
			return p
		}
	}
	k.wrong("way", "This box has no panel for a ribbon to go through.", "Choose a ribbon that goes around the box.", "dress.ribbon.way",
		"across")
	return nil
}

// largest finds the largest panel that is meant.
func largest(k *work, meant func(*Panel) bool) (out *Panel) {
	for _, p := range k.out.Panels {
		if meant(p) && (out == nil || p.Face.Area() > out.Face.Area()) {
			out = p
		}
	}
	return out
}

// bows is how much ribbon a bow takes: two or four loops, its knot and its tails.
func bows(r *wish.Ribbon) Length {
	knot := 40*mm + 2*r.Width
	switch r.Bow {
	case "none":
		return 25 * mm // an overlap to glue
	case "knot":
		return knot + 2*r.Tails
	case "double":
		return 2*knot + 8*r.Loops + 2*r.Tails
	}
	return knot + 4*r.Loops + 2*r.Tails
}

// ribbon reckons what is tied round the box, from its true girth.
func ribbon(k *work) {
	if k.Ribbon == nil {
		return
	}
	k.entry = "ribbon"
	own := *k.Ribbon
	r := &own
	if r.Width == 0 {
		r.Width = map[string]Length{"ribbon": k.usual(inch/2, 12*mm), "twine": 2 * mm,
			"lace": k.usual(3*inch/4, 20*mm)}[r.What]
	}
	round := Length(0)
	wind := func(names ...string) {
		for under, n := range names {
			long, _ := girth(k, ways[n])
			round += Length(r.Turns) * measured(long)
			loop(k, ways[n], r, under)
		}
	}
	says := ""
	switch r.Way {
	case "across", "along", "level":
		wind(r.Way)
		says = fmt.Sprintf("%s round the box, %s", times(r.Turns), ways[r.Way].says)
	case "cross":
		wind("across", "along")
		says = fmt.Sprintf("%s round the box, crosswise", times(r.Turns))
	case "under":
		wind("across")
		p := largest(k, func(p *Panel) bool { return p.Looks == "below" })
		says = "round the box, both ends hidden under a strip on the underside"
		hide(k, p, r)
	case "holes":
		round = 40 * mm
		says = "through the two holes, from within"
		hide(k, tied(k), r)
	}
	long := k.nice(round + bows(r))
	k.supply(r.What, r.Width, long, 1, says)
	if r.Reel > 0 && long > r.Reel {
		k.wrong("reel", fmt.Sprintf("You need %s of %s, but the reel has %s.", k.Say(long), r.What, k.Say(r.Reel)),
			"Choose a smaller bow, or another reel.", "dress.ribbon.bow", "knot")
	}
	tie := "tie it"
	if r.Stuck || r.Bow == "none" {
		tie = "glue its ends"
	}
	k.last("Cut %s of %s, %s wide; lay it %s, and %s.", k.Say(long), r.What, k.Say(r.Width), says, tie)
	k.box.Caution(fasteners.RibbonCare)
}

func times(n int) string {
	switch n {
	case 1:
		return "once"
	case 2:
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}

// loop shows a ribbon on the folded box, over so many turns that lie there already, where that is a block.
func loop(k *work, w way, r *wish.Ribbon, under int) {
	if _, block := girth(k, w); !block || r.Width > across(k, w) {
		return
	}
	c := k.Card("ribbon")
	wide, high := around(k, w)
	slack := 2*c.Caliper*Length(1+2*under) + mm/2
	p := net.Loop(k.name("ribbon "+w.name), w.sides, r.Width, wide+slack, high+slack, max(r.Width, 12*mm), c.Caliper,
		w.name == "level")
	p.Part, p.Stock, p.Caliper = net.Ribbon, c.ID, c.Caliper
	p.Find()
	k.box.PutOn(p, assembly.Aside, beltAt(k, w, r.Width, slack-c.Caliper, c))
}

// hide sticks a strip over what should not be seen of a ribbon.
func hide(k *work, p *Panel, r *wish.Ribbon) {
	if p == nil {
		return
	}
	w, h := p.Size()
	sw, sh := min(w-6*mm, max(3*r.Width, 40*mm)), min(h-6*mm, max(2*r.Width, 25*mm))
	if min(sw, sh) < 8*mm {
		return
	}
	if r.Way == "under" {
		ring := ringOf("square", p.mid(), sw, sh, p)
		on(k, p, "hiding strip", "strip", net.Layer, ring, nil, k.Card(""), 0)
		p.On = append(p.On, Lay{Card: k.Card(""), Ring: ring})
		return
	}
	strip := net.Grid(k.name("hiding strip"), net.Cols(sw.Down(k.Step.Size)), net.Rows(sh.Down(k.Step.Size)),
		"strip")
	strip.Part = net.Liner
	k.loose(strip, k.Card(""), 1, p.Ref())
	k.flat("When the ribbon is through, stick the %s over its ends inside.", strip.Name)
}

// bow cuts the strips of a paper bow, and curls.
func bow(k *work) {
	b := k.Bow
	if b == nil {
		return
	}
	k.entry = "bow"
	strip := func(name string, long, width Length, count int, taper bool) {
		ring := []net.Point{{}, {X: width}, {X: width, Y: long}, {Y: long}}
		if in := width / 4; taper {
			ring = []net.Point{{X: in}, {X: width - in}, {X: width, Y: width}, {X: width, Y: long - width}, {X: width - in,
				Y: long}, {X: in, Y: long}, {Y: long - width}, {Y: width}}
		}
		p := cutTo(k.name(name), "strip", ring, nil)
		p.Part = net.Bow
		k.loose(p, b.Card, count)
	}
	if b.Size < 3*b.Width {
		k.wrong("size", fmt.Sprintf("A bow %s across is too small for strips of %s.", k.Say(b.Size), k.Say(b.Width)),
			"Make it larger, or its strips narrower.", "dress.bow.size", (4 * b.Width).Up(k.Step.Size).Exact(k.Step.Unit))
		return
	}
	size := b.Size
	for tier := range b.Tiers {
		name := "bow loop"
		if tier > 0 {
			name = fmt.Sprintf("bow loop, tier %d", tier+1)
		}
		// A loop is a drop half as wide as it is long: about 2.3 times its length, and a lap.
		long := (size/2*23/10 + k.Sticks.Width).Up(k.Step.Size)
		strip(name, long, b.Width, b.Loops, true)
		size = size * 3 / 4
	}
	strip("bow centre", (measured(math.Pi*10) + k.Sticks.Width).Up(k.Step.Size), b.Width, 1, false)
	if b.Tails {
		strip("bow tail", (b.Size * 3 / 5).Up(k.Step.Size), b.Width, 2, true)
	}
	if b.Curls > 0 {
		once := math.Pi * (b.Rod + b.Card.Caliper).MM()
		long, times := measured(3*math.Pi*(b.Rod+k.T).MM()).Up(k.Step.Size), "three times"
		if b.Curl > 0 {
			long = b.Curl
			if times = words.Count(int(math.Round(long.MM()/once)), "time"); long.MM() < once {
				k.wrong("curl", fmt.Sprintf("A curl of %s doesn't go around a rod of %s even "+
					"once.", k.Say(b.Curl), k.Say(b.Rod)),
					"Make it longer, or the rod thinner.", "dress.bow.curl", measured(2*once).Up(k.Step.Size).Exact(k.Step.Unit))
				return
			}
		}
		strip("curl", long, max(b.Width/3, 3*mm).Down(k.Step.Size), b.Curls, false)
		k.last("Roll each curl %s around a rod of %s, and let it spring open.", times, k.Say(b.Rod))
	}
	k.last("Bend each of the %d loops over without scoring, and stick its ends together. Lay them as a star and put "+
		"the centre on top.",
		b.Loops*b.Tiers)
}

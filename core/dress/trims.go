package dress

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/sheet"
)

// Ribbon, handles and bows: what is tied, carried by, and puts the last touch on.

// ribbonCare is said wherever something long and thin hangs on a box.
const ribbonCare = "Ribbon and cord are not for infants: keep long ends away from them, and follow your local rules."

func (k *work) care(s string) {
	if !slices.Contains(k.box.Cautions, s) {
		k.box.Cautions = append(k.box.Cautions, s)
	}
}

// pierced is the radius of a hole that ribbon or cord goes through.
const pierced = 5 * mm / 2

// pierce punches the holes that ribbon and cord go through.
func (k *work) pierce() (cut bool) {
	if h := k.Handle; h != nil && (h.Kind == "ribbon" || h.Kind == "cord") {
		k.entry = "handle"
		for _, p := range k.handleOn() {
			w, _ := p.Size()
			for _, off := range []Length{-w / 5, w / 5} {
				cut = k.hole(p, off, 12*mm, "on") || cut
			}
		}
	}
	if r := k.Ribbon; r != nil && r.Way == "holes" {
		k.entry = "ribbon"
		if p := k.tied(); p != nil {
			for _, off := range []Length{-10 * mm, 10 * mm} {
				_, h := p.Size()
				cut = k.hole(p, off, h/2, "way") || cut
			}
		}
	}
	return cut
}

// hole punches a hole in a panel, so far right of its middle and down from its top as
// it stands.
func (k *work) hole(p *Panel, right, down Length, field string) bool {
	_, h := p.Size()
	at := p.spot(right, down-h/2)
	about := []sheet.Point{{X: at.X - pierced, Y: at.Y - pierced}, {X: at.X + pierced, Y: at.Y + pierced}}
	switch {
	case p.Face.Body.RoomRound(p.Face, at) < (pierced + 3*mm).MM():
		k.wrong(field, fmt.Sprintf("The %s has no room for a hole with card enough round it.", k.called([]*Panel{p})),
			"Choose another panel, or stick it instead.")
		return false
	case k.tabBehind(p, about) != "":
		k.piece(p).Tips = append(k.piece(p).Tips, fmt.Sprintf("the holes in the %s go through the %s behind it too: punch them "+
			"when it is stuck.", plain(p.Name), k.tabBehind(p, about)))
	}
	k.piece(p).Punch(at, pierced, 0, 0)
	k.cutBy(p, field)
	return true
}

// spot is a place so far right and down of a panel's middle as it stands, seen from its
// inside.
func (p *Panel) spot(right, down Length) sheet.Point {
	at := sheet.Point{X: right, Y: down}
	for range p.up {
		at = sheet.Point{X: -at.Y, Y: at.X}
	}
	return at.Add(p.mid())
}

// tied is the panel that a ribbon is tied over: the top, or the front.
func (k *work) tied() *Panel {
	for _, side := range []string{"above", "front"} {
		if p := k.largest(func(p *Panel) bool { return p.Looks == side && p.Shows }); p != nil {
			return p
		}
	}
	k.wrong("way", "This box has no panel for a ribbon to go through.", "Tie it round the box.", "dress.ribbon.way", "across")
	return nil
}

// largest finds the largest panel that is meant.
func (k *work) largest(meant func(*Panel) bool) (out *Panel) {
	for _, p := range k.out.Panels {
		if meant(p) && (out == nil || p.Face.Area() > out.Face.Area()) {
			out = p
		}
	}
	return out
}

// bows is how much ribbon a bow takes: two or four loops, its knot and its tails.
func (r *Ribbon) bows() Length {
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
func (k *work) ribbon() {
	r := k.Ribbon
	if r == nil {
		return
	}
	k.entry = "ribbon"
	if r.Width == 0 {
		r.Width = map[string]Length{"ribbon": k.usual(inch/2, 12*mm), "twine": 2 * mm, "lace": k.usual(3*inch/4, 20*mm)}[r.What]
	}
	round := Length(0)
	go_ := func(names ...string) {
		for i, n := range names {
			long, _ := k.girth(ways[n])
			round += Length(r.Turns) * measured(long)
			k.loop(ways[n], r, Length(i))
		}
	}
	says := ""
	switch r.Way {
	case "across", "along", "level":
		go_(r.Way)
		says = fmt.Sprintf("%s round the box, %s", times(r.Turns), ways[r.Way].says)
	case "cross":
		go_("across", "along")
		says = fmt.Sprintf("%s round the box, crosswise", times(r.Turns))
	case "under":
		go_("across")
		p := k.largest(func(p *Panel) bool { return p.Looks == "below" })
		says = "round the box, both ends hidden under a strip on the underside"
		k.hide(p, r)
	case "holes":
		round = 40 * mm
		says = "through the two holes, from within"
		k.hide(k.tied(), r)
	}
	long := k.nice(round + r.bows())
	k.supply(r.What, r.Width, long, 1, says)
	if r.Reel > 0 && long > r.Reel {
		k.wrong("reel", fmt.Sprintf("%s of %s are needed and the reel has %s.", k.Say(long), r.What, k.Say(r.Reel)),
			"Choose a smaller bow, or another reel.", "dress.ribbon.bow", "knot")
	}
	tie := "tie it"
	if r.Stuck || r.Bow == "none" {
		tie = "glue its ends"
	}
	k.last("Cut %s of %s, %s wide; lay it %s, and %s.", k.Say(long), r.What, k.Say(r.Width), says, tie)
	k.care(ribbonCare)
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

// loop shows a ribbon on the folded box, where that is a block.
func (k *work) loop(w way, r *Ribbon, under Length) {
	if _, block := k.girth(w); !block || r.Width > k.across(w) {
		return
	}
	c := k.Card("ribbon")
	wide, high := k.around(w)
	slack := 2*c.Caliper*(1+2*under) + mm/2 // over those that lie there
	p := sheet.Loop(k.name("ribbon "+w.name), w.sides, r.Width, wide+slack, high+slack, max(r.Width, 12*mm), c.Caliper,
		w.name == "level")
	p.Part, p.Stock, p.Caliper = sheet.Ribbon, c.ID, c.Caliper
	p.Find()
	part := k.box.Add(p, k.beltAt(w, r.Width, slack-c.Caliper, c))
	part.When, part.Off = sheet.Close, assembly.Aside
}

// hide sticks a strip over what should not be seen of a ribbon.
func (k *work) hide(p *Panel, r *Ribbon) {
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
		piece := k.on(p, "hiding strip", "strip", sheet.Layer, ring, nil, k.Card(""), 0)
		p.On = append(p.On, Lay{Card: k.Card(""), Ring: ring, Piece: piece})
		return
	}
	strip := sheet.Grid(k.name("hiding strip"), sheet.Cols(sw.Down(k.Step.Size)), sheet.Rows(sh.Down(k.Step.Size)), "strip")
	strip.Part = sheet.Liner
	k.loose(strip, k.Card(""), 1, p.Ref())
	k.flat("When the ribbon is through, stick the %s over its ends inside.", strip.Name)
}

// handleOn finds the two panels that a handle is on.
func (k *work) handleOn() []*Panel {
	h := k.Handle
	if h.On != "" {
		panels, ok := k.resolve("on", h.On)
		if !ok {
			return nil
		}
		if panels = first(panels); len(panels) != 2 || panels[0].Face.In.Dot(panels[1].Face.In) > -0.99 {
			k.wrong("on", "A handle wants two panels over against each other.", "Name two, such as left and right.",
				"dress.handle.on", "")
			return nil
		}
		return panels
	}
	for _, pair := range [][2]string{{"left", "right"}, {"front", "back"}} {
		a := k.largest(func(p *Panel) bool { return p.Looks == pair[0] && !p.Lid && p.Face.Upright() })
		b := k.largest(func(p *Panel) bool { return p.Looks == pair[1] && !p.Lid && p.Face.Upright() })
		if a != nil && b != nil {
			return []*Panel{a, b}
		}
	}
	k.wrong("kind", "This box has no two walls over against each other for a handle.", "Leave the handle out.",
		"dress.handle.kind", "")
	return nil
}

// liftsOff says whether something comes off upwards over the walls.
func (k *work) liftsOff() bool {
	return slices.ContainsFunc(k.box.Parts, func(p *assembly.Part) bool { return p.When == sheet.Close && p.Off == assembly.Up })
}

// What card and glue hold for good, with a large margin: newtons a square millimetre of
// stuck strip, and a square millimetre of card that a hole would tear through.
const stuckHolds, tearHolds = 0.01, 1.0

func (k *work) handle() {
	h := k.Handle
	if h == nil {
		return
	}
	k.entry = "handle"
	on := k.handleOn()
	if len(on) != 2 {
		return
	}
	apart := math.Abs(on[0].Face.Middle().Sub(on[1].Face.Middle()).Dot(on[0].Face.In))
	if h.Kind == "strip" || h.Kind == "swing" {
		k.strip(on, measured(apart))
		return
	}
	long := k.nice(measured(apart)*3/2 + 2*max(h.Height, 80*mm) + 120*mm)
	k.supply(h.Kind, 0, long, 1, "as a handle, through the holes, knotted inside")
	k.last("Thread %s of %s through the holes of the %s as a handle and knot it inside.", k.Say(long), h.Kind,
		k.called(on))
	k.care(ribbonCare)
	k.bears(4 * 2 * 12 * k.T.MM() * tearHolds)
}

// strip is a handle of card, bent over the box in a half round, its ends stuck on the
// walls or held by a brad each.
func (k *work) strip(on []*Panel, apart Length) {
	h := k.Handle
	if k.liftsOff() && h.Kind == "strip" {
		k.wrong("kind", "A handle that is stuck over the box would keep the lid from coming off.",
			"Let it swing on brads, choose an open box, or leave it out.", "dress.handle.kind", "swing")
		return
	}
	reach := Length(0)
	if k.liftsOff() {
		reach = k.lidReaches(on[0])
	}
	_, high := on[0].Size()
	end := min(high-reach, max(25*mm, 2*k.Sticks.Width)).Down(k.Step.Size)
	if end < k.Sticks.Width || end < 12*mm {
		k.wrong("on", fmt.Sprintf("The %s is too low for the ends of a handle.", k.called(on)), "Leave the handle out, or choose "+
			"higher walls.", "dress.handle.kind", "")
		return
	}
	t := h.Card.Caliper
	span := apart + on[0].T + t + on[0].Thick() + on[1].Thick()
	arc := measured(math.Pi / 2 * span.MM())
	whole := (arc + 2*(end+reach)).Up(k.Step.Size)
	long := (whole - arc) / 2 // of each end, what is rounded up with it
	p := sheet.Grid(k.name("handle"), sheet.Cols(h.Width), sheet.Rows(long, whole-2*long, long), "one-end\narch\nother-end")
	p.Part, p.Root, p.Rounded = sheet.Handle, "one-end", span/1000 // facets reach a hair further than the round
	p.Curve("arch", false, 180, sheet.Valley)
	p.FoldUp("arch", "other-end")
	p.Tell("bend it over something round")
	p.Stock, p.Caliper = h.Card.ID, t
	p.Find()
	a := on[0]
	down := a.spot(0, long/2-high/2)
	mid := a.mid()
	// Drawn with its arch below the end; as it stands the arch is above.
	at := assembly.Place{Face: "one-end", On: a.Ref(), Nth: a.Nth, Right: down.X - mid.X, Down: down.Y - mid.Y,
		Out: a.T/2 + a.Thick() + t/2, Quarters: (a.up + 2) % 4}
	part := k.add(p, h.Card, []string{on[0].Ref(), on[1].Ref()}, at)
	if with := k.collides(part.Name); with != "" {
		k.wrong("kind", fmt.Sprintf("A handle bent over the box would not clear it: %s.", with),
			"Choose ribbon or cord through holes, or leave the handle out.", "dress.handle.kind", "")
		return
	}
	for i, name := range []string{"one-end", "other-end"} {
		if on[i].Thick() == 0 {
			k.box.Joins = append(k.box.Joins, assembly.Join{A: part.Name + "/" + name, B: on[i].Ref(), Layers: 1, Lapped: true})
		}
	}
	if h.Kind == "swing" {
		k.supply("brad", 0, 0, 2, "one through each end of the handle and the wall under it")
		k.last("Pierce handle and wall together, a brad through each end, so that the handle swings.")
		k.bears(2 * 2 * end.MM() / 2 * k.T.MM() * tearHolds)
		return
	}
	k.last("Bend the %s over a round, and stick its ends on the %s.", part.Name, k.called(on))
	k.bears(2 * h.Width.MM() * end.MM() * stuckHolds)
}

// collides says what parts of the closed box run into, "" for nothing.
func (k *work) collides(parts ...string) string {
	s := k.box.Assemble(k.T, assembly.Closed)
	for _, part := range parts {
		own := s.Of(part)
		c := fold.Apart(func(p, q *fold.Placed) bool { return p.Body != own && q.Body != own }, s.Bodies...)
		if !c.Holds {
			return plain(c.Figure)
		}
		if hits := s.Crushed(part, nil); len(hits) > 0 {
			return hits[0]
		}
	}
	return ""
}

// lidReaches is how far down a lid comes over a wall.
func (k *work) lidReaches(p *Panel) (by Length) {
	_, top := fold.Reach(p.Face)
	for _, q := range k.out.Panels {
		if q.Lid && q.Looks == p.Looks {
			lo, _ := fold.Reach(q.Face)
			by = max(by, measured(top.Z-lo.Z).Up(k.Step.Size))
		}
	}
	return by
}

// bears checks that a handle holds what goes in, in newtons.
func (k *work) bears(holds float64) {
	if load := k.Mass * 9.81 / 1000 * 2; k.Mass > 0 && load > holds { // twice, for when it is swung up
		k.wrong("kind", fmt.Sprintf("What goes in weighs %.0f g, and this handle holds about %.0f g.", k.Mass, holds/9.81*1000/2),
			"Make it wider or of heavier card, carry the box from below, or leave the handle out.", "dress.handle.kind", "")
	}
}

// bow cuts the strips of a paper bow, and curls.
func (k *work) bow() {
	b := k.Bow
	if b == nil {
		return
	}
	k.entry = "bow"
	strip := func(name string, long, width Length, count int, taper bool) {
		ring := []sheet.Point{{}, {X: width}, {X: width, Y: long}, {Y: long}}
		if in := width / 4; taper {
			ring = []sheet.Point{{X: in}, {X: width - in}, {X: width, Y: width}, {X: width, Y: long - width}, {X: width - in, Y: long},
				{X: in, Y: long}, {Y: long - width}, {Y: width}}
		}
		p := cutTo(k.name(name), "strip", ring, nil)
		p.Part = sheet.Bow
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
		turns := measured(3 * math.Pi * (b.Rod + k.T).MM())
		strip("curl", turns.Up(k.Step.Size), max(b.Width/3, 3*mm).Down(k.Step.Size), b.Curls, false)
		k.last("Roll each curl three times round a rod of %s, and let it spring open.", k.Say(b.Rod))
	}
	k.last("Bend each of the %d loops over without a score, stick its ends together, lay them as a star, and the centre over them.",
		b.Loops*b.Tiers)
}

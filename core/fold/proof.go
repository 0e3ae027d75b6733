package fold

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/net"
	"brevium/core/words"
)

// Check is one thing the proof looked at: whether it holds, and the figure.
type Check struct {
	Name   string `json:"name"`
	Holds  bool   `json:"holds"`
	Figure string `json:"figure"`
}

// tolerance is how far, in millimetres, two places may lie apart and still be
// one: below what a folded score can be set to.
const tolerance = 0.05

// near is how far apart two places of the body may lie and still be one: where a
// root or an arc was rounded to the marks, by that much more.
func (b *Body) near() float64 { return tolerance + b.Piece.Rounded.MM() }

// yields is how far card gives way, in calipers, where layers crowd.
const yields = 1.0

// Closed checks a folded piece by itself: no mistake in its lines, no face
// loose, loops of creases close, walls that should meet do.
func (b *Body) Closed() []Check {
	name := b.Piece.Name
	lines := Check{Name: name + ": every line is needed", Holds: true, Figure: words.Count(len(b.Faces), "face")}
	if faults := append(append([]string(nil), b.Piece.Faults...), loose(b)...); len(faults) > 0 {
		lines.Holds, lines.Figure = false, strings.Join(faults, "; ")
	}
	out := []Check{lines}
	if len(b.seams) > 0 {
		out = append(out, b.loops(), b.halfway())
	}
	if len(b.Piece.Meets) > 0 {
		out = append(out, b.walls())
	}
	return out
}

func loose(b *Body) (faults []string) {
	for _, f := range b.Missing() {
		faults = append(faults, f+" hangs on nothing")
	}
	return faults
}

// loops measures how far apart folding puts the two sides of each crease that closes a loop.
func (b *Body) loops() Check {
	worst, where := 0.0, ""
	for _, s := range b.seams {
		gap := max(s.a.place(s.edge.A).Sub(s.b.place(s.edge.A)).Len(), s.a.place(s.edge.B).Sub(s.b.place(s.edge.B)).Len())
		want := math.Cos(Angle(s.edge.Line))
		gap = max(gap, 10*math.Abs(s.a.In.Dot(s.b.In)-want))
		if turn, told := s.a.turnTo(s.b, s.edge), Angle(s.edge.Line); turn*told < 0 && math.Abs(turn) > 0.05 &&
			math.Abs(turn) < math.Pi-0.05 {
			gap = max(gap, 10*math.Abs(turn)) // folded the other way
		}
		if gap > worst {
			worst, where = gap, s.a.Name+" and "+s.b.Name
		}
	}
	c := Check{Name: b.Piece.Name + ": every fold closes", Holds: worst <= b.near(),
		Figure: fmt.Sprintf("%.2f mm apart at most", worst)}
	if !c.Holds {
		c.Figure = fmt.Sprintf("%s can't be folded together: no cut lets them part (%.1f mm)", where, worst)
	}
	return c
}

// torn is how far, in millimetres, a crease may part while a piece is folded up: what card gives.
const torn = 0.6

// halfway folds the piece half up, what is folded twice half way of either time, and looks for card that would
// tear: creases that meet in a corner and fold against each other come together again when all lies flat.
func (b *Body) halfway() Check {
	c := Check{Name: b.Piece.Name + ": it folds up without tearing", Holds: true}
	worst := 0.0
	for _, done := range []float64{0.5, 0.75, 0.9} {
		half := Up(b.Piece, b.T, func(string) float64 { return done })
		if f, on := half.against(); f != nil {
			c.Holds, c.Figure = false, fmt.Sprintf("the card tears half way: %s and %s fold against each other", f.Name, on.Name)
			return c
		}
		for _, s := range half.seams {
			gap := max(s.a.place(s.edge.A).Sub(s.b.place(s.edge.A)).Len(), s.a.place(s.edge.B).Sub(s.b.place(s.edge.B)).Len())
			if worst = max(worst, gap); gap > torn+b.near() {
				c.Holds, c.Figure = false, fmt.Sprintf("folded half up, %s and %s are torn %.1f mm apart", s.a.Name, s.b.Name, gap)
				return c
			}
		}
	}
	c.Figure = fmt.Sprintf("folded half up, no crease opens more than %.2f mm", worst)
	return c
}

// backwards is how far, in radians, a crease may turn the other way for a moment while the corners round it settle.
const backwards = 0.3

// against finds a crease that had to turn the other way than it is scored for the corners round it to close.
func (b *Body) against() (f, on *Placed) {
	at := map[*net.Face]*Placed{}
	for _, p := range b.Faces {
		at[p.Face] = p
	}
	for _, p := range b.Faces {
		for _, e := range p.Edges {
			q := at[e.Beyond]
			if e.Kind != net.Score || q == nil || e.Turn < 30 || e.Via != 0 {
				continue
			}
			if p.turnTo(q, e)*sign(e.Fold) < -backwards {
				return p, q
			}
		}
	}
	return nil, nil
}

// turnTo is how far, in radians, the card beyond an edge is turned about it: more than 0 inwards.
func (p *Placed) turnTo(q *Placed, e net.Edge) float64 {
	dir := p.place(e.B).Sub(p.place(e.A)).unit()
	return math.Atan2(p.In.Cross(q.In).Dot(dir), p.In.Dot(q.In))
}

// walls checks that edges meet along the shorter wall's height.
func (b *Body) walls() Check {
	worst, where := 0.0, ""
	for _, m := range b.Piece.Meets {
		p, q := b.Find(m[0]), b.Find(m[1])
		gap := math.Inf(1)
		if p != nil && q != nil {
			gap = edgeGap(p, q)
		}
		if gap > worst {
			worst, where = gap, m[0]+" and "+m[1]
		}
	}
	c := Check{Name: b.Piece.Name + ": the walls meet", Holds: worst <= b.near(),
		Figure: fmt.Sprintf("%.2f mm apart at most", worst)}
	if !c.Holds {
		c.Figure = fmt.Sprintf("%s are %.1f mm apart", where, worst)
	}
	return c
}

// edgeGap is the least distance between an edge of one face and an edge of
// another that run alike, over the length they should share.
func edgeGap(p, q *Placed) float64 {
	i, k := nearestEdges(p, q)
	return edgesApart(p, i, q, k)
}

// fromLine is the distance of p from the stretch between a and b.
func fromLine(p, a, b Vec) float64 {
	ab := b.Sub(a)
	t := p.Sub(a).Dot(ab) / max(ab.Dot(ab), 1e-12)
	return p.Sub(a.Add(ab.Times(min(1, max(0, t))))).Len()
}

// Stuck checks that each glued face lies on what it is glued to, with at
// least the width the adhesive wants, in millimetres, each way.
func (b *Body) Stuck(width float64) []Check {
	if len(b.Piece.Glues) == 0 {
		return nil
	}
	c := Check{Name: b.Piece.Name + ": glued faces meet", Holds: true}
	least, total := math.Inf(1), 0.0
	var faults []string
	for _, g := range b.Piece.Glues {
		tab, on := b.Find(g.Face), b.Find(g.On)
		if tab == nil || on == nil {
			faults = append(faults, fmt.Sprintf("%s or %s is not there", g.Face, g.On))
			continue
		}
		shared, fault := lies(tab, on, b.T*float64(g.Layers), width, g.Lapped)
		if fault == "" && wrongWay(tab, on, g.Outside) {
			fault = fmt.Sprintf("%s is folded the wrong way and lies on the wrong side of %s", g.Face, g.On)
		}
		if fault != "" {
			faults = append(faults, fault)
		}
		least, total = min(least, shared), total+shared
	}
	c.Figure = fmt.Sprintf("%s, %.1f cm² in all, %.1f cm² the least", words.Count(len(b.Piece.Glues), "tab"), total/100, least/100)
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults, "; ")
	}
	return []Check{c}
}

// wrongWay reports whether a face that is folded right over on to the one it hangs on comes to its
// other side: flat on each other, both ways look alike.
func wrongWay(tab, on *Placed, outside bool) bool {
	for _, e := range tab.Edges {
		if e.Beyond == on.Face && !e.Kind.Open() && math.Abs(math.Abs(Angle(e.Line))-math.Pi) < 1e-6 {
			return (e.Fold == net.Mountain) != outside
		}
	}
	return false
}

// Tucked checks that faces tucked in lie behind what they are to lie behind.
func (b *Body) Tucked() []Check {
	if len(b.Piece.Tucks) == 0 {
		return nil
	}
	c := Check{Name: b.Piece.Name + ": every tuck holds", Holds: true,
		Figure: words.Count(len(b.Piece.Tucks), "face")}
	var faults []string
	for _, g := range b.Piece.Tucks {
		face, on := b.Find(g.Face), b.Find(g.On)
		if face == nil || on == nil {
			faults = append(faults, fmt.Sprintf("%s or %s is not there", g.Face, g.On))
		} else if wrongWay(face, on, g.Outside) {
			faults = append(faults, fmt.Sprintf("%s is folded the wrong way and lies on the wrong side of %s", g.Face, g.On))
		} else if shared, fault := lies(face, on, b.T*float64(g.Layers), 0, true); fault != "" || shared == 0 {
			faults = append(faults, cmp.Or(fault, fmt.Sprintf("%s does not reach %s", g.Face, g.On)))
		}
	}
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults, "; ")
	}
	return []Check{c}
}

// lies measures how a glued face lies on another, apart by the given distance.
func lies(tab, on *Placed, apart, width float64, lapped bool) (shared float64, fault string) {
	off := 0.0
	for _, v := range tab.Poly {
		off = max(off, math.Abs(math.Abs(v.Sub(on.Poly[0]).Dot(on.In))-apart))
	}
	shared, narrow := lap(tab, on)
	if !lapped {
		lo, hi := tab.Bounds()
		narrow = min((hi.X - lo.X).MM(), (hi.Y - lo.Y).MM())
	}
	switch size := tab.Area(); {
	case off > max(tab.Body.near(), on.Body.near()):
		fault = fmt.Sprintf("%s lies %.1f mm off %s", tab.Name, off, on.Name)
	case !lapped && shared < 0.95*size:
		fault = fmt.Sprintf("only %.0f %% of %s lies on %s", 100*shared/size, tab.Name, on.Name)
	case narrow < width-0.01:
		fault = fmt.Sprintf("%s is stuck on %.1f mm and needs %.1f mm", tab.Name, narrow, width)
	}
	return shared, fault
}

// Seated checks that a face of one piece lies on a face of another, so many thicknesses of card away.
func Seated(b *Body, face string, to *Body, on string, width float64, lapped bool, layers int) Check {
	c := Check{Name: fmt.Sprintf("%s is stuck to %s", b.Name, to.Name)}
	foot, floor := b.Find(face), to.Find(on)
	if foot == nil || floor == nil {
		c.Figure = fmt.Sprintf("%s or %s is not there", face, on)
		return c
	}
	shared, fault := lies(foot, floor, (b.T+to.T)/2*float64(layers), width, lapped)
	if fault == "" && shared < 1 {
		fault = fmt.Sprintf("%s does not reach %s", face, on)
	}
	c.Holds, c.Figure = fault == "", fault
	if c.Holds {
		c.Figure = fmt.Sprintf("%.1f cm²", shared/100)
	}
	return c
}

// Below checks that what goes inside stays below the rim.
func Below(rim float64, inside ...*Body) Check {
	_, hi := Bounds(inside...)
	c := Check{Name: "nothing inside sticks up above the rim", Holds: hi.Z <= rim+tolerance,
		Figure: fmt.Sprintf("%.1f mm below it", rim-hi.Z)}
	if !c.Holds {
		c.Figure = fmt.Sprintf("%.1f mm above it", hi.Z-rim)
	}
	return c
}

// Clear measures the gap between an outer body and an inner one on each side,
// card to card, walls against walls; where tabs lie between, Tabs has it.
type Clear struct {
	Side        string
	Walls, Tabs float64 // millimetres
}

// Clearances looks from each standing wall of the outer body inwards.
func Clearances(outer, inner *Body) []Clear {
	sides := map[string]*Clear{}
	t := (outer.T + inner.T) / 2
	for _, o := range outer.Faces {
		for _, i := range inner.Faces {
			if o.In.Dot(i.In) < 0.999 || i.Layer > 0 || overlap(o, i) < 1 {
				continue
			}
			gap := i.Poly[0].Sub(o.Poly[0]).Dot(o.In) - t
			// A tab stuck to the far wall looks the same way from behind it.
			if gap < -4*t {
				continue
			}
			s := sides[side(o.In)]
			if s == nil {
				s = &Clear{side(o.In), math.Inf(1), math.Inf(1)}
				sides[s.Side] = s
			}
			if o.Layer > 0 {
				s.Tabs = min(s.Tabs, gap)
			} else {
				s.Walls = min(s.Walls, gap)
			}
		}
	}
	var out []Clear
	for _, name := range []string{"left", "right", "front", "back", "below", "above"} {
		if s := sides[name]; s != nil {
			out = append(out, *s)
		}
	}
	return out
}

// side names the wall whose inside looks that way.
func side(in Vec) string {
	switch {
	case in.X > 0.7:
		return "left"
	case in.X < -0.7:
		return "right"
	case in.Y > 0.7:
		return "front"
	case in.Y < -0.7:
		return "back"
	case in.Z > 0.7:
		return "below"
	}
	return "above"
}

// Clears reports the gap of a piece over or round another on the sides named, on each of which they must face each
// other; card may give by so many calipers, and a skin of so many millimetres is stuck between on each wall.
func Clears(outer, inner *Body, give float64, skin func(side string) float64, sides ...string) Check {
	c := Check{Name: fmt.Sprintf("%s clears %s", outer.Name, inner.Name), Holds: true}
	gaps := Clearances(outer, inner)
	var says []string
	met := 0
	for _, g := range gaps {
		if !slices.Contains(sides, g.Side) {
			continue
		}
		met++
		if g.Side != "above" && g.Side != "below" {
			g.Walls, g.Tabs = g.Walls-skin(g.Side), g.Tabs-skin(g.Side)
		}
		if g.Walls < tolerance-give*outer.T {
			c.Holds = false
		}
		if g.Tabs < -max(yields, give)*outer.T {
			c.Holds = false
		}
		says = append(says, fmt.Sprintf("%s %.2f mm", g.Side, g.Walls))
	}
	if met < len(sides) {
		c.Holds = false
		says = append(says, fmt.Sprintf("only %d of %d sides meet", met, len(sides)))
	}
	c.Figure = strings.Join(says, ", ")
	return c
}

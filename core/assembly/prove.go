package assembly

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/words"
)

// Means is what a proof needs to know beside the box.
type Means struct {
	T     Length // caliper
	Width Length // that the adhesive wants
	Proud Length // how far the contents may stand above the rim
}

// Prove folds the box, every copy of every part, puts it together with its contents and checks it.
func (b *Box) Prove(m Means, contents []fold.Block) []fold.Check {
	checks := slices.Clone(b.Claims)
	width := m.Width.MM()
	for _, p := range b.Pieces() {
		body := fold.Folded(p, m.T.MM())
		checks = append(checks, body.Closed()...)
		body.Press(nil)
		checks = append(append(checks, body.Stuck(width)...), body.Tucked()...)
		checks = append(checks, body.Kept()...)
	}
	s := b.Assemble(m.T, Closed)
	b.Proved = s
	checks = append(checks, s.inPlace()...)
	var touch []contact
	proved := map[*Tree]bool{}
	for _, g := range s.trees {
		if !proved[g.Tree] {
			checks, proved[g.Tree] = append(checks, itself(b, g, m)...), true
		}
		for _, j := range g.Joins {
			touch = append(touch, g.contacts(j)...)
		}
	}
	lies, riding := s.riding()
	checks, touch = append(checks, lies...), append(touch, riding...)
	checks = append(checks, fold.Apart(touching(touch, b.Plain), s.Bodies...), held(b, s))
	if b.outer != (Dims{}) {
		checks = append(checks, asMeasured(b, s, m.T))
	}
	if inside := inside(s); len(inside) > 0 {
		checks = append(append(checks, fold.Below(b.Hi.Z, inside...)), slices.Concat(legs(b, s), levelRims(s))...)
	}
	for _, r := range b.Rooms {
		if len(r.Things) > 0 {
			c := fold.Holds(r.Things, []string{"above"}, r.Box.Assemble(m.T, Closed).Bodies...)
			c.Name = r.Name + ": " + c.Name
			checks = append(checks, c)
			checks = append(checks, belowRim(r.Things, r.Box.Hi.Z, 0))
		}
	}
	if len(contents) > 0 {
		open := b.Lets
		if b.Above != fold.Flat {
			open = append(slices.Clip(open), "above")
		}
		checks = append(checks, fold.Holds(contents, open, s.Bodies...))
		if b.Above != fold.Flat {
			checks = append(checks, belowRim(contents, b.Rim, m.Proud.MM()))
		}
	}
	if len(b.Flat) > 0 {
		checks = append(checks, fold.Check{Name: "it stores flat", Holds: b.Stores,
			Figure: "flat, with the glued parts glued"})
	}
	return checks
}

// itself proves what a tree says of its own parts. Copies of a box within are
// alike, so it stands alone for that, as it would be held in the hands.
func itself(b *Box, g grown, m Means) (checks []fold.Check) {
	if g.path != "" {
		alone := Standing{of: map[string][]*fold.Body{}}
		stand(b, &alone, g.Tree, hand{path: g.path}, m.T, Closed, nil, true)
		g = alone.whole()
	}
	for _, c := range g.Clears {
		checks = append(checks, clears(b, g, c)...)
	}
	for _, j := range g.Joins {
		checks = append(checks, g.joined(j, m.Width.MM()))
	}
	for _, pair := range g.Pairs {
		checks = append(checks, g.meets(pair))
	}
	for _, th := range g.Threads {
		checks = append(checks, g.threaded(th))
	}
	return checks
}

// inPlace says of which part the face it is placed by, or on, is not there.
func (s Standing) inPlace() (out []fold.Check) {
	for _, g := range s.trees {
		for _, p := range g.Parts {
			for _, at := range p.At {
				for _, r := range []string{at.On, p.Name + "/" + at.Face} {
					if at.Face == "" || r == "" {
						continue
					}
					if _, face := g.find(r); face == nil && !p.Loose {
						out = append(out, fold.Check{Name: p.Name + " is in its place", Figure: words.Plain(r) + " is not there"})
					}
				}
			}
		}
	}
	return out
}

// faces gives the bodies of a part (or of a face with all that hangs on it) and what is left of its own piece.
func (g grown) faces(r string) (of, rest []*fold.Body) {
	if all := g.all(r); len(all) > 0 {
		return all, nil
	}
	part, face := ref(r)
	for _, body := range g.all(part) {
		hangs := body.HangsOn(face)
		of = append(of, body.Part(face, func(n string) bool { return hangs[n] }))
		rest = append(rest, body.Part("base", func(n string) bool { return !hangs[n] }))
	}
	return of, rest
}

// gives is by how much, in millimetres, the card of a box in plain numbers gives where they bind.
func gives(b *Box) float64 {
	if b.Plain {
		return 1
	}
	return 0
}

func clears(b *Box, g grown, c Clear) (out []fold.Check) {
	outer, inner := g.faces(c.Outer)
	if c.Inner != "" {
		inner, _ = g.faces(c.Inner)
	}
	// A face that goes over the rest of its piece does so copy by copy; a part goes over all there is of another.
	if c.Inner != "" && len(inner) > 1 {
		inner = []*fold.Body{fold.Union(c.Inner, inner...)}
	}
	for n, o := range outer {
		for _, i := range inner {
			sides := g.turned(c, n)
			skin := func(side string) float64 {
				if k := slices.Index(sides, side); k >= 0 && k < len(c.Under) {
					return max(c.Skin, c.Under[k]).MM()
				}
				return c.Skin.MM()
			}
			out = append(out, fold.Clears(o, i, gives(b), skin, sides...))
		}
	}
	if len(out) == 0 {
		out = append(out, fold.Check{Name: c.Outer + " clears " + c.Inner, Figure: "one of them is not there"})
	}
	return out
}

// turned gives the sides of a clearance as they lie for the nth copy of the part
// that goes over: a copy that is turned faces other ones.
func (g grown) turned(c Clear, n int) []string {
	p := g.Part(c.Outer)
	if p == nil || n >= len(p.At) {
		return c.Sides
	}
	sides := slices.Clone(c.Sides)
	for range p.At[n].Quarters & 3 {
		for i, s := range sides {
			if k := slices.Index(clockwise, s); k >= 0 {
				sides[i] = clockwise[(k+1)%4]
			}
		}
	}
	return sides
}

var clockwise = []string{"back", "right", "front", "left"}

// Loosened tells which joins of the box's own parts do not hold as it is now, in words.
func (b *Box) Loosened(m Means) string {
	var checks []fold.Check
	g := b.Assemble(m.T, Closed).whole()
	for _, j := range g.Joins {
		checks = append(checks, g.joined(j, m.Width.MM()))
	}
	return Said(checks)
}

// contact is two faces of different parts that touch by intention.
type contact struct{ a, b *fold.Placed }

// pairs gives the faces of every copy that a join is about.
func (g grown) pairs(j Join, visit func(n int, one *fold.Body, face string, other *fold.Body, on string)) {
	partA, faceA := ref(j.A)
	for n, one := range g.all(partA) {
		for _, b := range append([]string{j.B}, j.Or...) {
			partB, faceB := ref(b)
			for _, other := range g.all(partB) {
				visit(n, one, faceA, other, faceB)
			}
		}
	}
}

// contacts gives the faces that a join lets touch, of every copy.
func (g grown) contacts(j Join) (out []contact) {
	g.pairs(j, func(_ int, one *fold.Body, face string, other *fold.Body, on string) {
		if a, b := one.Find(face), other.Find(on); a != nil && b != nil {
			out = append(out, contact{a, b})
		}
	})
	return out
}

// joined checks a join: every copy of the one lies on a copy of the other.
func (g grown) joined(j Join, width float64) fold.Check {
	if !j.Stuck {
		width = 0
	}
	var best []fold.Check // of each copy
	g.pairs(j, func(n int, one *fold.Body, face string, other *fold.Body, on string) {
		c := fold.Seated(one, face, other, on, width, j.Lapped, j.Layers)
		if n == len(best) {
			best = append(best, c)
		} else if c.Holds {
			best[n] = c
		}
	})
	worst := fold.Check{Figure: words.Plain(j.A) + " or " + words.Plain(j.B) + " is not there"}
	for n, c := range best {
		if n == 0 || worst.Holds && !c.Holds {
			worst = c
		}
	}
	does := "is stuck to"
	if !j.Stuck {
		does = "lies on"
	}
	partA, _ := ref(j.A)
	partB, _ := ref(j.B)
	worst.Name = fmt.Sprintf("%s %s %s", words.Plain(g.path+partA), does, words.Plain(g.path+partB))
	return worst
}

// touching says which faces of different pieces may touch: those that are
// joined and, in plain numbers, those that lie flat on each other and give.
func touching(all []contact, plain bool) func(p, q *fold.Placed) bool {
	known := map[contact]bool{}
	for _, c := range all {
		known[c], known[contact{c.b, c.a}] = true, true
	}
	return func(p, q *fold.Placed) bool {
		return known[contact{p, q}] || plain && math.Abs(p.In.Dot(q.In)) > 0.999
	}
}

// apart is how far, in millimetres, the two halves of a closure may lie beside
// each other and still hold, and through how much card and air they do.
const apart, through = 1.0, 4.0

// meets checks that both halves of a closure come together when it is closed.
func (g grown) meets(p Pair) fold.Check {
	c := fold.Check{Name: "the two halves of the " + p.What + " meet", Figure: "one of them is not there"}
	one, f := g.find(p.A)
	other, on := g.find(p.B)
	if f == nil || on == nil {
		return c
	}
	a, okA := one.MarkOn(f, p.What)
	b, okB := other.MarkOn(on, p.What)
	if !okA || !okB {
		return c
	}
	d := b.Sub(a)
	off := d.Sub(f.In.Times(d.Dot(f.In)))
	c.Holds = off.Len() <= apart && math.Abs(d.Dot(f.In)) <= through
	c.Figure = fmt.Sprintf("%.2f mm beside each other, %.2f mm of card between", off.Len(), math.Abs(d.Dot(f.In)))
	return c
}

// inside gives the bodies of what stands inside.
func inside(s Standing) (out []*fold.Body) {
	for _, body := range s.Bodies {
		if body.Piece.Part == net.Insert {
			out = append(out, body)
		}
	}
	return out
}

// belowRim checks that things stand no higher above the rim than they may.
func belowRim(things []fold.Block, rim, proud float64) fold.Check {
	c := fold.Check{Name: "nothing sticks up too far", Holds: true}
	top := math.Inf(-1)
	var highest string
	for _, t := range things {
		if t.Hi.Z > top {
			top, highest = t.Hi.Z, t.Name
		}
	}
	c.Figure = fmt.Sprintf("%.1f mm below the rim", max(0, rim-top))
	if top > rim {
		c.Figure = fmt.Sprintf("%.1f mm above the rim", top-rim)
	}
	if top > rim+proud+0.05 {
		c.Holds = false
		c.Figure = fmt.Sprintf("%s stands %.1f mm above the rim", highest, top-rim)
	}
	return c
}

// Said joins what a proof found wrong, for tests and problems.
func Said(checks []fold.Check) string {
	var out []string
	for _, c := range checks {
		if !c.Holds {
			out = append(out, c.Name+": "+c.Figure)
		}
	}
	return strings.Join(out, "\n")
}

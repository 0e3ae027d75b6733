package assembly

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/sheet"
	"brevium/core/words"
)

// Means is what a proof needs to know beside the box.
type Means struct {
	T     Length // caliper
	Width Length // that the adhesive wants
	Proud Length // how far the contents may stand above the rim
}

// Prove folds the box, every copy of every part, puts it together with its
// contents and checks it.
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
	checks = append(checks, b.inPlace(s, &b.Tree, "")...)
	var touch []contact
	b.eachTree(&b.Tree, "", func(t *Tree, path string) {
		for _, c := range t.Clears {
			checks = append(checks, b.clears(s, c, path)...)
		}
		for _, j := range t.Joins {
			check, found := joined(s, j, path, width)
			checks, touch = append(checks, check), append(touch, found...)
		}
		for _, pair := range t.Pairs {
			checks = append(checks, pair.meets(s, path))
		}
	})
	checks = append(checks, fold.Apart(touching(touch, b.Plain), s.Bodies...))
	if inside := b.inside(s); len(inside) > 0 {
		checks = append(checks, fold.Below(b.Hi.Z, inside...))
	}
	if len(contents) > 0 {
		checks = append(checks, fold.Holds(contents, b.Above != fold.Flat, s.Bodies...))
		if b.Above != fold.Flat {
			checks = append(checks, belowRim(contents, b.Rim, m.Proud.MM()))
		}
	}
	if len(b.Flat) > 0 {
		checks = append(checks, fold.Check{Name: "it stores flat", Holds: b.Stores, Figure: "one plane, its seam stuck"})
	}
	return checks
}

func (b *Box) eachTree(t *Tree, path string, do func(t *Tree, path string)) {
	do(t, path)
	for _, p := range t.Parts {
		if p.Within != nil {
			b.eachTree(p.Within, path+p.Name+"/", do)
		}
	}
}

// inPlace says of which part the face it is placed by, or on, is not there.
func (b *Box) inPlace(s Standing, t *Tree, path string) (out []fold.Check) {
	for _, p := range t.Parts {
		for _, at := range p.At {
			for _, r := range []string{path + at.On, path + p.Name + "/" + at.Face} {
				part, face := ref(r)
				if at.Face == "" || r == path || r == path+at.On && at.On == "" {
					continue
				}
				if body := s.Of(part); body == nil || body.Find(face) == nil {
					out = append(out, fold.Check{Name: p.Name + " is in its place", Figure: words.Plain(r) + " is not there"})
				}
			}
		}
	}
	return out
}

// faces gives the bodies of a part (or of a face with all that hangs on it) and
// what is left of its own piece.
func (b *Box) faces(s Standing, r, path string) (of, rest []*fold.Body) {
	if all := s.All(path + r); len(all) > 0 {
		return all, nil
	}
	part, face := ref(path + r)
	for _, body := range s.All(part) {
		hangs := body.HangsOn(face)
		of = append(of, body.Part(face, func(n string) bool { return hangs[n] }))
		rest = append(rest, body.Part("base", func(n string) bool { return !hangs[n] }))
	}
	return of, rest
}

func (b *Box) clears(s Standing, c Clear, path string) (out []fold.Check) {
	outer, rest := b.faces(s, c.Outer, path)
	inner := rest
	if c.Inner != "" {
		inner, _ = b.faces(s, c.Inner, path)
	}
	give := 0.0
	if b.Plain {
		give = 1
	}
	for _, o := range outer {
		for _, i := range inner {
			out = append(out, fold.Clears(o, i, give, c.Sides...))
		}
	}
	if len(out) == 0 {
		out = append(out, fold.Check{Name: c.Outer + " clears " + c.Inner, Figure: "one of them is not there"})
	}
	return out
}

// contact is two faces of different parts that touch by intention.
type contact struct{ a, b *fold.Placed }

// joined checks a join: every copy of the one lies on a copy of the other.
func joined(s Standing, j Join, path string, width float64) (fold.Check, []contact) {
	partA, faceA := ref(path + j.A)
	partB, faceB := ref(path + j.B)
	if !j.Stuck {
		width = 0
	}
	var worst fold.Check
	var touch []contact
	for n, one := range s.All(partA) {
		best := fold.Check{Figure: words.Plain(j.A) + " or " + words.Plain(j.B) + " is not there"}
		for _, other := range s.All(partB) {
			if a, b := one.Find(faceA), other.Find(faceB); a != nil && b != nil {
				touch = append(touch, contact{a, b})
			}
			if c := fold.Seated(one, faceA, other, faceB, width, j.Lapped, j.Layers); c.Holds || best.Name == "" {
				best = c
			}
		}
		if n == 0 || worst.Holds && !best.Holds {
			worst = best
		}
	}
	worst.Name = fmt.Sprintf("%s is stuck to %s", words.Plain(partA), words.Plain(partB))
	if !j.Stuck {
		worst.Name = fmt.Sprintf("%s lies on %s", words.Plain(partA), words.Plain(partB))
	}
	return worst, touch
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
func (p Pair) meets(s Standing, path string) fold.Check {
	c := fold.Check{Name: "the two halves of the " + p.What + " meet", Figure: "one of them is not there"}
	partA, faceA := ref(path + p.A)
	partB, faceB := ref(path + p.B)
	one, other := s.Of(partA), s.Of(partB)
	if one == nil || other == nil {
		return c
	}
	a, okA := one.MarkOn(faceA, p.What)
	b, okB := other.MarkOn(faceB, p.What)
	if !okA || !okB {
		return c
	}
	f := one.Find(faceA)
	d := b.Sub(a)
	off := d.Sub(f.In.Times(d.Dot(f.In)))
	c.Holds = off.Len() <= apart && math.Abs(d.Dot(f.In)) <= through
	c.Figure = fmt.Sprintf("%.2f mm beside each other, %.2f mm of card between", off.Len(), math.Abs(d.Dot(f.In)))
	return c
}

// inside gives the bodies of what stands inside.
func (b *Box) inside(s Standing) (out []*fold.Body) {
	for _, body := range s.Bodies {
		if body.Piece.Part == sheet.Insert {
			out = append(out, body)
		}
	}
	return out
}

// belowRim checks that things stand no higher above the rim than they may.
func belowRim(things []fold.Block, rim, proud float64) fold.Check {
	c := fold.Check{Name: "nothing stands higher than it may", Holds: true}
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

// said joins what a proof found wrong, for tests and problems.
func Said(checks []fold.Check) string {
	var out []string
	for _, c := range checks {
		if !c.Holds {
			out = append(out, c.Name+": "+c.Figure)
		}
	}
	return strings.Join(out, "\n")
}

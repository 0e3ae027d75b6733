package bench_test

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/net"
	"brevium/core/words"
)

// stick puts on what sticks, folds what is lit, in the order that is told.
func (d *doer) stick(s bench.Step) {
	p := d.p.Box.Piece(s.Piece)
	if p == nil {
		d.wrong("impossible: there is no %s to stick", s.Piece)
		return
	}
	if _, spare := d.p.Spare(p); spare > 0 { // it is scored and trimmed where it turns
		if !strings.Contains(strings.Join(s.Says, " "), "pinch it at every edge") {
			d.wrong("impossible: the %s is longer than what it goes round, and nobody says so", p.Name)
		}
		d.once("scored %s", p.Name)
		for i, c := range bench.CutsOf(p) {
			if c.Trim {
				d.once("cut %s %d", p.Name, i)
			}
		}
	}
	for i := range bench.CutsOf(p) {
		d.need(s.ID, "cut %s %d", p.Name, i)
	}
	for i := range p.Marks {
		d.need(s.ID, "mark %s %d", p.Name, i)
	}
	if d.p.Dressed != nil && len(d.p.Dressed.Flat) > 0 && !d.p.Standing {
		d.need(s.ID, "dressed")
	}
	if s.Title == bench.StickOuter {
		d.need(s.ID, "tried on")
	}
	var told []string
	for _, says := range s.Says {
		if m := putsOn.FindStringSubmatch(says); m != nil {
			d.wet = d.wet || strings.Contains(m[2], "glue")
			faces := facesOf(p, m[4])
			if len(faces) == 0 {
				d.wrong("impossible: the %s has no %s", p.Name, m[4])
			}
			for _, f := range faces {
				d.once("put %s on %s/%s", "something", p.Name, f)
				d.spread[p.Name+"/"+f] = m[3]
			}
		}
		if m := backs.FindStringSubmatch(says); m != nil {
			for _, f := range facesOf(p, m[2]) {
				d.backed[p.Name+"/"+f] = true
			}
		}
		if m := order.FindStringSubmatch(says); m != nil {
			told = append(told, strings.Split(m[1]+m[2], "; then ")...)
		}
	}
	n := 0
	for _, f := range s.Frames {
		if f.Look != bench.Standing || len(f.Lit) == 0 {
			continue
		}
		for _, face := range f.Lit {
			d.done[fmt.Sprintf("fold %s/%s", f.Parts[0], face)] = true
		}
		if n < len(told) && f.Parts[0] == s.Frames[len(s.Frames)-1].Parts[0] {
			if of := facesOf(p, told[n]); len(of) > 0 && !sameNames(of, f.Lit) && told[n] == p.Names(f.Lit) {
				d.wrong("impossible to tell: %q of the %s is %v, and %v is lit", told[n], p.Name, of, f.Lit)
			}
		}
		n++
	}
	d.once("stuck %s", p.Name)
}

func sameNames(a, b []string) bool {
	a, b = slices.Clone(a), slices.Clone(b)
	slices.Sort(a)
	slices.Sort(b)
	return slices.Equal(slices.Compact(a), slices.Compact(b))
}

// together puts each part where it is told to go: what is stuck on what must lie on it.
func (d *doer) together(s bench.Step) {
	for _, f := range s.Frames {
		for _, part := range f.Parts {
			if !slices.Contains(d.put, part) {
				d.put = append(d.put, part)
			}
		}
		d.ready(s.ID, f)
	}
	for _, says := range s.Says {
		d.wet = d.wet || strings.HasPrefix(says, "Stick") && d.p.Adhesive.ID == "glue"
		for _, m := range sticks.FindAllStringSubmatch(says, -1) {
			a, b := d.named(m[2]), d.named(m[4])
			if a == nil || b == nil {
				d.wrong("impossible: %q and %q are not both there", m[2], m[4])
			} else if fa, fb := facesOf(a, m[1]), facesOf(b, m[3]); len(fa) == 0 || len(fb) == 0 || !d.touch(a, fa, b, fb) {
				d.wrong("impossible: the %s of the %s does not lie on the %s of the %s", m[1], m[2], m[3], m[4])
			}
		}
	}
}

// ready wants every piece that stands in a picture folded up before.
func (d *doer) ready(now string, f bench.Frame) {
	for _, name := range f.Parts {
		part := d.p.Box.Part(name)
		if part != nil && part.Piece != nil && d.p.Box.Piece(part.Piece.Name) == part.Piece && foldsFirst(part.Piece) {
			d.need(now, "stuck %s", part.Piece.Name)
		}
	}
}

// foldsFirst reports whether any of a piece is folded before it is closed.
func foldsFirst(p *net.Piece) bool {
	return slices.ContainsFunc(p.Order, func(m net.Move) bool { return m.When == net.Make })
}

func (d *doer) named(name string) *net.Piece {
	for _, p := range d.p.Box.Pieces() {
		if words.Plain(p.Name) == name {
			return p
		}
	}
	return nil
}

// touch reports whether each face lies on one of the others in the closed box.
func (d *doer) touch(a *net.Piece, fa []string, b *net.Piece, fb []string) bool {
	all := d.p.Box.Assemble(d.p.Card.Caliper, assembly.Closed)
	for _, x := range all.Bodies {
		if x.Piece != a {
			continue
		}
		for _, y := range all.Bodies {
			if y.Piece != b || y == x {
				continue
			}
			for _, f := range x.Faces {
				for _, g := range y.Faces {
					if slices.Contains(fa, f.Name) && slices.Contains(fb, g.Name) && abs(g.Middle().Sub(f.Middle()).Dot(f.In)) < 3 {
						return true
					}
				}
			}
		}
	}
	return false
}

func abs(f float64) float64 { return max(f, -f) }

// fill puts the contents in: all that is stuck before must hold, all parts that stay be there.
func (d *doer) fill() {
	d.once("filled")
	d.filled = true
	if first := d.p.Box.Parts[0]; first.Piece != nil && d.p.Box.Piece(first.Piece.Name) == first.Piece && foldsFirst(first.Piece) {
		d.need("fill", "stuck %s", first.Piece.Name)
	}
	for _, part := range d.p.Box.Parts[1:] {
		if part.Piece != nil && !part.Rides && !part.Loose && part.When != net.Close && len(part.At) > 0 && !slices.Contains(d.put, part.Name) {
			d.wrong("out of order: filled before the %s is in its place", part.Name)
		}
	}
	if d.wet {
		d.need("fill", "dried")
	}
}

// close folds and puts on the rest, what waited with its backing on is peeled and stuck.
func (d *doer) close(s bench.Step) {
	d.need(s.ID, "filled")
	for _, f := range s.Frames {
		for _, part := range f.Parts {
			if !slices.Contains(d.put, part) {
				d.put = append(d.put, part)
			}
		}
		d.ready(s.ID, f)
		p := d.p.Box.Piece(f.Piece)
		for _, face := range f.Lit {
			d.done[fmt.Sprintf("fold %s/%s", d.partOf(f, face), face)] = true
		}
		if p == nil {
			continue
		}
		for _, m := range peels.FindAllStringSubmatch(f.Says, -1) {
			for _, face := range facesOf(p, m[1]) {
				if !d.backed[p.Name+"/"+face] {
					d.wrong("impossible: no backing on the %s of the %s", face, p.Name)
				}
				delete(d.backed, p.Name+"/"+face)
				d.spread[p.Name+"/"+face] = "late"
			}
		}
		for _, m := range glues.FindAllStringSubmatch(f.Says, -1) {
			for _, face := range facesOf(p, m[1]) {
				d.spread[p.Name+"/"+face] = "late"
			}
		}
	}
	d.once("closed")
}

// partOf finds the part of a standing picture that a lit face is of.
func (d *doer) partOf(f bench.Frame, face string) string {
	for _, part := range d.p.Box.Parts {
		if part.Piece != nil && part.Piece.Name == f.Piece && !d.done["fold "+part.Name+"/"+face] {
			return part.Name
		}
	}
	return f.Piece
}

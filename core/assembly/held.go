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

// What is made to be held must be held: a tab, a seam or a rolled wall that nothing sticks springs open, a part
// that nothing holds falls off, and card that lies on card without a word about it was forgotten.

// asMeasured checks that the folded box is still as large as it says: every size that is told, and that was
// reckoned with, was measured before the dressing was put on.
func asMeasured(b *Box, s Standing, t Length) fold.Check {
	c := fold.Check{Name: "it is the size it should be", Holds: true}
	var bare Standing
	for _, body := range s.Bodies { // of what stood there when it was measured
		part, _, _ := strings.Cut(body.Name, "/")
		if slices.ContainsFunc(b.Parts[:min(b.sized, len(b.Parts))], func(p *Part) bool { return p.Name == part }) {
			bare.Bodies = append(bare.Bodies, body)
		}
	}
	again := *b
	for _, r := range b.Rooms { // each small box by itself
		if in := r.Box; in.outer != (Dims{}) {
			if c := asMeasured(in, in.Assemble(t, Closed), t); !c.Holds {
				c.Figure = r.Name + ": " + c.Figure
				return c
			}
		}
	}
	lo, hi := fold.Extent(bare.Box()...)
	again.MeasureRoom(bare, b.want)
	for _, d := range []struct {
		what      string
		told, got Dims
	}{{"outside", b.outer, dims(lo, hi)}, {"inside", b.inner, again.Inside}} {
		for i, name := range []string{"from left to right", "from front to back", "high"} {
			told, got := [3]Length{d.told.Length, d.told.Width, d.told.Depth}[i], [3]Length{d.got.Length, d.got.Width, d.got.Depth}[i]
			if off := (told - got).MM(); math.Abs(off) > 0.02 && c.Holds {
				c.Holds = false
				c.Figure = fmt.Sprintf("it says %.2f mm %s %s, but folds to %.2f mm", told.MM(), d.what, name, got.MM())
			}
		}
	}
	if c.Holds {
		c.Figure = fmt.Sprintf("outside %.2f mm × %.2f mm × %.2f mm", b.outer.Length.MM(), b.outer.Width.MM(), b.outer.Depth.MM())
	}
	return c
}

// holding are what faces are called that are there to be stuck or tucked.
var holding = []string{"tab", "seam", "rolled flap", "wrapped corner", "ridge strip", "side wall's middle", "strip", "foot", "lap", "web"}

// typed is the style of a list of scores from elsewhere, which may have pieces that lie loose.
const typed = "score-list"

// held checks that whatever is there to be held is.
func held(b *Box, s Standing) fold.Check {
	c := fold.Check{Name: "every part is stuck where it should be", Holds: true}
	faces, parts := 0, 0
	var faults []string
	known := map[*Tree]bool{}
	for _, g := range s.trees {
		if known[g.Tree] {
			continue
		}
		known[g.Tree] = true
		for i, p := range g.Parts {
			if p.Piece != nil {
				faults = append(faults, atOnce(p.Piece)...)
				for _, f := range p.Piece.Kept() {
					if !slices.Contains(holding, p.Piece.RoleOf(f.Name)) && (len(p.Piece.Curves) == 0 || i == 0 || bent(p.Piece, f.Name)) {
						continue
					}
					if faces++; !g.holdsFace(p, f.Name) {
						faults = append(faults, fmt.Sprintf("the %s of the %s is stuck to nothing", words.Plain(f.Name), words.Plain(p.Name)))
					}
				}
			}
			if i > 0 && b.Style != typed && g.mustHold(p) {
				if parts++; !g.holdsPart(p) {
					faults = append(faults, fmt.Sprintf("the %s is stuck to nothing", words.Plain(p.Name)))
				}
			}
		}
	}
	faults = append(faults, forgotten(s)...)
	c.Figure = fmt.Sprintf("%s, seams and rolled walls among them; %s", words.Count(faces, "tab"), words.Count(parts, "part"))
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults[:min(3, len(faults))], "; ")
	}
	return c
}

func bent(p *net.Piece, face string) bool {
	return slices.ContainsFunc(p.Curves, func(c net.Curve) bool { return c.Face == face })
}

// holdsFace reports whether a face is stuck, tucked or lies where a join says.
func (g grown) holdsFace(p *Part, face string) bool {
	of := func(all []net.Glue) bool {
		return slices.ContainsFunc(all, func(g net.Glue) bool { return g.Face == face || g.On == face })
	}
	ref := p.Name + "/" + face
	return p.Rests || of(p.Piece.Glues) || of(p.Piece.Tucks) ||
		slices.ContainsFunc(g.Joins, func(j Join) bool { return j.A == ref || j.B == ref || slices.Contains(j.Or, ref) })
}

// legs checks that what stands inside on legs stands on the floor with all of them.
func legs(b *Box, s Standing) []fold.Check {
	c := fold.Check{Name: "every leg reaches the floor", Holds: true}
	n := 0
	for _, body := range inside(s) {
		for _, f := range body.Faces {
			if body.Piece.RoleOf(f.Name) != "leg" {
				continue
			}
			n++
			low := math.Inf(1)
			for _, v := range f.Poly {
				low = min(low, v.Z)
			}
			if off := low - b.Lo.Z; math.Abs(off) > body.T+0.06 {
				c.Holds = false
				c.Figure = fmt.Sprintf("the %s leg of the %s ends %.1f mm off the floor", f.Name, body.Name, off)
			}
		}
	}
	if n == 0 {
		return nil
	}
	if c.Holds {
		c.Figure = fmt.Sprintf("%d legs", n)
	}
	return []fold.Check{c}
}

// levelRims checks that walls of what stands inside are as high as those they meet.
func levelRims(s Standing) []fold.Check {
	c := fold.Check{Name: "the inner rims are level", Holds: true}
	n := 0
	for _, body := range inside(s) {
		for _, m := range body.Piece.Meets {
			p, q := body.Find(m[0]), body.Find(m[1])
			if p == nil || q == nil {
				continue // which is told by itself
			}
			n++
			_, top := fold.Reach(p)
			_, other := fold.Reach(q)
			if off := math.Abs(top.Z - other.Z); off > 0.06+body.Piece.Rounded.MM() {
				c.Holds = false
				c.Figure = fmt.Sprintf("the %s and the %s of the %s differ by %.1f mm", words.Plain(m[0]), words.Plain(m[1]),
					words.Plain(body.Name), off)
			}
		}
	}
	if n == 0 {
		return nil
	}
	if c.Holds {
		c.Figure = fmt.Sprintf("%d corners", n)
	}
	return []fold.Check{c}
}

// atOnce checks that faces which are not cut apart anywhere are folded in one move.
func atOnce(p *net.Piece) (faults []string) {
	moves := func(face string) (out []int) {
		for i, m := range p.Order {
			if slices.Contains(m.Faces, face) {
				out = append(out, i)
			}
		}
		return out
	}
	for _, f := range p.Kept() {
		for _, e := range f.Edges {
			if e.Kind == net.Score && e.Turn == 0 && e.Via == 0 && e.Free == 0 &&
				e.Beyond != nil && !e.Beyond.Waste && f.Number < e.Beyond.Number &&
				!slices.Equal(moves(f.Name), moves(e.Beyond.Name)) {
				faults = append(faults, fmt.Sprintf("the %s and the %s of the %s are one card but fold one after the other",
					words.Plain(f.Name), words.Plain(e.Beyond.Name), words.Plain(p.Name)))
			}
		}
	}
	return faults
}

// mustHold reports whether a part would fall off if nothing held it: what is set in, comes off or rides does not.
func (g grown) mustHold(p *Part) bool {
	if p.Rides || p.Loose || p.When == net.Close || len(p.At) == 0 || p.At[0].On == "" {
		return false
	}
	return p.Piece == nil || p.Piece.Part != net.Insert
}

func (g grown) holdsPart(p *Part) bool {
	of := func(r string) bool { return r == p.Name || strings.HasPrefix(r, p.Name+"/") }
	return p.Rests || p.Off != Stays || slices.ContainsFunc(g.Joins, func(j Join) bool {
		return of(j.A) || of(j.B) || slices.ContainsFunc(j.Or, of)
	})
}

// forgotten finds faces of different parts that lie flat on each other without a join. What comes
// off again or is woven may touch; so may what opens.
func forgotten(s Standing) (faults []string) {
	var touch []contact
	closes, rests := map[string]bool{}, map[*fold.Body]bool{}
	for _, g := range s.trees {
		for _, j := range g.Joins {
			touch = append(touch, g.contacts(j)...)
		}
		for _, p := range g.Parts {
			for _, body := range g.all(p.Name) {
				rests[body] = rests[body] || p.Rests
			}
			closes[g.path+p.Name] = p.When == net.Close && !slices.ContainsFunc(g.Joins, func(j Join) bool {
				return j.Stuck && (strings.HasPrefix(j.A, p.Name+"/") || strings.HasPrefix(j.B, p.Name+"/"))
			})
		}
	}
	known := touching(touch, false)
	apart := func(a, c *fold.Body) bool {
		return a.Piece == c.Piece || a.Piece.Part != net.Box || c.Piece.Part != net.Box || closes[a.Name] || closes[c.Name] ||
			rests[a] || rests[c]
	}
	free := func(f, on *fold.Placed) bool { // a flat part is stuck wherever it lies, though what it lies on opens
		return len(f.Body.Faces) > 1 && len(on.Body.Faces) > 1 && (f.Over || Moves(f.Body.Piece, f.Body, f.Name))
	}
	for i, a := range s.Bodies {
		for _, c := range s.Bodies[i+1:] {
			if apart(a, c) {
				continue
			}
			rounded := (a.Piece.Rounded + c.Piece.Rounded).MM() // gluing closes a gap that rounding to marks left
			for _, p := range a.Faces {
				for _, q := range c.Faces {
					if math.Abs(p.In.Dot(q.In)) < 0.999 {
						continue
					}
					off, t := math.Abs(p.Poly[0].Sub(q.Poly[0]).Dot(q.In)), (a.T+c.T)/2
					if off < 0.8*t || off > 1.2*t+rounded || free(p, q) || free(q, p) || known(p, q) ||
						fold.Overlap(p, q) < 0.7*min(p.Area(), q.Area()) {
						continue
					}
					faults = append(faults, fmt.Sprintf("the %s of the %s lies on the %s of the %s and is not stuck", words.Plain(p.Name),
						words.Plain(a.Name), words.Plain(q.Name), words.Plain(c.Name)))
				}
			}
		}
	}
	return faults
}

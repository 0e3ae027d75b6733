package style_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

const mm = measure.Millimetre

// planned is a style's box of a given size, with options.
func planned(t *testing.T, family string, options ...string) *plan.Plan {
	t.Helper()
	b := brief.New("mm")
	b.Contents, b.Box = nil, brief.Box{Style: brief.Text(family)}
	size := suits(family)
	for i, set := 0, append([]string{"size.length", size[0], "size.width", size[1], "size.depth", size[2], "tools.step",
		"1 mm", "card.sheet", "a3", "card.join", "yes"}, options...); i < len(set); i += 2 {
		if !b.Set(set[i], set[i+1]) {
			t.Fatal(set[i])
		}
	}
	p := plan.Make(b, request.Default)
	if !p.Holds() {
		t.Fatal(family, options, p.Problems, p.Checks)
	}
	return p
}

// suits is a size that a style can be made in.
func suits(family string) [3]string {
	if family == "arched-box" { // half as high as it is wide, and more
		return [3]string{"70 mm", "90 mm", "60 mm"}
	}
	return [3]string{"90 mm", "70 mm", "40 mm"}
}

// everyPart lists the parts that are pieces, those of boxes within too.
func everyPart(t *assembly.Tree) (out []*assembly.Part) {
	for _, p := range t.Parts {
		if p.Within != nil {
			out = append(out, everyPart(p.Within)...)
		} else {
			out = append(out, p)
		}
	}
	return out
}

// told gives what the proof of a changed box finds wrong.
func told(p *plan.Plan) string {
	return assembly.Said(p.Box.Prove(assembly.Means{T: p.Card.Caliper, Width: p.Adhesive.Width}, nil))
}

// recut makes a piece anew from the faces that were found, its points moved
// and its edges changed.
func recut(p *net.Piece, move func(net.Point) net.Point,
	change func(on *net.Face, e net.Edge) (net.Line, bool)) *net.Piece {
	out := net.New(p.Name, 0, 0)
	far := move(net.Point{X: p.Width, Y: p.Height})
	out.Width, out.Height = far.X, far.Y
	out.Part, out.Stock, out.Caliper = p.Part, p.Stock, p.Caliper
	out.Rounded, out.Curves = p.Rounded, p.Curves
	out.Root, out.Glues, out.Tucks, out.Meets, out.Order, out.Crowds = p.Root, p.Glues, p.Tucks, p.Meets, p.Order, p.Crowds
	for _, f := range p.Kept() {
		out.Role(p.RoleOf(f.Name), f.Name)
	}
	if p.Middle != nil {
		mid := move(*p.Middle)
		out.Middle = &mid
	}
	for _, m := range p.Marks {
		m.At = move(m.At)
		out.Marks = append(out.Marks, m)
	}
	for _, h := range p.Punches {
		h.Mid = move(h.Mid)
		out.Punches = append(out.Punches, h)
	}
	out.Windows, out.Notches = p.Windows, p.Notches
	for _, f := range p.Faces {
		for _, e := range f.Edges {
			if l, keep := change(f, e); keep {
				l.A, l.B = move(l.A), move(l.B)
				out.Lines = append(out.Lines, l)
			}
		}
		if at, ok := within(f); ok && !f.Waste {
			out.Label(move(at), f.Name)
		} else if ok && f.Edges[0].Kind != net.Hole {
			out.Discard(move(at))
		}
	}
	out.Find()
	return out
}

// within finds a place on a face, a little in from one of its edges.
func within(f *net.Face) (net.Point, bool) {
	for _, e := range f.Edges {
		mid := net.Point{X: (e.A.X + e.B.X) / 2, Y: (e.A.Y + e.B.Y) / 2}
		for _, d := range []net.Point{{X: mm / 20, Y: mm / 30}, {X: -mm / 20, Y: mm / 30}, {X: mm / 20, Y: -mm / 30},
			{X: -mm / 20, Y: -mm / 30}} {
			if at := mid.Add(d); net.Inside(f.Points, at) {
				return at, true
			}
		}
	}
	return net.Point{}, false
}

func stay(p net.Point) net.Point                    { return p }
func same(_ *net.Face, e net.Edge) (net.Line, bool) { return e.Line, true }

// Recutting alone changes nothing: what follows fails for its mistakes.
func TestRecutIsTheSameBox(t *testing.T) {
	for _, s := range style.Styles {
		p := planned(t, s.ID)
		for _, part := range everyPart(&p.Box.Tree) {
			part.Piece = recut(part.Piece, stay, same)
		}
		if wrong := told(p); wrong != "" {
			t.Errorf("%s: %s", s.ID, wrong)
		}
	}
}

// A slit that was forgotten: where a free edge lies along a neighbour, or along
// a sliver beside it, the card holds together and can't be folded.
func TestForgottenSlit(t *testing.T) {
	for _, s := range style.Styles {
		p := planned(t, s.ID)
		tried, slits := 0, 0
		for _, part := range everyPart(&p.Box.Tree) {
			piece := part.Piece
			slits += len(piece.Slits)
			for _, tab := range piece.Kept() {
				for _, e := range tab.Edges {
					other := e.Beyond
					if e.Kind != net.Cut || other == nil || other.Waste && !other.Trim {
						continue
					}
					bad := recut(piece, stay, func(on *net.Face, x net.Edge) (net.Line, bool) {
						joined := func(a, b *net.Face) bool { return a == tab && b == other || a == other && b == tab }
						l := x.Line
						switch {
						case joined(on, x.Beyond) && other.Trim:
							return l, false // the sliver stays on the tab
						case joined(on, x.Beyond), (on == other || x.Beyond == other) && other.Trim && x.Beyond != nil && on != nil &&
							x.Kind == net.Cut && !x.Beyond.Waste:
							l.Kind, l.Turn = net.Score, 90
						}
						return l, true
					})
					if len(bad.Kept()) < len(piece.Kept()) || !beyondTab(other, tab) {
						continue // the sliver lies at an outer end and holds nothing together
					}
					tried++
					part.Piece = bad
					if wrong := told(p); !strings.Contains(wrong, piece.Name) || !strings.Contains(wrong, "can't be folded") &&
						!strings.Contains(wrong, "one face") {
						t.Errorf("%s: %s of %s left uncut: %q", s.ID, tab.Name, piece.Name, wrong)
					}
					part.Piece = piece
				}
			}
		}
		t.Logf("%s: %d slits tried", s.ID, tried)
		if tried == 0 && slits > 0 {
			t.Errorf("%s: no slit was tried", s.ID)
		}
	}
}

// beyondTab reports whether a face is a neighbour itself, or a sliver that lies
// between the tab and one.
func beyondTab(other, tab *net.Face) bool {
	if !other.Waste {
		return true
	}
	for _, e := range other.Edges {
		if e.Beyond != nil && e.Beyond != tab && !e.Beyond.Waste && e.Kind == net.Cut {
			return true
		}
	}
	return false
}

// A tab stuck to another wall than the one it lies on is told by its name.
func TestTabOnTheWrongWall(t *testing.T) {
	for _, s := range style.Styles {
		p := planned(t, s.ID)
		for _, piece := range p.Box.Pieces() {
			for g, glue := range piece.Glues {
				for _, wall := range piece.Kept() {
					if wall.Name == glue.On || wall.Name == glue.Face || strings.Contains(wall.Name, "seal") ||
						strings.Contains(wall.Name, "wing") || wall.Name == "seam-top" || strings.HasSuffix(wall.Name, "tab") ||
						strings.HasSuffix(wall.Name, "flap") || strings.HasSuffix(wall.Name, "roll") ||
						slices.ContainsFunc(slices.Concat(piece.Glues, piece.Tucks), func(o net.Glue) bool {
							return o.Face == wall.Name && o.On == glue.On
						}) {
						continue // what lies on the same wall
					}
					piece.Glues[g].On = wall.Name
					if wrong := told(p); !strings.Contains(wrong, glue.Face) && !strings.Contains(wrong, wall.Name) {
						t.Errorf("%s: %s stuck on %s: %q", s.ID, glue.Face, wall.Name, wrong)
					}
				}
				piece.Glues[g] = glue
			}
		}
	}
}

// A column or row cut too short, where a box can't do without it.
func TestTooShort(t *testing.T) {
	for _, c := range []struct {
		style, piece, face string
		across             bool
		options            []string
		wrong              string
	}{
		{"tray-lid", "lid", "top", true, nil, "lid clears base"},
		{"flap-box", "box", "top", false, nil, "flap clears base"},
		{"flap-box", "box", "top", false, []string{"box.options.closure", "tuck"}, "flap lies"},
		{"flap-box", "box", "front-left", true, []string{"box.options.sides", "from-walls"}, "the walls meet"},
		{"flap-box", "band", "top", false, []string{"box.options.closure", "band"}, "band"},
		{"hinged-lid", "box", "lid", false, nil, "lid clears base"},
		{"sleeve-drawer", "sleeve", "top", false, nil, "sleeve: the walls meet"},
		{"sleeve-drawer", "sleeve", "front", false, nil, "sleeve: the walls meet"},
		{"carton", "carton", "front", true, nil, "carton: the walls meet"},
		{"carton", "carton", "top", false, nil, "top-lip lies"},
		{"pinch-top", "tube", "front", true, nil, "tube: the walls meet"},
		{"gable-cap", "cap", "front", true, nil, "cap: the walls meet"},
		{"wrap-cover", "lid cover", "top", false, []string{"size.depth", "20 mm"}, "lid cover clears tray"},
		{"fold-flat", "cover", "top", false, nil, "lip clears base"},
		{"fold-flat", "tray", "back", false, nil, "web can't be folded together"},
		{"corner-shells", "shell", "left", true, nil, "top of the shell"},
		{"corner-shells", "shell", "top", false, nil, "back of the tray"},
		{"chamfer-foot", "box", "left-facet", true, nil, "left-toe lies"},
		{"chamfer-foot", "box", "front", false, nil, "front"},
		{"pleat-pouch", "pouch", "front-slope", false, nil, "pouch"},
		{"book-wrap", "case", "spine", true, nil, "case clears strap"},
		{"book-wrap", "strap", "near", false, nil, "strap: the walls meet"},
		{"woven-basket", "handle", "arch", false, nil, "handle is stuck to basket"},
		{"arched-box", "cover", "arch", true, nil, "cover"},
		{"cross-fold", "lid", "top", true, nil, "lid clears cross"},
		{"strip-column", "strip", "right", true, nil, "strip: the walls meet"},
		{"strip-column", "cap", "panel", true, nil, "cap clears strip"},
	} {
		p := planned(t, c.style, c.options...)
		for _, part := range everyPart(&p.Box.Tree) {
			piece := part.Piece
			if piece.Name != c.piece {
				continue
			}
			lo, hi := piece.Face(c.face).Bounds()
			part.Piece = recut(piece, func(at net.Point) net.Point {
				if c.across && at.X > (lo.X+hi.X)/2 {
					at.X -= 3 * mm
				} else if !c.across && at.Y > (lo.Y+hi.Y)/2 {
					at.Y -= 3 * mm
				}
				return at
			}, same)
		}
		if wrong := told(p); !strings.Contains(wrong, c.wrong) {
			t.Errorf("%s: %s of %s too short: %q", c.style, c.face, c.piece, wrong)
		}
	}
}

package dress

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/words"
)

// Panel is the outside of a face of the closed box.
type Panel struct {
	Part, Name string
	Nth        int // of several copies of the part
	Face       *fold.Placed
	T          Length      // its card
	Looks      string      // where its outside looks: left, right, front, back, above, below
	Lid        bool        // it moves when the box is opened
	Shows      bool        // some of it is seen when the box is closed
	Bent       bool        // it is bent round
	Within     bool        // it is of what stands in the box, and seen when the lid is off
	Outline    []net.Point // as the piece is drawn
	On         []Lay       // what lies on it, from the card up
	up         int         // quarter turns that bring what is up to the top of the drawing
}

// Lay is one thing that lies on a panel: its outline as the panel is drawn.
type Lay struct {
	Card  shop.Card
	Ring  []net.Point
	Holes [][]net.Point
}

// Ref is the panel's name among those of the box: "base/front".
func (p *Panel) Ref() string { return p.Part + "/" + p.Name }

// Thick is how thick what lies on it is.
func (p *Panel) Thick() (t Length) {
	for _, l := range p.On {
		t += l.Card.Caliper
	}
	return t
}

// Size is how wide and how high the panel stands.
func (p *Panel) Size() (w, h Length) { return p.size(p.Outline) }

func (p *Panel) size(ring []net.Point) (w, h Length) {
	lo, hi := net.Bounds(ring)
	if w, h = hi.X-lo.X, hi.Y-lo.Y; p.up%2 == 1 {
		return h, w
	}
	return w, h
}

// hides are roles of faces that lie behind others, or are rolled or folded in.
var hides = []string{"tab", "gusset", "dust flap", "lap", "rolled flap", "wrapped corner"}

// opened are roles of what is opened within a box and is dressed like its outside.
var opened = []string{"flap", "petal"}

// panels finds the panels of the closed box: faces with nothing stuck on their outside.
func (k *work) panels() (out []*Panel) {
	all := k.stand.Box()
	covered := k.covered()
	for _, part := range k.box.Parts {
		within := part.Piece != nil && part.Piece.Part == net.Insert
		if part.Piece == nil || part.Piece.Part != net.Box && !within {
			continue
		}
		for n, body := range k.stand.All(part.Name) {
			seen := map[string]bool{}
			for _, f := range body.Faces {
				if seen[f.Name] || slices.Contains(hides, part.Piece.RoleOf(f.Name)) || behind(part.Piece, f.Name) || covered[f] {
					continue
				}
				if within && (!slices.Contains(opened, part.Piece.RoleOf(f.Name)) || looks(f) != "above") {
					continue
				}
				seen[f.Name] = true
				p := &Panel{Part: part.Name, Name: f.Name, Nth: n, Face: f, T: measured(body.T), Looks: looks(f), up: up(f),
					Lid:  part.When == net.Close || assembly.Moves(part.Piece, body, f.Name),
					Bent: slices.ContainsFunc(part.Piece.Curves, func(c net.Curve) bool { return c.Face == f.Name })}
				p.Shows, p.Outline, p.Within = !within && f.Shows(all...), f.Points, within
				if whole := part.Piece.Face(f.Name); p.Bent && whole != nil {
					p.Outline = whole.Points // it is folded in facets
				}
				out = append(out, p)
			}
		}
	}
	return out
}

func measured(millimetres float64) Length { return Length(math.Round(millimetres * float64(mm))) }

// behind reports whether a face is stuck or tucked behind another, or has one stuck on its
// outside. What only lies over a part of a face that stays still leaves it a panel.
func behind(p *net.Piece, face string) bool {
	for i, g := range slices.Concat(p.Glues, p.Tucks) {
		loose := i >= len(p.Glues) && !assembly.Opens(p, face)
		if g.Face == face && !g.Outside || g.On == face && g.Outside && !loose {
			return true
		}
	}
	return false
}

// covered finds the faces on whose outside another part is stuck.
func (k *work) covered() map[*fold.Placed]bool {
	out := map[*fold.Placed]bool{}
	for _, pair := range k.stand.Stuck() {
		for _, f := range pair {
			other := pair[0]
			if other == f {
				other = pair[1]
			}
			if other.Middle().Sub(f.Middle()).Dot(f.In) < 0 && hidesMost(other, f) {
				out[f] = true
			}
		}
	}
	for _, part := range k.box.Parts {
		if part.Piece == nil || part.Piece.Part != net.Box {
			continue
		}
		body := k.stand.Of(part.Name)
		for _, f := range body.Faces {
			if k.pressed(f) || liesUnder(f, body) {
				out[f] = true
			}
		}
	}
	return out
}

// liesUnder reports whether loose faces of the same piece cover more than half of a face: what is stuck there
// would not be seen, and would push them out.
func liesUnder(f *fold.Placed, body *fold.Body) bool {
	hidden := 0.0
	for _, g := range body.Piece.Tucks {
		if g.On == f.Name && g.Outside && g.Layers == 1 && !assembly.Opens(body.Piece, g.Face) {
			if over := body.Find(g.Face); over != nil {
				hidden += fold.Overlap(f, over)
			}
		}
	}
	return hidden > f.Area()/2
}

// hidesMost reports whether a face lies over more than half of another. What covers less, such as the end of a
// handle or a pull, is stuck on top of the layer.
func hidesMost(over, f *fold.Placed) bool { return fold.Overlap(f, over) > f.Area()/2 }

// pressed reports whether a part of the box that stays lies so close on the outside of a
// face that nothing goes between.
func (k *work) pressed(f *fold.Placed) bool {
	for _, part := range k.box.Parts {
		if part.Piece == nil || part.Piece.Part != net.Box || part.When == net.Close || part.Name == f.Body.Name {
			continue
		}
		for _, g := range k.stand.Of(part.Name).Faces {
			apart := g.Middle().Sub(f.Middle()).Dot(f.In)
			near := (f.Body.T + g.Body.T) / 2
			if apart >= 0 || -apart >= near+0.8 || math.Abs(f.In.Dot(g.In)) <= 0.999 {
				continue
			}
			if hidesMost(g, f) || assembly.Moves(part.Piece, g.Body, g.Name) && fold.Overlap(f, g) > 1 {
				return true
			}
		}
	}
	return false
}

// looks gives the side that the outside of a face looks to most.
func looks(f *fold.Placed) (side string) {
	best := -1.0
	for _, s := range fold.Sides {
		if d := -f.In.Dot(s.To); d > best+1e-6 {
			side, best = s.Name, d
		}
	}
	return side
}

// up gives the quarter turns that bring what is up on the standing box to the top of
// the face's drawing; of what lies level, what is at the back.
func up(f *fold.Placed) int {
	x, y := f.X.Z, f.Y.Z
	if math.Hypot(x, y) < 0.1 {
		x, y = f.X.Y, f.Y.Y
	}
	switch {
	case math.Abs(y) >= math.Abs(x)-1e-9 && y <= 0:
		return 0
	case math.Abs(y) >= math.Abs(x)-1e-9:
		return 2
	case x > 0:
		return 1
	}
	return 3
}

// groups are words for several panels at once.
var groups = map[string]func(*Panel) bool{
	"all":       func(p *Panel) bool { return p.Shows },
	"outside":   func(p *Panel) bool { return p.Shows && p.Looks != "below" },
	"sides":     func(p *Panel) bool { return p.Shows && p.Looks != "below" && p.Looks != "above" },
	"lid":       func(p *Panel) bool { return p.Shows && p.Lid },
	"top":       func(p *Panel) bool { return p.Shows && p.Looks == "above" },
	"underside": func(p *Panel) bool { return p.Shows && p.Looks == "below" },
	"inside":    func(p *Panel) bool { return false }, // lined
}

// Groups lists the words for several panels, in the order they are offered.
var Groups = []string{"outside", "all", "sides", "lid", "top", "underside"}

// resolve finds the panels that a text names, each once, or notes what it names that there is none of.
func (k *work) resolve(field, text string) (out []*Panel, ok bool) {
	if strings.TrimSpace(text) == "" {
		k.wrong(field, "No panel is chosen.", "Choose one of "+k.offers()+".")
		return nil, false
	}
	found := map[*Panel]bool{}
	for _, word := range k.named(text) {
		met := word == "inside"
		for _, p := range k.pick(word) {
			met, found[p] = true, true
		}
		if !met {
			k.wrong(field, fmt.Sprintf("This box has no visible panel called “%s”.", words.Cut(word, 40)),
				"Choose one of "+k.offers()+".", "dress."+k.entry+"."+field, "outside")
			return nil, false
		}
	}
	for _, p := range k.out.Panels {
		if found[p] {
			out = append(out, p)
		}
	}
	return out, true
}

// named takes a text apart: at commas, and at spaces where a word is no name as it stands.
func (k *work) named(text string) (out []string) {
	text = strings.ReplaceAll(strings.ToLower(text), " and ", ",")
	for part := range strings.FieldsFuncSeq(text, func(r rune) bool { return r == ',' || r == ';' || r == '+' }) {
		part = strings.TrimSpace(part)
		if whole := strings.ReplaceAll(part, " ", "-"); len(k.pick(whole)) > 0 {
			out = append(out, whole)
			continue
		}
		out = append(out, strings.Fields(part)...)
	}
	return out
}

// pick gives the panels that one word names: a group, a part, a face, or the side that
// it looks to; "base/front" is of one part.
func (k *work) pick(word string) (out []*Panel) {
	part, what, of := strings.Cut(word, "/")
	if !of {
		part, what = "", word
	}
	part = strings.ReplaceAll(part, "-", " ")
	mine := func(p *Panel) bool { return part == "" || strings.ReplaceAll(p.Part, "-", " ") == part }
	take := func(pass func(*Panel) bool) bool {
		for _, p := range k.out.Panels {
			if mine(p) && pass(p) {
				out = append(out, p)
			}
		}
		return len(out) > 0
	}
	if group, known := groups[what]; known && take(group) || known && what != "lid" && what != "top" {
		return out
	}
	side := slices.Contains(roundOrder, what) && !of
	for _, pass := range []func(*Panel) bool{
		func(p *Panel) bool { return side && p.Looks == what && p.Shows && p.Face.Upright() },
		func(p *Panel) bool { return p.Name == what && p.Shows },
		func(p *Panel) bool { return p.Name == what },
		func(p *Panel) bool { return p.Within && p.Part == what },
		func(p *Panel) bool { return strings.ReplaceAll(p.Part, " ", "-") == what && p.Shows },
		func(p *Panel) bool { return p.Looks == what && p.Shows },
	} {
		if take(pass) {
			break
		}
	}
	return out
}

// offers lists what may be named.
func (k *work) offers() string {
	var names []string
	for _, p := range k.out.Panels {
		if name := p.Ref(); p.Shows && p.Nth == 0 && !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	if len(names) > 8 {
		names = names[:8]
	}
	if i := slices.IndexFunc(k.out.Panels, func(p *Panel) bool { return p.Within }); i >= 0 {
		names = append(names, k.out.Panels[i].Part)
	}
	return strings.Join(append(slices.Clone(Groups), names...), ", ")
}

// called names panels for people: "base left and right".
func (k *work) called(of []*Panel) string {
	var parts []string
	faces := map[string][]string{}
	for _, p := range of {
		if faces[p.Part] == nil {
			parts = append(parts, p.Part)
		}
		if name := words.Plain(p.Name); !slices.Contains(faces[p.Part], name) {
			faces[p.Part] = append(faces[p.Part], name)
		}
	}
	var says []string
	order := []string{"front", "back", "left", "right"}
	for _, part := range parts {
		slices.SortStableFunc(faces[part], func(a, b string) int {
			i, j := slices.Index(order, a), slices.Index(order, b)
			return cmp.Compare(uint(i), uint(j)) // what is not in it, -1, comes last
		})
		s := words.List(faces[part])
		switch {
		case k.several() && len(faces[part]) == 1 && s == part:
			s = part + " bottom"
		case k.several():
			s = part + " " + s
		}
		says = append(says, s)
	}
	return words.List(says)
}

// several reports whether the box has panels on more than one part.
func (k *work) several() bool {
	return slices.ContainsFunc(k.out.Panels, func(p *Panel) bool { return p.Part != k.out.Panels[0].Part })
}

// Stands is how a panel stands: how many quarter turns bring what is up to the top of
// the drawing, and how large it is in square millimetres.
type Stands struct {
	Face, Looks string
	Up          int
	Area        float64
}

// Upright tells of each piece how its panels stand that show.
func Upright(box *assembly.Box, t Length) map[string][]Stands {
	out := map[string][]Stands{}
	for _, p := range Panels(box, t) {
		if name := box.Part(p.Part).Piece.Name; p.Shows && p.Looks != "above" && p.Looks != "below" && p.Nth == 0 {
			out[name] = append(out[name], Stands{p.Name, p.Looks, p.up, p.Face.Area()})
		}
	}
	return out
}

// Panels finds the panels of a box's outside, before anything is put on.
func Panels(box *assembly.Box, t Length) []*Panel {
	k := &work{box: box, out: &Dressed{}, Means: Means{T: t}}
	k.look()
	return k.out.Panels
}

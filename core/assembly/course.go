package assembly

import (
	"slices"

	"brevium/core/net"
)

// Step is one moment of making the box: faces are folded, a part is put in its
// place, the contents go in, or the box is closed.
type Step struct {
	Does  string // fold, put, fill or close
	Part  string // its path; "" when everything goes in
	Piece *net.Piece
	Move  int // its place in the piece's order
	Faces []string
	Glues []net.Glue
}

// Course is the order of making: every piece is folded up, the parts are put
// together, the box is filled, and closed: small boxes within it first.
func (b *Box) Course() []Step {
	var steps, puts, inner, closing, ons []Step
	b.course(&b.Tree, "", &steps, &puts, &inner, &closing, &ons)
	return slices.Concat(steps, puts, []Step{{Does: "fill"}}, inner, closing, ons)
}

func (b *Box) course(tree *Tree, path string, steps, puts, inner, closing, ons *[]Step) {
	for i, part := range tree.Parts {
		if part.Rides || part.Loose {
			continue // stuck on while all is flat, or not in the folded box
		}
		if part.Within != nil {
			b.course(part.Within, path+part.Name+"/", steps, puts, inner, inner, inner)
			continue
		}
		p := part.Piece
		for k, m := range p.Order {
			s := Step{Does: "fold", Part: path + part.Name, Piece: p, Faces: m.Faces, Move: k}
			for _, g := range p.Glues {
				if k == stuck(p, g) {
					s.Glues = append(s.Glues, g)
				}
			}
			if m.When != net.Make {
				s.Does = "close"
				*closing = append(*closing, s)
			} else {
				*steps = append(*steps, s)
			}
		}
		switch put := (Step{Does: "put", Part: path + part.Name, Piece: p}); {
		case part.When == net.Close:
			put.Does = "close"
			*ons = append(*ons, put)
		case i > 0 || path != "":
			*puts = append(*puts, put)
		}
	}
}

// stuck is the first step at which a face can be stuck: both it and what it is stuck to have been folded.
func stuck(p *net.Piece, g net.Glue) int {
	if g.With > 0 {
		return g.With - 1
	}
	for i, v := range slices.Backward(p.Order) {
		if slices.Contains(v.Faces, g.Face) || slices.Contains(v.Faces, g.On) {
			return i
		}
	}
	return -1
}

// Opens reports whether a face moves when the box is opened.
func Opens(p *net.Piece, face string) bool {
	return slices.ContainsFunc(p.Order, func(m net.Move) bool {
		return m.When == net.Close && slices.Contains(m.Faces, face)
	})
}

// progress is how far the making has come.
type progress struct {
	folded map[string]map[string]float64 // piece, face: how many of its folds are done
	put    map[string]float64            // part: how far it has come to its place
	filled bool
}

// at gives the progress when so many steps are done.
func (b *Box) at(done float64) *progress {
	pr := &progress{folded: map[string]map[string]float64{}, put: map[string]float64{}}
	times := map[string]map[string]float64{}
	for _, p := range b.All() {
		pr.folded[p.Name], times[p.Name] = map[string]float64{}, map[string]float64{}
	}
	for i, s := range b.Course() {
		part := min(1, max(0, done-float64(i)))
		if len(s.Faces) == 0 {
			pr.put[s.Part] = part
			pr.filled = pr.filled || s.Does == "fill" && part > 0
			continue
		}
		for _, f := range s.Faces {
			pr.folded[s.Piece.Name][f] += part
			times[s.Piece.Name][f]++
		}
	}
	for p, faces := range pr.folded {
		for f := range faces {
			faces[f] /= times[p][f]
		}
	}
	return pr
}

// of gives how far the faces of a piece are folded.
func (pr *progress) of(piece string) func(string) float64 {
	return func(face string) float64 {
		if d, ok := pr.folded[piece][face]; ok {
			return d
		}
		return 1
	}
}

// finished reports whether all of a piece that has an order is folded.
func (pr *progress) finished(piece string) bool {
	for _, d := range pr.folded[piece] {
		if d < 1 {
			return false
		}
	}
	return true
}

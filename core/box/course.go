package box

import (
	"slices"

	"brevium/core/sheet"
)

// Step is one moment of making the box: faces are folded, a piece is put in
// its place, the contents go in, or the box is closed.
type Step struct {
	Does  string   // fold, put, fill or close
	Piece string   // "" when everything goes in
	Faces []string // that are folded
	Group int      // their place in the piece's order
	Glues []sheet.Glue
}

// Course is the order of making: every piece is folded up, the pieces are put
// together, the box is filled, and closed.
func (b *Box) Course() []Step {
	var steps, closing []Step
	for _, p := range b.Pieces {
		for i, group := range p.Order {
			s := Step{Does: "fold", Piece: p.Name, Faces: group, Group: i}
			for _, g := range p.Glues {
				if i == stuck(p, g) {
					s.Glues = append(s.Glues, g)
				}
			}
			if b.opens(p.Name, group) {
				s.Does = "close"
				closing = append(closing, s)
			} else {
				steps = append(steps, s)
			}
		}
	}
	for _, p := range b.Pieces {
		switch {
		case b.Closes(p.Name):
			closing = append(closing, Step{Does: "close", Piece: p.Name})
		case p.Name != b.Holder:
			steps = append(steps, Step{Does: "put", Piece: p.Name})
		}
	}
	return append(append(steps, Step{Does: "fill"}), closing...)
}

// stuck is the place in the order at which a face can be stuck: when both it
// and what it is stuck to have been folded.
func stuck(p *sheet.Piece, g sheet.Glue) int {
	if g.With > 0 {
		return g.With - 1
	}
	for i := len(p.Order) - 1; i >= 0; i-- {
		if slices.Contains(p.Order[i], g.Face) || slices.Contains(p.Order[i], g.On) {
			return i
		}
	}
	return -1
}

// opens says whether folding a group closes the box.
func (b *Box) opens(piece string, group []string) bool {
	last := b.Seals
	if piece == b.hinged() {
		last = slices.Concat(last, b.Opens)
	}
	for _, f := range group {
		if !slices.Contains(last, f) {
			return false
		}
	}
	return piece == b.hinged() || piece == b.Holder
}

func (b *Box) hinged() string {
	if b.Hinged != "" {
		return b.Hinged
	}
	return b.Holder
}

// Closes says whether putting a piece in its place closes the box.
func (b *Box) Closes(piece string) bool {
	for _, l := range b.Lids {
		if l.Piece == piece {
			return true
		}
	}
	for _, s := range b.Slides {
		if s.Into == piece {
			return true
		}
	}
	for _, m := range b.Mounts {
		if m.Piece == piece && m.Closes != "" {
			return true
		}
	}
	return false
}

// progress is how far the making has come.
type progress struct {
	folded map[string]map[string]float64 // piece, face: how many of its folds are done
	put    map[string]float64            // piece: how far it has come to its place
	filled bool
}

// at gives the progress when so many steps are done.
func (b *Box) at(done float64) progress {
	pr := progress{folded: map[string]map[string]float64{}, put: map[string]float64{}}
	times := map[string]map[string]float64{}
	for _, p := range b.Pieces {
		pr.folded[p.Name], times[p.Name] = map[string]float64{}, map[string]float64{}
	}
	for i, s := range b.Course() {
		part := min(1, max(0, done-float64(i)))
		if len(s.Faces) == 0 {
			pr.put[s.Piece] = part
			pr.filled = pr.filled || s.Does == "fill" && part > 0
			continue
		}
		for _, f := range s.Faces {
			pr.folded[s.Piece][f] += part
			times[s.Piece][f]++
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
func (pr progress) of(p *sheet.Piece) func(string) float64 {
	return func(face string) float64 {
		if d, ok := pr.folded[p.Name][face]; ok {
			return d
		}
		return 1
	}
}

// finished says whether all of a piece that has an order is folded.
func (pr progress) finished(piece string) bool {
	for _, d := range pr.folded[piece] {
		if d < 1 {
			return false
		}
	}
	return true
}

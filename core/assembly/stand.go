package assembly

import (
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/net"
)

// Pose says how far a box is put together, for a picture of it.
type Pose struct {
	Fold float64 // how much of the course is done: 0 flat on the table, 1 closed
	Lift float64 // how far it is opened again: 0 closed, 1 open
	Flat bool    // put away flat
}

// Closed is the finished box.
var Closed = Pose{Fold: 1}

// Standing is the pieces in their places, every copy.
type Standing struct {
	Bodies []*fold.Body
	Filled bool    // the contents are in
	gives  float64 // by how much more things may press, in millimetres
	of     map[string][]*fold.Body
	trees  []grown
	rides  []ride
}

// grown is one copy of a tree as it stands: the whole, or a box within it.
type grown struct {
	*Tree
	path   string
	bodies []*fold.Body
}

// whole is the whole tree as it stands.
func (s Standing) whole() grown { return s.trees[len(s.trees)-1] }

// all gives the bodies of a part of the tree, every copy of it in this copy of the tree.
func (g grown) all(part string) (out []*fold.Body) {
	for _, b := range g.bodies {
		if b.Name == g.path+part || strings.HasPrefix(b.Name, g.path+part+"/") {
			out = append(out, b)
		}
	}
	return out
}

// find finds a face by the path to it: of the first copy of its part.
func (g grown) find(r string) (*fold.Body, *fold.Placed) { return g.nth(r, 0) }

// nth is find for one of several copies.
func (g grown) nth(r string, n int) (*fold.Body, *fold.Placed) {
	part, face := ref(r)
	for _, b := range g.bodies {
		if b.Name == g.path+part {
			if n--; n < 0 {
				return b, b.Find(face)
			}
		}
	}
	return nil, nil
}

// Of gives the body of a part, the first of several copies.
func (s Standing) Of(part string) *fold.Body {
	if all := s.of[part]; len(all) > 0 {
		return all[0]
	}
	return nil
}

// All gives the bodies of every copy of a part, and of the parts within it.
func (s Standing) All(part string) []*fold.Body { return s.of[part] }

// Only gives those bodies of the standing that are kept: asked by the path of their part
// and, of what rides, by the part it rides on.
func (s Standing) Only(keep func(part, on string) bool, filled bool) Standing {
	out := s
	out.Bodies, out.Filled = nil, s.Filled && filled
	for _, b := range s.Bodies {
		on, _ := ref(s.Rides(b))
		if keep(b.Name, on) {
			out.Bodies = append(out.Bodies, b)
		}
	}
	return out
}

func (s *Standing) add(path string, body *fold.Body) {
	s.Bodies = append(s.Bodies, body)
	s.of[path] = append(s.of[path], body)
}

// Box gives the bodies that are no inserts.
func (s Standing) Box() (out []*fold.Body) {
	for _, b := range s.Bodies {
		if b.Piece.Part != net.Insert {
			out = append(out, b)
		}
	}
	return out
}

// Assemble folds the pieces and puts them together, as far as the pose says.
func (b *Box) Assemble(t Length, pose Pose) Standing {
	if pose.Fold >= 1 {
		return together(b, t, pose, nil)
	}
	return b.After(t, pose.Fold*float64(len(b.Course())))
}

// After gives the box when so many steps of its course are done. Parts that are
// not in their places yet lie in a row beside the first, which stays.
func (b *Box) After(t Length, steps float64) Standing {
	pr := b.at(steps)
	s, goal := together(b, t, Closed, pr), together(b, t, Closed, nil)
	asCut := func(p *net.Piece) (left, right float64) {
		lo, hi := fold.Bounds(fold.Up(p, t.MM(), func(string) float64 { return 0 }))
		return lo.X, hi.X
	}
	_, x := asCut(s.Bodies[0].Piece)
	for i, body := range s.Bodies[1:] {
		if s.isRiding(body) {
			continue
		}
		end := goal.Bodies[i+1]
		apart := fold.Folded(body.Piece, t.MM())
		left, right := asCut(body.Piece)
		spot := fold.Vec{X: x + 20 - left}
		x += 20 + right - left
		apart.Move(spot)
		body.Move(spot)
		if part := pr.put[body.Name]; part > 0 {
			lo, hi := fold.Bounds(end)
			body.Carry(fold.Way(apart, end), part, hi.Z-lo.Z+40)
		}
	}
	for _, r := range s.rides {
		place(b, s.whole(), r.part, r.at, []*fold.Body{r.body}, Closed)
	}
	return s
}

// together puts folded pieces in their places. With a progress it folds them only so far, and leaves those that
// are not in place yet where they were folded.
func together(b *Box, t Length, pose Pose, pr *progress) Standing {
	s := Standing{of: map[string][]*fold.Body{}, Filled: pr == nil || pr.filled, gives: gives(b)}
	stand(b, &s, &b.Tree, hand{}, t, pose, pr, pr == nil)
	return s
}

// hand is which copy of a tree stands: the path to it, and whether it is made for the other hand.
type hand struct {
	path   string
	mirror bool
}

// stand adds every copy of the parts of a tree, each in its place among those before it.
func stand(b *Box, s *Standing, tree *Tree, h hand, t Length, pose Pose, pr *progress, placed bool) []*fold.Body {
	from, path := len(s.Bodies), h.path
	for _, p := range tree.Parts {
		if p.Loose {
			continue
		}
		for _, at := range places(p) {
			if h.mirror {
				at.Mirror, at.Right, at.Quarters = !at.Mirror, -at.Right, (4-at.Quarters)%4
			}
			var copied []*fold.Body
			if p.Within != nil {
				copied = stand(b, s, p.Within, hand{path + p.Name + "/", at.Mirror}, t, Closed, pr, placed)
				s.of[path+p.Name] = append(s.of[path+p.Name], copied...)
			} else {
				body := body(b, p, at, path, t, pose, pr)
				s.add(path+p.Name, body)
				copied = []*fold.Body{body}
				if p.Rides {
					s.rides = append(s.rides, ride{body, p, at})
				}
			}
			if placed {
				place(b, grown{tree, path, s.Bodies[from:]}, p, at, copied, pose)
			}
		}
	}
	s.trees = append(s.trees, grown{tree, path, s.Bodies[from:]})
	return s.Bodies[from:]
}

// places are where the copies of a part go; the first of a tree stands as it is.
func places(p *Part) []Place {
	if len(p.At) == 0 {
		return []Place{{}}
	}
	return p.At
}

// place carries the bodies of one copy to their place, and takes off again what
// closes the box when it is open. What is missing, the proof says.
func place(b *Box, among grown, p *Part, at Place, bodies []*fold.Body, pose Pose) {
	if at.Face == "" {
		return
	}
	_, face := grown{p.Within, among.path + p.Name + "/", bodies}.find(at.Face)
	if p.Within == nil {
		face = bodies[0].Find(at.Face)
	}
	var on *fold.Placed
	if at.On != "" {
		_, on = among.nth(at.On, at.Nth)
	}
	if face == nil || on == nil && at.On != "" {
		return
	}
	way := fold.Onto(face, on, fold.Place{Right: at.Right.MM(), Down: at.Down.MM(), Out: at.Out.MM(),
		Quarters: at.Quarters, Over: at.Over, Stood: at.Stood})
	for _, body := range bodies {
		if p.Rides && on != nil {
			body.Back = on.Body.T
		}
		body.Carry(way, 1, 0)
		takeOff(among.bodies[0], p, at, body, lifted(b, p, pose.Lift))
	}
}

// lifted is how far a part is off when the box is so far open: what goes round all of it
// comes off before the rest does.
func lifted(b *Box, p *Part, lift float64) float64 {
	if !belted(b) {
		return lift
	}
	if p != nil && p.belt() {
		return min(1, 2*lift)
	}
	return max(0, 2*lift-1)
}

// belt reports whether a part goes round what is closed: a band or a ribbon.
func (p *Part) belt() bool {
	return p.When == net.Close && p.Piece != nil && (p.Piece.Part == net.Band || p.Piece.Part == net.Ribbon)
}

func belted(b *Box) bool { return slices.ContainsFunc(b.Parts, (*Part).belt) }

func takeOff(holder *fold.Body, p *Part, at Place, body *fold.Body, lift float64) {
	lo, hi := fold.Bounds(body)
	first, last := fold.Bounds(holder)
	by := fold.Vec{}
	switch p.Off {
	case Up:
		by = fold.Vec{Y: (hi.Y - lo.Y) * 0.85 * max(0, 2*lift-1), Z: (hi.Z - lo.Z) * 1.1 * min(1, 2*lift)}
	case Aside:
		by = fold.Vec{X: (last.X - first.X) * 0.8 * lift}
	case Corner:
		by = fold.Vec{X: first.X - last.X, Y: first.Y - last.Y}.Times(0.55 * lift)
	}
	for range at.Quarters {
		by.X, by.Y = by.Y, -by.X
	}
	body.Move(by)
}

// body folds one copy of a part and, once it is folded, presses what is stuck or tucked aside.
func body(b *Box, p *Part, at Place, path string, t Length, pose Pose, pr *progress) *fold.Body {
	piece := p.Piece
	done := func(string) float64 { return 1 }
	if pr != nil {
		done = pr.of(piece.Name)
	}
	opens := map[string]float64{}
	if path == "" && pose.Lift > 0 {
		opens = opened(b, piece, lifted(b, nil, pose.Lift))
	}
	if at.Mirror {
		piece = piece.Mirrored()
	}
	if pose.Flat {
		body := fold.UpTo(piece, t.MM(), func(string) float64 { return 0 }, b.flat(p.Name))
		body.Name = path + p.Name
		return body
	}
	body := fold.Up(piece, t.MM(), func(face string) float64 {
		return done(face) * (1 - opens[face])
	})
	body.Name = path + p.Name
	if pr == nil || pr.finished(p.Piece.Name) {
		body.Press(func(face, on string) bool { return (opens[face] > 0) == (opens[on] > 0) })
	}
	return body
}

// opened gives how far each face of a piece is opened: all that closes it at once, or in turn, the last first.
func opened(b *Box, p *net.Piece, lift float64) map[string]float64 {
	out := map[string]float64{}
	var closing []net.Move
	for _, m := range p.Order {
		if m.When == net.Close {
			closing = append(closing, m)
		}
	}
	for i, m := range closing {
		part := lift
		if n := len(closing); b.InTurn {
			part = min(1, max(0, lift*float64(n)-float64(n-1-i)))
		}
		for _, f := range m.Faces {
			if out[f] = openBy(b) * part; p.Part == net.Insert { // it lies open again, and stays folded in
				out[f] = part * closes(p, f)
			}
		}
	}
	return out
}

// closes is how much of a face's folding closes the box.
func closes(p *net.Piece, face string) float64 {
	all, shut := 0.0, 0.0
	for _, m := range p.Order {
		if slices.Contains(m.Faces, face) {
			if all++; m.When == net.Close {
				shut++
			}
		}
	}
	return shut / max(all, 1)
}

// openBy is how far what opens is folded back, of how far it was folded.
func openBy(b *Box) float64 {
	if b.OpenBy == 0 {
		return 0.62
	}
	return b.OpenBy
}

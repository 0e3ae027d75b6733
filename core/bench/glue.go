package bench

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/words"
)

// Glue is the glue map of a folded box: where each piece is stuck, on which side, as dots one can copy.
type Glue struct {
	Box    *assembly.Box
	Sticks Sticks
}

// Spread is what is stuck of one face.
type Spread struct {
	Face    string
	Outside bool        // the glue goes on the outside of it
	Taped   bool        // tape in place of glue
	Dots    []net.Point // where glue goes, as the piece is drawn
}

// how far apart dots are at the least, about how many a large face has, and how far from the
// edges they stay where there is room; in millimetres
const dotsApart, dotsMost, dotsIn = 8.0, 24.0, 2.5

// spot is a face that is stuck: by a glue of its own piece, or by what joins it to another.
type spot struct {
	face    *net.Face
	outside bool
	strips  int                  // of tape along it, where it takes tape; its own piece's tape is counted there
	hidden  func(net.Point) bool // nil: all of it is
}

// Spreads lists where a piece gets tape or glue: the faces it is stuck by to itself, to other pieces (there the
// smaller face gets it), or to what it lies on as a layer. What would show beside the other face has no dots.
func (g Glue) Spreads(piece *net.Piece) (out []Spread) {
	for _, s := range g.spots(piece) {
		out = append(out, Spread{s.face.Name, s.outside, g.Sticks.Taped(piece, s.face.Name), dots(s.face, s.hidden)})
	}
	return out
}

func (g Glue) spots(piece *net.Piece) (out []spot) {
	body := g.bodyOf(piece)
	for _, own := range piece.Glues {
		f := piece.Face(own.Face)
		if f != nil && !slices.ContainsFunc(out, func(s spot) bool { return s.face == f }) {
			mine, on := body.find(own.Face), body.find(own.On)
			out = append(out, spot{f, gluedOutside(own, mine, on), 0, hiddenUnder(mine, on)})
		}
	}
	for _, j := range g.Box.Joins {
		if s, ok := g.joined(piece, j); ok {
			out = append(out, s)
		}
	}
	for _, part := range g.Box.Parts {
		if part.Rides && part.Piece == piece && len(part.At) > 0 && piece.Part != net.Ribbon {
			if f := piece.Face(part.At[0].Face); f != nil {
				out = append(out, spot{f, part.At[0].Over, 2, nil})
			}
		}
	}
	return out
}

// gluedOutside reports whether a face is stuck by its outside: a tab behind a wall is, for both look
// the same way; what is folded right over, as a rolled wall is, lies with its inside on the other's.
func gluedOutside(g net.Glue, f, on *fold.Placed) bool {
	return (f != nil && on != nil && f.In.Dot(on.In) < -0.5) == g.Outside
}

// inside gives the faces of each piece that are stuck to it by their insides.
func (g Glue) inside(pieces []*net.Piece) map[*net.Piece]map[string]bool {
	out := map[*net.Piece]map[string]bool{}
	for _, piece := range pieces {
		out[piece] = map[string]bool{}
		body := g.bodyOf(piece)
		for _, own := range piece.Glues {
			if !gluedOutside(own, body.find(own.Face), body.find(own.On)) {
				out[piece][own.Face] = true
			}
		}
	}
	return out
}

// between is the tape by which pieces are stuck to others: a strip along a face that is joined, two along a layer,
// at its long edges.
func (g Glue) between(pieces []*net.Piece, copies int) (out []Strip) {
	for _, piece := range pieces {
		for _, s := range g.spots(piece) {
			if s.strips == 0 || !g.Sticks.Taped(piece, s.face.Name) {
				continue
			}
			lo, hi := s.face.Bounds()
			out = append(out, Strip{Piece: piece.Name, Face: s.face.Name, Long: max(hi.X-lo.X, hi.Y-lo.Y),
				Count: s.strips * piece.Count * copies})
		}
	}
	return out
}

// standing finds a face of the closed box.
type standing struct{ *fold.Body }

func (s standing) find(face string) *fold.Placed {
	if s.Body == nil {
		return nil
	}
	return s.Body.Find(face)
}

func (g Glue) bodyOf(piece *net.Piece) standing {
	for _, b := range g.Box.Proved.Bodies {
		if b.Piece == piece {
			return standing{b}
		}
	}
	return standing{}
}

// joined is what a join of two parts sticks on this piece: nothing when the other face is the smaller, for that
// one gets the tape.
func (g Glue) joined(piece *net.Piece, j assembly.Join) (spot, bool) {
	nameA, faceA := assembly.Ref(j.A)
	nameB, faceB := assembly.Ref(j.B)
	a, b := g.Box.Part(nameA), g.Box.Part(nameB)
	if !j.Stuck || a == nil || b == nil || a.Piece == nil || b.Piece == nil {
		return spot{}, false
	}
	fa, fb := a.Piece.Face(faceA), b.Piece.Face(faceB)
	if fa == nil || fb == nil {
		return spot{}, false
	}
	mine, face, other, on := nameA, fa, nameB, faceB
	if fb.Area() < fa.Area() {
		mine, face, other, on = nameB, fb, nameA, faceA
	}
	if g.Box.Part(mine).Piece != piece {
		return spot{}, false
	}
	here, there := standing{g.Box.Proved.Of(mine)}.find(face.Name), standing{g.Box.Proved.Of(other)}.find(on)
	outside := here == nil || there == nil || there.Middle().Sub(here.Middle()).Dot(here.In) < 0
	return spot{face, outside, 1, hiddenUnder(here, there)}, true
}

// hiddenUnder gives a function that reports whether the other face covers a place of this one; nil when it is not
// known where the two stand.
func hiddenUnder(face, on *fold.Placed) func(net.Point) bool {
	if face == nil || on == nil {
		return nil
	}
	return func(at net.Point) bool { return net.Inside(on.Points, on.Under(face.Place(at))) }
}

// dots spreads dots evenly over a face, a little in from its edges, where they are hidden.
func dots(f *net.Face, hidden func(net.Point) bool) (out []net.Point) {
	lo, hi := f.Bounds()
	w, h := (hi.X - lo.X).MM(), (hi.Y - lo.Y).MM()
	apart := max(dotsApart, math.Sqrt(w*h/dotsMost))
	nx, ny := max(1, int(w/apart)), max(1, int(h/apart))
	from := min(dotsIn, w/4, h/4)
	for y := range ny {
		for x := range nx {
			at := net.Point{X: lo.X + measure.FromMM(w*(float64(x)+0.5)/float64(nx)),
				Y: lo.Y + measure.FromMM(h*(float64(y)+0.5)/float64(ny))}
			if net.Inside(f.Points, at) && fromEdges(f, at) >= from && (hidden == nil || hidden(at)) {
				out = append(out, at)
			}
		}
	}
	if len(out) == 0 {
		out = []net.Point{f.Centre()}
	}
	return out
}

// fromEdges is how far a point stays from the edges of a face and of its holes, in millimetres.
func fromEdges(f *net.Face, at net.Point) float64 {
	least := math.Inf(1)
	for _, ring := range append([][]net.Point{f.Points}, f.Holes...) {
		if net.Inside(ring, at) != (&ring[0] == &f.Points[0]) {
			return 0
		}
		for i, a := range ring {
			b := ring[(i+1)%len(ring)]
			ux, uy := (b.X - a.X).MM(), (b.Y - a.Y).MM()
			vx, vy := (at.X - a.X).MM(), (at.Y - a.Y).MM()
			t := min(1, max(0, (ux*vx+uy*vy)/max(ux*ux+uy*uy, 1e-12)))
			least = min(least, math.Hypot(vx-t*ux, vy-t*uy))
		}
	}
	return least
}

// Frames lists the pictures that show where pieces are stuck: of each from outside, from inside, or both.
func (g Glue) Frames(pieces []*net.Piece) (out []Frame) {
	for _, piece := range pieces {
		all := g.spots(piece)
		for _, l := range []Look{GlueOut, GlueIn} {
			if slices.ContainsFunc(all, func(s spot) bool { return s.outside == (l == GlueOut) }) {
				out = append(out, Frame{Look: l, Piece: piece.Name,
					Says: fmt.Sprintf("%s, seen from its %s", words.Plain(piece.Name), l.Side())})
			}
		}
	}
	return out
}

// Said tells how the glue map is read.
func (g Glue) Said() string {
	what := map[string]string{"tape": "Tape", "both": "Tape (the darker faces) or glue (the lighter ones)"}[g.Sticks.ID]
	return cmp.Or(what, "Glue") + " goes where the dots are, on the side shown. Keep it away from where it would show."
}

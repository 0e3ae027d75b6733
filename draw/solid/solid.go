// Package solid makes the pictures of a box as it stands, closed, open or on its way there, and the solid that the page
// turns.
package solid

import (
	"encoding/json"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/shop"
	"brevium/draw/pen"
)

// Solid is the box for a view that turns it: flat shapes, and where each stands
// at each moment of the course. Lengths are millimetres. Frames are numbered;
// whole steps of the course end at the frames the steps name, the box is closed
// at frame Closed, and from there to Open it is opened again.
type Solid struct {
	Cards  []solidCard `json:"cards"`
	Shapes []solidForm `json:"shapes"`
	Faces  []solidFace `json:"faces"`
	Steps  []solidStep `json:"steps"`
	Things []solidBody `json:"things"`
	Filled int         `json:"filled"`
	Closed int         `json:"closed"`
	Open   int         `json:"open"`
}

// solidCard is a card that faces are of.
type solidCard struct {
	Caliper float64 `json:"caliper"`
	Outside string  `json:"outside"`
	Inside  string  `json:"inside"`
	Tile    string  `json:"tile,omitempty"` // what the outside's pattern repeats, a picture
	TileMM  float64 `json:"tileSize"`       // and the side of that
}

// solidForm is a face as cut: points round its middle, x to the right and y up
// with the inside towards you; triangles; and the rings of its rim and holes.
type solidForm struct {
	Mid       [2]float64 `json:"mid"`
	Points    []float64  `json:"points"`
	Triangles []int      `json:"triangles"`
	Rings     [][]int    `json:"rings"`
	Creases   []int      `json:"creases,omitempty"` // sides of the first ring where the card goes on
	Smooth    []int      `json:"smooth,omitempty"`  // and of these, where it goes on without a line
	Behind    bool       `json:"behind,omitempty"`  // its outside lies on other card
}

// solidFace is a face in space. Moves lists frame, middle and turn (a
// quaternion): eight numbers for each frame at which it starts, changes or ends
// a motion.
type solidFace struct {
	Shape int       `json:"shape"`
	Card  int       `json:"card,omitempty"`
	Name  string    `json:"name"`
	On    string    `json:"on,omitempty"` // the panel it is stuck on
	Moves []float64 `json:"moves"`
}

type solidStep struct {
	Says  string `json:"says"`
	End   int    `json:"end"`
	Glued []int  `json:"glued,omitempty"`
}

type solidBody struct {
	Shape    int        `json:"shape"`
	Lo       [3]float64 `json:"lo"`
	Hi       [3]float64 `json:"hi"`
	Neck     float64    `json:"neck,omitempty"`
	Shoulder float64    `json:"shoulder,omitempty"`
}

// frames is how many pictures a step of each kind takes.
var frames = map[string]int{"fold": 6, "put": 8, "close": 8, "fill": 1}

// openFrames is how many it takes to open the finished box.
const openFrames = 10

// newSolid begins a solid of so many cards.
func newSolid(cards ...shop.Card) *Solid {
	s := &Solid{Things: []solidBody{}}
	for _, c := range cards {
		s.Cards = append(s.Cards, solidCard{c.Caliper.MM(), c.Colour, c.Inside, pen.TileImage(c), pen.RepeatOf(c)})
	}
	return s
}

// add adds the faces of a body of a card, named after a prefix, with a shape for
// every face that is cut.
func (s *Solid) add(b *fold.Body, card int, prefix string, shapes map[*net.Face]int) {
	for _, f := range b.Faces {
		if _, known := shapes[f.Face]; !known {
			shapes[f.Face] = len(s.Shapes)
			shape := form(f)
			// What opens the box lies on nothing then.
			shape.Behind = f.Layer > 0 && !f.Over && !assembly.Opens(b.Piece, f.Name)
			s.Shapes = append(s.Shapes, shape)
		}
		s.Faces = append(s.Faces, solidFace{Shape: shapes[f.Face], Card: card, Name: prefix + b.Name + "/" + f.Name})
	}
}

// SolidOf works out the solid of a plan.
func SolidOf(p *plan.Plan) *Solid {
	cards, of := p.AllCards(), map[string]int{}
	for i, c := range cards {
		of[c.ID] = i
	}
	s := newSolid(cards...)
	index := map[string]int{}
	shapes := map[*net.Face]int{}
	closed := p.Box.Assemble(p.Card.Caliper, assembly.Closed)
	for _, b := range closed.Bodies {
		from := len(s.Faces)
		s.add(b, of[p.CardOf(b.Piece.Stock).ID], "", shapes)
		on := closed.Rides(b)
		x, y := p.Dressed.Begins(b.Piece, on)
		for i := range s.Faces[from:] {
			f := &s.Faces[from+i]
			if f.On = on; x != 0 || y != 0 { // of a run each copy has a print of its own
				shape := s.Shapes[f.Shape]
				shape.Mid = [2]float64{round(shape.Mid[0]+x.MM(), 2), round(shape.Mid[1]+y.MM(), 2)}
				f.Shape, s.Shapes = len(s.Shapes), append(s.Shapes, shape)
			}
		}
	}
	for i, v := range slices.Backward(s.Faces) {
		index[v.Name] = i
	}
	tracks := make([][][7]float64, len(s.Faces))
	record := func(a assembly.Standing) {
		i := 0
		for _, b := range a.Bodies {
			for _, f := range b.Faces {
				tracks[i] = append(tracks[i], placing(f))
				i++
			}
		}
	}
	record(p.Box.After(p.Card.Caliper, 0))
	for i, m := range p.Course() {
		n := frames[m.Does]
		for k := 1; k <= n; k++ {
			record(p.Box.After(p.Card.Caliper, float64(i)+float64(k)/float64(n)))
		}
		step := solidStep{Says: m.Says, End: len(tracks[0]) - 1}
		for _, g := range m.Glues {
			step.Glued = append(step.Glued, index[m.Part+"/"+g.Face])
		}
		if m.Does == "fill" {
			s.Filled = step.End
		}
		s.Steps = append(s.Steps, step)
	}
	s.Closed = len(tracks[0]) - 1
	for k := 1; k <= openFrames; k++ {
		record(p.Box.Assemble(p.Card.Caliper, assembly.Pose{Fold: 1, Lift: float64(k) / openFrames}))
	}
	s.Open = len(tracks[0]) - 1
	for i := range s.Faces {
		s.Faces[i].Moves = moves(tracks[i])
	}
	for _, b := range p.Blocks {
		s.Things = append(s.Things, solidBody{int(b.Shape), [3]float64{round(b.Lo.X, 2), round(b.Lo.Y, 2), round(b.Lo.Z, 2)},
			[3]float64{round(b.Hi.X, 2), round(b.Hi.Y, 2), round(b.Hi.Z, 2)}, round(b.Neck, 2), round(b.Shoulder, 2)})
	}
	return s
}

// JSON writes the solid for the page.
func (s *Solid) JSON() []byte {
	data, err := json.Marshal(s)
	if err != nil {
		panic(err) // only numbers and texts
	}
	return data
}

func round(x float64, places int) float64 {
	k := math.Pow10(places)
	return math.Round(x*k) / k
}

// form cuts the face into triangles, its points measured from its middle.
func form(f *fold.Placed) solidForm {
	lo, hi := f.Bounds()
	out := solidForm{Mid: [2]float64{round((lo.X+hi.X).MM()/2, 2), round((lo.Y+hi.Y).MM()/2, 2)}}
	at := map[[2]float64]int{}
	mid := f.Middle()
	point := func(v fold.Vec) int {
		d := v.Sub(mid)
		q := [2]float64{round(d.Dot(f.X), 2), round(-d.Dot(f.Y), 2)}
		i, known := at[q]
		if !known {
			i = len(at)
			at[q] = i
			out.Points = append(out.Points, q[0], q[1])
		}
		return i
	}
	for _, ring := range append([][]fold.Vec{f.Poly}, f.Holes...) {
		var r []int
		for _, v := range ring {
			r = append(r, point(v))
		}
		out.Rings = append(out.Rings, r)
	}
	for i, e := range f.Edges {
		if !e.Kind.Open() && e.Beyond != nil && !e.Beyond.Waste {
			out.Creases = append(out.Creases, i)
			if f.Smooth(i) {
				out.Smooth = append(out.Smooth, i)
			}
		}
	}
	for _, part := range f.Convex(fold.Cuts{}) {
		for i := 2; i < len(part.Points); i++ {
			out.Triangles = append(out.Triangles, point(part.Points[0]), point(part.Points[i-1]), point(part.Points[i]))
		}
	}
	return out
}

// placing gives the middle of a face and its turn from lying on the table.
func placing(f *fold.Placed) [7]float64 {
	m := f.Middle()
	x, y, z := f.X, f.Y.Times(-1), f.In
	q := quaternion(x, y, z)
	return [7]float64{round(m.X, 2), round(m.Y, 2), round(m.Z, 2), round(q[0], 4), round(q[1], 4), round(q[2], 4),
		round(q[3], 4)}
}

// quaternion of the turn whose columns are given.
func quaternion(x, y, z fold.Vec) [4]float64 {
	m := [3][3]float64{{x.X, y.X, z.X}, {x.Y, y.Y, z.Y}, {x.Z, y.Z, z.Z}}
	if tr := m[0][0] + m[1][1] + m[2][2]; tr > 0 {
		s := math.Sqrt(tr+1) * 2
		return [4]float64{(m[2][1] - m[1][2]) / s, (m[0][2] - m[2][0]) / s, (m[1][0] - m[0][1]) / s, s / 4}
	}
	i := 0
	for k := range 3 {
		if m[k][k] > m[i][i] {
			i = k
		}
	}
	j, k := (i+1)%3, (i+2)%3
	s := math.Sqrt(max(0, m[i][i]-m[j][j]-m[k][k]+1)) * 2
	var q [4]float64
	q[i], q[j], q[k], q[3] = s/4, (m[j][i]+m[i][j])/s, (m[k][i]+m[i][k])/s, (m[k][j]-m[j][k])/s
	return q
}

// moves keeps the frames at which something changes.
func moves(track [][7]float64) (out []float64) {
	for k, at := range track {
		if k == 0 || k == len(track)-1 || at != track[k-1] || at != track[k+1] {
			out = append(out, float64(k))
			out = slices.Concat(out, at[:])
		}
	}
	return out
}

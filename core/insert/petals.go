package insert

import (
	"fmt"
	"math"

	"brevium/core/assembly"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/style"
)

var petals = &Kind{
	ID: "petals", Title: "Petals", Why: "A square of card folds over your things and opens like a flower. For square trays.",
	Alone: true, Build: (*Maker).petals,
	Needs: func(need style.Dims, _ contents.Load, j *style.Spec) style.Dims {
		side := max(need.Length, need.Width)
		return style.Dims{Length: side + 2*j.T() + 2*j.Mark(), Width: side + 2*j.T() + 2*j.Mark(),
			Depth: need.Depth + petalLayers*j.T() + papered*j.Papers}
	},
}

// petalLayers is how many thicknesses of card lie over the things: a flap, a
// petal of two layers, its tip folded back, and a hair of air.
const petalLayers = 6

// papered is how many layers of paper lie on each other when petals are dressed: on a petal, and on the tip
// that is folded back over it.
const papered = 2

// petals lays a square over the tray, twice as wide as it is inside. The middle is cut on both diagonals; its
// triangles, the feet, are stuck inside the walls. What lies beyond folds over the things in four triangles, and
// between each two of them a petal, folded on its own diagonal, its tip folded back.
func (m *Maker) petals() {
	j, t, step := m.Spec, m.t(), m.step()
	in := m.Box.Inside
	if !style.Suits(j, "petals", m.Box) {
		return
	}
	if off := (in.Length - in.Width).Abs(); off > 4*t+2*step {
		side := max(in.Length, in.Width)
		j.Problem(j.SizeField("width"), fmt.Sprintf("Petals need a square tray. This one is %s × %s inside.",
			j.Say(in.Length.Down(step)), j.Say(in.Width.Down(step))),
			fmt.Sprintf("Make it square: %s each way.", j.Say(side.Up(step))), m.square()...)
		return
	}
	wide := 2 * ((min(in.Length, in.Width) - t) / 2).Down(step)
	rim := in.Depth - (petalLayers-1)*t - papered*j.Papers // above the floor
	deep := min(wide/2, (rim - t).Down(step))
	if deep < j.Adhesive.Width || wide < 4*step {
		j.Problem(j.SizeField("depth"), fmt.Sprintf("The feet of the petals have only %s of wall to stick to. %s needs %s.",
			j.Say(max(0, deep)), j.Adhesive.Title, j.Say(j.Wide())), "Make the box deeper and wider, or choose no compartments.", none...)
		return
	}
	p := petalSheet(wide, deep)
	m.add(p, m.at("back-foot", 0, wide.MM()/2, (rim-deep).MM(), stood))
	m.stickFeet(p, wide)
}

// square is the change that makes a size that was given square.
func (m *Maker) square() []string {
	if g := m.Spec.Given; g != nil {
		side := max(g.Length, g.Width).Exact(m.Spec.Units)
		return []string{"size.length", side, "size.width", side}
	}
	return none
}

// stickFeet sticks each foot inside the wall it stands at.
func (m *Maker) stickFeet(p *net.Piece, wide Length) {
	tray := m.Box.Parts[0]
	body := m.Box.Assemble(m.t(), assembly.Closed).Of(tray.Name)
	mid := m.Box.Lo.Add(m.Box.Hi).Times(0.5)
	gap := 0.0
	for _, w := range []struct {
		side string
		to   fold.Vec
		in   Length
	}{{"back", fold.Vec{Y: 1}, m.Box.Inside.Width}, {"front", fold.Vec{Y: -1}, m.Box.Inside.Width},
		{"left", fold.Vec{X: -1}, m.Box.Inside.Length}, {"right", fold.Vec{X: 1}, m.Box.Inside.Length}} {
		wall := w.side
		if body != nil && body.Find(wall+"-roll") != nil {
			wall += "-roll"
		}
		f := body.Find(wall)
		if f == nil {
			continue // a draft
		}
		free := (w.in-wide).MM()/2 - m.t().MM()/2
		layers := math.Round((f.Middle().Sub(mid).Dot(w.to) - wide.MM()/2 - free) / m.t().MM())
		gap = max(gap, free)
		m.Box.Joins = append(m.Box.Joins, assembly.Join{A: p.Name + "/" + w.side + "-foot", B: tray.Name + "/" + wall,
			Layers: max(1, int(layers)), Stuck: true, Lapped: true})
	}
	p.Rounded = measure.FromMM(gap) // the feet give to the walls by that
}

// flower are the four sides round the square, in turn.
var flower = []string{"back", "right", "front", "left"}

// petalSheet is the square, its feet so deep.
func petalSheet(wide, deep Length) *net.Piece {
	half := wide / 2
	p := net.Grid("petals", net.Cols(half, wide, half), net.Rows(half, wide, half), `
		back-left-tip  back-flap  back-right-tip
		left-flap      back-foot  right-flap
		front-left-tip front-flap front-right-tip`)
	at := func(x, y Length) net.Point { return net.Point{X: x, Y: y} }
	lo, hi := half+deep, half+wide-deep
	p.Rename("back-foot", at(wide, half+deep/2))
	p.Label(at(wide, half+wide-deep/2), "front-foot")
	p.Label(at(half+deep/2, wide), "left-foot")
	p.Label(at(half+wide-deep/2, wide), "right-foot")
	if lo < hi {
		p.CutAlong(at(lo, lo), at(hi, lo), at(hi, hi), at(lo, hi), at(lo, lo))
		p.Discard(at(wide, wide))
	}
	corner := []net.Point{at(half, half), at(half+wide, half), at(half+wide, half+wide), at(half, half+wide)}
	inner := []net.Point{at(lo, lo), at(hi, lo), at(hi, hi), at(lo, hi)}
	out := []net.Point{at(0, 0), at(2*wide, 0), at(2*wide, 2*wide), at(0, 2*wide)}
	tip := []net.Point{at(wide, 0), at(2*wide, wide), at(wide, 2*wide), at(0, wide)} // of each flap
	for i, side := range flower {
		p.CutAlong(corner[i], inner[i])
		before := flower[(i+3)%4]
		p.Split(side+"-flap", net.Score, corner[i], tip[i], side+"-"+before+"-half")
		after := flower[(i+1)%4]
		p.Split(side+"-flap", net.Score, tip[i], corner[(i+1)%4], side+"-"+after+"-half")
	}
	foldPetals(p, corner, out)
	return p
}

// foldPetals scores the tips from the corners of the tray out, and says how feet,
// flaps and petals fold and in which turn.
func foldPetals(p *net.Piece, corner, out []net.Point) {
	var moved []string
	for i, side := range flower {
		before := flower[(i+3)%4]
		cell := map[int]string{0: "back-left-tip", 1: "back-right-tip", 2: "front-right-tip", 3: "front-left-tip"}[i]
		mine, other := side+"-"+before+"-tip", before+"-"+side+"-tip"
		if cell == mine {
			p.Split(cell, net.Score, corner[i], out[i], other)
		} else {
			p.Split(cell, net.Score, out[i], corner[i], mine)
		}
		flap, half, over := side+"-flap", side+"-"+before+"-half", before+"-"+side+"-half"
		p.Twice(-90, 90, net.Valley, side+"-foot", flap)
		p.Turn(180, net.Mountain, flap, half)
		p.Turn(0, net.Valley, before+"-flap", over)
		p.Turn(180, net.Valley, mine, other, half)
		p.Turn(180, net.Mountain, over, other)
		for layer, face := range []string{half, over, other, mine} {
			p.Over(face, flap, layer+1)
		}
		p.Role("foot", side+"-foot")
		p.Paths = append(p.Paths, petalPaths(side+"-foot", flap, half, mine, other, over, before+"-flap")...)
		p.Role("flap", flap)
		p.Role("petal", half, over, mine, other)
		moved = append(moved, side+"-foot", flap, half, over, mine, other)
	}
	p.Root = "back-foot"
	p.FoldUp(moved...)
	p.Tell("fold the four feet down")
	p.Closing(moved...)
	p.Tell("fold the four flaps over to the middle, each petal on its diagonal, and the tips back")
}

// parts of the way on which petals close: the flaps rise and come down, the petals between them folding in two;
// then each is laid over a flap; then its tip is folded back.
const rises, lays, ways = 30, 40, 50

// petalPaths gives the angles of the creases of one corner on the way. While both flaps have risen by φ, the
// petal's two halves lean out from them alike, and its diagonal stays over the tray's: tan α = tan(φ/2)/√2.
func petalPaths(foot, flap, half, mine, other, over, before string) []net.Path {
	lean, shut := make([]float64, ways+1), make([]float64, ways+1)
	rise, lay, tip := make([]float64, ways+1), make([]float64, ways+1), make([]float64, ways+1)
	deg := 180 / math.Pi
	for i := range lean {
		phi := math.Pi * min(1, float64(i)/rises)
		alpha := -math.Atan(math.Tan(min(phi, math.Pi-1e-9)/2) / math.Sqrt2)
		c, s := math.Cos(phi), math.Sin(phi)
		u, w := fold.Vec{X: -1, Y: c, Z: s}.Times(1/math.Sqrt2), fold.Vec{Y: -s, Z: c}
		a := w.Times(math.Cos(alpha)).Add(u.Times(-math.Sin(alpha)))
		b := fold.Vec{X: -a.Y, Y: -a.X, Z: a.Z}
		laid := min(1, max(0, float64(i-rises)/(lays-rises)))
		rise[i] = -90 + phi*deg
		shut[i] = math.Acos(max(-1, min(1, a.Dot(b)))) * deg
		lean[i], lay[i] = alpha*deg-90*laid, alpha*deg+90*laid
		tip[i] = 180 * max(0, float64(i-lays)/(ways-lays))
	}
	back := make([]float64, ways+1)
	for i := range tip {
		back[i] = -tip[i]
	}
	return []net.Path{{A: foot, B: flap, Turns: rise}, {A: flap, B: half, Turns: lean}, {A: mine, B: other, Turns: shut},
		{A: over, B: before, Turns: lay}, {A: half, B: mine, Turns: tip}, {A: over, B: other, Turns: back}}
}

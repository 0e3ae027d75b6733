package assembly

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/fold"
	"brevium/core/net"
)

func randomSize(r *rand.Rand) (l, w, h Length) {
	size := func(lo, hi int) Length { return Length(lo+r.IntN(hi-lo)) * mm }
	return size(60, 140), size(50, 110), size(22, 60)
}

// At the beginning all lies flat, at the end it stands as it is proved, and on the way no card is stretched and nothing
// that has been done is undone.
func TestCourse(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 15))
	for n := range 12 {
		b := boxOf(lidded(randomSize(r)))
		course := b.Course()
		does := ""
		for _, s := range course {
			does += s.Does[:1]
		}
		if does != "ffffff"+"f"+"c" { // three folds of each piece, fill, close
			t.Fatalf("%d: %s", n, does)
		}
		for _, f := range b.After(t3, 0).Bodies {
			if lo, hi := fold.Bounds(f); hi.Z-lo.Z > 1e-6 {
				t.Fatalf("%d: the %s does not lie flat at first", n, f.Name)
			}
		}
		end, closed := b.After(t3, float64(len(course))), b.Assemble(t3, Closed)
		for i, body := range end.Bodies {
			for k, f := range body.Faces {
				if d := f.Middle().Sub(closed.Bodies[i].Faces[k].Middle()).Len(); d > 1e-6 {
					t.Fatalf("%d: %s of the %s ends %.3f mm off", n, f.Name, body.Name, d)
				}
			}
		}
		for step := range 4 * len(course) {
			s := b.After(t3, float64(step)/4)
			for i, body := range s.Bodies {
				for k, f := range body.Faces {
					if a, c := f.Area(), closed.Bodies[i].Faces[k].Area(); math.Abs(a-c) > 1e-6 {
						t.Fatalf("%d, step %.2f: %s of the %s has %.3f mm², of %.3f", n, float64(step)/4, f.Name, body.Name, a, c)
					}
				}
			}
			if s.Filled != (float64(step)/4 > 6) {
				t.Fatalf("%d, step %.2f: filled %v", n, float64(step)/4, s.Filled)
			}
		}
	}
}

// plates are two cards on each other, with holes at so far right of the middle, and what ties them.
func plates(one, other []Length, holes int) *Box {
	plate := func(name string, at []Length) *net.Piece {
		p := net.Grid(name, net.Cols(80*mm), net.Rows(30*mm), name)
		p.Root = name
		for _, x := range at {
			p.Punch(net.Point{X: 40*mm + x, Y: 15 * mm}, 2*mm, 0, 0)
		}
		p.Rename(name, net.Point{X: 2 * mm, Y: 2 * mm})
		return p
	}
	tree := &Tree{Threads: []Thread{{What: "ribbon", Faces: []string{"under/under", "over/over"}, Holes: holes}}}
	tree.Add(plate("under", one))
	tree.Add(plate("over", other), Place{Face: "over", On: "under/under", Out: -t3})
	tree.Stick("over/over", "under/under", false)
	return boxOf(tree)
}

// Ribbon goes through holes that lie behind each other, as many as are told, evenly about the middle; else it says what is
// wrong with which.
func TestThreads(t *testing.T) {
	for _, c := range []struct {
		one, other []Length
		holes      int
		says       string
	}{
		{[]Length{0}, []Length{0}, 1, ""},
		{[]Length{-9 * mm, 9 * mm}, []Length{-9 * mm, 9 * mm}, 2, ""},
		{[]Length{-9 * mm, 9 * mm}, []Length{-14 * mm, 14 * mm}, 2, "5.0 mm off the one behind it"},
		{[]Length{0}, []Length{0}, 2, "has 1 hole, not 2"},
		{[]Length{0}, nil, 1, "the over of the over has 0 holes"},
		{[]Length{6 * mm}, []Length{6 * mm}, 1, "6.0 mm off its middle"},
	} {
		if said := proof(plates(c.one, c.other, c.holes)); c.says == "" && said != "" || !strings.Contains(said, c.says) {
			t.Errorf("holes at %v and %v: %q, want %q", c.one, c.other, said, c.says)
		}
	}
}

// flapped is a strip whose top closes over it, a flap of so much before the front.
func flapped(l, w, h, flap Length) *Box {
	p := net.Grid("box", net.Cols(l), net.Rows(flap, w+t3*3/2, h, w, h), "flap\ntop\nback\nbottom\nfront")
	p.Root = "bottom"
	p.FoldUp("back", "front")
	p.Closing("top", "flap")
	tree := &Tree{}
	tree.Add(p)
	tree.GoesOver("box/flap", "", "front")
	return boxOf(tree)
}

// The halves of what closes a box come to lie on each other, with card round both, wherever the flap is large enough for
// them; where it is not, there is no place.
func TestHalvesMeet(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 16))
	const room = 5 * mm / 2
	for n := range 200 {
		l, w, h := randomSize(r)
		flap, radius := Length(4+r.IntN(20))*mm, Length(3+r.IntN(4))*mm
		b := flapped(l, w, h, min(flap, h-mm))
		fits := min(flap, h-mm) >= 2*(radius+room)
		if got := b.Meet(Pair{What: "dot", A: "box/flap", B: "box/front", Radius: radius}, t3, room, mm); got != fits {
			t.Fatalf("%d: a flap of %v has place for %v: %v, want %v", n, flap, 2*(radius+room), got, fits)
		}
		if !fits {
			continue
		}
		b.Pairs = []Pair{{What: "dot", A: "box/flap", B: "box/front", Radius: radius}}
		said := b.Prove(Means{T: t3, Width: 10 * mm}, nil)
		i := slices.IndexFunc(said, func(c fold.Check) bool { return strings.Contains(c.Name, "dot") && strings.Contains(c.Name, "meet") })
		if i < 0 || !said[i].Holds {
			t.Fatalf("%d: the halves do not meet: %v", n, said)
		}
		mark := &b.Piece("box").Marks[1]
		mark.At.X += 4 * mm
		if again := b.Prove(Means{T: t3, Width: 10 * mm}, nil); again[i].Holds {
			t.Fatalf("%d: moved by 4 mm they still meet: %s", n, again[i].Figure)
		}
	}
}

// What is stuck to the side of a box must stay below what moves there: the lid's walls. The walls of the room are as long
// and as high as the room, two thick where tabs lie, and held by a lid that comes down over them.
func TestSidesOfABox(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 17))
	for n := range 40 {
		l, w, h := randomSize(r)
		b := boxOf(lidded(l, w, h))
		for _, side := range []string{"left", "right", "front", "back"} {
			f := b.Flank(t3, side)
			from, step := (h - h/2).MM(), b.Outside.Depth.MM()/flankUp
			if f.Over != "lid" || f.Drawn || math.Abs(f.Still-from) > 1.5*step {
				t.Fatalf("%d, %s: %+v; the lid comes down to %.1f mm", n, side, f, from)
			}
		}
		floor, walls := b.Sides(b.Assemble(t3, Closed))
		in := b.Inside
		if len(walls) != 4 || math.Abs(floor.Along-in.Length.MM()) > 1e-6 || math.Abs(walls[0].Along-in.Width.MM()) > 1e-6 ||
			math.Abs(walls[2].High-in.Depth.MM()) > 1e-6 {
			t.Fatalf("%d: floor %.1f × %.1f, walls %.1f and %.1f long, of %v", n, floor.Along, floor.High, walls[0].Along,
				walls[2].Along, in)
		}
		for i, wall := range walls {
			thick := 0
			for _, glued := range wall.Glued {
				thick = max(thick, len(glued))
			}
			if want := map[bool]int{true: 2, false: 1}[i > 1]; thick != want { // tabs lie behind back and front
				t.Fatalf("%d: wall %d is %d thick at most, want %d", n, i, thick, want)
			}
			if wall.Holder != "lid" {
				t.Fatalf("%d: wall %d is held by %q", n, i, wall.Holder)
			}
		}
		for _, f := range flapped(l, w, h, 10*mm).Piece("box").Kept() {
			if moves := f.Name == "top" || f.Name == "flap"; Opens(flapped(l, w, h, 10*mm).Piece("box"), f.Name) != moves {
				t.Fatalf("%d: %s opens: %v", n, f.Name, !moves)
			}
		}
	}
}

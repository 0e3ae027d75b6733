package solid

import (
	"encoding/xml"
	"fmt"
	"math"
	"math/rand/v2"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/draw/pen"
	"brevium/internal/drawn"
)

// Things are painted so that none covers what is nearer: sets that stand as
// they may in a box, seen from anywhere, and counted against depth.
func TestThingsBackToFront(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 9))
	for range 60 {
		var blocks []fold.Block
		for x := range 5 {
			for y := range 4 {
				at, z := fold.Vec{X: float64(x) * 22, Y: float64(y)*21 + float64(x%2)*3}, 0.0
				for range 1 + r.IntN(3) {
					size := fold.Vec{X: 8 + 12*r.Float64(), Y: 8 + 12*r.Float64(), Z: 5 + 15*r.Float64()}
					b := fold.Block{Name: fmt.Sprint(len(blocks)), Lo: fold.Vec{X: at.X, Y: at.Y, Z: z},
						Shape: []fold.Shape{fold.Brick, fold.Ball, fold.Upright}[r.IntN(3)]}
					if b.Shape != fold.Brick {
						size.Y = size.X
					}
					if b.Shape == fold.Ball {
						size.Z = size.X
					}
					b.Hi = b.Lo.Add(size)
					z = b.Hi.Z
					blocks = append(blocks, b)
				}
			}
		}
		v := View{Yaw: r.Float64()*360 - 180, Pitch: r.Float64()*178 - 89}
		order := backToFront(blocks, v)
		if len(order) != len(blocks) {
			t.Fatalf("%d of %d things", len(order), len(blocks))
		}
		s := &Scene{eye: v.eye()}
		right, up := v.screen()
		flat := func(q fold.Vec) [2]float64 { return [2]float64{q.Dot(right), q.Dot(up)} }
		var painted []poly
		for _, b := range order {
			painted = append(painted, s.thing(b)...)
		}
		for range 300 {
			of := painted[r.IntN(len(painted))]
			mid := fold.Vec{}
			for _, p := range of.points {
				mid = mid.Add(p.Times(1 / float64(len(of.points))))
			}
			at := flat(mid.Add(of.points[0].Sub(mid).Times(r.Float64() * 0.9)))
			nearest, _, _ := depth(painted, s.eye, flat, at, -1)
			last, _, ok := depth(painted, s.eye, flat, at, 1)
			// Flats within one thing stand for its outline: they may differ by its size.
			if ok && nearest-last > 21 {
				t.Fatalf("%v: what lies %.1f mm behind is painted last", v, nearest-last)
			}
		}
	}
}

// Whatever is painted later is never behind what was painted before: checked
// on heaps of random upright cards, from all sides, by points they share on
// the picture.
func TestTreePaintsBackToFront(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 2))
	for range 200 {
		var polys []poly
		for range 6 {
			at := fold.Vec{X: r.Float64() * 50, Y: r.Float64() * 50, Z: r.Float64() * 50}
			a, b := fold.Vec{X: 10 + 20*r.Float64()}, fold.Vec{Y: 10 + 20*r.Float64()}
			if r.IntN(2) == 0 {
				b = fold.Vec{Z: 10 + 20*r.Float64()}
			}
			n := a.Cross(b)
			polys = append(polys, poly{points: []fold.Vec{at, at.Add(a), at.Add(a).Add(b), at.Add(b)}, real: make([]bool, 4),
				normal: n.Times(1 / n.Len()), colour: "#000000"})
		}
		v := View{r.Float64() * 360, r.Float64()*120 - 60}
		eye := v.eye()
		var order []poly
		grow(polys).walk(eye, func(p poly) { order = append(order, p) })
		for i, before := range order {
			mid := fold.Vec{}
			for _, q := range before.points {
				mid = mid.Add(q.Times(1 / float64(len(before.points))))
			}
			for _, after := range order[i+1:] {
				// Going from the middle away from the eye must not meet what is
				// painted later.
				den := eye.Dot(after.normal)
				if den > -1e-6 && den < 1e-6 {
					continue
				}
				s := after.points[0].Sub(mid).Dot(after.normal) / den
				if s < -1e-3 && within(after, mid.Add(eye.Times(s))) {
					t.Fatalf("%v is painted over %v, which lies nearer", after.points, before.points)
				}
			}
		}
	}
}

func within(p poly, at fold.Vec) bool {
	for i, a := range p.points {
		b := p.points[(i+1)%len(p.points)]
		if b.Sub(a).Cross(at.Sub(a)).Dot(p.normal)*b.Sub(a).Cross(p.points[(i+2)%len(p.points)].Sub(b)).Dot(p.normal) < 1e-6 {
			return false
		}
	}
	return true
}

// A box that stores flat is drawn as it lies there: as large as its sheet folded
// over, as thick as its layers, and nothing of it standing up.
func TestStored(t *testing.T) {
	for style, stores := range map[string]bool{"carton": true, "pinch-top": true, "tray-lid": false, "gable-cap": false} {
		p := drawn.Made(t, "120 mm", "90 mm", "60 mm", "mm", "box.style", style, "card.join", "yes", "tools.step", "1 mm")
		svg := Stored(p, 300, 180).SVG()
		if stores != (svg != "") {
			t.Errorf("%s: %.80q", style, svg)
		}
		flat, ok := p.Box.FlatPacked(p.Card.Caliper)
		if !stores || !ok {
			continue
		}
		size, piece := p.Box.Stored, p.Box.Pieces()[0]
		if size.Depth > 4*p.Card.Caliper || min(size.Length, size.Width) < 60*measure.Millimetre ||
			size.Length >= piece.Width-60*measure.Millimetre {
			t.Errorf("%s lies %+v, of a piece %s by %s", style, size, p.Say(piece.Width), p.Say(piece.Height))
		}
		for _, f := range flat.Bodies[0].Faces {
			if !f.Level() {
				t.Errorf("%s: the %s stands up", style, f.Name)
			}
		}
		says := fmt.Sprintf("put away flat, %s by %s.", p.Step.ShowUp(size.Length), p.Step.ShowUp(size.Width))
		if !strings.Contains(svg, says) || strings.Contains(svg, "NaN") || strings.Count(svg, "<path") < 1 {
			t.Errorf("%s: %.300s", style, svg)
		}
	}
}

// Hidden card is hidden: at any place of the picture, what is painted last is
// what lies nearest to the eye, for every style, open and closed and on the
// way, seen from anywhere. Surfaces nearer to each other than two calipers,
// measured across the card, may stand for one another.
func TestHiddenSurfaces(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 6))
	for _, style := range style.Styles {
		p := drawn.Sized(t, style.ID)
		for _, pose := range []assembly.Pose{assembly.Closed, {Fold: 1, Lift: 0.6}, {Fold: 0.4}, {Fold: 0.8}} {
			v := View{Yaw: r.Float64()*360 - 180, Pitch: r.Float64()*150 - 75}
			s := sceneOf(p, pose, v, Whole, fold.Cuts{})
			right, up := v.screen()
			flat := func(q fold.Vec) [2]float64 { return [2]float64{q.Dot(right), q.Dot(up)} }
			painted := s.painted()
			for _, thing := range s.things {
				s.polys = append(s.polys, thing...)
			}
			seen := 0
			for range 400 {
				from := s.polys[r.IntN(len(s.polys))]
				a, b, c := from.points[0], from.points[1], from.points[2]
				u, w := r.Float64(), r.Float64()
				if u+w > 1 {
					u, w = 1-u, 1-w
				}
				at := flat(a.Add(b.Sub(a).Times(u)).Add(c.Sub(a).Times(w)))
				nearest, grazed, _ := depth(s.polys, s.eye, flat, at, -1)
				last, grazes, ok := depth(painted, s.eye, flat, at, 1)
				if !ok {
					continue // on an edge, seen from its side
				}
				seen++
				if nearest-last > 2.5*p.Card.Caliper.MM()/min(grazed, grazes) {
					t.Errorf("%s, %v from %v: at %v the picture shows what lies %.1f mm behind the nearest",
						style.ID, pose, v, at, nearest-last)
				}
			}
			if seen < 200 {
				t.Errorf("%s, %v: only %d places were looked at", style.ID, pose, seen)
			}
		}
	}
}

// depth gives how near to the eye a place of the picture is: of the nearest
// polygon there, or with last of the one painted last; and how far from edge on
// it is seen, 1 being straight on.
func depth(polys []poly, eye fold.Vec, flat func(fold.Vec) [2]float64, at [2]float64, last int) (near, graze float64,
	ok bool) {
	near = math.Inf(-1)
	for _, p := range polys {
		if math.Abs(p.normal.Dot(eye)) < 0.02 || !holds(p, flat, at) {
			continue
		}
		a := flat(p.points[0])
		// The place on the polygon: its own first corner, moved in the picture.
		d := [2]float64{at[0] - a[0], at[1] - a[1]}
		x, y := flat(p.normal)[0], flat(p.normal)[1]
		z := p.points[0].Dot(eye) - (d[0]*x+d[1]*y)/p.normal.Dot(eye)
		if last > 0 || z > near {
			near, graze = z, math.Abs(p.normal.Dot(eye))
		}
		ok = true
	}
	return near, graze, ok
}

// holds reports whether a polygon covers a place, well within its rim.
func holds(p poly, flat func(fold.Vec) [2]float64, at [2]float64) bool {
	side := 0.0
	for i := range p.points {
		a, b := flat(p.points[i]), flat(p.points[(i+1)%len(p.points)])
		long := math.Hypot(b[0]-a[0], b[1]-a[1])
		if long < 1e-9 {
			continue
		}
		d := ((b[0]-a[0])*(at[1]-a[1]) - (b[1]-a[1])*(at[0]-a[0])) / long
		if math.Abs(d) < 1e-3 || d*side < 0 {
			return false
		}
		side = d
	}
	return side != 0
}

// A printed card shows its pattern on outsides only, with fills whose names no
// other picture on the page has, and the tile as a picture of its own.
func TestPattern(t *testing.T) {
	plain := drawn.Sized(t, "tray-lid")
	b := plain.Brief.Clone()
	b.Set("card.stock", "sprig-220")
	p := plan.Make(b, request.Default)
	names := map[string]bool{}
	fill := regexp.MustCompile(`fill="url\(#([^)]+)\)"`)
	for _, pose := range []assembly.Pose{assembly.Closed, {Fold: 1, Lift: 1}} {
		svg := Folded(p, pose, DefaultView, 300, 200).SVG()
		fills := fill.FindAllStringSubmatch(svg, -1)
		if len(fills) < 3 {
			t.Fatalf("%v: only %d printed faces", pose, len(fills))
		}
		here := map[string]bool{}
		for _, m := range fills {
			if !strings.Contains(svg, `id="`+m[1]+`"`) {
				t.Errorf("the fill %s is not there", m[1])
			}
			here[m[1]] = true
		}
		for name := range here {
			if names[name] {
				t.Errorf("two pictures use %s", name)
			}
			names[name] = true
		}
		if err := xml.Unmarshal([]byte(svg), new(any)); err != nil {
			t.Error(err)
		}
	}
	if fill.MatchString(Folded(plain, assembly.Closed, DefaultView, 300, 200).SVG()) || pen.TileImage(plain.Card) != "" {
		t.Error("plain card is printed")
	}
	for _, card := range request.Default.Cards {
		image, ok := strings.CutPrefix(pen.TileImage(card), "data:image/svg+xml,")
		if ok != (card.Pattern != "") {
			t.Errorf("%s has a tile: %v", card.ID, ok)
		}
		if svg, err := url.PathUnescape(image); err != nil || ok &&
			(xml.Unmarshal([]byte(svg), new(any)) != nil || !strings.Contains(svg, card.Ink)) {
			t.Errorf("%s: %q %v", card.ID, svg, err)
		}
	}
}

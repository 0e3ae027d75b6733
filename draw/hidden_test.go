package draw

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
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

// Hidden card is hidden: at any place of the picture, what is painted last is
// what lies nearest to the eye, for every style, open and closed and on the
// way, seen from anywhere. Surfaces nearer to each other than two calipers,
// measured across the card, may stand for one another.
func TestHiddenSurfaces(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 6))
	for _, style := range style.Styles {
		p := sizedPlan(t, style.ID)
		for _, pose := range []assembly.Pose{assembly.Closed, {Fold: 1, Lift: 0.6}, {Fold: 0.4}, {Fold: 0.8}} {
			v := View{Yaw: r.Float64()*360 - 180, Pitch: r.Float64()*150 - 75}
			s := sceneOf(p, pose, v, whole, fold.Cuts{})
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

// Every number on a flat drawing stands clear of the others, for any size.
func TestNumbersDoNotOverlap(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for _, style := range style.Styles {
		for range 12 {
			p := sizedOr(style.ID, 60+r.IntN(80), 45+r.IntN(50), 22+r.IntN(60))
			if !p.OK() {
				continue
			}
			boxes := textBoxes(Flat(p, "", 690, 560, nil))
			if len(boxes) < 6 {
				t.Fatalf("%s: only %d numbers", style.ID, len(boxes))
			}
			apart(t, fmt.Sprintf("%s %v", style.ID, p.Box.Size), Flat(p, "", 690, 560, nil), 1.5, 3)
		}
	}
}

// apart finds texts of a picture that lie on each other by more than so much.
func apart(t *testing.T, what, svg string, wide, high float64) {
	t.Helper()
	boxes := textBoxes(svg)
	for i, a := range boxes {
		for _, b := range boxes[i+1:] {
			if w, h := min(a.x1, b.x1)-max(a.x0, b.x0), min(a.y1, b.y1)-max(a.y0, b.y0); w > wide && h > high {
				t.Errorf("%s: %q lies on %q (%.0f by %.0f)", what, a.text, b.text, w, h)
			}
		}
	}
}

// A printed card shows its pattern on outsides only, with fills whose names no
// other picture on the page has, and the tile as a picture of its own.
func TestPattern(t *testing.T) {
	plain := sizedPlan(t, "tray-lid")
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
	if fill.MatchString(Folded(plain, assembly.Closed, DefaultView, 300, 200).SVG()) || TileImage(plain.Card) != "" {
		t.Error("plain card is printed")
	}
	if flat := Flat(p, "", 690, 560, nil); !strings.Contains(flat, "pattern ↓") ||
		strings.Contains(Flat(plain, "", 690, 560, nil), "· pattern") {
		t.Error("the flat drawing does not say which way the pattern stands, or says it of plain card")
	}
	for _, card := range request.Default.Cards {
		image, ok := strings.CutPrefix(TileImage(card), "data:image/svg+xml,")
		if ok != (card.Pattern != "") {
			t.Errorf("%s has a tile: %v", card.ID, ok)
		}
		if svg, err := url.PathUnescape(image); err != nil || ok &&
			(xml.Unmarshal([]byte(svg), new(any)) != nil || !strings.Contains(svg, card.Ink)) {
			t.Errorf("%s: %q %v", card.ID, svg, err)
		}
	}
}

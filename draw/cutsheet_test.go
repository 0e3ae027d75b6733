package draw

import (
	"encoding/xml"
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/shop"
)

// A sheet is drawn with every piece and every cut once, each marked with its number, all
// within the picture; what is turned or held says so.
func TestCutSheet(t *testing.T) {
	const mm = measure.Millimetre
	step, err := measure.ParseStep("1 mm", measure.Millimetres)
	if err != nil {
		t.Fatal(err)
	}
	l := layout.Fit([]layout.Piece{{Name: "base & lid", W: 120 * mm, H: 90 * mm, Count: 3}, {Name: "tag", W: 20 * mm, H: 70 * mm, Count: 5}},
		210*mm, 297*mm)
	if len(l.Sheets) != 1 {
		t.Fatal(len(l.Sheets))
	}
	s := l.Sheets[0]
	s.Placed[1].Pinned = true
	for _, card := range []shop.Card{{ID: "plain", Colour: "#e9dcc0"}, {ID: "printed", Colour: "#ffffff", Pattern: "sprigs", Motif: "sprigs",
		Ink: "#335533"}} {
		svg := CutSheet(s, CutLook{N: 4, W: 330, H: 400, Card: card, Step: step, Hands: card.ID == "plain"}).SVG()
		if err := xml.Unmarshal([]byte(svg), new(any)); err != nil && !strings.Contains(err.Error(), "unknown type") {
			t.Errorf("%v: %s", err, svg)
		}
		for i := range s.Placed {
			if strings.Count(svg, fmt.Sprintf(`data-laid="4:%d"`, i)) != 1 {
				t.Errorf("piece %d is not drawn once", i)
			}
		}
		for i := range s.Cuts {
			if strings.Count(svg, fmt.Sprintf(`data-cut="4:%d"`, i)) != 1 || !strings.Contains(svg, fmt.Sprintf(">%d</text>", i+1)) {
				t.Errorf("cut %d is not drawn once, with its number", i)
			}
		}
		turned := 0
		for _, p := range s.Placed {
			if p.Turned {
				turned++
			}
		}
		if strings.Count(svg, "turned-mark") != turned || strings.Count(svg, "pin-mark") != 1 || !strings.Contains(svg, "base &amp; lid") {
			t.Errorf("%d turned; %s", turned, svg)
		}
		if hands := strings.Contains(svg, `role="button"`); hands != (card.ID == "plain") {
			t.Errorf("pieces can be held: %v", hands)
		}
		if printed := strings.Contains(svg, "<pattern"); printed != (card.Pattern != "") {
			t.Errorf("a pattern is drawn: %v", printed)
		}
		inPicture(t, svg)
	}
}

var (
	boxOf  = regexp.MustCompile(`viewBox="0 0 ([\d.]+) ([\d.]+)"`)
	rectOf = regexp.MustCompile(`<rect class="(?:piece-edge laid-piece|in-hand|at-stop|sheet|offcut)" ` +
		`x="([-\d.]+)" y="([-\d.]+)" width="([-\d.]+)" height="([-\d.]+)"`)
)

// inPicture looks whether all that is drawn lies in the picture.
func inPicture(t *testing.T, svg string) {
	t.Helper()
	n := func(s string) float64 { v, _ := strconv.ParseFloat(s, 64); return v }
	box := boxOf.FindStringSubmatch(svg)
	if box == nil {
		t.Fatal("no picture")
	}
	rects := rectOf.FindAllStringSubmatch(svg, -1)
	for _, r := range rects {
		x, y, w, h := n(r[1]), n(r[2]), n(r[3]), n(r[4])
		if x < 0 || y < 0 || w <= 0 || h <= 0 || x+w > n(box[1])+0.1 || y+h > n(box[2])+0.1 {
			t.Errorf("%s is not within %s", r[0], box[0])
		}
	}
	if len(rects) < 10 {
		t.Errorf("only %d rectangles", len(rects))
	}
}

// Numbers of cuts lie on each other nowhere, and names on no other name, however narrow the strips.
func TestCutNumbersApart(t *testing.T) {
	const mm = measure.Millimetre
	step, err := measure.ParseStep("1 mm", measure.Millimetres)
	if err != nil {
		t.Fatal(err)
	}
	mark := regexp.MustCompile(`class="cut-mark" cx="([\d.-]+)" cy="([\d.-]+)"`)
	r := rand.New(rand.NewPCG(24, 3))
	for range 80 {
		var all []layout.Piece
		for i := range 2 + r.IntN(7) {
			all = append(all, layout.Piece{Name: fmt.Sprintf("run round the base, part %d", i+1), W: measure.Length(8+r.IntN(90)) * mm,
				H: measure.Length(30+r.IntN(150)) * mm, Count: 1 + r.IntN(4)})
		}
		for _, s := range layout.Fit(all, 297*mm, 420*mm).Sheets {
			svg := CutSheet(s, CutLook{W: 330, H: 300, Card: shop.Card{ID: "plain", Colour: "#e9dcc0"}, Step: step}).SVG()
			var at [][2]float64
			for _, m := range mark.FindAllStringSubmatch(svg, -1) {
				x, _ := strconv.ParseFloat(m[1], 64)
				y, _ := strconv.ParseFloat(m[2], 64)
				for _, o := range at {
					if math.Hypot(x-o[0], y-o[1]) < 2*markRound {
						t.Fatalf("two numbers lie on each other at %.0f, %.0f of %d cuts", x, y, len(s.Cuts))
					}
				}
				at = append(at, [2]float64{x, y})
				box := boxOf.FindStringSubmatch(svg)
				wide, _ := strconv.ParseFloat(box[1], 64)
				high, _ := strconv.ParseFloat(box[2], 64)
				if x < markRound || y < markRound || x > wide-markRound || y > high-markRound {
					t.Fatalf("a number lies past the picture's edge at %.0f, %.0f of %.0f by %.0f", x, y, wide, high)
				}
			}
			if len(at) != len(s.Cuts) {
				t.Fatalf("%d numbers of %d cuts", len(at), len(s.Cuts))
			}
		}
	}
}

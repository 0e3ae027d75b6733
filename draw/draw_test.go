package draw

import (
	"encoding/xml"
	"fmt"
	"html"
	"io"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
)

func made(t testing.TB, l, w, d, units string, options ...string) *plan.Plan {
	t.Helper()
	b := brief.New(units)
	b.Size = &brief.Size{Length: brief.Text(l), Width: brief.Text(w), Depth: brief.Text(d)}
	b.Contents = nil
	b.Card.Sheet = "a3"
	for i := 0; i+1 < len(options); i += 2 {
		b.Set(options[i], options[i+1])
	}
	p := plan.Make(b, request.Default)
	if !p.OK() {
		t.Fatal(p.Problems)
	}
	return p
}

// Every picture is one well-formed element with a name for those who can't
// see it, and brings no style or script with it.
func TestPicturesAreSound(t *testing.T) {
	p := made(t, "5 in", "3 1/2 in", "2 in", "in", "name", `<b>"&`)
	pictures := map[string]string{
		"flat": Flat(p, "", 690, 560, nil), "one": Flat(p, "lid", 690, 560, nil), "sheets": Sheets(p, 690, 560, 4),
		"board":  Board(p, p.Guide.Cards[0], 1).SVG(),
		"closed": Folded(p, assembly.Closed, DefaultView, 300, 200).SVG(),
		"half":   Folded(p, assembly.Pose{Fold: 0.5, Lift: 1}, View{120, 60}, 300, 200).SVG(),
	}
	full := withThings(t)
	pictures["above"], pictures["arrangement"] = Above(full, 690, 560), Arrangement(full.Load, 150, 100)
	pictures["with things"] = Folded(full, assembly.Pose{Fold: 1, Lift: 1}, DefaultView, 300, 200).SVG()
	for _, s := range contents.Shapes {
		pictures["measuring "+s.ID] = Measuring(s.ID)
	}
	for name, svg := range pictures {
		dec := xml.NewDecoder(strings.NewReader(svg))
		for {
			if _, err := dec.Token(); err == io.EOF {
				break
			} else if err != nil {
				t.Fatalf("%s: %v", name, err)
			}
		}
		role := map[bool]string{true: "group", false: "img"}[name == "above"]
		if !strings.Contains(svg, `role="`+role+`" aria-label="`) || strings.Contains(svg, "style=") ||
			strings.Contains(svg, "<script") || strings.Contains(svg, "NaN") {
			t.Errorf("%s is not sound: %.200s", name, svg)
		}
	}
	if file := string(File(pictures["flat"])); !strings.Contains(file, "<style>") || !strings.Contains(file, "xmlns=") {
		t.Error("a file of its own needs its styles")
	}
}

// withThings is a box with something of every shape in compartments.
func withThings(t testing.TB) *plan.Plan {
	t.Helper()
	b := brief.New("mm")
	b.Card.Sheet, b.Arrange.Compartments, b.Contents = "a3", "slotted", nil
	for _, item := range contents.Usual[1:4] {
		item.Count = "1"
		b.Contents = append(b.Contents, item)
	}
	p := plan.Make(b, request.Default)
	if !p.OK() {
		t.Fatal(p.Problems)
	}
	return p
}

// From above, every stack is there to be taken hold of, and the free room
// written round them is what the inside leaves.
func TestAboveTellsTheRoom(t *testing.T) {
	p := withThings(t)
	svg := Above(p, 690, 560)
	if n := strings.Count(svg, "data-stack="); n != len(p.Load.Stacks) {
		t.Errorf("%d of %d stacks", n, len(p.Load.Stacks))
	}
	v := inView{p: p}
	r := v.rooms()
	if in, need := p.Box.Inside, p.Load.Need; r.left+r.right > in.Length || r.left < p.Load.Room.Around ||
		r.front < p.Load.Room.Around || in.Length < need.Length {
		t.Errorf("%+v in %+v", r, in)
	}
	for _, free := range []measure.Length{r.front, r.back} {
		if !strings.Contains(svg, ">"+p.Step.ShowDown(free).Text+" free<") {
			t.Errorf("%s free is not written", p.Step.ShowDown(free).Text)
		}
	}
}

// Every score, and each size, is on the drawing with its number.
func TestFlatTellsEveryNumber(t *testing.T) {
	p := made(t, "127 mm", "89 mm", "50 mm", "mm", "box.options.lid-height", "20 mm")
	svg := Flat(p, "", 690, 560, nil)
	for _, c := range p.Guide.Cards {
		for _, turn := range c.Turns {
			for i, line := range turn.Lines {
				piece := p.Box.Piece(c.Piece)
				label := p.Step.Show(line.At).Text
				if !strings.Contains(svg, fmt.Sprintf(`data-link="%s" class="flags"`, Link(piece, line))) ||
					!strings.Contains(svg, ">"+label+"<") {
					t.Errorf("score %d of %s at %s is not on the drawing", i, c.Piece, label)
				}
			}
		}
		if !strings.Contains(svg, ">"+p.Step.Show(c.W).Text+" mm<") {
			t.Errorf("the width of %s is not on the drawing", c.Piece)
		}
	}
}

var flagText = regexp.MustCompile(`<text x="([\d.]+)" y="([\d.]+)" class="flag-text" text-anchor="(\w+)">(.*?)</text>`)
var tags = regexp.MustCompile(`<[^>]*>`)

// The numbers on the rulers never lie over each other, whatever the size.
func TestFlagsDontOverlap(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for range 60 {
		size := func(low, more int) string { return fmt.Sprintf("%d/16 in", low+r.IntN(more)) }
		p := made(t, size(16, 90), size(4, 90), size(8, 40), "in", "tools.adhesive", "glue", "box.options.lid", "full")
		type place struct{ x1, y1, x2, y2 float64 }
		var places []place
		for _, m := range flagText.FindAllStringSubmatch(Flat(p, "base", 690, 560, nil), -1) {
			x, _ := strconv.ParseFloat(m[1], 64)
			y, _ := strconv.ParseFloat(m[2], 64)
			w := wide(strings.ReplaceAll(tags.ReplaceAllString(m[4], ""), "&#8203;", ""), 13)
			if m[3] == "middle" {
				x += w / 2
			}
			places = append(places, place{x - w, y - 10, x, y + 2})
		}
		if len(places) != 4 {
			t.Fatalf("%d numbers", len(places))
		}
		for i, a := range places {
			for _, b := range places[i+1:] {
				if a.x1 < b.x2 && b.x1 < a.x2 && a.y1 < b.y2 && b.y1 < a.y2 {
					t.Fatalf("numbers overlap at %v and %v: %+v", a, b, p.Box.Size)
				}
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
		p := made(t, "120 mm", "90 mm", "60 mm", "mm", "box.style", style, "card.join", "yes", "tools.step", "1 mm")
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

// The dressing's drawing shows every piece and every run once, tells all in words, and no
// text of it lies on another; the pieces of the box show what lies on their other side.
func TestDressingIsDrawn(t *testing.T) {
	for _, style := range []string{"tray-lid", "flap-box", "corner-shells", "gable-cap"} {
		b := sizedPlan(t, style).Brief.Clone()
		b.Dress.Layers = []brief.Layer{{On: "outside"}, {On: "sides", Stock: "sprig-220", Run: "yes"}}
		b.Dress.Toppers = []brief.Topper{{Shape: "star", Words: "Hi"}}
		b.Dress.Band = brief.Belt{Way: "level", Width: "15 mm"}
		p := plan.Make(b, request.Default)
		if !p.OK() {
			t.Fatalf("%s: %+v", style, p.Problems)
		}
		svg := Dressing(p, 690, 560)
		if err := xml.Unmarshal([]byte(svg), new(any)); err != nil {
			t.Errorf("%s: %v", style, err)
		}
		if n := strings.Count(svg, "data-piece="); n != len(p.Dressed.Laid)+len(p.Dressed.Runs) {
			t.Errorf("%s: %d of %d pieces and %d runs are drawn", style, n, len(p.Dressed.Laid), len(p.Dressed.Runs))
		}
		for _, l := range p.Dressed.Laid {
			if !strings.Contains(svg, html.EscapeString(layerSays(p, l))) {
				t.Errorf("%s: the drawing does not tell the %s", style, l.Piece.Name)
			}
		}
		apart(t, style, svg, 6, 5)
		flat := Flat(p, "", 690, 560, nil)
		layers := 0
		for _, piece := range p.Box.Pieces() {
			layers += len(layersOn(p, piece))
		}
		if n := strings.Count(flat, `class="layer" d=`); n != layers || layers == 0 || !strings.Contains(flat,
			"layer outside") {
			t.Errorf("%s: %d of %d layers are drawn on the pieces", style, n, layers)
		}
		if strings.Contains(flat, "star topper") {
			t.Errorf("%s: the topper stands among the pieces of the box", style)
		}
	}
	if bare := sizedPlan(t, "tray-lid"); Dressing(bare, 690, 560) != "" || strings.Contains(Flat(bare, "", 690, 560,
		nil), "layer outside") {
		t.Error("a bare box has a drawing of its dressing")
	}
}

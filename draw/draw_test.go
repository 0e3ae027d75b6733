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
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/draw/pen"
	"brevium/draw/solid"
	"brevium/internal/drawn"
)

// Every picture is one well-formed element with a name for those who can't
// see it, and brings no style or script with it.
func TestPicturesAreSound(t *testing.T) {
	p := drawn.Made(t, "5 in", "3 1/2 in", "2 in", "in", "name", `<b>"&`)
	pictures := map[string]string{
		"flat": Flat(p, "", 690, 560, nil), "one": Flat(p, "lid", 690, 560, nil), "sheets": Sheets(p, 690, 560, 4),
		"board":  Board(p, p.Guide.Cards[0], 1).SVG(),
		"closed": solid.Folded(p, assembly.Closed, solid.DefaultView, 300, 200).SVG(),
		"half":   solid.Folded(p, assembly.Pose{Fold: 0.5, Lift: 1}, solid.View{Yaw: 120, Pitch: 60}, 300, 200).SVG(),
	}
	full := drawn.WithThings(t)
	pictures["above"], pictures["arrangement"] = Above(full, 690, 560), Arrangement(full.Load, 150, 100)
	pictures["with things"] = solid.Folded(full, assembly.Pose{Fold: 1, Lift: 1}, solid.DefaultView, 300, 200).SVG()
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
	if file := string(pen.File(pictures["flat"])); !strings.Contains(file, "<style>") || !strings.Contains(file, "xmlns=") {
		t.Error("a file of its own needs its styles")
	}
}

// From above, every stack is there to be taken hold of, and the free room
// written round them is what the inside leaves.
func TestAboveTellsTheRoom(t *testing.T) {
	p := drawn.WithThings(t)
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
	p := drawn.Made(t, "127 mm", "89 mm", "50 mm", "mm", "box.options.lid-height", "20 mm")
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
var tags = regexp.MustCompile(`<[^>]*>|\x{200b}`)

// The numbers on the rulers never lie over each other, whatever the size.
func TestFlagsDontOverlap(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for range 60 {
		size := func(low, more int) string { return fmt.Sprintf("%d/16 in", low+r.IntN(more)) }
		p := drawn.Made(t, size(16, 90), size(4, 90), size(8, 40), "in", "tools.adhesive", "glue", "box.options.lid", "full")
		type place struct{ x1, y1, x2, y2 float64 }
		var places []place
		for _, m := range flagText.FindAllStringSubmatch(Flat(p, "base", 690, 560, nil), -1) {
			x, _ := strconv.ParseFloat(m[1], 64)
			y, _ := strconv.ParseFloat(m[2], 64)
			w := pen.Wide(tags.ReplaceAllString(m[4], ""), pen.SizeOf("flag-text"))
			if m[3] == "middle" {
				x += w / 2
			}
			places = append(places, place{x - w, y - 12, x, y + 2})
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

// The dressing's drawing shows every piece and every run once, tells all in words, and no
// text of it lies on another; the pieces of the box show what lies on their other side.
func TestDressingIsDrawn(t *testing.T) {
	for _, style := range []string{"tray-lid", "flap-box", "corner-shells", "gable-cap"} {
		b := drawn.Sized(t, style).Brief.Clone()
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
	if bare := drawn.Sized(t, "tray-lid"); Dressing(bare, 690, 560) != "" || strings.Contains(Flat(bare, "", 690, 560,
		nil), "layer outside") {
		t.Error("a bare box has a drawing of its dressing")
	}
}

// The flat drawing says which way a pattern stands, and of plain card nothing.
func TestPatternStands(t *testing.T) {
	plain := drawn.Sized(t, "tray-lid")
	b := plain.Brief.Clone()
	b.Set("card.stock", "sprig-220")
	printed := plan.Make(b, request.Default)
	if !strings.Contains(Flat(printed, "", 690, 560, nil), "pattern ↓") ||
		strings.Contains(Flat(plain, "", 690, 560, nil), "· pattern") {
		t.Error("it does not say which way the pattern stands, or says it of plain card")
	}
}

package draw

import (
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/draw/solid"
	"brevium/internal/drawn"
)

// heavy gives plans as full as any that is accepted.
func heavy(t testing.TB) map[string]*plan.Plan {
	t.Helper()
	out := map[string]*plan.Plan{}
	for shape, kinds := range map[string][]string{"ball": {"none", "platform"}, "block": {"none"},
		"cylinder": {"none", "slotted"}} {
		for _, kind := range kinds {
			b := brief.New("mm")
			b.Contents = []brief.Item{{ID: "1", Name: "thing", Shape: brief.Text(shape), Length: "8 mm",
				Width: "8 mm", Height: "8 mm", Diameter: "8 mm", Count: "500", Stack: "1"}}
			if kind == "platform" {
				b.Contents[0].Count = "100"
			}
			b.Set("arrange.compartments", kind)
			b.Set("box.options.lid", "none")
			b.Set("card.sheet", "a3")
			b.Set("copies", "12")
			if p := plan.Make(b, request.Default); p.OK() {
				out[shape+" "+kind] = p
			}
		}
	}
	files, _ := filepath.Glob("../core/plan/testdata/worst/*.json")
	for _, file := range files {
		data, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		b, err := brief.Decode(data)
		if err != nil {
			t.Fatal(file, err)
		}
		if p := plan.Make(b, request.Default); p.OK() {
			out[filepath.Base(file)] = p
		}
	}
	if len(out) < 8 {
		t.Fatalf("only %d plans", len(out))
	}
	return out
}

func picturesOf(p *plan.Plan) map[string]string {
	return map[string]string{
		"flat": Flat(p, "", 690, 560, nil), "sheets": Sheets(p, 690, 560, 12), "above": Above(p, 690, 560),
		"open":   solid.Folded(p, assembly.Pose{Fold: 1, Lift: 1}, solid.DefaultView, 690, 480).SVG(),
		"closed": solid.Folded(p, assembly.Closed, solid.DefaultView, 690, 480).SVG(),
		"half":   solid.Folded(p, assembly.Pose{Fold: 0.6}, solid.DefaultView, 690, 480).SVG(), "moving": solid.Moving(p, 300, 216),
		"way": Arrangement(p.Load, 150, 100),
	}
}

// Every picture of any plan is under 400 kB; what the closed box hides is not
// drawn.
func TestPicturesAreBounded(t *testing.T) {
	for name, p := range heavy(t) {
		for what, svg := range picturesOf(p) {
			if len(svg) > 400<<10 {
				t.Errorf("%s of %s: %d kB", what, name, len(svg)>>10)
			}
		}
	}
	b := brief.New("mm")
	b.Contents = []brief.Item{{ID: "1", Name: "bulb", Shape: "ball", Diameter: "30 mm", Count: "40"},
		{ID: "2", Name: "tin", Shape: "cylinder", Diameter: "30 mm", Height: "30 mm", Count: "4"}}
	b.Set("card.sheet", "a3")
	for _, style := range style.Styles {
		b.Box = brief.Box{Style: brief.Text(style.ID)}
		p := plan.Make(b, request.Default)
		if !p.OK() {
			continue
		}
		closed, opened := solid.Folded(p, assembly.Closed, solid.DefaultView, 690, 480),
			solid.Folded(p, assembly.Pose{Fold: 1, Lift: 1}, solid.DefaultView, 690, 480)
		open := style.ID == "sleeve-drawer" || style.ID == "woven-basket"
		if !open && (strings.Contains(closed.SVG(), "<circle") || strings.Contains(closed.SVG(), "<ellipse")) {
			t.Errorf("%s: the closed box shows what is in it", style.ID)
		}
		if n := strings.Count(opened.SVG(), "<circle"); style.ID == "tray-lid" && n < 8 {
			t.Errorf("the open box shows %d balls", n)
		}
	}
}

// BenchmarkPicture draws the fullest box there is.
func BenchmarkPicture(b *testing.B) {
	for name, p := range heavy(b) {
		if strings.HasSuffix(name, ".json") {
			continue
		}
		for what, draw := range map[string]func(){
			"open":   func() { solid.Folded(p, assembly.Pose{Fold: 1, Lift: 1}, solid.DefaultView, 690, 480) },
			"moving": func() { solid.Moving(p, 300, 216) },
			"above":  func() { Above(p, 690, 560) },
			"flat":   func() { Flat(p, "", 690, 560, nil) },
		} {
			b.Run(strings.ReplaceAll(name, " ", "-")+"/"+what, func(b *testing.B) {
				for b.Loop() {
					draw()
				}
			})
		}
	}
}

// The numbers of a turn on the board stand clear of each other, in every style.
func TestBoardNumbers(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	for _, style := range style.Styles {
		for range 8 {
			p := drawn.SizedOr(style.ID, 60+r.IntN(80), 45+r.IntN(50), 22+r.IntN(60))
			if !p.OK() {
				continue
			}
			for _, card := range p.Guide.Cards {
				for i := range card.Turns {
					apart(t, fmt.Sprintf("%s, %s, turn %d", style.ID, card.Piece, i), Board(p, card, i).SVG(), 0.5, 1)
				}
			}
		}
	}
}

// Every word of the glossary has its picture.
func TestWordPictures(t *testing.T) {
	if Word("nothing", "x") != "" || !strings.Contains(Word("score", "score"), `class="groove"`) {
		t.Error("a word's picture is another's")
	}
}

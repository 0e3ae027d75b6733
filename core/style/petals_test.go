package style_test

import (
	"testing"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/plan"
	"brevium/core/request"
)

// Petals close over the things and open again without a tear, the feet staying at
// the walls, in low trays and in high ones.
func TestPetalsFold(t *testing.T) {
	for _, size := range [][2]brief.Text{{"90 mm", "40 mm"}, {"90 mm", "70 mm"}, {"140 mm", "30 mm"}} {
		b := brief.New("mm")
		b.Contents = []brief.Item{{Name: "bulb", Shape: "ball", Diameter: "20 mm", Count: "4"}}
		b.Size = &brief.Size{Length: size[0], Width: size[0], Depth: size[1]}
		b.Arrange.Compartments = "petals"
		for field, text := range map[string]string{"card.sheet": "a3", "tools.step": "1 mm", "tools.adhesive": "glue"} {
			b.Set(field, text)
		}
		p := plan.Make(b, request.Default)
		if !p.Holds() {
			t.Fatal(size, p.Problems, p.Checks)
		}
		if piece := p.Box.Piece("petals"); piece.Width < p.Box.Inside.Width*19/10 || piece.Width > 2*p.Box.Inside.Width {
			t.Errorf("a square of %v over %v", piece.Width, p.Box.Inside)
		}
		closes := len(p.Box.Course()) - 2
		var foot fold.Vec
		for i := range 25 {
			at := p.Box.After(p.Card.Caliper, float64(closes)+float64(i)/24)
			body := at.Of("petals")
			if gap, where := tear(body); gap > 0.6 {
				t.Errorf("%v at %d of 24: %s is torn by %.2f mm", size, i, where, gap)
			}
			now := body.Find("front-foot").Middle()
			if i > 0 && now.Sub(foot).Len() > 0.6 {
				t.Errorf("%v at %d of 24: a foot moves %.2f mm", size, i, now.Sub(foot).Len())
			}
			foot = now
		}
	}
	b := brief.New("mm")
	b.Contents = nil
	b.Size = &brief.Size{Length: "120 mm", Width: "80 mm", Depth: "40 mm"}
	b.Contents = []brief.Item{{Name: "bulb", Shape: "ball", Diameter: "20 mm", Count: "4"}}
	b.Arrange.Compartments = "petals"
	b.Set("tools.step", "1 mm")
	b.Set("card.sheet", "a3")
	p := plan.Make(b, request.Default)
	if len(p.Problems) != 1 || p.Problems[0].Set.Get("size.width") != p.Problems[0].Set.Get("size.length") || len(p.Problems[0].Set) == 0 {
		t.Errorf("a tray that is no square: %v", p.Problems)
	}
	b.Box.Style = "carton"
	if p = plan.Make(b, request.Default); len(p.Problems) != 1 || p.Problems[0].Set.Get("arrange.compartments") != "none" {
		t.Errorf("petals in a carton: %v", p.Problems)
	}
}

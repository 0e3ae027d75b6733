package plan_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// dressedBy plans a cube of each style in one school of numbers.
func dressedBy(school, id string, d brief.Dress, set ...string) *plan.Plan {
	b := tried.Sized("2 1/2", "2 1/2", "2 1/2", append([]string{"box.style", id, "card.sheet", "500 x 500 mm",
		"tools.allowances", school}, set...)...)
	b.Dress = d
	return advice.Make(b, request.Default)
}

func dressedPieces(p *plan.Plan, parts ...net.Part) (out []*net.Piece) {
	for _, piece := range p.Box.Pieces() {
		if slices.Contains(parts, piece.Part) {
			out = append(out, piece)
		}
	}
	return out
}

// Both schools of numbers dress the same panels of every style, and each box holds with a band over its layers.
func TestSchoolsDressAlike(t *testing.T) {
	for _, s := range style.Styles {
		if s.Typed {
			continue
		}
		for _, on := range []string{"all", "front"} {
			for _, way := range []string{"", "across", "level"} {
				d := brief.Dress{Layers: []brief.Layer{{On: brief.Text(on)}}}
				if way != "" {
					d.Band = brief.Belt{Way: brief.Text(way)}
				}
				card, plain := dressedBy("card", s.ID, d), dressedBy("plain", s.ID, d)
				count := func(p *plan.Plan) (n int) {
					for _, piece := range dressedPieces(p, net.Layer) {
						n += piece.Count
					}
					return n
				}
				if !card.Holds() || !plain.Holds() {
					t.Errorf("%s, %s with band %q: %s%v; plain %s%v", s.ID, on, way, tried.Said(card), card.Problems, tried.Said(plain), plain.Problems)
				} else if count(card) != count(plain) || count(card) == 0 {
					t.Errorf("%s, %s: %d layers, plain %d", s.ID, on, count(card), count(plain))
				}
			}
		}
	}
}

// A band of the dressing is as long as one that the style closes by, in both schools, over layers and bare.
func TestOneRuleForBands(t *testing.T) {
	lengths := func(p *plan.Plan, name string) string {
		piece := p.Box.Piece(name)
		if piece == nil {
			t.Fatal(tried.Said(p), p.Problems)
		}
		out := ""
		for _, f := range []string{"front", "top", "back"} {
			lo, hi := piece.Face(f).Bounds()
			out += fmt.Sprint(" ", (hi.Y - lo.Y).Exact(measure.Inches))
		}
		return out
	}
	for _, school := range []string{"card", "plain"} {
		for _, layers := range [][]brief.Layer{nil, {{On: "all"}}} {
			d := brief.Dress{Layers: layers, Band: brief.Belt{Way: "across"}}
			put := dressedBy(school, "flap-box", d, "box.options.closure", "dot")
			d.Band = brief.Belt{}
			own := dressedBy(school, "flap-box", d, "box.options.closure", "band")
			if a, b := lengths(put, "paper band"), lengths(own, "band"); a != b {
				t.Errorf("%s, %d layers: of the dressing%s, of the style%s", school, len(layers), a, b)
			}
		}
	}
}

// In plain numbers what a liner is less is taken from the scores: all of a cube's are alike.
func TestPlainLiners(t *testing.T) {
	const want = 5*measure.Inch/2 - measure.Inch/8
	for _, s := range style.Styles {
		if s.Typed || s.Rooms != nil || s.ID == "chamfer-foot" { // it stands on less
			continue
		}
		p := dressedBy("plain", s.ID, brief.Dress{Liners: []brief.Liner{{In: "all"}}})
		if !p.Holds() {
			t.Errorf("%s: %s %v", s.ID, tried.Said(p), p.Problems)
			continue
		}
		for _, piece := range dressedPieces(p, net.Liner) {
			if strings.HasSuffix(piece.Name, "liner") && (piece.Width != want || piece.Height != want) {
				t.Errorf("%s: the %s is %s × %s", s.ID, piece.Name, p.Say(piece.Width), p.Say(piece.Height))
			}
		}
	}
}

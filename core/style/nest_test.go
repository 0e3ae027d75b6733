package style_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

// nested is a tray with two boxes of a style standing in it, the second turned
// half round or made for the other hand.
func nested(s *style.Style, small style.Dims, apart style.Length, mirror bool) *style.Style {
	return &style.Style{ID: "two-of-" + s.ID, Title: "Two", Build: func(j *style.Spec) *style.Box {
		d := style.Dims{Length: max(320*mm, 5*apart), Width: max(140*mm, 3*apart), Depth: 30 * mm}
		b := &style.Box{Size: d, Strength: 2}
		b.Add(style.Tray(j, "tray", "floor", d))
		in := style.Within(j, "sampler", s, small, style.Answers{})
		if in != nil {
			style.Nest(j, b, "sampler", in, "tray/floor", assembly.Place{Right: -apart},
				assembly.Place{Right: apart, Quarters: 2, Mirror: mirror})
		}
		return b
	}}
}

// A box of every style stands in another, twice, turned: folded, proved, drawn
// and cut, its pieces and notes under its name.
func TestEveryStyleNests(t *testing.T) {
	for n, s := range slices.Concat(style.Styles, style.Styles) {
		b := brief.New("mm")
		b.Contents, b.Size = nil, &brief.Size{Length: "320 mm", Width: "140 mm", Depth: "30 mm"}
		b.Card.Sheet, b.Card.Join = "a3", "yes"
		b.Set("tools.step", "1 mm")
		plain := planned(t, s.ID)
		one := nested(s, plain.Box.Size, max(75*mm, plain.Box.Outside.Length/2+5*mm), n >= len(style.Styles))
		one.ID = fmt.Sprint(one.ID, n)
		style.Register(one)
		b.Box = brief.Box{Style: brief.Text(one.ID)}
		p := plan.Make(b, request.Default)
		if !p.Holds() {
			t.Errorf("%s: %v %v", s.ID, p.Problems, p.Checks)
			continue
		}
		if got, want := len(p.Box.Pieces()), 1+len(plain.Box.Pieces()); got != want {
			t.Errorf("%s: %d pieces, not %d", s.ID, got, want)
		}
		mirrored := map[bool]int{true: 1}[n >= len(style.Styles)]
		for _, piece := range p.Box.Pieces()[1:] {
			if alone := plain.Box.Piece(strings.TrimPrefix(piece.Name, "sampler ")); alone == nil || piece.Count != 2*alone.Count ||
				piece.Handed != mirrored*alone.Count || piece.Width != alone.Width || piece.Height != alone.Height {
				t.Errorf("%s: %d of %s", s.ID, piece.Count, piece.Name)
			}
		}
		if len(p.Box.Notes) != len(plain.Box.Notes) {
			t.Errorf("%s: %+v", s.ID, p.Box.Notes)
		}
		for _, n := range p.Box.Notes {
			if p.Box.Piece(n.Piece) == nil {
				t.Errorf("%s: a note of %s", s.ID, n.Piece)
			}
		}
		if len(p.Box.Supplies) != len(plain.Box.Supplies) {
			t.Errorf("%s: supplies %v, not %v", s.ID, p.Box.Supplies, plain.Box.Supplies)
		}
		for _, of := range p.Box.Supplies {
			says := of.Text
			if !strings.HasPrefix(says, "for each sampler: ") {
				t.Errorf("%s: %q says not for which", s.ID, says)
			}
		}
		// Nearer to each other they stand in each other.
		p.Box.Part("sampler").At[1].Right = p.Box.Part("sampler").At[0].Right + 10*mm
		if told(p) == "" {
			t.Errorf("%s: two samplers in one place hold", s.ID)
		}
	}
}

// An inner box that can't be says so, and why, of itself.
func TestNestedTooSmall(t *testing.T) {
	one := nested(style.Find("flap-box"), style.Dims{Length: 9 * mm, Width: 9 * mm, Depth: 9 * mm}, 75*mm, false)
	one.ID = "much-too-small"
	style.Register(one)
	b := brief.New("mm")
	b.Contents, b.Size = nil, &brief.Size{Length: "320 mm", Width: "140 mm", Depth: "30 mm"}
	b.Box = brief.Box{Style: brief.Text(one.ID)}
	p := plan.Make(b, request.Default)
	if len(p.Problems) != 1 || !strings.HasPrefix(p.Problems[0].Text, "Sampler: ") || !b.Has(p.Problems[0].Field) {
		t.Errorf("%+v", p.Problems)
	}
}

package drawn

import (
	"fmt"
	"testing"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/plan"
	"brevium/core/request"
)

// Made plans a tray with its lid of a size, with fields and texts in pairs.
func Made(t testing.TB, l, w, d, units string, options ...string) *plan.Plan {
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

// WithThings is a box with something of every shape in compartments.
func WithThings(t testing.TB) *plan.Plan {
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

// Sized is a style's box of a given size.
func Sized(t testing.TB, style string) *plan.Plan {
	t.Helper()
	p := SizedOr(style, 90, 70, 60)
	if !p.OK() {
		t.Fatal(style, p.Problems)
	}
	return p
}

// SizedOr is a style's box of a size in millimetres, or the problems with it.
func SizedOr(style string, l, w, d int) *plan.Plan {
	b := brief.New("mm")
	text := func(mm int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", mm)) }
	b.Contents, b.Size = nil, &brief.Size{Length: text(l), Width: text(w), Depth: text(d)}
	b.Box = brief.Box{Style: brief.Text(style)}
	b.Set("tools.step", "1 mm")
	b.Set("card.sheet", "a3")
	b.Set("card.join", "yes")
	if style == "arched-box" { // half as high as it is wide, and more
		b.Size.Depth = text(d + l/2)
	}
	return plan.Make(b, request.Default)
}

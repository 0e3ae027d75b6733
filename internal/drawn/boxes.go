package drawn

import (
	"testing"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
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
func SizedOr(id string, l, w, d int) *plan.Plan {
	b := tried.Metric(id, l, w, d, "card.join", "yes")
	tried.Suit(&b, style.Find(id))
	return tried.Unmended(b)
}

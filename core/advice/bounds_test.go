package advice_test

import (
	"cmp"
	"context"
	"fmt"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/internal/tried"
)

// What no box could hold is told, with its remedy, and not reckoned with.
func TestTooMuch(t *testing.T) {
	of := func(shape string, counts ...int) brief.Brief {
		b := brief.New("mm")
		b.Contents = nil
		for i, n := range counts {
			b.Contents = append(b.Contents, brief.Item{ID: fmt.Sprint(i + 1), Name: "thing", Shape: brief.Text(shape),
				Length: "9 mm", Width: "9 mm", Height: "9 mm", Diameter: "9 mm", Count: brief.Whole(fmt.Sprint(n))})
		}
		b.Set("card.sheet", "a3")
		return b
	}
	platform, many := of("ball", 101), of("block", 250)
	platform.Set("arrange.compartments", "platform")
	many.Set("contents.0.stack", "1")
	many.Set("arrange.compartments", "slotted")
	many.Set("copies", "200")
	for name, c := range map[string]struct {
		b     brief.Brief
		field string
		says  string
	}{
		"in all":        {of("ball", 200, 300, 101), "contents.1.count", "601 things in all"},
		"of one kind":   {of("ball", 501), "contents.0.count", "501 is too many"},
		"holes":         {platform, "arrange.compartments", "101 holes"},
		"pieces to cut": {many, "copies", "too many to lay out at once"},
	} {
		p := advice.Make(c.b, request.Default)
		if len(p.Problems) != 1 || p.Problems[0].Field != c.field || !strings.Contains(p.Problems[0].Text, c.says) ||
			p.Problems[0].Fix == "" {
			t.Errorf("%s: %+v", name, p.Problems)
		}
	}
	if p := advice.Make(of("ball", 200, 300, 100), request.Default); !p.OK() {
		t.Errorf("600 things: %v", p.Problems)
	}
}

// A search whose asker has left does no more, and says that it did not come to
// its end.
func TestAskerLeaves(t *testing.T) {
	ctx, leave := context.WithCancel(t.Context())
	leave()
	p := advice.Make(tried.Many(), request.Default)
	if rows, whole := advice.Compare(ctx, p.Brief, request.Default); whole || len(rows) > 0 {
		t.Errorf("compared all the same: %d rows", len(rows))
	}
	if answers, whole := advice.Count(ctx, p, request.Default); whole || len(answers) != 24 {
		t.Errorf("counted all the same: %+v", answers)
	}
	left := advice.Work(10)
	if !left.Spend(10) || left.Over() || left.Spend(1) || !left.Over() {
		t.Error("a budget lets more be spent than there is, or less")
	}
}

// Remedies are found by halving, however far off they lie.
func TestRemediesFarOff(t *testing.T) {
	b := brief.New("in")
	b.Set("card.sheet", "8.5x11")
	b.Set("room.around", "2 in")
	p := advice.Make(b, request.Default)
	at := ""
	for _, f := range p.Advice.Fixes {
		at = cmp.Or(f.Set.Get("room.around"), at)
	}
	if at == "" {
		t.Fatalf("no finger room was found that fits: %v %v", p.Problems, p.Advice.Fixes)
	}
	b.Set("room.around", at)
	if q := advice.Make(b, request.Default); len(q.Layout.TooBig) > 0 {
		t.Errorf("finger room of %s was said to fit", at)
	}
	n := 0
	if got, ok := advice.Greatest(1, 0, 1_000_000_000, func(l measure.Length) bool { n++; return l <= 777 }); !ok || got != 777 ||
		n > 40 {
		t.Errorf("halving found %d in %d tries", got, n)
	}
	if _, ok := advice.Greatest(1, 0, 100, func(measure.Length) bool { return false }); ok {
		t.Error("found what there is not")
	}
}

// BenchmarkHowMany counts for 24 kinds at once.
func BenchmarkHowMany(b *testing.B) {
	d := tried.Many()
	d.Set("card.sheet", "a3")
	p := advice.Make(d, request.Default)
	if !p.OK() {
		b.Fatal(p.Problems)
	}
	for b.Loop() {
		if _, whole := advice.Count(b.Context(), p, request.Default); !whole {
			b.Fatal("it stopped short")
		}
	}
}

// What panics beside its caller is the caller's, whom a server can answer: it takes nobody else along.
func TestTogetherPanics(t *testing.T) {
	defer func() {
		if what := fmt.Sprint(recover()); !strings.Contains(what, "third") {
			t.Errorf("the caller was told %.80s", what)
		}
	}()
	advice.Together(t.Context(), 5, func(i int) {
		if i == 3 {
			panic("third")
		}
	})
}

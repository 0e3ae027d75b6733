package draw_test

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/demo"
	"brevium/draw"
)

func jobOf(b brief.Brief) sets.Job {
	if b.IsSet() {
		return sets.Make(b, request.Default).Job()
	}
	return sets.JobOf(plan.Make(b, request.Default))
}

// Every step of every box of the fair has its pictures, each a whole drawing that lights what
// is done in it.
func TestEveryStepHasItsPicture(t *testing.T) {
	all, err := demo.Projects()
	if err != nil {
		t.Fatal(err)
	}
	for _, b := range all {
		j := jobOf(b)
		for _, s := range j.Steps {
			if len(s.Frames) == 0 {
				t.Errorf("%s, %s has no picture", b.Name, s.ID)
			}
			for n, f := range s.Frames {
				svg := draw.Step(j, f, 300, 240).SVG()
				lit := map[bench.Look]string{bench.OnSheet: "a-cut now", bench.Cutting: "data-now", bench.Marked: "mark-now",
					bench.GlueIn: "glue-dot", bench.GlueOut: "glue-dot", bench.OnBoard: "flag-text"}[f.Look]
				if f.Look == bench.OnSheet && f.N < 0 {
					lit = ""
				}
				if !strings.Contains(svg, "<svg") || !strings.Contains(svg, lit) || f.Says == "" {
					t.Errorf("%s, %s, picture %d lights nothing (%q)", b.Name, s.ID, n+1, lit)
				}
				dec := xml.NewDecoder(strings.NewReader(svg))
				for err = nil; err == nil; {
					_, err = dec.Token()
				}
				if err != io.EOF {
					t.Errorf("%s, %s, picture %d: %v", b.Name, s.ID, n+1, err)
				}
			}
		}
	}
}

// A board that is numbered from the right has its fence there, and the piece lies turned.
func TestBoardFromTheRight(t *testing.T) {
	all, _ := demo.Projects()
	left := plan.Make(all[0], request.Default)
	w := request.Default
	w.Tools.FromRight = true
	right := plan.Make(all[0], w)
	a, b := draw.Board(left, left.Guide.Cards[0], 0).SVG(), draw.Board(right, right.Guide.Cards[0], 0).SVG()
	at := func(svg string) string {
		_, x, _ := strings.Cut(svg, `class="fence" x="`)
		x, _, _ = strings.Cut(x, `"`)
		return x
	}
	if at(a) != "18" || at(b) == "18" || at(b) == "" {
		t.Errorf("the fence stands at %s and %s", at(a), at(b))
	}
}

func BenchmarkStep(b *testing.B) {
	all, _ := demo.Projects()
	for _, of := range all {
		if of.Name != "Thank-you gift, dressed" {
			continue
		}
		j := jobOf(of)
		for _, s := range j.Steps {
			if n := len(s.Frames); n > 0 {
				b.Run(strings.ReplaceAll(s.ID, ":", "-"), func(b *testing.B) {
					for b.Loop() {
						draw.Step(j, s.Frames[n-1], 480, 345).SVG()
					}
				})
			}
		}
	}
}

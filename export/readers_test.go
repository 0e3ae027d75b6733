package export

import (
	"fmt"
	"reflect"
	"strings"
	"sync"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/costs"
	"brevium/core/cutting"
	"brevium/core/plan"
	"brevium/core/planjson"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/draw"
	"brevium/draw/solid"
	"brevium/export/drawings"
	"brevium/internal/drawn"
)

// readingsOf are all that pages, files and searches read off a plan: every method of it that asks for nothing
// more, what is read off it, its pictures and its files.
func readingsOf(p *plan.Plan) map[string]func() any {
	found := cutting.Search(p.Tasks(), nil)
	w := request.Default
	out := map[string]func() any{
		"sections": func() any { return readings.Sections(p) }, "carries": func() any { return readings.Carries(p) },
		"grains": func() any { return readings.Grains(p) }, "left": func() any { return readings.LeftOver(p, nil) },
		"supplies":   func() any { return readings.Supplies(p) },
		"json":       func() any { return string(planjson.Write(p)) },
		"advice":     func() any { a := advice.Of(p, w); return []any{a.Problems, a.Warnings, a.Advice} },
		"drawn.Near": func() any { return advice.Nearly(p, w) }, "levels": func() any { return advice.Levels(p, w) },
		"cut": func() any { return string(planjson.Write(advice.Cut(p, found, w))) },
		"job": func() any {
			j := sets.JobOf(p)
			return []any{j.Failed(), costs.Reckon(j, w, bench.Pace{}), j.InBoth().Steps, string(j.AsMade().Encode())}
		},
		"project": func() any { return wrote(Project(sets.JobOf(p), Options{Paper: Formats[0], Shop: w})) },
		"slip":    func() any { return wrote(Slip(sets.JobOf(p), true)) },
		"files":   func() any { return drawings.Drawings(sets.JobOf(p)) },
		"flat":    func() any { return draw.Flat(p, "", 900, 600, nil) },
		"folded":  func() any { return solid.Folded(p, assembly.Pose{Fold: 0.6}, solid.DefaultView, 900, 600) },
		"moving":  func() any { return solid.Moving(p, 300, 200) }, "stored": func() any { return solid.Stored(p, 300, 200) },
		"above": func() any { return draw.Above(p, 300, 200) }, "sheets": func() any { return draw.Sheets(p, 300, 200, 6) },
		"dressing": func() any { return draw.Dressing(p, 300, 200) }, "solid": func() any { return fmt.Sprintf("%+v", solid.SolidOf(p)) },
		"steps": func() any {
			says := ""
			for _, s := range p.Guide.Steps {
				if len(s.Frames) > 0 {
					says += draw.Step(sets.JobOf(p), s.Frames[0], 300, 200).SVG()
				}
			}
			return says
		},
	}
	v := reflect.ValueOf(p)
	for i := range v.NumMethod() {
		if m := v.Method(i); m.Type().NumIn() == 0 && m.Type().NumOut() > 0 {
			out["Plan."+v.Type().Method(i).Name] = func() any { return m.Call(nil)[0].Interface() }
		}
	}
	return out
}

// wrote goes by whether there is a file: a PDF is not to the byte the same twice.
func wrote(data []byte, err error) string { return fmt.Sprint(len(data) > 0, err) }

// A plan is finished: whatever sixteen readers read off it at once, in whatever order, is what one reads off it
// alone. With -race, that nobody writes it.
func TestSixteenReaders(t *testing.T) {
	for _, name := range []string{"Garden diary keepsake"} {
		b := drawn.Fair(t, name).Plans[0].Brief
		alone, p := readingsOf(plan.Make(b, request.Default)), plan.Make(b, request.Default)
		shared := readingsOf(p)
		want := map[string]string{}
		for what, read := range alone {
			want[what] = plainly(read())
		}
		var wait sync.WaitGroup
		for range 16 {
			wait.Go(func() {
				for what, read := range shared { // each in another order
					if got := plainly(read()); got != want[what] {
						t.Errorf("%s: %s reads otherwise beside others", name, what)
					}
				}
			})
		}
		wait.Wait()
	}
}

// plainly writes what was read without the places in memory that it points to.
func plainly(v any) string {
	var out strings.Builder
	for word := range strings.FieldsSeq(fmt.Sprintf("%+v", v)) {
		if !strings.Contains(word, "0x") {
			out.WriteString(word + " ")
		}
	}
	return out.String()
}

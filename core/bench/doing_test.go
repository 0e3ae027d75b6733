package bench_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/core/wish"
	"brevium/internal/tried"
)

// doings are boxes of all styles, with every closure, insert, handle, dressing and school: a few of
// them, and all with -long.
func doings(each func(name string, b brief.Brief)) {
	dressings := []string{`{}`, `{"layers": [{"on": "all"}, {"on": "outside"}]}`, `{"liners": [{"in": "all"}]}`, `{"band": {"way": "across"}}`,
		`{"band": {"way": "level", "form": "wrapped", "stuck": true}}`, `{"ribbon": {"way": "cross"}}`, `{"bow": {"loops": 6}}`,
		`{"toppers": [{"shape": "round", "words": "for you", "raised": true}]}`, `{"windows": [{"on": "top", "frame": "5 mm"}]}`,
		`{"finishes": [{"kind": "stamp"}, {"kind": "ink"}, {"kind": "sticker"}]}`, `{"grips": [{"kind": "pull", "on": "top"}]}`}
	for _, k := range []string{"strip", "swing", "ribbon", "cord"} {
		dressings = append(dressings, `{"handle": {"kind": "`+k+`"}}`)
	}
	for _, k := range wish.Closures {
		dressings = append(dressings, `{"closure": {"kind": "`+k+`"}}`)
	}
	schools := [][2]string{{"", ""}, {"tools.adhesive", "glue"}, {"tools.adhesive", "both"}, {"tools.burnish", "before"},
		{"tools.dressing", "standing"}, {"tools.scoring", "ruler"}, {"tools.cutting", "scissors"}, {"tools.wraps", "formed"}}
	n := 0
	for _, s := range style.Styles {
		if s.ID == "score-list" {
			continue
		}
		answers := [][2]string{{"", ""}}
		for _, q := range s.Asks {
			for _, c := range q.Choices {
				answers = append(answers, [2]string{"box.options." + q.ID, c.ID})
			}
		}
		for i, a := range answers {
			for j, dressing := range dressings {
				for k, school := range schools {
					n++
					if !*tried.Long && (i+j*3+k*5)%41 != n%41 && i+j+k > 0 || *tried.Long && (i+j+k)%3 > 0 {
						continue
					}
					b := tried.Metric(s.ID, 96, 70, 44, "card.join", "yes")
					switch s.ID {
					case "corner-shells":
						b.Size.Length = "70 mm"
					case "arched-box":
						b.Size.Depth = "96 mm"
					}
					b = tried.Dressed(b, dressing)
					for _, set := range [][2]string{a, school} {
						if set[0] != "" {
							b.Set(set[0], set[1])
						}
					}
					each(strings.Join([]string{s.ID, a[0], a[1], dressing, school[1]}, " "), b)
				}
			}
		}
	}
}

// inserts are boxes with things in them, kept apart in every way.
func inserts(each func(name string, b brief.Brief)) {
	for _, family := range []string{"tray-lid", "sleeve-drawer", "hinged-lid"} {
		for _, apart := range []string{"platform", "grid", "trays", "dividers", "cradle", "none"} {
			for _, adhesive := range []string{"tape", "glue"} {
				b := brief.New("mm")
				b.Contents = []brief.Item{{ID: "1", Name: "thumb pot", Shape: "cylinder", Diameter: "44 mm", Height: "30 mm", Count: "2"}}
				b.Box = brief.Box{Style: brief.Text(family)}
				for path, text := range map[string]string{"card.sheet": "a3", "tools.step": "1 mm", "arrange.compartments": apart,
					"tools.adhesive": adhesive} {
					b.Set(path, text)
				}
				each(family+" "+apart+" "+adhesive, b)
			}
		}
	}
}

// What is dropped, done twice or put off to the end, the reader of steps misses: it is not blind.
func TestStepsDoneWrongAreMissed(t *testing.T) {
	tries := 0
	for _, family := range []string{"tray-lid", "gable-cap", "sleeve-drawer", "pinch-top", "carton", "wrap-cover"} {
		b := tried.Metric(family, 96, 70, 44, "card.join", "yes", "tools.adhesive", "glue")
		p := advice.Make(tried.Dressed(b, `{"layers": [{"on": "outside"}]}`), request.Default)
		if faults := do(p, p.Guide.Steps); !p.Holds() || len(faults) > 0 {
			t.Fatalf("%s: %v %v", family, p.Problems, faults)
		}
		for i, s := range p.Guide.Steps {
			without := slices.Delete(slices.Clone(p.Guide.Steps), i, i+1)
			spoilt := map[string][]bench.Step{"dropped": without, "twice": slices.Insert(slices.Clone(p.Guide.Steps), i, s)}
			if s.Title == "Score" || s.Title == "Cut" || strings.HasPrefix(s.Title, "Stick") || s.Title == "Fill" {
				spoilt["last"] = append(slices.Clone(without), s)
			}
			for how, steps := range spoilt {
				if tries++; len(do(p, steps)) == 0 {
					t.Errorf("%s: %s %s goes unnoticed", family, s.ID, how)
				}
			}
			for n, f := range s.Frames {
				if f.Look != bench.Cutting && f.Look != bench.OnSheet && f.Look != bench.Marked {
					continue
				}
				bad := slices.Clone(p.Guide.Steps)
				bad[i].Frames = slices.Delete(slices.Clone(s.Frames), n, n+1)
				if tries++; len(do(p, bad)) == 0 {
					t.Errorf("%s: %s without picture %d goes unnoticed", family, s.ID, n)
				}
			}
		}
	}
	t.Logf("%d tried", tries)
}

// All styles with every answer, closure, handle, dressing and school: whoever does what the steps
// say and light ends with the plan's box.
func TestStepsCanBeDone(t *testing.T) {
	made, all := 0, map[string]int{}
	each := func(name string, b brief.Brief) {
		p := advice.Make(b, request.Default)
		if !p.Holds() {
			return
		}
		made++
		for _, fault := range do(p, p.Guide.Steps) {
			if all[fault]++; all[fault] == 1 {
				t.Errorf("%s: %s", name, fault)
			}
		}
	}
	doings(each)
	inserts(each)
	t.Logf("%d boxes made", made)
	if made < 100 {
		t.Errorf("only %d boxes could be made", made)
	}
}

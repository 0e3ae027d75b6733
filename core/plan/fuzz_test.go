package plan_test

import (
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// Any document that can be read is planned or refused with a reason, and the
// plan can be written for programs; nothing panics.
func FuzzPlan(f *testing.F) {
	files, err := filepath.Glob("../../demo/projects/*.json")
	if err != nil || len(files) == 0 {
		f.Fatal("no documents to begin with", err)
	}
	for _, file := range files {
		data, err := os.ReadFile(file)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(data)
	}
	f.Add(tried.Dressed(tried.Metric("flap-box", 90, 60, 40), `{"layers": [{"on": "all", "run": true, "motif": {"x": "90 mm", "y": "80 mm"}}],
		"liners": [{"in": "all"}], "windows": [{"on": "front", "shape": "round", "frame": "4 mm"}], "grips": [{"kind": "pull", "on": "flap"}],
		"finishes": [{"kind": "stamp", "on": "front", "count": "3", "when": "last", "dry": "7"}],
		"toppers": [{"shape": "tag", "on": "hanging"}], "band": {"way": "cross", "second": "12 mm"}, "ribbon": {"way": "under"},
		"handle": {"kind": "cord"}, "bow": {"curls": 3}, "closure": {"kind": "brad"}}`).Encode())
	f.Add([]byte(`{"brevium":1,"copies":3,"size":{"length":"90 mm","width":"60 mm","depth":"30 mm"},"sheets":{"aim":"cost","sizes":"any",
		"among-equals":"stops","look":"deep","offcuts":true,"margin":"3 mm","pins":[{"piece":"lid","sheet":1,"size":"a4","x":"9 mm",
		"y":0,"turned":true}]}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		b, err := brief.Decode(data)
		if err != nil {
			return
		}
		p := advice.Make(b, request.Default)
		if p.OK() == (len(p.Problems) > 0) {
			t.Fatalf("planned and refused, or neither: %v", p.Problems)
		}
		if p.OK() {
			p.Course()
			cutHastily(t, p)
		}
	})
}

// cutHastily lays a plan's sheets as it asks, with little work: each can be cut.
func cutHastily(t *testing.T, p *plan.Plan) {
	tasks := p.Tasks()
	for i := range tasks {
		tasks[i].Work = 2000
	}
	p = advice.Cut(p, cutting.Search(tasks, nil), request.Default)
	for _, s := range p.Layout.Sheets {
		if err := s.Check(0); err != nil {
			t.Fatal(err, string(p.Brief.Encode()))
		}
	}
}

// Fields of every demo project written over with what people and accidents
// write: the plan is made or refused, in the maker's words.
func TestFieldsWrittenOver(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 1))
	texts := []string{"", "0", "-1 mm", "3 mm", "1/64 in", "5 3/4", "40 mm", "99 in", "1e9", "999999999 mm",
		"NaN", "½ in", "yes", "no", "none", "1/0", "2, 3; 4 both", strings.Repeat("9", 40)}
	files, _ := filepath.Glob("../../demo/projects/*.json")
	for _, file := range files {
		data, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		whole, err := brief.Decode(data)
		if err != nil {
			t.Fatal(err)
		}
		fields := []string{"contents.0.length", "contents.0.diameter", "contents.0.height", "contents.0.count",
			"contents.0.shape", "room.around", "room.proud", "room.above", "arrange.compartments", "arrange.dividers",
			"size.length", "size.width", "size.depth", "card.stock", "card.sheet", "card.join", "tools.step",
			"tools.fit", "tools.adhesive", "units", "copies", "box.style",
			"box.pieces.0.width", "box.pieces.0.across", "box.pieces.1.down", "box.pieces.1.away", "box.pieces.1.is",
			"box.stated.length", "sheets.aim", "sheets.margin", "sheets.look", "sheets.offcuts", "sheets.sizes"}
		for _, s := range style.Styles {
			for _, o := range s.Asks {
				if string(whole.Box.Style) == s.ID {
					fields = append(fields, "box.options."+o.ID, "box.options."+o.ID)
				}
			}
		}
		for range tried.Fewer(1500) {
			b := whole.Clone()
			for range 1 + r.IntN(3) {
				b.Set(fields[r.IntN(len(fields))], texts[r.IntN(len(texts))])
			}
			p := advice.Make(b, request.Default)
			if p.OK() == (len(p.Problems) > 0) {
				t.Fatalf("planned and refused, or neither: %v, %s", p.Problems, b.Encode())
			}
			for _, pr := range p.Problems {
				if pr.Field == "" || pr.Text == "" || pr.Fix == "" {
					t.Errorf("%+v, for %s", pr, b.Encode())
				}
			}
		}
	}
}

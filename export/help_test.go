package export

import (
	"encoding/json"
	"errors"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/demo"
)

// made plans a box in whole millimetres, on A3, with fields and texts in pairs.
func made(t testing.TB, style string, l, w, d string, set ...string) sets.Job {
	t.Helper()
	b := brief.New("mm")
	b.Name, b.Contents = "Fair box", nil
	b.Size = &brief.Size{Length: brief.Text(l), Width: brief.Text(w), Depth: brief.Text(d)}
	for i, pairs := 0, append([]string{"tools.step", "1 mm", "card.sheet", "a3", "box.style", style}, set...); i+1 < len(pairs); i += 2 {
		b.Set(pairs[i], pairs[i+1])
	}
	p := plan.Make(b, request.Default)
	if !p.OK() {
		t.Fatalf("%s: %v", style, p.Problems)
	}
	return sets.JobOf(p)
}

// demoJob is a box of the fair, or a set of it, by its name.
func demoJob(t testing.TB, name string) sets.Job {
	t.Helper()
	all, err := demo.Projects()
	if err != nil {
		t.Fatal(err)
	}
	for _, b := range all {
		if string(b.Name) == name {
			if b.IsSet() {
				return sets.Make(b, request.Default).Job()
			}
			return sets.JobOf(plan.Make(b, request.Default))
		}
	}
	t.Fatalf("the fair has no %q", name)
	return sets.Job{}
}

// unproved is a box whose proof does not hold: a piece is larger than its sheet.
func unproved(t testing.TB) sets.Job {
	j := made(t, "tray-lid", "200 mm", "150 mm", "60 mm", "card.sheet", "6x6")
	if j.Holds() {
		t.Fatal("it holds")
	}
	for i := range j.Plans[0].Checks[:4] { // more than a line of a page tells
		j.Plans[0].Checks[i].Holds = false
	}
	return j
}

// runs asks a program that is no part of ours; ./check installs them.
func runs(t testing.TB, name string, args ...string) string {
	t.Helper()
	out, err := exec.Command(name, args...).Output()
	if err != nil {
		said := ""
		if e := new(exec.ExitError); errors.As(err, &e) {
			said = string(e.Stderr[max(0, len(e.Stderr)-400):])
		}
		t.Fatalf("%s: %v; ./check installs what the tests need: %s", name, err, said)
	}
	return string(out)
}

func kept(t testing.TB, name string, data []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(file, data, 0o600); err != nil {
		t.Fatal(err)
	}
	return file
}

// segment2 is a straight line as a reader found it.
type segment2 [4]float64

func (s segment2) is(o segment2, near float64) bool {
	same := func(a, b segment2) bool {
		for i := range a {
			if math.Abs(a[i]-b[i]) > near {
				return false
			}
		}
		return true
	}
	return same(s, o) || same(s, segment2{o[2], o[3], o[0], o[1]})
}

// straight gives the straight lines of a drawing, of kinds that are cut or scored.
func straight(d Drawing) (out []segment2) {
	for _, p := range d.Paths {
		if p.Kind == Name || p.Round > 0 {
			continue
		}
		n := len(p.Points)
		if !p.Closed {
			n--
		}
		for i := range n {
			a, b := p.Points[i], p.Points[(i+1)%len(p.Points)]
			out = append(out, segment2{a.X, a.Y, b.X, b.Y})
		}
	}
	return out
}

// allFound says which lines of a drawing a reader did not find.
func allFound(want, got []segment2, near float64) (missing []segment2) {
	for _, w := range want {
		found := false
		for _, g := range got {
			if found = g.is(w, near); found {
				break
			}
		}
		if !found {
			missing = append(missing, w)
		}
	}
	return missing
}

// dxfScript tells what ezdxf reads, and what its audit finds wrong.
const dxfScript = `import ezdxf, json, sys
doc = ezdxf.readfile(sys.argv[1]); out = {"version": doc.dxfversion, "units": doc.header.get("$INSUNITS", 0), "lines": [],
  "circles": [], "layers": [l.dxf.name for l in doc.layers], "texts": [], "errors": [e.message for e in doc.audit().errors]}
for e in doc.modelspace():
    if e.dxftype() == "LINE": out["lines"].append([e.dxf.layer, e.dxf.start.x, e.dxf.start.y, e.dxf.end.x, e.dxf.end.y])
    elif e.dxftype() == "CIRCLE": out["circles"].append([e.dxf.layer, e.dxf.center.x, e.dxf.center.y, e.dxf.radius])
    elif e.dxftype() == "TEXT": out["texts"].append(e.dxf.text)
    elif e.dxftype() == "POLYLINE":
        at = [v.dxf.location for v in e.vertices]
        for a, b in zip(at, at[1:] + (at[:1] if e.is_closed else [])): out["lines"].append([e.dxf.layer, a.x, a.y, b.x, b.y])
print(json.dumps(out))`

type readDXF struct {
	Version string
	Units   int
	Lines   [][]any
	Circles [][]any
	Layers  []string
	Texts   []string
	Errors  []string
}

func readBack(t testing.TB, dxf []byte) (out readDXF) {
	t.Helper()
	text := runs(t, "/usr/bin/python3", "-c", dxfScript, kept(t, "it.dxf", dxf))
	if err := json.Unmarshal([]byte(text[strings.IndexByte(text, '{'):]), &out); err != nil {
		t.Fatal(err)
	}
	return out
}

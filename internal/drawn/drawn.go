// Package drawn reads drawings back, as other programs do, and has boxes whose drawings are worth reading. Only tests
// import it.
package drawn

import (
	"encoding/json"
	"errors"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/demo"
	"brevium/internal/tried"
)

// Near is how near two lines are that are the same, in millimetres.
const Near = 0.01

// Line is a straight line as a reader found it.
type Line [4]float64

// Is reports whether two lines are the same, either way round.
func (s Line) Is(o Line, near float64) bool {
	same := func(a, b Line) bool {
		for i := range a {
			if math.Abs(a[i]-b[i]) > near {
				return false
			}
		}
		return true
	}
	return same(s, o) || same(s, Line{o[2], o[3], o[0], o[1]})
}

// Job plans a box in whole millimetres, on A3, with fields and texts in pairs.
func Job(t testing.TB, style string, l, w, d string, set ...string) sets.Job {
	t.Helper()
	p := tried.Unmended(tried.Sized(l, w, d, append([]string{"name", "Fair box", "units", "mm", "tools.step", "1 mm",
		"card.sheet", "a3", "box.style", style}, set...)...))
	if !p.OK() {
		t.Fatalf("%s: %v", style, p.Problems)
	}
	return sets.JobOf(p)
}

// Fair is a box of the fair, or a set of it, by its name.
func Fair(t testing.TB, name string) sets.Job {
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

// Runs asks a program that is no part of ours; ./check installs them.
func Runs(t testing.TB, name string, args ...string) string {
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

// Kept writes a file that is gone after the test.
func Kept(t testing.TB, name string, data []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(file, data, 0o600); err != nil {
		t.Fatal(err)
	}
	return file
}

// AllFound says which lines of a drawing a reader did not find.
func AllFound(want, got []Line, near float64) (missing []Line) {
	for _, w := range want {
		found := false
		for _, g := range got {
			if found = g.Is(w, near); found {
				break
			}
		}
		if !found {
			missing = append(missing, w)
		}
	}
	return missing
}

// ReadDXF reads drawings as another program does.
func ReadDXF(t testing.TB, all ...[]byte) (out []DXF) {
	t.Helper()
	args := []string{"-c", dxfScript}
	for i, dxf := range all {
		args = append(args, Kept(t, strconv.Itoa(i)+".dxf", dxf))
	}
	text := Runs(t, "/usr/bin/python3", args...)
	if err := json.Unmarshal([]byte(text[strings.LastIndex(text, "\n[{")+1:]), &out); err != nil {
		t.Fatal(err)
	}
	return out
}

// dxfScript tells what ezdxf reads, and what its audit finds wrong.
const dxfScript = `import ezdxf, json, sys
all = []
for name in sys.argv[1:]:
    doc = ezdxf.readfile(name); out = {"version": doc.dxfversion, "units": doc.header.get("$INSUNITS", 0), "lines": [],
      "circles": [], "layers": [l.dxf.name for l in doc.layers], "texts": [], "errors": [e.message for e in doc.audit().errors]}
    all.append(out)
    for e in doc.modelspace():
        if e.dxftype() == "LINE": out["lines"].append([e.dxf.layer, e.dxf.start.x, e.dxf.start.y, e.dxf.end.x, e.dxf.end.y])
        elif e.dxftype() == "CIRCLE": out["circles"].append([e.dxf.layer, e.dxf.center.x, e.dxf.center.y, e.dxf.radius])
        elif e.dxftype() == "TEXT": out["texts"].append(e.dxf.text)
        elif e.dxftype() == "POLYLINE":
            at = [v.dxf.location for v in e.vertices]
            for a, b in zip(at, at[1:] + (at[:1] if e.is_closed else [])): out["lines"].append([e.dxf.layer, a.x, a.y, b.x, b.y])
print("\n" + json.dumps(all))`

// DXF is what another program found in a drawing.
type DXF struct {
	Version string
	Units   int
	Lines   [][]any
	Circles [][]any
	Layers  []string
	Texts   []string
	Errors  []string
}

// Segments reads the straight lines of a path.
func Segments(t testing.TB, d string) (out []Line) {
	var at, first []float64
	letter, nums := "", []float64{}
	for _, w := range pathWord.FindAllString(d, -1) {
		if strings.Contains("MLZCH", w) {
			if letter = w; w == "Z" && len(at) == 2 && (at[0] != first[0] || at[1] != first[1]) {
				out = append(out, Line{at[0], at[1], first[0], first[1]})
			}
			nums = nil
			continue
		}
		v, err := strconv.ParseFloat(w, 64)
		if err != nil {
			t.Fatal(err)
		}
		if nums = append(nums, v); letter == "C" && len(nums) == 6 {
			at, nums = nums[4:6], nil
		} else if letter != "C" && len(nums) == 2 {
			if letter == "L" {
				out = append(out, Line{at[0], at[1], nums[0], nums[1]})
			} else {
				first = nums
			}
			at, nums = nums, nil
		}
	}
	return out
}

var pathWord = regexp.MustCompile(`[MLZCH]|-?[0-9.]+`)

var svgPath = regexp.MustCompile(`<path [^>]*\bd="([^"]*)"`)

// InSVG reads the straight lines of a drawing in SVG.
func InSVG(t testing.TB, svg []byte) (out []Line) {
	t.Helper()
	for _, m := range svgPath.FindAllSubmatch(svg, -1) {
		out = append(out, Segments(t, string(m[1]))...)
	}
	return out
}

package drawings

import (
	"math"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"testing"

	"brevium/core/measure"
	"brevium/core/sets"
	styles "brevium/core/style"
	"brevium/internal/drawn"
	"brevium/machine"
)

// What the machine draws of a sheet is the drawing and nothing else: every cut and score of it
// is gone over, but the rim of the sheet itself, and nothing lies beside. Read by the machine's
// own readers, HPGL and G-code are the same path.
func TestPathIsTheDrawing(t *testing.T) {
	jobs := []sets.Job{drawn.Fair(t, "Thank-you gift, dressed"), drawn.Fair(t, "Tansy tower")}
	for _, s := range styles.Styles {
		if s.ID != "score-list" {
			depth := map[bool]string{true: "60 mm", false: "34 mm"}[s.ID == "arched-box"]
			jobs = append(jobs, drawn.Job(t, s.ID, "70 mm", "70 mm", depth))
		}
	}
	for _, j := range jobs {
		n := 0
		for _, c := range j.Cuts {
			for range c.Sheets {
				pathIsDrawing(t, j, n)
				n++
			}
		}
	}
}

func pathIsDrawing(t *testing.T, j sets.Job, n int) {
	t.Helper()
	strokes, d, err := Strokes(j, n)
	if err != nil {
		t.Fatalf("%s, sheet %d: %v", j.Name, n+1, err)
	}
	hpgl, err1 := machine.ReadHPGL(HPGL(d, strokes))
	gcode, err2 := machine.ReadGCode(GCode(d, strokes))
	if err1 != nil || err2 != nil {
		t.Fatalf("%s: %v, %v", j.Name, err1, err2)
	}
	if len(hpgl.Strokes) != len(strokes) || len(gcode.Strokes) != len(strokes) || hpgl.W != d.W || gcode.H != d.H {
		t.Fatalf("%s: %d and %d strokes of %d", j.Name, len(hpgl.Strokes), len(gcode.Strokes), len(strokes))
	}
	for _, p := range []machine.Program{hpgl, gcode} {
		if why := p.Check(machine.Bed{W: 800, H: 800}); len(why) > 0 {
			t.Errorf("%s, sheet %d of %s: %v", j.Name, n+1, j.Plans[0].Style.ID, why)
		}
	}
	for _, number := range regexp.MustCompile(`\d+`).FindAllString(string(HPGL(d, strokes)), -1) {
		if v, _ := strconv.Atoi(number); v > mostHPGL {
			t.Fatalf("%s: HPGL has the number %d", j.Name, v)
		}
	}
	of := map[int][]drawn.Line{}
	for i, s := range hpgl.Strokes {
		for k := range s.Points[1:] {
			a, b, g := s.Points[k], s.Points[k+1], gcode.Strokes[i].Points
			of[s.Tool] = append(of[s.Tool], drawn.Line{a.X, d.H - a.Y, b.X, d.H - b.Y})
			if most := 0.5/float64(d.hpglUnit()) + 0.0006; math.Abs(a.X-g[k].X) > most || math.Abs(a.Y-g[k].Y) > most {
				t.Fatalf("%s: stroke %d lies otherwise in HPGL and G-code", j.Name, i+1)
			}
		}
	}
	rim := func(s drawn.Line) bool {
		return s[0] == s[2] && edgeOf(s[0], d.W) || s[1] == s[3] && edgeOf(s[1], d.H)
	}
	for tool, kinds := range map[int][]Kind{machine.Scorer: {Valley, Mountain}, machine.Knife: {Cut, Hole}} {
		part := d
		part.Paths = nil
		for _, p := range d.Paths {
			if slices.Contains(kinds, p.Kind) {
				if p.Round > 0 {
					p = Path{Kind: p.Kind, Points: ring(p)}
				}
				part.Paths = append(part.Paths, p)
			}
		}
		want := slices.DeleteFunc(straight(part), rim)
		if bare := uncovered(want, of[tool]); len(bare) > 0 {
			t.Errorf("%s, sheet %d: tool %d leaves out %v", j.Name, n+1, tool, bare[0])
		}
		if beside := uncovered(of[tool], want); len(beside) > 0 {
			t.Errorf("%s, sheet %d: tool %d goes where nothing is drawn: %v", j.Name, n+1, tool, beside[0])
		}
	}
}

// No cut is made twice, however fine the marks: pieces side by side share theirs, at sixteenths,
// thirty-seconds, sixty-fourths and millimetres.
func TestSharedCutsOnce(t *testing.T) {
	r := rand.New(rand.NewPCG(24, 1))
	for range 120 {
		step := []measure.Length{measure.Inch / 16, measure.Inch / 32, measure.Inch / 64, measure.Millimetre, measure.Millimetre / 2}[r.IntN(5)]
		d := Drawing{W: 300, H: 300}
		x := step * measure.Length(1+r.IntN(40))
		for range 4 {
			w, h := step*measure.Length(20+r.IntN(60)), step*measure.Length(20+r.IntN(60))
			rect := rectangle("piece", w.MM(), h.MM())[:1]
			if r.IntN(2) == 0 { // turned, as it is laid
				Move(rect, func(q Point) Point { return Point{w.MM() - q.X, q.Y} })
			}
			Move(rect, func(q Point) Point { return Point{x.MM() + q.X, 10*step.MM() + q.Y} })
			d.Paths, x = append(d.Paths, rect...), x+w
		}
		var cuts []drawn.Line
		for _, s := range d.Strokes() {
			for k := 1; k < len(s.Points); k++ {
				cuts = append(cuts, drawn.Line{s.Points[k-1].X, s.Points[k-1].Y, s.Points[k].X, s.Points[k].Y})
			}
		}
		for i, c := range cuts {
			rest := slices.Delete(slices.Clone(cuts), i, i+1)
			if bare := uncovered([]drawn.Line{c}, rest); len(bare) < 3 {
				t.Fatalf("in marks of %v, the cut %v is made twice", step.MM(), c)
			}
		}
	}
}

// uncovered gives places of lines that lie on none of the others.
func uncovered(lines, by []drawn.Line) (bare []Point) {
	for _, s := range lines {
		for _, part := range []float64{0.03, 0.37, 0.71, 0.98} {
			at := Point{s[0] + part*(s[2]-s[0]), s[1] + part*(s[3]-s[1])}
			on := slices.ContainsFunc(by, func(o drawn.Line) bool {
				ux, uy := o[2]-o[0], o[3]-o[1]
				k := min(1, max(0, ((at.X-o[0])*ux+(at.Y-o[1])*uy)/max(ux*ux+uy*uy, 1e-12)))
				return math.Hypot(at.X-o[0]-k*ux, at.Y-o[1]-k*uy) < drawn.Near
			})
			if !on {
				bare = append(bare, at)
			}
		}
	}
	return bare
}

// The order of few strokes is the shortest of all orders; that of many is far shorter than as
// they came.
func TestLeastTravel(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 130))
	for range 60 {
		all := make([]Stroke, 1+r.IntN(6))
		for i := range all {
			p := func() Point { return Point{r.Float64() * 300, r.Float64() * 300} }
			all[i] = Stroke{Knife, []Point{p(), p()}, false}
		}
		if got, best := Travel(nearest(all, Point{})), shortest(all, Point{}); math.Abs(got-best) > 1e-6 {
			t.Errorf("%d strokes: %.1f mm in the air, %.1f is the least", len(all), got, best)
		}
	}
	for range 20 {
		all := make([]Stroke, fewStrokes+1+r.IntN(80))
		for i := range all {
			a := Point{r.Float64() * 300, r.Float64() * 300}
			all[i] = Stroke{Knife, []Point{a, {a.X + 10, a.Y}}, false}
		}
		if got := Travel(nearest(all, Point{})); got > Travel(all)/2 {
			t.Errorf("%d strokes: %.0f mm in the air, %.0f as they came", len(all), got, Travel(all))
		}
	}
}

// shortest is the least travel of all orders and ways round.
func shortest(all []Stroke, at Point) float64 {
	if len(all) == 0 {
		return 0
	}
	best := math.Inf(1)
	for i, s := range all {
		rest := slices.Delete(slices.Clone(all), i, i+1)
		for _, back := range []bool{false, true} {
			best = min(best, apartBy(at, end(s, back))+shortest(rest, end(s, !back)))
		}
	}
	return best
}

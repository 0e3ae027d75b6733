package export

import (
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/export/drawings"
	"brevium/internal/drawn"
)

// matrix is how a group of a picture lies.
var matrix = regexp.MustCompile(`matrix\(([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+)\)`)
var drawnPath = regexp.MustCompile(`<path [^>]*>`)

// inPDF reads the straight lines of a page with poppler, in millimetres.
func inPDF(t *testing.T, file string, page int) (out []drawn.Line) {
	t.Helper()
	n := strconv.Itoa(page)
	svg := drawn.Runs(t, "pdftocairo", "-svg", "-origpagesizes", "-noshrink", "-nocenter", "-f", n, "-l", n, file, "-")
	for _, p := range drawnPath.FindAllString(svg, -1) {
		_, d, _ := strings.Cut(p, ` d="`)
		d, _, _ = strings.Cut(d, `"`)
		m := [6]float64{1, 0, 0, 1, 0, 0}
		if t := matrix.FindStringSubmatch(p); t != nil {
			for i := range m {
				m[i], _ = strconv.ParseFloat(t[i+1], 64)
			}
		}
		for _, s := range drawn.Segments(t, d) {
			const pt = 25.4 / 72
			to := func(x, y float64) (float64, float64) {
				return (m[0]*x + m[2]*y + m[4]) * pt, (m[1]*x + m[3]*y + m[5]) * pt
			}
			var q drawn.Line
			q[0], q[1] = to(s[0], s[1])
			q[2], q[3] = to(s[2], s[3])
			out = append(out, q)
		}
	}
	return out
}

// found says where on a page the lines of a drawing lie, as it is or turned a quarter.
func found(t testing.TB, d drawings.Drawing, got []drawn.Line) (at drawings.Point, ok bool) {
	at, _, ok = foundAs(t, d, got)
	return at, ok
}

func foundAs(t testing.TB, d drawings.Drawing, got []drawn.Line) (at drawings.Point, as drawings.Drawing, ok bool) {
	for _, d := range []drawings.Drawing{d, d.Turned()} {
		want := drawn.InSVG(t, d.SVG())
		for _, g := range got {
			for _, end := range []drawings.Point{{X: g[0], Y: g[1]}, {X: g[2], Y: g[3]}} {
				at := drawings.Point{X: end.X - want[0][0], Y: end.Y - want[0][1]}
				moved := make([]drawn.Line, len(want))
				for i, w := range want {
					moved[i] = drawn.Line{w[0] + at.X, w[1] + at.Y, w[2] + at.X, w[3] + at.Y}
				}
				if len(drawn.AllFound(moved[:1], got, drawn.Near)) == 0 && len(drawn.AllFound(moved, got, drawn.Near)) == 0 {
					return at, d, true
				}
			}
		}
	}
	return at, d, false
}

// Templates in PDF, read with poppler: a piece that goes on a page lies there to a hundredth of
// a millimetre, beside a ruler of 100 mm, whole and on no other piece; small ones share a page.
func TestTemplatesTrueToSize(t *testing.T) {
	for _, paper := range Formats {
		j := drawn.Job(t, "tray-lid", "60 mm", "50 mm", "30 mm")
		pdf, err := Templates(j, What{}, Options{Paper: paper})
		if err != nil {
			t.Fatal(err)
		}
		file := drawn.Kept(t, "t.pdf", pdf)
		var lines [][]drawn.Line
		for page := range pagesOf(t, file) {
			lines = append(lines, inPDF(t, file, page+1))
			if !slices.ContainsFunc(lines[page], func(s drawn.Line) bool {
				return math.Abs(math.Abs(s[2]-s[0])-100) < drawn.Near && math.Abs(s[1]-s[3]) < drawn.Near
			}) {
				t.Errorf("page %d has no ruler of 100 mm", page+1)
			}
		}
		type laid struct {
			page   int
			lo, hi drawings.Point
		}
		var all []laid
		for _, d := range drawings.Drawings(j) {
			on := slices.IndexFunc(lines, func(got []drawn.Line) bool { _, ok := found(t, d, got); return ok })
			if on < 0 {
				t.Errorf("%s: the %s is on no page", paper.ID, d.Name)
				continue
			}
			at, _ := found(t, d, lines[on])
			in := laid{on, at, drawings.Point{X: at.X + d.W, Y: at.Y + d.H}}
			if at.X < tileMargin-drawn.Near || at.Y < tileMargin || in.hi.X > paper.W-tileMargin+drawn.Near ||
				in.hi.Y > paper.H-tileMargin-tileFoot+drawn.Near {
				t.Errorf("%s: the %s lies off the page at %v", paper.ID, d.Name, at)
			}
			for _, o := range all {
				if o.page == on && in.lo.X < o.hi.X && o.lo.X < in.hi.X && in.lo.Y < o.hi.Y && o.lo.Y < in.hi.Y {
					t.Errorf("%s: the %s lies on another piece", paper.ID, d.Name)
				}
			}
			all = append(all, in)
		}
		if len(lines) >= len(all) {
			t.Errorf("%s: %d pages for %d pieces", paper.ID, len(lines), len(all))
		}
	}
}

func pagesOf(t *testing.T, file string) (n int) {
	_, pages, _ := strings.Cut(drawn.Runs(t, "pdfinfo", file), "Pages:")
	fmt.Sscan(pages, &n)
	return n
}

// Layers cut from one strip come off it where they belong, and off no other part of it, however
// many parts the strip is cut in: in every format, and every layer of the run exactly once.
func TestStripsInParts(t *testing.T) {
	r := rand.New(rand.NewPCG(24, 2))
	parted := 0
	for range 14 {
		l, w := fmt.Sprintf("%d mm", 60+r.IntN(120)), fmt.Sprintf("%d mm", 60+r.IntN(90))
		b := brief.New("mm")
		b.Contents, b.Size = nil, &brief.Size{Length: brief.Text(l), Width: brief.Text(w), Depth: "34 mm"}
		for field, says := range map[string]string{"tools.step": []string{"1 mm", "1/16 in", "1/32 in"}[r.IntN(3)], "card.sheet": "a3",
			"box.options.lid": "none"} {
			b.Set(field, says)
		}
		b.Dress.Layers = []brief.Layer{{On: "sides", Run: "yes", Border: "2 mm", Stock: "sprig-220"}}
		p := plan.Make(b, request.Default)
		if !p.OK() {
			t.Fatal(p.Problems)
		}
		j := sets.JobOf(p)
		cut, want := map[string]int{}, map[string]int{}
		for _, run := range p.Dressed.Runs {
			if len(p.RunParts(run)) > 1 {
				parted++
			}
			for _, c := range run.Cuts {
				want[c.Piece.Name]++
			}
		}
		n := 0
		for _, c := range j.Cuts {
			for range c.Sheets {
				d, _ := drawings.OfSheet(j, n)
				for _, as := range []string{"svg", "dxf", "hpgl", "gcode"} {
					if _, err := Write(j, as, What{Sheet: n + 1}, Options{}); err != nil {
						t.Errorf("%s × %s, %s: %v", l, w, as, err)
					}
				}
				for _, path := range d.Paths {
					if _, of := want[path.Piece]; of && path.Kind == drawings.Cut {
						cut[path.Piece]++
					}
				}
				n++
			}
		}
		for name, count := range want {
			if cut[name] != count {
				t.Errorf("%s × %s: the %s is cut %d times, not %d", l, w, name, cut[name], count)
			}
		}
	}
	if parted < 5 {
		t.Errorf("only %d strips in parts", parted)
	}
}

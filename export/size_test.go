package export

import (
	"encoding/xml"
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"

	styles "brevium/core/style"
)

const near = 0.01 // mm

// everyPiece goes over the pieces of boxes with all kinds of line: holes, slots, slants, bends,
// mirror images, layers cut to a shape.
func everyPiece(t *testing.T, do func(name string, j sets.Job, d Drawing)) {
	for _, j := range []sets.Job{made(t, "tray-lid", "90 mm", "70 mm", "40 mm"), made(t, "gable-cap", "80 mm", "60 mm", "50 mm"),
		made(t, "pinch-top", "60 mm", "44 mm", "80 mm", "box.options.closure", "ribbon"),
		made(t, "arched-box", "80 mm", "60 mm", "70 mm"), made(t, "corner-shells", "70 mm", "70 mm", "25 mm"),
		made(t, "pleat-pouch", "90 mm", "24 mm", "50 mm")} {
		piecesOf(j, func(p *plan.Plan, _ string, piece *net.Piece) {
			do(p.Style.ID+" "+piece.Name, j, OfPiece(j, p, piece, false))
		})
	}
}

// A drawing in SVG, read with an XML parser: real millimetres, groups by name, every line.
func TestSVGTrueToSize(t *testing.T) {
	type group struct {
		ID    string `xml:"id,attr"`
		Paths []struct {
			D string `xml:"d,attr"`
		} `xml:"path"`
		Circles []struct {
			X float64 `xml:"cx,attr"`
			Y float64 `xml:"cy,attr"`
			R float64 `xml:"r,attr"`
		} `xml:"circle"`
	}
	everyPiece(t, func(name string, _ sets.Job, d Drawing) {
		var svg struct {
			Width   string  `xml:"width,attr"`
			ViewBox string  `xml:"viewBox,attr"`
			Groups  []group `xml:"g"`
		}
		if err := xml.Unmarshal(d.SVG(), &svg); err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		if svg.Width != mm(d.W)+"mm" || svg.ViewBox != "0 0 "+mm(d.W)+" "+mm(d.H) {
			t.Errorf("%s: %s wide, view %s", name, svg.Width, svg.ViewBox)
		}
		var got []segment2
		rounds := 0
		for _, g := range svg.Groups {
			if !slices.Contains(Kinds, Kind(g.ID)) {
				t.Errorf("%s: a group %q", name, g.ID)
			}
			for _, p := range g.Paths {
				got = append(got, segmentsOf(t, p.D)...)
			}
			rounds += len(g.Circles)
		}
		if missing := allFound(straight(d), got, near); len(missing) > 0 || len(got) != len(straight(d)) {
			t.Errorf("%s: %d of %d lines, without %v", name, len(got), len(straight(d)), missing)
		}
		want := 0
		for _, p := range d.Paths {
			if p.Round > 0 {
				want++
			}
		}
		if rounds != want {
			t.Errorf("%s: %d rounds, not %d", name, rounds, want)
		}
	})
}

var pathWord = regexp.MustCompile(`[MLZCH]|-?[0-9.]+`)

// segmentsOf reads the straight lines of a path.
func segmentsOf(t *testing.T, d string) (out []segment2) {
	var at, first []float64
	letter, nums := "", []float64{}
	for _, w := range pathWord.FindAllString(d, -1) {
		if strings.Contains("MLZCH", w) {
			if letter = w; w == "Z" && len(at) == 2 && (at[0] != first[0] || at[1] != first[1]) {
				out = append(out, segment2{at[0], at[1], first[0], first[1]})
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
				out = append(out, segment2{at[0], at[1], nums[0], nums[1]})
			} else {
				first = nums
			}
			at, nums = nums, nil
		}
	}
	return out
}

// A drawing in DXF, read with a reader that is not ours: R12, millimetres, layers by kind.
func TestDXFTrueToSize(t *testing.T) {
	everyPiece(t, func(name string, _ sets.Job, d Drawing) {
		got := readBack(t, d.DXF())
		if got.Version != "AC1009" || got.Units != 4 || len(got.Errors) > 0 {
			t.Fatalf("%s: %s, units %d, %v", name, got.Version, got.Units, got.Errors)
		}
		for layer, kind := range map[string][]Kind{"CUT": {Cut}, "HOLE": {Hole}, "SCORE_VALLEY": {Valley},
			"SCORE_MOUNTAIN": {Mountain}, "BEND": {Bend}} {
			if !slices.Contains(got.Layers, layer) {
				t.Errorf("%s: no layer %s in %v", name, layer, got.Layers)
			}
			var lines []segment2
			for _, l := range got.Lines {
				if l[0] == layer { // up is up there
					lines = append(lines, segment2{l[1].(float64), d.H - l[2].(float64), l[3].(float64), d.H - l[4].(float64)})
				}
			}
			of := d
			of.Paths = slices.DeleteFunc(slices.Clone(d.Paths), func(p Path) bool { return !slices.Contains(kind, p.Kind) })
			if missing := allFound(straight(of), lines, near); len(missing) > 0 || len(lines) != len(straight(of)) {
				t.Errorf("%s, %s: %d of %d lines, without %v", name, layer, len(lines), len(straight(of)), missing)
			}
		}
	})
}

// matrix is how a group of a picture lies.
var matrix = regexp.MustCompile(`matrix\(([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+), ?([-0-9.e]+)\)`)
var drawnPath = regexp.MustCompile(`<path [^>]*>`)

// inPDF reads the straight lines of a page with poppler, in millimetres.
func inPDF(t *testing.T, file string, page int) (out []segment2) {
	t.Helper()
	n := strconv.Itoa(page)
	svg := runs(t, "pdftocairo", "-svg", "-origpagesizes", "-noshrink", "-nocenter", "-f", n, "-l", n, file, "-")
	for _, p := range drawnPath.FindAllString(svg, -1) {
		_, d, _ := strings.Cut(p, ` d="`)
		d, _, _ = strings.Cut(d, `"`)
		m := [6]float64{1, 0, 0, 1, 0, 0}
		if t := matrix.FindStringSubmatch(p); t != nil {
			for i := range m {
				m[i], _ = strconv.ParseFloat(t[i+1], 64)
			}
		}
		for _, s := range segmentsOf(t, d) {
			const pt = 25.4 / 72
			to := func(x, y float64) (float64, float64) {
				return (m[0]*x + m[2]*y + m[4]) * pt, (m[1]*x + m[3]*y + m[5]) * pt
			}
			var q segment2
			q[0], q[1] = to(s[0], s[1])
			q[2], q[3] = to(s[2], s[3])
			out = append(out, q)
		}
	}
	return out
}

// found says where on a page the lines of a drawing lie, as it is or turned a quarter.
func found(d Drawing, got []segment2) (at Point, ok bool) {
	at, _, ok = foundAs(d, got)
	return at, ok
}

func foundAs(d Drawing, got []segment2) (at Point, as Drawing, ok bool) {
	for _, d := range []Drawing{d, d.turned()} {
		want := straight(d)
		for _, g := range got {
			for _, end := range []Point{{g[0], g[1]}, {g[2], g[3]}} {
				at := Point{end.X - want[0][0], end.Y - want[0][1]}
				moved := make([]segment2, len(want))
				for i, w := range want {
					moved[i] = segment2{w[0] + at.X, w[1] + at.Y, w[2] + at.X, w[3] + at.Y}
				}
				if len(allFound(moved[:1], got, near)) == 0 && len(allFound(moved, got, near)) == 0 {
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
		j := made(t, "tray-lid", "60 mm", "50 mm", "30 mm")
		pdf, err := Templates(j, What{}, Options{Paper: paper})
		if err != nil {
			t.Fatal(err)
		}
		file := kept(t, "t.pdf", pdf)
		var lines [][]segment2
		for page := range pagesOf(t, file) {
			lines = append(lines, inPDF(t, file, page+1))
			if !slices.ContainsFunc(lines[page], func(s segment2) bool {
				return math.Abs(math.Abs(s[2]-s[0])-100) < near && math.Abs(s[1]-s[3]) < near
			}) {
				t.Errorf("page %d has no ruler of 100 mm", page+1)
			}
		}
		type laid struct {
			page   int
			lo, hi Point
		}
		var all []laid
		for _, d := range Drawings(j) {
			on := slices.IndexFunc(lines, func(got []segment2) bool { _, ok := found(d, got); return ok })
			if on < 0 {
				t.Errorf("%s: the %s is on no page", paper.ID, d.Name)
				continue
			}
			at, _ := found(d, lines[on])
			in := laid{on, at, Point{at.X + d.W, at.Y + d.H}}
			if at.X < tileMargin-near || at.Y < tileMargin || in.hi.X > paper.W-tileMargin+near || in.hi.Y > paper.H-tileMargin-tileFoot+near {
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
	_, pages, _ := strings.Cut(runs(t, "pdfinfo", file), "Pages:")
	fmt.Sscan(pages, &n)
	return n
}

// Of every family each piece lies on its sheet as the plan says, and nothing of it beside.
func TestSheetsHoldTheirPieces(t *testing.T) {
	for _, s := range styles.Styles {
		if s.ID == "score-list" {
			continue
		}
		depth := map[bool]string{true: "60 mm", false: "34 mm"}[s.ID == "arched-box"]
		j := made(t, s.ID, "70 mm", "70 mm", depth)
		for n := range j.Cuts[0].Sheets {
			d, _ := OfSheet(j, n)
			placed := j.Cuts[0].Sheets[n].Placed
			for _, p := range d.Paths {
				for _, q := range p.Points {
					in := slices.ContainsFunc(placed, func(it layout.Placed) bool {
						r := it.Rect
						return q.X > r.X.MM()-near && q.Y > r.Y.MM()-near && q.X < (r.X+r.W).MM()+near && q.Y < (r.Y+r.H).MM()+near
					})
					if !in {
						t.Fatalf("%s, sheet %d: %v of the %s lies beside every piece", s.ID, n+1, q, p.Piece)
					}
				}
			}
		}
	}
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
				d, _ := OfSheet(j, n)
				for _, as := range []string{"svg", "dxf", "hpgl", "gcode"} {
					if _, err := Write(j, as, What{Sheet: n + 1}, Options{}); err != nil {
						t.Errorf("%s × %s, %s: %v", l, w, as, err)
					}
				}
				for _, path := range d.Paths {
					if _, of := want[path.Piece]; of && path.Kind == Cut {
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

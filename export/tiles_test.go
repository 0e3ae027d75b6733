package export

import (
	"cmp"
	"math"
	"regexp"
	"slices"
	"strconv"
	"testing"

	"brevium/export/drawings"
	"brevium/internal/drawn"
)

// Template pages, laid on each other.

// crosses finds the crosses on a page: two short lines over each other's middle.
func crosses(got []drawn.Line) (out []drawings.Point) {
	for _, h := range got {
		mid := drawings.Point{X: (h[0] + h[2]) / 2, Y: (h[1] + h[3]) / 2}
		v := drawn.Line{mid.X, mid.Y - crossArm, mid.X, mid.Y + crossArm}
		if h.Is(drawn.Line{mid.X - crossArm, mid.Y, mid.X + crossArm, mid.Y}, 0.003) && len(drawn.AllFound([]drawn.Line{v}, got, 0.003)) == 0 {
			out = append(out, mid)
		}
	}
	return out
}

// Pages of a tiled piece are laid over each other as the maker lays them, cross on cross, and
// from nothing but what stands on them: then the lines that two pages share lie on each other,
// and all together are the piece. Tried at every join, of both papers, lying and standing.
func TestTilesLaidCrossOnCross(t *testing.T) {
	joins := 0
	for n, paper := range Formats {
		for i, size := range [][3]string{{"200 mm", "120 mm", "80 mm"}, {"120 mm", "330 mm", "40 mm"}, {"220 mm", "90 mm", "95 mm"}} {
			j := drawn.Job(t, "tray-lid", size[0], size[1], size[2], "card.sheet", "60 cm x 60 cm")
			name := []string{"base", "lid"}[(n+i)%2]
			pdf, err := Templates(j, What{Piece: name}, Options{Paper: paper})
			if err != nil {
				t.Fatal(err)
			}
			d, _ := drawingOf(j, What{Piece: name})
			joins += laidTogether(t, paper.ID+" "+name, drawn.Kept(t, "t.pdf", pdf), d)
		}
	}
	if joins < 20 {
		t.Errorf("only %d joins were tried", joins)
	}
}

var pageName = regexp.MustCompile(`page ([A-Z])(\d+) of`)

// laidTogether lays the pages of a file together by their crosses and gives how many joins it
// has tried.
func laidTogether(t *testing.T, what, file string, d drawings.Drawing) (joins int) {
	t.Helper()
	type place struct{ x, y int }
	pages, at := map[place][]drawn.Line{}, map[place]drawings.Point{}
	var order []place
	for page := range pagesOf(t, file) {
		n := strconv.Itoa(page + 1)
		name := pageName.FindStringSubmatch(flat(drawn.Runs(t, "pdftotext", "-f", n, "-l", n, file, "-")))
		if name == nil {
			t.Fatalf("%s: page %s doesn't say which it is", what, n)
		}
		col, _ := strconv.Atoi(name[2])
		in := place{col - 1, int(name[1][0] - 'A')}
		pages[in], order = inPDF(t, file, page+1), append(order, in)
	}
	// The crosses of a join: the two that lie on one line, nearest to the edge that is shared.
	edge := func(in place, dx, dy int) (a, b drawings.Point) {
		all := crosses(pages[in])
		key := func(q drawings.Point) float64 { return float64(dx)*q.X + float64(dy)*q.Y }
		far := slices.MaxFunc(all, func(a, b drawings.Point) int { return cmp.Compare(key(a), key(b)) })
		all = slices.DeleteFunc(all, func(q drawings.Point) bool { return math.Abs(key(q)-key(far)) > 0.01 })
		slices.SortFunc(all, func(a, b drawings.Point) int { return cmp.Compare(a.X+a.Y, b.X+b.Y) })
		return all[0], all[len(all)-1]
	}
	at[order[0]] = drawings.Point{}
	for range order {
		for _, in := range order {
			if _, ok := at[in]; !ok {
				continue
			}
			for _, to := range [][2]int{{1, 0}, {0, 1}, {-1, 0}, {0, -1}} {
				next := place{in.x + to[0], in.y + to[1]}
				if pages[next] == nil {
					continue
				}
				a, b := edge(in, to[0], to[1])
				c, e := edge(next, -to[0], -to[1])
				if apartBy(a, b) < 20 || math.Abs(apartBy(a, b)-apartBy(c, e)) > drawn.Near {
					t.Errorf("%s: the crosses between %v and %v don't match", what, in, next)
				}
				lies := drawings.Point{X: at[in].X + a.X - c.X, Y: at[in].Y + a.Y - c.Y}
				if was, ok := at[next]; ok && apartBy(was, lies) > drawn.Near {
					t.Errorf("%s: %v lies in two places, %.2f mm apart", what, next, apartBy(was, lies))
				}
				at[next], joins = lies, joins+1
			}
		}
	}
	var all []drawn.Line
	for _, in := range order {
		for _, s := range pages[in] {
			all = append(all, drawn.Line{s[0] + at[in].X, s[1] + at[in].Y, s[2] + at[in].X, s[3] + at[in].Y})
		}
	}
	// What two pages show of a line must lie on itself.
	origin, turned, ok := foundAs(t, d, all)
	if !ok {
		t.Errorf("%s: laid together, the pages don't make up the piece", what)
	}
	for _, in := range order {
		marks := crosses(pages[in])
		lo, hi := marks[0], marks[0]
		for _, q := range marks {
			lo, hi = drawings.Point{X: min(lo.X, q.X), Y: min(lo.Y, q.Y)}, drawings.Point{X: max(hi.X, q.X), Y: max(hi.Y, q.Y)}
		}
		for _, s := range drawn.InSVG(t, turned.SVG()) {
			dx, dy := origin.X-at[in].X, origin.Y-at[in].Y
			s = drawn.Line{s[0] + dx, s[1] + dy, s[2] + dx, s[3] + dy}
			line := drawings.Path{Points: []drawings.Point{{X: s[0], Y: s[1]}, {X: s[2], Y: s[3]}}}
			if len(drawings.Within(line, lo, hi)) > 0 && len(drawn.AllFound([]drawn.Line{s}, pages[in], drawn.Near)) > 0 {
				t.Errorf("%s: page %v lacks the line %v, or has it elsewhere than its neighbours", what, in, s)
			}
		}
	}
	return joins / len(order)
}

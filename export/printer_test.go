package export

import (
	"bytes"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/pdfcpu/pdfcpu/pkg/api"

	"brevium/core/measure"
	"brevium/internal/drawn"
)

// scaleOf reads how far a page's content is stretched, across and down; 1 where it isn't. Its middle must stay.
func scaleOf(t *testing.T, pdf []byte) (across, down float64) {
	t.Helper()
	conf := *plain()
	ctx, err := api.ReadAndValidate(bytes.NewReader(pdf), &conf)
	if err != nil {
		t.Fatal(err)
	}
	_, ref, _, err := ctx.PageDict(1, false)
	if err != nil || ref == nil {
		t.Fatal(err)
	}
	dict, _, _, _ := ctx.PageDict(1, false)
	content, err := ctx.PageContent(dict, 1)
	if err != nil {
		t.Fatal(err)
	}
	m := regexp.MustCompile(`([\d.]+) 0\.0* 0\.0* ([\d.]+) (-?[\d.]+) (-?[\d.]+) cm`).FindStringSubmatch(string(content))
	if m == nil {
		return 1, 1
	}
	across, _ = strconv.ParseFloat(m[1], 64)
	down, _ = strconv.ParseFloat(m[2], 64)
	box, err := ctx.PageDims()
	if err != nil {
		t.Fatal(err)
	}
	right, _ := strconv.ParseFloat(m[3], 64)
	up, _ := strconv.ParseFloat(m[4], 64)
	x, y := box[0].Width/2, box[0].Height/2
	if math.Abs(x*across+right-x) > 0.3 || math.Abs(y*down+up-y) > 0.3 { // points; numbers are written with few places
		t.Errorf("the middle of the page goes from %.2f, %.2f to %.2f, %.2f", x, y, x*across+right, y*down+up)
	}
	return across, down
}

// What a printer prints too small or too large is drawn so much larger or smaller: on its paper everything is true.
func TestPrintersAreCorrected(t *testing.T) {
	j := drawn.Job(t, "tray-lid", "100 mm", "80 mm", "40 mm")
	for _, r := range []Printer{{}, {"hall", 0.992, 0.994}, {"shed", 1.013, 1}, {"attic", 0.95, 1.05}} {
		templates, err := Templates(j, What{}, Options{Paper: Formats[0], Printer: r})
		if err != nil {
			t.Fatal(err)
		}
		page, err := TestPage(Formats[1], measure.Inches, r, false)
		if err != nil {
			t.Fatal(err)
		}
		labels, err := Labels([]Label{{Title: "Honey"}}, LabelSheets[0], 1, r)
		if err != nil {
			t.Fatal(err)
		}
		want := [2]float64{1, 1}
		if !r.True() {
			want = [2]float64{r.Across, r.Down}
		}
		for name, pdf := range map[string][]byte{"templates": templates, "test page": page, "labels": labels} {
			x, y := scaleOf(t, pdf)
			if math.Abs(x*want[0]-1) > 2e-4 || math.Abs(y*want[1]-1) > 2e-4 {
				t.Errorf("%s for %+v: drawn %.5f by %.5f, which comes out %.5f by %.5f", name, r, x, y, x*want[0], y*want[1])
			}
		}
	}
}

// Every layout lies on its paper, its labels apart from each other; what is written stays on its label, however long.
func TestLabelSheets(t *testing.T) {
	seen := map[string]bool{}
	for _, l := range LabelSheets {
		paper := FormatOf(l.Paper)
		if seen[l.ID] || l.Count() < 4 || paper.ID != l.Paper {
			t.Errorf("%+v", l)
		}
		seen[l.ID] = true
		x, y := l.Corner(0)
		lastX, lastY := l.Corner(l.Count() - 1)
		if x < 0 || y < 0 || math.Abs(lastX+l.W+x-paper.W) > 1e-6 || math.Abs(lastY+l.H+y-paper.H) > 1e-6 {
			t.Errorf("%s: from %.2f, %.2f to %.2f, %.2f on %v", l.ID, x, y, lastX+l.W, lastY+l.H, paper)
		}
		for _, of := range []Label{{Title: "Honey"}, {Title: strings.Repeat("Quince and rosehip ", 12),
			Lines: []string{"6 × honey jar", strings.Repeat("to be kept cool and dry ", 20)}}} {
			for first, pages := range map[int]int{1: 1, l.Count(): 2, -3: 1, 999: 2} {
				pdf, err := Labels([]Label{of, of}, l, first, Printer{})
				if err != nil {
					t.Fatal(err)
				}
				if n, err := api.PageCount(bytes.NewReader(pdf), plain()); err != nil || n != pages {
					t.Errorf("%s from %d: %d pages (%v), want %d", l.ID, first, n, err, pages)
				}
			}
		}
	}
	if got := fmt.Sprint(LabelSheetsFor(FormatOf("letter"))[0].Paper, LabelSheetOf("none").ID); got != "lettera4-21" {
		t.Error(got)
	}
}

package export

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"math"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/pdfcpu/pdfcpu/pkg/api"

	"brevium/core/request"
	"brevium/core/sets"
	"brevium/draw/pen"
	"brevium/export/drawings"
	"brevium/internal/drawn"
)

// The project sheet, read with poppler: its paper, its title and tags, its fonts, and every
// sentence that a maker needs of it.
func TestProjectSheet(t *testing.T) {
	for _, paper := range Formats {
		j := drawn.Job(t, "tray-lid", "90 mm", "70 mm", "40 mm", "copies", "3", "tools.adhesive", "glue")
		pdf, err := Project(j, Options{Paper: paper, Both: true, Shop: request.Default})
		if err != nil {
			t.Fatal(err)
		}
		file := drawn.Kept(t, "p.pdf", pdf)
		info := drawn.Runs(t, "pdfinfo", file)
		for _, says := range []string{"Title:           Fair box", "Tagged:          yes"} {
			if !strings.Contains(info, says) {
				t.Errorf("%s: not %q in\n%s", paper.ID, says, info)
			}
		}
		isOf(t, info, paper.W, paper.H)
		for _, font := range strings.Split(strings.TrimSpace(drawn.Runs(t, "pdffonts", file)), "\n")[2:] {
			if f := strings.Fields(font); !slices.Equal(f[len(f)-5:len(f)-2], []string{"yes", "no", "yes"}) &&
				!slices.Equal(f[len(f)-5:len(f)-2], []string{"yes", "yes", "yes"}) {
				t.Errorf("a font that is not embedded, or whose text can't be taken: %s", font)
			}
		}
		text := flat(drawn.Runs(t, "pdftotext", "-layout", file, "-"))
		for _, says := range []string{"Fair box", "Tray and lift-off lid, 3 of them", "Materials", "Cut list", "From the sheets",
			"Score 40 mm (1 9/16 in) from all four edges", "3 pieces 170 mm", "Make 3 of everything", "fingers behind the guard",
			"Check: the walls meet at the corner", "Glue map", "your local rules", "100 mm; below it 4 in"} {
			if !strings.Contains(text, says) {
				t.Errorf("%s does not say %q", paper.ID, says)
			}
		}
		if structure := drawn.Runs(t, "pdfinfo", "-struct", file); strings.Count(structure, "Figure") < 20 || !strings.Contains(structure, "H1") {
			t.Errorf("hardly anything is tagged:\n%.400s", structure)
		}
	}
}

// isOf checks how large the pages are, in millimetres.
func isOf(t *testing.T, info string, w, h float64) {
	t.Helper()
	var x, y float64
	_, size, _ := strings.Cut(info, "Page size:")
	if _, err := fmt.Sscanf(strings.TrimSpace(size), "%g x %g pts", &x, &y); err != nil || math.Abs(x*25.4/72-w) > 0.01 ||
		math.Abs(y*25.4/72-h) > 0.01 {
		t.Errorf("%g by %g mm, not %g by %g", x*25.4/72, y*25.4/72, w, h)
	}
}

// flat puts what a reader broke into lines together again.
func flat(s string) string { return strings.Join(strings.Fields(s), " ") }

// What is chosen stands on the sheet and nothing else; the cautions stand at their steps always.
func TestProjectParts(t *testing.T) {
	j := drawn.Job(t, "tray-lid", "90 mm", "70 mm", "40 mm")
	titles := map[string]string{"materials": "Materials", "cuts": "Cut list", "layout": "From the sheets", "cards": "Score cards",
		"steps": "Steps", "glue": "Glue map", "cautions": "Cautions and warnings", "cost": "What it costs",
		"templates": "Print at 100 %"}
	for id, title := range titles {
		pdf, err := Project(j, Options{Paper: Formats[0], Parts: []string{id}, Shop: request.Default})
		if err != nil {
			t.Fatal(err)
		}
		text := drawn.Runs(t, "pdftotext", drawn.Kept(t, "p.pdf", pdf), "-")
		for other, says := range titles {
			if strings.Contains(text, says) != (other == id) && !(id == "steps" && says == "Materials") {
				t.Errorf("%s (%s): %q is there: %v", id, title, says, other != id)
			}
		}
		if card := j.Cuts[0].Card.Title; id == "cost" && !strings.Contains(flat(text), "to buy "+card) {
			t.Errorf("the costs don't say what is bought of %s", card)
		}
		if strings.Contains(text, "fingers behind the guard") != (id == "steps" || id == "cautions") {
			t.Errorf("%s: the blade's caution", id)
		}
	}
	ctx, err := api.ReadContext(bytes.NewReader(mustProject(t, j)), plain())
	if err != nil || fmt.Sprint(ctx.RootDict["Lang"]) != "(en)" {
		t.Errorf("language %v %v", ctx.RootDict["Lang"], err)
	}
}

func mustProject(t testing.TB, j sets.Job) []byte {
	pdf, err := Project(j, Options{Paper: Formats[0], Shop: request.Default})
	if err != nil {
		t.Fatal(err)
	}
	return pdf
}

// A slip lies in its box, as it is or folded as it says, and tells both units.
func TestSlipLiesInItsBox(t *testing.T) {
	for _, size := range [][3]string{{"90 mm", "70 mm", "40 mm"}, {"46 mm", "40 mm", "120 mm"}, {"160 mm", "120 mm", "30 mm"},
		{"250 mm", "36 mm", "30 mm"}, {"24 mm", "20 mm", "20 mm"}} {
		j := drawn.Job(t, "tray-lid", size[0], size[1], size[2], "card.sheet", "30x30")
		w, h, folds := SlipSize(j)
		in := j.Plans[0].Box.Inside
		a, b := w, h
		switch {
		case strings.Contains(folds, "unfolded"):
		case strings.Contains(folds, "Roll it up"):
			if in.Width.MM() > 22 {
				t.Errorf("%v: %s", size, folds)
			}
			continue
		default:
			ways := strings.Split(folds, ", then across ")
			for i, side := range []*float64{&a, &b} {
				for n, word := range []string{"two", "three", "four"} {
					if len(ways) == 2 && strings.Contains(ways[i], "in "+word) || len(ways) == 1 && i == 0 && strings.Contains(folds, "in "+word) {
						*side /= float64(n + 2)
					}
				}
			}
		}
		sides := []float64{in.Length.MM(), in.Width.MM(), in.Depth.MM()}
		slices.Sort(sides)
		if max(a, b) > sides[2] || min(a, b) > max(sides[1], in.Width.MM()) {
			t.Errorf("%v: %g by %g, folded %q, does not lie in %v", size, w, h, folds, sides)
		}
		pdf, err := Slip(j, false)
		if err != nil {
			t.Fatal(err)
		}
		file := drawn.Kept(t, "s.pdf", pdf)
		isOf(t, drawn.Runs(t, "pdfinfo", file), w, h)
		if text := flat(drawn.Runs(t, "pdftotext", file, "-")); !strings.Contains(text, " in)") || !strings.Contains(text, " mm") {
			t.Errorf("%v: not in both units: %.300s", size, text)
		}
	}
}

// squeezed is a text without its blanks, which lines that are broken lose.
func squeezed(text string) string { return strings.Join(strings.Fields(text), "") }

// A plan that is not proved says so on every page, in every file, and no machine gets it.
func TestUnprovedSaysSo(t *testing.T) {
	j := unproved(t)
	for _, as := range []string{"pdf", "slip", "templates"} {
		f, err := Write(j, as, What{}, Options{Paper: Formats[0], Shop: request.Default})
		if err != nil {
			t.Fatal(err)
		}
		file := drawn.Kept(t, "u.pdf", f.Data)
		for i, page := range strings.Split(strings.TrimSuffix(drawn.Runs(t, "pdftotext", file, "-"), "\f"), "\f") {
			if !strings.Contains(squeezed(page), squeezed(j.Warning())) {
				t.Errorf("%s, page %d does not say what isn't proved: %.300s", as, i+1, page)
			}
		}
	}
	for _, as := range []string{"svg", "dxf"} {
		if f, err := Write(j, as, What{Piece: "base"}, Options{}); err != nil || !strings.Contains(string(f.Data), "A check failed") {
			t.Errorf("%s does not say that it isn't proved: %v", as, err)
		}
	}
	for _, as := range []string{"hpgl", "gcode"} {
		if f, err := Write(j, as, What{}, Options{}); err == nil || len(f.Data) > 0 || !strings.Contains(err.Error(), "DON'T CUT THIS") {
			t.Errorf("%s was written: %v", as, err)
		}
	}
	names := zipNames(t, j)
	forMachine := func(n string) bool { return strings.HasPrefix(n, "machine/") }
	if !slices.Contains(names, "DO-NOT-CUT.txt") || slices.ContainsFunc(names, forMachine) {
		t.Errorf("%v", names)
	}
}

// zipNames are the files of a zip, each read to its end.
func zipNames(t *testing.T, j sets.Job) (names []string) {
	data, err := Zip(j, Options{Paper: Formats[0], Shop: request.Default})
	if err != nil {
		t.Fatal(err)
	}
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range z.File {
		r, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		if n, err := io.Copy(io.Discard, r); err != nil || n == 0 {
			t.Errorf("%s: %d bytes, %v", f.Name, n, err)
		}
		if slices.Contains(names, f.Name) {
			t.Errorf("%s is there twice", f.Name)
		}
		names = append(names, f.Name)
	}
	return names
}

// Every box of the fair, plain, dressed or a set, can be handed on whole.
func TestZipOfTheFair(t *testing.T) {
	for _, name := range []string{"Thank-you gift, dressed", "Tansy tower"} {
		names := zipNames(t, drawn.Fair(t, name))
		for _, want := range []string{"box.brevium.json", "sheets/sheet-1.svg", "sheets/sheet-1.dxf", "machine/sheet-1.hpgl",
			"machine/sheet-1.gcode"} {
			if !slices.Contains(names, want) {
				t.Errorf("%s: no %s in %v", name, want, names)
			}
		}
	}
}

func BenchmarkProject(b *testing.B) {
	j := drawn.Fair(b, "Thank-you gift, dressed")
	for b.Loop() {
		mustProject(b, j)
	}
}

// Where one box of a set is not proved, the sheet doesn't say that it is.
func TestOneUnprovedOfASet(t *testing.T) {
	j := drawn.Fair(t, "Tansy tower")
	said := func() string {
		pdf, err := Project(j, Options{Paper: Formats[0], Parts: []string{"cuts"}})
		if err != nil {
			t.Fatal(err)
		}
		return flat(drawn.Runs(t, "pdftotext", drawn.Kept(t, "set.pdf", pdf), "-"))
	}
	if says := said(); !strings.Contains(says, "checks passed") {
		t.Errorf("%.300s", says)
	}
	j.Plans[len(j.Plans)-1].Checks[0].Holds = false
	if says := said(); strings.Contains(says, "checks passed") || !strings.Contains(says, "DON'T CUT THIS") {
		t.Errorf("%.300s", says)
	}
}

// A box of which pieces are larger than their sheet is told as it is made: of halves and a strip, in
// the cut list, on the score card, in the steps and in every file; nowhere stands a size that no
// sheet has.
func TestTwoHalves(t *testing.T) {
	j := drawn.Job(t, "tray-lid", "190 mm", "150 mm", "50 mm", "card.sheet", "a4", "card.join", "yes", "tools.adhesive", "glue")
	p := j.Plans[0]
	text := flat(drawn.Runs(t, "pdftotext", drawn.Kept(t, "h.pdf", mustProject(t, j)), "-"))
	for _, says := range []string{"Base, first half", "Base, second half", "Base, joint strip", "Stick the joint strip over the joint",
		"Join: base"} {
		if !strings.Contains(text, says) {
			t.Errorf("the project sheet doesn't say %q", says)
		}
	}
	for _, piece := range p.Box.Pieces() {
		if whole := p.Say(piece.Width) + " × " + p.Say(piece.Height); p.Joined(piece) && strings.Contains(text, whole) {
			t.Errorf("%s is told, which no sheet has", whole)
		}
	}
	joined := 0
	for _, d := range drawings.Drawings(j) {
		if min(d.W, d.H) > 210 || max(d.W, d.H) > 297 {
			t.Errorf("the drawing %s is %.0f × %.0f mm", d.Name, d.W, d.H)
		}
		if err := d.Check(); err != nil {
			t.Error(err)
		}
		if strings.Contains(d.Name, "half") {
			joined++
		}
	}
	if _, err := Write(j, "svg", What{Piece: "base"}, Options{}); err != nil || joined < 2 {
		t.Errorf("%d halves; %v", joined, err)
	}
}

// A piece with a window is drawn on paper, with its hole in it, and a line of many strokes is drawn too.
func TestHolesOnPaper(t *testing.T) {
	p := newPaper("", 210, 297, 10, "")
	p.turn()
	p.pdf.SetCompression(false)
	square := func(at, side float64) pen.Path {
		return pen.Ring([][2]float64{{at, at}, {at + side, at}, {at + side, at + side}, {at, at + side}})
	}
	pt := &painter{paper: p, k: 1}
	twice := append(square(0, 90), square(30, 30)...)
	pt.shape(style{"fill": "#aabbcc", "stroke": "#000000"}, twice)
	pt.shape(style{"fill": "#aabbcc"}, twice)
	pt.shape(style{"fill": "none", "stroke": "#000000"}, twice)
	var b bytes.Buffer
	if err := p.pdf.Output(&b); err != nil {
		t.Fatal(err)
	}
	var does []string
	for _, m := range regexp.MustCompile(`(?m)^h\n(\S+)$`).FindAllStringSubmatch(b.String(), -1) {
		if m[1] != "h" {
			does = append(does, m[1])
		}
	}
	if fmt.Sprint(does) != "[B* f* S]" {
		t.Errorf("drawn by %q", does)
	}
}

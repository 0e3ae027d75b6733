package draw

import (
	"fmt"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"brevium/core/style"
	"brevium/draw/pen"
	"brevium/internal/drawn"
)

// apart finds texts of a picture that lie on each other by more than so much.
func apart(t *testing.T, what, svg string, wide, high float64) {
	t.Helper()
	boxes := textBoxes(svg)
	for i, a := range boxes {
		for _, b := range boxes[i+1:] {
			if w, h := min(a.x1, b.x1)-max(a.x0, b.x0), min(a.y1, b.y1)-max(a.y0, b.y0); w > wide && h > high {
				t.Errorf("%s: %q lies on %q (%.0f by %.0f)", what, a.text, b.text, w, h)
			}
		}
	}
}

// textBox is where a text of a drawing is about to be.
type textBox struct {
	text           string
	x0, y0, x1, y1 float64
}

var (
	textTag  = regexp.MustCompile(`<text x="([-\d.]+)" y="([-\d.]+)" class="([^"]*)" text-anchor="(\w+)"[^>]*>(.*?)</text>`)
	innerTag = regexp.MustCompile(`<[^>]+>|\x{200b}`)
)

// textBoxes finds the numbers of a drawing: flags and sizes, level ones only.
func textBoxes(svg string) (out []textBox) {
	for _, m := range textTag.FindAllStringSubmatch(svg, -1) {
		if strings.Contains(m[0], "rotate") || m[3] != "flag-text" && m[3] != "figure" {
			continue
		}
		x, _ := strconv.ParseFloat(m[1], 64)
		y, _ := strconv.ParseFloat(m[2], 64)
		text := innerTag.ReplaceAllString(m[5], "")
		w := pen.Wide(text, pen.SizeOf(m[3]))
		switch m[4] {
		case "middle":
			x -= w / 2
		case "end":
			x -= w
		}
		out = append(out, textBox{text, x, y - 12, x + w, y + 2})
	}
	return out
}

// Every score has its figure on a flat drawing, and each stands clear of the others, for any size.
func TestNumbersDoNotOverlap(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for _, style := range style.Styles {
		for range 12 {
			p := drawn.SizedOr(style.ID, 60+r.IntN(80), 45+r.IntN(50), 22+r.IntN(60))
			if !p.OK() {
				continue
			}
			boxes := textBoxes(Flat(p, "", 690, 560, nil))
			if len(boxes) < 6 {
				t.Fatalf("%s: only %d numbers", style.ID, len(boxes))
			}
			svg, scores := Flat(p, "", 690, 560, nil), 0
			for _, piece := range boxPieces(p) {
				scores += len(sorted(piece.Passes))
			}
			if flags := strings.Count(svg, `class="flags"`); flags < scores || strings.Count(svg, `class="flag-text"`) < scores {
				t.Errorf("%s %v: %d scores have %d figures", style.ID, p.Box.Size, scores, flags)
			}
			apart(t, fmt.Sprintf("%s %v", style.ID, p.Box.Size), svg, 1.5, 3)
		}
	}
}

package export

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/plan"
	"brevium/core/sets"
	"brevium/core/words"
	"brevium/draw"
)

// The instruction slip lies folded inside the box and tells whoever opens it how it was made.

// leastSlip and mostSlip bound a slip, in millimetres: what can be read, and what is paper.
const leastSlip, mostSlip = 40.0, 190.0

// leastFold is the narrowest that a slip is folded.
const leastFold = 18.0

// SlipSize is how large a slip lies in a box: a hair less than its floor, and how it is folded
// to lie there. Of a set it is the first box.
func SlipSize(j sets.Job) (w, h float64, folds string) {
	in := j.Plans[0].Box.Inside
	const ease = 4
	long, short := max(in.Length, in.Width).MM()-ease, min(in.Length, in.Width).MM()-ease
	if up := in.Depth.MM() - ease; short < leastSlip && up > short { // a tube: it stands along a wall
		long, short = max(long, up), min(long, up)
	}
	w, h = max(short, leastFold), max(long, leastFold)
	var ways []string
	for _, side := range []*float64{&w, &h} {
		*side = math.Floor(*side)
		n := 1
		for *side*float64(n) < 70 {
			n++
		}
		*side = min(max(*side*float64(n), leastSlip), mostSlip)
		if n > 1 {
			ways = append(ways, map[int]string{2: "in two", 3: "in three", 4: "in four"}[min(n, 4)])
		}
	}
	if short < leastFold {
		return w, h, "The box is too small for a folded slip. Roll it up."
	}
	folds = "It fits in the box unfolded."
	if len(ways) > 0 {
		folds = "Fold it " + strings.Join(ways, ", then across ") + " to fit in the box."
	}
	return w, h, folds
}

// Slip writes the slip as PDF, every length in both units.
func Slip(j sets.Job, american bool) ([]byte, error) {
	w, h, folds := SlipSize(j)
	j = j.InBoth()
	p := project{newPaper(called(j)+": how it is made", w, h, 4, j.Warning()), j, Options{Both: true}}
	p.spell = spelling(j, american)
	p.turn()
	p.pdf.SetTextColor(24, 74, 77)
	p.lines("H1", "heading", "", 11, called(j))
	p.pdf.SetTextColor(42, 37, 32)
	small := func(s string) { p.lines("P", "text", "", 7, s) }
	pic := min(w-2*p.margin, 46, (h-2*p.margin)/0.78)
	p.room(pic * 0.78)
	p.figure(draw.Made(j.Plans[0], 1, 320, 250), "The finished box, open.", (w-pic)/2, p.y, pic, pic*0.78)
	p.y += pic*0.78 + 1
	p.boxes(func(of *plan.Plan, name string) {
		title := of.Style.Title
		if name != "" {
			title = words.Capital(name) + ": " + words.Small(title)
		}
		small(title + ", outside " + p.dims(of, of.Box.Outside) + ".")
		for _, c := range of.Guide.Cards {
			p.y += 0.8
			p.lines("H2", "text", "B", 7, words.Capital(words.Plain(c.Piece)))
			small(strings.Join(c.Says, " "))
		}
		p.y += 1
	})
	for i, s := range j.Steps {
		if s.Title == "Score" || s.Title == "Trim" {
			continue
		}
		head := s.Title
		if s.Piece != "" {
			head += ", " + words.Plain(s.Piece)
		}
		p.y += 0.8
		p.lines("H2", "text", "B", 7, fmt.Sprintf("%d. %s", i+1, head))
		small(strings.Join(s.Says, " ") + " " + s.Caution())
	}
	p.y += 1
	small(folds)
	return p.bytes()
}

// Package machine is a small cutting machine, simulated: it reads HPGL and plain G-code,
// checks them, draws the path as it runs, takes the time a real one would, and jams or runs
// out when it is asked to. It is talked to over HTTP (see docs/machine.md), so that a real one
// can take its place; it knows nothing of boxes.
package machine

import (
	"fmt"
	"math"
	"strings"
)

// Point is a place on the bed in millimetres, right and up from its lower left corner.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

func (p Point) from(q Point) float64 { return math.Hypot(p.X-q.X, p.Y-q.Y) }

// Tools of the machine.
const (
	Scorer = 1
	Knife  = 2
)

// Stroke is one run of a tool that is down.
type Stroke struct {
	Tool   int     `json:"tool"`
	Points []Point `json:"points"`
}

// Long is how long it is.
func (s Stroke) Long() (sum float64) {
	for i := 1; i < len(s.Points); i++ {
		sum += s.Points[i].from(s.Points[i-1])
	}
	return sum
}

// closed says whether it comes back to where it began.
func (s Stroke) closed() bool {
	return len(s.Points) > 3 && s.Points[0].from(s.Points[len(s.Points)-1]) < 0.01
}

// Program is a job that was read.
type Program struct {
	Name    string   `json:"name"`
	W, H    float64  `json:"-"` // of the sheet, as the job says; 0 where it doesn't
	Strokes []Stroke `json:"strokes"`
	Warning string   `json:"-"` // the job itself says that it is not to be cut
}

// The most a job holds.
const (
	MostBytes  = 8 << 20
	MostPoints = 400_000
)

// Bed is how large a sheet the machine takes, in millimetres.
type Bed struct{ W, H float64 }

// unproved is how a job says that its plan does not hold.
const unproved = "NOT PROVED"

// Check lists why a program can't be run: what leaves the bed or the sheet, tools in the wrong
// order, what is worked on after it was cut free.
func (p Program) Check(bed Bed) (why []string) {
	if p.Warning != "" {
		why = append(why, "The job says itself that it must not be cut: "+p.Warning)
	}
	if len(p.Strokes) == 0 {
		return append(why, "There is nothing to score or cut in this job.")
	}
	w, h := bed.W, bed.H
	if p.W > 0 && p.H > 0 {
		if p.W > bed.W+0.01 || p.H > bed.H+0.01 {
			why = append(why, fmt.Sprintf("The sheet is %g × %g mm and the bed %g × %g mm: cut it smaller first.", p.W, p.H, bed.W, bed.H))
		}
		w, h = min(w, p.W), min(h, p.H)
	}
	if out, ok := p.outside(w, h); ok {
		why = append(why, fmt.Sprintf("The path leaves the sheet at %.1f, %.1f mm.", out.X, out.Y))
	}
	return append(why, p.order()...)
}

func (p Program) outside(w, h float64) (Point, bool) {
	for _, s := range p.Strokes {
		for _, q := range s.Points {
			if q.X < -0.01 || q.Y < -0.01 || q.X > w+0.01 || q.Y > h+0.01 {
				return q, true
			}
		}
	}
	return Point{}, false
}

// order checks that scores come before cuts, and that nothing is worked on within a rim that
// was cut round before.
func (p Program) order() (why []string) {
	var free []Stroke
	cut := false
	for i, s := range p.Strokes {
		if s.Tool != Scorer && s.Tool != Knife {
			return append(why, fmt.Sprintf("Stroke %d asks for tool %d: there are 1, the scoring tool, and 2, the knife.", i+1, s.Tool))
		}
		if s.Tool == Scorer && cut {
			return append(why, fmt.Sprintf("Stroke %d scores after something was cut: cut card moves under the scoring tool. Score first.",
				i+1))
		}
		cut = cut || s.Tool == Knife
		for _, f := range free {
			if f.holds(s) {
				return append(why, fmt.Sprintf("Stroke %d lies within a piece that was cut free before: cut what is within first.", i+1))
			}
		}
		if s.Tool == Knife && s.closed() {
			free = append(free, s)
		}
	}
	return why
}

// holds says whether another stroke lies well within a closed one.
func (s Stroke) holds(other Stroke) bool {
	for i := range other.Points {
		mid := other.Points[i]
		if i > 0 {
			mid = Point{(mid.X + other.Points[i-1].X) / 2, (mid.Y + other.Points[i-1].Y) / 2}
		}
		if !s.surrounds(mid) || s.near(mid) < 0.02 {
			return false
		}
	}
	return true
}

func (s Stroke) surrounds(at Point) (in bool) {
	for i := 1; i < len(s.Points); i++ {
		a, b := s.Points[i-1], s.Points[i]
		if (a.Y > at.Y) != (b.Y > at.Y) && at.X < a.X+(at.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X) {
			in = !in
		}
	}
	return in
}

// near is how near a stroke comes to a point.
func (s Stroke) near(at Point) float64 {
	least := math.Inf(1)
	for i := 1; i < len(s.Points); i++ {
		a, b := s.Points[i-1], s.Points[i]
		ux, uy := b.X-a.X, b.Y-a.Y
		t := min(1, max(0, ((at.X-a.X)*ux+(at.Y-a.Y)*uy)/max(ux*ux+uy*uy, 1e-12)))
		least = min(least, at.from(Point{a.X + t*ux, a.Y + t*uy}))
	}
	return least
}

// note takes what a comment of a job tells: its name, the size of its sheet, a warning.
func (p *Program) note(text string) {
	text = strings.TrimSpace(text)
	var w, h float64
	switch n, _ := fmt.Sscanf(text, "SHEET %g %g", &w, &h); {
	case n == 2:
		p.W, p.H = w, h
	case strings.Contains(text, unproved):
		p.Warning = text
	case p.Name == "":
		p.Name = text
	}
}

// sane refuses numbers that are no place on any bed.
func sane(v float64) bool { return !math.IsNaN(v) && math.Abs(v) < 1e5 }

// Package machine is a small cutting machine, simulated: it reads HPGL and plain G-code,
// checks them, draws the path as it runs, takes the time a real one would, and jams or runs
// out when it is asked to. It is talked to over HTTP (see docs/machine.md), so that a real one
// can take its place; it knows nothing of boxes.
package machine

import (
	"fmt"
	"math"
	"slices"
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

// Program is a job that was read.
type Program struct {
	Name    string   `json:"name"`
	W, H    float64  `json:"-"` // of the sheet, as the job says; 0 where it doesn't
	Strokes []Stroke `json:"strokes"`
	Warning string   `json:"-"` // the job itself says that it is not to be cut
}

// The most a job holds.
const (
	MostBytes   = 8 << 20
	MostPoints  = 400_000
	MostStrokes = 100_000
)

var errTooMany = fmt.Errorf("a job has up to %d points", MostPoints)

// Bed is how large a sheet the machine takes, in millimetres.
type Bed struct{ W, H float64 }

// unproved is how a job says that a check of its plan failed: as it is written now, and as it was once.
var unproved = []string{"DON'T CUT", "NOT PROVED"}

// Check lists why a program can't be run: what leaves the bed or the sheet, tools in the wrong
// order, what is worked on after it was cut free.
func (p Program) Check(bed Bed) (why []string) {
	if p.Warning != "" {
		why = append(why, "The job says itself that it must not be cut: "+p.Warning)
	}
	if len(p.Strokes) == 0 {
		return append(why, "There is nothing to score or cut in this job.")
	}
	if len(p.Strokes) > MostStrokes {
		return append(why, fmt.Sprintf("The job has %d strokes; this machine takes up to %d.", len(p.Strokes), MostStrokes))
	}
	w, h := bed.W, bed.H
	if p.W > 0 && p.H > 0 {
		if p.W > bed.W+0.01 || p.H > bed.H+0.01 {
			why = append(why, fmt.Sprintf("The sheet is %g × %g mm and the bed %g × %g mm: cut it smaller first.", p.W, p.H, bed.W, bed.H))
		}
		w, h = min(w, p.W), min(h, p.H)
	}
	if out, ok := p.outside(w, h); ok {
		return append(why, fmt.Sprintf("The path leaves the sheet at %.1f, %.1f mm.", out.X, out.Y))
	}
	return append(why, p.order(Bed{w, h})...)
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

// order checks that scores come before cuts, and that nothing is worked on within what was cut
// free before.
func (p Program) order(bed Bed) (why []string) {
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
	}
	if i, ok := p.loose(bed); ok {
		why = append(why, fmt.Sprintf("Stroke %d lies in a piece that is already cut free. Cut everything inside a piece before its rim.", i+1))
	}
	return why
}

// note takes what a comment of a job tells: its name, the size of its sheet, a warning.
func (p *Program) note(text string) {
	text = strings.TrimSpace(text)
	var w, h float64
	switch {
	case strings.HasPrefix(text, "SHEET "):
		fmt.Sscanf(text, "SHEET %g %g", &w, &h)
		if w > 0 && h > 0 && sane(w) && sane(h) {
			p.W, p.H = w, h
		}
	case slices.ContainsFunc(unproved, func(s string) bool { return strings.Contains(text, s) }):
		p.Warning = text
	case p.Name == "":
		p.Name = text
	}
}

// sane refuses numbers that are no place on any bed.
func sane(v float64) bool { return !math.IsNaN(v) && math.Abs(v) < 1e5 }

package bench

import (
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/words"
)

// Work is what the bench is told from: a folded box, and how it is made here.
type Work struct {
	Box      *assembly.Box
	Cards    []ScoreCard
	Cuts     []Sheets       // what is cut
	Sheets   []layout.Sheet // as it lies there
	From     string         // how many sheets of what
	Sticks   Sticks
	Tools    shop.Tools
	Burnish  string   // before the cuts, or after
	Spacers  []string // strips for the fence, and what they are cut from
	Copies   int
	Dressing Dressing
	Contents []string // what goes in, in words
	Care     []string // what that asks for, said when it goes in
	Say      func(Length) string
	found
}

// found is what is read off the box.
type found struct {
	pieces []*net.Piece
	course []Done
	tape   Tape
	lids   []string                       // pieces that go over another, last
	sides  map[*net.Piece][]Side          // where the marks of pieces are
	inner  map[*net.Piece]map[string]bool // faces that are stuck to their piece by their insides
}

// Dressing is what is put on, in and round the box, by when that is done.
type Dressing struct {
	Finishes []Finish
	Flat     []string // what is stuck on while all is flat
	Layered  []string // the pieces it is stuck on
	Before   []string // what is put on before anything goes in
	Last     []string // what goes on or round the closed box
	Standing bool     // layers go on when all stands
	Busy     bool     // the paper that goes round it is printed
}

// Guide is what the bench is told.
type Guide struct {
	Cards []ScoreCard
	Steps []Step
	Tape  Tape
}

// Tell reads off a folded box all that the bench is told.
func Tell(w Work) Guide {
	g := Glue{w.Box, w.Sticks}
	w.pieces, w.course = w.Box.Pieces(), CourseOf(w.Box, w.Contents)
	w.tape = TapeOf(w.Sticks, w.pieces, w.Copies, w.Sheets)
	w.tape.Strips = append(w.tape.Strips, g.between(w.pieces, w.Copies)...)
	w.sides, w.inner = g.sides(w.pieces), g.inside(w.pieces)
	for _, part := range w.Box.Parts {
		if part.When == net.Close && len(w.Box.Clears) > 0 && part.Piece.Part == net.Box {
			w.lids = append(w.lids, part.Name)
		}
	}
	return Guide{w.Cards, w.steps(), w.tape}
}

// layers is how many pieces are stuck on while all is flat, of one box.
func (w Work) layers() (n int) {
	for _, piece := range w.pieces {
		if piece.Part == net.Layer {
			n += piece.Count
		}
	}
	return n
}

// trims is what thick card wants trimmed by eye.
func (w Work) trims() (says []string) {
	for _, n := range w.Box.Notes {
		if strings.HasSuffix(n.Code, "-plain") {
			says = append(says, words.Capital(n.Piece)+": "+words.Small(n.Text))
		}
	}
	return says
}

// deep reports whether the box is deeper than fingers reach.
func (w Work) deep() bool {
	in := w.Box.Inside
	return in.Depth > 60*measure.Millimetre && min(in.Length, in.Width) < in.Depth
}

// joined reports whether folded pieces are stuck to each other before the box is filled.
func (w Work) joined() bool {
	c := courseTeller{w.Box, w.Contents}
	return slices.ContainsFunc(w.course, func(d Done) bool { return d.Does == "put" && len(c.stuckTo(d.Part)) > 0 })
}

// Taken is how long steps of one title took in all, and how long they were reckoned at.
type Taken struct {
	Title            string
	Seconds, Minutes float64 // taken, and reckoned
}

// Pace is how much longer or shorter than reckoned this maker takes: by title and in all.
type Pace struct {
	of  map[string]float64
	all float64
}

// sure is how many minutes of work must be recorded before they outweigh what was
// reckoned: one quick step does not make a quick maker.
const sure = 5.0

// PaceOf learns a pace from what was recorded. Nothing recorded is a pace of 1.
func PaceOf(taken []Taken) Pace {
	p := Pace{of: map[string]float64{}}
	ratio := func(seconds, minutes, otherwise float64) float64 {
		return min(4, max(0.25, (seconds/60+sure*otherwise)/(minutes+sure)))
	}
	s, m := 0.0, 0.0
	for _, t := range taken {
		s, m = s+t.Seconds, m+t.Minutes
	}
	p.all = ratio(s, m, 1)
	for _, t := range taken {
		p.of[t.Title] = ratio(t.Seconds, t.Minutes, p.all)
	}
	return p
}

// Of gives how long a step will take, in minutes.
func (p Pace) Of(s Step) float64 {
	k := p.all
	if of, ok := p.of[s.Title]; ok {
		k = of
	}
	if k == 0 {
		k = 1
	}
	return s.Minutes * k
}

// Minutes is how long all of them will take.
func (p Pace) Minutes(steps []Step) float64 {
	sum := 0.0
	for _, s := range steps {
		sum += p.Of(s)
	}
	return sum
}

// Whole is Minutes with the time to set up for each title, once.
func (p Pace) Whole(steps []Step) float64 {
	sum, known := p.Minutes(steps), map[string]bool{}
	for _, s := range steps {
		if !known[s.Title] && s.Minutes > 0 {
			sum += float64(Setup(s.Title))
		}
		known[s.Title] = true
	}
	return sum
}

// Learnt reports whether anything was recorded.
func (p Pace) Learnt() bool { return len(p.of) > 0 }

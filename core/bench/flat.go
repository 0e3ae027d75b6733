package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/words"
)

// What is done with sheets and flat pieces first: trimmed, joined, scored and burnished.

// TrimSteps are the steps that cut sheets into pieces.
func TrimSteps(all []Sheets, tools shop.Tools, say func(Length) string) []Step {
	out := Work{Cuts: all, Tools: tools, Say: say}.trimmed(nil)
	for i := range out {
		out[i] = out[i].checked(Work{})
	}
	return out
}

func (w Work) trim() []Step {
	first := []string{fmt.Sprintf("Take %s. Cut out the pieces in the order of the numbers on each sheet.", w.From)}
	first = append(append(first, w.tape.Across...), w.Spacers...)
	if w.Tools.Scissors {
		first = append(first, "Without a trimmer, mark each cut at both ends, join the marks with ruler and pencil, and cut along "+
			"it with long strokes of the scissors.")
	}
	if w.Copies > 1 {
		once := ": set the trimmer once for each size."
		if w.Tools.Scissors {
			once = ": cut one of each size, and draw around it for the others."
		}
		first = append(first, fmt.Sprintf("Make %d of everything%s", w.Copies, once))
	}
	out := w.trimmed(first)
	if len(out) == 0 {
		out = []Step{{ID: "trim", Title: "Trim", Says: first, Cautions: Take(bladeCare)}}
	}
	return out
}

func (w Work) trimmed(first []string) (out []Step) {
	for i, of := range w.Cuts {
		s := Step{ID: fmt.Sprintf("trim:%d", of.N+1), Title: "Trim", Piece: fmt.Sprintf("sheet %d", of.N+1), Count: of.Alike,
			Cautions: Take(bladeCare), Minutes: 0.5 * float64(len(of.Cuts)*of.Alike)}
		if i == 0 {
			s.Says = slices.Clone(first)
		}
		says := fmt.Sprintf("Sheet %d (%s): make %s.", of.N+1, of.Of, plural(len(of.Cuts), "cut"))
		if of.Alike > 1 {
			says = fmt.Sprintf("Sheet %d and %d more like it (%s): make %s in each.", of.N+1, of.Alike-1, of.Of,
				plural(len(of.Cuts), "cut"))
		}
		s.Says = append(s.Says, says)
		if w.Tools.Scissors {
			s.Cautions = Take(scissorsCare)
		}
		for n, c := range of.Cuts {
			says := c.Says
			if w.Tools.Scissors {
				says = c.ByHand(w.Say)
			}
			s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("Cut %d: %s", n+1, says), Look: OnSheet, N: n, At: float64(of.N)})
		}
		if len(of.Cuts) == 0 {
			s.Frames = []Frame{{Says: "Use it whole.", Look: OnSheet, N: -1, At: float64(of.N)}}
		}
		out = append(out, s)
	}
	return out
}

// join puts the halves of pieces together that no sheet holds whole.
func (w Work) join() (out []Step) {
	for _, c := range w.Cards {
		if c.Joint == nil {
			continue
		}
		s := Step{ID: "join:" + c.Piece, Title: "Join", Piece: c.Piece, Count: c.Count, Minutes: 1.5 * float64(c.Count),
			Says: []string{words.Capital(words.Plain(c.Piece)) + ": " + words.Small(c.Joint.joins(w.Say))}}
		s.Frames = []Frame{{Says: s.Says[0], Look: Scored, Piece: c.Piece, Uncut: true}}
		if w.Sticks.ID == "glue" {
			s.Cautions = Take(glueCare)
			s.Waits = []Wait{{"Hold it", w.Sticks.Press}}
		}
		out = append(out, s)
	}
	return out
}

func (w Work) score() (out []Step) {
	first := true
	for _, c := range w.Cards {
		if len(c.Turns)+len(c.Slants)+len(c.Bends) == 0 || c.Spare > 0 {
			continue // cut to size, and nothing to score; or formed on the box
		}
		s := Step{ID: "score:" + c.Piece, Title: "Score", Piece: c.Piece, Count: c.Count}
		if first {
			first = false
			s.Says = append(s.Says, "Inside face up.")
			if w.Tools.FromRight && !w.Tools.Ruler {
				s.Says = append(s.Says, "Your board is numbered from the right. Turn it so that its fence is on your right.")
			}
		}
		s.Says = append(s.Says, words.Capital(c.Piece)+": "+strings.Join(c.Says, " "))
		if c.hasTop() && !c.Ruler {
			s.Says = append(s.Says, fmt.Sprintf("Before you turn the %s, mark the top edge in pencil on the inside.",
				words.Plain(c.Piece)))
		}
		s.Frames = c.lays(w.Say)
		for _, t := range c.Turns {
			s.Minutes += 0.25 * float64(len(t.At)*c.Count)
		}
		out = append(out, s)
	}
	return out
}

func (w Work) burnish() Step {
	press := "the bone folder"
	if w.Tools.NoFolder {
		press = "the back of a spoon"
	}
	s := Step{ID: "burnish", Title: "Fold and burnish", Says: append([]string{
		"Fold along every score and press it sharp with " + press + ", with the outside on clean paper."}, w.trims()...)}
	for _, p := range w.pieces {
		if len(p.Passes)+len(p.Slanted) > 0 && w.spare(p) == 0 {
			s.Frames = append(s.Frames, Frame{Says: words.Capital(p.Name) + ": " + foldsOf(p), Look: Scored, Piece: p.Name,
				Uncut: w.Burnish == "before"})
			s.Minutes += 0.15 * float64(len(p.Passes)*p.Count*w.Copies)
		}
	}
	if len(s.Frames) == 0 {
		s.Says = w.trims()
	}
	return s
}

// foldsOf says which way a piece's scores are folded.
func foldsOf(p *net.Piece) string {
	valleys, mountains := 0, 0
	count := func(f net.Fold) {
		if f == net.Valley {
			valleys++
		} else {
			mountains++
		}
	}
	for _, l := range p.Slanted {
		if l.Kind != net.Bend {
			count(l.Fold)
		}
	}
	for _, pass := range p.Passes {
		count(pass.Fold)
	}
	switch {
	case mountains == 0:
		return "fold every score up towards you, and back."
	case valleys == 0:
		return "fold every score away from you, and back."
	}
	return fmt.Sprintf("fold %d up towards you and %d (the dotted ones) away from you.", valleys, mountains)
}
